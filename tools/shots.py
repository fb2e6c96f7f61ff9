"""Pictures of every main view, from the demo data. `make shots` writes docs/screenshots/."""

from __future__ import annotations

import argparse
import datetime as dt
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from serving import CHROMIUM_FLAGS, Server, chromium


def settle(page: Page) -> None:
    """Wait for fonts and the screen itself."""
    page.wait_for_selector("main")
    page.evaluate("document.fonts.ready.then(() => true)")
    page.wait_for_timeout(500)


def line(server: Server, bake: int, seconds: list[tuple[str, int, int]]) -> None:
    """Make moves on the hearth through the API."""
    for i, (kind, number, spot) in enumerate(seconds):
        server.send(
            "POST",
            f"/api/bakes/{bake}/taps",
            {"key": f"shot-{i}-{kind}", "kind": kind, "round_no": number, "spot": spot},
        )


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--out", default="docs/screenshots")
    parser.add_argument("--only", default="")
    parser.add_argument("--size", default="1280x800")
    parser.add_argument("--theme", default="day")
    args = parser.parse_args()
    width, height = (int(x) for x in args.size.split("x"))
    out = Path(args.out)
    out.mkdir(parents=True, exist_ok=True)
    wanted = set(filter(None, args.only.split(",")))

    def want(name: str) -> bool:
        return not wanted or name in wanted

    with tempfile.TemporaryDirectory() as data, Server(Path(data), demo=True) as server, sync_playwright() as p:
        server.wait_compiled()
        server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 0})
        browser = p.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS)
        page = browser.new_page(viewport={"width": width, "height": height}, reduced_motion="reduce")
        page.add_init_script(f"localStorage.setItem('brass-clock.theme', '{args.theme}')")

        def shot(name: str, path: str, theme: str = args.theme) -> None:
            if not want(name):
                return
            page.goto(server.url + path)
            page.evaluate(f"document.documentElement.dataset.theme = '{theme}'")
            settle(page)
            page.screenshot(path=str(out / f"{name}.png"), animations="disabled")

        shot("bench", "/k/1/bench")
        shot("weigh", "/b/4/weigh")
        shot("mix", "/b/4/mix")
        shot("rise", "/b/4/rise")
        shot("fire-plan", "/b/4/fire")
        shot("logbook", "/k/1/logbook")
        shot("kitchen", "/k/1/kitchen")
        shot("new-bake", "/k/1/new")
        shot("welcome", "/welcome")
        shot("keep", "/b/3/keep")

        @contextmanager
        def passing(method: str, serve: str, name: str | None = None) -> Iterator[int]:
            """A bake that is there for its picture only."""
            body = {"kitchen_id": 1, "method": method, "serve": serve, "name": name}
            made = server.send("POST", "/api/bakes", body)["id"]
            yield made
            page.request.delete(f"{server.url}/api/bakes/{made}")

        if want("soda"):
            with passing("soda-quarters", "tomorrow 11:00", "Day crew's soda round") as made:
                shot("soda", f"/b/{made}/weigh")
        if want("rest"):
            with passing("yoghurt-quick", "tomorrow 12:00", "Day crew's yoghurt rounds") as made:
                shot("rest", f"/b/{made}/rise")
        if want("rise-cold") or want("ways"):
            with passing("cellar-pita", "in 44 h") as made:
                shot("rise-cold", f"/b/{made}/rise")
                if want("ways"):
                    page.goto(f"{server.url}/b/{made}/rise")
                    page.get_by_text("Two nights in the fridge").wait_for()
                    page.get_by_role("slider", name="the kitchen").focus()
                    for _ in range(4):
                        page.keyboard.press("ArrowRight")
                    page.get_by_role("region", name="What if").evaluate("e => e.scrollIntoView({ block: 'start' })")
                    settle(page)
                    page.screenshot(path=str(out / "ways.png"), animations="disabled")
        if want("starters"):
            page.goto(f"{server.url}/k/1/kitchen")
            page.get_by_role("button", name="How to keep it").click()
            page.get_by_text("Least waste.").wait_for()
            page.get_by_text("Starters", exact=True).evaluate("e => e.scrollIntoView({ block: 'start' })")
            settle(page)
            page.screenshot(path=str(out / "starters.png"), animations="disabled")
        if want("day"):
            page.goto(f"{server.url}/k/1/day")
            settle(page)
            page.get_by_role("group", name="Time rule").press("-")
            page.get_by_role("group", name="Time rule").press("-")
            page.get_by_test_id("way-out").get_by_role("button").first.wait_for()
            settle(page)
            page.screenshot(path=str(out / "day.png"), animations="disabled")
        if want("why"):
            page.goto(server.url + "/b/4/rise")
            settle(page)
            page.get_by_role("button", name="Ready time: why?").click()
            page.wait_for_timeout(400)
            page.screenshot(path=str(out / "why.png"), animations="disabled")
        if want("fire-live"):
            page.set_viewport_size({"width": width, "height": height})
            wall = next(s["id"] for s in server.get("/api/kitchens/1")["surfaces"] if s["kind"] == "clay_wall")
            with passing("house-clay-naan", "in 9 h", "Clay naan for the terrace") as made:
                server.send("POST", f"/api/bakes/{made}/scale", {"count": 12})
                server.send("PATCH", f"/api/bakes/{made}", {"surface_id": wall})
                for i in range(7):
                    due = server.get(f"/api/bakes/{made}/hearth")
                    if dt.datetime.fromisoformat(due["due"][0]["at"]) > dt.datetime.fromisoformat(due["clock"]["now"]):
                        server.send("POST", "/api/clock", {"kitchen_id": 1, "jump": "next_move"})
                    move = {k: due["due"][0][k] for k in ("round_no", "spot")} | {"kind": due["due"][0]["move"]}
                    server.send("POST", f"/api/bakes/{made}/taps", move | {"key": f"shot-wall-{i}"})
                shot("fire-live", f"/b/{made}/fire", "night" if args.theme == "day" else args.theme)
        if want("phone-fire"):
            server.send("POST", "/api/clock", {"kitchen_id": 1, "jump": "next_move"})
            line(server, 4, [("load", 1, 1)])
            server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 1})
            time.sleep(14)
            line(server, 4, [("load", 2, 2)])
            time.sleep(24)
            server.send(
                "POST", f"/api/bakes/{4}/taps", {"key": "shot-bubbles", "kind": "bubbles", "round_no": 1, "spot": 1}
            )
            time.sleep(5)
            line_moves = [("turn", 1, 1)]
            for kind, number, spot in line_moves:
                server.send(
                    "POST", "/api/bakes/4/taps", {"key": "shot-turn-1", "kind": kind, "round_no": number, "spot": spot}
                )
            time.sleep(7)
            server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 0})
            page.set_viewport_size({"width": 390, "height": 844})
            shot("phone-fire", "/b/4/fire")
        browser.close()


if __name__ == "__main__":
    main()
