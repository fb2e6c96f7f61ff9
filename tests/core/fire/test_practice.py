"""What a cook is told for a whole bread, by the words and settings a cook has, beside what cooks state (common
practice, no source; calibrated)."""

from __future__ import annotations

import pytest

import practice_heat
from practice_heat import ROWS, checked, summary

LATE = 1.3  # of the end that is stated
KNOWN_LATE = {  # known misses: pale enough for its cooks, not yet golden for us; a griddle hotter than we think
    "thick-round-under-lid": 1.53,
    "thin-unleavened-round": 1.32,
}
REFUSED = {"does_not_cook_through", "filling_not_safe", "browns_before_through", "dries_before_through"} | {
    "burns_before_brown",
    "stays_pale",
}


def test_stated_times_lie_in_the_bands() -> None:
    """Aims: 75 to 85 % inside at a median p90/p10 of 2.5 at most; the middle within 0.35 (rms, ln)."""
    found = summary([c for row in ROWS for c in checked(row)[0]])
    assert found["count"] == 45
    assert 0.75 <= found["inside"] <= 0.9 and found["width"] <= 2.5
    assert found["rms_ln"] <= 0.35


@pytest.mark.parametrize("row", ROWS, ids=lambda r: r["id"])
def test_no_bread_of_practice_is_refused_or_kept_too_long(row: dict[str, object]) -> None:
    times, codes = checked(row)
    assert not REFUSED & set(codes)
    ends = {c.what: c for c in times}
    end, turn, second = ends.get("off"), ends.get("turn"), ends.get("second side")
    if end is not None and end.told:
        late = end.told["p50"] / end.high
    elif turn and second and turn.told and second.told:
        late = (turn.told["p50"] + second.told["p50"]) / (turn.high + second.high)
    else:
        return
    assert late <= LATE or late == pytest.approx(KNOWN_LATE[row["id"]], abs=0.05)  # type: ignore[index]


def test_the_table_of_the_documents_is_fresh() -> None:
    page = practice_heat.PAGE.read_text("utf-8")
    assert practice_heat.renewed(page) == page, "docs/science.md is stale: make tables"
