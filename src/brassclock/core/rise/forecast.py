"""The rise forecast: stages along a temperature path become ratios, maturity, fill and windows.

Hours run from the end of mixing; ratio is volume since the last knock-back; windows come from
maturity and fill (docs/science.md, *Windows*), each as 10/50/90 % from the belief.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from brassclock.core.cautions import Caution, caution
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.matter.dough import Dough
from brassclock.core.rise import course as model
from brassclock.core.rise import gas
from brassclock.core.rise.belief import NEVER, Band, Belief, Posterior, Reading, nodes, posterior
from brassclock.core.rise.course import Course, Piece, Recipe, Seed
from brassclock.core.rise.dough_heat import COLD_PLACE_C, Vessel, centre_lag_h, time_constant_h
from brassclock.core.rise.sourdough.acid import ph_of, sourness, tta_ml

Array = NDArray[np.float64]
KNOCK_BACK_FRAC = 0.15
SHAPING_TEMP_C = 24.0
READY_M = 0.9
BEST_M = (1.0, 1.3)
LONG_BEST_F = (1.5, 2.5)
LONG_RISE_H = 5.0
TOO_FAR_F = {  # judgement: (gas kept, knocked back or divided next)
    "developed": (0.9, 3.0),
    "kneaded": (0.8, 2.8),
    "enriched": (0.7, 2.6),
    "wet_unkneaded": (0.7, 2.5),
    "wholemeal": (0.6, 1.8),
}
SOUR_TOO_WEAK = 0.25  # judgement: the gluten that acid has cost
WORKABLE_C = 16.0
SAFE_C, SAFE_LIMIT_H = 5.0, 2.0
MAX_HOURS = 240.0


@dataclass(frozen=True)
class Stage:
    """A stretch of the rise: its air as (hour, C) points from its start, vessel, and what ends it."""

    name: str
    hours: float
    path: tuple[tuple[float, float], ...]
    vessel: Vessel | None = None
    then: str | None = None
    target_ratio: float | None = None
    too_far_maturity: float | None = None

    def ambient_c(self, h: float) -> float:
        """Air at `h` hours into the stage; the last value is held."""
        return float(np.interp(h, [p[0] for p in self.path], [p[1] for p in self.path]))

    @property
    def gas_kept(self) -> bool:
        return self.then not in ("knock_back", "divide", "ball")

    def pieces(self, hours: float) -> list[Piece]:
        """The stage as pieces with linear air, broken at every point of the path."""
        marks = sorted({0.0, hours, *(h for h, _ in self.path if 0 < h < hours)})
        tau = time_constant_h(self.vessel, self.ambient_c(hours / 2))
        knock = None if self.gas_kept else KNOCK_BACK_FRAC
        spans = list(pairwise(marks))
        return [
            Piece(b - a, self.ambient_c(a), self.ambient_c(b), tau, knock if i == len(spans) - 1 else None)
            for i, (a, b) in enumerate(spans)
        ]


@dataclass(frozen=True)
class Window:
    """When a stage is ready, at its best (from, to) and too far [h from the end of mixing]."""

    stage: str
    ready: Band
    best_from: Band
    best_to: Band
    too_far: Band


@dataclass(frozen=True)
class Crossing:
    """When a volume ratio is reached, and in which stage."""

    ratio: float
    stage: str
    h: Band


@dataclass(frozen=True)
class Trace:
    """Median course with its band, on a common set of hours."""

    h: Array
    ratio: Array
    ratio_p10: Array
    ratio_p90: Array
    maturity: Array
    fill: Array
    dough_c: Array
    centre_c: Array
    gas_ml_per_100g: Array


@dataclass(frozen=True)
class Safety:
    """Hours above 5 C of a dough with dairy or egg: a count, never permission."""

    warm_h: float
    limit_h: float
    reached_at_h: float | None


@dataclass(frozen=True)
class Acidity:
    """How sour the dough is at the end of its stages: pH, titratable acidity [mL of 0.1 N per 10 g], the word. Never a safety measure."""

    ph: float
    tta_ml: float
    word: str


@dataclass(frozen=True)
class Forecast:
    """Everything the Rise leaf shows."""

    crossings: tuple[Crossing, ...]
    peak_h: Band
    peak_ratio: float
    windows: tuple[Window, ...]
    trace: Trace
    workable_h: float | None
    safety: Safety | None
    belief: Belief
    acid: Acidity | None = None
    cautions: tuple[Caution, ...] = field(default=())

    def window(self, stage: str) -> Window:
        """The window of the stage of that name."""
        return next(w for w in self.windows if w.stage == stage)


@dataclass(frozen=True)
class Run:
    """One node's course with what is read from it."""

    course: Course
    ratio: Array
    maturity: Array
    fill: Array

    @property
    def weakening(self) -> Array:
        return self.course.state[:, 7]


