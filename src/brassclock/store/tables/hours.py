"""Tables of the hours in which hands are away."""

import datetime as dt

from sqlalchemy import JSON, Column
from sqlmodel import Field, SQLModel

from brassclock.store.columns import STRICT, Instant, instant_column, owner_column


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
