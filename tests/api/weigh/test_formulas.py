"""Formulas through the API: files lose nothing on a round trip, scaling and additions are one change, bags learn and
unlearn."""

from __future__ import annotations

import json
import re
from typing import Any

import jsonschema_rs
import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from brassclock.formats.tables import read_csv, read_markdown
from helpers import Clock


@pytest.fixture
def rich(client: FlaskClient, kitchen: dict[str, Any]) -> int:
    """A bake that uses everything: own ingredients, parts, bases, a filling, an unread line, an addition."""
    k = kitchen["id"]
    flour = client.post(
        f"/api/kitchens/{k}/ingredients",
        json={"name": "Mill flour", "group": "flour", "water_pct": 13, "protein_pct": 12, "absorption_pts": 4},
    ).json["id"]
    starter = client.post(
        f"/api/kitchens/{k}/ingredients", json={"name": "Cellar", "kind": "starter", "hydration_frac": 0.8}
    ).json["id"]
    bake = client.post(
        "/api/bakes", json={"kitchen_id": k, "serve": "in 9 h", "method": "sweet-stuffed", "name": "Round trip"}
    ).json["id"]
    lines = [
        {"ingredient": flour, "amount": "3 cups", "basis": "dipped", "part": "first"},
        {"ingredient": "water", "amount": "300-310 ml", "basis": None},
        {"ingredient": starter, "amount": "90 g", "basis": None},
        {"ingredient": "salt_fine", "amount": "1 1/2 tsp", "basis": None},
        {"ingredient": "yeast_instant", "amount": "1/4 tsp", "basis": None},
    ]
    answer = client.patch(
        f"/api/bakes/{bake}", json={"lines": lines, "unread": ["a sigh of rosemary"], "note": "älter, “zäh”"}
    )
    assert answer.status_code == 200, answer.text
    client.post(f"/api/bakes/{bake}/additions", json={"ingredient": "water", "amount": "2 tbsp"})
    return int(bake)


CARRIED = (
    "unread",
    "strength",
    "bloomed",
    "count",
    "piece_g",
    "shape",
    "diameter_cm",
    "dough_c",
    "knead",
    "knead_min",
    "bulk_ratio",
    "ball_ratio",
    "bulk_h",
    "ball_h",
    "doneness",
    "docked",
    "note",
)


@pytest.mark.parametrize("kind", ["json", "jsonld"])
def test_a_round_trip_loses_nothing(client: FlaskClient, kitchen: dict[str, Any], rich: int, kind: str) -> None:
    """Out and back in: the same grams, settings, filling, additions, unread lines; in another kitchen too."""
    before = client.get(f"/api/bakes/{rich}").json
    text = client.get(f"/api/bakes/{rich}/export/{kind}")
    assert "attachment" in text.headers["Content-Disposition"]
    if kind == "json":
        schema = client.get("/api/schema/bake-file").json
        jsonschema_rs.validator_for(schema).validate(json.loads(text.text))
    other = client.post("/api/kitchens", json={"zone": "UTC", "surface": {"name": "P", "kind": "skillet"}}).json["id"]
    for where in (kitchen["id"], other):
        got = client.post(f"/api/kitchens/{where}/import", json={"text": text.text, "serve": "in 9 h"})
        assert got.status_code == 201, got.text
        assert got.json["notes"] == []
        after = client.get(f"/api/bakes/{got.json['bake_id']}").json
        assert after["name"] == before["name"]
        assert {k: after["settings"][k] for k in CARRIED} == {k: before["settings"][k] for k in CARRIED}
        for part in ("lines", "filling"):
            assert strip(after["settings"][part]) == strip(before["settings"][part])
        assert [x["grams"] for x in after["weigh"]["lines"]] == pytest.approx(
            [x["grams"] for x in before["weigh"]["lines"]]
        )
        assert after["weigh"]["hydration_frac"] == pytest.approx(before["weigh"]["hydration_frac"])
        assert [a["amount"] for a in after["settings"]["additions"]] == ["2 tbsp"]


