"""Puff: conduction against closed forms, steam numbers, worked breads, done at altitude, plain truths."""

from __future__ import annotations

import math
from dataclasses import replace
from itertools import pairwise
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.optimize import brentq
from scipy.special import erfc

from brassclock.core.fire.actions import actions, extra_moves
from brassclock.core.fire.baking import Baking, Faults, laid_on, shrunk
from brassclock.core.fire.calibration import JudgedBread, calibrate, of_breads, probability, wanting
from brassclock.core.fire.colour import GOLDEN_BOTH, WORDS, reached_s, wish_of
from brassclock.core.fire.edges import edge_seconds, edge_temperature
from brassclock.core.fire.ends import SHORT_OF_S, black_s
from brassclock.core.fire.heating import idle, recovery_s
from brassclock.core.fire.layers import layered, yeasted
from brassclock.core.fire.legs import Step, chosen
from brassclock.core.fire.line.spec import bread_ops
from brassclock.core.fire.probe import EVENT_OF, invert
from brassclock.core.fire.program import Program, plan_bread
from brassclock.core.fire.puff import conduction, model
from brassclock.core.fire.puff.params import MATERIALS, PARAMS
from brassclock.core.fire.right_heat import implied
from brassclock.core.fire.risk import pocket_score
from brassclock.core.fire.surfaces import KINDS, Surface
from brassclock.core.matter.air import pressure_at_altitude_pa
from helpers import worked

OPEN = model.Face(30, 10, 30, 0.9, 1200)
FACES = {
    "lid": model.Face(110, 10, 120, 0.9, 75000),
    "clay": model.Face(300, 20, 480, 0.85, 3000),
    "gas": model.Face(650, 45, 390, 0.9, 9000),
    "ceramic": model.Face(150, 10, 480, 0.7, 2000),
    "dome": model.Face(400, 15, 420, 0.75, 6000),
}
TIMED = ("puff", "full", "char_bottom", "light_bottom", "golden_bottom", "golden_top", "done")
CASES = worked("puff")["bread"]
QUIET = {"k_ec": 0.0, "d_w": 0.0, "f_contact": 0.0, "f_free": 0.0, "b_ev": 0.0}


def bake_case(case: dict[str, Any], **changes: Any) -> model.Baked:
    x0 = (case["hydration"] + 0.14) / 0.86
    bread = model.Bread(
        case["thickness_mm"] / 1000,
        case["diameter_cm"] / 100,
        x0,
        22.0,
        1050.0,
        0.12,
        case.get("rise_g", 1.2),
        case.get("pocket", True),
        case.get("hole_mm2", 0.0) * 1e-6,
        case.get("film", 0.0),
    )
    oven, oil = case.get("oven_c"), case.get("top") == "oil"
    top = model.Face(oven, 15, oven, 0.9, 3000) if oven else OPEN
    below = (
        (0.0, oven, 0.0 if case["material"] == "clay" else 30.0)
        if oven
        else (case.get("hob_kw", 0) * 1000.0, 25.0, 8.0)
    )
    flame = FACES.get(case.get("top", ""), top)
    if oil:
        top = model.Face(case["plate_c"], 1, case["plate_c"], 0, 0)
    elif not any(kind == "flame" for kind, _, _ in case["stages"]):
        top = flame
    stages = [
        model.Stage(s, False, 0.0, 25.0, 8.0, flame)
        if kind == "flame"
        else model.Stage(s, kind == "turn", *below, top, kind if kind in ("cue", "puff") else "time", after, oil=oil)
        for kind, s, after in case["stages"]
    ]
    plate = model.Plate(case["material"], case["plate_mm"] / 1000, case["plate_c"])
    contact = {k: case[k] for k in ("h_wet", "h_dry", "dust") if k in case}
    return model.simulate(bread, plate, stages, **({"dt_s": 0.25, "overrides": contact} | changes))


@pytest.mark.parametrize("case", CASES, ids=lambda c: f"{c['name']} ({c['standing']})")
def test_worked_breads(case: dict[str, Any]) -> None:
    baked = bake_case(case)
    for event in TIMED:
        if event in case:
            assert baked.events[event] == pytest.approx(case[event], abs=4.0), event
    assert baked.loss_frac == pytest.approx(case["loss"], abs=0.008)
    assert baked.pocket_frac < case.get("pocket_below", 1.01)
    for event in (*TIMED, "bubbles", "off"):
        if f"practice_{event}" in case:
            low, high = case[f"practice_{event}"]
            inside = low <= (baked.events[event] or math.inf) <= high
            missed = case.get("known_miss", {}).get(event)
            assert inside == (missed is None), event
            assert missed is None or baked.events[event] == pytest.approx(missed, abs=4.0), event


def slab(both: bool, h: float, seconds: float, plate: model.Plate | None = None, cells: int = 40) -> model.Baked:
    """A quiet slab: no steam, no evaporation, no swelling: pure conduction with k .358, c 2788.5, rho 1050."""
    bread = model.Bread(0.006 if both else 0.04, 0.2, 0.8837, 20.0, 1050.0, 0.12, 1.0, pocket=False)
    hot, shut = model.Face(90, h, 90, 0.0, 0.0), model.Face(20, 1e-9, 20, 0.0, 0.0)
    stage = model.Stage(
        seconds, False, 0.0, 20.0, 0.0, hot if both or plate is None else shut, on_plate=plate is not None
    )
    return model.simulate(
        bread,
        plate or model.Plate("clay", 0.05, 20),
        [stage],
        grid=(cells, 12),
        dt_s=0.02,
        every_s=seconds / 4,
        overrides=QUIET | ({"h_wet": 1e7, "h_dry": 1e7} if plate else {}),
    )


