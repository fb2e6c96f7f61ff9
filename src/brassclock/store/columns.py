"""Column types of the tables."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlalchemy import JSON, Boolean, Column, DateTime, Float, ForeignKey, String
from sqlalchemy.engine import Dialect
from sqlalchemy.ext.compiler import compiles
from sqlalchemy.types import TypeDecorator
from sqlmodel import Field

STRICT = {"sqlite_strict": True}


@compiles(String, "sqlite")
@compiles(DateTime, "sqlite")
@compiles(JSON, "sqlite")
def _text(*_: Any, **__: Any) -> str:
    return "TEXT"


@compiles(Float, "sqlite")
def _real(*_: Any, **__: Any) -> str:
    return "REAL"


@compiles(Boolean, "sqlite")
def _integer(*_: Any, **__: Any) -> str:
    return "INTEGER"


class Instant(TypeDecorator[dt.datetime]):
    """An aware instant, stored as ISO text in UTC with microseconds: sorts as it reads."""

    impl = String
    cache_ok = True

    def process_bind_param(self, value: dt.datetime | None, dialect: Dialect) -> str | None:
        if value is None:
            return None
        if value.tzinfo is None:
            raise ValueError("An instant needs a time zone.")
        return value.astimezone(dt.UTC).isoformat(timespec="microseconds")

    def process_result_value(self, value: str | None, dialect: Dialect) -> dt.datetime | None:
        return None if value is None else dt.datetime.fromisoformat(value)


def instant_column(nullable: bool = True) -> Any:
    """A column for an instant."""
    return Field(default=None, sa_column=Column(Instant, nullable=nullable))


def owner_column(target: str) -> Any:
    """A column for the row that this one belongs to, and goes with."""
    return Field(default=None, sa_column=Column(ForeignKey(target, ondelete="CASCADE"), nullable=False, index=True))
