"""Starters with their feeds."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find
from brassclock.store.tables import Starter, StarterFeed


def of_kitchen(session: Session, kitchen_id: int) -> Sequence[Starter]:
    """Starters that are not put away, as they were made."""
    return sorted(find(session, Starter, kitchen_id=kitchen_id, deleted_at=None), key=lambda x: x.id or 0)


def feeds(session: Session, starter_id: int) -> Sequence[StarterFeed]:
    """Feeds that stand, newest first."""
    found = find(session, StarterFeed, starter_id=starter_id, undone_at=None)
    return sorted(found, key=lambda f: (f.at, f.id or 0), reverse=True)
