"""The live hearth and the line as it is mended; how a surface gets hot, is held there and drifts."""

from __future__ import annotations

import json
import math
import random
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.fire.heating import KNOBS, drift_k_min, heating, preheat_min, preheat_s, wipe_every
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import LineSpec, Station, bread_ops
from brassclock.core.fire.puff.params import MATERIALS
from brassclock.core.fire.surfaces import HOB_W_M2, KINDS, Surface
from playing import SKIPPED_S, played

WORKED: list[dict[str, Any]] = json.loads((Path(__file__).parents[2] / "worked" / "hearth.json").read_text("utf-8"))


@pytest.mark.parametrize("case", WORKED, ids=lambda c: c["name"])
def test_the_rules_of_the_hearth_move_by_move(case: dict[str, Any]) -> None:
    """Regression: told by these rules once and read over by hand; the page's own rules (`web/src/api/hearth.ts`) are
    tested on the same file."""
    taps: list[hearth_rules.Tap] = []
    loads = {int(n): float(s) for n, s in case["loads"].items()}
    setting = [case[k] for k in ("rounds", "spots", "turn_s", "off_s", "recover_s", "grill")]
    own = {
        n: hearth_rules.Timing(k["turn_s"], k["off_s"], k["recover_s"], (k["spots"][0], k["spots"][1]))
        for k in case.get("kinds", ())
        for n in k["rounds"]
    }
    for step in case["steps"]:
        kind, round_no, spot, at_s = step["tap"]
        taps.append(hearth_rules.Tap(kind, round_no, spot, float(at_s)))
        found = hearth_rules.hearth(taps, *setting, loads, own)
        assert [[d.move, d.round_no, d.spot, d.at_s] for d in found.due] == step["due"]
        assert [list(x) for x in (found.waiting, found.off, found.lost)] == [
            step[k] for k in ("waiting", "off", "lost")
        ]


@settings(max_examples=60, deadline=None)
@given(st.lists(st.sampled_from(["load", "turn", "off", "fell", "undo", "wait"]), max_size=40), st.sampled_from([0, 2]))
def test_hearth_is_what_its_taps_say(script: list[str], grill: int) -> None:
    """Any script of allowed taps keeps every round in exactly one place, with a grill or without, and undo gives back
    the state before."""
    taps: list[hearth_rules.Tap] = []
    now = 0.0
    for word in script:
        now += 7.0
        if word == "undo":
            taps = taps[:-1]
        elif word != "wait":
            state = hearth_rules.hearth(taps, 5, 2, 40.0, 60.0, 10.0, grill)
            due = next((d for d in state.due if d.move == word or (word == "fell" and d.move != "load")), None)
            if due is None or (
                word == "turn"
                and hearth_rules.impossible(taps, hearth_rules.Tap(word, due.round_no, due.spot, now), 5, 2, grill)
            ):
                continue  # nothing to do, or the grill is full
            tap = hearth_rules.Tap(word, due.round_no, due.spot, now)
            assert hearth_rules.impossible(taps, tap, 5, 2, grill) is None
            assert hearth_rules.impossible([*taps, tap], tap, 5, 2, grill) is not None
            taps.append(tap)
        state = hearth_rules.hearth(taps, 5, 2, 40.0, 60.0, 10.0, grill)
        on = [s.round_no for s in state.spots if s.state == "busy"]
        assert sorted([*state.waiting, *state.off, *state.lost, *on]) == [1, 2, 3, 4, 5]
        assert len({d.spot for d in state.due}) == len(state.due)


GRILLED = LineSpec(bread_ops(40, 75, grilled=True), 2, 2, 15, stations=(Station("grill", 2),))


