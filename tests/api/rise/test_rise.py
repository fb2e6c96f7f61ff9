"""The Rise leaf through its doors: places, cold, sponge, what-if, routes, air that was read, beliefs, rests; and bad
input."""

from __future__ import annotations

import datetime as dt
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.core.errors import InvalidInput
from brassclock.services.contract import compute
from helpers import Clock

LINES = [("plain_flour", 500), ("water", 310), ("yeast_instant", 5), ("salt_fine", 10)]
RISE: dict[str, Any] = {
    "lines": [{"ingredient": i, "mass_g": g} for i, g in LINES],
    "mix_temp_c": 25,
    "stages": [
        {"name": "bulk", "hours": 2, "ambient_c": 22, "then": "ball", "target_ratio": 1.9},
        {"name": "balls", "hours": 1, "ambient_c": 22},
    ],
}


def at(iso: str) -> dt.datetime:
    return dt.datetime.fromisoformat(iso)


def step(bake: dict[str, Any], key: str) -> dict[str, Any]:
    return next(s for s in bake["steps"] if s["key"] == key)


def start(client: FlaskClient, kitchen: dict[str, Any], method: str, serve: str) -> dict[str, Any]:
    answer = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": serve, "method": method})
    assert answer.status_code == 201, answer.text
    return answer.json


def test_a_cold_bake_from_start_to_rolling(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "cellar-pita", "in 40 h")
    url = f"/api/bakes/{bake['id']}"
    cold = bake["rise"]["cold"]
    assert (cold["stage"], cold["temp_c"]) == ("ball", 4.0)
    assert at(step(bake, "ball")["at"]) < at(cold["into_at"]) < at(cold["out_at"]) < at(bake["rise"]["workable_at"])
    assert at(bake["rise"]["workable_at"]) <= at(step(bake, "roll")["at"]) + dt.timedelta(minutes=5)
    longer = client.patch(url, json={"cold": {"stage": "ball", "after_h": 0.5, "hours": 30}}).json
    assert at(longer["rise"]["cold"]["out_at"]) - at(longer["rise"]["cold"]["into_at"]) == pytest.approx(
        dt.timedelta(hours=30), abs=dt.timedelta(minutes=40)
    )
    assert client.patch(url, json={"cold": None}).json["rise"]["cold"] is None
    client.patch(url, json={"cold": {"stage": "ball", "after_h": 0.25, "hours": 20}})
    clock.pass_(hours=14)
    for kind, wait in (("mix", 3), ("ball", 0.5), ("cold_in", 18), ("cold_out", 0.1)):
        assert client.post(f"{url}/taps", json={"key": f"k-{kind}", "kind": kind}).status_code == 201
        clock.pass_(hours=wait)
    now = client.get(url).json
    assert at(now["rise"]["cold"]["out_at"]) < clock.now
    assert 4 < now["rise"]["dough_c_now"] < 12


def test_a_sponge_is_a_move_of_its_own(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "sponge-round", "in 9 h")
    keys = [s["key"] for s in bake["steps"]]
    assert keys.index("weigh") < keys.index("sponge") < keys.index("mix")
    assert at(bake["rise"]["trace"]["at"][0]) == at(bake["rise"]["sponge_at"]) < at(bake["rise"]["mixed_at"])
    assert [w["stage"] for w in bake["rise"]["windows"]] == ["bulk", "ball proof"]
    assert "sponge" in str(bake["say"]) or "Weigh" in str(bake["say"])
    url = f"/api/bakes/{bake['id']}"
    longer = client.patch(url, json={"sponge_h": 2}).json
    assert at(longer["rise"]["mixed_at"]) - at(longer["rise"]["sponge_at"]) == dt.timedelta(hours=2)
    assert client.post(f"{url}/taps", json={"key": "k-sponge", "kind": "sponge"}).status_code == 201


