"""Weigh and Mix in the real interface: a list in mixed units, swaps, the beam, scaling, print, an import put right,
weighed, mixed."""

from __future__ import annotations

import json
import re
import time
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from helpers import wait_until
from serving import Server

Watch = Callable[..., Any]
TWELVE = """2 1/2 cups plain flour
1 cup (130 g) strong bread flour
1/4 cup fine semolina
3/4 cup plus 2 tbsp lukewarm water
4 tbsp yoghurt
1 large egg
21 g fresh yeast
1 1/2 tsp fine salt
2 tsp sugar
1/2 oz butter
1 tbsp olive oil
a pinch of baking soda"""
STEPS = "Mix and wait. Leave until doubled. Divide into 6, rest 20 minutes, roll to 6 mm."
RECIPE = {
    "@context": "https://schema.org",
    "@graph": [
        {
            "@type": ["Recipe"],
            "name": "Ledge rounds",
            "recipeYield": ["6", "6 breads"],
            "recipeIngredient": [
                "500 g bread flour",
                "330 ml water",
                "10 g salt",
                "a splash of oil",
                "7 g dried yeast",
                "moon dust",
            ],
            "recipeInstructions": [
                {"@type": "HowToSection", "itemListElement": [{"@type": "HowToStep", "text": STEPS}]}
            ],
        }
    ],
}


def press(page: Page, name: str) -> None:
    page.get_by_role("button", name=name, exact=True).click()


