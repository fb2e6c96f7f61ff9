"""Repository of a kitchen's own: ingredients, methods, flour bags."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find
from brassclock.store.tables import FlourBag, OwnIngredient, OwnMethod


def own_ingredients(session: Session, kitchen_id: int) -> Sequence[OwnIngredient]:
    """Every own ingredient, those put away too: a bake may still hold them."""
    return sorted(find(session, OwnIngredient, kitchen_id=kitchen_id), key=lambda x: x.id or 0)


def own_methods(session: Session, kitchen_id: int) -> Sequence[OwnMethod]:
    """Methods of the kitchen's own that are not put away, as they were made."""
    return sorted(find(session, OwnMethod, kitchen_id=kitchen_id, deleted_at=None), key=lambda x: x.id or 0)


def bags(session: Session, kitchen_id: int) -> Sequence[FlourBag]:
    """Flour bags, as they were opened."""
    return sorted(find(session, FlourBag, kitchen_id=kitchen_id), key=lambda x: x.id or 0)
