"""The computation by contract: one JSON request in, one JSON result out, for command line, API and tests."""

from __future__ import annotations

from collections.abc import Callable
from importlib import import_module
from typing import Any

from pydantic import BaseModel, ValidationError

from brassclock.core.errors import InvalidInput
from brassclock.services.schemas.faults import faults_of

SIMULATED = ("rise", "dose", "starter", "day", "puff", "drill")  # what integrates: compiled, or it takes long
KINDS: dict[str, tuple[str, str, str]] = {  # module, request, function; loaded when first asked for: a start needs none
    "weigh": ("weigh", "WeighRequest", "run_weigh"),
    "mix": ("mix", "MixRequest", "run_mix"),
    "rise": ("rise", "RiseRequest", "run_rise"),
    "dose": ("rise", "LeavenDoseRequest", "run_dose"),
    "starter": ("starter", "StarterRequest", "run_starter"),
    "read": ("read", "ReadRequest", "run_read"),
    "soda": ("weigh", "SodaRequest", "run_soda"),
    "day": ("day", "DayRequest", "run_day"),
    "puff": ("puff", "PuffRequest", "run_puff"),
    "cue": ("cue", "CueRequest", "run_cue"),
    "cause": ("cause", "CauseRequest", "run_cause"),
    "hold": ("hold", "HoldRequest", "run_hold"),
    "learn": ("keep", "LearnRequest", "run_learn"),
    "stock": ("keep", "StockRequest", "run_stock"),
    "line": ("line", "LineRequest", "run_line"),
    "drill": ("drill", "DrillRequest", "run_drill"),
}


class UnknownKind(LookupError):
    """A computation that is not there (yet)."""


def _kind(kind: str) -> tuple[type[BaseModel], Callable[[Any], dict[str, Any]]]:
    if kind in KINDS:
        module, shape, run = KINDS[kind]
        found = import_module(f"{__name__}.{module}")
        return getattr(found, shape), getattr(found, run)
    raise UnknownKind(f"“{kind[:40]}” is not a computation here. Known are {', '.join(KINDS)}.")


def schema(kind: str) -> dict[str, Any]:
    """JSON Schema of a request."""
    return _kind(kind)[0].model_json_schema(by_alias=True)


def prepared(kind: str, request: Any) -> Callable[[], dict[str, Any]]:
    """A request of a kind, checked and ready to be computed. Raises UnknownKind, or InvalidInput with every fault."""
    shape, run = _kind(kind)
    try:
        parsed = shape.model_validate(request)
    except ValidationError as error:
        raise InvalidInput(faults_of(error)) from None
    return lambda: run(parsed)


def compute(kind: str, request: Any) -> dict[str, Any]:
    """Compute a request of a kind. Raises UnknownKind, or InvalidInput with every fault."""
    return prepared(kind, request)()
