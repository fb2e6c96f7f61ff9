"""The tables. Rows are built from validated schemas only; SQLModel tables do not validate."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Column, ForeignKey, Index, LargeBinary, UniqueConstraint
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, Instant, instant_column, owner_column


class Kitchen(SQLModel, table=True):
    """A kitchen: its zone, height, air by the hour, units, and what is believed of its yeast.

    `version` counts the changes of anything in it that plans hang on; a change made beside another is found by it.
    """

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    name: str
    demo: bool = False
    zone: str = "UTC"
    altitude_m: float = 0.0
    mass_unit: str = "g"
    temp_unit: str = "C"
    hourly_c: list[float] = Field(sa_column=Column(JSON, nullable=False))
    fridge_c: float = 4.0
    tap_c: float = 12.0
    flour_basis: str | None = None
    spoons: str = "us"
    cup_ml: float | None = None
    tbsp_ml: float | None = None
    tsp_ml: float | None = None
    scale_step_g: float = 0.1
    powder: str = "double"
    friction: dict[str, list[float]] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    activity_mean: float = 1.0
    activity_sd_log: float = 0.50
    places: dict[str, dict[str, float]] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    leavens: dict[str, dict[str, Any]] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    cooks: int = 1
    shelf_l: float = 40.0
    version: int = 0
    created_at: dt.datetime = instant_column(False)


class ClockState(SQLModel, table=True):
    """A simulated clock: at real instant `anchor_real` it read `anchor_sim`, and runs at `rate` since."""

    __tablename__ = "clock"
    __table_args__ = STRICT
    kitchen_id: int = Field(sa_column=Column(ForeignKey("kitchen.id", ondelete="CASCADE"), primary_key=True))
    anchor_real: dt.datetime = instant_column(False)
    anchor_sim: dt.datetime = instant_column(False)
    rate: float = 1.0


class Surface(SQLModel, table=True):
    """A hot surface of a kitchen; one that was removed stays for the bakes that were baked on it."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    kind: str
    temp_c: float
    power: str = "medium_high"
    spots: int = 1
    heat: str | None = None
    greased: str = "dry"
    nonstick: bool = False
    source: str = "typed"
    sd_k: float | None = None
    size: str = "home"
    removed_at: dt.datetime | None = instant_column()


class OwnIngredient(SQLModel, table=True):
    """An ingredient of a kitchen's own: a composition, or a starter at some hydration."""

    __tablename__ = "own_ingredient"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    kind: str = "made"
    facts: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    deleted_at: dt.datetime | None = instant_column()


class OwnMethod(SQLModel, table=True):
    """A bake's settings kept as a method of the kitchen's own."""

    __tablename__ = "own_method"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    facts: dict[str, Any] = Field(sa_column=Column(JSON, nullable=False))
    deleted_at: dt.datetime | None = instant_column()


class FlourBag(SQLModel, table=True):
    """A bag of flour and what was learned of its thirst: points of water it took over the table's, over `times`
    bakes."""

    __tablename__ = "flour_bag"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    ingredient: str
    thirst_frac: float = 0.0
    times: int = 0


