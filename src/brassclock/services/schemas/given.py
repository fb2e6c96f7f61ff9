"""What the application's own doors are given. Bad fields are all told at once."""

from __future__ import annotations

import datetime as dt
import math
import re
from typing import Annotated, Literal
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
    model_config = ConfigDict(extra="forbid", defer_build=True)


class Edit(Strict):
    """A change of a bake; `revision` is the one it was made on, left out: the newest."""

    revision: Annotated[int, Field(ge=0, le=2_147_483_647)] | None = None


class LineIn(Strict):
    """A line of a formula as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]
    basis: str | float | None = None
    part: Annotated[str, StringConstraints(max_length=20)] = ""


HeatSource = Literal["usual", "typed", "sign", "infrared", "contact", "first_bread", "habit", "oven", "oil"]


class SurfaceIn(Strict):
    """A surface: its kind, where it works and what says so (left out: its setting, and the kind's usual heat), what heats it (none: the
    kind's usual), and how bread meets it."""

    name: Name
    kind: Literal[
        "stone_oven", "steel_oven", "iron_plate", "skillet", "clay_wall", "inverted_plate", "lidded_pan", "flame_oven", "oil",
        "pan_then_grill", "oven_tray",
    ]  # fmt: skip
    temp_c: TempC | None = None
    source: HeatSource | None = None
    sd_k: Annotated[float, within(2, 60, "K")] | None = None
    size: Literal["home", "canteen"] = "home"
    power: Literal["low", "medium_low", "medium", "medium_high", "high"] = "medium_high"
    spots: Annotated[int, Field(ge=1, le=12)] = 1
    heat: Literal["gas", "ceramic", "charcoal", "electric"] | None = None
    greased: Literal["dry", "film", "pool"] = "dry"
    nonstick: bool = False


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
    if value in ("spooned", "level", "dipped") or (
        re.fullmatch(r"[0-9]{1,3}(\.[0-9]{0,3})?", value) and 20 <= float(value) <= 500
    ):
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
    allergens: Annotated[
        list[Literal["gluten", "milk", "egg", "nuts", "sesame", "coconut", "sulphites"]], Field(max_length=20)
    ] = []
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    holds: Annotated[list[Literal["meat", "fish", "egg", "dairy", "plant"]], Field(max_length=5)] | None = None


class BagIn(Strict):
    """A bag of flour."""

    name: Name
    ingredient: Annotated[str, StringConstraints(max_length=60)]


class AdditionIn(Strict):
    """Something put in beside the formula, as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]


class AddIn(AdditionIn, Edit):
    """Something put in beside the formula of a bake."""


class ScaleIn(Edit):
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


class BloomIn(Edit):
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


class StarterIn(Strict):
    """A starter to look after."""

    name: Name
    hydration_frac: Annotated[float, within(0.4, 1.5, "")] = 1.0
    whole_share: Annotated[float, within(0, 1, "")] = 0.0


class FeedIn(Strict):
    """A feed as it was given; `at`: now when left out, or as typed."""

    seed_g: Annotated[float, within(1, 20_000, "g")]
    flour_g: Annotated[float, within(1, 20_000, "g")]
    water_g: Annotated[float, within(1, 20_000, "g")]
    place: Literal["bench", "fridge"] = "bench"
    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class PeakIn(Strict):
    """When the starter stood highest; now when left out."""

    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class FeedWishIn(Strict):
    """So much starter at its peak by a moment."""

    total_g: Annotated[float, within(10, 20_000, "g")]
    peak_at: Annotated[str, StringConstraints(max_length=80)]


class PlaceIn(Strict):
    """Settings of a place: its temperature or kelvin over the bench, its swing, a fridge's litres."""

    temp_c: Annotated[float, within(-2, 45, "C")] | None = None
    over_k: Annotated[float, within(-15, 25, "C")] | None = None
    swing_c: Annotated[float, within(0, 6, "C")] | None = None
    litres: Annotated[float, within(20, 5000, "L")] | None = None


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
    places: dict[str, PlaceIn] | None = None
    cooks: Annotated[int, Field(ge=1, le=20)] | None = None
    shelf_l: Annotated[float, within(1, 5000, "L")] | None = None

    @field_validator("hourly_c")
    @classmethod
    def _day_long(cls, value: list[float] | None) -> list[float] | None:
        if value is not None and len(value) != 24:
            raise ValueError(f"{len(value)} values are no day. Give 24, one an hour from midnight.")
        return value


class BakeIn(Strict):
    """A new bake: from a method, for a table."""

    kitchen_id: RowId
    method: Annotated[str, StringConstraints(max_length=60)] = "hatch-pita"
    serve: Annotated[str, StringConstraints(max_length=80)]
    name: Name | None = None


class FillingIn(Strict):
    """A stuffing or topping, and grams of it a piece."""

    lines: Annotated[list[LineIn], Field(max_length=30)]
    per_piece_g: Annotated[float, within(1, 1000, "g")] | None = None
    topping: bool = False


Colour = Literal["pale", "light", "golden", "charred"]


class HeatStepIn(Strict):
    """One step of a cook's own way through the heat: so many seconds, or until something is seen."""

    do: Literal["face_a", "face_b", "cover", "uncover", "edge", "grill", "rotate", "spray", "top", "finish_oven"]
    seconds: Annotated[float, within(1, 3600, "s")] | None = None
    until: Literal["golden", "puffed", "bubbles", "cue"] | None = None
    oven_c: Annotated[float, within(80, 350, "C")] | None = None


class DressingIn(Strict):
    """What goes on a bread outside its dough: grams of it a piece, and when."""

    kind: Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
    mass_g: Annotated[float, within(0.1, 500, "g")]
    when: Literal["before", "after_turn", "after_heat"] = "after_heat"


PlaceKey = Literal["bench", "warm_spot", "oven_light", "proof_box", "cellar", "fridge"]


def _rising_hours(path: list[tuple[float, float]]) -> list[tuple[float, float]]:
    hours = [h for h, _ in path]
    if any(not math.isfinite(v) for point in path for v in point) or hours != sorted(set(hours)) or hours[0] < 0:
        raise ValueError("Hours of a path are from 0 on and rise, as [[0, 21], [6, 18]].")
    if any(not -5 <= c <= 60 for _, c in path):
        raise ValueError("Air of -5 to 60 C can be believed. Mend the temperature.")
    return path


AirPath = Annotated[list[tuple[float, float]], Field(min_length=1, max_length=200), AfterValidator(_rising_hours)]


class ColdIn(Strict):
    """Hours in the fridge, begun so long into the bulk or the ball proof."""

    stage: Literal["bulk", "ball"]
    after_h: Annotated[float, within(0, 48, "h")] = 0.25
    hours: Annotated[float, within(0.25, 96, "h")]


class BakeChange(Edit):
    """Any part of a bake; what is left out stays."""

    name: Name | None = None
    serve: Annotated[str, StringConstraints(max_length=80)] | None = None
    serve_until: Annotated[str, StringConstraints(max_length=80)] | None = None
    lines: Annotated[list[LineIn], Field(max_length=60)] | None = None
    unread: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Field(max_length=60)] | None = None
    held: Annotated[dict[str, Annotated[float, within(0, 100_000, "g")]], Field(max_length=120)] | None = None
    filling: FillingIn | None = None
    weighed: Annotated[list[Annotated[int, Field(ge=0, le=120)]], Field(max_length=120)] | None = None
    bag_id: RowId | None = None
    solve_for: Annotated[str, StringConstraints(max_length=60)] | None = None
    bowl_g: Annotated[float, within(0, 20_000, "g")] | None = None
    bowl_material: Literal["steel", "glass", "ceramic", "plastic", "wood"] | None = None
    part_temps: Annotated[dict[str, TempC], Field(max_length=120)] | None = None
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
    bulk_place: PlaceKey | None = None
    ball_place: PlaceKey | None = None
    bulk_air: AirPath | None = None
    ball_air: AirPath | None = None
    cold: ColdIn | None = None
    sponge_h: Annotated[float, within(0.1, 48, "h")] | None = None
    starter_id: RowId | None = None
    bulk_ratio: Annotated[float, within(1.05, 4, "x")] | None = None
    ball_ratio: Annotated[float, within(1.05, 4, "x")] | None = None
    surface_id: RowId | None = None
    surface_c: TempC | None = None
    surface_source: HeatSource | None = None
    surface_sd_k: Annotated[float, within(2, 60, "K")] | None = None
    doneness: Colour | None = None
    colour_top: Colour | None = None
    heat_steps: Annotated[list[HeatStepIn], Field(min_length=1, max_length=12)] | None = None
    dressing: DressingIn | None = None
    docked: bool | None = None
    uneven_frac: Annotated[float, within(0, 1, "")] | None = None
    skin_min: Annotated[float, within(0, 120, "min")] | None = None
    note: Note | None = None


