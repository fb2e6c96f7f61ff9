"""The rise forecast: stages along a temperature path become ratios, windows and bands, and readings correct them.

Hours run from the end of mixing. Every time is a 10/50/90 % band from the belief of the leaven's strength, from the
temperatures' spread and from what else differs between doughs (docs/science.md, *Belief*).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import Kind, Param
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import warmth
from brassclock.core.rise.belief import NEVER, OWN_NOISE, Band, Belief, Posterior, Reading, nodes, posterior
from brassclock.core.rise.chemical.reaction import LEFT, SODA
from brassclock.core.rise.recipe import Batch, osmolality
from brassclock.core.rise.safety import Safety, warm_hours
from brassclock.core.rise.sourdough.acid import ph_of, sourness, tta_ml
from brassclock.core.rise.stages import DEFAULT_TARGET, Run, Stage, run_stages, with_all
from brassclock.core.rise.state import CO2
from brassclock.core.rise.windows import READY_M, Window, centre_c, open_hours, window_of, workable_h

Array = NDArray[np.float64]
HARM_C = Param(40.0, "C", 38, 42, Kind.PUBLISHED_FROM_MEMORY, "yeast weakens above")
TRACE_ROWS, QUICK_ROWS = 240, 120
QUICK_NOISE = Param(
    0.10, "-", 0.05, 0.2, Kind.JUDGEMENT, "about what the temperatures' spread and the dough's own make together"
)
FREEZING_K_PER_OSMOL = Param(1.86, "K/osmol", 1.86, 1.86, Kind.ANALYTIC, "cryoscopic constant of water")


@dataclass(frozen=True)
class Crossing:
    """Hour at which a volume ratio is reached, and its stage."""

    ratio: float
    stage: str
    h: Band


AT_ONCE_H = 1e-6


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

    def at(self, h: float, until_h: float | None = None) -> tuple[float, float]:
        """(volume ratio, temperature [C]) at hour `h`; of a stage that was to end at `until_h` and goes on, as it was
        then, before it was knocked back."""
        last = len(self.h) - 1
        if until_h is not None and h >= until_h - AT_ONCE_H:
            end = min(int(np.searchsorted(self.h, until_h - AT_ONCE_H)), last)
            return float(self.ratio[end]), float(self.dough_c[end])
        h = min(h, float(self.h[last]))
        return float(np.interp(h, self.h, self.ratio)), float(np.interp(h, self.h, self.dough_c))


@dataclass(frozen=True)
class Acidity:
    """Acidity of the dough at the end of its stages: pH, titratable acidity [mL of 0.1 N per 10 g], the word. Never
    a safety measure."""

    ph: float
    tta_ml: float
    word: str


@dataclass(frozen=True)
class Forecast:
    """Everything the Rise leaf shows. `leaven_left_frac`: gas that soda and acid can still make, over all they
    could."""

    crossings: tuple[Crossing, ...]
    peak_h: Band
    peak_ratio: float
    windows: tuple[Window, ...]
    trace: Trace
    workable_h: float | None
    safety: Safety | None
    belief: Belief
    acid: Acidity | None = None
    leaven_left_frac: float | None = None
    ready_by: tuple[float, ...] = ()
    offsets_c: dict[str, float] = field(default_factory=dict)
    cautions: tuple[Caution, ...] = field(default=())

    def window(self, stage: str) -> Window:
        """The window of the stage of that name."""
        return next(w for w in self.windows if w.stage == stage)


def forecast(
    batch: Batch,
    stages: Sequence[Stage],
    targets: Sequence[float] = (DEFAULT_TARGET,),
    *,
    belief: Belief | None = None,
    readings: Sequence[Reading] = (),
    by_h: Sequence[float] = (),
    coarse: bool = False,
) -> Forecast:
    """Forecast a rise by yeast, a starter, soda, or all together. Stages must have positive hours; see
    `services.contract`.

    `by_h` asks for the probability that the last stage is ready by those hours. `coarse` takes fewer nodes, for a
    picture under a finger (windows within a few minutes).
    """
    belief = belief or Belief()
    looks, doubts = _sorted_looks(readings)
    believed = warmth.learned(batch, stages, looks, belief.mean)
    fan = _fan(*believed.applied(batch, stages), belief, targets[0] if targets else DEFAULT_TARGET, coarse)
    post = posterior(belief, fan.z, [r for r in looks if r.kind != "dough_c"], fan.predict)
    doubts += [caution("reading_far_off", f"Look at {r.h:.1f} h:") for r in looks if _far_off(r, fan.closed)]
    windows, ready_by = _windows(fan, believed, post, belief, by_h)
    middle, low, high = fan.quantiles(post)
    safety = _safety(batch, stages, middle)
    hours = [s.hours for s in fan.stages]
    return Forecast(
        tuple(_crossings(fan.stages, fan.closed, post, targets)),
        post.band([float(r.course.h[int(np.argmax(r.ratio))]) for r in fan.closed]),
        float(np.max(middle.ratio)),
        windows,
        _trace(fan.stages, hours, middle, low, high, QUICK_ROWS if coarse else TRACE_ROWS),
        workable_h(middle, fan.stages, len(fan.stages) - 1, sum(hours[:-1])),
        safety,
        post.updated(),
        _acidity(with_all(batch, stages), middle),
        _leaven_left(middle),
        ready_by,
        dict(zip(warmth.SPREAD_C, believed.mean.tolist(), strict=True)),
        (*doubts, *_cautions(batch, stages, middle, safety)),
    )


class _Fan(NamedTuple):
    """Runs of one dough over the nodes z of its leaven's strength: of every stage that is watched, left open after its
    end; and of the whole, as long as it is planned."""

    batch: Batch
    stages: list[Stage]
    z: Array
    lengths: dict[int, list[float]]
    opened: dict[int, list[Run]]
    closed: list[Run]
    default_target: float
    coarse: bool

    def predict(self, node: int, h: float) -> tuple[float, float]:
        """(volume ratio, maturity) of a node at hour h, held at the plan's end."""
        run = self.closed[node]
        at = min(h, sum(s.hours for s in self.stages)) - AT_ONCE_H  # at a stage's end: before it is knocked back
        return float(np.interp(at, run.course.h, run.ratio)), float(np.interp(at, run.course.h, run.maturity))

    def quantiles(self, post: Posterior) -> tuple[Run, Run, Run]:
        """The runs at the median, the tenth and the ninetieth percentile of the leaven's strength."""
        z50, z10, z90 = (post.quantile_z(q) for q in (0.5, 0.1, 0.9))
        if self.coarse:
            return (
                _between(self.z, self.closed, z50),
                _between(self.z, self.closed, z10),
                _between(self.z, self.closed, z90),
            )
        return self._whole(z50), self._whole(z10), self._whole(z90)

    def _whole(self, z: float) -> Run:
        hours = [s.hours for s in self.stages]
        return run_stages(self.batch, self.stages, hours, math.exp(z), default_target=self.default_target)


