"""The kitchen's own ingredients and how it measures: what a formula is read with."""

from __future__ import annotations

import re
from collections.abc import Mapping

from sqlmodel import Session

from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.matter.own import OwnIngredient, made, own_starter, pantry
from brassclock.core.units import METRIC_SPOONS_ML
from brassclock.core.weigh.lines import Kit
from brassclock.store import pantry as pantry_rows
from brassclock.store.tables import Kitchen
from brassclock.store.tables import OwnIngredient as OwnRow

ROW_ID = re.compile(r"[0-9]{1,9}")


def row_of(row: OwnRow) -> Ingredient:
    """The core's ingredient of a stored one."""
    key = f"own_{row.id}"
    if row.kind == "starter":
        return own_starter(key, row.name, float(row.facts["hydration_frac"]))
    holds = row.facts.get("holds")
    facts = {**row.facts, "allergens": tuple(row.facts.get("allergens", ())), "holds": tuple(holds) if holds else None}
    return made(OwnIngredient(id=key, name=row.name, **facts))


def own_rows(session: Session, kitchen_id: int) -> dict[str, Ingredient]:
    """Own ingredients by id, those put away too."""
    return {f"own_{r.id}": row_of(r) for r in pantry_rows.own_ingredients(session, kitchen_id)}


def kit_of(kitchen: Kitchen, own: Mapping[str, Ingredient]) -> Kit:
    """Measures of a kitchen."""
    told = kitchen.flour_basis
    basis: str | float | None = float(told) if told and re.fullmatch(r"[0-9]+(\.[0-9]*)?", told) else told
    own_ml = dict(METRIC_SPOONS_ML) if kitchen.spoons == "metric" else {}
    own_ml |= {unit: ml for unit in METRIC_SPOONS_ML if (ml := getattr(kitchen, f"{unit}_ml")) is not None}
    return Kit(pantry(own), own_ml, basis, kitchen.scale_step_g, kitchen.powder)
