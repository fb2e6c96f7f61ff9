"""Colour of both faces: skin that hovers over what heats it browns, skin that touches it chars. A compiler takes it."""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.conduction import sat_pa
from brassclock.core.fire.puff.state import BROWN, CHAR, GONE, SOURCE, H, T
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK

OIL_SPOT_H = Param(500.0, "W/(m2 K)", 300, 900, Kind.PUBLISHED_FROM_MEMORY, "boiling oil on a blister, order published")
COLOUR_M = Param(0.0002, "m", 1e-4, 4e-4, Kind.JUDGEMENT, "dry crust that shows its full colour")
# water activity at which a skin browns at half its dry rate, and how sharply
DRY_AW = Param(
    0.5, "-", 0.3, 0.7, Kind.FITTED, "water activity at which a skin browns at half its dry rate; stated times"
)
DRY_POWER = 4
BROWN_REF_K, CHAR_REF_K = 473.15, 573.15
DRYING_J_KG = 2.26e6
HOVERS, TOUCHES = 0, 1


def dry_skin(skin, face, patch, base, source, h_out, on, sheet, water_kg_m3, wet0, boils_c, most_m, dt):
    """Dry one patch of a face for dt. Returns (its skin's temperature [C], the share of full colour it can show)."""
    r_out = sheet.touch_r + (sheet.gap_r if patch == HOVERS else 0.0)
    crust = max(skin[GONE + patch, face] - wet0, 0.0) / water_kg_m3
    seen_m = min(crust, COLOUR_M)
    if on:
        drying = (source - boils_c) / (crust / sheet.crust_k + r_out)
        skin_c = base + (source - base) * (crust - 0.5 * seen_m) / sheet.crust_k / (crust / sheet.crust_k + r_out)
    else:
        drying = h_out * (source - boils_c)
        skin_c = base + (source - base) * h_out / (h_out + sheet.blister_g)
    dried = skin[GONE + patch, face] + max(drying, 0.0) * dt / DRYING_J_KG
    skin[GONE + patch, face] = min(dried, wet0 + water_kg_m3 * most_m)
    return skin_c, seen_m / COLOUR_M


def colour(skin, cells, faces, sheet, tables, leg, surface_c, face, side, boils_c, half_m, dt):
    """Add dt of browning and charring to a face (A 0, B 1) that lies below (side 0) or above (1)."""
    i = 0 if side == 0 else cells.shape[1] - 1
    on = side == 0 and leg.on_plate
    wet0 = sheet.film_kg_m2 if face == 0 else 0.0
    h_out = OIL_SPOT_H if leg.oil else faces[H, side]
    source = surface_c if on else faces[SOURCE, side]
    base = max(cells[T, i], boils_c)
    water = sheet.rho_kg_m3 * sheet.x0 / (1.0 + sheet.x0)
    skin_c, seen = dry_skin(skin, face, HOVERS, base, source, h_out, on, sheet, water, wet0, boils_c, half_m, dt)
    aw = min(sheet.pressure_pa / max(sat_pa(tables, skin_c), 1.0), 1.0)
    share = seen * dt / (1.0 + (aw / DRY_AW) ** DRY_POWER)
    skin[BROWN, face] += arrhenius(sheet.brown_200, sheet.brown_ea, skin_c, BROWN_REF_K) * share
    skin_c, seen = dry_skin(skin, face, TOUCHES, base, source, h_out, on, sheet, water, wet0, boils_c, half_m, dt)
    skin[CHAR, face] += arrhenius(sheet.char_300, sheet.char_ea, skin_c, CHAR_REF_K) * seen * dt


def arrhenius(rate, ea, t, ref_k):
    """Rate [1/s] at t [C] of one that is `rate` at ref_k, activation energy ea [J/mol]."""
    return rate * math.exp(-ea / GAS_CONSTANT_J_MOLK * (1.0 / (t + 273.15) - 1.0 / ref_k))
