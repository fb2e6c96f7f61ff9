"""The heat in the browser: a surface told by a sign, a clay wall of six, the first bread that measures it, colour, a
round that fell, undo."""

from __future__ import annotations

import datetime as dt
import re
import time
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from helpers import BOUNCE_MS
from serving import Server

Watch = Callable[..., Any]


def test_naan_and_rolls_from_one_bowl_by_keyboard(demo_server: Server, watch: Watch) -> None:
    """A second bread is added, sized and sent to the oven without a mouse; each is told by its name at the heat."""
    kitchen = demo_server.send("GET", "/api/kitchens", None)["kitchens"][0]
    home = f"/api/kitchens/{kitchen['id']}/surfaces"
    demo_server.send("POST", home, {"name": "Oven tray", "kind": "oven_tray"})
    given = {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": "hybrid-naan", "name": "Naan"}
    bake = demo_server.send("POST", "/api/bakes", given)["id"]
    demo_server.send("PATCH", f"/api/bakes/{bake}", {"count": 6, "piece_g": 110})
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{bake}/weigh")
    page.get_by_role("button", name="Another bread from this dough").press("Enter")
    rolls = page.get_by_role("group", name="Rolls")
    rolls.get_by_label("how many").press("Control+a")
    page.keyboard.type("8")
    page.keyboard.press("Enter")
    expect(page.get_by_text("8 rolls × 60")).to_be_visible()
    rolls.get_by_role("button", name=re.compile("baked on")).press("Enter")
    page.get_by_role("option", name="Oven tray").press("Enter")
    expect(rolls.get_by_role("button", name=re.compile("Oven tray"))).to_be_visible()
    rolls.get_by_label("how many").fill("none")
    rolls.get_by_label("how many").press("Enter")
    expect(rolls.locator(".fault")).to_be_visible()
    rolls.get_by_label("how many").fill("8")
    rolls.get_by_label("how many").press("Enter")
    expect(rolls.locator(".fault")).to_have_count(0)
    w.axe_clean()
    page = w.goto(f"/b/{bake}/fire")
    page.get_by_role("radio", name="Rolls").press(" ")
    expect(page.get_by_text(re.compile("a tray of 8"))).to_be_visible()
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    expect(page.get_by_test_id("due-bar")).to_contain_text("Load Rolls")
    expect(page.get_by_test_id("due-bar")).to_contain_text("oven tray")
    page.keyboard.press(" ")
    expect(page.get_by_test_id("due-bar")).to_contain_text("Load Naan 1")
    w.axe_clean()
    page.request.delete(f"{demo_server.url}/api/bakes/{bake}")  # its next move would be the kitchen's


def clay_naan(server: Server) -> str:
    kitchen = server.send("GET", "/api/kitchens", None)["kitchens"][0]
    clay = next(s["id"] for s in kitchen["surfaces"] if s["kind"] == "clay_wall")
    body = {"kitchen_id": kitchen["id"], "serve": "in 6 h", "method": "terrace-naan", "name": "Clay naan"}
    bake = server.send("POST", "/api/bakes", body)["id"]
    server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": clay})
    return f"/b/{bake}/fire"


def on_surface(server: Server, method: str, kind: str, count: int, spots: int | None = None) -> int:
    """A bake of the demo kitchen on its surface of a kind (of its own with `spots`)."""
    kitchen = server.send("GET", "/api/kitchens", None)["kitchens"][0]
    at = f"/api/kitchens/{kitchen['id']}/surfaces"
    known = [s for s in kitchen["surfaces"] if s["kind"] == kind and spots in (None, s["spots"])]
    if not known:
        given = {
            "name": f"{kind} of {spots}",
            "kind": kind,
            "temp_c": 430,
            "spots": spots,
            "heat": "gas",
            "greased": "dry",
            "nonstick": False,
        }
        known = [s for s in server.send("POST", at, given)["surfaces"] if s["name"] == given["name"]]
    bake = server.send("POST", "/api/bakes", {"kitchen_id": kitchen["id"], "serve": "in 9 h", "method": method})["id"]
    server.send("POST", f"/api/bakes/{bake}/scale", {"count": count})
    server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": known[0]["id"]})
    return int(bake)


# after each press a second one, of the same finger; not when the page was busy for so long that it would be a press of
# its own
BOUNCING = """() => {
  window.bounced = 0;
  addEventListener('keydown', (e) => {
    const at = e.timeStamp;
    if (!e.isTrusted || e.key !== ' ') return;
    setTimeout(() => {
      if (performance.now() - at > 200) return;
      window.bounced += 1;
      const bar = document.querySelector('[data-testid=due-bar]');
      const again = new KeyboardEvent('keydown', { key: ' ', bubbles: true, cancelable: true });
      if (bar.dispatchEvent(again)) bar.click();
    }, 60);
  });
}"""
SOON = re.compile("^(now|[1-3] s)$")
ROUNDS = [  # four of the canteen's: method, surface, breads, cooks, what its program says
    ("hatch-pita", "stone_oven", 5, 2, "it opens"),
    ("house-clay-naan", "clay_wall", 8, 2, "on, its back wet"),
    ("soda-quarters", "iron_plate", 5, 1, "stand it on an edge"),
    ("stir-round", "oil", 5, 2, "it opens"),
]


@pytest.mark.parametrize(("method", "kind", "breads", "cooks", "step"), ROUNDS, ids=lambda x: str(x))
def test_a_whole_line_by_keyboard(
    demo_server: Server, watch: Watch, method: str, kind: str, breads: int, cooks: int, step: str
) -> None:
    """From the program to the last one wrapped, each move when it is due; a slip in the middle is taken up, one move
    undone and made again."""
    demo_server.send("PATCH", "/api/kitchens/1", {"cooks": cooks})
    demo_server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 0})
    bake = on_surface(demo_server, method, kind, breads)
    if method == "soda-quarters":  # a thick round wants a slow plate
        demo_server.send("PATCH", f"/api/bakes/{bake}", {"surface_c": 155})
    w = watch(demo_server)
    page = w.goto(f"/b/{bake}/fire")
    expect(page.get_by_role("list", name="The program of one bread")).to_contain_text(step)
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    bar = page.get_by_test_id("due-bar")
    jump = page.get_by_role("button", name="Jump to the next hand move")
    page.evaluate(BOUNCING)
    slip_at, moves = 3 * breads // 2, 0
    made: set[tuple[str, int]] = set()
    while bar.locator(".verb").inner_text() != "All off":
        if not SOON.match(bar.locator(".count").inner_text()):
            with page.expect_response("**/api/clock"):
                jump.press("Enter")
            expect(bar.locator(".count")).to_have_text(SOON)
        if moves == slip_at:
            expect(page.get_by_test_id("hands").get_by_role("listitem").first).to_be_visible()
            page.get_by_role("button", name="sixty times as fast").press("Enter")
            page.wait_for_timeout(300)
            page.get_by_role("button", name="Pause the demo clock").press("Enter")
            expect(page.get_by_role("button", name="Pause the demo clock")).to_have_attribute("aria-pressed", "true")
        bar.press("Space")
        moves += 1
        before, made = made, taps_of(demo_server, bake, moves)
        page.wait_for_timeout(BOUNCE_MS)
        if moves == slip_at + 2:
            page.keyboard.press("u")
            moves -= 1
            made = taps_of(demo_server, bake, moves)
            assert made == before
            slip_at = 0
        assert moves <= 4 * breads
    assert page.evaluate("window.bounced") > moves / 2
    hearth = demo_server.get(f"/api/bakes/{bake}/hearth")
    assert hearth["finished"] and len(hearth["off"]) == breads == len(hearth["towel"])
    demo_server.send("PATCH", "/api/kitchens/1", {"cooks": 2})
    page.request.delete(f"{demo_server.url}/api/bakes/{bake}")


