"""Carbon dioxide in dough: dissolved or in the bubbles, and the volume that gives.

Basis 1 g flour; mol, mL, C, Pa. Henry's law by Weiss 1974 (published, from memory), ideal gas,
closed form: y = 2c/(b + sqrt(b² − 4Lc)).
"""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK, vapour_pressure_pa

Array = NDArray[np.float64]
DOUGH_HUMIDITY = Param(0.97, "-", 0.95, 0.99, Kind.PUBLISHED_FROM_MEMORY, "water activity of dough")


def henry_k0_mol_l_atm(temp_c: float) -> float:
    """Solubility of CO2 in fresh water [mol/(L atm)], 0 to 40 C.

    >>> round(henry_k0_mol_l_atm(25.0), 4)
    0.034
    """
    x = (temp_c + 273.15) / 100
    return math.exp(-58.0931 + 90.5069 / x + 22.2940 * math.log(x))


def co2_ostwald(temp_c: float) -> float:
    """Ostwald coefficient: volume of CO2 dissolved per volume of water at its own pressure [-].

    >>> round(co2_ostwald(25.0), 2)
    0.83
    """
    return henry_k0_mol_l_atm(temp_c) * GAS_CONSTANT_J_MOLK * (temp_c + 273.15) / 101.325


def molar_volume_ml(temp_c: float, pressure_pa: float) -> float:
    """Volume of one mole of dry gas under the vapour of the dough [mL/mol]."""
    dry_pa = pressure_pa - DOUGH_HUMIDITY * vapour_pressure_pa(temp_c)
    return GAS_CONSTANT_J_MOLK * (temp_c + 273.15) / dry_pa * 1e6


def gas_split(
    co2_mol: float, air_mol: float, temp_c: float, water_g: float, pressure_pa: float
) -> tuple[float, float, float]:
    """(gas volume mL, mole fraction of CO2 in it, CO2 in the gas mol)."""
    v = molar_volume_ml(temp_c, pressure_pa)
    air_ml, c, dissolves = air_mol * v, co2_mol * v, water_g * co2_ostwald(temp_c)
    b = c + dissolves + air_ml
    y = 2 * c / (b + math.sqrt(b * b - 4 * dissolves * c)) if c > 0 else 0.0
    gas_ml = air_ml + c - dissolves * y
    return gas_ml, y, y * gas_ml / v


def co2_for_volume(
    volume_ml: float | Array, dry_ml: float, air_mol: float, temp_c: float, water_g: float, pressure_pa: float
) -> Array:
    """CO2 [mol] that gives a dough of `volume_ml` (one or many): the exact inverse of `gas_split`."""
    v = molar_volume_ml(temp_c, pressure_pa)
    gas_ml = np.maximum(np.asarray(volume_ml, dtype=float) - dry_ml, 1e-9)
    y = np.maximum(0.0, 1 - air_mol * v / gas_ml)
    return np.asarray(y * (gas_ml + water_g * co2_ostwald(temp_c)) / v)
