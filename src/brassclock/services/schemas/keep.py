"""Shapes of the Keep leaf."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, StringConstraints

from brassclock.core.terms import (
    CauseVerdict,
    FaceColour,
    Fault,
    FrozenWrap,
    LeafKey,
    Pocket,
    StarterState,
    Tender,
    Wrap,
)
from brassclock.services.schemas.base import BandedAt, Shape, Strict, WhyRead
from brassclock.services.schemas.quantities import TempC, within


class OutcomeUpdate(Strict):
    """The outcome of a round; what is left out stays, null takes a word back. `colour` is of the first side,
    `colour_top` of the other; `faults` are those beside what pocket, colour and tenderness say."""

    round_no: Annotated[int, Field(ge=1, le=500)]
    pocket: Pocket | None = None
    colour: FaceColour | None = None
    colour_top: FaceColour | None = None
    tender: Tender | None = None
    faults: Annotated[list[Fault], Field(max_length=8)] | None = None
    note: Annotated[str, StringConstraints(max_length=500)] | None = None


class TrayUpdate(Strict):
    """A tray judged at once: round by round, or in a sentence."""

    outcomes: Annotated[list[OutcomeUpdate], Field(max_length=500)] = []
    said: Annotated[str, StringConstraints(strip_whitespace=True, max_length=400)] | None = None


class OutcomeRead(Shape):
    round_no: int
    pocket: Pocket | None
    colour: FaceColour | None
    colour_top: FaceColour | None
    tender: Tender | None
    faults: list[Fault]
    note: str


class PhotoCreate(Strict):
    """A picture (JPEG, PNG or WebP, in base64) of a bake, or of one of its rounds."""

    round_no: Annotated[int, Field(ge=1, le=500)] | None = None
    data: Annotated[str, StringConstraints(min_length=1, max_length=16_500_000)]


class PhotoRead(Shape):
    """A picture of a bake; its JPEG is at /api/photos/{id}."""

    id: int
    round_no: int | None
    width: int
    height: int
    added_at: dt.datetime


class NotedUpdate(Strict):
    """The facts that a cook knows of how these breads were made, for the search of causes; null forgets one."""

    rest_min: Annotated[float, within(0, 600, "min")] | None = None
    skin_min: Annotated[float, within(0, 120, "min")] | None = None
    uneven_frac: Annotated[float, within(0, 1, "")] | None = None
    bench_flour_g_m2: Annotated[float, within(0, 400, "g/m2")] | None = None
    tear_mm2: Annotated[float, within(0, 500, "mm2")] | None = None
    kneaded: Annotated[float, within(0, 20, "x")] | None = None
    starter_state: StarterState | None = None
    surface_c: TempC | None = None
    recovered: bool | None = None
    char_left: bool | None = None
    wetted: bool | None = None
    edged: bool | None = None
    microwaved: bool | None = None
    wrap: Wrap | None = None
    wait_min: Annotated[float, within(0, 4320, "min")] | None = None


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
    why: WhyRead


class CauseRead(Shape):
    """A cause with its share, the rounds whose faults it explains, its evidence in words, the change, and what that
    gains."""

    cause: str
    name: str
    share: float
    rounds: list[int] = []
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
    """The reasons why rounds fell short: at most three causes, the share of what nobody logged, one change, or what to
    note."""

    rounds: list[int]
    faults: list[Fault]
    verdict: CauseVerdict
    causes: list[CauseRead]
    other_share: float
    change: ChangeRead | None = None
    ask: AskRead | None = None


class TimeRead(Shape):
    """A thing that made a bake late or early: minutes that it cost, negative where it won some; what to change."""

    what: Literal["dough_temp", "leaven", "starter", "hands", "line"]
    text: str
    minutes: float
    change: str


class TimesRead(Shape):
    times: list[TimeRead]


class FreezeCreate(Strict):
    """Breads of a bake for the freezer: how many, of which bread of the dough, in what, and whether a sheet lies
    between each."""

    count: Annotated[int, Field(ge=1, le=500)]
    bread: Annotated[int, Field(ge=0, le=6)] = 0
    wrap: FrozenWrap = "bag"
    divided: bool = True
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
    divided: bool
    filled: bool
    best_by: dt.datetime
    use_by: dt.datetime


class ServingMoveRead(Shape):
    """So many of a row: when they are taken out, how they are brought back, in how many waves and from when they are
    heated; and when each was done. What is heated from frozen is taken out then."""

    number: int
    row_id: int
    name: str
    count: int
    way: str
    waves: int
    at: dt.datetime
    heat_at: dt.datetime
    taken_at: dt.datetime | None
    heated_at: dt.datetime | None


class ServingRead(Shape):
    """A table that is served from the freezer."""

    id: int
    serve_at: dt.datetime
    wanted: int
    moves: list[ServingMoveRead]


class FreezerRead(Shape):
    rows: list[FrozenRead]
    servings: list[ServingRead]


class ServingCreate(Strict):
    """So many warm breads for a table."""

    wanted: Annotated[int, Field(ge=1, le=500)]
    serve: Annotated[str, StringConstraints(min_length=1, max_length=80)]


class ServingUpdate(Strict):
    """A move that was done, or is not done after all; or the whole table cancelled, or not after all."""

    number: Annotated[int, Field(ge=0, le=200)] | None = None
    what: Literal["taken", "heated"] | None = None
    done: bool = True
    cancelled: bool | None = None


class ServingMoveKept(Strict):
    """A move of a serving as it is stored."""

    at: dt.datetime
    heat_at: dt.datetime
    row_id: Annotated[int, Field(ge=1, le=2_147_483_647)]
    name: Annotated[str, StringConstraints(max_length=200)]
    count: Annotated[int, Field(ge=1, le=500)]
    way: Annotated[str, StringConstraints(max_length=200)]
    waves: Annotated[float, Field(ge=0, le=500)]
    taken_at: dt.datetime | None
    heated_at: dt.datetime | None


class ServingKept(BaseModel):
    """A serving as it is stored, where it comes from another kitchen."""

    wanted: Annotated[int, Field(ge=1, le=500)]
    moves: Annotated[list[ServingMoveKept], Field(max_length=200)]


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


class CarriedRead(Shape):
    """The one change that an earlier bake handed on: its words, the cause and the fact it lies in, and that bake."""

    text: str
    cause: str
    fact: str
    leaf: LeafKey
    from_bake: int
    from_name: str


class KeepRead(Shape):
    """`noted` is what the cook knows of the making; `carried` the change that this bake tries."""

    rounds: list[RoundRead]
    outcomes: list[OutcomeRead]
    facts: list[FactRead]
    noted: NotedUpdate
    carried: CarriedRead | None
    photos: list[PhotoRead]
