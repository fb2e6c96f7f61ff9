"""Shapes of the Keep leaf."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from brassclock.core.terms import CauseVerdict, Fault, FrozenWrap, Pocket, Wrap
from brassclock.services.schemas.base import BandedAt, Shape, Strict


class OutcomeUpdate(Strict):
    round_no: Annotated[int, Field(ge=1, le=500)]
    pocket: Pocket | None = None
    colour: Literal["pale", "right", "dark"] | None = None


class OutcomeRead(Shape):
    round_no: int
    pocket: str | None
    colour: str | None


class FactRead(Shape):
    """Forecast beside fact. `place` is 0 at p10 and 1 at p90."""

    name: str
    unit: str
    said: float | None
    p10: float | None
    p90: float | None
    was: float | None
    place: float | None
    inside: bool | None


class RoundRead(Shape):
    """A round on the heat by the name of its bread; several pieces where they go in one tray."""

    round_no: int
    name: str
    pieces: int


class SoftCurve(Shape):
    """Softness [0 to 100] by the hours after the heat, in a wrap; with p10 and p90 of the chosen one."""

    wrap: str
    h: list[float]
    soft: list[float]
    low: list[float]
    high: list[float]


class WordFrom(Shape):
    """A word for the bread, and from when on it holds."""

    at: dt.datetime
    word: str


class ReheatRead(Shape):
    """One way to heat it again: seconds (of each side where it has two), and a note."""

    by: Literal["pan", "grill", "oven", "microwave", "toaster"]
    seconds: float
    each_side: bool
    note: str


class HoldRead(Shape):
    """The keeping of a bread of the bake in a wrap, from when it came off (or is to come off): softness over three
    days, its windows as instants (null: beyond three days), sweat in a bag [g], advice, reheating from the room and
    frozen."""

    name: str
    wrap: Wrap
    stack: int
    room_c: float
    off_at: dt.datetime
    baked: bool
    now: str
    curves: list[SoftCurve]
    band: SoftCurve
    words: list[WordFrom]
    best_from: BandedAt
    best_to: BandedAt
    good_until: BandedAt
    stiff_by: BandedAt
    room_days: int
    sweat_g: float
    freeze_best_months: int
    freeze_good_months: int
    reheat: list[ReheatRead]
    reheat_frozen: list[ReheatRead]
    advice: list[str]


class CauseRead(Shape):
    """A cause with its share, its evidence in words, the change, and what that gains."""

    cause: str
    name: str
    share: float
    known: bool
    evidence: str
    change: str
    gain: float


class ChangeRead(Shape):
    """The one change for next time: the fact, its value and the one that is right."""

    fact: str
    from_: Any = Field(alias="from")
    to: Any
    text: str


class AskRead(Shape):
    """The fact to note next time."""

    fact: str
    text: str


class CausesRead(Shape):
    """Why rounds fell short: at most three causes, the share of what nobody logged, one change, or what to note."""

    rounds: list[int]
    faults: list[Fault]
    verdict: CauseVerdict
    causes: list[CauseRead]
    other_share: float
    change: ChangeRead | None = None
    ask: AskRead | None = None


class FreezeCreate(Strict):
    """Breads of a bake for the freezer: how many, of which bread of the dough, in what."""

    count: Annotated[int, Field(ge=1, le=500)]
    bread: Annotated[int, Field(ge=0, le=6)] = 0
    wrap: FrozenWrap = "bag"
    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class TakeUpdate(Strict):
    count: Annotated[int, Field(ge=1, le=500)]


class FrozenRead(Shape):
    """A row of the freezer: how many went in and how many are left, best by and use by."""

    id: int
    name: str
    kind: str
    mass_g: float
    count: int
    left: int
    frozen_at: dt.datetime
    wrap: str
    filled: bool
    best_by: dt.datetime
    use_by: dt.datetime


class FreezerRead(Shape):
    rows: list[FrozenRead]


class TakeOutRead(Shape):
    """A move: so many taken out, how they are brought back, and from when they are heated."""

    at: dt.datetime
    row_id: int
    name: str
    count: int
    way: str
    heat_at: dt.datetime


class ThawPlanRead(Shape):
    serve_at: dt.datetime
    moves: list[TakeOutRead]
    said: list[str]


class KeepRead(Shape):
    rounds: list[RoundRead]
    outcomes: list[OutcomeRead]
    facts: list[FactRead]
    activity_before: float
    activity_after: float
