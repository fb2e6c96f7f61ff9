"""The heat in the browser: a surface told by a sign, a clay wall of six, the first bread that measures it, colour, a round that fell, undo."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from serving import Server

Watch = Callable[..., Any]


def clay_naan(server: Server) -> str:
    kitchen = server.send("GET", "/api/kitchens", None)["kitchens"][0]
    clay = next(s["id"] for s in kitchen["surfaces"] if s["kind"] == "clay_wall")
    body = {"kitchen_id": kitchen["id"], "serve": "in 6 h", "method": "terrace-naan", "name": "Clay naan"}
    bake = server.send("POST", "/api/bakes", body)["id"]
    server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": clay})
    return f"/b/{bake}/fire"


def press_due(page: Page, words: str) -> None:
    expect(page.get_by_test_id("due-bar")).to_contain_text(words)
    page.get_by_test_id("due-bar").press("Space")


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_clay_wall_round_from_sign_to_towel(demo_server: Server, watch: Watch, size: str) -> None:
    w = watch(demo_server, size)
    page = w.goto(clay_naan(demo_server))
    page.get_by_role("button", name="tell it by a sign…").press("Enter")
    sheet = page.get_by_role("dialog", name="How hot is it?")
    sheet.get_by_label("golden after").fill("3")
    sheet.get_by_label("golden after").press("Enter")
    sheet.get_by_role("button", name=re.compile("^Reckon with")).press("Enter")
    expect(sheet).to_have_count(0)
    expect(page.get_by_label("it reads")).to_have_value(re.compile("^30[0-9]$"))
    page.get_by_label("it reads").fill("430")
    page.get_by_label("it reads").press("Enter")
    expect(page.get_by_text(re.compile("another spot saves"))).to_be_visible()
    w.axe_clean()
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    for number in (1, 2, 3):
        press_due(page, f"Load round {number}")
    page.get_by_role("button", name="first brown").press("Enter")
    expect(page.get_by_test_id("due-bar")).to_contain_text("the surface measures")
    page.get_by_role("button", name="fell off").press("Enter")
    page.get_by_role("button", name="round 2", exact=True).press("Enter")
    expect(page.locator("[data-spot='2']")).to_have_attribute("aria-label", re.compile("load round|free|recovering"))
    page.get_by_test_id("undo").press("Enter")
    expect(page.locator("[data-spot='2']")).to_have_attribute("aria-label", re.compile("take off round 2"))
    page.locator("[data-spot='1']").press("Enter")
    page.get_by_role("button", name="too dark").press("Enter")
    expect(page.get_by_text("shorter by 1 step")).to_be_visible()
    w.axe_clean()