@settings(max_examples=25, deadline=None)
@given(
    st.sampled_from([1, 2, 3, 6]),
    st.integers(1, 2),
    st.integers(2, 14),
    st.dictionaries(
        st.integers(0, 30), st.one_of(st.floats(0, 25), st.sampled_from([-1.0, SKIPPED_S, 300.0, 900.0])), max_size=8
    ),
    st.booleans(),
    st.sampled_from([0, 0, 2]),
)
def test_any_slip_leaves_a_line_to_follow(
    spots: int, cooks: int, breads: int, late: dict[int, float], lost: bool, grill: int
) -> None:
    stations = (Station("grill", grill),) if grill else ()
    spec = LineSpec(bread_ops(47, 78, grilled=bool(grill)), spots, cooks, 20, stations=stations)
    run = played(spec, breads, 47, 78, lambda move: late.get(move, 0.0), lost=1 if lost else 0)
    assert run.wrong == []
    planned = plan_line(spec, breads, 2500)
    assert run.seconds <= planned.from_load_s + sum(x for x in late.values() if x > 0) + 12 * breads + 150 * (
        1 + len(late)
    )


LINES = pytest.mark.parametrize(
    ("turn_s", "off_s", "recover_s", "spots", "cooks", "breads"),
    [
        (None, 36, 60, 6, 2, 12),
        (None, 36, 60, 12, 2, 24),
        (47, 78, 20, 2, 1, 12),
        (47, 78, 20, 2, 2, 12),
        (44, 78, 215, 1, 2, 8),
        (41, 63, 1, 2, 1, 24),
        (58.5, 86, 0, 2, 1, 12),
        (58.5, 86, 5, 3, 2, 24),
        (60, 95, 15, 4, 2, 120),
    ],
)


@LINES
def test_a_line_kept_to_the_second_ends_as_it_was_planned(
    turn_s: float | None, off_s: float, recover_s: int, spots: int, cooks: int, breads: int
) -> None:
    """What was told stays told: no load moves by more than a cook's own step."""
    spec = LineSpec(bread_ops(turn_s, off_s), spots, cooks, recover_s)
    run = played(spec, breads, turn_s, off_s, lambda _: 0.0)
    assert run.wrong == [] and run.seconds <= plan_line(spec, breads, 2500).from_load_s + 10
    assert max(run.changed_s) <= 25 and sum(x > 5 for x in run.changed_s) <= 1 + len(run.changed_s) // 20


@LINES
def test_a_few_seconds_late_at_every_move_add_up_to_no_more(
    turn_s: float | None, off_s: float, recover_s: int, spots: int, cooks: int, breads: int
) -> None:
    """A cook who is up to four seconds late each time loses that, and a tenth of the line; seldom is the next load told
    anew by more than 15 s."""
    spec, seconds = LineSpec(bread_ops(turn_s, off_s), spots, cooks, recover_s), random.Random(3)
    slips = [seconds.uniform(0, 4) for _ in range(10 * breads)]
    run = played(spec, breads, turn_s, off_s, lambda move: slips[move])
    moves = breads * (2 if turn_s is None else 3)
    assert run.wrong == []
    assert run.seconds <= 1.1 * plan_line(spec, breads, 2500).from_load_s + sum(slips[:moves]) / cooks
    assert sum(x > 15 for x in run.changed_s) <= 1 + len(run.changed_s) // 12


def test_a_full_grill_is_emptied_before_the_next_bread_goes_under_it() -> None:
    """Both are late: the bread beneath the grill comes off first, though the one in the pan waited longer."""
    taps = [
        hearth_rules.Tap(kind, n, n, at) for n, kind, at in [(1, "load", 0.0), (1, "turn", 40.0), (2, "load", 20.0)]
    ]
    state = hearth_rules.hearth(sorted(taps, key=lambda t: t.at_s), 3, 2, 40.0, 75.0, 60.0, grill=1)
    assert [(d.move, d.round_no) for d in state.due] == [("off", 1), ("turn", 2), ("load", 3)]


