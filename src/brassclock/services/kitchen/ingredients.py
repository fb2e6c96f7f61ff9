"""Ingredients of a kitchen on the sheet: the table's, its own, and its bags of flour; kept, and put away."""

from __future__ import annotations

from collections.abc import Mapping

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.matter.own import pantry
from brassclock.services.app import App, NotFound
from brassclock.services.kitchen.pantry import ROW_ID, kit_of, own_rows, row_of
from brassclock.services.schemas.kitchen import BagRead, BagUpdate, IngredientRead, OwnIngredientCreate
from brassclock.store import pantry as pantry_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import FlourBag
from brassclock.store.tables import OwnIngredient as OwnRow


def known_rows(app: App, kitchen_id: int) -> Mapping[str, Ingredient]:
    """Every ingredient that a kitchen knows, by id: the table's and its own. Raises NotFound."""
    with app.read() as session:
        return kit_of(app.kitchen(session, kitchen_id), own_rows(session, kitchen_id)).rows


def ingredient_out(row: Ingredient, *, own: bool) -> IngredientRead:
    return IngredientRead(
        id=row.id,
        name=row.name,
        group=row.group,
        cup_g=row.cup_g,
        cup_low_g=row.cup_low_g,
        cup_high_g=row.cup_high_g,
        allergens=list(row.allergens),
        own=own,
    )


def list_ingredients(app: App, kitchen_id: int) -> list[IngredientRead]:
    """The table and the kitchen's own, own ones first, without those put away."""
    with app.read() as session:
        app.kitchen(session, kitchen_id)
        kept = [row_of(r) for r in pantry_rows.own_ingredients(session, kitchen_id) if r.deleted_at is None]
    return [ingredient_out(r, own=True) for r in kept] + [ingredient_out(r, own=False) for r in pantry().values()]


def add_ingredient(app: App, kitchen_id: int, given: OwnIngredientCreate) -> IngredientRead:
    """Keep an own ingredient. Raises InvalidInput when its composition cannot be."""
    with app.transaction(kitchen_id) as session:
        app.kitchen(session, kitchen_id)
        row = store_ingredient(session, kitchen_id, given)
        return ingredient_out(row_of(row), own=True)


def store_ingredient(session: Session, kitchen_id: int, given: OwnIngredientCreate) -> OwnRow:
    if given.kind == "starter":
        facts = {"hydration_frac": given.hydration_frac}
    else:
        facts = given.model_dump(exclude={"name", "kind", "hydration_frac"})
    row = OwnRow(kitchen_id=kitchen_id, name=given.name, kind=given.kind, facts=facts)
    row_of(row)
    return insert(session, row)


def put_away_ingredient(app: App, kitchen_id: int, ingredient_id: str, *, back: bool = False) -> None:
    """Take an own ingredient off the list, or put it back; bakes that hold it keep it."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        number = ingredient_id.removeprefix("own_")
        row = get(session, OwnRow, int(number)) if ROW_ID.fullmatch(number) else None
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"There is no own ingredient {ingredient_id[:40]} in this kitchen.")
        row.deleted_at = None if back else app.now(session, kitchen)
        session.add(row)


def bag_out(bag: FlourBag) -> BagRead:
    return BagRead(
        id=bag.id or 0, name=bag.name, ingredient=bag.ingredient, thirst_frac=bag.thirst_frac, times=bag.times
    )


def list_bags(session: Session, kitchen_id: int) -> list[BagRead]:
    return [bag_out(b) for b in pantry_rows.bags(session, kitchen_id)]


def open_bag(app: App, kitchen_id: int, given: BagUpdate) -> BagRead:
    """A bag of flour whose thirst will be learned."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        known = kit_of(kitchen, own_rows(session, kitchen_id)).rows
        row = known.get(given.ingredient)
        if row is None or row.flour_frac < 0.5:
            raise invalid(
                "/ingredient", f"“{given.ingredient[:40]}” is no flour here. Name one of the flours on the sheet."
            )
        bag = FlourBag(kitchen_id=kitchen_id, name=given.name, ingredient=given.ingredient)
        insert(session, bag)
        return bag_out(bag)
