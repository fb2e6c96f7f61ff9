"""The machine's clock is set, it sleeps, the hour changes: the heat keeps true seconds, plans follow the wall."""

from __future__ import annotations

import datetime as dt
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.api.app import create_app
from brassclock.services.app import App, SystemClock
from brassclock.services.kitchen.clock import ON_HEAT_S, may_follow
from brassclock.store.engine import open_store
from helpers import NOON


class Machine:
    """A machine's two clocks: the one that can be set, and the one that only runs."""

    def __init__(self) -> None:
        self.wall, self.running = NOON.timestamp(), 100.0

    def pass_(self, seconds: float) -> None:
        self.wall += seconds
        self.running += seconds

    def clock(self) -> SystemClock:
        return SystemClock(lambda: self.wall, lambda: self.running)


@pytest.fixture
def machine() -> Machine:
    return Machine()


@pytest.fixture
def own(tmp_path: Any, machine: Machine) -> tuple[App, FlaskClient, int]:
    """An application by that machine's clock, and a bake with one bread on the heat."""
    clock = machine.clock()
    app = App(open_store(tmp_path), with_demo=False, real_now=clock)
    clock.may_follow = may_follow(app)
    client = create_app(app).test_client()
    plate = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 2}
    client.post("/api/kitchens", json={"zone": "Europe/Zurich", "room_c": 22, "surface": plate})
    bake = client.post("/api/bakes", json={"kitchen_id": 1, "serve": "in 5 h"}).json["id"]
    body = {"key": "load-0001", "kind": "load", "round_no": 1, "spot": 1}
    assert client.post(f"/api/bakes/{bake}/taps", json=body).status_code == 201
    return app, client, bake


def turn_in_s(client: FlaskClient, bake: int) -> float:
    """Seconds until the bread on the heat is to be turned, as the page reckons them."""
    hearth = client.get(f"/api/bakes/{bake}/hearth").json
    due = next(d for d in hearth["due"] if d["round_no"] == 1)
    now = dt.datetime.fromisoformat(hearth["clock"]["now"])
    return (dt.datetime.fromisoformat(due["at"]) - now).total_seconds()


@pytest.mark.parametrize(
    "set_s", [3600.0, -3600.0, 86400.0 * 400, -7.0], ids=["an hour on", "an hour back", "a year", "7 s"]
)
def test_a_bread_on_the_heat_keeps_true_seconds(
    machine: Machine, own: tuple[App, FlaskClient, int], set_s: float
) -> None:
    _, client, bake = own
    before = turn_in_s(client, bake)
    machine.pass_(10)
    machine.wall += set_s
    assert turn_in_s(client, bake) == pytest.approx(before - 10, abs=0.1)
    told = client.get(f"/api/bakes/{bake}/hearth").json["clock"]
    assert told["apart_s"] == pytest.approx(-set_s, abs=0.2)  # and the difference is said
    assert client.get("/api/kitchens/1/bench").json["clock"]["apart_s"] == pytest.approx(-set_s, abs=0.2)
    # a tap of the page, stamped by the clock that it was told, is taken as it is
    body = {"key": "turn-0001", "kind": "turn", "round_no": 1, "spot": 1, "at": told["now"]}
    assert client.post(f"/api/bakes/{bake}/taps", json=body).status_code == 201


def test_once_nothing_is_on_the_heat_plans_follow_the_wall(machine: Machine, own: tuple[App, FlaskClient, int]) -> None:
    app, client, _ = own
    machine.wall += 3600
    assert abs(app.real_now().timestamp() - machine.wall) > 3000
    machine.pass_(ON_HEAT_S + 5)
    assert app.real_now().timestamp() == pytest.approx(machine.wall, abs=0.1)
    assert client.get("/api/kitchens/1/bench").json["clock"]["apart_s"] == 0


def test_set_back_it_follows_once_the_wall_is_past_what_was_done(
    machine: Machine, own: tuple[App, FlaskClient, int]
) -> None:
    app, _, _ = own
    machine.pass_(60)
    machine.wall -= 3600
    machine.pass_(ON_HEAT_S + 5)
    assert app.real_now().timestamp() - machine.wall == pytest.approx(
        3600, abs=0.1
    )  # the load is ahead of the wall yet
    machine.pass_(3600 - ON_HEAT_S)
    assert app.real_now().timestamp() == pytest.approx(machine.wall, abs=0.1)


def test_hours_asleep_have_passed(machine: Machine, own: tuple[App, FlaskClient, int]) -> None:
    """A suspend moves both clocks: the bread has burned, and nothing is said of a clock."""
    _, client, bake = own
    before = turn_in_s(client, bake)
    machine.pass_(3 * 3600)
    assert turn_in_s(client, bake) == pytest.approx(before - 3 * 3600, abs=0.1)
    assert client.get(f"/api/bakes/{bake}/hearth").json["clock"]["apart_s"] == 0


def test_the_hour_that_is_twice_is_two_hours(machine: Machine, own: tuple[App, FlaskClient, int]) -> None:
    """The night in which clocks go back: the wall shows 02:30 twice, the heat counts both."""
    _, client, bake = own
    night = dt.datetime(2027, 10, 31, 0, 45, tzinfo=dt.UTC).timestamp()  # 02:45 by the wall, before the change
    machine.pass_(night - machine.wall)
    body = {"key": "load-0002", "kind": "load", "round_no": 2, "spot": 2}
    assert client.post(f"/api/bakes/{bake}/taps", json=body).status_code == 201
    machine.pass_(30 * 60)
    shown = client.get(f"/api/bakes/{bake}/hearth").json
    assert shown["clock"]["now"].startswith("2027-10-31T02:15") and shown["clock"]["apart_s"] == 0
    since = next(s["since"] for s in shown["spots"] if s["number"] == 2)
    passed = dt.datetime.fromisoformat(shown["clock"]["now"]) - dt.datetime.fromisoformat(since)
    assert passed.total_seconds() == pytest.approx(1800, abs=1)
