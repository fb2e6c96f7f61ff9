"""The air of a kitchen's places as it was read: typed, or a probe's log; what is odd about it is said."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence

from sqlmodel import Session

from brassclock.core.errors import FieldFault, InvalidInput
from brassclock.core.rise.air_log import doubts
from brassclock.core.time import hours_between
from brassclock.formats.readings import BELIEVABLE_C, AirPoint
from brassclock.services.app import App, NotFound
from brassclock.services.bake.snapshot import AIR_KEPT
from brassclock.services.change import recording_plan_change
from brassclock.services.schemas.kitchen import AirRead, AirReadingCreate, AirReadingRead
from brassclock.services.times import past_moment
from brassclock.services.weigh.view import caution_out
from brassclock.store import bakes as bake_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Kitchen, Reading

RECENT_H = 24.0
MOST_SHOWN = 50


def _out(
    session: Session, kitchen: Kitchen, now: dt.datetime, taken: int = 0, skipped: list[str] | None = None
) -> AirRead:
    seen = bake_rows.air_readings(session, kitchen.id or 0, now - AIR_KEPT)
    odd = []
    for place in dict.fromkeys(x.place for x in seen):
        log = [(hours_between(now, x.at), x.value) for x in seen if x.place == place and x.value is not None]
        odd += doubts([p for p in log if p[0] >= -RECENT_H])
    shown = [
        AirReadingRead(id=x.id or 0, place=x.place or "bench", value=x.value, at=x.at)
        for x in reversed(seen)
        if x.value is not None
    ]
    return AirRead(readings=shown[:MOST_SHOWN], taken=taken, skipped=skipped or [], cautions=caution_out(odd))


def air_of(app: App, kitchen_id: int) -> AirRead:
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        return _out(session, kitchen, app.now(session, kitchen))


def read_air(app: App, kitchen_id: int, given: AirReadingCreate) -> AirRead:
    """Store readings of a place's air. Any order; one that is there already is left out and said; a fault stores
    nothing."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        faults: list[FieldFault] = []
        points: list[tuple[dt.datetime, float]] = []
        for i, (when, value) in enumerate(given.points):
            low, high = BELIEVABLE_C
            if not (math.isfinite(value) and low <= value <= high):
                faults.append(FieldFault(f"/points/{i}/1", f"{value:g} C cannot be air. Give {low:g} to {high:g} C."))
            try:
                points.append((past_moment(when, now), value))
            except InvalidInput as fault:
                faults += [FieldFault(f"/points/{i}/0", f.detail) for f in fault.faults]
        if faults:
            raise InvalidInput(faults)
        read = [AirPoint(at, given.place, value, given.source) for at, value in sorted(points)]
        with recording_plan_change(app, session, kitchen_id, "the air was read"):
            added, there = add_points(session, kitchen_id, read, now)
        return _out(session, kitchen, now, len(added), [f"{p.at:%H:%M} was read already." for p in there])


def add_points(
    session: Session, kitchen_id: int, points: Sequence[AirPoint], now: dt.datetime
) -> tuple[list[int], list[AirPoint]]:
    """Store readings of the air: (ids of those that are new, those that were there already at their place and
    instant)."""
    since = min((p.at for p in points), default=now)
    known = {(x.place, x.at) for x in bake_rows.air_readings(session, kitchen_id, since)}
    added, there = [], []
    for p in points:
        if (p.place, p.at) in known:
            there.append(p)
            continue
        known.add((p.place, p.at))
        row = Reading(
            kitchen_id=kitchen_id, kind="air_c", value=p.value_c, place=p.place, source=p.source, at=p.at, made_at=now
        )
        added.append(insert(session, row).id or 0)
    return added, there


def unread_air(app: App, kitchen_id: int, reading_id: int) -> AirRead:
    """Take a reading of the air back."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        row = get(session, Reading, reading_id)
        if row is None or row.kitchen_id != kitchen_id or row.kind != "air_c" or row.undone_at is not None:
            raise NotFound(f"There is no air reading {reading_id} to undo.")
        with recording_plan_change(app, session, kitchen_id, "a reading of the air was taken back"):
            row.undone_at = now
            session.add(row)
        return _out(session, kitchen, now)
