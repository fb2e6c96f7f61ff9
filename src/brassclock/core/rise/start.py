"""A dough as it stands after mixing, and where a course of it ended."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

import numpy as np

from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.rise import gas, stepper
from brassclock.core.rise.chemical import reaction
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
    GAS_READY,
    GROWTH_READY,
    MADE,
    MALTOSE,
    SOUR_READY,
    STARCH,
    SUGAR,
    TEMP,
    WEAKENING,
    WILD,
    YEAST,
    Array,
    Kinetics,
)
from brassclock.core.rise.yeast.params import BLOOMED_READY, KINDS, PARAMS, YeastKind

SOUR_KINETICS = Kinetics._fields[Kinetics._fields.index("sour") : Kinetics._fields.index("ph_table")]


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


class Living(NamedTuple):
    """Yeast of a recipe: working dry matter [g per g flour], readiness 0 to 1, osmotic factor, and its pace on maltose
    over that of the reference yeast."""

    amount: float
    ready: float
    osmotic: float
    maltose: float


def _living(recipe: Recipe, activity: float) -> Living:
    """The yeast of a recipe: each kind's share by its dry matter and activity; what is not its amount is their mean."""
    kinds = [(KINDS[k], share) for k, share in recipe.yeast]
    power = [share * kind.dry_matter_frac * kind.activity for kind, share in kinds]
    total = sum(power) or 1.0

    def mean(of: Callable[[YeastKind], float]) -> float:
        return sum(w * of(kind) for w, (kind, _) in zip(power, kinds, strict=True)) / total

    osm = osmolality(recipe)
    return Living(
        amount=sum(power) * activity,
        ready=mean(lambda kind: max(kind.ready0, BLOOMED_READY) if recipe.bloomed else kind.ready0),
        osmotic=mean(lambda kind: osmotic_factor(osm, kind.osm50_mult)) if kinds else osmotic_factor(osm),
        maltose=mean(lambda kind: kind.maltose_mult),
    )


def _kinetics(recipe: Recipe, yeast: Living, activity: float, dry_ml: float, pressure_pa: float) -> Kinetics:
    """Parameters of the course of a recipe; those that carry the name of a published one are that one."""
    v = {name: param.value for name, param in PARAMS.items()}
    cards = (v["gas_t_min"], v["gas_t_opt"], v["gas_t_max"])
    grow = (v["growth_t_min"], v["growth_t_opt"], v["growth_t_max"])
    own = {
        "water": recipe.water,
        "f_osm": yeast.osmotic,
        "maltose_pace": v["phi_m"] * yeast.maltose,
        "yeast0": yeast.amount,
        "mu27": v["mu27"] * activity**0.5,
        "strength": recipe.strength,
        "dry_ml": dry_ml,
        "first_ml": dry_ml / (1 - v["phi0"]),
        "pressure_pa": float(pressure_pa),
        "mass": recipe.mass,
        "gas30": stepper.cardinal(30.0, *cards),
        "growth27": stepper.cardinal(27.0, *grow),
        "gas25": stepper.cardinal(25.0, *cards),
    }
    published = {name: v[name] for name in Kinetics._fields if name in v}
    return Kinetics.of(**{**published, **own, **_sour_params(recipe, v["phi_m"])})


def start_of(recipe: Recipe, mix_temp_c: float, activity: float = 1.0, pressure_pa: float = SEA_LEVEL_PA) -> Start:
    """Initial state and parameters of a dough mixed at `mix_temp_c` under `pressure_pa`.

    `activity` scales the yeast's gas, and its growth by its root.
    """
    v = {name: param.value for name, param in PARAMS.items()}
    yeast = _living(recipe, activity)
    dry_ml = recipe.mass / v["rho_dry"]
    p = _kinetics(recipe, yeast, activity, dry_ml, pressure_pa)
    first_ml = dry_ml / (1 - v["phi0"])
    air = (first_ml - dry_ml) / gas.molar_volume_ml(mix_temp_c, pressure_pa)
    seed, fresh = (0.0, 0.0, 0.0, 0.0), 1.0
    if recipe.sour is not None:
        seed, fresh = _seed(recipe.sour, activity), 1 - recipe.sour.share
    sugar = v["h0"] * fresh + 1.053 * recipe.sucrose + recipe.hexose
    living = (yeast.amount, sugar, v["m0"] * fresh, v["d0"] * fresh, yeast.ready)
    state = np.array([*living, 0.0, 0.0, 0.0, mix_temp_c, 0.0, *seed])
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
    """End of a course: state, air [mol], soda and acids, ready to go on or to be joined."""

    state: Array
    air_mol: float
    pools: Array
