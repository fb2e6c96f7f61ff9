"""Shapes of a bake as a whole, of the bench and the logbook."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from brassclock.core.spoken import LEAST_GROWN, MOST_GROWN
from brassclock.core.terms import (
    BowlMaterial,
    Colour,
    HeatSource,
    KneadMethod,
    LeafKey,
    PieceShape,
    PlaceKey,
    StageEnd,
    Strength,
)
from brassclock.services.schemas.base import ClockRead, Edit, Shape, StepRead, Strict
from brassclock.services.schemas.day import SpanRead
from brassclock.services.schemas.fire import DressingUpdate, FireRead, HeatStepUpdate, TapRead
from brassclock.services.schemas.instruments import InstrumentNote
from brassclock.services.schemas.keep import KeepRead
from brassclock.services.schemas.kitchen import KitchenRead
from brassclock.services.schemas.mix import MixRead
from brassclock.services.schemas.quantities import AirC, Name, Note, PieceG, RowId, SizeCm, TempC, ThickMm, within
from brassclock.services.schemas.rise import AirPath, ColdUpdate, RelocationRead, RestRead, RiseRead
from brassclock.services.schemas.weigh import AdditionRead, FillingUpdate, FormulaLineCreate, WeighRead


class BakeCreate(Strict):
    """A new bake: from a method, for a table."""

    kitchen_id: RowId
    method: Annotated[str, StringConstraints(max_length=60)] = "hatch-pita"
    serve: Annotated[str, StringConstraints(max_length=80)]
    name: Name | None = None


class AgainCreate(Strict):
    """The same bread for another table; with the one change that its causes name, or without."""

    serve: Annotated[str, StringConstraints(max_length=80)]
    name: Name | None = None
    change: bool = True


class PartUpdate(Strict):
    """A further bread of the same dough: its pieces and their size, where and how it is baked; `filled` with the bake's
    own filling. What is left out is as the bake has it."""

    name: Name
    count: Annotated[int, Field(ge=1, le=500)]
    piece_g: PieceG
    shape: PieceShape = "round"
    diameter_cm: SizeCm | None = None
    length_cm: SizeCm | None = None
    width_cm: SizeCm | None = None
    thickness_mm: ThickMm | None = None
    surface_id: RowId | None = None
    doneness: Colour | None = None
    colour_top: Colour | None = None
    docked: bool = False
    filled: bool = False
    heat_steps: Annotated[list[HeatStepUpdate], Field(min_length=1, max_length=12)] | None = None
    dressing: DressingUpdate | None = None


StageTime = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=60)]


class BakeUpdate(Edit):
    """Any part of a bake; what is left out stays."""

    name: Name | None = None
    serve: Annotated[str, StringConstraints(max_length=80)] | None = None
    serve_until: Annotated[str, StringConstraints(max_length=80)] | None = None
    lines: Annotated[list[FormulaLineCreate], Field(max_length=60)] | None = None
    unread: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Field(max_length=60)] | None = None
    held: Annotated[dict[str, Annotated[float, within(0, 100_000, "g")]], Field(max_length=120)] | None = None
    filling: FillingUpdate | None = None
    weighed: Annotated[list[Annotated[int, Field(ge=0, le=120)]], Field(max_length=120)] | None = None
    bag_id: RowId | None = None
    solve_for: Annotated[str, StringConstraints(max_length=60)] | None = None
    bowl_g: Annotated[float, within(0, 20_000, "g")] | None = None
    bowl_material: BowlMaterial | None = None
    part_temps: Annotated[dict[str, TempC], Field(max_length=120)] | None = None
    strength: Strength | None = None
    bloomed: bool | None = None
    count: Annotated[int, Field(ge=1, le=500)] | None = None
    piece_g: PieceG | None = None
    shape: PieceShape | None = None
    diameter_cm: SizeCm | None = None
    length_cm: SizeCm | None = None
    width_cm: SizeCm | None = None
    thickness_mm: ThickMm | None = None
    dough_c: Annotated[float, within(5, 40, "C")] | None = None
    knead: KneadMethod | None = None
    knead_min: Annotated[float, within(0, 60, "min")] | None = None
    flour_c: AirC | None = None
    bulk_place: PlaceKey | None = None
    ball_place: PlaceKey | None = None
    bulk_air: AirPath | None = None
    ball_air: AirPath | None = None
    cold: ColdUpdate | None = None
    sponge_h: Annotated[float, within(0.1, 48, "h")] | None = None
    starter_id: RowId | None = None
    bulk_time: StageTime | None = None
    ball_time: StageTime | None = None
    cold_time: StageTime | None = None
    sponge_time: StageTime | None = None
    bulk_ratio: Annotated[float, within(LEAST_GROWN, MOST_GROWN, "x")] | None = None
    ball_ratio: Annotated[float, within(LEAST_GROWN, MOST_GROWN, "x")] | None = None
    surface_id: RowId | None = None
    surface_c: TempC | None = None
    surface_source: HeatSource | None = None
    surface_sd_k: Annotated[float, within(2, 60, "K")] | None = None
    doneness: Colour | None = None
    colour_top: Colour | None = None
    heat_steps: Annotated[list[HeatStepUpdate], Field(min_length=1, max_length=12)] | None = None
    dressing: DressingUpdate | None = None
    docked: bool | None = None
    parts: Annotated[list[PartUpdate], Field(max_length=6)] | None = None
    uneven_frac: Annotated[float, within(0, 1, "")] | None = None
    skin_min: Annotated[float, within(0, 120, "min")] | None = None
    note: Note | None = None
    left_out: bool | None = None


class SayPart(Shape):
    """A piece of the say-line: plain text, an instant (`at`), a countdown to one (`until`), or a figure."""

    kind: Literal["text", "at", "until", "figure"]
    text: str = ""
    at: dt.datetime | None = None


class LeafRead(Shape):
    leaf: LeafKey
    state: Literal["done", "now", "later"]


class BakeSummary(Shape):
    """A bake on the Bench and in the Logbook."""

    id: int
    name: str
    seal: str
    status: str
    method: str
    leaf: str
    leaves: list[LeafRead]
    count: int | None
    piece_g: float | None
    serve_at: dt.datetime
    kept_at: dt.datetime | None
    dough_c: float | None
    stands: PlaceKey | None
    ratio: float | None
    target_ratio: float | None
    too_far_ratio: float | None
    weighed_g: float | None
    ready_at: dt.datetime | None
    full: int
    outcomes: int
    fits: bool
    note: str


class BrokenRead(Shape):
    """A bake that cannot be computed: which, why, and what can be done."""

    bake_id: int
    name: str
    text: str


class BenchRead(Shape):
    """The start screen: what is alive and the latest that was kept, the next hand moves, the kitchen's readings."""

    broken: list[BrokenRead]
    clock: ClockRead
    kitchen: KitchenRead
    room_c: float
    bakes: list[BakeSummary]
    steps: list[StepRead]
    say: list[SayPart]
    away: list[SpanRead]
    instruments: list[InstrumentNote]


