"""Changes of the busy hours: typed, by the week, calendars in and out. Every plan moves around them, and says so."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from sqlmodel import Session

from brassclock.core.day.hands import Busy
from brassclock.core.errors import FieldFault, gather, invalid
from brassclock.formats import calendars
from brassclock.services.app import App, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.hours import AHEAD, spans
from brassclock.services.schemas.day import BusyCreate, BusyRule, CalendarCreate, CalendarRow, HoursRead, SpanRead
from brassclock.services.times import moment_of
from brassclock.store import hours as hour_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import BusyHours, Calendar, CalendarHours, Kitchen

KNOWN_BEHIND, KNOWN_AHEAD = dt.timedelta(days=2), dt.timedelta(days=92)
MOST_TEXT = 12_000_000
LONGEST_ONCE = dt.timedelta(days=31)


def list_hours(app: App, kitchen_id: int) -> HoursRead:
    """A kitchen's busy hours; a calendar whose known hours run out is read again first."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        stale = any(c.known_until < now + AHEAD for c in hour_rows.calendars(session, kitchen_id))
        if not stale:
            return hours_out(session, kitchen, now)
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        for calendar in hour_rows.calendars(session, kitchen_id):
            if calendar.known_until < now + AHEAD:
                _read_into(session, calendar, kitchen, now, anew=False)
        return hours_out(session, kitchen, now)


def _checked(given: BusyCreate, kitchen: Kitchen, now: dt.datetime) -> BusyHours:
    """A row of what was given, or every fault of it."""
    faults = []
    if given.hands is not None and given.hands > kitchen.cooks:
        faults.append(
            FieldFault("/hands", f"This kitchen has {kitchen.cooks} pairs of hands; {given.hands} cannot be away.")
        )
    if given.days:
        for name in ("from_time", "until_time"):
            if getattr(given, name) is None:
                faults.append(FieldFault(f"/{name}", "A weekly rule needs both its times, as 22:30 and 06:30."))
        gather(faults)
        return BusyHours(
            kitchen_id=kitchen.id or 0,
            name=given.name,
            hands=given.hands,
            days=sorted(set(given.days)),
            from_time=given.from_time,
            until_time=given.until_time,
        )
    for name in ("start", "end"):
        if not getattr(given, name):
            faults.append(
                FieldFault(f"/{name}", "Give when it begins and ends, as Fri 18:00, or the days of a weekly rule.")
            )
    gather(faults)
    start = moment_of(given.start or "", now, "/start")
    end = moment_of(given.end or "", start, "/end")
    if end <= start or end - start > LONGEST_ONCE:
        raise invalid(
            "/end",
            f"It begins {start:%a %H:%M} and would end {end:%a %d %b %H:%M}. Give an end after that, within a month.",
        )
    return BusyHours(kitchen_id=kitchen.id or 0, name=given.name, hands=given.hands, start=start, end=end)


def add_busy(app: App, kitchen_id: int, given: BusyCreate) -> HoursRead:
    """Store busy hours; the plans move around them."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        with recording_plan_change(app, session, kitchen_id, f"hands are away for {given.name}"):
            insert(session, _checked(given, kitchen, now))
        return hours_out(session, kitchen, now)


def change_busy(app: App, kitchen_id: int, busy_id: int, given: BusyCreate) -> HoursRead:
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now, row = app.now(session, kitchen), _row(session, kitchen_id, busy_id)
        new = _checked(given, kitchen, now)
        with recording_plan_change(app, session, kitchen_id, f"the hours of {given.name} are others"):
            for name in ("name", "hands", "start", "end", "days", "from_time", "until_time"):
                setattr(row, name, getattr(new, name))
            session.add(row)
        return hours_out(session, kitchen, now)


def drop_busy(app: App, kitchen_id: int, busy_id: int, *, back: bool = False) -> HoursRead:
    """Put busy hours away, or bring them back."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now, row = app.now(session, kitchen), _row(session, kitchen_id, busy_id)
        with recording_plan_change(app, session, kitchen_id, f"{row.name} {'is back' if back else 'is put away'}"):
            row.deleted_at = None if back else now
            session.add(row)
        return hours_out(session, kitchen, now)


