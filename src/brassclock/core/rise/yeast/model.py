"""The yeast leaven: from a dough's composition to a course of rise, by the equations of `stepper`.

Basis 1 g flour, hours, C. Validity: 0 to 45 C, water .4 to 1.2 of flour, salt to 4 %, sugar to 20 %.
Equations, symbols and checks: docs/science.md, *Rise by yeast*.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.matter.dough import Dough
from brassclock.core.rise import gas
from brassclock.core.rise.yeast import stepper
from brassclock.core.rise.yeast.params import BLOOMED_READY, KINDS, PARAMS, STRENGTH_S

Array = NDArray[np.float64]
DT_H = 1 / 12
COARSE_DT_H = 1 / 6
course_stepper = Stepper(stepper.run, (stepper.cardinal, stepper.split, stepper.derivatives))


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

    def with_yeast(self, kind: str, share: float) -> Recipe:
        """The same dough with another dose of one yeast."""
        old = sum(w for _, w in self.yeast)
        return replace(self, yeast=((kind, share),), mass=self.mass - old + share)


def recipe_of(dough: Dough, strength: str, bloomed: bool = False) -> Recipe:
    """The recipe of a dough that has flour. `strength` is a key of STRENGTH_S."""
    f = dough.flour_g
    yeast = tuple((p.ingredient.id, p.mass_g / f) for p in dough.portions if p.ingredient.id in KINDS and p.mass_g > 0)
    return Recipe(
        yeast, dough.water_g / f, dough.salt_g / f, dough.sucrose_g / f, dough.hexose_g / f,
        dough.lactose_g / f, dough.total_g / f, STRENGTH_S[strength].value, bloomed,
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
        v["stretch"],
    ])  # fmt: skip
    sugar = v["h0"] + 1.053 * recipe.sucrose + recipe.hexose
    state = np.array([x0, sugar, v["m0"], v["d0"], ready, 0.0, 0.0, 0.0, mix_temp_c, 0.0])
    return Start(state, air, p, dry_ml, first_ml, recipe.water, pressure_pa)


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
        return np.asarray(1 + p[38] * p[20] * np.exp(-p[19] * self.state[:, 7]))


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
    return Course(start, out[:, 0], out[:, 1:11], out[:, 11], out[:, 12], out[:, 13].astype(np.int64))


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