def _fan(batch: Batch, stages: list[Stage], belief: Belief, default_target: float, coarse: bool) -> _Fan:
    """All runs of a forecast, in ten-minute steps."""
    hours = [s.hours for s in stages]
    z_nodes = nodes(belief, (7 if coarse else 17) if yeast_course.course_stepper.ready else 5)
    watched = [i for i, stage in enumerate(stages) if stage.target_ratio is not None or i == len(stages) - 1]
    lengths = {i: [*hours[:i], open_hours(stages[i], *((8.0, 8.0) if coarse else (12.0, 24.0)))] for i in watched}
    opened = {
        i: [
            run_stages(batch, stages[: i + 1], lengths[i], math.exp(z), default_target=default_target, coarse=True)
            for z in z_nodes
        ]
        for i in watched
    }
    closed = [r.until(sum(hours)) for r in opened[len(stages) - 1]]
    return _Fan(batch, stages, z_nodes, lengths, opened, closed, default_target, coarse)


def _windows(
    fan: _Fan, believed: warmth.Warmth, post: Posterior, belief: Belief, by_h: Sequence[float]
) -> tuple[tuple[Window, ...], tuple[float, ...]]:
    """(window of every watched stage, probability that the last is ready by those hours)."""
    found: list[Window] = []
    ready_by: tuple[float, ...] = ()
    for i, runs in fan.opened.items():
        until = fan.stages[: i + 1]
        noise = QUICK_NOISE if fan.coarse else _noise(believed, fan.batch, until, fan.lengths[i], post, belief)
        found.append(window_of(until, runs, i, sum(s.hours for s in fan.stages[:i]), fan.batch, post, noise))
        if i == len(fan.stages) - 1 and by_h:
            ready = [_passage(r, i, r.maturity, READY_M) for r in runs]
            ready_by = tuple(post.share_by(ready, h, noise) for h in by_h)
    return tuple(found), ready_by


