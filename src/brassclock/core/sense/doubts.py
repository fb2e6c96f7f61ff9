"""Doubts about an instrument: values that cannot be, jumps that nothing makes, a row too still, silence; and from where
on it is not believed."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import median
from typing import Literal

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.air_log import FLAT_C, FLAT_LEAST, FLAT_LEAST_H

Use = Literal["air", "dough", "surface", "scale"]
DoubtCode = Literal["absurd", "jumped", "stuck", "lost"]
BOUNDS: dict[Use, tuple[float, float]] = {  # C, and g: what each can be at all, judgement
    "air": (-30.0, 60.0),
    "dough": (-5.0, 50.0),
    "surface": (-30.0, 600.0),
    "scale": (-60_000.0, 60_000.0),
}
FASTEST: dict[Use, Param] = {
    "air": Param(20.0, "K/min", 5, 60, Kind.JUDGEMENT, "a door opened beside a quick probe moves it so fast"),
    "dough": Param(2.0, "K/min", 0.5, 5, Kind.JUDGEMENT, "a dough is slow: faster is a probe that left it"),
}
NOISE_K = Param(2.0, "K", 1, 4, Kind.JUDGEMENT, "between two readings of a sound probe, whatever the time")
AGREE = 3  # values in a row that agree are a change of the air, not a slip
STILL_TIMES = 3.0  # judgement: so much longer than it ever stood still before
DOUGH_STILL_H = Param(8.0, "h", 4, 16, Kind.JUDGEMENT, "a dough at rest in a fridge may read the same for hours")
SILENT_LEAST_MIN = Param(10.0, "min", 3, 60, Kind.JUDGEMENT, "instruments that send seldom send within it")
SILENT_TIMES = 6.0  # judgement: so many of its usual pauses
RECENT = 20  # pauses that its usual one is the middle of

Point = tuple[float, float]


@dataclass(frozen=True)
class Doubt:
    """The reason why an instrument is not believed, and since when [h, on the points' own line]."""

    code: DoubtCode
    since_h: float


@dataclass(frozen=True)
class Heard:
    """The points that are believed, and what is wrong now; None where nothing is."""

    sound: tuple[Point, ...]
    doubt: Doubt | None


def heard(points: Sequence[Point], use: Use, now_h: float) -> Heard:
    """The sound ones of an instrument's (hour, C or g), in order of time, and its fault at `now_h`.

    A slip is left out alone. What goes on is believed up to where it went wrong.

    >>> row = [(n / 60, 21.0 + 0.1 * (n % 3)) for n in range(30)]
    >>> slipped = heard([*row, (0.51, 85.0), (0.52, 21.1)], "air", 0.52)
    >>> len(slipped.sound), slipped.doubt
    (31, None)
    >>> heard([*row, *((0.5 + n / 60, -127.0) for n in range(4))], "air", 0.55).doubt
    Doubt(code='absurd', since_h=0.5)
    """
    if not points:
        return Heard((), None)
    sound, wrong = _sifted(points, use)
    stuck = _stuck(sound, use) if use in ("air", "dough") else None
    if stuck is not None:
        sound = [p for p in sound if p[0] <= stuck.since_h]
    return Heard(tuple(sound), _silence(points, now_h) or wrong or stuck)


def _sifted(points: Sequence[Point], use: Use) -> tuple[list[Point], Doubt | None]:
    """Points that can be, and the doubt that the last of them end with."""
    low, high = BOUNDS[use]
    sound: list[Point] = []
    refused: list[Point] = []
    for at, value in points:
        impossible = not low <= value <= high
        if not impossible and (not sound or not _jumped(sound[-1], (at, value), use)):
            sound.append((at, value))
            refused = []
            continue
        refused.append((at, value))
        if use != "dough" and not impossible and _agree(refused[-AGREE:], low, high):
            sound += refused[-AGREE:]  # the air itself is another, or the probe stands elsewhere
            refused = []
    if len(refused) < AGREE:
        return sound, None
    code: DoubtCode = "absurd" if not low <= refused[-1][1] <= high else "jumped"
    return sound, Doubt(code, refused[0][0])


def _jumped(was: Point, now: Point, use: Use) -> bool:
    fastest = FASTEST.get(use)
    return fastest is not None and abs(now[1] - was[1]) > NOISE_K + fastest * 60 * max(now[0] - was[0], 0.0)


def _agree(points: Sequence[Point], low: float, high: float) -> bool:
    values = [v for _, v in points]
    return len(values) == AGREE and low <= min(values) and max(values) <= high and max(values) - min(values) <= NOISE_K


def _stuck(points: Sequence[Point], use: Use) -> Doubt | None:
    """A doubt when the row ends in a stretch too still, and far longer than any before it."""
    if len(points) < FLAT_LEAST:
        return None
    least_h = DOUGH_STILL_H if use == "dough" else FLAT_LEAST_H
    begin = len(points) - 1
    low = high = points[-1][1]
    while begin > 0:
        low, high = min(low, points[begin - 1][1]), max(high, points[begin - 1][1])
        if high - low > FLAT_C:
            break
        begin -= 1
    hours = points[-1][0] - points[begin][0]
    if hours < least_h or len(points) - begin < FLAT_LEAST:
        return None
    stood_h, from_h = 0.0, points[0][0]
    for a, b in pairwise(points[: begin + 1]):
        if abs(b[1] - a[1]) > FLAT_C:
            from_h = b[0]
        stood_h = max(stood_h, b[0] - from_h)
    return Doubt("stuck", points[begin][0]) if hours > STILL_TIMES * stood_h else None


def _silence(points: Sequence[Point], now_h: float) -> Doubt | None:
    """A doubt when nothing came for far longer than its usual pause."""
    last = points[-1][0]
    pauses = [b[0] - a[0] for a, b in pairwise(points[-RECENT - 1 :])]
    usual = median(pauses) if pauses else 0.0
    silent = now_h - last > max(SILENT_LEAST_MIN / 60, SILENT_TIMES * usual)
    return Doubt("lost", last) if silent else None
