"""Windows of a bread that is kept: best from and to, good until, too stiff by; days in the room, and what ends them.

Mould after Seiler's curve for cakes (published, from memory) with a factor and a temperature of judgement; food rules
by usual guidance. Local food rules decide.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.hold.model import (
    CRISP,
    HOURS,
    LIMP,
    SWEATS_FRAC,
    KeepTrace,
    Kept,
    Room,
    Wrapped,
    band,
    drawn,
    run,
    word,
)
from brassclock.core.rise.belief import Band

HOUR_S, DAY_S = 3600.0, 86400.0
SOFT, GOOD, STIFF = 75.0, 55.0, 35.0  # judgement: softness
EVEN = Param(1.5, "-", 1, 2, Kind.JUDGEMENT, "of the seconds to even heat: then it is set and steam is spread")
FRIED_S = Param(30.0, "s", 10, 60, Kind.PRACTICE, "a fried bread drains")
WARM_C = 40.0  # judgement: a naan is best above that
MOULD = Param(2.0, "x", 1, 4, Kind.JUDGEMENT, "days of thin breads beside Seiler's cakes")
MOULD_Q10 = Param(2.5, "x", 2, 3.5, Kind.JUDGEMENT, "days of mould by temperature")
SOUR_KEEPS = Param(1.5, "x", 1.2, 2, Kind.PRACTICE, "a sourdough keeps longer from mould")
MOST_MOULD_D, MOST_ROOM_D = 60.0, 3
WORD_POINTS_MIN = (1, 2, 5, 10, 30, 45, 60, 120, 180, 480, 720, 1440, 2880, 4320)


@dataclass(frozen=True)
class Windows:
    """Best from and best to, good until, too stiff by [s], each a band; what it is like at instants [s, word]; sweat at
    its most [g]; whole days in the room."""

    best_from: Band
    best_to: Band
    good_until: Band
    stiff_by: Band
    words: tuple[tuple[float, str], ...]
    sweat_g: float
    room_days: int
    mould_days: float


@dataclass(frozen=True)
class Held:
    """A bread that is kept: its middle run, its runs, its windows, and softness and crispness as bands by row of the
    middle one."""

    trace: KeepTrace
    runs: tuple[KeepTrace, ...]
    windows: Windows

    def band_at(self, name: str, seconds: float) -> Band:
        """A column's band at an instant."""
        return band([r.at(name, seconds) for r in self.runs], self.trace.at(name, seconds))


def hold(
    bread: Kept, wrapped: Wrapped, stack: int = 1, room: Room | None = None, hours: float = HOURS, bands: bool = True
) -> Held:
    """A bread kept through its wraps; without `bands` every band is the middle run's. ValueError as of `run`."""
    room = room or Room()
    middle = run(bread, wrapped, stack, room, hours=hours)
    runs = tuple(run(bread, wrapped, stack, room, p, hours) for p in drawn()) if bands else (middle,)
    return Held(middle, runs, _windows(bread, wrapped, room, middle, runs))


def _windows(bread: Kept, wrapped: Wrapped, room: Room, middle: KeepTrace, runs: Sequence[KeepTrace]) -> Windows:
    def over(find: Callable[[KeepTrace], float | None]) -> Band:
        return band([find(r) for r in runs], find(middle))

    stiff_by = over(lambda r: r.softer_than_s(STIFF))
    mould = mould_days(middle, room, sour=bread.sour)
    firm_d = MOST_MOULD_D if stiff_by.p50 is None else stiff_by.p50 / DAY_S
    return Windows(
        over(lambda r: best_from_s(bread, wrapped, r)),
        over(lambda r: best_to_s(bread, r)),
        over(lambda r: r.softer_than_s(GOOD)),
        stiff_by,
        words_of(middle),
        float(middle.sweat_g.max()),
        min(int(min(mould, firm_d)), MOST_ROOM_D),
        mould,
    )


def best_from_s(bread: Kept, wrapped: Wrapped, trace: KeepTrace) -> float:
    """Seconds until a bread is at its best: even within, and as limp or as crisp as its kind is wanted."""
    covered = wrapped[0][1] not in ("open", "rack")
    if bread.intent == "fried":
        return float(FRIED_S)
    if bread.intent == "blister":
        return (trace.first_s(trace.crisp < CRISP) or 0.0) if bread.brushed or covered else 0.0
    even_s = EVEN * bread.even_s
    limp_s = trace.first_s(trace.crisp < LIMP) or 0.0
    return max(even_s, limp_s) if bread.intent in ("pocket", "flat") and covered else even_s


def best_to_s(bread: Kept, trace: KeepTrace) -> float:
    """Seconds until a bread is past its best, at most a day."""
    if bread.intent == "blister":
        ends = trace.first_s(trace.temp_c < WARM_C)
    elif bread.intent == "fried":
        ends = trace.first_s(trace.crisp < CRISP)
    else:
        ends = trace.softer_than_s(SOFT)
    return min(DAY_S if ends is None else ends, DAY_S)


def mould_days(trace: KeepTrace, room: Room, *, sour: bool) -> float:
    """Days until mould, at the room's temperature, by the crumb's water activity after six hours; at once full where it
    sweats."""
    sweats = float(trace.sweat_g.max()) > SWEATS_FRAC * trace.mass_g
    wet = 1.0 if sweats else trace.at("activity", 6 * HOUR_S)
    days = float(MOULD) * 10 ** (7.91 - 8.1 * wet) * MOULD_Q10 ** ((21 - room.temp_c) / 10)
    return float(min(days * (SOUR_KEEPS if sour else 1.0), MOST_MOULD_D))


def words_of(trace: KeepTrace) -> tuple[tuple[float, str], ...]:
    """Words for a bread and the seconds from which each holds: only where it changes."""
    found: list[tuple[float, str]] = []
    sweats = trace.sweat_g > SWEATS_FRAC * trace.mass_g
    for minutes in WORD_POINTS_MIN:
        s = minutes * 60.0
        if s > trace.s[-1] + 300.0:
            break
        said = word(trace.at("crisp", s), trace.at("soft", s))
        row = min(int(np.searchsorted(trace.s, s)), len(trace.s) - 1)
        said += ", sweating" if sweats[row] else ""
        if not found or found[-1][1] != said:
            found.append((s, said))
    return tuple(found)
