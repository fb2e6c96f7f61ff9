"""Equations of a bread that is kept, in the subset that a compiler takes: crust, crumb, heat, sweat, staling.

One bread stands for the mean of its stack. Grams, seconds, C; water per dry mass.
"""

from __future__ import annotations

import math
from typing import NamedTuple

OPEN, RACK, CLOTH, BAG, HOT_BOX, FRIDGE, FREEZER = range(7)
HOUR_S, DAY_S = 3600.0, 86400.0
(AT, TEMP, CRUST_X, MEAN_X, STALED, CRISP, SOFT, LOST, SWEAT, ACTIVITY) = range(10)  # columns of a row
COLUMNS = 10
HOLDS_FROM_C, MELTS_C = -7.0, 60.0  # below, no staling; from there on the starch melts again
FREEZES_C = (-12.0, -4.0)
LEAST_X = 1e-4


class Bread(NamedTuple):
    """Constants of the equations for a bread, its stack and the room."""

    dry_g: float
    crust_share: float
    crust_mm: float
    crust_x: float
    crumb_x: float
    start_c: float
    soft_x: float  # water at which nothing of its softness is lost to drying
    diameter_m: float
    height_m: float
    stack: float
    salt: float  # factor of the crumb's water activity
    ages: float  # how fast it stales, beside the table
    staled: float  # staling age at the start
    film: float  # vapour let through by what was brushed on it
    brushed_g: float  # water in that
    room_c: float
    room_rh: float
    box_c: float


def saturated_pa(temp_c: float) -> float:
    """Vapour pressure over water, over ice below 0 C [Pa]."""
    if temp_c >= 0.0:
        return 611.2 * math.exp(17.62 * temp_c / (243.12 + temp_c))
    return 611.2 * math.exp(22.46 * temp_c / (272.62 + temp_c))


def activity(x, a, b):
    """Water activity at a water content (Oswin)."""
    return 0.985 / (1.0 + (a / max(x, LEAST_X)) ** (1.0 / b))


def content(aw, a, b):
    """Water content at a water activity."""
    held = min(max(aw, 0.02), 0.975)
    return a / (0.985 / held - 1.0) ** b


def staling_per_s(temp_c: float, days: float, per_k: float) -> float:
    """Rate of the staling age [1/s]: fastest just above freezing, none once the starch melts."""
    if temp_c >= MELTS_C:
        return 0.0
    at_4 = 1.0 / (days * DAY_S)
    if temp_c >= 4.0:
        return at_4 * math.exp(-(temp_c - 4.0) / per_k) * (1.0 - ((temp_c - 4.0) / 56.0) ** 4)
    return at_4 * min(max((temp_c - HOLDS_FROM_C) / 6.0, 0.0), 1.0)


def step_s(t):
    """Length of the step that begins so long after the heat [s]."""
    if t < 900.0:
        return 2.0
    if t < 7200.0:
        return 10.0
    return 60.0 if t < 21600.0 else 300.0


def around_c(wrap, bread):
    """Temperature about a bread in a wrap [C]."""
    if wrap == HOT_BOX:
        return bread.box_c
    if wrap == FREEZER:
        return -18.0
    return 4.0 if wrap == FRIDGE else bread.room_c


def heat_w_m2k(wrap, p):
    """Heat that a wrap lets through [W/m2K]."""
    if wrap == CLOTH:
        return p.u_cloth
    if wrap == BAG:
        return p.u_bag
    if wrap == HOT_BOX:
        return p.u_box
    return p.u_cold if wrap >= FRIDGE else p.u_air


def vapour_out(wrap, bread, p):
    """Vapour that a wrap lets through, with what is brushed on the bread [kg/m2sPa]."""
    if wrap == CLOTH:
        return bread.film / (1.0 / p.k_air + 1.0 / p.k_cloth)
    return bread.film * (p.k_box if wrap == HOT_BOX else p.k_air)