def run_stages(
    recipe: Recipe, mix_temp_c: float, stages: Sequence[Stage], hours: Sequence[float], activity: float,
    pressure_pa: float, target: float, scale: Mapping[int, float] | None = None,
) -> Run:  # fmt: skip
    """One course through stages of these lengths. `scale` multiplies parameters of the stepper (-1: the sugar at the start)."""
    start = model.start_of(recipe, mix_temp_c, activity, pressure_pa)
    for at, factor in (scale or {}).items():
        if at < 0:
            start.state[1] *= factor
        else:
            start.p[at] *= factor
    pieces: list[Piece] = []
    stage_of_piece: list[int] = []
    for i, (stage, length) in enumerate(zip(stages, hours, strict=True)):
        more = stage.pieces(length)
        pieces += more
        stage_of_piece += [i] * len(more)
    dt_h = model.DT_H if model.course_stepper.ready else model.COARSE_DT_H
    course = model.course(start, pieces, dt_h)
    epoch_of_piece = np.cumsum([0] + [p.knock_back_frac is not None for p in pieces[:-1]])
    epoch = epoch_of_piece[course.piece]
    ratio, maturity, fill = np.empty_like(course.h), np.empty_like(course.h), np.empty_like(course.h)
    volume, e_max = course.volume_ml, course.capacity_expansion
    for number in range(int(epoch[-1]) + 1):
        rows = epoch == number
        first = int(np.argmax(rows))
        v_ref, c_0, air = volume[first], course.state[first, 6], course.air_mol[first]
        wanted = _target_of(stages, stage_of_piece, epoch_of_piece, number, target)
        args = (start.dry_ml, air, SHAPING_TEMP_C, start.water, pressure_pa)
        need = max(float(gas.co2_for_volume(wanted * v_ref, *args)) - c_0, 1e-9)
        ratio[rows] = volume[rows] / v_ref
        maturity[rows] = course.co2_made_mol[rows] / need
        held = gas.co2_for_volume(e_max[rows] * start.first_ml, *args)
        fill[rows] = (c_0 + course.co2_made_mol[rows]) / np.maximum(held, 1e-9)
    return Run(course, ratio, maturity, fill)


def ratio_course(
    recipe: Recipe, mix_temp_c: float, stages: Sequence[Stage], activity: float, pressure_pa: float
) -> tuple[Array, Array, NDArray[np.bool_]]:
    """(hours, ratio since the last knock-back, which rows are the last stage's) of one course."""
    run = run_stages(recipe, mix_temp_c, stages, [s.hours for s in stages], activity, pressure_pa, 2.0)
    first_piece_of_last = sum(len(s.pieces(s.hours)) for s in stages[:-1])
    return run.course.h, run.ratio, run.course.piece >= first_piece_of_last


def _target_of(
    stages: Sequence[Stage], stage_of_piece: Sequence[int], epoch_of_piece: NDArray[np.int64], number: int,
    default: float,
) -> float:  # fmt: skip
    named = [
        stages[s].target_ratio for s, e in zip(stage_of_piece, epoch_of_piece, strict=True) if e == number
    ]  # fmt: skip
    given = [t for t in named if t]
    return given[-1] if given else default


