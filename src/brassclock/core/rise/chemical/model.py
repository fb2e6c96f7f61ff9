"""Gas from soda and acid along a rest: what is released, what is held, what lift is left at the cook.

Each acid has a fast, a slow and a hot share, first order: k(T) = k_ref·exp[−Ea/R·(1/T − 1/T_ref)]. All
draws share the soda that is left, so an acid dairy spends a powder's soda at mixing. Held gas leaves by
diffusion and by coalescence: k = 1/τ + k_co·(φ/φ_max)². Basis 1 g flour; mol, min, C.
Validity: 0 to 40 C while resting; a pocket's puff is not part of it. Sources: docs/science.md, *Soda and powder*.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.acids import acids
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK, SEA_LEVEL_PA, vapour_pressure_pa
from brassclock.core.matter.dough import GAS_FREE_KG_M3, Dough
from brassclock.core.rise import gas
from brassclock.core.rise.chemical import reaction
from brassclock.core.rise.chemical.params import HOLDINGS, LONGEST_H, PARAMS, WAIT_WORDS, Holding
from brassclock.core.weigh.soda import weights_of

Array = NDArray[np.float64]
V = {name: p.value for name, p in PARAMS.items()}
PHI0 = Param(0.07, "-", 0.03, 0.15, Kind.JUDGEMENT, "gas fraction that mixing leaves without yeast")
GAS_FREE_G_ML = GAS_FREE_KG_M3 / 1000
STEPS = ((60.0, 0.5), (720.0, 5.0), (math.inf, 20.0))  # until [min], step [min]
DEFAULT_C = 24.0
FAINT_SHARE = 0.5  # of the half lift: no need to follow it further
reactor = Stepper(reaction.react)


@dataclass(frozen=True)
class Rest:
    """A rest: how long [min], at what temperature [C], in what form (`bulk`, `ball`, `sheet`), how thick [mm].

    `half_thickness_mm` is the radius of a bulk or a ball, half the thickness of a sheet.
    """

    minutes: float
    temp_c: float
    form: str = "bulk"
    half_thickness_mm: float = 55.0


@dataclass(frozen=True)
class Lift:
    """State of a dough's lift: gas held and still to come [mol per g flour], and V/V0 if cooked now."""

    minutes: float
    held: float
    to_come: float
    at_cook: float


@dataclass(frozen=True)
class GasTrace:
    """A rest seen from its lifts; `best` is the lift had no gas been lost."""

    lifts: tuple[Lift, ...]
    released_frac_at_mixing: float
    best: float


@dataclass(frozen=True)
class Waiting:
    """Hours that the dough may wait before half its lift is gone, as a band, and the word for it.

    `best` is the lift with no gas lost; `runs` the lifts until half of that is left, gas lost fast, as told, and
    slowly.
    """

    verdict: str
    h: float
    low_h: float
    high_h: float
    best: float
    runs: tuple[tuple[Lift, ...], ...]


def pools_of(dough: Dough, powder: str = "double", *, starters: bool = True) -> tuple[tuple[str, ...], Array]:
    """(acid ids, pools of `reaction` [mol per g flour]) of a dough with flour, before soda and acid meet.

    `starters` False leaves a starter's acid out, for a model that follows that acid itself.
    """
    soda, by_acid = 0.0, dict[str, float]()
    for portion in dough.portions:
        if portion.ingredient.is_starter and not starters:
            continue
        for w in weights_of(portion, powder):
            if w.side == "soda":
                soda += w.mmol / 1000 / dough.flour_g
            else:
                by_acid[w.acid] = by_acid.get(w.acid, 0.0) + w.mmol / 1000 / dough.flour_g
    rows = [[soda, V["fast_25"], V["fast_ea"], V["decay_80"], V["decay_ea"], 0.0, 0.0]]
    for name, m in by_acid.items():
        a = acids()[name]
        rows.append(
            [
                m * a.fast_frac,
                m * a.slow_frac,
                m * a.heat_frac,
                a.slow_25_per_min,
                a.slow_ea_j_mol,
                a.heat_60_per_min,
                a.heat_ea_j_mol,
            ]
        )
    return tuple(by_acid), np.array(rows)


def gas_potential_ml(dough: Dough, powder: str = "double") -> float:
    """Gas that soda and acid can make [mL at 25 C and sea level per 100 g flour]."""
    return float(reaction.potential(pools_of(dough, powder)[1])) * 100 * gas.molar_volume_ml(25.0, SEA_LEVEL_PA)


