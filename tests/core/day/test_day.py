"""The day around busy hours: the sweep against plain loops and an exact solver, the chosen day against the real
rise."""

from __future__ import annotations

import datetime as dt
import itertools
import tomllib
from dataclasses import replace
from pathlib import Path
from zoneinfo import ZoneInfo

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ortools.sat.python import cp_model

from brassclock.core.day.courses import AS_PLANNED, COURSES, Choice, KitchenResources, PlanRequest
from brassclock.core.day.hands import Busy, Hands, Slots, away, clashes, free_hands
from brassclock.core.day.options import DOSES, because, clashing, relaxations
from brassclock.core.day.pack import Item, in_turn, pack, together
from brassclock.core.day.places import places_of
from brassclock.core.day.plan import plan_back
from brassclock.core.day.scale import pace, scale_of
from brassclock.core.day.search import Search
from brassclock.core.day.shared import Commitments, Shelved, cold_span, crowding, hand_spans, surface_span
from brassclock.core.day.spec import BakeSpec, Cold, StageSpec
from brassclock.core.day.sweep import (
    Candidate,
    Chores,
    Fixed,
    ProgressWindow,
    Rates,
    ServiceTimes,
    Way,
    heat_slot,
    ways,
)
from brassclock.core.matter.dough import dough_of_masses
from brassclock.core.rise.course import warm
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.time import hours_between, later

ZONE = ZoneInfo("Europe/Zurich")
WORKED = tomllib.loads((Path(__file__).parents[2] / "worked" / "day.toml").read_text("utf-8"))
SWING = [22 + 3 * np.cos((h - 15) / 24 * 2 * np.pi) for h in range(24)]
PLACES = places_of({}, 4.0)
FRIDAY = dt.datetime(2026, 11, 27, 20, tzinfo=ZONE)
LINES = [("plain_flour", 500.0), ("water", 310.0), ("salt_fine", 10.0)]


@pytest.fixture(scope="module", autouse=True)
def _quick() -> None:
    assert warm()


def spec(yeast_g: float = 1.5, cold: Cold | None = None, hours: float = 2.0) -> BakeSpec:
    tub, tray = Vessel("tub", 825, True, 20, "wood"), Vessel("tray", 95, True)
    bulk = StageSpec(Stage("bulk", hours, ((0, 0),), tub, "ball", 1.9))
    ball = StageSpec(Stage("ball proof", 1, ((0, 0),), tray, None, 1.4), cold=cold)
    return BakeSpec(Batch(dough_of_masses([*LINES, ("yeast_instant", yeast_g)]), "kneaded", 24.0), bulk, ball)


def span(day: int, begin: str, end: str, name: str = "rota", hands: int | None = None) -> Busy:
    a = dt.datetime.fromisoformat(f"2026-11-{day:02d}T{begin}").replace(tzinfo=ZONE)
    b = dt.datetime.fromisoformat(f"2026-11-{day:02d}T{end}").replace(tzinfo=ZONE)
    return Busy(a, b if b > a else b + dt.timedelta(days=1), name, hands)


WEEK = [
    *(span(d, "09:00", "17:00", "work") for d in range(23, 28)),
    *(span(d, "22:30", "06:30", "sleep") for d in range(23, 28)),
]


def resources(busy: list[Busy] | None = None, cooks: int = 1, hourly: list[float] | None = None) -> KitchenResources:
    return KitchenResources(hourly or SWING, PLACES, WEEK if busy is None else busy, cooks)


# --- the sweep, by itself


