"""What a single request may ask for: bounded before any work begins, refused with the bound; who may ask; what leaves
in a file."""

from __future__ import annotations

import datetime as dt
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.formats import calendars
from brassclock.services.app import App
from helpers import NOON, Clock


def calendar(*lines: str, begins: str = "20261124T080000Z", head: str = "") -> str:
    event = ["BEGIN:VEVENT", "UID:a", "SUMMARY:watch", f"DTSTART:{begins}", *lines, "END:VEVENT"]
    return "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", head, *event, "END:VCALENDAR"]).replace(
        "\r\n\r\n", "\r\n"
    )


BOMBS = [
    ("RRULE:FREQ=SECONDLY;UNTIL=21260101T000000Z", "“watch” repeats secondly"),
    ("RRULE:FREQ=MINUTELY", "hourly, daily"),
    ("RRULE:FREQ=DAILY;INTERVAL=0", "INTERVAL=0; a whole number from 1 on"),
    ("RRULE:FREQ=DAILY;INTERVAL=99999999999999", "INTERVAL="),
    ("RRULE:FREQ=DAILY;BYHOUR=1,2,3,4,5,6,7,8,9;BYMINUTE=0,1,2,3,4,5,6,7,8,9,10,11", "108 times a day"),
    ("DURATION:P9999999W", "would last P9999999W; 400 days"),
    ("RRULE:FREQ=HOURLY;BYSECOND=0,1,2,3,4,5,6,7,8,9", "240 times a day"),
]


@pytest.mark.parametrize(("line", "words"), BOMBS)
def test_a_calendar_that_would_never_end_is_refused_by_name(
    client: FlaskClient, kitchen: int, line: str, words: str
) -> None:
    answer = client.post(f"/api/kitchens/{kitchen}/calendars", json={"text": calendar(line)})
    assert (answer.status_code, words in answer.json["detail"]) == (422, True), answer.text
    assert client.get(f"/api/kitchens/{kitchen}/hours").json["calendars"] == []


@pytest.mark.parametrize(
    ("begins", "lines", "ahead"),
    [
        ("19700101T060000Z", ("DURATION:PT1H", "RRULE:FREQ=DAILY"), 14),
        ("00010101T060000Z", ("DURATION:PT1H", "RRULE:FREQ=WEEKLY;BYDAY=TU"), 2),
        ("19700101T060000Z", ("DURATION:PT30M", "RRULE:FREQ=HOURLY;INTERVAL=5"), 67),
        ("19400316T060000Z", ("DURATION:PT1H", "RRULE:FREQ=YEARLY"), 0),
        ("99991231T060000Z", ("DURATION:PT1H",), 0),
        ("20260101T060000Z", ("DURATION:PT1H", "RRULE:FREQ=DAILY;INTERVAL=3"), 5),
    ],
)
def test_when_an_item_began_is_no_fault(begins: str, lines: tuple[str, ...], ahead: int) -> None:
    """Long-running rules are expanded inside the window alone, on the same days as from their first one."""
    found = calendars.read(calendar(*lines, begins=begins), NOON, NOON + dt.timedelta(days=14), "UTC").hours
    assert abs(len(found) - ahead) <= 1
    if "INTERVAL=3" in "".join(lines):
        assert {(h.start.date() - dt.date(2026, 1, 1)).days % 3 for h in found} == {0}


def test_a_large_calendar_of_many_years_is_read_and_a_bad_one_keeps_nothing(client: FlaskClient, kitchen: int) -> None:
    """Twelve megabytes, as the limit says: the years that matter are few."""
    events = [
        f"BEGIN:VEVENT\r\nUID:{n}\r\nSUMMARY:{'x' * 325}\r\n"
        f"DTSTART:{2000 + n % 40}{1 + n % 12:02d}{1 + n % 28:02d}T060000Z\r\nDURATION:PT1H\r\nEND:VEVENT"
        for n in range(28_000)
    ]
    text = "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", *events, "END:VCALENDAR"])
    assert 11e6 < len(text) < 12e6
    answer = client.post(f"/api/kitchens/{kitchen}/calendars", json={"text": text})
    assert answer.status_code == 201, answer.text[:300]
    assert "28000 events" in answer.json["said"]
    larger = client.post(f"/api/kitchens/{kitchen}/calendars", data=b"x" * 14_500_000, content_type="application/json")
    assert (larger.status_code, "12 MB" in larger.json["detail"]) == (413, True)


