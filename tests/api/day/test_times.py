"""Times as cooks type them: for a table ahead, for what was done, for a stage."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

import pytest

from brassclock.core.errors import InvalidInput
from brassclock.services.rise.spec import stage_end
from brassclock.services.times import past_moment, serve_moment
from helpers import worked

READ = {"ahead": serve_moment, "done": past_moment}
LINES = [(kind, *line) for kind in READ for line in worked("spoken")[kind]]


@pytest.mark.parametrize(("kind", "text", "meant"), LINES)
def test_a_time_is_read_as_it_is_meant_or_refused(kind: str, text: str, meant: str) -> None:
    now = dt.datetime(2026, 11, 27, 15, 20, tzinfo=ZoneInfo("Europe/Zurich"))  # a Friday
    if meant:
        assert f"{READ[kind](text, now):%d %H:%M}" == meant
        return
    with pytest.raises(InvalidInput):
        READ[kind](text, now)


@pytest.mark.parametrize(("text", "meant"), worked("spoken")["stages"])
def test_a_stage_ends_as_it_is_said_or_asks(text: str, meant: str) -> None:
    if not meant:
        with pytest.raises(InvalidInput):
            stage_end(text, "/bulk")
        return
    end, low, high = stage_end(text, "/bulk")
    hours = [float(h) for h in meant.split(" to ")] if meant != "rise" else [None]
    assert (end, low, high or low) == ("rise" if meant == "rise" else "time", hours[0], hours[-1])
