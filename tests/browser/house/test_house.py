"""A kitchen one can rely on, as its cooks meet it: tablets by passcode, a page without its server, a backup put in
place, instruments."""

from __future__ import annotations

import os
import re
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from playwright.sync_api import Page, expect

import brassclock
from helpers import BOUNCE_MS, wait_until
from serving import Server

Watch = Callable[..., Any]
WORDS = "stone window apricot"
PLATE = {"name": "Plate", "kind": "iron_plate", "temp_c": 235, "spots": 2}
KITCHEN = {"zone": "UTC", "room_c": 22, "name": "Ours", "surface": PLATE}
WORKER = Path(brassclock.__file__).parent / "web" / "sw.js"
CLI = [sys.executable, "-m", "brassclock.cli"]


@pytest.fixture
def own(tmp_path: Path) -> Iterator[tuple[Server, int]]:
    """An own kitchen with a bake whose bread can go on the heat."""
    with Server(tmp_path, demo=False) as server:
        yield server, bake_of(server)


def bake_of(server: Server) -> int:
    kitchen = server.send("POST", "/api/kitchens", KITCHEN)["id"]
    made = server.send("POST", "/api/bakes", {"kitchen_id": kitchen, "serve": "in 9 h", "name": "Round ones"})
    server.send("PATCH", f"/api/bakes/{made['id']}", {"surface_id": 1})
    return int(made["id"])


def sign_in(page: Page, name: str, passcode: str = WORDS) -> None:
    page.get_by_label("Passcode").fill(passcode)
    page.get_by_role("textbox", name=re.compile("Your name")).fill(name)
    page.get_by_role("button", name="Sign in").click()


def stand(page: Page) -> None:
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    expect(page.get_by_test_id("due-bar")).to_be_visible()


def test_two_tablets_by_passcode_see_each_others_taps(tmp_path: Path, watch: Watch) -> None:
    with Server(tmp_path, demo=False) as alone:
        bake = bake_of(alone)
    subprocess.run([*CLI, "passcode", "--data", str(tmp_path)], input=f"{WORDS}\n", text=True, check=True, timeout=60)
    with Server(tmp_path, demo=False, options=("--lan", "--bind", "127.0.0.1")) as server:
        first, second = watch(server), watch(server, "phone")
        page, other = first.page, second.page
        page.goto(f"{server.url}/b/{bake}/fire")
        expect(page).to_have_url(re.compile("/sign-in"))
        first.axe_clean()
        sign_in(page, "Tomo", "not the words")
        expect(page.get_by_text("That is not the passcode")).to_be_visible()
        sign_in(page, "Tomo")
        expect(page).to_have_url(re.compile(f"/b/{bake}/fire"))
        stand(page)
        other.goto(f"{server.url}/b/{bake}/fire")
        other.wait_for_selector("main")
        second.axe_clean()
        sign_in(other, "Ada")
        stand(other)
        page.get_by_test_id("due-bar").press("Space")
        pressed = time.monotonic()
        expect(other.get_by_test_id("undo")).to_contain_text("load 1, Tomo")
        print(f"a tap was on the other tablet after {time.monotonic() - pressed:.2f} s")
        # what is lent is forgotten; what guests get shows no name
        page.goto(f"{server.url}/k/1/kitchen?at=devices")
        expect(page.get_by_text("Tomo, this one")).to_be_visible()
        page.get_by_role("button", name="Make a link for guests").click()
        link = page.get_by_role("textbox", name="Send this link").input_value()
        first.axe_clean()
        page.get_by_role("button", name="Forget Ada").click()
        expect(other).to_have_url(re.compile("/sign-in"))
        guest = watch(server).page
        guest.goto(link)
        expect(guest.get_by_text("At the heat")).to_be_visible()
        shown = guest.inner_text("body")
        assert "Ours" not in shown and "Tomo" not in shown and "Round ones" not in shown
        assert guest.evaluate("fetch('/api/kitchens').then(r => r.status)") == 401


