"""`cue` of the contract: a surface's temperature from a sign."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from brassclock.core.errors import invalid
from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.fire.cue import DOUGH, EMISSIVITY, SMOKES, WATER, Heat, by_flour, by_infrared, by_sign, by_smoke
from brassclock.services.contract.common import Request
from brassclock.services.schemas.quantities import within


class CueRequest(Request):
    """One sign and its reading."""

    cue: Literal["flour_gold", "water_drops", "oil_smoke", "dough_pinch", "infrared"]
    seconds: Annotated[float, within(1, 600, "s")] | None = None
    behaviour: str | None = None
    fat: str | None = None
    reads_c: Annotated[float, within(-20, 900, "C")] | None = None
    material: str | None = None
    emissivity: Annotated[float, within(0.1, 1, "")] = 0.95


def _need(value: Any, pointer: str, what: str) -> Any:
    if value is None:
        raise invalid(pointer, what)
    return value


def _one_of(value: str | None, pointer: str, known: dict[str, Any]) -> str:
    if value not in known:
        raise invalid(pointer, f"“{(value or '')[:40]}” is not known. Use one of {', '.join(known)}.")
    return value


def read_cue(q: CueRequest) -> Heat:
    """The heat of a sign. Raises InvalidInput."""
    if q.cue == "flour_gold":
        return by_flour(_need(q.seconds, "/seconds", "Give the seconds until the flour was golden."))
    if q.cue == "water_drops":
        return by_sign(WATER, _one_of(q.behaviour, "/behaviour", WATER))
    if q.cue == "dough_pinch":
        return by_sign(DOUGH, _one_of(q.behaviour, "/behaviour", DOUGH))
    if q.cue == "oil_smoke":
        return by_smoke(_one_of(q.fat, "/fat", SMOKES))
    reads = _need(q.reads_c, "/reads_c", "Give what the thermometer reads.")
    return by_infrared(reads, _one_of(q.material, "/material", EMISSIVITY), q.emissivity)


SOURCES = {
    "flour_gold": (Kind.FITTED, "the browning law of the puff model"),
    "water_drops": (Kind.PRACTICE, "common practice"),
    "dough_pinch": (Kind.PRACTICE, "common practice"),
    "oil_smoke": (Kind.PRACTICE, "common practice, 20 C either way"),
    "infrared": (Kind.PUBLISHED_FROM_MEMORY, "emissivities of handbooks, from memory; Stefan and Boltzmann"),
}


def run_cue(q: CueRequest) -> dict[str, Any]:
    heat = read_cue(q)
    kind, source = SOURCES[q.cue]
    why = Why(
        "How hot it is",
        "T from the sign",
        "What a sign means on a hot surface, as a band.",
        (Input("sign", q.cue.replace("_", " "), ""),),
        kind,
        "a band, not a reading",
        ("how clean the surface is, and where on it you look",),
        (source,),
    )
    return {
        "surface_c": {"p10": heat.low_c, "p50": heat.middle_c, "p90": heat.high_c},
        "text": heat.text,
        "cautions": [],
        "why": {"surface_c": why.as_dict()},
    }
