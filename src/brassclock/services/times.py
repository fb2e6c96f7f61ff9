"""Times as typed: when people eat, when something was done."""

from __future__ import annotations

import datetime as dt
import re

from brassclock.core.errors import invalid
from brassclock.core.moments import Said, said_moment
from brassclock.core.units import Unreadable

FULL_INSTANT = re.compile(r"\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d.*(Z|[+-]\d\d:\d\d)")
SLACK = dt.timedelta(seconds=5)
OLDEST = dt.timedelta(days=14)
JUST_GONE = dt.timedelta(hours=20)  # a time of day further back is meant ahead
DRAGGED_BACK = dt.timedelta(days=1)
BEHIND, AHEAD = dt.timedelta(days=3652), dt.timedelta(days=730)
BOUND = "Give a time from ten years ago to two years ahead."


def moment_of(text: str, now: dt.datetime, pointer: str) -> dt.datetime:
    """The instant that a cook typed, or a InvalidInput at `pointer`."""
    return _read(text, now, pointer)[1]


def _read(text: str, now: dt.datetime, pointer: str, *, past: bool = False) -> tuple[Said, dt.datetime]:
    try:
        said = said_moment(text, now, past=past)
        at = said.at(now + SLACK if past else now, past=past)
    except Unreadable as fault:
        raise invalid(pointer, str(fault)) from None
    except (OverflowError, ValueError):
        raise invalid(pointer, f"“{text[:60]}” lies outside every calendar. {BOUND}") from None
    return said, bounded(at, now, pointer)


def outside(at: dt.datetime, now: dt.datetime) -> bool:
    """True if an instant lies further from now than anything here is reckoned with."""
    years = at.year - now.year
    return not -11 < years < 3 or not now - BEHIND <= at <= now + AHEAD


def bounded(at: dt.datetime, now: dt.datetime, pointer: str) -> dt.datetime:
    """The instant, in the zone of now. Raises InvalidInput when it has no zone or lies outside what is reckoned
    with."""
    if at.tzinfo is None:
        raise invalid(pointer, "An instant needs its zone, as 2026-11-25T20:00:00+01:00.")
    if outside(at, now):
        raise invalid(pointer, f"{at.year:04d}-{at.month:02d}-{at.day:02d} lies too far from today. {BOUND}")
    return at.astimezone(now.tzinfo)


def table_instant(at: dt.datetime, now: dt.datetime, pointer: str) -> dt.datetime:
    """A table's instant as it was dragged: from a day ago to two weeks ahead. Raises InvalidInput."""
    at = bounded(at, now, pointer)
    if not now - DRAGGED_BACK <= at <= now + OLDEST:
        raise invalid(
            pointer,
            f"Serve from {DRAGGED_BACK.days} day ago to {OLDEST.days} days ahead; {at:%a %d %b %Y %H:%M} is not.",
        )
    return at


def serve_moment(text: str, now: dt.datetime) -> dt.datetime:
    """Serving instant: ahead of now, within 14 days."""
    at = moment_of(text, now, "/serve")
    if at <= now:
        raise invalid("/serve", f"“{text}” is in the past; it is {now:%a %H:%M} here. Give a time ahead, as in 5 h.")
    if at - now > OLDEST:
        raise invalid("/serve", f"“{text}” is more than 14 days ahead. Give a nearer time.")
    return at


def past_moment(text: str | None, now: dt.datetime, said_at: dt.datetime | None = None) -> dt.datetime:
    """Instant at which something was done: now when not given, never ahead of now. `said_at` is when it was said, of
    what comes late: words as “20 min ago” count from then. Raises Invalid for what is no instant of the last OLDEST."""
    if said_at is not None and now - said_at > OLDEST:
        raise invalid("/said_at", "It was said more than 14 days ago. Give a nearer time.")
    if said_at is not None and said_at < now:
        now = said_at.astimezone(now.tzinfo)
    if text is None:
        return now
    said, at = _read(text, now, "/at", past=True)
    if at > now and FULL_INSTANT.fullmatch(text):
        return now  # a page's own stamp, from before a clock was set back: it was made, so it was made by now
    if at > now + SLACK or (said.bare and now - at > JUST_GONE):
        raise invalid("/at", f"“{text}” is in the future. Give when it was done, as in 20 min ago.")
    if now - at > OLDEST:
        raise invalid("/at", f"“{text}” is more than 14 days ago. Give a nearer time.")
    return min(at, now)


def short_moment(at: dt.datetime, now: dt.datetime) -> str:
    """An instant as it is said: its time of day, with the day where that is another.

    >>> noon = dt.datetime(2026, 11, 24, 12, tzinfo=dt.UTC)
    >>> short_moment(noon, noon), short_moment(noon - dt.timedelta(days=1), noon)
    ('12:00', 'Mon 12:00')
    """
    return f"{at:%H:%M}" if at.date() == now.date() else f"{at:%a %H:%M}"