def test_the_page_opens_and_the_hearth_goes_on_while_the_server_is_gone(own: tuple[Server, int], watch: Watch) -> None:
    server, bake = own
    w = watch(server, keeps=True)
    page = w.goto(f"/b/{bake}/fire")
    stand(page)
    page.get_by_test_id("due-bar").press("Space")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    wait_until(lambda: page.evaluate("navigator.serviceWorker.controller !== null"))
    page.reload()  # from now on what is told last is kept
    expect(page.get_by_test_id("due-bar")).to_be_visible()
    expect(page.get_by_role("heading", name=re.compile("Waiting"))).to_be_visible()
    page.wait_for_timeout(4000)
    server.kill()
    page.reload()
    expect(page.get_by_text(re.compile("The server is out of reach since"))).to_be_visible()
    expect(page.get_by_test_id("due-bar")).to_be_visible()
    expect(page.get_by_test_id("undo")).to_contain_text("load 1")
    page.keyboard.press("2")
    expect(page.get_by_test_id("undo")).to_contain_text("load 2")
    expect(page.get_by_text("1 tap waits here and will be sent")).to_be_visible()
    page.keyboard.press("u")  # taken back at once, and pressed again
    expect(page.get_by_test_id("undo")).to_contain_text("load 1")
    page.keyboard.press("2")
    expect(page.get_by_test_id("undo")).to_contain_text("load 2")
    w.axe_clean()
    page.goto(f"{server.url}/k/1/day")
    expect(page.get_by_text("Round ones").first).to_be_visible()
    page.goto(f"{server.url}/b/{bake}/fire")
    expect(page.get_by_test_id("due-bar")).to_be_visible()
    page.reload()  # and once more: the presses are there still
    expect(page.get_by_text("3 taps wait here and will be sent")).to_be_visible()
    expect(page.get_by_test_id("undo")).to_contain_text("load 2")
    server.start()
    expect(page.get_by_text(re.compile("taps? waits? here"))).not_to_be_visible()
    made = [(t["kind"], t["round_no"], t["spot"]) for t in server.get(f"/api/bakes/{bake}/hearth")["taps"]]
    assert made == [("load", 1, 1), ("load", 2, 2)]


def test_a_newer_page_is_offered_and_never_in_the_midst_of_a_hearth(own: tuple[Server, int], watch: Watch) -> None:
    """A worker of other bytes stands in for a second build."""
    server, bake = own
    w = watch(server, keeps=True)
    page, offered = w.goto("/k/1/day"), w.page.get_by_text("A newer Brass Clock is here")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    wait_until(lambda: page.evaluate("navigator.serviceWorker.controller !== null"))
    built = WORKER.read_bytes()
    try:
        WORKER.write_bytes(built + b"\n// newer\n")
        page.goto(f"{server.url}/b/{bake}/fire")
        page.evaluate("navigator.serviceWorker.getRegistration().then((r) => r.update()).then(() => true)")
        wait_until(lambda: page.evaluate("navigator.serviceWorker.getRegistration().then((r) => r.waiting !== null)"))
        expect(offered).not_to_be_visible()
        page.get_by_role("link", name=re.compile("^Rise")).first.click()
        expect(offered).to_be_visible()
        w.axe_clean()
        with page.expect_event("load"):
            page.get_by_role("button", name="Use the newer one").click()
        wait_until(lambda: page.evaluate("navigator.serviceWorker.getRegistration().then((r) => r.waiting === null)"))
        expect(offered).not_to_be_visible()
    finally:
        WORKER.write_bytes(built)


def test_without_the_network_in_the_midst_of_a_line_nothing_is_lost_or_doubled(
    own: tuple[Server, int], watch: Watch
) -> None:
    """For five seconds here, for GONE_S where that is set."""
    server, bake = own
    twelve = server.send("POST", "/api/kitchens/1/surfaces", PLATE | {"name": "Twelve", "spots": 12})["surfaces"][-1]
    server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": twelve["id"], "count": 24})
    w = watch(server)
    page = w.goto(f"/b/{bake}/fire")
    stand(page)
    bar, last = page.get_by_test_id("due-bar"), page.get_by_test_id("undo")
    bar.press("Space")
    expect(last).to_contain_text("load 1")
    gone_s, pressed = float(os.environ.get("GONE_S", "5")), ["load 1"]
    w.context.set_offline(True)
    page.wait_for_timeout(2 * BOUNCE_MS)
    until = time.monotonic() + gone_s
    while time.monotonic() < until:
        bar.press("Space")  # whatever the plan has next
        expect(last).not_to_contain_text(re.compile(rf"{pressed[-1]}\b"))
        pressed.append(last.inner_text().removeprefix("Undo").strip())
        page.wait_for_timeout(1000)
    loads = [p for p in pressed if p.startswith("load")]
    assert loads == [f"load {n + 1}" for n in range(len(loads))]
    w.context.set_offline(False)
    expect(page.get_by_text(re.compile("taps? waits? here"))).not_to_be_visible()
    taps = server.get(f"/api/bakes/{bake}/hearth")["taps"]
    assert [f"{'take off' if t['kind'] == 'off' else t['kind']} {t['round_no']}" for t in taps] == pressed
    assert len({t["key"] for t in taps}) == len(pressed)
    print(f"{gone_s:.0f} s without the network: {len(pressed)} presses, {len(taps)} stored")


