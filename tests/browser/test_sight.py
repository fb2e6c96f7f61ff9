"""What is seen at a glance: no words over words, and the plan of a leaf in one window."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page

from serving import Server

# each run of letters in sight with its box; none of what is scrolled off, clipped, or for assistive technology only
BOXES = """() => {
  const out = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  for (let n = walk.nextNode(); n; n = walk.nextNode()) {
    const e = n.parentElement;
    if (!n.data.trim() || !e.checkVisibility({ opacityProperty: true, visibilityProperty: true })) continue;
    if (e.closest('.unseen, option, select, [aria-hidden="true"].grip')) continue;
    const range = document.createRange();
    range.selectNodeContents(n);
    for (const r of range.getClientRects()) {
      if (r.width < 2 || r.right < 2 || r.left > innerWidth - 2) continue;
      const [x, y] = [r.left + r.width / 2, r.top + r.height / 2];
      const box = (s) => e.closest(s)?.getBoundingClientRect();
      const clip = [box('main'), box('.panel'), box('aside'), box('.next'), box('header')].filter(Boolean);
      if (clip.some((c) => y < c.top || y > c.bottom)) continue;
      out.push([n.data.trim(), r.left, r.top + r.height * 0.18, r.right, r.bottom - r.height * 0.18]);
    }
  }
  return out;
}"""


def overlapping(page: Page) -> list[str]:
    """Words whose letters lie on each other by more than two pixels each way, and where."""
    boxes = page.evaluate(BOXES)
    found = []
    for i, (a, left, top, right, bottom) in enumerate(boxes):
        for b, left2, top2, right2, bottom2 in boxes[i + 1 :]:
            if min(right, right2) - max(left, left2) > 2 and min(bottom, bottom2) - max(top, top2) > 2:
                found.append(f"{a} over {b} at {left:.0f}, {top:.0f}")
    return found


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_no_words_lie_on_words_with_twelve_bakes_in_two_days(
    empty_server: Server, watch: Callable[..., Any], size: str
) -> None:
    surface = {"name": "Plates", "kind": "iron_plate", "temp_c": 240, "spots": 2}
    body = {"name": "Twelve", "zone": "Europe/Zurich", "room_c": 21, "surface": surface}
    kitchen = empty_server.send("POST", "/api/kitchens", body)["id"]
    empty_server.send("PATCH", f"/api/kitchens/{kitchen}", {"cooks": 2})
    methods = ("hatch-pita", "terrace-naan", "ridge-sour", "soda-quarters")
    bakes = [
        empty_server.send(
            "POST",
            "/api/bakes",
            {"kitchen_id": kitchen, "serve": f"in {5 + 3.6 * n:.0f} h", "method": methods[n % 4], "name": f"Bake {n}"},
        )["id"]
        for n in range(12)
    ]
    w = watch(empty_server, size)
    for path in (f"/k/{kitchen}/bench", f"/b/{bakes[0]}/rise", f"/b/{bakes[0]}/fire", f"/b/{bakes[6]}/rise"):
        page = w.goto(path)
        page.wait_for_timeout(1500)
        assert overlapping(page) == [], path


def test_rise_and_fire_are_one_window_each_with_every_panel(demo_server: Server, watch: Callable[..., Any]) -> None:
    """At 1280 by 800 nothing scrolls but lists inside a panel; the press that marks the next move is in sight."""
    w = watch(demo_server, "tablet")
    for leaf, panels in (
        ("rise", ("Look at it", "What if", "Other ways", "Late or fast")),
        ("fire", ("The bread", "The heat", "The line", "What if")),
    ):
        page = w.goto(f"/b/4/{leaf}")
        page.get_by_role("region", name="Next move").get_by_role("button").first.wait_for()
        for name in panels:
            page.get_by_role("tab", name=name).click()
            page.wait_for_timeout(400)
            over = page.evaluate(
                "() => { const m = document.querySelector('main'); return m.scrollHeight - m.clientHeight }"
            )
            assert over <= 0, (leaf, name, over)
            assert overlapping(page) == [], (leaf, name)
            box = page.get_by_role("region", name="Next move").get_by_role("button").first.bounding_box()
            assert box and box["y"] + box["height"] <= 728, (leaf, name, box)
            w.axe_clean()
        page.reload()
        assert page.get_by_role("tab", name=panels[-1]).get_attribute("aria-selected") == "true", "remembered"


def test_the_kitchen_is_a_plan_in_one_window(demo_server: Server, watch: Callable[..., Any]) -> None:
    """By keyboard and with every sheet; no words on words, and none of the plan out of sight."""
    w = watch(demo_server, "tablet")
    page = w.goto("/k/1/kitchen")
    page.get_by_role("button", name="4: Clay oven, terrace").wait_for()
    sheets = [
        "",
        "4",
        *(f"?at={t}" for t in ("place-bench", "place-fridge", "starter-1", "hours", "measures", "learned")),
    ]
    for sheet in sheets:
        if sheet.startswith("?"):
            page = w.goto(f"/k/1/kitchen{sheet}")
            page.wait_for_timeout(600)
        elif sheet:
            page.keyboard.press(sheet)
            page.get_by_role("heading", name="Clay oven, terrace").wait_for()
        over = page.evaluate(
            "() => { const m = document.querySelector('main'); return m.scrollHeight - m.clientHeight }"
        )
        assert over <= 0, (sheet, over)
        assert overlapping(page) == [], sheet
        w.axe_clean()
    page.keyboard.press("Escape")
    page.get_by_role("heading", name="House").wait_for()
    # a plate is added, laid on the second row, and found there by its number
    page.get_by_role("button", name="Add a surface").press("Enter")
    page.get_by_text("what it is, and where it lies").click()
    page.get_by_role("button", name="row 2, place 6", exact=True).press("Enter")
    page.get_by_role("button", name="5: Another plate").wait_for()
    page.get_by_role("button", name="take it away").press("Enter")
    page.get_by_role("heading", name="House").wait_for()


PATHS = (
    "/k/1/bench",
    "/k/1/day",
    "/k/1/kitchen",
    "/k/1/new",
    "/b/4/weigh",
    "/b/4/mix",
    "/b/4/rise",
    "/b/4/fire",
    "/b/3/keep",
)
SPACING = """* { line-height: 1.5 !important; letter-spacing: 0.12em !important; word-spacing: 0.16em !important; }
  p { margin-bottom: 2em !important; }"""
SPACED = "css => { const s = new CSSStyleSheet(); s.replaceSync(css); document.adoptedStyleSheets = [s] }"
# words that a box cuts off: its text is wider than what it shows, and it does not scroll
CUT = """() => [...document.querySelectorAll('main *, header *, nav *')].filter((e) => {
  const s = getComputedStyle(e);
  const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.data.trim());
  const hides = (v) => v === 'hidden' || v === 'clip';
  const [wide, high] = [e.scrollWidth > e.clientWidth + 1, e.scrollHeight > e.clientHeight + 1];
  return own && !e.closest('.unseen, svg, select') && e.checkVisibility()
    && (hides(s.overflowX) && wide || hides(s.overflowY) && high);
}).map((e) => e.textContent.trim().slice(0, 60))"""
WIDER = "() => [document.documentElement, document.querySelector('main')].map((e) => e.scrollWidth - e.clientWidth)"


def test_twice_the_size_and_wider_letters_lose_nothing(demo_server: Server, watch: Callable[..., Any]) -> None:
    """WCAG 1.4.4, 1.4.10, 1.4.12: at 200 % of 1280 by 800, and with a reader's own spacing of text."""
    w = watch(demo_server, "tablet")
    for width, height, style in ((640, 400, ""), (1280, 800, SPACING), (390, 844, SPACING)):
        w.page.set_viewport_size({"width": width, "height": height})
        for path in PATHS:
            page = w.goto(path)
            page.wait_for_timeout(700)
            page.evaluate(SPACED, style)
            page.wait_for_timeout(200)
            assert max(page.evaluate(WIDER)) <= 1, (path, width, "scrolls sideways")
            assert page.evaluate(CUT) == [], (path, width)


