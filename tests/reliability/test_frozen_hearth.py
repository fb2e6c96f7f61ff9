"""A line on the heat is what it was when its first bread was loaded, whatever is done to the kitchen then."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

import pytest
from alembic import command
from flask.testing import FlaskClient
from sqlmodel import Session, create_engine, select

from brassclock.store.engine import FILE_NAME, alembic_config, newest_revision, open_store
from brassclock.store.tables import Bake, ForecastRecord
from helpers import Clock


def tap(client: FlaskClient, bake: int, kind: str, key: str, **rest: Any) -> Any:
    return client.post(f"/api/bakes/{bake}/taps", json={"key": key, "kind": kind, **rest})


def load_two(client: FlaskClient, clock: Clock, bake: int) -> dict[str, Any]:
    tap(client, bake, "mix", "k-mix", at="2 h ago")
    assert tap(client, bake, "load", "l-001", round_no=1, spot=1).status_code == 201
    clock.pass_(seconds=5)
    return dict(tap(client, bake, "load", "l-002", round_no=2, spot=2).json)


def pages(client: FlaskClient, kitchen: int, bake: int) -> list[int]:
    asked = [f"/api/kitchens/{kitchen}/{p}" for p in ("bench", "logbook", "day", "hours", "plan/ics", "plan/csv")]
    return [client.get(p).status_code for p in (*asked, f"/api/bakes/{bake}", f"/api/bakes/{bake}/hearth")]


def test_what_is_done_to_the_kitchen_leaves_a_line_as_it_is(
    client: FlaskClient, clock: Clock, kitchen: int, bake: dict[str, Any]
) -> None:
    """Spots lowered, surface removed, hands changed: two breads lie where they lay, and the line goes on to its end."""
    i = bake["id"]
    before = load_two(client, clock, i)
    surface = before["surface"]["id"]
    lowered = {"name": "Plate", "kind": "stone_oven", "temp_c": 300, "spots": 1}
    assert client.put(f"/api/kitchens/{kitchen}/surfaces/{surface}", json=lowered).status_code == 200
    assert client.patch(f"/api/kitchens/{kitchen}", json={"cooks": 3}).status_code == 200
    assert client.delete(f"/api/kitchens/{kitchen}/surfaces/{surface}").status_code == 200
    assert set(pages(client, kitchen, i)) == {200}
    after = client.get(f"/api/bakes/{i}/hearth").json
    for part in ("spots", "due", "waiting", "program", "surface", "rounds", "line"):
        assert after[part] == before[part], part
    assert client.get(f"/api/kitchens/{kitchen}/bench").json["broken"] == []
    for n in range(200):
        hearth = client.get(f"/api/bakes/{i}/hearth").json
        if hearth["finished"]:
            break
        due = hearth["due"][0]
        clock.pass_(seconds=20)
        moved = tap(client, i, due["move"], f"m-{n:03}", round_no=due["round_no"], spot=due["spot"])
        assert moved.status_code == 201, moved.text
    assert hearth["finished"] and len(hearth["off"]) == 8
    assert client.put(f"/api/bakes/{i}/status", json={"status": "kept"}).status_code == 200
    assert set(pages(client, kitchen, i)) == {200}


@pytest.mark.parametrize("change", [{"count": 3}, {"surface_id": 2}, {"surface_c": 300}, {"doneness": "pale"}])
def test_what_a_line_was_planned_from_is_refused_with_the_reason(
    client: FlaskClient, clock: Clock, bake: dict[str, Any], change: dict[str, Any]
) -> None:
    load_two(client, clock, bake["id"])
    refused = client.patch(f"/api/bakes/{bake['id']}", json=change)
    assert (refused.status_code, "went on the heat" in refused.json["detail"]) == (409, True)
    assert client.patch(f"/api/bakes/{bake['id']}", json={"note": "hot", "name": "Rounds"}).status_code == 200
    hearth = client.get(f"/api/bakes/{bake['id']}/hearth").json
    for number in (2, 1):
        made = next(t for t in hearth["taps"] if t["kind"] == "load" and t["round_no"] == number)
        assert client.delete(f"/api/bakes/{bake['id']}/taps/{made['id']}").status_code == 200
    assert client.patch(f"/api/bakes/{bake['id']}", json=change).status_code == 200  # it thawed


def test_a_bake_that_has_not_begun_goes_to_a_surface_that_is_there(
    client: FlaskClient, kitchen: int, bake: dict[str, Any]
) -> None:
    """Removed, the bake stands on the other, the day says why; brought back, the surface is there again."""
    first = bake["fire"]["surface"]["id"]
    left = client.delete(f"/api/kitchens/{kitchen}/surfaces/{first}").json["surfaces"]
    assert [s["name"] for s in left] == ["Plate" if first == 2 else "Stone"]
    moved = client.get(f"/api/bakes/{bake['id']}").json
    assert moved["settings"]["surface_id"] == left[0]["id"]
    told = [c["because"] for c in client.get(f"/api/kitchens/{kitchen}/day").json["moved"]]
    assert any("was taken away" in t for t in told) or moved["steps"] == bake["steps"]
    assert client.delete(f"/api/kitchens/{kitchen}/surfaces/{left[0]['id']}").status_code == 409
    assert len(client.post(f"/api/kitchens/{kitchen}/surfaces/{first}/restore", json={}).json["surfaces"]) == 2


def test_what_the_first_bread_shows_never_changes_the_moves(
    client: FlaskClient, clock: Clock, bake: dict[str, Any]
) -> None:
    """Facts may move the times of breads not yet off; a bread that was to be turned is turned."""
    hearth = load_two(client, clock, bake["id"])
    for n, (kind, seconds) in enumerate((("bubbles", 2), ("browned", 3), ("puffed", 3))):
        clock.pass_(seconds=seconds)
        told = tap(client, bake["id"], kind, f"f-{n:03}", round_no=1, spot=1).json
        assert (told["program"]["turn_s"] is None) == (hearth["program"]["turn_s"] is None)
        assert {d["move"] for d in told["due"]} <= {"turn", "off", "load"}


def test_old_bakes_are_frozen_as_they_were(tmp_path: Path) -> None:
    """A store of the schema before: a line whose surface is gone and whose count was lowered since is read from its
    taps."""
    old = create_engine(f"sqlite:///{tmp_path / FILE_NAME}")
    command.upgrade(alembic_config(old), "0008")
    at = "2026-01-01T00:00:00+00:00"
    with old.begin() as c:
        c.exec_driver_sql(
            "insert into kitchen (id, name, demo, zone, altitude_m, mass_unit, temp_unit, hourly_c, fridge_c, tap_c, "
            "spoons, scale_step_g, "
            "powder, friction, activity_mean, activity_sd_log, places, leavens, cooks, shelf_l, created_at) values "
            f"(1, 'k', 0, 'UTC', 0, 'g', 'C', '{json.dumps([20.0] * 24)}', 4, 12, 'us', .1, 'double', '{{}}', 1, .3, "
            f"'{{}}', '{{}}', 2, 40, '{at}')"
        )
        for number, count, surface in ((1, 2, None), (2, 8, 7)):
            c.exec_driver_sql(
                "insert or ignore into surface (id, kitchen_id, name, kind, temp_c, power, spots, greased, nonstick) "
                "values (7, 1, 'Plates', 'iron_plate', 235, 'high', 4, 'dry', 0)"
            )
            columns = {
                "id": number,
                "kitchen_id": 1,
                "name": "b",
                "method": "hatch-pita",
                "seal": "round",
                "status": "live",
                "lines": "[]",
                "unread": "[]",
                "held": "{}",
                "additions": "[]",
                "weighed": "[]",
                "strength": "kneaded",
                "bloomed": 0,
                "shape": "round",
                "dough_c": 26,
                "knead": "hand",
                "knead_min": 8,
                "bowl_g": 500,
                "bowl_material": "steel",
                "part_temps": "{}",
                "bulk_ratio": 1.9,
                "ball_ratio": 1.4,
                "spells": "[]",
                "bulk_place": "bench",
                "ball_place": "bench",
                "doneness": "golden",
                "docked": 0,
                "serve_at": at,
                "pins": "{}",
                "told": "{}",
                "note": "",
                "revision": 0,
                "created_at": at,
                "count": count,
                "surface_id": surface,
                "program": json.dumps({"turn_s": 40, "off_s": 60, "recover_s": 10, "second": "turn"}),
            }
            c.exec_driver_sql(
                f"insert into bake ({', '.join(columns)}) values ({', '.join('?' * len(columns))})",
                tuple(columns.values()),
            )
            for n, spot in ((1, 1), (5, 3)):
                c.exec_driver_sql(
                    "insert into tap (bake_id, key, kind, round_no, spot, at, made_at) values (?, ?, 'load', ?, ?, "
                    "?, ?)",
                    (number, f"l-{n}", n, spot, at, at),
                )
        for name, was in (("activity", (1.0, 0.3)), ("bag", (0.01, 2)), ("taken off", (50, 70))):
            c.exec_driver_sql(
                "insert into said (bake_id, name, p10, p50, p90, since) values (1, ?, ?, 60, ?, ?)", (name, *was, at)
            )
        c.exec_driver_sql("update bake set bloom_min = 99.0 where id = 1")
        c.exec_driver_sql("update bake set bloom_min = 6, activity_factor = 1 where id = 2")
    old.dispose()
    with Session(open_store(tmp_path)) as session:
        assert {x.name: x.p10 for x in session.exec(select(ForecastRecord))} == {"taken off": 50}
        tests = [(b.bloom_min, b.bloom_foamed) for b in session.exec(select(Bake))]
        assert tests == [(None, False), (6, True)]
        gone, there = (session.get(Bake, n) for n in (1, 2))
        assert gone is not None and gone.hearth is not None and there is not None and there.hearth is not None
        assert (gone.hearth["spots"], gone.hearth["count"], gone.hearth["cooks"]) == (3, 5, 2)
        assert (there.hearth["spots"], there.hearth["count"], there.hearth["surface"]["name"]) == (4, 8, "Plates")
    assert [p.name[:11] for p in (tmp_path / "backups").iterdir()] == [f"before-{newest_revision()}"]
