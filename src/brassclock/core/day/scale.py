"""A dough's progress along the day as the sweep counts it, set by the real rise where it was last run.

Progress is hours at 25 C: each hour weighs as much as the leaven's pace at the air's temperature. What a stage needs
is not a law of its own: the real rise is run once near the answer, and its ready, best and too far are read off on
this scale. So the sweep is right where it was calibrated, and drifts only with what changes from there.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.day.hands import SLOT_MIN, Slots
from brassclock.core.day.places import Place
from brassclock.core.day.spec import BakeSpec, Cold, Told
from brassclock.core.day.sweep import ProgressWindow, Rates
from brassclock.core.rise import stepper
from brassclock.core.rise.dough_heat import COLD_PLACE_C, time_constant_h
from brassclock.core.rise.sourdough.params import PARAMS as SOUR
from brassclock.core.rise.stages import Stage, run_stages
from brassclock.core.rise.windows import AIM_SHARE, marks, open_hours, workable_h
from brassclock.core.rise.yeast.params import PARAMS

Array = NDArray[np.float64]
REFERENCE_C = 25.0
GRID_C = np.arange(-5.0, 46.0, 1.0)
LAG_HOURS = np.linspace(0.0, 12.0, 49)
OPEN_H = 18.0
PAST_SLOTS = 24 * 60 // SLOT_MIN
LEAST_WINDOW_H = 0.25  # a told rest is not told to the slot


@lru_cache(maxsize=2)
def _pace_by_c(wild: bool) -> Array:
    """The pace at each of GRID_C over that at 25 C."""
    if wild:
        p = [SOUR[n].value for n in ("y_t_max", "y_x", "y_c", "y_mu")]
        return np.array([stepper.pace(float(t), *p) for t in GRID_C]) / stepper.pace(REFERENCE_C, *p)
    c = [PARAMS[n].value for n in ("gas_t_min", "gas_t_opt", "gas_t_max")]
    return np.array([stepper.cardinal(float(t), *c) for t in GRID_C]) / stepper.cardinal(REFERENCE_C, *c)


def pace(temp_c: Array, wild: bool) -> Array:
    """Rate of gas over that at 25 C, of added yeast or of a starter's own.

    >>> bool(abs(pace(np.array([25.0]), False)[0] - 1) < 1e-9)
    True
    """
    return np.interp(temp_c, GRID_C, _pace_by_c(wild))


@dataclass(frozen=True)
class Scale:
    """The scale of one bake on its slots: rates for the sweep and, for the calibration, the cold's own constants."""

    rates: Rates
    slots: Slots
    warming_slots: float  # time constant of what comes out of the cold
    bulk: Array  # progress on the bench, and in the balls' place, a day past the horizon: windows reach over it
    ball: Array

    def bench(self, cumulative: Array, a: float, b: float) -> float:
        """Progress [h at 25 C] on the bench between two positions [slots, not whole]."""
        at = np.arange(len(cumulative))
        return float(np.interp(b, at, cumulative) - np.interp(a, at, cumulative))

    def warmed(self, slots: float) -> float:
        """Share of what warming costs that is behind the dough after so many slots out of the cold."""
        return 1 - math.exp(-max(slots, 0.0) / self.warming_slots)

    def since(self, cumulative: Array, start: float, end: float, cold: tuple[float, float] | None) -> float:
        """Progress [h at 25 C] of a stage from `start` to `end`, with a stay in the cold; the sweep's own sum, at any
        position."""
        if cold is None or end <= cold[0]:
            return self.bench(cumulative, start, end)
        r, at = self.rates, np.arange(len(self.rates.cools))
        into, out = cold
        inside = (
            self.bench(cumulative, start, into)
            + float(np.interp(into, at, r.cools))
            + r.cold_slot * (min(end, out) - into)
        )
        if end <= out:
            return inside
        cost = float(np.interp(out, at, r.warms)) * self.warmed(end - out)
        return inside + max(self.bench(cumulative, out, end) - cost, 0.0)


def _cumulative(air_c: Array, wild: bool) -> Array:
    rate = pace(air_c, wild)
    return np.concatenate([[0.0], np.cumsum((rate[1:] + rate[:-1]) / 2) * SLOT_MIN / 60])


