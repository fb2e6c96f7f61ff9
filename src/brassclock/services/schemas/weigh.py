"""Shapes of the Weigh leaf: lines, fillings, the sheet, methods, lists read."""

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field, StringConstraints

from brassclock.services.schemas.base import CautionRead, Edit, Shape, Strict, WhyRead
from brassclock.services.schemas.quantities import Name, PieceG, RowId, within


class FormulaLineCreate(Strict):
    """A line of a formula as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]
    basis: str | float | None = None
    part: Annotated[str, StringConstraints(max_length=20)] = ""


class AdditionCreate(Strict):
    """Something put in beside the formula, as typed."""

    ingredient: Annotated[str, StringConstraints(max_length=60)]
    amount: Annotated[str, StringConstraints(max_length=80)]


class AddCreate(AdditionCreate, Edit):
    """Something put in beside the formula of a bake."""


class ScaleUpdate(Edit):
    """Target of a bake's scaling: pieces, flour, what runs out, or what fits on the surface at once."""

    count: Annotated[int, Field(ge=1, le=500)] | None = None
    mass_g: PieceG | None = None
    flour_g: Annotated[float, within(1, 100_000, "g")] | None = None
    limits: Annotated[list[AdditionCreate], Field(max_length=20)] = []
    tray_width_cm: Annotated[float, within(10, 300, "cm")] | None = None
    tray_depth_cm: Annotated[float, within(10, 300, "cm")] | None = None
    loads: Annotated[int, Field(ge=1, le=60)] = 1


class DoseUpdate(Strict):
    """The yeast for the time there is: which, and when it should have risen."""

    leaven: Annotated[str, StringConstraints(max_length=60)] = "yeast_instant"
    ready_at: Annotated[str, StringConstraints(max_length=80)]


class FeelUpdate(Strict):
    feel: Literal["sticky", "stiff", "tears", "springs_back"]


class EntryRequest(Strict):
    """A whole ingredient list as text."""

    text: Annotated[str, StringConstraints(max_length=20_000)]


class ImportRequest(Strict):
    """A file's text: bake file, JSON-LD recipe (or a saved page with one), Markdown or CSV. `kept` brings a bake file
    into the logbook with what became of it, else it is planned for the table."""

    text: Annotated[str, StringConstraints(max_length=16_000_000)]
    serve: Annotated[str, StringConstraints(max_length=80)] = "in 5 h"
    kept: bool = False


class MethodCreate(Strict):
    """Keep a bake as a method of the kitchen's own."""

    bake_id: RowId
    name: Name


class FillingUpdate(Strict):
    """A stuffing or topping, and grams of it a piece."""

    lines: Annotated[list[FormulaLineCreate], Field(max_length=30)]
    per_piece_g: Annotated[float, within(1, 1000, "g")] | None = None
    topping: bool = False


class FormulaLineRead(Shape):
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
    """Weight of an ingredient on the beam."""

    name: str
    side: Literal["soda", "acid"]
    mmol: float
    flour: bool


class CureRead(Shape):
    """One press that levels the beam."""

    kind: Literal["less_soda", "more_acid", "swap_to_powder", "more_soda"]
    ingredient: str
    change_g: float
    text: str


class SodaRead(Shape):
    """Soda against acid."""

    excess_g_per_100g_flour: float
    verdict: str
    effect: str
    soda_mmol: float
    acid_mmol: float
    gas_ml_per_100g_flour: float
    weights: list[BeamWeight]
    cures: list[CureRead]


class LeavenRead(Shape):
    """A leaven taken apart: grams of each part by name."""

    ingredient: str
    name: str
    grams: float
    parts: dict[str, float]


class SwapRead(Shape):
    ingredient: str
    name: str
    grams: float
    advice: str


class FlourSwapRead(Shape):
    """Self-raising flour for plain flour and powder, or back: grams of each then, and the gas before and then [mL per
    100 g flour]."""

    text: str
    grams: dict[str, float]
    gas_ml: float
    gas_then_ml: float


class FeelRead(Shape):
    word: str
    means: str


class FillingRead(Shape):
    lines: list[FormulaLineRead]
    per_piece_g: float
    total_g: float
    to_dough_frac: float


class WeighRead(Shape):
    """The weigh sheet: contract fields, and what the Weigh leaf shows besides."""

    lines: list[FormulaLineRead]
    total_g: float
    flour_g: float
    factor: float
    hydration_frac: float | None
    hydration_low: float
    hydration_high: float
    effective_hydration_frac: float | None
    feel: FeelRead | None
    salt_frac: float | None
    pieces: dict[str, float] | None
    shape: dict[str, float] | None
    soda: SodaRead | None
    leavens: list[LeavenRead]
    swaps: dict[str, list[SwapRead]]
    flour_swaps: list[FlourSwapRead]
    filling: FillingRead | None
    contradictions: list[CautionRead]
    measurable: list[dict[str, Any]]
    whole: list[CautionRead]
    allergens: list[str]
    cautions: list[CautionRead]
    why: dict[str, WhyRead]


Purpose = Literal["fry", "brush", "dust", "bowl", "serve"]


class EntryLineRead(Shape):
    """A line of a list: read, or with what could not be."""

    raw: str
    ingredient: str | None
    amount: str | None
    basis: str | None
    faults: list[str]
    near: list[str]
    note: str
    purpose: Purpose | None = None  # beside the dough: what for; null for what goes into it
    temp_c: float | None = None  # at which it goes in, where that is said


class EntryRead(Shape):
    """A list, line by line; `steps` are lines that tell what to do: they go in the note, not on the sheet."""

    lines: list[EntryLineRead]
    steps: list[str] = []


class DoseWay(Shape):
    text: str
    grams: float
    at: dt.datetime | None


class DoseRead(Shape):
    """The yeast for the time there is."""

    leaven: str
    baker_frac: float | None
    mass_g: float | None
    reason: str
    mix_at: dt.datetime
    ready_at: dt.datetime
    ways: list[DoseWay]


class HandfulRead(Shape):
    """Advice on a feel."""

    add: str | None
    grams: float
    rest_min: float
    text: str


class AdditionRead(Shape):
    ingredient: str
    amount: str
    at: dt.datetime


class TakenRead(Shape):
    """A fact of a recipe, as it was taken, and the words it stands in."""

    text: str
    words: str


class ImportRead(Shape):
    """Result of an import: the bake, what its steps gave, and what could not be used."""

    bake_id: int
    kind: str
    read: int
    unread: list[str]
    notes: list[str]
    taken: list[TakenRead] = []


class MethodStageRead(Shape):
    name: str
    low_h: float
    high_h: float
    place: str
    ratio: float | None


class MethodRead(Shape):
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
    stages: list[MethodStageRead]
    low_h: float
    high_h: float
    hands_min: float
    surfaces: list[str]
    shaping: list[str]
    program: str
    hold: str
    cautions: list[CautionRead]
    allergens: list[str]
    soda: str
