"""Tables of who may ask, and of instruments: the passcode, devices, what an instrument measures, and what it
measured."""

import datetime as dt

from sqlalchemy import Column, ForeignKey, UniqueConstraint
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, Instant, instant_column, owner_column


class Passcode(SQLModel, table=True):
    """The one passcode of the house, as an argon2id hash."""

    __table_args__ = STRICT
    id: int | None = Field(default=None, primary_key=True)
    hash: str
    made_at: dt.datetime = instant_column(False)


class Device(SQLModel, table=True):
    """A device that may ask: a cook's tablet that was signed in, a guest's link, or an instrument. `secret` is the
    SHA-256 of a random token of 256 bits, which is stored nowhere. A guest and an instrument are of one kitchen."""

    __table_args__ = (UniqueConstraint("secret"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    kind: str
    name: str
    secret: str
    kitchen_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("kitchen.id", ondelete="CASCADE"), nullable=True, index=True)
    )
    made_at: dt.datetime = instant_column(False)
    seen_at: dt.datetime | None = instant_column()
    until: dt.datetime | None = instant_column()
    forgotten_at: dt.datetime | None = instant_column()


class Channel(SQLModel, table=True):
    """One thing that an instrument measures, and what it is used for: the air of a place, a bake's dough, a surface,
    the scale, or nothing yet. `used_since` is when that was said; `doubt` why it is
    not believed now (a code), and since when."""

    __table_args__ = (UniqueConstraint("device_id", "name"), STRICT)
    id: int | None = Field(default=None, primary_key=True)
    device_id: int = owner_column("device.id")
    name: str
    quantity: str
    use: str | None = None
    place: str | None = None
    bake_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("bake.id", ondelete="SET NULL"), nullable=True)
    )
    surface_id: int | None = Field(
        default=None, sa_column=Column(ForeignKey("surface.id", ondelete="SET NULL"), nullable=True)
    )
    used_since: dt.datetime | None = instant_column()
    doubt: str | None = None
    doubt_since: dt.datetime | None = instant_column()


class Measurement(SQLModel, table=True):
    """A value as an instrument sent it, in C or g: one of a channel at an instant."""

    __table_args__ = STRICT
    channel_id: int = Field(sa_column=Column(ForeignKey("channel.id", ondelete="CASCADE"), primary_key=True))
    at: dt.datetime = Field(sa_column=Column(Instant, primary_key=True))
    value: float
    received_at: dt.datetime = instant_column(False)
