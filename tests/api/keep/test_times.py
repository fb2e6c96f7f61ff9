"""Where the time of a bake went, by running each thing again as it was meant."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock


def mixed(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> tuple[str, int]:
    given = {"kitchen_id": kitchen["id"], "serve": "in 5 h", "method": "hatch-pita"}
    bake = client.post("/api/bakes", json=given).json["id"]
    client.post(f"/api/bakes/{bake}/taps", json={"key": "mixed-now", "kind": "mix"})
    clock.pass_(minutes=3)
    return f"/api/bakes/{bake}", bake


@pytest.mark.parametrize(("seen_c", "late", "word"), [(20.0, True, "cooler"), (31.0, False, "warmer")])
def test_a_dough_that_was_mixed_cool_or_warm(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock, seen_c: float, late: bool, word: str
) -> None:
    url, bake = mixed(client, kitchen, clock)
    assert client.get(f"{url}/times").json == {"times": []}, "nothing is known to have been otherwise"
    client.post("/api/readings", json={"bake_id": bake, "kind": "dough_c", "value": seen_c})
    (told,) = client.get(f"{url}/times").json["times"]
    assert told["what"] == "dough_temp" and word in told["text"] and (told["minutes"] > 5) is late
    assert abs(told["minutes"]) >= 5


def test_a_slow_leaven_and_a_slow_line(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    url, bake = mixed(client, kitchen, clock)
    clock.pass_(minutes=75)
    client.post("/api/readings", json={"bake_id": bake, "kind": "ratio", "value": 1.15})
    (told,) = client.get(f"{url}/times").json["times"]
    assert told["what"] == "leaven" and told["minutes"] > 10
    client.patch(url, json={"count": 2})
    for n, (kind, number) in enumerate((("load", 1), ("off", 1), ("load", 2), ("off", 2))):
        tap = {"key": f"slow-{n}", "kind": kind, "round_no": number, "spot": 1}
        assert client.post(f"{url}/taps", json=tap).status_code == 201
        clock.pass_(minutes=9)
    found = {t["what"]: t for t in client.get(f"{url}/times").json["times"]}
    assert found["line"]["minutes"] > 10 and "27 min" in found["line"]["text"]
    client.put(f"{url}/status", json={"status": "kept"})
    kept = {t["what"]: t for t in client.get(f"{url}/times").json["times"]}
    assert kept["leaven"]["minutes"] == found["leaven"]["minutes"], "beside what was believed before it taught"


def test_a_cook_who_mixed_late(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    given = {"kitchen_id": kitchen["id"], "serve": "in 6 h", "method": "hatch-pita"}
    bake = client.post("/api/bakes", json=given).json
    due = next(s["at"] for s in bake["steps"] if s["key"] == "mix")
    mixing_min = bake["settings"]["knead_min"] + 5
    clock.until(due)
    clock.pass_(minutes=mixing_min + 42)
    client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "mixed-late", "kind": "mix"})
    (told,) = client.get(f"/api/bakes/{bake['id']}/times").json["times"]
    assert (told["what"], told["minutes"], told["text"]) == ("hands", 42, "It was mixed 42 min later than told.")


def test_a_starter_past_its_peak(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    given = {"kitchen_id": kitchen["id"], "serve": "in 30 h", "method": "ridge-sour"}
    bake = client.post("/api/bakes", json=given).json["id"]
    home = f"/api/kitchens/{kitchen['id']}"
    jar = client.post(f"{home}/starters", json={"name": "Old Pell", "hydration_frac": 1, "whole_share": 0}).json["id"]
    client.post(f"{home}/starters/{jar}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40})
    clock.pass_(hours=16)
    client.patch(f"/api/bakes/{bake}", json={"starter_id": jar})
    client.post(f"/api/bakes/{bake}/taps", json={"key": "mixed-now", "kind": "mix"})
    (told,) = client.get(f"/api/bakes/{bake}/times").json["times"]
    assert told["what"] == "starter" and told["minutes"] > 5 and "past its peak" in told["text"]
