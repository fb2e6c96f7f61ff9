"""Repository of the freezer."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find
from brassclock.store.tables import FrozenBread, Serving


def rows(session: Session, kitchen_id: int) -> Sequence[FrozenBread]:
    """Rows of a kitchen's freezer that are not removed, the oldest first."""
    found = find(session, FrozenBread, kitchen_id=kitchen_id, removed_at=None)
    return sorted(found, key=lambda x: (x.frozen_at, x.id or 0))


def servings(session: Session, kitchen_id: int) -> Sequence[Serving]:
    """Tables that are served from a kitchen's freezer and not cancelled, the soonest first."""
    found = find(session, Serving, kitchen_id=kitchen_id, cancelled_at=None)
    return sorted(found, key=lambda x: (x.serve_at, x.id or 0))