@dataclass(frozen=True)
class _StageRuns:
    """Every node run with one stage left open, and where that stage starts [h]."""

    stage: Stage
    start_h: float
    runs: tuple[Run, ...]

    def passage(self, run: Run, trace: Array, level: float) -> float | None:
        after = run.course.h >= self.start_h - 1e-9
        last = np.nonzero(after & (run.course.piece >= self._first_piece(run)))[0]
        return model.first_passage_h(run.course.h[last], trace[last], level)

    def _first_piece(self, run: Run) -> int:
        at = np.nonzero(run.course.h <= self.start_h + 1e-9)[0]
        return int(run.course.piece[at[-1]])


def forecast(
    dough: Dough,
    strength: str,
    mix_temp_c: float,
    stages: Sequence[Stage],
    targets: Sequence[float] = (2.0,),
    *,
    bloomed: bool = False,
    altitude_m: float = 0.0,
    belief: Belief | None = None,
    readings: Sequence[Reading] = (),
    horizon_h: float | None = None,
    seed: Seed | None = None,
) -> Forecast:
    """Forecast a rise by yeast, a starter (`seed` is how it goes in), or both. Stages must have positive hours; see `services.compute` for the checks."""
    belief = belief or Belief()
    recipe = model.recipe_of(dough, strength, bloomed, seed)
    pressure_pa = pressure_at_altitude_pa(altitude_m)
    z_nodes = nodes(belief, 17 if model.course_stepper.ready else 5)
    target = targets[0] if targets else 2.0
    hours = [s.hours for s in stages]

    def runs(count: int, lengths: Sequence[float]) -> tuple[Run, ...]:
        return tuple(
            run_stages(recipe, mix_temp_c, stages[:count], lengths, math.exp(z), pressure_pa, target) for z in z_nodes
        )

    closed = runs(len(stages), hours)
    total_h = sum(hours)

    def predict(node: int, h: float) -> tuple[float, float]:
        run = closed[node]
        at = min(h, total_h)
        return float(np.interp(at, run.course.h, run.ratio)), float(np.interp(at, run.course.h, run.maturity))

    post = posterior(belief, z_nodes, readings, predict)
    windows = []
    for i, stage in enumerate(stages):
        if stage.target_ratio is None and i < len(stages) - 1:
            continue
        open_h = min(2 * stage.hours + 12, MAX_HOURS) if horizon_h is None else horizon_h
        lengths = [*hours[:i], max(open_h, stage.hours)]
        opened = _StageRuns(stage, sum(hours[:i]), runs(i + 1, lengths))
        windows.append(_window(opened, post, strength, recipe))
    middle = run_stages(recipe, mix_temp_c, stages, hours, math.exp(post.quantile_z(0.5)), pressure_pa, target)
    low = run_stages(recipe, mix_temp_c, stages, hours, math.exp(post.quantile_z(0.1)), pressure_pa, target)
    high = run_stages(recipe, mix_temp_c, stages, hours, math.exp(post.quantile_z(0.9)), pressure_pa, target)
    peaks = [float(r.course.h[int(np.argmax(r.ratio))]) for r in closed]
    return Forecast(
        tuple(_crossings(stages, hours, closed, post, targets)),
        post.band(peaks),
        float(np.max(middle.ratio)),
        tuple(windows),
        _trace(stages, middle, low, high, dough),
        _workable_h(stages, hours, middle),
        _safety(dough, middle),
        post.updated(),
        _acidity(recipe, middle),
        tuple(_cautions(dough, stages)),
    )


def _acidity(recipe: Recipe, middle: Run) -> Acidity | None:
    if recipe.sour is None:
        return None
    acid, whole = float(middle.course.acid_mol[-1]), recipe.sour.whole_share
    tta = tta_ml(acid, recipe.mass, whole)
    return Acidity(ph_of(acid, whole), tta, sourness(tta))