class Starter(SQLModel, table=True):
    """A sourdough starter, and what is believed of its strength over a healthy one."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    hydration_frac: float = 1.0
    whole_share: float = 0.0
    vitality_mean: float = 1.0
    vitality_sd_log: float = 0.30
    deleted_at: dt.datetime | None = instant_column()


class StarterFeed(SQLModel, table=True):
    """A feed of a starter, and when its peak was seen."""

    __tablename__ = "feed"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    starter_id: int = owner_column("starter.id")
    seed_g: float
    flour_g: float
    water_g: float
    place: str = "bench"
    at: dt.datetime = instant_column(False)
    peaked_at: dt.datetime | None = instant_column()
    undone_at: dt.datetime | None = instant_column()


class Bake(SQLModel, table=True):
    """One batch from weighing to keeping.

    `program` (times of one bread) and `hearth` (surface, spots, count, cooks) are frozen when the first round is
    loaded. `summary` is the bake's row in lists, stored when it is kept or abandoned. `noted` is what a cook knows of
    its making beside the settings (facts a cause may lie in); `carried` is the one change that an earlier bake handed
    on. `asked_at` is when the Bench asked whether one that is all off is to be kept.
    """

    __table_args__ = (Index("ix_bake_kitchen_status", "kitchen_id", "status"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    method: str
    seal: str = "round"
    status: str = "live"
    lines: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    unread: list[str] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    held: dict[str, float] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    additions: list[dict[str, Any]] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    filling: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    weighed: list[int] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    bag_id: int | None = None
    strength: str = "kneaded"
    bloomed: bool = False
    count: int | None = None
    piece_g: float | None = None
    shape: str = "round"
    diameter_cm: float | None = None
    length_cm: float | None = None
    width_cm: float | None = None
    thickness_mm: float | None = None
    dough_c: float = 26.0
    knead: str = "hand"
    knead_min: float = 8.0
    flour_c: float | None = None
    solve_for: str | None = None
    bowl_g: float = 500.0
    bowl_material: str = "steel"
    part_temps: dict[str, float] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    bloom_min: float | None = None
    bloom_foamed: bool | None = None
    activity_factor: float | None = None
    bulk_ratio: float = 1.9
    ball_ratio: float = 1.4
    spells: list[dict[str, Any]] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    bulk_place: str = "bench"
    ball_place: str = "bench"
    bulk_air: list[list[float]] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    ball_air: list[list[float]] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    cold: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    sponge_h: float | None = None
    starter_id: int | None = None
    bulk_end: str = "rise"
    ball_end: str = "rise"
    bulk_h: float | None = None
    ball_h: float | None = None
    bulk_most_h: float | None = None
    ball_most_h: float | None = None
    surface_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("surface.id", ondelete="SET NULL"), nullable=True)
    )
    doneness: str = "golden"
    colour_top: str | None = None
    heat_steps: list[dict[str, Any]] | None = Field(
        default=None, sa_column=Column(JSON(none_as_null=True), nullable=True)
    )
    dressing: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    docked: bool = False
    parts: list[dict[str, Any]] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    uneven_frac: float | None = None
    skin_min: float | None = None
    noted: dict[str, Any] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    carried: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    serve_at: dt.datetime = instant_column(False)
    serve_until: dt.datetime | None = instant_column()
    pins: dict[str, str] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    told: dict[str, Any] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
    program: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    hearth: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    summary: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    note: str = ""
    revision: int = 0
    created_at: dt.datetime = instant_column(False)
    kept_at: dt.datetime | None = instant_column()
    asked_at: dt.datetime | None = instant_column()
    deleted_at: dt.datetime | None = instant_column()


class FrozenBread(SQLModel, table=True):
    """Breads of one kind in the freezer; `taken` is what was taken out, in order: count and instant."""

    __tablename__ = "frozen_bread"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    bake_id: int | None = Field(None, sa_column=Column(ForeignKey("bake.id", ondelete="SET NULL")))
    name: str
    kind: str
    mass_g: float
    count: int
    frozen_at: dt.datetime = instant_column(False)
    wrap: str = "bag"
    fat_frac: float = 0.03
    filled: bool = False
    divided: bool = True
    taken: list[dict[str, Any]] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    removed_at: dt.datetime | None = instant_column()


class Photo(SQLModel, table=True):
    """A picture of a bake, or of one of its rounds; its bytes stand apart, so that a list reads none."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    bake_id: int = owner_column("bake.id")
    round_no: int | None = None
    width: int
    height: int
    added_at: dt.datetime = instant_column(False)
    removed_at: dt.datetime | None = instant_column()


class PhotoBytes(SQLModel, table=True):
    """The JPEG of a picture."""

    __tablename__ = "photo_bytes"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    photo_id: int = owner_column("photo.id")
    body: bytes = Field(sa_column=Column(LargeBinary, nullable=False))