def ahead(years: int) -> str:
    return (NOON + dt.timedelta(days=365.25 * years)).isoformat()


def test_instants_out_of_reach_are_refused_with_the_bound(
    client: FlaskClient, kitchen: int, bake: dict[str, Any]
) -> None:
    """Dragged or typed: ten years on, the year 8792, the years 1 and 9999, hours without end."""
    url = f"/api/bakes/{bake['id']}"
    client.post(f"/api/kitchens/{kitchen}/starters", json={"name": "Old"})
    feed = {"seed_g": 20, "flour_g": 50, "water_g": 50}
    for when in (
        ahead(10),
        ahead(3),
        "8792-01-01T00:00:00+00:00",
        "0001-01-01T00:00:00+14:00",
        "9999-12-31T23:59:59-12:00",
        ahead(-11),
    ):
        for method, path, body in (
            ("post", f"{url}/whatif", {"serve_at": when}),
            ("post", f"{url}/whatif/keep", {"serve_at": when}),
            ("put", f"{url}/pin", {"key": "mix", "at": when}),
            ("patch", url, {"serve": when}),
            ("post", "/api/readings", {"bake_id": bake["id"], "kind": "dough_c", "value": 24, "at": when}),
            ("post", f"/api/kitchens/{kitchen}/starters/1/feeds", {**feed, "at": when}),
            ("post", f"/api/kitchens/{kitchen}/air", {"points": [[when, 20]]}),
            (
                "post",
                "/api/compute/day",
                {"now": NOON.isoformat(), "serve_at": when, "bakes": [{"name": "a", "method": "hatch-pita"}]},
            ),
        ):
            answer = client.open(path, method=method.upper(), json=body)
            assert answer.status_code in (409, 422), (path, when, answer.text[:200])
    for text in (f"in {'9' * 40} h", f"{'9' * 70} min ago", "in 1e400 h"):
        assert client.patch(url, json={"serve": text}).status_code == 422
    assert client.get(url).json["serve_at"] == bake["serve_at"]


def test_the_now_of_a_computation_is_the_one_it_is_given() -> None:
    from brassclock.services import contract as compute

    day = {
        "bakes": [{"name": "a", "method": "hatch-pita"}],
        "serve_at": "2031-05-01T19:00:00+00:00",
        "now": "2031-05-01T06:00:00+00:00",
    }
    steps = compute.compute("day", day)["steps"]
    assert steps and all("2031-05-01T06" <= s["start"] < "2031-05-02" for s in steps)


BIG = [
    ("starter", {"seed_g": 20, "flour_g": 50, "water_g": 50, "path": [[i / 1000, 20.0] for i in range(50_000)]}),
    (
        "rise",
        {
            "lines": [{"ingredient": "plain_flour", "mass_g": 500}],
            "mix_temp_c": 24,
            "stages": [{"hours": 2, "ambient_c": 22}],
            "targets": [2.0] * 40_000,
        },
    ),
    ("day", {"serve_at": ahead(0), "bakes": [{"name": str(i), "method": "hatch-pita"} for i in range(32)]}),
]


@pytest.mark.parametrize(("kind", "body"), BIG, ids=[k for k, _ in BIG])
def test_lists_are_bounded_before_any_work(client: FlaskClient, kind: str, body: dict[str, Any]) -> None:
    assert client.post(f"/api/compute/{kind}", json=body).status_code in (413, 422)


def test_a_bake_forgotten_for_a_year_costs_no_more(
    client: FlaskClient, clock: Clock, kitchen: int, bake: dict[str, Any]
) -> None:
    client.post(f"/api/bakes/{bake['id']}/taps", json={"key": "k-mix", "kind": "mix"})
    clock.pass_(days=365)
    found = client.get(f"/api/bakes/{bake['id']}")
    assert (found.status_code, found.json["faults"]) == (200, {})
    assert client.get(f"/api/kitchens/{kitchen}/bench").status_code == 200


