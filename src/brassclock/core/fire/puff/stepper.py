"""The integrator of one bread on its plate: backward Euler for heat, boiling at the local boiling point of bound water,
steam driven inward that condenses on cooler crumb or opens the pocket. In the subset that a compiler takes.

The equations stand in `conduction`, `water`, `skin` and `marks`, what they work on in `state`.
"""

from __future__ import annotations

import math

import numpy as np

from brassclock.core.evidence import Kind, Param
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
from brassclock.core.fire.puff.skin import HOVERS, TOUCHES, colour
from brassclock.core.fire.puff.state import (
    BEFORE,
    BROWN,
    CAP,
    CELL_ROWS,
    CHAR,
    DRY,
    DZ,
    EVAP,
    FACE_ROWS,
    GONE,
    HOTTEST,
    PLATE_DZ,
    PLATE_ROWS,
    PLATE_T,
    RIGHT,
    SKIN_ROWS,
    SLOPE,
    SYSTEM_ROWS,
    Leg,
    T,
    Totals,
    X,
)
from brassclock.core.fire.puff.water import boil, dry_faces, fill_pocket, spread_water, steam_inward

WET_C = Param(20.0, "C", 10, 25, Kind.JUDGEMENT, "of what is sprayed or spread")
POCKET_SHAPE = (
    0.6 * 1.2185
)  # volume of a full pocket over its radius cubed: two sheets of fixed size blown up, six tenths of it
EARLY_S, EARLY_STEP = 15.0, 0.25
PLATE_GRADING = 1.6
OPENS_OVER = 3.0  # the halves are parted for heat once a third of the pocket is full


def leg_of(legs, q):
    """The q-th stretch."""
    return Leg(
        legs.seconds[q],
        legs.turn[q] > 0.5,
        legs.on_plate[q] > 0.5,
        legs.flux[q],
        legs.back_c[q],
        legs.back_h[q],
        legs.gas_c[q],
        legs.gas_h[q],
        legs.rad_c[q],
        legs.emissivity[q],
        legs.vapour_pa[q],
        legs.end[q],
        legs.after_s[q],
        legs.takes_off[q] > 0.5,
        legs.oil[q] > 0.5,
        legs.dip_k[q],
        legs.dip_tau_s[q],
        legs.brown_to[q],
        legs.char_to[q],
        legs.wet[q],
    )


def cells_of(sheet, edges):
    """The cells of a sheet at rest between those edges [m]."""
    n = edges.shape[0] - 1
    cells = np.zeros((CELL_ROWS, n))
    for i in range(n):
        cells[T, i] = cells[HOTTEST, i] = sheet.start_c
        cells[X, i] = sheet.x0
        cells[DZ, i] = edges[i + 1] - edges[i]
        cells[DRY, i] = sheet.rho_kg_m3 * cells[DZ, i] / (1.0 + sheet.x0)
    cells[X, 0] += sheet.film_kg_m2 / cells[DRY, 0]
    return cells


def plate_of(sheet, start_c):
    """The plate with those temperatures [C], its cells finest at the top."""
    m = start_c.shape[0]
    total = 0.0
    for j in range(m):
        total += PLATE_GRADING**j
    plate = np.zeros((PLATE_ROWS, m))
    for j in range(m):
        plate[PLATE_T, j] = start_c[j]
        plate[PLATE_DZ, m - 1 - j] = sheet.plate_m * PLATE_GRADING**j / total
    return plate


