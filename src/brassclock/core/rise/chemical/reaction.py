"""Soda and acids meeting in a dough, in the subset a compiler takes.

Pools are an array of seven columns [mol per g flour]. Row 0: soda, then its own rates (acids that dissolve at
once: 1/min at 25 C, J/mol; decay alone: 1/min at 80 C, J/mol). Each further row is an acid: its share that
dissolves at once, slowly, and in heat, then slow rate at 25 C, J/mol, hot rate at 60 C, J/mol.
"""

from __future__ import annotations

import math

import numpy as np

from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK

# columns of a row: of the soda, what is left and its own rates; of an acid, what is left that dissolves at once, slowly
# and in
# heat, then its rates
LEFT, FAST_K, FAST_EA, DECAY_K, DECAY_EA = range(5)
AT_ONCE, SLOWLY, IN_HEAT, SLOW_K, SLOW_EA, HOT_K, HOT_EA = range(7)
SODA = 0  # its row
WIDTH = 7


def arrhenius(k_ref: float, ea_j_mol: float, temp_c: float, ref_c: float) -> float:
    """Rate at `temp_c` from the one at `ref_c`, both C.

    >>> arrhenius(1.0, 40_000, 25.0, 25.0)
    1.0
    """
    return k_ref * math.exp(-ea_j_mol / GAS_CONSTANT_J_MOLK * (1 / (temp_c + 273.15) - 1 / (ref_c + 273.15)))


def react(pools, temp_c, minutes):
    """Let the pools react in place; returns the gas that came free [mol per g flour]. All draws share the soda."""
    soda = pools[SODA, LEFT]
    if soda <= 0.0:
        return 0.0
    fast = 1.0 - math.exp(-arrhenius(pools[SODA, FAST_K], pools[SODA, FAST_EA], temp_c, 25.0) * minutes)
    draws = np.zeros((pools.shape[0], 3))
    wanted = 0.0
    for i in range(1, pools.shape[0]):
        slow = 1.0 - math.exp(-arrhenius(pools[i, SLOW_K], pools[i, SLOW_EA], temp_c, 25.0) * minutes)
        hot = 1.0 - math.exp(-arrhenius(pools[i, HOT_K], pools[i, HOT_EA], temp_c, 60.0) * minutes)
        draws[i, AT_ONCE] = pools[i, AT_ONCE] * fast
        draws[i, SLOWLY] = pools[i, SLOWLY] * slow
        draws[i, IN_HEAT] = pools[i, IN_HEAT] * hot
        wanted += draws[i, AT_ONCE] + draws[i, SLOWLY] + draws[i, IN_HEAT]
    share = 0.0
    if wanted > 0.0:
        share = min(1.0, soda / wanted)
    for i in range(1, pools.shape[0]):
        for j in range(3):
            pools[i, j] -= share * draws[i, j]
    left = soda - share * wanted
    decayed = left * (1.0 - math.exp(-arrhenius(pools[SODA, DECAY_K], pools[SODA, DECAY_EA], temp_c, 80.0) * minutes))
    pools[SODA, LEFT] = left - decayed
    return share * wanted + decayed / 2.0


def potential(pools):
    """Gas that soda and acid can still make together [mol per g flour]."""
    acid = 0.0
    for i in range(1, pools.shape[0]):
        acid += pools[i, AT_ONCE] + pools[i, SLOWLY] + pools[i, IN_HEAT]
    return min(pools[SODA, LEFT], acid)
