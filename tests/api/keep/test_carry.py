"""What became of a bake goes with its file: out of one kitchen and into another's logbook, nothing lost or doubled."""

from __future__ import annotations

import base64
import io
import json
from typing import Any

from flask.testing import FlaskClient
from PIL import Image

from helpers import Clock, bake_out


def kept_bake(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> str:
    given = {"kitchen_id": kitchen["id"], "serve": "in 4 h", "method": "hatch-pita"}
    bake = client.post("/api/bakes", json=given).json["id"]
    url = f"/api/bakes/{bake}"
    client.patch(url, json={"count": 3, "note": "a windy night"})
    client.post(f"{url}/taps", json={"key": "mixed-now", "kind": "mix"})
    clock.pass_(minutes=75)
    client.post("/api/readings", json={"bake_id": bake, "kind": "ratio", "value": 1.15})
    bake_out(client, clock, url)
    client.put(f"{url}/tray", json={"said": "all full and right except 2 flat, 3 burst and tough"})
    client.put(f"{url}/noted", json={"skin_min": 8, "rest_min": 5, "wrap": "open"})
    out = io.BytesIO()
    Image.new("RGB", (320, 240), "tan").save(out, "JPEG")
    client.post(f"{url}/photos", json={"data": base64.b64encode(out.getvalue()).decode(), "round_no": 2})
    client.post(f"{url}/freeze", json={"count": 2, "divided": False})
    client.put(f"{url}/status", json={"status": "kept"})
    return url


def test_a_kept_bake_goes_into_another_kitchens_logbook(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    url = kept_bake(client, kitchen, clock)
    text = client.get(f"{url}/export/json").text
    body = {"zone": "UTC", "room_c": 20, "surface": {"name": "P", "kind": "iron_plate"}}
    other = client.post("/api/kitchens", json=body).json["id"]
    answer = client.post(f"/api/kitchens/{other}/import", json={"text": text, "kept": True})
    assert answer.status_code == 201, answer.text
    new = f"/api/bakes/{answer.json['bake_id']}"
    was, now = client.get(url).json, client.get(new).json
    assert (now["status"], now["serve_at"]) == ("kept", was["serve_at"])
    for name in ("outcomes", "noted"):
        assert now["keep"][name] == was["keep"][name]
    assert [(p["round_no"], p["width"], p["height"]) for p in now["keep"]["photos"]] == [(2, 320, 240)]
    (row,) = client.get(f"/api/kitchens/{other}/freezer").json["rows"]
    assert (row["left"], row["divided"]) == (2, False)
    (belief,) = client.get(f"/api/kitchens/{other}/lessons").json["beliefs"]
    assert belief["lessons"][0]["refused"] and belief["mean"] == belief["start"], "it does not teach unasked"
    first, again = json.loads(text), json.loads(client.get(f"{new}/export/json").text)
    for file in (first, again):
        file["kept"].pop("photos")  # made small once more
    assert again == first


def test_the_same_file_is_planned_where_that_is_wanted(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    text = client.get(f"{kept_bake(client, kitchen, clock)}/export/json").text
    home = f"/api/kitchens/{kitchen['id']}"
    planned = client.post(f"{home}/import", json={"text": text, "serve": "in 6 h"}).json
    assert any("bring it into the logbook" in n for n in planned["notes"])
    bake = client.get(f"/api/bakes/{planned['bake_id']}").json
    assert (bake["status"], bake["keep"]["outcomes"], bake["keep"]["photos"]) == ("live", [], [])
    broken = json.loads(text)
    broken["kept"]["photos"][0]["data"] = base64.b64encode(b"no picture").decode()
    before = len(client.get(f"{home}/logbook").json["bakes"])
    refused = client.post(f"{home}/import", json={"text": json.dumps(broken), "kept": True})
    assert refused.status_code == 422 and "Picture 1" in refused.json["detail"]
    assert len(client.get(f"{home}/logbook").json["bakes"]) == before, "all or nothing"
