"""One bake that cannot be read or computed is named with what can be done, and hides no other."""

from __future__ import annotations

import sqlite3
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from brassclock.services.app import App
from brassclock.services.bake.ending import fill_ended
from brassclock.store.engine import FILE_NAME

GARBAGE = {  # column of a bake: what is no value of it
    "lines": ['[{"ingredient": 7}]', "not json", '{"a": 1}'],
    "told": ['{"mix": 3}', "nonsense"],
    "pins": ['{"mix": "soon"}', "[]"],
    "serve_at": ["tomorrow", ""],
    "cold": ['{"stage": "bulk"}', "7"],
    "program": ['{"turn_s": "x"}', "["],
    "hearth": ['{"spots": -3}', "{"],
    "spells": ['[{"start": "x"}]', "[0]"],
    "method": ["no-such-method"],
    "shape": ["cube"],
    "strength": ["iron"],
    "kept_at": ["never"],
    "summary": ["{", '{"leaves": 3}'],
    "bulk_air": ['[["a", "b"]]'],
    "filling": ['{"lines": 5}'],
}
CASES = [(column, text) for column, texts in GARBAGE.items() for text in texts]


def corrupt(tmp_path: Path, bake: int, column: str, text: str) -> None:
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        raw.execute(f"update bake set {column} = ?, revision = revision + 1 where id = ?", (text, bake))
        raw.execute("update kitchen set version = version + 1")


@given(case=st.sampled_from(CASES), kept=st.booleans())
@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck), database=None)
def test_the_others_are_shown_whatever_is_wrong_with_one(
    client: FlaskClient, tmp_path: Path, kitchen: int, case: tuple[str, str], kept: bool
) -> None:
    """Every page of the kitchen answers with the sound bake; the spoilt one is computed all the same or named, and can
    be deleted."""
    sound, spoilt = (
        client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 6 h"}).json["id"] for _ in "ab"
    )
    if kept:
        client.put(f"/api/bakes/{spoilt}/status", json={"status": "abandoned"})
    corrupt(tmp_path, spoilt, *case)
    at = f"/api/kitchens/{kitchen}"
    for page in ("bench", "logbook", "day", "hours", "day/together", "plan/ics", "plan/csv"):
        found = client.get(f"{at}/{page}")
        assert found.status_code == 200 or (page == "day/together" and found.status_code == 409), (
            case,
            page,
            found.text,
        )
    bench, book = client.get(f"{at}/bench").json, client.get(f"{at}/logbook").json
    shown = {b["id"] for b in (*bench["bakes"], *book["bakes"])}
    named = {b["bake_id"]: b for b in (*bench["broken"], *book["broken"])}
    assert sound in shown
    assert (spoilt in shown) != (spoilt in named), case
    own = client.get(f"/api/bakes/{spoilt}")
    assert own.status_code in (200, 409), (case, own.text)
    if spoilt in named:
        assert "Put it away or delete it" in named[spoilt]["text"]
    assert client.patch(f"/api/bakes/{sound}", json={"note": "sound"}).status_code == 200
    assert client.delete(f"/api/bakes/{spoilt}").status_code == 200
    assert client.get(f"{at}/bench").json["broken"] == []
    assert client.delete(f"/api/bakes/{sound}").status_code == 200


def test_one_that_cannot_be_computed_can_be_put_away_and_mended(
    client: FlaskClient, tmp_path: Path, bake: dict[str, Any]
) -> None:
    i = bake["id"]
    corrupt(tmp_path, i, "told", '{"mix": 3}')
    shown = client.get(f"/api/bakes/{i}").json
    assert "cannot be computed" in shown["faults"]["bake"]
    assert client.put(f"/api/bakes/{i}/status", json={"status": "abandoned"}).status_code == 200
    assert client.get(f"/api/kitchens/{bake['kitchen_id']}/bench").json["broken"] == []
    assert client.put(f"/api/bakes/{i}/status", json={"status": "live"}).json["faults"] == {}


def not_computed(raw: sqlite3.Connection, bake: int) -> None:
    """An ended bake as an upgrade leaves it."""
    raw.execute("update bake set summary = null where id = ?", (bake,))
    raw.execute("update past_bake set bread = '' where bake_id = ?", (bake,))


def test_bakes_that_ended_before_rows_were_stored_are_given_theirs(
    app: App, client: FlaskClient, tmp_path: Path, kitchen: int
) -> None:
    """An upgraded kitchen's logbook shows what it would, had its bakes been kept today; one that cannot be computed, or
    was deleted, hides none."""
    gone = client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 7 h"}).json["id"]
    client.put(f"/api/bakes/{gone}/status", json={"status": "kept"})
    client.delete(f"/api/bakes/{gone}")
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        not_computed(raw, gone)
    ended = [client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": f"in {n} h"}).json["id"] for n in (5, 6)]
    for i in ended:
        client.put(f"/api/bakes/{i}/status", json={"status": "kept"})
    pages = [client.get(f"/api/kitchens/{kitchen}/logbook").json["bakes"]]
    for n, i in enumerate(ended):
        with sqlite3.connect(tmp_path / FILE_NAME) as raw:
            not_computed(raw, i)
        if n:
            corrupt(tmp_path, i, "lines", "not json")
        pages.append(client.get(f"/api/kitchens/{kitchen}/logbook").json["bakes"])
        assert (fill_ended(app), fill_ended(app)) == (1, 0)
        pages.append(client.get(f"/api/kitchens/{kitchen}/logbook").json["bakes"])
    assert pages[0] == pages[2] != pages[1]
    client.post(f"/api/bakes/{gone}/restore")
    assert (fill_ended(app), fill_ended(app)) == (1, 0)
    assert pages[0][0]["weighed_g"] and ended[0] in [b["id"] for b in pages[-1]]