def test_conduction_in_a_slab_heated_on_both_faces() -> None:
    """Analytic: one-dimensional series (Carslaw and Jaeger) for Bi = h L / k, mid-plane after 20 and 60 s."""
    k, rho_c, half = 0.3580, 1050 * 2788.5, 0.003
    biot = 200 * half / k
    roots = [
        brentq(lambda z: z * math.sin(z) - biot * math.cos(z), n * math.pi + 1e-9, n * math.pi + math.pi / 2 - 1e-9)
        for n in range(40)
    ]
    for seconds in (20.0, 60.0):
        fo = k / rho_c * seconds / half**2
        left = sum(4 * math.sin(z) / (2 * z + math.sin(2 * z)) * math.exp(-(z**2) * fo) for z in roots)
        column = slab(True, 200, seconds).temp_c[-1]
        assert column[19:21].mean() == pytest.approx(90 - 70 * left, abs=0.35)


def test_conduction_into_a_half_space() -> None:
    """Analytic: erfc solution, face at 90 C, 2 mm deep after 20 s; the far face is 20 mm away and adds nothing."""
    bread = model.Bread(0.04, 0.2, 0.8837, 20.0, 1050.0, 0.12, 1.0, pocket=False)
    stage = model.Stage(20.0, False, 0.0, 20.0, 0.0, model.Face(90, 1e6, 90, 0, 0), on_plate=False)
    baked = model.simulate(bread, model.Plate("clay", 0.05, 20), [stage], grid=(200, 12), dt_s=0.02, overrides=QUIET)
    at_2mm = np.interp(2.0, baked.depth_mm, baked.temp_c[-1])
    assert at_2mm == pytest.approx(45.61, abs=0.4)


def test_contact_temperature_of_two_bodies() -> None:
    """Analytic: perfect contact of clay at 80 C and dough at 20 C gives the effusivity-weighted mean."""
    dough = math.sqrt(0.3580 * 1050 * 2788.5)
    clay = MATERIALS["clay"].effusivity
    exact = (80 * clay + 20 * dough) / (clay + dough)
    baked = slab(False, 0, 5.0, model.Plate("clay", 0.05, 80.0), cells=160)
    assert baked.surface_c[-1] == pytest.approx(exact, abs=0.5)


def test_numbers_of_the_model() -> None:
    """Analytic from the stated relations: boiling of bound water, gas growth, browning, contact spots."""
    assert model.boiling_temp_c(0.8837) == pytest.approx(100.43, abs=0.1)
    assert model.boiling_temp_c(0.8837, pressure_at_altitude_pa(1150)) == pytest.approx(96.61, abs=0.1)
    assert model.boiling_temp_c(0.8837, pressure_at_altitude_pa(2000)) == pytest.approx(93.76, abs=0.1)
    sat = model._sat_table()

    def growth(temp_c: float) -> float:
        p22, p = (conduction.lookup(sat, t, model.SAT0_C, model.SAT_STEP_C) for t in (22.0, temp_c))
        return conduction.gas_growth(temp_c, 295.15, 101325 - p22, 101325, p)

    assert growth(95) == pytest.approx(7.36, abs=0.03)
    assert growth(98) == pytest.approx(17.89, abs=0.06)
    # a skin dry 0.3 mm deep that touches 260 C iron, or hovers over a quarter of its gaps, bare or with a film of fat
    crust = 0.0003 / PARAMS["k_crust"].value
    seen = {}
    for h_dry in (70.0, 165.0):
        plate = model.Plate("iron", 0.006, 260)
        sheet = model._sheet(model.Bread(0.004, 0.2, 0.88, 22), plate, 101325, {"h_dry": h_dry})
        touch, gap = sheet.touch_r, sheet.gap_r
        seen[h_dry] = [100 + 160 * (crust - 0.0001 / 0.08) / (crust + r) for r in (touch, touch + gap)]
    assert seen[70.0] == [pytest.approx(205, abs=1), pytest.approx(150, abs=1)]
    assert seen[165.0][1] == pytest.approx(172, abs=1)


@pytest.mark.parametrize(
    "name", ["stone 265", "iron 260, thick", "turned over a gas flame", "under a lid 190", "fried 190"]
)
def test_heat_is_accounted_for(name: str) -> None:
    """What the bread is given less what warmed it and left as steam, over what it was given."""
    baked = bake_case(next(c for c in CASES if c["name"] == name))
    assert baked.heat_taken_j_m2 > 1e5 and abs(baked.unaccounted_j_m2) < 1e-8 * baked.heat_taken_j_m2


