"""Wall-clock arithmetic on the real time line: hours between aware instants, also through a change of the clocks."""

from __future__ import annotations

import datetime as dt


def later(moment: dt.datetime, hours: float) -> dt.datetime:
    """So many hours on the real time line, through a change of the clocks; in the moment's own zone."""
    return (moment.astimezone(dt.UTC) + dt.timedelta(hours=hours)).astimezone(moment.tzinfo)


def hours_between(start: dt.datetime, end: dt.datetime) -> float:
    """Hours from one aware instant to another on the real time line, also through a change of the clocks.

    Two instants of one zone, subtracted, give the difference of their clock faces.

    >>> from zoneinfo import ZoneInfo
    >>> night = [dt.datetime(2026, 10, 25, h, tzinfo=ZoneInfo("Europe/Zurich")) for h in (0, 6)]
    >>> hours_between(*night)
    7.0
    """
    return (end.astimezone(dt.UTC) - start.astimezone(dt.UTC)).total_seconds() / 3600
