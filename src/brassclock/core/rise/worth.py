"""Value of measurements: by how much each would narrow the hour a stage is ready.

First order in the open uncertainties (docs/science.md, *Worth of a reading*): runs at ± one spread of each give
the slope S of the answer (maturity at the planned end) and b of a measurement; V = Σ S²s² + (.10·S_A)²;
gain = (Σ s²Sb)²/(Σ s²b² + e²); what is left is √(V − gain). Spreads are judgement, set by simulation.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import dough_of
from brassclock.core.rise import warmth
from brassclock.core.rise.belief import PRIOR_SD_LOG, Belief
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import SCALED_SUGAR, Run, Stage, run_stages

SPREADS = {
    "ln A": PRIOR_SD_LOG,
    **warmth.SPREAD_C,
    "ln yeast": 0.15,
    "lag": 0.35,
    "sugar": 0.35,
    "growth": 0.20,
}
TWEAKS = {"lag": "tau_a", "sugar": SCALED_SUGAR, "growth": "mu27"}  # what each scales
OWN_NOISE = Param(0.10, "-", 0.05, 0.2, Kind.JUDGEMENT, "of the answer's slope on the leaven: the dough's own")
SCALE_LOG = Param(0.04, "-", 0.01, 0.1, Kind.JUDGEMENT, "a kitchen scale on a few grams of yeast")
LEVELS = ((1 / 3, "the level a third of the way"), (1 / 2, "the level half way"))
PROBE_SHARE = Param(0.35, "-", 0.2, 0.5, Kind.JUDGEMENT, "of the last stage, when a thermometer tells most")
EYE_SD = Param(0.04, "-", 0.02, 0.08, Kind.JUDGEMENT, "a level read by eye, in volume ratio")
EYE_SHARE = Param(0.10, "-", 0.05, 0.2, Kind.JUDGEMENT, "a level read by eye, of what it grew")
WIDTH_80 = 2 * 1.2816


@dataclass(frozen=True)
class InformationGain:
    """A measurement: what, when [h from the end of mixing; None for any time], and by how much it narrows the answer
    [min]."""

    what: str
    words: str
    at_h: float | None
    narrows_min: float


@dataclass(frozen=True)
class _Case:
    """Everything that one run needs, with one thing moved."""

    batch: Batch
    stages: tuple[Stage, ...]
    activity: float

    def run(self, scale: dict[str, float] | None = None) -> Run:
        return run_stages(self.batch, self.stages, [s.hours for s in self.stages], self.activity, scale)


def _moved(case: _Case, name: str, by: float) -> Run:
    if name == "ln A":
        return replace(case, activity=case.activity * math.exp(by)).run()
    if name in warmth.SPREAD_C:
        batch, stages = warmth.shifted(case.batch, case.stages, name, by)
        return replace(case, batch=batch, stages=tuple(stages)).run()
    if name == "ln yeast":
        dose = [
            replace(p, mass_g=p.mass_g * math.exp(by)) if p.ingredient.is_yeast else p
            for p in case.batch.dough.portions
        ]
        return replace(case, batch=replace(case.batch, dough=dough_of(dose))).run()
    return case.run({TWEAKS[name]: math.exp(by)})


def _at(run: Run, h: float, read: Callable[[Run], np.ndarray]) -> float:
    return float(np.interp(h, run.course.h, read(run)))


class _Slopes(NamedTuple):
    """Runs with each uncertainty up and down by its spread: what any answer of a run changes by."""

    middle: Run
    runs: dict[str, tuple[Run, Run]]
    spreads: dict[str, float]

    def of(self, h: float, read: Callable[[Run], np.ndarray]) -> dict[str, float]:
        """Slope of an answer at hour h by each uncertainty, in its unit."""
        return {
            n: (_at(up, h, read) - _at(down, h, read)) / (2 * self.spreads[n]) for n, (up, down) in self.runs.items()
        }


def _slopes(case: _Case, belief: Belief) -> _Slopes:
    spreads = SPREADS | {"ln A": belief.sd_log}
    matter = {"shelf": "shelf" in warmth.open_offsets(case.stages), "ln yeast": bool(case.batch.recipe.yeast)}
    names = [n for n in spreads if matter.get(n, True)]
    runs = {n: (_moved(case, n, spreads[n]), _moved(case, n, -spreads[n])) for n in names}
    return _Slopes(case.run(), runs, spreads)


def worth(
    batch: Batch, stages: Sequence[Stage], *, belief: Belief | None = None, now_h: float = 0.0
) -> list[InformationGain]:
    """Measurements still ahead of `now_h` [h], the one that narrows the end of the last stage most first."""
    case = _Case(batch, tuple(stages), (belief or Belief()).mean)
    slopes = _slopes(case, belief or Belief())
    last_h, end_h = stages[-1].hours, sum(s.hours for s in stages)
    answer = slopes.of(end_h - 1e-6, lambda r: r.maturity)
    back_h = 0.1 * last_h
    gained = _at(slopes.middle, end_h - 1e-6, lambda r: r.maturity)
    rate = (gained - _at(slopes.middle, end_h - back_h, lambda r: r.maturity)) / back_h
    if rate <= 1e-6:
        return []
    variances = {n: (answer[n] * slopes.spreads[n]) ** 2 for n in answer}
    variance = sum(variances.values()) + (OWN_NOISE * answer["ln A"]) ** 2

    def narrowing(b: dict[str, float], noise: float) -> float:
        both = sum(slopes.spreads[n] ** 2 * answer[n] * b.get(n, 0.0) for n in answer)
        seen = sum((slopes.spreads[n] * b.get(n, 0.0)) ** 2 for n in answer) + noise**2
        left = max(variance - both**2 / seen, 0.0)
        return WIDTH_80 * (math.sqrt(variance) - math.sqrt(left)) / rate * 60

    found: list[InformationGain] = []
    for share, words in LEVELS:
        h = end_h - (1 - share) * last_h
        if h > now_h:
            level = _at(slopes.middle, h, lambda r: r.ratio)
            noise = math.sqrt(EYE_SD**2 + (EYE_SHARE * max(level - 1, 0.0)) ** 2)
            gain = narrowing(slopes.of(h, lambda r: r.ratio), noise)
            found.append(InformationGain("level", words, h, gain))
    h = end_h - (1 - PROBE_SHARE) * last_h
    if h > now_h:
        gain = narrowing(slopes.of(h, lambda r: r.course.temp_c), warmth.THERMOMETER_C)
        found.append(InformationGain("dough_c", "the dough's own temperature", h, gain))
    if "shelf" in answer:
        gain = narrowing({"shelf": 1.0}, warmth.THERMOMETER_C)
        found.append(InformationGain("shelf_c", "a thermometer on the fridge shelf", None, gain))
    if "ln yeast" in answer and now_h <= 0:
        gain = narrowing({"ln yeast": 1.0}, SCALE_LOG)
        found.append(InformationGain("yeast_g", "weighing the yeast, not spooning it", None, gain))
    return sorted(found, key=lambda w: -w.narrows_min)
