"""`rise` and `dose` of the contract."""

from __future__ import annotations

import math
from dataclasses import asdict
from typing import Annotated, Any, Literal

from pydantic import Field

from brassclock.core.errors import FieldFault, InvalidInput, invalid
from brassclock.core.matter.dough import Dough, dough_of
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.core.rise import belief as beliefs
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.air_log import doubts
from brassclock.core.rise.dose import DoseRequest, dose_for
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch, Seed
from brassclock.core.rise.safety import Safety
from brassclock.core.rise.stages import Stage, with_all
from brassclock.core.rise.windows import MAX_HOURS, Window
from brassclock.core.rise.worth import worth
from brassclock.core.terms import Feel, Powder, ReadingKind, StarterState, Strength
from brassclock.services.contract.common import Mass, MassLine, Ratio, Request, StageEnds, Temp, mass_dough, portions_of
from brassclock.services.schemas.quantities import within
from brassclock.services.weigh.view import caution_out

FRIDGE_C = 4.0  # usual: where a stage names the fridge and no temperature
MOST_POINTS = 2000  # of a temperature path: ten days by seven minutes


class VesselRequest(Request):
    kind: Literal["ball", "tray", "tub", "none"]
    mass_g: Mass = 500.0
    lid: bool = False
    diameter_cm: Annotated[float, within(3, 200, "cm")] | None = None
    base: Literal["shelf", "wood"] = "shelf"
    count: Annotated[int, Field(ge=1, le=50)] = 1
    load_g: Mass | None = None
    fridge_litres: Annotated[float, within(20, 5000, "L")] | None = None


class StageRequest(StageEnds):
    name: str = "rise"
    place: Literal["fridge"] | None = None  # instead of a temperature
    ambient_c: Temp | None = None
    path: Annotated[list[tuple[float, float]], Field(max_length=MOST_POINTS)] | None = None
    vessel: VesselRequest | None = None
    then: Literal["knock_back", "divide", "ball"] | None = None
    add: Annotated[list[MassLine], Field(max_length=60)] = []
    add_temp_c: Temp | None = None
    target_ratio: Ratio | None = None
    too_far_maturity: Annotated[float, within(0.1, 20, "")] | None = None


class ActivityRequest(Request):
    mean: Annotated[float, within(0.05, 20, "x")] = 1.0
    sd_log: Annotated[float, within(0.01, 2, "")] = beliefs.PRIOR_SD_LOG.value


class ReadingRequest(Request):
    h: Annotated[float, within(0, 240, "h")]
    kind: ReadingKind = "ratio"
    ratio: Annotated[float, within(0.5, 6, "x")] | None = None
    feel: Feel | None = None
    temp_c: Temp | None = None


class SeedRequest(Request):
    vitality: Annotated[float, within(0.05, 3, "x")] = 1.0
    state: StarterState = "peak"
    days_cold: Annotated[float, within(0, 60, "days")] = 3.0

    def seed(self) -> Seed:
        return Seed(self.state, self.vitality, self.days_cold)


class DoughRequest(Request):
    """A dough by mass, its temperature after mixing, and the stages it goes through."""

    lines: Annotated[list[MassLine], Field(min_length=1, max_length=60)]
    strength: Strength = "kneaded"
    bloomed: bool = False
    starter: SeedRequest = SeedRequest()
    mix_temp_c: Temp
    stages: Annotated[list[StageRequest], Field(min_length=1, max_length=20)]
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    activity: ActivityRequest = ActivityRequest()
    powder: Powder = "double"


class RiseRequest(DoughRequest):
    """`rise`: a dough with its leaven, the ratios asked for, and what was read so far."""

    targets: Annotated[list[Ratio], Field(max_length=40)] = [2.0]
    readings: Annotated[list[ReadingRequest], Field(max_length=200)] = []
    by_h: Annotated[list[Annotated[float, within(0, 400, "h")]], Field(max_length=20)] = []


class LeavenDoseRequest(DoughRequest):
    """`dose`: a dough without its leaven, the leaven, and when what ratio is wanted."""

    leaven: str
    target_ratio: Ratio
    at_h: Annotated[float, within(0.1, 240, "h")]


