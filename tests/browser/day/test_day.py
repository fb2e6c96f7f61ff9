"""The day in the browser: the night canteen's Friday, hours away, a peg and the flag moved by hand and by key, a slip,
a way out, alarms."""

from __future__ import annotations

import datetime as dt
import re
import time
from collections.abc import Callable
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from serving import Server

Watch = Callable[..., Any]


def kitchen_of(server: Server) -> dict[str, Any]:
    return dict(server.send("GET", "/api/kitchens", None)["kitchens"][0])


def bake_named(server: Server, name: str) -> dict[str, Any]:
    bench = server.send("GET", f"/api/kitchens/{kitchen_of(server)['id']}/bench", None)
    found = next(b for b in bench["bakes"] if b["name"] == name)
    return dict(server.send("GET", f"/api/bakes/{found['id']}", None))


def moment(bake: dict[str, Any], key: str) -> dt.datetime:
    return dt.datetime.fromisoformat(next(s for s in bake["steps"] if s["key"] == key)["at"])


def rule(page: Page) -> Any:
    return page.get_by_role("group", name=re.compile("^Time rule"))


@pytest.mark.parametrize("size", ["tablet", "phone"])
def test_fridays_four_bakes_on_the_rule_and_as_a_list(demo_server: Server, watch: Watch, size: str) -> None:
    w = watch(demo_server, size)
    page = w.goto(f"/k/{kitchen_of(demo_server)['id']}/day")
    for name in (
        "Roll, hatch pitas",
        "Mix, terrace naan",
        "Out of the cold, cold-rise pitas",
        "Mix, soda round, day crew",
    ):
        expect(page.get_by_role("link", name=name, exact=True)).to_have_count(1)
    expect(page.get_by_role("heading", name="Fri 27 Nov")).to_be_visible()
    rule(page).focus()
    page.keyboard.press("-")
    page.keyboard.press("-")
    expect(page.get_by_test_id("away").nth(3)).to_be_attached()
    shown = "Mix, Terrace naan" if size == "tablet" else "Mix, Supper sourdough"  # a phone has room for the soonest
    expect(rule(page).locator(f'[aria-label*="{shown}"]')).to_have_count(1)
    together = page.get_by_test_id("together")
    together.get_by_role("button", name="Look for such a day").press("Enter")
    expect(together).to_contain_text("Terrace naan")
    expect(together).to_contain_text("stay as they are")
    w.axe_clean()
    if size == "tablet":
        page.emulate_media(media="print")
        expect(page.get_by_role("heading", name="Fri 27 Nov")).to_be_visible()
        expect(page.get_by_role("button", name="Print the day")).to_be_hidden()
        page.emulate_media(media="screen")
    with page.expect_download() as file:
        page.get_by_role("link", name="As a calendar").click()
    assert "BEGIN:VALARM" in file.value.path().read_text("utf-8")


def test_a_wish_that_does_not_fit_is_solved_by_one_press(demo_server: Server, watch: Watch) -> None:
    naan = bake_named(demo_server, "Terrace naan")
    assert not naan["fits"]
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{naan['id']}/rise")
    plate = page.get_by_test_id("way-out")
    expect(plate).to_contain_text("shutter drill")
    w.axe_clean()
    plate.get_by_role("button").first.click()
    expect(plate).to_have_count(0)
    page.get_by_test_id("undo-act").get_by_role("button", name="take it back").click()
    expect(plate).to_contain_text("shutter drill")
    plate.get_by_role("button").first.click()
    expect(plate).to_have_count(0)
    assert bake_named(demo_server, "Terrace naan")["fits"]
    page.goto(f"{demo_server.url}/k/{naan['kitchen_id']}/day")
    expect(page.get_by_text("you chose").first).to_be_visible()


def test_another_way_through_the_day_is_taken_and_taken_back(demo_server: Server, watch: Watch) -> None:
    was = bake_named(demo_server, "Cold-rise pitas")
    w = watch(demo_server, "tablet")
    page = w.goto(f"/b/{was['id']}/rise")
    page.get_by_role("tab", name="Other ways").click()
    part = page.get_by_role("region", name="Around your hours")
    best = part.get_by_role("listitem").filter(has_text="Best flavour")
    expect(best).to_contain_text("fridge")
    w.axe_clean()
    best.get_by_role("button", name="Do it so").click()
    page.get_by_test_id("undo-act").get_by_role("button", name="take it back").click()
    expect(page.get_by_test_id("undo-act")).to_have_count(0)
    assert bake_named(demo_server, "Cold-rise pitas")["steps"] == was["steps"]


def test_a_later_table_under_the_finger_brings_what_holds_the_dough(demo_server: Server, watch: Watch) -> None:
    page = watch(demo_server, "tablet").goto(f"/b/{bake_named(demo_server, 'Hatch pitas')['id']}/rise")
    page.get_by_role("tab", name="What if").click()
    table = page.get_by_role("group", name="serve at").get_by_role("slider")
    maturity = page.get_by_text(re.compile("^maturity"))
    for _ in range(8):
        table.press("ArrowRight")
    holds = page.get_by_role("list", name="What holds the dough that long")
    expect(holds.get_by_role("listitem").last).to_contain_text("90 min")
    before = maturity.inner_text()
    holds.get_by_role("button", name="with it").first.press("Enter")
    expect(holds.get_by_role("button", name="without it")).to_have_count(1)
    expect(maturity).not_to_have_text(before)


