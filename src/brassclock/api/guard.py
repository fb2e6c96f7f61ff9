"""Access check: only pages of this application, under a name that was allowed; headers that keep answers out of
caches."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Flask, Response, request

from brassclock.api.problem import problem

HOSTS = frozenset({"127.0.0.1", "localhost", "[::1]"})
MOST_PATH = 1000


def _name_and_port(netloc: str) -> tuple[str, str]:
    """(host name, port) of a host as it stands in a header."""
    if netloc.startswith("["):
        name, _, rest = netloc.partition("]")
        return f"{name}]".lower(), rest.lstrip(":")
    name, _, port = netloc.partition(":")
    return name.lower().rstrip("."), port


def install(flask_app: Flask, hosts: frozenset[str] = HOSTS) -> None:
    """Refuse other hosts (421) and pages of elsewhere (403) on every route, paths too long to be one, and caching of
    answers."""

    @flask_app.before_request
    def check() -> Response | None:
        name, port = _name_and_port(request.host)
        if name not in hosts:
            return problem(
                421,
                "Not this host",
                f"“{request.host[:60]}” is not a name of this kitchen's server. It answers to "
                f"{', '.join(sorted(hosts))}; "
                "start it with --host NAME to allow another.",
            )
        origin = request.headers.get("Origin")
        if origin is not None:
            theirs, their_port = _name_and_port(urlsplit(origin).netloc)
            if theirs not in hosts or their_port != port:
                return problem(
                    403, "Foreign origin", f"A request from “{origin[:80]}” is not taken. Open the application itself."
                )
        if len(request.path) > MOST_PATH or "\0" in request.path:
            return problem(
                404, "Not there", f"An address of {len(request.path)} characters is none of this application's."
            )
        return None

    @flask_app.after_request
    def guard(response: Response) -> Response:
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        if request.path.startswith("/api/"):
            response.headers["Cache-Control"] = "no-store"
        return response
