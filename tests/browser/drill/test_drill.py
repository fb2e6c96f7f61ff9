"""The Drill in the browser: one of each kind by keyboard, its why, its film; on a phone, at night, by screen reader."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from serving import Server

Watch = Callable[..., Any]
FOUR_TIMES = "() => localStorage.setItem('brass-clock.drill-pace', '4')"


def at_drill(w: Any, kind: str) -> Page:
    page: Page = w.goto(f"/k/1/drill?kind={kind}")
    page.evaluate(FOUR_TIMES)
    page.reload()
    expect(page.get_by_role("heading", name="Drill")).to_be_visible()
    return page


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_bread_is_called_by_keyboard(watch: Watch, demo_server: Server, size: str) -> None:
    w = watch(demo_server, size)
    page = at_drill(w, "call")
    expect(page.get_by_role("button", name="Put it on")).to_be_visible()
    w.axe_clean()
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Turn it")).to_be_visible()
    page.wait_for_timeout(5000)  # twenty seconds of the bread
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Off the heat")).to_be_visible()
    page.wait_for_timeout(4000)
    page.keyboard.press("Space")
    expect(page.get_by_role("button", name="Next bread")).to_be_visible()
    told = page.get_by_role("main")
    expect(told).to_contain_text(re.compile(r"You turned it at \d\d s, right at \d+ s"))
    expect(page.get_by_role("img", name=re.compile("The film at its true seconds"))).to_be_visible()
    expect(page.get_by_role("img", name=re.compile("at your real heat: .* s "))).to_be_visible()
    w.axe_clean()
    page.get_by_role("button", name=re.compile("right at .* why")).click()
    expect(page.get_by_role("dialog")).to_contain_text("surface as it was")
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Next bread").press("Enter")
    expect(page.get_by_role("button", name="Put it on")).to_be_visible()


def test_a_dough_a_fault_and_a_line_by_keyboard(watch: Watch, demo_server: Server) -> None:
    w = watch(demo_server)
    page = at_drill(w, "read")
    page.get_by_role("radio", name="ready now").focus()
    page.keyboard.press("Space")
    page.get_by_role("radio", name="a guess").focus()
    page.keyboard.press("Space")
    page.get_by_role("button", name="Say it").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("main")).to_contain_text("You said ready now, a guess.")
    expect(page.get_by_role("img", name=re.compile("Its height through the hours"))).to_be_visible()
    expect(page.get_by_role("main")).to_contain_text(re.compile(r"last twelve: [01] of 1 right"))
    w.axe_clean()
    page.locator("body").press("3")
    options = page.get_by_role("group", name=re.compile("Why"))
    options.get_by_role("button").first.focus()
    page.keyboard.press("Enter")
    expect(options.get_by_role("button").first).to_have_attribute("aria-pressed", "true")
    w.axe_clean()
    page.get_by_role("button", name="Say it").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("main")).to_contain_text(re.compile("What was put wrong here: "))
    page.get_by_role("button", name=re.compile("The likeliest: why")).click()
    expect(page.get_by_role("dialog")).to_contain_text("share = prior")
    page.keyboard.press("Escape")
    page.locator("body").press("4")
    for n in range(4):  # four breads, one after the other
        for key, move in zip("rltob", ("Roll", "Load", "Turn", "Off", "Brush"), strict=True):
            expect(page.get_by_role("button", name=move, exact=True)).to_be_enabled()
            page.locator("body").press(key)
            left = 20 - 5 * n - "rltob".index(key) - 1
            expect(page.get_by_text(re.compile(rf"^{left} moves? left"))).to_be_visible()
    w.axe_clean()
    page.get_by_role("button", name="Do it so").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("main")).to_contain_text(re.compile(r"Yours takes \d+:\d\d, ours \d+:\d\d\."))
    w.axe_clean()


def test_cases_of_the_own_kitchen_are_its_own_bread(watch: Watch, demo_server: Server) -> None:
    w = watch(demo_server, "phone")
    page = at_drill(w, "call")
    page.get_by_role("radio", name="of this kitchen").click()
    expect(page.get_by_text("1 of 10")).to_be_visible()
    expect(page.get_by_text(re.compile("Hatch pitas.* on the iron plate"))).to_be_visible()
    for kind in ("read the dough", "name the fault", "plan the hands"):
        page.get_by_role("radio", name=kind).click()
        expect(page.get_by_text("1 of 10")).to_be_visible()
        w.axe_clean()
    assert page.evaluate("() => document.documentElement.scrollWidth") <= 390