def _air(place: Place, hourly_c: Sequence[float], slots: Slots) -> Array:
    count = slots.count + PAST_SLOTS
    path = place.path(hourly_c, slots.zero, count * SLOT_MIN / 60 + 1)
    at = np.arange(count + 1) * SLOT_MIN / 60
    return np.interp(at, [p[0] for p in path], [p[1] for p in path])


def _lag(from_c: Array, to_c: float, tau_h: float, wild: bool) -> Array:
    """Extra progress (hours at 25 C) of a dough at each of `from_c` as it nears `to_c`: while it cools, or (negative)
    warms."""
    fade = np.exp(-LAG_HOURS / tau_h)
    temps = to_c + (from_c[:, None] - to_c) * fade[None, :]
    extra = pace(temps, wild) - pace(np.array([to_c]), wild)
    return np.asarray(np.trapezoid(extra, LAG_HOURS, axis=1))


def scale_of(spec: BakeSpec, hourly_c: Sequence[float], slots: Slots, cold: Cold | None) -> Scale:
    """The scale of a bake on slots; `cold` is the cold it would be put in. Rested doughs count plain hours."""
    end = slots.count + 1
    hours = np.arange(end + PAST_SLOTS) * SLOT_MIN / 60
    wild = not any(p.ingredient.is_yeast for p in spec.batch.dough.portions) and not (
        spec.sponge and any(p.ingredient.is_yeast for p in spec.sponge.joins)
    )
    bulk_air = _air(spec.bulk.place, hourly_c, slots)
    same = spec.ball.place == spec.bulk.place
    ball_air = bulk_air if same else _air(spec.ball.place, hourly_c, slots)
    bulk = hours if spec.told[0] else _cumulative(bulk_air, wild)
    ball = hours if spec.told[1] else bulk if same and not spec.told[0] else _cumulative(ball_air, wild)
    if cold is None:
        return Scale(Rates(bulk[:end], ball[:end]), slots, 1.0, bulk, ball)
    if spec.told[0 if spec.bulk.cold else 1]:  # a time counts from its cold's end: in the cold none of it goes by
        still = np.zeros(end)
        return Scale(Rates(bulk[:end], ball[:end], 0.0, still, still), slots, 1.0, bulk, ball)
    part, air = (spec.bulk, bulk_air) if spec.bulk.cold else (spec.ball, ball_air)
    vessel, fridge_c = part.stage.vessel, cold.place.air_c(hourly_c, slots.zero)
    tau_cold = time_constant_h(vessel, min(fridge_c, COLD_PLACE_C - 1)) or 0.01
    tau_warm = time_constant_h(vessel, COLD_PLACE_C) or 0.01
    knots = np.linspace(float(air.min()) - 0.1, float(air.max()) + 0.1, 12)
    cools = np.interp(air, knots, _lag(knots, fridge_c, tau_cold, wild))
    cost = [-float(_lag(np.array([fridge_c]), float(c), tau_warm, wild)[0]) for c in knots]
    cold_slot = float(pace(np.array([fridge_c]), wild)[0]) * SLOT_MIN / 60
    rates = Rates(bulk[:end], ball[:end], cold_slot, cools[:end], np.interp(air[:end], knots, cost))
    return Scale(rates, slots, tau_warm * 60 / SLOT_MIN, bulk, ball)


@dataclass(frozen=True)
class Real:
    """Result of the real rise along one way through the day: needs on the sweep's scale, hours to aim at, and when it
    can be worked.

    `workable_slots` counts from the end of the balls' cold. None for a need: that stage never gets there.
    """

    bulk: ProgressWindow | None
    ball: ProgressWindow | None
    bulk_aim_h: float
    ball_aim_h: float
    workable_slots: float


@dataclass(frozen=True)
class At:
    """Positions (slots, not whole) of a way through: mixed, balled (None: at the bulk's aim), and its cold."""

    mix: float
    ball: float | None = None
    into: float | None = None
    out: float | None = None

    @property
    def cold(self) -> tuple[float, float] | None:
        """(into the cold, out of it) in slots; None when it is never cold."""
        return None if self.into is None or self.out is None else (self.into, self.out)