def test_recovery_against_the_pulse_formula() -> None:
    """Analytic: thick clay that gave 30 kW/m2 for 60 s, then insulated, trails by (2q/(e√π))(√t − √(t − 60)).

    The profile at 60 s is the closed form of a half space under constant flux (Carslaw and Jaeger).
    """
    mat, q = MATERIALS["clay"], 30_000.0
    alpha = mat.k / (mat.rho * mat.c)
    width = 1.6 ** np.arange(12)[::-1]
    dz = 0.05 * width / width.sum()
    depth = np.cumsum(dz[::-1])[::-1] - dz / 2
    reach = 2 * math.sqrt(alpha * 60)
    fallen = q / mat.k * (reach / math.sqrt(math.pi) * np.exp(-((depth / reach) ** 2)) - depth * erfc(depth / reach))
    shut = model.Face(300.0, 0.0, 300.0, 0.0)
    for pause in (60, 120):
        closed = 2 * q / (mat.effusivity * math.sqrt(math.pi)) * (math.sqrt(60 + pause) - math.sqrt(pause))
        back, cells = idle(model.Plate("clay", 0.05, 300.0), 300 - fallen, shut, (0.0, 300.0, 0.0), pause)
        assert 300 - cells[-1] == pytest.approx(closed, rel=0.03)
        assert back is None


def test_iron_comes_back_in_seconds_and_stone_in_minutes() -> None:
    """Common practice, independent: a stone is back within 20 K after 200 to 400 s, iron on a strong burner in
    seconds."""
    bread = model.Bread(0.0034, 0.18, 0.88, 18.0)
    back = []
    for surface in (Surface("stone_oven", 275.0), Surface("iron_plate", 240.0, "high")):
        left = plan_bread(bread, surface).cut.plate_cells_c
        back.append(idle(surface.plate, left, surface.empty, surface.below, 900.0, 20.0)[0])
    assert back[0] is not None and back[1] is not None
    assert 200 <= back[0] <= 400 and back[1] <= 40


@pytest.mark.parametrize("kind", sorted(set(KINDS) - {"oil", "oven_tray"}))
@pytest.mark.parametrize("mm", [3.0, 6.0, 11.0])
def test_the_next_bread_is_through_as_well(kind: str, mm: float) -> None:
    """It goes on when the surface is near enough its start (a stone after a minute or two: common practice), and is
    done when it comes off."""
    bread, surface = model.Bread(mm / 1000, 0.18, 0.88, 20.0, pocket=mm < 8), Surface(kind, KINDS[kind].usual_c)
    program = plan_bread(bread, surface)
    if {"does_not_cook_through", "filling_not_safe"} & set(program.end.codes):
        return
    baking = program.baking
    _, cells = recovery_s(
        surface, program.cut.plate_cells_c, program.recovery_s if program.recovery_s is not None else 900.0
    )
    cut = baking.cut(program.baked, program.off_s)
    done = baking.baked([*cut[:-1], replace(cut[-1], seconds=cut[-1].seconds + 60)], plate_cells_c=cells).events["done"]
    assert done is not None and done <= program.off_s + 2


@pytest.mark.parametrize("altitude_m", [0, 1150, 2000])
def test_done_is_reached_and_does_not_hang_on_the_grid(altitude_m: float) -> None:
    for name in ("iron 220", "iron 260, thick", "stone 275"):
        case = next(c for c in CASES if c["name"] == name)
        times = [
            bake_case(case, pressure_pa=pressure_at_altitude_pa(altitude_m), grid=grid).events["done"]
            for grid in (model.LIVE_GRID, (40, 12))
        ]
        assert None not in times
        assert max(times) - min(times) <= 6, (name, times)  # type: ignore[type-var,operator]


def test_most_events_do_not_hang_on_the_grid() -> None:
    """Grid convergence: against 48 cells, 20 in the plate and steps of 0.1 s; nine events of ten within 3 s or 6 %,
    water lost within 4 %."""
    near, far = 0, []
    for case in CASES:
        live, fine = bake_case(case, dt_s=0.5), bake_case(case, grid=(48, 20), dt_s=0.1)
        assert live.loss_frac == pytest.approx(fine.loss_frac, rel=0.04), case["name"]
        for name in (*TIMED, "bubbles", "light_top", "top_set", "bottom_set"):
            a, b = live.events[name], fine.events[name]
            if a and b:
                close = abs(a - b) <= max(3.0, 0.06 * b)
                near += close
                far += [] if close else [(case["name"], name, a, b)]
    assert near >= 9 * len(far), far


def test_plain_and_compiled_agree() -> None:
    case = CASES[0]
    fast = bake_case(case, grid=(12, 5), dt_s=0.5)
    compiled, model.bake_stepper._fast = model.bake_stepper._fast, None
    try:
        plain = bake_case(case, grid=(12, 5), dt_s=0.5)
    finally:
        model.bake_stepper._fast = compiled
    assert plain.events == fast.events
    assert plain.loss_frac == pytest.approx(fast.loss_frac, rel=1e-6)


@settings(max_examples=15, deadline=None)
@given(mm=st.floats(2.5, 6.0), temp=st.floats(215, 300))
def test_thicker_is_later_hotter_is_sooner(mm: float, temp: float) -> None:
    def puff(mm: float, temp: float) -> float:
        bread = model.Bread(mm / 1000, 0.18, 0.88, 20.0)
        return plan_bread(bread, Surface("stone_oven", temp)).baked.events["puff"] or 1e9

    assert puff(mm + 0.5, temp) >= puff(mm, temp) - 0.5
    assert puff(mm, temp + 15) <= puff(mm, temp) + 0.5


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_every_surface_has_a_program_with_bands(kind: str) -> None:
    spec = KINDS[kind]
    bread = model.Bread(0.0025 if kind == "oil" else 0.004, 0.16, 0.88, 20.0)
    program = plan_bread(bread, Surface(kind, spec.usual_c))
    events = program.events
    assert program.score.score > 45 and events["puff"].p50
    for band in events.values():
        if band.p50 is not None:
            assert band.p10 < band.p50 < band.p90
    assert 10 < program.off_s < (600 if kind == "oven_tray" else 400) and (program.turn_s or 0) < program.off_s
    assert (program.turn_s is None) == (spec.way in ("wall", "floor", "tray"))
    assert (program.bands.matters and program.recovery_s != 0) or program.surface_after_c > spec.usual_c - 25
    thin, thick = (
        plan_bread(model.Bread(mm / 1000, 0.16, 0.88, 20.0), Surface(kind, spec.usual_c)) for mm in (2.5, 4.5)
    )
    assert (thin.baked.events["puff"] or 0) < (thick.baked.events["puff"] or 1e9)


