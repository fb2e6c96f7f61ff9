"""Times as cooks type and say them: `7 pm`, `tonight at 7`, `saturday lunch`, `in an hour and a half`, `20 min ago`.

A day, a part of the day and a time of day are looked for, in any order; what is left over makes the whole unreadable.
"""

from __future__ import annotations

import datetime as dt
import re
from dataclasses import dataclass

from brassclock.core.spoken import figures
from brassclock.core.units import MAX_TEXT, Unreadable

HINT = "Write 01:30, 7 pm, in 5 h, Friday 7 pm or 2026-11-27 19:00."
FURTHEST = dt.timedelta(days=14)
WEEKDAYS = ("monday", "tuesday", "wednesday", "thursday", "friday", "saturday", "sunday")
MONTHS = ("jan", "feb", "mar", "apr", "may", "jun", "jul", "aug", "sep", "oct", "nov", "dec")
PARTS_OF_DAY = {  # the hour that is meant where none is said
    "breakfast": 8,
    "morning": 9,
    "noon": 12,
    "midday": 12,
    "lunch": 12,
    "afternoon": 15,
    "tea": 17,
    "evening": 19,
    "dinner": 19,
    "supper": 19,
    "night": 20,
}
AFTER_NOON = frozenset(("lunch", "afternoon", "tea", "evening", "dinner", "supper", "night"))
EVENING = 16
SMALL_HOURS = 5  # “tonight at 1” is of the day after

_FOR = "|".join((*PARTS_OF_DAY, *WEEKDAYS, "today", "tonight", "tomorrow", "the", r"\d{1,2}(?:[:.]\d\d)? ?[ap]\.?m"))
_FILLERS = re.compile(
    r"\b(?:at|on|by|before|about|around|the|o'?clock|sharp|coming)\b|(?<=\d)ish\b|(?<=\b\d{4}) ?hrs?$|[,]"
    + rf"|\bfor (?=(?:{_FOR}))"
)
_QUARTERS = {"half": 30, "quarter": 15, "a quarter": 15}
_PAST_HOUR = re.compile(r"\b(half|a quarter|quarter|\w+(?: minutes?)?) (past|to) (\w+)\b")
_HALF_HOUR = re.compile(
    r"\bhalf (one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\d{1,2})\b(?! ?(?:h|min))"
)
_SPAN = re.compile(
    r"^(in |\+ ?)?(?:(\d+(?:\.\d+)?) ?weeks? ?)?(?:(\d+(?:\.\d+)?) ?days? ?)?"
    r"(?:(\d+(?:\.\d+)?) ?(h|hr|hrs|hour|hours) ?)?(?:and )?(?:(\d+)(?!\d) ?(m|min|mins|minute|minutes)? ?)?"
    r"(?:(\d+) ?(?:s|sec|seconds) ?)?(ago|from now|hence)?$"
)
_ISO = re.compile(r"^(\d{4}-\d{2}-\d{2})[t ](\d{2}:\d{2})(?::\d{2}(?:\.\d+)?)?(z|[+-]\d{2}:\d{2})?$")
_CLOCK = re.compile(r"^(\d{1,2})(?:[:.h](\d{2})|(\d{2})(?=\s*[ap])|h)?\s*(am|pm|a\.?m\.?|p\.?m\.?)?$")
_DIGITS = re.compile(r"^([01]?\d|2[0-3])([0-5]\d)$")
_DAY_NAMES = "|".join(f"{d[:3]}(?:{d[3:]}|{d[3:4]}|{d[3:5]})?" for d in WEEKDAYS)
_WEEKDAY = re.compile(rf"\b(?:(?:this|next) )?({_DAY_NAMES})\b\.?")
_MONTH = "(" + "|".join(MONTHS) + ")[a-z]*"
_DATE = re.compile(rf"\b(\d{{1,2}})(?:st|nd|rd|th)? (?:of )?{_MONTH}\b\.?(?: (\d{{4}}))?")
_DATE_US = re.compile(rf"\b{_MONTH}\.? (\d{{1,2}})(?:st|nd|rd|th)?\b(?![:.]\d)(?: (\d{{4}}))?")
_ISO_DATE = re.compile(r"\b(\d{4})-(\d{2})-(\d{2})\b")
_NUMBERED = re.compile(r"\b(\d{1,2})[./](\d{1,2})(?:[./](\d{4})?)?(?= |$)")
_HOUR_BEFORE_DATE = re.compile(
    rf"\bat (\d{{1,2}}(?:[:.]\d\d)?),? (?:on )?((?:{_MONTH})\.? \d{{1,2}}(?:st|nd|rd|th)?)\b"
)
_DAYS_AHEAD = re.compile(r"\bin (?:(\d{1,2}|a) weeks?|(\d{1,2}|a) days?)\b")
_DAY_OF_MONTH = re.compile(r"\b(\d{1,2})(?:st|nd|rd|th)\b")
_TWO_TIMES = re.compile(r"\d ?(?:[ap]\.?m\.?)? ?(?:-|–|to|and|until|till?) ?\d")
_EITHER = re.compile(r"\b(?:[1-9]|1[0-2]) to (?:\d{1,2})\b")  # minutes to an hour, or two hours
_SAID_DAYS = (("day after tomorrow", 2), ("tomorrow", 1), ("yesterday", -1), ("today", 0))
_PART = re.compile(r"\b(?:(?:in|this) )?(" + "|".join(PARTS_OF_DAY) + r")(?:time| time)?\b")