def test_trying_changes_nothing_until_it_is_kept(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "hatch-pita", "in 12 h")
    url = f"/api/bakes/{bake['id']}"
    ready = at(bake["rise"]["windows"][0]["ready"]["p50"]) - at(bake["rise"]["mixed_at"])

    def tried(**body: Any) -> tuple[dt.timedelta, dict[str, Any]]:
        answer = client.post(f"{url}/whatif", json=body)
        assert answer.status_code == 200, answer.text
        rise = answer.json["rise"]
        return at(rise["windows"][0]["ready"]["p50"]) - at(rise["mixed_at"]), answer.json

    warmer, _ = tried(room_k=4)
    less, told = tried(dose_factor=0.5)
    cooler, _ = tried(dough_c=21)
    assert warmer < ready < less and ready < cooler
    assert told["dose_text"].startswith("2.3 g instant")
    later = (at(bake["serve_at"]) + dt.timedelta(hours=3)).isoformat()
    _, moved = tried(serve_at=later)
    assert at(step(moved, "mix")["at"]) - at(step(bake, "mix")["at"]) == pytest.approx(
        dt.timedelta(hours=3), abs=dt.timedelta(minutes=15)
    )
    _, chilled = tried(cold={"stage": "bulk", "after_h": 0.5, "hours": 8}, dose_factor=0.3)
    assert chilled["rise"]["cold"]["stage"] == "bulk"
    same = client.get(url).json
    assert (same["revision"], same["settings"]["lines"]) == (bake["revision"], bake["settings"]["lines"])
    kept = client.post(f"{url}/whatif/keep", json={"dose_factor": 0.5, "dough_c": 24, "serve_at": later}).json
    yeast = next(x for x in kept["settings"]["lines"] if x["ingredient"] == "yeast_instant")
    assert yeast["amount"] == "2.3 g"
    assert (kept["settings"]["dough_c"], at(kept["serve_at"])) == (24, at(later))
    assert tried()[1]["dose_text"].startswith("2.3 g instant")  # what is tried next is of the bake as it is now
    chances = [
        client.post(f"{url}/whatif", json={"by": by}).json["rise"]["ready_by"][1]["probability"]
        for by in ("in 8 h", "in 14 h", "in 17 h")
    ]
    assert chances == sorted(chances) and chances[0] < 0.1 and chances[2] > 0.9
    assert client.post(f"{url}/whatif", json={"by": "soonish"}).status_code == 422
    assert client.post(f"{url}/whatif", json={"dose_factor": 900, "room_k": 99}).status_code == 422
    assert client.post(f"{url}/whatif", json={"serve_at": "2026-11-25T20:00:00"}).status_code == 422


def test_a_table_dragged_later_brings_what_would_hold_the_dough(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any]
) -> None:
    bake = start(client, kitchen, "hatch-pita", "in 4 h")
    url, serve = f"/api/bakes/{bake['id']}", at(bake["serve_at"])
    late = {"serve_at": (serve + dt.timedelta(hours=2)).isoformat()}
    assert client.post(f"{url}/whatif", json=late).json["rescues"] == []  # nothing rises yet: the plan moves instead
    assert client.post(f"{url}/whatif", json={"spell": {"temp_c": 4, "minutes": 60}}).status_code == 409
    clock.now = at(step(bake, "mix")["at"]) + dt.timedelta(minutes=10)
    client.post(f"{url}/taps", json={"key": "late-mix", "kind": "mix"})
    clock.pass_(minutes=45)
    seen = client.post(f"{url}/whatif", json=late).json
    fridge = next(o for o in seen["rescues"] if o["kind"] == "fridge")
    assert at(fridge["too_far_at"]) >= serve + dt.timedelta(minutes=30)
    spell = {"temp_c": fridge["temp_c"], "minutes": fridge["minutes"]}
    tried = client.post(f"{url}/whatif", json={**late, "spell": spell}).json
    ready = [at(x["rise"]["windows"][0]["ready"]["p50"]) for x in (seen, tried)]
    assert ready[1] > ready[0] + dt.timedelta(minutes=2)
    assert client.get(url).json["settings"]["spells"] == []
    kept = client.post(f"{url}/whatif/keep", json={**late, "spell": spell}).json
    assert len(kept["settings"]["spells"]) == 1 and at(kept["serve_at"]) == serve + dt.timedelta(hours=2)


def test_routes_are_taken_whole_and_refused_when_too_late(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "hatch-pita", "in 30 h")
    url = f"/api/bakes/{bake['id']}"
    found = {r["key"]: r for r in client.get(f"{url}/routes").json["routes"]}
    assert found["room"]["in_use"] and found["room"]["fits"]
    assert not found["nights"]["fits"] and "serving is in 30 h" in found["nights"]["because"]
    assert client.post(f"{url}/route", json={"key": "nights"}).status_code == 409
    taken = client.post(f"{url}/route", json={"key": "night"}).json
    assert taken["rise"]["cold"]["stage"] == "bulk"
    yeast = next(x for x in taken["settings"]["lines"] if x["ingredient"] == "yeast_instant")
    assert float(yeast["amount"].split()[0]) == pytest.approx(4.6 * found["night"]["dose_factor"], abs=0.1)
    assert taken["rise"]["late_min"] < 1
    had = bake["settings"]
    back = client.patch(url, json={k: had[k] for k in ("lines", "cold", "bulk_place", "ball_place")}).json
    assert back["settings"]["lines"] == had["lines"] and back["rise"]["cold"] is None
    client.post(f"{url}/taps", json={"key": "k-mix", "kind": "mix"})
    assert client.get(f"{url}/routes").status_code == 409


