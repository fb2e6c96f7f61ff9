"""A bread that is kept: the reference run, limits by hand, rows of practice (calibrated), what each wrap does."""

from __future__ import annotations

import math
import tomllib
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brassclock.core.keep.hold import stepper
from brassclock.core.keep.hold.advice import Wanted, advice, bag_after_s
from brassclock.core.keep.hold.model import WRAPS, Kept, Room, drawn, reheated, run
from brassclock.core.keep.hold.params import PARAMS, keeping
from brassclock.core.keep.hold.reheat import reheats, thaw_s
from brassclock.core.keep.hold.windows import hold

CASES: list[dict[str, Any]] = tomllib.loads((Path(__file__).parents[2] / "worked" / "keep.toml").read_text("utf-8"))[
    "case"
]
H = 3600.0
PITA = Kept("pocket", 95.0, 0.884, 0.08, 0.18, 0.008)
NAAN = Kept("blister", 150.0, 0.85, 0.09, 0.20, 0.012, fat_frac=0.05, dairy=True)
BAGGED = ((0.0, "cloth"), (2400.0, "rack"), (3600.0, "bag"))


@pytest.mark.parametrize("case", CASES, ids=lambda c: c["name"])
def test_the_reference_run(case: dict[str, Any]) -> None:
    """Regression within rounding (1 K, 1 point, half an hour of ten)."""
    t = run(Kept(**case["bread"]), [(float(s), w) for s, w in case["wraps"]], case["stack"])
    for seconds, said in zip((120, 2700, 3 * H, 24 * H), case["at"], strict=False):
        assert [t.at(n, seconds) for n in ("temp_c", "crisp", "soft")] == pytest.approx(said, abs=1.0)
    for mark, hours in zip((75, 55, 35), case["softer_h"], strict=False):
        found = t.softer_than_s(mark)
        assert (found or 0.0) / H == pytest.approx(hours, abs=0.51 if hours >= 10 else 0.06)  # as they were rounded
    if "sweat_g" in case:
        assert float(t.sweat_g.max()) == pytest.approx(case["sweat_g"], abs=0.1)
    for key, mark in (("limp_s", 25), ("crisp_s", 50)):
        if key in case:
            assert t.first_s(t.crisp < mark) == pytest.approx(case[key], abs=2)


@pytest.mark.parametrize(
    ("frozen", "seconds"),
    [(False, {"pan": 22, "oven": 162, "microwave": 24, "toaster": 50}),
     (True, {"pan": 37, "oven": 312, "microwave": 68, "toaster": 106})],
)  # fmt: skip
def test_reheating_a_pita(frozen: bool, seconds: dict[str, float]) -> None:
    """Regression: 87 g of pita from the room and frozen."""
    found = {x.by: x.seconds for x in reheats(PITA, PITA.baked_x, frozen=frozen)}
    assert {k: found[k] for k in seconds} == pytest.approx(seconds, rel=0.02)
    assert thaw_s(PITA, PITA.baked_x) / 60 == pytest.approx(42, rel=0.03)
    assert thaw_s(PITA, PITA.baked_x, 8) / H == pytest.approx(5, rel=0.03)


def test_thawing_takes_the_heat_of_its_ice() -> None:
    """By hand: water .66 per dry is .397 of the mass; three quarters of it melt at 334 J/g."""
    x = 0.66
    frozen, fresh = (next(r.seconds for r in reheats(PITA, x, frozen=f) if r.by == "microwave") for f in (True, False))
    mass, c = PITA.dry_g * (1 + x), (1.5 + 4.18 * x) / (1 + x)
    ice_j = mass * (28 + 0.75 * 334 * 0.3976 + 25 * c)  # to -4 C and through the ice, then 25 K more than from 21 C
    assert (frozen - fresh) * 440 / 1.1 == pytest.approx(ice_j, rel=0.002)


def _no_vapour(**changed: float) -> Any:
    return keeping(k_air=1e-20, k_cloth=1e-20, k_box=1e-20, k_crust=1e-20, **changed)


def test_without_vapour_nothing_is_lost_and_it_cools_as_one_lump() -> None:
    """Analytic: mass constant; a body of one temperature cools by exp(-UAt/C)."""
    t = run(PITA, ((0.0, "rack"),), p=_no_vapour(k_bread=1e6), hours=1)
    assert float(t.lost_g.max()) < 1e-6 and float(np.ptp(t.x)) < 1e-6
    area = 2 * math.pi * 0.09**2 + math.pi * 0.18 * 0.008
    heat = PITA.dry_g * (1.5 + 4.18 * PITA.baked_x)
    for s in (120.0, 300.0, 900.0):
        assert t.at("temp_c", s) - 21 == pytest.approx(74 * math.exp(-10 * area * s / heat), rel=0.01)


def test_in_a_closed_bag_bread_and_sweat_keep_their_mass() -> None:
    t = run(PITA, ((0.0, "bag"),), 8)
    water = PITA.dry_g * t.x + t.sweat_g
    assert float(np.ptp(water)) < 1e-6 * float(water[0]) and float(t.lost_g.max()) == 0.0
    assert float(t.sweat_g.max()) > 3 and float(t.sweat_g.min()) >= 0.0


def test_staling_at_one_temperature_is_avrami_by_hand() -> None:
    """Rate at 4 C is 1/1.5 d, at 21 C .27 a day: two days at 21 C stale 1 - exp(-.54), none from 60 C on."""
    per_day = [stepper.staling_per_s(c, 1.5, 18.8) * 86400 for c in (-3.0, 4.0, 21.0, 32.0, 60.0, -10.0)]
    assert per_day == pytest.approx([0.44, 0.667, 0.27, 0.14, 0.0, 0.0], abs=0.01)
    cold = Kept("flat", 100.0, 0.85, 0.08, 0.2, 0.005, fat_frac=0.0, start_c=21.0)
    t = run(cold, ((0.0, "bag"),), 1, hours=48)
    assert t.at("stale", 48 * H) == pytest.approx(1 - math.exp(-2 * per_day[2]), rel=0.01)


