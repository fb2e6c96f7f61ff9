"""Heat through the plate and the bread: one implicit step, in the subset that a compiler takes."""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.state import (
    BEFORE,
    BOIL_CAP,
    CAP,
    DIAG,
    DRY,
    DZ,
    EVAP,
    GROWN,
    HOTTEST,
    LOW,
    PLATE_DZ,
    PLATE_T,
    RIGHT,
    SLOPE,
    SOURCE,
    UP,
    G,
    H,
    K,
    T,
    X,
)
from brassclock.core.matter.steam import latent_heat_j_kg

OIL_LOW_H = Param(
    160.0, "W/(m2 K)", 100, 250, Kind.PUBLISHED_FROM_MEMORY, "frying dough in oil at 140 C, order published"
)
OIL_HIGH_H = Param(360.0, "W/(m2 K)", 250, 500, Kind.PUBLISHED_FROM_MEMORY, "frying dough in hot oil, order published")
OIL_SLOPE = Param(3.4, "W/(m2 K2)", 1, 6, Kind.PUBLISHED_FROM_MEMORY, "by oil temperature, order published")
OIL_REF_C = Param(140.0, "C", 140, 140, Kind.PUBLISHED_FROM_MEMORY, "where OIL_LOW_H holds")
OIL_LIFT_LOW = Param(0.3, "-", 0.1, 0.5, Kind.JUDGEMENT, "a parted bread floats: of the lower face out of the oil")
OIL_LIFT_TOP = Param(0.8, "-", 0.6, 1, Kind.JUDGEMENT, "a parted bread floats: of the upper face out of the oil")
OIL_FLOAT_TOP = Param(0.95, "-", 0.8, 1, Kind.JUDGEMENT, "a bread without a pocket floats: of its upper face")
SIGMA = 5.670374e-8
LN_25 = math.log(0.25)  # conductivity of dry dough [W/mK] ...
LN_66_25 = math.log(0.66 / 0.25)  # ... and of water at 80 C over it
DRY_CP = Param(1550.0, "J/(kg K)", 1400, 1700, Kind.PUBLISHED_FROM_MEMORY, "dry matter of bread, handbook order")
WATER_CP = Param(4190.0, "J/(kg K)", 4180, 4220, Kind.PUBLISHED_FROM_MEMORY, "water")
WATER_DRY_DENSITY = 1000.0 / 1450.0
WET_X = Param(0.25, "kg/kg", 0.15, 0.35, Kind.JUDGEMENT, "above it crumb conducts and touches as wet crumb does")
SWELL_FROM_C = Param(40.0, "C", 35, 50, Kind.JUDGEMENT, "the sheet swells from there")
SWELL_OVER_C = Param(50.0, "K", 35, 60, Kind.JUDGEMENT, "over so many kelvin")
MOST_GAS = Param(0.7, "-", 0.6, 0.8, Kind.JUDGEMENT, "gas fraction of a crumb at most")
BAND_C = 0.05  # below its boiling point at which a cell counts as boiling
STEEPEST = 1e4
MOST_EVAP = 0.3  # share of a face cell's water in one step
STEAM_PA = 20000.0  # vapour above which what left condenses on the faces again
LEAST_SHARE = 0.02  # of the total pressure that dry gas keeps


def lookup(table, x, x0, dx):
    """Linear interpolation in an even table, held at its ends."""
    u = (x - x0) / dx
    if u <= 0.0:
        return table[0]
    i = int(u)
    if i >= table.shape[0] - 1:
        return table[table.shape[0] - 1]
    return table[i] + (table[i + 1] - table[i]) * (u - i)


def boil_c(tables, x):
    """Boiling temperature [C] of water bound at x kg per kg dry."""
    return lookup(tables.boil_c, x, tables.boil_x0, tables.boil_dx)


def sat_pa(tables, t):
    """Saturation pressure [Pa] at t [C]."""
    return lookup(tables.sat_pa, t, tables.sat_c0, tables.sat_dc)


def smooth(x: float) -> float:
    """Smoothstep from 0 to 1."""
    x = min(1.0, max(0.0, x))
    return x * x * (3.0 - 2.0 * x)


def gas_growth(t: float, t0_k: float, dry0: float, pressure: float, psat: float) -> float:
    """Volume ratio R of a bubble of moist gas warmed to t [C]; its dry share never below 2 %."""
    return (t + 273.15) / t0_k * dry0 / max(pressure - psat, LEAST_SHARE * pressure)