def naive(way: Way, rates: Rates, chores: Chores, free: np.ndarray, table: ServiceTimes, now: int) -> float:
    """The least cost by loops over every mixing and balling, written from the rules alone."""

    def idle(a: int, b: int) -> bool:
        return a >= now and b <= len(free) and all(free[s] >= 1 for s in range(a, b))

    heat = heat_slot(chores, Hands(free), table)
    if heat is None or not idle(table.roll, table.end):
        return np.inf
    best = np.inf
    for mix, ball in itertools.product(range(len(free) + 1), repeat=2):
        moves = [(mix - chores.before_mix, mix), (ball, ball + chores.ball)]
        lead = mix - chores.sponge - chores.before_mix
        if chores.sponge and not idle(lead, lead + chores.before_mix):
            continue
        if chores.feed and not any(
            idle(s, s + 1) for s in range(max(mix - chores.feed[1], 0), max(mix - chores.feed[0] + 1, 0))
        ):
            continue
        if mix > ball or ball + chores.ball > table.roll or moves[0][0] < now:
            continue
        first, second = rates.bulk[ball] - rates.bulk[mix], rates.ball[table.roll] - rates.ball[ball]
        if way.chill:
            start, end = (mix, ball) if way.chill == "bulk" else (ball, table.roll)
            into, out = start + way.after, end - way.temper
            if not way.cold_low <= out - into <= way.cold_high or out <= into:
                continue
            moves += [(into, into + 1), (out, out + 1)]
            r = rates.bulk if way.chill == "bulk" else rates.ball
            warmed = max(r[end] - r[out] - way.warmed * rates.warms[out], 0.0)
            if rates.full is not None and rates.full[out] > rates.full[into]:
                continue
            inside = r[into] - r[start] + rates.cools[into] + rates.cold_slot * (out - into) + warmed
            first, second = (inside, second) if way.chill == "bulk" else (first, inside)
        if not all(idle(a, b) for a, b in moves):
            continue
        lit = range(heat, heat + chores.tended)
        if free[heat] < 2 and way.chill and moves[-1][0] in lit:
            continue
        if free[heat] < 2 and ball < heat + chores.tended and ball + chores.ball > heat:
            continue
        wait = rates.ball[table.last] - rates.ball[table.roll]
        ball_need = replace(way.ball, high=way.ball.high - wait)
        cost = float(way.bulk.cost(np.array([first]))[0] + ball_need.cost(np.array([second]))[0]) + way.cost
        best = min(best, cost)
    return best


@st.composite
def small_days(draw: st.DrawFn) -> tuple[Way, Rates, Chores, np.ndarray, ServiceTimes, int]:
    count = draw(st.integers(20, 44))
    numbers = st.floats(0.02, 0.3)
    bulk = np.concatenate([[0.0], np.cumsum(draw(st.lists(numbers, min_size=count, max_size=count)))])
    ball = bulk if draw(st.booleans()) else bulk * 1.3
    free = np.array(draw(st.lists(st.sampled_from([1, 1, 1, 0, 2]), min_size=count, max_size=count)))
    chores = Chores(
        before_mix=draw(st.integers(1, 3)),
        ball=draw(st.integers(1, 2)),
        preheat=draw(st.integers(1, 4)),
        roll=1,
        sponge=draw(st.sampled_from([0, 0, 4])),
        feed=draw(st.sampled_from([None, (2, 6)])),
    )
    roll = draw(st.integers(count - 8, count - 3))
    free[roll:] = 1
    low = draw(st.floats(0.1, 0.8))
    needs = [ProgressWindow(low, low * 1.5, low * 1.7, low * draw(st.floats(1.8, 4.0))) for _ in range(2)]
    chill = draw(st.sampled_from([None, None, "bulk", "ball"]))
    way = Way("x", 1.0, *needs, cost=0.25)
    zeros = np.zeros(count + 1)
    rates = Rates(bulk, ball, 0.01, zeros + draw(st.floats(0, 0.1)), zeros + draw(st.floats(0, 0.2)))
    if chill:
        way = replace(
            way,
            chill=chill,
            after=draw(st.integers(2, 3)),
            temper=draw(st.integers(1, 4)),
            cold_low=2,
            cold_high=18,
            warmed=0.8,
        )
        full = draw(st.lists(st.sampled_from([0, 0, 0, 0, 1]), min_size=count, max_size=count))
        rates = replace(rates, full=np.concatenate([[0], np.cumsum(full)]))
    return (
        way,
        rates,
        chores,
        free,
        ServiceTimes(roll, draw(st.sampled_from([roll, roll + 2])), count),
        draw(st.integers(0, 4)),
    )


@given(small_days())
@settings(max_examples=150, deadline=None)
def test_the_sweep_finds_what_plain_loops_find(day: tuple[Way, Rates, Chores, np.ndarray, ServiceTimes, int]) -> None:
    way, rates, chores, free, table, now = day
    found = ways(way, rates, chores, Hands(free), table, now)
    least = naive(*day)
    assert (found[0].cost if found else np.inf) == pytest.approx(least, abs=1e-9)
    assert [f.cost for f in found] == sorted(f.cost for f in found)