def _window(opened: _StageRuns, post: Posterior, strength: str, recipe: Recipe) -> Window:
    stage = opened.stage
    kept, next_worked = TOO_FAR_F[strength]
    limit_f = kept if stage.gas_kept else next_worked

    def band(trace: str, level: float) -> Band:
        return post.band([opened.passage(r, getattr(r, trace), level) for r in opened.runs])

    ready = band("maturity", READY_M)
    by_maturity = stage.too_far_maturity
    too_far = band("fill", limit_f) if by_maturity is None else band("maturity", by_maturity)
    if recipe.sour is not None:
        too_far = _not_after(too_far, band("weakening", SOUR_TOO_WEAK))
    warm = stage.ambient_c(stage.hours / 2) > COLD_PLACE_C
    long_rise = ready.p50 is not None and ready.p50 - opened.start_h >= LONG_RISE_H and warm
    if not stage.gas_kept and (long_rise or recipe.water < 0.5):
        best_from, best_to = band("fill", LONG_BEST_F[0]), band("fill", min(LONG_BEST_F[1], limit_f))
    else:
        best_from, best_to = band("maturity", BEST_M[0]), band("maturity", BEST_M[1])
    return Window(stage.name, ready, _not_after(best_from, too_far), _not_after(best_to, too_far), too_far)


def _not_after(band: Band, limit: Band) -> Band:
    def least(a: float | None, b: float | None) -> float | None:
        return b if a is None else a if b is None else min(a, b)

    return Band(least(band.p10, limit.p10), least(band.p50, limit.p50), least(band.p90, limit.p90), band.p_never)


def _crossings(
    stages: Sequence[Stage], hours: Sequence[float], closed: Sequence[Run], post: Posterior, targets: Sequence[float]
) -> list[Crossing]:
    found = []
    ends = np.cumsum(hours)
    for ratio in targets:
        here: list[Crossing] = []
        for i, stage in enumerate(stages):
            opened = _StageRuns(stage, float(ends[i] - hours[i]), tuple(closed))

            def within(
                run: Run, ratio: float = ratio, opened: _StageRuns = opened, end: float = float(ends[i])
            ) -> float | None:
                h = opened.passage(run, run.ratio, ratio)
                return h if h is not None and h <= end + 1e-9 else None

            band = post.band([within(r) for r in closed])
            if band.p50 is not None:
                here.append(Crossing(ratio, stage.name, band))
        found += here or [Crossing(ratio, stages[-1].name, NEVER)]
    return found


def _trace(stages: Sequence[Stage], middle: Run, low: Run, high: Run, dough: Dough) -> Trace:
    c = middle.course
    keep = np.unique(np.concatenate([np.linspace(0, len(c.h) - 1, 240).astype(int), np.nonzero(np.diff(c.piece))[0]]))
    h = c.h[keep]
    starts = np.cumsum([0.0] + [s.hours for s in stages])
    centre = np.empty_like(h)
    for j, t in enumerate(h):
        i = min(int(np.searchsorted(starts, t, side="right")) - 1, len(stages) - 1)
        stage = stages[i]
        air = stage.ambient_c(t - starts[i])
        tau = time_constant_h(stage.vessel, air)
        mean = c.temp_c[keep[j]]
        rate = (air - mean) / tau if tau else 0.0
        lag = min(centre_lag_h(stage.vessel), (t - starts[i]))  # the lag builds up from the start of a stage
        centre[j] = mean - rate * lag
    return Trace(
        h, middle.ratio[keep], low.ratio[keep], high.ratio[keep],
        middle.maturity[keep], middle.fill[keep], c.temp_c[keep], centre,
        c.gas_ml[keep] * 100 * dough.flour_g / dough.total_g,
    )  # fmt: skip


def _workable_h(stages: Sequence[Stage], hours: Sequence[float], middle: Run) -> float | None:
    """When the last stage is warm enough to work: 0 hours in when it never was cold."""
    start = sum(hours[:-1])
    rows = middle.course.h >= start - 1e-9
    h, temp = middle.course.h[rows], middle.course.temp_c[rows]
    air = np.array([stages[-1].ambient_c(t - start) for t in h])
    tau = time_constant_h(stages[-1].vessel, float(air[0]))
    centre = temp - (air - temp) / tau * centre_lag_h(stages[-1].vessel) if tau else temp
    return model.first_passage_h(h, centre, WORKABLE_C)


