"""What the day shows: busy hours, changes that make a wish fit, and how plans have moved."""

from __future__ import annotations

import datetime as dt

from brassclock.services.schemas.base import Shape, StepOut


class SpanOut(Shape):
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


class HoursOut(Shape):
    """A kitchen's busy hours; `said` answers what was just brought in."""

    cooks: int
    rules: list[BusyRule]
    calendars: list[CalendarRow]
    spans: list[SpanOut]
    said: str = ""


class RelaxOut(Shape):
    """A change that makes the bake fit: in words, and the moves it would have."""

    number: int
    text: str
    steps: list[StepOut]
    serve_at: dt.datetime


class WayOutOut(Shape):
    """Whether a bake fits its hours; why not, and what would make it fit."""

    fits: bool
    because: str
    changes: list[RelaxOut]


class WayThrough(Shape):
    """Another way through the day: what it is best at, what to do otherwise, when it begins, minutes of hands, flavour 0 to 1."""

    names: list[str]
    text: str
    begins_at: dt.datetime
    mixed_at: dt.datetime
    hands_min: float
    flavour: float
    steps: list[StepOut]


class WaysThrough(Shape):
    others: list[WayThrough]


class TogetherBake(Shape):
    """What a day for all would make of one bake: placed or not, in words, and how many of its moves are elsewhere.

    `text` is empty for a bake that stays as it is set, and says why when it finds no place.
    """

    bake_id: int
    bake: str
    seal: str
    serve_at: dt.datetime
    placed: bool
    fitted: bool
    text: str
    moves: int
    steps: list[StepOut]


class TogetherOut(Shape):
    """A day for all bakes, and how it was found: `in turn` or `together`."""

    bakes: list[TogetherBake]
    how: str


class ActOut(Shape):
    """The last thing done to the day by one press, which one press takes back."""

    id: int
    what: str
    at: dt.datetime


class MovedStep(Shape):
    key: str
    name: str
    was: dt.datetime | None
    at: dt.datetime | None


class MovedOut(Shape):
    """A change of the plan: when, why, and which moves went where."""

    bake_id: int
    bake: str
    at: dt.datetime
    because: str
    moves: list[MovedStep]
    text: str


class DayOut(Shape):
    """The day's changes so far, newest first, and the last act that can be taken back."""

    moved: list[MovedOut]
    undo: ActOut | None
