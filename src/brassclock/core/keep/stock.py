"""Frozen breads: best by and use by, first in first out, taken out and heated backward from serving. Practice
throughout."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.hold.model import BAKED_KG_M3, Kept
from brassclock.core.keep.hold.reheat import reheats, thaw_s
from brassclock.core.terms import FrozenWrap, Intent

BEST_D: dict[FrozenWrap, Param] = {
    "bag": Param(30.0, "d", 20, 45, Kind.PRACTICE, "one bag, the air pressed out"),
    "double": Param(60.0, "d", 40, 90, Kind.PRACTICE, "wrapped twice"),
    "loose": Param(14.0, "d", 7, 21, Kind.PRACTICE, "loose, or of over a tenth fat"),
}
USE_D = Param(90.0, "d", 60, 120, Kind.PRACTICE, "good for so long")
FILLED_USE_D = Param(60.0, "d", 40, 90, Kind.PRACTICE, "a filled one")
FATTY = 0.10
THIN_MM = Param(12.0, "mm", 10, 15, Kind.PRACTICE, "so thin a bread is heated from frozen")
HIGH_MM: dict[Intent, float] = {  # practice: of a baked bread of that kind
    "pocket": 8.0, "blister": 12.0, "flat": 6.0, "thick": 22.0, "fried": 8.0, "rolls": 45.0,
}  # fmt: skip
WRAP_S, TURN_S, SPOTS = 60.0, 10.0, 2  # practice: into cloth before the table; between two waves; breads to a pan
USUAL_X = 0.66  # water per dry mass of a baked bread


@dataclass(frozen=True)
class Frozen:
    """A row of the freezer: kind, mass of one [g], how many, since when, its wrap, fat over flour, whether filled, and
    whether they lie apart with a sheet between each; those that do not come out as one block."""

    kind: Intent
    mass_g: float
    count: int
    frozen_at: dt.datetime
    wrap: FrozenWrap = "bag"
    fat_frac: float = 0.03
    filled: bool = False
    divided: bool = True

    @property
    def best_by(self) -> dt.datetime:
        """Until when it is at its best."""
        wrap: FrozenWrap = "loose" if self.fat_frac > FATTY else self.wrap
        return self.frozen_at + dt.timedelta(days=float(BEST_D[wrap]))

    @property
    def use_by(self) -> dt.datetime:
        """Until when it is to be used."""
        return self.frozen_at + dt.timedelta(days=float(FILLED_USE_D if self.filled else USE_D))

    @property
    def bread(self) -> Kept:
        """The bread, by its mass and the usual height of its kind."""
        high_m = HIGH_MM[self.kind] / 1000
        across_m = math.sqrt(self.mass_g / 1000 / (BAKED_KG_M3[self.kind] * high_m) * 4 / math.pi)
        return Kept(self.kind, self.mass_g, USUAL_X, 0.0, across_m, high_m)


@dataclass(frozen=True)
class TakeOut:
    """So many of a row taken out at an instant, and how they come to the table: heated in waves, thawed before."""

    at: dt.datetime
    row: int
    count: int
    way: str
    waves: int
    heat_at: dt.datetime


def taken_out(
    rows: Sequence[Frozen], wanted: int, serve_at: dt.datetime, spots: int = SPOTS, now: dt.datetime | None = None
) -> tuple[list[TakeOut], list[str]]:
    """(moves that take out so many breads for an instant, the oldest first; sentences about them).

    `spots` breads lie on the pan at once; what can no longer be thawed from `now` on goes from frozen.

    Raises InvalidInput for breads wanted that are none, or a table before one was frozen.
    """
    if wanted < 1:
        raise invalid("/wanted", f"{wanted} breads are none. Say how many are wanted.")
    late = next((i for i, r in enumerate(rows) if r.frozen_at > serve_at), None)
    if late is not None:
        raise invalid("/serve_at", f"Row {late + 1} is frozen only at {rows[late].frozen_at}. Give a later table.")
    said, left, moves = [], wanted, []
    for i, row in sorted(enumerate(rows), key=lambda x: x[1].frozen_at):
        if row.use_by < serve_at:
            said.append(f"{row.count} {row.kind} of {row.frozen_at:%d %b} are past their time: leave them out.")
            continue
        take = min(row.count, left)
        if take:
            move = _move(i, row, take, serve_at, spots)
            if now is not None and move.at < now:
                move = _move(i, row, take, serve_at, spots, late=True)
                said.append(_late(move, row, now))
            moves.append(move)
            left -= take
            if row.best_by < serve_at:
                said.append(f"Those of {row.frozen_at:%d %b} are past their best: eat them first, heated.")
    if left:
        said.append(f"The freezer holds {wanted - left} of {wanted}: {left} more are to be baked.")
    if any("thawed" in m.way for m in moves):
        said.append("What was thawed is eaten within a day and not frozen again.")
    return sorted(moves, key=lambda m: m.at), said


def _move(i: int, row: Frozen, count: int, serve_at: dt.datetime, spots: int, late: bool = False) -> TakeOut:
    """The way in which so many of a row come to the table.

    A thin one that lies apart is heated from frozen; another is thawed first, unless it is `late` and they lie apart.
    """
    apart = row.divided or count == 1
    thin = 1000 * row.bread.height_m <= THIN_MM
    frozen = apart and (thin or late)
    ways = {x.by: x for x in reheats(row.bread, USUAL_X, frozen=frozen)}
    waves = math.ceil(count / spots)
    if "pan" in ways and waves * 2 * ways["pan"].seconds < ways["oven"].seconds + 300:
        heat_s, by = waves * (2 * ways["pan"].seconds + TURN_S), f"pan, {ways['pan'].seconds:.0f} s a side"
        by += f", {waves} waves of {spots}" if waves > 1 else ""
    else:
        waves, heat_s = 1, ways["oven"].seconds
        by = f"oven in foil, {heat_s / 60:.0f} min"
    heat_at = serve_at - dt.timedelta(seconds=heat_s + WRAP_S)
    if frozen:
        return TakeOut(heat_at, i, count, f"from frozen: {by}", waves, heat_at)
    thaws_s = thaw_s(row.bread, USUAL_X, 1 if apart else count)
    return TakeOut(heat_at - dt.timedelta(seconds=thaws_s), i, count, f"thawed in its bag, then {by}", waves, heat_at)


def _late(move: TakeOut, row: Frozen, now: dt.datetime) -> str:
    """Advice where there is no time left to thaw."""
    if move.at >= now:
        return f"It is too late to thaw those of {row.frozen_at:%d %b}: they go from frozen."
    over = math.ceil((now - move.at).total_seconds() / 60)
    block = "" if row.divided or move.count == 1 else " as one block, without sheets between"
    return f"Those of {row.frozen_at:%d %b} come {over} min late{block}: serve later."
