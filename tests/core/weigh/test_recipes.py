"""Whole recipes as they are pasted: each line finds its part, and each fact of the steps is read or left in words."""

from __future__ import annotations

import tomllib
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.matter.ingredients import table
from brassclock.core.weigh.entry import read_entry
from brassclock.core.weigh.recipe_page import page_of
from brassclock.core.weigh.recipe_steps import Fact, dough_told_g, facts

ROWS = table()
RECIPES: list[dict[str, Any]] = tomllib.loads((Path(__file__).parents[2] / "worked/recipes.toml").read_text("utf-8"))[
    "recipe"
]


def _told(fact: Fact) -> Any:
    if isinstance(fact.value, str):
        return fact.value
    return pytest.approx(fact.value if fact.high is None else [fact.value, fact.high], abs=1e-3)


@pytest.mark.parametrize("case", RECIPES, ids=lambda c: c["text"].strip().splitlines()[0])
def test_a_recipe_is_read_whole(case: dict[str, Any]) -> None:
    page = page_of(case["text"], ROWS)
    found = {f.key: _told(f) for f in facts(page.steps, [*page.about, page.name])}
    parts = {"sponge": page.sponge, "dough": page.dough, "filling": page.filling, "topping": page.topping}
    lines = {k: read_entry("\n".join(v), ROWS, dough_told_g([], page.about), 500.0) for k, v in parts.items() if v}
    assert page.name == case["name"]
    assert case["facts"] == found
    assert {k: sum(x.read for x in v) for k, v in lines.items()} == {k: case[k] for k in lines}
    assert [x.raw for v in lines.values() for x in v if not x.read] == case.get("unread", [])
    assert page.beside == case.get("beside", [])


@pytest.mark.parametrize(
    ("step", "not_told"),
    [  # what looks like a fact and is none
        ("Preheat the oven for 1 hour.", {"bulk_h", "ball_h"}),
        ("Roll out, rest 5 minutes, and bake for 3 minutes.", {"bulk_h", "ball_h", "knead_min"}),
        ("Cook for 2 minutes, then cover and keep warm in a towel for 10 minutes.", {"knead_min", "pieces"}),
        ("Fill with 25 g each.", {"piece_g"}),
        ("Warm the milk to 35 C and add 7 g yeast.", {"oven_c", "piece_g"}),
        ("Serve within 2 hours with 3 small bowls.", {"bulk_h", "pieces"}),
    ],
)
def test_what_is_no_fact_is_not_taken(step: str, not_told: set[str]) -> None:
    assert not_told & {f.key for f in facts([step])} == set()


LINES = [
    "500 g flour",
    "Honey – 1 tsp",
    "a sigh of rosemary",
    "Mix it all, and knead 5 minutes.",
    "Mix all of the following 3 things in one bowl:",
    "2. Cook for 3 minutes a side.",
    "Makes 8",
    "| 660 g | water |",
    "Nettle bread",
    "~~~",
    "Salt",
]
HEADINGS = ["# Bread", "Ingredients", "For the filling:", "To serve", "METHOD", "Poolish", "## Dough", "Notes", ""]


@given(st.lists(st.sampled_from(LINES + HEADINGS), max_size=14))
def test_no_line_is_lost(lines: list[str]) -> None:
    """Whatever order lines and headings stand in, each line is in one part, or is the name."""
    page = page_of("\n".join(lines), ROWS)
    facts(page.steps, page.about)
    kept = [page.name, *page.sponge, *page.dough, *page.filling, *page.topping, *page.beside, *page.steps, *page.about]
    for line in lines:
        words = " ".join(c.strip() for c in line.strip("|").split("|")).removeprefix("2. ")
        assert line in HEADINGS or any(words in k for k in kept), line


@given(st.text(max_size=400))
def test_any_text_is_read_without_a_fault(text: str) -> None:
    page = page_of(text, ROWS)
    assert isinstance(facts(page.steps, page.about), list)
