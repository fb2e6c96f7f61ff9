"""The application factory, and the OpenAPI document as it is published."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from flask import Blueprint, Flask, Response

from brassclock import __version__
from brassclock.api import (
    access,
    backups,
    bakes,
    compute,
    day,
    drill,
    formulas,
    freezer,
    front,
    gate,
    instruments,
    kitchens,
    logbook,
    problems,
    starters,
)
from brassclock.api.door import Door
from brassclock.services.app import App

PARTS = (access, backups, instruments, kitchens, bakes, day, formulas, starters, freezer, logbook, drill, compute)
DOCUMENT = Path(__file__).with_name("openapi.json")


def create_app(app: App, hosts: frozenset[str] = front.HOSTS, *, lan: bool = False) -> Flask:
    """A Flask application over an App; it answers to these host names alone. `lan`: it asks who it is that asks."""
    flask_app = Door(__name__, static_folder=None)
    flask_app.extensions["brassclock"] = app
    front.install(flask_app, hosts)
    gate.install(flask_app, lan=lan)
    problems.install(flask_app)
    for part in PARTS:
        flask_app.register_blueprint(part.routes.served())

    about = Blueprint("about", __name__)

    @about.get("/api/openapi.json")
    def document() -> Response:
        return Response(DOCUMENT.read_text("utf-8"), mimetype="application/json")

    flask_app.register_blueprint(about)
    return flask_app


def openapi_document() -> dict[str, Any]:
    """OpenAPI 3.1 of the declared routes, with problem responses named as they are sent."""
    from flask_openapi3 import Info, OpenAPI

    flask_app = OpenAPI(
        __name__,
        info=Info(title="Brass Clock", version=__version__),
        validation_error_status="422",
        validation_error_model=problems.Problem,
        doc_ui=False,
        static_folder=None,
    )
    for part in PARTS:
        flask_app.register_api(part.routes.documented())
    document: dict[str, Any] = {k: v for k, v in flask_app.api_doc.items() if v is not None}
    components = document.get("components", {})
    if components.get("securitySchemes") is None:
        components.pop("securitySchemes", None)
    for path in document["paths"].values():
        for method, operation in path.items():
            _as_sent(method, operation)
    return document


KEY = {
    "name": "Idempotency-Key",
    "in": "header",
    "required": False,
    "schema": {"type": "string", "minLength": 8, "maxLength": 200},
    "description": "The same key answers the same thing, for a day.",
}


def _as_sent(method: str, operation: dict[str, Any]) -> None:
    """An operation with the problems that it answers, and the key that a write takes."""
    problem = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
    responses = operation.setdefault("responses", {})
    for status, response in responses.items():
        if not status.startswith("2") and status != "304":
            response["content"] = problem
    responses.setdefault("403", {"description": "Asked by a page of elsewhere", "content": problem})
    responses.setdefault("421", {"description": "Asked under a name that is not this server's", "content": problem})
    if method != "get":
        operation.setdefault("parameters", []).append(KEY)
        responses.setdefault("503", {"description": "Others were changing it all the while", "content": problem})
    if "requestBody" in operation:
        for status in ("400", "413", "415"):
            responses.setdefault(status, {"description": "Cannot be read", "content": problem})
