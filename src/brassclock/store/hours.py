"""Busy hours, calendars and what they hold, and how plans have changed."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from sqlmodel import Session, col, select

from brassclock.store.rows import find
from brassclock.store.tables import Act, BusyHours, Calendar, CalendarHours, PlanChange


def busy(session: Session, kitchen_id: int) -> Sequence[BusyHours]:
    """Busy hours that stand, as they were made."""
    return sorted(find(session, BusyHours, kitchen_id=kitchen_id, deleted_at=None), key=lambda x: x.id or 0)


def calendars(session: Session, kitchen_id: int) -> Sequence[Calendar]:
    """Calendars that stand, as they were brought in."""
    return sorted(find(session, Calendar, kitchen_id=kitchen_id, deleted_at=None), key=lambda x: x.id or 0)


def calendar_hours(session: Session, calendar_id: int, start: dt.datetime, end: dt.datetime) -> Sequence[CalendarHours]:
    """A calendar's occurrences that touch a span."""
    found = find(
        session,
        CalendarHours,
        col(CalendarHours.start) < end,
        col(CalendarHours.end) > start,
        keep=lambda h: h.start < end and h.end > start,
        calendar_id=calendar_id,
    )
    return sorted(found, key=lambda h: h.start)


def changes(session: Session, bake_id: int, count: int) -> Sequence[PlanChange]:
    """The latest changes of a bake's plan, newest first."""
    query = select(PlanChange.id).where(PlanChange.bake_id == bake_id)
    ids = session.exec(query.order_by(col(PlanChange.at).desc(), col(PlanChange.id).desc()).limit(count)).all()
    found = find(session, PlanChange, col(PlanChange.id).in_(ids), bake_id=bake_id)
    return sorted(found, key=lambda c: (c.at, c.id or 0), reverse=True)[:count]


def last_act(session: Session, kitchen_id: int) -> Act | None:
    """The latest act of a kitchen that stands."""
    query = select(Act.id).where(Act.kitchen_id == kitchen_id, col(Act.undone_at).is_(None))
    latest = session.exec(query.order_by(col(Act.id).desc()).limit(2)).all()
    found = find(session, Act, col(Act.id).in_(latest), kitchen_id=kitchen_id, undone_at=None)
    return max(found, key=lambda a: a.id or 0, default=None)
