"""A whole recipe pasted in becomes a bake: its lines, and what its steps say, each told with its words."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

PITA = """Hatch pockets
Makes 8

500 g strong white flour
7 g instant yeast
10 g fine salt
325 ml tepid water
a sigh of rosemary

For the top:
2 tbsp nigella seeds

Method
Knead for 10 minutes. Leave for 1 hour or until doubled.
Divide into 8 balls, rest 20 minutes, then roll out to 5 mm.
Bake on a hot stone at 260 C for 3 minutes.
"""


def _brought(client: FlaskClient, kitchen: int, text: str) -> tuple[dict[str, Any], dict[str, Any]]:
    answer = client.post(f"/api/kitchens/{kitchen}/import", json={"text": text, "serve": "in 60 h"})
    assert answer.status_code == 201, answer.text
    return answer.json, client.get(f"/api/bakes/{answer.json['bake_id']}").json


def test_a_recipe_sets_its_bake_and_says_how(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    stone = {"name": "Slab", "kind": "stone_oven", "temp_c": 250, "spots": 1}
    assert client.post(f"/api/kitchens/{kitchen['id']}/surfaces", json=stone).status_code == 201
    told, bake = _brought(client, kitchen["id"], PITA)
    have = bake["settings"]
    assert (bake["name"], told["read"], told["unread"]) == ("Hatch pockets", 4, ["a sigh of rosemary"])
    assert (have["count"], have["piece_g"], have["thickness_mm"], have["knead_min"]) == (8, None, 5, 10)
    assert (have["bulk_end"], have["bulk_ratio"], have["ball_end"]) == ("rise", 2, "time")
    assert have["ball_h"] == pytest.approx(1 / 3, abs=1e-3)
    assert "Beside the dough: 2 tbsp nigella seeds." in have["note"]
    assert "Divide into 8 balls, rest 20 minutes, then roll out to 5 mm." in have["note"]
    assert bake["fire"]["surface"]["name"] == "Slab"
    assert {t["text"] for t in told["taken"]} >= {
        "8 pieces",
        "5 mm thick",
        "kneaded for 10 min",
        "until the dough has doubled; 1 h is what it took elsewhere",
        "the balls 20 min",
        "on Slab at its own heat; the recipe's own: baking stone in an oven, 260 C",
    }
    assert all(t["words"] in PITA for t in told["taken"])
    assert bake["fits"] and bake["faults"] == {}


def test_a_cold_night_a_sponge_and_an_oven_that_is_not_there(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    text = (
        "Poolish\n150 g flour\n150 g water\n0.3 g instant yeast\nDough\nall of the poolish\n350 g flour\n180 g water\n"
        "10 g fine salt\nMethod\nMix the poolish and leave it 12 hours.\nMix all. Prove 2 h. Divide into 900 balls of "
        "84 g and refrigerate overnight. Take out 90 minutes before. Bake on a stone at 280 C."
    )
    told, bake = _brought(client, kitchen["id"], text)
    have, said = bake["settings"], [t["text"] for t in told["taken"]]
    assert [x["part"] for x in have["lines"]] == ["sponge"] * 3 + [""] * 3
    assert (have["sponge_h"], have["cold"]) == (12, {"stage": "ball", "after_h": 0.25, "hours": 11})
    assert (have["bulk_h"], have["ball_h"], have["count"], have["piece_g"]) == (2, 1.5, None, 84)
    assert "not taken: 900 pieces is out of range" in said
    assert (
        f"the recipe's own: baking stone in an oven, 280 C; here it is planned on {bake['fire']['surface']['name']}"
        in said
    )


def test_a_stay_that_no_plan_holds_is_told_and_not_taken(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    text = (
        "Sponge\n100 g flour\n100 g water\n1 g instant yeast\nDough\n300 g flour\n180 g water\n6 g salt\nMethod\n"
        "Mix the sponge and leave it 3 days. Mix all and chill for 10 minutes. Let it rise until grown by half."
    )
    told, bake = _brought(client, kitchen["id"], text)
    said = [t["text"] for t in told["taken"]]
    assert (bake["settings"]["sponge_h"], bake["settings"]["cold"]) == (None, None)
    assert {"not taken: a sponge of 72 h", "not taken: 10 min in the fridge"} <= set(said)


def test_what_a_recipe_leaves_open_is_told(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    told, bake = _brought(client, kitchen["id"], "Naan, in per cent\nflour 100%\nwater 60%\nsalt 2%\nIDY 0.8%")
    assert [t["text"] for t in told["taken"]] == [
        "no number is written: pieces of 95 g",
        "no size is written: 18 cm across",
    ]
    assert [x["amount"] for x in bake["settings"]["lines"]] == ["500 g", "300 g", "10 g", "4 g"]
    assert told["notes"][0] == "100 % of 500 g flour. No weight is written."
    _, weighed = _brought(client, kitchen["id"], "flour 100%\nwater 60%\nsalt 2%\nTotal dough weight: 810 g")
    assert [x["amount"] for x in weighed["settings"]["lines"]] == ["500 g", "300 g", "10 g"]


def test_a_list_parts_its_steps_and_a_recipe_of_prose_has_lines(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    read = client.post(f"/api/kitchens/{kitchen['id']}/entry", json={"text": PITA}).json
    assert [x["raw"] for x in read["lines"] if x["faults"]] == ["a sigh of rosemary"]
    assert "Hatch pockets" in read["steps"] and "2 tbsp nigella seeds" in read["steps"]
    lone = client.post(f"/api/kitchens/{kitchen['id']}/entry", json={"text": "a sigh of rosemary"}).json
    assert [x["raw"] for x in lone["lines"]] == ["a sigh of rosemary"]
    prose = "Put 400 g flour, 7 g instant yeast and 8 g salt in a bowl, add 260 g warm water. Knead 8 minutes."
    told, bake = _brought(client, kitchen["id"], prose)
    assert (told["read"], told["unread"], bake["settings"]["knead_min"]) == (4, [], 8)


def test_a_topping_that_bakes_with_its_breads_is_weighed_on_them(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    text = (
        "Topped flatbreads\nDough\n500 g bread flour | 7 g instant yeast | 10 g salt | 300 ml water\nTopping\n"
        "250 g minced lamb\n1 onion\na whisper of smoke\nMethod\nKnead 8 minutes. Prove 1 hour. Divide into 8. Roll to "
        "2 mm. Spread 50 g topping on each. Bake at 260 C for 5 minutes."
    )
    told, bake = _brought(client, kitchen["id"], text)
    filling = bake["weigh"]["filling"]
    assert told["read"] == 4 and bake["settings"]["piece_g"] is None
    assert filling["per_piece_g"] == 50 and [x["ingredient"] for x in filling["lines"]] == [
        "minced_meat",
        "onion_chopped",
    ]
    assert "On the breads: a whisper of smoke." in bake["settings"]["note"]
    assert "50 g of topping on each" in {t["text"] for t in told["taken"]}
    light, sown = _brought(client, kitchen["id"], text.split("Topping")[0] + "Topping\n1 tbsp sesame seeds\n")
    assert light["read"] == 4 and sown["weigh"]["filling"] is None
    assert sown["settings"]["note"].startswith("Beside the dough: 1 tbsp sesame seeds.")


@pytest.mark.parametrize(
    ("text", "grams"),
    [
        ("Ingredient\t%\tg\nBread flour\t100\t500\nWater\t65\t325\nSalt\t2\t10", [500, 325, 10]),
        ("| what | Baker's % | weight |\n|---|---|---|\n| flour | 100% | 400 g |\n| water | 62% | 248 g |", [400, 248]),
        ("Flour: 500g (100%)\nWater: 325g (65%)\nFine salt: 10g (2%)", [500, 325, 10]),
        ("00 1000 / H2O 620 / salt 25 / IDY 1.5", [1000, 620, 25, 1.5]),
        ("tipo 00 100% (600g)\nwater 58%\nsalt 2%", [600, 348, 12]),
    ],
)
def test_lists_of_the_trade_are_weighed(
    client: FlaskClient, kitchen: dict[str, Any], text: str, grams: list[float]
) -> None:
    """A weight goes before the share beside it, and numbers alone are grams where the flour says so."""
    told, bake = _brought(client, kitchen["id"], text)
    assert told["unread"] == []
    assert [x["grams"] for x in bake["weigh"]["lines"]] == pytest.approx(grams, rel=1e-3)


def test_a_dough_holds_its_gas_as_what_is_in_it_does(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """Bran, richness, no kneading and a strong flour are seen by themselves; what a cook sets stays."""

    def have(**change: Any) -> tuple[str, float, float]:
        s = client.patch(f"/api/bakes/{bake['id']}", json=change).json["settings"]
        return s["strength"], s["bulk_ratio"], s["ball_ratio"]

    def lines(**grams: float) -> list[dict[str, str]]:
        return [{"ingredient": k, "amount": f"{g} g"} for k, g in grams.items()]

    bake = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": "in 10 h", "name": "New"}).json
    plain = lines(plain_flour=500, water=320, yeast_instant=5)
    whole = lines(wholemeal=300, plain_flour=200, water=350, yeast_instant=5)
    assert have(lines=plain) == ("kneaded", 1.9, 1.4)
    assert have(lines=whole) == ("wholemeal", 1.6, 1.2)
    too_far = [w["too_far"]["p50"] for w in client.get(f"/api/bakes/{bake['id']}").json["rise"]["windows"]]
    assert have(lines=[*plain, *lines(butter=40, sugar=25)]) == ("enriched", 1.9, 1.3)
    assert have(lines=plain, knead="no_knead") == ("wet_unkneaded", 1.8, 1.2)
    assert have(lines=lines(bread_flour=500, water=330, yeast_instant=5), knead="planetary", knead_min=9)[0] == (
        "developed"
    )
    assert have(strength="kneaded", bulk_ratio=1.9, ball_ratio=1.4, lines=whole) == ("kneaded", 1.9, 1.4)
    assert have(lines=plain)[0] == "kneaded"
    assert have(strength="enriched")[0] == "enriched"
    assert have(lines=whole)[0] == "enriched"
    later = [w["too_far"]["p50"] for w in client.get(f"/api/bakes/{bake['id']}").json["rise"]["windows"]]
    assert later[0] > too_far[0]  # a rich white dough of that leaven bears more than a brown one


def test_flour_without_gluten_is_said(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    told, bake = _brought(client, kitchen["id"], "300 g plain flour\n200 g maize flour\n320 g water\n9 g salt")
    assert "weak_flour" in [c["code"] for c in bake["weigh"]["contradictions"]]
    assert told["unread"] == []
    told, _ = _brought(client, kitchen["id"], "250 g gluten-free flour\n200 g greek yoghurt\n100 g flour")
    read = client.post(f"/api/kitchens/{kitchen['id']}/entry", json={"text": "250 g gluten-free flour"}).json
    assert told["unread"] == ["250 g gluten-free flour"] and "without gluten" in read["lines"][0]["faults"][0]


def test_where_a_dough_stands_is_taken_or_told(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    text = (
        "Sponge: 100 g flour, 100 g water, 1 g instant yeast - 10 h in the cellar\n"
        "Dough: 300 g flour, 190 g water, 8 g salt\nMethod\nKnead 8 minutes. Rise 2 hours in the oven with the light "
        "on. Divide into 6. Rest 30 minutes at 24 C. Roll to 5 mm."
    )
    told, bake = _brought(client, kitchen["id"], text)
    have = bake["settings"]
    assert (have["bulk_place"], have["ball_place"], have["sponge_h"]) == ("oven_light", "bench", 10)
    assert {t["text"] for t in told["taken"]} >= {
        "the dough in the oven with its light on",
        "not taken: the sponge in the cellar; here it is in the kitchen",
        "not taken: the balls at 24 C; here it is as warm as its place is",
    }
