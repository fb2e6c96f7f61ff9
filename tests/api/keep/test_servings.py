"""A table served from the freezer: its moves stand on the Rule, are done and undone, and the stock goes with them."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock, bake_out


@pytest.fixture
def stock(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> str:
    """Twelve pitas frozen with a sheet between each, in a kitchen with a plate for six."""
    home = f"/api/kitchens/{kitchen['id']}"
    plate = kitchen["surfaces"][0]
    facts = {k: plate[k] for k in ("name", "kind", "temp_c", "power")}
    assert client.put(f"{home}/surfaces/{plate['id']}", json={**facts, "spots": 6}).status_code == 200
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    client.patch(url, json={"count": 12})
    bake_out(client, clock, url)
    frozen = client.post(f"{url}/freeze", json={"count": 12, "divided": True})
    assert frozen.status_code == 201, frozen.text
    client.put(f"{url}/status", json={"status": "kept"})
    return home


def moves(client: FlaskClient, home: str) -> list[dict[str, Any]]:
    return [s for s in client.get(f"{home}/bench").json["steps"] if s["freezer"]]


def test_twelve_pitas_are_heated_in_two_waves_on_friday(client: FlaskClient, stock: str, clock: Clock) -> None:
    planned = client.post(f"{stock}/freezer/servings", json={"wanted": 12, "serve": "friday 19:00"})
    assert planned.status_code == 201, planned.text
    (table,) = planned.json["servings"]
    (move,) = table["moves"]
    assert (move["count"], move["waves"]) == (12, 2) and move["way"].startswith("from frozen: pan")
    assert move["at"] == move["heat_at"] < table["serve_at"], "from frozen it is taken out when it is heated"
    (peg,) = moves(client, stock)
    assert (peg["name"], peg["bake"], peg["done_at"]) == ("Heat", "12 Hatch pitas", None)
    assert peg["at"] == move["heat_at"]
    said = "".join(p["text"] for p in client.get(f"{stock}/bench").json["say"])
    assert said.startswith("Heat 12 Hatch pitas at ") and "2 waves of 6" in said
    clock.until(move["heat_at"])
    at = f"{stock}/freezer/servings/{table['id']}"
    done = client.put(at, json={"number": 0, "what": "heated"}).json
    assert done["rows"][0]["left"] == 0 and done["servings"][0]["moves"][0]["heated_at"]
    assert moves(client, stock)[0]["done_at"]
    back = client.put(at, json={"number": 0, "what": "heated", "done": False}).json
    assert back["rows"][0]["left"] == 12 and back["servings"][0]["moves"][0]["taken_at"] is None


def test_a_table_is_called_off_and_comes_back(client: FlaskClient, stock: str) -> None:
    table = client.post(f"{stock}/freezer/servings", json={"wanted": 4, "serve": "tomorrow 12:00"}).json["servings"][0]
    at = f"{stock}/freezer/servings/{table['id']}"
    assert client.put(at, json={"cancelled": True}).json["servings"] == [] == moves(client, stock)
    assert len(client.put(at, json={"cancelled": False}).json["servings"]) == 1
    assert client.put(at, json={"number": 5, "what": "heated"}).json["errors"][0]["pointer"] == "/number"
    assert client.put(f"{stock}/freezer/servings/99", json={"cancelled": True}).status_code == 404


def test_what_is_gone_from_the_freezer_cannot_be_heated(client: FlaskClient, stock: str) -> None:
    made = client.post(f"{stock}/freezer/servings", json={"wanted": 12, "serve": "tomorrow 12:00"}).json
    row, table = made["rows"][0]["id"], made["servings"][0]["id"]
    client.post(f"{stock}/freezer/{row}/take", json={"count": 5})
    refused = client.put(f"{stock}/freezer/servings/{table}", json={"number": 0, "what": "heated"})
    assert refused.status_code == 409 and "7 are left of those 12" in refused.json["detail"]
    assert client.get(f"{stock}/freezer").json["rows"][0]["left"] == 7, "nothing half done"
    client.post(f"{stock}/freezer/{row}/take", json={"count": 7})
    none = client.post(f"{stock}/freezer/servings", json={"wanted": 3, "serve": "tomorrow 12:00"})
    assert none.status_code == 409 and "0 of 3" in none.json["detail"]
