"""What a kept bake teaches of the heat through its doors: a surface's heat and colour, a cook's pace; refused, and at
another setting."""

from __future__ import annotations

import datetime as dt
from typing import Any

import pytest
from flask.testing import FlaskClient

from helpers import Clock


@pytest.fixture
def plate(client: FlaskClient) -> dict[str, Any]:
    """A kitchen with an iron plate on a setting, nothing measured."""
    given = {"zone": "UTC", "room_c": 21, "surface": {"name": "Plate", "kind": "iron_plate", "spots": 2}}
    made = client.post("/api/kitchens", json=given)
    assert made.status_code == 201, made.text
    return dict(made.json)


def pitas(client: FlaskClient, kitchen: dict[str, Any], count: int = 6) -> str:
    bake = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}).json
    url = f"/api/bakes/{bake['id']}"
    assert client.post(f"{url}/scale", json={"count": count}).status_code == 200
    return url


def tapped(client: FlaskClient, url: str, kind: str, round_no: int, spot: int) -> None:
    body = {"key": f"{kind}-round-{round_no}", "kind": kind, "round_no": round_no, "spot": spot}
    answer = client.post(f"{url}/taps", json=body)
    assert answer.status_code == 201, answer.text


def baked(client: FlaskClient, clock: Clock, url: str, late: float, hands: float = 1.0) -> None:
    """A line whose first bread shows everything `late` times as late as told, by a cook whose moves take `hands` times
    as long."""
    program = client.get(url).json["fire"]["program"]
    seen = sorted((program[f"{k}_s"], tap) for k, tap in (("bubbles", "bubbles"), ("puff", "puffed")))
    started = None
    for _ in range(100):
        hearth = client.get(f"{url}/hearth").json
        if hearth["finished"]:
            break
        due = hearth["due"][0]
        if started is not None and due["round_no"] == 1 and due["move"] == "turn":
            for told_s, fact in seen:
                clock.now = max(clock.now, started + dt.timedelta(seconds=late * told_s))
                tapped(client, url, fact, 1, due["spot"])
            due = client.get(f"{url}/hearth").json["due"][0]
        if hands > 1:  # what is not tapped before this move takes longer too
            ahead = [t for t in hearth["line"] if t["at"] < due["at"] and t["move"] in ("roll", "brush")]
            clock.pass_(seconds=(sum(t["hands_s"] for t in ahead) + 3) * hands)
        clock.until(due["at"])
        tapped(client, url, due["move"], due["round_no"], due["spot"])
        started = started or clock.now
    assert hearth["finished"]


def kept(client: FlaskClient, url: str) -> None:
    assert client.put(f"{url}/status", json={"status": "kept"}).status_code == 200


def beliefs(client: FlaskClient, kitchen: dict[str, Any]) -> dict[str, Any]:
    found = client.get(f"/api/kitchens/{kitchen['id']}/lessons").json["beliefs"]
    return {b["kind"] if b["kind"] == "surface" else b["key"]: b for b in found}


def turn_s(client: FlaskClient, kitchen: dict[str, Any]) -> float:
    return float(client.get(pitas(client, kitchen)).json["fire"]["program"]["turn_s"])


def test_a_plate_that_runs_cool_is_learned_and_refused(
    client: FlaskClient, clock: Clock, plate: dict[str, Any]
) -> None:
    home, usual_s = f"/api/kitchens/{plate['id']}", turn_s(client, plate)
    for _ in range(2):
        url = pitas(client, plate)
        baked(client, clock, url, late=1.5)
        kept(client, url)
    belief = beliefs(client, plate)["surface"]
    assert belief["about"] == "Plate: its heat, and how fast bread browns on it"
    assert belief["mean"] < -15 and belief["sd"] < 25 and len(belief["lessons"]) == 2
    first = belief["lessons"][-1]
    assert first["before"] == 0 > first["after"] > belief["mean"] - 5 and first["seen"] > 1.3
    fire = client.get(pitas(client, plate)).json["fire"]
    assert fire["program"]["turn_s"] > 1.1 * usual_s
    learned = fire["surface"]["learned"]
    assert learned["shift_k"] == pytest.approx(belief["mean"], abs=0.01) and learned["here"] == 2
    assert fire["surface_c"]["p50"] == pytest.approx(fire["surface"]["temp_c"] + learned["shift_k"])
    for lesson in belief["lessons"]:
        client.put(f"{home}/lessons/{lesson['id']}", json={"refused": True})
    assert turn_s(client, plate) == usual_s
    for lesson in belief["lessons"]:
        client.put(f"{home}/lessons/{lesson['id']}", json={"refused": False})
    assert beliefs(client, plate)["surface"] == belief, "restored exactly"


