"""`rise` and `dose` of the contract."""

from __future__ import annotations

import math
from typing import Annotated, Any, Literal

from pydantic import Field

from brassclock.core.cautions import caution
from brassclock.core.evidence import refuse
from brassclock.core.matter.dough import dough_of
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.core.rise import belief as beliefs
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.course import Seed
from brassclock.core.rise.dose import Wish, dose_for
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.sourdough import starter as starters
from brassclock.core.rise.worth import worth
from brassclock.core.weigh.soda import WHOLE_FLOURS
from brassclock.services.compute.common import Loose, Mass, MassLine, Ratio, Temp, mass_dough
from brassclock.services.given import within
from brassclock.services.sheets import caution_out


class VesselReq(Loose):
    kind: Literal["ball", "tray", "tub", "none"]
    mass_g: Mass = 500.0
    lid: bool = False
    diameter_cm: Annotated[float, within(3, 200, "cm")] | None = None
    base: Literal["shelf", "wood"] = "shelf"


class StageReq(Loose):
    name: str = "rise"
    hours: Annotated[float, within(0.01, 240, "h")]
    ambient_c: Temp | None = None
    path: list[tuple[float, float]] | None = None
    vessel: VesselReq | None = None
    then: Literal["knock_back", "divide", "ball"] | None = None
    target_ratio: Ratio | None = None
    too_far_maturity: Annotated[float, within(0.1, 20, "")] | None = None


class ActivityReq(Loose):
    mean: Annotated[float, within(0.05, 20, "x")] = 1.0
    sd_log: Annotated[float, within(0.01, 2, "")] = beliefs.PRIOR_SD_LOG


class ReadingReq(Loose):
    h: Annotated[float, within(0, 240, "h")]
    kind: Literal["ratio", "jar", "feel", "dough_c"] = "ratio"
    ratio: Annotated[float, within(0.5, 6, "x")] | None = None
    feel: Literal["not_yet", "just", "past"] | None = None
    temp_c: Temp | None = None


class SeedReq(Loose):
    vitality: Annotated[float, within(0.05, 3, "x")] = 1.0
    state: Literal["peak", "ripe", "chilled"] = "peak"
    days_cold: Annotated[float, within(0, 60, "days")] = 3.0

    def seed(self) -> Seed:
        return Seed(self.state, self.vitality, self.days_cold)


class DoughReq(Loose):
    """A dough by mass, its temperature after mixing, and the stages it goes through."""

    lines: Annotated[list[MassLine], Field(min_length=1, max_length=60)]
    strength: Literal["developed", "kneaded", "enriched", "wet_unkneaded", "wholemeal"] = "kneaded"
    bloomed: bool = False
    starter: SeedReq = SeedReq()
    mix_temp_c: Temp
    stages: Annotated[list[StageReq], Field(min_length=1, max_length=20)]
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    activity: ActivityReq = ActivityReq()


class RiseReq(DoughReq):
    """`rise`: a dough with its leaven, the ratios asked for, and what was read so far."""

    targets: list[Ratio] = [2.0]
    readings: list[ReadingReq] = []


class DoseReq(DoughReq):
    """`dose`: a dough without its leaven, the leaven, and when what ratio is wanted."""

    leaven: str
    target_ratio: Ratio
    at_h: Annotated[float, within(0.1, 240, "h")]


def _stage(i: int, q: StageReq) -> rise.Stage:
    if (q.ambient_c is None) == (q.path is None):
        raise refuse(f"/stages/{i}", "Give either ambient_c or path, not both and not neither.")
    path = tuple(q.path) if q.path else ((0.0, float(q.ambient_c or 0.0)),)
    if not path:
        raise refuse(f"/stages/{i}/path", "The path is empty. Give [[hour, C], ...] from the start of the stage.")
    hours = [h for h, _ in path]
    if any(not math.isfinite(v) for point in path for v in point) or hours != sorted(set(hours)) or hours[0] < 0:
        raise refuse(f"/stages/{i}/path", "Hours of a path must be finite, from 0 on, and rise: [[0, 21], [6, 18]].")
    if any(not -30 <= c <= 600 for _, c in path):
        raise refuse(f"/stages/{i}/path", "A temperature of the path is not believable. Give -30 to 600 C.")
    vessel = None
    if q.vessel and q.vessel.kind != "none":
        v = q.vessel
        vessel = Vessel(v.kind, v.mass_g, v.lid, v.diameter_cm, v.base)
    return rise.Stage(q.name, q.hours, path, vessel, q.then, q.target_ratio, q.too_far_maturity)


