"""The Keep leaf in the browser: the wrap is chosen by keyboard, and softness, advice and reheating follow it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import expect

from serving import Server

Watch = Callable[..., Any]


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_wrap_is_chosen_by_keyboard(demo_server: Server, watch: Watch, size: str) -> None:
    kitchen = demo_server.send("GET", "/api/kitchens", None)["kitchens"][0]
    given = {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": "hatch-pita"}
    bake = demo_server.send("POST", "/api/bakes", given)["id"]
    w = watch(demo_server, size)
    page = w.goto(f"/b/{bake}/keep")
    stays = page.get_by_role("region", name="How long it stays good")
    expect(stays.get_by_role("radio", name="in cloth")).to_be_checked()
    expect(stays).to_contain_text("Into cloth at once")
    before = stays.get_by_text(re.compile("^good until")).inner_text()
    stays.get_by_role("radio", name="in cloth").press("ArrowRight")
    page.keyboard.press(" ")
    expect(stays.get_by_role("radio", name="bagged when cool")).to_be_checked()
    expect(stays.get_by_role("img", name=re.compile("bagged when cool"))).to_be_visible()
    expect(stays.get_by_text(re.compile("^good until"))).not_to_have_text(before)
    expect(stays.get_by_role("row", name=re.compile("^pan"))).to_contain_text("a side")
    w.axe_clean()


def test_three_flat_rounds_their_cause_and_one_change(demo_server: Server, watch: Watch) -> None:
    kitchen = demo_server.send("GET", "/api/kitchens", None)["kitchens"][0]
    at = f"/api/kitchens/{kitchen['id']}/surfaces"
    stone = demo_server.send("POST", at, {"name": "Cool stone", "kind": "stone_oven"})["surfaces"][-1]["id"]
    given = {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": "hatch-pita"}
    bake = demo_server.send("POST", "/api/bakes", given)["id"]
    demo_server.send("PATCH", f"/api/bakes/{bake}", {"count": 4, "surface_id": stone})
    demo_server.send("PATCH", f"/api/bakes/{bake}", {"surface_c": 205, "surface_source": "infrared"})
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{bake}/keep")
    expect(page.get_by_test_id("causes")).to_have_count(0)
    for number in (2, 3, 4):
        page.get_by_role("button", name=re.compile(f"^Round {number}:")).click()
        page.get_by_role("radio", name="flat").click()
        expect(page.get_by_role("button", name=re.compile(f"^Round {number}: flat"))).to_be_visible()
    causes = page.get_by_role("region", name="Why it fell short")
    expect(causes).to_contain_text("Why 2, 3 and 4 fell short")
    expect(causes).to_contain_text("heat of the surface 205 C")
    causes.get_by_role("button", name="Write it down for next time").press("Enter")
    expect(causes).to_contain_text("written down for next time")
    expect(page.get_by_label("A line for next time")).to_have_value(re.compile("Next time: heat it longer"))
    w.axe_clean()


def test_what_is_left_is_frozen_and_taken_out_for_a_table(demo_server: Server, watch: Watch) -> None:
    kitchen = demo_server.send("GET", "/api/kitchens", None)["kitchens"][0]
    given = {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": "hatch-pita", "name": "Freezer pitas"}
    bake = demo_server.send("POST", "/api/bakes", given)["id"]
    demo_server.send("PATCH", f"/api/bakes/{bake}", {"count": 2})
    for n, (kind, spot) in enumerate((("load", 1), ("turn", 1), ("off", 1))):
        body = {"key": f"freezer-{n}", "kind": kind, "round_no": 1, "spot": spot}
        demo_server.send("POST", f"/api/bakes/{bake}/taps", body)
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{bake}/keep")
    left = page.get_by_role("group", name="Freeze what is left")
    left.get_by_label("freeze").press("Control+a")
    page.keyboard.type("3")
    left.get_by_role("button", name="Into the freezer").press("Enter")
    expect(left).to_contain_text("give 1 to 2")
    left.get_by_label("freeze").fill("2")
    left.get_by_role("button", name="Into the freezer").press("Enter")
    expect(left).to_contain_text("Frozen.")
    w.axe_clean()
    page = w.goto(f"/k/{kitchen['id']}/kitchen")
    freezer = page.get_by_role("region", name="Freezer")
    expect(freezer).to_contain_text("Freezer pitas")
    freezer.get_by_label("warm at a table").fill("2")
    freezer.get_by_label("when").fill("tomorrow evening")
    expect(freezer.get_by_role("list", name="What to take out")).to_contain_text("from frozen")
    freezer.get_by_role("button", name="take one out").press("Enter")
    expect(freezer.get_by_role("button", name="put back")).to_be_visible()
    freezer.get_by_role("button", name="off the list").press("Enter")
    expect(freezer.get_by_text("It is off the list.")).to_be_visible()
    freezer.get_by_role("button", name="undo").press("Enter")
    expect(freezer).to_contain_text("Freezer pitas")
    w.axe_clean()
    page.request.delete(f"{demo_server.url}/api/bakes/{bake}")  # its next move would be the kitchen's