@pytest.mark.parametrize("kind", ["stone_oven", "iron_plate", "lidded_pan", "clay_wall"])
def test_a_bread_that_is_just_thick_or_just_not_has_bands(kind: str) -> None:
    """Some of the 32 bakes of its bands are of the other sort: a round of 8 mm on a stone could not be computed."""
    for mm in np.arange(7.0, 9.6, 0.2):
        for pocket in (True, False):
            program = plan_bread(
                model.Bread(mm / 1000, 0.15, 0.8, 22.0, pocket=pocket), Surface(kind, KINDS[kind].usual_c)
            )
            off = program.bands.events["off"]
            assert off.p10 and off.p90 and off.p10 <= program.off_s <= off.p90


@pytest.mark.parametrize("temp_c", [205.0, 240.0, 275.0])
def test_fat_and_sugar_colour_sooner_peel_flour_delays(temp_c: float) -> None:
    """Facts of the trade: a film of fat and a sweet dough colour sooner, flour beneath a bread holds the heat back."""
    lean, pan = model.Bread(0.004, 0.18, 0.88, 20.0), Surface("iron_plate", temp_c)

    def light(bread: model.Bread, surface: Surface) -> float:
        return plan_bread(bread, surface).baked.events["light_bottom"] or 1e9

    as_it_is = light(lean, pan)
    assert light(replace(lean, browning=1.6), pan) < as_it_is
    assert light(lean, replace(pan, greased="film")) < as_it_is
    puffs = [plan_bread(lean, replace(pan, dust_kg_m2=g / 1000)).baked.events["puff"] or 1e9 for g in (0, 30, 80)]
    assert puffs == sorted(puffs) and puffs[0] < puffs[2]


def test_what_keeps_a_bread_from_its_surface_is_said() -> None:
    bread = model.Bread(0.005, 0.18, 0.88, 20.0)
    wall = plan_bread(bread, Surface("clay_wall", 430))
    for change, factor in (
        ({"greased": "film"}, "grease"),
        ({"nonstick": True}, "slick"),
        ({"wetted": False}, "unwetted"),
    ):
        worse = plan_bread(bread, Surface("clay_wall", 430, **change))
        assert worse.score.score < wall.score.score and factor in {r.factor for r in worse.score.reasons}
    assert "clay_hands" in {c.code for c in wall.cautions} and "charcoal_fumes" in {c.code for c in wall.cautions}
    cool = plan_bread(model.Bread(0.0025, 0.14, 0.88, 20.0), Surface("oil", 150))
    assert cool.score.score == pytest.approx(33.9, abs=0.5) or cool.score.reasons[0].factor in ("oil_cool", "model")


@pytest.mark.parametrize(("kind", "mm", "oven_c"), [("oven_tray", 12.0, 230.0), ("stone_oven", 12.0, 220.0)])
def test_a_fan_is_set_20_kelvin_lower_for_the_same_time(kind: str, mm: float, oven_c: float) -> None:
    """Common practice (calibrated: one number was set by it); at the same setting a fan is sooner by a fifth or
    more."""
    bread = model.Bread(mm / 1000, 0.2, 0.85, 24.0, rise_g=1.25, pocket=False)
    still, lower, same = (
        plan_bread(bread, Surface(kind, c, oven_c=c, fan=fan)).off_s
        for c, fan in ((oven_c, False), (oven_c - 20, True), (oven_c, True))
    )
    assert lower == pytest.approx(still, rel=0.12) and same < 0.85 * still


@settings(max_examples=12, deadline=None)
@given(st.floats(0, 8), st.floats(2.5, 4.5))
def test_unrested_shrinks_and_is_later(rest: float, mm: float) -> None:
    bread, surface = model.Bread(mm / 1000, 0.18, 0.88, 20.0), Surface("stone_oven", 275.0)
    drawn = shrunk(bread, rest)
    assert drawn.thickness_m * drawn.diameter_m**2 == pytest.approx(bread.thickness_m * bread.diameter_m**2)
    rested = plan_bread(bread, surface).baked.events["puff"] or 1e9
    assert (plan_bread(bread, surface, faults=Faults(rest_min=rest)).baked.events["puff"] or 1e9) >= rested - 0.5


def test_an_oven_opened_for_four_breads_is_slower_and_a_filling_is_cooked_through() -> None:
    bread = model.Bread(0.004, 0.18, 0.88, 20.0)
    times = [
        plan_bread(bread, Surface("stone_oven", 275.0, breads=n, door_s=d)).baked.events["light_top"] or 1e9
        for n, d in ((1, 0), (1, 20), (4, 20))
    ]
    assert times[0] < times[1] < times[2]
    filled = layered(model.Bread(0.003, 0.18, 0.88, 10.0), 90, 80)
    program = plan_bread(filled, Surface("iron_plate", 220.0))
    core = program.baked.events["core_75"]
    assert core and core > (plan_bread(bread, Surface("iron_plate", 220.0)).baked.events["core_75"] or 0)
    assert program.off_s > core


