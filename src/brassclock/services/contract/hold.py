"""`hold` of the contract: a bread after the heat, in its wrap, for three days."""

from __future__ import annotations

import datetime as dt
from dataclasses import asdict
from itertools import pairwise
from typing import Annotated, Any, Literal

import numpy as np
from pydantic import Field

from brassclock.core.errors import invalid
from brassclock.core.keep.hold import advice as advised
from brassclock.core.keep.hold.model import HOURS, Kept, Room, Wrapped, word
from brassclock.core.keep.hold.reheat import reheats
from brassclock.core.keep.hold.windows import Held, hold
from brassclock.core.rise.belief import Band
from brassclock.core.rise.recipe import osmolality, recipe_of
from brassclock.core.terms import Intent, Wrap
from brassclock.services.contract.common import MassLine, Request, Temp, mass_dough
from brassclock.services.keep.kept import LOSS_FRAC, USUAL_X, facts_of
from brassclock.services.schemas.quantities import within

POINTS = 160


class OnTopRequest(Request):
    """A fat or glaze put on after the heat."""

    kind: Annotated[str, Field(min_length=1, max_length=40)]
    mass_g: Annotated[float, within(0.1, 500, "g")]
    when: Literal["after_heat"] = "after_heat"


class HeldBreadRequest(Request):
    """A baked bread: its kind, mass and size after baking; what it lost, what was put on it, its dough."""

    intent: Intent = "pocket"
    mass_g: Annotated[float, within(5, 5000, "g")]
    diameter_cm: Annotated[float, within(3, 80, "cm")]
    thickness_mm: Annotated[float, within(0.5, 120, "mm")]
    moisture_loss_frac: Annotated[float, within(0, 0.4, "")] | None = None
    dressing: OnTopRequest | None = None
    lines: Annotated[list[MassLine], Field(min_length=1, max_length=60)] | None = None


class WrapRequest(Request):
    """A wrap, and from how many minutes after the heat on."""

    wrap: Wrap
    from_min: Annotated[float, within(0, 4320, "min")] = 0.0


class HoldRequest(Request):
    """`hold`: a bread, its wraps, how many lie together, the room, and when it is eaten."""

    bread: HeldBreadRequest
    wrap: Wrap | Annotated[list[WrapRequest], Field(min_length=1, max_length=12)] = "cloth"
    stack: Annotated[int, Field(ge=1, le=500)] = 1
    room_c: Annotated[Temp, Field(ge=-10, le=50)] = 21.0
    done_at: dt.datetime | None = None
    serve_at: dt.datetime | None = None


def run_hold(q: HoldRequest) -> dict[str, Any]:
    bread, room, wrapped = _bread(q.bread), Room(q.room_c), _wrapped(q)
    served_s = _served_s(q)
    found = hold(bread, wrapped, q.stack, room)
    w = found.windows
    return {
        "trace": _trace(found),
        "words": [{"at_min": s / 60, "word": said} for s, said in w.words],
        "best_from_min": _in(w.best_from, 60),
        "best_to_min": _in(w.best_to, 60),
        "good_until_h": _in(w.good_until, 3600),
        "too_stiff_by_h": _in(w.stiff_by, 3600),
        "state_at_serving": None if served_s is None else _state(found, served_s),
        "room_days": w.room_days,
        "mould_days": w.mould_days,
        "sweat_g": w.sweat_g,
        "freeze": dict(zip(("best_months", "good_months"), advised.FREEZE_MONTHS, strict=True)),
        "reheat": [asdict(x) for x in reheats(bread, found.trace.at("x", served_s or 3600.0), 1)],
        "advice": advised.advice(bread, w, q.stack, room, advised.Wanted(until_s=served_s)),
        "cautions": [],
        "why": {
            "good_until_h": {
                "relation": "softness = 100 exp(-(staling + drying + crisp crust)); under 55",
                "inputs": {"stack": q.stack, "room_c": q.room_c, "water_per_dry": bread.baked_x},
                "evidence": "judgement",
            }
        },
    }


def _bread(q: HeldBreadRequest) -> Kept:
    loss = LOSS_FRAC[q.intent] if q.moisture_loss_frac is None else q.moisture_loss_frac
    facts: dict[str, Any] = {"water_per_dry": USUAL_X}
    if q.lines is not None:
        dough = mass_dough(q.lines)
        if not dough.has_flour_and_water:
            raise invalid("/bread/lines", "A dough needs flour and water. Add both, or leave its lines out.")
        facts = {**facts_of(dough), "osmol": osmolality(recipe_of(dough, "kneaded"))}
    if facts["water_per_dry"] - loss * (1 + facts["water_per_dry"]) < 0.12:
        raise invalid(
            "/bread/moisture_loss_frac", f"{loss:.0%} is all of its water or more. Give what it lost, as 0.1."
        )
    brushed: dict[str, Any] = {"brushed": q.dressing.kind, "brushed_g": q.dressing.mass_g} if q.dressing else {}
    return Kept(
        q.intent,
        q.mass_g / (1 - loss),
        loss_frac=loss,
        diameter_m=q.diameter_cm / 100,
        height_m=q.thickness_mm / 1000,
        **facts,
        **brushed,
    )


def _wrapped(q: HoldRequest) -> Wrapped:
    if isinstance(q.wrap, str):
        return ((0.0, q.wrap),)
    found = [(60 * w.from_min, w.wrap) for w in q.wrap]
    if found[0][0] != 0 or any(b[0] <= a[0] for a, b in pairwise(found)):
        raise invalid("/wrap", "Wraps begin at 0 min and follow one another: [{wrap, from_min: 0}, ...].")
    return tuple(found)


def _served_s(q: HoldRequest) -> float | None:
    """Seconds from the heat to the table; None where that is not asked. Raises InvalidInput where it is before it."""
    if q.serve_at is None or q.done_at is None:
        return None
    if (q.serve_at.tzinfo is None) != (q.done_at.tzinfo is None):
        raise invalid("/serve_at", "Give both instants with their offset, or neither.")
    seconds = (q.serve_at - q.done_at).total_seconds()
    if not 0 <= seconds <= HOURS * 3600:
        raise invalid("/serve_at", f"{q.serve_at} is not within {HOURS:.0f} h after {q.done_at}. Give a later instant.")
    return seconds


def _in(found: Band, unit_s: float) -> dict[str, float | None]:
    return {k: None if v is None else v / unit_s for k, v in found.as_dict().items()}


def _state(found: Held, seconds: float) -> dict[str, Any]:
    soft, crisp = (found.band_at(name, seconds) for name in ("soft", "crisp"))
    return {
        "word": word(found.trace.at("crisp", seconds), found.trace.at("soft", seconds)),
        "softness": soft.as_dict(),
        "crispness": crisp.as_dict(),
    }


def _trace(found: Held) -> dict[str, list[float]]:
    """Rows thinned so that the first minutes stay close."""
    t = found.trace
    at = np.unique(np.round(np.geomspace(1, len(t.s), POINTS)).astype(int)) - 1
    columns = {"min": t.s / 60, "temp_c": t.temp_c, "softness": t.soft, "crispness": t.crisp}
    return {name: [round(float(v), 3) for v in values[at]] for name, values in columns.items()}