def test_a_peg_and_the_flag_are_moved_by_hand_and_by_key(demo_server: Server, watch: Watch) -> None:
    demo_server.send(
        "POST",
        "/api/bakes",
        {"kitchen_id": kitchen_of(demo_server)["id"], "serve": "in 7 h", "method": "hatch-pita", "name": "Pegs"},
    )
    weighed = {"key": "pegs-weighed", "kind": "weigh"}  # or it would share a head with mixing
    demo_server.send("POST", f"/api/bakes/{bake_named(demo_server, 'Pegs')['id']}/taps", weighed)
    was = bake_named(demo_server, "Pegs")
    page = watch(demo_server, "tablet").goto(f"/b/{was['id']}/rise")
    peg = rule(page).get_by_role("link", name=re.compile("^Mix, Pegs"))
    peg.focus()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("Enter")
    expect(rule(page).get_by_role("link", name=re.compile("^Mix, Pegs.*held here"))).to_have_count(1)
    held = bake_named(demo_server, "Pegs")
    assert dt.timedelta(0) < moment(held, "mix") - moment(was, "mix") <= dt.timedelta(minutes=6)
    rule(page).get_by_role("link", name=re.compile("^Mix, Pegs")).press("Delete")
    expect(rule(page).get_by_role("link", name=re.compile("^Mix, Pegs.*held here"))).to_have_count(0)
    flag = rule(page).get_by_role("button", name=re.compile("^Serve, Pegs"))
    box = flag.bounding_box()
    assert box
    page.mouse.move(box["x"] + 14, box["y"] + 24)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 24, steps=5)
    page.mouse.up()
    for _ in range(50):
        served = bake_named(demo_server, "Pegs")
        if served["serve_at"] != was["serve_at"]:
            break
        page.wait_for_timeout(200)
    assert dt.datetime.fromisoformat(served["serve_at"]) > dt.datetime.fromisoformat(was["serve_at"])
    assert moment(served, "mix") > moment(was, "mix")


def test_hours_are_given_and_taken_back_by_keyboard(demo_server: Server, watch: Watch) -> None:
    w = watch(demo_server, "tablet")
    page = w.goto(f"/k/{kitchen_of(demo_server)['id']}/kitchen?at=hours")
    part = page.locator("#hours")
    for label, text in (("What for", "choir"), ("From", "21:00"), ("Until", "6:00")):
        part.get_by_label(label).fill(text)
        page.keyboard.press("Tab")
    part.get_by_role("button", name="Add these hours").press("Enter")
    expect(part.get_by_role("listitem").filter(has_text="choir")).to_contain_text("21:00–06:00")
    w.axe_clean()
    part.get_by_role("button", name="Change choir").press("Enter")
    part.get_by_label("Until").fill("05:30")
    page.keyboard.press("Tab")
    part.get_by_role("button", name="Keep the change").press("Enter")
    expect(part.get_by_role("listitem").filter(has_text="choir")).to_contain_text("21:00–05:30")
    part.get_by_role("button", name="Take away choir").press("Enter")
    expect(part.get_by_role("listitem").filter(has_text="choir")).to_have_count(0)
    part.get_by_label("From").fill("soon")
    page.keyboard.press("Tab")
    part.get_by_role("button", name="Add these hours").press("Enter")
    expect(part.get_by_text(re.compile("“soon” is no time of day"))).to_be_visible()


def slip(server: Server, kitchen: int, move: dt.datetime, minutes: int) -> None:
    """Let the demo's clock jump to a move, and run on past it, a minute a second."""

    def now() -> dt.datetime:
        return dt.datetime.fromisoformat(server.send("GET", f"/api/kitchens/{kitchen}/bench", None)["clock"]["now"])

    for _ in range(12):
        if now() < move:
            server.send("POST", "/api/clock", {"kitchen_id": kitchen, "jump": "next_move"})
    server.send("POST", "/api/clock", {"kitchen_id": kitchen, "rate": 60})
    for _ in range(300):
        if now() >= move + dt.timedelta(minutes=minutes):
            break
        time.sleep(0.2)
    server.send("POST", "/api/clock", {"kitchen_id": kitchen, "rate": 1})
    assert now() >= move + dt.timedelta(minutes=minutes)


def test_a_slip_is_said_and_kept(demo_server: Server, watch: Watch) -> None:
    bake = demo_server.send(
        "POST",
        "/api/bakes",
        {"kitchen_id": kitchen_of(demo_server)["id"], "serve": "in 4 h", "method": "hatch-pita", "name": "Slips"},
    )
    slip(demo_server, bake["kitchen_id"], moment(bake, "mix"), 40)
    page = watch(demo_server, "tablet").goto(f"/b/{bake['id']}/mix")
    expect(page.get_by_test_id("alarms")).to_contain_text("Mix")
    page.get_by_role("button", name="Heard").click()
    expect(page.get_by_test_id("alarms")).to_have_count(0)
    page.get_by_role("button", name="Mixed now").click()
    expect(page.get_by_test_id("say-line")).to_contain_text(re.compile("it was mixed .* late"))
    page.keyboard.press("g")
    page.keyboard.press("t")
    expect(page.get_by_text(re.compile("it was mixed .* late")).first).to_be_visible()
