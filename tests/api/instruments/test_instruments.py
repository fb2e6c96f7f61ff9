"""Instruments: what they send is kept once and whole; what it moves; what is not believed, from where, and what is said
of it."""

from __future__ import annotations

import base64
import datetime as dt
from collections.abc import Callable
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from brassclock.services.app import App
from brassclock.services.instruments.derived import watch
from helpers import Clock

Send = Callable[..., Any]


@pytest.fixture
def send(client: FlaskClient, kitchen: dict[str, Any]) -> Send:
    """Sends a body as an instrument of the kitchen does."""
    made = client.post("/api/devices/instrument", json={"kitchen_id": kitchen["id"], "name": "Probes"}).json
    bearer = {"Authorization": f"Bearer {made['token']}"}

    def go(body: Any, media: str | None = None) -> Any:
        if media is None:
            return client.post("/api/instruments/readings", json=body, headers=bearer)
        return client.post("/api/instruments/readings", data=body, content_type=media, headers=bearer)

    return go


def row(clock: Clock, channel: str, values: list[float], every_min: float = 5.0) -> dict[str, Any]:
    """So many values of a channel that end now."""
    begin = clock.now - dt.timedelta(minutes=every_min * (len(values) - 1))
    at = [(begin + dt.timedelta(minutes=every_min * n)).isoformat() for n in range(len(values))]
    return {"readings": [{"channel": channel, "value": v, "at": t} for v, t in zip(values, at, strict=True)]}


def channel(client: FlaskClient, name: str) -> dict[str, Any]:
    found = client.get("/api/kitchens/1/instruments").json["instruments"]
    return next(c for i in found for c in i["channels"] if c["name"] == name)


def air(client: FlaskClient) -> list[float]:
    return [r["value"] for r in client.get("/api/kitchens/1/air").json["readings"]]


SAME = [
    ({"channel": "room", "value": 68.0, "unit": "F", "at": "2026-11-24T11:00:00+00:00"}, None),
    ("at,channel,temp_f\n2026-11-24T11:00:00+00:00,room,68\n", "text/csv"),
    ("at;channel;value_c\n2026-11-24 11:00:00;room;20,0\n", "text/csv"),
    ("room temp_c=20.0 1795518000000000000\n", "text/plain"),
    ([{"channel": "room", "value": 293.15, "unit": "K", "at": 1795518000}], None),
]


@pytest.mark.parametrize(("body", "media"), SAME, ids=["json", "csv, F", "csv, commas", "lines", "kelvin, seconds"])
def test_each_way_of_writing_a_reading_is_that_reading(
    client: FlaskClient, send: Send, body: Any, media: str | None
) -> None:
    answer = send(body, media)
    assert answer.status_code == 200, answer.text
    assert (answer.json["taken"], answer.json["channels"]) == (1, ["room"])
    found = channel(client, "room")
    assert found["value"] == pytest.approx(20.0)
    assert found["at"].startswith("2026-11-24T11:00:00")
    assert (found["use"], found["place"]) == ("air", "bench")  # by its name, as it says


WRONG = [
    ("{", "application/json", 400, "cannot be read as JSON"),
    ({"channel": "room", "value": "warm"}, None, 422, "is no number"),
    ({"channel": "room", "value": 20, "unit": "bar"}, None, 422, "no unit known here"),
    ({"channel": "room", "value": 20, "at": "2027-01-01T00:00:00Z"}, None, 422, "lies ahead"),
    ({"channel": "room", "value": 20, "battery": 3}, None, 422, "nothing else."),
    ({"channel": "", "value": 20}, None, 422, "no channel's name"),
    ("temp_c 20", "text/plain", 422, "no unit known"),
    ("when,what\n1,2\n", "text/csv", 422, "name the columns"),
    (b"at,channel,value_c\n\xff\xfe", "text/csv", 422, "not UTF-8"),
    ({"readings": []}, None, 422, "no reading in it"),
]


@pytest.mark.parametrize(("body", "media", "status", "words"), WRONG)
def test_a_body_with_one_fault_is_refused_whole(
    client: FlaskClient, send: Send, body: Any, media: str | None, status: int, words: str
) -> None:
    if isinstance(body, dict) and "value" in body:
        body = {"readings": [{"channel": "fridge", "value": 4.0}, body]}
    answer = send(body, media)
    assert answer.status_code == status and words.rstrip(".") in answer.text.replace("\\u2019", "'"), answer.text
    found = client.get("/api/kitchens/1/instruments").json["instruments"]
    assert [i["channels"] for i in found] == [[]]


