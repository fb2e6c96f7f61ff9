"""Windows of a stage: ready, best, too far; read from maturity, fill and weakening (docs/science.md, *Windows*).

Levels are judgement set against practice rows; the limit that is met first is the window's reason.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise.belief import Band, Posterior
from brassclock.core.rise.dough_heat import COLD_PLACE_C, centre_lag_h, time_constant_h
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Run, Stage, run_stages

Array = NDArray[np.float64]
READY_M = Param(0.9, "-", 0.8, 1, Kind.JUDGEMENT, "of the gas that a stage needs: ready")
BEST_M = (1.0, 1.3)
LONG_BEST_F = (1.5, 2.5)
LONG_RISE_H = Param(5.0, "h", 3, 8, Kind.JUDGEMENT, "a rise from there on keeps its best longer")
TOO_FAR_F = {  # judgement: (gas kept, knocked back or divided next)
    "developed": (0.9, 3.0),
    "kneaded": (0.8, 2.8),
    "enriched": (0.7, 2.6),
    "wet_unkneaded": (0.7, 2.5),
    "wholemeal": (0.6, 1.8),
}
SOUR_TOO_WEAK = Param(0.25, "-", 0.15, 0.4, Kind.JUDGEMENT, "the gluten that acid has cost")
WORKABLE_C = Param(16.0, "C", 13, 19, Kind.PRACTICE, "cold dough tears when it is worked")
NEAR_AIR_K = Param(2.0, "K", 1, 4, Kind.PRACTICE, "near enough to its air to be worked")
AIM_SHARE = Param(
    0.3, "-", 0.1, 0.6, Kind.JUDGEMENT, "a little past the start of the best span, never on its early edge"
)
GIVE_UP_H = 96.0
MAX_HOURS = 240.0


@dataclass(frozen=True)
class Marks:
    """One run's hours in a stage [h from the end of mixing]; None where it never gets there."""

    ready: float | None
    best_from: float | None
    best_to: float | None
    too_far: float | None
    reason: str  # of too far: gas, acid or strength


@dataclass(frozen=True)
class Window:
    """Window of a stage: ready, best from, best to and too far [h from the end of mixing], and what ends it.

    `reason` is `gas`, `acid` or `strength`: the dough can hold no more, acid has cost its gluten, or age has.
    """

    stage: str
    ready: Band
    best_from: Band
    best_to: Band
    too_far: Band
    reason: str = "gas"


def _least(a: float | None, b: float | None) -> float | None:
    return b if a is None else a if b is None else min(a, b)


def is_cold(stage: Stage) -> bool:
    """True if the stage stands in a cold place half way."""
    return stage.ambient_c(stage.hours / 2) < COLD_PLACE_C


def marks(run: Run, stages: Sequence[Stage], index: int, start_h: float, batch: Batch) -> Marks:
    """Hours at which one stage of a run is ready, best and too far, that stage left open."""
    stage = stages[index]
    rows = run.stage == index
    h = run.course.h[rows]

    def when(trace: Array, level: float) -> float | None:
        return yeast_course.first_passage_h(h, trace[rows], level)

    limit = TOO_FAR_F[batch.strength][0 if stage.gas_kept else 1]
    ready = when(run.maturity, READY_M)
    by_gas = when(run.fill, limit) if stage.too_far_maturity is None else when(run.maturity, stage.too_far_maturity)
    by_acid = when(run.weakening, SOUR_TOO_WEAK) if run.course.start.p.sour > 0 else None
    too_far = _least(by_gas, by_acid)
    reason = "gas"
    if by_acid is not None and too_far == by_acid:
        reason = "acid"
    elif too_far is not None and stage.too_far_maturity is None:
        fresh = float(np.interp(too_far, h, run.fresh_fill[rows]))
        reason = "gas" if fresh > 0.9 * limit else "strength"
    long_rise = ready is not None and ready - start_h >= LONG_RISE_H and not is_cold(stage)
    best_from, best_to = when(run.maturity, BEST_M[0]), when(run.maturity, BEST_M[1])
    if not stage.gas_kept and (long_rise or run.course.start.water < 0.5):
        fuller = when(run.fill, LONG_BEST_F[0])
        if fuller is not None:
            best_from, best_to = fuller, when(run.fill, min(LONG_BEST_F[1], limit))
    return Marks(ready, _least(best_from, too_far), _least(best_to, too_far), too_far, reason)