def real(spec: BakeSpec, hourly_c: Sequence[float], scale: Scale, at: At) -> Real:
    """Run the real rise along a way through, and read its windows on the sweep's scale."""
    slots = scale.slots
    mixed = slots.at(at.mix)
    held: dict[str, dt.datetime] = {}
    if at.into is not None and at.out is not None:
        held = {"cold_in": slots.at(at.into), "cold_out": slots.at(at.out)}
    before = (spec.before_h,) if spec.sponge else ()
    guess = slots.at(at.mix + spec.bulk.stage.hours * 60 / SLOT_MIN if at.ball is None else at.ball)
    stages = spec.stages(hourly_c, mixed, guess, held)[:-1]
    told_bulk, told_ball = spec.told
    bulk: ProgressWindow | None
    if told_bulk is not None:
        bulk, bulk_h = _told(told_bulk, spec.bulk.cold), told_bulk.aim(spec.bulk.cold).aim_h
    else:
        bulk, bulk_h, _ = _stage(spec, stages, before, scale, scale.bulk, at.mix, at.cold if spec.bulk.cold else None)
    ball_at = at.mix + bulk_h * 60 / SLOT_MIN if at.ball is None else at.ball
    if told_ball is not None:
        return Real(bulk, _told(told_ball, spec.ball.cold), bulk_h, told_ball.aim(spec.ball.cold).aim_h, 0.0)
    lengths = (*before, max((ball_at - at.mix) * SLOT_MIN / 60, 1 / 60))
    stages = spec.stages(hourly_c, mixed, slots.at(ball_at), held)
    cold = at.cold if spec.ball.cold else None
    ball, ball_h, warm_h = _stage(spec, stages, lengths, scale, scale.ball, ball_at, cold)
    warm = max(ball_at + warm_h * 60 / SLOT_MIN - cold[1], 0.0) if cold else 0.0
    return Real(bulk, ball, bulk_h, ball_h, warm)


def _told(told: Told, cold: Cold | None) -> ProgressWindow:
    """The need of a stage that a time ends: hours before its cold and after it, none in it."""
    before = cold.after_h if cold else 0.0
    last = told.high_h if told.last_h is None else max(told.last_h, told.high_h)
    high = max(last, told.aim_h + LEAST_WINDOW_H)
    best = min(max(told.high_h, told.aim_h), high)
    return ProgressWindow(before + min(told.low_h, told.aim_h), before + told.aim_h, before + best, before + high)


def _stage(
    spec: BakeSpec,
    stages: Sequence[Stage],
    lengths: Sequence[float],
    scale: Scale,
    cumulative: Array,
    start: float,
    cold: tuple[float, float] | None,
) -> tuple[ProgressWindow | None, float, float]:
    """(need, hours to aim at, hours until it can be worked) of the last of `stages`, run open after `lengths`."""
    last, begin = len(stages) - 1, sum(lengths)
    stage = stages[-1]
    open_h = open_hours(stage, OPEN_H)
    run = run_stages(spec.batch, stages, [*lengths, open_h], spec.activity, coarse=True)
    seen = marks(run, stages, last, begin, spec.batch)

    def progress(h: float) -> float:
        return scale.since(cumulative, start, start + (h - begin) * 60 / SLOT_MIN, cold)

    ends = begin + open_h
    too_far = ends if seen.too_far is None else seen.too_far
    if seen.ready is None or seen.ready >= too_far:
        return None, 0.0, 0.0
    first, until = min(seen.best_from or ends, too_far), min(seen.best_to or ends, too_far)
    aim = first + AIM_SHARE * (until - first)
    warm = workable_h(run, stages, last, begin) if stage.gas_kept else None
    low, best, high = progress(seen.ready), progress(aim), progress(too_far)
    if warm is not None and cold is None:
        low = max(low, min(progress(warm), high))  # too cold to be worked before that
    best = min(max(best, low), high)
    return ProgressWindow(low, best, min(max(progress(until), best), high), high), aim - begin, (warm or begin) - begin
