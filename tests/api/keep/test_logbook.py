"""The Logbook: what many bakes show together against numpy on the same rows, the search against a plain scan, what is
chosen, and what a change of an ended bake makes of it."""

from __future__ import annotations

import datetime as dt
import string
import unicodedata
from importlib.resources import files
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st
from sqlmodel import Session, func

from brassclock.api.app import create_app
from brassclock.core.fire.calibration import ALIKE, HALF_LIFE_D
from brassclock.core.keep.many import believed_rate
from brassclock.services.app import App
from brassclock.services.pages.bringing import kitchen_of_package, package_in
from brassclock.store import logbook
from brassclock.store.engine import open_store
from brassclock.store.tables import Bake, Kitchen, PastBake

LEARNED = "2026-02-14"
WINTERS = (files("brassclock.demo") / "winters.zip").read_bytes()


@pytest.fixture(scope="module")
def winters(tmp_path_factory: pytest.TempPathFactory) -> FlaskClient:
    """A kitchen with two winters of bakes."""
    app = App(open_store(tmp_path_factory.mktemp("winters")), with_demo=False)
    package_in(app, kitchen_of_package(app, WINTERS), WINTERS)
    return create_app(app).test_client()


def figures(client: FlaskClient, **asked: str) -> dict[str, Any]:
    answer = client.get("/api/kitchens/1/logbook/figures", query_string=asked)
    assert answer.status_code == 200, answer.text
    return answer.json


def names(client: FlaskClient, **asked: str) -> list[str]:
    page = client.get("/api/kitchens/1/logbook", query_string={"count": "200", **asked}).json
    assert page["count"] == len(page["bakes"])
    return [b["name"] for b in page["bakes"]]


def test_full_pockets_are_believed_as_numpy_weighs_them(winters: FlaskClient) -> None:
    """Each mark's mean is that of the Beta of all breads up to it, weighed by age and by how many a bake has."""
    marks = figures(winters)["pockets"]
    assert len(marks) == 34, "37 bakes, three of them of breads without a pocket"
    days = np.array([dt.datetime.fromisoformat(m["at"]).timestamp() / 86400 for m in marks])
    full, judged = (np.array([float(m[k]) for m in marks]) for k in ("full", "judged"))
    each = 1 / (1 + float(ALIKE) * (judged - 1))
    for k, mark in enumerate(marks):
        weight = each[: k + 1] * 0.5 ** ((days[k] - days[: k + 1]) / float(HALF_LIFE_D))
        yes = 1 + (weight * full[: k + 1]).sum()
        no = 1 + (weight * (judged - full)[: k + 1]).sum()
        assert mark["mean"] == pytest.approx(yes / (yes + no))
        assert 0 < mark["low"] < mark["mean"] < mark["high"] < 1


@given(st.lists(st.tuples(st.integers(0, 9), st.integers(0, 9), st.floats(0, 90)), min_size=1, max_size=30))
def test_a_rate_stays_a_rate_and_more_full_ones_never_lower_it(rows: list[tuple[int, int, float]]) -> None:
    day = np.cumsum([gap for _, _, gap in rows])
    full, judged = [f for f, _, _ in rows], [f + n for f, n, _ in rows]
    seen = believed_rate(day, full, judged)
    better = believed_rate(day, judged, judged)
    assert np.all((seen.low <= seen.mean) & (seen.mean <= seen.high) | (seen.mean > 0.99) | (seen.mean < 0.01))
    assert np.all(better.mean >= seen.mean - 1e-12)


