"""Repository of lessons."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find
from brassclock.store.tables import Lesson


def of_kitchen(session: Session, kitchen_id: int) -> Sequence[Lesson]:
    """Lessons of a kitchen, as they were seen."""
    return sorted(find(session, Lesson, kitchen_id=kitchen_id), key=lambda x: (x.at, x.id or 0))