class BakeSettings(Shape):
    """Settings of a bake as stored."""

    lines: list[FormulaLineCreate]
    unread: list[str]
    held: dict[str, float]
    additions: list[AdditionRead]
    filling: FillingUpdate | None
    weighed: list[int]
    bag_id: int | None
    solve_for: str | None
    bowl_g: float
    bowl_material: BowlMaterial
    part_temps: dict[str, float]
    bloom_min: float | None
    bloom_foamed: bool | None
    activity_factor: float | None
    spells: list[RelocationRead]
    bulk_end: StageEnd
    ball_end: StageEnd
    bulk_h: float | None
    ball_h: float | None
    bulk_most_h: float | None
    ball_most_h: float | None
    bulk_place: PlaceKey
    ball_place: PlaceKey
    bulk_air: list[list[float]] | None
    ball_air: list[list[float]] | None
    cold: ColdUpdate | None
    sponge_h: float | None
    starter_id: int | None
    strength: Strength
    bloomed: bool
    count: int | None
    piece_g: float | None
    shape: PieceShape
    diameter_cm: float | None
    length_cm: float | None
    width_cm: float | None
    thickness_mm: float | None
    dough_c: float
    knead: KneadMethod
    knead_min: float
    flour_c: float | None
    bulk_ratio: float
    ball_ratio: float
    surface_id: int | None
    doneness: Colour
    colour_top: Colour | None
    heat_steps: list[HeatStepUpdate] | None
    dressing: DressingUpdate | None
    docked: bool
    parts: list[PartUpdate]
    uneven_frac: float | None
    skin_min: float | None
    note: str


class PartRead(Shape):
    """A further bread of a dough on the heat; null and a fault where it cannot be."""

    name: str
    fire: FireRead | None
    fault: str


class BakeRead(Shape):
    """A bake with every leaf computed. A leaf that cannot be is null, and `faults` says why."""

    clock: ClockRead
    id: int
    kitchen_id: int
    name: str
    seal: str
    status: str
    method: str
    method_why: str
    revision: int
    serve_at: dt.datetime
    serve_until: dt.datetime | None
    settings: BakeSettings
    leaf: str
    leaves: list[LeafRead]
    steps: list[StepRead]
    say: list[SayPart]
    fits: bool
    taps: list[TapRead]
    weigh: WeighRead | None
    mix: MixRead | None
    rise: RiseRead | None
    rest: RestRead | None
    fire: FireRead | None
    parts: list[PartRead]
    keep: KeepRead
    faults: dict[str, str]
