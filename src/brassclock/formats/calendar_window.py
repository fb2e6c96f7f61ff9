"""Of a calendar's text, what can matter between two instants: the rest is never expanded, whatever it repeats.

The library expands a rule from its first day on. Here events outside the window are dropped before they are parsed, a
rule that began long ago is begun anew a whole number of its periods later, and what would expand without bound is
refused by name.
"""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Iterator
from dataclasses import dataclass

MOST_EVENTS = 10_000  # that can matter
MOST_OCCURRENCES = 10_000
MOST_A_DAY = 96  # of one rule: every quarter of an hour
LONGEST = dt.timedelta(days=400)  # of one event
MARGIN = dt.timedelta(days=60)  # a rule is begun anew so long before the window at least
PERIOD_DAYS = {"HOURLY": 1 / 24, "DAILY": 1.0, "WEEKLY": 7.0, "MONTHLY": 30.4, "YEARLY": 365.25}
DATE = re.compile(r"(\d{4})(\d\d)(\d\d)")
DURATION = re.compile(r"[+-]?P(?:(\d+)W)?(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?")


class TooMuch(ValueError):
    """A calendar would expand without bound, or cannot be; the message names the event and says what would be right."""


@dataclass(frozen=True)
class Component:
    """One event or zone of a calendar: its unfolded lines, and its properties by name (value only, the last of
    each)."""

    kind: str
    lines: list[str]
    found: dict[str, str]

    @property
    def name(self) -> str:
        return self.found.get("SUMMARY", "") or self.found.get("UID", "") or "An event"


def within(text: str, start: dt.datetime, end: dt.datetime) -> tuple[str, int]:
    """(the calendar with what can matter from `start` to `end`, how many events it holds in all). Raises TooMuch."""
    head, components = _components(text)
    events = [c for c in components if c.kind == "VEVENT"]
    days = start.date() - dt.timedelta(days=2), end.date() + dt.timedelta(days=2)
    kept = [c for c in events if _matters(c, *days)]
    if len(kept) > MOST_EVENTS:
        raise TooMuch(f"It holds {len(kept)} events in three months; {MOST_EVENTS} are the most here. Export fewer.")
    expected = sum(_in_window(c, *days) for c in kept)
    if expected > MOST_OCCURRENCES:
        raise TooMuch(
            f"It holds about {expected:.0f} occurrences in three months; {MOST_OCCURRENCES} are the most here."
        )
    lines = list(head)
    for c in components:
        if c.kind == "VTIMEZONE":
            _check_zone(c)
            lines += c.lines
    for c in kept:
        lines += _nearer(c, days[0])
    return "\r\n".join([*lines, "END:VCALENDAR", ""]), len(events)


def _components(text: str) -> tuple[list[str], list[Component]]:
    """(lines before and between the components, the components at the top)."""
    head: list[str] = []
    found: list[Component] = []
    open_: list[str] = []
    for line in _unfolded(text):
        mark = line.strip().upper()
        if mark.startswith("BEGIN:") and mark != "BEGIN:VCALENDAR":
            if not open_:
                found.append(Component(mark[6:], [], {}))
            open_.append(mark[6:])
        if not open_:
            if mark != "END:VCALENDAR":
                head.append(line)
            continue
        found[-1].lines.append(line)
        if len(open_) == 1 and ":" in line:
            key, _, value = line.partition(":")
            found[-1].found[key.split(";")[0].strip().upper()] = value.strip()
        if mark.startswith("END:"):
            if open_[-1] != mark[4:]:
                raise TooMuch(f"{found[-1].name[:60]}: “{line[:40]}” closes what was not open. Export it again.")
            open_.pop()
    if open_:
        raise TooMuch(f"The text ends in the midst of a {open_[-1]}. Export the calendar again as iCalendar.")
    return head, found


def _unfolded(text: str) -> Iterator[str]:
    """Content lines, those that were folded joined again (RFC 5545, 3.1)."""
    last: str | None = None
    for line in text.replace("\r\n", "\n").replace("\r", "\n").split("\n"):
        if line[:1] in (" ", "\t") and last is not None:
            last += line[1:]
            continue
        if last:
            yield last
        last = line
    if last:
        yield last


def _date(value: str | None) -> dt.date | None:
    """The day of a date or instant as it is written; None when there is none that can be."""
    found = DATE.search(value or "")
    if found is None:
        return None
    try:
        return dt.date(*(int(x) for x in found.groups()))
    except ValueError:
        return None


def _rule(c: Component) -> dict[str, str]:
    """The parts of an event's rule; empty when it does not repeat."""
    return dict(p.upper().split("=", 1) for p in c.found.get("RRULE", "").split(";") if "=" in p)


def _matters(c: Component, first: dt.date, last: dt.date) -> bool:
    """True if an event can touch the window. Raises TooMuch."""
    begins = _date(c.found.get("DTSTART"))
    _check_length(c)
    if begins is None or begins > last:
        return False
    rule = _rule(c)
    if rule:
        _check_rule(c, rule)
        until = _date(rule.get("UNTIL"))
        return until is None or until >= first - LONGEST
    if "RDATE" in c.found or "RECURRENCE-ID" in c.found:
        return True
    ends = _date(c.found.get("DTEND")) or begins + (LONGEST if "DURATION" in c.found else dt.timedelta(days=1))
    return ends >= first


