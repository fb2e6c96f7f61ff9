"""Writes: computed before they are stored, made on a revision, once for each key, undone whole."""

from __future__ import annotations

import datetime as dt
import threading
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.services.app import App, SystemClock
from brassclock.services.pages import bake as bake_page
from helpers import Clock


def test_nothing_is_stored_when_its_answer_cannot_be_computed(
    client: FlaskClient, bake: dict[str, Any], monkeypatch: pytest.MonkeyPatch
) -> None:
    def fails(*_: object) -> None:
        raise ZeroDivisionError("in the midst of the answer")

    with monkeypatch.context() as m:
        m.setattr(bake_page, "clock_out", fails)
        answer = client.patch(f"/api/bakes/{bake['id']}", json={"name": "Lost"})
        assert (answer.status_code, "nothing was stored" in answer.json["detail"]) == (500, True)
    assert client.get(f"/api/bakes/{bake['id']}").json["name"] == bake["name"]


def test_an_edit_on_an_older_revision_is_told_with_both_versions(client: FlaskClient, bake: dict[str, Any]) -> None:
    """Two tablets change the lines; the second is told what is there now, and loses nobody's oil."""
    i, lines = bake["id"], bake["settings"]["lines"]
    oil, salt = ({"ingredient": x, "amount": "20 g", "basis": None, "part": ""} for x in ("oil", "sugar"))
    first = client.patch(f"/api/bakes/{i}", json={"lines": [*lines, oil], "revision": bake["revision"]})
    assert first.status_code == 200 and first.json["revision"] == bake["revision"] + 1
    late = client.patch(f"/api/bakes/{i}", json={"lines": [*lines, salt], "revision": bake["revision"]})
    assert late.status_code == 409
    assert late.json["current"]["settings"]["lines"] == first.json["settings"]["lines"]
    assert late.json["yours"]["lines"][-1]["ingredient"] == "sugar"
    tapped = client.post(f"/api/bakes/{i}/taps", json={"key": "k-weigh", "kind": "weigh"})
    assert tapped.status_code == 201
    assert client.get(f"/api/bakes/{i}").json["revision"] == first.json["revision"] + 1
    assert (
        client.patch(f"/api/bakes/{i}", json={"lines": [*lines, oil, salt]}).status_code == 200
    )  # a caller without: the newest


def test_what_is_taken_away_is_taken_on_its_revision(client: FlaskClient, bake: dict[str, Any]) -> None:
    """Another tablet added something since: the last addition is not the one that was meant, and nothing is taken."""
    url = f"/api/bakes/{bake['id']}"
    oil = client.post(f"{url}/additions", json={"ingredient": "oil", "amount": "10 g"}).json
    both = client.post(f"{url}/additions", json={"ingredient": "water", "amount": "20 g"}).json
    for path in ("/additions", "/bloom", "/spells", ""):
        late = client.delete(f"{url}{path}?revision={oil['revision']}")
        assert (late.status_code, late.json["current"]["revision"]) == (409, both["revision"])
    assert client.get(url).json["settings"]["additions"] == both["settings"]["additions"]
    left = client.delete(f"{url}/additions?revision={both['revision']}")
    assert [x["ingredient"] for x in left.json["settings"]["additions"]] == ["oil"]
    assert client.delete(f"{url}?revision=x").status_code == 422
    assert client.delete(f"{url}?revision={left.json['revision']}").status_code == 200


def test_two_hours_of_the_air_are_two_edits(client: FlaskClient, kitchen: int) -> None:
    """Each was typed over what was on the screen before the other; neither loses the other's. One that is no number
    stores nothing."""
    url = f"/api/kitchens/{kitchen}"
    before = client.get(url).json["hourly_c"]
    for hour, c in ((5, 17.5), (6, 18.5)):
        assert client.patch(url, json={"hour_c": {str(hour): c}}).status_code == 200
    refused = client.patch(url, json={"hour_c": {"7": "cold", "8": 20}})
    assert (refused.status_code, refused.json["errors"][0]["pointer"]) == (422, "/hour_c/7")
    assert "“cold” is no number" in refused.json["detail"]
    assert client.get(url).json["hourly_c"] == [*before[:5], 17.5, 18.5, *before[7:]]
    assert client.patch(url, json={"altitude_m": ""}).status_code == 422


