"""The computation by contract: one JSON request in, one JSON result out, for command line, API and tests."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from brassclock.core.evidence import BadRequest, FieldFault
from brassclock.services.compute.common import Loose
from brassclock.services.compute.cue import CueReq, run_cue
from brassclock.services.compute.day import DayReq, run_day
from brassclock.services.compute.line import LineReq, run_line
from brassclock.services.compute.mix import MixReq, run_mix
from brassclock.services.compute.puff import PuffReq, run_puff
from brassclock.services.compute.rise import DoseReq, RiseReq, run_dose, run_rise
from brassclock.services.compute.starter import StarterReq, run_starter
from brassclock.services.compute.weigh import SodaReq, WeighReq, run_soda, run_weigh

LATER = ("hold", "cause", "learn")
KINDS: dict[str, tuple[type[Loose], Callable[[Any], dict[str, Any]]]] = {
    "weigh": (WeighReq, run_weigh),
    "mix": (MixReq, run_mix),
    "rise": (RiseReq, run_rise),
    "dose": (DoseReq, run_dose),
    "starter": (StarterReq, run_starter),
    "soda": (SodaReq, run_soda),
    "day": (DayReq, run_day),
    "puff": (PuffReq, run_puff),
    "cue": (CueReq, run_cue),
    "line": (LineReq, run_line),
}


class UnknownKind(LookupError):
    """A computation that is not there (yet)."""


def _kind(kind: str) -> tuple[type[Loose], Callable[[Any], dict[str, Any]]]:
    if kind in KINDS:
        return KINDS[kind]
    later = " It is planned, not built." if kind in LATER else ""
    raise UnknownKind(f"“{kind[:40]}” is not a computation here.{later} Known are {', '.join(KINDS)}.")


def schema(kind: str) -> dict[str, Any]:
    """JSON Schema of a request."""
    return _kind(kind)[0].model_json_schema(by_alias=True)


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


def compute(kind: str, request: Any) -> dict[str, Any]:
    """Compute a request of a kind. Raises UnknownKind, or BadRequest with every fault."""
    shape, run = _kind(kind)
    try:
        parsed = shape.model_validate(request)
    except ValidationError as error:
        raise BadRequest(faults_of(error)) from None
    return run(parsed)
