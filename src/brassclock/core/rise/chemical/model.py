"""Gas from soda and acid along a rest: what is released, what is held, what lift is left at the cook.

Each acid has a fast, a slow and a hot share, first order: k(T) = k_ref·exp[−Ea/R·(1/T − 1/T_ref)]. All
draws share the soda that is left, so an acid dairy spends a powder's soda at mixing. Held gas leaves by
diffusion and by coalescence: k = 1/τ + k_co·(φ/φ_max)². Basis 1 g flour; mmol, min, C.
Validity: 0 to 40 C while resting; a pocket's puff is not part of it. Sources: docs/science.md, *Soda and powder*.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.matter.acids import acids
from brassclock.core.matter.air import SEA_LEVEL_PA, vapour_pressure_pa
from brassclock.core.matter.dough import Dough
from brassclock.core.rise import gas
from brassclock.core.rise.chemical.params import HOLDINGS, LONGEST_H, PARAMS, WAIT_WORDS, Holding
from brassclock.core.weigh.soda import weights_of

R = 8.314
V = {name: p.value for name, p in PARAMS.items()}
PHI0, GAS_FREE_G_ML = 0.07, 1.25
STEP_MIN = 0.5


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
class Pools:
    """Soda and the shares of its acids that wait [mmol per g flour]: (acid id, fast, slow, hot)."""

    soda: float
    acids: tuple[tuple[str, float, float, float], ...]

    @property
    def potential(self) -> float:
        """Gas that soda and acid can still make together [mmol per g flour]."""
        return min(self.soda, sum(f + s + h for _, f, s, h in self.acids))


@dataclass(frozen=True)
class Lift:
    """Where a dough stands: gas held and still to come [mmol per g flour], and V/V0 if cooked now."""

    minutes: float
    held: float
    to_come: float
    at_cook: float


@dataclass(frozen=True)
class Course:
    """A rest seen from its lifts; `best` is the lift had no gas been lost."""

    lifts: tuple[Lift, ...]
    released_frac_at_mixing: float
    best: float


@dataclass(frozen=True)
class Wait:
    """How long the dough may wait before half its lift is gone [h], as a band, and the word for it."""

    verdict: str
    h: float
    low_h: float
    high_h: float


def rate(k_ref: float, ea_j_mol: float, temp_c: float, ref_c: float) -> float:
    """Arrhenius rate at `temp_c` from the one at `ref_c`.

    >>> rate(1.0, 40_000, 25.0, 25.0)
    1.0
    """
    return k_ref * math.exp(-ea_j_mol / R * (1 / (temp_c + 273.15) - 1 / (ref_c + 273.15)))


def pools_of(dough: Dough, powder: str = "double") -> Pools:
    """Soda and acids of a dough with flour, before they meet."""
    soda, by_acid = 0.0, dict[str, float]()
    for portion in dough.portions:
        for w in weights_of(portion, powder):
            if w.side == "soda":
                soda += w.mmol / dough.flour_g
            else:
                by_acid[w.acid] = by_acid.get(w.acid, 0.0) + w.mmol / dough.flour_g
    shares = tuple(
        (name, m * acids()[name].fast_frac, m * acids()[name].slow_frac, m * acids()[name].heat_frac)
        for name, m in by_acid.items()
    )
    return Pools(soda, shares)


def react(pools: Pools, temp_c: float, minutes: float) -> tuple[Pools, float]:
    """The pools after `minutes` at `temp_c`, and the gas that came free [mmol per g flour]."""
    if pools.soda <= 0:
        return pools, 0.0
    fast = 1 - math.exp(-rate(V["fast_25"], V["fast_ea"], temp_c, 25.0) * minutes)
    draws = []
    for name, f, s, h in pools.acids:
        a = acids()[name]
        slow = 1 - math.exp(-rate(a.slow_25_per_min, a.slow_ea_j_mol, temp_c, 25.0) * minutes)
        hot = 1 - math.exp(-rate(a.heat_60_per_min, a.heat_ea_j_mol, temp_c, 60.0) * minutes)
        draws.append((f * fast, s * slow, h * hot))
    wanted = sum(map(sum, draws))
    share = min(1.0, pools.soda / wanted) if wanted > 0 else 0.0
    left = tuple(
        (name, f - share * df, s - share * ds, h - share * dh)
        for (name, f, s, h), (df, ds, dh) in zip(pools.acids, draws, strict=True)
    )
    soda = pools.soda - share * wanted
    decayed = soda * (1 - math.exp(-rate(V["decay_80"], V["decay_ea"], temp_c, 80.0) * minutes))
    return Pools(soda - decayed, left), share * wanted + decayed / 2


class _Held:
    """Volumes of a dough per gram of flour, and how fast gas leaves it."""

    def __init__(self, dough: Dough, holding: Holding, pressure_pa: float) -> None:
        self.dry_ml = dough.total_g / dough.flour_g / GAS_FREE_G_ML
        self.first_ml = self.dry_ml / (1 - PHI0)
        self.water = dough.water_g / dough.flour_g
        self.air_mol = (self.first_ml - self.dry_ml) / gas.molar_volume_ml(25.0, pressure_pa)
        self.holding, self.pressure_pa = holding, pressure_pa

    def gas_frac(self, held_mmol: float, temp_c: float) -> float:
        v = gas.gas_split(held_mmol / 1000, self.air_mol, temp_c, self.water, self.pressure_pa)[0]
        return v / (v + self.dry_ml)

    def loss_per_min(self, phi: float, temp_c: float, rest: Rest) -> float:
        dissolved = gas.co2_ostwald(temp_c) * self.water / self.dry_ml
        d_l = rate(V["d_liquid"], V["d_ea"], temp_c, 25.0)
        d = d_l * dissolved * (1 + 2 * phi) / (1 - phi) / (phi + (1 - phi) * dissolved)
        half = rest.half_thickness_mm / 1000
        tau_min = (4 if rest.form == "sheet" else 1) * half**2 / (math.pi**2 * d) / 60
        co = rate(self.holding.coalesce_per_min, V["coalesce_ea"], temp_c, 25.0)
        return 1 / tau_min + co * (phi / self.holding.gas_limit_frac) ** 2

    def lift(self, mmol: float) -> float:
        """V/V0 when the crumb sets with this much gas [mmol per g flour]."""
        kelvin = V["set_c"] + 273.15
        pressure = self.pressure_pa - V["steam_share"] * vapour_pressure_pa(V["set_c"])
        return 1 + self.holding.oven_kept * mmol / 1000 * R * kelvin / pressure * 1e6 / self.first_ml


def course(
    dough: Dough, strength: str, rests: Sequence[Rest], powder: str = "double", pressure_pa: float = SEA_LEVEL_PA
) -> Course:
    """Mix for three minutes at the first rest's temperature, then rest. `strength` is a key of HOLDINGS."""
    body = _Held(dough, HOLDINGS[strength], pressure_pa)
    pools = pools_of(dough, powder)
    potential = pools.potential
    first_c = rests[0].temp_c if rests else 24.0
    pools, held = react(pools, first_c, V["mix_min"])
    lifts = [Lift(0.0, held, pools.potential, body.lift(held + pools.potential))]
    released = held / potential if potential > 0 else 0.0
    minutes = 0.0
    for rest in rests:
        left = rest.minutes
        while left > 1e-9:
            step = min(left, STEP_MIN if minutes < 60 else 5.0)
            pools, more = react(pools, rest.temp_c, step)
            phi = body.gas_frac(held, rest.temp_c)
            held = held * math.exp(-body.loss_per_min(phi, rest.temp_c, rest) * step) + more
            minutes, left = minutes + step, left - step
            lifts.append(Lift(minutes, held, pools.potential, body.lift(held + pools.potential)))
    return Course(tuple(lifts), released, body.lift(potential))