def test_a_page_carries_the_whole_way_to_the_bread(client: FlaskClient, bake: dict[str, Any]) -> None:
    """Waits with their rise, shaping, the heat with its surface and times, keeping; not the bowl alone."""
    page = client.get(f"/api/bakes/{bake['id']}/export/md").text
    steps = json.loads(client.get(f"/api/bakes/{bake['id']}/export/jsonld").text)["recipeInstructions"]
    whole = page + json.dumps(steps)
    for wanted in ("after mixing: ball, when it is", "times its size", "turn at ", "off at ", "frozen"):
        assert page.count(wanted) and whole.count(wanted) > page.count(wanted), wanted


def strip(value: Any) -> Any:
    """Without the ids of own ingredients, which a new kitchen numbers anew."""
    return json.loads(re.sub(r'"own_\d+"', '"own"', json.dumps(value)))


def test_tables_come_back_as_lines(client: FlaskClient, kitchen: dict[str, Any], bake: dict[str, Any]) -> None:
    for kind in ("md", "csv"):
        text = client.get(f"/api/bakes/{bake['id']}/export/{kind}").text
        got = client.post(f"/api/kitchens/{kitchen['id']}/import", json={"text": text}).json
        assert (got["read"], got["unread"]) == (7, []), kind
        again = client.get(f"/api/bakes/{got['bake_id']}").json
        assert again["weigh"]["total_g"] == pytest.approx(bake["weigh"]["total_g"])


@given(st.text(st.sampled_from("ab1 ,;\t\r\n\"'|#-*\x00\x85"), max_size=60))
def test_no_file_breaks_the_reading_of_tables(text: str) -> None:
    """Whatever the line ends and quotes, every letter of a list without a heading is still there."""
    read_markdown(text)
    assert sum("".join(read_csv(text)).count(x) for x in "ab1") == sum(text.count(x) for x in "ab1")


