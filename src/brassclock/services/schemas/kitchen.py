"""Shapes of the kitchen: its settings, surfaces, pantry, places, air, starters."""

import datetime as dt
import re
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, available_timezones

from pydantic import AfterValidator, Field, StringConstraints, field_validator

from brassclock.core.terms import (
    Fuel,
    Greased,
    HeatSource,
    MassUnit,
    PlaceKey,
    Powder,
    Power,
    SpoonSystem,
    SurfaceKind,
    SurfaceSize,
    TempUnit,
)
from brassclock.services.schemas.base import BandedAt, CautionRead, Shape, Strict
from brassclock.services.schemas.quantities import AirC, Name, RowId, TempC, within

FLOOR_PLACES = 12  # of the floor plan, two rows of six


class SurfaceUpdate(Strict):
    """A surface: its kind, where it works and what says so (left out: its setting, and the kind's usual heat), what
    heats it (none: the kind's usual), how bread meets it, whether a fan drives its oven's air, and where it lies on the
    floor plan (none: anywhere), counted by rows."""

    name: Name
    kind: SurfaceKind
    temp_c: TempC | None = None
    source: HeatSource | None = None
    sd_k: Annotated[float, within(2, 60, "K")] | None = None
    size: SurfaceSize = "home"
    power: Power = "medium_high"
    spots: Annotated[int, Field(ge=1, le=12)] = 1
    heat: Fuel | None = None
    greased: Greased = "dry"
    nonstick: bool = False
    fan: bool = False
    lies: Annotated[int, Field(ge=0, lt=FLOOR_PLACES)] | None = None


def _zone(value: str) -> str:
    if value not in available_timezones():
        raise ValueError(f"“{value[:40]}” is not a time zone. Give one like Europe/Zurich or UTC.")
    ZoneInfo(value)
    return value


class KitchenCreate(Strict):
    """A new kitchen."""

    name: Name = "My kitchen"
    zone: Annotated[str, AfterValidator(_zone)]
    room_c: AirC = 21.0
    altitude_m: Annotated[float, within(-400, 5000, "m")] = 0.0
    mass_unit: MassUnit = "g"
    temp_unit: TempUnit = "C"
    surface: SurfaceUpdate


def _basis(value: str) -> str:
    if value in ("spooned", "level", "dipped") or (
        re.fullmatch(r"[0-9]{1,3}(\.[0-9]{0,3})?", value) and 20 <= float(value) <= 500
    ):
        return value
    raise ValueError(f"“{value[:30]}” fills no cup. Give spooned, level, dipped or grams from 20 to 500, as 140.")


class OwnIngredientCreate(Strict):
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
    allergens: Annotated[
        list[Literal["gluten", "milk", "egg", "nuts", "sesame", "soya", "coconut", "sulphites"]], Field(max_length=20)
    ] = []
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    holds: Annotated[list[Literal["meat", "fish", "egg", "dairy", "plant"]], Field(max_length=5)] | None = None


class BagUpdate(Strict):
    """A bag of flour."""

    name: Name
    ingredient: Annotated[str, StringConstraints(max_length=60)]


class StarterCreate(Strict):
    """A starter to look after."""

    name: Name
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    whole_share: Annotated[float, within(0, 1, "")] = 0.0


class FeedCreate(Strict):
    """A feed as it was given; `at`: now when left out, or as typed."""

    seed_g: Annotated[float, within(1, 20_000, "g")]
    flour_g: Annotated[float, within(1, 20_000, "g")]
    water_g: Annotated[float, within(1, 20_000, "g")]
    place: Literal["bench", "fridge"] = "bench"
    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class PeakCreate(Strict):
    """Instant at which the starter stood highest; now when left out."""

    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class FeedPlanUpdate(Strict):
    """So much starter at its peak by a moment."""

    total_g: Annotated[float, within(10, 20_000, "g")]
    peak_at: Annotated[str, StringConstraints(max_length=80)]


class PlaceUpdate(Strict):
    """Settings of a place: its temperature or kelvin over the bench, its swing, a fridge's litres."""

    temp_c: Annotated[float, within(-2, 45, "C")] | None = None
    over_k: Annotated[float, within(-15, 25, "C")] | None = None
    swing_c: Annotated[float, within(0, 6, "C")] | None = None
    litres: Annotated[float, within(20, 5000, "L")] | None = None


class KitchenUpdate(Strict):
    name: Name | None = None
    zone: Annotated[str, AfterValidator(_zone)] | None = None
    altitude_m: Annotated[float, within(-400, 5000, "m")] | None = None
    mass_unit: MassUnit | None = None
    temp_unit: TempUnit | None = None
    hourly_c: list[AirC] | None = None
    hour_c: Annotated[dict[Annotated[int, Field(ge=0, le=23)], AirC], Field(max_length=24)] | None = (
        None  # these hours alone
    )
    tap_c: Annotated[float, within(0.5, 40, "C")] | None = None
    fridge_c: Annotated[float, within(-2, 12, "C")] | None = None
    flour_basis: Annotated[str, AfterValidator(_basis)] | None = None
    spoons: SpoonSystem | None = None
    cup_ml: Annotated[float, within(50, 600, "ml")] | None = None
    tbsp_ml: Annotated[float, within(5, 40, "ml")] | None = None
    tsp_ml: Annotated[float, within(1, 15, "ml")] | None = None
    scale_step_g: Annotated[float, within(0.01, 5, "g")] | None = None
    powder: Powder | None = None
    places: dict[str, PlaceUpdate] | None = None
    cooks: Annotated[int, Field(ge=1, le=20)] | None = None
    shelf_l: Annotated[float, within(1, 5000, "L")] | None = None

    @field_validator("hourly_c")
    @classmethod
    def _day_long(cls, value: list[float] | None) -> list[float] | None:
        if value is not None and len(value) != 24:
            raise ValueError(f"{len(value)} values are no day. Give 24, one an hour from midnight.")
        return value


