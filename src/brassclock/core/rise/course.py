"""From a dough's composition to the course of its rise, by the equations of `stepper`: yeast, a starter, soda, or all.

Basis 1 g flour, hours, C. Validity: 0 to 45 C, water .4 to 1.2 of flour, salt to 4 %, sugar to 20 %.
Equations, symbols and checks: docs/science.md, *Rise by yeast* and *Sourdough*.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.rise import gas, stepper
from brassclock.core.rise.chemical import reaction
from brassclock.core.rise.chemical.model import reactor
from brassclock.core.rise.chemical.params import PARAMS as CHEMICAL
from brassclock.core.rise.chemical.reaction import LEFT, SODA
from brassclock.core.rise.recipe import Recipe, Sour, osmolality, osmotic_factor
from brassclock.core.rise.sourdough.acid import TABLE_MAX_MOL, TABLE_SIZE, buffer_of, ph_table
from brassclock.core.rise.sourdough.params import PARAMS as SOUR_PARAMS
from brassclock.core.rise.sourdough.params import WHOLEMEAL_BUFFER, seed_state
from brassclock.core.rise.state import (
    ACID,
    BACTERIA,
    CO2,
    COLUMNS,
    FIRST_STATE,
    GAS_READY,
    GROWTH_READY,
    HOUR,
    MADE,
    MALTOSE,
    ROW_AIR,
    ROW_GAS,
    ROW_PIECE,
    ROW_TO_COME,
    SOUR_READY,
    STARCH,
    STATES,
    SUGAR,
    TEMP,
    WEAKENING,
    WILD,
    YEAST,
    Kinetics,
    Pieces,
)
from brassclock.core.rise.yeast.params import BLOOMED_READY, KINDS, PARAMS

Array = NDArray[np.float64]
DT_H = 1 / 12
COARSE_DT_H = 1 / 6
course_stepper = Stepper(stepper.run)
SOUR_KINETICS = Kinetics._fields[Kinetics._fields.index("sour") : Kinetics._fields.index("ph_table")]


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
    """A dough ready to run: state, air [mol], soda and acids, parameters, gas-free and first volume [mL], all per g
    flour.

    `fresh` and `fresh_pools` are its composition as weighed, before anything worked or reacted; `acids` names the
    pools.
    """

    state: Array
    air_mol: float
    pools: Array
    p: Kinetics
    dry_ml: float
    first_ml: float
    water: float
    mass: float
    pressure_pa: float
    acids: tuple[str, ...]
    fresh: Array
    fresh_pools: Array


NO_POOLS = (("soda", (0.0,) * reaction.WIDTH),)


def start_of(recipe: Recipe, mix_temp_c: float, activity: float = 1.0, pressure_pa: float = SEA_LEVEL_PA) -> Start:
    """Initial state and parameter vector. `activity` scales the yeast's gas, and its growth by its root."""
    v = {name: param.value for name, param in PARAMS.items()}
    osm = osmolality(recipe)
    live = [(KINDS[k], share) for k, share in recipe.yeast]
    power = [share * kind.dry_matter_frac * kind.activity for kind, share in live]
    total = sum(power) or 1.0
    x0 = sum(power) * activity
    ready = (
        sum(
            w * (max(kind.ready0, BLOOMED_READY) if recipe.bloomed else kind.ready0)
            for w, (kind, _) in zip(power, live, strict=True)
        )
        / total
    )
    f_osm = osmotic_factor(osm)
    if live:
        f_osm = sum(w * osmotic_factor(osm, kind.osm50_mult) for w, (kind, _) in zip(power, live, strict=True)) / total
    maltose = v["phi_m"] * sum(w * kind.maltose_mult for w, (kind, _) in zip(power, live, strict=True)) / total
    dry_ml = recipe.mass / v["rho_dry"]
    first_ml = dry_ml / (1 - v["phi0"])
    air = (first_ml - dry_ml) / gas.molar_volume_ml(mix_temp_c, pressure_pa)
    cards = (v["gas_t_min"], v["gas_t_opt"], v["gas_t_max"])
    grow = (v["growth_t_min"], v["growth_t_opt"], v["growth_t_max"])
    p = Kinetics.of(
        water=recipe.water,
        f_osm=f_osm,
        maltose_pace=maltose,
        yeast0=x0,
        q30=v["q30"],
        mu27=v["mu27"] * activity**0.5,
        growth_room=v["growth_room"],
        tau_g=v["tau_g"],
        kappa=v["kappa"],
        k_n=v["k_n"],
        k_h=v["k_h"],
        k_m=v["k_m"],
        yield_y=v["yield_y"],
        k30=v["k30"],
        amylase_ea=v["amylase_ea"],
        tau_a=v["tau_a"],
        k_d=v["k_d"],
        k_r=v["k_r"],
        leak_p=v["leak_p"],
        k_s=v["k_s"],
        strength=recipe.strength,
        dry_ml=dry_ml,
        first_ml=first_ml,
        pressure_pa=float(pressure_pa),
        heat=v["heat"],
        mass=recipe.mass,
        cp=v["cp"],
        d58=v["d58"],
        z_kill=v["z_kill"],
        gas_t_min=v["gas_t_min"],
        gas_t_opt=v["gas_t_opt"],
        gas_t_max=v["gas_t_max"],
        growth_t_min=v["growth_t_min"],
        growth_t_opt=v["growth_t_opt"],
        growth_t_max=v["growth_t_max"],
        gas30=stepper.cardinal(30.0, *cards),
        growth27=stepper.cardinal(27.0, *grow),
        gas25=stepper.cardinal(25.0, *cards),
        stretch=v["stretch"],
        **_sour_params(recipe, v["phi_m"]),
    )
    seed, fresh = (0.0, 0.0, 0.0, 0.0), 1.0
    if recipe.sour is not None:
        seed, fresh = _seed(recipe.sour, activity), 1 - recipe.sour.share
    sugar = v["h0"] * fresh + 1.053 * recipe.sucrose + recipe.hexose
    state = np.array([x0, sugar, v["m0"] * fresh, v["d0"] * fresh, ready, 0.0, 0.0, 0.0, mix_temp_c, 0.0, *seed])
    rows = recipe.pools or NO_POOLS
    pools = np.array([row for _, row in rows])
    start = Start(
        state,
        air,
        pools,
        p,
        dry_ml,
        first_ml,
        recipe.water,
        recipe.mass,
        pressure_pa,
        tuple(name for name, _ in rows),
        state.copy(),
        pools.copy(),
    )
    return _mixed(start) if pools[SODA, LEFT] > 0 else start


