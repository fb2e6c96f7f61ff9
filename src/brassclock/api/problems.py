"""Every error leaves as application/problem+json, with all field faults at once."""

from __future__ import annotations

import json
from typing import Any
from urllib.parse import urlsplit

from flask import Flask, Response, request
from pydantic import BaseModel, ValidationError
from werkzeug.exceptions import HTTPException

from brassclock.core.evidence import BadRequest, FieldFault
from brassclock.services.compute import UnknownKind, faults_of
from brassclock.services.house import Missing, Refused

WRITES = ("POST", "PUT", "PATCH", "DELETE")
MAX_BODY = 1_000_000


class FieldProblem(BaseModel):
    pointer: str
    detail: str


class Problem(BaseModel):
    """What went wrong, in RFC 9457's shape."""

    title: str
    status: int
    detail: str
    errors: list[FieldProblem] = []


def problem(status: int, title: str, detail: str, faults: list[FieldFault] | None = None) -> Response:
    """A problem response."""
    body = {
        "title": title,
        "status": status,
        "detail": detail,
        "errors": [{"pointer": f.pointer, "detail": f.detail} for f in faults or []],
    }
    return Response(json.dumps(body), status, content_type="application/problem+json")


def bad_request(error: BadRequest) -> Response:
    return problem(422, "Some fields cannot be used", " ".join(f.detail for f in error.faults), error.faults)


def validation_callback(error: ValidationError) -> Response:
    """flask-openapi3 hands its validation errors here."""
    return bad_request(BadRequest(faults_of(error)))


def _check_body() -> Response | None:
    if request.routing_exception is not None:
        return None
    if request.method in WRITES:
        origin = request.headers.get("Origin")
        if origin and urlsplit(origin).netloc != request.host:
            return problem(
                403, "Foreign origin", f"A write from {origin[:80]} is not taken. Open the application itself."
            )
    if request.method in ("POST", "PUT", "PATCH") and (request.content_length or 0) > MAX_BODY:
        return problem(
            413,
            "Too large",
            f"{(request.content_length or 0) / 1e6:.1f} MB is too much. Send less than 1 MB; a note holds 20 000 characters.",
        )
    needs_body = request.method in ("POST", "PUT", "PATCH") and request.path.startswith("/api/")
    if needs_body and (request.content_length or request.method != "POST" or request.content_type):
        if not request.is_json:
            return problem(415, "Not JSON", "Send application/json.")
        try:
            json.loads(request.get_data())
        except (ValueError, RecursionError) as fault:
            return problem(400, "Not JSON", f"The body cannot be read as JSON: {fault}.")
    return None


def install(app: Flask) -> None:
    """Register checks and handlers on an application."""
    app.before_request(_check_body)
    app.register_error_handler(BadRequest, bad_request)
    app.register_error_handler(ValidationError, validation_callback)
    app.register_error_handler(Missing, lambda e: problem(404, "Not there", str(e)))
    app.register_error_handler(UnknownKind, lambda e: problem(404, "Not a computation", str(e.args[0])))
    app.register_error_handler(Refused, lambda e: problem(409, "Not now", str(e)))

    def http(error: HTTPException) -> Any:
        return problem(error.code or 500, error.name, error.description or error.name)

    def crash(error: Exception) -> Response:
        app.logger.exception("unexpected error")
        return problem(500, "A fault of ours", "Something went wrong here; nothing was stored. Try again.")

    app.register_error_handler(HTTPException, http)
    app.register_error_handler(Exception, crash)