STEP_KINDS = ("weigh", "sponge", "mix", "ball", "cold_in", "cold_out", "preheat", "roll")
TapKind = Literal[
    "weigh",
    "sponge",
    "knead",
    "mix",
    "ball",
    "cold_in",
    "cold_out",
    "preheat",
    "roll",
    "load",
    "turn",
    "off",
    "bubbles",
    "browned",
    "puffed",
    "dark",
    "pale",
    "fell",
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


class RescueIn(Strict):
    """Guests so many minutes late; or, left out, a dough that is too fast."""

    late_min: Annotated[float, within(5, 600, "min")] | None = None


class SpellIn(Edit):
    """Put the dough elsewhere from now: at so many C, for so many minutes."""

    temp_c: Annotated[float, within(-2, 45, "C")]
    minutes: Annotated[float, within(5, 1440, "min")]


class WhatIfIn(Edit):
    """Changes to try: kelvin in the kitchen, leaven over what is typed, dough after mixing, the table, the fridge.

    `cold` null with `no_cold` true takes the fridge away; left out, the bake's own stays. `by` asks the chance to be ready
    by a moment as typed. `spell` puts a dough that is mixed elsewhere from now.
    """

    room_k: Annotated[float, within(-12, 12, "C")] = 0.0
    dose_factor: Annotated[float, within(0.02, 5, "x")] = 1.0
    dough_c: Annotated[float, within(5, 40, "C")] | None = None
    serve_at: dt.datetime | None = None
    cold: ColdIn | None = None
    no_cold: bool = False
    place: PlaceKey | None = None
    spell: SpellIn | None = None
    by: Annotated[str, StringConstraints(max_length=80)] | None = None


class RouteIn(Edit):
    """Take a named route."""

    key: Literal["room", "warm", "less", "night", "nights"]


class AirIn(Strict):
    """Air that was read in a place: one or many, each a moment as typed (or ISO) and C."""

    place: PlaceKey = "bench"
    points: Annotated[
        list[tuple[Annotated[str, StringConstraints(max_length=80)], float]], Field(min_length=1, max_length=2000)
    ]
    source: Literal["typed", "probe"] = "typed"


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
