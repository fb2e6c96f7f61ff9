"""Warm hours of a dough that spoils: a count by common practice of kitchens, never permission. No published source."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.course import first_passage_h
from brassclock.core.rise.stages import Run, Stage
from brassclock.core.rise.state import Array

SAFE_C = Param(10.0, "C", 5, 10, Kind.PRACTICE, "a dough that cools in the cold counts until it is under that")
LIMIT_H = Param(2.0, "h", 1, 2, Kind.PRACTICE, "kitchens' guidance for dairy, egg, meat and potato")
HOT_C = Param(32.0, "C", 30, 35, Kind.PRACTICE, "above it the count runs twice as fast: one hour, not two")


@dataclass(frozen=True)
class Safety:
    """Warm hours of a dough with dairy, egg, meat or potato, the usual limit [h], the hour at which that is reached
    [h from the end of mixing; None: never], and the hours of each stage by name."""

    warm_h: float
    limit_h: float
    reached_at_h: float | None
    by_stage: tuple[tuple[str, float], ...] = ()


def warm_count(h: Array, dough_c: Array, air_c: Array) -> Array:
    """Warm hours by row: time out of the cold, and in the cold until the dough is under SAFE_C; double above HOT_C.

    >>> h, warm, cold = np.array([0.0, 1.0, 2.0, 3.0]), np.full(4, 22.0), np.full(4, 4.0)
    >>> warm_count(h, warm, warm).tolist(), warm_count(h, cold, cold).tolist()
    ([0.0, 1.0, 2.0, 3.0], [0.0, 0.0, 0.0, 0.0])
    >>> warm_count(h, np.full(4, 35.0), warm).tolist()
    [0.0, 2.0, 4.0, 6.0]
    """
    runs = (dough_c > SAFE_C) | (air_c > SAFE_C)
    pace = np.where(dough_c > HOT_C, 2.0, 1.0) * runs
    return np.asarray(np.cumsum(pace * np.diff(h, prepend=h[0])))


def warm_hours(run: Run, stages: Sequence[Stage]) -> Safety:
    """The count along a run through its stages."""
    h, temp, lengths = run.course.h, run.course.temp_c, [s.hours for s in stages]
    begins = np.concatenate([[0.0], np.cumsum(lengths)])
    air = np.zeros(len(h))
    for i, stage in enumerate(stages):
        rows = run.stage == i
        air[rows] = stage.air_c(h[rows] - begins[i])
    warm = warm_count(h, temp, air)
    ends = [float(warm[run.stage == i][-1]) for i in range(len(stages))]
    by_stage = tuple((s.name, b - a) for s, a, b in zip(stages, [0.0, *ends], ends, strict=False))
    return Safety(float(warm[-1]), float(LIMIT_H), first_passage_h(h, warm, LIMIT_H), by_stage)