def face_evaporation(t: float, aw: float, psat: float, h: float, p_inf: float, pressure: float, b: float) -> float:
    """Water leaving a wet face [kg/m2s] (Stefan flow, Lewis analogy); negative is condensation."""
    tk = t + 273.15
    under = max(pressure - aw * psat, LEAST_SHARE * pressure)
    over = max(pressure - p_inf, LEAST_SHARE * pressure)
    return b * h / 1050.0 * pressure / (461.5 * tk) * math.log(over / under)


def properties(cells, sheet, tables):
    """Fill growth, conductivity, heat capacities and `before` of every cell from its temperature and water."""
    for i in range(cells.shape[1]):
        t, x = cells[T, i], cells[X, i]
        cells[GROWN, i] = 1.0 + (sheet.rise_max - 1.0) * smooth((cells[HOTTEST, i] - SWELL_FROM_C) / SWELL_OVER_C)
        phi = min(MOST_GAS, 1.0 - (1.0 - sheet.gas_frac) / cells[GROWN, i])
        v = x / (x + WATER_DRY_DENSITY)
        k_m = math.exp(LN_25 + v * LN_66_25) * (1.0 - phi) / (1.0 + 0.5 * phi)
        fp = min(2.0, max(0.3, phi / 0.25))
        ec = sheet.evap_cond_k * fp / (1.0 + math.exp(-(t - 80.0) / 6.0))
        cells[K, i] = sheet.crust_k + (k_m - sheet.crust_k + ec) * min(1.0, x / WET_X)
        cells[CAP, i] = cells[DRY, i] * (DRY_CP + WATER_CP * x)
        boil = boil_c(tables, x)
        cells[BOIL_CAP, i] = cells[CAP, i]
        if t > boil - BAND_C:
            dx = tables.boil_dx
            slope = max((boil_c(tables, x - dx) - boil_c(tables, x + dx)) / (2.0 * dx), 1e-6)
            with_boiling = cells[CAP, i] + latent_heat_j_kg(boil) * cells[DRY, i] / slope
            cells[BOIL_CAP, i] = min(with_boiling, STEEPEST * cells[CAP, i])
        cells[BEFORE, i] = t


def plate_rows(rows, plate, sheet, leg, surface_c, dt):
    """Begin the system: storage and conduction of the plate, heat from below unless the cook holds it [J/m2K, W/m2]."""
    m = plate.shape[1]
    for j in range(rows.shape[1]):
        rows[LOW, j] = 0.0
        rows[UP, j] = 0.0
    for j in range(m):
        rows[DIAG, j] = sheet.plate_rc * plate[PLATE_DZ, j] / dt
        rows[RIGHT, j] = rows[DIAG, j] * plate[PLATE_T, j]
    for j in range(m - 1):
        couple(rows, j, 1.0 / (0.5 * (plate[PLATE_DZ, j] + plate[PLATE_DZ, j + 1]) / sheet.plate_k))
    back = 1.0 / (1.0 / max(leg.back_h, 1e-9) + 0.5 * plate[PLATE_DZ, 0] / sheet.plate_k)
    rows[DIAG, 0] += back
    rows[RIGHT, 0] += back * leg.back_c + (leg.flux if surface_c < sheet.hold_c else 0.0)


def couple(rows, j, g):
    """Add a conductance g [W/m2K] between row j and the one above it."""
    rows[DIAG, j] += g
    rows[UP, j] -= g
    rows[DIAG, j + 1] += g
    rows[LOW, j + 1] -= g


def bread_rows(rows, cells, sheet, m, dt, open_share):
    """Add the bread's storage and conduction after the plate's m rows; the open pocket insulates its two halves."""
    n = cells.shape[1]
    for i in range(n):
        rows[DIAG, m + i] = cells[BOIL_CAP, i] / dt
        rows[RIGHT, m + i] = rows[DIAG, m + i] * cells[T, i]
    for i in range(n - 1):
        below = 0.5 * cells[DZ, i] * cells[GROWN, i] / cells[K, i]
        res = below + 0.5 * cells[DZ, i + 1] * cells[GROWN, i + 1] / cells[K, i + 1]
        if i == n // 2 - 1 and open_share > 0.0:
            res += open_share / sheet.pocket_g
        couple(rows, m + i, 1.0 / res)


def contact_row(rows, cells, plate, sheet, lift):
    """Join plate and bread; `lift` is the share of the pocket that is full. Returns the conductance [W/m2K]."""
    m = plate.shape[1]
    h = (sheet.h_dry + (sheet.h_wet - sheet.h_dry) * min(1.0, cells[X, 0] / WET_X)) * (1.0 - 0.5 * lift)
    g = 1.0 / (
        1.0 / h + 0.5 * cells[DZ, 0] * cells[GROWN, 0] / cells[K, 0] + 0.5 * plate[PLATE_DZ, m - 1] / sheet.plate_k
    )
    couple(rows, m - 1, g)
    return g


