"""The Logbook in the browser: two winters read, chosen and searched, two bakes compared by keyboard, one left out and
counted again; the kitchen taken away and brought back in."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import expect

from serving import Server

Watch = Callable[..., Any]
BOOK = "/k/1/logbook"


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_two_winters_are_read_chosen_and_searched(watch: Watch, demo_server: Server, size: str) -> None:
    w = watch(demo_server, size)
    page = w.goto(BOOK)
    told = page.get_by_role("status").filter(has_text="bake")
    expect(told).to_have_text("40 bakes")
    pockets = page.get_by_role("region", name="Full pockets")
    expect(pockets.get_by_role("button", name=re.compile("of 8 full"))).to_have_count(
        28
    )  # 23 of hatch pitas, 5 cold-rise
    expect(pockets).to_contain_text("since: Roll it level")
    w.axe_clean()
    page.get_by_placeholder("a word of them").fill("sack drinks")
    expect(told).to_have_text("1 bake")
    page.get_by_placeholder("a word of them").fill("no such word")
    expect(page.get_by_text("No bake is like that.")).to_be_visible()
    page.get_by_placeholder("a word of them").fill("")
    expect(told).to_have_text("40 bakes")
    page.get_by_role("button", name=re.compile("Bread")).click()
    page.get_by_role("option", name=re.compile("Ridge sourdough")).click()
    expect(told).to_have_text("5 bakes")
    page.reload()
    expect(told).to_have_text("5 bakes")  # the choice stands in the address
    ready = page.get_by_role("region", name="Time to ready")
    marks = ready.get_by_role("button", name=re.compile("ready after"))
    expect(marks).to_have_count(5)
    marks.first.focus()  # every mark has its name and is reached by the arrow keys
    page.keyboard.press("ArrowRight")
    expect(marks.nth(1)).to_be_focused()
    beliefs = page.get_by_role("region", name="Heat and leaven").get_by_role("img", name=re.compile("believed"))
    beliefs.first.focus()
    page.keyboard.press("End")
    expect(beliefs.last).to_be_focused()
    costs = page.get_by_role("region", name="Cost").get_by_role("img", name=re.compile("min of hands"))
    expect(costs).to_have_count(5)
    ready.get_by_role("button", name="Time to ready, as a table").click()
    expect(ready.get_by_role("row")).to_have_count(6)
    page.get_by_role("button", name=re.compile("Surface or leaven")).click()
    page.get_by_role("option", name=re.compile("Baking stone: its rest")).click()
    expect(page.get_by_role("region", name="Heat and leaven")).to_contain_text("of the time it needs")
    page.get_by_role("radio", name="list").click()
    expect(page.get_by_role("list", name="Past bakes").get_by_role("link")).to_have_count(5)
    w.axe_clean()


def test_two_bakes_are_compared_by_keyboard_and_one_is_left_out(watch: Watch, demo_server: Server) -> None:
    w = watch(demo_server)
    page = w.goto(f"{BOOK}?bread=hatch-pita&season=winter")
    marks = page.get_by_role("region", name="Full pockets").get_by_role("button", name=re.compile("of 8 full"))
    marks.first.focus()
    page.keyboard.press("Enter")
    page.keyboard.press("End")
    page.keyboard.press("Enter")
    two = page.get_by_role("region", name="Two bakes")
    expect(two.get_by_role("row", name=re.compile("full pockets"))).to_be_visible()
    expect(two.get_by_role("row")).not_to_have_count(2)
    w.axe_clean()
    page.get_by_role("radio", name="list").click()
    page.get_by_role("button", name=re.compile("Leave .* out")).first.click()
    expect(page.get_by_text("1 left out")).to_be_visible()
    page.get_by_role("button", name=re.compile("Count .* again")).click()
    expect(page.get_by_text("1 left out")).to_be_hidden()


def test_a_kitchen_is_taken_away_and_brought_into_another(watch: Watch, demo_server: Server, tmp_path: Any) -> None:
    """The same file into the same kitchen brings nothing; what is no package is told; into a new one it brings all, and
    one press takes that back."""
    w = watch(demo_server)
    page = w.goto(BOOK)
    page.get_by_role("button", name="take away, bring in…").click()
    with page.expect_download() as got:
        page.get_by_role("link", name="Take the kitchen away").click()
    packed = tmp_path / "kitchen.zip"
    got.value.save_as(packed)
    body = {"zone": "UTC", "room_c": 20, "surface": {"name": "Pan", "kind": "skillet"}}
    other = demo_server.send("POST", "/api/kitchens", body)["id"]
    page = w.goto(f"/k/{other}/logbook")
    expect(page.get_by_text("Nothing is kept yet.")).to_be_visible()
    page.get_by_role("button", name="take away, bring in…").click()
    wrong = tmp_path / "wrong.zip"
    wrong.write_bytes(b"no zip")
    choose = page.locator("input[type=file]")
    choose.set_input_files(wrong)
    expect(page.get_by_role("dialog")).to_contain_text("no zip that can be opened")
    choose.set_input_files(packed)
    expect(page.get_by_role("dialog")).to_contain_text(re.compile(r"It brought .*46 bakes"))
    w.axe_clean()
    page.get_by_role("button", name="Close").click()
    expect(page.get_by_role("status").filter(has_text="40 bakes")).to_be_visible()
    page.get_by_role("button", name="take away, bring in…").click()
    page.get_by_role("button", name=re.compile("take the last one back")).click()
    expect(page.get_by_text("Nothing is kept yet.")).to_be_visible()
    w.wrong = [x for x in w.wrong if "422" not in x]
