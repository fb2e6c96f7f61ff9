"""Shapes of the freezer: what lies in it, what is taken out, tables from it and their moves."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import BaseModel, Field, StringConstraints

from brassclock.core.terms import (
    FrozenWrap,
)
from brassclock.services.schemas.base import Shape, Strict


class FreezeCreate(Strict):
    """Breads of a bake for the freezer: how many, of which bread of the dough, in what, and whether a sheet lies
    between each."""

    count: Annotated[int, Field(ge=1, le=500)]
    bread: Annotated[int, Field(ge=0, le=6)] = 0
    wrap: FrozenWrap = "bag"
    divided: bool = True
    at: Annotated[str, StringConstraints(max_length=80)] | None = None


class TakeUpdate(Strict):
    count: Annotated[int, Field(ge=1, le=500)]


class FrozenRead(Shape):
    """A row of the freezer: how many went in and how many are left, best by and use by."""

    id: int
    name: str
    kind: str
    mass_g: float
    count: int
    left: int
    frozen_at: dt.datetime
    wrap: str
    divided: bool
    filled: bool
    best_by: dt.datetime
    use_by: dt.datetime


class ServingMoveRead(Shape):
    """So many of a row: when they are taken out, how they are brought back, in how many waves and from when they are
    heated; and when each was done. What is heated from frozen is taken out then."""

    number: int
    row_id: int
    name: str
    count: int
    way: str
    waves: int
    at: dt.datetime
    heat_at: dt.datetime
    taken_at: dt.datetime | None
    heated_at: dt.datetime | None


class ServingRead(Shape):
    """A table that is served from the freezer."""

    id: int
    serve_at: dt.datetime
    wanted: int
    moves: list[ServingMoveRead]


class FreezerRead(Shape):
    rows: list[FrozenRead]
    servings: list[ServingRead]


class ServingCreate(Strict):
    """So many warm breads for a table."""

    wanted: Annotated[int, Field(ge=1, le=500)]
    serve: Annotated[str, StringConstraints(min_length=1, max_length=80)]


class ServingUpdate(Strict):
    """A move that was done, or is not done after all; or the whole table cancelled, or not after all."""

    number: Annotated[int, Field(ge=0, le=200)] | None = None
    what: Literal["taken", "heated"] | None = None
    done: bool = True
    cancelled: bool | None = None


class ServingMoveKept(Strict):
    """A move of a serving as it is stored."""

    at: dt.datetime
    heat_at: dt.datetime
    row_id: Annotated[int, Field(ge=1, le=2_147_483_647)]
    name: Annotated[str, StringConstraints(max_length=200)]
    count: Annotated[int, Field(ge=1, le=500)]
    way: Annotated[str, StringConstraints(max_length=200)]
    waves: Annotated[float, Field(ge=0, le=500)]
    taken_at: dt.datetime | None
    heated_at: dt.datetime | None


class ServingKept(BaseModel):
    """A serving as it is stored, where it comes from another kitchen."""

    wanted: Annotated[int, Field(ge=1, le=500)]
    moves: Annotated[list[ServingMoveKept], Field(max_length=200)]


class TakeOutRead(Shape):
    """A move: so many taken out, how they are brought back, and from when they are heated."""

    at: dt.datetime
    row_id: int
    name: str
    count: int
    way: str
    heat_at: dt.datetime


class ThawPlanRead(Shape):
    serve_at: dt.datetime
    moves: list[TakeOutRead]
    said: list[str]