@given(
    st.sampled_from(sorted(KINDS)),
    st.floats(2, 14),
    st.floats(-70, 60),
    st.booleans(),
    st.booleans(),
    st.sampled_from(WORDS),
)
@settings(max_examples=60, deadline=None)
def test_no_bread_comes_off_raw(kind: str, mm: float, hotter: float, filled: bool, docked: bool, doneness: str) -> None:
    """Off is never before done, or a verdict says why and what would; a filling was hot at its coldest; what is docked
    stays as it lies in an oven."""
    bread = model.Bread(mm / 1000, 0.18, 0.88, 20.0, pocket=not docked)
    if filled:
        bread = layered(bread, 100, 80)
    surface = Surface(kind, KINDS[kind].usual_c + hotter)
    program = plan_bread(bread, surface, wish=wish_of(doneness), docked=docked, filled=filled)
    done, core = program.baked.events["done"], program.baked.events["core_75"]
    never = {"does_not_cook_through", "filling_not_safe"} & set(program.end.codes)
    assert never or (done is not None and program.off_s >= done)
    assert never or not filled or (core is not None and program.off_s >= core and program.coldest_c >= 75)
    if docked and KINDS[kind].way == "oven":
        assert program.turn_s is None
    assert [v.code for v in program.verdicts] == list(program.end.codes)
    assert all("What would do: " in v.words(unit) for v in program.verdicts for unit in "CF")


@given(st.sampled_from(["iron_plate", "skillet", "stone_oven", "flame_oven"]), st.floats(8, 16), st.floats(0.5, 4))
@settings(max_examples=15, deadline=None)
def test_thicker_is_never_done_sooner(kind: str, mm: float, more: float) -> None:
    """Known miss: on a plate up to 7 % (12.75 mm 620 s, 13.25 mm 581 s), where the coldest point creeps up to its
    mark."""
    thin, thick = (
        plan_bread(
            model.Bread(m / 1000, 0.18, 0.88, 20.0, rise_g=1.5, pocket=False), Surface(kind, KINDS[kind].usual_c)
        )
        for m in (mm, mm + more)
    )
    assert (thin.end.through_s or 1e9) <= 1.08 * (thick.end.through_s or 1e9)


def test_filled_in_a_flame_oven_is_told_what_would_do() -> None:
    """11 mm with its filling: at 450 C black on top before it is through (it was called off at 45 s with 23 C inside);
    at the heat it is told, cooked."""
    filled = layered(model.Bread(0.0055, 0.2, 0.85, 22.0), 100, 100)
    program = plan_bread(filled, Surface("flame_oven", 450), filled=True)
    (told,) = program.verdicts
    assert told.code == "browns_before_through" and program.off_s > 120 and told.heat
    better = plan_bread(filled, Surface("flame_oven", told.heat.best_c), filled=True)
    assert better.verdicts == () and better.coldest_c >= 90


def test_edges_of_a_thick_round() -> None:
    """Against two-dimensional conduction worked out by finite differences: 77.0 C where the fin gives 78.0."""
    assert edge_temperature(88.2, 0.012, 30.0) == pytest.approx(77.0, abs=2)
    assert edge_seconds(78.0, 0.012) == pytest.approx(18, abs=1)
    assert edge_seconds(76.0, 0.015) == pytest.approx(27, abs=1)
    assert edge_seconds(78.0, 0.012, plate_c=90) is None and edge_seconds(97.0, 0.012) == 0
    farl = plan_bread(
        model.Bread(0.012, 0.2, 0.88, 22.0, rise_g=1.5, pocket=False), Surface("iron_plate", 190.0, "low")
    )
    assert farl.edge_s and 60 <= farl.edge_s <= 150  # common practice
    muffin = plan_bread(
        yeasted(model.Bread(0.0095, 0.09, 0.88, 22.0, pocket=False)), Surface("iron_plate", 172.0, "low")
    )
    assert muffin.edge_s is None and muffin.coldest_c >= 90 and 400 <= muffin.off_s <= 900  # common practice


def test_docked_and_cool_do_not_balloon() -> None:
    bread = model.Bread(0.0034, 0.18, 0.88, 20.0, pocket=False)
    docked = plan_bread(bread, Surface("iron_plate", 240.0), docked=True)
    assert docked.events["puff"].p50 is None
    assert docked.score.score == 3
    cool = plan_bread(model.Bread(0.0045, 0.18, 0.88, 20.0), Surface("stone_oven", 155.0))
    assert cool.score.score < 15
    assert {c.code for c in cool.cautions} >= {"cool_start", "steam"}


def test_score_worked_by_hand() -> None:
    """Analytic: the product of ramps, worked by hand."""
    assert pocket_score({"thick": 8, "skin": 10}).score == pytest.approx(20.07, abs=0.01)
    assert pocket_score({"uneven": 0.3, "cold": 5}).score == pytest.approx(50.98, abs=0.01)
    ranked = pocket_score({"uneven": 0.3, "cold": 5}).reasons
    assert [r.factor for r in ranked] == ["uneven", "cold"]
    scored = plan_bread(model.Bread(0.0034, 0.18, 0.88, 20.0), Surface("iron_plate", 240), faults=Faults(skin_min=9))
    assert scored.score.reasons[0].factor == "skin"


