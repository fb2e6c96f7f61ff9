"""The line at the heat: worked cases, bounds, an exact solver on small ones, slips; and what a surface's signs say."""

from __future__ import annotations

import tomllib
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from ortools.sat.python import cp_model

from brassclock.core.errors import InvalidInput
from brassclock.core.fire import cue
from brassclock.core.fire.line.board import later_by, sooner_by, starts
from brassclock.core.fire.line.mend import replan
from brassclock.core.fire.line.plan import plan_line, saved_s
from brassclock.core.fire.line.rhythm import rhythm
from brassclock.core.fire.line.spec import LineSpec, Op, Station, bread_ops, calm, check_line, lower_bound
from brassclock.services.contract import compute

WORKED = tomllib.loads((Path(__file__).parents[2] / "worked" / "line.toml").read_text("utf-8"))
ROLLS = (Op("roll", 20, 120, 180), Op("roll again", 25, 0, 480))
HALVES = (Op("roll a", 10, 0, 15), Op("roll b", 10, 120, 180), Op("again a", 12, 0, 15), Op("again b", 13, 0, 480))
HEAT = (
    Op("load", 8, 60, 64, 5, takes_spot=True),
    Op("turn", 3, 45, 49),
    Op("off", 3, 0, 20, frees_spot=True),
    Op("brush", 6),
)


def naan(spots: int, cooks: int = 1, halves: bool = False) -> LineSpec:
    return LineSpec((*(HALVES if halves else ROLLS), *HEAT), spots, cooks, 20)


@pytest.mark.parametrize("case", WORKED["line"], ids=lambda c: c["name"])
def test_worked_lines(case: dict[str, Any]) -> None:
    spec = naan(case["spots"], case.get("cooks", 1), case.get("halves", False))
    line = plan_line(spec, case["breads"], 50000)
    assert check_line(spec, line.tasks) == []
    assert line.lower_bound_s == case.get("bound_s", line.lower_bound_s)
    assert case.get("best_s", line.lower_bound_s) <= line.makespan_s <= case["within_s"]


@pytest.mark.parametrize("case", WORKED["rhythm"], ids=lambda c: c["name"])
def test_shortest_rhythms(case: dict[str, Any]) -> None:
    """The cycle is the shortest there is: every shorter one is refuted by the search running through."""
    found = rhythm(naan(case["spots"], case.get("cooks", 1), case.get("halves", False)), 1_000_000)
    assert found is not None and found.cycle_s == case["cycle_s"]


def test_one_pita_takes_its_moves_and_its_rests() -> None:
    pita = LineSpec((Op("roll", 20, 120, 180), Op("roll again", 25, 240, 600), *HEAT), 1, 1, 20)
    assert plan_line(pita, 1).makespan_s == 530 == lower_bound(pita, 1)