class _Held:
    """Volumes of a dough per gram of flour, and how fast gas leaves it."""

    def __init__(self, dough: Dough, holding: Holding, pressure_pa: float) -> None:
        self.dry_ml = dough.total_g / dough.flour_g / GAS_FREE_G_ML
        self.first_ml = self.dry_ml / (1 - PHI0)
        self.water = dough.water_g / dough.flour_g
        self.air_mol = (self.first_ml - self.dry_ml) / gas.molar_volume_ml(25.0, pressure_pa)
        self.holding, self.pressure_pa = holding, pressure_pa

    def gas_frac(self, held_mol: float, temp_c: float) -> float:
        v = gas.gas_split(held_mol, self.air_mol, temp_c, self.water, self.pressure_pa)[0]
        return v / (v + self.dry_ml)

    def loss_per_min(self, phi: float, temp_c: float, rest: Rest) -> float:
        dissolved = gas.co2_ostwald(temp_c) * self.water / self.dry_ml
        d_l = reaction.arrhenius(V["d_liquid"], V["d_ea"], temp_c, 25.0)
        d = d_l * dissolved * (1 + 2 * phi) / (1 - phi) / (phi + (1 - phi) * dissolved)
        half = rest.half_thickness_mm / 1000
        tau_min = (4 if rest.form == "sheet" else 1) * half**2 / (math.pi**2 * d) / 60
        co = reaction.arrhenius(self.holding.coalesce_per_min, V["coalesce_ea"], temp_c, 25.0)
        return 1 / tau_min + co * (phi / self.holding.gas_limit_frac) ** 2

    def lift(self, mol: float) -> float:
        """V/V0 when the crumb sets with this much gas [mol per g flour]."""
        kelvin = V["set_c"] + 273.15
        pressure = self.pressure_pa - V["steam_share"] * vapour_pressure_pa(V["set_c"])
        return 1 + self.holding.oven_kept * mol * GAS_CONSTANT_J_MOLK * kelvin / pressure * 1e6 / self.first_ml


def _resting(body: _Held, pools: Array, rests: Sequence[Rest]) -> Iterator[Lift]:
    """Mix for three minutes at the first rest's temperature, then rest: where the dough stands after every step."""
    held = float(reactor(pools, rests[0].temp_c, V["mix_min"]))
    minutes = 0.0
    yield Lift(0.0, held, to_come := float(reaction.potential(pools)), body.lift(held + to_come))
    for rest in rests:
        left = rest.minutes
        while left > 1e-9:
            step = min(left, next(size for until, size in STEPS if minutes < until))
            more = float(reactor(pools, rest.temp_c, step))
            phi = body.gas_frac(held, rest.temp_c)
            held = held * math.exp(-body.loss_per_min(phi, rest.temp_c, rest) * step) + more
            minutes, left = minutes + step, left - step
            yield Lift(minutes, held, to_come := float(reaction.potential(pools)), body.lift(held + to_come))


def course(
    dough: Dough, strength: str, rests: Sequence[Rest], powder: str = "double", pressure_pa: float = SEA_LEVEL_PA
) -> GasTrace:
    """A dough through its rests, from the end of mixing. `strength` is a key of HOLDINGS."""
    body = _Held(dough, HOLDINGS[strength], pressure_pa)
    pools = pools_of(dough, powder)[1]
    all_of_it = float(reaction.potential(pools))
    lifts = tuple(_resting(body, pools, rests or [Rest(0.0, DEFAULT_C)]))
    return GasTrace(lifts, lifts[0].held / all_of_it if all_of_it > 0 else 0.0, body.lift(all_of_it))


def waiting(
    dough: Dough, strength: str, rest: Rest, powder: str = "double", pressure_pa: float = SEA_LEVEL_PA
) -> Waiting | None:
    """Hours that the dough may wait at that rest, and the lift left by then; None when nothing in it makes gas.

    The band is coalescence three times as fast and a third as fast (judgement).
    """
    pools = pools_of(dough, powder)[1]
    all_of_it = float(reaction.potential(pools))
    if all_of_it <= 0:
        return None
    holding, long_rest = HOLDINGS[strength], [replace(rest, minutes=LONGEST_H * 60)]
    runs: list[list[Lift]] = []
    halves: list[float] = []
    for faster in (3.0, 1.0, 1 / 3):
        body = _Held(dough, replace(holding, coalesce_per_min=holding.coalesce_per_min * faster), pressure_pa)
        goal = 1 + V["half_lift"] * (body.lift(all_of_it) - 1)
        faint = 1 + FAINT_SHARE * (goal - 1)
        run: list[Lift] = []
        for lift in _resting(body, pools.copy(), long_rest):
            run.append(lift)
            if lift.at_cook < faint:
                break
        runs.append(run)
        halves.append(next((x.minutes for x in run if x.at_cook < goal), run[-1].minutes) / 60)
    low, mid, high = halves
    verdict = next((word for edge, word in WAIT_WORDS if mid < edge), "overnight")
    return Waiting(verdict, mid, low, high, _Held(dough, holding, pressure_pa).lift(all_of_it), tuple(map(tuple, runs)))
