"""Places, cold legs, sponges and named routes in the day of a bake: by plain truths, and each run forward again."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brassclock.core.day.kitchen_air import with_log
from brassclock.core.day.places import DEFAULTS, places_of
from brassclock.core.day.plan import plan_back
from brassclock.core.day.routes import routes
from brassclock.core.day.spec import BakeSpec, Cold, DayPlan, Sponge, StageSpec
from brassclock.core.matter.dough import Portion, dough_of_masses
from brassclock.core.matter.ingredients import table
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch, Seed
from brassclock.core.rise.sourdough.starter import fed
from brassclock.core.rise.sourdough.upkeep import upkeep
from brassclock.core.rise.stages import Stage, run_stages
from brassclock.core.rise.windows import WORKABLE_C, centre_c
from brassclock.core.time import later

ZONE = ZoneInfo("Europe/Zurich")
NOON = dt.datetime(2026, 11, 24, 12, tzinfo=ZONE)
HOURLY = [20.5 + 1.5 * np.sin((h - 9) / 24 * 2 * np.pi) for h in range(24)]
FRIDGE = places_of({}, 4.0)["fridge"]
LINES = [("plain_flour", 500.0), ("water", 310.0), ("salt_fine", 10.0)]


def spec(yeast_g: float = 1.5, cold: Cold | None = None, which: str = "ball") -> BakeSpec:
    tub, tray = Vessel("tub", 825, True, 20, "wood"), Vessel("tray", 95, True)
    bulk = StageSpec(Stage("bulk", 2, ((0, 0),), tub, "ball", 1.5), cold=cold if which == "bulk" else None)
    ball = StageSpec(Stage("ball proof", 1, ((0, 0),), tray, None, 1.6), cold=cold if which == "ball" else None)
    return BakeSpec(Batch(dough_of_masses([*LINES, ("yeast_instant", yeast_g)]), "kneaded", 24.0), bulk, ball)


def plan(s: BakeSpec, hours: float, done: dict[str, dt.datetime] | None = None, now: dt.datetime = NOON) -> DayPlan:
    return plan_back(s, HOURLY, later(NOON, hours), now, done or {})


def at_roll(found: DayPlan, done: dict[str, dt.datetime] | None = None) -> tuple[float, float]:
    """(maturity, centre C) of the balls when they are rolled, the plan's own stages run forward."""
    stages = list(found.spec.stages(HOURLY, found.mixed_at, found.balled_at, done or {}))
    roll_h = (found.step("roll").at - found.balled_at).total_seconds() / 3600
    bulk_h = (found.balled_at - found.mixed_at).total_seconds() / 3600
    lengths = [*(s.hours for s in stages[:-2]), bulk_h, roll_h]
    run = run_stages(found.spec.batch, stages, lengths, 1.0)
    centre = centre_c(run, stages, len(stages) - 1, sum(lengths[:-1]))[1]
    return float(run.maturity[-1]), float(centre[-1])


def test_a_cold_night_has_its_moves_and_ends_warm_enough() -> None:
    """Facts of the trade: balls go in, come out, and are rolled only when the middle has lost its chill."""
    found = plan(spec(cold=Cold(0.25, 20, FRIDGE)), 36)
    keys = [s.key for s in found.steps]
    assert keys.index("ball") < keys.index("cold_in") < keys.index("cold_out") < keys.index("roll")
    into, out = found.step("cold_in").at, found.step("cold_out").at
    assert (out - into).total_seconds() / 3600 == pytest.approx(20, abs=0.3)
    assert 0.5 < (found.step("roll").at - out).total_seconds() / 3600 < 2.5
    maturity, centre = at_roll(found)
    assert centre >= WORKABLE_C - 0.1
    assert maturity > 0.9


@settings(max_examples=8, deadline=None)
@given(late=st.floats(-4, 10), hours=st.floats(8, 30))
def test_once_mixed_the_cold_is_as_long_as_the_table_leaves_it(late: float, hours: float) -> None:
    """Property: whatever the table does, the balls come out so that they are rolled for it, if there is time at all."""
    first = plan(spec(cold=Cold(0.25, hours, FRIDGE)), 40)
    done = {"mix": first.mixed_at, "ball": first.balled_at}
    moved = plan_back(
        spec(cold=Cold(0.25, hours, FRIDGE)), HOURLY, later(NOON, 40 + late), later(first.balled_at, 0.1), done
    )
    cold_h = (moved.step("cold_out").at - moved.step("cold_in").at).total_seconds() / 3600
    if moved.late_min < 1:
        assert cold_h == pytest.approx(hours + late, abs=0.6)
    else:
        assert cold_h < 1.0 or late < 0


def test_what_was_done_stands() -> None:
    into, out = later(NOON, 3), later(NOON, 10)
    done = {"mix": NOON, "ball": later(NOON, 2.5), "cold_in": into, "cold_out": out}
    found = plan(spec(cold=Cold(0.25, 20, FRIDGE)), 14, done, later(NOON, 10.5))
    assert found.step("cold_in").at == into and found.step("cold_out").at == out
    stage = found.spec.stages(HOURLY, NOON, done["ball"], done)[1]
    air = [stage.ambient_c(h) for h in np.arange(0.6, 7.4, 0.05)]
    assert np.mean(air) == pytest.approx(4.0, abs=0.2)
    assert max(air) <= 5.01 and min(air) >= 2.99  # its thermostat's swing
    assert stage.ambient_c(8.0) > 15