def _check_length(c: Component) -> None:
    text = c.found.get("DURATION")
    found = DURATION.fullmatch((text or "").upper())
    if text is None or found is None:
        return
    weeks, days, hours, minutes, seconds = (float(x or 0) for x in found.groups())
    if weeks * 7 + days + hours / 24 + minutes / 1440 + seconds / 86400 > LONGEST.days:
        raise TooMuch(f"“{c.name[:60]}” would last {text[:20]}; {LONGEST.days} days are the most for one event.")


def _whole(c: Component, rule: dict[str, str], key: str, usual: int) -> int:
    text = rule.get(key, str(usual))
    if not (text.isascii() and text.isdigit() and int(text[:9]) >= 1 and len(text) < 9):
        raise TooMuch(f"“{c.name[:60]}” repeats with {key}={text[:20]}; a whole number from 1 on would be right.")
    return int(text)


def _check_rule(c: Component, rule: dict[str, str]) -> None:
    """Refuse a rule that repeats oftener than hands can be away, or never ends a day."""
    every = rule.get("FREQ", "")
    if every not in PERIOD_DAYS:
        raise TooMuch(
            f"“{c.name[:60]}” repeats {every.lower()[:20] or 'in no known way'}; hourly, daily, weekly, monthly or "
            "yearly would be right."
        )
    _whole(c, rule, "INTERVAL", 1)
    _whole(c, rule, "COUNT", 1)
    if _a_day(rule) > MOST_A_DAY:
        raise TooMuch(f"“{c.name[:60]}” repeats {_a_day(rule):.0f} times a day; {MOST_A_DAY} are the most here.")


def _a_day(rule: dict[str, str]) -> float:
    """Occurrences of a rule on a day that it is on, at most."""
    times = 24.0 if rule["FREQ"] == "HOURLY" else 1.0
    if rule["FREQ"] != "HOURLY" and "BYHOUR" in rule:
        times *= len(rule["BYHOUR"].split(","))
    for key in ("BYMINUTE", "BYSECOND"):
        times *= len(rule.get(key, "0").split(","))
    return times


def _in_window(c: Component, first: dt.date, last: dt.date) -> float:
    """Occurrences in the window, at most about."""
    rule = _rule(c)
    if not rule:
        return 1.0 + min(c.found.get("RDATE", "").count(","), (last - first).days)
    on_days = (
        (last - first).days
        if rule["FREQ"] in ("HOURLY", "DAILY") or any(k.startswith("BY") for k in rule)
        else ((last - first).days / PERIOD_DAYS[rule["FREQ"]] + 1)
    )
    most = on_days * _a_day(rule) / (_whole(c, rule, "INTERVAL", 1) if rule["FREQ"] in ("HOURLY", "DAILY") else 1)
    return min(most, _whole(c, rule, "COUNT", 1)) if "COUNT" in rule else most


def _check_zone(c: Component) -> None:
    """A zone changes its clock by the year; anything oftener is refused."""
    for line in c.lines:
        if line.upper().startswith("RRULE") and "FREQ=YEARLY" not in line.upper():
            raise TooMuch("A time zone of it changes its clock oftener than by the year. Export it again.")
        if line.upper().startswith("RRULE") and re.search(r"INTERVAL=0*(;|$)|BY(HOUR|MINUTE|SECOND)", line.upper()):
            raise TooMuch("A time zone of it has a rule that never ends. Export it again.")


def _nearer(c: Component, first: dt.date) -> list[str]:
    """The lines of an event, begun anew near the window where its rule began long before."""
    rule, begins = _rule(c), _date(c.found.get("DTSTART"))
    period = PERIOD_DAYS.get(rule.get("FREQ", ""), 0.0) * _whole(c, rule, "INTERVAL", 1) if rule else 0.0
    lines = [_near_dates(line, first) for line in c.lines]
    if begins is None or "COUNT" in rule or rule.get("FREQ") not in ("HOURLY", "DAILY", "WEEKLY"):
        return lines
    whole_days = period if period >= 1 else _whole_days(period)
    by = int((first - MARGIN - LONGEST - begins).days // whole_days) * whole_days
    return [_shifted(line, int(by)) for line in lines] if by > 0 else lines


def _whole_days(period_days: float) -> float:
    """The least whole number of days that holds a whole number of so many hours."""
    hours = round(period_days * 24)
    days = 1
    while days * 24 % hours:
        days += 1
    return float(days)


def _shifted(line: str, days: int) -> str:
    """A line with its begin or end so many days later; other lines as they are."""
    if not re.match(r"DT(START|END)[;:]", line.upper()):
        return line
    key, _, value = line.partition(":")
    day = _date(value)
    return line if day is None else f"{key}:{DATE.sub(f'{day + dt.timedelta(days=days):%Y%m%d}', value, count=1)}"


def _near_dates(line: str, first: dt.date) -> str:
    """A list of added or left-out days without those long before the window."""
    if not re.match(r"(RDATE|EXDATE)[;:]", line.upper()) or "," not in line:
        return line
    key, _, value = line.partition(":")
    parts = value.split(",")
    near = [p for p in parts if (day := _date(p)) is None or day >= first - LONGEST]
    return f"{key}:{','.join(near or parts[-1:])}"