def taps_of(server: Server, bake: int, many: int) -> set[tuple[str, int]]:
    """The moves on the heat that the server has, once it has so many."""
    for _ in range(200):
        found = {(t["kind"], t["round_no"]) for t in server.get(f"/api/bakes/{bake}/hearth")["taps"] if t["round_no"]}
        if len(found) == many:
            return found
        time.sleep(0.1)
    raise AssertionError(f"{len(found)} moves are on the server, not {many}")


def test_twelve_spots_out_of_reach_with_a_tablet_an_hour_wrong(demo_server: Server, watch: Watch) -> None:
    """A minute without the server in the middle of the line: clocks go on, taps wait, all land once, at the kitchen's
    own time."""
    bake = on_surface(demo_server, "house-clay-naan", "clay_wall", 24, 12)
    demo_server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 1})
    w = watch(demo_server)
    w.page.clock.set_system_time(dt.datetime.now() + dt.timedelta(hours=1))
    refused: list[str] = []
    w.page.on("response", lambda r: "/taps" in r.url and r.status >= 400 and refused.append(f"{r.status} {r.text()}"))
    page = w.goto(f"/b/{bake}/fire")
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    for key in "1234567890-=":
        expect(page.locator(f"[data-spot='{list('1234567890-=').index(key) + 1}']")).to_have_attribute(
            "aria-label", re.compile("load round")
        )
        page.keyboard.press(key)
    expect(page.get_by_role("heading", name=re.compile("Waiting 12"))).to_be_visible()
    taps_of(demo_server, bake, 12)  # no load waits any more
    w.axe_clean()
    w.context.set_offline(True)
    demo_server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 1})
    left = page.get_by_test_id("due-bar").locator(".count")
    before = left.inner_text()
    page.keyboard.press("=")
    page.keyboard.press("3")
    expect(page.get_by_text("2 taps wait here and will be sent")).to_be_visible()
    page.wait_for_timeout(2500)
    assert left.inner_text() != before
    w.context.set_offline(False)
    expect(page.get_by_text(re.compile("taps? waits? here"))).not_to_be_visible(timeout=20_000)
    assert refused == []
    hearth = demo_server.get(f"/api/bakes/{bake}/hearth")
    offs = [t for t in hearth["taps"] if t["kind"] == "off"]
    assert [(t["round_no"], t["spot"]) for t in offs] == [(12, 12), (3, 3)]
    now = dt.datetime.fromisoformat(hearth["clock"]["now"])
    assert all(
        abs((now - dt.datetime.fromisoformat(t["at"])).total_seconds()) < 60 for t in hearth["taps"] if t["round_no"]
    )


