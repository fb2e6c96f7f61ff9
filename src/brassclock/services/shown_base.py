"""Shapes that every leaf shows: a band, a reason, a caution, a hand move, a clock."""

from __future__ import annotations

import datetime as dt

from pydantic import BaseModel


class Banded(BaseModel):
    """10, 50 and 90 % of a forecast."""

    p10: float | None
    p50: float | None
    p90: float | None


class BandedAt(BaseModel):
    """The same of an instant."""

    p10: dt.datetime | None
    p50: dt.datetime | None
    p90: dt.datetime | None


class WhyInput(BaseModel):
    name: str
    value: float | str | None
    unit: str


class WhyOut(BaseModel):
    """How a figure came about."""

    title: str
    relation: str
    words: str
    inputs: list[WhyInput]
    evidence: str
    spread: str
    matters: list[str]
    sources: list[str]


class CautionOut(BaseModel):
    code: str
    text: str


class FeedAsk(BaseModel):
    """The feed that a starter is to get."""

    starter_id: int
    seed_g: float
    flour_g: float
    water_g: float


class StepOut(BaseModel):
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
    feed: FeedAsk | None = None


class ClockOut(BaseModel):
    """Now in a kitchen, and how fast its clock runs; a simulated one also tells when it was last set, in real time."""

    now: dt.datetime
    rate: float
    simulated: bool
    set_at: dt.datetime | None = None
