"""Whatever is done to a kitchen while its bread is on the heat, the kitchen goes on: in the browser, at the demo."""

from __future__ import annotations

import re
from collections.abc import Callable
from typing import Any

from playwright.sync_api import Page, expect

from helpers import BOUNCE_MS
from serving import Server

Watch = Callable[..., Any]


def on_plates(server: Server, name: str) -> tuple[int, int]:
    """(kitchen, bake) of the demo: eight breads for two plates of their own."""
    kitchen = server.send("GET", "/api/kitchens", None)["kitchens"][0]
    plates = {"name": f"Plates, {name}", "kind": "iron_plate", "temp_c": 235, "spots": 2}
    made = server.send("POST", f"/api/kitchens/{kitchen['id']}/surfaces", plates)["surfaces"][-1]["id"]
    bake = server.send("POST", "/api/bakes", {"kitchen_id": kitchen["id"], "serve": "in 9 h", "name": name})["id"]
    server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": made})
    return int(kitchen["id"]), int(bake)


def stand(page: Page) -> None:
    page.get_by_role("button", name="Stand at the heat").press("Enter")
    expect(page.get_by_test_id("due-bar")).to_be_visible()


def test_a_live_line_outlives_its_surface_a_far_table_and_a_server_away(demo_server: Server, watch: Watch) -> None:
    kitchen, bake = on_plates(demo_server, "Plates to go")
    w = watch(demo_server)
    page = w.goto(f"/b/{bake}/fire")
    stand(page)
    bar = page.get_by_test_id("due-bar")
    bar.press("Space")
    expect(page.get_by_role("heading", name=re.compile("Waiting 7"))).to_be_visible()
    room = w.open()
    room.goto(f"{demo_server.url}/k/{kitchen}/kitchen")
    room.get_by_role("group", name="Floor plan").get_by_role("button", name=re.compile("Plates, Plates to go")).click()
    row = room.get_by_role("group", name="Plates, Plates to go")
    row.get_by_role("button", name=re.compile("two at once")).click()
    room.get_by_role("option", name=re.compile("one at once")).click()
    expect(row.get_by_role("button", name=re.compile("one at once"))).to_be_visible()
    row.get_by_role("button", name="take it away").click()
    expect(room.get_by_text("It is taken away")).to_be_visible()
    expect(row).to_have_count(0)
    room.goto(f"{demo_server.url}/b/{bake}/rise")
    table = room.get_by_role("textbox", name="serve at")
    table.fill("2040-01-01 19:00")
    table.press("Enter")
    expect(room.get_by_text(re.compile("too far from today|more than 14 days"))).to_be_visible()
    told = room.evaluate(
        "id => fetch(`/api/bakes/${id}/whatif/keep`, {method: 'POST', headers: {'Content-Type': 'application/json'},"
        " body: JSON.stringify({serve_at: '2040-01-01T19:00:00Z'})}).then(r => r.status)",
        bake,
    )
    assert told == 422
    # the server is away: a tab for each plate, one press in each
    other = w.open()
    other.goto(f"{demo_server.url}/b/{bake}/fire")
    expect(other.get_by_role("heading", name=re.compile("Waiting 7"))).to_be_visible()
    w.context.set_offline(True)
    other.keyboard.press("2")
    expect(other.get_by_role("heading", name=re.compile("Waiting 6"))).to_be_visible()
    page.bring_to_front()
    page.wait_for_timeout(5 * BOUNCE_MS)  # two tabs' clocks may be a moment apart
    page.keyboard.press("1")
    expect(page.get_by_text("2 taps wait here and will be sent")).to_be_visible()
    w.context.set_offline(False)
    expect(page.get_by_text(re.compile("taps? waits? here"))).not_to_be_visible(timeout=20_000)
    hearth = demo_server.get(f"/api/bakes/{bake}/hearth")
    made = [(t["kind"], t["round_no"], t["spot"]) for t in hearth["taps"] if t["round_no"]]
    assert made == [("load", 1, 1), ("load", 2, 2), ("turn", 1, 1)]
    assert [s["number"] for s in hearth["spots"]] == [1, 2]  # as it was when the first was loaded
    page.goto(f"{demo_server.url}/k/{kitchen}/bench")
    expect(page.get_by_text("Plates to go").first).to_be_visible()
    assert demo_server.get(f"/api/kitchens/{kitchen}/bench")["broken"] == []
    w.axe_clean()


def test_a_tap_that_is_refused_waits_for_the_cook(demo_server: Server, watch: Watch) -> None:
    """Two tablets load the same spot; the second press is kept with its reason until it is let go."""
    _, bake = on_plates(demo_server, "Refused")
    w = watch(demo_server)
    page = w.goto(f"/b/{bake}/fire")
    stand(page)
    w.context.set_offline(True)
    page.get_by_test_id("due-bar").press("Space")
    demo_server.send(
        "POST", f"/api/bakes/{bake}/taps", {"key": "elsewhere-1", "kind": "load", "round_no": 2, "spot": 1}
    )
    w.context.set_offline(False)
    alert = page.get_by_role("alert").filter(has_text="was not taken")
    expect(alert).to_contain_text("Spot 1 holds round 2", timeout=20_000)
    page.reload()
    expect(alert).to_contain_text("Round 1 loaded, spot 1")
    w.axe_clean()
    alert.get_by_role("button", name="Let it go").click()
    expect(alert).to_have_count(0)


def test_two_tablets_change_one_formula_and_neither_loses_a_line(demo_server: Server, watch: Watch) -> None:
    """What does not overlap is merged; about what does, the cook is asked."""
    _, bake = on_plates(demo_server, "Shared dough")
    w = watch(demo_server)
    page = w.goto(f"/b/{bake}/weigh")
    lines = demo_server.get(f"/api/bakes/{bake}")["settings"]["lines"]
    oil = {"ingredient": "oil", "amount": "20 g", "basis": None, "part": ""}
    page.route("**/api/bakes/*", lambda route: route.abort() if route.request.method == "GET" else route.continue_())
    demo_server.send("PATCH", f"/api/bakes/{bake}", {"lines": [*lines, oil], "name": "Theirs"})
    page.get_by_role("button", name="this bake…").click()
    name = page.get_by_role("textbox", name="Name")
    name.fill("Mine")
    name.press("Enter")
    asked = page.get_by_role("dialog", name=re.compile("was changed elsewhere"))
    expect(asked).to_contain_text("Theirs")
    w.axe_clean()
    asked.get_by_role("button", name="Put mine in its place").click()
    expect(asked).to_have_count(0)
    for _ in range(40):
        found = demo_server.get(f"/api/bakes/{bake}")
        if found["name"] == "Mine":
            break
        page.wait_for_timeout(200)
    assert (found["name"], found["settings"]["lines"][-1]["ingredient"]) == ("Mine", "oil")