def test_places_and_air_of_a_stage(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "hatch-pita", "in 12 h")
    url, home = f"/api/bakes/{bake['id']}", f"/api/kitchens/{kitchen['id']}"

    def ready(body: dict[str, Any]) -> dt.timedelta:
        rise = client.patch(url, json=body).json["rise"]
        return at(rise["windows"][0]["ready"]["p50"]) - at(rise["mixed_at"])

    bench, box = ready({"bulk_place": "bench"}), ready({"bulk_place": "proof_box"})
    hotter = client.patch(home, json={"places": {"proof_box": {"temp_c": 34}}})
    assert next(p for p in hotter.json["places"] if p["key"] == "proof_box")["now_c"] == 34
    assert ready({"bulk_place": "proof_box"}) < box < bench
    assert ready({"bulk_air": [[0, 16]]}) > ready({"bulk_air": [[0, 16], [1, 28]]}) > box
    assert client.patch(url, json={"bulk_air": [[3, 20], [1, 20]]}).status_code == 422
    assert client.patch(home, json={"places": {"attic": {"temp_c": 20}}}).status_code == 422
    assert client.patch(home, json={"places": {"bench": {"temp_c": 20}}}).status_code == 422
    warm_fridge = client.patch(home, json={"fridge_c": 12})
    assert warm_fridge.status_code == 200
    cold = start(client, kitchen, "cellar-pita", "in 40 h")
    assert cold["rise"] is not None


