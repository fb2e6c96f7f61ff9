"""Shapes that all schemas share: strict requests, edits, bands, reasons, cautions, steps, the clock."""

import datetime as dt
from typing import Annotated

from pydantic import BaseModel, ConfigDict, Field


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid", defer_build=True)


class Edit(Strict):
    """A change of a bake; `revision` is the one it was made on, left out: the newest."""

    revision: Annotated[int, Field(ge=0, le=2_147_483_647)] | None = None


class Shape(BaseModel):
    """Base of answers. Its schema is built when it is first used: a start builds none."""

    model_config = ConfigDict(defer_build=True)


class Banded(Shape):
    """10, 50 and 90 % of a forecast."""

    p10: float | None
    p50: float | None
    p90: float | None


class BandedAt(Shape):
    """The same of an instant."""

    p10: dt.datetime | None
    p50: dt.datetime | None
    p90: dt.datetime | None


class WhyInput(Shape):
    name: str
    value: float | str | None
    unit: str


class WhyRead(Shape):
    """Explanation of a figure."""

    title: str
    relation: str
    words: str
    inputs: list[WhyInput]
    evidence: str
    spread: str
    matters: list[str]
    sources: list[str]


class CautionRead(Shape):
    code: str
    text: str


class FeedPortion(Shape):
    """The feed that a starter is to get."""

    starter_id: int
    seed_g: float
    flour_g: float
    water_g: float


class StepRead(Shape):
    """A hand move on the Rule and in the list."""

    bake_id: int
    bake: str
    seal: str
    key: str
    name: str
    at: dt.datetime
    can_wait_until: dt.datetime | None
    not_before: dt.datetime | None
    done_at: dt.datetime | None
    leaf: str
    hands_min: float
    place: str
    reason: str
    away: str | None  # whose hours it falls in, when no hands are free then
    pinned: bool
    feed: FeedPortion | None = None
    freezer: int | None = None  # the kitchen whose freezer it is of; no bake then


class ClockRead(Shape):
    """Now in a kitchen, and how fast its clock runs; a simulated one also tells when it was last set, in real time.
    `apart_s` is how far it is ahead of the machine's clock, which was set meanwhile [s]; 0 where they agree."""

    now: dt.datetime
    rate: float
    simulated: bool
    set_at: dt.datetime | None = None
    apart_s: float = 0.0


class LockTimes(Shape):
    """Milliseconds that changes held the database's write lock: of so many, the 95th percentile and the longest."""

    changes: int
    p95: float
    most: float


class Health(Shape):
    ok: bool
    version: str
    compiled: bool
    demo: bool
    lock_ms: LockTimes