def exact_s(spec: LineSpec, breads: int) -> int:
    """The optimum by CP-SAT (`ortools`, a reference library): intervals for hands, for spots and for stations, rounds
    loaded in turn."""
    model, horizon = cp_model.CpModel(), 1200 + 250 * breads
    rounds = [spec.moves(n + 1) for n in range(breads)]
    at = [[model.new_int_var(0, horizon, "") for _ in m.ops] for m in rounds]
    hands = [
        model.new_fixed_size_interval_var(at[n][k], op.hands_s, "")
        for n, m in enumerate(rounds)
        for k, op in enumerate(m.ops)
    ]
    model.add_cumulative(hands, [1] * len(hands), spec.cooks)

    def held(n: int, first: int, last: int, since: int, recover_s: int) -> cp_model.IntervalVar:
        length, end = model.new_int_var(0, horizon, ""), model.new_int_var(0, 2 * horizon, "")
        model.add(end == at[n][last] + rounds[n].ops[last].hands_s + recover_s)
        return model.new_interval_var(at[n][first] + since, length, end, "")

    kinds = [spec.kind(n + 1) for n in range(breads)]
    on = [
        held(n, m.load, m.unload, m.ops[m.load].off_surface_s, spec.recover_of(kinds[n])) for n, m in enumerate(rounds)
    ]
    for spots in {spec.spots_of(k) for k in kinds}:
        there = [x for x, k in zip(on, kinds, strict=True) if spec.spots_of(k) == spots]
        model.add_cumulative(there, [1] * len(there), len(spots))
    for station in spec.stations:
        there = [held(n, *stay, 0, station.recover_s) for n, m in enumerate(rounds) if (stay := m.stay(station.name))]
        model.add_cumulative(there, [1] * len(there), station.count)
    for n, m in enumerate(rounds):
        for k, op in enumerate(m.ops[:-1]):
            model.add(at[n][k + 1] >= at[n][k] + op.hands_s + op.then_min_s)
            model.add(at[n][k + 1] <= at[n][k] + op.hands_s + op.then_max_s)
        if n:
            model.add(at[n][m.load] >= at[n - 1][rounds[n - 1].load])
    last = model.new_int_var(0, horizon, "")
    model.add_max_equality(last, [a[-1] + m.ops[-1].hands_s for a, m in zip(at, rounds, strict=True)])
    model.minimize(last)
    solver = cp_model.CpSolver()
    solver.parameters.max_time_in_seconds, solver.parameters.num_workers = 20, 2
    assert solver.solve(model) == cp_model.OPTIMAL
    return round(solver.objective_value)


GRILLED = LineSpec(bread_ops(40, 75, grilled=True), 1, 1, 15, stations=(Station("grill", 1, 10),))
MIXED = LineSpec(bread_ops(40, 75), 2, 1, 20, (bread_ops(70, 150, topped=True),), (0, 1, 0, 1))
APART = LineSpec(  # six rounds on two plates while a tray bakes in the oven
    bread_ops(40, 75),
    3,
    1,
    20,
    (bread_ops(None, 600),),
    (1, 0, 0, 0, 0),
    lies=((1, 2), (3, 3)),
    recovers=(20, 0),
)


@pytest.mark.parametrize(
    ("spec", "breads"), [(GRILLED, 3), (GRILLED, 4), (MIXED, 3), (MIXED, 4), (APART, 4), (APART, 5)]
)
def test_a_grill_and_mixed_breads_against_an_exact_solver(spec: LineSpec, breads: int) -> None:
    best, found = exact_s(spec, breads), plan_line(spec, breads, 50000)
    assert check_line(spec, found.tasks) == []
    assert lower_bound(spec, breads) <= best <= found.makespan_s <= 1.06 * best


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.integers(0, 1), min_size=1, max_size=9),
    st.tuples(st.integers(1, 3), st.integers(1, 2)),
    st.integers(1, 2),
    st.tuples(st.integers(30, 90), st.integers(20, 90), st.integers(100, 600)),
)
def test_two_surfaces_share_hands_and_nothing_else(
    order: list[int], spots: tuple[int, int], cooks: int, times: tuple[int, int, int]
) -> None:
    """Whatever two kinds lie on two surfaces: no rule is broken, each lies on its own, and the bound holds."""
    turn_s, more_s, tray_s = times
    spec = LineSpec(
        bread_ops(turn_s, turn_s + more_s),
        sum(spots),
        cooks,
        15,
        (bread_ops(None, tray_s),),
        tuple(order),
        lies=((1, spots[0]), (spots[0] + 1, sum(spots))),
        recovers=(15, 5),
    )
    line = plan_line(spec, len(order), 400)
    assert check_line(spec, line.tasks) == []
    assert {t.spot <= spots[0] for t in line.tasks if order[t.round_no - 1] == 0} <= {True}
    assert lower_bound(spec, len(order)) <= line.makespan_s