def path_of(path: list[tuple[float, float]], pointer: str) -> tuple[tuple[float, float], ...]:
    """A temperature path that can be believed: hours from 0 on that rise, -30 to 600 C."""
    if not path:
        raise invalid(pointer, "The path is empty. Give [[hour, C], ...] from the start of the stage.")
    hours = [h for h, _ in path]
    if any(not math.isfinite(v) for point in path for v in point) or hours != sorted(set(hours)) or hours[0] < 0:
        raise invalid(pointer, "Hours of a path must be finite, from 0 on, and rise: [[0, 21], [6, 18]].")
    if any(not -30 <= c <= 600 for _, c in path):
        raise invalid(pointer, "A temperature of the path is not believable. Give -30 to 600 C.")
    return tuple(path)


def _stage(i: int, q: StageRequest) -> Stage:
    q.check(f"/stages/{i}")
    if sum(x is not None for x in (q.ambient_c, q.path, q.place)) != 1:
        raise invalid(f"/stages/{i}", "Give one of ambient_c, path and place, not several and not none.")
    if q.length_h is None:
        raise invalid(f"/stages/{i}/hours", "How long is it? Give hours, or minutes as [least, most].")
    here_c = FRIDGE_C if q.place == "fridge" else q.ambient_c
    path = path_of(q.path, f"/stages/{i}/path") if q.path is not None else ((0.0, float(here_c or 0.0)),)
    vessel = None
    if q.vessel and q.vessel.kind != "none":
        v = q.vessel
        vessel = Vessel(v.kind, v.mass_g, v.lid, v.diameter_cm, v.base, v.count, v.load_g, v.fridge_litres)
    add = portions_of(q.add, f"/stages/{i}/add")
    return Stage(q.name, q.length_h, path, vessel, q.then, q.target_ratio, q.too_far_maturity, add, q.add_temp_c)


def _stages(q: DoughRequest) -> list[Stage]:
    """The stages that are not left out. Raises InvalidInput where none is left."""
    found = [_stage(i, s) for i, s in enumerate(q.stages) if s.length_h != 0.0]
    if not found:
        raise invalid("/stages", "Every stage is left out. Give at least one with its hours.")
    return found


def _readings(q: RiseRequest, total_h: float) -> list[beliefs.Reading]:
    """The looks, checked; every fault at once."""
    faults: list[FieldFault] = []
    for i, x in enumerate(q.readings):
        if x.kind in ("ratio", "jar") and x.ratio is None:
            faults.append(FieldFault(f"/readings/{i}/ratio", "Give the ratio that was seen, as 1.4."))
        if x.kind == "feel" and x.feel is None:
            faults.append(FieldFault(f"/readings/{i}/feel", "Give not_yet, just or past."))
        if x.kind == "dough_c" and x.temp_c is None:
            faults.append(FieldFault(f"/readings/{i}/temp_c", "Give the temperature that was read, as 24.5."))
        if x.h > total_h + 1e-9:
            faults.append(
                FieldFault(
                    f"/readings/{i}/h",
                    f"{x.h:g} h lies after the stages end ({total_h:g} h). Lengthen the last stage or mend the hour.",
                )
            )
    if faults:
        raise InvalidInput(faults)
    return [beliefs.Reading(x.h, x.kind, x.ratio, x.feel, x.temp_c) for x in q.readings]


def _batch(q: DoughRequest, dough: Dough) -> Batch:
    if not dough.has_flour_and_water:
        raise invalid("/lines", "A dough needs flour and water. Add both.")
    return Batch(dough, q.strength, q.mix_temp_c, q.bloomed, q.altitude_m, q.starter.seed(), q.powder)


