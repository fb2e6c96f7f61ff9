"""The contract on the command line: one request in, one result out, problems on standard error with exit 2."""

from __future__ import annotations

import datetime as dt
import json
import subprocess
import sys
from typing import Any

import pytest

from brassclock.core.errors import InvalidInput
from brassclock.services.contract import KINDS, compute

LINES = [
    ("plain_flour", 350),
    ("bread_flour", 150),
    ("water", 310),
    ("yeast_instant", 5),
    ("salt_fine", 9.5),
    ("oil", 15),
]
DOUGH = [{"ingredient": i, "mass_g": g} for i, g in LINES]
REQUESTS: dict[str, dict[str, Any]] = {
    "read": {
        "text": "a cup and a half of plain flour, plus more for dusting\na cup of water at 104 F\na splash of milk",
        "kitchen": {"cup": 200},
    },
    "weigh": {
        "lines": [
            {"ingredient": "plain_flour", "amount": "3 cups", "basis": "level"},
            {"ingredient": "water", "amount": "1 cup"},
            {"ingredient": "yeast_instant", "amount": "1/4 tsp"},
            {"ingredient": "baking_soda", "amount": "1/2 tsp"},
        ],
        "pieces": {"mass_g": 95},
        "shape": {"kind": "round", "diameter_cm": 18},
        "scale_to": {"flour_g": 500},
    },
    "mix": {
        "parts": [
            {"ingredient": "bread_flour", "mass_g": 500, "temp_c": 22},
            {"ingredient": "water", "mass_g": 325, "temp_c": 20},
        ],
        "method": "hand",
        "minutes": 8,
        "room_c": 22,
        "solve": {"for": "water", "target_c": 26},
    },
    "rise": {
        "lines": DOUGH,
        "strength": "kneaded",
        "mix_temp_c": 26,
        "altitude_m": 1150,
        "targets": [1.9, 1.4],
        "stages": [
            {
                "name": "bulk",
                "hours": 2,
                "path": [[0, 22], [2, 20]],
                "vessel": {"kind": "tub", "mass_g": 840, "lid": True},
                "then": "ball",
                "target_ratio": 1.9,
            },
            {
                "name": "balls",
                "hours": 1,
                "ambient_c": 20,
                "vessel": {"kind": "tray", "mass_g": 95},
                "target_ratio": 1.4,
            },
        ],
        "readings": [{"h": 0.7, "ratio": 1.3}],
    },
    "dose": {
        "lines": DOUGH[:3],
        "strength": "kneaded",
        "mix_temp_c": 24,
        "leaven": "yeast_instant",
        "target_ratio": 2.0,
        "at_h": 12,
        "stages": [{"name": "bulk", "hours": 12, "ambient_c": 24}],
    },
    "starter": {"seed_g": 20, "flour_g": 40, "water_g": 40, "temp_c": 24.5, "state": "ripe"},
    "cause": {"faults": ["flat"], "facts": {"surface": "stone_oven", "surface_c": 205, "thickness_mm": 3.4}},
    "learn": {
        "lessons": [
            {"key": "pace:1:roll", "seen": 1.3, "spread": 0.2, "at": "2026-11-29T10:00:00+01:00"},
            {"key": "pace:1:roll", "seen": 1.2, "spread": 0.2, "at": "2026-11-30T10:00:00+01:00", "refused": True},
        ]
    },
    "stock": {
        "breads": [{"kind": "pocket", "mass_g": 87, "count": 12, "frozen_at": "2026-11-20T10:00:00+01:00"}],
        "serve_at": "2026-12-04T19:00:00+01:00",
        "wanted": 8,
    },
    "hold": {
        "bread": {
            "intent": "blister",
            "mass_g": 136,
            "diameter_cm": 20,
            "thickness_mm": 12,
            "dressing": {"kind": "butter", "mass_g": 6},
            "lines": DOUGH,
        },
        "wrap": [{"wrap": "open"}, {"wrap": "cloth", "from_min": 5}],
        "stack": 4,
        "room_c": 22,
        "done_at": "2026-11-29T18:00:00+01:00",
        "serve_at": "2026-11-29T19:30:00+01:00",
    },
    "soda": {
        "lines": [
            {"ingredient": "plain_flour", "mass_g": 200},
            {"ingredient": "buttermilk", "mass_g": 207},
            {"ingredient": "baking_soda", "mass_g": 4.6},
        ],
        "strength": "batter",
        "rests": [{"minutes": 10, "temp_c": 22, "form": "sheet", "half_thickness_mm": 8}],
    },
    "day": {
        "serve": {"at": "2026-11-27T20:00:00+01:00", "which": "last"},
        "bakes": [{"name": "pitas", "method": "terrace-naan"}],
        "allow": {"routes": ["room"], "cold_nights": 0},
    },
    "puff": {
        "bread": {"lines": DOUGH, "mass_g": 95, "diameter_cm": 18, "temp_c": 20, "leaven": "yeast", "intent": "pocket"},
        "surface": {"kind": "stone_oven", "temp_c": 275},
        "altitude_m": 1150,
        "faults": {"skin_min": 9},
    },
    "cue": {"cue": "flour_gold", "seconds": 30},
    "drill": {"kind": "call", "level": 3, "seed": 7, "answer": {"call": {"turn_s": 60, "off_s": 95}}},
    "line": {
        "breads": 6,
        "spots": 2,
        "recover_s": 10,
        "pace": "calm",
        "exec_tol_s": 2,
        "ops": [
            {"name": "roll", "hands_s": 25, "then_min_s": 30, "then_max_s": 480},
            {"name": "load", "hands_s": 8, "off_surface_s": 5, "takes_spot": True, "then_min_s": 50, "then_max_s": 54},
            {"name": "off", "hands_s": 3, "frees_spot": True},
        ],
    },
}
FIELDS = {
    "weigh": "total_g flour_g hydration_frac effective_hydration_frac salt_frac lines pieces shape soda allergens "
    "contradictions measurable",
    "mix": "dough_temp_c liquid_temp_c ice_g contributions simple_rule",
    "rise": "crossings peak windows trace acid leaven_left_frac workable_h safety most_worth_measuring",
    "dose": "baker_frac mass_g reason measurable",
    "starter": "peak_h hold_until_h ratio trace",
    "read": "lines",
    "cause": "verdict causes other_share change ask",
    "learn": "beliefs before_after odd",
    "stock": "take_out best_by use_by advice",
    "hold": "trace words best_from_min best_to_min good_until_h too_stiff_by_h state_at_serving room_days freeze "
    "reheat advice",
    "soda": "excess_g_per_100g_flour verdict released_frac_at_mixing lift_at_cook wait",
    "day": "steps routes slack_min alternatives",
    "cue": "surface_c text",
    "line": "makespan_s lower_bound_s bottleneck cycle_s tasks towel_wait_s another_spot_saves_s another_cook_saves_s",
    "drill": "case points truth why cautions",
    "puff": "events likelihood moisture_loss_frac program carpet surface_after",
}