def by_solver(way: Way, rates: Rates, chores: Chores, free: np.ndarray, table: ServiceTimes) -> float:
    """The same by CP-SAT: integers for the boundaries, element constraints for progress, a cost table over it."""
    scale, n = 1_000, len(free)
    model = cp_model.CpModel()
    mix, ball = model.new_int_var(chores.before_mix, n, "mix"), model.new_int_var(0, table.roll - chores.ball, "ball")
    model.add(mix <= ball)
    for at, length, lead in ((mix, chores.before_mix, chores.before_mix), (ball, chores.ball, 0)):
        good = [
            [s]
            for s in range(n + 1)
            if s - lead >= 0 and s - lead + length <= n and free[s - lead : s - lead + length].all()
        ]
        model.add_allowed_assignments([at], good)
    heat = heat_slot(chores, Hands(free), table)
    assert heat is not None
    model.add_allowed_assignments(
        [ball], [[b] for b in range(n + 1) if not (b < heat + chores.tended and b + chores.ball > heat)]
    )
    top = int(rates.bulk[-1] * scale) + 1
    costs = []
    for name, need, start, end in (("bulk", way.bulk, mix, ball), ("ball", way.ball, ball, None)):
        steps = [round(float(x) * scale) for x in (rates.bulk if name == "bulk" else rates.ball)]
        a, b = model.new_int_var(0, top * 2, ""), model.new_int_var(0, top * 2, "")
        model.add_element(start, steps, a)
        if end is None:
            model.add(b == steps[table.roll])
        else:
            model.add_element(end, steps, b)
        progress = model.new_int_var(int(need.low * scale), int(need.high * scale), "")
        model.add(progress == b - a)
        table_costs = need.cost(np.arange(top * 2) / scale)
        cost = model.new_int_var(0, 10_000_000, "")
        model.add_element(
            progress, [min(int(c * 1e5), 10_000_000) if np.isfinite(c) else 10_000_000 for c in table_costs], cost
        )
        costs.append(cost)
    model.minimize(sum(costs))
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds, solver.parameters.num_workers = 20, 2
    status = solver.solve(model)
    assert status in (cp_model.OPTIMAL, cp_model.INFEASIBLE)
    return solver.objective_value / 1e5 if status == cp_model.OPTIMAL else np.inf


@pytest.mark.parametrize("seed", range(10))
def test_the_sweep_is_as_good_as_an_exact_solver(seed: int) -> None:
    """Ten fixed cases against an optimum that CP-SAT proves (`ortools`, a reference library)."""
    rng = np.random.default_rng(seed)
    n = 60
    bulk = np.concatenate([[0.0], np.cumsum(rng.uniform(0.03, 0.12, n))])
    free = np.ones(n, dtype=np.int64)
    for at in rng.integers(0, n - 20, 3):
        free[at : at + rng.integers(2, 9)] = 0
    way = Way("x", 1.0, ProgressWindow(0.9, 1.2, 1.5, 2.0), ProgressWindow(0.4, 0.6, 0.8, 1.2))
    chores, table = Chores(before_mix=3, ball=2, preheat=4, roll=2), ServiceTimes(n - 6, n - 6, n)
    found = ways(way, Rates(bulk, bulk), chores, Hands(free), table, 0)
    assert (found[0].cost if found else np.inf) == pytest.approx(
        by_solver(way, Rates(bulk, bulk), chores, free, table), abs=0.05
    )


@pytest.mark.parametrize("case", WORKED["constant"], ids=lambda c: c["name"])
def test_constant_kitchens_by_hand(case: dict[str, float]) -> None:
    """At one temperature the bulk takes its hours over the rate: worked by hand."""
    slots = Slots.until(FRIDAY)
    made = spec()
    scale = scale_of(made, [case["air_c"]] * 24, slots, None)
    per_slot = float(scale.rates.bulk[1])
    assert per_slot * 12 == pytest.approx(1 / case["times_25c"], rel=case["within"])
    need = ProgressWindow(*(case[k] / case["dose"] for k in ("low_h", "best_h", "best_to_h", "high_h")))
    way = Way("x", 1.0, need, ProgressWindow(0.2, 0.5, 0.6, 40.0))
    free, roll = np.ones(slots.count, dtype=np.int64), slots.count - 10
    found = ways(way, scale.rates, Chores(), Hands(free), ServiceTimes(roll, roll, slots.count), 0)
    every = [
        b - m for m in range(0, slots.count, 1) for b in [found[0].ball] if need.low <= (b - m) * per_slot <= need.high
    ]
    assert (min(every), max(every)) == (case["least_slots"], case["most_slots"])
    assert need.low <= (found[0].ball - found[0].mix) * per_slot <= need.high


