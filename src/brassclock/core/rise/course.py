"""From a dough's composition to the course of its rise, by the equations of `stepper`: yeast, a starter, or both.

Basis 1 g flour, hours, C. Validity: 0 to 45 C, water .4 to 1.2 of flour, salt to 4 %, sugar to 20 %.
Equations, symbols and checks: docs/science.md, *Rise by yeast* and *Sourdough*.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.matter.dough import Dough
from brassclock.core.rise import gas, stepper
from brassclock.core.rise.sourdough.acid import TABLE_MAX_MOL, TABLE_SIZE, buffer_of, ph_table
from brassclock.core.rise.sourdough.params import PARAMS as SOUR_PARAMS
from brassclock.core.rise.sourdough.params import WHOLEMEAL_BUFFER, seed_state
from brassclock.core.rise.yeast.params import BLOOMED_READY, KINDS, PARAMS, STRENGTH_S
from brassclock.core.weigh.soda import WHOLE_FLOURS

Array = NDArray[np.float64]
DT_H = 1 / 12
COARSE_DT_H = 1 / 6
course_stepper = Stepper(
    stepper.run, (stepper.cardinal, stepper.split, stepper.pace, stepper.acidity, stepper.derivatives)
)


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
    """What the model needs of a dough, per gram of flour."""

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

    def with_yeast(self, kind: str, share: float) -> Recipe:
        """The same dough with another dose of one yeast."""
        old = sum(w for _, w in self.yeast)
        return replace(self, yeast=((kind, share),), mass=self.mass - old + share)


@dataclass(frozen=True)
class Seed:
    """How a starter goes in: `peak`, `ripe` or `chilled` for so many days; its strength over a healthy one."""

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


def recipe_of(dough: Dough, strength: str, bloomed: bool = False, seed: Seed | None = None) -> Recipe:
    """The recipe of a dough that has flour. `strength` is a key of STRENGTH_S."""
    f = dough.flour_g
    yeast = tuple((p.ingredient.id, p.mass_g / f) for p in dough.portions if p.ingredient.id in KINDS and p.mass_g > 0)
    return Recipe(
        yeast, dough.water_g / f, dough.salt_g / f, dough.sucrose_g / f, dough.hexose_g / f,
        dough.lactose_g / f, dough.total_g / f, STRENGTH_S[strength].value, bloomed, sour_of(dough, seed),
    )  # fmt: skip


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


@dataclass(frozen=True)
class Piece:
    """A stretch of time with a linear ambient, one time constant, and what ends it."""

    hours: float
    ambient0_c: float
    ambient1_c: float
    tau_h: float | None = None
    knock_back_frac: float | None = None

    @classmethod
    def constant(cls, hours: float, ambient_c: float, tau_h: float | None = None, knock: float | None = None) -> Piece:
        return cls(hours, ambient_c, ambient_c, tau_h, knock)


@dataclass(frozen=True)
class Start:
    """A recipe made ready to run: initial state, air, parameters, and its gas-free and first volume [mL]."""

    state: Array
    air_mol: float
    p: Array
    dry_ml: float
    first_ml: float
    water: float
    pressure_pa: float


def start_of(recipe: Recipe, mix_temp_c: float, activity: float = 1.0, pressure_pa: float = SEA_LEVEL_PA) -> Start:
    """Initial state and parameter vector. `activity` scales the yeast's gas, and its growth by its root."""
    v = {name: param.value for name, param in PARAMS.items()}
    osm = osmolality(recipe)
    live = [(KINDS[k], share) for k, share in recipe.yeast]
    power = [share * kind.dry_matter_frac * kind.activity for kind, share in live]
    total = sum(power) or 1.0
    x0 = sum(power) * activity
    ready = sum(
        w * (max(kind.ready0, BLOOMED_READY) if recipe.bloomed else kind.ready0)
        for w, (kind, _) in zip(power, live, strict=True)
    ) / total  # fmt: skip
    f_osm = osmotic_factor(osm)
    if live:
        f_osm = sum(w * osmotic_factor(osm, kind.osm50_mult) for w, (kind, _) in zip(power, live, strict=True)) / total
    maltose = v["phi_m"] * sum(w * kind.maltose_mult for w, (kind, _) in zip(power, live, strict=True)) / total
    dry_ml = recipe.mass / v["rho_dry"]
    first_ml = dry_ml / (1 - v["phi0"])
    air = (first_ml - dry_ml) / gas.molar_volume_ml(mix_temp_c, pressure_pa)
    cards = (v["gas_t_min"], v["gas_t_opt"], v["gas_t_max"])
    grow = (v["growth_t_min"], v["growth_t_opt"], v["growth_t_max"])
    p = np.array([
        recipe.water, f_osm, maltose, x0, v["q30"], v["mu27"] * activity**0.5, v["growth_room"], v["tau_g"],
        v["kappa"], v["k_n"], v["k_h"], v["k_m"], v["yield_y"], v["k30"], v["amylase_ea"], v["tau_a"],
        v["k_d"], v["k_r"], v["leak_p"], v["k_s"], recipe.strength, dry_ml, first_ml, pressure_pa,
        v["heat"], recipe.mass, v["cp"], v["d58"], v["z_kill"], *cards, *grow,
        stepper.cardinal(30.0, *cards), stepper.cardinal(27.0, *grow), stepper.cardinal(25.0, *cards),
        v["stretch"], *_sour_params(recipe, v["phi_m"]),
    ])  # fmt: skip
    seed, fresh = (0.0, 0.0, 0.0, 0.0), 1.0
    if recipe.sour is not None:
        seed, fresh = _seed(recipe.sour, activity), 1 - recipe.sour.share
    sugar = v["h0"] * fresh + 1.053 * recipe.sucrose + recipe.hexose
    state = np.array([x0, sugar, v["m0"] * fresh, v["d0"] * fresh, ready, 0.0, 0.0, 0.0, mix_temp_c, 0.0, *seed])
    return Start(state, air, p, dry_ml, first_ml, recipe.water, pressure_pa)