class AirReadingCreate(Strict):
    """Air that was read in a place: one or many, each a moment as typed (or ISO) and C."""

    place: PlaceKey = "bench"
    points: Annotated[
        list[tuple[Annotated[str, StringConstraints(max_length=80)], float]], Field(min_length=1, max_length=2000)
    ]
    source: Literal["typed", "probe"] = "typed"


class ClockUpdate(Strict):
    kitchen_id: RowId
    rate: float | None = None
    jump: Literal["next_move"] | None = None


class BagRead(Shape):
    """A bag of flour; `thirst_frac` is water it took over the table's, over `times` kept bakes."""

    id: int
    name: str
    ingredient: str
    thirst_frac: float
    times: int


class KitchenRead(Shape):
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
    cup_ml: float | None
    tbsp_ml: float | None
    tsp_ml: float | None
    scale_step_g: float
    powder: str
    friction: dict[str, list[float]]
    bags: list[BagRead]
    activity_mean: float
    activity_sd_log: float
    places: list["PlaceRead"]
    leavens: list["StrengthRead"]
    surfaces: list["SurfaceRead"]


class IngredientRead(Shape):
    id: str
    name: str
    group: str
    cup_g: float
    cup_low_g: float
    cup_high_g: float
    allergens: list[str]
    own: bool = False


class FeedRead(Shape):
    """A feed that was given: what, when, and when it stood highest if that was seen."""

    id: int
    seed_g: float
    flour_g: float
    water_g: float
    place: str
    at: dt.datetime
    peaked_at: dt.datetime | None


class JarTrace(Shape):
    """A starter's height over its start since its last feed, as a band."""

    at: list[dt.datetime]
    ratio: list[float]
    low: list[float]
    high: list[float]


class MealRead(Shape):
    """A feed so many hours before the starter is wanted."""

    before_h: float
    seed_g: float
    flour_g: float
    water_g: float


class UpkeepWay(Shape):
    """A way of keeping a starter, and what it takes and throws away in a week [g of flour]."""

    place: str
    text: str
    flour_g_week: float
    waste_g_week: float
    meals: list[MealRead]


class UpkeepRead(Shape):
    ways: list[UpkeepWay]


class StarterRead(Shape):
    """A starter: how it stands, when it peaks and how long it holds, what it has been fed."""

    id: int
    name: str
    hydration_frac: float
    whole_share: float
    vitality: float
    vitality_sd_log: float
    state: Literal["unfed", "rising", "at its peak", "past its peak", "cold"]
    ratio_now: float | None
    peak_ratio: float | None
    peak_at: BandedAt | None
    hold_until: dt.datetime | None
    acid_word: str | None
    next_feed_at: dt.datetime | None
    trace: JarTrace | None
    feeds: list[FeedRead]


class FeedPlanRead(Shape):
    """The feed that peaks when it is wanted, given now."""

    seed_g: float
    flour_g: float
    water_g: float
    peak_at: dt.datetime
    text: str


class StrengthRead(Shape):
    """Belief of a kitchen about a leaven: its strength over the table's, the spread, the bakes behind it."""

    leaven: str
    name: str
    mean: float
    sd_log: float
    bakes: int


class PlaceRead(Shape):
    """A place of a kitchen: a temperature of its own or kelvin over the bench; how far it swings; litres of a
    fridge."""

    key: PlaceKey
    name: str
    temp_c: float | None
    over_k: float
    swing_c: float
    litres: float | None
    now_c: float


class AirReadingRead(Shape):
    id: int
    place: str
    value: float
    at: dt.datetime


class AirRead(Shape):
    """Recent readings of a kitchen's air, newest first, and doubts about them."""

    readings: list[AirReadingRead]
    taken: int
    skipped: list[str]
    cautions: list[CautionRead]


class LearnedHeatRead(Shape):
    """The evidence of a surface from its breads, set to `set_c` [C]: kelvins over that, their spread, the browning rate
    on it over the table's, and how many bakes at that setting say so."""

    set_c: float
    shift_k: float
    sd_k: float
    browns: float
    here: float


class HeatBandRead(Shape):
    """A believed heat [C]."""

    p10_c: float
    p50_c: float
    p90_c: float


class SurfaceRead(Shape):
    id: int
    name: str
    kind: SurfaceKind
    temp_c: float
    power: Power
    spots: int
    heat: Fuel | None
    greased: Greased
    nonstick: bool
    source: HeatSource = "typed"
    sd_k: float | None = None
    size: SurfaceSize = "home"
    fan: bool
    lies: int | None = None
    told: HeatBandRead
    believed: HeatBandRead
    learned: LearnedHeatRead | None = None