def _safety(dough: Dough, middle: Run) -> Safety | None:
    if not {"milk", "egg"} & set(dough.allergens):
        return None
    h, temp = middle.course.h, middle.course.temp_c
    step = np.diff(h, prepend=0.0)
    warm = np.cumsum(np.where(temp > SAFE_C, step, 0.0))
    return Safety(float(warm[-1]), SAFE_LIMIT_H, model.first_passage_h(h, warm, SAFE_LIMIT_H))


def _cautions(dough: Dough, stages: Sequence[Stage]) -> list[Caution]:
    found = []
    if {"milk", "egg"} & set(dough.allergens):
        found.append(caution("dairy_warm"))
    if any(p.ingredient.is_other_leaven and not p.ingredient.is_starter for p in dough.portions):
        found.append(caution("other_leaven"))
    for stage in stages:
        mean = stage.ambient_c(stage.hours / 2)
        if stage.name.startswith(("cold", "fridge")) and mean > 6:
            found.append(caution("fridge_warm", f"{stage.name} at {mean:.0f} C."))
        if mean > 42 or mean < 0:
            found.append(caution("outside_tested_range", f"{stage.name} at {mean:.0f} C."))
    return found


@dataclass(frozen=True)
class Aim:
    """One stage run at the median activity [h from the stage's start]: ready, where to aim, best_to, too far."""

    ready_h: float
    aim_h: float
    best_to_h: float
    too_far_h: float


AIM_SHARE = 0.3  # judgement: a little past the start of the best span, never on its early edge
GIVE_UP_H = 96.0


def aims(
    dough: Dough,
    strength: str,
    mix_temp_c: float,
    stages: Sequence[Stage],
    *,
    fixed_h: Sequence[float | None] = (),
    bloomed: bool = False,
    altitude_m: float = 0.0,
    activity: float = 1.0,
    seed: Seed | None = None,
) -> list[Aim]:
    """Where each stage should end, run one after the other at one activity.

    A stage with a length in `fixed_h` keeps it; the others run to their aim before the next begins.
    """
    recipe = model.recipe_of(dough, strength, bloomed, seed)
    pressure_pa = pressure_at_altitude_pa(altitude_m)
    lengths: list[float] = []
    found: list[Aim] = []
    for i, stage in enumerate(stages):
        open_h = min(2 * stage.hours + 18, GIVE_UP_H)
        run = run_stages(recipe, mix_temp_c, stages[: i + 1], [*lengths, open_h], activity, pressure_pa, 2.0)
        opened = _StageRuns(stage, sum(lengths), (run,))
        limit = TOO_FAR_F[strength][0 if stage.gas_kept else 1]

        def at(level: float, trace: Array, opened: _StageRuns = opened, run: Run = run, cap: float = open_h) -> float:
            h = opened.passage(run, trace, level)
            return cap if h is None else h - opened.start_h

        too_far = at(limit, run.fill)
        if recipe.sour is not None:
            too_far = min(too_far, at(SOUR_TOO_WEAK, run.weakening))
        ready = at(READY_M, run.maturity)
        begin, end = at(BEST_M[0], run.maturity), at(BEST_M[1], run.maturity)
        if not stage.gas_kept and (ready >= LONG_RISE_H or recipe.water < 0.5):
            begin, end = at(LONG_BEST_F[0], run.fill), at(min(LONG_BEST_F[1], limit), run.fill)
        begin, end = min(begin, too_far), min(end, too_far)
        aim = Aim(ready, begin + AIM_SHARE * (end - begin), end, too_far)
        found.append(aim)
        fixed = fixed_h[i] if i < len(fixed_h) else None
        lengths.append(aim.aim_h if fixed is None else max(fixed, 1 / 60))
    return found
