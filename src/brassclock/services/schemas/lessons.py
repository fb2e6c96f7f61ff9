"""Shapes of what a kitchen has learned: its beliefs and the lessons that made them."""

import datetime as dt
from typing import Literal

from brassclock.services.schemas.base import Shape, Strict


class LessonRead(Shape):
    """A lesson: the ratio seen, what was believed before and after it (null where it did not count). Of a surface that
    is kelvins over its setting, and the browning rate on it."""

    id: int
    bake_id: int | None
    bake: str
    at: dt.datetime
    seen: float
    refused: bool
    odd: bool
    sure: bool
    before: float | None
    after: float | None
    browns_before: float | None = None
    browns_after: float | None = None


class BeliefRead(Shape):
    """A belief: what it is about, where it started, what is believed now (a ratio to the table, and the spread of its
    logarithm), and its lessons, the newest first.

    Of a surface `mean` and `sd` are kelvins over its setting, `browns` the browning rate on it over the table's.
    """

    key: str
    kind: Literal["activity", "friction", "thirst", "vitality", "pace", "surface"]
    about: str
    start: float
    mean: float
    sd: float
    browns: float | None = None
    browns_sd: float | None = None
    lessons: list[LessonRead]


class LessonsRead(Shape):
    beliefs: list[BeliefRead]


class LessonUpdate(Strict):
    """The cook's word on a lesson: refused or not; `sure` has an odd one count."""

    refused: bool
    sure: bool | None = None
