"""Input of the rise model: shares per gram of flour, and the state of its leavens."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.matter.dough import Dough, dough_of
from brassclock.core.rise.chemical.model import pools_of
from brassclock.core.rise.yeast.params import KINDS, PARAMS, STRENGTH_S
from brassclock.core.weigh.soda import WHOLE_FLOURS


@dataclass(frozen=True)
class Sour:
    """A starter in the dough: its flour over all flour, its state, its strength over ripe, the share of wholemeal."""

    share: float
    state: str = "peak"
    vitality: float = 1.0
    whole_share: float = 0.0
    days_cold: float = 3.0


@dataclass(frozen=True)
class Recipe:
    """Composition of a dough for the model, per gram of flour."""

    yeast: tuple[tuple[str, float], ...]
    water: float
    salt: float
    sucrose: float = 0.0
    hexose: float = 0.0
    lactose: float = 0.0
    mass: float = 0.0
    strength: float = 0.75
    bloomed: bool = False
    sour: Sour | None = None
    pools: tuple[tuple[str, tuple[float, ...]], ...] = ()  # soda, then its acids, as in `chemical.reaction`

    def with_yeast(self, kind: str, share: float) -> Recipe:
        """The same dough with another dose of one yeast."""
        old = sum(w for _, w in self.yeast)
        return replace(self, yeast=((kind, share),), mass=self.mass - old + share)


@dataclass(frozen=True)
class Seed:
    """State of a starter as it goes in: `peak`, `ripe` or `chilled` for so many days; its strength over a healthy
    one."""

    state: str = "peak"
    vitality: float = 1.0
    days_cold: float = 3.0


def sour_of(dough: Dough, seed: Seed | None = None) -> Sour | None:
    """The starter's share of a dough; None without one. Several starters count as one."""
    seed = seed or Seed()
    inside = sum(p.mass_g * p.ingredient.flour_frac for p in dough.portions if p.ingredient.is_starter)
    if not inside or not dough.flour_g:
        return None
    whole = sum(p.mass_g * p.ingredient.flour_frac for p in dough.portions if p.ingredient.id in WHOLE_FLOURS)
    return Sour(inside / dough.flour_g, seed.state, seed.vitality, whole / dough.flour_g, seed.days_cold)


def recipe_of(
    dough: Dough, strength: str, bloomed: bool = False, seed: Seed | None = None, powder: str = "double"
) -> Recipe:
    """The recipe of a dough that has flour. `strength` is a key of STRENGTH_S."""
    f = dough.flour_g
    acids, pools = pools_of(dough, powder, starters=False)
    yeast = tuple((p.ingredient.id, p.mass_g / f) for p in dough.portions if p.ingredient.id in KINDS and p.mass_g > 0)
    return Recipe(
        yeast,
        dough.water_g / f,
        dough.salt_g / f,
        dough.sucrose_g / f,
        dough.hexose_g / f,
        dough.lactose_g / f,
        dough.total_g / f,
        STRENGTH_S[strength].value,
        bloomed,
        sour_of(dough, seed),
        tuple(zip(("soda", *acids), (tuple(row) for row in pools.tolist()), strict=True)),
    )


def osmolality(recipe: Recipe) -> float:
    """Dissolved particles in the dough's water [osmol/kg].

    >>> round(osmolality(Recipe((), .6, .02)), 4)
    1.1408
    """
    particles = 2 * recipe.salt / 58.44 + 2 * recipe.sucrose / 342.3 + recipe.hexose / 180.16
    return 1000 * (particles + recipe.lactose / 342.3) / recipe.water


def osmotic_factor(osmol_kg: float, osm50_mult: float = 1.0) -> float:
    """Share of its rate that yeast keeps in that water [-]."""
    half = PARAMS["osm50"].value * osm50_mult
    return float(1 / (1 + (osmol_kg / half) ** PARAMS["osm_n"].value))


def dosed(dough: Dough, factor: float) -> Dough:
    """The dough with its yeast and starter times a factor."""
    if factor == 1.0:
        return dough
    return dough_of(replace(p, mass_g=p.mass_g * factor) if p.ingredient.is_ferment else p for p in dough.portions)


@dataclass(frozen=True)
class Batch:
    """A dough as it was mixed: its strength (a key of STRENGTH_S), temperature [C], height [m], and its leavens'
    state."""

    dough: Dough
    strength: str
    mix_temp_c: float
    bloomed: bool = False
    altitude_m: float = 0.0
    seed: Seed | None = None
    powder: str = "double"

    @cached_property
    def recipe(self) -> Recipe:
        """The dough per gram of flour, as the rise model takes it."""
        return recipe_of(self.dough, self.strength, self.bloomed, self.seed, self.powder)

    def dosed(self, factor: float) -> Batch:
        """The same with its yeast and starter times a factor."""
        return replace(self, dough=dosed(self.dough, factor))

    @property
    def pressure_pa(self) -> float:
        """Air pressure at the kitchen's altitude [Pa]."""
        return pressure_at_altitude_pa(self.altitude_m)
