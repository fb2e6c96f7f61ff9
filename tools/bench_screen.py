"""Speed of the screen in Chromium without a monitor, the server on this machine, six live bakes in the kitchen.
`make bench` prints it."""

from __future__ import annotations

import statistics
import tempfile
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from playwright.sync_api import Browser, Page, sync_playwright

from brassclock.core.matter.ingredients import table
from serving import CHROMIUM_FLAGS, Server, chromium

SLOW = 4  # times slower than this machine: a cheap tablet
LEAVES = ("weigh", "mix", "rise", "fire", "keep")
METHODS = ("hatch-pita", "terrace-naan", "ridge-sour", "cellar-pita", "soda-quarters", "hatch-pita")
# what takes the page's own thread for more than 100 ms
LONG = """() => {
  window.long = [];
  const kept = (e) => e.duration > 100 && window.long.push(Math.round(e.duration));
  new PerformanceObserver((l) => l.getEntries().forEach(kept)).observe({ type: 'longtask', buffered: true });
}"""
# of each press the milliseconds until what it changed was painted, by the browser's own event timing
PRESSES = """() => {
  window.presses = [];
  const kept = (e) => e.interactionId && window.presses.push(e.duration);
  new PerformanceObserver((l) => l.getEntries().forEach(kept)).observe({ type: 'event', durationThreshold: 16 });
}"""
KEYSTROKES = """async (n) => {
  const input = document.querySelector("input.amount"), grams = () => document.querySelector(".cells .g").textContent;
  const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set, took = [];
  for (let i = 0; i < n; i += 1) {
    const before = grams(), began = performance.now();
    set.call(input, `${101 + i} g`);
    input.dispatchEvent(new Event("input", { bubbles: true }));
    await new Promise((done, late) => {
      const limit = setTimeout(() => late(new Error("no sheet")), 4000);
      const look = () => {
        if (grams() === before) return requestAnimationFrame(look);
        clearTimeout(limit); took.push(performance.now() - began); done();
      };
      look();
    });
    await new Promise((done) => setTimeout(done, 120));
  }
  return took;
}"""


DRAG = """async (n) => {
  const took = [], grip = document.querySelector('g[role=slider][aria-label="Serve at"]');
  const box = grip.getBoundingClientRect(), y = box.top + 24;
  const at = (x) => ({ bubbles: true, pointerId: 1, clientX: x, clientY: y, buttons: 1 });
  const send = (type, x) => grip.dispatchEvent(new PointerEvent(type, at(x)));
  grip.setPointerCapture = () => {}; grip.hasPointerCapture = () => true;
  const paths = () => [...document.querySelectorAll('svg path')].map((p) => p.getAttribute('d')).join();
  // a message posted in a frame's callback arrives when that frame has been painted
  const painted = (then) => { const c = new MessageChannel(); c.port1.onmessage = then; c.port2.postMessage(0); };
  let x = box.left + 24;
  send('pointerdown', x);
  for (let i = 0; i < n; i += 1) {
    const before = paths(), began = performance.now();
    x += i % 20 < 10 ? -30 : 30;
    send('pointermove', x);
    await new Promise((done, late) => {
      const limit = setTimeout(() => late(new Error('no curve')), 4000);
      const look = () => {
        if (paths() === before) return requestAnimationFrame(look);
        clearTimeout(limit);
        painted(() => { took.push(performance.now() - began); done(); });
      };
      look();
    });
    await new Promise((done) => setTimeout(done, 40));
  }
  send('pointerup', x);
  return took;
}"""


FRAMES = """seconds => new Promise(done => {
  const took = []; let last = performance.now(); const end = last + 1000 * seconds;
  const frame = now => {
    took.push(now - last); last = now;
    now < end ? requestAnimationFrame(frame) : done(took.slice(2));
  };
  requestAnimationFrame(frame);
})"""


# when the sentence of the screen was painted first
SHOWN = """() => {
  const look = () => {
    if (!document.querySelector('[data-testid=say-line]')) return requestAnimationFrame(look);
    const c = new MessageChannel();
    c.port1.onmessage = () => { window.shown = performance.now(); };
    c.port2.postMessage(0);
  };
  look();
}"""


@contextmanager
def kitchen_of_six() -> Iterator[tuple[Server, Browser, list[int]]]:
    """A server with six live bakes of one kitchen, and a browser."""
    with tempfile.TemporaryDirectory() as data, Server(Path(data), demo=False) as server, sync_playwright() as p:
        server.wait_compiled()
        plate = {"name": "Plates", "kind": "iron_plate", "spots": 2}
        kitchen = server.send("POST", "/api/kitchens", {"zone": "UTC", "room_c": 21, "surface": plate})["id"]
        bakes = [
            server.send("POST", "/api/bakes", {"kitchen_id": kitchen, "serve": f"in {8 + 9 * n} h", "method": method})
            for n, method in enumerate(METHODS)
        ]
        browser = p.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS)
        yield server, browser, [b["id"] for b in bakes]
        browser.close()


def told(name: str, took: list[float], aim: str) -> None:
    """Prints the 95th percentile and the median of some milliseconds beside what is aimed at."""
    took = sorted(took)
    p95 = took[min(int(0.95 * len(took)), len(took) - 1)]
    print(f"{name:<42} p95 {p95:7.1f} ms   median {statistics.median(took):6.1f}   (aim: {aim})")


