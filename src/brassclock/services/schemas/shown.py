"""What the application's own doors show: bakes with every leaf computed, the Bench, the live hearth, kitchens."""

from __future__ import annotations

import datetime as dt
from typing import Any, Literal

from brassclock.services.schemas.base import CautionOut as CautionOut
from brassclock.services.schemas.base import ClockOut as ClockOut
from brassclock.services.schemas.base import Shape, StepOut
from brassclock.services.schemas.base import WhyOut as WhyOut
from brassclock.services.schemas.day import SpanOut
from brassclock.services.schemas.fire import FireOut, SurfaceOut, TapOut
from brassclock.services.schemas.given import FillingIn, LineIn
from brassclock.services.schemas.rise import FeedWishOut as FeedWishOut
from brassclock.services.schemas.rise import PlaceOut as PlaceOut
from brassclock.services.schemas.rise import RescueOption as RescueOption
from brassclock.services.schemas.rise import RescueOut as RescueOut
from brassclock.services.schemas.rise import RestOut, RiseOut, SpellOut, StrengthOut
from brassclock.services.schemas.rise import StarterOut as StarterOut


class SayPart(Shape):
    """A piece of the say-line: plain text, an instant (`at`), a countdown to one (`until`), or a figure."""

    kind: Literal["text", "at", "until", "figure"]
    text: str = ""
    at: dt.datetime | None = None


class BagOut(Shape):
    """A bag of flour; `thirst_frac` is water it took over the table's, over `times` kept bakes."""

    id: int
    name: str
    ingredient: str
    thirst_frac: float
    times: int


class KitchenOut(Shape):
    id: int
    name: str
    demo: bool
    zone: str
    altitude_m: float
    mass_unit: str
    temp_unit: str
    hourly_c: list[float]
    cooks: int
    shelf_l: float
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
    places: list[PlaceOut]
    leavens: list[StrengthOut]
    surfaces: list[SurfaceOut]


class LeafOut(Shape):
    leaf: Literal["weigh", "mix", "rise", "fire", "keep"]
    state: Literal["done", "now", "later"]


class BakeBrief(Shape):
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
    fits: bool
    note: str


class BrokenOut(Shape):
    """A bake that cannot be computed: which, why, and what can be done."""

    bake_id: int
    name: str
    text: str


class LogbookOut(Shape):
    """Bakes that were kept or abandoned, latest table first: a page of them, how many there are, and whether more follow."""

    bakes: list[BakeBrief]
    count: int
    more: bool
    broken: list[BrokenOut]


class BenchOut(Shape):
    """The start screen: what is alive and the latest that was kept, the next hand moves, the kitchen's readings."""

    broken: list[BrokenOut]
    clock: ClockOut
    kitchen: KitchenOut
    room_c: float
    bakes: list[BakeBrief]
    steps: list[StepOut]
    say: list[SayPart]
    away: list[SpanOut]


class LineOut(Shape):
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


class BeamWeight(Shape):
    """What an ingredient lays on the beam."""

    name: str
    side: Literal["soda", "acid"]
    mmol: float
    flour: bool


class CureOut(Shape):
    """One press that levels the beam."""

    kind: Literal["less_soda", "more_acid", "swap_to_powder", "more_soda"]
    ingredient: str
    change_g: float
    text: str


class SodaOut(Shape):
    """Soda against acid."""

    excess_g_per_100g_flour: float
    verdict: str
    effect: str
    soda_mmol: float
    acid_mmol: float
    gas_ml_per_100g_flour: float
    weights: list[BeamWeight]
    cures: list[CureOut]


class LeavenOut(Shape):
    """A leaven taken apart: grams of each part by name."""

    ingredient: str
    name: str
    grams: float
    parts: dict[str, float]


class SwapOut(Shape):
    ingredient: str
    name: str
    grams: float
    advice: str


class FeelOut(Shape):
    word: str
    means: str


class FillingOut(Shape):
    lines: list[LineOut]
    per_piece_g: float
    total_g: float
    to_dough_frac: float


class WeighOut(Shape):
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


class EntryLineOut(Shape):
    """A line of a list: read, or with what could not be."""

    raw: str
    ingredient: str | None
    amount: str | None
    basis: str | None
    faults: list[str]
    near: list[str]
    note: str


class EntryOut(Shape):
    lines: list[EntryLineOut]


class DoseWay(Shape):
    text: str
    grams: float
    at: dt.datetime | None


class DoseOut(Shape):
    """The yeast for the time there is."""

    leaven: str
    baker_frac: float | None
    mass_g: float | None
    reason: str
    mix_at: dt.datetime
    ready_at: dt.datetime
    ways: list[DoseWay]


class HandfulOut(Shape):
    """What to do about a feel."""

    add: str | None
    grams: float
    rest_min: float
    text: str


class AdditionOut(Shape):
    ingredient: str
    amount: str
    at: dt.datetime


class ImportOut(Shape):
    """What came of an import: the bake, and what could not be used."""

    bake_id: int
    kind: str
    read: int
    unread: list[str]
    notes: list[str]


class GuideStepOut(Shape):
    text: str
    minutes: float


class OtherOut(Shape):
    ingredient: str
    name: str
    temp_c: float


class PartOut(Shape):
    """A part of the bowl and the temperature it goes in at."""

    ingredient: str
    name: str
    grams: float
    temp_c: float
    liquid: bool
    given: bool


class HeatRow(Shape):
    name: str
    joules: float


class MixOut(Shape):
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


class OutcomeOut(Shape):
    round_no: int
    pocket: str | None
    colour: str | None


class FactOut(Shape):
    """Forecast beside fact. `place` is 0 at p10 and 1 at p90."""

    name: str
    unit: str
    said: float | None
    p10: float | None
    p90: float | None
    was: float | None
    place: float | None
    inside: bool | None


class KeepOut(Shape):
    outcomes: list[OutcomeOut]
    facts: list[FactOut]
    activity_before: float
    activity_after: float


class BakeSettings(Shape):
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
    spells: list[SpellOut]
    bulk_h: float | None
    ball_h: float | None
    bulk_place: str
    ball_place: str
    bulk_air: list[list[float]] | None
    ball_air: list[list[float]] | None
    cold: dict[str, Any] | None
    sponge_h: float | None
    starter_id: int | None
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
    colour_top: str | None
    heat_steps: list[dict[str, Any]] | None
    dressing: dict[str, Any] | None
    docked: bool
    uneven_frac: float | None
    skin_min: float | None
    note: str


class BakeOut(Shape):
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
    serve_until: dt.datetime | None
    settings: BakeSettings
    leaf: str
    leaves: list[LeafOut]
    steps: list[StepOut]
    say: list[SayPart]
    fits: bool
    taps: list[TapOut]
    weigh: WeighOut | None
    mix: MixOut | None
    rise: RiseOut | None
    rest: RestOut | None
    fire: FireOut | None
    keep: KeepOut
    faults: dict[str, str]


class MethodStageOut(Shape):
    name: str
    low_h: float
    high_h: float
    place: str
    ratio: float | None


class MethodOut(Shape):
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


class IngredientOut(Shape):
    id: str
    name: str
    group: str
    cup_g: float
    cup_low_g: float
    cup_high_g: float
    allergens: list[str]
    own: bool = False


class LockTimes(Shape):
    """How long changes held the database's write lock [ms]: of so many, the 95th percentile and the longest."""

    changes: int
    p95: float
    most: float


class Health(Shape):
    ok: bool
    version: str
    compiled: bool
    demo: bool
    lock_ms: LockTimes
