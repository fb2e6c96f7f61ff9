"""The evidence of many bakes together: how many pockets open fully as it is believed, which cause comes back and which
is silent since something was changed, and how often a forecast held."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from brassclock.core.fire.calibration import HALF_LIFE_D, weight_of_each

Array = NDArray[np.float64]
FLAT_PRIOR = 1.0  # full and not full each count one bread before the first bake


class Rate(NamedTuple):
    """A believed rate after each bake: its mean, and the band that holds it 8 times in 10."""

    mean: Array
    low: Array
    high: Array


def believed_rate(
    day: Sequence[float], full: Sequence[int], judged: Sequence[int], after: Sequence[int] | None = None
) -> Rate:
    """Share of pockets that open fully as it is believed after each bake [0 to 1], a Beta of the breads seen; told of
    the bakes of these numbers alone where `after` is given (the quantiles of a Beta are what takes the time).

    `day` are the bakes' days, ascending; of each so many breads opened fully out of those judged. What is old counts
    less by half every HALF_LIFE_D, and each bread of a bake of many less, as both do in the chance of one bread.

    >>> r = believed_rate([0.0, 1.0], [0, 8], [0, 8])
    >>> float(r.mean[0]), bool(r.mean[1] > 0.7), bool(r.low[1] < r.mean[1] < r.high[1])
    (0.5, True, True)
    """
    yes, no = np.zeros(len(day)), np.zeros(len(day))
    a = b = 0.0
    before = day[0] if len(day) else 0.0
    for k, (at, opened, breads) in enumerate(zip(day, full, judged, strict=True)):
        faded = 0.5 ** ((at - before) / float(HALF_LIFE_D))
        each = weight_of_each(breads) if breads else 0.0
        a, b, before = a * faded + each * opened, b * faded + each * (breads - opened), at
        yes[k], no[k] = a, b
    if after is not None:
        yes, no = yes[list(after)], no[list(after)]
    yes, no = yes + FLAT_PRIOR, no + FLAT_PRIOR
    from scipy.special import betaincinv  # loaded when it is first asked: a start needs none of it

    return Rate(yes / (yes + no), betaincinv(yes, no, 0.1), betaincinv(yes, no, 0.9))


class Blamed(NamedTuple):
    """A bake for the lanes: its number, the first cause of what fell short with the breads that it cost (None, 0 where
    nothing did), the cause that a change was carried against with the words of it, and whether it was judged."""

    number: int
    cause: str | None
    lost: int
    against: str | None
    change: str
    judged: bool


@dataclass
class Lane:
    """One cause through many bakes: where it cost breads, where something was changed against it, and how many judged
    bakes went by without it since the last of either."""

    cause: str
    lost: int = 0
    marks: list[tuple[int, int]] = field(default_factory=list)
    changes: list[tuple[int, str]] = field(default_factory=list)
    silent: int = 0


def lanes(bakes: Iterable[Blamed]) -> list[Lane]:
    """A lane for each cause that cost a bread, the dearest first; `bakes` in their order.

    >>> [lane] = lanes([Blamed(1, "cool", 3, None, "", True), Blamed(2, None, 0, "cool", "heat longer", True)])
    >>> lane.lost, lane.marks, lane.changes, lane.silent
    (3, [(1, 3)], [(2, 'heat longer')], 1)
    """
    found: dict[str, Lane] = {}
    for b in bakes:
        if b.cause is not None:
            own = found.setdefault(b.cause, Lane(b.cause))
            own.marks.append((b.number, b.lost))
            own.lost += b.lost
            own.silent = 0
        if b.against in found:
            found[b.against].changes.append((b.number, b.change))
        for key, lane in found.items():
            if b.judged and key != b.cause:
                lane.silent += 1
    return sorted(found.values(), key=lambda x: (-x.lost, x.cause))


def by_month(months: Sequence[str], full: Sequence[int], judged: Sequence[int]) -> dict[str, tuple[int, int, int]]:
    """(bakes, full, judged) of each month, in the order of the months as they come first.

    >>> by_month(["2026-01", "2026-01", "2026-02"], [3, 4, 1], [4, 4, 2])
    {'2026-01': (2, 7, 8), '2026-02': (1, 1, 2)}
    """
    found: dict[str, list[int]] = defaultdict(lambda: [0, 0, 0])
    for month, f, n in zip(months, full, judged, strict=True):
        row = found[month]
        row[0], row[1], row[2] = row[0] + 1, row[1] + f, row[2] + n
    return {month: (row[0], row[1], row[2]) for month, row in found.items()}