def opened(browser: Browser, server: Server, path: str, scripts: tuple[str, ...] = ()) -> Page:
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    for script in scripts:
        page.add_init_script(f"({script})()")
    page.goto(server.url + path)
    page.wait_for_selector("main h1, main h2")
    page.wait_for_timeout(2000)
    return page


def keystroke(server: Server, browser: Browser, bake: int) -> None:
    """From a keystroke to the new grams on the screen, in a formula of thirty lines."""
    amounts = ("1 1/2 cups", "250 g", "2 tbsp", "1 tsp", "3 oz", "1/4 cup")
    lines = [{"ingredient": k, "amount": amounts[i % 6], "basis": None} for i, k in enumerate(list(table())[:30])]
    server.send("PATCH", f"/api/bakes/{bake}", {"lines": lines})
    page = opened(browser, server, f"/b/{bake}/weigh")
    told("keystroke to sheet, 30 lines", page.evaluate(KEYSTROKES, 60), "50 ms or less")
    page.close()


def drag(server: Server, browser: Browser, bake: int, words: str) -> None:
    """From a move of the serving's handle to the painted curve of the new answer."""
    page = opened(browser, server, f"/b/{bake}/rise")
    told(f"drag to paint, {words}", page.evaluate(DRAG, 80), "60 ms or less")
    page.close()


PRESSED: dict[str, tuple[str, Callable[[Page], Any]]] = {
    "weigh": ("a line is added", lambda p: p.get_by_role("button", name="Add a line").click()),
    "mix": ("another way of mixing", lambda p: p.get_by_role("radio", name="mixer").click()),
    "rise": ("a panel", lambda p: p.get_by_role("tab", name="What if").click()),
    "fire": ("a panel", lambda p: p.get_by_role("tab", name="The line").click()),
    "keep": ("a bread of the tray", lambda p: p.locator("[data-round]").nth(2).click()),
}


def presses(server: Server, browser: Browser, bake: int) -> None:
    """From a press to the paint of what it changed, on each leaf; what takes the thread longer than 100 ms."""
    for leaf in LEAVES:
        page = opened(browser, server, f"/b/{bake}/{leaf}", (PRESSES, LONG))
        words, act = PRESSED[leaf]
        act(page)
        page.wait_for_timeout(1200)
        took, long = page.evaluate("[window.presses, window.long]")
        said = f"{max(took):.0f} ms" if took else "under 16 ms"
        name = f"press to paint, {leaf}, {words}"
        print(f"{name:<42} {said:>14}   long tasks {long or 'none'}   (aim: 100 ms or less)")
        page.close()


def first_view(server: Server, browser: Browser) -> None:
    """From the first request to the sentence of the Bench, nothing cached, a machine SLOW times slower."""
    took = []
    for _ in range(5):
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        page = context.new_page()
        context.new_cdp_session(page).send("Emulation.setCPUThrottlingRate", {"rate": SLOW})
        page.add_init_script(f"({SHOWN})()")
        page.goto(f"{server.url}/k/1/bench", wait_until="load")
        page.wait_for_timeout(2500)
        took.append(page.evaluate("window.shown"))
        context.close()
    told(f"first view, {SLOW} times slower", took, "1000 ms or less")


def frames() -> None:
    """Frames of the live hearth with twelve breads on the wall, their sweeps running, in Chromium without a screen."""
    with tempfile.TemporaryDirectory() as data, Server(Path(data), demo=True) as server, sync_playwright() as p:
        server.wait_compiled()
        wall = {
            "name": "Wall",
            "kind": "clay_wall",
            "temp_c": 430,
            "spots": 12,
            "heat": "gas",
            "greased": "dry",
            "nonstick": False,
        }
        surfaces = server.send("POST", "/api/kitchens/1/surfaces", wall)["surfaces"]
        bake = server.send("POST", "/api/bakes", {"kitchen_id": 1, "serve": "in 9 h", "method": "house-clay-naan"})[
            "id"
        ]
        server.send("POST", f"/api/bakes/{bake}/scale", {"count": 24})
        server.send(
            "PATCH", f"/api/bakes/{bake}", {"surface_id": next(x["id"] for x in surfaces if x["name"] == "Wall")}
        )
        for n in range(1, 13):
            server.send(
                "POST", f"/api/bakes/{bake}/taps", {"key": f"frame-{n:02d}", "kind": "load", "round_no": n, "spot": n}
            )
        page = p.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS).new_page(
            viewport={"width": 1280, "height": 800}
        )
        page.goto(f"{server.url}/b/{bake}/fire")
        page.wait_for_selector("[data-spot='12'][data-state]")
        page.wait_for_timeout(3000)
        took = sorted(page.evaluate(FRAMES, 10))
        longest, p95 = took[-1], took[int(0.95 * len(took))]
        print(
            f"hearth of 12 breads, a frame {statistics.median(took):9.1f} ms   p95 {p95:.1f}, longest {longest:.0f}, "
            f"{1e3 * len(took) / sum(took):.0f} a second   (aim: 60 a second)"
        )


def main() -> None:
    with kitchen_of_six() as (server, browser, bakes):
        first_view(server, browser)
        presses(server, browser, bakes[0])
        drag(server, browser, bakes[1], "quick dough")
        drag(server, browser, bakes[3], "cold dough")
        keystroke(server, browser, bakes[5])
    frames()


if __name__ == "__main__":
    main()