def test_a_kitchens_own_breads_make_the_score_a_probability() -> None:
    """Worked values of a second implementation; without breads the score is believed as it is; more breads,
    narrower."""
    scores, full = (80, 85, 70, 60, 90, 75, 40, 82, 65, 88), (1, 1, 0, 1, 1, 0, 0, 1, 0, 1)
    known = calibrate(scores, [bool(y) for y in full])
    assert (known.a, known.b) == (pytest.approx(-0.366, abs=0.005), pytest.approx(1.038, abs=0.005))
    assert probability(80, known)[0] == pytest.approx(0.745, abs=0.005)
    blank = calibrate((), ())
    assert [probability(s, blank)[0] for s in (30, 50, 80)] == pytest.approx([0.3, 0.5, 0.8])
    wide, narrow = probability(80, known), probability(80, calibrate(scores * 5, [bool(y) for y in full] * 5))
    assert wide[2] - wide[1] > narrow[2] - narrow[1]
    chances = [probability(s, known)[0] for s in range(0, 101, 10)]
    assert chances == sorted(chances)
    halves = calibrate(scores * 2, [bool(y) for y in full] * 2, [0.5] * 20)
    assert (halves.a, halves.b) == (pytest.approx(known.a), pytest.approx(known.b))


def test_breads_of_long_ago_and_of_one_bake_count_less() -> None:
    """Ten flat breads of one bake move the chance of an 80 less than four of four bakes; two half lives make four
    breads count as one."""

    def chance(bakes: list[int], age_d: float = 0.0) -> float:
        return probability(80, of_breads([JudgedBread(80, False, b, age_d) for b in bakes]))[0]

    assert chance([1] * 10) > chance([1, 2, 3, 4])
    assert chance([1, 2, 3, 4], 360) == pytest.approx(chance([1]))
    assert wanting([JudgedBread(80, False, 1, 0.0)] * 25) == (0, 3)


@pytest.mark.parametrize("kind", ["iron_plate", "stone_oven", "clay_wall"])
def test_the_first_bread_measures_its_surface(kind: str) -> None:
    """By its own model: a surface 20 C off is found by bubbles, first brown and puff; by bubbles alone it is believed
    less."""
    bread, usual = model.Bread(0.004, 0.18, 0.88, 20.0), KINDS[kind].usual_c

    def events(temp_c: float) -> dict[str, float | None]:
        return plan_bread(bread, Surface(kind, temp_c)).baked.events

    for off in (-20.0, 0.0, 20.0):
        told = events(usual + off)
        seen = {fact: float(told[name] or 0) for fact, name in EVENT_OF.items() if told[name]}
        whole, one = invert(seen, usual, events), invert({"bubbles": seen["bubbles"]}, usual, events)
        assert abs(whole.temp_c - (usual + off)) <= max(abs(one.temp_c - (usual + off)) + 1, 14)
        assert whole.sd_c < one.sd_c < 26
        assert (whole.temp_c - usual) * off >= 0
    assert invert({}, usual, events).temp_c == usual


def test_a_measured_surface_is_within_its_interval_most_of_the_time() -> None:
    """Simulated: thickness, contact, browning and reading each off by what cooks and models are; the 80 % interval
    holds 70 % at least, and misses some."""
    rng, inside, usual = np.random.default_rng(5), 0, 240.0
    grid = {t: bake_events(t) for t in np.arange(usual - 75, usual + 80, 5.0)}
    for _ in range(60):
        truth = usual + rng.normal(0, 20)
        told = bake_events(
            truth,
            mm=4 * math.exp(rng.normal(0, 0.07)),
            contact=math.exp(rng.normal(0, 0.25)),
            brown=math.exp(rng.normal(0, 0.25)),
        )
        seen = {
            fact: told[name] * math.exp(rng.normal(0, 0.08))
            for fact, name in EVENT_OF.items()
            if told[name]  # type: ignore[operator]
        }
        probe = invert(seen, usual, lambda t: grid[t])
        inside += abs(probe.temp_c - truth) <= 1.2816 * probe.sd_c
    assert 0.7 <= inside / 60 < 1


def bake_events(temp_c: float, mm: float = 4.0, contact: float = 1.0, brown: float = 1.0) -> dict[str, float | None]:
    changed = {"h_wet": 350 * contact, "h_dry": 70 * contact, "brown_200": PARAMS["brown_200"].value * brown}
    bread = model.Bread(mm / 1000, 0.18, 0.88, 20.0)
    legs = chosen(Surface("iron_plate", temp_c), bread, GOLDEN_BOTH)
    return model.simulate(bread, Surface("iron_plate", temp_c).plate, legs, overrides=changed).events