def _leaven_left(run: Run) -> float | None:
    """Gas that soda and acid can still make at the end, over all they could; None without soda."""
    if not any(s.pools[SODA, LEFT] > 0 or s.fresh_pools[SODA, LEFT] > 0 for s in run.course.starts):
        return None
    all_gas = max(float(run.course.to_come_mol[0] + run.course.state[0, CO2]), 1e-12)
    return float(run.course.to_come_mol[-1]) / all_gas


def _between(z_nodes: Array, runs: Sequence[Run], z: float) -> Run:
    """The run at `z` as a mean of the nodes either side: all nodes share their rows."""
    i = int(np.clip(np.searchsorted(z_nodes, z) - 1, 0, len(runs) - 2))
    w = float(np.clip((z - z_nodes[i]) / (z_nodes[i + 1] - z_nodes[i]), 0, 1))
    a, b = runs[i], runs[i + 1]

    def mean(x: Array, y: Array) -> Array:
        return np.asarray((1 - w) * x + w * y)

    course = replace(
        a.course,
        state=mean(a.course.state, b.course.state),
        gas_ml=mean(a.course.gas_ml, b.course.gas_ml),
        to_come_mol=mean(a.course.to_come_mol, b.course.to_come_mol),
    )
    return Run(course, mean(a.ratio, b.ratio), mean(a.maturity, b.maturity), mean(a.fill, b.fill), a.stage)


def _sorted_looks(readings: Sequence[Reading]) -> tuple[list[Reading], list[Caution]]:
    """Looks in the order of their hours, each once."""
    once = list(dict.fromkeys(sorted(readings, key=lambda r: r.h)))
    return once, [caution("reading_twice")] if len(once) < len(readings) else []


def _far_off(reading: Reading, closed: Sequence[Run]) -> bool:
    """True if a ratio lies far above or below what any believable strength of the leaven gives then."""
    if reading.ratio is None or reading.kind == "dough_c":
        return False
    ratios = [float(np.interp(reading.h, r.course.h, r.ratio)) for r in closed]
    slack = 0.15 + 0.2 * max(reading.ratio - 1, 0.0)
    return not min(ratios) - slack <= reading.ratio <= max(ratios) + slack


def _passage(run: Run, index: int, trace: Array, level: float) -> float | None:
    rows = run.stage == index
    return yeast_course.first_passage_h(run.course.h[rows], trace[rows], level)


