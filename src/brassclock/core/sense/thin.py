"""A long row of values made short: the middle of each ten minutes, where it says something new."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import groupby
from statistics import median

from brassclock.core.evidence import Kind, Param

BIN_H = 1 / 6
NEW_K = Param(0.25, "K", 0.1, 0.5, Kind.JUDGEMENT, "a forecast does not feel less")
LONGEST_H = 1.0  # so that a row without news is still seen to go on

Point = tuple[float, float]


def middles(points: Sequence[Point], bin_h: float = BIN_H) -> list[Point]:
    """(middle hour, median) of each full stretch of `bin_h` on a line that begins at hour 0, in order.

    >>> middles([(0.0, 1.0), (0.05, 3.0), (0.1, 2.0), (0.2, 5.0)])
    [(0.08333333333333333, 2.0), (0.25, 5.0)]
    """
    return [
        ((n + 0.5) * bin_h, median(v for _, v in group))
        for n, group in groupby(points, key=lambda p: int(p[0] // bin_h))
    ]


def thinned(points: Sequence[Point], last: Point | None, until_h: float) -> list[Point]:
    """The points a forecast needs of a row, beyond the `last` that it has; a stretch not over at `until_h` waits.

    >>> row = [(n / 60, 20.0 + (1.0 if n >= 30 else 0.0)) for n in range(90)]
    >>> [(round(h, 2), c) for h, c in thinned(row, None, 1.5)]
    [(0.08, 20.0), (0.58, 21.0)]
    """
    kept: list[Point] = []
    for at, value in middles(points):
        if at + BIN_H / 2 > until_h + 1e-9 or (last is not None and at <= last[0]):
            continue
        if last is None or abs(value - last[1]) >= NEW_K or at - last[0] >= LONGEST_H - 1e-9:
            last = (at, value)
            kept.append(last)
    return kept
