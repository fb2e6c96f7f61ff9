"""An error as it is sent: application/problem+json."""

from __future__ import annotations

import json
from typing import Any

from flask import Response

from brassclock.core.errors import FieldFault


def problem(
    status: int, title: str, detail: str, faults: list[FieldFault] | None = None, more: dict[str, Any] | None = None
) -> Response:
    """A problem response; `more` are members of its own."""
    body = {
        **(more or {}),
        "title": title,
        "status": status,
        "detail": detail,
        "errors": [{"pointer": f.pointer, "detail": f.detail} for f in faults or []],
    }
    return Response(json.dumps(body), status, content_type="application/problem+json")
