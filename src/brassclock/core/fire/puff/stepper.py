"""The integrator of one bread on its plate: backward Euler for heat, boiling at the local boiling point of bound water,
steam driven inward that condenses on cooler crumb or opens the pocket. In the subset that a compiler takes.

The equations stand in `conduction`, `water`, `skin` and `marks`, what they work on in `state`.
"""

from __future__ import annotations

import math

import numpy as np

from brassclock.core.fire.puff.conduction import (
    DRY_CP,
    WATER_CP,
    boil_c,
    bread_rows,
    contact_row,
    evaporation_row,
    face_row,
    heat_given,
    plate_rows,
    properties,
    sat_pa,
    solve,
)
from brassclock.core.fire.puff.marks import (
    EVENTS,
    FLIP,
    FULL,
    FULL_SHARE,
    OFF,
    PUFF,
    SECOND,
    TOO_DRY,
    leg_over,
    mark_colours,
    mark_crumb,
    mark_done,
    stamp,
)
from brassclock.core.fire.puff.skin import colour
from brassclock.core.fire.puff.state import Cells, Faces, Leg, Plate, Rows, Skin, Totals
from brassclock.core.fire.puff.water import boil, dry_faces, fill_pocket, spread_water, steam_inward

WET_C = 20.0  # of what is sprayed or spread
POCKET_SHAPE = (
    0.6 * 1.2185
)  # volume of a full pocket over its radius cubed: two sheets of fixed size blown up, six tenths of it
EARLY_S, EARLY_STEP = 15.0, 0.25
PLATE_GRADING = 1.6
OPENS_OVER = 3.0  # the halves are parted for heat once a third of the pocket is full


def leg_of(legs, q):
    """The q-th stretch."""
    return Leg(
        legs.seconds[q], legs.turn[q] > 0.5, legs.on_plate[q] > 0.5, legs.flux[q], legs.back_c[q], legs.back_h[q],
        legs.gas_c[q], legs.gas_h[q], legs.rad_c[q], legs.emissivity[q], legs.vapour_pa[q], legs.end[q],
        legs.after_s[q], legs.takes_off[q] > 0.5, legs.oil[q] > 0.5, legs.dip_k[q], legs.dip_tau_s[q],
        legs.brown_to[q], legs.char_to[q], legs.wet[q],
    )  # fmt: skip


def cells_of(sheet, edges):
    """The cells of a sheet at rest between those edges [m]."""
    n = edges.shape[0] - 1
    dz = np.zeros(n)
    dry = np.zeros(n)
    for i in range(n):
        dz[i] = edges[i + 1] - edges[i]
        dry[i] = sheet.rho_kg_m3 * dz[i] / (1.0 + sheet.x0)
    t, x = np.full(n, sheet.start_c), np.full(n, sheet.x0)
    x[0] += sheet.film_kg_m2 / dry[0]
    return Cells(t, x, t.copy(), dry, dz, np.zeros(n), np.zeros(n), np.zeros(n), np.zeros(n), np.zeros(n), np.zeros(n))


def plate_of(sheet, start_c):
    """The plate with those temperatures [C], its cells finest at the top."""
    m = start_c.shape[0]
    total = 0.0
    for j in range(m):
        total += PLATE_GRADING**j
    dz = np.zeros(m)
    for j in range(m):
        dz[m - 1 - j] = sheet.plate_m * PLATE_GRADING**j / total
    return Plate(start_c.copy(), dz)


