"""Starters with their feeds."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session, col, select

from brassclock.store.tables import Starter, StarterFeed


def of_kitchen(session: Session, kitchen_id: int) -> Sequence[Starter]:
    query = select(Starter).where(Starter.kitchen_id == kitchen_id, col(Starter.deleted_at).is_(None))
    return session.exec(query.order_by(col(Starter.id))).all()


def feeds(session: Session, starter_id: int) -> Sequence[StarterFeed]:
    """Feeds that stand, newest first."""
    query = select(StarterFeed).where(StarterFeed.starter_id == starter_id, col(StarterFeed.undone_at).is_(None))
    return session.exec(query.order_by(col(StarterFeed.at).desc(), col(StarterFeed.id).desc())).all()
