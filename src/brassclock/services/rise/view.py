"""View of the Rise leaf: the rise as instants, and a rest that does not rise."""

from __future__ import annotations

import datetime as dt

import numpy as np

from brassclock.core.cautions import caution
from brassclock.core.day.places import DEFAULTS, Place
from brassclock.core.evidence import Why
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise.belief import Band
from brassclock.core.rise.chemical.model import Waiting
from brassclock.core.rise.forecast import Trace
from brassclock.core.rise.jar import mark, sample_g_cm2
from brassclock.core.rise.safety import Safety
from brassclock.core.time import hours_between, later
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day.model import Risen
from brassclock.services.rise.both import soda_beside_yeast
from brassclock.services.rise.spec import seed_of
from brassclock.services.rise.why import stage_whys
from brassclock.services.schemas.base import BandedAt
from brassclock.services.schemas.rise import (
    AcidRead,
    ColdRead,
    JarMark,
    ReadingRead,
    ReadyBy,
    RestRead,
    RiseRead,
    SafetyRead,
    StageHours,
    TraceRead,
    WaitRead,
    WindowRead,
    WorthRead,
)
from brassclock.services.solve import BakeResult
from brassclock.services.weigh.view import caution_out, why_out

WORTH_SAYING_MIN = 3.0
CURVE_POINTS = 60
WAIT_WORDS = {
    "cook_at_once": "cook at once",
    "session": "this session",
    "same_day": "same day",
    "overnight": "overnight",
}
SEEDS = {"peak": "at its peak", "ripe": "past its peak", "chilled": "from the fridge"}


def banded_at(band: Band, zero: dt.datetime) -> BandedAt:
    def at(h: float | None) -> dt.datetime | None:
        return None if h is None else later(zero, h)

    return BandedAt(p10=at(band.p10), p50=at(band.p50), p90=at(band.p90))


def _safety(count: Safety | None, zero: dt.datetime) -> SafetyRead | None:
    if count is None:
        return None
    reached = None if count.reached_at_h is None else later(zero, count.reached_at_h)
    by_stage = [StageHours(stage=name, warm_h=hours) for name, hours in count.by_stage]
    return SafetyRead(warm_h=count.warm_h, limit_h=count.limit_h, reached_at=reached, by_stage=by_stage)


def _windows(r: BakeSnapshot, found: Risen, whys: dict[str, Why]) -> list[WindowRead]:
    seen, plan = found.forecast, found.plan
    assert seen
    begins = [plan.mixed_at, plan.balled_at, plan.step("roll").at]
    specs = (plan.spec.bulk, plan.spec.ball)
    targets = (r.bake.bulk_ratio, r.bake.ball_ratio)
    return [
        WindowRead(
            stage=w.stage,
            begins_at=begins[i],
            ends_at=begins[i + 1],
            place=specs[i].place.name,
            target_ratio=targets[i],
            ready=banded_at(w.ready, found.zero),
            best_from=banded_at(w.best_from, found.zero),
            best_to=banded_at(w.best_to, found.zero),
            too_far=banded_at(w.too_far, found.zero),
            reason=w.reason,
            matters=list(whys[w.stage].matters[:-1]) if w.stage in whys else [],
        )
        for i, w in enumerate(seen.windows)
    ]


def stands_at(r: BakeSnapshot, found: Risen) -> Place | None:
    """The place in which a dough stands now: the cold from when it was put there until it was taken out, else its
    stage's; None before it is mixed and once it is rolled."""
    done, plan = r.done(), found.plan
    if "mix" not in done or "roll" in done:
        return None
    if "cold_in" in done and "cold_out" not in done:
        return next((s.cold.place for s in (plan.spec.bulk, plan.spec.ball) if s.cold), DEFAULTS["fridge"])
    return (plan.spec.ball if "ball" in done else plan.spec.bulk).place


def _cold(r: BakeSnapshot, found: Risen) -> ColdRead | None:
    plan, done = found.plan, r.done()
    for which, spec, start in (("bulk", plan.spec.bulk, plan.mixed_at), ("ball", plan.spec.ball, plan.balled_at)):
        span = spec.cold_span(start, done)
        if span and spec.cold:
            temp_c = spec.cold.place.air_c(r.kitchen.hourly_c, span[0])
            return ColdRead.model_validate({"stage": which, "into_at": span[0], "out_at": span[1], "temp_c": temp_c})
    return None


def _trace_out(found: Risen, trace: Trace) -> TraceRead:
    """The trace as instants, with the air of each stage."""
    ends = np.cumsum([s.hours for s in found.stages])
    at_stage = np.minimum(np.searchsorted(ends, trace.h, side="left"), len(ends) - 1)
    air = np.empty_like(trace.h)
    for i, stage in enumerate(found.stages):
        rows = at_stage == i
        air[rows] = stage.air_c(trace.h[rows] - (ends[i] - stage.hours))
    return TraceRead(
        at=[found.zero.astimezone(dt.UTC) + dt.timedelta(hours=h) for h in trace.h.tolist()],
        ratio=trace.ratio.tolist(),
        ratio_p10=trace.ratio_p10.tolist(),
        ratio_p90=trace.ratio_p90.tolist(),
        maturity=trace.maturity.tolist(),
        fill=trace.fill.tolist(),
        dough_c=trace.dough_c.tolist(),
        air_c=air.tolist(),
    )