def test_the_same_key_makes_one_thing(client: FlaskClient, clock: Clock, kitchen: int) -> None:
    key = {"Idempotency-Key": "press-000001"}
    body = {"kitchen_id": kitchen, "serve": "in 5 h"}
    first, again = (client.post("/api/bakes", json=body, headers=key) for _ in "ab")
    assert (first.status_code, again.status_code) == (201, 201)
    assert again.json == first.json
    assert client.post("/api/bakes", json={**body, "serve": "in 6 h"}, headers=key).status_code == 409
    assert len(client.get(f"/api/kitchens/{kitchen}/bench").json["bakes"]) == 1
    refused = client.post("/api/bakes", json={**body, "serve": "1 h ago"}, headers={"Idempotency-Key": "press-000002"})
    assert refused.status_code == 422
    assert client.post("/api/bakes", json=body, headers={"Idempotency-Key": "press-000002"}).status_code == 201
    clock.pass_(hours=25)
    assert client.post("/api/bakes", json=body, headers=key).json["id"] != first.json["id"]  # kept a day


def test_writers_of_one_kitchen_take_turns_and_none_is_locked_out(client: FlaskClient, app: App, kitchen: int) -> None:
    """Eight writers, forty writes: every one is stored once, and the write lock is held for the writing alone."""
    bakes = [client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 5 h"}).json["id"] for _ in range(2)]
    app.held_ms.clear()
    told: list[int] = []

    def write(who: int) -> None:
        own = client.application.test_client()
        for n in range(5):
            if n % 2:
                told.append(own.patch(f"/api/bakes/{bakes[who % 2]}", json={"note": f"{who} {n}"}).status_code)
            else:
                told.append(
                    own.post(
                        f"/api/kitchens/{kitchen}/air", json={"points": [[f"{who * 5 + n + 1} min ago", 20.0 + who]]}
                    ).status_code
                )

    threads = [threading.Thread(target=write, args=(k,)) for k in range(8)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    assert sorted(set(told)) == [200, 201] and len(told) == 40
    assert len(client.get(f"/api/kitchens/{kitchen}/air").json["readings"]) == 24
    assert len(app.held_ms) == 40


def test_a_kitchen_that_was_changed_meanwhile_makes_the_change_again(
    client: FlaskClient, app: App, kitchen: int
) -> None:
    """Another process writes while a change is computed: it is found out, and the change is made on what is there
    now."""
    ran = threading.Event()

    def meanwhile() -> None:
        if not ran.is_set():
            ran.set()
            with app.engine.begin() as other:
                other.exec_driver_sql("update kitchen set version = version + 1, tap_c = 7.5 where id = ?", (kitchen,))

    with app.unit() as unit:
        unit.guard("kitchen", "version", kitchen, bumps=True)
    real = app.kitchen

    def slow(session: Any, kitchen_id: int) -> Any:
        found = real(session, kitchen_id)
        meanwhile()
        return found

    app.kitchen = slow  # type: ignore[method-assign]
    made = client.patch(f"/api/kitchens/{kitchen}", json={"cooks": 2})
    assert (made.status_code, made.json["cooks"], made.json["tap_c"]) == (200, 2, 7.5)


def test_the_only_load_taken_back_leaves_every_other_forecast(
    client: FlaskClient, clock: Clock, bake: dict[str, Any]
) -> None:
    """What was said at mixing and learned from the thermometer stays; only what was said at the load goes."""
    i = bake["id"]
    client.post(f"/api/bakes/{i}/taps", json={"key": "k-mix", "kind": "mix", "at": "20 min ago"})
    client.post("/api/readings", json={"bake_id": i, "kind": "dough_c", "value": 27, "at": "15 min ago"})
    friction = client.get(f"/api/kitchens/{bake['kitchen_id']}").json["friction"]
    assert friction
    load = client.post(f"/api/bakes/{i}/taps", json={"key": "l-001", "kind": "load", "round_no": 1, "spot": 1}).json
    made = next(t for t in load["taps"] if t["kind"] == "load")
    client.delete(f"/api/bakes/{i}/taps/{made['id']}")
    said = {f["name"] for f in client.get(f"/api/bakes/{i}").json["keep"]["facts"]}
    assert said == {"ready to ball"}
    reading = client.get(f"/api/bakes/{i}").json["rise"]["readings"][0]["id"]
    client.delete(f"/api/readings/{reading}")
    assert client.get(f"/api/kitchens/{bake['kitchen_id']}").json["friction"] == {}  # taken back with its reading


def test_a_change_of_the_kitchen_is_told_as_what_moved_the_plan(
    client: FlaskClient, kitchen: int, bake: dict[str, Any]
) -> None:
    assert client.patch(f"/api/kitchens/{kitchen}", json={"hourly_c": [12.0] * 24}).status_code == 200
    told = [c["because"] for c in client.get(f"/api/kitchens/{kitchen}/day").json["moved"]]
    assert told[0] == "the kitchen's air is another"


def test_an_act_is_not_taken_back_over_what_was_done_since(client: FlaskClient, clock: Clock, kitchen: int) -> None:
    made = client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 26 h"}).json
    ways = client.get(f"/api/bakes/{made['id']}/others").json["others"]
    assert client.post(f"/api/bakes/{made['id']}/others", json={"id": ways[0]["id"]}).status_code == 200
    day = client.get(f"/api/kitchens/{kitchen}/day").json
    assert day["undo"] is not None
    client.post(f"/api/bakes/{made['id']}/taps", json={"key": "k-mix", "kind": "mix"})
    assert client.get(f"/api/kitchens/{kitchen}/day").json["undo"] is None
    assert client.post(f"/api/kitchens/{kitchen}/day/acts/{day['undo']['id']}/undo", json={}).status_code == 409


def test_a_poll_without_news_is_no_answer_computed_again(
    client: FlaskClient, clock: Clock, kitchen: int, bake: dict[str, Any]
) -> None:
    url = f"/api/kitchens/{kitchen}/bench"
    tag = client.get(url).headers["ETag"]
    assert client.get(url, headers={"If-None-Match": tag}).status_code == 304
    client.patch(f"/api/bakes/{bake['id']}", json={"name": "News"})
    assert client.get(url, headers={"If-None-Match": tag}).status_code == 200
    client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "l-001", "kind": "load", "round_no": 1, "spot": 1})
    hearth = f"/api/bakes/{bake['id']}/hearth"
    tag = client.get(hearth).headers["ETag"]
    assert client.get(hearth, headers={"If-None-Match": tag}).status_code == 304
    client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "l-002", "kind": "load", "round_no": 2, "spot": 2})
    assert client.get(hearth, headers={"If-None-Match": tag}).status_code == 200


def test_a_clock_that_is_set_back_refuses_no_tap(client: FlaskClient, clock: Clock, bake: dict[str, Any]) -> None:
    """The machine's clock goes on where it was; a page's own stamp from the future counts as now; typed words in the
    future do not."""
    wall, running = [1000.0], [50.0]
    told = SystemClock(lambda: wall[0], lambda: running[0])
    seen = [told().timestamp()]
    for moved, passed in ((1.0, 1.0), (-3600.0, 10.0), (5.0, 5.0), (7200.0, 20.0)):
        wall[0] += moved
        running[0] += passed
        seen.append(told().timestamp())
    assert seen == [1000.0, 1001.0, 1011.0, 1016.0, 4606.0]
    ahead = (clock.now + dt.timedelta(minutes=50)).isoformat()
    stamped = client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "k-weigh", "kind": "weigh", "at": ahead})
    assert stamped.status_code == 201
    assert dt.datetime.fromisoformat(stamped.json["taps"][0]["at"]) == clock.now
    assert (
        client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "k-mix", "kind": "mix", "at": "in 2 h"}).status_code
        == 422
    )