def _mixed(start: Start) -> Start:
    """Mixing: soda meets acid for some minutes, the dough keeps the gas fraction that mixing leaves, and counting
    starts."""
    y, pools = start.state.copy(), start.pools.copy()
    stepper.meet(y, pools, float(y[TEMP]), CHEMICAL["mix_min"].value, start.p.sour)
    room = start.first_ml - start.dry_ml
    air = start.air_mol
    held, in_gas = stepper.split(y[CO2], air, y[TEMP], start.water, start.pressure_pa)
    if held > room:
        air *= room / held
        y[CO2] -= in_gas * (1 - room / held)
    else:  # air beaten in until the bubbles fill their share: the inverse of the gas split in the air
        v = gas.molar_volume_ml(float(y[TEMP]), start.pressure_pa)
        dissolves = start.water * gas.co2_ostwald(float(y[TEMP]))
        air = (room - y[CO2] * v * (1 - dissolves / (room + dissolves))) / v
    y[MADE] = 0.0
    return replace(start, state=y, pools=pools, air_mol=float(air))


def joined(before: Start, end: End, whole: Recipe, old_flour: float, temp_c: float, activity: float) -> Start:
    """A dough after something joined it: `whole` is all of it, `old_flour` the share of its flour that was there
    before.

    What was there is carried over by mass, the newcomers as they were weighed; readiness by living yeast; mixing
    then sets the gas. Conservation only, never set beside practice (docs/science.md, *Two-stage doughs*).
    """
    new = start_of(replace(whole, pools=()), temp_c, activity, before.pressure_pa)
    rows = dict(whole.pools or NO_POOLS)
    fresh_pools = np.array(list(rows.values()))
    fresh, q, y = new.fresh, old_flour, new.fresh.copy()
    carried = [YEAST, SUGAR, MALTOSE, STARCH, WILD, BACTERIA, ACID]
    y[carried] = q * end.state[carried] + (fresh[carried] - q * before.fresh[carried])
    y[CO2], y[WEAKENING] = q * end.state[CO2], q * end.state[WEAKENING]
    for living, ready in ((YEAST, GAS_READY), (YEAST, GROWTH_READY), (WILD, SOUR_READY)):
        old, young = q * end.state[living], max(fresh[living] - q * before.fresh[living], 0.0)
        was = q * before.fresh[living]
        young_ready = (fresh[living] * fresh[ready] - was * before.fresh[ready]) / young if young > 1e-12 else 0.0
        y[ready] = (old * end.state[ready] + young * young_ready) / (old + young) if old + young > 0 else fresh[ready]
    pools = fresh_pools.copy()
    for i, name in enumerate(before.acids):
        at = list(rows).index(name)
        used = 1 if name == "soda" else 3
        pools[at, :used] += q * (end.pools[i, :used] - before.fresh_pools[i, :used])
    pools[SODA, LEFT], pools[1:, :3] = max(pools[SODA, LEFT], 0.0), np.maximum(pools[1:, :3], 0.0)
    start = replace(
        new, state=y, air_mol=q * end.air_mol, pools=pools, acids=tuple(rows), fresh=fresh, fresh_pools=fresh_pools
    )
    return _mixed(start)


