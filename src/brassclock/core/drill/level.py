"""Level of a learner: up after a good run, down after a bad one. Points set the level and are not shown."""

from __future__ import annotations

from collections.abc import Iterable

from brassclock.core.drill.draw import LEVELS
from brassclock.core.evidence import Kind, Param

RUN = 5  # cases that are looked at
UP_FROM = Param(75.0, "-", 65, 85, Kind.JUDGEMENT, "mean points of a run that call for harder cases")
DOWN_UNDER = Param(40.0, "-", 30, 50, Kind.JUDGEMENT, "mean points of a run that call for easier cases")


def level_after(points: Iterable[float], start: int = LEVELS[0]) -> int:
    """Level after answers worth these points, in their order; a run counts within one level only.

    >>> level_after([80] * 5), level_after([80] * 4), level_after([80] * 5 + [30] * 5)
    (2, 1, 1)
    """
    level, run = start, list[float]()
    for value in points:
        run.append(value)
        if len(run) < RUN:
            continue
        mean = sum(run[-RUN:]) / RUN
        step = 1 if mean >= UP_FROM else -1 if mean < DOWN_UNDER else 0
        if step and level + step in LEVELS:
            level, run = level + step, []
    return level
