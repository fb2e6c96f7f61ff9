"""Table of the Drill: each case that was opened, and its answer."""

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Column, Index
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, instant_column, owner_column


class DrillTry(SQLModel, table=True):
    """A practice case: `kind`, `level` and `seed` draw it, with `own` where it is of the kitchen's own bread, dough or
    line. `version` is that of the drawing. Once answered: the answer, its points (None: it does not count) and its
    figures."""

    __tablename__ = "drill_try"
    __table_args__ = (Index("ix_drill_try_kitchen_kind", "kitchen_id", "kind"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    kitchen_id: int = owner_column("kitchen.id")
    kind: str
    level: int
    seed: int
    version: int
    own: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    opened_at: dt.datetime = instant_column(False)
    answered_at: dt.datetime | None = instant_column()
    answer: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
    points: float | None = None
    figures: dict[str, Any] | None = Field(default=None, sa_column=Column(JSON(none_as_null=True), nullable=True))