# --- the whole search, by the real rise


def bears(found: object, home: KitchenResources, serve: dt.datetime) -> None:
    """A day holds: in time, no move in busy hours, every stage inside its real window."""
    plan = found.plan  # type: ignore[attr-defined]
    assert plan.late_min < 2
    assert clashing(plan, home) == []
    bulk_h = hours_between(plan.mixed_at, plan.balled_at)
    ball_h = hours_between(plan.balled_at, plan.step("roll").at)
    assert plan.bulk.ready_h - 0.1 <= bulk_h <= plan.bulk.too_far_h + 0.1
    assert plan.ball.ready_h - 0.2 <= ball_h <= plan.ball.too_far_h + 0.1
    assert abs((plan.serve_at - serve).total_seconds()) < 120


@given(
    st.lists(st.tuples(st.integers(0, 90), st.integers(1, 9)), max_size=8),
    st.integers(0, 23),
    st.sampled_from([0.5, 1.5, 5.0]),
    st.sampled_from([1, 2]),
)
@settings(max_examples=40, deadline=None)
def test_a_found_day_holds_by_the_real_rise(
    spans: list[tuple[int, int]], hour: int, yeast_g: float, cooks: int
) -> None:
    serve = FRIDAY.replace(hour=hour)
    first = serve - dt.timedelta(hours=96)
    busy = [Busy(later(first, a), later(first, a + b), "away", None if cooks == 1 else 1) for a, b in spans]
    home = resources(busy, cooks)
    found = Search(PlanRequest(spec(yeast_g), serve, first), home).best(Choice((AS_PLANNED, *COURSES), DOSES))
    if found is None:
        assert busy  # with every hour free there always is a day
    else:
        bears(found, home, serve)


def test_a_free_day_is_the_plain_plan_and_a_busy_one_the_nearest_to_it() -> None:
    made, now = spec(3.0), FRIDAY - dt.timedelta(hours=90)
    plain = plan_back(made, SWING, FRIDAY, now, {})
    free = Search(PlanRequest(made, FRIDAY, now), resources([])).best(Choice((AS_PLANNED, *COURSES), DOSES))
    assert free and (free.course, free.dose) == (AS_PLANNED, 1.0)
    assert abs((free.plan.mixed_at - plain.mixed_at).total_seconds()) < 15 * 60
    balling = span(27, f"{plain.balled_at:%H:%M}", f"{plain.balled_at + dt.timedelta(minutes=20):%H:%M}")
    moved = Search(PlanRequest(made, FRIDAY, now), resources([balling])).best(Choice())
    assert moved is not None
    bears(moved, resources([balling]), FRIDAY)
    assert dt.timedelta(0) < abs(moved.plan.balled_at - plain.balled_at) <= dt.timedelta(minutes=30)


def test_what_is_done_or_pinned_stays_and_the_rest_moves() -> None:
    made, mixed = spec(3.0), FRIDAY - dt.timedelta(hours=4)
    now = mixed + dt.timedelta(minutes=30)
    done = {"mix": mixed, "weigh": mixed}
    plain = plan_back(made, SWING, FRIDAY, now, done)
    busy = [Busy(plain.balled_at - dt.timedelta(minutes=10), plain.balled_at + dt.timedelta(minutes=8), "call")]
    found = Search(PlanRequest(made, FRIDAY, now, done), resources(busy)).best(Choice())
    assert found is not None and found.plan.mixed_at == mixed and found.plan.balled_at != plain.balled_at
    bears(found, resources(busy), FRIDAY)
    pinned_at = plain.balled_at + dt.timedelta(minutes=25)
    held = plan_back(made, SWING, FRIDAY, now, done, pins={"ball": pinned_at})
    assert held.balled_at == pinned_at
    assert (
        plan_back(made, SWING, FRIDAY, pinned_at + dt.timedelta(minutes=40), done, pins={"ball": pinned_at}).balled_at
        != pinned_at
    )


