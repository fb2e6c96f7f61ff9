"""The state of a rising dough and what its equations need, by name. Basis 1 g flour, hours, C."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

# a state: yeast, sugar, maltose and damaged starch [g]; readiness for gas and for growth [0 to 1]; CO2 held [mol];
# weakening;
# temperature [C]; CO2 made [mol]; wild yeast and bacteria, their readiness; acid [mol]
(
    YEAST,
    SUGAR,
    MALTOSE,
    STARCH,
    GAS_READY,
    GROWTH_READY,
    CO2,
    WEAKENING,
    TEMP,
    MADE,
    WILD,
    BACTERIA,
    SOUR_READY,
    ACID,
) = range(14)
STATES = 14
GAS_ML, CO2_IN_GAS = STATES, STATES + 1  # beside the slopes of the states
SLOPES = STATES + 2

# a row of a course: hour, the states, gas [mL], air [mol], number of the piece, CO2 in the gas [mol], gas that soda and
# acid
# can still make [mol]
HOUR, FIRST_STATE, ROW_GAS, ROW_AIR, ROW_PIECE, ROW_IN_GAS, ROW_TO_COME = 0, 1, 15, 16, 17, 18, 19
COLUMNS = 20


class Kinetics(NamedTuple):
    """Parameters of one dough's equations, in its own units; those of a starter are 0 without one."""

    water: float  # g per g flour
    f_osm: float  # osmotic factor of the pace
    maltose_pace: float  # pace on maltose over that on hexose
    yeast0: float  # yeast at the start [g dry per g flour]
    q30: float  # gas at 30 C [mol/h per g dry yeast]
    mu27: float  # growth at 27 C [1/h]
    growth_room: float  # growth that the dough has room for
    tau_g: float  # lag of growth [h]
    kappa: float  # share of growth that has to be paid in sugar
    k_n: float  # half-saturation of crowding
    k_h: float  # half-saturation of hexose
    k_m: float  # half-saturation of maltose
    yield_y: float  # mol CO2 per g hexose
    k30: float  # amylase at 30 C [1/h]
    amylase_ea: float  # J/mol
    tau_a: float  # lag of gas [h]
    k_d: float  # diffusion out [1/h]
    k_r: float  # rupture [1/h]
    leak_p: float  # steepness of rupture
    k_s: float  # weakening [1/h]
    strength: float  # 0 to 1
    dry_ml: float  # gas-free volume
    first_ml: float  # volume after mixing
    pressure_pa: float
    heat: float  # J/mol of fermentation
    mass: float  # g per g flour
    cp: float  # J/gK
    d58: float  # decimal reduction time at 58 C [min]
    z_kill: float  # K
    gas_t_min: float
    gas_t_opt: float
    gas_t_max: float
    growth_t_min: float
    growth_t_opt: float
    growth_t_max: float
    gas30: float  # cardinal value of gas at 30 C
    growth27: float  # cardinal value of growth at 27 C
    gas25: float  # cardinal value of gas at 25 C
    stretch: float  # how far strength lets it stretch
    sour: float  # 1 with a starter, else 0
    km: float  # scale of its paces
    crowd: float  # yeast at which it stops growing
    q_acid: float  # mol/h
    co2_of_acid: float  # mol CO2 per mol acid
    k_weak: float  # weakening by acid
    ph_weak: float
    salt_y: float  # factor of salt on wild yeast
    salt_l: float  # factor of salt on bacteria
    u_max: float  # undissociated acid that stops yeast
    acetic: float  # share
    y_t_max: float
    y_x: float
    y_c: float
    y_mu: float
    wild_maltose: float  # pace of wild yeast on maltose
    pace25: float  # pace of bacteria at 25 C
    ph_stop: float  # pH that stops bacteria
    ph_full: float  # pH units over which they slow
    buffer: float  # mol per pH
    ph0: float  # pH of the fresh dough
    acid_step: float  # mol per step of the table
    l_t_max: float
    l_x: float
    l_c: float
    l_mu: float
    weak_steep: float
    sugar_of_acid: float  # g per mol
    ph_table: Array  # pH by acid, in even steps

    @classmethod
    def of(cls, *, ph_table: Array, **numbers: float) -> Kinetics:
        """All as floats: the compiled form takes no other."""
        return cls(ph_table=ph_table, **{name: float(value) for name, value in numbers.items()})


class Rates(NamedTuple):
    """Rates that depend on temperature alone: gas, growth, killing, amylase [1/h], molar volume of CO2 [mL] and its
    solubility [mL], pace of wild yeast and of bacteria [1/h]."""

    gas: float
    growth: float
    kill: float
    amylase: float
    molar_ml: float
    dissolves_ml: float
    wild: float
    bacteria: float


class Pieces(NamedTuple):
    """Stretches of a course, an array for each: hours, ambient at start and end [C], time constant [h; 0 pins the
    dough], gas fraction to knock back to at the end (negative for none)."""

    hours: Array
    ambient0_c: Array
    ambient1_c: Array
    tau_h: Array
    knock_frac: Array
