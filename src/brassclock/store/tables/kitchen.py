"""Tables of a kitchen: its settings, clock, surfaces, ingredients, methods, bags and starters."""

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Column, ForeignKey
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, instant_column, owner_column


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
    pace: dict[str, float] = Field(default_factory=dict, sa_column=Column(JSON, nullable=False))
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
    """A hot surface of a kitchen; one that was removed stays for the bakes that were baked on it. `learned` is what its
    breads say of it: at which setting, kelvins over it, and how fast bread browns there."""

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
    fan: bool = False
    lies: int | None = None
    learned: dict[str, float] | None = Field(default=None, sa_column=Column(JSON, nullable=True))
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
