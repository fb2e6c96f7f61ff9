"""The computation by contract: one JSON request in, one JSON result out, for command line, API and tests."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from pydantic import ValidationError

from brassclock.core.evidence import BadRequest
from brassclock.services.compute.common import Loose
from brassclock.services.compute.cue import CueReq, run_cue
from brassclock.services.compute.day import DayReq, run_day
from brassclock.services.compute.line import LineReq, run_line
from brassclock.services.compute.mix import MixReq, run_mix
from brassclock.services.compute.puff import PuffReq, run_puff
from brassclock.services.compute.rise import DoseReq, RiseReq, run_dose, run_rise
from brassclock.services.compute.starter import StarterReq, run_starter
from brassclock.services.compute.weigh import SodaReq, WeighReq, run_soda, run_weigh
from brassclock.services.faults import faults_of

SIMULATED = ("rise", "dose", "starter", "day", "puff")  # what integrates: compiled, or it takes long
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


def prepared(kind: str, request: Any) -> Callable[[], dict[str, Any]]:
    """A request of a kind, checked and ready to be computed. Raises UnknownKind, or BadRequest with every fault."""
    shape, run = _kind(kind)
    try:
        parsed = shape.model_validate(request)
    except ValidationError as error:
        raise BadRequest(faults_of(error)) from None
    return lambda: run(parsed)


def compute(kind: str, request: Any) -> dict[str, Any]:
    """Compute a request of a kind. Raises UnknownKind, or BadRequest with every fault."""
    return prepared(kind, request)()
