"""A long row of values made short: the middle of each stretch, where it says something new."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby
from statistics import median

from brassclock.core.evidence import Kind, Param

NEW_K = Param(0.25, "K", 0.1, 0.5, Kind.JUDGEMENT, "air: a forecast does not feel less")
NEW_DOUGH_K = Param(0.5, "K", 0.2, 1.0, Kind.JUDGEMENT, "dough: each reading is a look that a forecast weighs")


@dataclass(frozen=True)
class Grain:
    """The rule by which a row is made short: the middle of each `bin_h` [h], where it differs by `new_k` [K] from the
    last, or that is `longest_h` [h] ago: a row without news is still seen to go on."""

    bin_h: float
    new_k: float
    longest_h: float


AIR = Grain(1 / 6, NEW_K, 1.0)
STEADY = Grain(1.0, NEW_K, 3.0)  # air that a thermostat keeps: its to and fro says nothing
DOUGH = Grain(1 / 3, NEW_DOUGH_K, 2.0)

Point = tuple[float, float]


def middles(points: Sequence[Point], bin_h: float = AIR.bin_h) -> list[Point]:
    """(middle hour, median) of each full stretch of `bin_h` on a line that begins at hour 0, in order.

    >>> middles([(0.0, 1.0), (0.05, 3.0), (0.1, 2.0), (0.2, 5.0)])
    [(0.08333333333333333, 2.0), (0.25, 5.0)]
    """
    return [
        ((n + 0.5) * bin_h, median(v for _, v in group))
        for n, group in groupby(points, key=lambda p: int(p[0] // bin_h))
    ]


def thinned(points: Sequence[Point], last: Point | None, until_h: float, grain: Grain = AIR) -> list[Point]:
    """The points a forecast needs of a row, beyond the `last` that it has; a stretch not over at `until_h` waits.

    >>> row = [(n / 60, 20.0 + (1.0 if n >= 30 else 0.0)) for n in range(90)]
    >>> [(round(h, 2), c) for h, c in thinned(row, None, 1.5)]
    [(0.08, 20.0), (0.58, 21.0)]
    """
    kept: list[Point] = []
    for at, value in middles(points, grain.bin_h):
        if at + grain.bin_h / 2 > until_h + 1e-9 or (last is not None and at <= last[0]):
            continue
        if last is None or abs(value - last[1]) >= grain.new_k or at - last[0] >= grain.longest_h - 1e-9:
            last = (at, value)
            kept.append(last)
    return kept