def kitchen(server: Server) -> int:
    surface = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 2}
    made = server.send("POST", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": surface})
    return int(made["id"])


def bake(server: Server, method: str) -> int:
    body = {"kitchen_id": kitchen(server), "serve": "in 8 h", "method": method}
    return int(server.send("POST", "/api/bakes", body)["id"])


def expect_kept(page: Page) -> None:
    expect(page.get_by_text("kept", exact=True)).to_be_visible()


@pytest.mark.parametrize("size", ["phone"])
def test_a_list_in_mixed_units(watch: Watch, empty_server: Server, size: str) -> None:
    """Twelve lines in under a minute; two cups that are not 500 g are told; fresh for instant; undo; 8 to 37 breads of
    110 g."""
    number = bake(empty_server, "blank")
    w = watch(empty_server, size)
    page = w.goto(f"/b/{number}/weigh")
    began = time.monotonic()
    press(page, "Paste a list")
    box = page.get_by_label("Paste it or write it as you would say it")
    box.fill(TWELVE)
    expect(page.get_by_role("button", name="Put 12 on the sheet")).to_be_enabled()
    w.axe_clean()
    page.get_by_role("button", name="Put 12 on the sheet").click()
    expect_kept(page)
    assert time.monotonic() - began < 60
    stored = empty_server.get(f"/api/bakes/{number}")
    assert len(stored["settings"]["lines"]) == 12
    assert stored["weigh"]["hydration_low"] < stored["weigh"]["hydration_frac"] < stored["weigh"]["hydration_high"]
    press(page, "Paste a list")
    box.fill("2 cups (500 g) plain flour")
    expect(page.get_by_text("is 236 to 290 g, not 500 g")).to_be_visible()
    press(page, "Close")
    page.get_by_role("group", name="Swap Fresh pressed yeast").get_by_role(
        "button", name=re.compile(r"^6\.9 g instant")
    ).click()
    expect_kept(page)
    lines = empty_server.get(f"/api/bakes/{number}")["settings"]["lines"]
    assert {"ingredient": "yeast_instant", "amount": "6.9 g", "basis": None, "part": ""} in lines
    press(page, "Scale")
    page.get_by_label("breads").last.fill("37")
    page.get_by_label("of", exact=True).last.fill("110")
    press(page, "Scale it")
    expect(page.get_by_text("37 breads × 110 g")).to_be_visible()
    scaled = empty_server.get(f"/api/bakes/{number}")
    assert scaled["weigh"]["total_g"] == pytest.approx(37 * 110 / 0.98, rel=0.005)
    assert all(line["amount"].endswith(" g") for line in scaled["settings"]["lines"])
    press(page, "undo")
    expect_kept(page)
    assert empty_server.get(f"/api/bakes/{number}")["settings"]["lines"] == lines
    w.axe_clean()


def test_the_beam_is_levelled_by_one_press(watch: Watch, empty_server: Server) -> None:
    number = bake(empty_server, "soda-quarters")
    w = watch(empty_server)
    page = w.goto(f"/b/{number}/weigh")
    verdict = page.get_by_role("button", name="Soda against acid: why?")
    expect(verdict).to_contain_text("soapy")
    expect(page.get_by_text("Griddle tradition often sits here")).to_be_visible()
    press(page, "less soda")
    expect(verdict).to_contain_text("balanced")
    expect_kept(page)
    press(page, "undo")
    expect(verdict).to_contain_text("soapy")
    press(page, "sticky")
    expect(page.get_by_role("status").filter(has_text="Rest 5 min first")).to_be_visible()
    page.get_by_role("button", name=re.compile("I added 3")).click()
    expect(page.get_by_text("take the last back")).to_be_visible()
    added = empty_server.get(f"/api/bakes/{number}")
    assert added["weigh"]["flour_g"] == pytest.approx(265, abs=1.5)
    press(page, "take the last back")
    expect(page.get_by_text("take the last back")).to_have_count(0)
    page.get_by_label("dose for a bulk ready at").fill("in 6 h")
    press(page, "Find the dose")
    page.get_by_role("button", name="use it", exact=True).click()
    expect_kept(page)
    assert "yeast_instant" in [x["ingredient"] for x in empty_server.get(f"/api/bakes/{number}")["settings"]["lines"]]
    page.emulate_media(media="print")
    assert page.get_by_role("button", name="Weigh it").count() == 0
    expect(page.get_by_role("heading", name="Soda quarters")).to_be_visible()
    assert page.pdf(format="A4").startswith(b"%PDF")
    page.emulate_media(media="screen")


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_recipe_brought_in_put_right_weighed_and_mixed(watch: Watch, empty_server: Server, size: str) -> None:
    """A JSON-LD recipe with two lines nobody could read: they stay in sight, are corrected, weighed by keys, mixed."""
    here = kitchen(empty_server)
    w = watch(empty_server, size)
    page = w.goto(f"/k/{here}/new")
    w.axe_clean()
    press(page, "or paste a recipe…")
    expect(page.get_by_label("Paste a recipe")).to_be_focused()
    page.get_by_label("Paste a recipe").fill(json.dumps(RECIPE))
    press(page, "Read it")
    expect(page.get_by_text("4 lines read, 2 to correct on the sheet")).to_be_visible()
    expect(page.get_by_text("until the dough has doubled")).to_be_visible()
    expect(page.get_by_text("Leave until doubled", exact=True)).to_be_visible()
    page.get_by_role("link", name="To the sheet").click()
    expect(page.get_by_role("heading", name="Ledge rounds")).to_be_visible()
    first = page.get_by_label("Line to correct 1")
    expect(first).to_have_value("a splash of oil")
    first.fill("a splash of olive oil")
    first.press("Enter")
    expect(page.get_by_text("A splash is no amount that can be weighed")).to_be_visible()
    first.fill("2 tbsp olive oil")
    first.press("Enter")
    expect(page.get_by_label("Line to correct 1")).to_have_value("moon dust")
    w.axe_clean()
    press(page, "leave it out")
    expect(page.get_by_role("group", name="Lines to correct")).to_have_count(0)
    expect_kept(page)
    press(page, "Weigh it")
    sheet = page.get_by_role("dialog", name="Weighing")
    expect(sheet).to_contain_text("1 of 5")
    w.axe_clean()
    page.locator("body").evaluate("document.activeElement.blur()")
    for at in range(2, 6):
        page.keyboard.press("Space")
        expect(sheet).to_contain_text(f"{at} of 5")
    page.keyboard.press("u")
    expect(sheet).to_contain_text("4 of 5")
    page.reload()
    press(page, "Weigh it")
    expect(sheet).to_contain_text("4 of 5")
    for _ in range(2):
        page.get_by_test_id("weigh-next").click()
    expect(sheet).to_contain_text("All in the bowl")
    page.get_by_test_id("weigh-next").click()
    expect(page.get_by_text("Weighed", exact=True)).to_be_visible()
    page.get_by_role("navigation", name="Leaves of this bake").get_by_role("link", name="Mix").click()
    expect(page.get_by_text("No foam after 15 min means dead yeast")).to_be_visible()
    page.get_by_label("it foamed after").fill("14")
    press(page, "Note it as a test")
    expect(page.get_by_text("Tired yeast, about 50%")).to_be_visible()
    press(page, "Start the clock on it")
    expect(page.get_by_role("button", name="stop this clock")).to_be_visible()
    w.axe_clean()
    press(page, "Mixed now")
    page.get_by_label("the dough reads").fill("29")
    press(page, "Note it")
    expect(page.get_by_text("the rise starts from there")).to_be_visible()
    expect(page.get_by_text("after 1 reading")).to_be_visible()


def test_methods_are_sifted_compared_and_kept_as_ones_own(watch: Watch, empty_server: Server) -> None:
    here = kitchen(empty_server)
    w = watch(empty_server)
    page = w.goto(f"/k/{here}/new")
    methods = page.locator("[data-chosen]")
    expect(methods).to_have_count(17)
    page.get_by_role("radio", name="blister").click()
    expect(methods).to_have_count(7)
    page.get_by_role("radio", name="3 h", exact=True).click()
    page.get_by_label("the cupboard lacks").fill("yeast")
    expect(methods).to_have_count(3)
    page.get_by_role("button", name=re.compile("^Yoghurt quick")).click()
    methods.filter(has_text="Two-lift naan").get_by_role("button", name="compare").click()
    expect(page.get_by_role("table", name="Two methods side by side")).to_contain_text("Two-lift naan")
    w.axe_clean()
    press(page, "Start this bake")
    press(page, "Print, save")
    page.get_by_label("Keep as a method of your own, called").fill("Ilse's quick")
    press(page, "Keep it as a method")
    expect(page.get_by_text("It stands first when you start a new bake")).to_be_visible()
    with page.expect_download() as got:
        page.get_by_role("link", name=re.compile("^Bake file")).click()
    assert json.loads(got.value.path().read_text())["format"] == "brass-clock/bake"
    press(page, "Close")
    w.goto(f"/k/{here}/new")
    expect(methods.first).to_contain_text("Ilse's quick")
    w.goto(f"/k/{here}/kitchen?at=measures")
    page.get_by_label("my cup of flour is").fill("bucket")
    page.get_by_label("my cup of flour is").press("Enter")
    expect(page.get_by_text("fills no cup")).to_be_visible()
    w.goto(f"/k/{here}/kitchen?at=starters")
    page.get_by_label("a starter called").fill("Old Pell")
    press(page, "Look after it")
    expect(page.get_by_text("unfed")).to_be_visible()
    press(page, "Fed")
    expect(page.get_by_text("8 in 10 from")).to_be_visible()
    w.goto(f"/k/{here}/kitchen?at=ingredients")
    page.get_by_role("radio", name="starter").click()
    page.get_by_label("called", exact=True).fill("Cellar starter")
    page.get_by_label("water on flour").fill("80")
    press(page, "Keep it")
    expect(page.get_by_text("Cellar starter")).to_be_visible()
    w.axe_clean()


def tab_to(page: Page, name: str) -> None:
    """Press Tab until the control of that name has focus: everything must be reachable, in a sane number of steps."""
    for _ in range(80):
        page.keyboard.press("Tab")
        named = page.evaluate(
            "(e => e && (e.getAttribute('aria-label') || e.innerText || e.value || ''))(document.activeElement)"
        )
        if str(named).strip() == name:
            return
    raise AssertionError(f"no Tab leads to {name}")


def test_by_keyboard_alone(watch: Watch, empty_server: Server) -> None:
    """A list pasted, scaled, weighed to the end and marked mixed, without a pointer."""
    number = bake(empty_server, "blank")
    page = watch(empty_server).goto(f"/b/{number}/weigh")
    expect(page.get_by_role("button", name="Paste a list")).to_be_visible()
    tab_to(page, "Paste a list")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_be_visible()
    page.keyboard.press("Tab")
    page.keyboard.insert_text("500 g bread flour\n310 ml water\n9 g salt\n5 g instant yeast")
    expect(page.get_by_role("button", name="Put 4 on the sheet")).to_be_enabled()
    tab_to(page, "Put 4 on the sheet")
    page.keyboard.press("Enter")
    expect_kept(page)
    tab_to(page, "Weigh it")
    page.keyboard.press("Enter")
    sheet = page.get_by_role("dialog", name="Weighing")
    for at in range(2, 5):
        page.keyboard.press("Space")
        expect(sheet).to_contain_text(f"{at} of 4")
    page.keyboard.press("Space")
    expect(sheet).to_contain_text("All in the bowl")
    page.keyboard.press("Space")
    expect(page.get_by_text("Weighed", exact=True)).to_be_visible()
    page.keyboard.press("m")
    tab_to(page, "Mixed now")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="move…")).to_be_visible()
    wait_until(lambda: {t["kind"] for t in empty_server.get(f"/api/bakes/{number}")["taps"]} == {"weigh", "mix"})
