"""Busy hours, calendars and what they hold, and how plans have changed."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from sqlmodel import Session, col, delete, select

from brassclock.store.tables import Act, BusyHours, Calendar, CalendarHours, PlanChange


def busy(session: Session, kitchen_id: int) -> Sequence[BusyHours]:
    """Busy hours that stand, as they were made."""
    query = select(BusyHours).where(BusyHours.kitchen_id == kitchen_id, col(BusyHours.deleted_at).is_(None))
    return session.exec(query.order_by(col(BusyHours.id))).all()


def calendars(session: Session, kitchen_id: int) -> Sequence[Calendar]:
    """Calendars that stand, as they were brought in."""
    query = select(Calendar).where(Calendar.kitchen_id == kitchen_id, col(Calendar.deleted_at).is_(None))
    return session.exec(query.order_by(col(Calendar.id))).all()


def calendar_hours(session: Session, calendar_id: int, start: dt.datetime, end: dt.datetime) -> Sequence[CalendarHours]:
    """A calendar's occurrences that touch a span."""
    query = select(CalendarHours).where(
        CalendarHours.calendar_id == calendar_id, col(CalendarHours.start) < end, col(CalendarHours.end) > start
    )
    return session.exec(query.order_by(col(CalendarHours.start))).all()


def replace_hours(session: Session, calendar_id: int, hours: Sequence[tuple[str, dt.datetime, dt.datetime]]) -> None:
    """Put a calendar's occurrences (name, start, end) in place of those it had."""
    session.exec(delete(CalendarHours).where(col(CalendarHours.calendar_id) == calendar_id))
    session.add_all([CalendarHours(calendar_id=calendar_id, name=n, start=a, end=b) for n, a, b in hours])


def changes(session: Session, bake_id: int, count: int) -> Sequence[PlanChange]:
    """The latest changes of a bake's plan, newest first."""
    query = select(PlanChange).where(PlanChange.bake_id == bake_id)
    return session.exec(query.order_by(col(PlanChange.at).desc(), col(PlanChange.id).desc()).limit(count)).all()


def last_act(session: Session, kitchen_id: int) -> Act | None:
    """The latest act of a kitchen that stands."""
    query = select(Act).where(Act.kitchen_id == kitchen_id, col(Act.undone_at).is_(None))
    return session.exec(query.order_by(col(Act.id).desc()).limit(1)).first()
