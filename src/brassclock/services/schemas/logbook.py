"""Shapes of the Logbook: a page of past bakes, and what many of them show together."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from brassclock.core.terms import LeafKey
from brassclock.services.schemas.bake import BakeSummary, BrokenRead
from brassclock.services.schemas.base import Shape

Season = Literal["spring", "summer", "autumn", "winter"]
Became = Literal["all_well", "fell_short", "noted", "not_judged"]


class PastQuery(BaseModel):
    """A filter of past bakes: every one that holds each word (of its name, notes, causes or ingredients), of one bread
    (a method's key), leaven or surface, that became so, in a season or between two days."""

    words: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    bread: Annotated[str, StringConstraints(max_length=80)] | None = None
    leaven: Annotated[str, StringConstraints(max_length=60)] | None = None
    surface_id: int | None = Field(default=None, ge=1, le=2_147_483_647)
    became: Became | None = None
    season: Season | None = None
    since: dt.date | None = None
    until: dt.date | None = None


class TwoQuery(BaseModel):
    """Two bakes, the second one against the first."""

    a: int = Field(ge=1, le=2_147_483_647)
    b: int = Field(ge=1, le=2_147_483_647)


class LogbookQuery(PastQuery):
    """A page of the logbook: how many, and the last bake of the page before."""

    count: int = Field(default=40, ge=1, le=200)
    before: int | None = Field(default=None, ge=1, le=2_147_483_647)


class PastRead(BakeSummary):
    """A bake that has ended: why it fell short, where it was baked, and whether the statistics leave it out. Of its
    judged breads `opened` had their pocket judged, `short` fell short in any way."""

    opened: int
    short: int
    cause: str | None
    surface: str | None
    left_out: bool


class LogbookRead(Shape):
    """Bakes that were kept or abandoned, latest table first: a page of them, how many there are, and whether more
    follow."""

    bakes: list[PastRead]
    count: int
    more: bool
    broken: list[BrokenRead]


class PocketMark(Shape):
    """A bake, or a month of many (`bake_id` is null): full pockets of those judged, and the share that is believed
    after it, with the band that holds it 8 times in 10 [0 to 1]."""

    at: dt.datetime
    bake_id: int | None
    name: str
    seal: str
    bakes: int
    full: int
    judged: int
    mean: float
    low: float
    high: float


class LaneMark(Shape):
    at: dt.datetime
    bake_id: int
    lost: int


class LaneChange(Shape):
    at: dt.datetime
    bake_id: int
    text: str


class LaneRead(Shape):
    """A cause through the bakes: the breads that it cost and where, what was changed against it, and how many judged
    bakes have gone by without it since."""

    cause: str
    name: str
    lost: int
    marks: list[LaneMark]
    changes: list[LaneChange]
    silent: int


class ReadyMark(Shape):
    """Hours of a bulk rise as forecast and as it was, at the air it stood in."""

    at: dt.datetime
    bake_id: int
    name: str
    room_c: float
    p10: float
    p50: float
    p90: float
    was: float


class CostMark(Shape):
    """Minutes of hands and grams of flour that a bake took, and the breads that were judged."""

    at: dt.datetime
    bake_id: int
    name: str
    hands_min: float
    flour_g: float
    judged: int


class HeatMark(Shape):
    """The belief about a surface after a bake: its setting then, and kelvins over it with their spread."""

    at: dt.datetime
    bake_id: int
    set_c: float
    shift_k: float
    sd_k: float


class HeatsRead(Shape):
    surface_id: int
    name: str
    marks: list[HeatMark]


class StrengthMark(Shape):
    """A ratio that was seen, and what was believed after it with the spread of its logarithm."""

    at: dt.datetime
    bake_id: int | None
    seen: float
    mean: float
    sd: float


class StrengthsRead(Shape):
    """A leaven or a starter through the bakes."""

    key: str
    name: str
    marks: list[StrengthMark]


class RestMark(Shape):
    """The share of its time to come back that a surface was given between two breads of a bake."""

    at: dt.datetime
    bake_id: int
    name: str
    share: float


class RestsRead(Shape):
    """A surface's rests through the bakes."""

    surface_id: int
    name: str
    marks: list[RestMark]


class ChoiceRead(Shape):
    """Something to choose past bakes by: its key, its name, its seal where it is a bread, how many there are."""

    key: str
    name: str
    seal: str | None = None
    bakes: int


class FiguresRead(Shape):
    """The figures of the chosen bakes together; `breads`, `leavens` and `surfaces` are of every past bake of the
    kitchen.

    Of more than some hundred bakes `pockets` are months, and the newest marks stand in the other figures.
    """

    bakes: int
    left_out: int
    full: int
    judged: int
    pockets: list[PocketMark]
    lanes: list[LaneRead]
    ready: list[ReadyMark]
    ready_inside: int
    ready_of: int
    costs: list[CostMark]
    heats: list[HeatsRead]
    strengths: list[StrengthsRead]
    rests: list[RestsRead]
    breads: list[ChoiceRead]
    leavens: list[ChoiceRead]
    surfaces: list[ChoiceRead]


class TwoBakeRead(Shape):
    id: int
    name: str
    serve_at: dt.datetime
    full: int
    judged: int


class DifferenceRead(Shape):
    """A fact in which two bakes differ, in words, and the leaf it is made on; `cost` is what the second one's cost in
    its chance of a full pocket [of 100], null where that is not known."""

    leaf: LeafKey
    what: str
    a: str
    b: str
    cost: int | None


class TwoRead(Shape):
    a: TwoBakeRead
    b: TwoBakeRead
    rows: list[DifferenceRead]


class RefusedRead(Shape):
    """A line of a package that was not taken: its table, its line, and why."""

    table: str
    line: int
    detail: str


class BroughtRead(Shape):
    """The report of a package: rows that were added and rows that were there, by table; lines that were refused, the
    first of them in words."""

    id: int
    added: dict[str, int]
    there: dict[str, int]
    refused: list[RefusedRead]
    refused_count: int


class ProgressRead(Shape):
    """The progress of a package that is coming in: rows done, of all (0 while it is read)."""

    under_way: bool
    done: int
    of: int


class PackageRead(Shape):
    """The package that was brought in last and can be taken back; null where there is none."""

    id: int | None
    at: dt.datetime | None
    added: dict[str, int]