def face_row(rows, faces, cells, side, m, sheet, leg, gas_c, lift):
    """Add the heat that a free face (0 lower, 1 upper) takes from gas and walls, or from oil."""
    i = 0 if side == 0 else cells.shape[1] - 1
    if leg.oil:
        h = min(OIL_HIGH_H, max(OIL_LOW_H, OIL_LOW_H + OIL_SLOPE * (gas_c - OIL_REF_C)))
        if side == 0:
            h *= 1.0 - OIL_LIFT_LOW * lift
        else:
            h *= 1.0 - (OIL_LIFT_TOP * lift if sheet.parts else OIL_FLOAT_TOP)
        source = gas_c
    else:
        ta, tr = cells[T, i] + 273.15, leg.rad_c + 273.15
        h_rad = leg.emissivity * SIGMA * (ta * ta + tr * tr) * (ta + tr)
        h = leg.gas_h + h_rad
        source = (leg.gas_h * gas_c + h_rad * leg.rad_c) / max(h, 1e-12)
    g = 1.0 / (1.0 / max(h, 1e-12) + 0.5 * cells[DZ, i] * cells[GROWN, i] / cells[K, i])
    rows[DIAG, m + i] += g
    rows[RIGHT, m + i] += g * source
    faces[SOURCE, side], faces[H, side], faces[G, side] = source, h, g


def evaporation_row(rows, faces, cells, side, m, sheet, leg, tables, escaped, dt):
    """Add what evaporation from a free face costs, linear in its temperature; `escaped` [kg/m2] may condense on it
    again."""
    i = 0 if side == 0 else cells.shape[1] - 1
    t, x = cells[T, i], cells[X, i]
    pressure, p_inf = sheet.pressure_pa, leg.vapour_pa
    aw = 0.985 / (1.0 + (sheet.sorption_a / x) ** (1.0 / sheet.sorption_b))
    ev = face_evaporation(t, aw, sat_pa(tables, t), leg.gas_h, p_inf, pressure, sheet.evap_factor)
    warmer = face_evaporation(t + 0.1, aw, sat_pa(tables, t + 0.1), leg.gas_h, p_inf, pressure, sheet.evap_factor)
    slope = max((warmer - ev) / 0.1, 0.0)
    most = MOST_EVAP * x * cells[DRY, i] / dt
    if ev > most:
        ev = most
        slope = 0.0
    if ev < 0.0 and p_inf > STEAM_PA:
        floor = -min(0.5 * escaped / dt, 0.02)
        if ev < floor:
            ev = floor
            slope = 0.0
    latent = latent_heat_j_kg(t)
    rows[DIAG, m + i] += latent * slope
    rows[RIGHT, m + i] += latent * (slope * t - ev)
    faces[EVAP, side], faces[SLOPE, side] = ev, slope


def solve(rows):
    """Solve the tridiagonal system in place (Thomas); the answer is in `right`."""
    last = rows.shape[1] - 1
    for j in range(1, last + 1):
        f = rows[LOW, j] / rows[DIAG, j - 1]
        rows[DIAG, j] -= f * rows[UP, j - 1]
        rows[RIGHT, j] -= f * rows[RIGHT, j - 1]
    rows[RIGHT, last] /= rows[DIAG, last]
    for j in range(last - 1, -1, -1):
        rows[RIGHT, j] = (rows[RIGHT, j] - rows[UP, j] * rows[RIGHT, j + 1]) / rows[DIAG, j]


def heat_given(rows, faces, cells, m, leg, contact_w, dt):
    """(heat taken from plate or oil, heat given to the bread less what evaporation took) in the step [J/m2]."""
    n = cells.shape[1]
    given = contact_w * dt
    from_oil = 0.0
    for side in range(2):
        if side == 0 and leg.on_plate:
            continue
        i = 0 if side == 0 else n - 1
        flow = faces[G, side] * (faces[SOURCE, side] - rows[RIGHT, m + i]) * dt
        from_oil += flow
        given += flow
        if not leg.oil:
            left = faces[EVAP, side] + faces[SLOPE, side] * (rows[RIGHT, m + i] - cells[BEFORE, i])
            given -= latent_heat_j_kg(cells[BEFORE, i]) * left * dt
    if leg.on_plate:
        return contact_w * dt, given
    return (from_oil if leg.oil else 0.0), given