def turn_over(cells):
    """Lay the bread on its other face."""
    n = cells.t.shape[0]
    for i in range(n // 2):
        j = n - 1 - i
        cells.t[i], cells.t[j] = cells.t[j], cells.t[i]
        cells.x[i], cells.x[j] = cells.x[j], cells.x[i]
        cells.hottest[i], cells.hottest[j] = cells.hottest[j], cells.hottest[i]
        cells.dry[i], cells.dry[j] = cells.dry[j], cells.dry[i]
        cells.dz[i], cells.dz[j] = cells.dz[j], cells.dz[i]


def wet_top(cells, skin, top, wet):
    """Spread cold water [kg/m2] on the upper face, which is face `top` (A 0, B 1)."""
    i = cells.t.shape[0] - 1
    warm = cells.dry[i] * (DRY_CP + WATER_CP * cells.x[i])
    cells.t[i] = (warm * cells.t[i] + WATER_CP * wet * WET_C) / (warm + WATER_CP * wet)
    cells.x[i] += wet / cells.dry[i]
    skin.gone[top, 0] -= wet
    skin.gone[top, 1] -= wet


def heat_step(cells, plate, rows, faces, sheet, tables, leg, surface_c, gas_c, lift, escaped, dt):
    """Heat through plate and bread for dt. Returns (the plate's surface [C], heat taken and heat given [J/m2])."""
    m = plate.t.shape[0]
    properties(cells, sheet, tables)
    plate_rows(rows, plate, sheet, leg, surface_c, dt)
    bread_rows(rows, cells, sheet, m, dt, min(1.0, OPENS_OVER * lift))
    g = contact_row(rows, cells, plate, sheet, lift) if leg.on_plate else 0.0
    for side in range(2):
        faces.evap[side] = faces.slope[side] = 0.0
        if side == 0 and leg.on_plate:
            continue
        face_row(rows, faces, cells, side, m, sheet, leg, gas_c, lift)
        if not leg.oil:
            evaporation_row(rows, faces, cells, side, m, sheet, leg, tables, escaped, dt)
    solve(rows)
    for j in range(m):
        plate.t[j] = rows.right[j]
    contact_w = g * (plate.t[m - 1] - rows.right[m])
    taken, given = heat_given(rows, faces, cells, m, leg, contact_w, dt)
    return plate.t[m - 1] - contact_w * 0.5 * plate.dz[m - 1] / sheet.plate_k, taken, given


def record(film, row, time, cells, skin, flipped, pocket, loss, surface_c):
    """Write one row of the film, cells in A-up order. Returns the next row's number."""
    n = cells.t.shape[0]
    film.s[row] = time
    for i in range(n):
        film.temp_c[row, i] = cells.t[n - 1 - i] if flipped else cells.t[i]
    film.pocket[row], film.loss[row], film.surface_c[row] = pocket, loss, surface_c
    for face in range(2):
        film.brown[row, face] = skin.brown[face]
        film.char[row, face] = skin.char[face]
    return row + 1


def bake(sheet, legs, tables, edges, plate_c, dt0, every_s, film, events, brown, char):
    """Run the stretches. Fills `film`, `events` [s; then the start of each stretch], `plate_c` [C] and the doses of both
    faces; returns Totals."""
    n = edges.shape[0] - 1
    m = plate_c.shape[0]
    length = edges[n]
    cells, plate = cells_of(sheet, edges), plate_of(sheet, plate_c)
    rows = Rows(np.zeros(m + n), np.zeros(m + n), np.zeros(m + n), np.zeros(m + n))
    faces = Faces(np.zeros(2), np.zeros(2), np.zeros(2), np.zeros(2), np.zeros(2))
    skin = Skin(np.zeros((2, 2)), brown, char)
    full = POCKET_SHAPE * sheet.radius_m**3
    area = math.pi * sheet.radius_m * sheet.radius_m
    mass0 = sheet.rho_kg_m3 * length
    dry_pa = sheet.pressure_pa - sat_pa(tables, sheet.start_c)
    boils_c = boil_c(tables, sheet.x0)
    surface_c = plate.t[m - 1]
    volume = lost = taken = given = kept = dwell = time = next_row = escaped = loss_off = 0.0
    flipped = opened = False
    row = 0
    for e in range(events.shape[0]):
        events[e] = -1.0
    for q in range(legs.seconds.shape[0]):
        leg = leg_of(legs, q)
        if leg.turn:
            flipped = not flipped
            turn_over(cells)
            stamp(events, FLIP, time)
        if q == 1:
            events[SECOND] = time
        events[EVENTS + q] = time
        bottom = 1 if flipped else 0
        if leg.wet > 0.0:
            wet_top(cells, skin, 1 - bottom, leg.wet)
        age = 0.0
        stop_at = leg.seconds
        while age < stop_at - 1e-9:
            dt = dt0 * EARLY_STEP if age < EARLY_S - 1e-9 else dt0
            dt = min(dt, stop_at - age)
            gas_c = leg.gas_c - leg.dip_k * math.exp(-time / leg.dip_tau_s)
            surface_c, took, gave = heat_step(
                cells, plate, rows, faces, sheet, tables, leg, surface_c, gas_c, volume / full, escaped, dt
            )
            taken += took
            given += gave
            kept += boil(cells, rows, tables, m)
            lost += dry_faces(cells, faces, rows, leg, m, dt)
            escaped, left, back = steam_inward(
                cells, sheet, tables, leg, opened, 1.0 - math.exp(-dt / sheet.uptake_s), dt
            )
            lost += escaped + left
            kept -= back
            if opened:
                volume = fill_pocket(volume, full, sheet, area, left, dt)
            else:
                escaped += left
            for i in range(n):
                kept += cells.cap[i] * (cells.t[i] - cells.before[i])
            spread_water(cells, sheet, dt)
            age += dt
            time += dt
            for side in range(2):
                face = bottom if side == 0 else 1 - bottom
                colour(skin, cells, faces, sheet, tables, leg, surface_c, face, side, boils_c, 0.5 * length, dt)
            mark_crumb(events, cells, sheet, tables, dry_pa, length, bottom, time)
            opened = events[PUFF] >= 0.0
            if volume >= FULL_SHARE * full:
                stamp(events, FULL, time)
            dwell = mark_done(events, cells, sheet, length, opened, dwell, time, dt)
            if lost / mass0 >= sheet.dry_limit:
                stamp(events, TOO_DRY, time)
            mark_colours(events, skin, time)
            if stop_at == leg.seconds and leg_over(events, cells, skin, sheet, leg, bottom, lost / mass0):
                stop_at = min(leg.seconds, age + leg.after_s)
            if time >= next_row - 1e-9 and row < film.s.shape[0]:
                row = record(film, row, time, cells, skin, flipped, volume / full, lost / mass0, surface_c)
                next_row += every_s
        if leg.takes_off:
            loss_off = lost / mass0
            events[OFF] = time
    if events[OFF] < 0.0:
        events[OFF] = time
        loss_off = lost / mass0
    plate_c[:] = plate.t
    return Totals(row, lost / mass0, volume / full, surface_c, loss_off, taken, given - kept)
