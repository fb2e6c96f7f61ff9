"""Hours in which hands are away: typed, by the week, and from calendars; as spans for the plan."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import replace

from sqlmodel import Session

from brassclock.core.day.hands import Busy
from brassclock.store import hours as hour_rows
from brassclock.store.tables import BusyHours, Kitchen

BEHIND, AHEAD = dt.timedelta(hours=30), dt.timedelta(days=15)


def weekly(
    row: BusyHours, zone: dt.tzinfo, start: dt.datetime, end: dt.datetime
) -> list[tuple[dt.datetime, dt.datetime]]:
    """Spans of a weekly rule that touch start to end, by the local clock; an end before its start is on the next
    day."""
    if not row.days or row.from_time is None or row.until_time is None:
        return []
    first, last = dt.time.fromisoformat(row.from_time), dt.time.fromisoformat(row.until_time)
    found = []
    day = start.astimezone(zone).date() - dt.timedelta(days=1)
    while day <= end.astimezone(zone).date():
        if day.weekday() in row.days:
            over = day + dt.timedelta(days=1) if last <= first else day
            a, b = dt.datetime.combine(day, first, zone), dt.datetime.combine(over, last, zone)
            if a < end and b > start:
                found.append((a, b))
        day += dt.timedelta(days=1)
    return found


def spans(session: Session, kitchen: Kitchen, now: dt.datetime) -> tuple[Busy, ...]:
    """Every stretch of busy hours from a day ago to two weeks ahead, in time order."""
    start, end, zone = now - BEHIND, now + AHEAD, now.tzinfo
    assert zone is not None
    found = []
    for row in hour_rows.busy(session, kitchen.id or 0):
        if row.start is not None and row.end is not None:
            if row.start < end and row.end > start:
                found.append(Busy(row.start.astimezone(zone), row.end.astimezone(zone), row.name, row.hands))
        else:
            found += [Busy(a, b, row.name, row.hands) for a, b in weekly(row, zone, start, end)]
    for calendar in hour_rows.calendars(session, kitchen.id or 0):
        found += [
            Busy(h.start.astimezone(zone), h.end.astimezone(zone), h.name, calendar.hands)
            for h in hour_rows.calendar_hours(session, calendar.id or 0, start, end)
        ]
    free = [b for b in found if b.hands == 0]
    return tuple(sorted(_without(found, free), key=lambda b: (b.start, b.end, b.name)))


def _without(found: Sequence[Busy], free: Sequence[Busy]) -> list[Busy]:
    """Busy hours less those that were freed after all."""
    left = [b for b in found if b.hands != 0]
    for f in free:
        parts = []
        for b in left:
            if b.end <= f.start or b.start >= f.end:
                parts.append(b)
                continue
            if b.start < f.start:
                parts.append(replace(b, end=f.start))
            if b.end > f.end:
                parts.append(replace(b, start=f.end))
        left = parts
    return left
