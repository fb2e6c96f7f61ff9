"""Water of the bread: boiling, drying faces, steam that moves inward, the pocket; in the subset that a compiler
takes."""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.conduction import boil_c
from brassclock.core.fire.puff.state import BEFORE, BOIL_CAP, CAP, DRY, DZ, EVAP, HOTTEST, RIGHT, SLOPE, STEAM, T, X
from brassclock.core.matter.steam import latent_heat_j_kg

LEAST_X = Param(0.004, "kg/kg", 0.001, 0.01, Kind.JUDGEMENT, "water that stays bound")
BELOW_BOIL_C = 0.1  # crumb that much cooler than its boiling point takes up steam
TAKES_UP_X = Param(0.25, "kg/kg", 0.15, 0.35, Kind.JUDGEMENT, "wetter crumb takes up steam")
STEAM_KG_M3 = Param(0.598, "kg/m3", 0.597, 0.599, Kind.PUBLISHED_FROM_MEMORY, "steam at 100 C and 101 kPa (IAPWS)")
HOLE_FLOW = 0.6 * math.sqrt(34.0 / 0.598)  # m/s through a hole at the pressure that holds a sheet up
MOST_LOST = 0.9  # share of a face cell's water in one step


def boil(cells, rows, tables, m):
    """Boil what the step overheated: t, x and `steam` of every cell. Returns the heat kept as steam [J/m2]."""
    kept = 0.0
    for i in range(cells.shape[1]):
        star = cells[BEFORE, i] + cells[BOIL_CAP, i] * (rows[RIGHT, m + i] - cells[BEFORE, i]) / cells[CAP, i]
        cells[STEAM, i] = 0.0
        x = cells[X, i]
        at = boil_c(tables, x)
        if star > at and x > LEAST_X + 1e-4:
            latent = latent_heat_j_kg(at)
            xn = x
            half = 0.5 * tables.boil_dx
            for _ in range(5):
                slope = (boil_c(tables, xn + half) - boil_c(tables, xn - half)) / tables.boil_dx
                f = cells[CAP, i] * (star - boil_c(tables, xn)) - latent * cells[DRY, i] * (x - xn)
                xn -= f / (latent * cells[DRY, i] - cells[CAP, i] * slope)
                xn = min(max(xn, LEAST_X), x)
            cells[STEAM, i] = cells[DRY, i] * (x - xn)
            cells[T, i] = star - latent * cells[STEAM, i] / cells[CAP, i]
            cells[X, i] = xn
            kept += latent * cells[STEAM, i]
        else:
            cells[T, i] = star
    return kept


def dry_faces(cells, faces, rows, leg, m, dt):
    """Take from free faces what evaporates (give what condenses). Returns the water lost [kg/m2]."""
    lost = 0.0
    for side in range(2):
        if leg.oil or (side == 0 and leg.on_plate):
            continue
        i = 0 if side == 0 else cells.shape[1] - 1
        ev = faces[EVAP, side] + faces[SLOPE, side] * (rows[RIGHT, m + i] - cells[BEFORE, i])
        ev = min(ev, MOST_LOST * cells[X, i] * cells[DRY, i] / dt)
        cells[X, i] -= ev * dt / cells[DRY, i]
        lost += ev * dt
    return lost


def steam_inward(cells, sheet, tables, leg, opened, uptake, dt):
    """Send steam of each half inward; it condenses on cooler crumb, or is left over in the middle.

    Returns (steam that left by the faces, steam left over, both [kg/m2]; heat it gave back [J/m2]).
    """
    n = cells.shape[1]
    half = n // 2
    escaped = 0.0
    left = 0.0
    back = 0.0
    for side in range(2):
        share = sheet.inward_contact if (side == 0 and leg.on_plate) else sheet.inward_free
        moving = 0.0
        for step in range(n):
            i = step if side == 0 else n - 1 - step
            if step < half:
                inward = share * cells[STEAM, i]
                moving += inward
                escaped += cells[STEAM, i] - inward
            elif opened and step > half:
                break
            if moving <= 0.0:
                continue
            at = boil_c(tables, cells[X, i])
            if cells[X, i] > TAKES_UP_X and cells[T, i] < at - BELOW_BOIL_C:
                latent = latent_heat_j_kg(at)
                gap = at - BELOW_BOIL_C - cells[T, i]
                if opened and step == half:
                    take = min(sheet.pocket_h * dt, 0.5 * cells[CAP, i]) * gap / latent
                else:
                    take = cells[CAP, i] * gap * uptake / latent
                take = min(take, moving)
                moving -= take
                cells[X, i] += take / cells[DRY, i]
                cells[T, i] += latent * take / cells[CAP, i]
                back += latent * take
        left += moving
    return escaped, left, back


def fill_pocket(volume, full, sheet, area, left, dt):
    """Volume of the pocket [m3] after steam `left` [kg/m2] went into it and leaked out of it."""
    flow = (left / dt - sheet.leak_kg_m2s) * area / STEAM_KG_M3 - HOLE_FLOW * sheet.hole_m2
    return min(max(volume + flow * dt, 0.0), full)


def spread_water(cells, sheet, dt):
    """Even out liquid water between neighbours; no cell dries below what stays bound."""
    n = cells.shape[1]
    for i in range(n - 1):
        flow = sheet.water_d * sheet.rho_kg_m3 / (1.0 + sheet.x0) * (cells[X, i] - cells[X, i + 1])
        flow *= dt / (0.5 * (cells[DZ, i] + cells[DZ, i + 1]))
        cells[X, i] -= flow / cells[DRY, i]
        cells[X, i + 1] += flow / cells[DRY, i + 1]
    for i in range(n):
        cells[X, i] = max(cells[X, i], LEAST_X)
        cells[HOTTEST, i] = max(cells[HOTTEST, i], cells[T, i])