def _noise(
    believed: warmth.Warmth, batch: Batch, stages: list[Stage], lengths: Sequence[float], post: Posterior, prior: Belief
) -> float:
    """Spread of the time that remains, as a share of it: what temperatures leave open, and the dough's own.

    A look at the level has seen what the temperatures did until then, and laid it to the leaven: of those offsets only
    as much stays open as of the leaven's strength itself.
    """
    z, since_h = post.quantile_z(0.5), post.last_reading_h
    left_open = min(post.updated().sd_log / prior.sd_log, 1.0)
    seen = warmth.offsets_until(stages, since_h) if since_h > 0 else set()

    def ready_h(warm: warmth.Warmth) -> float | None:
        dough, moved = warmth.Warmth(warm.mean - believed.mean, warm.cov).applied(batch, stages)
        run = run_stages(dough, moved, lengths, math.exp(z), coarse=True)
        return _passage(run, len(stages) - 1, run.maturity, READY_M)

    at = ready_h(believed)
    if at is None or at - since_h <= 0.05:
        return OWN_NOISE
    names = warmth.open_offsets(stages)
    slopes = np.zeros(len(warmth.SPREAD_C))
    for name in names:
        step = max(believed.spread_c(name), 0.1)
        moved_at = ready_h(believed.moved(name, step))
        if moved_at is not None and moved_at > since_h:
            slope = math.log((moved_at - since_h) / (at - since_h)) / step
            slopes[list(warmth.SPREAD_C).index(name)] = slope * (left_open if name in seen else 1.0)
    return math.sqrt(OWN_NOISE**2 + min(float(slopes @ believed.cov @ slopes), 1.0))


def _acidity(batch: Batch, middle: Run) -> Acidity | None:
    sour = batch.recipe.sour
    if sour is None:
        return None
    acid = float(middle.course.acid_mol[-1])
    tta = tta_ml(acid, middle.course.start.mass, sour.whole_share)
    return Acidity(ph_of(acid, sour.whole_share), tta, sourness(tta))


def _crossings(
    stages: Sequence[Stage], closed: Sequence[Run], post: Posterior, targets: Sequence[float]
) -> list[Crossing]:
    found = []
    for ratio in targets:
        here = []
        for i, stage in enumerate(stages):
            band = post.band([_passage(r, i, r.ratio, ratio) for r in closed])
            if band.p50 is not None:
                here.append(Crossing(ratio, stage.name, band))
        found += here or [Crossing(ratio, stages[-1].name, NEVER)]
    return found


def _trace(stages: Sequence[Stage], hours: Sequence[float], middle: Run, low: Run, high: Run, rows: int) -> Trace:
    c = middle.course
    ends = np.nonzero(np.diff(middle.stage))[0]
    keep = np.unique(np.concatenate([np.linspace(0, len(c.h) - 1, rows).astype(int), ends, ends + 1]))
    centre = np.concatenate([centre_c(middle, stages, i, sum(hours[:i]))[1] for i in range(len(stages))])
    return Trace(
        c.h[keep],
        middle.ratio[keep],
        low.ratio[keep],
        high.ratio[keep],
        middle.maturity[keep],
        middle.fill[keep],
        c.temp_c[keep],
        centre[keep],
        c.gas_ml_per_100g[keep],
    )


def _safety(batch: Batch, stages: Sequence[Stage], middle: Run) -> Safety | None:
    return warm_hours(middle, stages) if with_all(batch, stages).dough.spoils else None


def _cautions(batch: Batch, stages: Sequence[Stage], middle: Run, safety: Safety | None) -> list[Caution]:
    found = [caution("dairy_warm")] if safety else []
    coldest, warmest = float(middle.course.temp_c.min()), float(middle.course.temp_c.max())
    freezing = -FREEZING_K_PER_OSMOL * osmolality(batch.recipe)
    if coldest < freezing:
        found.append(caution("dough_freezes", f"The dough comes to {coldest:.1f} C and freezes at {freezing:.1f} C."))
    if warmest > HARM_C:
        found.append(caution("yeast_harmed", f"The dough comes to {warmest:.0f} C."))
    for stage in stages:
        mean = float(np.mean([c for _, c in stage.path]))
        cold_c = min(c for _, c in stage.path)
        if stage.name.startswith(("cold", "fridge")) and mean > 6:
            found.append(caution("fridge_warm", f"{stage.name} at {mean:.0f} C."))
        if mean > 42 or cold_c < -3:
            found.append(caution("outside_tested_range", f"{stage.name} at {mean:.0f} C."))
    return found
