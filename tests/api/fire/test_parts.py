"""One dough, several breads: six naan on a plate and eight rolls in the oven from one bowl, one rise and one line."""

from __future__ import annotations

import datetime as dt
import json
from itertools import pairwise
from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock

ROLLS = {"name": "Rolls", "count": 8, "piece_g": 60, "diameter_cm": 8}


@pytest.fixture
def oven(client: FlaskClient, kitchen: dict[str, Any]) -> int:
    body = {"name": "Oven", "kind": "oven_tray"}
    surfaces = client.post(f"/api/kitchens/{kitchen['id']}/surfaces", json=body).json["surfaces"]
    return int(next(s["id"] for s in surfaces if s["name"] == "Oven"))


@pytest.fixture
def url(client: FlaskClient, kitchen: dict[str, Any], oven: int) -> str:
    given = {"kitchen_id": kitchen["id"], "serve": "in 6 h", "method": "hybrid-naan", "name": "Naan"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    changed = client.patch(url, json={"count": 6, "piece_g": 110, "parts": [ROLLS | {"surface_id": oven}]})
    assert changed.status_code == 200, changed.text
    assert client.post(f"{url}/scale", json={"count": 6, "mass_g": 110}).status_code == 200
    return url


def test_one_bowl_is_weighed_for_all_of_them(client: FlaskClient, url: str) -> None:
    bake = client.get(url).json
    assert bake["weigh"]["total_g"] * 0.98 == pytest.approx(6 * 110 + 8 * 60, rel=0.01)
    assert not [c for c in bake["weigh"]["contradictions"] if c["code"] == "pieces_vs_dough"]
    fewer = client.patch(url, json={"parts": [{**ROLLS, "count": 20}]}).json
    said = next(c["text"] for c in fewer["weigh"]["contradictions"] if c["code"] == "pieces_vs_dough")
    assert "1200 g for the other breads" in said or "The other breads take 1200 g" in said


def test_each_bread_has_its_own_heat_and_all_share_the_rise_and_the_hands(client: FlaskClient, url: str) -> None:
    bake = client.get(url).json
    naan, rolls = bake["fire"], bake["parts"][0]["fire"]
    assert bake["fits"] and bake["faults"] == {}
    assert naan["program"]["off_s"] < 200 < 500 < rolls["program"]["off_s"]
    assert naan["pocket"] and not rolls["pocket"] and rolls["surface"]["name"] == "Oven"
    hearth = client.get(f"{url}/hearth").json
    assert hearth["rounds"] == 7  # a tray is one round
    assert [(b["name"], b["rounds"], b["pieces"]) for b in hearth["breads"]] == [
        ("Naan", [2, 3, 4, 5, 6, 7], 6),
        ("Rolls", [1], 8),
    ]
    tasks = bake["fire"]["line"]["tasks"]
    assert {t["spot"] for t in tasks if t["round_no"] == 1} == {3}  # beyond the plate's two
    spans = sorted((dt.datetime.fromisoformat(t["at"]), t["hands_s"]) for t in tasks if t["cook"] == 1)
    assert all(b[0] >= a[0] + dt.timedelta(seconds=a[1]) for a, b in pairwise(spans))
    steps = {s["key"]: s for s in bake["steps"]}
    assert steps["preheat"]["place"] == "Plate and Oven"
    assert len([s for s in bake["steps"] if s["key"] == "mix"]) == 1


def test_from_the_first_load_to_kept(client: FlaskClient, clock: Clock, url: str) -> None:
    """Every round by its own program; a bread called too pale lengthens its own kind and no other."""
    clock.pass_(hours=5.7)
    had = {b["name"]: b["program"]["off_s"] for b in client.get(f"{url}/hearth").json["breads"]}
    wrong = {"key": "wrong-one", "kind": "load", "round_no": 1, "spot": 1}
    for n in range(60):
        hearth = client.get(f"{url}/hearth").json
        if hearth["finished"]:
            break
        due = hearth["due"][0]
        if n == 0:
            assert (due["move"], due["round_no"], due["spot"]) == ("load", 1, 3)
        if n == 2:
            refused = client.post(f"{url}/taps", json=wrong | {"round_no": 3, "spot": 3, "key": "wrong-spot"})
            assert refused.status_code == 409
        clock.until(due["at"])
        body = {"key": f"move-{n}", **{k: due[k] for k in ("round_no", "spot")}, "kind": due["move"]}
        assert client.post(f"{url}/taps", json=body).status_code == 201
        if due["move"] == "off" and due["round_no"] == 2:
            body = {"key": "too-pale", "kind": "pale", "round_no": 2, "spot": due["spot"]}
            assert client.post(f"{url}/taps", json=body).status_code == 201
            now = {b["name"]: b["program"]["off_s"] for b in client.get(f"{url}/hearth").json["breads"]}
            assert now["Naan"] > had["Naan"] and now["Rolls"] == had["Rolls"]
    assert sorted(client.get(f"{url}/hearth").json["off"]) == [1, 2, 3, 4, 5, 6, 7]
    kept = client.get(url).json["keep"]["rounds"]
    assert [(x["name"], x["pieces"]) for x in kept][:2] == [("Rolls", 8), ("Naan", 1)]
    assert client.put(f"{url}/outcomes", json={"round_no": 1, "pocket": "flat"}).status_code == 200
    assert client.put(f"{url}/status", json={"status": "kept"}).status_code == 200
    again = client.patch(url, json={"parts": []})
    assert again.status_code == 409 and "what else is made of its dough" in again.json["detail"]


def test_one_stuffed_among_plain(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """The filling is weighed for those that get it; the plain ones are baked without it."""
    given = {"kitchen_id": kitchen["id"], "serve": "in 6 h", "method": "sweet-stuffed"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    had = client.patch(url, json={"count": 2}).json
    each = had["weigh"]["filling"]["per_piece_g"]
    plain = {"name": "Plain", "count": 4, "piece_g": had["settings"]["piece_g"], "diameter_cm": 16}
    mixed = client.patch(url, json={"parts": [plain]}).json
    assert mixed["weigh"]["filling"]["total_g"] == pytest.approx(2 * each)
    assert mixed["parts"][0]["fire"]["thickness_mm"] != mixed["fire"]["thickness_mm"]
    both = client.patch(url, json={"parts": [plain | {"filled": True}]}).json
    assert both["weigh"]["filling"]["total_g"] == pytest.approx(6 * each)


@pytest.mark.parametrize(
    ("part", "where", "words"),
    [
        ({"surface_id": 99}, "/parts/0/surface_id", "no surface 99"),
        ({"filled": True}, "/parts/0/filled", "no filling"),
        ({"name": "naan"}, "/parts/0/name", "there already"),
        ({"count": 0}, "/parts/0/count", "1"),
        ({"heat_steps": [{"do": "spray"}]}, "/parts/0/heat_steps", "takes time"),
    ],
)
def test_a_bread_that_cannot_be_is_refused_whole(
    client: FlaskClient, url: str, part: dict[str, Any], where: str, words: str
) -> None:
    before = client.patch(url, json={"filling": None}).json["settings"]["parts"]
    refused = client.patch(url, json={"parts": [ROLLS | part]})
    assert refused.status_code == 422, refused.text
    fault = refused.json["errors"][0]
    assert fault["pointer"] == where and words in fault["detail"]
    assert client.get(url).json["settings"]["parts"] == before


def test_a_bread_that_the_heat_refuses_makes_the_plan_not_fit(client: FlaskClient, url: str) -> None:
    bad = client.patch(url, json={"parts": [ROLLS | {"diameter_cm": 3}]}).json
    assert not bad["fits"] and bad["faults"]["fire"].startswith("Rolls: ")
    assert any("Rolls: " in p["text"] for p in bad["say"])


def test_the_file_carries_every_bread(client: FlaskClient, kitchen: dict[str, Any], url: str) -> None:
    text = client.get(f"{url}/export/json").get_data(as_text=True)
    assert json.loads(text)["parts"][0]["count"] == 8
    given = {"text": text, "serve": "in 8 h"}
    made = client.post(f"/api/kitchens/{kitchen['id']}/import", json=given)
    assert made.status_code == 201, made.text
    back = client.get(f"/api/bakes/{made.json['bake_id']}").json["settings"]["parts"]
    assert [(p["name"], p["count"], p["piece_g"], p["diameter_cm"]) for p in back] == [("Rolls", 8, 60, 8)]
    page = client.get(f"{url}/export/md").get_data(as_text=True)
    assert "8 rolls of 60 g" in page and "Rolls: Oven, 220 C" in page
