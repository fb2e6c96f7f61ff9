"""The real interface in headless Chromium: a first bake from nothing, the demo, and that nothing is ever lost."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from helpers import BOUNCE_MS
from serving import Server

Watch = Callable[..., Any]
LINES = (
    ("2 1/2 cups", "plain", "Plain"),
    ("1 1/4 cups", "strong", "Strong"),
    ("1 1/4 cups", "water", "Water"),
    ("2 tsp", "instant dry", "Instant dry"),
    ("1 1/2 tsp", "fine table", "Fine table"),
)


def press(page: Page, name: str) -> None:
    page.get_by_role("button", name=name, exact=True).click()


def wait_until(page: Page, true: Callable[[], bool], limit_ms: int = 5000) -> None:
    """Poll from outside the page: its policy lets no string be evaluated in it."""
    for _ in range(limit_ms // 100):
        if true():
            return
        page.wait_for_timeout(100)
    assert true()


def leaf(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Leaves of this bake").get_by_role("link", name=name).click()


def said(page: Page) -> str:
    return page.get_by_test_id("say-line").inner_text()


def open_kitchen(page: Page) -> None:
    page.get_by_label("Your kitchen is usually at").fill("22")
    expect(page.get_by_label("What you get")).to_contain_text(re.compile(r"First one on\d\d:\d\d"))
    page.get_by_role("button", name="Breads at once").press("Enter")
    page.get_by_role("option", name="two", exact=True).press("Enter")
    press(page, "Open my kitchen")


def type_formula(page: Page) -> None:
    for amount, typed, name in LINES:
        press(page, "Add a line")
        page.get_by_placeholder("450 g").last.fill(amount)
        box = page.get_by_role("combobox", name=re.compile("^Ingredient")).last
        box.fill(typed)
        option = page.get_by_role("option", name=re.compile(f"^{name}")).first
        page.wait_for_timeout(300)
        if not option.is_visible():  # a page that scrolls folds the list away; the arrow unfolds it
            box.press("ArrowDown")
        option.click()
    expect(page.get_by_text("kept", exact=True)).to_be_visible()


@pytest.mark.parametrize("size", ["tablet"])  # test_newcomer has the phone
def test_a_first_bake_from_nothing_to_kept(watch: Watch, empty_server: Server, size: str) -> None:
    """A new user, an empty database: formula in cups and spoons, a table, every step by what the screen says."""
    w = watch(empty_server, size)
    page = w.goto("/")
    w.axe_clean()
    open_kitchen(page)
    page.get_by_label("Write it as you say it").fill("yesterday")
    page.get_by_role("button", name=re.compile("From nothing")).click()
    press(page, "Start this bake")
    expect(page.get_by_text("names a day and no time")).to_be_visible()
    page.get_by_label("Write it as you say it").fill("in 4 h 30 min")
    press(page, "Start this bake")
    expect(page.get_by_role("heading", name="From nothing")).to_be_visible()
    type_formula(page)
    expect(page.get_by_text("% true water")).to_be_visible()
    page.get_by_label("breads").fill("3")
    page.get_by_label("breads").press("Enter")
    page.get_by_label("of", exact=True).fill("95")
    page.get_by_label("of", exact=True).press("Enter")
    w.axe_clean()
    page.get_by_role("button", name="True water: why?").click()
    expect(page.get_by_role("dialog")).to_contain_text("Water from the tap and water inside dairy")
    press(page, "Close")
    press(page, "Weighed now")
    page.get_by_role("button", name="move…").click()
    page.get_by_label("When was it?").fill("2 h ago")
    page.get_by_label("When was it?").press("Enter")
    expect(page.get_by_role("button", name="undo")).to_be_visible()
    leaf(page, "Mix")
    expect(page.get_by_role("heading", name=re.compile("^Water, "))).to_be_visible()
    w.axe_clean()
    page.get_by_role("button", name="earlier…").click()
    page.get_by_label("Mixed when?").fill("95 min ago")
    page.get_by_label("Mixed when?").press("Enter")
    expect(page.get_by_role("button", name="move…")).to_be_visible()
    leaf(page, "Rise")
    expect(page.get_by_text("risen", exact=True)).to_be_visible()
    page.get_by_label("reads", exact=True).fill("1.4")
    press(page, "Note it")
    expect(page.get_by_text("1.40 ×").first).to_be_visible()
    w.axe_clean()
    press(page, "Balled now")
    expect(page.get_by_text("ball proof ready at")).to_be_visible()
    leaf(page, "Fire")
    expect(page.get_by_role("heading", name="Will it puff?")).to_be_visible()
    w.axe_clean()
    press(page, "Stand at the heat")
    verb = page.get_by_test_id("due-bar").locator(".verb")
    page.get_by_test_id("due-bar").click()
    expect(verb).not_to_have_text("Load round 1")
    press(page, "bubbles")
    press(page, "puffed")
    expect(page.get_by_test_id("due-bar")).to_contain_text("the surface measures")
    page.keyboard.press("Escape")
    page.locator("body").evaluate("document.activeElement.blur()")
    what = verb.inner_text()
    page.keyboard.press("Space")
    expect(verb).not_to_have_text(what)
    w.axe_clean()
    page.get_by_test_id("undo").click()
    expect(verb).to_have_text(what)
    page.wait_for_timeout(BOUNCE_MS)
    bake_rounds_from(page, done=1, count=3)
    leaf(page, "Keep")
    for number, pocket in ((1, "full"), (2, "part"), (3, "flat")):
        page.get_by_role("button", name=re.compile(f"^Round {number}:")).click()
        page.get_by_role("radio", name=pocket, exact=True).click()
        page.get_by_role("radio", name="right", exact=True).click()
        expect(page.get_by_role("button", name=f"Round {number}: {pocket}, right")).to_be_visible()
    page.get_by_label("A line for next time").fill("Roll the last one sooner.")
    page.get_by_label("A line for next time").blur()
    expect(page.get_by_role("img", name=re.compile("^Said and was.*pocket opens"))).to_be_visible()
    w.axe_clean()
    press(page, "Keep this bake")
    expect(page.get_by_text("Kept in the logbook.")).to_be_visible()
    page.get_by_role("link", name="to the logbook").click()
    expect(page.get_by_text("1 of 3 full")).to_be_visible()
    expect(
        page.get_by_text("Roll the last one sooner.")
        if size == "tablet"
        else page.get_by_role("list", name="Past bakes").get_by_text("From nothing")
    ).to_be_visible()
    w.axe_clean()


def bake_rounds_from(page: Page, done: int, count: int) -> None:
    """Do what the bar says until everything is off, `done` moves having been made."""
    bar = page.get_by_test_id("due-bar")
    for _ in range(3 * count - done):
        what = bar.locator(".verb").inner_text()
        bar.click()
        expect(bar.locator(".verb")).not_to_have_text(what)
        page.wait_for_timeout(BOUNCE_MS)
    expect(bar).to_contain_text("All off")


@pytest.mark.parametrize("size", ["tablet"])
def test_the_demo_to_its_end(watch: Watch, demo_server: Server, size: str) -> None:
    """On the demo: rooms and leaves are clean, the clock jumps to the next move, a bake goes to kept and comes back."""
    w = watch(demo_server, size)
    page = w.goto("/k/1/bench")
    expect(page.get_by_role("heading", name="Next moves")).to_be_visible()
    for path in (
        "/k/1/bench",
        "/k/1/logbook",
        "/k/1/kitchen",
        "/k/1/new",
        "/b/4/weigh",
        "/b/4/mix",
        "/b/4/rise",
        "/b/4/fire",
        "/b/3/keep",
    ):
        w.goto(path)
        w.axe_clean()
    w.goto("/b/4/fire")
    if size == "tablet":
        page.get_by_role("button", name="Pause the demo clock").click()
        before = said(page)
        page.get_by_role("button", name="Jump to the next hand move").click()
        expect(page.get_by_test_id("say-line")).to_contain_text("now")
        assert said(page) != before
        press(page, "Stand at the heat")
        jump = page.get_by_role("button", name="Jump to the next hand move")
        bar = page.get_by_test_id("due-bar")
        for _ in range(24):
            what = bar.locator(".verb").inner_text()
            if not bar.get_by_text("now").count():
                jump.click()
            bar.click()
            expect(bar.locator(".verb")).not_to_have_text(what)
            page.wait_for_timeout(BOUNCE_MS)
        expect(bar).to_contain_text("All off")
    leaf(page, "Keep")
    page.get_by_role("button", name=re.compile("^Round 2:")).click()
    page.get_by_role("radio", name="full", exact=True).click()
    press(page, "Keep this bake")
    expect(page.get_by_text("Kept in the logbook.")).to_be_visible()
    press(page, "undo")
    expect(page.get_by_role("button", name="Keep this bake")).to_be_visible()


def test_six_figures_answer_why(watch: Watch, demo_server: Server) -> None:
    page = watch(demo_server).goto("/b/4/weigh")
    for where, name in (
        ("weigh", "True water"),
        ("weigh", "Thickness"),
        ("mix", "Liquid temperature"),
        ("mix", "Dough temperature"),
        ("rise", "Ready time"),
        ("fire", "Turn time"),
        ("fire", "Puff time"),
    ):
        page.goto(f"{demo_server.url}/b/4/{where}")
        if where == "fire":
            plan = page.get_by_role("button", name="the plan")
            expect(plan.or_(page.get_by_role("heading", name="Will it puff?"))).to_be_visible()
            if plan.count():
                plan.click()
        page.get_by_role("button", name=f"{name}: why?").click()
        sheet = page.get_by_role("dialog")
        for part in ("What went in", "What it rests on"):
            expect(sheet).to_contain_text(part)
        press(page, "Close")


def start_line(server: Server) -> int:
    """A kitchen with a bake on the heat, made through the API."""
    surface = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 2}
    kitchen = server.send("POST", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": surface})
    bake = server.send("POST", "/api/bakes", {"kitchen_id": kitchen["id"], "serve": "in 5 h"})["id"]
    for key, kind, at in (("k-mix", "mix", "3 h ago"), ("k-ball", "ball", "1 h ago")):
        server.send("POST", f"/api/bakes/{bake}/taps", {"key": key, "kind": kind, "at": at})
    return int(bake)


def test_kill_reload_second_tab_lose_nothing(watch: Watch, empty_server: Server) -> None:
    """kill -9 in the middle of the fire: the clocks go on, taps wait, and everything lands once, in order."""
    bake = start_line(empty_server)
    w = watch(empty_server)
    page = w.goto(f"/b/{bake}/fire")
    press(page, "Stand at the heat")
    bar = page.get_by_test_id("due-bar")
    bar.click()
    expect(page.get_by_role("heading", name=re.compile("Waiting 7"))).to_be_visible()
    page.wait_for_timeout(600)
    empty_server.kill()
    page.keyboard.press("2")  # the second spot, whatever the line has first
    expect(page.get_by_role("heading", name=re.compile("Waiting 6"))).to_be_visible()
    expect(bar).to_contain_text("Turn round 1")
    first = bar.locator(".count").inner_text()
    waits = page.get_by_text(re.compile("(1 tap waits|2 taps wait) here and will be sent"))  # the load may be under way
    expect(waits).to_be_visible()
    page.wait_for_timeout(2200)
    assert bar.locator(".count").inner_text() != first  # the clocks go on
    empty_server.start()
    expect(waits).not_to_be_visible(timeout=20_000)
    hearth = empty_server.get(f"/api/bakes/{bake}/hearth")
    assert [(t["kind"], t["round_no"]) for t in hearth["taps"] if t["round_no"]] == [("load", 1), ("load", 2)]
    page.reload()
    expect(bar).to_contain_text("Turn round 1")
    other = w.open()
    other.goto(f"{empty_server.url}/b/{bake}/fire")
    other.get_by_test_id("due-bar").click()
    expect(bar).not_to_contain_text("Turn round 1", timeout=8000)  # what comes next depends on how long this took
    with sqlite3.connect(empty_server.data / "brassclock.sqlite3") as raw:
        assert raw.execute("pragma integrity_check").fetchone() == ("ok",)
        assert raw.execute("select count(*) from tap where kind = 'turn' and undone_at is null").fetchone() == (1,)


def test_alarms_ring_in_a_background_tab(watch: Watch, demo_server: Server) -> None:
    """The first press unlocks sound; a move that falls due while another tab is in front still rings, once."""
    kitchen = demo_server.send(
        "POST", "/api/kitchens", {"zone": "UTC", "surface": {"name": "P", "kind": "skillet", "temp_c": 240}}
    )
    bake = demo_server.send("POST", "/api/bakes", {"kitchen_id": kitchen["id"], "serve": "in 5 h"})["id"]
    demo_server.send("POST", f"/api/bakes/{bake}/taps", {"key": "k-mix", "kind": "mix", "at": "2 h ago"})
    w = watch(demo_server)
    w.context.add_init_script(
        "const Real = AudioContext; window.tones = 0;"
        "window.AudioContext = class extends Real { createOscillator() { window.tones++; return "
        "super.createOscillator(); } };"
    )
    page = w.goto(f"/b/{bake}/fire")
    press(page, "Stand at the heat")
    press(page, "test it")
    wait_until(page, lambda: page.evaluate("window.tones") == 3)
    page.get_by_test_id("due-bar").click()
    turn_s = demo_server.get(f"/api/bakes/{bake}/hearth")["program"]["turn_s"]
    wait_until(page, lambda: demo_server.get(f"/api/bakes/{bake}/hearth")["started"])
    load = next(t for t in demo_server.get(f"/api/bakes/{bake}/hearth")["taps"] if t["kind"] == "load")
    demo_server.send("PATCH", f"/api/bakes/{bake}/taps/{load['id']}", {"at": f"{int(turn_s) - 4} s ago"})
    front = w.open()
    front.goto(demo_server.url + "/welcome")
    front.bring_to_front()
    front.wait_for_timeout(7000)
    assert page.evaluate("window.tones") == 5  # the turn call is two tones, and rings once
    assert "Turn round 1" in page.title()


def test_leaving_the_demo_takes_one_step(watch: Watch, demo_server: Server) -> None:
    page = watch(demo_server).goto("/k/1/kitchen?at=kitchens")
    page.get_by_role("link", name="Leave the demo for a kitchen of your own").click()
    open_kitchen(page)
    expect(page.get_by_role("heading", name="When do we eat?")).to_be_visible()
    page.get_by_role("link", name="Bench").click()
    expect(page.get_by_text("The bench is clear")).to_be_visible()
    expect(page.get_by_role("group", name="Demo clock")).to_have_count(0)
    kitchens: list[dict[str, Any]] = demo_server.get("/api/kitchens")["kitchens"]
    assert {k["demo"] for k in kitchens} == {True, False}


def test_menu_renames_abandons_deletes_and_undoes(watch: Watch, empty_server: Server) -> None:
    bake = start_line(empty_server)
    page = watch(empty_server).goto(f"/b/{bake}/weigh")
    press(page, "this bake…")
    page.get_by_label("Name").fill("Noon rounds")
    page.get_by_label("Name").press("Enter")
    expect(page.get_by_role("dialog", name="Noon rounds")).to_be_visible()
    press(page, "Abandon this bake")
    press(page, "Bring it back to life")
    press(page, "Delete this bake")
    press(page, "Undo")
    press(page, "Close")
    expect(page.get_by_role("heading", name="Noon rounds", exact=True)).to_be_visible()
    page.get_by_label("Amount of Water").fill("a splash")
    expect(page.get_by_role("alert")).to_contain_text("cannot be read as an amount")
    expect(page.get_by_text("not kept until every line can be read")).to_be_visible()
    wait_until(page, lambda: bake in [b["id"] for b in empty_server.get("/api/kitchens/1/bench")["bakes"]])  # undone
    stored = empty_server.get(f"/api/bakes/{bake}")["settings"]["lines"]
    assert "284 g" in [line["amount"] for line in stored]


def test_keys_lead_everywhere(watch: Watch, demo_server: Server) -> None:
    page = watch(demo_server).goto("/b/4/weigh")
    expect(page.get_by_role("heading", name="One piece")).to_be_visible()
    for key, heading in (("r", "How high is it?"), ("m", "Water, "), ("k", "Said and was")):
        page.keyboard.press(key)
        expect(page.get_by_role("heading", name=heading)).to_be_visible()
    page.keyboard.press("g")
    page.keyboard.press("l")
    expect(page.get_by_role("heading", name="Logbook")).to_be_visible()
    page.keyboard.press("n")
    expect(page.get_by_role("heading", name="When do we eat?")).to_be_visible()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.get_by_role("radio", name="Keys off").click()
    press(page, "Close")
    page.keyboard.press("n")
    page.keyboard.press("g")
    page.keyboard.press("b")
    expect(page.get_by_role("heading", name="When do we eat?")).to_be_visible()
