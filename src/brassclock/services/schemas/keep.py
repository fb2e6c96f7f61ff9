"""Shapes of the Keep leaf."""

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from brassclock.core.terms import (
    CauseVerdict,
    FaceColour,
    Fault,
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