def cli(*args: str, text: str = "") -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "brassclock.cli", *args], input=text, capture_output=True, text=True, check=False
    )


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_results_have_the_contract_fields(kind: str) -> None:
    result = compute(kind, REQUESTS[kind])
    assert set(FIELDS[kind].split()) <= set(result)
    assert set(result["why"]) <= set(result) | {"liquid_temp_c", "puff", "flip", "thickness_mm", "turn"}
    assert all({"code", "text"} <= set(c) for c in result["cautions"])
    json.dumps(result, allow_nan=False)


def test_a_spoken_list_is_read_right_or_left_unread() -> None:
    lines = compute("read", REQUESTS["read"])["lines"]
    assert [x["status"] for x in lines] == ["read", "read", "unread"] and lines[2]["parts"] == [] and lines[2]["asks"]
    flour, water = lines[0]["parts"][0], lines[1]["parts"][0]
    assert flour["low_g"] < flour["grams"] < flour["high_g"] and flour["purpose"] == "dough"
    assert water["grams"] == pytest.approx(200, abs=0.1) and water["temp_c"] == 40.0
    fried = compute("read", {"text": "2 tbsp oil for frying", "kitchen": {"spoon": "metric"}})["lines"][0]["parts"][0]
    assert fried["purpose"] == "frying" and fried["grams"] == pytest.approx(27.6, rel=0.03)
    for kind, request in REQUESTS.items():
        with pytest.raises(InvalidInput, match="/no_such_field"):
            compute(kind, {**request, "no_such_field": 1})


