"""A dough made of ingredient masses: its flour, water, salt, sugars, solids, and its density.

Everything downstream (rise, heat, puff) reads a `Dough`; nothing reads recipe lines twice.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.ingredients import Ingredient, table
from brassclock.core.matter.spoiling import kept_cold

GAS_FREE_KG_M3 = Param(1250.0, "kg/m3", 1200, 1300, Kind.PUBLISHED_FROM_MEMORY, "dough without gas: Campbell 1990s")
SHEET_GAS_FRAC = Param(0.12, "-", 0.03, 0.3, Kind.JUDGEMENT, "gas left in a rolled sheet")


def dough_density_kg_m3(gas_frac: float) -> float:
    """Density of dough holding `gas_frac` of its volume as gas (0 to 0.95). Published order, from memory.

    >>> dough_density_kg_m3(0.12)
    1100.0
    """
    return GAS_FREE_KG_M3 * (1 - gas_frac)


@dataclass(frozen=True)
class Portion:
    """A mass of one ingredient [g]."""

    ingredient: Ingredient
    mass_g: float


@dataclass(frozen=True)
class Dough:
    """Totals of a dough. Fractions are per gram of flour unless a name says otherwise."""

    portions: tuple[Portion, ...]
    total_g: float
    flour_g: float
    water_g: float
    effective_liquid_g: float
    salt_g: float
    sucrose_g: float
    hexose_g: float
    lactose_g: float
    all_water_g: float
    allergens: tuple[str, ...]

    @property
    def hydration_frac(self) -> float | None:
        """True hydration: counted water (dairy and egg included) over flour. None without flour."""
        return self.water_g / self.flour_g if self.flour_g else None

    @property
    def effective_hydration_frac(self) -> float | None:
        """Effective water over flour, as a hand feels it: water plus part of fat and sugar, less what the flour
        drinks (judgement)."""
        if not self.flour_g:
            return None
        offset = sum(p.mass_g * p.ingredient.flour_frac * p.ingredient.absorption_offset_frac for p in self.portions)
        return (self.effective_liquid_g - offset) / self.flour_g

    @property
    def water_per_dry(self) -> float:
        """All water over dry solids [kg/kg], flour moisture included: the start of a bake."""
        dry_g = self.total_g - self.all_water_g
        return self.all_water_g / dry_g if dry_g > 0 else 0.0

    @property
    def fat_frac(self) -> float:
        """Fat of every ingredient over flour. Needs flour."""
        return sum(p.mass_g * p.ingredient.fat_frac for p in self.portions) / self.flour_g

    @property
    def has_flour_and_water(self) -> bool:
        """True if it is a dough at all."""
        return bool(self.flour_g and self.water_g)

    @property
    def has_ferment(self) -> bool:
        """True with yeast or a starter in it."""
        return any(p.ingredient.is_ferment for p in self.portions)

    @property
    def has_soda(self) -> bool:
        """True with soda, powder or a flour that holds them."""
        return any(p.ingredient.is_other_leaven for p in self.portions)

    @property
    def spoils(self) -> bool:
        """True if dairy, egg, meat or cooked potato in it sets a count of warm hours."""
        return any(kept_cold(p.ingredient) for p in self.portions)

    def mass_of(self, ingredient_id: str) -> float:
        """Grams of one ingredient."""
        return sum(p.mass_g for p in self.portions if p.ingredient.id == ingredient_id)


def dough_of(portions: Iterable[Portion]) -> Dough:
    """The totals of these portions.

    >>> rows = table()
    >>> lean = dough_of([Portion(rows["plain_flour"], 500), Portion(rows["yoghurt_whole"], 300),
    ...                  Portion(rows["oil"], 40)])
    >>> round(lean.water_per_dry, 2)
    0.64
    """
    parts = tuple(portions)

    def total(share: str) -> float:
        return sum(p.mass_g * float(getattr(p.ingredient, share)) for p in parts)

    def sugar(kind: str) -> float:
        return sum(p.mass_g * p.ingredient.sugar_frac for p in parts if p.ingredient.sugar_kind == kind)

    allergens = {name: None for p in parts for name in p.ingredient.allergens}
    return Dough(
        portions=parts,
        total_g=sum(p.mass_g for p in parts),
        flour_g=total("flour_frac"),
        water_g=total("counted_water_frac"),
        effective_liquid_g=total("effective_liquid_frac"),
        salt_g=total("salt_frac"),
        sucrose_g=sugar("sucrose"),
        hexose_g=sugar("hexose"),
        lactose_g=sugar("lactose"),
        all_water_g=total("water_frac"),
        allergens=tuple(allergens),
    )


def dough_of_masses(masses_g: Iterable[tuple[str, float]]) -> Dough:
    """The same from (ingredient id, grams); ids must be known."""
    rows = table()
    return dough_of(Portion(rows[key], mass) for key, mass in masses_g)
