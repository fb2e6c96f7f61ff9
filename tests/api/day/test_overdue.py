"""A bake that is left standing: its plan, its level and its sentence are of the dough as it stands."""

from __future__ import annotations

import datetime as dt
from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock


def left(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any], method: str, serve: str, done: list[str], hours: float
) -> dict[str, Any]:
    """A bake whose moves were done in their time up to some, and that was left alone for hours."""
    made = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": serve, "method": method}).json
    url = f"/api/bakes/{made['id']}"
    for kind in done:
        clock.until(next(s for s in client.get(url).json["steps"] if s["key"] == kind)["at"])
        assert client.post(f"{url}/taps", json={"key": f"left-{kind}", "kind": kind}).status_code == 201
    clock.pass_(hours=hours)
    bake: dict[str, Any] = client.get(url).json
    bake["words"] = "".join(p["text"] or "…" for p in bake["say"])
    return bake


@pytest.mark.parametrize(
    ("method", "serve", "done", "hours", "said"),
    [
        ("hatch-pita", "in 5 h", [], 8, "now. It will be served 5 h 20 late."),
        ("hatch-pita", "in 5 h", ["mix"], 8, "It was too ripe from …: expect it flat and sour."),
        ("hatch-pita", "in 5 h", ["mix", "ball"], 3, "It was too ripe from …: expect it flat and sour."),
        ("hatch-pita", "in 5 h", ["mix", "ball", "roll"], 3, "It was too ripe from …: expect it flat and sour."),
        ("terrace-naan", "in 30 h", ["mix"], 24, "It has been warm for 2 h by …: local rules decide."),
        ("soda-quarters", "in 5 h", ["mix"], 1, "expect it flatter"),
    ],
)
def test_what_is_late_or_too_ripe_is_said_and_does_not_fit(
    client: FlaskClient,
    clock: Clock,
    kitchen: dict[str, Any],
    method: str,
    serve: str,
    done: list[str],
    hours: float,
    said: str,
) -> None:
    bake = left(client, clock, kitchen, method, serve, done, hours)
    assert said in bake["words"] and " late." in bake["words"] and not bake["fits"]
    ahead = [s for s in bake["steps"] if s["key"] in ("line", "serve")]
    assert all(dt.datetime.fromisoformat(s["at"]) >= clock.now for s in ahead)


def test_a_dough_that_nobody_took_out_is_in_the_fridge(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any]
) -> None:
    bake = left(client, clock, kitchen, "cellar-pita", "in 40 h", ["mix", "ball", "cold_in"], 26)
    out = next(s for s in bake["steps"] if s["key"] == "cold_out")
    assert dt.datetime.fromisoformat(out["at"]) == clock.now and "out of the fridge now" in bake["words"]
    assert bake["rise"]["dough_c_now"] < 8 and bake["rise"]["ratio_now"] < 1.7 and not bake["fits"]


def test_a_bread_forgotten_on_the_heat_is_said(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    bake = left(client, clock, kitchen, "hatch-pita", "in 5 h", ["mix", "ball", "roll"], 0.2)
    load = {"key": "left-load", "kind": "load", "round_no": 1, "spot": 1}
    assert client.post(f"/api/bakes/{bake['id']}/taps", json=load).status_code == 201
    for minutes, said in ((0.5, False), (20, True)):
        clock.pass_(minutes=minutes)
        words = "".join(p["text"] or "…" for p in client.get(f"/api/bakes/{bake['id']}").json["say"])
        assert ("Turn round 1: due since …." in words) is said
