"""The right heat for a bread: where it is through just as both faces have their colour; and the heat that a cook's
habit implies."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.baking import Baking
from brassclock.core.fire.colour import reached_s
from brassclock.core.fire.ends import black_s, sides_s
from brassclock.core.fire.surface_heat import SOURCES, heat_band
from brassclock.core.rise.belief import Band
from brassclock.core.units import degrees

STEP_K = 10.0
RANGES = {  # [C] that are tried, by the way of a surface
    "oven": (170.0, 300.0),
    "tray": (140.0, 260.0),
    "wall": (230.0, 520.0),
    "floor": (200.0, 480.0),
    "oil": (140.0, 220.0),
    "turned": (130.0, 300.0),
    "lidded": (120.0, 260.0),
    "inverted": (130.0, 300.0),
    "grill": (130.0, 300.0),
}
LEAST_SIDE_S = Param(15.0, "s", 8, 30, Kind.PRACTICE, "nobody turns sooner")
MARGIN_K = Param(20.0, "K", 10, 40, Kind.JUDGEMENT, "below the heat at which it goes wrong")
BEST_MOST = {  # practice: hotter, flour and fat burn on it, or nobody gets it so hot at home [C]
    "oven": 290.0,
    "tray": 250.0,
    "wall": 480.0,
    "floor": 430.0,
    "oil": 205.0,
    "turned": 250.0,
    "lidded": 220.0,
    "inverted": 260.0,
    "grill": 250.0,
}
# of the time on the heat spent waiting for the middle, or for the top to set, while a face is coloured already
TOGETHER = Param(
    0.10, "-", 0.05, 0.2, Kind.JUDGEMENT, "of the time on the heat spent waiting for the middle, or for the top to set"
)
HABIT_SD_LOG = Param(0.25, "-", 0.15, 0.4, Kind.JUDGEMENT, "of a side's time: the hand and the model together")
HABIT_REACH_SD, HABIT_STEP_K = 3.0, 5.0
UNEXPLAINED = Param(2.0, "-", 1, 4, Kind.JUDGEMENT, "mean squared miss, in sd, beyond which no heat explains the times")


@dataclass(frozen=True)
class RightHeat:
    """Surface temperatures [C] from the coolest to the hottest that bake the bread as wished, the best between, and its
    turn and end there [s]."""

    low_c: float
    best_c: float
    high_c: float
    turn_s: float | None
    off_s: float

    @property
    def band(self) -> Band:
        """The span as p10, p50, p90 [C]."""
        return Band(self.low_c, self.best_c, self.high_c, 0.0)


@dataclass(frozen=True)
class _Tried:
    temp_c: float
    fits: bool
    waits: float
    turn_s: float | None
    off_s: float


def right_heat(baking: Baking) -> RightHeat | None:
    """The right heat of the usual program on this kind of surface, or None where no heat of its range does."""
    low, high = RANGES[baking.surface.spec.way]
    tried = [_try(baking, low + STEP_K * i) for i in range(int((high - low) / STEP_K) + 1)]
    good = [i for i, t in enumerate(tried) if t.fits]
    if not good:
        return None
    most_c = BEST_MOST[baking.surface.spec.way]
    usable = [i for i in good if tried[i].temp_c <= most_c] or good[:1]
    together = [i for i in usable if tried[i].waits <= TOGETHER]
    best = max(together) if together else min(usable, key=lambda i: tried[i].waits)
    while (
        best > good[0]
        and best - 1 in good
        and tried[best].temp_c + MARGIN_K > tried[_run_end(good, best)].temp_c < high
    ):
        best -= 1  # not on the brink
    first = last = best
    while first - 1 in good:
        first -= 1
    while last + 1 in good:
        last += 1
    at = tried[best]
    return RightHeat(tried[first].temp_c, at.temp_c, tried[last].temp_c, at.turn_s, at.off_s)


def _run_end(good: Sequence[int], at: int) -> int:
    """The last index of the unbroken run of `good` that holds `at`."""
    while at + 1 in good:
        at += 1
    return at


def _try(baking: Baking, temp_c: float) -> _Tried:
    seen, end = baking.at(temp_c).briefly()
    e = seen.events
    turn, wish = e["second"], baking.shown
    black = black_s(e, wish, turn or 0.0)
    below, above = (reached_s(e, face, word) for face, word in (("bottom", wish.bottom), ("top", wish.top)))
    hurried = turn is not None and baking.surface.spec.way != "oil" and min(sides_s(turn, end.off_s)) < LEAST_SIDE_S
    spoilt = black is not None and black < end.off_s
    if hurried or spoilt or end.codes or below is None or above is None:
        return _Tried(temp_c, False, math.inf, turn, end.off_s)
    wait = max(turn - below, 0.0) + end.off_s - max(above, turn) if turn else end.off_s - max(below, above)
    return _Tried(temp_c, True, wait / end.off_s, turn, end.off_s)


def right_heat_reason(found: RightHeat | None, baking: Baking, unit: str = "C") -> str:
    """The reason for that heat, in a sentence or two."""
    low, high = RANGES[baking.surface.spec.way]
    if found is None:
        return (
            f"No heat from {degrees(low, unit)} to {degrees(high, unit)} cooks it through with the colour you "
            "wish and neither black nor dried out."
        )
    sides = "both sides have their" if baking.shown == baking.wish else "its top has its"
    words = [f"At {degrees(found.best_c, unit)} it is through by the time {sides} colour."]
    if found.high_c < high:
        words.append(f"Above {degrees(found.high_c, unit)} it is dark before it is through.")
    if found.low_c > low:
        words.append(f"Below {degrees(found.low_c, unit)} it dries before it colours.")
    return " ".join(words)


@dataclass(frozen=True)
class Implied:
    """The heat that a cook's times imply: mean and standard deviation [C, K], or that none explains them."""

    mean_c: float
    sd_k: float
    explained: bool

    @property
    def band(self) -> Band | None:
        """p10, p50, p90 [C]; None where no heat explains the times."""
        return heat_band(self.mean_c, self.sd_k) if self.explained else None


