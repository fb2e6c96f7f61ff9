"""A person who has never seen it: from an empty database to a kept bake, each press in its screen's first window."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Locator, Page, expect

from helpers import BOUNCE_MS
from serving import Server

# seconds of a hand at a keyboard and of a thought before it: the keystroke-level model, Card, Moran and Newell,
# Communications of the ACM 23 (1980), 396-410; a typist of 40 words a minute
KEY_S, POINT_S, THINK_S = 0.28, 1.10, 1.35
OWN = "430 g plain flour\n270 g water\n5 g instant yeast\n8 g fine salt"
# what is cut off by the window's own frame, or lies behind the strip at its foot
IN_SIGHT = """e => {
  const b = e.getBoundingClientRect(), m = document.querySelector('main');
  const seen = document.elementFromPoint(b.left + b.width / 2, b.top + b.height / 2);
  const hit = !!seen && (e.contains(seen) || seen.contains(e));
  return { scrolled: m.scrollTop, at: [b.left + b.width / 2, b.top + b.height / 2], hit };
}"""


class Newcomer:
    """Presses only what is in sight without scrolling, and counts the seconds that takes."""

    def __init__(self, page: Page) -> None:
        self.page, self.seconds = page, 0.0

    def press(self, what: Locator, *, beside_a_list: bool = False) -> None:
        what.wait_for()
        self.page.wait_for_timeout(300)  # until the screen has settled
        told = what.evaluate(IN_SIGHT)
        assert told["hit"] and (beside_a_list or told["scrolled"] == 0), (what, told)
        self.page.mouse.click(*told["at"])
        self.seconds += THINK_S + POINT_S

    def write(self, where: Locator, text: str) -> None:
        self.press(where)
        where.fill(text)
        self.seconds += KEY_S * len(text)

    def leaf(self, name: str) -> None:
        self.press(self.page.get_by_role("navigation", name="Leaves of this bake").get_by_role("link", name=name))


def button(page: Page, name: str) -> Locator:
    return page.get_by_role("button", name=name, exact=True)


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_from_an_empty_kitchen_to_a_kept_bake(empty_server: Server, watch: Callable[..., Any], size: str) -> None:
    w = watch(empty_server, size)
    page = w.goto("/")
    hand = Newcomer(page)
    hand.press(button(page, "Open my kitchen"))
    expect(page.get_by_role("heading", name="When do we eat?")).to_be_visible()
    hand.press(button(page, "Start this bake"))
    for leaf, marks in (("Weigh", ["Weighed now"]), ("Mix", ["Mixed now"]), ("Rise", ["Balled now", "Rolling now"])):
        hand.leaf(leaf)
        for mark in marks:
            hand.press(button(page, mark))
    if size == "tablet":
        hand.press(button(page, "Large letters for the wall"))
        hand.press(button(page, "Back to the screen"))
    hand.leaf("Fire")
    hand.press(button(page, "Stand at the heat"))
    bar = page.get_by_test_id("due-bar")
    for _ in range(60):
        if bar.get_by_text("All off").count():
            break
        what = bar.locator(".verb").inner_text()
        hand.press(bar)
        expect(bar.locator(".verb").or_(bar.get_by_text("All off"))).not_to_have_text(what)
        page.wait_for_timeout(BOUNCE_MS)
    expect(bar).to_contain_text("All off")
    hand.leaf("Keep")
    for n in (1, 2):
        hand.press(page.get_by_role("button", name=re.compile(f"^Round {n}:")))
        hand.press(page.get_by_role("radio", name="full", exact=True))
        expect(page.get_by_role("button", name=re.compile(f"^Round {n}: full"))).to_be_visible()
        hand.press(page.get_by_role("radio", name="right", exact=True))
        expect(page.get_by_role("button", name=f"Round {n}: full, right")).to_be_visible()
    hand.press(button(page, "Keep this bake"))
    expect(page.get_by_text("Kept in the logbook.")).to_be_visible()


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_an_own_first_bake_is_planned_in_three_minutes(
    empty_server: Server, watch: Callable[..., Any], size: str
) -> None:
    """Four answers, a table hour and a formula of one's own, typed: a plan stands, by a counted hand."""
    w = watch(empty_server, size)
    page = w.goto("/")
    hand = Newcomer(page)
    page.get_by_label("Your kitchen is usually at").fill("23")
    hand.seconds += THINK_S + POINT_S + 2 * KEY_S
    hand.press(button(page, "Open my kitchen"))
    hand.write(page.get_by_label("Write it as you say it"), "in 6 h")
    page.get_by_role("button", name=re.compile("From nothing")).click()
    hand.seconds += THINK_S + POINT_S + 5  # looked for in the list
    hand.press(button(page, "Start this bake"), beside_a_list=True)
    hand.press(button(page, "Paste a list"))
    hand.write(page.get_by_role("dialog").get_by_role("textbox").first, OWN)
    hand.press(page.get_by_role("dialog").get_by_role("button", name=re.compile("^Put .* on the sheet")))
    expect(page.get_by_text("% true water")).to_be_visible()
    hand.leaf("Rise")
    expect(page.get_by_text("bulk ready at")).to_be_visible()
    print(f"an own first bake, {size}: {hand.seconds:.0f} s by the keystroke-level model")
    assert hand.seconds <= 180
