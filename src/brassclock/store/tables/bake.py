"""Tables of a bake: its settings, taps, readings, what was forecast and what moved its plan; and acts taken back."""

import datetime as dt
from typing import Any
from uuid import uuid4

from sqlalchemy import JSON, Column, ForeignKey, Index, LargeBinary, UniqueConstraint
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, Instant, instant_column, owner_column


class Bake(SQLModel, table=True):
    """One batch from weighing to keeping.

    `program` (times of one bread) and `hearth` (surface, spots, count, cooks) are frozen when the first round is
    loaded. `summary` is the bake's row in lists, stored when it is kept or abandoned. `noted` is what a cook knows of
    its making beside the settings (facts a cause may lie in); `carried` is the one change that an earlier bake handed
    on. `asked_at` is when the Bench asked whether one that is all off is to be kept. One that is `left_out` counts
    in no statistics of the Logbook. `uid` is the bake's own in every copy of its kitchen.
    """

    __table_args__ = (Index("ix_bake_kitchen_status", "kitchen_id", "status"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    uid: str = Field(default_factory=lambda: uuid4().hex, index=True)
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
    left_out: bool = False
    revision: int = 0
    created_at: dt.datetime = instant_column(False)
    kept_at: dt.datetime | None = instant_column()
    asked_at: dt.datetime | None = instant_column()
    deleted_at: dt.datetime | None = instant_column()


class Tap(SQLModel, table=True):
    """Something done or seen, at an instant. `key` is the client's own: the same tap twice is one tap. `told_at` is
    when a move was to be done, by the plan as it was told last; `by` who did it, where the tablet says so."""

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
    told_at: dt.datetime | None = instant_column()
    by: str | None = None


class Reading(SQLModel, table=True):
    """A value with a time and a source: a dough's ratio or feel, its temperature, or (no bake) the air of a `place`.
    Those that were thinned from an instrument name its channel, and are made anew when it tells more."""

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
    channel_id: int | None = Field(default=None, index=True)
    at: dt.datetime = instant_column(False)
    made_at: dt.datetime = instant_column(False)
    undone_at: dt.datetime | None = instant_column()


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