def press_due(page: Page, words: str) -> None:
    expect(page.get_by_test_id("due-bar")).to_contain_text(words)
    page.get_by_test_id("due-bar").press("Space")
    page.wait_for_timeout(BOUNCE_MS)


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_a_clay_wall_round_from_sign_to_towel(demo_server: Server, watch: Watch, size: str) -> None:
    w = watch(demo_server, size)
    page = w.goto(clay_naan(demo_server))
    page.get_by_role("tab", name="The heat").press("Enter")
    page.get_by_role("button", name="tell it by a sign…").press("Enter")
    sheet = page.get_by_role("dialog", name="How hot is it?")
    sheet.get_by_label("golden after").fill("3")
    sheet.get_by_label("golden after").press("Enter")
    sheet.get_by_role("button", name=re.compile("^Reckon with")).press("Enter")
    expect(sheet).to_have_count(0)
    expect(page.get_by_label("how hot")).to_have_value(re.compile("^30[0-9]$"))
    page.get_by_label("how hot").fill("430")
    page.get_by_label("how hot").press("Enter")
    page.get_by_role("tab", name="The line").press("Enter")
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


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_the_heat_in_an_empty_kitchen(empty_server: Server, watch: Watch, size: str) -> None:
    """A pan of unknown heat and a cook of 90 + 90 s; a filled naan where it cannot get through; a docked round that is
    never turned; rolls in a tray."""
    empty_server.wait_compiled()
    kitchen = empty_server.send(
        "POST",
        "/api/kitchens",
        {"name": "Mine", "zone": "UTC", "surface": {"name": "Skillet", "kind": "skillet", "power": "medium_high"}},
    )["id"]

    def bake(method: str, change: dict[str, Any] | None = None, surface: dict[str, Any] | None = None) -> int:
        made = int(
            empty_server.send("POST", "/api/bakes", {"kitchen_id": kitchen, "serve": "in 9 h", "method": method})["id"]
        )
        if surface:
            kept = empty_server.send("POST", f"/api/kitchens/{kitchen}/surfaces", surface)["surfaces"][-1]["id"]
            empty_server.send("PATCH", f"/api/bakes/{made}", {"surface_id": kept})
        if change:
            empty_server.send("PATCH", f"/api/bakes/{made}", change)
        return made

    w = watch(empty_server, size)
    page = w.goto(f"/b/{bake('two-lift-naan')}/fire")
    expect(page.get_by_text(re.compile("by its setting: 16[0-9] to 23[0-9] °C, eight of ten"))).to_be_visible()
    page.get_by_role("tab", name="The heat").press("Enter")
    expect(page.get_by_role("heading", name="The right heat for it")).to_be_visible()
    page.get_by_role("button", name="I always give it…").press("Enter")
    for side in ("first side", "other side"):
        page.get_by_label(side).fill("90")
        page.get_by_label(side).press("Enter")
    expect(page.get_by_role("status").filter(has_text="Your times suit")).to_be_visible()
    assert (
        page.evaluate("document.documentElement.scrollHeight - innerHeight") <= 0
    )  # the leaf scrolls, the page does not
    w.axe_clean()
    page.get_by_role("button", name="Plan by my times").press("Enter")
    ways = page.get_by_role("table", name="The usual way and yours, beside each other").get_by_role("row")
    expect(ways.filter(has_text="90 + 90 s")).to_have_count(
        2
    )  # as the pan is believed, and at the heat that suits them
    page.get_by_role("button", name=re.compile("^Reckon with")).press("Enter")
    expect(page.get_by_text(re.compile("by my own times:"))).to_be_visible()
    page.get_by_role("button", name="change the steps…").press("Enter")
    sheet = page.get_by_role("dialog", name="Your own way through the heat")
    sheet.get_by_role("button", name="Add a step").press("Enter")
    sheet.get_by_label("Step 3").first.press("Enter")
    page.get_by_role("option", name="a spray of water").press("Enter")
    sheet.get_by_role("button", name="Plan by these").press("Enter")
    expect(sheet).to_have_count(0)
    page.get_by_role("button", name="Close").press("Enter")
    page.keyboard.press("o")
    expect(page.get_by_role("list", name="The program of one bread")).to_contain_text("spray with water")
    page.keyboard.press("h")
    page.get_by_role("button", name="your own times…").press("Enter")
    page.get_by_role("button", name="Back to the usual way").press("Enter")
    expect(page.get_by_label("first side")).to_be_visible()

    filled = {"lines": [{"ingredient": "minced_meat", "amount": "90 g"}], "per_piece_g": 90, "topping": False}
    flame = {"name": "Flame", "kind": "flame_oven", "temp_c": 500}
    page = w.goto(f"/b/{bake('terrace-naan', {'filling': filled}, flame)}/fire")
    told = page.get_by_role("note").first
    expect(told).to_contain_text("before it is through. What would do:")
    heat = re.search(r"do: (\d+)\u00a0°C", told.inner_text())
    assert heat
    page.get_by_label("how hot").fill(heat[1])
    page.get_by_label("how hot").press("Enter")
    expect(page.get_by_text("before it is through. What would do:")).to_have_count(0)

    stone = {"name": "Stone", "kind": "stone_oven", "temp_c": 275}
    page = w.goto(f"/b/{bake('herb-round', None, stone)}/fire")
    program = page.get_by_role("list", name="The program of one bread")
    expect(program).to_contain_text("off, into the towel")
    expect(program).not_to_contain_text("turn")
    tray = {"name": "Tray", "kind": "oven_tray", "temp_c": 225}
    page = w.goto(f"/b/{bake('hatch-pita', {'piece_g': 71, 'diameter_cm': 5.5}, tray)}/fire")
    expect(page.get_by_role("heading", name="It bakes flat")).to_be_visible()
    expect(page.get_by_role("list", name="The program of one bread")).not_to_contain_text("turn")
    w.axe_clean()