def _row(session: Session, kitchen_id: int, busy_id: int) -> BusyHours:
    row = get(session, BusyHours, busy_id)
    if row is None or row.kitchen_id != kitchen_id:
        raise NotFound(f"There are no busy hours {busy_id} in this kitchen.")
    return row


def _read_into(
    session: Session, calendar: Calendar, kitchen: Kitchen, now: dt.datetime, *, anew: bool
) -> calendars.Read:
    """Store a calendar's hours up to KNOWN_AHEAD: all of them, or what has come into sight since it was read last."""
    until, since = now + KNOWN_AHEAD, calendar.known_until
    try:
        found = calendars.read(calendar.text, now - KNOWN_BEHIND, until, kitchen.zone)
    except calendars.NotACalendar as fault:
        raise invalid("/text", str(fault)) from None
    for h in found.hours:
        if (calendar.all_day or not h.all_day) and (anew or h.start >= since):
            insert(session, CalendarHours(calendar_id=calendar.id or 0, name=h.name, start=h.start, end=h.end))
    calendar.known_until = until
    return found


def bring_calendar(app: App, kitchen_id: int, given: CalendarCreate) -> HoursRead:
    """Bring a calendar in; one of the same name is replaced. Nothing is kept of a text that cannot be read."""
    if len(given.text) > MOST_TEXT:
        raise invalid(
            "/text",
            f"The file holds {len(given.text) / 1e6:.0f} MB; {MOST_TEXT / 1e6:.0f} are the most. Export fewer months.",
        )
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        calendar = Calendar(
            kitchen_id=kitchen_id,
            name=given.name or "",
            text=given.text,
            hands=given.hands,
            all_day=given.all_day,
            known_until=now,
        )
        with recording_plan_change(app, session, kitchen_id, "a calendar was brought in"):
            insert(session, calendar)
            found = _read_into(session, calendar, kitchen, now, anew=True)
            calendar.name = given.name or found.name or "calendar"
            for other in hour_rows.calendars(session, kitchen_id):
                if other.name == calendar.name and other.id != calendar.id:
                    other.deleted_at = now
                    session.add(other)
        shown = hours_out(session, kitchen, now)
        left = sum(h.all_day for h in found.hours) if not given.all_day else 0
        said = (
            f"“{calendar.name}” holds {found.events} events, {len(found.hours) - left} times with hands away "
            "in three months."
        )
        shown.said = said + (f" {left} whole days were left out." if left else "")
        return shown


def drop_calendar(app: App, kitchen_id: int, calendar_id: int, *, back: bool = False) -> HoursRead:
    """Put a calendar away, or bring it back."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = get(session, Calendar, calendar_id)
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"There is no calendar {calendar_id} in this kitchen.")
        now = app.now(session, kitchen)
        with recording_plan_change(
            app, session, kitchen_id, f"the calendar {row.name} {'is back' if back else 'is put away'}"
        ):
            row.deleted_at = None if back else now
            session.add(row)
        return hours_out(session, kitchen, now)


def hours_out(session: Session, kitchen: Kitchen, now: dt.datetime) -> HoursRead:
    """The rules, the calendars and the spans they make."""
    kitchen_id = kitchen.id or 0
    return HoursRead(
        cooks=kitchen.cooks,
        rules=[
            BusyRule(**r.model_dump(exclude={"kitchen_id", "deleted_at"})) for r in hour_rows.busy(session, kitchen_id)
        ],
        calendars=[_calendar_row(session, c, now) for c in hour_rows.calendars(session, kitchen_id)],
        spans=spans_out(spans(session, kitchen, now)),
    )


def spans_out(found: Sequence[Busy]) -> list[SpanRead]:
    return [SpanRead(start=b.start, end=b.end, name=b.name, hands=b.hands) for b in found]


def _calendar_row(session: Session, c: Calendar, now: dt.datetime) -> CalendarRow:
    ahead = hour_rows.calendar_hours(session, c.id or 0, now, now + AHEAD)
    return CalendarRow(id=c.id or 0, name=c.name, hands=c.hands, all_day=c.all_day, ahead=len(ahead))
