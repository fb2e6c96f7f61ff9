"""The kitchen's air by the hour of the day, as a path for the rise model."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.time import hours_between, later

STEP_H = 1e-3
SWING_H = Param(0.8, "h", 0.4, 1.5, Kind.JUDGEMENT, "from one start of a fridge's compressor to the next")
LOG_FADES_H = Param(6.0, "h", 3, 12, Kind.JUDGEMENT, "today's air stays off its usual hours so long")


@dataclass(frozen=True)
class Relocation:
    """A stretch of time that the dough spends elsewhere, at `temp_c` ± `swing_c` [C], from `start` until `end`
    (aware)."""

    start: dt.datetime
    end: dt.datetime
    temp_c: float
    swing_c: float = 0.0

    def points(self, a: float, b: float) -> list[tuple[float, float]]:
        """Its air between hours a and b: level, or to and fro about its mean as a thermostat does."""
        if not self.swing_c:
            return [(a, self.temp_c), (b, self.temp_c)]
        turns = np.arange(a, b, SWING_H / 2)
        ups = self.temp_c + self.swing_c * np.where(np.arange(len(turns)) % 2 == 0, 1, -1)
        return [*zip(turns.tolist(), ups.tolist(), strict=True), (b, self.temp_c)]


def air_c(hourly_c: Sequence[float], moment: dt.datetime) -> float:
    """Air [C] at an aware local moment, linear between whole hours of a 24-hour profile.

    >>> air_c([10.0] * 12 + [20.0] * 12, dt.datetime(2026, 1, 1, 11, 30, tzinfo=dt.UTC))
    15.0
    """
    hour = moment.hour + moment.minute / 60 + moment.second / 3600
    low = int(hour) % 24
    share = hour - int(hour)
    return hourly_c[low] * (1 - share) + hourly_c[(low + 1) % 24] * share


def air_path(hourly_c: Sequence[float], start: dt.datetime, hours: float) -> tuple[tuple[float, float], ...]:
    """(hour from `start`, C) at the start and at every whole clock hour for `hours`.

    Hours run on the real time line, so a night in which the clocks change has its true length.
    """
    begin = start.astimezone(dt.UTC)
    first = 1 - (begin.minute / 60 + begin.second / 3600 + begin.microsecond / 3.6e9)
    offsets = np.concatenate([[0.0], np.arange(first, hours, 1.0), [hours]])
    end = later(start, hours)
    if start.utcoffset() == end.utcoffset():
        local = start.hour + start.minute / 60 + start.second / 3600 + start.microsecond / 3.6e9 + offsets
        whole = np.floor(local).astype(int) % 24
        share, profile = local - np.floor(local), np.asarray(hourly_c)
        air = profile[whole] * (1 - share) + profile[(whole + 1) % 24] * share
    else:
        air = np.array([air_c(hourly_c, later(start, float(h))) for h in offsets])
    return tuple(zip(offsets.tolist(), air.tolist(), strict=True))


def with_spells(
    path: tuple[tuple[float, float], ...], start: dt.datetime, spells: Sequence[Relocation]
) -> tuple[tuple[float, float], ...]:
    """The path with the air of its spells in their place: a step in, a step out.

    >>> noon = dt.datetime(2026, 1, 1, 12, tzinfo=dt.UTC)
    >>> cold = Relocation(noon, noon + dt.timedelta(hours=1), 4.0)
    >>> [c for _, c in with_spells(((0.0, 20.0), (3.0, 20.0)), noon - dt.timedelta(hours=1), [cold])]
    [20.0, 20.0, 4.0, 4.0, 20.0, 20.0]
    """
    begin = start.astimezone(dt.UTC)

    def air(h: float) -> float:
        return float(np.interp(h, [p[0] for p in path], [p[1] for p in path]))

    for spell in sorted(spells, key=lambda s: s.start):
        a = hours_between(begin, spell.start)
        b = hours_between(begin, spell.end)
        if b <= 0 or a >= path[-1][0] or b <= a:
            continue
        inside = spell.points(max(a, 0.0), b)
        before = [(h, c) for h, c in path if h < a - STEP_H] + ([(a - STEP_H, air(a - STEP_H))] if a > STEP_H else [])
        after = [(b + STEP_H, air(b + STEP_H)), *((h, c) for h, c in path if h > b + 2 * STEP_H)]
        path = (*before, *inside, *after)
    return path


def with_log(
    path: tuple[tuple[float, float], ...], start: dt.datetime, log: Sequence[tuple[dt.datetime, float]]
) -> tuple[tuple[float, float], ...]:
    """The path with what was read in its place so far; ahead, its offset from the usual hours fades away.

    >>> noon = dt.datetime(2026, 1, 1, 12, tzinfo=dt.UTC)
    >>> seen = with_log(((0.0, 20.0), (24.0, 20.0)), noon, [(noon, 22.0), (noon + dt.timedelta(hours=2), 23.0)])
    >>> [round(c, 1) for h, c in seen if h in (0.0, 2.0)], round(seen[-1][1], 1)
    ([22.0, 23.0], 20.1)
    """
    begin = start.astimezone(dt.UTC)
    read = sorted((hours_between(begin, moment), c) for moment, c in log)
    if not read or read[-1][0] < -LOG_FADES_H * 4:
        return path
    last_h, last_c = read[-1]

    def usual(h: float) -> float:
        return float(np.interp(h, [p[0] for p in path], [p[1] for p in path]))

    def air(h: float) -> float:
        if h <= last_h:
            return float(np.interp(h, [x[0] for x in read], [x[1] for x in read]))
        return usual(h) + (last_c - usual(max(last_h, 0.0))) * math.exp(-(h - last_h) / LOG_FADES_H)

    whole = [h for h, _ in path] + [h for h, _ in read if 0 < h < path[-1][0]]
    fading = [last_h + x for x in (1.0, 3.0, 6.0, 10.0, 16.0, 24.0) if 0 < last_h + x < path[-1][0]]
    return tuple((h, air(h)) for h in sorted({*whole, *fading}))
