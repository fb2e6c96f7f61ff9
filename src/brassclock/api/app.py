"""The application factory, and the OpenAPI document as it is published."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Flask, Response, jsonify
from flask_openapi3 import Info, OpenAPI

from brassclock import __version__
from brassclock.api import bakes, compute, day, formulas, kitchens, pages, problems, starters
from brassclock.services.house import House


def create_app(house: House) -> Flask:
    """A Flask application over a house."""
    app = OpenAPI(
        __name__,
        info=Info(title="Brass Clock", version=__version__),
        validation_error_status="422",
        validation_error_model=problems.Problem,
        validation_error_callback=problems.validation_callback,
        doc_ui=False,
        static_folder=None,
    )
    app.extensions["house"] = house
    problems.install(app)
    for module in (kitchens, bakes, day, formulas, starters, compute):
        app.register_api(module.blueprint)

    about = Blueprint("about", __name__)

    @about.get("/api/openapi.json")
    def document() -> Response:
        return jsonify(openapi_document(app))

    app.register_blueprint(about)
    app.register_blueprint(pages.blueprint)

    @app.after_request
    def guard(response: Response) -> Response:
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "no-referrer")
        return response

    return app


def openapi_document(app: Any) -> dict[str, Any]:
    """OpenAPI 3.1 of the typed handlers, with problem responses named as they are sent."""
    document: dict[str, Any] = {k: v for k, v in app.api_doc.items() if v is not None}
    components = document.get("components", {})
    if components.get("securitySchemes") is None:
        components.pop("securitySchemes", None)
    for path in document["paths"].values():
        for operation in path.values():
            for status, response in operation.get("responses", {}).items():
                if not status.startswith("2"):
                    ref = {"schema": {"$ref": "#/components/schemas/Problem"}}
                    response["content"] = {"application/problem+json": ref}
            for status in ("400", "413", "415"):
                if "requestBody" in operation:
                    operation["responses"].setdefault(
                        status,
                        {
                            "description": "Cannot be read",
                            "content": {
                                "application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}
                            },
                        },
                    )
    return document