@dataclass(frozen=True)
class Said:
    """A moment as it was said: an instant, or a day, a weekday and a time of day, of which some may be missing."""

    instant: dt.datetime | None = None
    day: dt.date | None = None
    weekly: bool = False  # of a weekday: the next such, or the last
    tonight: bool = False
    clock: dt.time | None = None
    next_day: bool = False

    @property
    def bare(self) -> bool:
        """True of a time of day alone."""
        return self.instant is None and self.day is None

    def at(self, now: dt.datetime, *, past: bool = False) -> dt.datetime:
        """The instant, in the zone of now: the next such, or the last."""
        if self.instant is not None:
            return self.instant
        assert self.clock is not None
        day = (self.day or now.date()) + dt.timedelta(days=self.next_day)
        at = dt.datetime.combine(day, self.clock, tzinfo=now.tzinfo)
        every = 7 if self.weekly else 1 if self.day is None or self.tonight else 0
        if past and at > now:
            return dt.datetime.combine(day - dt.timedelta(days=every), self.clock, tzinfo=now.tzinfo)
        if not past and at <= now:
            return dt.datetime.combine(day + dt.timedelta(days=every), self.clock, tzinfo=now.tzinfo)
        return at


def parse_moment(text: str, now: dt.datetime, *, past: bool = False) -> dt.datetime:
    """The instant that a cook typed, in the zone of `now`, which is aware. A time of day is the next such after it;
    with `past` the last such before it. Raises Unreadable.

    >>> noon = dt.datetime(2026, 11, 24, 12, tzinfo=dt.UTC)  # a Tuesday
    >>> [f"{parse_moment(t, noon):%a %H:%M}" for t in ("01:30", "tonight at 7", "7 pm on friday", "in half an hour")]
    ['Wed 01:30', 'Tue 19:00', 'Fri 19:00', 'Tue 12:30']
    """
    return said_moment(text, now, past=past).at(now, past=past)


def said_moment(text: str, now: dt.datetime, *, past: bool = False) -> Said:
    """A moment as it was said. Stretches of time without a word on which way count on, with `past` back."""
    clean = re.sub(r"\s+", " ", text.strip().lower().replace("’", "'"))
    quoted = f"“{text.strip()[:MAX_TEXT]}”"
    if not clean or len(clean) > MAX_TEXT:
        raise Unreadable(f"{quoted} cannot be read as a time. {HINT}")
    iso = _ISO.match(clean.replace(" at ", " "))
    if iso:
        return Said(_instant(clean.replace(" at ", " ").upper(), now, quoted))
    clean = re.sub(r"\s+", " ", _FILLERS.sub(" ", _HOUR_BEFORE_DATE.sub(r"\2 at \1", clean))).strip()
    if _EITHER.search(clean):
        raise Unreadable(f"{quoted} may be one time or two. Write it by the clock, as 7:55.")
    clean = figures(_spoken_clock(clean)).strip()
    if clean in ("now", "just now", "right now"):
        return Said(now)
    span = _span(clean, past)
    if span is not None:
        if abs(span) > FURTHEST:
            raise Unreadable(f"{quoted} is more than 14 days off. {HINT}")
        return Said((now.astimezone(dt.UTC) + span).astimezone(now.tzinfo))
    return _of_a_day(clean, now, past, quoted)


def _instant(text: str, now: dt.datetime, quoted: str) -> dt.datetime:
    try:
        moment = dt.datetime.fromisoformat(text)
    except ValueError as fault:
        raise Unreadable(f"{quoted} is no date: {fault}. {HINT}") from None
    return moment.replace(tzinfo=now.tzinfo) if moment.tzinfo is None else moment.astimezone(now.tzinfo)