def test_air_that_was_read_moves_the_plan(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    home = f"/api/kitchens/{kitchen['id']}/air"
    bake = start(client, kitchen, "hatch-pita", "in 5 h")
    url = f"/api/bakes/{bake['id']}"
    before = at(bake["rise"]["windows"][0]["ready"]["p50"]) - at(bake["rise"]["mixed_at"])
    log = [[f"{m} min ago", 9 + 0.1 * (m % 3)] for m in (20, 80, 50, 5)]
    taken = client.post(home, json={"points": log, "source": "probe"})
    assert (taken.status_code, taken.json["taken"]) == (201, 4)
    assert [r["at"] for r in taken.json["readings"]] == sorted((r["at"] for r in taken.json["readings"]), reverse=True)
    rise = client.get(url).json["rise"]
    assert at(rise["windows"][0]["ready"]["p50"]) - at(rise["mixed_at"]) > before + dt.timedelta(minutes=2)
    told = client.get(f"/api/kitchens/{kitchen['id']}/day").json["moved"]
    assert told[0]["because"] == "the air was read" and told[0]["moves"], "what moved it is told"
    again = client.post(home, json={"points": [log[0]]}).json
    assert (again["taken"], len(again["skipped"])) == (0, 1)
    bad = client.post(home, json={"points": [["1 h ago", 20], ["in 3 h", 20], ["2 h ago", 900]]})
    assert bad.status_code == 422
    assert {e["pointer"] for e in bad.json["errors"]} == {"/points/1/0", "/points/2/1"}
    assert len(client.get(home).json["readings"]) == 4  # a fault stores nothing
    flat = [[(clock.now - dt.timedelta(minutes=30 * i)).isoformat(), 19.0] for i in range(4, 16)]
    assert "probe_flat" in {
        c["code"] for c in client.post(home, json={"points": flat, "place": "cellar"}).json["cautions"]
    }
    for reading in client.get(home).json["readings"]:
        client.delete(f"{home}/{reading['id']}")
    assert client.get(home).json["readings"] == []
    assert client.delete(f"{home}/1").status_code == 404
    rise = client.get(url).json["rise"]
    assert at(rise["windows"][0]["ready"]["p50"]) - at(rise["mixed_at"]) == pytest.approx(
        before, abs=dt.timedelta(seconds=90)
    )


def test_looks_of_every_kind_correct_the_forecast(client: FlaskClient, clock: Clock, bake: dict[str, Any]) -> None:
    url = f"/api/bakes/{bake['id']}"
    client.post(f"{url}/taps", json={"key": "k-mix", "kind": "mix"})
    clock.pass_(minutes=50)
    before = client.get(url).json["rise"]

    def look(**body: Any) -> dict[str, Any]:
        answer = client.post("/api/readings", json={"bake_id": bake["id"], **body})
        assert answer.status_code == 201, answer.text
        return answer.json["rise"]

    width = at(before["windows"][0]["ready"]["p90"]) - at(before["windows"][0]["ready"]["p10"])
    seen = look(kind="jar", value=1.22)
    assert at(seen["windows"][0]["ready"]["p90"]) - at(seen["windows"][0]["ready"]["p10"]) < 0.7 * width
    cool = look(kind="dough_c", value=20)
    assert cool["offsets_c"]["room"] < -0.2
    assert cool["activity"] > seen["activity"]  # so high in a dough so cool: the yeast is strong
    assert look(kind="feel", feel="not_yet")["activity"] <= cool["activity"]
    twice = client.post("/api/readings", json={"bake_id": bake["id"], "kind": "jar", "value": 1.22})
    assert twice.status_code == 409 and "twice" in twice.json["detail"]
    for body in (
        {"kind": "ratio", "value": 9},
        {"kind": "ratio", "value": 1.4, "at": "in 2 h"},
        {"kind": "ratio", "value": 1.4, "at": "3 h ago"},
    ):
        assert client.post("/api/readings", json={"bake_id": bake["id"], **body}).status_code == 422
    assert len(client.get(url).json["rise"]["readings"]) == 3


def test_a_starter_goes_into_the_dough_as_it_stands(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    home = f"/api/kitchens/{kitchen['id']}/starters"
    made = client.post(home, json={"name": "Old Pell"}).json
    client.post(f"{home}/{made['id']}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40, "place": "fridge"})
    clock.pass_(days=8)
    bake = start(client, kitchen, "ridge-sour", "in 20 h")
    assert bake["rise"]["starter"] == "Old Pell, from the fridge"
    slow = at(bake["rise"]["windows"][0]["ready"]["p50"]) - at(bake["rise"]["mixed_at"])
    fed = client.post(f"{home}/{made['id']}/feeds", json={"seed_g": 20, "flour_g": 40, "water_g": 40, "place": "bench"})
    assert at(fed.json["next_feed_at"]) > clock.now and len(fed.json["trace"]["at"]) > 50
    fresh = client.get(f"/api/bakes/{bake['id']}").json["rise"]
    assert fresh["starter"] == "Old Pell, at its peak"
    assert at(fresh["windows"][0]["ready"]["p50"]) - at(fresh["mixed_at"]) < slow - dt.timedelta(minutes=20)
    ways = client.get(f"{home}/{made['id']}/upkeep?use_g=120&every_days=7").json["ways"]
    assert ways[0]["waste_g_week"] == min(w["waste_g_week"] for w in ways)
    assert client.get(f"{home}/{made['id']}/upkeep?use_g=0&every_days=7").status_code == 422
    assert client.patch(f"/api/bakes/{bake['id']}", json={"starter_id": 99}).status_code == 422


def test_a_dough_of_powder_rests_and_counts_its_warm_hours(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "yoghurt-quick", "in 8 h")
    rest = bake["rest"]
    assert bake["rise"] is None and rest["here"]["verdict"] in ("session", "same_day")
    here, fridge = rest["here"], rest["fridge"]
    assert here["at_mixing_frac"] + here["on_bench_frac"] + here["in_heat_frac"] == pytest.approx(1)
    assert here["at_mixing_frac"] > 0.3  # the yoghurt's acid spends it at once
    assert here["low_h"] < here["h"] < here["high_h"] and here["h"] < fridge["h"]
    assert here["curve"]["lift"] == sorted(here["curve"]["lift"], reverse=True)
    assert rest["safety"]["limit_h"] == 2 and rest["safety"]["reached_at"] is None
    griddle = next(
        m["id"]
        for m in client.get(f"/api/kitchens/{kitchen['id']}/methods").json["methods"]
        if "buttermilk" in m["school"]
    )
    soda = start(client, kitchen, griddle, "in 8 h")
    assert soda["rest"]["here"]["verdict"] == "cook_at_once"
    assert client.post(f"/api/bakes/{soda['id']}/whatif", json={"room_k": 2}).status_code == 409


BAD: dict[str, tuple[dict[str, Any], str]] = {
    "stage of no time": ({"stages": [{"hours": 0, "ambient_c": 20}]}, "/stages/0/hours"),
    "stage of 400 h": ({"stages": [{"hours": 400, "ambient_c": 20}]}, "/stages/0/hours"),
    "stages of 300 h in all": ({"stages": [{"hours": 150, "ambient_c": 4}] * 2}, "/stages"),
    "path that turns back": ({"stages": [{"hours": 3, "path": [[2, 20], [1, 20]]}]}, "/stages/0/path"),
    "path without points": ({"stages": [{"hours": 3, "path": []}]}, "/stages/0/path"),
    "air and path both": ({"stages": [{"hours": 3, "ambient_c": 20, "path": [[0, 20]]}]}, "/stages/0"),
    "ratio of nine": ({"readings": [{"h": 1, "ratio": 9}]}, "/readings/0/ratio"),
    "look after the end": ({"readings": [{"h": 4, "ratio": 1.4}]}, "/readings/0/h"),
    "look without a value": ({"readings": [{"h": 1, "kind": "dough_c"}]}, "/readings/0/temp_c"),
    "unknown joiner": (
        {"stages": [{"hours": 1, "ambient_c": 20, "add": [{"ingredient": "gold", "mass_g": 1}]}]},
        "/stages/0/add/0/ingredient",
    ),
    "nothing that makes gas": (
        {"lines": [{"ingredient": "plain_flour", "mass_g": 100}, {"ingredient": "water", "mass_g": 60}]},
        "/lines",
    ),
}


@pytest.mark.parametrize("name", BAD)
def test_bad_rises_are_refused_at_their_place(name: str) -> None:
    change, pointer = BAD[name]
    with pytest.raises(InvalidInput) as told:
        compute("rise", {**RISE, **change})
    assert pointer in {f.pointer for f in told.value.faults}


def test_odd_rises_are_computed_with_a_caution() -> None:
    """A warm fridge, a probe that does not move, a log with a hole, a look twice: all work, all are said."""
    warm = {**RISE, "stages": [{"name": "fridge", "hours": 20, "ambient_c": 12}]}
    still = {**RISE, "stages": [{"hours": 6, "path": [[h / 2, 21.0] for h in range(13)]}]}
    hole = {**RISE, "stages": [{"hours": 12, "path": [[0, 21], [0.5, 21.2], [1, 21.1], [11, 18]]}]}
    twice = {**RISE, "readings": [{"h": 1, "ratio": 1.4}, {"h": 0.5, "ratio": 1.1}, {"h": 1, "ratio": 1.4}]}
    for request, code in ((warm, "fridge_warm"), (still, "probe_flat"), (hole, "path_gap"), (twice, "reading_twice")):
        found = compute("rise", request)
        assert code in {c["code"] for c in found["cautions"]}
        assert found["crossings"][0]["h"]["p50"] > 0
    joined = {
        **RISE,
        "stages": [
            {"name": "sponge", "hours": 1, "ambient_c": 24},
            {
                "name": "bulk",
                "hours": 2,
                "ambient_c": 24,
                "add": [{"ingredient": "plain_flour", "mass_g": 100}],
                "target_ratio": 2,
            },
        ],
        "by_h": [1.5, 3],
    }
    found = compute("rise", joined)
    assert [w["stage"] for w in found["windows"]] == ["bulk"]
    assert found["ready_by"][0]["probability"] <= found["ready_by"][1]["probability"]
    assert found["windows"][0]["reason"] in ("gas", "acid", "strength")


def test_a_dough_whose_balls_are_overdue_rises_on(client: FlaskClient, clock: Clock, bake: dict[str, Any]) -> None:
    """Its level is that of the dough in the bowl, not of the balls that were due; a look at it then is weighed so."""
    client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "k-mix-1", "kind": "mix"})
    clock.pass_(hours=4)
    seen = client.get(f"/api/bakes/{bake['id']}").json
    ready = dt.datetime.fromisoformat(seen["rise"]["windows"][0]["ready"]["p50"])
    assert ready < clock.now and seen["rise"]["stage_now"] == "bulk"
    level = seen["rise"]["ratio_now"]
    brief = client.get(f"/api/kitchens/{bake['kitchen_id']}/bench").json["bakes"][0]
    assert level > seen["rise"]["windows"][0]["target_ratio"] and brief["ratio"] == pytest.approx(level, abs=1e-6)
    slower = client.post("/api/readings", json={"bake_id": bake["id"], "kind": "ratio", "value": 0.7 * level}).json
    assert slower["rise"]["activity"] < 0.8 and slower["rise"]["ratio_now"] < 0.85 * level
