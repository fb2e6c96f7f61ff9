"""History of a day: how plans have moved, and an act of one press that one press takes back."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.day.spec import WORDS, kind_of
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.day.acts import KEPT
from brassclock.services.day.changes import change_text
from brassclock.services.schemas.day import ActRead, DayRead, MovedRead, MovedStep
from brassclock.store import hours as hour_rows
from brassclock.store.rows import get
from brassclock.store.tables import Act, Bake, BusyHours, PlanChange

INSTANTS = ("serve_at", "serve_until")
OFFERED_FOR = dt.timedelta(hours=12)
SHOWN_CHANGES = 12


def undo(app: App, kitchen_id: int, act_id: int) -> None:
    """Take an act back: each of its bakes as it was, the hours it freed busy again. Conflict when one was changed
    since."""
    with app.transaction(kitchen_id) as session:
        now = app.now(session, app.kitchen(session, kitchen_id))
        found = get(session, Act, act_id)
        if found is None or found.kitchen_id != kitchen_id:
            raise NotFound(f"This kitchen's day knows no act {act_id}.")
        if found.undone_at is not None:
            raise Conflict(f"“{found.what}” was taken back already.")
        with recording_plan_change(app, session, kitchen_id, f"“{found.what.rstrip('.')}” was taken back"):
            for bake in _bakes(session, found):
                for name, value in found.before[str(bake.id)].items():
                    if name in INSTANTS:
                        setattr(bake, name, None if value is None else dt.datetime.fromisoformat(value))
                    elif name in KEPT:
                        setattr(bake, name, value)
                bake.revision += 1
                session.add(bake)
            for busy_id in found.busy:
                row = get(session, BusyHours, busy_id)
                if row is not None:
                    row.deleted_at = now
                    session.add(row)
            found.undone_at = now
            session.add(found)


def _bakes(session: Session, found: Act) -> list[Bake]:
    """The bakes of an act, or Conflict when one has moved on."""
    bakes = []
    for key, before in found.before.items():
        bake = get(session, Bake, int(key))
        if bake is None or bake.deleted_at is not None or bake.revision != before["revision"]:
            name = bake.name if bake is not None else "A bake of it"
            raise Conflict(f"{name} was changed after “{found.what.rstrip('.')}”. Change it on its own leaves.")
        bakes.append(bake)
    return bakes


def last_out(session: Session, kitchen_id: int, now: dt.datetime) -> ActRead | None:
    """The latest act, while it can be taken back."""
    found = hour_rows.last_act(session, kitchen_id)
    if found is None or now - found.at > OFFERED_FOR:
        return None
    try:
        _bakes(session, found)
    except Conflict:
        return None
    return ActRead(id=found.id or 0, what=found.what, at=found.at)


def day_out(app: App, kitchen_id: int) -> DayRead:
    """Changes of the live bakes' plans, newest first."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        zone = now.tzinfo
        assert zone is not None
        live = solve.live_bakes(session, kitchen_id)
        undo = last_out(session, kitchen_id, now)
        found = [(b, c) for b in live for c in hour_rows.changes(session, b.id or 0, SHOWN_CHANGES)]
    found.sort(key=lambda x: x[1].at, reverse=True)
    return DayRead(moved=[_moved_out(b, c, zone, now) for b, c in found[:SHOWN_CHANGES]], undo=undo)


def _moved_out(bake: Bake, c: PlanChange, zone: dt.tzinfo, now: dt.datetime) -> MovedRead:
    return MovedRead(
        bake_id=bake.id or 0,
        bake=bake.name,
        at=c.at,
        because=c.because,
        moves=[
            MovedStep(
                key=m["key"],
                name=WORDS[kind_of(m["key"])],
                was=dt.datetime.fromisoformat(m["was"]) if m["was"] else None,
                at=dt.datetime.fromisoformat(m["at"]) if m["at"] else None,
            )
            for m in c.moves
        ],
        text=change_text(c.moves, c.because, zone, now),
    )
