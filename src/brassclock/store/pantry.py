"""What a kitchen keeps of its own: ingredients, methods, flour bags."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session, col, select

from brassclock.store.tables import FlourBag, OwnIngredient, OwnMethod


def own_ingredients(session: Session, kitchen_id: int) -> Sequence[OwnIngredient]:
    """Every own ingredient, those put away too: a bake may still hold them."""
    query = select(OwnIngredient).where(OwnIngredient.kitchen_id == kitchen_id)
    return session.exec(query.order_by(col(OwnIngredient.id))).all()


def own_methods(session: Session, kitchen_id: int) -> Sequence[OwnMethod]:
    query = select(OwnMethod).where(OwnMethod.kitchen_id == kitchen_id, col(OwnMethod.deleted_at).is_(None))
    return session.exec(query.order_by(col(OwnMethod.id))).all()


def bags(session: Session, kitchen_id: int) -> Sequence[FlourBag]:
    return session.exec(select(FlourBag).where(FlourBag.kitchen_id == kitchen_id).order_by(col(FlourBag.id))).all()