def test_rows_of_practice() -> None:
    """Calibrated on these, but the last three, which were held out of the tuning. Common practice, no source. *Missed*:
    thin rounds in cloth are said to keep for days, the model has them firm after a day and a half."""
    stack = run(PITA, ((0.0, "cloth"),), 8)
    assert stack.at("temp_c", 2700) > 40 and stack.at("soft", 3 * H) > 75 and 55 <= stack.at("soft", 24 * H) < 75
    assert run(PITA, ((0.0, "open"),)).at("soft", 12 * H) < 18  # left open it is hard by morning
    buttered = run(Kept(**{**NAAN.__dict__, "brushed": "butter"}), ((0.0, "open"),))
    assert (buttered.first_s(buttered.crisp < 25) or 999) < 120  # limp two minutes after butter
    thin = Kept("flat", 45.0, 0.55, 0.08, 0.16, 0.003, fat_frac=0.13, sour=True)
    assert (run(thin, ((0.0, "cloth"),), 12).softer_than_s(55) or 99 * H) / H == pytest.approx(31, abs=4)
    fried = Kept("fried", 60.0, 0.85, 0.13, 0.14, 0.008, fat_frac=0.1, brushed="oil")
    assert run(fried, ((0.0, "rack"),)).at("crisp", 1800) < 25
    lidded = Kept("thick", 100.0, 0.85, 0.10, 0.15, 0.012, fat_frac=0.06, dairy=True, brushed="butter")
    assert run(lidded, ((0.0, "cloth"),), 4).at("soft", 12 * H) > 75
    yoghurt = Kept("flat", 120.0, 0.85, 0.08, 0.21, 0.007, fat_frac=0.06, dairy=True)
    assert run(yoghurt, ((0.0, "cloth"), (2400.0, "bag")), 4).at("soft", 72 * H) > 55


def test_windows_bands_and_advice() -> None:
    found = hold(PITA, ((0.0, "cloth"),), 8)
    w = found.windows
    assert w.best_from.p50 and w.best_from.p50 < 120 and w.room_days == 2
    soft = found.band_at("soft", 24 * H)
    assert soft.p10 == pytest.approx(61, abs=3) and soft.p90 == pytest.approx(77, abs=3)
    assert len(drawn()) == 16
    told = advice(PITA, w, 8, Room(), Wanted())
    assert told[0].startswith("Into cloth at once") and len(told) <= 3
    assert (bag_after_s(PITA, 1, Room()) or 0) / 60 == pytest.approx(6, abs=1)
    assert (bag_after_s(PITA, 8, Room()) or 0) / 60 == pytest.approx(33, abs=2)
    assert "Brush it now" in advice(NAAN, hold(NAAN, ((0.0, "open"),)).windows, 1, Room(), Wanted())[0]
    fried = Kept("fried", 60.0, 0.85, 0.13, 0.14, 0.008)
    assert "cloth" not in " ".join(advice(fried, hold(fried, ((0.0, "rack"),)).windows, 1, Room(), Wanted(600)))
    assert any("75 C" in x for x in advice(PITA, w, 8, Room(), Wanted(filled=True)))
    hot = advice(PITA, hold(PITA, BAGGED, 8, Room(32.0)).windows, 8, Room(32.0), Wanted())
    assert any("fridge" in x.lower() for x in hot)


def test_a_reheated_bread_is_soft_again_and_stales_sooner() -> None:
    fresh = run(PITA, BAGGED, 8)
    again = run(reheated(PITA, fresh, 48 * H), ((0.0, "bag"),), 1, hours=24)
    assert fresh.at("soft", 48 * H) == pytest.approx(65, abs=1.5) and again.at("soft", 1800) > 85
    lost = again.at("stale", 24 * H) - again.at("stale", 1800)
    assert lost > 1.2 * (fresh.at("stale", 24 * H) - fresh.at("stale", 3600))


@settings(max_examples=40, deadline=None)
@given(
    st.sampled_from(["pocket", "blister", "flat", "thick", "fried", "rolls"]),
    st.lists(st.tuples(st.floats(60, 30_000), st.sampled_from(WRAPS)), max_size=4),
    st.sampled_from(WRAPS),
    st.integers(1, 60),
    st.floats(5, 35),
)
def test_any_way_of_keeping_stays_in_bounds(
    intent: Any, later: list[tuple[float, str]], first: str, stack: int, room_c: float
) -> None:
    """Water is never made, nothing is hotter than it came or colder than about it, every word has its figure."""
    bread = Kept(intent, 100.0, 0.85, 0.09, 0.16, 0.01)
    t = run(bread, [(0.0, first), *sorted(later)], stack, Room(room_c), hours=24)
    water = bread.dry_g * t.x + t.sweat_g + t.lost_g
    assert np.all(np.isfinite(water)) and float(np.ptp(water)) < 0.02 * float(water[0])
    assert np.all((t.soft >= 0) & (t.soft <= 100) & (t.crisp >= 0) & (t.crisp <= 100) & (t.sweat_g >= -1e-9))
    assert float(t.temp_c.max()) <= 98.0 and float(t.temp_c.min()) >= -20.0
    assert np.all(np.diff(t.stale) >= -1e-12)


def test_every_parameter_has_its_spread_where_it_is_drawn() -> None:
    table = drawn()[0]._asdict()
    assert set(table) == set(PARAMS) and math.isfinite(sum(table.values()))