def run_rise(q: RiseReq) -> dict[str, Any]:
    dough = mass_dough(q.lines)
    if not dough.flour_g or not dough.water_g:
        raise refuse("/lines", "A dough needs flour and water. Add both.")
    if not any(p.ingredient.is_yeast or p.ingredient.is_starter for p in dough.portions):
        raise refuse(
            "/lines", "No yeast and no starter in these lines. Add one; soda and powder are computed by `soda`."
        )
    stages = [_stage(i, s) for i, s in enumerate(q.stages)]
    readings = []
    for i, x in enumerate(q.readings):
        if x.kind in ("ratio", "jar") and x.ratio is None:
            raise refuse(f"/readings/{i}/ratio", "Give the ratio that was seen, as 1.4.")
        if x.kind == "feel" and x.feel is None:
            raise refuse(f"/readings/{i}/feel", "Give not_yet, just or past.")
        if x.kind != "dough_c":
            readings.append(beliefs.Reading(x.h, x.kind, x.ratio, x.feel))
    seen = rise.forecast(
        dough, q.strength, q.mix_temp_c, stages, q.targets, bloomed=q.bloomed, altitude_m=q.altitude_m,
        belief=beliefs.Belief(q.activity.mean, q.activity.sd_log), readings=readings, seed=q.starter.seed(),
    )  # fmt: skip
    ranked = worth(
        dough, q.strength, q.mix_temp_c, stages, bloomed=q.bloomed, altitude_m=q.altitude_m, belief=seen.belief,
        seed=q.starter.seed(), now_h=max((x.h for x in readings), default=0.0),
    )  # fmt: skip
    t = seen.trace
    window = seen.windows[0] if seen.windows else None
    why = {
        "crossings": {
            "relation": "E = (V_dry + V_gas(C, T, P)) / V_ref; C' = r − leak; r by sugar, maltose, temperature and salt",
            "inputs": {"mix_temp_c": q.mix_temp_c, "altitude_m": q.altitude_m, "activity": q.activity.mean},
            "evidence": "fitted",
        },
        "windows": {
            "relation": "m = Q / need (ready .9, best 1 to 1.3); fill f = (C0 + Q) / capacity (too far)",
            "inputs": {"strength": q.strength},
            "evidence": "judgement",
        },
    }
    return {
        "crossings": [
            {
                "ratio": c.ratio,
                "stage": c.stage,
                "h": None if c.h.p50 is None else c.h.as_dict(),
                "p_never": c.h.p_never,
            }
            for c in seen.crossings
        ],
        "peak": {"h": seen.peak_h.as_dict(), "ratio": seen.peak_ratio},
        "windows": [
            {
                "stage": w.stage,
                "ready": w.ready.as_dict(),
                "best": w.best_from.as_dict(),
                "best_from": w.best_from.as_dict(),
                "best_to": w.best_to.as_dict(),
                "too_far": w.too_far.as_dict(),
            }
            for w in seen.windows
        ],
        "trace": {
            "h": t.h.tolist(),
            "ratio": t.ratio.tolist(),
            "ratio_p10": t.ratio_p10.tolist(),
            "ratio_p90": t.ratio_p90.tolist(),
            "maturity": t.maturity.tolist(),
            "fill": t.fill.tolist(),
            "dough_c": t.dough_c.tolist(),
            "centre_c": t.centre_c.tolist(),
            "gas_ml_per_100g": t.gas_ml_per_100g.tolist(),
        },
        "acid": None if seen.acid is None else {"ph": seen.acid.ph, "tta_ml": seen.acid.tta_ml, "word": seen.acid.word},
        "leaven_left_frac": None,
        "workable_h": seen.workable_h,
        "safety": None
        if seen.safety is None
        else {
            "warm_h": seen.safety.warm_h,
            "limit_h": seen.safety.limit_h,
            "reached_at_h": seen.safety.reached_at_h,
        },
        "most_worth_measuring": [
            {"what": w.what, "words": w.words, "at_h": w.at_h, "narrows_min": w.narrows_min} for w in ranked
        ],
        "belief": {"mean": seen.belief.mean, "sd_log": seen.belief.sd_log},
        "cautions": [c.model_dump() for c in caution_out(seen.cautions)],
        "why": why if window else {"crossings": why["crossings"]},
    }


