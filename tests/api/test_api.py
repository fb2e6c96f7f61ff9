"""The API against its own OpenAPI, and what a cook may count on: nothing lost, nothing half-saved, clear words."""

from __future__ import annotations

import contextlib
import datetime as dt
import json
import os
import subprocess
import time
from pathlib import Path
from typing import Any

import pytest
import schemathesis
from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis.errors import Unsatisfiable
from schemathesis.generation import GenerationMode

from brassclock.api.app import openapi_document
from helpers import Clock

ROOT = Path(__file__).parents[2]
EXAMPLES = int(
    os.environ.get("EXAMPLES", "5")
)  # of each operation, right and wrong; the figure of docs/performance.md is of 60


def test_openapi_document_and_types_are_fresh(tmp_path: Path) -> None:
    """The committed document is the one the handlers give, and the TypeScript types are made from it."""
    fresh = json.loads(json.dumps(openapi_document()))
    assert json.loads((ROOT / "src/brassclock/api/openapi.json").read_text()) == fresh
    made = tmp_path / "schema.d.ts"
    command = [
        "npx",
        "openapi-typescript",
        str(ROOT / "src/brassclock/api/openapi.json"),
        "--default-non-nullable=false",
        "-o",
        str(made),
    ]
    subprocess.run(command, cwd=ROOT / "web", check=True, capture_output=True)
    assert made.read_text() == (ROOT / "web/src/api/schema.d.ts").read_text()


def test_every_answer_is_as_documented(client: FlaskClient, bake: dict[str, Any]) -> None:
    """Whatever is asked, the answer has a documented status, type and shape, and is never a crash."""
    found = schemathesis.openapi.from_wsgi("/api/openapi.json", client.application)
    checks = schemathesis.checks.CHECKS.get_by_names(
        ["not_a_server_error", "status_code_conformance", "content_type_conformance", "response_schema_conformance"]
    )
    operations, took_s = list(found.get_all_operations()), list[tuple[float, str]]()
    for operation in operations:
        for mode in GenerationMode:

            @given(case=operation.ok().as_strategy(generation_mode=mode))
            @settings(max_examples=EXAMPLES, deadline=None, suppress_health_check=list(HealthCheck), database=None)
            def conforms(case: Any) -> None:
                began = time.perf_counter()
                case.call_and_validate(checks=checks)
                took_s.append((time.perf_counter() - began, f"{case.method} {case.path}"))

            with contextlib.suppress(Unsatisfiable):  # an operation that takes nothing has nothing to be wrong
                conforms()
    print(f"{len(took_s)} calls of {len(operations)} operations; the longest {sorted(took_s, reverse=True)[:5]}")
    assert len(operations) >= 20 and len(took_s) >= 6 * len(operations)


def tap(client: FlaskClient, bake: int, kind: str, key: str, **rest: Any) -> Any:
    return client.post(f"/api/bakes/{bake}/taps", json={"key": key, "kind": kind, **rest})


