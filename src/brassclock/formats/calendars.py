"""iCalendar (RFC 5545): busy hours in, a plan out. Recurrence, zones, moved and cancelled occurrences by the
libraries."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from zoneinfo import ZoneInfo

from brassclock.formats.calendar_window import TooMuch, within

PRODUCT = "-//Brass Clock//Plan//EN"


@dataclass(frozen=True)
class Hours:
    """One occurrence: aware start and end; `all_day` when it has dates, no times."""

    name: str
    start: dt.datetime
    end: dt.datetime
    all_day: bool = False


@dataclass(frozen=True)
class Read:
    """Hours of a calendar between two instants, and its name."""

    name: str
    hours: tuple[Hours, ...]
    events: int


@dataclass(frozen=True)
class Move:
    """A hand move to write: `uid` stays its own through every change of the plan."""

    uid: str
    name: str
    start: dt.datetime
    minutes: float
    note: str
    warn_min: int


class NotACalendar(ValueError):
    """The text is no iCalendar; the message says where reading stopped."""


def read(text: str, start: dt.datetime, end: dt.datetime, zone: str) -> Read:
    """Occurrences that touch start to end and take time. Floating times are the kitchen's own; free ones are left out.

    Raises NotACalendar.
    """
    import icalendar
    import recurring_ical_events

    if "BEGIN:VCALENDAR" not in text.upper():
        raise NotACalendar("A calendar begins with BEGIN:VCALENDAR; this text does not. Export it as iCalendar (.ics).")
    try:
        near, events = within(text, start, end)
        calendar = icalendar.Calendar.from_ical(near)
        found = recurring_ical_events.of(calendar, skip_bad_series=True).between(start, end)
    except TooMuch as fault:
        raise NotACalendar(f"This iCalendar cannot be read. {fault}") from None
    except (ValueError, KeyError, IndexError, TypeError, OverflowError) as fault:
        raise NotACalendar(f"Reading stopped: {str(fault)[:160]}. Export the calendar again as iCalendar.") from None
    hours = [h for event in found if (h := _hours(event, ZoneInfo(zone))) is not None]
    name = str(calendar.get("X-WR-CALNAME", "") or calendar.get("NAME", "") or "")
    return Read(name[:80], tuple(sorted(hours, key=lambda h: (h.start, h.end, h.name))), events)


def _hours(event: object, zone: ZoneInfo) -> Hours | None:
    get = event.get  # type: ignore[attr-defined]
    if str(get("STATUS", "")).upper() == "CANCELLED" or str(get("TRANSP", "")).upper() == "TRANSPARENT":
        return None
    start, end = event.start, event.end  # type: ignore[attr-defined]
    all_day = not isinstance(start, dt.datetime)

    def aware(moment: dt.date) -> dt.datetime:
        if not isinstance(moment, dt.datetime):
            return dt.datetime.combine(moment, dt.time(), zone)
        return moment.replace(tzinfo=zone) if moment.tzinfo is None else moment

    a, b = aware(start), aware(end)
    return Hours(str(get("SUMMARY", "") or "busy")[:80], a, b, all_day) if b > a else None


def write(moves: Sequence[Move], name: str, stamp: dt.datetime) -> str:
    """A plan as iCalendar: an event and an alarm for each move; the same uid again replaces it."""
    import icalendar

    calendar = icalendar.Calendar()
    calendar.add("prodid", PRODUCT)
    calendar.add("version", "2.0")
    calendar.add("method", "PUBLISH")
    calendar.add("x-wr-calname", name)
    for move in moves:
        event = icalendar.Event()
        event.add("uid", move.uid)
        event.add("dtstamp", stamp.astimezone(dt.UTC))
        event.add("last-modified", stamp.astimezone(dt.UTC))
        event.add("sequence", int(stamp.timestamp()) // 60 - 29_000_000)  # rises with time: a later plan replaces
        event.add("dtstart", move.start.astimezone(dt.UTC).replace(microsecond=0))
        event.add("duration", dt.timedelta(minutes=max(round(move.minutes), 1)))
        event.add("summary", move.name)
        event.add("description", move.note)
        event.add("transp", "OPAQUE")
        alarm = icalendar.Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", move.name)
        alarm.add("trigger", dt.timedelta(minutes=-move.warn_min))
        event.add_component(alarm)
        calendar.add_component(event)
    return str(calendar.to_ical().decode("utf-8"))
