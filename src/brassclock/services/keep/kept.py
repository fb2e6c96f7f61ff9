"""The breads of a bake as they come off the heat, for what is computed of their keeping."""

from __future__ import annotations

from typing import Any

from brassclock.core.matter.dough import Dough
from brassclock.core.terms import Intent

LOSS_FRAC: dict[Intent, float] = {  # practice: of the dough's mass, where no bake says it
    "pocket": 0.08, "blister": 0.09, "flat": 0.08, "thick": 0.06, "fried": 0.13, "rolls": 0.11,
}  # fmt: skip
BAKED_KG_M3: dict[Intent, float] = {  # judgement: of a baked bread, its pocket closed
    "pocket": 430.0, "blister": 360.0, "flat": 600.0, "thick": 420.0, "fried": 420.0, "rolls": 280.0,
}  # fmt: skip


def facts_of(dough: Dough) -> dict[str, Any]:
    """What of a dough slows or speeds its staling, by the names of `Kept`."""
    portions = dough.portions
    yeasted = any(p.ingredient.is_ferment for p in portions)
    return {
        "water_per_dry": dough.water_per_dry,
        "fat_frac": sum(p.mass_g * p.ingredient.fat_frac for p in portions) / dough.flour_g,
        "dairy": any({"milk", "egg"} & set(p.ingredient.allergens) for p in portions),
        "sour": any(p.ingredient.is_starter for p in portions),
        "chemical": not yeasted and any(p.ingredient.is_other_leaven for p in portions),
    }