def _seed(sour: Sour, activity: float) -> tuple[float, float, float, float]:
    """(wild yeast, bacteria, readiness, acid) that a starter brings, per gram of all flour."""
    v = {name: param.value for name, param in SOUR_PARAMS.items()}
    seed = seed_state(sour.state, sour.days_cold)
    strength = sour.share * seed.strength * sour.vitality * activity
    ripe = v["acid_ripe"] * (1 + (WHOLEMEAL_BUFFER - 1) * sour.whole_share)
    return strength * v["x_ripe"], strength, math.exp(-seed.lag), sour.share * seed.acid * ripe


def _sour_params(recipe: Recipe, phi_m: float) -> dict[str, Any]:
    """Parameters of the starter's share; all nothing without one."""
    if recipe.sour is None:
        return dict.fromkeys(SOUR_KINETICS, 0.0) | {"ph_table": np.zeros(1)}
    v = {name: param.value for name, param in SOUR_PARAMS.items()}
    salt_of_water = 100 * recipe.salt / (recipe.water + 0.13 + recipe.salt)
    beta, ph0, _ = buffer_of(recipe.sour.whole_share)
    same = (
        "km",
        "q_acid",
        "co2_of_acid",
        "k_weak",
        "ph_weak",
        "u_max",
        "ph_stop",
        "ph_full",
        "weak_steep",
        "sugar_of_acid",
    )
    organisms = ("y_t_max", "y_x", "y_c", "y_mu", "l_t_max", "l_x", "l_c", "l_mu")
    return {name: v[name] for name in (*same, *organisms)} | {
        "sour": 1.0,
        "crowd": v["crowd"] * v["x_ripe"],
        "salt_y": max(0.0, 1 - salt_of_water / v["salt_y"]),
        "salt_l": max(0.0, 1 - (salt_of_water / v["salt_l"]) ** 2),
        "acetic": v["acetic"] * 1e6,
        "wild_maltose": phi_m,
        "pace25": stepper.pace(25.0, v["l_t_max"], v["l_x"], v["l_c"], v["l_mu"]),
        "buffer": beta,
        "ph0": ph0,
        "acid_step": TABLE_MAX_MOL / (TABLE_SIZE - 1),
        "ph_table": np.array(ph_table(beta, ph0)),
    }


@dataclass(frozen=True)
class End:
    """Where a course ends: state, air [mol], soda and acids, ready to go on or to be joined."""

    state: Array
    air_mol: float
    pools: Array


