"""What became of a tray, in a sentence; what is known of its making; the change that goes into the next bake."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock, bake_out


@pytest.fixture
def tray(client: FlaskClient, kitchen: dict[str, Any]) -> str:
    """Eight pitas on a stone that was measured at its heat."""
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    return f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"


def outcomes(answer: Any) -> dict[int, tuple[Any, ...]]:
    assert answer.status_code == 200, answer.text
    return {o["round_no"]: (o["pocket"], o["colour"], *o["faults"]) for o in answer.json["keep"]["outcomes"]}


def test_a_sentence_judges_all_and_each_can_be_said_anew(client: FlaskClient, tray: str) -> None:
    found = outcomes(client.put(f"{tray}/tray", json={"said": "all full and right except 3 and 7 flat, 5 dark burst"}))
    assert found == dict.fromkeys((1, 2, 4, 6, 8), ("full", "right")) | {
        3: ("flat", None),
        7: ("flat", None),
        5: ("full", "dark", "burst"),
    }
    again = {"round_no": 5, "colour": "right", "faults": None, "tender": "tough", "note": "ate well"}
    body = client.put(f"{tray}/outcomes", json=again).json["keep"]["outcomes"][4]
    assert (body["pocket"], body["colour"], body["faults"], body["tender"]) == ("full", "right", [], "tough")


def test_one_bread_that_cannot_be_judged_leaves_the_tray_as_it_was(client: FlaskClient, tray: str) -> None:
    rows = [{"round_no": n, "pocket": "full"} for n in (1, 2, 9)]
    refused = client.put(f"{tray}/tray", json={"outcomes": rows})
    assert refused.json["errors"][0] == {
        "pointer": "/outcomes/2/round_no",
        "detail": "There is no round 9; this bake has 1 to 8.",
    }
    assert client.get(tray).json["keep"]["outcomes"] == []
    assert client.put(f"{tray}/tray", json={}).json["errors"][0]["pointer"] == "/said"
    assert client.put(f"{tray}/tray", json={"outcomes": rows * 200}).status_code == 422
    assert "“lovely”" in client.put(f"{tray}/tray", json={"said": "all lovely"}).json["detail"]


def test_a_bread_is_not_judged_while_it_is_on_the_heat(client: FlaskClient, tray: str, clock: Clock) -> None:
    for n, kind in enumerate(("load", "turn")):
        clock.pass_(seconds=40)
        tap = {"key": f"early-{n}", "kind": kind, "round_no": 1, "spot": 1}
        assert client.post(f"{tray}/taps", json=tap).status_code == 201
    refused = client.put(f"{tray}/outcomes", json={"round_no": 1, "pocket": "full"})
    assert refused.status_code == 409 and "still on the heat" in refused.json["detail"]
    assert client.put(f"{tray}/outcomes", json={"round_no": 2, "pocket": "full"}).status_code == 409, "never loaded"
    client.post(f"{tray}/taps", json={"key": "early-off", "kind": "off", "round_no": 1, "spot": 1})
    assert client.put(f"{tray}/outcomes", json={"round_no": 1, "pocket": "full"}).status_code == 200


def test_a_fact_that_is_noted_decides_between_causes(client: FlaskClient, tray: str) -> None:
    client.patch(tray, json={"surface_c": 235, "surface_source": "infrared"})
    client.put(f"{tray}/tray", json={"said": "all full except 6, 7, 8 part"})
    before = client.get(f"{tray}/causes").json
    assert before["rounds"] == [6, 7, 8] and before["verdict"] == "not_enough_known" and before["ask"]
    noted = client.put(f"{tray}/noted", json={"uneven_frac": 0.45, "skin_min": 0}).json["keep"]["noted"]
    assert (noted["uneven_frac"], noted["skin_min"]) == (0.45, 0)
    after = client.get(f"{tray}/causes").json
    assert (after["causes"][0]["cause"], after["verdict"]) == ("uneven", "likely")
    assert after["causes"][0]["rounds"] == [6, 7, 8]
    client.put(f"{tray}/noted", json={"uneven_frac": None})
    assert client.get(f"{tray}/causes").json["causes"][0]["cause"] != "uneven" or not before["causes"][0]["known"]
    assert client.put(f"{tray}/noted", json={"off_s": 60}).status_code == 422, "the taps say that"


def test_each_cause_says_which_breads_it_explains(client: FlaskClient, tray: str) -> None:
    client.put(f"{tray}/noted", json={"tear_mm2": 12, "uneven_frac": 0.05, "skin_min": 0})
    client.put(f"{tray}/tray", json={"said": "1 burst, 2 burst, 4 tough, the rest full and right"})
    client.put(f"{tray}/noted", json={"kneaded": 6, "rest_min": 12})
    found = client.get(f"{tray}/causes").json
    rounds = {c["cause"]: c["rounds"] for c in found["causes"]}
    assert rounds["tear"] == [1, 2] and all(r == [4] for c, r in rounds.items() if c in ("overknead", "dry_dough"))


def test_a_tap_tells_that_the_surface_was_not_back(client: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    stone = {"name": "Stone", "kind": "stone_oven", "temp_c": 260, "source": "infrared", "spots": 1}
    at = client.post(f"/api/kitchens/{kitchen['id']}/surfaces", json=stone).json["surfaces"][-1]["id"]
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    client.patch(url, json={"count": 2, "surface_id": at})
    for n, (kind, number, s) in enumerate((("load", 1, 0), ("off", 1, 90), ("load", 2, 1), ("off", 2, 90))):
        clock.pass_(seconds=s)
        client.post(f"{url}/taps", json={"key": f"stone-{n}", "kind": kind, "round_no": number, "spot": 1})
    client.put(f"{url}/tray", json={"said": "2 flat, 1 full"})
    causes = {c["cause"]: c for c in client.get(f"{url}/causes").json["causes"]}
    assert causes["not_back"]["known"] and causes["not_back"]["evidence"].endswith("no")


def test_the_change_goes_into_the_next_bake(client: FlaskClient, tray: str, clock: Clock) -> None:
    client.patch(tray, json={"count": 4, "note": "a windy night"})
    bake_out(client, clock, tray)
    client.put(f"{tray}/noted", json={"skin_min": 15, "uneven_frac": 0.05})
    client.put(f"{tray}/tray", json={"said": "all right and part"})
    cause = client.get(f"{tray}/causes").json
    assert cause["change"]["text"] == "Cover each round as it is rolled"
    client.put(f"{tray}/status", json={"status": "kept"})
    before = client.get(tray).json
    answer = client.post(f"{tray}/again", json={"serve": "tomorrow 19:00"})
    assert answer.status_code == 201, answer.text
    new = answer.json
    assert new["keep"]["carried"] == {
        "text": cause["change"]["text"],
        "cause": "skin",
        "fact": "skin_min",
        "leaf": "fire",
        "from_bake": before["id"],
        "from_name": before["name"],
    }
    assert (new["settings"]["skin_min"], before["settings"]["skin_min"]) == (0, 15)
    assert (new["settings"]["count"], new["settings"]["lines"]) == (4, before["settings"]["lines"])
    assert (new["settings"]["note"], new["taps"], new["keep"]["outcomes"]) == ("", [], [])
    same = client.post(f"{tray}/again", json={"serve": "tomorrow 19:00", "change": False}).json
    assert same["keep"]["carried"] is None and same["settings"]["skin_min"] is None
    assert client.post(f"{tray}/again", json={"serve": "when it rains"}).json["errors"][0]["pointer"] == "/serve"
