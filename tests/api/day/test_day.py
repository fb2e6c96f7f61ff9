"""The day through its doors: hours away, a slip, ways out, pins, several bakes, files; the contract's `day`; bad
input."""

from __future__ import annotations

import csv
import datetime as dt
import io
import itertools
from typing import Any

import icalendar
import pytest
from flask.testing import FlaskClient

from brassclock.core.errors import InvalidInput
from brassclock.services import solve
from brassclock.services.contract import compute
from helpers import Clock


def at(iso: str) -> dt.datetime:
    return dt.datetime.fromisoformat(iso)


def step(bake: dict[str, Any], key: str) -> dict[str, Any]:
    return next(s for s in bake["steps"] if s["key"] == key)


def start(client: FlaskClient, kitchen: dict[str, Any], serve: str, method: str = "hatch-pita") -> dict[str, Any]:
    answer = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": serve, "method": method})
    assert answer.status_code == 201, answer.text
    return answer.json


def busy(client: FlaskClient, kitchen: dict[str, Any], begins: str, ends: str, **more: Any) -> dict[str, Any]:
    answer = client.post(
        f"/api/kitchens/{kitchen['id']}/hours", json={"name": "rota", "start": begins, "end": ends, **more}
    )
    assert answer.status_code == 201, answer.text
    return answer.json


def text_of(bake: dict[str, Any]) -> str:
    return "".join(p["text"] or p["at"] or "" for p in bake["say"])


def test_busy_hours_move_the_day_and_it_says_why(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 9 h")
    balling = at(step(bake, "ball")["at"])
    hours = busy(
        client,
        kitchen,
        f"{balling - dt.timedelta(minutes=6):%Y-%m-%d %H:%M}",
        f"{balling + dt.timedelta(minutes=9):%Y-%m-%d %H:%M}",
    )
    assert len(hours["spans"]) == 1
    moved = client.get(f"/api/bakes/{bake['id']}").json
    now_at = at(step(moved, "ball")["at"])
    assert now_at != balling and moved["fits"] and step(moved, "ball")["away"] is None
    assert not (at(hours["spans"][0]["start"]) - dt.timedelta(minutes=10) < now_at < at(hours["spans"][0]["end"]))
    told = client.get(f"/api/kitchens/{kitchen['id']}/day").json["moved"]
    assert told and "rota" in told[0]["because"] and "ball" in {m["key"] for m in told[0]["moves"]}
    assert "rota" in text_of(moved)
    busy_id = hours["rules"][0]["id"]
    client.delete(f"/api/kitchens/{kitchen['id']}/hours/{busy_id}")
    assert at(step(client.get(f"/api/bakes/{bake['id']}").json, "ball")["at"]) == balling
    client.post(f"/api/kitchens/{kitchen['id']}/hours/{busy_id}/restore")
    assert at(step(client.get(f"/api/bakes/{bake['id']}").json, "ball")["at"]) == now_at


def test_a_slip_of_forty_minutes_moves_only_what_lies_ahead(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any]
) -> None:
    bake = start(client, kitchen, "in 9 h")
    url, planned = f"/api/bakes/{bake['id']}", at(step(bake, "mix")["at"])
    clock.now = planned + dt.timedelta(minutes=40)
    answer = client.post(f"{url}/taps", json={"key": "slip-mix", "kind": "mix"})
    assert answer.status_code == 201, answer.text
    slipped = client.get(url).json
    assert at(step(slipped, "mix")["done_at"]) == clock.now
    assert at(step(slipped, "ball")["at"]) > clock.now
    [change] = client.get(f"/api/kitchens/{kitchen['id']}/day").json["moved"][:1]
    assert change["because"].startswith("it was mixed") and change["because"].endswith("late")
    assert all(m["key"] not in ("weigh", "mix") for m in change["moves"])
    assert change["text"] in text_of(slipped)
    clock.pass_(minutes=30)
    assert change["text"] not in text_of(client.get(url).json)