def test_a_backup_is_saved_checked_and_put_in_place(own: tuple[Server, int], watch: Watch, tmp_path: Path) -> None:
    server, _ = own
    w = watch(server, "phone")
    page = w.goto("/k/1/kitchen?at=backups")
    page.get_by_role("button", name="Save one now").click()
    saved = page.get_by_role("listitem").filter(has_text=re.compile(r"saved, \d"))
    saved.get_by_role("button", name=re.compile("Is it sound")).click()
    expect(saved).to_contain_text("Every page of it is sound. 1 kitchen, 1 bake")
    with page.expect_download() as carried:
        saved.get_by_role("link", name="fetch the file").click()
    file = tmp_path / "carried.sqlite3"
    carried.value.save_as(file)
    w.axe_clean()
    server.send("PATCH", "/api/kitchens/1", {"name": "After"})
    began = time.monotonic()
    saved.get_by_role("button", name=re.compile("Put it in place")).click()
    page.get_by_role("button", name="Yes, put it in place").click()
    expect(page).to_have_url(re.compile("/k/1/bench"))
    print(f"a restore took {time.monotonic() - began:.1f} s")
    assert server.get("/api/kitchens/1")["name"] == "Ours"
    # what was there is kept; the file of another machine is read, a picture is not
    page.goto(f"{server.url}/k/1/kitchen?at=backups")
    page.get_by_label("Bring one from another machine").last.set_input_files(file)
    expect(page.get_by_role("listitem").filter(has_text="brought here")).to_be_visible()
    (tmp_path / "picture.sqlite3").write_bytes(b"\x89PNG" * 100)
    page.get_by_label("Bring one from another machine").last.set_input_files(tmp_path / "picture.sqlite3")
    expect(page.get_by_role("alert")).to_contain_text("is no backup of Brass Clock")
    kinds = [b["kind"] for b in server.get("/api/backups")["backups"]]
    assert kinds.count("saved") == 2 and kinds.count("brought") == 1


def test_instruments_drive_the_air_the_scale_and_the_heat(own: tuple[Server, int], watch: Watch) -> None:
    server, bake = own
    w = watch(server)
    page = w.goto("/k/1/kitchen?at=instruments")
    page.get_by_role("textbox", name="called").fill("Probes")
    page.get_by_role("button", name="Add it").click()
    token = page.get_by_role("textbox", name=re.compile("Its token")).input_value()
    told = ["--url", server.url, "--token", token, "--every", "1", "--for", "600", "--scale"]
    stand_in = subprocess.Popen([*CLI, "simulate", *told, "--fault", "fridge:absurd@0"])
    try:
        row = lambda name: page.get_by_role("listitem").filter(has_text=re.compile(f"^{name}"))  # noqa: E731
        expect(row("room")).to_contain_text("°C")
        expect(row("room").get_by_role("button")).to_contain_text("air, the bench")
        row("plate").get_by_role("button").click()
        page.get_by_role("option", name="Plate").click()
        expect(row("fridge")).to_contain_text("tells what cannot be since")
        w.axe_clean()
        w.goto("/k/1/bench")
        expect(page.get_by_text("Plans go by the usual hours instead")).to_be_visible()
        w.goto(f"/b/{bake}/fire")
        expect(page.get_by_test_id("pyrometer")).to_contain_text("not yet, it wants")
        w.goto(f"/b/{bake}/weigh")
        page.get_by_role("button", name="Weigh it").click()
        expect(page.get_by_test_id("on-scale")).to_be_visible()
        page.wait_for_timeout(3000)
        w.axe_clean()
        lines = len(server.get(f"/api/bakes/{bake}")["settings"]["lines"])
        expect(page.get_by_text("All in the bowl")).to_be_visible(timeout=90_000)
        wait_until(lambda: server.get(f"/api/bakes/{bake}")["settings"]["weighed"] == list(range(lines)))
    finally:
        stand_in.terminate()
        stand_in.wait()