def test_a_whole_bake_from_bowl_to_towel(client: FlaskClient, clock: Clock, bake: dict[str, Any]) -> None:
    """Weigh, mix, read, ball, roll, load, turn, off, judge, keep: each leaf follows what was done."""
    i = bake["id"]
    assert bake["leaf"] == "weigh"
    assert bake["mix"]["liquid_temp_c"] > 10
    assert [s["key"] for s in bake["steps"]][:2] == ["weigh", "mix"]
    said = "".join(p["text"] for p in bake["say"])
    assert said.startswith("Weigh the hatch pitas at ")
    tap(client, i, "weigh", "k-weigh")
    tap(client, i, "mix", "k-mix")
    clock.pass_(minutes=45)
    before = client.get(f"/api/bakes/{i}").json["rise"]["windows"][0]["ready"]
    answer = client.post("/api/readings", json={"bake_id": i, "kind": "ratio", "value": 1.2})
    after = answer.json["rise"]["windows"][0]["ready"]
    assert after["p50"] > before["p50"]  # a slow dough
    assert answer.json["rise"]["activity"] < 1
    clock.pass_(minutes=70)
    tap(client, i, "ball", "k-ball")
    clock.pass_(minutes=30)
    tap(client, i, "roll", "k-roll", at="5 min ago")
    hearth = client.get(f"/api/bakes/{i}/hearth").json
    assert not hearth["started"]
    program = hearth["program"]
    for number in range(1, 9):
        spot = 1 + number % 2
        loaded = tap(client, i, "load", f"l-{number:03}", round_no=number, spot=spot).json
        turn = next(d for d in loaded["due"] if d["move"] == "turn" and d["spot"] == spot)
        assert turn["round_no"] == number
        clock.pass_(seconds=program["turn_s"])
        if number == 1:
            tap(client, i, "puffed", "f-001", round_no=1, spot=spot)
        tap(client, i, "turn", f"t-{number:03}", round_no=number, spot=spot)
        clock.pass_(seconds=program["off_s"] - program["turn_s"])
        done = tap(client, i, "off", f"o-{number:03}", round_no=number, spot=spot).json
        assert number in done["off"]
        clock.pass_(seconds=40)
    assert done["finished"]
    for number in range(1, 9):
        client.put(f"/api/bakes/{i}/outcomes", json={"round_no": number, "pocket": "full", "colour": "right"})
    kept = client.put(f"/api/bakes/{i}/status", json={"status": "kept"}).json
    assert kept["leaf"] == "keep"
    assert all(leaf["state"] == "done" for leaf in kept["leaves"])
    facts = {f["name"]: f for f in kept["keep"]["facts"]}
    assert facts["taken off"]["inside"] is True
    assert facts["ready to ball"]["was"] == pytest.approx(115 * 60, abs=5)
    beliefs = {b["kind"]: b for b in client.get(f"/api/kitchens/{kept['kitchen_id']}/lessons").json["beliefs"]}
    assert set(beliefs) - {"pace"} == {"activity", "surface"}
    taught = beliefs["activity"]
    assert taught["mean"] < taught["start"] == 1 and taught["lessons"][0]["bake"] == kept["name"]
    client.put(f"/api/bakes/{i}/status", json={"status": "live"})
    assert client.get(f"/api/kitchens/{kept['kitchen_id']}/lessons").json["beliefs"] == []  # undo: never taught


def test_taps_are_stored_once_and_can_be_moved_and_undone(
    client: FlaskClient, clock: Clock, bake: dict[str, Any]
) -> None:
    i = bake["id"]
    said_at = client.get(f"/api/bakes/{i}/hearth").json["clock"]["now"]
    clock.pass_(minutes=20)  # it was kept on a tablet meanwhile: the words count from when they were said
    mixed = tap(client, i, "mix", "k-mix", at="30 min ago", said_at=said_at).json["taps"][0]
    assert dt.datetime.fromisoformat(said_at) - dt.datetime.fromisoformat(mixed["at"]) == dt.timedelta(minutes=30)
    assert tap(client, i, "ball", "k-ball", said_at="1789-07-14T12:00:00Z").status_code == 422
    first = tap(client, i, "load", "same-key", round_no=1, spot=1).json
    clock.pass_(seconds=3)
    again = tap(client, i, "load", "same-key", round_no=1, spot=1)
    assert again.status_code == 201
    assert [t["id"] for t in again.json["taps"]] == [t["id"] for t in first["taps"]]
    for kind, rest, words in (
        ("load", {"round_no": 2, "spot": 1}, "holds round 1"),
        ("off", {"round_no": 3, "spot": 2}, "not on spot 2"),
        ("load", {"round_no": 99, "spot": 2}, "1 to 8"),
        ("mix", {}, "Already marked mixed"),
    ):
        refused = tap(client, i, kind, f"bad-{kind}-{rest.get('round_no', 0)}", **rest)
        assert refused.status_code == 409
        assert words in refused.json["detail"]
    load = next(t for t in again.json["taps"] if t["kind"] == "load")
    moved = client.patch(f"/api/bakes/{i}/taps/{load['id']}", json={"at": "20 s ago"}).json
    turn = next(d for d in moved["due"] if d["move"] == "turn")
    assert turn["at"] < next(d for d in first["due"] if d["move"] == "turn")["at"]
    undone = client.delete(f"/api/bakes/{i}/taps/{load['id']}").json
    assert not undone["started"]
    assert client.delete(f"/api/bakes/{i}/taps/{load['id']}").status_code == 404