def test_a_busy_line_is_infeasible_and_says_who_has_the_hands() -> None:
    """Case 14 of the hand-provable set: the line's own hours are taken, so nothing but they or the table can give."""
    busy = [span(27, "19:30", "20:30", "choir")]
    request = PlanRequest(spec(), FRIDAY, FRIDAY - dt.timedelta(hours=90))
    assert Search(request, resources(busy)).best(Choice((AS_PLANNED, *COURSES), DOSES)) is None
    assert "choir" in because(request, resources(busy)) and "19:30" in because(request, resources(busy))
    kinds = [set(r.change) for r in relaxations(request, resources(busy))]
    assert all(k & {"serve_min", "busy"} for k in kinds) and kinds


def test_a_weekday_wish_that_fails_has_ways_out_that_hold() -> None:
    """Case 15: 22 ± 3 C, a working day, served at 20:00 off a narrow room rise: each way out is run by the real
    rise."""
    now = FRIDAY - dt.timedelta(hours=90)
    request = PlanRequest(spec(2.5), FRIDAY, now)
    free = plan_back(request.spec, SWING, FRIDAY, now, {})
    work = span(27, "06:30", "17:20", "work")
    home = resources([work, span(26, "21:00", "06:30", "sleep")])
    assert clashing(free, home) and Search(request, home).best(Choice()) is None
    found = relaxations(request, home)
    assert {"dose_factor", "course", "serve_min", "busy"} <= {k for r in found for k in r.change}
    assert [r.cost for r in found] == sorted(r.cost for r in found)
    for r in found:
        serve = FRIDAY + dt.timedelta(minutes=r.change.get("serve_min", 0))
        bears(
            r.solved,
            resources([b for b in home.busy if "busy" not in r.change or b.name != r.change["busy"]["name"]]),
            serve,
        )


def test_a_service_has_a_length_and_trays_come_in_waves() -> None:
    """A hundred balls: ready by the first load, not too far at the last, out of the cold in waves."""
    chilled = replace(spec(cold=Cold(0.25, 14, PLACES["fridge"])), service_min=120.0, waves=3, line_min=125.0)
    found = Search(
        PlanRequest(chilled, FRIDAY + dt.timedelta(hours=2), FRIDAY - dt.timedelta(hours=90)), resources([])
    ).best(Choice())
    assert found is not None
    waves = [s for s in found.plan.steps if s.key.startswith("wave")]
    out = found.plan.step("cold_out").at
    assert [s.at - out for s in waves] == [dt.timedelta(minutes=40), dt.timedelta(minutes=80)]
    assert found.plan.step("serve").at == FRIDAY
    whole = replace(spec(6.0), service_min=180.0, line_min=185.0)
    longest = plan_back(whole, [27.0] * 24, FRIDAY, FRIDAY - dt.timedelta(hours=40), {})
    short = plan_back(
        replace(whole, service_min=0.0, line_min=5.0), [27.0] * 24, FRIDAY, FRIDAY - dt.timedelta(hours=40), {}
    )
    wait = [p.step("roll").can_wait_until - p.balled_at for p in (longest, short)]  # type: ignore[operator]
    assert wait[0] < wait[1]


def test_a_rise_through_the_changed_night_has_its_true_hours() -> None:
    """Clocks go back on 25 October 2026 in Zurich: by the wall the same rise looks an hour shorter."""
    serve = dt.datetime(2026, 10, 25, 8, tzinfo=ZONE)
    plain = serve - dt.timedelta(days=7)
    made, level = spec(0.4), [20.0] * 24
    one, other = (
        Search(PlanRequest(made, s, s - dt.timedelta(hours=60)), resources([], hourly=level)).best(Choice())
        for s in (serve, plain)
    )
    assert one and other
    hours = [
        (x.plan.balled_at.astimezone(dt.UTC) - x.plan.mixed_at.astimezone(dt.UTC)).total_seconds() / 3600
        for x in (one, other)
    ]
    assert hours[0] == pytest.approx(hours[1], abs=0.1) and hours[0] > 6
    wall = [x.plan.step("roll").at.replace(tzinfo=None) - x.plan.mixed_at.replace(tzinfo=None) for x in (one, other)]
    assert wall[1] - wall[0] == pytest.approx(dt.timedelta(hours=1), abs=dt.timedelta(minutes=10))