def run(bread, p, from_s, wraps, until_s, rows):
    """Fill `rows` step by step, the wrap being `wraps[i]` from `from_s[i]` on. Returns the number of rows."""
    area = math.pi * bread.diameter_m**2 / 4.0
    edge = math.pi * bread.diameter_m * bread.height_m
    whole = 2.0 * area + edge
    temp, crust, crumb, share = bread.start_c, bread.crust_x, bread.crumb_x, bread.crust_share
    age, sweat, lost, brushed, t, n, i = bread.staled, 0.0, 0.0, bread.brushed_g, 0.0, 0, 0
    within = p.k_crust * 0.3 / bread.crust_mm
    while t < until_s - 1e-6 and n < rows.shape[0]:
        while i + 1 < len(from_s) and t >= from_s[i + 1]:
            i += 1
        wrap, dt = wraps[i], step_s(t)
        closed = wrap in (BAG, FRIDGE, FREEZER)
        here_c = around_c(wrap, bread)
        faces = ((area if wrap == OPEN else 2.0 * area) + bread.stack * edge) / bread.stack
        hot = (1.5 * area + bread.stack * edge) / bread.stack if wrap == OPEN else faces
        u = 1.0 / (1.0 / heat_w_m2k(wrap, p) + bread.stack * bread.height_m / (6.0 * p.k_bread))
        outer = vapour_out(wrap, bread, p)
        mean = share * crust + (1.0 - share) * crumb
        capacity = bread.dry_g * (1.5 + 4.18 * mean)
        if FREEZES_C[0] < temp < FREEZES_C[1]:
            capacity += bread.dry_g * mean * 0.7 * 334.0 / 8.0
        wet = activity(crumb, p.sorption_a, p.sorption_b) * bread.salt
        full_pa = saturated_pa(temp)
        if closed:
            film_pa = saturated_pa(here_c + 0.4 * (temp - here_c))
            flow = 1e3 * faces * (wet * full_pa - film_pa) / (1.0 / within + 1.0 / outer)
            flow = (
                max(min(flow, p.condenses * u * hot * (temp - here_c) / p.latent), -sweat / dt) if temp > 0.0 else 0.0
            )
            at_face, cooled = wet, 0.0
            sweat += flow * dt
        else:
            out_pa = 0.8 * saturated_pa(bread.box_c) if wrap == HOT_BOX else bread.room_rh * saturated_pa(bread.room_c)
            flow = max(1e3 * faces * (wet * full_pa - out_pa) / (1.0 / within + 1.0 / outer), 0.0)
            open_share = outer / within * faces / whole
            at_face = (wet + open_share * min(out_pa / full_pa, 1.0)) / (1.0 + open_share)
            cooled = p.latent * flow
            lost += flow * dt
        tau = p.tau_crust_s * (bread.crust_mm / 0.3) ** 2 * math.exp(min(max((60.0 - temp) / 60.0, -0.6), 1.0))
        soaked = brushed * (1.0 - math.exp(-dt / p.tau_brushed_s))
        brushed -= soaked
        level = content(at_face, p.sorption_a, p.sorption_b)
        then = level + (crust - level) * math.exp(-dt / tau) + soaked / (share * bread.dry_g)
        paid = share * bread.dry_g * (then - crust) - soaked + min(flow * dt, 0.5 * crumb * bread.dry_g)
        crumb -= paid / ((1.0 - share) * bread.dry_g)
        crust = then
        was = temp
        temp -= (u * hot * (temp - here_c) + cooled) * dt / capacity
        if cooled > 0.0:
            temp = max(temp, min(was, here_c))
        age += staling_per_s(temp, p.stale_days, p.stale_per_k) * bread.ages * dt
        t += dt
        stale = 1.0 - math.exp(-age)
        crisp = 1.0 / (1.0 + math.exp((crust - p.half_crisp_x) / p.crisp_width_x))
        mean = share * crust + (1.0 - share) * crumb
        dry = max(0.0, math.log(bread.soft_x / max(mean, LEAST_X)))
        firm = p.stale_firms * stale + p.dry_firms * dry + p.crisp_firms * crisp * share / 0.16
        rows[n, AT], rows[n, TEMP], rows[n, CRUST_X], rows[n, MEAN_X] = t, temp, crust, mean
        rows[n, STALED], rows[n, CRISP], rows[n, SOFT] = stale, 100.0 * crisp, 100.0 * math.exp(-firm)
        rows[n, LOST], rows[n, SWEAT], rows[n, ACTIVITY] = lost, sweat, wet
        n += 1
    return n
