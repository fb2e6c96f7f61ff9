"""The shapes that come in and go out of the application's own doors. Bad fields are all told at once."""

from __future__ import annotations

import datetime as dt
import math
from typing import Annotated, Any, Literal
from zoneinfo import ZoneInfo, available_timezones

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, StringConstraints, ValidationInfo, field_validator

MAX_NOTE = 20_000


def _finite(value: float) -> float:
    if not math.isfinite(value):
        raise ValueError("This must be a plain number, not NaN or infinite.")
    return value


def within(low: float, high: float, unit: str) -> AfterValidator:
    """For `Annotated`: a finite number between low and high; the error names both and what was given."""

    def check(value: float) -> float:
        _finite(value)
        if not low <= value <= high:
            raise ValueError(f"{value:g} {unit} cannot be. Give {low:g} to {high:g} {unit}.".replace("  ", " "))
        return value

    return AfterValidator(check)


TempC = Annotated[float, within(-30, 600, "C")]
AirC = Annotated[float, within(-30, 60, "C")]
PieceG = Annotated[float, within(5, 5000, "g")]
SizeCm = Annotated[float, within(3, 120, "cm")]
ThickMm = Annotated[float, within(0.5, 60, "mm")]
RowId = Annotated[int, Field(ge=1, le=2_147_483_647)]
Small = Annotated[int, Field(ge=1, le=500)]
Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]
Note = Annotated[str, StringConstraints(max_length=MAX_NOTE)]
Key = Annotated[str, StringConstraints(min_length=4, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")]


class Strict(BaseModel):
    model_config = ConfigDict(extra="forbid")


class LineIn(Strict):
    """A line of a formula as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]
    basis: str | float | None = None
    part: Annotated[str, StringConstraints(max_length=20)] = ""


class SurfaceIn(Strict):
    name: Name
    kind: Literal["stone_oven", "steel_oven", "iron_plate", "skillet"]
    temp_c: TempC = 250.0
    power: Literal["low", "medium", "medium_high", "high"] = "medium_high"
    spots: Annotated[int, Field(ge=1, le=2)] = 1


def _zone(value: str) -> str:
    if value not in available_timezones():
        raise ValueError(f"“{value[:40]}” is not a time zone. Give one like Europe/Zurich or UTC.")
    ZoneInfo(value)
    return value


class KitchenIn(Strict):
    """What a new kitchen is asked."""

    name: Name = "My kitchen"
    zone: Annotated[str, AfterValidator(_zone)]
    room_c: AirC = 21.0
    altitude_m: Annotated[float, within(-400, 5000, "m")] = 0.0
    mass_unit: Literal["g", "oz"] = "g"
    temp_unit: Literal["C", "F"] = "C"
    surface: SurfaceIn


def _basis(value: str) -> str:
    if value in ("spooned", "level", "dipped") or (value.replace(".", "", 1).isdigit() and 20 <= float(value) <= 500):
        return value
    raise ValueError(f"“{value[:30]}” fills no cup. Give spooned, level, dipped or grams from 20 to 500, as 140.")


class OwnIngredientIn(Strict):
    """An ingredient of the kitchen's own: percent by mass and grams of a US cup; or a starter and its hydration."""

    name: Name
    kind: Literal["made", "starter"] = "made"
    group: Literal["flour", "liquid", "fat", "sugar", "salt", "leaven", "seed", "filling"] = "flour"
    water_pct: Annotated[float, within(0, 100, "%")] = 0.0
    fat_pct: Annotated[float, within(0, 100, "%")] = 0.0
    sugar_pct: Annotated[float, within(0, 100, "%")] = 0.0
    protein_pct: Annotated[float, within(0, 100, "%")] = 0.0
    salt_pct: Annotated[float, within(0, 100, "%")] = 0.0
    acid_pct: Annotated[float, within(0, 100, "%")] = 0.0
    cup_g: Annotated[float, within(20, 500, "g")] = 125.0
    absorption_pts: Annotated[float, within(-20, 40, "points")] = 0.0
    allergens: list[Literal["gluten", "milk", "egg", "nuts", "sesame", "coconut", "sulphites"]] = []
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0


class BagIn(Strict):
    """A bag of flour."""

    name: Name
    ingredient: Annotated[str, StringConstraints(max_length=60)]


class AdditionIn(Strict):
    """Something put in beside the formula, as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]


class ScaleIn(Strict):
    """What to scale a bake to: pieces, flour, what runs out, or what fits on the surface at once."""

    count: Annotated[int, Field(ge=1, le=500)] | None = None
    mass_g: PieceG | None = None
    flour_g: Annotated[float, within(1, 100_000, "g")] | None = None
    limits: Annotated[list[AdditionIn], Field(max_length=20)] = []
    tray_width_cm: Annotated[float, within(10, 300, "cm")] | None = None
    tray_depth_cm: Annotated[float, within(10, 300, "cm")] | None = None
    loads: Annotated[int, Field(ge=1, le=60)] = 1


class DoseIn(Strict):
    """The yeast for the time there is: which, and when it should have risen."""

    leaven: Annotated[str, StringConstraints(max_length=60)] = "yeast_instant"
    ready_at: Annotated[str, StringConstraints(max_length=80)]


class BloomIn(Strict):
    """Minutes until the yeast foamed; null when it did not within 15."""

    minutes: Annotated[float, within(1, 60, "min")] | None


class FeelIn(Strict):
    feel: Literal["sticky", "stiff", "tears", "springs_back"]


class EntryIn(Strict):
    """A whole ingredient list as text."""

    text: Annotated[str, StringConstraints(max_length=20_000)]


class ImportIn(Strict):
    """A file's text: bake file, JSON-LD recipe (or a saved page with one), Markdown or CSV."""

    text: Annotated[str, StringConstraints(max_length=2_000_000)]
    serve: Annotated[str, StringConstraints(max_length=80)] = "in 5 h"


class MethodIn(Strict):
    """Keep a bake as a method of the kitchen's own."""

    bake_id: RowId
    name: Name


class KitchenChange(Strict):
    name: Name | None = None
    zone: Annotated[str, AfterValidator(_zone)] | None = None
    altitude_m: Annotated[float, within(-400, 5000, "m")] | None = None
    mass_unit: Literal["g", "oz"] | None = None
    temp_unit: Literal["C", "F"] | None = None
    hourly_c: list[AirC] | None = None
    tap_c: Annotated[float, within(0.5, 40, "C")] | None = None
    fridge_c: Annotated[float, within(-2, 12, "C")] | None = None
    flour_basis: Annotated[str, AfterValidator(_basis)] | None = None
    spoons: Literal["us", "metric"] | None = None
    scale_step_g: Annotated[float, within(0.01, 5, "g")] | None = None
    powder: Literal["double", "single", "phosphate"] | None = None

    @field_validator("hourly_c")
    @classmethod
    def _day_long(cls, value: list[float] | None) -> list[float] | None:
        if value is not None and len(value) != 24:
            raise ValueError(f"{len(value)} values are no day. Give 24, one an hour from midnight.")
        return value


class BakeIn(Strict):
    """A new bake: from a method, for a table."""

    kitchen_id: RowId
    method: str = "hatch-pita"
    serve: Annotated[str, StringConstraints(max_length=80)]
    name: Name | None = None


class FillingIn(Strict):
    """A stuffing or topping, and grams of it a piece."""

    lines: Annotated[list[LineIn], Field(max_length=30)]
    per_piece_g: Annotated[float, within(1, 1000, "g")] | None = None
    topping: bool = False


class BakeChange(Strict):
    """Any part of a bake; what is left out stays."""

    name: Name | None = None
    serve: Annotated[str, StringConstraints(max_length=80)] | None = None
    lines: Annotated[list[LineIn], Field(max_length=60)] | None = None
    unread: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Field(max_length=60)] | None = None
    held: dict[str, Annotated[float, within(0, 100_000, "g")]] | None = None
    filling: FillingIn | None = None
    weighed: Annotated[list[Annotated[int, Field(ge=0, le=120)]], Field(max_length=120)] | None = None
    bag_id: RowId | None = None
    solve_for: Annotated[str, StringConstraints(max_length=60)] | None = None
    bowl_g: Annotated[float, within(0, 20_000, "g")] | None = None
    bowl_material: Literal["steel", "glass", "ceramic", "plastic", "wood"] | None = None
    part_temps: dict[str, TempC] | None = None
    strength: Literal["developed", "kneaded", "enriched", "wet_unkneaded", "wholemeal"] | None = None
    bloomed: bool | None = None
    count: Annotated[int, Field(ge=1, le=500)] | None = None
    piece_g: PieceG | None = None
    shape: Literal["round", "oval", "quarter"] | None = None
    diameter_cm: SizeCm | None = None
    length_cm: SizeCm | None = None
    width_cm: SizeCm | None = None
    thickness_mm: ThickMm | None = None
    dough_c: Annotated[float, within(5, 40, "C")] | None = None
    knead: Literal["hand", "no_knead", "planetary", "spiral", "processor", "none"] | None = None
    knead_min: Annotated[float, within(0, 60, "min")] | None = None
    flour_c: AirC | None = None
    bulk_ratio: Annotated[float, within(1.05, 4, "x")] | None = None
    ball_ratio: Annotated[float, within(1.05, 4, "x")] | None = None
    surface_id: RowId | None = None
    surface_c: TempC | None = None
    doneness: Literal["pale", "golden", "charred"] | None = None
    docked: bool | None = None
    uneven_frac: Annotated[float, within(0, 1, "")] | None = None
    skin_min: Annotated[float, within(0, 120, "min")] | None = None
    note: Note | None = None


STEP_KINDS = ("weigh", "mix", "ball", "preheat", "roll")
TapKind = Literal[
    "weigh", "knead", "mix", "ball", "preheat", "roll", "load", "turn", "off", "bubbles", "browned", "puffed"
]


class TapIn(Strict):
    """A tap. `key` is made by the client: sent twice, it counts once. `at`: now when left out, or as typed."""

    key: Key
    kind: TapKind
    round_no: Small | None = None
    spot: Small | None = None
    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class TapChange(Strict):
    at: Annotated[str, StringConstraints(max_length=80)]


class ReadingIn(Strict):
    bake_id: RowId
    kind: Literal["ratio", "jar", "feel", "dough_c"]
    value: float | None = None
    feel: Literal["not_yet", "just", "past"] | None = None
    at: Annotated[str, StringConstraints(max_length=80)] | None = None

    @field_validator("value")
    @classmethod
    def _believable(cls, value: float | None, info: ValidationInfo) -> float | None:
        if value is not None:
            low, high, unit = (-5, 60, "C") if info.data.get("kind") == "dough_c" else (0.8, 5, "x")
            if not (math.isfinite(value) and low <= value <= high):
                raise ValueError(f"{value:g} {unit} cannot be. Give {low:g} to {high:g} {unit}.")
        return value


class OutcomeIn(Strict):
    round_no: Annotated[int, Field(ge=1, le=500)]
    pocket: Literal["full", "part", "flat"] | None = None
    colour: Literal["pale", "right", "dark"] | None = None


class ClockIn(Strict):
    kitchen_id: RowId
    rate: float | None = None
    jump: Literal["next_move"] | None = None


# --- what goes out -------------------------------------------------------------------------------


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


class SayPart(BaseModel):
    """A piece of the say-line: plain text, an instant (`at`), a countdown to one (`until`), or a figure."""

    kind: Literal["text", "at", "until", "figure"]
    text: str = ""
    at: dt.datetime | None = None


class ClockOut(BaseModel):
    """Now in a kitchen, and how fast its clock runs."""

    now: dt.datetime
    rate: float
    simulated: bool


class SurfaceOut(BaseModel):
    id: int
    name: str
    kind: str
    temp_c: float
    power: str
    spots: int


class BagOut(BaseModel):
    """A bag of flour; `thirst_frac` is water it took over the table's, over `times` kept bakes."""

    id: int
    name: str
    ingredient: str
    thirst_frac: float
    times: int


class KitchenOut(BaseModel):
    id: int
    name: str
    demo: bool
    zone: str
    altitude_m: float
    mass_unit: str
    temp_unit: str
    hourly_c: list[float]
    fridge_c: float
    tap_c: float
    flour_basis: str | None
    spoons: str
    scale_step_g: float
    powder: str
    friction: dict[str, list[float]]
    bags: list[BagOut]
    activity_mean: float
    activity_sd_log: float
    surfaces: list[SurfaceOut]


class StepOut(BaseModel):
    """A hand move on the Rule and in the list."""

    bake_id: int
    bake: str
    seal: str
    key: str
    name: str
    at: dt.datetime
    can_wait_until: dt.datetime | None
    done_at: dt.datetime | None
    leaf: str


class LeafOut(BaseModel):
    leaf: Literal["weigh", "mix", "rise", "fire", "keep"]
    state: Literal["done", "now", "later"]


class BakeBrief(BaseModel):
    """A bake on the Bench and in the Logbook."""

    id: int
    name: str
    seal: str
    status: str
    method: str
    leaf: str
    leaves: list[LeafOut]
    count: int | None
    piece_g: float | None
    serve_at: dt.datetime
    kept_at: dt.datetime | None
    dough_c: float | None
    ratio: float | None
    target_ratio: float | None
    too_far_ratio: float | None
    weighed_g: float | None
    ready_at: dt.datetime | None
    full: int
    outcomes: int
    note: str


class BenchOut(BaseModel):
    """The start screen: what is alive, the next hand moves, the kitchen's readings."""

    clock: ClockOut
    kitchen: KitchenOut
    room_c: float
    bakes: list[BakeBrief]
    steps: list[StepOut]
    say: list[SayPart]


class LineOut(BaseModel):
    ingredient: str
    name: str
    typed: str
    basis: str
    grams: float
    low_g: float
    high_g: float
    baker_frac: float | None
    weighable_g: float
    rounding_frac: float
    water_g: float
    fat_g: float


class BeamWeight(BaseModel):
    """What an ingredient lays on the beam."""

    name: str
    side: Literal["soda", "acid"]
    mmol: float
    flour: bool


class CureOut(BaseModel):
    """One press that levels the beam."""

    kind: Literal["less_soda", "more_acid", "swap_to_powder", "more_soda"]
    ingredient: str
    change_g: float
    text: str


class SodaOut(BaseModel):
    """Soda against acid."""

    excess_g_per_100g_flour: float
    verdict: str
    effect: str
    soda_mmol: float
    acid_mmol: float
    gas_ml_per_100g_flour: float
    weights: list[BeamWeight]
    cures: list[CureOut]


class LeavenOut(BaseModel):
    """A leaven taken apart: grams of each part by name."""

    ingredient: str
    name: str
    grams: float
    parts: dict[str, float]


class SwapOut(BaseModel):
    ingredient: str
    name: str
    grams: float
    advice: str


class FeelOut(BaseModel):
    word: str
    means: str


class FillingOut(BaseModel):
    lines: list[LineOut]
    per_piece_g: float
    total_g: float
    to_dough_frac: float


class WeighOut(BaseModel):
    """The weigh sheet: contract fields, and what the Weigh leaf shows besides."""

    lines: list[LineOut]
    total_g: float
    flour_g: float
    factor: float
    hydration_frac: float | None
    hydration_low: float
    hydration_high: float
    effective_hydration_frac: float | None
    feel: FeelOut | None
    salt_frac: float | None
    pieces: dict[str, float] | None
    shape: dict[str, float] | None
    soda: SodaOut | None
    leavens: list[LeavenOut]
    swaps: dict[str, list[SwapOut]]
    filling: FillingOut | None
    contradictions: list[CautionOut]
    measurable: list[dict[str, Any]]
    whole: list[CautionOut]
    allergens: list[str]
    cautions: list[CautionOut]
    why: dict[str, WhyOut]


class EntryLineOut(BaseModel):
    """A line of a list: read, or with what could not be."""

    raw: str
    ingredient: str | None
    amount: str | None
    basis: str | None
    faults: list[str]
    near: list[str]
    note: str


class EntryOut(BaseModel):
    lines: list[EntryLineOut]


class DoseWay(BaseModel):
    text: str
    grams: float
    at: dt.datetime | None


class DoseOut(BaseModel):
    """The yeast for the time there is."""

    leaven: str
    baker_frac: float | None
    mass_g: float | None
    reason: str
    mix_at: dt.datetime
    ready_at: dt.datetime
    ways: list[DoseWay]


class HandfulOut(BaseModel):
    """What to do about a feel."""

    add: str | None
    grams: float
    rest_min: float
    text: str


class AdditionOut(BaseModel):
    ingredient: str
    amount: str
    at: dt.datetime


class ImportOut(BaseModel):
    """What came of an import: the bake, and what could not be used."""

    bake_id: int
    kind: str
    read: int
    unread: list[str]
    notes: list[str]


class GuideStepOut(BaseModel):
    text: str
    minutes: float


class OtherOut(BaseModel):
    ingredient: str
    name: str
    temp_c: float


class PartOut(BaseModel):
    """A part of the bowl and the temperature it goes in at."""

    ingredient: str
    name: str
    grams: float
    temp_c: float
    liquid: bool
    given: bool


class HeatRow(BaseModel):
    name: str
    joules: float


class MixOut(BaseModel):
    dough_temp_c: float
    target_c: float
    liquid: str
    liquid_name: str
    liquid_g: float
    liquid_temp_c: float | None
    wanted_liquid_c: float | None
    limit_c: float
    ice_g: float
    room_c: float
    flour_c: float
    contributions: list[HeatRow]
    rule_liquid_c: float | None
    rule_factor_c: float | None
    advice: str
    others: list[OtherOut]
    parts: list[PartOut]
    cue: str
    bloom: str
    bloom_said: str
    order: list[str]
    guide: list[GuideStepOut]
    tests: list[str]
    friction_factor: float
    friction_times: int
    seen_c: float | None
    cautions: list[CautionOut]
    why: dict[str, WhyOut]


class WindowOut(BaseModel):
    stage: str
    begins_at: dt.datetime
    target_ratio: float
    ready: BandedAt
    best_from: BandedAt
    best_to: BandedAt
    too_far: BandedAt


class TraceOut(BaseModel):
    at: list[dt.datetime]
    ratio: list[float]
    ratio_p10: list[float]
    ratio_p90: list[float]
    maturity: list[float]
    fill: list[float]
    dough_c: list[float]
    air_c: list[float]


class ReadingOut(BaseModel):
    id: int
    kind: str
    value: float | None
    feel: str | None
    at: dt.datetime


class RiseOut(BaseModel):
    mixed_at: dt.datetime
    balled_at: dt.datetime
    windows: list[WindowOut]
    trace: TraceOut
    ratio_now: float | None
    dough_c_now: float | None
    stage_now: str | None
    readings: list[ReadingOut]
    activity: float
    activity_sd_log: float
    late_min: float
    warm: bool
    cautions: list[CautionOut]
    why: dict[str, WhyOut]


class ReasonOut(BaseModel):
    factor: str
    points: float
    text: str


class MoveOut(BaseModel):
    """A move that is due, or planned."""

    move: str
    round_no: int
    spot: int
    at: dt.datetime


class ProgramOut(BaseModel):
    """The program of one bread, frozen once the first is loaded."""

    turn_s: float | None
    off_s: float
    recover_s: float
    puff_s: float | None
    bubbles_s: float | None
    brown_s: float | None


class CarpetOut(BaseModel):
    s: list[float]
    depth_mm: list[float]
    temp_c: list[list[float]]
    pocket: list[float]


class FireOut(BaseModel):
    surface: SurfaceOut | None
    surface_kind: str
    thickness_mm: float
    diameter_cm: float
    bread_c: float
    events: dict[str, Banded]
    program: ProgramOut
    score: float
    reasons: list[ReasonOut]
    moisture_loss_frac: float
    surface_after_c: float
    recovered: bool
    carpet: CarpetOut
    line: list[MoveOut]
    line_min: float
    bottleneck: str
    cycle_s: float
    cautions: list[CautionOut]
    why: dict[str, WhyOut]


class SpotOut(BaseModel):
    number: int
    state: str
    round_no: int | None
    side: str
    since: dt.datetime | None
    until: dt.datetime | None


class TapOut(BaseModel):
    id: int
    key: str
    kind: str
    round_no: int | None
    spot: int | None
    at: dt.datetime


class HearthOut(BaseModel):
    """The live hearth: everything the hands need, cheap to ask for."""

    clock: ClockOut
    bake_id: int
    name: str
    rounds: int
    started: bool
    finished: bool
    program: ProgramOut
    surface: SurfaceOut | None
    spots: list[SpotOut]
    due: list[MoveOut]
    waiting: list[int]
    off: list[int]
    taps: list[TapOut]
    last_off_at: dt.datetime | None


class OutcomeOut(BaseModel):
    round_no: int
    pocket: str | None
    colour: str | None


class FactOut(BaseModel):
    """Forecast beside fact. `place` is 0 at p10 and 1 at p90."""

    name: str
    unit: str
    said: float | None
    p10: float | None
    p90: float | None
    was: float | None
    place: float | None
    inside: bool | None


class KeepOut(BaseModel):
    outcomes: list[OutcomeOut]
    facts: list[FactOut]
    activity_before: float
    activity_after: float


class BakeSettings(BaseModel):
    """What the cook has set, as stored."""

    lines: list[LineIn]
    unread: list[str]
    held: dict[str, float]
    additions: list[AdditionOut]
    filling: FillingIn | None
    weighed: list[int]
    bag_id: int | None
    solve_for: str | None
    bowl_g: float
    bowl_material: str
    part_temps: dict[str, float]
    bloom_min: float | None
    activity_factor: float | None
    bulk_h: float | None
    ball_h: float | None
    strength: str
    bloomed: bool
    count: int | None
    piece_g: float | None
    shape: str
    diameter_cm: float | None
    length_cm: float | None
    width_cm: float | None
    thickness_mm: float | None
    dough_c: float
    knead: str
    knead_min: float
    flour_c: float | None
    bulk_ratio: float
    ball_ratio: float
    surface_id: int | None
    doneness: str
    docked: bool
    uneven_frac: float | None
    skin_min: float | None
    note: str


class BakeOut(BaseModel):
    """A bake with every leaf computed. A leaf that cannot be is null, and `faults` says why."""

    clock: ClockOut
    id: int
    kitchen_id: int
    name: str
    seal: str
    status: str
    method: str
    method_why: str
    revision: int
    serve_at: dt.datetime
    settings: BakeSettings
    leaf: str
    leaves: list[LeafOut]
    steps: list[StepOut]
    say: list[SayPart]
    taps: list[TapOut]
    weigh: WeighOut | None
    mix: MixOut | None
    rise: RiseOut | None
    fire: FireOut | None
    keep: KeepOut
    faults: dict[str, str]


class MethodStageOut(BaseModel):
    name: str
    low_h: float
    high_h: float
    place: str
    ratio: float | None


class MethodOut(BaseModel):
    """A method, with what is compared before one is chosen."""

    id: str
    name: str
    school: str
    wants: list[str]
    why: str
    own: bool
    count: int
    piece_g: float
    shape: str
    diameter_cm: float | None
    length_cm: float | None
    width_cm: float | None
    seal: str
    ingredients: list[str]
    leavens: list[str]
    hydration_frac: float | None
    stages: list[MethodStageOut]
    low_h: float
    high_h: float
    hands_min: float
    surfaces: list[str]
    shaping: list[str]
    program: str
    hold: str
    cautions: list[CautionOut]
    allergens: list[str]
    soda: str


class IngredientOut(BaseModel):
    id: str
    name: str
    group: str
    cup_g: float
    cup_low_g: float
    cup_high_g: float
    allergens: list[str]
    own: bool = False


class Health(BaseModel):
    ok: bool
    version: str
    compiled: bool
    demo: bool
