"""Table of the Logbook: the figures of a bake that has ended, for lists, instruments and the search."""

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Column, ForeignKey, Index
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, instant_column


class PastBake(SQLModel, table=True):
    """The figures that the Logbook shows of an ended bake, stored with its end and again when it is judged or renamed.

    `bread` is the intent of its heat. `ready_*` are hours from mixing to the end of the bulk rise, as forecast and as
    it was, `rests` the share of its time to come back that the surface was given between two breads. `cause` is the
    first cause of what fell short, `tried` the change an earlier bake handed on. `notes`, `causes` and `holds` (names
    of its ingredients) are searched, beside the name; the index of that is `past_text`, kept by triggers.
    """

    __tablename__ = "past_bake"
    __table_args__ = (Index("ix_past_bake_kitchen_serve", "kitchen_id", "serve_at"), STRICT)
    bake_id: int = Field(sa_column=Column(ForeignKey("bake.id", ondelete="CASCADE"), primary_key=True))
    kitchen_id: int = Field(sa_column=Column(ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=False))
    serve_at: dt.datetime = instant_column(False)
    status: str
    left_out: bool = False
    name: str
    method: str
    bread: str
    leaven: str
    surface_id: int | None = None
    surface: str | None = None
    full: int = 0
    part: int = 0
    flat: int = 0
    judged: int = 0
    short: int = 0
    lost: int = 0
    room_c: float | None = None
    ready_p10: float | None = None
    ready_p50: float | None = None
    ready_p90: float | None = None
    ready: float | None = None
    hands_min: float | None = None
    flour_g: float | None = None
    rests: float | None = None
    cause: str | None = None
    cause_name: str | None = None
    cause_share: float | None = None
    tried: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    notes: str = ""
    causes: str = ""
    holds: str = ""