def _spoken_clock(text: str) -> str:
    """A spoken time of day by its clock.

    >>> _spoken_clock("half past seven"), _spoken_clock("a quarter to eight pm"), _spoken_clock("half seven")
    ('7:30', '7:45 pm', '7:30')
    """

    def by_clock(match: re.Match[str]) -> str:
        minutes = _QUARTERS.get(match[1]) or figures(match[1]).split(" ")[0]
        hour = figures(match[3])
        if not str(minutes).isdigit() or not hour.isdigit():
            return match[0]
        at = int(hour) * 60 + (int(minutes) if match[2] == "past" else -int(minutes))
        return f"{at // 60 % 24}:{at % 60:02d}"

    said = _PAST_HOUR.sub(by_clock, text)
    return _HALF_HOUR.sub(lambda m: f"{figures(m[1])}:30", said)


def _span(clean: str, past: bool) -> dt.timedelta | None:
    """A stretch of time from now, back where it is ago; None of what is none."""
    found = _SPAN.match(re.sub(r"\b(?:a|an) (?=week|day|hour|min)", "1 ", clean))
    if not found or not any(found[k] for k in (2, 3, 4, 6, 8)):
        return None
    ahead, weeks, days, hours, unit, minutes, of_minutes, seconds, which = found.groups()
    if minutes and not of_minutes and not (hours and (ahead or which)):
        return None  # a number alone, or 14h30: a time of day
    if unit == "h" and not (ahead or which or minutes) and len(hours or "") > 1:
        return None
    parts = (float(x or 0) for x in (weeks, days, hours, minutes, seconds))
    span = sum((n * u for n, u in zip(parts, _UNITS, strict=True)), dt.timedelta())
    return -span if which == "ago" or (past and not ahead and not which) else span


_UNITS = tuple(dt.timedelta(**{u: 1}) for u in ("weeks", "days", "hours", "minutes", "seconds"))


def _of_a_day(clean: str, now: dt.datetime, past: bool, quoted: str) -> Said:
    """A day and a time of day, in any order."""
    tonight = re.search(r"\b(?:tonight|last night)\b", clean)
    rest = clean.replace(tonight[0], " evening ", 1) if tonight else clean
    weekly = False
    if tonight:
        day: dt.date | None = now.date() - dt.timedelta(days=tonight[0] == "last night")
    else:
        day, weekly, rest = _day(rest, now, past, quoted)
    part = _PART.search(rest)
    if part:
        rest = rest[: part.start()] + " " + rest[part.end() :]
        if day is None and part[0].startswith("this "):
            day = now.date()
    rest = re.sub(r"\s+", " ", rest).strip()
    clock, over = (dt.time(), True) if rest in ("midnight", "12 midnight") else (_clock(rest), False)
    if clock is None and rest:
        two = _TWO_TIMES.search(rest)
        raise Unreadable(
            f"{quoted} {'names two times. Write one of them.' if two else f'cannot be read as a time. {HINT}'}"
        )
    if clock is None and part is None:
        raise Unreadable(f"{quoted} names a day and no time. Write {clean} 7 pm.")
    if clock is None and part is not None:
        clock = dt.time(PARTS_OF_DAY[part[1]])
    elif clock is not None and part is not None and not over and not re.search(r"[ap]\.?m", rest):
        clock, over = _in_part(clock, part[1], bool(tonight))
    if tonight and clock is not None and not over and SMALL_HOURS <= clock.hour < EVENING:
        raise Unreadable(f"{quoted}: {clock:%H:%M} is not at night. Write tomorrow, or another time.")
    bare = day is None
    return Said(None, day, weekly, bool(tonight), clock, over and not bare)


def _day(text: str, now: dt.datetime, past: bool, quoted: str) -> tuple[dt.date | None, bool, str]:
    """(the day that is said, whether it is any such weekday, the rest): by its distance, weekday or date."""
    for words, ahead in _SAID_DAYS:
        if re.search(rf"\b{words}\b", text):
            return now.date() + dt.timedelta(days=ahead), False, re.sub(rf"\b{words}\b", " ", text)
    counted = _DAYS_AHEAD.search(text)
    if counted:
        weeks, days = (int(n == "a" or n or 0) for n in counted.groups())
        return now.date() + dt.timedelta(weeks=weeks, days=days), False, text.replace(counted[0], " ", 1)
    weekday = _WEEKDAY.search(text)
    if not weekday:
        day, rest = _date(text, now, past, quoted)
        return day, False, rest
    number = next(n for n, d in enumerate(WEEKDAYS) if d.startswith(weekday[1][:3]))
    rest = f"{text[: weekday.start()]} {text[weekday.end() :]}".strip()
    day, rest = _dated(rest, number, now, past, quoted)
    return day or now.date() + dt.timedelta(days=(number - now.weekday()) % 7), day is None, rest


