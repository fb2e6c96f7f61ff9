"""Times as typed: when people eat, when something was done."""

from __future__ import annotations

import datetime as dt

from brassclock.core.evidence import refuse
from brassclock.core.units import Unreadable, parse_moment

SLACK = dt.timedelta(seconds=5)
OLDEST = dt.timedelta(days=14)


def moment_of(text: str, now: dt.datetime, pointer: str) -> dt.datetime:
    """The instant that a cook typed, or a BadRequest at `pointer`."""
    try:
        return parse_moment(text, now)
    except Unreadable as fault:
        raise refuse(pointer, str(fault)) from None


def serve_moment(text: str, now: dt.datetime) -> dt.datetime:
    """When people eat: ahead of now, within 14 days."""
    at = moment_of(text, now, "/serve")
    if at <= now:
        raise refuse("/serve", f"“{text}” is in the past; it is {now:%a %H:%M} here. Give a time ahead, as in 5 h.")
    if at - now > OLDEST:
        raise refuse("/serve", f"“{text}” is more than 14 days ahead. Give a nearer time.")
    return at


def past_moment(text: str | None, now: dt.datetime) -> dt.datetime:
    """When something was done: now when not given, never ahead of now."""
    if text is None:
        return now
    at = moment_of(text, now, "/at")
    if at > now + SLACK:
        at_yesterday = at - dt.timedelta(days=1)
        if now - at_yesterday < dt.timedelta(hours=20) and len(text) <= 8:
            return at_yesterday  # a bare time of day just gone
        raise refuse("/at", f"“{text}” is in the future. Give when it was done, as in 20 min ago.")
    if now - at > OLDEST:
        raise refuse("/at", f"“{text}” is more than 14 days ago. Give a nearer time.")
    return min(at, now)