def run_dose(q: DoseReq) -> dict[str, Any]:
    row = table().get(q.leaven)
    if row is None:
        raise refuse("/leaven", unknown_text(q.leaven))
    whole = mass_dough(q.lines)
    dough = dough_of(p for p in whole.portions if not (p.ingredient.is_yeast or p.ingredient.is_starter))
    if not dough.flour_g or not dough.water_g:
        raise refuse("/lines", "A dough needs flour and water. Add both.")
    stages = tuple(_stage(i, s) for i, s in enumerate(q.stages))
    wish = Wish(
        dough, q.strength, q.mix_temp_c, stages, q.target_ratio, q.at_h, q.bloomed, q.altitude_m, q.activity.mean
    )
    found = dose_for(wish, row)
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


class StarterReq(SeedReq):
    """`starter`: a feed and its temperature; or `total_g` and `peak_at_h` in place of the masses."""

    seed_g: Mass | None = None
    flour_g: Mass | None = None
    water_g: Mass | None = None
    flour: str = "bread_flour"
    total_g: Mass | None = None
    peak_at_h: Annotated[float, within(1, 48, "h")] | None = None
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    temp_c: Annotated[float, within(0, 40, "C")] | None = None
    path: list[tuple[float, float]] | None = None
    state: Literal["peak", "ripe", "chilled"] = "ripe"


def run_starter(q: StarterReq) -> dict[str, Any]:
    if (q.temp_c is None) == (q.path is None):
        raise refuse("/temp_c", "Give either temp_c or path, not both and not neither.")
    path = q.path or [(0.0, float(q.temp_c or 0.0))]
    if any(not math.isfinite(v) for point in path for v in point) or [h for h, _ in path] != sorted(
        {h for h, _ in path}
    ):
        raise refuse("/path", "Hours of a path must be finite and rise: [[0, 21], [6, 18]].")
    whole = 1.0 if q.flour in WHOLE_FLOURS else 0.0
    if q.total_g is not None and q.peak_at_h is not None:
        feed = starters.feed_for(q.total_g, q.peak_at_h, path, q.seed(), q.hydration_frac, whole)
        if feed is None:
            raise refuse(
                "/peak_at_h",
                f"No feed from 1:0.3 to 1:40 peaks after {q.peak_at_h:g} h at this temperature. Change the hour or the place.",
            )
    elif q.seed_g and q.flour_g and q.water_g:
        feed = starters.Feed(q.seed_g, q.flour_g, q.water_g, 1.0, whole)
    else:
        raise refuse("/seed_g", "Give seed_g, flour_g and water_g, or total_g and peak_at_h.")
    jar = starters.fed(feed, q.seed(), path, 48.0)
    return {
        "peak_h": jar.peak_h,
        "hold_from_h": jar.hold_from_h,
        "hold_until_h": jar.hold_until_h,
        "ratio": list(feed.ratio),
        "masses": {"seed_g": feed.seed_g, "flour_g": feed.flour_g, "water_g": feed.water_g},
        "peak_ratio": jar.peak_ratio,
        "acid": {"ph": jar.ph_at_peak, "tta_ml": jar.tta_at_peak, "word": jar.word},
        "trace": {"h": jar.h.tolist(), "ratio": jar.ratio.tolist(), "temp_c": jar.temp_c.tolist()},
        "cautions": [caution("raw_starter").as_dict()],
        "why": {
            "peak_h": {
                "relation": "gs, Xs, L and A of the sourdough equations in a jar; peak of E",
                "inputs": {"ratio": [round(x, 2) for x in feed.ratio], "state": q.state, "vitality": q.vitality},
                "evidence": "fitted",
            }
        },
    }