def _seed(sour: Sour, activity: float) -> tuple[float, float, float, float]:
    """(wild yeast, bacteria, readiness, acid) that a starter brings, per gram of all flour."""
    v = {name: param.value for name, param in SOUR_PARAMS.items()}
    seed = seed_state(sour.state, sour.days_cold)
    strength = sour.share * seed.strength * sour.vitality * activity
    ripe = v["acid_ripe"] * (1 + (WHOLEMEAL_BUFFER - 1) * sour.whole_share)
    return strength * v["x_ripe"], strength, math.exp(-seed.lag), sour.share * seed.acid * ripe


def _sour_params(recipe: Recipe, phi_m: float) -> list[float]:
    """Parameters of the starter's share, in the stepper's order; all nothing without one."""
    if recipe.sour is None:
        return [0.0] * (stepper.TABLE - stepper.SOUR) + [0.0]
    v = {name: param.value for name, param in SOUR_PARAMS.items()}
    salt_of_water = 100 * recipe.salt / (recipe.water + 0.13 + recipe.salt)
    beta, ph0, _ = buffer_of(recipe.sour.whole_share)
    bacteria = (v["l_t_max"], v["l_x"], v["l_c"], v["l_mu"])
    return [
        1.0, v["km"], v["crowd"] * v["x_ripe"], v["q_acid"], v["co2_of_acid"], v["k_weak"], v["ph_weak"],
        max(0.0, 1 - salt_of_water / v["salt_y"]), max(0.0, 1 - (salt_of_water / v["salt_l"]) ** 2), v["u_max"],
        v["acetic"] * 1e6, v["y_t_max"], v["y_x"], v["y_c"], v["y_mu"], phi_m, stepper.pace(25.0, *bacteria), v["ph_stop"],
        v["ph_full"], beta, ph0, TABLE_MAX_MOL / (TABLE_SIZE - 1), *bacteria, v["weak_steep"], v["sugar_of_acid"],
        *ph_table(beta, ph0),
    ]  # fmt: skip


@dataclass(frozen=True)
class Course:
    """A simulated rise. Arrays run over time rows; a knock-back gives two rows at one hour."""

    start: Start
    h: Array
    state: Array
    gas_ml: Array
    air_mol: Array
    piece: NDArray[np.int64]

    @property
    def volume_ml(self) -> Array:
        return self.start.dry_ml + self.gas_ml

    @property
    def expansion(self) -> Array:
        """E: volume over the volume just after mixing [-]."""
        return self.volume_ml / self.start.first_ml

    @property
    def temp_c(self) -> Array:
        return self.state[:, 8]

    @property
    def co2_made_mol(self) -> Array:
        return self.state[:, 9]

    @property
    def capacity_expansion(self) -> Array:
        """E_m: the largest expansion the dough can hold at its age [-]."""
        p = self.start.p
        return np.asarray(1 + p[38] * p[20] * np.exp(-self.state[:, 7]))

    @property
    def acid_mol(self) -> Array:
        """Acid [mol per g flour]; nothing without a starter."""
        return self.state[:, 13]


def course(start: Start, pieces: Sequence[Piece], dt_h: float = DT_H) -> Course:
    """Run a start through its pieces. Step error in volume ratio at 5 min is below 1e-4."""
    rows = np.array([
        (q.hours, q.ambient0_c, q.ambient1_c, q.tau_h or 0.0, -1.0 if q.knock_back_frac is None else q.knock_back_frac)
        for q in pieces
    ])  # fmt: skip
    room = int(np.sum(np.ceil(rows[:, 0] / dt_h))) + 2 * len(rows) + 2
    out = np.zeros((room, stepper.COLUMNS))
    n = course_stepper(start.state, start.air_mol, rows, start.p, dt_h, out)
    out = out[:n]
    return Course(start, out[:, 0], out[:, 1:15], out[:, 15], out[:, 16], out[:, 17].astype(np.int64))


def first_passage_h(h: Array, trace: Array, level: float) -> float | None:
    """First hour at which a trace reaches `level` from below, linear between rows; None if never."""
    above = np.nonzero(trace >= level)[0]
    if len(above) == 0:
        return None
    i = int(above[0])
    if i == 0:
        return float(h[0])
    rise = trace[i] - trace[i - 1]
    if rise <= 0:
        return float(h[i])
    return float(h[i - 1] + (h[i] - h[i - 1]) * (level - trace[i - 1]) / rise)


def warm() -> bool:
    """Compile the stepper (or load it from the cache)."""
    start = start_of(Recipe((("yeast_instant", 0.01),), 0.62, 0.02, mass=1.65), 24.0)
    pieces = np.array([[0.5, 24.0, 24.0, 0.0, -1.0]])
    return course_stepper.warm(start.state, start.air_mol, pieces, start.p, DT_H, np.zeros((20, stepper.COLUMNS)))