BAD = [
    ("POST", "/api/bakes", {"kitchen_id": 1, "serve": "1 h ago"}, 422, "/serve", "in the past"),
    ("POST", "/api/bakes", {"kitchen_id": 1, "serve": "when ready"}, 422, "/serve", "Friday 7 pm"),
    ("POST", "/api/bakes", {"kitchen_id": 77, "serve": "in 5 h"}, 404, None, "no kitchen 77"),
    (
        "PATCH",
        "/api/bakes/1",
        {"lines": [{"ingredient": "plan flour", "amount": "x"}, {"ingredient": "water", "amount": "0 g"}]},
        422,
        "/lines/1/amount",
        "zero",
    ),
    (
        "PATCH",
        "/api/bakes/1",
        {"count": 0, "piece_g": -5, "dough_c": 900, "diameter_cm": 1e99},
        422,
        "/piece_g",
        "5 to 5000",
    ),
    ("PATCH", "/api/bakes/1", {"surface_c": 5000}, 422, "/surface_c", "-30 to 600"),
    ("PATCH", "/api/bakes/1", {"note": "x" * 20_001}, 422, "/note", "20000"),
    ("PATCH", "/api/bakes/1", {"colour": "blue"}, 422, "/colour", "is not known here"),
    ("POST", "/api/readings", {"bake_id": 1, "kind": "ratio", "value": 9}, 422, "/value", "0.8 to 5"),
    ("POST", "/api/readings", {"bake_id": 1, "kind": "ratio", "value": 1.2}, 409, None, "not mixed"),
    (
        "POST",
        "/api/kitchens",
        {"zone": "Mars/Base", "room_c": 400, "surface": {"name": "", "kind": "oil"}},
        422,
        "/zone",
        "Europe/Zurich",
    ),
]


@pytest.mark.parametrize(("method", "path", "body", "status", "pointer", "words"), BAD)
def test_bad_input_is_told_and_nothing_is_stored(
    client: FlaskClient,
    bake: dict[str, Any],
    method: str,
    path: str,
    body: Any,
    status: int,
    pointer: str | None,
    words: str,
) -> None:
    before = client.get("/api/bakes/1").json
    answer = client.open(path, method=method, json=body)
    assert answer.status_code == status, answer.text
    assert answer.content_type == "application/problem+json"
    assert words in answer.json["detail"]
    if pointer:
        assert pointer in [e["pointer"] for e in answer.json["errors"]]
    after = client.get("/api/bakes/1").json
    assert {**after, "clock": 0} == {**before, "clock": 0}


def test_every_fault_at_once_and_the_wire_is_guarded(client: FlaskClient, bake: dict[str, Any]) -> None:
    many = client.patch("/api/bakes/1", json={"count": 0, "piece_g": -5, "dough_c": 900}).json
    assert {e["pointer"] for e in many["errors"]} == {"/count", "/piece_g", "/dough_c"}
    nan = client.patch("/api/bakes/1", data='{"piece_g": NaN}', content_type="application/json")
    assert nan.status_code == 422
    assert client.patch("/api/bakes/1", data="{", content_type="application/json").status_code == 400
    assert client.patch("/api/bakes/1", data="a=1").status_code == 415
    big = client.patch("/api/bakes/1", json={"note": "x" * 5_000_000})
    assert (big.status_code, "20 000" in big.json["detail"]) == (413, True)
    foreign = client.patch("/api/bakes/1", json={"name": "no"}, headers={"Origin": "http://elsewhere.example"})
    assert foreign.status_code == 403
    assert client.put("/api/bakes/1").status_code == 405
    assert client.get("/api/nothing").status_code == 404
    assert client.post("/api/compute/rune", json={}).status_code == 404


def test_a_deleted_bake_comes_back_whole(client: FlaskClient, kitchen: dict[str, Any], bake: dict[str, Any]) -> None:
    i = bake["id"]
    client.patch(f"/api/bakes/{i}", json={"name": "Supper rounds", "note": "more salt"})
    client.delete(f"/api/bakes/{i}")
    assert client.get(f"/api/bakes/{i}").status_code == 404
    assert client.get(f"/api/kitchens/{kitchen['id']}/bench").json["bakes"] == []
    assert client.post(f"/api/bakes/{i}/restore", json={}).json["settings"]["note"] == "more salt"
    assert client.put(f"/api/bakes/{i}/status", json={"status": "abandoned"}).json["status"] == "abandoned"
    assert tap(client, i, "mix", "late-mix").status_code == 409


def test_pages_carry_a_strict_policy(client: FlaskClient) -> None:
    answer = client.get("/k/1/bench")
    policy = answer.headers["Content-Security-Policy"]
    assert "default-src 'none'" in policy
    assert "unsafe" not in policy
    nonce = policy.split("nonce-")[1].split("'")[0]
    assert nonce in answer.text
    assert nonce not in client.get("/").text