@dataclass(frozen=True)
class RiseTrace:
    """A simulated rise. Arrays run over time rows; a knock-back gives two rows at one hour.

    `starts` holds one start per stretch between joins, `stretch` which of them a row belongs to.
    """

    starts: tuple[Start, ...]
    h: Array
    state: Array
    gas_ml: Array
    air_mol: Array
    piece: NDArray[np.int64]
    to_come_mol: Array
    stretch: NDArray[np.int64]
    end: End

    @property
    def start(self) -> Start:
        return self.starts[-1]

    def _of_start(self, name: str) -> Array:
        return np.array([getattr(s, name) for s in self.starts])[self.stretch]

    @property
    def volume_ml(self) -> Array:
        return np.asarray(self._of_start("dry_ml") + self.gas_ml)

    @property
    def expansion(self) -> Array:
        """E: volume over the volume just after mixing [-]."""
        return np.asarray(self.volume_ml / self._of_start("first_ml"))

    @property
    def gas_ml_per_100g(self) -> Array:
        """Gas [mL] in 100 g of dough."""
        return np.asarray(100 * self.gas_ml / self._of_start("mass"))

    @property
    def temp_c(self) -> Array:
        return self.state[:, TEMP]

    @property
    def co2_made_mol(self) -> Array:
        return self.state[:, MADE]

    @property
    def weakening(self) -> Array:
        return self.state[:, WEAKENING]

    @property
    def capacity_expansion(self) -> Array:
        """E_m: the largest expansion the dough can hold at its age [-]."""
        p = self.start.p
        return np.asarray(1 + p.stretch * p.strength * np.exp(-self.weakening))

    @property
    def acid_mol(self) -> Array:
        """Acid [mol per g flour]; nothing without a starter."""
        return self.state[:, ACID]

    def then(self, later: RiseTrace) -> RiseTrace:
        """This course with a later one after it."""
        return RiseTrace(
            (*self.starts, *later.starts),
            np.concatenate([self.h, self.h[-1] + later.h]),
            np.concatenate([self.state, later.state]),
            np.concatenate([self.gas_ml, later.gas_ml]),
            np.concatenate([self.air_mol, later.air_mol]),
            np.concatenate([self.piece, self.piece[-1] + 1 + later.piece]),
            np.concatenate([self.to_come_mol, later.to_come_mol]),
            np.concatenate([self.stretch, len(self.starts) + later.stretch]),
            later.end,
        )


def pieces_of(pieces: Sequence[Piece]) -> Pieces:
    """The stretches as the integrator takes them."""
    columns = zip(
        *(
            (
                q.hours,
                q.ambient0_c,
                q.ambient1_c,
                q.tau_h or 0.0,
                -1.0 if q.knock_back_frac is None else q.knock_back_frac,
            )
            for q in pieces
        ),
        strict=True,
    )
    return Pieces(*(np.array(column, dtype=float) for column in columns))


def course(start: Start, pieces: Sequence[Piece], dt_h: float = DT_H) -> RiseTrace:
    """Run a start through its pieces. Step error in volume ratio at 5 min is below 1e-4."""
    rows = pieces_of(pieces)
    room = int(np.sum(np.ceil(rows.hours / dt_h))) + 2 * len(pieces) + 2
    out = np.zeros((room, COLUMNS))
    y, pools = start.state.copy(), start.pools.copy()
    n, air = course_stepper(y, start.air_mol, pools, rows, start.p, dt_h, out)
    out = out[:n]
    return RiseTrace(
        (start,),
        out[:, HOUR],
        out[:, FIRST_STATE : FIRST_STATE + STATES],
        out[:, ROW_GAS],
        out[:, ROW_AIR],
        out[:, ROW_PIECE].astype(np.int64),
        out[:, ROW_TO_COME],
        np.zeros(n, dtype=np.int64),
        End(y, float(air), pools),
    )


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
    """Compile the steppers (or load them from the cache)."""
    start = start_of(Recipe((("yeast_instant", 0.01),), 0.62, 0.02, mass=1.65), 24.0)
    pieces = pieces_of([Piece.constant(0.5, 24.0)])
    rows = np.zeros((20, COLUMNS))
    fast = course_stepper.warm(start.state.copy(), start.air_mol, start.pools.copy(), pieces, start.p, DT_H, rows)
    return reactor.warm(start.pools.copy(), 24.0, 1.0) and fast