def test_imports_survive_what_they_do_not_know(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """Unknown fields and unusable values are named; what is no formula is refused, and nothing is stored."""
    where = f"/api/kitchens/{kitchen['id']}/import"
    odd = {
        "format": "brass-clock/bake",
        "version": 9,
        "name": "Odd",
        "flavour": "blue",
        "dough_c": 900,
        "lines": [{"ingredient": "plain_flour", "amount": "1 kg"}, {"ingredient": "stardust", "amount": "3 g"}],
    }
    got = client.post(where, json={"text": json.dumps(odd)}).json
    assert (got["read"], got["unread"]) == (1, ["3 g stardust"])
    assert [word in " ".join(got["notes"]) for word in ("flavour", "version 9", "dough_c")] == [True] * 3
    recipe = '{"@type":"Recipe","name":"Page","recipeIngredient":["500 g flour"]}'
    page = f'<html><script type="application/ld+json">{recipe}</script></html>'
    assert client.post(where, json={"text": page}).json["read"] == 1
    bakes = len(client.get(f"/api/kitchens/{kitchen['id']}/bench").json["bakes"])
    for text in (
        "",
        "{",
        '{"a": 1}',
        '{"@type": "Recipe", "name": "x"}',
        '{"format": "brass-clock/bake", "lines": []}',
        "[" * 2000,
    ):
        assert client.post(where, json={"text": text}).status_code == 422, text
    assert len(client.get(f"/api/kitchens/{kitchen['id']}/bench").json["bakes"]) == bakes


def test_scaling_and_additions(client: FlaskClient, bake: dict[str, Any]) -> None:
    i = bake["id"]
    limited = client.post(
        f"/api/bakes/{i}/scale",
        json={
            "limits": [{"ingredient": "plain_flour", "amount": "160 g"}, {"ingredient": "water", "amount": "2 cups"}]
        },
    ).json
    assert limited["weigh"]["flour_g"] == pytest.approx(228.5, abs=1.5)
    fits = client.post(f"/api/bakes/{i}/scale", json={"tray_width_cm": 60, "tray_depth_cm": 40, "loads": 3}).json
    assert fits["settings"]["count"] == 18
    added = client.post(f"/api/bakes/{i}/additions", json={"ingredient": "water", "amount": "2 tbsp"}).json
    assert added["weigh"]["hydration_frac"] > fits["weigh"]["hydration_frac"]
    assert (
        client.post(f"/api/bakes/{i}/additions", json={"ingredient": "water", "amount": "a splash"}).status_code == 422
    )
    assert client.delete(f"/api/bakes/{i}/additions").json["weigh"]["hydration_frac"] == pytest.approx(
        fits["weigh"]["hydration_frac"]
    )
    assert client.delete(f"/api/bakes/{i}/additions").status_code == 404
    for body, pointer in (
        ({}, "/count"),
        ({"limits": [{"ingredient": "ghee", "amount": "9 g"}]}, "/scale_to/limit/ingredient"),
        ({"tray_width_cm": 10, "tray_depth_cm": 10}, "/tray_width_cm"),
    ):
        refused = client.post(f"/api/bakes/{i}/scale", json=body)
        assert refused.status_code == 422
        assert refused.json["errors"][0]["pointer"] == pointer


def test_bags_bloom_and_thermometer_teach_and_unteach(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any], bake: dict[str, Any]
) -> None:
    """A kept bake teaches its bag; reopening takes that back. A tired bloom slows the plan; a warm reading moves the
    friction."""
    k, i = kitchen["id"], bake["id"]
    bag = client.post(f"/api/kitchens/{k}/bags", json={"name": "October sack", "ingredient": "plain_flour"}).json["id"]
    assert client.post(f"/api/kitchens/{k}/bags", json={"name": "x", "ingredient": "water"}).status_code == 422
    client.patch(f"/api/bakes/{i}", json={"bag_id": bag, "held": {"water": 10}})
    client.post(f"/api/bakes/{i}/additions", json={"ingredient": "water", "amount": "24 g"})
    tired = client.put(f"/api/bakes/{i}/bloom", json={"minutes": 14}).json
    assert tired["settings"]["activity_factor"] == 0.5
    mix_at = {s["key"]: s["at"] for s in tired["steps"]}["mix"]
    assert mix_at < {s["key"]: s["at"] for s in bake["steps"]}["mix"]
    assert client.delete(f"/api/bakes/{i}/bloom").json["settings"]["activity_factor"] is None
    client.post(f"/api/bakes/{i}/taps", json={"key": "k-mix", "kind": "mix"})
    clock.pass_(minutes=2)
    read = client.post("/api/readings", json={"bake_id": i, "kind": "dough_c", "value": 30}).json
    assert read["mix"]["friction_factor"] > 1
    assert read["rise"]["trace"]["dough_c"][0] == pytest.approx(30, abs=0.2)
    assert client.post("/api/readings", json={"bake_id": i, "kind": "dough_c", "value": 200}).status_code == 422
    client.put(f"/api/bakes/{i}/status", json={"status": "kept"})
    thirst = client.get(f"/api/kitchens/{k}").json["bags"][0]
    assert (thirst["times"], thirst["thirst_frac"]) == (
        1,
        pytest.approx(0.73 * (24 - 10) / 457, abs=2e-3),
    )  # a first bake counts by .73
    client.put(f"/api/bakes/{i}/status", json={"status": "live"})
    assert client.get(f"/api/kitchens/{k}").json["bags"][0]["times"] == 0
    client.put(f"/api/bakes/{i}/bloom", json={"minutes": 14})
    clock.pass_(minutes=60)
    tired = client.get(f"/api/bakes/{i}").json["rise"]["ratio_now"]
    client.post("/api/readings", json={"bake_id": i, "kind": "ratio", "value": tired})
    client.put(f"/api/bakes/{i}/status", json={"status": "kept"})
    assert client.get(f"/api/kitchens/{k}").json["activity_mean"] == pytest.approx(
        1, abs=0.1
    )  # the packet, not the kitchen
    method = client.post(f"/api/kitchens/{k}/methods", json={"bake_id": i, "name": "Ours"}).json["id"]
    copy = client.post("/api/bakes", json={"kitchen_id": k, "serve": "in 9 h", "method": method}).json
    assert (copy["name"], len(copy["settings"]["lines"])) == ("Ours", 7)
    client.delete(f"/api/kitchens/{k}/methods/{method}")
    assert [m["id"] for m in client.get(f"/api/kitchens/{k}/methods").json["methods"]].count(method) == 0