def test_the_hour_that_comes_twice_is_two_hours() -> None:
    """On 25 October 2026 02:00 to 03:00 comes twice in Zurich: busy in the first is not busy in the second."""
    first = dt.datetime(2026, 10, 25, 2, 30, tzinfo=ZONE)
    rota = [Busy(first, first + dt.timedelta(minutes=20), "rota")]
    assert clashes(first.replace(minute=35), 5, rota, 1) == rota
    assert clashes(first.replace(minute=35, fold=1), 5, rota, 1) == []
    over = [Busy(first, later(first, 1.0), "both")]  # half past two to half past two
    assert clashes(first.replace(minute=10, fold=1), 5, over, 1) == over


def nobody_does_two_things(packed: dict, home: KitchenResources, surface_of: dict[str, str]) -> None:
    placed = {k: w for k, w in packed.items() if w is not None}
    every = [s for k, w in placed.items() for s in hand_spans(w.plan, k)]
    for k, w in placed.items():
        beside = [*home.busy, *(s for s in every if s.name != k)]
        for s in hand_spans(w.plan, k):
            assert clashes(s.start, (s.end - s.start).total_seconds() / 60, beside, home.cooks) == [], (k, s)
    for a, b in itertools.combinations(placed, 2):
        if surface_of[a] == surface_of[b]:
            one, other = surface_span(placed[a].plan), surface_span(placed[b].plan)
            assert one.end <= other.start or other.end <= one.start
    for k, w in placed.items():
        cold = tuple(x for o, v in placed.items() if o != k for x in cold_span(v.plan, o, 6.0))
        assert crowding(w.plan, 6.0, Commitments(cold=cold, shelf_l=home.shared.shelf_l)) == []


@pytest.mark.parametrize(
    ("busy", "cooks"), [([], 1), (WEEK[:-1], 1), (WEEK[:-1], 2)], ids=["free", "week", "week, two cooks"]
)
def test_several_bakes_share_hands_surfaces_and_the_shelf(busy: list[Busy], cooks: int) -> None:
    home = replace(resources(busy, cooks), shared=Commitments(shelf_l=13.0))
    now = FRIDAY - dt.timedelta(hours=90)
    chilled = spec(cold=Cold(0.25, 14, PLACES["fridge"]))
    choice = Choice((AS_PLANNED, *COURSES), DOSES)
    items = [
        Item(
            f"b{i}",
            PlanRequest(chilled if i % 2 else spec(3.0), FRIDAY + dt.timedelta(minutes=75 * i), now, litres=6.0),
            choice,
            f"s{i % 2}",
        )
        for i in range(4)
    ]
    surfaces = {i.key: i.surface or "" for i in items}
    whole = pack(items, home)
    for packed in (in_turn(items, home), together(items, home), whole):
        assert packed is not None
        nobody_does_two_things(dict(packed.ways), home, surfaces)
    assert whole.cost <= in_turn(items, home).cost
    if not busy:
        assert all(whole.ways.values())


def test_a_surface_and_a_shelf_that_others_have_are_gone_around_or_told() -> None:
    made, now = spec(0.4, Cold(0.25, 14, PLACES["fridge"])), FRIDAY - dt.timedelta(hours=90)
    request = PlanRequest(made, FRIDAY, now, litres=6.0)
    plain = Search(request, resources([])).best(Choice())
    assert plain is not None
    begins = plain.plan.step("cold_in").at
    jam = Shelved(begins - dt.timedelta(hours=2), begins + dt.timedelta(hours=2), "jam", 10.0)
    shelf = replace(resources([]), shared=Commitments(cold=(jam,), shelf_l=15.0))
    moved = Search(request, shelf).best(Choice())
    assert moved is not None and crowding(plain.plan, 6.0, shelf.shared) and not crowding(moved.plan, 6.0, shelf.shared)
    bears(moved, shelf, FRIDAY)
    small = replace(resources([]), shared=Commitments(shelf_l=5.0))
    assert Search(request, small).best(Choice()) is None and "too small" in because(request, small)
    flat = Busy(FRIDAY - dt.timedelta(hours=1), FRIDAY + dt.timedelta(minutes=40), "flat ones")
    hot = replace(resources([]), shared=Commitments(hot=(flat,)))
    assert Search(request, hot).best(Choice((AS_PLANNED, *COURSES), DOSES)) is None
    assert because(request, hot) == "Its surface is taken between 19:00 and 20:40 (flat ones)."
    later_table = [r.change["serve_min"] for r in relaxations(request, hot) if "serve_min" in r.change]
    assert any(m >= 60 for m in later_table) and all(
        not crowding(r.solved.plan, 6.0, hot.shared) for r in relaxations(request, hot)
    )
    on = {
        k: FRIDAY - dt.timedelta(minutes=9)
        for k in ("weigh", "mix", "ball", "cold_in", "cold_out", "preheat", "roll", "line")
    }
    assert crowding(plan_back(made, SWING, FRIDAY, FRIDAY, on), 6.0, hot.shared) == []


