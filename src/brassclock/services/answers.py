"""Answers kept by the key of their request, for a day: the same request again answers the same thing."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session, col, delete

from brassclock.store.rows import insert
from brassclock.store.tables import Answered

KEPT = dt.timedelta(days=1)


def answered(session: Session, key: str, now: dt.datetime) -> Answered | None:
    """The answer under a key, while it is kept."""
    found = session.get(Answered, key)
    return found if found is not None and now - found.at < KEPT else None


def remember(session: Session, key: str, asked: str, status: int, body: bytes, now: dt.datetime) -> None:
    """Keep an answer in the unit of work that it is the answer of."""
    had = session.get(Answered, key)
    if had is not None:  # of the day before
        had.asked, had.status, had.body, had.at = asked, status, body, now
        return
    insert(session, Answered(key=key, asked=asked, status=status, body=body, at=now))


def forget_old(session: Session, now: dt.datetime) -> None:
    """Drop answers older than a day with this unit of work."""
    session.info["statements"].append((delete(Answered).where(col(Answered.at) < now - KEPT), None))
