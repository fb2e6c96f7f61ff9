"""What the day is given: busy hours, calendars, pins, and the change that makes a wish fit."""

from __future__ import annotations

import datetime as dt
import re
from typing import Annotated

from pydantic import AfterValidator, Field, StringConstraints

from brassclock.services.schemas.given import Edit, Name, Strict


def _clock(text: str) -> str:
    if not re.fullmatch(r"([01]\d|2[0-3]):[0-5]\d", text):
        raise ValueError(f"“{text[:20]}” is no time of day. Write it as 22:30.")
    return text


ClockTime = Annotated[str, AfterValidator(_clock)]
Typed = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]
Hands = Annotated[int, Field(ge=0, le=20)]


class BusyIn(Strict):
    """Hours in which hands are away (`hands` of them, null all; 0 frees them after all): once (`start`, `end` as typed) or by the week (`days`, 0 is Monday, and two times)."""

    name: Name
    hands: Hands | None = None
    start: Typed | None = None
    end: Typed | None = None
    days: Annotated[list[Annotated[int, Field(ge=0, le=6)]], Field(max_length=7)] = []
    from_time: ClockTime | None = None
    until_time: ClockTime | None = None


class CalendarIn(Strict):
    """An iCalendar text; whole days are hands away only when `all_day` says so."""

    text: str
    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] | None = None
    hands: Hands | None = None
    all_day: bool = False


class PinIn(Edit):
    """Hold a hand move at an instant ahead; None lets it go."""

    key: Annotated[str, StringConstraints(pattern=r"^(mix|ball|cold_in|cold_out)$")]
    at: dt.datetime | None = None


class RelaxIn(Edit):
    """One of the changes that the bake's way out named, by its number, as it was shown."""

    number: Annotated[int, Field(ge=0, le=20)]
    text: Annotated[str, StringConstraints(max_length=300)]


class OtherIn(Edit):
    """One of the other ways through the day, as it was shown."""

    text: Annotated[str, StringConstraints(max_length=300)]


class TogetherBakeIn(Strict):
    bake_id: Annotated[int, Field(ge=1, le=2_147_483_647)]
    text: Annotated[str, StringConstraints(max_length=400)]


class TogetherIn(Strict):
    """The day for all bakes, as it was shown."""

    bakes: Annotated[list[TogetherBakeIn], Field(max_length=200)]