def test_a_bread_is_held_in_its_wraps_until_the_table() -> None:
    held = compute("hold", REQUESTS["hold"])
    assert held["state_at_serving"]["word"] == "soft" and len(held["advice"]) <= 3
    assert held["good_until_h"]["p10"] <= held["good_until_h"]["p50"]
    assert {x["by"] for x in held["reheat"]} == {"pan", "grill", "oven", "microwave", "toaster"}
    open_ = compute("hold", {**REQUESTS["hold"], "wrap": "open", "stack": 1})
    assert open_["too_stiff_by_h"]["p50"] < (held["too_stiff_by_h"]["p50"] or 99)
    pointer = {
        "/serve_at": {"serve_at": "2026-11-29T17:00:00+01:00"},
        "/wrap": {"wrap": [{"wrap": "cloth", "from_min": 5}]},
        "/bread/moisture_loss_frac": {"bread": {**REQUESTS["hold"]["bread"], "moisture_loss_frac": 0.39}},
        "/stack": {"stack": 501},
    }
    for where, wrong in pointer.items():
        with pytest.raises(InvalidInput, match=where):
            compute("hold", {**REQUESTS["hold"], **wrong})


def test_stages_end_at_a_time_or_as_the_dough_comes_out_of_the_cold() -> None:
    """Ten hours cold in balls and four out: warm until under 10 C, then four more; a stage left out is none."""
    egg = [("plain_flour", 400), ("whole_milk", 200), ("egg_whole", 50), ("baking_powder", 6)]
    ball = {"kind": "ball", "mass_g": 110}
    request = {
        "lines": [{"ingredient": i, "mass_g": g} for i, g in egg],
        "mix_temp_c": 22,
        "stages": [
            {"name": "skipped", "skip": True, "ambient_c": 22},
            {"name": "cold", "place": "fridge", "hours": 10, "vessel": ball},
            {"name": "out", "ambient_c": 22, "ends": "time", "minutes": [230, 250], "vessel": ball},
        ],
    }
    found = compute("rise", request)
    assert found["trace"]["h"][-1] == pytest.approx(14.0)
    safety = found["safety"]
    assert [x["name"] for x in safety["stages"]] == ["cold", "out"] and 4.25 <= safety["warm_h"] <= 6.0
    with pytest.raises(InvalidInput, match="runs backward"):
        compute("rise", {**request, "stages": [{"ambient_c": 22, "minutes": [60, 30]}]})
    balls = [{"skip": True}, {"place": "fridge", "hours": 40, "ends": "place"}]
    day = {
        "serve": {"at": "2026-12-01T19:00:00+01:00"},
        "bakes": [{"name": "oiled", "lines": request["lines"], "stages": balls}],
        "kitchen": {"hourly_c": [22.0] * 24, "fridge_c": 4},
    }
    steps = {s["step"]: dt.datetime.fromisoformat(s["start"]) for s in compute("day", day)["steps"]}
    assert (steps["cold_out"] - steps["cold_in"]).total_seconds() / 3600 == pytest.approx(40, rel=0.06)
    assert (steps["roll"] - steps["cold_out"]).total_seconds() <= 15 * 60


