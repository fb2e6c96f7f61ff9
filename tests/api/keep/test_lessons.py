"""Lessons of a kitchen through its doors: taught by a kept bake, refused, restored; the forecast goes with them."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock


def slow_bake(client: FlaskClient, kitchen: dict[str, Any], clock: Clock, ratio: float = 1.15) -> str:
    """A dough that has hardly risen when it was due, kept."""
    given = {"kitchen_id": kitchen["id"], "serve": "in 4 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    client.post(f"{url}/taps", json={"key": "mixed-now", "kind": "mix"})
    clock.pass_(minutes=75)
    look = {"bake_id": int(url.rsplit("/", 1)[1]), "kind": "ratio", "value": ratio}
    assert client.post("/api/readings", json=look).status_code == 201
    assert client.put(f"{url}/status", json={"status": "kept"}).status_code == 200
    return url


def ready(client: FlaskClient, kitchen: dict[str, Any]) -> str:
    """When the balls of a dough that is mixed now would be ready."""
    given = {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": "hatch-pita"}
    bake = client.post("/api/bakes", json=given).json
    client.delete(f"/api/bakes/{bake['id']}")
    begins = next(s["at"] for s in bake["steps"] if s["key"] == "mix")
    return str(begins)


def test_a_lesson_is_refused_and_the_forecast_goes_back(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    home = f"/api/kitchens/{kitchen['id']}"
    assert client.get(f"{home}/lessons").json == {"beliefs": []}
    slow_bake(client, kitchen, clock)
    plain = client.get(f"{home}/lessons").json["beliefs"]
    (belief,) = plain
    (lesson,) = belief["lessons"]
    assert belief["about"] == "Instant dry yeast: how fast it works here" and belief["mean"] < 1 == belief["start"]
    assert (lesson["before"], lesson["after"], lesson["refused"]) == (1.0, belief["mean"], False)
    slow = ready(client, kitchen)
    one = f"{home}/lessons/{lesson['id']}"
    refused = client.put(one, json={"refused": True}).json["beliefs"][0]
    assert (refused["mean"], refused["lessons"][0]["after"]) == (1.0, None)
    quick = ready(client, kitchen)
    assert slow < quick, "a leaven that is believed slow is mixed earlier"
    again = client.put(one, json={"refused": True})
    assert again.status_code == 409 and "refused already" in again.json["detail"]
    assert client.put(one, json={"refused": False}).json["beliefs"] == plain, "restored exactly"
    assert ready(client, kitchen) == slow


def test_an_odd_one_is_set_aside_and_asked(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    """A thermometer that reads 48 C after a mixer would have it warm the dough fourfold."""
    home = f"/api/kitchens/{kitchen['id']}"
    given = {"kitchen_id": kitchen["id"], "serve": "in 4 h", "method": "hatch-pita"}
    bake = client.post("/api/bakes", json=given).json["id"]
    client.patch(f"/api/bakes/{bake}", json={"knead": "planetary"})
    client.post(f"/api/bakes/{bake}/taps", json={"key": "mixed-now", "kind": "mix"})
    clock.pass_(minutes=2)
    client.post("/api/readings", json={"bake_id": bake, "kind": "dough_c", "value": 48})
    (belief,) = client.get(f"{home}/lessons").json["beliefs"]
    (odd,) = belief["lessons"]
    assert belief["about"] == "Kneading by planetary mixer: how much it warms the dough"
    assert odd["odd"] and odd["after"] is None and belief["mean"] == 1.0
    sure = client.put(f"{home}/lessons/{odd['id']}", json={"refused": False, "sure": True}).json["beliefs"][0]
    assert sure["lessons"][0]["sure"] and not sure["lessons"][0]["odd"] and sure["mean"] > 2
    assert client.get(f"/api/bakes/{bake}").json["mix"]["friction_factor"] == sure["mean"]


def test_a_bake_that_is_not_kept_after_all_taught_nothing(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    home = f"/api/kitchens/{kitchen['id']}"
    first = slow_bake(client, kitchen, clock)
    alone = client.get(f"{home}/lessons").json["beliefs"][0]["mean"]
    slow_bake(client, kitchen, clock, 1.1)
    assert client.get(f"{home}/lessons").json["beliefs"][0]["mean"] < alone
    client.put(f"{first}/status", json={"status": "live"})
    left = client.get(f"{home}/lessons").json["beliefs"][0]
    assert len(left["lessons"]) == 1 and left["lessons"][0]["before"] == 1.0, "any lesson, not only the last"
    client.put(f"{first}/status", json={"status": "kept"})
    assert len(client.get(f"{home}/lessons").json["beliefs"][0]["lessons"]) == 2


def test_a_belief_is_forgotten_whole_and_comes_back(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    home = f"/api/kitchens/{kitchen['id']}"
    slow_bake(client, kitchen, clock)
    known = client.get(home).json["leavens"][0]["mean"]
    gone = client.delete(f"{home}/beliefs/activity:yeast_instant").json["beliefs"][0]
    assert gone["mean"] == 1.0 and all(x["refused"] for x in gone["lessons"])
    assert client.get(home).json["leavens"][0]["mean"] == 1.0
    client.post(f"{home}/beliefs/activity:yeast_instant/back")
    assert client.get(home).json["leavens"][0]["mean"] == known
    assert client.delete(f"{home}/beliefs/activity:yeast_fresh").status_code == 404
    other = client.post(
        "/api/kitchens", json={"zone": "UTC", "room_c": 20, "surface": {"name": "P", "kind": "skillet"}}
    )
    lesson = client.get(f"{home}/lessons").json["beliefs"][0]["lessons"][0]["id"]
    wrong = client.put(f"/api/kitchens/{other.json['id']}/lessons/{lesson}", json={"refused": True})
    assert wrong.status_code == 404


def test_a_starters_peak_teaches_and_is_taken_back(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    home = f"/api/kitchens/{kitchen['id']}"
    made = client.post(f"{home}/starters", json={"name": "Old Pell", "hydration_frac": 1, "whole_share": 0}).json
    jar = f"{home}/starters/{made['id']}"
    client.post(f"{jar}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40})
    clock.pass_(hours=5.5)
    client.put(f"{jar}/peak", json={})
    (belief,) = client.get(f"{home}/lessons").json["beliefs"]
    assert belief["about"] == "Old Pell: how strong it is" and belief["mean"] > 1
    starters = client.get(f"{home}/starters").json["starters"]
    assert starters[0]["vitality"] == pytest.approx(belief["mean"])
    client.put(f"{home}/lessons/{belief['lessons'][0]['id']}", json={"refused": True})
    assert client.get(f"{home}/starters").json["starters"][0]["vitality"] == 1.0