def test_a_grill_frees_the_pan_and_may_be_the_neck() -> None:
    """One pan bakes the next while the grill finishes the one before; a slow grill is named."""
    in_pan = LineSpec(bread_ops(40, 120), 1, 1, 15)
    beside = LineSpec(bread_ops(40, 120, grilled=True), 1, 1, 15, stations=(Station("grill", 1),))
    assert plan_line(beside, 8, 25000).makespan_s < plan_line(in_pan, 8, 25000).makespan_s - 120
    assert plan_line(beside, 8, 25000).bottleneck == "grill" and plan_line(in_pan, 8, 25000).bottleneck == "spots"


@pytest.mark.parametrize(
    ("spots", "cooks", "breads"), [(1, 1, 3), (2, 1, 3), (2, 1, 4), (3, 1, 3), (2, 2, 4), (4, 1, 4)]
)
def test_small_lines_against_an_exact_solver(spots: int, cooks: int, breads: int) -> None:
    spec = naan(spots, cooks)
    best = exact_s(spec, breads)
    found = plan_line(spec, breads, 50000).makespan_s
    assert lower_bound(spec, breads) <= best <= found <= 1.03 * best


@st.composite
def specs(draw: st.DrawFn) -> LineSpec:
    def ops(grilled: bool) -> tuple[Op, ...]:
        turn = draw(st.floats(15, 90) if grilled else st.one_of(st.none(), st.floats(15, 90)))
        return bread_ops(turn, (turn or 0) + draw(st.floats(15, 120)), grilled, draw(st.booleans()))

    grill = draw(st.integers(0, 2))
    mixed = draw(st.booleans())
    spec = LineSpec(
        ops(grill > 0),
        draw(st.integers(1, 5)),
        draw(st.integers(1, 3)),
        draw(st.integers(0, 120)),
        (ops(False),) if mixed else (),
        tuple(draw(st.lists(st.integers(0, 1), min_size=30, max_size=30))) if mixed else (),
        (Station("grill", grill, draw(st.integers(0, 30))),) if grill else (),
    )
    return calm(spec) if draw(st.booleans()) else spec


@given(specs(), st.integers(1, 30))
@settings(max_examples=60, deadline=None)
def test_any_line_holds_and_keeps_its_bound(spec: LineSpec, breads: int) -> None:
    line = plan_line(spec, breads, 2500)
    assert check_line(spec, line.tasks) == []
    assert line.lower_bound_s <= line.makespan_s
    assert plan_line(replace(spec, spots=spec.spots + 1), breads, 2500).makespan_s <= line.makespan_s
    assert (
        len(line.tasks) == sum(len(spec.moves(n).ops) for n in range(1, breads + 1))
        and len(line.towel_wait_s) == breads
    )
    assert line.towel_wait_s == tuple(sorted(line.towel_wait_s, reverse=True)) and line.towel_wait_s[-1] == 0


@given(st.integers(1, 40), st.integers(1, 5), st.integers(1, 3))
def test_more_spots_or_hands_never_raise_the_bound(breads: int, spots: int, cooks: int) -> None:
    spec = naan(spots, cooks)
    here = lower_bound(spec, breads)
    assert lower_bound(replace(spec, spots=spots + 1), breads) <= here
    assert lower_bound(replace(spec, cooks=cooks + 1), breads) <= here
    assert lower_bound(spec, breads + 1) >= here


@given(st.integers(0, 2**60 - 1), st.integers(1, 9), st.integers(0, 9), st.integers(0, 9))
def test_bits_of_time_against_plain_loops(taken: int, length: int, low: int, more: int) -> None:
    horizon, high = 60, low + more
    fit = {t for t in range(horizon) if t + length <= horizon and not any(taken >> s & 1 for s in range(t, t + length))}
    found = starts(taken, length, horizon)
    assert {t for t in range(horizon) if found >> t & 1} == fit
    later = {t + d for t in fit for d in range(low, high + 1)}
    assert {t for t in range(100) if later_by(found, low, high) >> t & 1} == later
    assert {t for t in range(60) if sooner_by(found, low, high) >> t & 1} == {
        t - d for t in fit for d in range(low, high + 1) if t >= d
    }