def _half_lift_h(dough: Dough, strength: str, rest: Rest, powder: str, pressure_pa: float, faster: float) -> float:
    holding = HOLDINGS[strength]
    changed = Holding(holding.coalesce_per_min * faster, holding.gas_limit_frac, holding.oven_kept)
    body = _Held(dough, changed, pressure_pa)
    pools = pools_of(dough, powder)
    goal = 1 + V["half_lift"] * (body.lift(pools.potential) - 1)
    pools, held = react(pools, rest.temp_c, V["mix_min"])
    minutes = 0.0
    while minutes < LONGEST_H * 60 and body.lift(held + pools.potential) >= goal:
        step = STEP_MIN if minutes < 60 else 5.0 if minutes < 720 else 20.0
        pools, more = react(pools, rest.temp_c, step)
        phi = body.gas_frac(held, rest.temp_c)
        held = held * math.exp(-body.loss_per_min(phi, rest.temp_c, rest) * step) + more
        minutes += step
    return minutes / 60


def wait(
    dough: Dough, strength: str, rest: Rest, powder: str = "double", pressure_pa: float = SEA_LEVEL_PA
) -> Wait | None:
    """How long the dough may wait at that rest; None when nothing in it makes gas.

    The band is coalescence three times as fast and a third as fast (judgement).
    """
    if pools_of(dough, powder).potential <= 0:
        return None
    low, mid, high = (_half_lift_h(dough, strength, rest, powder, pressure_pa, f) for f in (3.0, 1.0, 1 / 3))
    return Wait(next((word for edge, word in WAIT_WORDS if mid < edge), "overnight"), mid, low, high)
