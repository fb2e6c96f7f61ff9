"""The dose for the time there is: how much yeast reaches a ratio at an hour, and how to measure so little.

Root of (largest ratio up to the hour − target) in the logarithm of the dose, on the real rise model; the
answer run forward again reaches the target at the hour. Valid 0.005 to 6 % of flour in yeast, .5 to 150 % in starter.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from brassclock.core.matter.dough import Portion, dough_of
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.rise.course import first_passage_h
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage, run_stages

LOWEST_FRAC, HIGHEST_FRAC = 5e-5, 0.06
STARTER_LIMITS = (0.005, 1.5)
SPOONS = (
    (1 / 8, "1/8 tsp"),
    (1 / 4, "1/4 tsp"),
    (1 / 2, "1/2 tsp"),
    (3 / 4, "3/4 tsp"),
    (1.0, "1 tsp"),
    (1.5, "1 1/2 tsp"),
    (2.0, "2 tsp"),
    (3.0, "1 tbsp"),
)
DILUTE_BELOW_G = 1.0
SPOON_BELOW_G = 12.0
DILUTE_IN_G = 100.0


@dataclass(frozen=True)
class Way:
    """A way to measure a dose: what to do, the grams it gives, and the hour it then reaches the target at."""

    text: str
    grams: float
    at_h: float | None


@dataclass(frozen=True)
class Dose:
    """Yeast over flour for a ratio at an hour, None when none does; the reason in words; how to measure it."""

    baker_frac: float | None
    mass_g: float | None
    reason: str
    measurable: tuple[Way, ...] = ()


@dataclass(frozen=True)
class DoseRequest:
    """Target of a dose: the dough without its leaven, how it is kept, the ratio and the hour."""

    batch: Batch
    stages: tuple[Stage, ...]
    target_ratio: float
    at_h: float
    activity: float = 1.0

    @property
    def flour_g(self) -> float:
        """Flour of the dough [g]."""
        return self.batch.dough.flour_g

    def reaching(self) -> tuple[Stage, ...]:
        """The stages, the last held on long enough to see past the hour."""
        before = sum(s.hours for s in self.stages[:-1])
        last = self.stages[-1]
        return (*self.stages[:-1], replace(last, hours=max(last.hours, self.at_h - before) + 1e-6))

    def leavened(self, leaven: Ingredient, share: float) -> Batch:
        """The dough with so much of a leaven over its own flour; a starter brings flour and water of its own."""
        portions = [*self.batch.dough.portions, Portion(leaven, share * self.flour_g)]
        return replace(self.batch, dough=dough_of(portions))


def _largest_ratio(
    wish: DoseRequest, stages: Sequence[Stage], leaven: Ingredient, share: float
) -> tuple[float, float | None]:
    """(largest ratio of the last stage up to the hour, first hour at the target)."""
    run = run_stages(wish.leavened(leaven, share), stages, [s.hours for s in stages], wish.activity)
    last = run.stage == len(stages) - 1
    h, ratio = run.course.h[last], run.ratio[last]
    top = max(float(np.max(ratio[h <= wish.at_h], initial=1.0)), float(np.interp(wish.at_h, h, ratio)))
    return top, first_passage_h(h, ratio, wish.target_ratio)


def dose_for(wish: DoseRequest, leaven: Ingredient) -> Dose:
    """The dose of a yeast or a starter (at its peak) over the dough's own flour. The dough must hold flour and
    water."""
    if not leaven.is_ferment:
        name = leaven.name.lower()
        return Dose(
            None,
            None,
            f"{name.capitalize()} makes its gas at mixing and in the heat, not over hours: see the soda balance.",
        )
    stages = wish.reaching()
    least, most = STARTER_LIMITS if leaven.is_starter else (LOWEST_FRAC, HIGHEST_FRAC)

    def short(log_share: float) -> float:
        return _largest_ratio(wish, stages, leaven, math.exp(log_share))[0] - wish.target_ratio

    low, high = math.log(least), math.log(most)
    if short(high) < 0:
        return Dose(
            None,
            None,
            f"No dose up to {most:.0%} brings it to {wish.target_ratio:g} x within {wish.at_h:.1f} h here. "
            "Give it longer, a warmer place, or a lower target.",
        )
    if short(low) > 0:
        return Dose(
            None,
            None,
            f"Even a trace of {leaven.name.lower()} passes {wish.target_ratio:g} x before {wish.at_h:.1f} h. "
            "Make it colder or serve sooner.",
        )
    from scipy.optimize import brentq  # loaded when it is used: it would hold up the start

    share = math.exp(float(brentq(short, low, high, xtol=1e-4)))
    mass_g = share * wish.flour_g
    reason = (
        f"{share:.2%} of the flour reaches {wish.target_ratio:g} x in {wish.at_h:.1f} h at this kitchen's activity."
    )
    ways = () if leaven.is_starter else tuple(_ways(wish, leaven, mass_g))
    return Dose(share, mass_g, reason, ways)


def _ways(wish: DoseRequest, leaven: Ingredient, mass_g: float) -> list[Way]:
    found: list[Way] = []
    if mass_g < SPOON_BELOW_G:
        near = sorted(SPOONS, key=lambda s: abs(math.log(s[0] * leaven.tsp_g / mass_g)))[:2]
        last = wish.stages[-1]
        longer = (*wish.stages[:-1], replace(last, hours=last.hours + 2 * wish.at_h + 6))
        for part, name in sorted(near):
            grams = part * leaven.tsp_g
            at_h = _largest_ratio(wish, longer, leaven, grams / wish.flour_g)[1]
            found.append(Way(f"{name}, level ({grams:.2g} g)", grams, at_h))
    if mass_g < DILUTE_BELOW_G:
        use_g = mass_g * DILUTE_IN_G
        text = (
            f"1 g stirred into {DILUTE_IN_G - 1:.0f} g of the water; use {use_g:.0f} g of that and leave out "
            f"{use_g - mass_g:.0f} g water"
        )
        found.append(Way(text, mass_g, wish.at_h))
    return found
