"""A tray judged in a sentence."""

from __future__ import annotations

import tomllib
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.errors import InvalidInput
from brassclock.core.keep.judging import WORDS, Said, judged

WORKED = tomllib.loads((Path(__file__).parents[2] / "worked" / "judging.toml").read_text())


def told(said: Said) -> str:
    top = said.colour_top and f"top-{said.colour_top}"
    return " ".join(w for w in (said.pocket, said.colour, top, said.tender, *said.faults) if w)


@pytest.mark.parametrize("case", WORKED["case"], ids=lambda c: c["said"])
def test_a_sentence_judges_the_breads_it_names(case):
    assert {str(n): told(s) for n, s in judged(case["said"], case["rounds"]).items()} == case["judged"]


@pytest.mark.parametrize("case", WORKED["refused"], ids=lambda c: c["said"])
def test_what_cannot_be_read_is_told(case):
    with pytest.raises(InvalidInput) as told:
        judged(case["said"], case["rounds"])
    assert case["tells"] in str(told.value)


@given(
    st.text(max_size=60)
    | st.lists(
        st.sampled_from([*WORDS, "all", "except", "but", "not", "3", "2-4", ",", "rest", "first", "two", "none puffed"])
    ).map(" ".join)
)
def test_any_text_is_read_or_refused_and_judges_only_breads_there_are(text):
    try:
        found = judged(text, 5)
    except InvalidInput as fault:
        found, at = {}, fault.faults[0].pointer
    else:
        at = "" if found else "nothing judged, and no fault"
    assert set(found) <= {1, 2, 3, 4, 5} and at in ("", "/said")


def test_all_and_the_rest_are_those_that_are_off():
    assert set(judged("all full, 2 flat", 5, {1, 2, 3})) == {1, 2, 3}
    assert {n: s.pocket for n, s in judged("1 flat, the rest full", 5, {1, 2}).items()} == {1: "flat", 2: "full"}
