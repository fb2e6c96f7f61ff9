"""The built web application: its files, and the page with a fresh nonce under a strict policy."""

from __future__ import annotations

import re
import secrets
from pathlib import Path

from flask import Blueprint, Response, request, send_from_directory
from flask.blueprints import BlueprintSetupState
from werkzeug.exceptions import NotFound
from werkzeug.routing import PathConverter

WEB = Path(__file__).resolve().parent.parent / "web"
NONCE_MARK = "__CSP_NONCE__"
NOT_BUILT = "<!doctype html><title>Brass Clock</title><p>The web application is not built. Run: make setup build"
OF_A_KITCHEN = re.compile(r"/k/(\d{1,9})/")
blueprint = Blueprint("pages", __name__)


def policy(nonce: str) -> str:
    """Content security policy: only our own files, styles by nonce."""
    return (
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-" + nonce + "'; font-src 'self'; "
        "img-src 'self' data:; connect-src 'self'; worker-src 'self'; manifest-src 'self'; base-uri 'none'; "
        "form-action 'self'; frame-ancestors 'none'"
    )


def fetched_ahead(path: str) -> str:
    """The links to what the rooms of a kitchen ask for first [HTML]: fetched beside the scripts, not after them."""
    room = OF_A_KITCHEN.match(path)
    return f'<link rel="preload" as="fetch" crossorigin href="/api/kitchens/{room[1]}/bench">' if room else ""


def page() -> Response:
    """The one page."""
    index = WEB / "index.html"
    nonce = secrets.token_urlsafe(16)
    html = index.read_text("utf-8").replace(NONCE_MARK, nonce) if index.exists() else NOT_BUILT
    html = html.replace("<title>", fetched_ahead(request.path) + "<title>", 1)
    response = Response(html, content_type="text/html; charset=utf-8")
    response.headers["Content-Security-Policy"] = policy(nonce)
    response.headers["Cache-Control"] = "no-store"
    return response


@blueprint.get("/")
def root() -> Response:
    return page()


class OutsideApi(PathConverter):
    """Any path that is none of the API's."""

    regex = r"(?!api(?:/|$))[^/].*?"


@blueprint.record_once
def _register(state: BlueprintSetupState) -> None:
    state.app.url_map.converters["outside"] = OutsideApi
    state.add_url_rule("/<outside:name>", "files", files)


def files(name: str) -> Response:
    """A built file, or the page for the application's own addresses."""
    if (WEB / name).is_file():
        response = send_from_directory(WEB, name)
        if name.startswith("assets/"):
            response.headers["Cache-Control"] = "public, max-age=31536000, immutable"
        else:
            response.headers["Cache-Control"] = "no-cache"
        return response
    if "." in name.rsplit("/", 1)[-1]:
        raise NotFound(f"There is no file {name[:80]}.")
    return page()
