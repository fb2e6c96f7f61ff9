"""Each step of the puff's integrator by itself, on a sheet that hypothesis draws: what it may not create or lose."""

from __future__ import annotations

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.fire.puff import conduction, marks, model, skin, stepper, water
from brassclock.core.fire.puff.state import (
    BEFORE,
    BOIL_CAP,
    BROWN,
    CAP,
    CHAR,
    DIAG,
    DRY,
    FACE_ROWS,
    HOTTEST,
    LOW,
    RIGHT,
    SKIN_ROWS,
    SOURCE,
    STEAM,
    SYSTEM_ROWS,
    UP,
    Array,
    H,
    Leg,
    Sheet,
    T,
    X,
)
from brassclock.core.matter.steam import latent_heat_j_kg

PRESSURE = 101325.0
TABLES = model._tables(PRESSURE, 1.5)
PLATE = model.Plate("iron", 0.006, 240.0)
LEG = stepper.leg_of(model._legs([model.Stage(60, False, 9000.0, 60.0, 10.0, model.Face(200, 12, 220))]), 0)
FREE = LEG._replace(on_plate=False)
SEEDS = st.integers(0, 10_000)


def sheet_of(mm: float = 3.5, x0: float = 0.88) -> Sheet:
    return model._sheet(model.Bread(mm / 1000, 0.18, x0, 24.0), PLATE, PRESSURE, {})


def drawn(seed: int, low_c: float = 20.0, high_c: float = 98.0) -> tuple[Sheet, Array]:
    """A sheet part way through: temperatures and water at random, properties filled."""
    sheet, rng = sheet_of(), np.random.default_rng(seed)
    cells = stepper.cells_of(sheet, model.grid_edges(0.0035, 20))
    cells[T], cells[X] = rng.uniform(low_c, high_c, 20), rng.uniform(0.3, 0.9, 20)
    cells[HOTTEST] = cells[T]
    conduction.properties(cells, sheet, TABLES)
    return sheet, cells


def rows_of(count: int) -> Array:
    return np.zeros((SYSTEM_ROWS, count))


def faces_of() -> Array:
    return np.zeros((FACE_ROWS, 2))


@given(SEEDS)
def test_the_tridiagonal_solution_is_that_of_numpy(seed: int) -> None:
    """Reference: numpy.linalg.solve on the full matrix."""
    rng = np.random.default_rng(seed)
    rows = rows_of(9)
    for j in range(8):
        conduction.couple(rows, j, float(rng.uniform(1, 500)))
    rows[DIAG] += rng.uniform(1, 900, 9)
    rows[RIGHT] = rng.uniform(-1e5, 1e5, 9)
    full = np.diag(rows[DIAG]) + np.diag(rows[UP, :-1], 1) + np.diag(rows[LOW, 1:], -1)
    wanted = np.linalg.solve(full, rows[RIGHT].copy())
    conduction.solve(rows)
    assert np.allclose(rows[RIGHT], wanted, rtol=1e-9)


@given(SEEDS, st.sampled_from([0.125, 0.5]))
def test_an_even_bread_on_an_even_plate_stays_as_it_is(seed: int, dt: float) -> None:
    """Nothing flows between equals: plate, bread and air at one temperature, dry air apart."""
    at = 20.0 + seed % 60
    sheet = sheet_of()._replace(evap_factor=0.0)
    cells = stepper.cells_of(sheet, model.grid_edges(0.0035, 20))
    cells[T] = at
    plate = stepper.plate_of(sheet, np.full(8, at))
    leg = LEG._replace(flux=0.0, back_c=at, gas_c=at, rad_c=at)
    rows = rows_of(28)
    surface, taken, given_j = stepper.heat_step(
        cells, plate, rows, faces_of(), sheet, TABLES, leg, at, at, 0.0, 0.0, dt
    )
    assert np.allclose(rows[RIGHT], at, atol=1e-9)
    assert (surface, taken, given_j) == (pytest.approx(at), pytest.approx(0, abs=1e-6), pytest.approx(0, abs=1e-6))