def test_packing_together_finds_what_one_after_the_other_does_not() -> None:
    """Two bakes, the one whose only hours the other would take first: in that order there is no place, together there
    is."""
    now = FRIDAY - dt.timedelta(hours=30)
    tight = [
        Busy(now, FRIDAY - dt.timedelta(hours=5, minutes=10), "a"),
        Busy(FRIDAY - dt.timedelta(hours=3, minutes=40), FRIDAY - dt.timedelta(hours=1, minutes=30), "b"),
    ]
    items = [
        Item("easy", PlanRequest(spec(3.0), FRIDAY + dt.timedelta(hours=1), now), Choice((AS_PLANNED,), DOSES), "s0"),
        Item("hard", PlanRequest(spec(3.0), FRIDAY, now), Choice((AS_PLANNED,), DOSES), "s1"),
    ]
    home = resources(tight)
    best = pack(items, home)
    worst = max(in_turn(order, home).cost for order in (items, items[::-1]))
    assert best.cost <= worst
    nobody_does_two_things(dict(best.ways), home, {"easy": "s0", "hard": "s1"})


@given(
    st.lists(st.tuples(st.integers(0, 500), st.integers(1, 120), st.sampled_from([None, 1])), max_size=8),
    st.sampled_from([1, 2]),
)
def test_hands_are_counted_alike_on_slots_and_by_instants(spans: list[tuple[int, int, int | None]], cooks: int) -> None:
    slots = Slots.until(FRIDAY, 144)
    busy = [Busy(slots.at(a / 5), slots.at((a + b) / 5), "x", h) for a, b, h in spans]
    free = free_hands(slots, busy, cooks)
    for i in range(0, 144, 3):
        inside = any(clashes(slots.at(i + part), 0.5, busy, cooks) for part in (0.0, 0.5, 0.75))
        if inside:
            assert free[i] == 0
        if free[i] > 0:
            assert not any(a < slots.at(i + 1) and b > slots.at(i) for a, b in away(busy, cooks))


def test_pace_is_the_leavens_own() -> None:
    assert pace(np.array([25.0]), True)[0] == pytest.approx(1.0)
    assert (
        Candidate(
            Way("x", 1, ProgressWindow(0, 1, 1.5, 2), ProgressWindow(0, 1, 1.5, 2)), 1, 2, None, None, 0.0
        ).way.chill
        is None
    )
    assert (
        ways(
            Way("x", 1, ProgressWindow(0, 1, 1.5, 2), ProgressWindow(0, 1, 1.5, 2)),
            Rates(np.arange(9.0), np.arange(9.0)),
            Chores(1, 1, 1, 1, 0, 0, 1),
            Hands(np.ones(8, dtype=np.int64)),
            ServiceTimes(6, 6, 8),
            0,
            Fixed(mix=3),
        )[0].mix
        == 3
    )


@pytest.mark.parametrize("cool_k", [0.0, 6.0, 9.0, 12.0])
def test_a_kitchen_that_is_cold_at_night_is_no_fridge(cool_k: float) -> None:
    """A quick dough in a room whose nights fall below the cold's limit is balled when it has risen and served in time:
    it does not wait on the bench until the room warms again."""
    hourly = [c - cool_k for c in SWING]
    table = FRIDAY.replace(hour=23)
    plan = plan_back(spec(5.0), hourly, table, later(table, -14), {})
    assert plan.late_min == 0
    assert hours_between(plan.mixed_at, plan.balled_at) < 4
    assert hours_between(plan.mixed_at, plan.balled_at) < plan.bulk.too_far_h
