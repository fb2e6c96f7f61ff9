"""Causes of faults: bakes made up with one known fault, what is not known, rules of the ranking."""

from __future__ import annotations

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brassclock.core.errors import InvalidInput
from brassclock.core.keep.cause.chance import chance, cured, on_its_side
from brassclock.core.keep.cause.facts import NAMES, Facts
from brassclock.core.keep.cause.judge import Judged, judge
from brassclock.core.keep.cause.tables import CAUSES, FAULTS, OTHER, PRIORS, RULES

WORKED = tomllib.loads((Path(__file__).parents[2] / "worked" / "causes.toml").read_text("utf-8"))


def judged(case: dict[str, Any], without: str = "") -> Judged:
    facts = {k: v for k, v in case["facts"].items() if k != without}
    return judge(case["faults"], Facts(**facts), set(facts))


@pytest.mark.parametrize(("part", "least"), [("calibrated", 8), ("written", 14), ("tried", 29)])
def test_made_up_bakes_with_one_known_fault(part: str, least: int) -> None:
    """The first eight set the weights. Of sixteen written before they were run fourteen are right; both misses are a
    cool or a hot surface with the seconds given, where leaving it to its colour explains as much. Of thirty-four more
    twenty-nine: three of the misses are of that kind, a skillet at 165 C still puffs here, a lean dough that was off
    early is *taken off too soon*."""
    right = [judged(c).causes[0].cause == c["cause"] for c in WORKED[part]]
    assert sum(right) >= least and sum(right) >= 0.8 * len(right)


@pytest.mark.parametrize(
    "case", WORKED["calibrated"] + WORKED["written"], ids=lambda c: f"{c['faults'][0]} {c['cause']}"
)
def test_without_its_key_fact_nothing_wrong_is_likely(case: dict[str, Any]) -> None:
    full, less = judged(case), judged(case, CAUSES[case["cause"]].fact)
    if full.causes[0].cause == case["cause"]:
        assert full.verdict != "not_enough_known"
        assert less.verdict != "likely"
        assert less.ask in NAMES and less.change is None


def test_a_fact_on_the_other_side_is_no_cause() -> None:
    """A hot surface is not cured by heating it; a thick round not by rolling it thicker."""
    x = Facts(surface_c=260.0, thickness_mm=5.0, maturity=1.4, hydration_frac=0.55)
    for cause, held in (("cool", False), ("hot", True), ("thin", False), ("thick", True), ("under", False)):
        assert on_its_side(cause, x) is held
        assert (cured(cause, x) != x) is held


@pytest.mark.parametrize(("surface_c", "mm", "off_s"), [(160.0, 3.2, 410.0), (165.0, 3.6, 400.0)])
def test_a_cool_pan_dries_what_is_left_to_its_colour(surface_c: float, mm: float, off_s: float) -> None:
    """Hotter, it comes off sooner: with its seconds kept a right heat would dry it more, and explain nothing."""
    facts = {"surface": "skillet", "surface_c": surface_c, "thickness_mm": mm, "off_s": off_s, "wait_min": 10.0}
    assert judge(["stiff"], Facts(**facts), set(facts)).causes[0].cause == "cool"


def test_what_is_denied_counts_against_its_causes() -> None:
    facts = {"surface": "iron_plate", "surface_c": 150.0, "thickness_mm": 3.5, "off_s": 60.0, "turn_s": 30.0}
    free = judge(["flat"], Facts(**facts), set(facts))
    denied = judge(["flat"], Facts(**facts), set(facts), ["pale"])
    share = {r.cause: r.share for r in free.causes}
    assert {r.cause: r.share for r in denied.causes}.get("cool", 0.0) <= share.get("cool", 0.0)


def test_two_faults_are_explained_together_and_then_alone() -> None:
    """One cool surface explains both; a soapy taste needs a cause of its own."""
    facts = {"surface": "iron_plate", "surface_c": 150.0, "thickness_mm": 3.5, "soda_excess": 0.7, "skin_min": 1.0}
    both = judge(["flat", "pale"], Facts(**facts), set(facts))
    assert both.causes[0].cause == "cool" and both.verdict == "likely"
    apart = judge(["flat", "soapy"], Facts(**facts), set(facts))
    assert "soda_over" in {r.cause for r in apart.causes}


def test_the_change_brings_no_new_fault() -> None:
    for case in WORKED["calibrated"]:
        found = judged(case)
        if found.change is not None:
            x = Facts(**case["facts"])
            then = cured(found.change.cause, x)
            assert all(chance(f, then) <= chance(f, x) + 0.1 for f in FAULTS if f not in case["faults"])


@pytest.mark.parametrize(
    ("faults", "denied", "words"),
    [([], [], "No fault"), (["flop"], [], "no fault here"), (["flat"], ["flat"], "seen and denied")],
)
def test_faults_that_cannot_be_are_refused(faults: list[Any], denied: list[Any], words: str) -> None:
    with pytest.raises(InvalidInput, match=words):
        judge(faults, Facts(), set(), denied)


def test_the_tables_hang_together() -> None:
    for fault, causes in PRIORS.items():
        assert sum(causes.values()) + OTHER <= 1.12 and set(causes) <= set(CAUSES)
        assert {c for c, *_ in RULES.get(fault, ())} <= set(CAUSES)
    assert {c.fact for c in CAUSES.values()} <= set(NAMES) and len(FAULTS) == 16


@settings(max_examples=25, deadline=None)
@given(
    st.lists(st.sampled_from(FAULTS), min_size=1, max_size=3, unique=True),
    st.fixed_dictionaries(
        {},
        optional={
            "surface_c": st.floats(120, 450),
            "thickness_mm": st.floats(1, 12),
            "uneven_frac": st.floats(0, 0.6),
            "skin_min": st.floats(0, 40),
            "maturity": st.floats(0.1, 2.5),
            "hydration_frac": st.floats(0.45, 0.85),
        },
    ),
)
def test_shares_add_up_whatever_is_known(faults: list[Any], facts: dict[str, Any]) -> None:
    found = judge(faults, Facts(**facts), set(facts))
    assert len(found.causes) <= 3 and 0 <= found.other_share <= 1
    if len(faults) == 1:  # of several, what the first cannot explain is ranked by itself
        assert sum(r.share for r in found.causes) + found.other_share <= 1 + 1e-9
    assert (found.ask is not None) == (found.verdict == "not_enough_known")
    assert found.change is None or found.change.gain > 0
