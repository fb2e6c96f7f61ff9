"""A weight that stands still, and a heat that has settled."""

from __future__ import annotations

from collections.abc import Sequence
from statistics import median

from brassclock.core.evidence import Kind, Param

STILL_S = Param(1.2, "s", 0.5, 3, Kind.JUDGEMENT, "a kitchen scale comes to rest within it")
STILL_STEPS = 2.0  # of the scale's own step
LEAST_G = Param(0.4, "g", 0.1, 2, Kind.JUDGEMENT, "hands and air on the pan move it by less")
LEAST = 3  # readings of a heat that has settled
SETTLED_MIN = Param(2.0, "min", 1, 10, Kind.JUDGEMENT, "a plate that heats moves by more within it")
SETTLED_K = Param(6.0, "K", 2, 12, Kind.JUDGEMENT, "spots of a plate and an infrared's own scatter")
HOT_C = 120.0  # below it nothing bakes: the surface is on its way, or off

Point = tuple[float, float]


def still_g(points: Sequence[Point], step_g: float) -> float | None:
    """The weight [g] that (second, g) ends at, where it has stood still; None while it moves.

    >>> still_g([(0.0, 0.0), (0.5, 80.0), (1.0, 120.1), (1.6, 120.0), (2.4, 120.0)], 0.1)
    120.0
    >>> still_g([(0.0, 0.0), (0.5, 80.0), (1.0, 110.0), (1.5, 119.0)], 0.1) is None
    True
    """
    recent: list[float] = []
    for second, grams in reversed(points):
        recent.append(grams)
        if max(recent) - min(recent) > max(STILL_STEPS * step_g, LEAST_G):
            return None
        if points[-1][0] - second >= STILL_S:
            return float(median(recent))
    return None


def settled_c(points: Sequence[Point]) -> float | None:
    """The heat [C] that a surface's (minute, C) has settled at; None while it heats or cools, or is too cold to bake.

    >>> settled_c([(m / 4, 250.0 + m % 3) for m in range(16)])
    251.0
    >>> settled_c([(m / 4, 100.0 + 8 * m) for m in range(16)]) is None
    True
    """
    recent = [(m, v) for m, v in points if m >= points[-1][0] - SETTLED_MIN] if points else []
    if len(recent) < LEAST or recent[-1][0] - recent[0][0] < 0.75 * SETTLED_MIN:
        return None
    values = [v for _, v in recent]
    half = len(values) // 2
    drift = abs(median(values[half:]) - median(values[:half]))
    middle = float(median(values))
    return middle if drift <= SETTLED_K / 2 and max(values) - min(values) <= 3 * SETTLED_K and middle >= HOT_C else None