@settings(max_examples=25, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(st.lists(st.tuples(st.integers(0, 300), st.integers(150, 250)), min_size=1, max_size=60), st.randoms())
def test_order_and_repeats_change_nothing(
    client: FlaskClient, send: Send, clock: Clock, points: Any, random: Any
) -> None:
    """Late, doubled, in parts, in any order: what is kept is each instant once, the first that came."""
    first: dict[int, int] = {}
    name = f"probe {len(client.get('/api/kitchens/1/instruments').json['instruments'][0]['channels'])}"
    parts, rest = [], list(points)
    while rest:
        n = random.randint(1, len(rest))
        parts.append(rest[:n])
        rest = rest[n:]
    taken = 0
    for part in parts:
        for minute, value in part:
            first.setdefault(minute, value)
        seen = dict(reversed(part))  # within one body the first of an instant counts
        body = [
            {"channel": name, "value": v / 10, "at": (clock.now - dt.timedelta(minutes=m)).isoformat()}
            for m, v in seen.items()
        ]
        random.shuffle(body)
        taken += send(body).json["taken"]
        again = send(body).json
        assert (again["taken"], again["known"]) == (0, len(body))
    assert taken == len(first)
    assert channel(client, name)["value"] == pytest.approx(first[min(first)] / 10)


def test_a_room_probe_drives_the_plan_and_is_thinned(app: App, client: FlaskClient, send: Send, clock: Clock) -> None:
    bake = client.post("/api/bakes", json={"kitchen_id": 1, "serve": "in 7 h"}).json
    mixed = client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "mixed-001", "kind": "mix"})
    assert mixed.status_code == 201
    before = client.get(f"/api/bakes/{bake['id']}").json
    clock.pass_(minutes=31)
    send(row(clock, "room", [33.0 + 0.1 * (n % 2) for n in range(31)], 1.0))
    assert air(client) == [33.0]  # an hour of the same is one reading
    after = client.get(f"/api/bakes/{bake['id']}").json
    ready = lambda b: next(s["at"] for s in b["steps"] if s["key"] == "ball")  # noqa: E731
    assert ready(after) < ready(before)
    with app.connect() as connection:
        told = connection.exec_driver_sql("select because from plan_change order by id desc").scalar()
    assert told == "a probe told otherwise"


def test_a_dough_probe_is_read_as_the_dough(client: FlaskClient, send: Send, clock: Clock) -> None:
    bake = client.post("/api/bakes", json={"kitchen_id": 1, "serve": "in 7 h"}).json["id"]
    client.post(f"/api/bakes/{bake}/taps", json={"key": "mixed-001", "kind": "mix"})
    clock.pass_(minutes=45)
    send(row(clock, "dough", [29.0 - 0.02 * n for n in range(90)], 1.0))
    seen = client.get(f"/api/bakes/{bake}").json
    kinds = [(r["kind"], r["source"]) for r in seen["rise"]["readings"]]
    assert kinds and set(kinds) == {("dough_c", "probe")}
    assert seen["rise"]["dough_c_now"] == pytest.approx(27.5, abs=1.0)


STILL, SOUND = [21.3] * 50, [21.0 + 0.15 * (n % 4) for n in range(24)]
SPOILT = [
    ("stuck", [*SOUND, *STILL], 5.0, "has stood still since"),
    ("absurd", [*SOUND, -127.0, -127.0, -127.0, -127.0], 5.0, "tells what cannot be since"),
    ("lost", SOUND, 5.0, "has been silent since"),
]


@pytest.mark.parametrize(("code", "values", "every", "words"), SPOILT, ids=[s[0] for s in SPOILT])
def test_a_probe_that_fails_is_said_and_left_out_from_where_it_went_wrong(
    client: FlaskClient, app: App, send: Send, clock: Clock, code: str, values: list[float], every: float, words: str
) -> None:
    went = clock.now - dt.timedelta(minutes=every * (len(values) - len(SOUND)))
    send(row(clock, "room", values, every))
    if code == "lost":
        clock.pass_(hours=2)
        watch(app)
    found = channel(client, "room")
    assert found["doubt"] == code
    assert words in found["text"] and "Plans go by the usual hours instead" in found["text"]
    assert words in client.get("/api/kitchens/1/bench").json["instruments"][0]["text"]
    kept = client.get("/api/kitchens/1/air").json["readings"]
    assert kept and all(dt.datetime.fromisoformat(r["at"]) <= went + dt.timedelta(minutes=5) for r in kept)
    assert all(20 < r["value"] < 22.5 for r in kept)
    # it comes back: it is believed again, and nothing is said any more
    clock.pass_(minutes=40)
    send(row(clock, "room", [22.0 + 0.2 * (n % 3) for n in range(8)], 4.0))
    watch(app)
    assert channel(client, "room")["doubt"] is None
    assert client.get("/api/kitchens/1/bench").json["instruments"] == []


def test_the_scale_tells_its_weight_once_it_stands_still(client: FlaskClient, send: Send, clock: Clock) -> None:
    def show(grams: float) -> dict[str, Any]:
        clock.pass_(seconds=0.5)
        send({"channel": "scale", "value": grams, "unit": "g"})
        return dict(client.get("/api/kitchens/1/scale?wants_g=500").json)

    moving = [show(g) for g in (0.0, 180.0, 420.0, 494.0, 500.2)]
    assert [m["still_g"] for m in moving] == [None] * 5 and moving[-1]["value_g"] == 500.2
    at_rest = [show(g) for g in (500.1, 500.1, 500.2, 500.1)]
    assert at_rest[-1]["still_g"] == pytest.approx(500.1, abs=0.11)
    assert send({"channel": "scale", "value": 500.1, "unit": "g"}).json["wants_g"] == 500
    clock.pass_(seconds=11)
    assert client.get("/api/kitchens/1/scale").json == {"value_g": None, "still_g": None, "at": None}