def centre_c(run: Run, stages: Sequence[Stage], index: int, start_h: float) -> tuple[Array, Array]:
    """(hours, temperature at the centre of the dough [C]) of a stage: the mean less its lag while it changes."""
    stage, rows = stages[index], run.stage == index
    h, mean = run.course.h[rows], run.course.temp_c[rows]
    air = stage.air_c(h - start_h)
    lag = np.minimum(centre_lag_h(stage.vessel), np.maximum(h - start_h, 0.0))  # it builds up from the stage's start
    warm, cold = (time_constant_h(stage.vessel, c) or np.inf for c in (COLD_PLACE_C, COLD_PLACE_C - 1))
    return h, mean - (air - mean) / np.where(air < COLD_PLACE_C, cold, warm) * lag


def workable_h(run: Run, stages: Sequence[Stage], index: int, start_h: float) -> float | None:
    """Hour at which the stage's dough is warm enough to work after its last cold: its start when it never was cold.

    Warm enough is 16 C, or near the air where the air is cooler than that.
    """
    stage = stages[index]
    h, centre = centre_c(run, stages, index, start_h)
    out = h >= start_h + stage.last_cold_h - 1e-9
    air = stage.air_c(h - start_h)
    over = centre - np.minimum(WORKABLE_C, air - NEAR_AIR_K)
    return yeast_course.first_passage_h(h[out], over[out], 0.0) if out.any() else None


def open_hours(stage: Stage, least_h: float, most_h: float = 24.0) -> float:
    """Hours to run a stage so that its whole window shows: its told hours and its cold, `least_h`, and as long again
    as it was told, at most `most_h`."""
    told = max(stage.hours, stage.last_cold_h)
    return min(told + least_h + min(stage.hours, most_h), max(MAX_HOURS, told))


def window_of(
    stages: Sequence[Stage],
    runs: Sequence[Run],
    index: int,
    start_h: float,
    batch: Batch,
    post: Posterior,
    noise: float,
) -> Window:
    """The window of a stage from every node's run with that stage left open."""
    seen = [marks(r, stages, index, start_h, batch) for r in runs]
    middle = seen[len(seen) // 2]

    def band(name: str) -> Band:
        return post.band([getattr(m, name) for m in seen], noise, start_h)

    return Window(stages[index].name, band("ready"), band("best_from"), band("best_to"), band("too_far"), middle.reason)


@dataclass(frozen=True)
class Aim:
    """One stage run at the median activity [h from the stage's start]: ready, where to aim, best_to, too far."""

    ready_h: float
    aim_h: float
    best_to_h: float
    too_far_h: float


def aims(
    batch: Batch, stages: Sequence[Stage], *, fixed_h: Sequence[float | None] = (), activity: float = 1.0
) -> list[Aim]:
    """Aim of each stage, run one after the other at one activity.

    A stage with a length in `fixed_h` keeps it; the others run to their aim before the next begins. A stage that
    is in the cold ends after it; one that keeps its gas, no sooner than its centre can be worked.
    """
    lengths: list[float] = []
    found: list[Aim] = []
    for i, stage in enumerate(stages):
        open_h = min(open_hours(stage, 18.0), max(GIVE_UP_H, stage.hours, stage.last_cold_h + 12.0))
        opened = [*stages[:i], stage]
        run = run_stages(batch, opened, [*lengths, open_h], activity, coarse=True)
        begin = sum(lengths)
        seen = marks(run, opened, i, begin, batch)

        def since(h: float | None, begin: float = begin, cap: float = open_h) -> float:
            return cap if h is None else h - begin

        too_far = since(seen.too_far)
        first, last = min(since(seen.best_from), too_far), min(since(seen.best_to), too_far)
        workable = workable_h(run, opened, i, begin) if stage.gas_kept else None
        warm = max(0.0 if workable is None else since(workable), stage.last_cold_h)
        aim = Aim(max(since(seen.ready), warm), max(first + AIM_SHARE * (last - first), warm), max(last, warm), too_far)
        found.append(aim)
        fixed = fixed_h[i] if i < len(fixed_h) else None
        lengths.append(aim.aim_h if fixed is None else max(fixed, 1 / 60))
    return found
