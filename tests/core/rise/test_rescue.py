"""Rescues and spells: what a change from now does to a dough, by plain truths and by conservation of the timeline."""

from __future__ import annotations

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.day.kitchen_air import Relocation, with_spells
from brassclock.core.matter.dough import dough_of_masses
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.rescue import DoughState, as_it_stands, for_later, for_slower, options
from brassclock.core.rise.stages import Stage

DOUGH = dough_of_masses(
    [("plain_flour", 350), ("bread_flour", 150), ("water", 310), ("yeast_instant", 5), ("salt_fine", 9.5)]
)
BULK = Stage("bulk", 2.0, ((0, 23.0),), Vessel("tub", 820, True, 20), "ball", 1.9)
BALLS = Stage("ball proof", 1.0, ((0, 23.0),), Vessel("tray", 95, True), None, 1.4)


def standing(elapsed_h: float, stage: Stage = BULK) -> DoughState:
    done = (BULK,) if stage is BALLS else ()
    return DoughState(Batch(DOUGH, "kneaded", 26.0), done, stage, elapsed_h, 4.0)


def test_a_longer_fridge_is_a_later_window_and_the_dough_goes_on_rising_in_it() -> None:
    """Facts of the trade: cold delays, but a tub cools slowly: an hour in the fridge delays by less than an hour at
    first."""
    base = as_it_stands(standing(0.5))
    cold = [o for o in options(standing(0.5)) if o.kind == "fridge"]
    readies = [o.ready_h for o in cold]
    assert readies == sorted(readies)
    assert all(o.too_far_h > base.too_far_h for o in cold)
    an_hour = next(o for o in cold if o.minutes == 60)
    assert 0.02 < an_hour.ready_h - base.ready_h < 1.0
    spots = {o.kind: o for o in options(standing(0.5))}
    assert spots["warmer"].ready_h < base.ready_h < spots["cooler"].ready_h
    assert spots["knock_back"].too_far_h > base.too_far_h
    assert "knock_back" not in {o.kind for o in options(standing(0.3, BALLS))}


def test_the_least_disruptive_change_comes_first() -> None:
    soon = for_later(standing(0.4), 20)
    assert [o.kind for o in soon] == ["leave"]
    late = for_later(standing(0.6, BALLS), 120)
    assert late
    assert [o.disruption for o in late] == sorted(o.disruption for o in late)
    assert all(o.too_far_h >= 2 for o in late)
    slower = for_slower(standing(0.6, BALLS))
    assert slower[0].kind == "cooler"
    assert slower[0].too_far_h > as_it_stands(standing(0.6, BALLS)).too_far_h


def test_doing_nothing_changes_nothing() -> None:
    """Analytic: the window from now is the window from the start less the time that has gone."""
    early, later = as_it_stands(standing(0.25)), as_it_stands(standing(0.75))
    assert early.ready_h + 0.25 == pytest.approx(later.ready_h + 0.75, abs=0.02)
    assert early.too_far_h + 0.25 == pytest.approx(later.too_far_h + 0.75, abs=0.03)


@given(st.floats(-3, 12), st.floats(0.1, 6), st.floats(0, 40), st.floats(10, 30))
def test_a_spell_replaces_the_air_only_while_it_lasts(start_h: float, hours: float, temp: float, room: float) -> None:
    begin = dt.datetime(2026, 11, 25, 12, tzinfo=dt.UTC)
    spell = Relocation(begin + dt.timedelta(hours=start_h), begin + dt.timedelta(hours=start_h + hours), temp)
    path = with_spells(((0.0, room), (6.0, room), (20.0, room)), begin, [spell])
    marks = [h for h, _ in path]
    assert marks == sorted(set(marks))
    stage = Stage("x", 20.0, path)
    for h in (0.0, 3.3, 7.7, 15.0, 19.9):
        if abs(h - start_h) > 0.01 and abs(h - start_h - hours) > 0.01:
            inside = start_h < h < start_h + hours
            assert stage.ambient_c(h) == pytest.approx(temp if inside else room, abs=1e-6)
