"""Cups, spoons, packets and pieces into grams, with the basis used and how far it may be off."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.units import Amount, Unreadable, unit_size

SCOOP_SPREAD_FRAC = Param(0.05, "-", 0.02, 0.1, Kind.JUDGEMENT, "one cook, one way of filling")
OWN_CUP_SPREAD_FRAC = Param(0.03, "-", 0.01, 0.05, Kind.JUDGEMENT, "a cup that the cook has weighed")
PINCH_OF_TSP = 1 / 16  # practice
BASES = ("spooned", "level", "dipped")


@dataclass(frozen=True)
class Grams:
    """A mass read from a measure, its likely low and high [g], and the basis in words."""

    mass_g: float
    low_g: float
    high_g: float
    basis: str


def cup_mass_g(ingredient: Ingredient, basis: str | float | None) -> tuple[float, float, float, str]:
    """(low, usual, high) grams of one US cup, and the basis in words; of the cook's own cup where that was weighed."""
    if isinstance(basis, int | float):
        spread = OWN_CUP_SPREAD_FRAC
        return basis * (1 - spread), float(basis), basis * (1 + spread), f"your cup, {basis:g} g"
    if basis in BASES:
        usual = {"spooned": ingredient.cup_low_g, "level": ingredient.cup_g, "dipped": ingredient.cup_high_g}[basis]
        return usual * (1 - SCOOP_SPREAD_FRAC), usual, usual * (1 + SCOOP_SPREAD_FRAC), f"{basis} cup, {usual:g} g"
    return ingredient.cup_low_g, ingredient.cup_g, ingredient.cup_high_g, f"cup, {ingredient.cup_g:g} g"


def grams(
    ingredient: Ingredient,
    amount: Amount,
    basis: str | float | None = None,
    own_ml: Mapping[str, float] | None = None,
) -> Grams:
    """Grams of `amount` of an ingredient; `own_ml` are the kitchen's cups and spoons where they are not US ones [mL].

    Spoons use the table's spoon weights unless the cook's own cup is the basis. Raises Unreadable
    when the ingredient is not counted in pieces, packets or pinches.
    """
    low, mid, high = amount.size(own_ml)
    if amount.dimension == "mass":
        return Grams(mid, low, high, "by weight")
    if amount.dimension == "count":
        return _counted(ingredient, amount, low, mid, high)
    cup_low, cup, cup_high, words = cup_mass_g(ingredient, basis)
    weighed = isinstance(basis, int | float)  # the cup that was weighed is the kitchen's own
    cup_ml = unit_size("cup", own_ml if weighed else None)
    spoon_g = {"tbsp": ingredient.tbsp_g, "tsp": ingredient.tsp_g}.get(amount.unit, 0.0)
    if spoon_g and basis is None:
        us_ml = unit_size(amount.unit)
        cup, words = spoon_g / us_ml * cup_ml, f"{amount.unit}, {spoon_g:g} g"
        ratio = cup / ingredient.cup_g if ingredient.cup_g else 1.0
        cup_low, cup_high = cup_low * ratio, cup_high * ratio
    if own_ml and amount.unit in own_ml and not weighed:
        words = f"{words.split(',')[0]} of {own_ml[amount.unit]:g} ml, {own_ml[amount.unit] / cup_ml * cup:.4g} g"
    return Grams(mid / cup_ml * cup, low / cup_ml * cup_low, high / cup_ml * cup_high, words)


def _counted(ingredient: Ingredient, amount: Amount, low: float, mid: float, high: float) -> Grams:
    if amount.unit == "pinch" and ingredient.piece_unit != "pinch":
        each = ingredient.tsp_g * PINCH_OF_TSP
        return Grams(mid * each, low * each * 0.5, high * each * 2, "a pinch is about 1/16 tsp")
    if ingredient.piece_g is None or ingredient.piece_unit != amount.unit:
        offered = f"{_plural(ingredient.piece_unit)}, " if ingredient.piece_unit else ""
        raise Unreadable(
            f"{ingredient.name} is not counted in {_plural(amount.unit)}. "
            f"Give {offered}grams, cups or spoons, as in 450 g."
        )
    each = ingredient.piece_g
    spread = {"pinch": 0.5, "packet": 0.02}.get(amount.unit, 0.12)  # judgement
    return Grams(mid * each, low * each * (1 - spread), high * each * (1 + spread), f"{amount.unit}, {each:g} g each")


def _plural(unit: str) -> str:
    return f"{unit}es" if unit.endswith(("ch", "sh", "s", "x")) else f"{unit}s"