def test_live_bakes_are_bounded(client: FlaskClient, app: App, kitchen: int) -> None:
    from brassclock.store.tables import Bake

    with app.engine.begin() as c:
        row = {"kitchen_id": kitchen, "name": "x", "method": "blank", "lines": [], "serve_at": NOON, "created_at": NOON}
        c.execute(Bake.__table__.insert(), [{**Bake(**row).model_dump(), "id": None} for _ in range(24)])  # type: ignore[attr-defined]
    answer = client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 5 h"})
    assert (answer.status_code, "24 bakes are alive" in answer.json["detail"]) == (409, True)


def test_nothing_of_a_list_is_dropped_in_silence(client: FlaskClient, kitchen: int) -> None:
    """Sixty lines are read; a longer list is refused from its first line too many on."""
    lines = [f"{n} g {'sugar' if n % 2 else 'water'}" for n in range(1, 62)]
    refused = client.post(f"/api/kitchens/{kitchen}/import", json={"text": "\n".join(lines)})
    assert (refused.status_code, "from “61 g sugar” on" in refused.json["detail"]) == (422, True)
    taken = client.post(
        f"/api/kitchens/{kitchen}/import", json={"text": "\n".join([*lines[:59], "a pinch of moonlight"])}
    ).json
    assert (taken["read"], taken["unread"]) == (59, ["a pinch of moonlight"])


HOSTS = [
    ({"Host": "evil.example:8421"}, 421),
    ({"Host": "127.0.0.1.evil.example"}, 421),
    ({"Host": "localhost"}, 200),
    ({"Host": "[::1]:8421"}, 200),
    ({"Host": "127.0.0.1:8421", "Origin": "http://evil.example"}, 403),
    ({"Host": "127.0.0.1:8421", "Origin": "null"}, 403),
    ({"Host": "127.0.0.1:8421", "Origin": "http://127.0.0.1:9999"}, 403),
    ({"Host": "127.0.0.1:8421", "Origin": "http://localhost:8421"}, 200),
    ({"Host": "evil.example", "Origin": "http://evil.example"}, 421),
]


@pytest.mark.parametrize(("headers", "status"), HOSTS)
def test_only_pages_of_this_application_are_answered(client: FlaskClient, headers: dict[str, str], status: int) -> None:
    for path in ("/api/kitchens", "/", "/api/openapi.json", "/api/nothing" if status != 200 else "/api/health"):
        assert client.get(path, headers=headers).status_code == status, path
    assert client.get("/api/kitchens").headers["Cache-Control"] == "no-store"


ODD = [
    ("PATCH", "/api/bakes/1", b'{"name": "half \\ud83d"}', 422),
    ("GET", "/" + "x" * 5000, None, 404),
    ("GET", "/api/" + "x" * 900, None, 404),
    ("GET", "/%00", None, 404),
    ("DELETE", "/api/kitchens/1/ingredients/own_\u00b2", None, 404),
    ("POST", "/api/bakes", '{"kitchen_id": 1, "serve": "in 5 h", "method": "own-\u00b2"}'.encode(), 404),
    ("GET", "/api/bakes/" + "9" * 400, None, 422),
]


@pytest.mark.parametrize(("method", "path", "body", "status"), ODD)
def test_what_nothing_can_store_or_find_is_told(
    client: FlaskClient, bake: dict[str, Any], method: str, path: str, body: bytes | None, status: int
) -> None:
    answer = client.open(path, method=method, data=body, content_type="application/json" if body else None)
    assert answer.status_code == status, answer.text[:200]
    assert answer.json["detail"]


def test_files_carry_no_formula_and_no_tag(client: FlaskClient, bake: dict[str, Any]) -> None:
    from brassclock.formats.tables import read_markdown, safe_cell, write_csv, write_markdown

    for cell in ("=1+1", " \t=cmd", "\u200b@sum", "\r\n+1", "\ufeff-2", "\uff1d1"):
        assert safe_cell(cell).startswith("'")
    row = ("<img src=x>", "=2 g", 2.0, 0.1, "+part")
    assert ",=2 g" not in write_csv([row]) and "'=2 g" in write_csv([row])
    page = write_markdown("<script>", ["a\n# b"], [row], ["<b>stir"])
    assert "<script>" not in page and "<img" not in page and "\n# b" not in page
    assert read_markdown(page)[0] == "<script>"


def test_files_are_their_owners_alone(tmp_path: Path, app: App, kitchen: int) -> None:
    files = [p for p in tmp_path.iterdir() if p.is_file()]
    assert files and {oct(p.stat().st_mode & 0o777) for p in files} == {"0o600"}