def test_the_story_of_two_winters_can_be_read(winters: FlaskClient) -> None:
    """A cause with what was changed against it and the silence after; plates that ran cool until they were measured; a
    starter that slept; forecasts that held."""
    seen = figures(winters)
    lane = next(x for x in seen["lanes"] if x["cause"] == "uneven")
    assert lane["changes"], "the change that was carried to a later bake"
    change = lane["changes"][0]["at"]
    assert [m["at"] < change for m in lane["marks"]] == [True, False] and lane["silent"] >= 5
    assert seen["lanes"] == sorted(seen["lanes"], key=lambda x: -x["lost"])
    plates = next(h for h in seen["heats"] if h["name"] == "Iron plates")["marks"]
    before, after = ([m for m in plates if (m["set_c"] == 260) == thought] for thought in (True, False))
    assert before[-1]["shift_k"] < -8 and abs(after[-1]["shift_k"]) < 5
    starter = next(s for s in seen["strengths"] if s["name"] == "Old Pell")["marks"]
    slept = min(starter, key=lambda m: m["seen"])
    assert slept["at"] > "2026-09", "it is weakest after the summer"
    inside = [m["p10"] <= m["was"] <= m["p90"] for m in seen["ready"]]
    assert (seen["ready_inside"], seen["ready_of"]) == (sum(inside), len(inside))
    assert np.mean(inside) > 0.65, "a band that holds 8 in 10"
    assert len(seen["costs"]) == seen["bakes"] == 37
    sack = next(s for s in seen["strengths"] if s["name"].startswith("Flour"))["marks"]
    assert sack[0]["at"][:7] == "2025-12" and 1.01 < sack[-1]["mean"] < 1.04, "the new sack drinks"
    stone = next(r for r in seen["rests"] if r["name"] == "Baking stone")["marks"]
    before, since = (np.array([m["share"] for m in stone if (m["at"] >= LEARNED) == after]) for after in (False, True))
    assert before.max() < 0.3 < 0.7 < since.min(), "the cook learned to wait"


def test_bakes_are_chosen_by_what_they_are_and_by_the_words_they_hold(winters: FlaskClient) -> None:
    assert len(names(winters)) == 37
    assert set(names(winters, bread="ridge-sour")) == {"Supper sourdough"}
    assert set(names(winters, leaven="chemical")) == {"Soda round"}
    assert len(names(winters, words="SACK drink")) == 1, "two beginnings of words of one note"
    assert len(names(winters, words="sack hatch pita")) == 1 and names(winters, words="sack sourdough") == []
    assert set(names(winters, words="uneven")) == {"Hatch pitas"}, "by a cause"
    assert len(names(winters, season="summer")) == 0 and len(names(winters, season="autumn")) == 21
    assert len(names(winters, since="2026-01-01", until="2026-01-31")) == 5
    short, well = names(winters, became="fell_short"), names(winters, became="all_well")
    assert len(short) + len(well) == 37
    assert figures(winters, bread="ridge-sour")["bakes"] == 5
    assert winters.get("/api/kitchens/1/logbook?season=monsoon").status_code == 422
    assert winters.get('/api/kitchens/1/logbook?words="*(').json["bakes"] == []


def test_one_that_is_left_out_counts_in_nothing_and_comes_back(winters: FlaskClient) -> None:
    before = figures(winters)
    bake = before["pockets"][5]["bake_id"]
    assert winters.patch(f"/api/bakes/{bake}", json={"left_out": True}).status_code == 200
    out = figures(winters)
    assert (out["left_out"], out["bakes"]) == (1, 37)
    assert bake not in [m["bake_id"] for m in out["pockets"]]
    assert [b["left_out"] for b in winters.get("/api/kitchens/1/logbook?count=200").json["bakes"]].count(True) == 1
    winters.patch(f"/api/bakes/{bake}", json={"left_out": False})
    again = figures(winters)
    assert again["pockets"] == before["pockets"]


def test_an_ended_bake_that_is_judged_or_renamed_is_shown_as_it_is_now(
    client: FlaskClient, bake: dict[str, Any]
) -> None:
    at, book = f"/api/bakes/{bake['id']}", f"/api/kitchens/{bake['kitchen_id']}/logbook"
    client.put(f"{at}/status", json={"status": "kept"})
    assert client.get(f"{book}?became=not_judged").json["count"] == 1
    judged = {"outcomes": [{"round_no": n, "pocket": "full"} for n in (1, 2)]}
    assert client.put(f"{at}/tray", json=judged).status_code == 200
    seen = client.get(f"{book}/figures").json
    assert (seen["full"], seen["judged"]) == (2, 2), client.get(book).json
    client.patch(at, json={"name": "Märzfladen", "note": "Crème on top"})
    assert client.get(f"{book}?words=marz+creme").json["count"] == 1
    client.put(f"{at}/status", json={"status": "live"})
    assert client.get(book).json["count"] == 0 and client.get(f"{book}?words=marz").json["count"] == 0