class Serving(SQLModel, table=True):
    """Breads of the freezer for a table: what is taken out and heated when, in order, and when each was done."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    serve_at: dt.datetime = instant_column(False)
    wanted: int
    moves: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    cancelled_at: dt.datetime | None = instant_column()


class Tap(SQLModel, table=True):
    """Something done or seen, at an instant. `key` is the client's own: the same tap twice is one tap."""

    __table_args__ = (UniqueConstraint("bake_id", "key"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    bake_id: int = owner_column("bake.id")
    key: str
    kind: str
    round_no: int | None = None
    spot: int | None = None
    at: dt.datetime = instant_column(False)
    made_at: dt.datetime = instant_column(False)
    undone_at: dt.datetime | None = instant_column()


class Reading(SQLModel, table=True):
    """A value with a time and a source: a dough's ratio or feel, its temperature, or (no bake) the air of a `place`."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    bake_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("bake.id", ondelete="CASCADE"), nullable=True, index=True)
    )
    kind: str
    value: float | None = None
    feel: str | None = None
    place: str | None = None
    source: str = "eye"
    at: dt.datetime = instant_column(False)
    made_at: dt.datetime = instant_column(False)
    undone_at: dt.datetime | None = instant_column()


class Outcome(SQLModel, table=True):
    """What became of a round: its pocket, the colour of its first side and of the other, its tenderness, the faults
    beside those."""

    __table_args__ = (UniqueConstraint("bake_id", "round_no"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    bake_id: int = owner_column("bake.id")
    round_no: int
    pocket: str | None = None
    colour: str | None = None
    colour_top: str | None = None
    tender: str | None = None
    faults: list[str] = Field(default_factory=list, sa_column=Column(JSON, nullable=False))
    note: str = ""


class Lesson(SQLModel, table=True):
    """One thing a bake (or a feed) taught its kitchen: what it is about (`key`), the ratio seen with its spread, when;
    a refused one teaches nothing, a sure one counts however odd. Beliefs are folded from these."""

    __table_args__ = (UniqueConstraint("bake_id", "key"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    bake_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("bake.id", ondelete="CASCADE"), nullable=True, index=True)
    )
    key: str
    seen: float
    spread: float
    at: dt.datetime = instant_column(False)
    refused: bool = False
    sure: bool = False


class ForecastRecord(SQLModel, table=True):
    """A forecast as it was shown, kept to be compared with the fact. Times in s from `since`."""

    __tablename__ = "said"
    __table_args__ = (UniqueConstraint("bake_id", "name"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    bake_id: int = owner_column("bake.id")
    name: str
    p10: float | None = None
    p50: float | None = None
    p90: float | None = None
    since: dt.datetime = instant_column(False)


class BusyHours(SQLModel, table=True):
    """Hours in which hands are away: once, from `start` to `end`, or by the week on `days` (0 is Monday), local times.

    `hands` is how many pairs are away, None all of them.
    """

    __tablename__ = "busy"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    hands: int | None = None
    start: dt.datetime | None = instant_column()
    end: dt.datetime | None = instant_column()
    days: list[int] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    from_time: str | None = None
    until_time: str | None = None
    deleted_at: dt.datetime | None = instant_column()


class Calendar(SQLModel, table=True):
    """A calendar brought in, as its text, and up to when its hours are known."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    name: str
    text: str
    hands: int | None = None
    all_day: bool = False
    known_until: dt.datetime = instant_column(False)
    deleted_at: dt.datetime | None = instant_column()


class CalendarHours(SQLModel, table=True):
    """One occurrence of a calendar's event."""

    __tablename__ = "calendar_hours"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    calendar_id: int = owner_column("calendar.id")
    name: str
    start: dt.datetime = Field(default=None, sa_column=Column(Instant, nullable=False, index=True))
    end: dt.datetime = instant_column(False)


class PlanChange(SQLModel, table=True):
    """A change of a bake's plan with its reason: steps with their instant before and after."""

    __tablename__ = "plan_change"
    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    bake_id: int = owner_column("bake.id")
    at: dt.datetime = instant_column(False)
    because: str
    moves: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))


class Act(SQLModel, table=True):
    """Something done to a day by one press: what, the bakes as they were before it, and the busy hours it added."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    at: dt.datetime = instant_column(False)
    what: str
    before: dict[str, dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    busy: list[int] = Field(sa_column=Column(JSON, nullable=False))
    undone_at: dt.datetime | None = instant_column()


class Answered(SQLModel, table=True):
    """A write that was answered under a client's Idempotency-Key: a hash of the request, and the answer
    (compressed)."""

    __table_args__ = STRICT
    key: str = Field(primary_key=True)
    asked: str
    status: int
    body: bytes = Field(sa_column=Column(LargeBinary, nullable=False))
    at: dt.datetime = Field(default=None, sa_column=Column(Instant, nullable=False, index=True))