def _dated(text: str, weekday: int, now: dt.datetime, past: bool, quoted: str) -> tuple[dt.date | None, str]:
    """(the day of the calendar that is said beside a weekday, the rest); None where none is. Raises Unreadable where
    the two are not the same day."""
    of_month = None if re.search(rf"\b{_MONTH}\b", text) else _DAY_OF_MONTH.search(text)
    if of_month:
        near = (now.date() + dt.timedelta(days=(-n if past else n)) for n in range(62))
        day = next((d for d in near if d.day == int(of_month[1])), None)
        if day is None:
            raise Unreadable(f"{quoted}: no month has a {of_month[0]}. {HINT}")
        rest = text[: of_month.start()] + " " + text[of_month.end() :]
    else:
        day, rest = _date(text, now, past, quoted)
    if day is not None and day.weekday() != weekday:
        said = f"{day.day} {MONTHS[day.month - 1].title()}"
        raise Unreadable(f"{quoted}: {said} is a {WEEKDAYS[day.weekday()].title()}. Write the one or the other.")
    return day, rest


def _in_part(clock: dt.time, part: str, tonight: bool) -> tuple[dt.time, bool]:
    """(a time of day as it is meant in a part of the day, whether that is after midnight)."""
    if tonight and (clock.hour == 12 or 0 < clock.hour < SMALL_HOURS):
        return clock.replace(hour=clock.hour % 12), True
    return (clock.replace(hour=clock.hour + 12) if part in AFTER_NOON and clock.hour < 12 else clock), False


def _date(text: str, now: dt.datetime, past: bool, quoted: str) -> tuple[dt.date | None, str]:
    """(a day of the calendar, the rest); the nearest such ahead, or back, where no year is said."""
    found = _ISO_DATE.search(text)
    if found:
        year, month, day = int(found[1]), int(found[2]), int(found[3])
    elif found := _DATE.search(text):
        year, month, day = int(found[3] or 0), MONTHS.index(found[2]) + 1, int(found[1])
    elif found := _DATE_US.search(text):
        year, month, day = int(found[3] or 0), MONTHS.index(found[1]) + 1, int(found[2])
    elif found := _numbered(text):
        year = int(found[3] or 0)
        month, day = _which(int(found[1]), int(found[2]), year, now, past, quoted)
    if not found:
        return None, text
    rest = text[: found.start()] + " " + text[found.end() :]
    try:
        if year:
            return dt.date(year, month, day), rest
        here = dt.date(now.year, month, day)
        if not past and here < now.date():
            here = dt.date(now.year + 1, month, day)
        elif past and here > now.date():
            here = dt.date(now.year - 1, month, day)
    except ValueError as fault:
        raise Unreadable(f"{quoted} is no date: {fault}. {HINT}") from None
    return here, rest


def _which(first: int, second: int, year: int, now: dt.datetime, past: bool, quoted: str) -> tuple[int, int]:
    """(month, day) of two numbers: the order that is near enough to be planned for. Raises Unreadable where both are or
    neither is."""
    orders = [(m, d) for m, d in {(first, second), (second, first)} if m <= 12]
    if len(orders) > 1:
        near = []
        for month, day in orders:
            for y in (year,) if year else (now.year - 1, now.year, now.year + 1):
                off = (dt.date(y, month, day) - now.date()).days * (-1 if past else 1)
                near += [(month, day)] if 0 <= off <= FURTHEST.days else []
        orders = near
    if len(orders) != 1:
        raise Unreadable(f"{quoted} may be two days. Write the month, as in {first} {MONTHS[second - 1].title()}.")
    return orders[0]


def _numbered(text: str) -> re.Match[str] | None:
    """A day as 28/11 or 28.11.: with a stroke, or where another time of day is said beside it (7.30 is one itself)."""
    found = _NUMBERED.search(text)
    if found is None or max(int(found[1]), int(found[2])) > 31 or min(int(found[1]), int(found[2])) < 1:
        return None
    rest = (text[: found.start()] + text[found.end() :]).strip()
    return found if "/" in found[0] or found[0].endswith(".") or _clock(rest) or _PART.fullmatch(rest) else None


def _clock(text: str) -> dt.time | None:
    """A time of day by the clock; None of what is none."""
    digits = _DIGITS.match(text)
    if digits:
        return dt.time(int(digits[1]), int(digits[2]))
    match = _CLOCK.match(text)
    if not match:
        return None
    hour, minute, half = int(match[1]), int(match[2] or match[3] or 0), (match[4] or "")[:1]
    if half:
        if not 1 <= hour <= 12:
            return None
        hour = hour % 12 + (12 if half == "p" else 0)
    return dt.time(hour % 24, minute) if hour <= 24 and minute <= 59 and (hour < 24 or minute == 0) else None
