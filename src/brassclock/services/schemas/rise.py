"""Shapes of the Rise leaf: readings, windows, what-ifs, rescues, routes."""

import datetime as dt
import math
from typing import Annotated, Literal

from pydantic import AfterValidator, Field, StringConstraints, ValidationInfo, field_validator

from brassclock.core.terms import Feel, PlaceKey, ReadingKind, StageKey
from brassclock.services.schemas.base import BandedAt, CautionRead, Edit, Shape, StepRead, Strict, WhyRead
from brassclock.services.schemas.quantities import RowId, within


def _rising_hours(path: list[tuple[float, float]]) -> list[tuple[float, float]]:
    hours = [h for h, _ in path]
    if any(not math.isfinite(v) for point in path for v in point) or hours != sorted(set(hours)) or hours[0] < 0:
        raise ValueError("Hours of a path are from 0 on and rise, as [[0, 21], [6, 18]].")
    if any(not -5 <= c <= 60 for _, c in path):
        raise ValueError("Air of -5 to 60 C can be believed. Mend the temperature.")
    return path


AirPath = Annotated[list[tuple[float, float]], Field(min_length=1, max_length=200), AfterValidator(_rising_hours)]


class ColdUpdate(Strict):
    """Hours in the fridge, begun so long into the bulk or the ball proof."""

    stage: StageKey
    after_h: Annotated[float, within(0, 48, "h")] = 0.25
    hours: Annotated[float, within(0.25, 96, "h")]


class RescueRequest(Strict):
    """Guests so many minutes late; or, left out, a dough that is too fast."""

    late_min: Annotated[float, within(5, 600, "min")] | None = None


class RelocationCreate(Edit):
    """Put the dough elsewhere from now: at so many C, for so many minutes."""

    temp_c: Annotated[float, within(-2, 45, "C")]
    minutes: Annotated[float, within(5, 1440, "min")]


class WhatIfRequest(Edit):
    """Changes to try: kelvin in the kitchen, leaven over what is typed, dough after mixing, the table, the fridge.

    `cold` null with `no_cold` true takes the fridge away; left out, the bake's own stays. `by` asks the chance to be
    ready by a moment as typed. `spell` puts a dough that is mixed elsewhere from now.
    """

    room_k: Annotated[float, within(-12, 12, "C")] = 0.0
    dose_factor: Annotated[float, within(0.02, 5, "x")] = 1.0
    dough_c: Annotated[float, within(5, 40, "C")] | None = None
    serve_at: dt.datetime | None = None
    cold: ColdUpdate | None = None
    no_cold: bool = False
    place: PlaceKey | None = None
    spell: RelocationCreate | None = None
    by: Annotated[str, StringConstraints(max_length=80)] | None = None


class RouteUpdate(Edit):
    """Take a named route."""

    key: Literal["room", "warm", "less", "night", "nights"]


class ReadingCreate(Strict):
    bake_id: RowId
    kind: ReadingKind
    value: float | None = None
    feel: Feel | None = None
    at: Annotated[str, StringConstraints(max_length=80)] | None = None

    @field_validator("value")
    @classmethod
    def _believable(cls, value: float | None, info: ValidationInfo) -> float | None:
        if value is not None:
            low, high, unit = (-5, 60, "C") if info.data.get("kind") == "dough_c" else (0.8, 5, "x")
            if not (math.isfinite(value) and low <= value <= high):
                raise ValueError(f"{value:g} {unit} cannot be. Give {low:g} to {high:g} {unit}.")
        return value


class WindowRead(Shape):
    """Window of a stage: ready, best and too far; its end's cause (gas, acid, strength), and what would move it
    most."""

    stage: str
    begins_at: dt.datetime
    ends_at: dt.datetime
    place: str
    target_ratio: float
    ready: BandedAt
    best_from: BandedAt
    best_to: BandedAt
    too_far: BandedAt
    reason: str
    matters: list[str]


class TraceRead(Shape):
    at: list[dt.datetime]
    ratio: list[float]
    ratio_p10: list[float]
    ratio_p90: list[float]
    maturity: list[float]
    fill: list[float]
    dough_c: list[float]
    air_c: list[float]


class ReadingRead(Shape):
    id: int
    kind: str
    value: float | None
    feel: str | None
    source: str
    at: dt.datetime


class AcidRead(Shape):
    """Acidity of the dough at its end, by the model: never a safety measure."""

    ph: float
    tta_ml: float
    word: str


