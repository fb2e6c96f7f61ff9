"""Routes as they are declared: a handler with the models of its path, query and body, and of its answers.

They are served by plain Flask, each model built when its route is first used. The OpenAPI document is made from the
same declarations by flask-openapi3 when it is asked for on the command line; the server sends the committed one, so
that a start builds no schema.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import cache, wraps
from inspect import get_annotations
from typing import Any

from flask import Blueprint, jsonify, request
from pydantic import BaseModel, ValidationError

from brassclock.core.errors import InvalidInput
from brassclock.services.schemas.faults import faults_of

Handler = Callable[..., Any]
PARTS = ("path", "query", "body")


class Routes:
    """The routes of one part of the API."""

    def __init__(self, name: str, import_name: str, url_prefix: str, tag: str) -> None:
        self.name, self.import_name, self.url_prefix, self.tag = name, import_name, url_prefix, tag
        self._declared: list[tuple[str, str, Mapping[str | int, Any], Handler]] = []

    def _declare(self, method: str, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        def keep(handler: Handler) -> Handler:
            self._declared.append((method, rule, responses, handler))
            return handler

        return keep

    def get(self, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        return self._declare("get", rule, responses)

    def post(self, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        return self._declare("post", rule, responses)

    def put(self, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        return self._declare("put", rule, responses)

    def patch(self, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        return self._declare("patch", rule, responses)

    def delete(self, rule: str, responses: Mapping[str | int, Any]) -> Callable[[Handler], Handler]:
        return self._declare("delete", rule, responses)

    def served(self) -> Blueprint:
        """The routes for Flask."""
        made = Blueprint(self.name, self.import_name, url_prefix=self.url_prefix)
        for method, rule, _, handler in self._declared:
            made.add_url_rule(rule, handler.__name__, _validated(handler), methods=[method.upper()])
        return made

    def documented(self) -> Any:
        """The same routes for flask-openapi3, which makes the document of them."""
        from flask_openapi3 import APIBlueprint, Tag

        made = APIBlueprint(self.name, self.import_name, url_prefix=self.url_prefix, abp_tags=[Tag(name=self.tag)])
        for method, rule, responses, handler in self._declared:
            getattr(made, method)(rule, responses=dict(responses))(handler)
        return made


def _validated(handler: Handler) -> Handler:
    """A handler that is given its path, query and body as their models. Raises InvalidInput with every fault."""

    @cache
    def models() -> dict[str, type[BaseModel]]:
        told = get_annotations(handler, eval_str=True)
        return {part: told[part] for part in PARTS if part in told}

    @wraps(handler)
    def answer(**view_args: Any) -> Any:
        given: dict[str, BaseModel] = {}
        for part, model in models().items():
            raw = (
                view_args
                if part == "path"
                else request.args.to_dict()
                if part == "query"
                else request.get_json(silent=True)
            )
            try:
                given[part] = model.model_validate(raw)
            except ValidationError as fault:
                raise InvalidInput(faults_of(fault)) from None
        found = handler(**given)
        if isinstance(found, tuple):
            return (jsonify(found[0]), *found[1:]) if isinstance(found[0], dict) else found
        return jsonify(found) if isinstance(found, dict) else found

    return answer