@given(st.integers(2, 14), st.integers(1, 3), st.data())
@settings(max_examples=40, deadline=None)
def test_a_slip_is_taken_up_and_what_began_stays(breads: int, spots: int, data: st.DataObject) -> None:
    spec = calm(naan(spots, halves=True))
    tasks = plan_line(spec, breads, 2500).tasks
    at = data.draw(st.integers(0, len(tasks) - 2))
    slip = data.draw(st.integers(1, 10))
    began = {(t.round_no, t.move): t.start_s for t in tasks[:at]}
    late = tasks[at]
    began[late.round_no, late.move] = late.start_s + slip
    now = late.start_s + slip + (late.end_s - late.start_s)
    if any(t.cook == late.cook and t.start_s < now for t in tasks[at + 1 :] if (t.round_no, t.move) in began):
        return
    found = replan(spec, tasks, now, began)
    if found is None:
        return  # no stretch of forty seconds brings it through: said, not hidden
    kept = {(t.round_no, t.move): t.start_s for t in found.tasks}
    assert all(kept[key] == start for key, start in began.items())
    assert all(t.start_s >= now for t in found.tasks if (t.round_no, t.move) not in began)
    wrong = check_line(spec, found.tasks, found.widened_s + slip)
    assert wrong == []


def test_most_slips_of_ten_seconds_are_taken_up_at_a_calm_pace() -> None:
    spec = calm(naan(2, halves=True))
    tasks = plan_line(spec, 12, 25000).tasks
    widened = []
    for at in range(4, len(tasks) - 4):
        began = {(t.round_no, t.move): t.start_s for t in tasks[: at + 1]}
        began[tasks[at].round_no, tasks[at].move] += 10
        found = replan(spec, tasks, tasks[at].end_s + 10, began)
        widened.append(None if found is None else found.widened_s)
    held = [w for w in widened if w is not None]
    assert len(held) >= 0.95 * len(widened) and sum(w <= 12 for w in held) >= 0.5 * len(widened)


def test_another_spot_or_another_pair_of_hands() -> None:
    """A second plate saves much, a third nothing: the hands are the neck then."""
    one, two = naan(1, halves=True), naan(2, halves=True)
    lines = {s: plan_line(s, 24, 25000) for s in (one, two)}
    assert saved_s(one, 24, lines[one])[0] > 1200 and lines[one].bottleneck == "spots"
    assert saved_s(two, 24, lines[two])[0] < 60 and saved_s(two, 24, lines[two])[1] > 100


