"""Rescues for late guests and for a dough that runs away: the options, and taking one."""

from __future__ import annotations

import datetime as dt
from typing import Any

from brassclock.core.rise.rescue import Option, as_it_stands, for_later, for_slower
from brassclock.core.time import later
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day import model as day_model
from brassclock.services.schemas.rise import RelocationCreate, RescueOption, RescueRead, RescueRequest

MOST_OPTIONS = 4
SPOT_MIN = 240.0
LEAST_MIN = 10.0
NOT_NOW = "The dough is not rising now. Mark it mixed first; once it is rolled there is nothing left to slow."


def rescue(app: App, bake_id: int, given: RescueRequest) -> RescueRead:
    """The least disruptive changes for late guests, or for a dough that is too fast."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        standing = day_model.standing_of(r, solve.solve(r).risen)
    if standing is None:
        raise Conflict(NOT_NOW)
    found = for_slower(standing) if given.late_min is None else for_later(standing, given.late_min)
    return RescueRead(
        as_it_stands=_out(as_it_stands(standing), r.now), options=[_out(o, r.now) for o in found[:MOST_OPTIONS]]
    )


def _out(o: Option, now: dt.datetime) -> RescueOption:
    minutes = o.minutes if o.minutes is not None or o.temp_c is None else SPOT_MIN
    return RescueOption(
        kind=o.kind,
        text=o.text,
        temp_c=o.temp_c,
        minutes=minutes,
        ready_at=later(now, o.ready_h),
        best_until=later(now, o.best_to_h),
        too_far_at=later(now, o.too_far_h),
    )


def holding(r: BakeSnapshot, found: day_model.Risen | None, late_min: float) -> list[RescueOption]:
    """Options that keep a rising dough good for a serving so much later; none for one that is not, or an earlier
    table."""
    standing = day_model.standing_of(r, found) if late_min >= LEAST_MIN else None
    return [] if standing is None else [_out(o, r.now) for o in for_later(standing, late_min)[:MOST_OPTIONS]]


def away(r: BakeSnapshot, given: RelocationCreate) -> list[dict[str, Any]]:
    """The bake's spells and one more from now. Conflict while the dough is elsewhere already."""
    if any(dt.datetime.fromisoformat(x["end"]) > r.now for x in r.bake.spells):
        raise Conflict("The dough is elsewhere already. Take that back first, or bring it back in.")
    end = later(r.now, given.minutes / 60)
    return [*r.bake.spells, {"start": r.now.isoformat(), "end": end.isoformat(), "temp_c": given.temp_c}]


def spell(app: App, bake_id: int, given: RelocationCreate) -> None:
    """The dough goes elsewhere from now; the plan and the forecast follow it."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        if day_model.standing_of(r, solve.solve(r).risen) is None:
            raise Conflict(NOT_NOW)
        r.bake.spells = away(r, given)


def end_spell(app: App, bake_id: int, revision: int | None = None) -> None:
    """Bring the dough back now, or, when it is back already, take the last spell away as if it had not been."""
    with bake_change.change(app, bake_id, revision) as (_, r):
        if not r.bake.spells:
            raise NotFound("The dough was not put anywhere that could be taken back.")
        last = dict(r.bake.spells[-1])
        running = dt.datetime.fromisoformat(last["end"]) > r.now
        kept = r.now - dt.datetime.fromisoformat(last["start"]) > dt.timedelta(minutes=1)
        rest = r.bake.spells[:-1]
        r.bake.spells = [*rest, {**last, "end": r.now.isoformat()}] if running and kept else rest
