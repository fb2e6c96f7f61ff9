"""Shapes of the Rise leaf and of the starters."""

from __future__ import annotations

import datetime as dt
from typing import Literal

from brassclock.services.schemas.base import BandedAt, CautionOut, Shape, StepOut, WhyOut


class WindowOut(Shape):
    """When a stage is ready, best and too far; what ends it (gas, acid, strength), and what would move it most."""

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


class TraceOut(Shape):
    at: list[dt.datetime]
    ratio: list[float]
    ratio_p10: list[float]
    ratio_p90: list[float]
    maturity: list[float]
    fill: list[float]
    dough_c: list[float]
    air_c: list[float]


class ReadingOut(Shape):
    id: int
    kind: str
    value: float | None
    feel: str | None
    at: dt.datetime


class AcidOut(Shape):
    """How sour the dough ends, by the model: never a safety measure."""

    ph: float
    tta_ml: float
    word: str


class ColdOut(Shape):
    """When the dough goes into the fridge and comes out, of which stage, and whether that was done."""

    stage: Literal["bulk", "ball"]
    into_at: dt.datetime
    out_at: dt.datetime
    temp_c: float


class ReadyBy(Shape):
    """The probability that the last stage is ready by an instant."""

    at: dt.datetime
    probability: float


class SafetyOut(Shape):
    """Hours above 5 C of a dough with dairy or egg: a count, never permission."""

    warm_h: float
    limit_h: float
    reached_at: dt.datetime | None


class JarMark(Shape):
    """Where the mark of a stage goes on a straight jar, over a sample so high, and what that weighs per cm2 of jar."""

    stage: str
    ratio: float
    start_mm: float
    mark_mm: float
    sample_g_cm2: float


class WorthOut(Shape):
    """A measurement still to be taken, when, and by how many minutes it narrows the answer."""

    what: str
    words: str
    at: dt.datetime | None
    narrows_min: float


class RiseOut(Shape):
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
    acid: AcidOut | None
    sponge_at: dt.datetime | None
    cold: ColdOut | None
    ready_by: list[ReadyBy]
    workable_at: dt.datetime | None
    safety: SafetyOut | None
    peak_at: BandedAt
    peak_ratio: float
    leaven_left_frac: float | None
    offsets_c: dict[str, float]
    jar: list[JarMark]
    starter: str | None
    worth: list[WorthOut]
    warm: bool
    cautions: list[CautionOut]
    why: dict[str, WhyOut]


class FeedOut(Shape):
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


class MealOut(Shape):
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
    meals: list[MealOut]


class UpkeepOut(Shape):
    ways: list[UpkeepWay]


class StarterOut(Shape):
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
    feeds: list[FeedOut]


class FeedWishOut(Shape):
    """The feed that peaks when it is wanted, given now."""

    seed_g: float
    flour_g: float
    water_g: float
    peak_at: dt.datetime
    text: str


class RescueOption(Shape):
    """A change from now and the window it gives; one with a temperature can be done by one press."""

    kind: str
    text: str
    temp_c: float | None
    minutes: float | None
    ready_at: dt.datetime
    best_until: dt.datetime
    too_far_at: dt.datetime


class RescueOut(Shape):
    """The window as it stands, and changes that answer the wish, the least disruptive first."""

    as_it_stands: RescueOption
    options: list[RescueOption]


class SpellOut(Shape):
    start: dt.datetime
    end: dt.datetime
    temp_c: float


class LiftOut(Shape):
    """What lift is left when the dough is cooked after so many hours, as a band."""

    h: list[float]
    lift: list[float]
    low: list[float]
    high: list[float]


class WaitOut(Shape):
    """How long a dough of soda or powder may wait in a place, before half its lift is gone [h]; where its gas comes free."""

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
    curve: LiftOut


class RestOut(Shape):
    """A dough that rests and does not rise: its gas here and in the fridge, and the count of warm hours beside it."""

    rests_from: dt.datetime
    cook_at: dt.datetime
    here: WaitOut | None
    fridge: WaitOut | None
    safety: SafetyOut | None
    cold_advice: str
    cautions: list[CautionOut]


class WhatIfOut(Shape):
    """The rise and the hand moves as a change would make them; nothing is stored.

    `rescues`: what would keep a dough that is rising good for a later table.
    """

    rescues: list[RescueOption]
    maturity: float | None
    pocket_score: float | None
    rise: RiseOut
    steps: list[StepOut]
    serve_at: dt.datetime
    dose_text: str


class RouteOut(Shape):
    """A named way to the same table: what it changes, when hands are wanted, what it tastes of, and whether it works."""

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
    steps: list[StepOut]
    ready_at: BandedAt
    too_far_at: BandedAt


class RoutesOut(Shape):
    routes: list[RouteOut]


class StrengthOut(Shape):
    """What a kitchen believes of a leaven: its strength over the table's, the spread, the bakes behind it."""

    leaven: str
    name: str
    mean: float
    sd_log: float
    bakes: int
    forgotten: bool


class PlaceOut(Shape):
    """A place of a kitchen: a temperature of its own or kelvin over the bench; how far it swings; litres of a fridge."""

    key: str
    name: str
    temp_c: float | None
    over_k: float
    swing_c: float
    litres: float | None
    now_c: float


class AirReadingOut(Shape):
    id: int
    place: str
    value: float
    at: dt.datetime


class AirOut(Shape):
    """What was read of a kitchen's air lately, newest first, and what is odd about it."""

    readings: list[AirReadingOut]
    taken: int
    skipped: list[str]
    cautions: list[CautionOut]
