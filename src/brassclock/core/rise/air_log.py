"""Doubts about a row of air readings: hours without any, and a line too still to be air."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from statistics import median

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import Kind, Param

GAP_LEAST_H = Param(3.0, "h", 1, 6, Kind.JUDGEMENT, "a shorter hole in a log hides little")
GAP_TIMES = 5.0
# judgement: so long, so many readings, so little between them
FLAT_LEAST_H = Param(3.0, "h", 1, 6, Kind.JUDGEMENT, "a line too still to be air, at least so long")
FLAT_LEAST = 6
FLAT_C = Param(0.05, "C", 0.02, 0.2, Kind.JUDGEMENT, "real air moves by more")


def longest_still(points: Sequence[tuple[float, float]]) -> tuple[float, int]:
    """(hours, readings) of the longest stretch in which the air did not move."""
    best, begin = (0.0, 1), 0
    for i in range(1, len(points)):
        if abs(points[i][1] - points[begin][1]) > FLAT_C:
            begin = i
        best = max(best, (points[i][0] - points[begin][0], i - begin + 1))
    return best


def doubts(points: Sequence[tuple[float, float]]) -> list[Caution]:
    """Cautions for a log of (hour, C), in order of time.

    >>> [c.code for c in doubts([(h / 2, 21.0) for h in range(12)])]
    ['probe_flat']
    """
    found = []
    steps = [b[0] - a[0] for a, b in pairwise(points)]
    if len(steps) >= 3 and max(steps) > max(GAP_LEAST_H, GAP_TIMES * median(steps)):
        found.append(caution("path_gap", f"{max(steps):.1f} h:"))
    hours, count = longest_still(points)
    if hours >= FLAT_LEAST_H and count >= FLAT_LEAST:
        found.append(caution("probe_flat", f"{count} readings over {hours:.1f} h are all {points[-1][1]:.1f} C."))
    return found
