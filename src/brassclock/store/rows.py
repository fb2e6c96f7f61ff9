"""Rows of one unit of work: what a session is about to store is read as if it were stored.

A session of `services.app` writes nothing before its end, so that the write lock is held for the writing alone. A query
would miss what waits in it. `find` and `get` do not.
"""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from sqlalchemy import insert as core_insert
from sqlmodel import Session, SQLModel, col, func, select

T = TypeVar("T", bound=SQLModel)


def get(session: Session, table: type[T], key: int) -> T | None:
    """The row of that id, stored or about to be; None when there is none or it is about to be deleted."""
    for row in session.new:
        if isinstance(row, table) and row.id == key:  # type: ignore[attr-defined]
            return row
    found = session.get(table, key)
    return None if found is None or found in session.deleted else found


def find(
    session: Session, table: type[T], *within: Any, keep: Callable[[T], bool] | None = None, **equal: Any
) -> list[T]:
    """Rows whose columns equal `equal`, in no order. `within` narrows the query, `keep` is the same in Python."""
    stored = session.exec(select(table).filter_by(**equal).where(*within)).all()
    if not (session.new or session.dirty or session.deleted):
        return list(stored)
    waiting = (x for x in (*session.new, *session.dirty) if isinstance(x, table))
    found = {id(x): x for x in (*stored, *waiting) if x not in session.deleted}.values()
    return [x for x in found if all(getattr(x, k) == v for k, v in equal.items()) and (keep is None or keep(x))]


def insert(session: Session, row: T) -> T:
    """Store a row at the end of the session's unit of work; it has its id at once."""
    if getattr(row, "id", 0) is None:
        row.id = session.info["ids"](session, type(row))  # type: ignore[attr-defined]
    session.add(row)
    return row


def append(session: Session, row: T) -> T:
    """The same for a row that nothing reads before it is stored: it is written as it stands, in one statement."""
    row.id = session.info["ids"](session, type(row))  # type: ignore[attr-defined]
    session.info["statements"].append((core_insert(type(row)), row.model_dump()))
    return row


def highest_id(session: Session, table: type[SQLModel]) -> int:
    """The highest id that is stored; 0 when there is none."""
    return session.exec(select(func.max(col(table.id)))).one() or 0  # type: ignore[attr-defined]