def test_a_pyrometer_says_how_hot_and_feeds_the_belief_once_it_has_settled(
    client: FlaskClient, send: Send, clock: Clock
) -> None:
    send({"channel": "gun", "value": 30.0})
    gun = channel(client, "gun")["id"]
    told = client.patch(f"/api/instruments/channels/{gun}", json={"use": "surface", "surface_id": 1})
    assert told.status_code == 200, told.text
    surface = lambda: client.get("/api/kitchens/1").json["surfaces"][0]  # noqa: E731
    for n in range(20):  # on its way it teaches nothing
        clock.pass_(seconds=15)
        send({"channel": "gun", "value": 40.0 + 9 * n})
    assert surface()["temp_c"] == 240
    for n in range(16):
        clock.pass_(seconds=15)
        send({"channel": "gun", "value": 262.0 + n % 3})
    seen = client.get("/api/kitchens/1/surfaces-seen").json["surfaces"][0]
    assert seen["settled_c"] == pytest.approx(263, abs=1)
    assert (surface()["temp_c"], surface()["source"]) == (pytest.approx(263, abs=2), "infrared")


def test_a_use_that_cannot_be_is_refused_with_everything_wrong(client: FlaskClient, send: Send) -> None:
    send({"channel": "pan", "value": 12.0, "unit": "kg"})
    pan = channel(client, "pan")["id"]
    wrong = client.patch(f"/api/instruments/channels/{pan}", json={"use": "surface", "place": "bench", "bake_id": 9})
    assert wrong.status_code == 422
    assert {e["pointer"] for e in wrong.json["errors"]} == {"/use", "/place", "/bake_id", "/surface_id"}
    assert channel(client, "pan")["use"] == "scale"


def test_messages_of_a_broker_are_readings_by_their_topics(
    client: FlaskClient, app: App, kitchen: dict[str, Any]
) -> None:
    from brassclock.formats.mqtt_topics import read
    from brassclock.mqtt import Listener

    topic = '[[topic]]\nfilter = "house/+/temperature"\nchannel = "{1}"\nunit = "F"\nkey = "t"\n'
    heard = Listener(app, read(f'host = "127.0.0.1"\nkitchen = {kitchen["id"]}\n{topic}'))
    assert heard.taken("house/room/temperature", b'{"t": 68, "battery": 90}')
    assert not heard.taken("house/room/humidity", b"41") and not heard.taken("house/room/temperature", b"n/a")
    assert channel(client, "room")["value"] == pytest.approx(20)
    for text, words in (
        ("host = 1", "give host"),
        ('host = "h"\nkitchen = 1\n', "names no topic"),
        (f'host = "h"\nkitchen = 1\nqos = 2\n{topic}', "“qos” is not known"),
        ('host = "h"\nkitchen = 1\n[[topic]]\nfilter = "a"\nchannel = "b"\nunit = "bar"\n', "no unit known"),
    ):
        with pytest.raises(ValueError, match=words):
            read(text)


def test_what_a_probe_told_goes_along_in_a_package_and_its_channel_does_not(
    client: FlaskClient, send: Send, clock: Clock, app: App
) -> None:
    """In another kitchen the same number may be another probe's."""
    send(row(clock, "room", [21.0, 23.0, 21.2], 15.0))
    packed = client.get("/api/kitchens/1/package").data
    other = client.post("/api/kitchens", json={"zone": "UTC", "surface": {"name": "P", "kind": "iron_plate"}}).json[
        "id"
    ]
    body = {"data": base64.b64encode(packed).decode()}
    assert client.post(f"/api/kitchens/{other}/packages", json=body).status_code == 201
    with app.connect() as connection:
        found = connection.exec_driver_sql("select kitchen_id, channel_id from reading order by id").fetchall()
    assert {c for k, c in found if k == 1} == {1} and {c for k, c in found if k == other} == {None}


def test_a_thinned_reading_that_the_cook_takes_back_stays_away(client: FlaskClient, send: Send, clock: Clock) -> None:
    send(row(clock, "room", [21.0, 21.1, 24.0, 24.1, 21.2, 21.3, 21.2], 8.0))
    warm = next(r for r in client.get("/api/kitchens/1/air").json["readings"] if r["value"] > 23)
    client.delete(f"/api/kitchens/1/air/{warm['id']}")
    clock.pass_(minutes=12)
    send({"channel": "room", "value": 21.6})
    clock.pass_(minutes=12)
    send({"channel": "room", "value": 22.4})
    assert warm["at"] not in {r["at"] for r in client.get("/api/kitchens/1/air").json["readings"]}