def test_a_wish_that_fails_is_solved_by_one_press(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 9 h")
    url, roll = f"/api/bakes/{bake['id']}", at(step(bake, "roll")["at"])
    busy(
        client,
        kitchen,
        f"{roll - dt.timedelta(minutes=40):%Y-%m-%d %H:%M}",
        f"{roll + dt.timedelta(minutes=25):%Y-%m-%d %H:%M}",
        name="choir",
    )
    tight = client.get(url).json
    assert not tight["fits"] and "choir" in {s["away"] for s in tight["steps"]}
    out = client.get(f"{url}/way-out").json
    assert not out["fits"] and "choir" in out["because"] and len(out["changes"]) >= 2
    stale = client.post(f"{url}/way-out", json={"id": "0" * 16})
    assert stale.status_code == 409 and client.get(url).json["revision"] == tight["revision"]
    for change in out["changes"][::-1]:
        answer = client.post(f"{url}/way-out", json={"id": change["id"]})
        assert answer.status_code == 200, answer.text
        assert answer.json["fits"], change["text"]
        assert at(step(answer.json, "serve")["at"]) == pytest.approx(
            at(change["serve_at"]), abs=dt.timedelta(minutes=2)
        )
        break
    assert client.get(f"{url}/way-out").json == {"fits": True, "because": "", "changes": []}
    day = f"/api/kitchens/{kitchen['id']}/day"
    act = client.get(day).json["undo"]
    assert act["what"].endswith(change["text"])
    assert client.post(f"{day}/acts/{act['id']}/undo").json["undo"] is None
    back = client.get(url).json
    assert (back["serve_at"], back["settings"]["lines"]) == (tight["serve_at"], tight["settings"]["lines"])
    assert [s["at"] for s in back["steps"]] == [s["at"] for s in tight["steps"]] and not back["fits"]
    assert client.post(f"{day}/acts/{act['id']}/undo").status_code == 409
    assert client.post(f"{day}/acts/999/undo").status_code == 404


def test_a_move_is_held_where_it_is_put_and_let_go(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 9 h")
    url, was = f"/api/bakes/{bake['id']}", at(step(bake, "ball")["at"])
    wanted = was - dt.timedelta(minutes=10)
    held = client.put(f"{url}/pin", json={"key": "ball", "at": wanted.isoformat()}).json
    assert at(step(held, "ball")["at"]) == wanted and step(held, "ball")["pinned"]
    assert at(step(held, "mix")["at"]) == at(step(bake, "mix")["at"])
    free = client.put(f"{url}/pin", json={"key": "ball", "at": None}).json
    assert at(step(free, "ball")["at"]) == was and not step(free, "ball")["pinned"]
    assert (
        client.put(
            f"{url}/pin", json={"key": "ball", "at": (clock.now - dt.timedelta(hours=1)).isoformat()}
        ).status_code
        == 422
    )
    assert client.put(f"{url}/pin", json={"key": "cold_in", "at": wanted.isoformat()}).status_code == 422
    soon = client.put(f"{url}/pin", json={"key": "ball", "at": (clock.now + dt.timedelta(minutes=5)).isoformat()})
    assert soon.status_code == 422 and "needs" in soon.text and "is the earliest" in soon.text
    assert client.get(url).json["steps"] == free["steps"], "a refused move leaves nothing behind"
    client.put(f"{url}/pin", json={"key": "ball", "at": wanted.isoformat()})
    behind = client.put(f"{url}/pin", json={"key": "mix", "at": (wanted + dt.timedelta(hours=1)).isoformat()})
    assert behind.status_code == 422 and "comes after" in behind.text
    client.put(f"{url}/pin", json={"key": "ball", "at": None})
    client.put(f"{url}/pin", json={"key": "mix", "at": step(bake, "mix")["at"]})
    clock.now = at(step(bake, "mix")["at"]) + dt.timedelta(minutes=50)
    slipped = client.get(url).json
    assert at(step(slipped, "mix")["at"]) + dt.timedelta(minutes=1) >= clock.now and not step(slipped, "mix")["pinned"]


def test_two_bakes_never_want_the_same_hands(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    for hours in ("in 9 h", "in 9.5 h", "in 10 h"):
        start(client, kitchen, hours)
    steps = client.get(f"/api/kitchens/{kitchen['id']}/bench").json["steps"]
    spans = [
        (at(s["at"]), at(s["at"]) + dt.timedelta(minutes=s["hands_min"]), s)
        for s in steps
        if s["hands_min"] and not s["away"]
    ]
    for (a, b, one), (c, d, other) in itertools.combinations(spans, 2):
        if one["bake_id"] != other["bake_id"]:
            assert b <= c or d <= a, (one["key"], other["key"])
    assert client.patch(f"/api/kitchens/{kitchen['id']}", json={"cooks": 2}).json["cooks"] == 2


def test_two_bakes_never_want_the_same_surface(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    client.patch(f"/api/kitchens/{kitchen['id']}", json={"cooks": 3})
    first = start(client, kitchen, "in 9 h")
    second = start(client, kitchen, "in 9.05 h")
    url = f"/api/bakes/{second['id']}"
    assert first["fits"] and not second["fits"]
    out = client.get(f"{url}/way-out").json
    assert "surface is taken" in out["because"] and first["name"] in out["because"]
    stone = {"name": "Stone", "kind": "stone_oven", "temp_c": 275, "spots": 2}
    assert client.post(f"/api/kitchens/{kitchen['id']}/surfaces", json=stone).status_code == 201
    elsewhere = next(c for c in client.get(f"{url}/way-out").json["changes"] if c["text"] == "Bake it on stone.")
    moved = client.post(f"{url}/way-out", json={"id": elsewhere["id"]}).json
    assert moved["fits"] and moved["fire"]["surface"]["name"] == "Stone"


def tight_day(client: FlaskClient, kitchen: dict[str, Any]) -> tuple[dict[str, Any], dict[str, Any]]:
    """Two bakes, the second with no hands for its mixing and balling as it is set."""
    first, second = start(client, kitchen, "in 23 h"), start(client, kitchen, "in 33 h")
    mix, roll = (at(step(second, k)["at"]) for k in ("mix", "roll"))
    busy(
        client,
        kitchen,
        f"{mix - dt.timedelta(minutes=30):%Y-%m-%d %H:%M}",
        f"{roll - dt.timedelta(minutes=15):%Y-%m-%d %H:%M}",
        name="harvest",
    )
    return client.get(f"/api/bakes/{first['id']}").json, client.get(f"/api/bakes/{second['id']}").json


def test_what_holds_for_a_minute_is_computed_once_in_it(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    """A bake that is on the heat and one in the cold hold places from now on: those behind them are the same to whoever
    asks within the minute."""
    for method in ("hatch-pita", "hatch-pita", "cellar-pita", "cellar-pita"):
        start(client, kitchen, "in 30 h" if method == "cellar-pita" else "in 9 h", method)
    for bake, kind in ((1, "load"), (3, "mix"), (3, "cold_in")):
        body = {"key": f"first-{bake}-{kind}", "kind": kind}
        answer = client.post(f"/api/bakes/{bake}/taps", json=body | ({"round_no": 1, "spot": 1} if bake == 1 else {}))
        assert answer.status_code == 201, answer.text
    computed: list[Any] = []
    compute_one = solve.compute
    monkeypatch.setattr(solve, "compute", lambda r: (computed.append(r.bake.id), compute_one(r))[1])
    pages = ["/api/kitchens/1/bench", *(f"/api/bakes/{n}" for n in (1, 2, 3, 4)), "/api/kitchens/1/day"]
    clock.pass_(minutes=2, seconds=3)
    for told in (True, False):
        for page in pages:
            assert client.get(page).status_code == 200
        assert bool(computed) is told, computed
        computed.clear()
        clock.pass_(seconds=7)


def test_a_day_for_all_bakes_is_proposed_made_so_and_taken_back(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    url = f"/api/kitchens/{kitchen['id']}/day/together"
    before = tight_day(client, kitchen)
    assert not all(b["fits"] for b in before)
    seen = client.get(url).json
    assert all(b["placed"] for b in seen["bakes"]) and any(b["text"] for b in seen["bakes"])
    shown = {"bakes": [{"bake_id": b["bake_id"], "way": b["way"]} for b in seen["bakes"]]}
    assert client.post(url, json={"bakes": shown["bakes"][:1]}).status_code == 409
    made = client.post(url, json=shown)
    assert made.status_code == 200, made.text
    after = [client.get(f"/api/bakes/{b['id']}").json for b in before]
    assert all(b["fits"] for b in after)
    for said in seen["bakes"]:
        now = next(b for b in after if b["id"] == said["bake_id"])
        for key in ("mix", "ball"):
            assert abs((at(step(now, key)["at"]) - at(step(said, key)["at"])).total_seconds()) <= 900, (
                said["bake"],
                key,
            )
    act = made.json["undo"]["id"]
    client.patch(f"/api/bakes/{after[1]['id']}", json={"note": "salt was late"})
    assert client.get(f"/api/kitchens/{kitchen['id']}/day").json["undo"] is None
    refused = client.post(f"/api/kitchens/{kitchen['id']}/day/acts/{act}/undo")
    assert refused.status_code == 409 and after[1]["name"] in refused.json["detail"]


def test_other_ways_through_the_day_hold_and_are_taken(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 60 h")
    url = f"/api/bakes/{bake['id']}"
    found = client.get(f"{url}/others").json["others"]
    names = [n for o in found for n in o["names"]]
    assert sorted(names) == ["best flavour", "latest start", "least hands-on"]
    best = next(o for o in found if "best flavour" in o["names"])
    assert best["flavour"] == max(o["flavour"] for o in found)
    assert max(at(o["begins_at"]) for o in found) == at(
        next(o for o in found if "latest start" in o["names"])["begins_at"]
    )
    taken = client.post(f"{url}/others", json={"id": best["id"]}).json
    assert taken["fits"] and taken["rise"]["cold"] is not None
    assert abs((at(step(taken, "mix")["at"]) - at(step(best, "mix")["at"])).total_seconds()) < 30 * 60
    assert client.post(f"{url}/others", json={"id": "f" * 16}).status_code == 409
    client.post(f"{url}/taps", json={"key": "o-mix", "kind": "mix"})
    assert client.get(f"{url}/others").status_code == 409


def test_a_starter_gets_its_feed_in_the_plan(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    url = f"/api/kitchens/{kitchen['id']}"
    made = client.post(f"{url}/starters", json={"name": "Old Pell", "hydration_frac": 1, "whole_share": 0}).json
    client.post(
        f"{url}/starters/{made['id']}/feeds",
        json={"seed_g": 20, "flour_g": 60, "water_g": 60, "place": "bench", "at": "20 h ago"},
    )
    bake = start(client, kitchen, "in 30 h", "ridge-sour")
    fed, mixed = step(bake, "feed"), at(bake["rise"]["mixed_at"])
    assert 3 <= (mixed - at(fed["at"])).total_seconds() / 3600 <= 16
    ask = fed["feed"]
    jar = compute(
        "starter",
        {
            "seed_g": ask["seed_g"],
            "flour_g": ask["flour_g"],
            "water_g": ask["water_g"],
            "temp_c": sum(kitchen["hourly_c"]) / 24,
            "state": "ripe",
        },
    )
    wait_h = (mixed - at(fed["at"])).total_seconds() / 3600
    assert jar["peak_h"] == pytest.approx(wait_h, abs=1.5)  # by contract too, in a kitchen level at its mean
    busy(
        client,
        kitchen,
        f"{at(fed['at']) - dt.timedelta(hours=1):%Y-%m-%d %H:%M}",
        f"{at(fed['at']) + dt.timedelta(minutes=20):%Y-%m-%d %H:%M}",
    )
    moved = step(client.get(f"/api/bakes/{bake['id']}").json, "feed")
    assert at(moved["at"]) != at(fed["at"]) and moved["away"] is None
    clock.now = at(moved["at"])
    grams = {k: round(v) for k, v in moved["feed"].items() if k.endswith("_g")}
    assert client.post(f"{url}/starters/{made['id']}/feeds", json=grams | {"place": "bench"}).status_code == 201
    after = client.get(f"/api/bakes/{bake['id']}").json
    assert "feed" not in {s["key"] for s in after["steps"]}
    starter = client.get(f"{url}/starters").json["starters"][0]
    assert at(starter["peak_at"]["p50"]) == pytest.approx(at(after["rise"]["mixed_at"]), abs=dt.timedelta(hours=1.1))


def test_a_service_has_a_length(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 40 h", "cellar-pita")
    served = at(bake["serve_at"])
    long = client.patch(
        f"/api/bakes/{bake['id']}", json={"serve_until": f"{served + dt.timedelta(hours=2):%Y-%m-%d %H:%M}"}
    ).json
    assert at(long["serve_until"]) - at(long["serve_at"]) == dt.timedelta(hours=2)
    assert {"wave2", "wave3"} <= {s["key"] for s in long["steps"]}
    assert at(step(long, "serve")["at"]) == pytest.approx(served, abs=dt.timedelta(minutes=1))
    assert (
        client.patch(
            f"/api/bakes/{bake['id']}", json={"serve_until": f"{served + dt.timedelta(hours=20):%Y-%m-%d %H:%M}"}
        ).status_code
        == 422
    )
    later = client.patch(
        f"/api/bakes/{bake['id']}", json={"serve": f"{served + dt.timedelta(hours=1):%Y-%m-%d %H:%M}"}
    ).json
    assert at(later["serve_until"]) - at(later["serve_at"]) == dt.timedelta(hours=2)


def test_weekly_rules_and_calendars(client: FlaskClient, clock: Clock, kitchen: dict[str, Any]) -> None:
    url = f"/api/kitchens/{kitchen['id']}"
    client.patch(url, json={"zone": "Europe/Zurich"})
    clock.now = dt.datetime(2026, 10, 23, 12, tzinfo=dt.UTC)
    week = client.post(
        f"{url}/hours", json={"name": "sleep", "days": [5], "from_time": "22:00", "until_time": "06:00"}
    ).json
    night = week["spans"][0]
    assert at(night["end"]).astimezone(dt.UTC) - at(night["start"]).astimezone(dt.UTC) == dt.timedelta(
        hours=9
    )  # clocks go back
    ics = "\r\n".join(
        [
            "BEGIN:VCALENDAR",
            "VERSION:2.0",
            "PRODID:-//T//T//EN",
            "X-WR-CALNAME:Rota",
            "BEGIN:VEVENT",
            "UID:1",
            "DTSTAMP:20260101T000000Z",
            "SUMMARY:watch",
            "DTSTART;TZID=Europe/Zurich:20261024T200000",
            "DURATION:PT2H",
            "RRULE:FREQ=DAILY;COUNT=3",
            "END:VEVENT",
            "BEGIN:VEVENT",
            "UID:2",
            "DTSTAMP:20260101T000000Z",
            "DTSTART;VALUE=DATE:20261026",
            "END:VEVENT",
            "END:VCALENDAR",
            "",
        ]
    )
    found = client.post(f"{url}/calendars", json={"text": ics}).json
    assert (found["calendars"][0]["name"], found["calendars"][0]["ahead"]) == (
        "Rota",
        3,
    ) and "whole days were left out" in found["said"]
    again = client.post(f"{url}/calendars", json={"text": ics.replace("COUNT=3", "COUNT=2")}).json
    assert len(again["calendars"]) == 1 and again["calendars"][0]["ahead"] == 2
    freed = client.post(
        f"{url}/hours", json={"name": "swap", "hands": 0, "start": "2026-10-24 20:30", "end": "2026-10-24 21:00"}
    ).json
    watch = sorted((s["start"], s["end"]) for s in freed["spans"] if s["name"] == "watch")
    assert [b[11:16] for _, b in watch][:2] == ["20:30", "22:00"]
    clock.pass_(days=85)
    assert client.get(f"{url}/hours").status_code == 200  # read again when its known hours run out


BAD_HOURS = [
    ({"name": "x"}, "/start"),
    ({"name": "x", "start": "Fri 18:00", "end": "gibberish"}, "/end"),
    ({"name": "x", "days": [0], "from_time": "22:00"}, "/until_time"),
    ({"name": "x", "days": [9], "from_time": "22:00", "until_time": "23:00"}, "/days"),
    ({"name": "x", "days": [1], "from_time": "25:00", "until_time": "23:00"}, "/from_time"),
    ({"name": "x", "hands": 4, "start": "Fri 18:00", "end": "Fri 19:00"}, "/hands"),
]


@pytest.mark.parametrize(("body", "where"), BAD_HOURS, ids=lambda x: x if isinstance(x, str) else "")
def test_bad_hours_say_what_is_wrong(
    client: FlaskClient, kitchen: dict[str, Any], body: dict[str, Any], where: str
) -> None:
    answer = client.post(f"/api/kitchens/{kitchen['id']}/hours", json=body)
    assert answer.status_code == 422
    assert any(e["pointer"].startswith(where) for e in answer.json["errors"]), answer.json
    assert client.get(f"/api/kitchens/{kitchen['id']}/hours").json["rules"] == []
    assert (
        client.post(f"/api/kitchens/{kitchen['id']}/calendars", json={"text": "no calendar"}).json["errors"][0][
            "pointer"
        ]
        == "/text"
    )


def test_the_plan_as_files(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    bake = start(client, kitchen, "in 9 h")
    url = f"/api/kitchens/{kitchen['id']}/plan"
    events = icalendar.Calendar.from_ical(client.get(f"{url}/ics").text).walk("VEVENT")
    steps = [s for s in bake["steps"] if s["key"] != "serve"]
    assert {str(e["UID"]) for e in events} == {
        f"{kitchen['id']}-{bake['id']}-{s['key']}@brassclock.invalid" for s in steps
    }
    assert sorted(e.start for e in events) == sorted(
        at(s["at"]).astimezone(dt.UTC).replace(microsecond=0) for s in steps
    )
    rows = list(csv.DictReader(io.StringIO(client.get(f"{url}/csv").text)))
    assert [r["move"] for r in rows] == [s["name"] for s in bake["steps"]]
    assert client.get(f"{url}/pdf").status_code == 422


# --- `day` of the contract

HOURLY = [
    17.6,
    17.0,
    16.4,
    15.9,
    15.4,
    15.0,
    15.1,
    15.6,
    16.4,
    17.6,
    19.0,
    20.4,
    21.6,
    22.4,
    22.9,
    23.0,
    22.8,
    22.4,
    21.9,
    21.4,
    20.8,
    20.1,
    19.3,
    18.4,
]
DAY: dict[str, Any] = {
    "serve_at": "2026-11-27T20:00:00+01:00",
    "zone": "Europe/Zurich",
    "bakes": [{"name": "pitas", "method": "hatch-pita"}],
    "kitchen": {"hourly_c": HOURLY},
    "busy": [{"start": "2026-11-27T08:00:00+01:00", "end": "2026-11-27T17:30:00+01:00", "name": "work"}],
}


def test_a_day_by_contract() -> None:
    found = compute("day", DAY)
    assert [s["start"] for s in found["steps"]] == sorted(s["start"] for s in found["steps"])
    work = (at(DAY["busy"][0]["start"]), at(DAY["busy"][0]["end"]))
    for s in found["steps"]:
        if s["hands"]:
            assert at(s["end"]) <= work[0] or at(s["start"]) >= work[1], s
            assert at(s["latest_start"]) >= at(s["start"])
    assert found["routes"]["pitas"]["route"] in ("room", "cold", "hybrid") and found["routes"]["pitas"]["dose_frac"] > 0
    assert {a["name"] for a in found["alternatives"]} == {"least hands-on", "best flavour", "latest start"}
    assert "infeasible" not in found and found["slack_min"] >= 0


def test_a_day_that_cannot_be_has_ways_out() -> None:
    shut = [{"start": "2026-11-27T19:20:00+01:00", "end": "2026-11-27T20:30:00+01:00", "name": "choir"}]
    found = compute("day", DAY | {"busy": shut})["infeasible"]
    assert found["bake"] == "pitas" and "choir" in found["because"]
    assert {k for r in found["relaxations"] for k in r["change"]} >= {"serve_min", "busy"}


def test_what_is_allowed_is_kept_to() -> None:
    asked = DAY | {"busy": [], "allow": {"routes": ["hybrid"], "dose_range": [0.001, 0.004], "cold_nights": 1}}
    route = compute("day", asked)["routes"]["pitas"]
    assert route["route"] == "hybrid" and 0.0009 <= route["dose_frac"] <= 0.0041 and 5 <= route["cold_h"] <= 27


def test_several_bakes_by_contract_with_stages_of_their_own() -> None:
    bakes = [
        {"name": "pitas", "method": "hatch-pita", "pieces": 24, "surface": "plate"},
        {
            "name": "own",
            "stages": [{"hours": 2, "target_ratio": 1.9}, {"hours": 1, "target_ratio": 1.4}],
            "hands_min": {"mix": 20},
            "preheat_min": 30,
            "line_min": 12,
            "serve": {"at": "2026-11-27T21:30:00+01:00"},
            "surface": "stone",
        },
        {
            "name": "service",
            "method": "cellar-pita",
            "serve": {"at": "2026-11-27T22:30:00+01:00", "until": "2026-11-28T00:30:00+01:00", "which": "first"},
            "surface": "oven",
        },
    ]
    found = compute("day", DAY | {"bakes": bakes, "busy": []})
    assert set(found["routes"]) == {"pitas", "own", "service"} and "infeasible" not in found
    hands = sorted((at(s["start"]), at(s["end"]), s["bake"], s["step"]) for s in found["steps"] if s["hands"])
    for (_, end, one, _), (begin, _, other, _) in itertools.pairwise(hands):
        assert end <= begin or one == other
    [serve] = [s for s in found["steps"] if s["bake"] == "service" and s["step"] == "serve"]
    assert at(serve["start"]) == pytest.approx(at(bakes[2]["serve"]["at"]), abs=dt.timedelta(minutes=2))  # type: ignore[index]


def test_a_stage_of_the_contract_ends_at_the_time_that_is_said() -> None:
    stages = [{"time": "half an hour"}, {"time": "1 h"}]
    for lifted in ({"method": "hatch-pita"}, {}):
        found = compute("day", DAY | {"bakes": [{"name": "own", "stages": stages, **lifted}], "busy": []})
        begins = {s["step"]: at(s["start"]) for s in found["steps"]}
        assert begins["roll"] - begins["ball"] == pytest.approx(dt.timedelta(hours=1), abs=dt.timedelta(minutes=13))
    bad = [{"time": "a while"}, {}]
    with pytest.raises(InvalidInput) as told:
        compute("day", DAY | {"bakes": [{"name": "own", "method": "hatch-pita", "stages": bad}]})
    assert [f.pointer for f in told.value.faults] == ["/bakes/0/stages/0/time"]


BAD_DAYS: list[tuple[dict[str, Any], str]] = [
    ({"bakes": []}, "/bakes"),
    ({"bakes": [{"name": "a", "method": "nonsense"}]}, "/bakes/0/method"),
    ({"bakes": [{"name": "a"}]}, "/bakes/0"),
    ({"bakes": [{"name": "a", "method": "hatch-pita"}] * 2}, "/bakes/1/name"),
    ({"serve_at": "2026-11-27T20:00:00"}, "/serve_at"),
    ({"now": "2026-11-28T20:00:00+01:00"}, "/serve/at"),
    ({"busy": [{"start": "2026-11-27T20:00:00+01:00", "end": "2026-11-27T19:00:00+01:00"}]}, "/busy/0/end"),
    ({"kitchen": {"hourly_c": [20.0]}}, "/kitchen/hourly_c"),
    ({"kitchen": {"fridge_c": 40}}, "/kitchen/fridge_c"),
    ({"allow": {"dose_range": [0.01, 0.001]}}, "/allow/dose_range"),
    ({"zone": "Moon/Base"}, "/zone"),
    ({"serve_at": None}, "/"),
]


@pytest.mark.parametrize(("change", "where"), BAD_DAYS, ids=[w for _, w in BAD_DAYS])
def test_bad_days_say_what_is_wrong(change: dict[str, Any], where: str) -> None:
    with pytest.raises(InvalidInput) as told:
        compute("day", DAY | change)
    assert any(f.pointer.startswith(where) for f in told.value.faults), told.value.faults