@given(SEEDS, st.floats(1.0, 60.0))
def test_boiling_keeps_heat_and_water_together(seed: int, over_c: float) -> None:
    """Heat of the overheated cells = heat of the cells after + latent heat of the steam; water = water + steam."""
    _, cells = drawn(seed)
    rows = rows_of(20)
    rows[RIGHT] = cells[T] + over_c
    overheated = cells[BEFORE] + cells[BOIL_CAP] * (rows[RIGHT] - cells[BEFORE]) / cells[CAP]
    before_j, before_kg = float(cells[CAP] @ overheated), float(cells[DRY] @ cells[X])
    kept = water.boil(cells, rows, TABLES, 0)
    assert float(cells[CAP] @ cells[T]) + kept == pytest.approx(before_j, rel=1e-9)
    assert float(cells[DRY] @ cells[X] + cells[STEAM].sum()) == pytest.approx(before_kg, rel=1e-12)
    assert (cells[STEAM] >= 0).all() and cells[X].min() >= water.LEAST_X


@given(SEEDS, st.booleans(), st.sampled_from([0.125, 0.5]))
def test_steam_is_taken_up_left_over_or_gone(seed: int, opened: bool, dt: float) -> None:
    sheet, cells = drawn(seed)
    cells[STEAM] = np.random.default_rng(seed + 1).uniform(0, 0.01, 20)
    before_kg, before_j = float(cells[DRY] @ cells[X]), float(cells[CAP] @ cells[T])
    made = float(cells[STEAM].sum())
    uptake = 1 - math.exp(-dt / sheet.uptake_s)
    escaped, left, back = water.steam_inward(cells, sheet, TABLES, LEG, opened, uptake, dt)
    assert float(cells[DRY] @ cells[X]) - before_kg + escaped + left == pytest.approx(made, rel=1e-9)
    assert float(cells[CAP] @ cells[T]) - before_j == pytest.approx(back, rel=1e-6, abs=1e-6)
    assert min(escaped, left) >= 0


@given(SEEDS)
def test_water_spreads_without_loss(seed: int) -> None:
    sheet, cells = drawn(seed)
    before, spread = float(cells[DRY] @ cells[X]), float(np.ptp(cells[X]))
    water.spread_water(cells, sheet, 0.5)
    assert float(cells[DRY] @ cells[X]) == pytest.approx(before, rel=1e-12)
    assert np.ptp(cells[X]) <= spread + 1e-12


@given(SEEDS, st.floats(100, 450))
def test_hotter_skin_colours_sooner(seed: int, source_c: float) -> None:
    sheet, cells = drawn(seed)
    doses = []
    for more in (0.0, 20.0):
        on = np.array([[0.08, 0.08], [0.08, 0.08], [0.0, 0.0], [0.0, 0.0]])
        faces = faces_of()
        faces[SOURCE], faces[H] = source_c + more, 40.0
        skin.colour(on, cells, faces, sheet, TABLES, LEG, source_c + more, 0, 0, 100.4, 0.00175, 0.5)
        doses.append((on[BROWN, 0], on[CHAR, 0]))
    assert doses[1] > doses[0] >= (0.0, 0.0)


def test_a_face_gains_water_from_steam_and_loses_it_to_dry_air() -> None:
    """Stefan flow: none where the vapour over the face is that of the gas, and its sign follows the difference."""

    def flow(p_inf: float) -> float:
        return conduction.face_evaporation(60.0, 1.0, 19_946.0, 12.0, p_inf, PRESSURE, 1.0)

    assert flow(19_946.0) == pytest.approx(0.0, abs=1e-12)
    assert flow(2_000.0) > 0 > flow(60_000.0)


def test_the_stepper_boils_by_the_checked_latent_heat() -> None:
    """The one latent heat: what is checked against IAPWS (see test_outside) is what the stepper calls."""
    assert conduction.latent_heat_j_kg is latent_heat_j_kg is water.latent_heat_j_kg


@pytest.mark.parametrize("end", range(1, 8))
def test_a_stretch_ends_only_on_its_own_sign(end: int) -> None:
    """No sign, no end; every sign there, all end."""
    sheet, cells = drawn(3)
    events = np.full(marks.EVENTS, -1.0)
    bare = np.zeros((SKIN_ROWS, 2))
    leg: Leg = FREE._replace(end=float(end), brown_to=0.2)
    cells[HOTTEST] = 50.0
    assert not marks.leg_over(events, cells, bare, sheet, leg, 0, 0.0)
    events[:] = 10.0
    done = np.ones((SKIN_ROWS, 2))
    cells[HOTTEST] = 100.0
    assert marks.leg_over(events, cells, done, sheet, leg, 0, 0.3)
    assert not marks.leg_over(events, cells, done, sheet, leg._replace(end=float(marks.END_TIME)), 0, 0.3)
