"""Waits as a cook keeps them, through the doors of the application: a time, a range, nothing at all; the cold for every
dough; warm hours along the path. Walks of our own; the limits are common practice, without a source."""

from __future__ import annotations

import datetime as dt
import re
from itertools import pairwise
from typing import Any

import pytest
from flask.testing import FlaskClient
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.spoken import span_h

H = dt.timedelta(hours=1)


def at(bake: dict[str, Any], key: str) -> dt.datetime:
    return dt.datetime.fromisoformat(next(s["at"] for s in bake["steps"] if s["key"] == key))


def say(bake: dict[str, Any]) -> str:
    return "".join(p.get("text") or "…" for p in bake["say"])


def made(client: FlaskClient, kitchen: dict[str, Any], method: str, serve: str, **settings: Any) -> dict[str, Any]:
    body = {"kitchen_id": kitchen["id"], "serve": serve, "method": method}
    bake = client.post("/api/bakes", json=body).json
    answer = client.patch(f"/api/bakes/{bake['id']}", json=settings)
    assert answer.status_code == 200, answer.text
    return answer.json


def test_a_stage_ends_after_its_time_and_its_rise_is_told_beside_it(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    bake = made(client, kitchen, "hatch-pita", "in 20 h", bulk_time="half an hour", ball_time="1 h")
    begun = at(bake, "mix") + dt.timedelta(minutes=next(s["hands_min"] for s in bake["steps"] if s["key"] == "mix"))
    assert at(bake, "ball") - begun == pytest.approx(0.5 * H, abs=0.06 * H)
    assert at(bake, "roll") - at(bake, "ball") == pytest.approx(H, abs=0.11 * H)
    assert [w["too_far"]["p50"] is not None for w in bake["rise"]["windows"]] == [True, True]
    back = client.patch(f"/api/bakes/{bake['id']}", json={"bulk_time": None, "ball_time": "at its rise"}).json
    assert (back["settings"]["bulk_end"], back["settings"]["ball_end"]) == ("rise", "rise")
    assert at(back, "ball") != at(bake, "ball")


def test_a_time_that_the_dough_does_not_bear_is_said_and_does_not_fit(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    bake = made(client, kitchen, "hatch-pita", "in 30 h", bulk_time="12 h")
    assert not bake["fits"] and "too ripe by" in say(bake)
    found = client.get(f"/api/bakes/{bake['id']}/way-out").json
    assert "too ripe by" in found["because"] and not found["fits"]


def test_balls_straight_after_mixing_a_night_cold_and_four_hours_out(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    cold = {"stage": "ball", "after_h": 0.25, "hours": 24}
    bake = made(client, kitchen, "hatch-pita", "in 40 h", bulk_time="skip", ball_time="4 h out", cold=cold)
    keys = [s["key"] for s in bake["steps"]]
    assert keys.index("ball") < keys.index("cold_in") < keys.index("cold_out") < keys.index("roll")
    assert at(bake, "roll") - at(bake, "cold_out") == pytest.approx(4 * H, abs=0.5 * H)
    assert "balled straight away" in next(s["reason"] for s in bake["steps"] if s["key"] == "mix")


@pytest.mark.parametrize(("method", "long_h"), [("yoghurt-quick", 24), ("two-lift-naan", 40)])
def test_a_dough_of_powder_goes_into_the_cold_and_out_again(
    client: FlaskClient, kitchen: dict[str, Any], method: str, long_h: int
) -> None:
    """A night or two cold is said with what it costs, not refused; a day and a half warm is."""
    cold = {"stage": "ball", "after_h": 0.25, "hours": 6}
    bake = made(client, kitchen, method, "in 12 h", bulk_time="skip", ball_time="30 min out", cold=cold)
    assert at(bake, "cold_out") - at(bake, "cold_in") == pytest.approx(6 * H, abs=H)
    assert at(bake, "roll") - at(bake, "cold_out") == pytest.approx(0.5 * H, abs=0.1 * H)
    longer = {"cold": {**cold, "hours": long_h}, "serve": f"in {long_h + 12} h"}
    long = client.patch(f"/api/bakes/{bake['id']}", json=longer).json
    assert long["fits"] and "half of its lift or more is gone" in say(long)
    warm = client.patch(f"/api/bakes/{bake['id']}", json={"cold": None, "ball_time": "30 h"}).json
    assert not warm["fits"] and "Two thirds of the lift" in say(warm)


def test_a_dough_from_the_fridge_is_cold_on_the_heat(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """Rolled straight from the cold it meets the heat colder than after an hour out, and takes longer."""
    cold = {"stage": "ball", "after_h": 0.25, "hours": 6}
    found = []
    for out in ("1 min out", "2 h out"):
        bake = made(client, kitchen, "yoghurt-quick", "in 12 h", bulk_time="skip", ball_time=out, cold=cold)
        codes = {c["code"] for c in bake["fire"]["cautions"]}
        found.append((bake["fire"]["bread_c"], bake["fire"]["program"]["off_s"], "cold_bread" in codes))
    straight, rested = found
    assert straight[0] < rested[0] - 4 and straight[1] > rested[1]
    assert (straight[2], rested[2]) == (True, False)


def test_sleep_sends_a_quick_dough_into_the_fridge(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """For breakfast, with the hours of sleep taken: one of the ways out is the fridge overnight."""
    hours = {"name": "sleep", "from_time": "22:00", "until_time": "07:00", "days": list(range(7))}
    assert client.post(f"/api/kitchens/{kitchen['id']}/hours", json=hours).status_code == 201
    bake = made(client, kitchen, "two-lift-naan", "tomorrow 08:30")
    assert not bake["fits"]
    found = client.get(f"/api/bakes/{bake['id']}/way-out").json
    fridge = next(c for c in found["changes"] if "in the fridge" in c["text"])
    taken = client.post(f"/api/bakes/{bake['id']}/way-out", json={"id": fridge["id"]})
    assert taken.status_code == 200 and taken.json["fits"] and taken.json["settings"]["cold"]


def test_warm_hours_are_counted_along_the_path_and_by_stage(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """By hand: a quarter of an hour on the bench, ten hours cold, four out at 22 C, and the time that the balls take to
    get under 10 C: four and a quarter, and at most an hour and three quarters more."""
    cold = {"stage": "ball", "after_h": 0.25, "hours": 10}
    bake = made(client, kitchen, "yoghurt-quick", "in 30 h", bulk_time="skip", ball_time="4 h out", cold=cold)
    count = bake["rest"]["safety"]
    assert 4.25 <= count["warm_h"] <= 6.0 and count["reached_at"]
    assert sum(s["warm_h"] for s in count["by_stage"]) == pytest.approx(count["warm_h"])
    short = client.patch(f"/api/bakes/{bake['id']}", json={"ball_time": "30 min out"}).json["rest"]["safety"]
    assert 0.75 <= short["warm_h"] <= 2.5


@pytest.mark.parametrize("method", ["soda-quarters", "yoghurt-quick", "hatch-pita", "terrace-naan", "two-lift-naan"])
def test_one_pair_of_hands_does_one_thing_at_a_time(client: FlaskClient, kitchen: dict[str, Any], method: str) -> None:
    bake = made(client, kitchen, method, "in 26 h")
    hands = [s for s in bake["steps"] if s["key"] not in ("serve",)]
    for a, b in pairwise(hands):
        ends = dt.datetime.fromisoformat(a["at"]) + dt.timedelta(minutes=a["hands_min"])
        assert ends <= dt.datetime.fromisoformat(b["at"]) + dt.timedelta(seconds=61), (a["key"], b["key"])


@pytest.mark.parametrize("text", ["soon", "4", "-1 h", "24 to 16 h", "500 h"])
def test_a_time_that_cannot_be_is_refused_with_what_would_be_right(
    client: FlaskClient, bake: dict[str, Any], text: str
) -> None:
    answer = client.patch(f"/api/bakes/{bake['id']}", json={"bulk_time": text})
    assert answer.status_code == 422
    fault = answer.json["errors"][0]
    assert fault["pointer"] == "/bulk_time" and ("30 min" in fault["detail"] or "up to" in fault["detail"])


@given(st.integers(1, 90), st.integers(0, 59))
def test_hours_read_back_as_they_are_said(hours: int, minutes: int) -> None:
    whole = hours + minutes / 60
    assert span_h(f"{hours} h {minutes}") == pytest.approx((whole, whole))
    assert span_h(f"{hours} to {hours + 1} hours") == (hours, hours + 1)


@given(st.text(max_size=40))
def test_any_text_is_hours_or_nothing(text: str) -> None:
    found = span_h(text)
    assert found is None or 0 <= found[0] <= found[1]


def test_a_soda_dough_from_nothing_is_stirred_shaped_and_cooked_at_once(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    amounts = {"plain_flour": "400 g", "buttermilk": "300 g", "baking_soda": "1 tsp", "salt_fine": "1 tsp"}
    lines = [{"ingredient": k, "amount": a, "basis": None, "part": ""} for k, a in amounts.items()]
    bake = made(client, kitchen, "blank", "in 2 h", lines=lines, count=4, diameter_cm=14)
    assert at(bake, "line") - at(bake, "mix") < 0.5 * H
    guide = " ".join(step["text"] for step in bake["mix"]["guide"])
    assert "Stir" in guide and "Fold" not in guide
    yeasted = [*lines, {"ingredient": "yeast_instant", "amount": "1 tsp", "basis": None, "part": ""}]
    risen = client.patch(f"/api/bakes/{bake['id']}", json={"lines": yeasted, "serve": "in 8 h"}).json
    assert risen["rise"] and risen["settings"]["knead"] == "hand"
    own = client.patch(f"/api/bakes/{bake['id']}", json={"knead_min": 4, "lines": lines}).json
    assert (own["settings"]["knead"], own["settings"]["knead_min"]) == ("hand", 4)  # a cook's own handling stays


@pytest.mark.parametrize(("stage", "follows"), [("bulk", "ball"), ("ball", "roll")])
def test_a_stage_ends_as_the_dough_comes_out_of_the_fridge(
    client: FlaskClient, kitchen: dict[str, Any], stage: str, follows: str
) -> None:
    cold = {"stage": stage, "after_h": 0.25, "hours": 14}
    bake = made(client, kitchen, "hatch-pita", "in 30 h", cold=cold, **{f"{stage}_time": "straight from the fridge"})
    out, then = at(bake, "cold_out"), at(bake, follows)
    assert (then - out) / H == pytest.approx(0.05, abs=0.02)  # the hands that fetch it
    words = {s["key"]: s["reason"] for s in bake["steps"]}
    assert words[follows] == "as it comes out of the cold"


@pytest.mark.parametrize(
    ("amounts", "knead", "rests"),
    [
        ({"plain_flour": "400 g", "water": "220 g", "baking_powder": "8 g"}, ("hand", 3), True),
        ({"self_raising": "300 g", "yoghurt_whole": "250 g"}, ("hand", 3), True),
        ({"plain_flour": "400 g", "buttermilk": "335 g", "baking_soda": "6 g"}, ("none", 2), False),
        ({"plain_flour": "400 g", "buttermilk": "220 g", "baking_soda": "6 g"}, ("hand", 3), True),
        ({"plain_flour": "400 g", "water": "420 g", "baking_powder": "8 g"}, ("none", 2), True),
    ],
)
def test_leaven_acid_and_water_decide_how_it_is_handled(
    client: FlaskClient, kitchen: dict[str, Any], amounts: dict[str, str], knead: tuple[str, int], rests: bool
) -> None:
    """Common practice: soda and much buttermilk are stirred and cooked at once; powder, or little liquid, is pressed
    together and rests a little. Nobody kneads either for eight minutes."""
    lines = [{"ingredient": k, "amount": a, "basis": None, "part": ""} for k, a in amounts.items()]
    s = made(client, kitchen, "blank", "in 5 h", lines=lines, count=6, diameter_cm=14)["settings"]
    assert (s["knead"], s["knead_min"]) == knead and s["bulk_end"] == "skip"
    assert (s["ball_end"] == "time") is rests


def test_yeast_that_is_bloomed_is_so_by_itself_and_soda_beside_yeast_is_told(
    client: FlaskClient, kitchen: dict[str, Any]
) -> None:
    lines = [
        {"ingredient": k, "amount": a, "basis": None, "part": ""}
        for k, a in {"plain_flour": "400 g", "water": "240 g", "yeast_active": "4 g"}.items()
    ]
    bake = made(client, kitchen, "blank", "in 9 h", lines=lines)
    assert bake["settings"]["bloomed"] and "Bloom it" in bake["mix"]["bloom"] and bake["rise"]["soda"] == ""
    own = client.patch(f"/api/bakes/{bake['id']}", json={"bloomed": False}).json
    assert not own["settings"]["bloomed"]  # until the lines are others
    soda = [*lines, {"ingredient": "baking_soda", "amount": "3 g", "basis": None, "part": ""}]
    both = client.patch(f"/api/bakes/{bake['id']}", json={"lines": soda}).json
    assert re.search(r"\d+ %|\d+%", both["rise"]["soda"]) and both["rise"]["windows"]


def test_the_rise_begins_at_what_went_in_the_bowl(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """Iced water lands the dough under the wish: its windows come later, and the warm wish is not believed."""
    wished = made(client, kitchen, "hatch-pita", "in 20 h")
    iced = client.patch(f"/api/bakes/{wished['id']}", json={"part_temps": {"water": 4.0}}).json
    rise_h = [x["rise"]["windows"][0]["ready"]["p50"] for x in (wished, iced)]
    assert iced["mix"]["dough_temp_c"] < wished["mix"]["dough_temp_c"] - 3
    assert at(iced, "mix") < at(wished, "mix"), "a colder dough wants longer before the same table"
    assert rise_h[0] != rise_h[1]


def test_a_way_out_that_changes_the_hours_in_the_cold_says_so(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    """Whatever is taken: the bread stands as long in the cold as it did, or as the words of the change have it."""
    cold = {"stage": "ball", "after_h": 0.5, "hours": 26}
    bake = made(client, kitchen, "hatch-pita", "in 46 h", cold=cold)
    mixing = at(bake, "mix")
    away = {
        "name": "rota",
        "start": f"{mixing - H:%Y-%m-%d %H:%M}",
        "end": f"{mixing + 2 * H:%Y-%m-%d %H:%M}",
    }
    assert client.post(f"/api/kitchens/{kitchen['id']}/hours", json=away).status_code == 201
    found = client.get(f"/api/bakes/{bake['id']}/way-out").json
    own = [c for c in found["changes"] if "bench" not in c["text"] and "fridge at" not in c["text"]]
    assert own
    for change in own:
        taken = client.post(f"/api/bakes/{bake['id']}/way-out", json={"id": change["id"]}).json
        hours = (at(taken, "cold_out") - at(taken, "cold_in")) / H
        told = re.search(r"(\d+) h in the cold instead of 26", change["text"])
        assert hours == pytest.approx(float(told[1]) if told else 26, abs=2.7), change["text"]
        act = client.get(f"/api/kitchens/{kitchen['id']}/day").json["undo"]
        client.post(f"/api/kitchens/{kitchen['id']}/day/acts/{act['id']}/undo")


@pytest.mark.parametrize(
    ("said", "hours"),
    [("overnight", 11), ("12", 12), ("12,5", 12.5), ("24-48 hours", 36), ("a day", 24), ("none", None), (None, None)],
)
def test_the_cold_is_said_in_words(
    client: FlaskClient, kitchen: dict[str, Any], said: str | None, hours: float
) -> None:
    had = {"stage": "bulk", "after_h": 1, "hours": 20}
    bake = made(client, kitchen, "hatch-pita", "in 80 h", cold=had)
    cold = client.patch(f"/api/bakes/{bake['id']}", json={"cold_time": said}).json["settings"]["cold"]
    assert cold == (None if hours is None else {**had, "hours": hours})
    for wrong, tells in (("a while", "is no time"), ("5 min", "outside"), ("200 h", "outside")):
        answer = client.patch(f"/api/bakes/{bake['id']}", json={"cold_time": wrong})
        assert answer.status_code == 422 and tells in answer.json["errors"][0]["detail"]
    assert client.get(f"/api/bakes/{bake['id']}").json["settings"]["cold"] == cold


def test_a_sponge_of_lines_gets_its_hours_in_words(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    part = [("bread_flour", "150 g", "sponge"), ("water", "150 g", "sponge"), ("yeast_instant", "0.3 g", "sponge")]
    rest = [("bread_flour", "350 g", ""), ("water", "180 g", ""), ("salt_fine", "10 g", "")]
    lines = [{"ingredient": i, "amount": a, "part": p} for i, a, p in part + rest]
    bake = made(client, kitchen, "blank", "in 40 h", lines=lines, sponge_time="10 to 14 hours")
    assert bake["settings"]["sponge_h"] == 12
    assert at(bake, "mix") - at(bake, "sponge") == pytest.approx(12 * H, abs=0.5 * H)


def test_busy_hours_of_a_week_are_said_by_the_clock_in_use(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    body = {"name": "sleep", "days": [0, 1], "from_time": "10.30 pm", "until_time": "half past six"}
    kept = client.post(f"/api/kitchens/{kitchen['id']}/hours", json=body)
    assert kept.status_code == 201, kept.text
    rule = client.get(f"/api/kitchens/{kitchen['id']}/hours").json["rules"][0]
    assert (rule["from_time"], rule["until_time"]) == ("22:30", "06:30")
    wrong = client.post(f"/api/kitchens/{kitchen['id']}/hours", json={**body, "from_time": "tomorrow at 9"})
    assert wrong.status_code == 422 and "no time of day" in wrong.json["errors"][0]["detail"]