def implied_reason(found: Implied, baking: Baking, unit: str = "C") -> str:
    """Sentence on what a habit implies."""
    name = baking.surface.spec.name.lower()
    if found.band is None:
        return (
            f"No heat of this surface ({name}) has this bread as you wish in those times. Look at its "
            "thickness, or its colour."
        )
    low, middle, high = (degrees(t or 0.0, unit) for t in (found.band.p10, found.band.p50, found.band.p90))
    return f"Your times suit {middle} ({low} to {high})."


def implied(baking: Baking, habit_s: Sequence[float]) -> Implied:
    """The surface's temperature from the seconds a cook gives each side (one for what is not turned), the bread coming
    out as wished."""
    was_c, sd = baking.surface.temp_c, baking.surface.sd_k or SOURCES["usual"].value
    sd = max(sd, SOURCES["usual"].value)
    low, high = RANGES[baking.surface.spec.way]
    grid = np.arange(max(low, was_c - HABIT_REACH_SD * sd), min(high, was_c + HABIT_REACH_SD * sd) + 1, HABIT_STEP_K)
    if not len(grid):
        grid = np.array([was_c])
    miss = np.array([_miss(baking, float(t), habit_s) for t in grid])
    prior = ((grid - was_c) / sd) ** 2
    weight = np.exp(-0.5 * (miss + prior - (miss + prior).min()))
    weight /= weight.sum()
    mean = float(weight @ grid)
    spread = float(np.sqrt(weight @ (grid - mean) ** 2 + HABIT_STEP_K**2 / 12))
    return Implied(mean, spread, bool(miss.min() / len(habit_s) <= UNEXPLAINED**2))


def _miss(baking: Baking, temp_c: float, habit_s: Sequence[float]) -> float:
    """Squared misses of the program's sides from the cook's, in standard deviations."""
    seen, end = baking.at(temp_c).briefly()
    e = seen.events
    told = sides_s(None if len(habit_s) == 1 else e["second"], end.off_s)
    return sum((math.log(max(t, 1.0) / max(s, 1.0)) / HABIT_SD_LOG) ** 2 for t, s in zip(told, habit_s, strict=False))