def test_forced_colours_keep_what_is_chosen_and_what_is_pressed(demo_server: Server, watch: Callable[..., Any]) -> None:
    """Where a reader's own colours replace ours, what is chosen is still told from what is not."""
    w = watch(demo_server, "tablet")
    w.page.emulate_media(forced_colors="active")
    for path in PATHS:
        w.goto(path)
        w.axe_clean()
    page = w.goto("/k/1/kitchen")
    chosen, other = (
        page.get_by_role("radio", name=name, exact=True).evaluate("e => getComputedStyle(e).backgroundColor")
        for name in ("grams", "ounces")
    )
    assert chosen != other


def test_one_key_makes_it_readable_across_the_kitchen(demo_server: Server, watch: Callable[..., Any]) -> None:
    """The sentence fills the window: its letters are 64 px or more, twice those of the line."""
    w = watch(demo_server, "tablet")
    page = w.goto("/b/4/rise")
    said = page.get_by_test_id("say-line").locator("p").first.inner_text()
    page.keyboard.press("z")
    wall = page.get_by_role("dialog", name="Large letters for the wall")
    assert wall.locator(".say").inner_text()[:12] == said[:12]
    size = wall.locator(".say").evaluate("e => parseFloat(getComputedStyle(e).fontSize)")
    assert size >= 64 and wall.locator(".say").evaluate("e => e.scrollHeight <= e.parentElement.clientHeight")
    w.axe_clean()
    page.keyboard.press("Escape")
    wall.wait_for(state="detached")
    page.keyboard.press("z")
    page.get_by_role("button", name="Back to the screen").click()
    wall.wait_for(state="detached")


def test_the_bench_prints_as_the_sheet_of_the_day(demo_server: Server, watch: Callable[..., Any]) -> None:
    page = watch(demo_server, "tablet").goto("/k/1/bench")
    page.get_by_role("heading", name="Next moves").wait_for()
    page.emulate_media(media="print")
    steps = demo_server.get("/api/kitchens/1/bench")["steps"]
    ahead = [s for s in steps if s["done_at"] is None]
    sheet = page.locator(".sheet")
    sheet.get_by_role("heading", name="Mount Pell night canteen").wait_for()
    assert sheet.get_by_role("listitem").count() == len(ahead) > 20
    assert not page.get_by_role("heading", name="Next moves").is_visible()
    assert page.evaluate("document.documentElement.scrollWidth <= innerWidth")
