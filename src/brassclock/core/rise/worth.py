"""Which measurement is worth taking: how much each would narrow the hour a stage is ready.

First order in the open uncertainties (docs/science.md, *Worth of a reading*): runs at ± one spread of each give
the slope S of the answer (maturity at the planned end) and b of a measurement; V = Σ S²s² + (.10·S_A)²;
gain = (Σ s²Sb)²/(Σ s²b² + e²); what is left is √(V − gain). Spreads are judgement, set by simulation.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from brassclock.core.matter.dough import dough_of
from brassclock.core.rise import warmth
from brassclock.core.rise.belief import PRIOR_SD_LOG, Belief
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import SCALED_SUGAR, Run, Stage, run_stages

SPREADS = {
    "ln A": PRIOR_SD_LOG,
    "room": 1.5,
    "mix": 1.5,
    "shelf": 1.5,
    "ln yeast": 0.15,
    "lag": 0.35,
    "sugar": 0.35,
    "growth": 0.20,
}
TWEAKS = {"lag": "tau_a", "sugar": SCALED_SUGAR, "growth": "mu27"}  # what each scales
OWN_NOISE = 0.10
THERMOMETER_C, SCALE_LOG = 0.5, 0.04
WIDTH_80 = 2 * 1.2816


@dataclass(frozen=True)
class InformationGain:
    """A measurement: what, when [h from the end of mixing; None for any time], and by how much it narrows the answer [min]."""

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


def worth(
    batch: Batch, stages: Sequence[Stage], *, belief: Belief | None = None, now_h: float = 0.0
) -> list[InformationGain]:
    """Measurements still ahead of `now_h`, the one that narrows the end of the last stage most first."""
    belief = belief or Belief()
    case = _Case(batch, tuple(stages), belief.mean)
    spreads = SPREADS | {"ln A": belief.sd_log}
    matter = {"shelf": "shelf" in warmth.open_offsets(stages), "ln yeast": bool(batch.recipe.yeast)}
    names = [n for n in spreads if matter.get(n, True)]
    end_h = sum(s.hours for s in stages)
    begin_h = end_h - stages[-1].hours
    middle = case.run()
    runs = {n: (_moved(case, n, spreads[n]), _moved(case, n, -spreads[n])) for n in names}

    def slopes(h: float, read: Callable[[Run], np.ndarray]) -> dict[str, float]:
        return {n: (_at(up, h, read) - _at(down, h, read)) / (2 * spreads[n]) for n, (up, down) in runs.items()}

    answer = slopes(end_h - 1e-6, lambda r: r.maturity)
    step_h = 0.1 * stages[-1].hours
    rate = (
        _at(middle, end_h - 1e-6, lambda r: r.maturity) - _at(middle, end_h - step_h, lambda r: r.maturity)
    ) / step_h
    variance = sum((answer[n] * spreads[n]) ** 2 for n in names) + (OWN_NOISE * answer["ln A"]) ** 2
    if rate <= 1e-6:
        return []

    def narrowing(b: dict[str, float], noise: float) -> float:
        both = sum(spreads[n] ** 2 * answer[n] * b.get(n, 0.0) for n in names)
        seen = sum((spreads[n] * b.get(n, 0.0)) ** 2 for n in names) + noise**2
        left = max(variance - both**2 / seen, 0.0)
        return WIDTH_80 * (math.sqrt(variance) - math.sqrt(left)) / rate * 60

    found: list[InformationGain] = []
    for share, words in ((1 / 3, "the level a third of the way"), (1 / 2, "the level half way")):
        h = begin_h + share * stages[-1].hours
        if h > now_h:
            level = _at(middle, h, lambda r: r.ratio)
            noise = math.sqrt(0.04**2 + (0.10 * max(level - 1, 0.0)) ** 2)
            found.append(InformationGain("level", words, h, narrowing(slopes(h, lambda r: r.ratio), noise)))
    h = begin_h + 0.35 * stages[-1].hours
    if h > now_h:
        found.append(
            InformationGain(
                "dough_c",
                "the dough's own temperature",
                h,
                narrowing(slopes(h, lambda r: r.course.temp_c), THERMOMETER_C),
            )
        )
    if "shelf" in names:
        found.append(
            InformationGain(
                "shelf_c", "a thermometer on the fridge shelf", None, narrowing({"shelf": 1.0}, THERMOMETER_C)
            )
        )
    if "ln yeast" in names and now_h <= 0:
        found.append(
            InformationGain(
                "yeast_g", "weighing the yeast, not spooning it", None, narrowing({"ln yeast": 1.0}, SCALE_LOG)
            )
        )
    return sorted(found, key=lambda w: -w.narrows_min)
