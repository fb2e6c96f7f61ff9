"""Kitchens with their surfaces and clock."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session, col, select

from brassclock.store.tables import ClockState, Kitchen, Surface


def all_kitchens(session: Session, with_demo: bool) -> Sequence[Kitchen]:
    """Kitchens, own ones first."""
    query = select(Kitchen).order_by(col(Kitchen.demo), col(Kitchen.id))
    return [k for k in session.exec(query) if with_demo or not k.demo]


def demo_kitchen(session: Session) -> Kitchen | None:
    return session.exec(select(Kitchen).where(Kitchen.demo == True)).first()  # noqa: E712


def clock_of(session: Session, kitchen_id: int) -> ClockState | None:
    return session.get(ClockState, kitchen_id)


def surfaces(session: Session, kitchen_id: int) -> Sequence[Surface]:
    return session.exec(select(Surface).where(Surface.kitchen_id == kitchen_id).order_by(col(Surface.id))).all()