def rise_out(r: BakeSnapshot, work: BakeResult, *, coarse: bool = False) -> RiseRead | None:
    """The rise with its trace as instants, and where it stands now."""
    found = work.risen
    if found is None or found.forecast is None:
        return None
    plan, seen, zero = found.plan, found.forecast, found.zero
    trace, whys = seen.trace, {} if coarse else stage_whys(r, found)
    now_h = hours_between(zero, r.now)
    alive = "mix" in r.done() and now_h >= 0
    level = found.level(r.now, r.done()) if alive else None
    roll_at = plan.step("roll").at
    seed = seed_of(r) if seen.acid else None
    return RiseRead(
        mixed_at=plan.mixed_at,
        balled_at=plan.balled_at,
        windows=_windows(r, found, whys),
        trace=_trace_out(found, trace),
        ratio_now=level[0] if level else None,
        dough_c_now=level[1] if level else None,
        stage_now=("ball proof" if "ball" in r.done() else "bulk") if alive else None,
        readings=[
            ReadingRead(id=x.id or 0, kind=x.kind, value=x.value, feel=x.feel, source=x.source, at=x.at)
            for x in r.readings
        ],
        activity=seen.belief.mean,
        activity_sd_log=seen.belief.sd_log,
        late_min=plan.late_min,
        acid=AcidRead(ph=seen.acid.ph, tta_ml=seen.acid.tta_ml, word=seen.acid.word) if seen.acid else None,
        sponge_at=zero if plan.spec.sponge else None,
        cold=_cold(r, found),
        ready_by=[
            ReadyBy(at=moment, probability=p)
            for moment, p in zip([roll_at, *([r.by] if r.by else [])], seen.ready_by, strict=False)
        ],
        workable_at=None if seen.workable_h is None else later(zero, seen.workable_h),
        safety=_safety(seen.safety, zero),
        peak_at=banded_at(seen.peak_h, zero),
        peak_ratio=seen.peak_ratio,
        leaven_left_frac=seen.leaven_left_frac,
        offsets_c=seen.offsets_c,
        jar=[
            JarMark(
                stage=w.stage, ratio=t, start_mm=(m := mark(t)).start_mm, mark_mm=m.mark_mm, sample_g_cm2=sample_g_cm2()
            )
            for w, t in zip(seen.windows, (r.bake.bulk_ratio, r.bake.ball_ratio), strict=True)
        ],
        starter=f"{r.starter.name}, {SEEDS[seed.state]}" if r.starter and seed else None,
        worth=[
            WorthRead(
                what=w.what,
                words=w.words,
                at=None if w.at_h is None else later(zero, w.at_h),
                narrows_min=w.narrows_min,
            )
            for w in found.worth
            if w.narrows_min >= WORTH_SAYING_MIN
        ],
        soda="" if coarse else soda_beside_yeast(r, work),
        warm=yeast_course.course_stepper.ready,
        cautions=caution_out(seen.cautions),
        why=why_out({**whys, "ready": whys["ball proof" if "ball" in r.done() else "bulk"]} if whys else {}),
    )


def _wait_out(place: Place, here: Waiting | None, temp_c: float, waits_h: float) -> WaitRead | None:
    if here is None:
        return None
    run = here.runs[1]
    first, last = run[0].to_come, float(np.interp(waits_h * 60, [p.minutes for p in run], [p.to_come for p in run]))
    whole = max(run[0].held + first, 1e-12)
    hours = np.linspace(0, max(min(here.high_h, 2.5 * here.h), 0.1), CURVE_POINTS)
    low, mid, high = (
        [round(float(x), 3) for x in np.interp(hours, [p.minutes / 60 for p in run], [p.at_cook for p in run])]
        for run in here.runs
    )
    return WaitRead.model_validate(
        {
            "place": place.name,
            "temp_c": temp_c,
            "verdict": here.verdict,
            "words": WAIT_WORDS[here.verdict],
            "h": here.h,
            "low_h": here.low_h,
            "high_h": here.high_h,
            "best_lift": here.best,
            "at_mixing_frac": 1 - first / whole,
            "on_bench_frac": (first - last) / whole,
            "in_heat_frac": last / whole,
            "curve": {"h": hours.tolist(), "lift": mid, "low": low, "high": high},
        }
    )


def rest_out(r: BakeSnapshot, work: BakeResult) -> RestRead | None:
    """A dough that rests: how long its gas waits, and, beside it, the count of warm hours."""
    found = work.risen
    if found is None or found.rested is None or work.sheet is None:
        return None
    rest, plan = found.rested, found.plan
    here_c = rest.place.air_c(r.kitchen.hourly_c, plan.mixed_at)
    cook_at = plan.step("line").at
    waits_h = max(hours_between(plan.mixed_at, cook_at), 0.0)
    safety = _safety(found.safety, found.zero)
    advice = ""
    if safety and safety.reached_at and rest.fridge and not r.bake.cold:
        advice = (
            f"Cold instead: in the fridge its gas waits {rest.fridge.low_h:.0f} to {rest.fridge.high_h:.0f} h. "
            "Take it out half an hour before rolling."
        )
    return RestRead(
        rests_from=plan.mixed_at,
        cook_at=cook_at,
        here=_wait_out(rest.place, rest.here, here_c, waits_h),
        fridge=_wait_out(Place("fridge", "the fridge", r.kitchen.fridge_c), rest.fridge, r.kitchen.fridge_c, waits_h),
        safety=safety,
        cold_advice=advice,
        cautions=caution_out([caution("dairy_warm")] if safety else []),
    )
