"""Pictures of every main view, from the demo data. `make shots` writes docs/screenshots/."""

from __future__ import annotations

import argparse
import datetime as dt
import io
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, sync_playwright

from serving import CHROMIUM_FLAGS, Server, chromium


def settle(page: Page) -> None:
    """Wait for fonts, the screen itself, and what it is still working out."""
    page.wait_for_selector("main")
    page.wait_for_function("() => !/Working out|Looking for the cause|Reading what/.test(document.body.innerText)")
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


class Camera:
    """Takes the pictures that are wanted, of one window."""

    def __init__(self, server: Server, page: Page, args: argparse.Namespace) -> None:
        self.server, self.page, self.theme = server, page, args.theme
        self.out = Path(args.out)
        self.size = args.size
        self.wanted = set(filter(None, args.only.split(",")))

    def wants(self, name: str) -> bool:
        """True if this picture was asked for, or all were."""
        return not self.wanted or name in self.wanted

    def open(self, path: str) -> None:
        """Go there and wait."""
        self.page.goto(self.server.url + path)
        settle(self.page)

    def take(self, name: str) -> None:
        """The window as it is."""
        settle(self.page)
        self.page.screenshot(path=str(self.out / f"{name}.png"), animations="disabled")

    def shot(self, name: str, path: str, theme: str | None = None) -> None:
        """The picture of a path."""
        if self.wants(name):
            self.page.goto(self.server.url + path)
            self.page.evaluate(f"document.documentElement.dataset.theme = '{theme or self.theme}'")
            self.take(name)

    @contextmanager
    def passing(self, method: str, serve: str, name: str | None = None) -> Iterator[int]:
        """A bake that is there for its picture only."""
        body = {"kitchen_id": 1, "method": method, "serve": serve, "name": name}
        made = self.server.send("POST", "/api/bakes", body)["id"]
        yield made
        self.page.request.delete(f"{self.server.url}/api/bakes/{made}")


def plain(camera: Camera) -> None:
    """Views that need nothing done."""
    for name, path in PATHS.items():
        camera.shot(name, path)
    if camera.wants("soda"):
        with camera.passing("soda-quarters", "tomorrow 11:00", "Day crew's soda round") as made:
            camera.shot("soda", f"/b/{made}/weigh")


