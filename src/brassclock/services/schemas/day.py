"""Shapes of the day: hours away, calendars, pins, ways out, bakes together."""

import datetime as dt
from typing import Annotated

from pydantic import AfterValidator, Field, StringConstraints

from brassclock.core.moments import said_moment
from brassclock.core.units import Unreadable
from brassclock.services.schemas.base import Edit, Shape, StepRead, Strict
from brassclock.services.schemas.quantities import Name

ANY_DAY = dt.datetime(2000, 1, 3, tzinfo=dt.UTC)


def _clock(text: str) -> str:
    """A time of day as a cook says it (22:30, 10 pm, noon), by its clock."""
    try:
        said = said_moment(text, ANY_DAY)
    except Unreadable:
        said = None
    if said is None or not said.bare or said.clock is None:
        raise ValueError(f"“{text[:20]}” is no time of day. Write it as 22:30 or 10 pm.")
    return f"{said.clock:%H:%M}"


ClockTime = Annotated[str, AfterValidator(_clock)]


Typed = Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)]


Hands = Annotated[int, Field(ge=0, le=20)]


class BusyCreate(Strict):
    """Hours in which hands are away (`hands` of them, null all; 0 frees them after all): once (`start`, `end` as typed)
    or by the week (`days`, 0 is Monday, and two times)."""

    name: Name
    hands: Hands | None = None
    start: Typed | None = None
    end: Typed | None = None
    days: Annotated[list[Annotated[int, Field(ge=0, le=6)]], Field(max_length=7)] = []
    from_time: ClockTime | None = None
    until_time: ClockTime | None = None


class CalendarCreate(Strict):
    """An iCalendar text; whole days are hands away only when `all_day` says so."""

    text: str
    name: Annotated[str, StringConstraints(strip_whitespace=True, max_length=80)] | None = None
    hands: Hands | None = None
    all_day: bool = False


class PinUpdate(Edit):
    """Hold a hand move at an instant ahead; None lets it go."""

    key: Annotated[str, StringConstraints(pattern=r"^(mix|ball|cold_in|cold_out)$")]
    at: dt.datetime | None = None


OptionId = Annotated[str, StringConstraints(pattern=r"^[0-9a-f]{16}$")]


class FitRequest(Edit):
    """One of the changes that the bake's way out named, by its id."""

    id: OptionId


class AlternativeRequest(Edit):
    """One of the other ways through the day, by its id."""

    id: OptionId


class PackBakeRequest(Strict):
    bake_id: Annotated[int, Field(ge=1, le=2_147_483_647)]
    way: OptionId | None


class PackRequest(Strict):
    """The day for all bakes: the way of each by its id, None for one that stays as it is."""

    bakes: Annotated[list[PackBakeRequest], Field(max_length=200)]


class SpanRead(Shape):
    """Hours in which hands are away: all of them (`hands` null) or so many."""

    start: dt.datetime
    end: dt.datetime
    name: str
    hands: int | None


class BusyRule(Shape):
    """Busy hours as they were given."""

    id: int
    name: str
    hands: int | None
    start: dt.datetime | None
    end: dt.datetime | None
    days: list[int] | None
    from_time: str | None
    until_time: str | None


class CalendarRow(Shape):
    """A calendar and how many of its hours lie in the next two weeks."""

    id: int
    name: str
    hands: int | None
    all_day: bool
    ahead: int


class HoursRead(Shape):
    """A kitchen's busy hours; `said` answers what was just brought in."""

    cooks: int
    rules: list[BusyRule]
    calendars: list[CalendarRow]
    spans: list[SpanRead]
    said: str = ""


class FitReport(Shape):
    """A change that makes the bake fit: its id (the same while it is the same change), words, and the moves it would
    have."""

    id: str
    text: str
    steps: list[StepRead]
    serve_at: dt.datetime


class RelaxationRead(Shape):
    """Fit of a bake in its hours: why not, and relaxations that make it fit."""

    fits: bool
    because: str
    changes: list[FitReport]


class WayThrough(Shape):
    """Another way through the day: what it is best at, what to do otherwise, when it begins, minutes of hands, flavour
    0 to 1."""

    id: str
    names: list[str]
    text: str
    begins_at: dt.datetime
    mixed_at: dt.datetime
    hands_min: float
    flavour: float
    steps: list[StepRead]


class WaysThrough(Shape):
    others: list[WayThrough]


class PackBakeRead(Shape):
    """Result of a joint day for one bake: placed or not, in words, and how many of its moves are elsewhere.

    `text` is empty for a bake that stays as it is set, and says why when it finds no place; `way` is the id of its way,
    None without one.
    """

    bake_id: int
    way: str | None
    bake: str
    seal: str
    serve_at: dt.datetime
    placed: bool
    fitted: bool
    text: str
    moves: int
    steps: list[StepRead]


class PackRead(Shape):
    """A day for all bakes, and how it was found: `in turn` or `together`."""

    bakes: list[PackBakeRead]
    how: str


class ActRead(Shape):
    """The last thing done to the day by one press, which one press takes back."""

    id: int
    what: str
    at: dt.datetime


class MovedStep(Shape):
    key: str
    name: str
    was: dt.datetime | None
    at: dt.datetime | None


class MovedRead(Shape):
    """A change of the plan: when, why, and which moves went where."""

    bake_id: int
    bake: str
    at: dt.datetime
    because: str
    moves: list[MovedStep]
    text: str


class DayRead(Shape):
    """The day's changes so far, newest first, and the last act that can be taken back."""

    moved: list[MovedRead]
    undo: ActRead | None
