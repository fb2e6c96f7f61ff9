"""Field faults of what was given, in words."""

from __future__ import annotations

from pydantic import ValidationError

from brassclock.core.evidence import FieldFault


def faults_of(error: ValidationError) -> list[FieldFault]:
    """Every field fault of a validation, quoting what was given."""
    found = []
    for e in error.errors(include_url=False):
        pointer = "/" + "/".join(str(part) for part in e["loc"])
        given = str(e.get("input"))[:60]
        words = e["msg"].removeprefix("Value error, ")
        quote = "" if e["type"] in ("missing", "value_error") else f" Given: {given}."
        found.append(FieldFault(pointer, f"{words}{quote}"))
    return found