def run_rise(q: RiseRequest) -> dict[str, Any]:
    batch = _batch(q, mass_dough(q.lines))
    stages = _stages(q)
    total_h = sum(s.hours for s in stages)
    if total_h > MAX_HOURS:
        raise invalid("/stages", f"The stages last {total_h:g} h in all. Give up to {MAX_HOURS:g} h.")
    whole = with_all(batch, stages)
    if not any(p.ingredient.is_ferment or p.ingredient.is_other_leaven for p in whole.dough.portions):
        raise invalid("/lines", "No yeast, no starter, no soda and no powder in these lines. Add one.")
    readings = _readings(q, total_h)
    seen = rise.forecast(
        batch,
        stages,
        q.targets,
        belief=beliefs.Belief(q.activity.mean, q.activity.sd_log),
        readings=readings,
        by_h=q.by_h,
    )
    ranked = worth(batch, stages, belief=seen.belief, now_h=max((x.h for x in readings), default=0.0))
    odd = [c for s in q.stages if s.path for c in doubts(s.path)]
    return {
        "crossings": [
            {
                "ratio": c.ratio,
                "stage": c.stage,
                "h": c.h.as_dict() if c.h.p50 is not None else None,
                "p_never": c.h.p_never,
            }
            for c in seen.crossings
        ],
        "peak": {"h": seen.peak_h.as_dict(), "ratio": seen.peak_ratio},
        "windows": [_window_dict(w) for w in seen.windows],
        "trace": {name: getattr(seen.trace, name).tolist() for name in TRACES},
        "acid": asdict(seen.acid) if seen.acid else None,
        "leaven_left_frac": seen.leaven_left_frac,
        "ready_by": [{"h": h, "probability": p} for h, p in zip(q.by_h, seen.ready_by, strict=True)],
        "offsets_c": seen.offsets_c,
        "workable_h": seen.workable_h,
        "safety": _safety_dict(seen.safety) if seen.safety else None,
        "most_worth_measuring": [asdict(w) for w in ranked],
        "belief": {"mean": seen.belief.mean, "sd_log": seen.belief.sd_log},
        "cautions": [c.model_dump() for c in caution_out((*odd, *seen.cautions))],
        "why": _whys(q, bool(seen.windows)),
    }


def _safety_dict(safety: Safety) -> dict[str, Any]:
    stages = [{"name": name, "warm_h": hours} for name, hours in safety.by_stage]
    return {**asdict(safety), "stages": stages}


TRACES = (
    "h",
    "ratio",
    "ratio_p10",
    "ratio_p90",
    "maturity",
    "fill",
    "dough_c",
    "centre_c",
    "gas_ml_per_100g",
)


def _window_dict(w: Window) -> dict[str, Any]:
    bands = {
        "ready": w.ready,
        "best": w.best_from,
        "best_from": w.best_from,
        "best_to": w.best_to,
        "too_far": w.too_far,
    }
    return {"stage": w.stage, **{name: band.as_dict() for name, band in bands.items()}, "reason": w.reason}


def _whys(q: RiseRequest, has_windows: bool) -> dict[str, Any]:
    """Relations and inputs of what was computed."""
    why: dict[str, Any] = {
        "crossings": {
            "relation": "E = (V_dry + V_gas(C, T, P)) / V_ref; C' = r − leak; r by sugar, maltose, temperature and "
            "salt",
            "inputs": {"mix_temp_c": q.mix_temp_c, "altitude_m": q.altitude_m, "activity": q.activity.mean},
            "evidence": "fitted",
        },
    }
    if has_windows:
        why["windows"] = {
            "relation": "m = Q / need (ready .9, best 1 to 1.3); fill f = (C0 + Q) / capacity (too far)",
            "inputs": {"strength": q.strength},
            "evidence": "judgement",
        }
    return why


def run_dose(q: LeavenDoseRequest) -> dict[str, Any]:
    row = table().get(q.leaven)
    if row is None:
        raise invalid("/leaven", unknown_text(q.leaven))
    whole = mass_dough(q.lines)
    bare = dough_of(p for p in whole.portions if not p.ingredient.is_ferment)
    stages = tuple(_stages(q))
    request = DoseRequest(_batch(q, bare), stages, q.target_ratio, q.at_h, q.activity.mean)
    found = dose_for(request, row)
    return {
        "baker_frac": found.baker_frac,
        "mass_g": found.mass_g,
        "reason": found.reason,
        "measurable": [{"text": w.text, "grams": w.grams, "at_h": w.at_h} for w in found.measurable],
        "cautions": [],
        "why": {
            "baker_frac": {
                "relation": "largest ratio up to the hour = target, solved for ln(yeast) on the rise model",
                "inputs": {"leaven": q.leaven, "target_ratio": q.target_ratio, "at_h": q.at_h},
                "evidence": "fitted",
            }
        },
    }