@given(st.sampled_from(sorted(KINDS)), st.floats(2, 7), st.floats(-40, 40), st.booleans())
@settings(max_examples=25, deadline=None)
def test_a_darker_bread_is_never_sooner_a_hotter_surface_never_browns_later(
    kind: str, mm: float, hotter: float, docked: bool
) -> None:
    """Facts of the trade. Where the next bread of a batch ends a bake, darker may end with it, and a dry bread comes
    off; a docked bread is not turned in an oven."""
    bread, surface = (
        model.Bread(mm / 1000, 0.18, 0.88, 20.0, pocket=not docked),
        Surface(kind, KINDS[kind].usual_c + hotter),
    )
    programs = [plan_bread(bread, surface, wish=wish_of(w), docked=docked) for w in WORDS]
    for paler, darker in pairwise(programs):
        dry_s = (darker.baked.events["too_dry"] or 1e9) - SHORT_OF_S
        assert darker.end.codes or darker.off_s >= min(paler.off_s, dry_s) - 1.5
    assert not (docked and surface.spec.way in ("oven", "wall", "floor", "tray")) or programs[2].turn_s is None
    assert _golden_s(bread, surface, 15.0) <= _golden_s(bread, surface, 0.0) + 0.5


def _golden_s(bread: model.Bread, surface: Surface, hotter: float) -> float:
    """Seconds until the lower face of a bread that is left lying is golden; 1e9: never."""
    pale = Baking(laid_on(bread, surface), surface).at(surface.temp_c + hotter)
    first = [replace(pale.legs[0], until="time", seconds=180.0)]  # by its cue a hotter side may end before its colour
    return reached_s(pale.baked(first).events, "bottom", "golden") or 1e9


@pytest.mark.parametrize(("kind", "mm", "temp_c"), [("inverted_plate", 2.0, 212.0), ("flame_oven", 3.0, 390.0)])
def test_steps_that_run_away_are_taken_finer(kind: str, mm: float, temp_c: float) -> None:
    """As a thin sheet's pocket fills, half a second is too long a step: it was golden at 20 s, and far below zero."""
    bread, surface = model.Bread(mm / 1000, 0.18, 0.88, 20.0), Surface(kind, temp_c)
    baked = Baking(laid_on(bread, surface), surface).baked()
    assert baked.temp_c.min() > 10 and baked.temp_c.max() < 700
    golden = [_golden_s(bread, surface, k) for k in (0.0, 5.0, 10.0, 15.0)]
    assert golden == sorted(golden, reverse=True)


@pytest.mark.parametrize("temp_c", [166.0, 169.0])
def test_a_bread_that_would_wait_raw_side_down_is_turned_later(temp_c: float) -> None:
    """A docked round of 3 mm, pale on a cool pan: turned at its colour (36 s) it is through after 255 s or never;
    turned a quarter of a minute later, in a third of that."""
    bread, surface = model.Bread(0.003, 0.18, 0.88, 20.0, pocket=False), Surface("skillet", temp_c)
    pale, light = (plan_bread(bread, surface, wish=wish_of(w), docked=True) for w in ("pale", "light"))
    assert pale.end.codes == () and pale.turn_s is not None and pale.turn_s > 40
    assert pale.end.through_s is not None and pale.end.through_s < pale.off_s < 90 < light.off_s


THICK = model.Bread(0.018, 0.09, 0.75, 24.0, 700.0, 0.42, rise_g=1.3, pocket=False)


@pytest.mark.parametrize(("mm", "temp_c"), [(12, 172.0), (18, 172.0), (18, 196.0), (15, 210.0)])
def test_a_thick_round_is_turned_where_it_is_through_soonest(mm: float, temp_c: float) -> None:
    """An 18 mm griddle round of medium-low heat lies 5 to 8 minutes on each side (common practice, from memory): it was
    to be turned after a quarter of an hour. Two minutes sooner or later bring it off no sooner."""
    bread = replace(THICK, thickness_m=mm / 1000)
    program = plan_bread(bread, Surface("iron_plate", temp_c))
    assert program.turn_s and program.end.through_s and not program.end.codes
    assert 0.35 * program.off_s < program.turn_s < 0.7 * program.off_s
    if (mm, temp_c) == (18, 172.0):
        assert 300 <= program.turn_s <= 480 and 600 <= program.off_s <= 960
    for by_s in (-120.0, 120.0):
        sides = (Step("face_a", max(program.turn_s + by_s, 30.0)), Step("face_b", 900.0))
        done = Baking(bread, Surface("iron_plate", temp_c), steps=sides).baked().events["done"]
        assert done is None or done >= program.end.through_s * 0.85


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_nothing_lies_black_for_long_without_a_word(kind: str) -> None:
    """A flat sheet on a hot stone waited three minutes for a pocket it cannot open; one on a steel of 325 C was black
    below for over a minute while its top got its colour."""
    for mm in (1.0, 2.0, 3.5, 7.0, 16.0):
        for pocket in {mm < 8, False}:
            for hotter in (0.0, 60.0):
                bread = model.Bread(mm / 1000, 0.18, 0.75, 24.0, rise_g=1.2, pocket=pocket)
                program = plan_bread(bread, Surface(kind, KINDS[kind].usual_c + hotter))
                black = black_s(program.baked.events, GOLDEN_BOTH, program.turn_s or 0.0)
                assert program.end.codes or black is None or program.off_s - black <= 45.0, (mm, pocket, hotter)


@pytest.mark.parametrize("temp_c", [230.0, 260.0])
def test_a_sheet_of_a_millimetre_shows_no_bubbles_and_is_inverted_by_its_colour(temp_c: float) -> None:
    program = plan_bread(model.Bread(0.001, 0.2, 0.88, 22.0, pocket=False), Surface("inverted_plate", temp_c))
    assert program.baked.events["bubbles"] is None
    assert program.turn_s and program.turn_s <= (program.baked.events["light_bottom"] or 0.0) + 8.0


