"""A cook's own ingredients: built from a composition, so that everything downstream treats them like the table's."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from brassclock.core.errors import FieldFault, gather
from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.ingredients import Ingredient, table

GROUPS = ("flour", "liquid", "fat", "sugar", "salt", "leaven", "seed", "filling")
CP_J_GK_FROM = "order of Choi and Okos"
CP_J_GK = {
    "water": Param(4.18, "J/(g K)", 3.762, 4.598, Kind.PUBLISHED_FROM_MEMORY, CP_J_GK_FROM),
    "fat": Param(1.97, "J/(g K)", 1.773, 2.167, Kind.PUBLISHED_FROM_MEMORY, CP_J_GK_FROM),
    "protein": Param(1.90, "J/(g K)", 1.71, 2.09, Kind.PUBLISHED_FROM_MEMORY, CP_J_GK_FROM),
    "rest": Param(1.55, "J/(g K)", 1.395, 1.705, Kind.PUBLISHED_FROM_MEMORY, CP_J_GK_FROM),
}
FLOUR_MOISTURE_FRAC = Param(0.13, "-", 0.11, 0.15, Kind.PRACTICE, "flour as sold")
STARTER_ACID_FRAC = Param(0.007, "-", 0.004, 0.012, Kind.JUDGEMENT, "lactic acid in a ripe starter")
CUP_OF_ML, TBSP_OF_ML, TSP_OF_ML = 236.588, 14.787, 4.929


@dataclass(frozen=True)
class OwnIngredient:
    """A cook's own figures for an ingredient: percent by mass, grams of a US cup, points of water it drinks more."""

    id: str
    name: str
    group: str
    water_pct: float = 0.0
    fat_pct: float = 0.0
    sugar_pct: float = 0.0
    protein_pct: float = 0.0
    salt_pct: float = 0.0
    acid_pct: float = 0.0
    cup_g: float = 125.0
    absorption_pts: float = 0.0
    allergens: tuple[str, ...] = ()
    holds: tuple[str, ...] | None = None  # meat, fish, egg, dairy, plant; None: not said


def made(own: OwnIngredient) -> Ingredient:
    """The ingredient of a composition. Heat capacity is computed; water counts in liquids, fats and sugars only.

    Raises InvalidInput with every fault.
    """
    shares = {k: getattr(own, f"{k}_pct") for k in ("water", "fat", "sugar", "protein", "salt", "acid")}
    faults = [
        FieldFault(f"/{k}_pct", f"{v:g} % cannot be. Give 0 to 100 %.") for k, v in shares.items() if not 0 <= v <= 100
    ]
    total = sum(shares.values())
    if not faults and total > 100.5:
        faults.append(FieldFault("/water_pct", f"The parts add up to {total:.0f} %. They can be 100 % at most."))
    if own.group not in GROUPS:
        faults.append(FieldFault("/group", f"“{own.group[:30]}” is no group. Use one of {', '.join(GROUPS)}."))
    if not 20 <= own.cup_g <= 500:
        faults.append(FieldFault("/cup_g", f"A cup of {own.cup_g:g} g is not believable. Give 20 to 500 g."))
    gather(faults)
    f = {k: v / 100 for k, v in shares.items()}
    counted = f["water"] if own.group in ("liquid", "fat", "sugar", "leaven") else 0.0
    drinks = 2 * f["protein"] if own.group == "liquid" else 0.0
    rest = max(0.0, 1 - f["water"] - f["fat"] - f["protein"])
    cp = (
        CP_J_GK["water"] * f["water"]
        + CP_J_GK["fat"] * f["fat"]
        + CP_J_GK["protein"] * f["protein"]
        + CP_J_GK["rest"] * rest
    )
    tbsp, tsp = own.cup_g * TBSP_OF_ML / CUP_OF_ML, own.cup_g * TSP_OF_ML / CUP_OF_ML
    wet = own.group in ("liquid", "fat", "sugar")
    return Ingredient(
        id=own.id,
        name=own.name,
        group=own.group,
        cup_low_g=own.cup_g * 0.95,
        cup_g=own.cup_g,
        cup_high_g=own.cup_g * 1.05,
        tbsp_g=tbsp,
        tsp_g=tsp,
        water_frac=f["water"],
        fat_frac=f["fat"],
        sugar_frac=f["sugar"],
        protein_frac=f["protein"],
        salt_frac=f["salt"],
        acid_frac=f["acid"],
        cp_j_gk=cp,
        counted_water_frac=counted,
        effective_liquid_frac=counted + (0.4 * f["fat"] + 0.3 * f["sugar"] - drinks if wet else 0.0),
        absorption_offset_frac=own.absorption_pts / 100,
        allergens=own.allergens,
        flour_frac=1.0 if own.group == "flour" else 0.0,
        sugar_kind="sucrose" if own.group == "sugar" else "",
        piece_g=None,
        piece_unit="",
        contains=(),
        source="the cook's own",
        holds=own.holds,
    )


def own_starter(ingredient_id: str, name: str, hydration_frac: float) -> Ingredient:
    """A wheat starter at any hydration, split into its flour and water. Valid .4 to 1.5.

    >>> thick = own_starter("own_1", "Cellar starter", 0.8)
    >>> round(thick.flour_frac, 3), round(thick.counted_water_frac, 3)
    (0.556, 0.444)
    """
    if not 0.4 <= hydration_frac <= 1.5:
        gather([FieldFault("/hydration_frac", f"{hydration_frac:.0%} is no starter. Give 40 to 150 %.")])
    flour = 1 / (1 + hydration_frac)
    water = hydration_frac * flour
    base = table()["starter_100"]
    loose = base.cup_g * (1 + 0.08 * (1 - hydration_frac))
    per_cup = loose / base.cup_g
    return Ingredient(
        id=ingredient_id,
        name=name,
        group="leaven",
        cup_low_g=base.cup_low_g * per_cup,
        cup_g=loose,
        cup_high_g=base.cup_high_g * per_cup,
        tbsp_g=base.tbsp_g * per_cup,
        tsp_g=base.tsp_g * per_cup,
        water_frac=water + flour * FLOUR_MOISTURE_FRAC,
        fat_frac=flour * 0.012,
        sugar_frac=flour * 0.01,
        protein_frac=flour * 0.103,
        salt_frac=0.0,
        acid_frac=STARTER_ACID_FRAC,
        cp_j_gk=4.18 * water + 1.83 * flour,
        counted_water_frac=water,
        effective_liquid_frac=water,
        absorption_offset_frac=0.0,
        allergens=("gluten",),
        flour_frac=flour,
        sugar_kind="",
        piece_g=None,
        piece_unit="",
        contains=(),
        source="computed from its flour and water; acid: judgement",
    )


def pantry(own: Mapping[str, Ingredient] | None = None) -> Mapping[str, Ingredient]:
    """The table, with the cook's own ingredients on top."""
    return {**table(), **own} if own else table()