def test_twelve_on_two_plates_with_one_cook_take_up_a_slip() -> None:
    """A slip of ten seconds costs no more than a bread's own time; a grill is followed too; and nobody rolls where the
    plate waits for a load."""
    spec = LineSpec(bread_ops(60, 95), 2, 1, 15)
    kept = played(spec, 12, 60, 95, lambda _: 0.0)
    slipped = played(spec, 12, 60, 95, lambda move: 10.0 * (move == 9))
    assert kept.wrong == slipped.wrong == [] and slipped.seconds - kept.seconds <= 95
    assert played(GRILLED, 8, 40, 75, lambda move: 10.0 * (move == 4)).wrong == []
    one = LineSpec(bread_ops(None, 36), 1, 1, 20)
    slow = [played(one, 16, None, 36, lambda move, s=s: s * (move == 1)).seconds for s in (0.0, 90.0)]  # type: ignore[misc]
    assert slow[1] - slow[0] <= 90


def test_a_wall_is_used_clockwise_and_never_where_it_was_just_used() -> None:
    """Facts of the trade: the wall wants its heat back, so the hand goes round; only where all else is taken does it
    come back."""
    taps: list[hearth_rules.Tap] = []
    used: list[int] = []
    for n in range(1, 19):
        state = hearth_rules.hearth(taps, 24, 6, None, 60.0, 120.0)
        due = next(d for d in state.due if d.move == "load")
        used.append(due.spot)
        at = max(due.at_s, 20.0 * n)
        taps += [hearth_rules.Tap("load", n, due.spot, at), hearth_rules.Tap("off", n, due.spot, at + 60)]
    assert used == [1, 2, 3, 4, 5, 6] * 3


def test_an_iron_plate_heats_as_one_lump() -> None:
    """Analytic: iron conducts so well that it is one store with one loss: t = C/h · ln(1/(1 − h ΔT/q))."""
    for power in ("medium", "high"):
        surface = Surface("iron_plate", 240.0, power)
        mat, plate = MATERIALS["iron"], surface.plate
        middle = 273.15 + (20 + 240) / 2
        radiation = 0.9 * 5.67e-8 * (middle**2 + 303.15**2) * (middle + 303.15)
        store, h = mat.rho * mat.c * plate.thickness_m, 10 + radiation + 8
        lumped = store / h * math.log(1 / (1 - h * 215 / HOB_W_M2[power]))
        assert preheat_s(surface) == pytest.approx(lumped, rel=0.08)
    assert preheat_s(Surface("iron_plate", 300.0, "low")) is None


@pytest.mark.parametrize(
    ("kind", "low_min", "high_min"),
    [
        ("stone_oven", 30, 60),
        ("steel_oven", 30, 60),
        ("skillet", 3, 10),
        ("iron_plate", 5, 12),
        ("clay_wall", 45, 120),
        ("flame_oven", 18, 25),
        ("oil", 5, 15),
    ],
)
def test_preheating_as_long_as_cooks_know_it(kind: str, low_min: float, high_min: float) -> None:
    """Common practice, independent for stone, steel and plates; fires and oil were set with it in view (calibrated)."""
    surface = Surface(kind, KINDS[kind].usual_c)
    assert low_min <= (preheat_s(surface) or 0) / 60 <= high_min and preheat_min(surface) % 5 == 0
    how = heating(surface, 8e5, 90)
    assert (how.charcoal_kg is not None) == (kind == "clay_wall") and 1.5 <= (how.charcoal_kg or 2) <= 6


@settings(max_examples=30, deadline=None)
@given(st.floats(180, 280), st.sampled_from(KNOBS))
def test_a_stronger_flame_heats_sooner_and_drifts_faster(temp_c: float, power: str) -> None:
    here = Surface("iron_plate", temp_c, power)
    if power != "high":
        more = replace(here, power=KNOBS[KNOBS.index(power) + 1])
        assert drift_k_min(more) > drift_k_min(here)
        assert (preheat_s(more) or 1e9) <= (preheat_s(here) or 1e9)
    assert (wipe_every(replace(here, temp_c=temp_c + 20), 90) or 0) <= (wipe_every(here, 90) or 0)
    heavy, light = heating(here, 2e6, 60).hold, heating(here, 2e5, 60).hold
    assert light is not None and (heavy is None or KNOBS.index(heavy) >= KNOBS.index(light))
