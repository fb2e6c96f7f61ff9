"""Every error leaves as application/problem+json, with all field faults at once."""

from __future__ import annotations

import json
import re
from typing import Any

from flask import Flask, Response, request
from pydantic import BaseModel
from werkzeug.exceptions import HTTPException

from brassclock.api.problem import problem
from brassclock.core.errors import InvalidInput
from brassclock.services.app import Conflict, NotFound, Outdated
from brassclock.services.contract import UnknownKind
from brassclock.services.pages import bake as bake_page
from brassclock.store.faults import storage_fault
from brassclock.store.unit import Stale

MAX_BODY = 1_000_000
RAW = ("/api/backups", "/api/instruments/readings")  # whose bodies are not JSON alone
BODIES = (  # paths whose body may be larger, by how much, and in which words
    (r"/api/kitchens/\d+/calendars", 14_000_000, "a calendar holds 12 MB of text; export fewer months"),
    (r"/api/bakes/\d+/photos", 17_000_000, "a picture holds 12 MB; take a smaller one"),
    (r"/api/kitchens/\d+/packages", 85_000_000, "a package holds 60 MB; bring a larger one in by `brass-clock import`"),
    (r"/api/kitchens/\d+/readings", 21_000_000, "a table holds 20 MB; bring it in by years"),
    (r"/api/backups", 200_000_000, "bring a larger backup in by `brass-clock restore FILE`"),
    (r"/api/kitchens/\d+/import", 17_000_000, "a bake file holds 16 MB; leave out pictures"),
)


class FieldProblem(BaseModel):
    pointer: str
    detail: str


class Problem(BaseModel):
    """An error in the shape of RFC 9457."""

    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


def bad_request(error: InvalidInput) -> Response:
    return problem(422, "Some fields cannot be used", " ".join(f.detail for f in error.faults), error.faults)


def _check_body() -> Response | None:
    """Check a body before a handler sees it: not too large for its route, JSON, and text that can be stored."""
    if request.routing_exception is not None or request.method not in ("POST", "PUT", "PATCH"):
        return None
    most, words = next(
        (x[1:] for x in BODIES if re.fullmatch(x[0], request.path)), (MAX_BODY, "a note holds 20 000 characters")
    )
    length = request.content_length or 0
    if length > most:
        return problem(
            413, "Too large", f"{length / 1e6:.1f} MB is too much here. Send less than {most / 1e6:.0f} MB; {words}."
        )
    if request.path in RAW and not request.is_json:
        return None
    if not request.path.startswith("/api/") or not (length or request.method != "POST" or request.content_type):
        return None
    if not request.is_json:
        return problem(415, "Not JSON", "Send application/json.")
    raw = request.get_data()
    try:
        found = json.loads(raw)
        if b"\\u" in raw:
            json.dumps(found, ensure_ascii=False).encode()
    except UnicodeEncodeError:
        return problem(
            422,
            "Not text",
            "A text of it holds half a character (a lone surrogate) that nothing can store. Type it again.",
        )
    except (ValueError, RecursionError) as fault:
        return problem(400, "Not JSON", f"The body cannot be read as JSON: {str(fault)[:200]}.")
    return None


def install(flask_app: Flask) -> None:
    """Register checks and handlers on an application."""
    flask_app.before_request(_check_body)
    flask_app.register_error_handler(InvalidInput, bad_request)
    flask_app.register_error_handler(NotFound, lambda e: problem(404, "Not there", str(e)))
    flask_app.register_error_handler(UnknownKind, lambda e: problem(404, "Not a computation", str(e.args[0])))
    flask_app.register_error_handler(Conflict, lambda e: problem(409, "Not now", str(e)))
    flask_app.register_error_handler(
        Stale,
        lambda e: problem(
            503, "Busy", "Others were changing this all the while; nothing was stored. Try again in a moment."
        ),
    )

    def http(error: HTTPException) -> Any:
        if error.code == 404 and request.path.startswith("/api/"):
            return problem(404, "Not there", f"There is no {request.path[:80]}. /api/openapi.json lists what there is.")
        return problem(error.code or 500, error.name, error.description or error.name)

    def outdated(error: Outdated) -> Response:
        """Both versions: what the bake is now (None where it cannot be read), and what was to be made of it."""
        try:
            now = bake_page.bake_out(flask_app.extensions["brassclock"], error.bake_id).model_dump(mode="json")
        except Conflict:
            now = None
        more = {"current": now, "yours": request.get_json(silent=True)}
        return problem(409, "Changed meanwhile", str(error), more=more)

    def crash(error: Exception) -> Response:
        told = storage_fault(error)
        if told is not None:
            flask_app.logger.error("%s: %s", told, error)
            return problem(507, "Cannot be stored", told)
        flask_app.logger.exception("unexpected error")
        return problem(500, "A fault of ours", "Something went wrong here; nothing was stored. Try again.")

    flask_app.register_error_handler(Outdated, outdated)

    flask_app.register_error_handler(HTTPException, http)
    flask_app.register_error_handler(Exception, crash)
