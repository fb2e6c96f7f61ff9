"""Tables of what comes after the heat: outcomes, pictures, lessons, frozen breads and their servings."""

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Column, ForeignKey, LargeBinary, UniqueConstraint
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, instant_column, owner_column


class Outcome(SQLModel, table=True):
    """The outcome of a round: its pocket, the colour of its first side and of the other, its tenderness, the faults
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


class Lesson(SQLModel, table=True):
    """One thing a bake (or a feed) taught its kitchen: what it is about (`key`), the ratio seen with its spread, when;
    a refused one teaches nothing, a sure one counts however odd. `shown` is what a bake showed of a surface, whose heat
    and colour are believed together. Beliefs are folded from these."""

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
    shown: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON, nullable=True))


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


class Serving(SQLModel, table=True):
    """Breads of the freezer for a table: what is taken out and heated when, in order, and when each was done."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    serve_at: dt.datetime = instant_column(False)
    wanted: int
    moves: list[dict[str, Any]] = Field(sa_column=Column(JSON, nullable=False))
    cancelled_at: dt.datetime | None = instant_column()


class Brought(SQLModel, table=True):
    """A package that was brought in: the ids of the rows that it added, by table, for undo."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    at: dt.datetime = instant_column(False)
    added: dict[str, list[int]] = Field(sa_column=Column(JSON, nullable=False))
    undone_at: dt.datetime | None = instant_column()
