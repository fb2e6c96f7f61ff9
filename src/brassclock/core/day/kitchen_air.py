"""The kitchen's air by the hour of the day, as a path for the rise model."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence


def air_c(hourly_c: Sequence[float], moment: dt.datetime) -> float:
    """Air [C] at an aware local moment, linear between whole hours of a 24-hour profile.

    >>> air_c([10.0] * 12 + [20.0] * 12, dt.datetime(2026, 1, 1, 11, 30, tzinfo=dt.UTC))
    15.0
    """
    hour = moment.hour + moment.minute / 60 + moment.second / 3600
    low = int(hour) % 24
    share = hour - int(hour)
    return hourly_c[low] * (1 - share) + hourly_c[(low + 1) % 24] * share


def air_path(hourly_c: Sequence[float], start: dt.datetime, hours: float) -> tuple[tuple[float, float], ...]:
    """(hour from `start`, C) at the start and at every whole clock hour for `hours`.

    Hours run on the real time line, so a night in which the clocks change has its true length.
    """
    begin = start.astimezone(dt.UTC)
    points = [(0.0, air_c(hourly_c, start))]
    mark = start.astimezone(dt.UTC).replace(minute=0, second=0, microsecond=0)
    while True:
        mark += dt.timedelta(hours=1)
        offset = (mark - begin).total_seconds() / 3600
        if offset >= hours:
            break
        points.append((offset, air_c(hourly_c, mark.astimezone(start.tzinfo))))
    end = (begin + dt.timedelta(hours=hours)).astimezone(start.tzinfo)
    points.append((hours, air_c(hourly_c, end)))
    return tuple(points)