WORD = st.text(string.ascii_letters + "éèüßçñåØ0123456789", min_size=1, max_size=7)


def plain_words(text: str) -> list[str]:
    """Words of a text without accents or capitals, as a reader compares them."""
    spread = unicodedata.normalize("NFD", text)
    bare = "".join(c for c in spread if not unicodedata.combining(c)).lower()
    return "".join(c if c.isalnum() else " " for c in bare).split()


@given(notes=st.lists(st.lists(WORD, max_size=5).map(" ".join), min_size=1, max_size=8), asked=WORD)
def test_the_search_finds_what_a_plain_scan_does(
    notes: list[str], asked: str, tmp_path_factory: pytest.TempPathFactory
) -> None:
    engine = open_store(_once(tmp_path_factory))
    at = dt.datetime(2026, 1, 1, tzinfo=dt.UTC)
    with Session(engine.execution_options(looking=True)) as session:
        session.add(Kitchen(id=1, name="k", hourly_c=[20.0] * 24, created_at=at))
        session.flush()
        for n, note in enumerate(notes, start=1):
            session.add(Bake(id=n, kitchen_id=1, name="b", method="m", lines=[], serve_at=at, created_at=at))
            session.flush()
            session.add(
                PastBake(
                    bake_id=n, kitchen_id=1, serve_at=at, status="kept", name="", method="m", bread="flat",
                    leaven="none", notes=note,
                )
            )  # fmt: skip
        session.flush()
        query = logbook.past((PastBake.bake_id,), 1, words=[asked])
        found = {i for (i,) in session.execute(query)}
        session.rollback()
    [word] = plain_words(asked) or [""]
    assert found == {n for n, note in enumerate(notes, start=1) if any(w.startswith(word) for w in plain_words(note))}


def _once(factory: pytest.TempPathFactory) -> Path:
    """One store for every example: each leaves it as it was."""
    path = factory.getbasetemp() / "search"
    path.mkdir(exist_ok=True)
    return path


def test_the_index_forgets_with_the_bake(client: FlaskClient, bake: dict[str, Any], app: App) -> None:
    client.patch(f"/api/bakes/{bake['id']}", json={"note": "zanzibar"})
    client.put(f"/api/bakes/{bake['id']}/status", json={"status": "kept"})
    with app.read() as session:
        assert session.execute(logbook.past((func.count(),), 1, words=["zanz"])).scalar_one() == 1
    client.delete(f"/api/bakes/{bake['id']}")
    with app.read() as session:
        assert session.execute(logbook.past((func.count(),), 1, words=["zanz"])).scalar_one() == 0


def test_what_differs_between_two_bakes_is_priced_by_the_model(winters: FlaskClient) -> None:
    """A night on which the rounds lay bare against one on which they did not: that costs, and turned round it gains as
    much; what a bread is, is no difference; each fact stands on its leaf."""
    hatch = winters.get("/api/kitchens/1/logbook?bread=hatch-pita&count=200").json["bakes"]
    bare = next(b["id"] for b in hatch if "drying cloth" in b["note"])
    good = next(
        b["id"] for b in hatch if b["serve_at"].startswith("2026-02-28") or b["serve_at"].startswith("2026-03-01")
    )
    two = winters.get(f"/api/kitchens/1/logbook/two?a={good}&b={bare}").json
    rows = {r["what"]: r for r in two["rows"]}
    leaves = ["weigh", "mix", "rise", "fire", "keep"]
    assert [leaves.index(r["leaf"]) for r in two["rows"]] == sorted(leaves.index(r["leaf"]) for r in two["rows"])
    back = {r["what"]: r for r in winters.get(f"/api/kitchens/1/logbook/two?a={bare}&b={good}").json["rows"]}
    assert rows.keys() == back.keys() and rows
    assert any(r["cost"] for r in two["rows"]), rows
    assert (two["a"]["full"], two["a"]["judged"]) == (8, 8)
    assert winters.get("/api/kitchens/1/logbook/two?a=1&b=99999").status_code == 404
    assert winters.get(f"/api/kitchens/1/logbook/two?a={good}&b={good}").json["rows"] == []
