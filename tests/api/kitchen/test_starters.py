"""A starter through the API: fed, forecast, taught by its peaks, taken back; the feed that peaks when it is wanted."""

from __future__ import annotations

import datetime as dt
from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock


def test_a_starter_is_fed_forecast_and_taught(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}/starters"
    made = client.post(at, json={"name": "Old Pell"}).json
    assert (made["state"], made["peak_at"]) == ("unfed", None)
    one = f"{at}/{made['id']}"
    wished = client.post(f"{one}/wish", json={"total_g": 200, "peak_at": "in 8 h"}).json
    masses = {k: wished[k] for k in ("seed_g", "flour_g", "water_g")}
    assert sum(masses.values()) == pytest.approx(200)
    fed = client.post(f"{one}/feeds", json=masses)
    assert fed.status_code == 201
    fed = fed.json
    off = dt.datetime.fromisoformat(fed["peak_at"]["p50"]) - dt.datetime.fromisoformat(wished["peak_at"])
    assert abs(off) < dt.timedelta(minutes=15)
    assert fed["peak_at"]["p10"] < fed["peak_at"]["p50"] < fed["peak_at"]["p90"] < fed["hold_until"]
    assert fed["state"] == "rising"
    clock.pass_(minutes=9 * 60 + 30)
    slow = client.put(f"{one}/peak", json={"at": "10 min ago"}).json
    assert slow["vitality"] < 1
    assert slow["vitality_sd_log"] < fed["vitality_sd_log"]
    assert slow["state"] == "at its peak"
    again = client.put(f"{one}/peak", json={"at": "3 h ago"}).json
    assert again["vitality"] > slow["vitality"]
    assert client.delete(f"{one}/last").json["vitality"] == 1
    client.post(f"{one}/feeds", json={**masses, "place": "fridge"})
    cold = client.get(at).json["starters"][0]
    assert (cold["state"], len(cold["feeds"])) == ("cold", 2)
    clock.pass_(minutes=7 * 24 * 60)
    warm = client.post(f"{one}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40}).json
    clock.pass_(minutes=1)
    sooner = client.post(f"{one}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40}).json  # from a ripe seed
    assert warm["peak_at"]["p50"] > sooner["peak_at"]["p50"]


def test_bad_feeds_are_told_and_nothing_is_kept(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}/starters"
    one = f"{at}/{client.post(at, json={'name': 'Old Pell'}).json['id']}"
    for method, path, body, status, words in (
        ("POST", f"{one}/feeds", {"seed_g": 0, "flour_g": -1, "water_g": "x"}, 422, "1 to 20000"),
        ("POST", f"{one}/feeds", {"seed_g": 20, "flour_g": 40, "water_g": 40, "at": "in 3 h"}, 422, "in the future"),
        ("PUT", f"{one}/peak", {}, 409, "Feed it first"),
        ("DELETE", f"{one}/last", None, 404, "taken back"),
        ("POST", f"{one}/wish", {"total_g": 100, "peak_at": "in 90 min"}, 422, "2 to 48 h"),
        ("POST", f"{at}/77/feeds", {"seed_g": 20, "flour_g": 40, "water_g": 40}, 404, "no starter 77"),
    ):
        answer = client.open(path, method=method, json=body)
        assert (answer.status_code, words in answer.json["detail"]) == (status, True), answer.text
    assert client.get(at).json["starters"][0]["feeds"] == []
    client.delete(one)
    assert client.get(at).json["starters"] == []
    assert len(client.post(f"{one}/restore", json={}).json["starters"]) == 1