def test_cold_through_a_change_of_clocks_is_real_hours() -> None:
    """Analytic: the night of 25 October 2026 has 25 hours in Zurich; twenty hours of cold are twenty real ones."""
    serve = dt.datetime(2026, 10, 25, 20, tzinfo=ZONE)
    found = plan_back(spec(cold=Cold(0.25, 20, FRIDGE)), HOURLY, serve, later(serve, -48), {})
    real = found.step("cold_out").at.astimezone(dt.UTC) - found.step("cold_in").at.astimezone(dt.UTC)
    cold = found.spec.ball.cold
    assert cold is not None and cold.hours == pytest.approx(20, abs=0.6)
    assert real.total_seconds() / 3600 == pytest.approx(cold.hours, abs=1e-6)


def test_a_sponge_comes_first() -> None:
    rows = table()
    first = dough_of_masses([("plain_flour", 200), ("water", 220), ("yeast_active", 6)])
    joins = tuple(Portion(rows[k], g) for k, g in (("plain_flour", 300), ("water", 90), ("salt_fine", 9)))
    base = spec()
    sponge = Sponge(0.5, joins, Stage("sponge", 0.5, ((0, 0),), Vessel("tub", 426, True, 20)))
    made = BakeSpec(Batch(first, "kneaded", 26.0, True), base.bulk, base.ball, sponge=sponge)
    found = plan(made, 8)
    assert [s.key for s in found.steps][:3] == ["weigh", "sponge", "mix"]
    begun, mixed = found.step("sponge").at, found.step("mix").at
    assert (mixed - begun).total_seconds() / 3600 == pytest.approx(0.5, abs=1e-6)
    stages = found.spec.stages(HOURLY, found.mixed_at, found.balled_at, {})
    assert [s.name for s in stages] == ["sponge", "bulk", "ball proof"]
    assert at_roll(found)[0] > 0.9


@pytest.mark.parametrize("yeast_g", [1.5, 5.0])
def test_every_route_that_fits_works_when_run_forward(yeast_g: float) -> None:
    """Each named route, run forward with its own dose: balls ripe, warm enough, on time; colder routes need more hours,
    less yeast."""
    serve = later(NOON, 60)
    found = {r.route.key: r for r in routes(spec(yeast_g), HOURLY, serve, NOON, places_of({}, 4.0))}
    assert list(found) == ["room", "warm", "less", "night", "nights"]
    for route in found.values():
        assert route.fits, route.because
        assert route.plan.late_min < 1
        maturity, centre = at_roll(route.plan)
        assert 0.85 < maturity < 2.6
        assert centre >= WORKABLE_C - 0.2
    hours = {k: (serve - min(s.at for s in r.plan.steps)).total_seconds() / 3600 for k, r in found.items()}
    assert hours["warm"] < hours["room"] < hours["night"] < hours["nights"]
    assert found["nights"].dose_factor < found["night"].dose_factor
    soon = {r.route.key: r for r in routes(spec(yeast_g), HOURLY, later(NOON, 7), NOON, places_of({}, 4.0))}
    assert not soon["nights"].fits and "serving is in 7 h" in soon["nights"].because


def test_places_are_the_kitchens_own() -> None:
    own = places_of({"cellar": {"temp_c": 11.0}, "warm_spot": {"over_k": 6.0}}, 3.0)
    assert own["fridge"].temp_c == 3.0 and own["cellar"].temp_c == 11.0
    assert own["warm_spot"].air_c([20.0] * 24, NOON) == pytest.approx(26.0)
    assert own["proof_box"] == DEFAULTS["proof_box"]


@given(
    st.lists(
        st.tuples(st.floats(0.1, 9), st.floats(12, 30)), min_size=1, max_size=6, unique_by=lambda p: round(p[0], 1)
    )
)
def test_air_that_was_read_is_what_the_dough_had(log: list[tuple[float, float]]) -> None:
    """Property: at every reading the path is the reading; a day later the usual hours are back."""
    usual = tuple((float(h), 20.0) for h in range(49))
    path = with_log(usual, NOON, [(later(NOON, h), c) for h, c in log])
    stage = Stage("x", 48, path)
    for h, c in log:
        assert stage.ambient_c(h) == pytest.approx(c, abs=1e-6)
    assert stage.ambient_c(46.0) == pytest.approx(20.0, abs=0.1)
    assert [h for h, _ in path] == sorted({h for h, _ in path})


def test_keeping_a_starter_costs_least_in_the_fridge() -> None:
    """Fact of the trade: used once a week, a starter in the fridge wastes far less than one fed on the bench; feeds
    peak when wanted."""
    air = [(0.0, 20.0), (60.0, 20.0)]
    ways = upkeep(100, 7, air)
    assert [w.place for w in ways] == ["fridge", "bench"]
    assert ways[0].waste_g_week < 0.4 * ways[1].waste_g_week
    for way in ways:
        last = way.meals[-1]
        seed = Seed("chilled", 1.0, 7) if way.place == "fridge" and len(way.meals) == 1 else Seed("ripe")
        assert fed(last.feed, seed, air).peak_h == pytest.approx(last.before_h, rel=0.12)
    assert len(upkeep(100, 14, air)[0].meals) == 2