def test_at_another_setting_or_measured_its_heat_is_not_what_it_was(
    client: FlaskClient, clock: Clock, plate: dict[str, Any]
) -> None:
    url = pitas(client, plate)
    baked(client, clock, url, late=1.5)
    kept(client, url)
    one = client.get(f"/api/kitchens/{plate['id']}").json["surfaces"][0]
    at = f"/api/kitchens/{plate['id']}/surfaces/{one['id']}"
    facts = {k: one[k] for k in ("name", "kind", "spots", "power")}

    def middle(**change: Any) -> float:
        answer = client.put(at, json=facts | change)
        assert answer.status_code == 200, answer.text
        fire = client.get(pitas(client, plate)).json["fire"]
        return float(fire["surface_c"]["p50"] - fire["surface"]["temp_c"])

    known = middle()
    assert known < -10
    assert middle(temp_c=one["temp_c"] + 25) == 0
    assert middle(temp_c=one["temp_c"], source="infrared") == 0
    assert middle(temp_c=one["temp_c"], source="typed") < -5


def test_a_trays_word_alone_teaches(client: FlaskClient, clock: Clock, plate: dict[str, Any]) -> None:
    url = pitas(client, plate)
    baked(client, clock, url, late=1.0)
    client.put(f"{url}/tray", json={"said": "all full and dark"})
    kept(client, url)
    belief = beliefs(client, plate)["surface"]
    assert belief["browns"] > 1.1 and belief["mean"] > 0
    client.put(f"{url}/status", json={"status": "live"})
    assert "surface" not in beliefs(client, plate)


def test_a_slow_cooks_pace_makes_the_next_line_longer(client: FlaskClient, clock: Clock, plate: dict[str, Any]) -> None:
    url = pitas(client, plate, 14)
    minutes = client.get(url).json["fire"]["line"]["minutes"]
    baked(client, clock, url, late=1.0, hands=1.6)
    kept(client, url)
    belief = beliefs(client, plate)["pace:load"]
    assert belief["about"] == "Hands at the heat, rolling and loading: how long they take"
    assert 1.1 < belief["mean"] < 1.8
    line = client.get(pitas(client, plate, 14)).json["fire"]["line"]
    assert line["minutes"] > minutes
    rolled = {t["hands_s"] for t in line["tasks"] if t["move"] == "roll"}
    assert rolled == {round(25 * belief["mean"])}


def test_two_breads_on_one_surface_teach_it_in_one_lesson(
    client: FlaskClient, clock: Clock, plate: dict[str, Any]
) -> None:
    """What is learned of the plate holds the calls of both kinds of a dough, not of the last alone."""

    def browns_of(first: str, second: str) -> float:
        url = pitas(client, plate, 4)
        small = {"name": "small ones", "count": 3, "piece_g": 60, "shape": "round", "thickness_mm": 4}
        assert client.patch(url, json={"parts": [small]}).status_code == 200
        baked(client, clock, url, late=1.0)
        calls = [{"round_no": n, "pocket": "full", "colour": first} for n in (1, 2, 3, 4)]
        calls += [{"round_no": n, "pocket": "full", "colour": second} for n in (5, 6, 7)]
        assert client.put(f"{url}/tray", json={"outcomes": calls}).status_code == 200
        kept(client, url)
        found = beliefs(client, plate)["surface"]
        assert len([x for x in found["lessons"] if not x["refused"]]) == 1, "one lesson of the bake"
        for lesson in found["lessons"]:
            client.put(f"/api/kitchens/{plate['id']}/lessons/{lesson['id']}", json={"refused": True})
        return float(found["browns"])

    both = browns_of("right", "right")
    assert browns_of("dark", "right") > 1.02 * both
    assert browns_of("right", "dark") > 1.02 * both
