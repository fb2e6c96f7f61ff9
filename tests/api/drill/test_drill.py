"""The Drill of a kitchen: cases answered once, levels, the own kitchen's bread, the calls of its real heat."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock, bake_out

ANSWERS: dict[str, dict[str, Any]] = {
    "call": {"turn_s": 55, "off_s": 90},
    "read": {"state": "now", "sure": "rather"},
    "fault": {"first": "not_enough_known"},
}


def opened(client: FlaskClient, kitchen: int, kind: str, own: bool = False) -> Any:
    return client.post(f"/api/kitchens/{kitchen}/drill", json={"kind": kind, "own": own})


def answered(client: FlaskClient, kitchen: int, case: dict[str, Any], answer: dict[str, Any]) -> Any:
    return client.post(f"/api/kitchens/{kitchen}/drill/{case['id']}/answer", json={case["kind"]: answer})


def how(client: FlaskClient, kitchen: int, kind: str) -> dict[str, Any]:
    found = client.get(f"/api/kitchens/{kitchen}/drill").json["kinds"]
    return next(k for k in found if k["kind"] == kind)


def another(client: FlaskClient) -> dict[str, Any]:
    """A second kitchen, with no bake."""
    surface = {"name": "Stone", "kind": "stone_oven", "temp_c": 275, "spots": 1}
    made = client.post("/api/kitchens", json={"zone": "UTC", "room_c": 30, "surface": surface})
    assert made.status_code == 201
    found: dict[str, Any] = made.json
    return found


def naive(case: dict[str, Any]) -> dict[str, Any]:
    """One bread after the other."""
    line = case["hands"]
    return {"moves": [{"move": m["name"]} for _ in range(line["breads"]) for m in line["moves"]]}


@pytest.mark.parametrize("kind", ["call", "read", "fault", "hands"])
def test_a_case_is_open_until_it_is_answered_once(client: FlaskClient, kitchen: dict[str, Any], kind: str) -> None:
    k = kitchen["id"]
    first = opened(client, k, kind)
    assert first.status_code == 201
    case = first.json
    assert (case["level"], case["number"], case["answer"], case["truth"]) == (1, 1, None, None)
    assert opened(client, k, kind).json == case  # the same one, however often it is asked for
    answer = naive(case) if kind == "hands" else ANSWERS[kind]
    done = answered(client, k, case, answer)
    assert done.status_code == 200, done.text[:300]
    assert done.json["truth"][kind] and done.json["truth"]["why"]
    assert done.json[kind] == case[kind]  # the case itself is as it was
    assert client.get(f"/api/kitchens/{k}/drill/{case['id']}").json == done.json
    again = answered(client, k, case, answer)
    assert again.status_code == 409 and "answered before" in again.json["detail"]
    assert opened(client, k, kind).json["number"] == 2
    assert how(client, k, kind)["answered"] == 1


def test_the_same_cases_in_every_kitchen(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    other = another(client)
    for kind in ("call", "read", "fault", "hands"):
        a, b = (opened(client, k["id"], kind).json for k in (kitchen, other))
        assert a.pop("id") != b.pop("id")
        assert a == b


def test_what_is_no_answer_is_refused_and_nothing_stored(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    k = kitchen["id"]
    case = opened(client, k, "call").json
    url = f"/api/kitchens/{k}/drill/{case['id']}"
    for body, pointer in (
        ({"read": ANSWERS["read"]}, "/read"),
        ({}, "/call"),
        ({"call": {"turn_s": -3}}, "/call/turn_s"),
        ({"call": {"turn_s": 20, "sparks": 1}}, "/call/sparks"),
    ):
        refused = client.post(f"{url}/answer", json=body)
        assert refused.status_code == 422, body
        assert refused.json["errors"][0]["pointer"] == pointer
    assert client.post(f"{url}/order", json={"moves": []}).status_code == 409
    fault = opened(client, k, "fault").json
    refused = answered(client, k, fault, {"first": "the moon"})
    assert refused.json["errors"][0]["pointer"] == "/fault/first"
    line = opened(client, k, "hands").json
    refused = answered(client, k, line, {"moves": [{"move": "roll"}]})
    assert "19 moves are missing" in refused.json["detail"]
    assert [x["answered"] for x in client.get(f"/api/kitchens/{k}/drill").json["kinds"]] == [0, 0, 0, 0]
    assert client.get("/api/kitchens/999/drill").status_code == 404
    other = another(client)
    assert client.get(f"/api/kitchens/{other['id']}/drill/{case['id']}").status_code == 404


def test_a_good_run_is_a_level_up_and_an_uncalled_bread_counts_for_nothing(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    k = kitchen["id"]
    uncalled = opened(client, k, "call").json
    truth = answered(client, k, uncalled, {}).json["truth"]["call"]
    assert truth["yours"] is None and truth["turn_late_s"] is None and truth["turn_s"] > 0
    assert how(client, k, "call")["answered"] == 0
    for _ in range(5):
        case = opened(client, k, "read").json
        guess = answered(client, k, case, {"state": "now", "sure": "guess"}).json["truth"]["read"]["state"]
        assert guess in ("not_yet", "now", "past")
    assert how(client, k, "read")["level"] == 1  # five guesses are no good run
    for n in range(5):
        case = opened(client, k, "hands").json
        moves = [{"move": t["move"], "cook": t["cook"]} for t in ours(client, k, case)]
        done = answered(client, k, case, {"moves": moves}).json["truth"]["hands"]
        assert done["yours_s"] <= done["ours_s"] and done["broken"] == []
        assert how(client, k, "hands")["level"] == (2 if n == 4 else 1)


def ours(client: FlaskClient, kitchen: int, case: dict[str, Any]) -> list[dict[str, Any]]:
    """Our own line of a case, by the stateless computation of the same draw."""
    asked = {"kind": "hands", "level": case["level"], "seed": case["seed"], "answer": {"hands": naive(case)}}
    found: list[dict[str, Any]] = client.post("/api/compute/drill", json=asked).json["truth"]["ours"]
    return found


def test_an_order_is_timed_as_it_grows(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    k = kitchen["id"]
    case = opened(client, k, "hands").json
    url, line = f"/api/kitchens/{k}/drill/{case['id']}/order", case["hands"]
    empty = client.post(url, json={"moves": []}).json
    assert (empty["next"], empty["ends_s"], empty["whole"]) == (["roll"], 0, False)
    moves = [{"move": m} for m in ("roll", "load", "roll", "turn")]
    grown = client.post(url, json={"moves": moves}).json
    assert [t["move"] for t in grown["tasks"]] == ["roll", "load", "roll", "turn"]
    assert grown["broken"] == [] and set(grown["next"]) == {"roll", "off"} | ({"load"} if line["spots"] > 1 else set())
    late = client.post(
        url, json={"moves": [{"move": m} for m in ("roll", "load", "roll", "roll", "roll", "turn")]}
    ).json
    assert late["broken"] == ["bread 1: turn comes too late after load"]
    refused = client.post(url, json={"moves": [{"move": "turn"}]})
    assert refused.status_code == 422 and refused.json["errors"][0]["pointer"] == "/moves/0"


def test_cases_of_the_own_kitchen_and_the_calls_of_its_heat(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any], bake: dict[str, Any]
) -> None:
    k, url = kitchen["id"], f"/api/bakes/{bake['id']}"
    empty = another(client)
    refused = opened(client, empty["id"], "call", own=True)
    assert refused.status_code == 409 and "No bake here" in refused.json["detail"]
    for kind in ("call", "read", "fault", "hands"):
        case = opened(client, k, kind, own=True).json
        assert case["own"] == bake["name"], kind
    plate = next(s for s in client.get(f"/api/kitchens/{k}/bench").json["kitchen"]["surfaces"] if s["name"] == "Plate")
    own = opened(client, k, "call", own=True).json
    assert own["call"]["surface_c"] == pytest.approx(plate["temp_c"])
    client.patch(f"/api/kitchens/{k}/surfaces/{plate['id']}", json={"temp_c": 300})
    assert opened(client, k, "call", own=True).json == own  # an open case stays as it was drawn
    assert answered(client, k, own, ANSWERS["call"]).status_code == 200
    assert how(client, k, "call")["own_left"] == 9
    client.post(f"{url}/steps/mix", json={})
    clock.pass_(hours=4)
    bake_out(client, clock, url)
    real = client.get(f"/api/kitchens/{k}/drill").json["hearth"]
    assert real and {c["bake"] for c in real} == {bake["id"]}
    assert all(abs(c["turn_s"]) < 30 and abs(c["off_s"]) < 30 for c in real)