def test_what_the_contract_means() -> None:
    rise = compute("rise", REQUESTS["rise"])
    first = rise["crossings"][0]
    assert first["stage"] == "bulk"
    assert first["h"]["p10"] < first["h"]["p50"] < first["h"]["p90"]
    trace = rise["trace"]
    assert len({len(v) for v in trace.values()}) == 1
    assert trace["dough_c"][0] == 26
    dairy = {**REQUESTS["rise"], "lines": [*DOUGH, {"ingredient": "whole_milk", "mass_g": 50}]}
    assert compute("rise", dairy)["safety"]["reached_at_h"] == pytest.approx(2.0, abs=0.1)
    weigh = compute("weigh", REQUESTS["weigh"])
    assert weigh["flour_g"] == pytest.approx(500)
    assert weigh["soda"]["excess_g_per_100g_flour"] > 0
    assert weigh["measurable"][0]["ways"]
    dose = compute("dose", REQUESTS["dose"])
    longer = [{"name": "bulk", "hours": 20, "ambient_c": 24}]
    leavened = {
        **{k: v for k, v in REQUESTS["dose"].items() if k not in ("leaven", "target_ratio", "at_h")},
        "stages": longer,
        "lines": [*DOUGH[:3], {"ingredient": "yeast_instant", "mass_g": dose["mass_g"]}],
    }
    assert compute("rise", leavened)["crossings"][0]["h"]["p50"] == pytest.approx(12, rel=0.03)
    assert [w["grams"] < 1 for w in dose["measurable"]] == [True, True, True]
    sour = {
        **REQUESTS["rise"],
        "readings": [],
        "lines": [*DOUGH[:3], {"ingredient": "starter_100", "mass_g": 100}],
        "starter": {"state": "peak"},
    }
    assert compute("rise", sour)["acid"]["word"] in ("mild, milky", "clean tang")
    peak = compute("starter", {"total_g": 200, "peak_at_h": 8, "temp_c": 24.5})
    assert (peak["peak_h"], sum(peak["masses"].values())) == (pytest.approx(8, abs=0.2), pytest.approx(200))
    with pytest.raises(InvalidInput, match="Change the hour"):
        compute("starter", {"total_g": 200, "peak_at_h": 2, "temp_c": 12})
    soda = compute("soda", REQUESTS["soda"])
    assert soda["wait"]["verdict"] == "cook_at_once"
    assert 1 < soda["lift_at_cook"] < soda["best_lift"]
    puff = compute("puff", REQUESTS["puff"])
    assert puff["events"]["puff"]["p50"] < puff["events"]["full"]["p50"]
    assert [a["action"] for a in puff["program"]] == ["load", "turn", "off"]
    assert puff["likelihood"]["reasons"][0]["factor"] == "skin"
    given = {**REQUESTS["puff"], "program": [{"do": "face_a", "seconds": 40}, {"do": "face_b", "seconds": 30}]}
    assert compute("puff", given)["program"][-1]["at_s"] == {"p10": 70, "p50": 70, "p90": 70}
    over_flame = {**REQUESTS["puff"], "surface": {"kind": "inverted_plate", "temp_c": 240, "heat": "ceramic"}}
    turned = compute("puff", over_flame)
    assert [a["action"] for a in turned["program"]] == ["load", "invert", "off"]
    assert {"inverted_plate", "ceramic_hob"} <= {c["code"] for c in turned["cautions"]}
    stuffed = {
        **REQUESTS["puff"],
        "bread": {**REQUESTS["puff"]["bread"], "stuffed": {"mass_g": 60}},
        "surface": {"kind": "iron_plate", "temp_c": 220},
    }
    filled = compute("puff", stuffed)
    assert (
        filled["events"]["core_75"]["p50"] < filled["program"][-1]["at_s"]["p50"] and filled["events"]["puff"] is None
    )
    for change, pointer in (
        ({"stuffed": {"mass_g": 600}}, "/bread/stuffed/mass_g"),
        ({"thickness_mm": 61}, "/bread/thickness_mm"),
    ):
        with pytest.raises(InvalidInput) as caught:
            compute("puff", {**stuffed, "bread": {**stuffed["bread"], **change}})
        assert pointer in {f.pointer for f in caught.value.faults}


def test_the_command_line_answers_and_refuses() -> None:
    good = cli("compute", "mix", text=json.dumps(REQUESTS["mix"]))
    assert good.returncode == 0
    assert json.loads(good.stdout)["liquid_temp_c"] == pytest.approx(24, abs=4)
    for kind in ("rise", "puff", "drill"):  # the same numbers and bands as the application's
        told = json.loads(cli("compute", kind, text=json.dumps(REQUESTS[kind])).stdout)
        assert told == json.loads(json.dumps(compute(kind, REQUESTS[kind])))
    assert json.loads(cli("schema", "rise").stdout)["title"] == "RiseRequest"
    bad = cli("compute", "rise", text=json.dumps({**REQUESTS["rise"], "mix_temp_c": 900, "stages": []}))
    told = json.loads(bad.stderr)
    assert (bad.returncode, bad.stdout) == (2, "")
    assert {e["pointer"] for e in told["errors"]} == {"/mix_temp_c", "/stages"}
    assert "900" in told["detail"]
    for args, text, words in (
        (("compute", "bread"), "{}", "Known are"),
        (("compute", "mix"), "{", "JSON"),
        (("schema", "bread"), "", "Known are"),
        (("compute", "mix", "/no/such"), "", "cannot be read"),
    ):
        answer = cli(*args, text=text)
        assert answer.returncode == 2
        assert words in json.loads(answer.stderr)["detail"]
