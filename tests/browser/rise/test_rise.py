"""The Rise leaf in the browser: dragging causes, ways to the table, places, looks, the jar, rests, the Kitchen room's
part of it."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from serving import Server

Watch = Callable[..., Any]


def demo_kitchen(server: Server) -> int:
    return int(server.send("GET", "/api/kitchens", None)["kitchens"][0]["id"])


def new_bake(server: Server, method: str, serve: str) -> int:
    body = {"kitchen_id": demo_kitchen(server), "serve": serve, "method": method}
    return int(server.send("POST", "/api/bakes", body)["id"])


def bake_of(server: Server, bake: int) -> dict[str, object]:
    return dict(server.send("GET", f"/api/bakes/{bake}", None))


def figures(page: Page) -> str:
    return page.locator("section[aria-label='What if'] div[role=status]").inner_text()


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_causes_are_dragged_and_kept(demo_server: Server, watch: Watch, size: str) -> None:
    bake = new_bake(demo_server, "hatch-pita", "in 30 h")
    w = watch(demo_server, size)
    page = w.goto(f"/b/{bake}/rise")
    page.get_by_role("tab", name="What if").wait_for()
    page.keyboard.press("i")
    before = figures(page)
    kitchen = page.get_by_role("slider", name="the kitchen")
    kitchen.focus()
    for _ in range(4):
        page.keyboard.press("ArrowRight")
    expect(page.get_by_role("group", name="the kitchen").get_by_text("+2.0 °C")).to_be_visible()
    expect(page.get_by_role("button", name="Change it so")).to_be_visible()
    page.wait_for_function(
        "was => document.querySelector('section[aria-label=\"What if\"] div[role=status]').innerText !== was",
        arg=before,
    )
    w.axe_clean()
    page.get_by_role("button", name="leave it").click()
    expect(page.get_by_role("button", name="Change it so")).to_have_count(0)
    assert bake_of(demo_server, bake)["revision"] == 0
    if size == "tablet":
        table = page.get_by_role("slider", name="Serve at").first
        table.scroll_into_view_if_needed()
        was = table.get_attribute("aria-valuetext")
        box = table.bounding_box()
        assert box
        page.mouse.move(box["x"] + 24, box["y"] + 24)
        page.mouse.down()
        page.mouse.move(box["x"] - 120, box["y"] + 30, steps=8)
        page.mouse.up()
        assert table.get_attribute("aria-valuetext") != was
    else:
        page.get_by_role("slider", name="Serve at").first.press("ArrowLeft")
    page.get_by_role("button", name="Change it so").click()
    expect(page.get_by_role("button", name="Change it so")).to_have_count(0)
    assert bake_of(demo_server, bake)["revision"] == 1


def test_a_way_is_taken_and_taken_back(demo_server: Server, watch: Watch) -> None:
    bake = new_bake(demo_server, "hatch-pita", "in 40 h")
    page = watch(demo_server, "tablet").goto(f"/b/{bake}/rise")
    page.get_by_role("tab", name="Other ways").click()
    ways = page.get_by_role("region", name="Other ways")
    expect(ways.get_by_role("listitem")).to_have_count(5)
    ways.get_by_role("listitem").filter(has_text="One night in the fridge").get_by_role(
        "button", name="Do it so"
    ).click()
    expect(page.get_by_text("Changed.")).to_be_visible()
    expect(page.get_by_role("slider", name="Into the fridge")).to_be_visible()
    settings = bake_of(demo_server, bake)["settings"]
    assert isinstance(settings, dict) and settings["cold"]["hours"] == 14
    out = page.get_by_role("slider", name="Out of the fridge")
    out.focus()
    page.keyboard.press("PageDown")
    page.keyboard.press("i")
    page.get_by_role("button", name="leave it").click()
    page.keyboard.press("o")
    back = page.get_by_role("region", name="Other ways").get_by_role("listitem").filter(has_text="On the bench").first
    back.get_by_role("button", name="Do it so").click()
    expect(page.get_by_role("slider", name="Into the fridge")).to_have_count(0)


def test_places_own_air_and_the_jar(demo_server: Server, watch: Watch) -> None:
    bake = new_bake(demo_server, "hatch-pita", "in 30 h")
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{bake}/rise")
    page.get_by_role("button", name="stages…").click()
    stands = page.get_by_role("region", name="Where it stands")
    stands.get_by_role("button", name=re.compile("^on|the bench")).first.click()
    page.get_by_role("option", name=re.compile("the proof box")).click()
    expect(stands.get_by_role("button", name=re.compile("the proof box"))).to_be_visible()
    own = stands.get_by_label("or air of its own").first
    own.fill("0 h 24, 3 h 18")
    own.press("Enter")
    expect(stands.get_by_role("button", name="back to the air of its place")).to_be_visible()
    stands.get_by_role("button", name="draw it").first.click()
    first = stands.get_by_role("slider", name=re.compile("^Air at 0")).first
    first.focus()
    page.keyboard.press("PageUp")
    expect(stands.get_by_role("slider", name=re.compile("^Air at 0")).first).to_have_attribute(
        "aria-valuetext", "26.0 °C"
    )
    own.fill("warm")
    own.press("Enter")
    expect(page.get_by_text(re.compile("Hours of a path|is no number"))).to_be_visible()
    card = page.get_by_role("region", name="Card for the straight jar")
    expect(card).to_contain_text("98.6 g")
    expect(card).to_contain_text("57 mm")
    card.get_by_label("the jar is, inside").fill("8")
    expect(card).to_contain_text("175 g")
    w.axe_clean()


def test_a_thermometer_and_the_jar_are_looks_too(demo_server: Server, watch: Watch) -> None:
    bake = new_bake(demo_server, "hatch-pita", "in 30 h")
    demo_server.send("POST", f"/api/bakes/{bake}/taps", {"key": "k-mix-1", "kind": "mix", "at": "50 min ago"})
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{bake}/rise")
    page.get_by_role("button", name=re.compile("^what|times its start")).first.click()
    page.get_by_role("option", name="the jar, mm").click()
    page.get_by_label("reads", exact=True).fill("39")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text("1.30 × by the jar")).to_be_visible()
    page.get_by_role("button", name=re.compile("the jar, mm")).first.click()
    page.get_by_role("option", name="dough inside").click()
    page.get_by_label("reads", exact=True).fill("19")
    page.get_by_role("button", name="Note it").click()
    expect(page.get_by_text("19.0 °C inside")).to_be_visible()
    expect(page.get_by_text(re.compile("colder than planned"))).to_be_visible()
    page.get_by_role("button", name="just: comes back slowly, by half").click()
    expect(page.get_by_role("listitem").filter(has_text="just")).to_be_visible()
    by = page.get_by_label("by", exact=True)
    by.fill("in 3 h")
    by.press("Enter")
    expect(page.get_by_text("All but sure")).to_be_visible()
    page.get_by_role("button", name="stages…").click()
    page.get_by_role("region", name="Where it stands").get_by_role("button", name="bulk takes: why?").click()
    expect(page.get_by_role("dialog").last).to_contain_text("+1 °C in the kitchen is")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    w.axe_clean()


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_dough_that_rests_says_how_long(demo_server: Server, watch: Watch, size: str) -> None:
    bake = new_bake(demo_server, "yoghurt-quick", "in 8 h")
    w = watch(demo_server, size)
    page = w.goto(f"/b/{bake}/rise")
    expect(page.get_by_text("half its lift is gone after")).to_be_visible()
    expect(page.get_by_text("warm hours of dairy or egg, by this plan")).to_be_visible()
    expect(page.get_by_text("a count, not a permission; local food rules decide")).to_be_visible()
    w.axe_clean()


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_stage_times_are_typed_as_they_are_said(demo_server: Server, watch: Watch, size: str) -> None:
    """Two nights cold as oiled balls, by keyboard alone: the moves follow, what it costs is said, a bad word stays."""
    bake = new_bake(demo_server, "two-lift-naan", "in 60 h")
    w = watch(demo_server, size)
    page = w.goto(f"/b/{bake}/rise")

    def typed(label: str, text: str) -> None:
        field = page.get_by_label(label, exact=True)
        field.focus()
        field.press("ControlOrMeta+a")
        page.keyboard.type(text)
        page.keyboard.press("Enter")

    typed("in one piece until", "skip")
    typed("in balls until", "20 min")
    typed("in the fridge", "40")
    expect(page.get_by_text("Out of the cold").first).to_be_visible()
    expect(page.get_by_text(re.compile("half of its lift or more is gone")).first).to_be_visible()
    w.axe_clean()
    typed("in balls until", "a while")
    expect(page.get_by_text(re.compile("a while.*(30 min|2 h)")).first).to_be_visible()
    kept = bake_of(demo_server, bake)["settings"]
    assert isinstance(kept, dict) and (kept["bulk_end"], kept["cold"]["hours"]) == ("skip", 40)
    assert kept["ball_h"] == pytest.approx(1 / 3, abs=0.01), "what cannot be read changes nothing"


def test_the_kitchen_keeps_places_air_beliefs_and_starters(demo_server: Server, watch: Watch) -> None:
    kitchen = demo_kitchen(demo_server)
    w = watch(demo_server, "tablet")
    page = w.goto(f"/k/{kitchen}/kitchen")
    page.get_by_role("button", name=re.compile("° the cellar")).press("Enter")
    cellar = page.get_by_label("temperature", exact=True)
    cellar.fill("11")
    cellar.press("Enter")
    expect(page.get_by_role("button", name=re.compile("° the cellar"))).to_contain_text("11.0°")
    page.get_by_text("a probe’s log, a line each: when, temperature").click()
    page.get_by_label("Log of a probe").fill("40 min ago 18.5\n20 min ago, 18.2\nyesterday 900")
    page.get_by_role("button", name="Take the log").click()
    expect(page.get_by_text(re.compile("Line 3: 900 C cannot be air"))).to_be_visible()
    page.get_by_label("Log of a probe").fill("40 min ago 18.5\n20 min ago, 18.2")
    page.get_by_role("button", name="Take the log").click()
    expect(page.get_by_text("2 taken.")).to_be_visible()
    w.axe_clean()
    page.get_by_role("button", name="Learned", exact=True).click()
    told = page.get_by_text(re.compile(r"\d+ of \d+ lessons count")).first
    before = told.inner_text()
    assert not before.startswith("0 of")
    page.get_by_role("button", name="forget it").first.click()
    expect(told).to_have_text(re.compile("^0 of"))
    page.get_by_role("button", name="undo the forgetting").click()
    expect(told).to_have_text(before)
    w.axe_clean()
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Starters", exact=True).click()
    page.get_by_label("a starter called").fill("Pell mother")
    page.get_by_role("button", name="Look after it").click()
    page.get_by_role("button", name="Fed", exact=True).last.click()
    expect(page.get_by_text(re.compile("next feed by")).last).to_be_visible()
    page.get_by_role("button", name="How to keep it").last.click()
    expect(page.get_by_text("Least waste.")).to_be_visible()
    w.axe_clean()