@pytest.mark.parametrize("kind", ["iron_plate", "stone_oven", "clay_wall", "oil"])
def test_a_cooks_own_program_that_changes_nothing_is_the_planned_one(kind: str) -> None:
    bread, surface = model.Bread(0.0035, 0.18, 0.88, 20.0), Surface(kind, KINDS[kind].usual_c)
    planned = plan_bread(bread, surface)
    sides = [planned.off_s] if planned.turn_s is None else [planned.turn_s, planned.off_s - planned.turn_s]
    own = plan_bread(bread, surface, steps=[Step(f, s) for f, s in zip(("face_a", "face_b"), sides, strict=False)])
    assert own.turn_s == planned.turn_s and own.off_s == pytest.approx(planned.off_s, abs=0.6)
    assert own.cut.loss_frac == pytest.approx(planned.cut.loss_frac, rel=0.01) and own.verdicts == ()
    assert [a.name for a in actions(own)] == [a.name for a in actions(planned)]


def test_each_step_of_an_own_program_does_what_it_says() -> None:
    """A lid sets the top sooner, a spray keeps a crust pale, a rest in the oven finishes it, bubbles and gold end a
    side; raw is told, whoever wrote it."""
    bread, pan = model.Bread(0.006, 0.18, 0.88, 20.0, pocket=False), Surface("iron_plate", 190.0)

    def own(*steps: Step) -> Program:
        return plan_bread(bread, pan, steps=steps)

    bare = own(Step("face_a", 120), Step("face_b", 120))
    lidded = own(Step("cover"), Step("face_a", 120), Step("face_b", 120))
    sooner = (lidded.baked.events["top_set"] or 1e9, bare.baked.events["top_set"] or 1e9)
    assert sooner[0] < sooner[1] - 10 and [a.name for a in actions(lidded)][:2] == ["load", "cover"]
    grilled = [own(Step("face_a", 60), *wet, Step("grill", 60)) for wet in ((), (Step("spray"),))]
    assert grilled[1].cut.brown[1] < grilled[0].cut.brown[1]
    raw = own(Step("face_a", 40), Step("face_b", 30))
    assert [v.code for v in raw.verdicts] == ["does_not_cook_through"]
    finished = own(Step("face_a", 40), Step("face_b", 30), Step("finish_oven", 400, None, 180.0))
    assert finished.verdicts == () and finished.coldest_c > raw.coldest_c + 15
    thrice = own(Step("face_a", 60), Step("face_b", 60), Step("face_a", 30), Step("top"), Step("face_b", 30))
    assert [(name, at_s) for name, at_s, _ in extra_moves(thrice)] == [("flip", 120), ("top", 150), ("flip", 150)]
    ops = bread_ops(thrice.turn_s, thrice.off_s, topped=True, more=extra_moves(thrice))
    assert [o.name for o in ops] == ["roll", "top", "load", "turn", "flip", "top 2", "flip 2", "off", "brush"]
    until = own(Step("face_a", until="golden"), Step("face_b", until="golden"))
    assert until.turn_s == pytest.approx(until.baked.events["golden_bottom"], abs=0.6)
    bubbled = own(Step("face_a", until="bubbles"), Step("face_b", 60))
    assert bubbled.turn_s == pytest.approx(bubbled.baked.events["bubbles"], abs=0.6)


@pytest.mark.parametrize(
    ("kind", "temp_c", "mm"),
    [("iron_plate", 290.0, 6.5), ("iron_plate", 140.0, 2.5), ("flame_oven", 450.0, 11.0), ("clay_wall", 430.0, 4.0)],
)
def test_at_the_right_heat_nothing_is_wrong(kind: str, temp_c: float, mm: float) -> None:
    bread = model.Bread(mm / 1000, 0.18, 0.88, 20.0, pocket=mm < 8)
    found = plan_bread(bread, Surface(kind, temp_c)).right_heat
    assert found is not None and found.low_c <= found.best_c <= found.high_c
    there = plan_bread(bread, Surface(kind, found.best_c))
    assert there.verdicts == () and there.off_s == pytest.approx(found.off_s, rel=0.15)
    dark = black_s(there.baked.events, GOLDEN_BOTH, there.turn_s or 0.0)
    assert dark is None or dark > there.off_s


@settings(max_examples=8, deadline=None)
@given(st.floats(165, 260), st.floats(2.5, 6))
def test_a_habit_tells_how_hot_the_pan_is(truth_c: float, mm: float) -> None:
    """Times that the model itself gives at a heat are led back to it; times that no heat gives are said to be that."""
    bread = model.Bread(mm / 1000, 0.18, 0.88, 20.0)
    there = plan_bread(bread, Surface("skillet", truth_c))
    here = plan_bread(bread, Surface("skillet", 205.0, sd_k=28.0))
    habit = [there.turn_s or 0.0, there.off_s - (there.turn_s or 0.0)]
    found = implied(here.baking, habit)
    assert found.explained and found.sd_k < 21 and abs(found.mean_c - truth_c) < 1.5 * found.sd_k
    assert abs(truth_c - 205) < 25 or 0.4 < (found.mean_c - 205) / (truth_c - 205) < 1.1
    assert found.band is not None and found.band.p10 < found.mean_c < found.band.p90
    assert not implied(here.baking, [3.0, 900.0]).explained
