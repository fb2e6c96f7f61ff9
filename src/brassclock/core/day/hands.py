"""Free hands by time: busy hours on five-minute slots, and how they are named.

A slot stands for five minutes of the real time line, counted from a whole five minutes of UTC: a night in which the
clocks change has its true number of them.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Callable, Hashable, Iterable, Sequence
from dataclasses import dataclass
from functools import wraps
from typing import Any, ParamSpec, TypeVar, cast

import numpy as np
from numpy.typing import NDArray

from brassclock.core.time import hours_between, later

SLOT_MIN = 5
CHANGED = dt.timedelta(hours=2)  # more than clocks are ever changed by
HORIZON_SLOTS = 96 * 60 // SLOT_MIN
Count = NDArray[np.int64]
P = ParamSpec("P")
R = TypeVar("R")


@dataclass(frozen=True)
class Busy:
    """Hours (aware) in which hands are away: all of them, or one cook's. `name` is what keeps them."""

    start: dt.datetime
    end: dt.datetime
    name: str = ""
    hands: int | None = None  # None is everybody

    def __post_init__(self) -> None:
        if self.end.timestamp() <= self.start.timestamp():
            raise ValueError(f"Busy hours end at {self.end} but begin at {self.start}. Give an end after the start.")


@dataclass(frozen=True)
class Slots:
    """`count` slots from `zero` on."""

    zero: dt.datetime
    count: int = HORIZON_SLOTS

    @classmethod
    def until(cls, end: dt.datetime, count: int = HORIZON_SLOTS) -> Slots:
        """So many slots, the last of them over at `end` or just after it.

        >>> Slots.until(dt.datetime(2026, 1, 2, 0, 2, tzinfo=dt.UTC), 12).zero.isoformat()
        '2026-01-01T23:05:00+00:00'
        """
        last = math.ceil(end.timestamp() / 60 / SLOT_MIN)
        return cls(dt.datetime.fromtimestamp((last - count) * SLOT_MIN * 60, end.tzinfo), count)

    def at(self, slot: float) -> dt.datetime:
        """The instant at which a slot begins."""
        return later(self.zero, slot * SLOT_MIN / 60)

    def position(self, moment: dt.datetime) -> float:
        """Position of an instant [slots from `zero`]."""
        return 60 * hours_between(self.zero, moment) / SLOT_MIN

    def before(self, moment: dt.datetime) -> int:
        """The last slot boundary at or before an instant."""
        return math.floor(self.position(moment) + 1e-6)

    def after(self, moment: dt.datetime) -> int:
        """The first slot boundary at or after an instant."""
        return math.ceil(self.position(moment) - 1e-6)


def slots_of(minutes: float) -> int:
    """Slots that so many minutes of work take.

    >>> slots_of(12), slots_of(5), slots_of(0.0)
    (3, 1, 0)
    """
    return math.ceil(minutes / SLOT_MIN - 1e-6)


def free_hands(slots: Slots, busy: Iterable[Busy], cooks: int) -> Count:
    """Pairs of hands free in each slot; a slot that busy hours touch is theirs."""
    free = np.full(slots.count, cooks, dtype=np.int64)
    for span in busy:
        a, b = max(slots.before(span.start), 0), min(slots.after(span.end), slots.count)
        if a < b:
            free[a:b] -= cooks if span.hands is None else span.hands
    return np.maximum(free, 0)


class Hands:
    """Pairs of hands free in each slot, asked many times for how long they stay so."""

    def __init__(self, free: Count) -> None:
        self.free = free
        self._taken = np.concatenate([[0], np.cumsum(free < 1)])
        self._clear: dict[int, NDArray[np.bool_]] = {}
        self.answers: dict[Hashable, Any] = {}  # of functions of these hands, by what else they were asked

    def __len__(self) -> int:
        return len(self.free)

    def clear(self, length: int) -> NDArray[np.bool_]:
        """For each boundary 0..count whether hands are free for `length` slots from it; not to be altered."""
        if length not in self._clear:
            ok = np.zeros(len(self) + 1, dtype=bool)
            if length <= len(self):
                ok[: len(self) - length + 1] = self._taken[length:] == self._taken[: len(self) - length + 1]
            self._clear[length] = ok
        return self._clear[length]

    def alone(self, slot: int) -> bool:
        """True if one pair of hands at most is free then."""
        return bool(0 <= slot < len(self) and self.free[slot] < 2)


def of_hands(asked: Callable[P, R]) -> Callable[P, R]:
    """A function of hashable values, the second of which is Hands: an answer is kept with those hands, and goes when
    they go."""

    @wraps(asked)
    def answer(*args: P.args, **more: P.kwargs) -> R:
        first, free, *rest = args
        assert isinstance(free, Hands)
        key = (asked.__name__, first, *rest, *more.items())
        if key not in free.answers:
            free.answers[key] = asked(*args, **more)
        return cast("R", free.answers[key])

    return answer


def clashes(start: dt.datetime, minutes: float, busy: Sequence[Busy], cooks: int) -> list[Busy]:
    """The busy hours that leave no hands for work of so many minutes; empty when there are some all along."""
    near = [b for b in busy if b.start < start + CHANGED + dt.timedelta(minutes=minutes) and b.end > start - CHANGED]
    begins, ends = (
        start.timestamp(),
        start.timestamp() + 60 * max(minutes, 1.0),
    )  # true time: a changed night has its own
    touched = [(b.start.timestamp(), b.end.timestamp(), b) for b in near]
    touched = [x for x in touched if x[0] < ends and x[1] > begins]
    edges = sorted({begins, *(a for a, _, _ in touched if a > begins)})
    for moment in edges:
        here = [b for a, e, b in touched if a <= moment < e]
        if sum(cooks if b.hands is None else b.hands for b in here) >= cooks:
            return here
    return []


def away(busy: Iterable[Busy], cooks: int) -> list[tuple[dt.datetime, dt.datetime]]:
    """The stretches (start, end) in which no hands are free, joined, in time order."""
    moves: list[tuple[dt.datetime, int]] = []
    for span in busy:
        hands = cooks if span.hands is None else span.hands
        moves += [(span.start, hands), (span.end, -hands)]
    found: list[tuple[dt.datetime, dt.datetime]] = []
    taken, since = 0, None
    for moment, change in sorted(moves, key=lambda m: (m[0], -m[1])):
        before, taken = taken, taken + change
        if before < cooks <= taken:
            since = moment
        elif before >= cooks > taken and since is not None and moment > since:
            found.append((since, moment))
    return found