def turn_over(cells):
    """Lay the bread on its other face."""
    n = cells.shape[1]
    for i in range(n // 2):
        j = n - 1 - i
        cells[T, i], cells[T, j] = cells[T, j], cells[T, i]
        cells[X, i], cells[X, j] = cells[X, j], cells[X, i]
        cells[HOTTEST, i], cells[HOTTEST, j] = cells[HOTTEST, j], cells[HOTTEST, i]
        cells[DRY, i], cells[DRY, j] = cells[DRY, j], cells[DRY, i]
        cells[DZ, i], cells[DZ, j] = cells[DZ, j], cells[DZ, i]


def wet_top(cells, skin, top, wet):
    """Spread cold water [kg/m2] on the upper face, which is face `top` (A 0, B 1)."""
    i = cells.shape[1] - 1
    warm = cells[DRY, i] * (DRY_CP + WATER_CP * cells[X, i])
    cells[T, i] = (warm * cells[T, i] + WATER_CP * wet * WET_C) / (warm + WATER_CP * wet)
    cells[X, i] += wet / cells[DRY, i]
    skin[GONE + HOVERS, top] -= wet
    skin[GONE + TOUCHES, top] -= wet


def heat_step(cells, plate, rows, faces, sheet, tables, leg, surface_c, gas_c, lift, escaped, dt):
    """Heat through plate and bread for dt. Returns (the plate's surface [C], heat taken and heat given [J/m2])."""
    m = plate.shape[1]
    properties(cells, sheet, tables)
    plate_rows(rows, plate, sheet, leg, surface_c, dt)
    bread_rows(rows, cells, sheet, m, dt, min(1.0, OPENS_OVER * lift))
    g = contact_row(rows, cells, plate, sheet, lift) if leg.on_plate else 0.0
    for side in range(2):
        faces[EVAP, side] = faces[SLOPE, side] = 0.0
        if side == 0 and leg.on_plate:
            continue
        face_row(rows, faces, cells, side, m, sheet, leg, gas_c, lift)
        if not leg.oil:
            evaporation_row(rows, faces, cells, side, m, sheet, leg, tables, escaped, dt)
    solve(rows)
    for j in range(m):
        plate[PLATE_T, j] = rows[RIGHT, j]
    contact_w = g * (plate[PLATE_T, m - 1] - rows[RIGHT, m])
    taken, given = heat_given(rows, faces, cells, m, leg, contact_w, dt)
    return plate[PLATE_T, m - 1] - contact_w * 0.5 * plate[PLATE_DZ, m - 1] / sheet.plate_k, taken, given


def record(film, row, time, cells, skin, flipped, pocket, loss, surface_c):
    """Write one row of the film, cells in A-up order. Returns the next row's number."""
    n = cells.shape[1]
    film.s[row] = time
    for i in range(n):
        film.temp_c[row, i] = cells[T, n - 1 - i] if flipped else cells[T, i]
    film.pocket[row], film.loss[row], film.surface_c[row] = pocket, loss, surface_c
    for face in range(2):
        film.brown[row, face] = skin[BROWN, face]
        film.char[row, face] = skin[CHAR, face]
    return row + 1


def bake(sheet, legs, tables, edges, plate_c, dt0, every_s, film, events, doses):
    """Run the stretches. Fills `film`, `events` [s; then the start of each stretch], `plate_c` [C] and `doses` of both
    faces (browning, charring); returns Totals."""
    n = edges.shape[0] - 1
    m = plate_c.shape[0]
    length = edges[n]
    cells, plate = cells_of(sheet, edges), plate_of(sheet, plate_c)
    rows, faces, skin = np.zeros((SYSTEM_ROWS, m + n)), np.zeros((FACE_ROWS, 2)), np.zeros((SKIN_ROWS, 2))
    full = POCKET_SHAPE * sheet.radius_m**3
    area = math.pi * sheet.radius_m * sheet.radius_m
    mass0 = sheet.rho_kg_m3 * length
    dry_pa = sheet.pressure_pa - sat_pa(tables, sheet.start_c)
    boils_c = boil_c(tables, sheet.x0)
    surface_c = plate[PLATE_T, m - 1]
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
                kept += cells[CAP, i] * (cells[T, i] - cells[BEFORE, i])
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
    plate_c[:] = plate[PLATE_T]
    doses[:] = skin[BROWN:]
    return Totals(row, lost / mass0, volume / full, surface_c, loss_off, taken, given - kept)