def test_late_guests_are_answered_and_a_stay_elsewhere_is_followed(
    client: FlaskClient, clock: Clock, bake: dict[str, Any]
) -> None:
    """Options with windows, the least disruptive first; doing one moves the forecast; bringing it back moves it
    again."""
    at = f"/api/bakes/{bake['id']}"
    assert client.post(f"{at}/rescue", json={"late_min": 60}).status_code == 409
    client.post(f"{at}/taps", json={"key": "k-mix", "kind": "mix"})
    clock.pass_(minutes=40)
    before = client.get(at).json["rise"]["windows"][0]["ready"]["p50"]
    asked = client.post(f"{at}/rescue", json={"late_min": 120}).json
    assert asked["options"]
    assert all(o["too_far_at"] > o["ready_at"] for o in asked["options"])
    fast = client.post(f"{at}/rescue", json={}).json
    assert all(o["too_far_at"] > fast["as_it_stands"]["too_far_at"] for o in fast["options"])
    cold = client.post(f"{at}/spells", json={"temp_c": 4, "minutes": 90})
    assert cold.status_code == 201
    assert cold.json["rise"]["windows"][0]["ready"]["p50"] > before
    assert client.post(f"{at}/spells", json={"temp_c": 4, "minutes": 30}).status_code == 409
    clock.pass_(minutes=20)
    back = client.delete(f"{at}/spells").json
    assert len(back["settings"]["spells"]) == 1
    assert before < back["rise"]["windows"][0]["ready"]["p50"] < cold.json["rise"]["windows"][0]["ready"]["p50"]
    gone = client.delete(f"{at}/spells").json
    assert gone["settings"]["spells"] == []
    assert client.delete(f"{at}/spells").status_code == 404
    assert client.post(f"{at}/spells", json={"temp_c": 400, "minutes": 30}).status_code == 422


def test_a_kitchen_s_own_cup_and_spoons_are_set_and_taken_back(
    client: FlaskClient, kitchen: dict[str, Any], bake: dict[str, Any]
) -> None:
    """By hand: a cup of 200 ml holds 200 g of water; taken back it is a US cup again."""
    url, home = f"/api/bakes/{bake['id']}", f"/api/kitchens/{kitchen['id']}"
    lines = [
        {"ingredient": k, "amount": a, "basis": None, "part": ""}
        for k, a in {"plain_flour": "500 g", "water": "1 cup", "yeast_instant": "1 tsp"}.items()
    ]
    assert client.patch(url, json={"lines": lines}).status_code == 200
    for cup_ml, water_g in ((200, 200.0), (None, 236.6)):
        assert client.patch(home, json={"cup_ml": cup_ml}).json["cup_ml"] == cup_ml
        assert client.get(url).json["weigh"]["lines"][1]["grams"] == pytest.approx(water_g, abs=0.1)
    assert client.patch(home, json={"flour_basis": "140"}).json["flour_basis"] == "140"
    assert client.patch(home, json={"flour_basis": None}).json["flour_basis"] is None
    refused = client.patch(home, json={"cup_ml": 5})
    assert refused.status_code == 422 and "50" in refused.json["errors"][0]["detail"]


def test_a_temperature_said_with_a_line_goes_to_the_bowl(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    text = "500 g plain flour\n300 g water at 104 F\n5 g instant yeast"
    made = client.post(f"/api/kitchens/{kitchen['id']}/import", json={"text": text, "serve": "in 9 h"}).json
    assert client.get(f"/api/bakes/{made['bake_id']}").json["settings"]["part_temps"] == {"water": 40.0}
