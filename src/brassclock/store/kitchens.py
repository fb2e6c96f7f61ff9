"""Kitchens with their surfaces and clock."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find, get
from brassclock.store.tables import ClockState, Kitchen, Surface


def all_kitchens(session: Session, with_demo: bool) -> Sequence[Kitchen]:
    """Kitchens, own ones first."""
    found = [k for k in find(session, Kitchen) if with_demo or not k.demo]
    return sorted(found, key=lambda k: (k.demo, k.id or 0))


def demo_kitchen(session: Session) -> Kitchen | None:
    """The demo's kitchen, when it was made."""
    return next(iter(find(session, Kitchen, demo=True)), None)


def clock_of(session: Session, kitchen_id: int) -> ClockState | None:
    return next(iter(find(session, ClockState, kitchen_id=kitchen_id)), None)


def surfaces(session: Session, kitchen_id: int) -> Sequence[Surface]:
    """Surfaces of a kitchen that are not removed, as they were made."""
    return sorted(find(session, Surface, kitchen_id=kitchen_id, removed_at=None), key=lambda s: s.id or 0)


def surface(session: Session, surface_id: int | None) -> Surface | None:
    """A surface, removed or not."""
    return None if surface_id is None else get(session, Surface, surface_id)
