"""Breads typed into an empty kitchen by their lines and waits, from nothing to kept, through the doors a page uses."""

from __future__ import annotations

import datetime as dt
import tomllib
from itertools import pairwise
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock, bake_out

WALKS: list[dict[str, Any]] = tomllib.loads((Path(__file__).parents[1] / "worked" / "walks.toml").read_text("utf-8"))[
    "walk"
]
STEPS = ("weigh", "sponge", "mix", "ball", "cold_in", "cold_out", "roll")


class Kitchen:
    """An empty kitchen with the surface of a case, and its one bake."""

    def __init__(self, client: FlaskClient, clock: Clock, case: dict[str, Any]) -> None:
        self.client, self.clock, self.case = client, clock, case
        surface = {"name": "Hot one", "kind": case["surface"]}
        self.id = self.sent("post", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": surface})["id"]

    def sent(self, verb: str, url: str, body: dict[str, Any]) -> Any:
        answer = getattr(self.client, verb)(url, json=body)
        assert answer.status_code in (200, 201), (self.case["name"], url, answer.text[:300])
        return answer.json

    def typed(self) -> dict[str, Any]:
        """The bake from its spoken lines, as the page types them."""
        case = self.case
        read = self.sent("post", f"/api/kitchens/{self.id}/entry", {"text": "\n".join(case["lines"])})["lines"]
        assert [x["raw"] for x in read if x["faults"] or not x["ingredient"]] == []
        lines = [
            {"ingredient": x["ingredient"], "amount": x["amount"], "basis": x["basis"], "part": ""}
            for x in read
            if not x["purpose"]
        ]
        for i in case.get("sponge", {}).get("lines", ()):
            lines[i]["part"] = "sponge"
        if case.get("starter"):
            kept = self.sent("post", f"/api/kitchens/{self.id}/starters", {"name": "Jar"})
            assert kept
        given = {"kitchen_id": self.id, "method": "blank", "name": case["name"], "serve": case.get("serve", "in 9 h")}
        url = f"/api/bakes/{self.sent('post', '/api/bakes', given)['id']}"
        self.url = url
        self.sent("patch", url, {"lines": lines})
        temps = {x["ingredient"]: x["temp_c"] for x in read if x["temp_c"] is not None}
        shape = {k: case[k] for k in ("count", "piece_g", "diameter_cm") if k in case}
        sponge = {"sponge_h": case["sponge"]["hours"]} if "sponge" in case else {}
        parts = {}
        if "parts" in case:
            oven = {"name": "Oven", "kind": "oven_tray"}
            surfaces = self.sent("post", f"/api/kitchens/{self.id}/surfaces", oven)["surfaces"]
            parts = {"parts": [p | {"surface_id": surfaces[-1]["id"]} for p in case["parts"]]}
        return dict(
            self.sent(
                "patch", url, shape | sponge | parts | ({"part_temps": temps} if temps else {}) | case["settings"]
            )
        )

    def done(self) -> dict[str, dt.datetime]:
        """Every step done when it is told, then the line on the heat."""
        seen: dict[str, dt.datetime] = {}
        while True:
            bake = self.client.get(self.url).json
            due = [s for s in bake["steps"] if s["key"] in STEPS and s["key"] not in seen]
            if not due:
                break
            step = due[0]
            self.clock.until(step["at"])
            if step["key"] in ("mix", "sponge"):
                self.clock.pass_(seconds=60 * step["hands_min"])
            self.sent("post", f"{self.url}/taps", {"key": f"step-{step['key']}", "kind": step["key"]})
            seen[step["key"]] = self.clock()
        bake_out(self.client, self.clock, self.url)
        seen["off"] = self.clock()
        return seen


@pytest.mark.parametrize("case", WALKS, ids=lambda c: c["name"])
def test_from_an_empty_kitchen_to_kept(client: FlaskClient, clock: Clock, case: dict[str, Any]) -> None:
    kitchen = Kitchen(client, clock, case)
    bake = kitchen.typed()
    told = "".join(p["text"] for p in bake["say"])
    assert bake["faults"] == {}, bake["faults"]
    assert bake["fits"], told
    steps = {s["key"]: dt.datetime.fromisoformat(s["at"]) for s in bake["steps"]}
    serve = dt.datetime.fromisoformat(bake["serve_at"])
    assert all(a <= b for a, b in pairwise(steps.values()))
    seen = kitchen.done()
    for (low, high), (first, last) in zip(case["hours"], (("mix", "ball"), ("ball", "roll")), strict=True):
        assert low - 0.05 <= (seen[last] - seen[first]).total_seconds() / 3600 <= high + 0.05, (first, last)
    assert abs((seen["off"] - serve).total_seconds()) < 25 * 60, "off the heat when people eat"
    if "warm_h" in case:
        safety = (bake["rise"] or bake["rest"])["safety"]
        assert case["warm_h"][0] <= safety["warm_h"] <= case["warm_h"][1]
    kept = kitchen.sent("put", f"{kitchen.url}/status", {"status": "kept"})
    assert kept["status"] == "kept"
    logbook = client.get(f"/api/kitchens/{kitchen.id}/logbook").json
    assert [b["name"] for b in logbook["bakes"]] == [case["name"]]