def test_line_by_contract() -> None:
    ops = [
        {"name": "roll", "hands_s": 20, "pieces": 2, "then_min_s": 120, "then_max_s": 180},
        {"name": "again", "hands_s": 25, "then_max_s": 480},
        {"name": "load", "hands_s": 8, "off_surface_s": 5, "takes_spot": True, "then_min_s": 60, "then_max_s": 64},
        {"name": "turn", "hands_s": 3, "then_min_s": 45, "then_max_s": 49},
        {"name": "off", "hands_s": 3, "frees_spot": True, "then_max_s": 20},
        {"name": "brush", "hands_s": 6},
    ]
    asked = {"breads": 12, "cooks": 1, "spots": 2, "recover_s": 20, "ops": ops}
    fast, slow = (compute("line", asked | {"pace": pace}) for pace in ("fast", "calm"))
    assert fast["lower_bound_s"] <= fast["makespan_s"] <= slow["makespan_s"]
    assert len(fast["tasks"]) == 12 * 7 and len(fast["towel_wait_s"]) == 12 and fast["another_cook_saves_s"] > 0
    grilled = [
        *ops[:3],
        ops[3] | {"takes": "grill", "frees_spot": True},
        {"name": "off", "hands_s": 3, "frees": "grill", "then_max_s": 20},
        ops[5],
    ]
    beside = compute("line", asked | {"ops": grilled, "resources": [{"name": "grill", "count": 1, "recover_s": 5}]})
    assert beside["makespan_s"] >= beside["lower_bound_s"] and beside["bottleneck"] in ("hands", "spots", "grill")
    kinds = [{"name": "naan", "breads": 6, "ops": ops}, {"name": "kulcha", "breads": 3, "ops": ops[1:]}]
    mixed = compute("line", asked | {"breads": None, "ops": None, "kinds": kinds, "in_turn": True})
    order = [t["kind"] for t in sorted(mixed["tasks"], key=lambda t: t["bread"]) if t["op"] == "load"]
    assert order == ["naan", "kulcha", "naan"] * 3 and len(mixed["tasks"]) == 6 * 7 + 3 * 5
    soft = mixed["softness_frac"]
    assert len(soft) == 9 and all(0.7 < x <= 1 for x in soft)  # wrapped at once, nothing is firm within the line
    bad = {
        "/breads": {"breads": 500},
        "/kinds/0/ops": {"kinds": [{"name": "x", "breads": 2, "ops": ops[:2]}]},
        "/ops/3/takes": {"ops": grilled},
        "/spots": {"spots": 0},
        "/ops": {"ops": [{"name": "roll", "hands_s": 9}]},
        "/ops/1/name": {"ops": [ops[2], ops[2] | {"takes_spot": False, "frees_spot": True}]},
        "/ops/0": {"ops": [ops[4], ops[2]]},
        "/ops/2": {"ops": [*ops[:2], ops[2] | {"then_max_s": 10}, *ops[3:]]},
    }
    for pointer, change in bad.items():
        with pytest.raises(InvalidInput) as caught:
            compute("line", asked | change)
        assert pointer in {f.pointer for f in caught.value.faults}, pointer


@pytest.mark.parametrize(
    ("seconds", "surface_c"), [(118, 180), (58, 200), (30, 220), (12, 250), (5.4, 280), (3.3, 300)]
)
def test_flour_tells_the_heat(seconds: float, surface_c: float) -> None:
    """By the browning law of the puff model, unclipped (calibrated with it)."""
    heat = cue.by_flour(seconds)
    assert heat.middle_c == pytest.approx(surface_c, abs=3) and heat.low_c < heat.middle_c < heat.high_c
    assert cue.flour_gold_s(surface_c) == pytest.approx(seconds, rel=0.06)


def test_other_signs_of_heat() -> None:
    bare = compute("cue", {"cue": "infrared", "reads_c": 130, "material": "bare_steel"})["surface_c"]
    iron = compute("cue", {"cue": "infrared", "reads_c": 230, "material": "iron_seasoned"})["surface_c"]
    assert bare["p50"] > 190 and 230 < iron["p50"] < 245  # bare steel reads far too low, seasoned iron nearly right
    assert bare["p10"] < bare["p50"] < bare["p90"]
    order = [
        compute("cue", {"cue": "water_drops", "behaviour": b})["surface_c"]["p50"]
        for b in ("lies", "sizzles", "vanishes", "dances")
    ]
    assert order == sorted(order)
    assert compute("cue", {"cue": "oil_smoke", "fat": "ghee"})["surface_c"]["p50"] == pytest.approx(240, abs=15)
    assert 160 < compute("cue", {"cue": "dough_pinch", "behaviour": "rises"})["surface_c"]["p50"] < 200
    for request, pointer in (
        ({"cue": "flour_gold"}, "/seconds"),
        ({"cue": "oil_smoke", "fat": "tallow"}, "/fat"),
        ({"cue": "infrared", "material": "stone"}, "/reads_c"),
        ({"cue": "tongue"}, "/cue"),
    ):
        with pytest.raises(InvalidInput) as caught:
            compute("cue", request)
        assert pointer in {f.pointer for f in caught.value.faults}
