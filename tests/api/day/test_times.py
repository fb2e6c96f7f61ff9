"""Times as cooks type them: for a table ahead, for what was done, for a stage."""

from __future__ import annotations

import datetime as dt
from zoneinfo import ZoneInfo

import pytest

from brassclock.core.errors import InvalidInput
from brassclock.services.rise.spec import end_stage
from brassclock.services.times import past_moment, serve_moment
from brassclock.store.tables import Bake
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
    bake = Bake(bulk_end="time", bulk_h=5.0, bulk_ratio=1.9)
    if not meant:
        with pytest.raises(InvalidInput):
            end_stage(bake, "bulk", text)
        return
    end_stage(bake, "bulk", text)
    if meant.startswith("rise"):
        assert (bake.bulk_end, bake.bulk_ratio) == ("rise", pytest.approx(float(meant[5:] or 1.9), abs=0.01))
        return
    hours = [float(h) for h in meant.split(" to ")]
    assert (bake.bulk_end, bake.bulk_h) == ("time" if hours[-1] else "skip", hours[0])
    assert (bake.bulk_most_h or bake.bulk_h, bake.bulk_ratio) == (hours[-1], 1.9)