class ColdRead(Shape):
    """Time of the dough in the fridge, of which stage, and whether that was done."""

    stage: StageKey
    into_at: dt.datetime
    out_at: dt.datetime
    temp_c: float


class ReadyBy(Shape):
    """The probability that the last stage is ready by an instant."""

    at: dt.datetime
    probability: float


class StageHours(Shape):
    stage: str
    warm_h: float


class SafetyRead(Shape):
    """Warm hours of a dough with dairy, egg, meat or potato, in all and by stage: a count, never permission."""

    warm_h: float
    limit_h: float
    reached_at: dt.datetime | None
    by_stage: list[StageHours] = []


class JarMark(Shape):
    """Mark of a stage on a straight jar, over a sample so high, and the sample's weight per cm2 of jar."""

    stage: str
    ratio: float
    start_mm: float
    mark_mm: float
    sample_g_cm2: float


class WorthRead(Shape):
    """A measurement still to be taken, when, and by how many minutes it narrows the answer."""

    what: str
    words: str
    at: dt.datetime | None
    narrows_min: float


class RiseRead(Shape):
    mixed_at: dt.datetime
    balled_at: dt.datetime
    windows: list[WindowRead]
    trace: TraceRead
    ratio_now: float | None
    dough_c_now: float | None
    stage_now: str | None
    readings: list[ReadingRead]
    activity: float
    activity_sd_log: float
    late_min: float
    acid: AcidRead | None
    sponge_at: dt.datetime | None
    cold: ColdRead | None
    ready_by: list[ReadyBy]
    workable_at: dt.datetime | None
    safety: SafetyRead | None
    peak_at: BandedAt
    peak_ratio: float
    leaven_left_frac: float | None
    offsets_c: dict[str, float]
    jar: list[JarMark]
    starter: str | None
    worth: list[WorthRead]
    soda: str  # of a yeasted dough with soda or powder: what that still lifts
    warm: bool
    cautions: list[CautionRead]
    why: dict[str, WhyRead]


class RescueOption(Shape):
    """A change from now and the window it gives; one with a temperature can be done by one press."""

    kind: str
    text: str
    temp_c: float | None
    minutes: float | None
    ready_at: dt.datetime
    best_until: dt.datetime
    too_far_at: dt.datetime


class RescueRead(Shape):
    """The window as it stands, and changes that answer the wish, the least disruptive first."""

    as_it_stands: RescueOption
    options: list[RescueOption]


class RelocationRead(Shape):
    start: dt.datetime
    end: dt.datetime
    temp_c: float


class LiftRead(Shape):
    """Lift left when the dough is cooked after so many hours, as a band."""

    h: list[float]
    lift: list[float]
    low: list[float]
    high: list[float]


class WaitRead(Shape):
    """Hours that a dough of soda or powder may wait in a place before half its lift is gone; where its gas comes
    free."""

    place: str
    temp_c: float
    verdict: Literal["cook_at_once", "session", "same_day", "overnight"]
    words: str
    h: float
    low_h: float
    high_h: float
    best_lift: float
    at_mixing_frac: float
    on_bench_frac: float
    in_heat_frac: float
    curve: LiftRead


class RestRead(Shape):
    """A dough that rests and does not rise: its gas here and in the fridge, and the count of warm hours beside it."""

    rests_from: dt.datetime
    cook_at: dt.datetime
    here: WaitRead | None
    fridge: WaitRead | None
    safety: SafetyRead | None
    cold_advice: str
    cautions: list[CautionRead]


class WhatIfRead(Shape):
    """The rise and the hand moves as a change would make them; nothing is stored.

    `rescues`: what would keep a dough that is rising good for a later table.
    """

    rescues: list[RescueOption]
    maturity: float | None
    pocket_score: float | None
    rise: RiseRead
    steps: list[StepRead]
    serve_at: dt.datetime
    dose_text: str


class RouteRead(Shape):
    """A named way to the same table: what it changes, when hands are wanted, what it tastes of, and whether it
    works."""

    key: str
    name: str
    flavour: str
    fits: bool
    because: str
    clashes: bool
    in_use: bool
    dose_factor: float
    dose_text: str
    hours: float
    hands_min: float
    steps: list[StepRead]
    ready_at: BandedAt
    too_far_at: BandedAt


class RoutesRead(Shape):
    routes: list[RouteRead]