def drill(camera: Camera) -> None:
    """A bread called, and its film."""
    if not camera.wants("drill"):
        return
    page, quick = camera.page, 4
    camera.open("/k/1/drill")
    page.evaluate(f"localStorage.setItem('brass-clock.drill-pace', '{quick}')")
    camera.open("/k/1/drill")
    page.get_by_role("button", name="Put it on").click()
    page.wait_for_timeout(66_000 // quick)
    page.get_by_role("button", name="Turn it").click()
    page.wait_for_timeout(30_000 // quick)
    page.get_by_role("button", name="Off the heat").click()
    page.get_by_role("button", name="Next bread").wait_for()
    camera.take("drill")


def ways(camera: Camera) -> None:
    """A cold dough, and what if the kitchen were warmer."""
    if not camera.wants("rise-cold"):
        return
    page = camera.page
    with camera.passing("cellar-pita", "in 44 h") as made:
        page.goto(f"{camera.server.url}/b/{made}/rise")
        page.get_by_role("tab", name="What if").click()
        page.get_by_role("slider", name="the kitchen").focus()
        for _ in range(4):
            page.keyboard.press("ArrowRight")
        camera.take("rise-cold")


def opened(camera: Camera) -> None:
    """Starters, the day with a way out, a why."""
    page = camera.page
    if camera.wants("starters"):
        camera.open("/k/1/kitchen?at=starter-1")
        camera.take("starters")
    if camera.wants("day"):
        camera.open("/k/1/day")
        page.get_by_role("group", name="Time rule").press("-")
        page.get_by_role("group", name="Time rule").press("-")
        page.get_by_test_id("way-out").get_by_role("button").first.wait_for()
        camera.take("day")
    if camera.wants("why"):
        camera.open("/b/4/rise")
        page.get_by_role("button", name="Ready time: why?").click()
        camera.take("why")


def live(camera: Camera) -> None:
    """A clay wall in the middle of its line."""
    if not camera.wants("fire-live"):
        return
    server = camera.server
    wall = next(s["id"] for s in server.get("/api/kitchens/1")["surfaces"] if s["kind"] == "clay_wall")
    with camera.passing("house-clay-naan", "in 9 h", "Clay naan for the terrace") as made:
        server.send("POST", f"/api/bakes/{made}/scale", {"count": 12})
        server.send("PATCH", f"/api/bakes/{made}", {"surface_id": wall})
        for i in range(7):
            due = server.get(f"/api/bakes/{made}/hearth")
            if dt.datetime.fromisoformat(due["due"][0]["at"]) > dt.datetime.fromisoformat(due["clock"]["now"]):
                server.send("POST", "/api/clock", {"kitchen_id": 1, "jump": "next_move"})
            move = {k: due["due"][0][k] for k in ("round_no", "spot")} | {"kind": due["due"][0]["move"]}
            server.send("POST", f"/api/bakes/{made}/taps", move | {"key": f"shot-wall-{i}"})
        camera.shot("fire-live", f"/b/{made}/fire", "night" if camera.theme == "day" else camera.theme)


def house(camera: Camera) -> None:
    """Four of the house in one: sign-in, devices, a page whose server is gone, backups."""
    if not camera.wants("house"):
        return
    page, tiles = camera.page, []

    def tile() -> None:
        settle(page)
        tiles.append(Image.open(io.BytesIO(page.screenshot(animations="disabled"))))

    with tempfile.TemporaryDirectory() as data:
        told = [sys.executable, "-m", "brassclock.cli", "passcode", "--data", data]
        subprocess.run(told, input=f"{WORDS}\n", text=True, check=True, stdout=subprocess.DEVNULL)
        with Server(Path(data), demo=False, options=("--lan", "--bind", "127.0.0.1")) as server:
            page.goto(f"{server.url}/sign-in")
            page.get_by_label("Passcode").fill(WORDS)
            page.get_by_role("textbox", name="Your name").fill("Hatch tablet")
            tile()
            page.get_by_role("button", name="Sign in").click()
            page.wait_for_url("**/welcome")
            page.evaluate(
                "csrf => fetch('/api/kitchens', {method: 'POST', headers: {'Content-Type': 'application/json',"
                " 'X-CSRF-Token': csrf}, body: JSON.stringify({zone: 'UTC', name: 'Mount Pell, day crew',"
                " surface: {name: 'Plate', kind: 'iron_plate'}})})",
                next(c["value"] for c in page.context.cookies() if c["name"] == "brass-clock-csrf"),
            )
            page.goto(f"{server.url}/k/1/kitchen?at=devices")
            page.get_by_role("button", name="Make a link for guests").click()
            page.get_by_role("textbox", name="Send this link").wait_for()
            tile()
    camera.open("/b/4/fire")
    page.context.set_offline(True)
    page.get_by_text("The server is out of reach since").wait_for()
    tile()
    page.context.set_offline(False)
    camera.server.send("POST", "/api/backups", None)
    camera.open("/k/1/kitchen?at=backups")
    page.get_by_role("button", name="Is it sound?").first.click()
    page.get_by_text("Every page of it is sound").wait_for()
    tile()
    width, height = (x * 5 // 8 for x in tiles[0].size)
    whole = Image.new("RGB", (2 * width, 2 * height))
    for n, one in enumerate(tiles):
        whole.paste(one.resize((width, height), Image.Resampling.LANCZOS), (n % 2 * width, n // 2 * height))
    whole.save(camera.out / "house.png")


WORDS = "stone window apricot"  # of a kitchen that is gone once its picture is taken


def phone(camera: Camera) -> None:
    """The heat on a phone, two breads on it."""
    if not camera.wants("phone-fire"):
        return
    server = camera.server
    server.send("POST", "/api/clock", {"kitchen_id": 1, "jump": "next_move"})
    line(server, 4, [("load", 1, 1)])
    server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 1})
    for seconds, kind, number, spot in ((14, "load", 2, 2), (24, "bubbles", 1, 1), (5, "turn", 1, 1)):
        time.sleep(seconds)
        body = {"key": f"shot-phone-{kind}", "kind": kind, "round_no": number, "spot": spot}
        server.send("POST", "/api/bakes/4/taps", body)
    time.sleep(7)
    server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 0})
    camera.page.set_viewport_size({"width": 390, "height": 844})
    camera.shot("phone-fire", "/b/4/fire")


PATHS = {
    "bench": "/k/1/bench",
    "weigh": "/b/4/weigh",
    "mix": "/b/4/mix",
    "rise": "/b/4/rise",
    "fire-plan": "/b/4/fire",
    "logbook": "/k/1/logbook",
    "kitchen": "/k/1/kitchen",
    "new-bake": "/k/1/new",
    "welcome": "/welcome",
    "keep": "/b/3/keep",
}


def main() -> None:
    """Take the pictures."""
    parser = argparse.ArgumentParser()
    parser.add_argument("--out", default="docs/screenshots")
    parser.add_argument("--only", default="")
    parser.add_argument("--size", default="1280x800")
    parser.add_argument("--theme", default="day")
    args = parser.parse_args()
    width, height = (int(x) for x in args.size.split("x"))
    Path(args.out).mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as data, Server(Path(data), demo=True) as server, sync_playwright() as p:
        server.wait_compiled()
        server.send("POST", "/api/clock", {"kitchen_id": 1, "rate": 0})
        browser = p.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS)
        page = browser.new_page(viewport={"width": width, "height": height}, reduced_motion="reduce")
        page.add_init_script(f"localStorage.setItem('brass-clock.theme', '{args.theme}')")
        camera = Camera(server, page, args)
        for take in (plain, ways, drill, opened, house, live, phone):
            take(camera)
        browser.close()


if __name__ == "__main__":
    main()
