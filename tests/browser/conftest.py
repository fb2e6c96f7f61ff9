"""A real server, a real Chromium; every page watched for console errors, foreign requests and policy violations."""

from __future__ import annotations

import datetime as dt
import fcntl
import shutil
import sqlite3
from collections.abc import Callable, Generator, Iterator
from contextlib import closing
from pathlib import Path
from typing import Any

import pytest
from axe_playwright_python.sync_playwright import Axe
from playwright.sync_api import Browser, Error, Page, expect, sync_playwright

from brassclock.store.engine import FILE_NAME
from serving import CHROMIUM_FLAGS, Server, chromium

expect.set_options(timeout=30_000)  # a machine under load answers late, not wrongly
SIZES = {"tablet": (1280, 800), "phone": (390, 844)}
# where what scrolls ends: at the frame below it, or at the strip that holds the next press
EDGE = """() => Math.min(document.querySelector('main').getBoundingClientRect().bottom,
  document.querySelector('main > [data-due=true]')?.getBoundingClientRect().top ?? Infinity)"""
WCAG = ["wcag2a", "wcag2aa", "wcag21a", "wcag21aa", "wcag22aa"]
CONTRAST = {"type": "rule", "values": ["color-contrast"]}
BRIEFLY = {"resultTypes": ["violations"]}  # what passes is not described
BENIGN = ("the server responded with a status of", "Failed to load resource")


@pytest.fixture(scope="session")
def chrome() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=chromium(), args=CHROMIUM_FLAGS)
        yield browser
        browser.close()


class Watched:
    """A page that remembers what went wrong on it."""

    def __init__(self, browser: Browser, server: Server, size: str, keeps: bool) -> None:
        width, height = SIZES[size]
        self.context = browser.new_context(
            viewport={"width": width, "height": height},
            reduced_motion="reduce",
            service_workers="allow" if keeps else "block",
        )
        self.context.grant_permissions(["screen-wake-lock"], origin=server.url)
        self.context.set_default_timeout(30_000)
        self.server, self.size, self.wrong = server, size, list[str]()
        self.told = list[str]()  # the last answers
        self.page = self.open()

    def open(self) -> Page:
        page = self.context.new_page()
        page.on(
            "console",
            lambda m: m.type == "error" and not any(b in m.text for b in BENIGN) and self.wrong.append(m.text),
        )
        page.on("pageerror", lambda e: self.wrong.append(str(e)))
        page.on(
            "request",
            lambda r: r.url.startswith((self.server.url, "data:", "blob:")) or self.wrong.append(f"foreign: {r.url}"),
        )
        page.on("response", lambda r: self.told.append(f"{r.status} {r.request.method} {r.url}"))
        return page

    def shows(self) -> str:
        """What is on the page and what was answered last: for a report of what failed."""
        focus = "document.activeElement?.outerHTML.slice(0, 200)"
        try:
            shown = f"{self.page.url}\n{self.page.inner_text('body')[:1500]}\nfocus: {self.page.evaluate(focus)}"
        except Error as fault:
            shown = f"{self.page.url} cannot be read: {fault.message}"
        return "\n".join([shown, *self.told[-15:]])

    def goto(self, path: str) -> Page:
        self.page.goto(self.server.url + path)
        self.page.wait_for_selector("main")
        return self.page

    def axe_clean(self) -> None:
        """No accessibility violation on what is shown, once it is shown; on the tablet the letters can be read at night
        too: the colours are the same on the phone."""
        self.page.wait_for_selector("main")
        self.settled()
        found = Axe().run(self.page, options={"runOnly": WCAG, **BRIEFLY})
        wrong = [v["id"] for v in found.response["violations"] if not self._scrolled_off(v)]
        assert wrong == [], found.generate_report()
        if self.size != "tablet":
            return
        self.page.emulate_media(color_scheme="dark")
        night = Axe().run(self.page, options={"runOnly": CONTRAST, **BRIEFLY})
        self.page.emulate_media(color_scheme="light")
        assert night.response["violations"] == [], "at night: " + night.generate_report()

    def settled(self) -> None:
        """Wait until nothing on the page has changed its height for a quarter of a second."""
        tall = "document.querySelector('main').scrollHeight"
        was = None
        for _ in range(20):
            now = self.page.evaluate(tall)
            if now == was:
                return
            was = now
            self.page.wait_for_timeout(250)

    def _scrolled_off(self, violation: dict[str, Any]) -> bool:
        """True of targets that are small only because the edge of what scrolls cuts or hides them."""
        if violation["id"] != "target-size":
            return False
        edge = self.page.evaluate(EDGE)
        boxes = [self.page.locator(node["target"][0]).bounding_box() for node in violation["nodes"]]
        return all(b is not None and edge < b["y"] + b["height"] + 24 for b in boxes)


OPENED = pytest.StashKey[list[Watched]]()


@pytest.hookimpl(wrapper=True)
def pytest_runtest_makereport(item: pytest.Item) -> Generator[None, pytest.TestReport, pytest.TestReport]:
    """A test that failed shows its pages."""
    report = yield
    if report.when == "call" and report.failed:
        report.sections += [("the page", one.shows()) for one in item.stash.get(OPENED, [])]
    return report


@pytest.fixture
def watch(chrome: Browser, request: pytest.FixtureRequest) -> Iterator[Callable[[Server, str], Watched]]:
    """Opens watched pages, kept on the tablet where that is asked for; at the end nothing may have gone wrong on
    any."""
    opened = request.node.stash[OPENED] = list[Watched]()

    def open_on(server: Server, size: str = "tablet", *, keeps: bool = False) -> Watched:
        opened.append(Watched(chrome, server, size, keeps))
        return opened[-1]

    yield open_on
    for one in opened:
        wrong = one.wrong
        one.context.close()
        assert wrong == []


@pytest.fixture
def empty_server(tmp_path: Path) -> Iterator[Server]:
    with Server(tmp_path, demo=False) as server:
        yield server


@pytest.fixture(scope="session")
def made_demo(tmp_path_factory: pytest.TempPathFactory, worker_id: str) -> Path:
    """The demo kitchen as a start makes it; made once for all workers."""
    shared = tmp_path_factory.getbasetemp() if worker_id == "master" else tmp_path_factory.getbasetemp().parent
    made = shared / "made-demo"
    with (shared / "made-demo.lock").open("w") as lock:
        fcntl.flock(lock, fcntl.LOCK_EX)
        if not made.exists():
            with Server(shared / "being-made", demo=True):
                pass
            (shared / "being-made").rename(made)
    return made


@pytest.fixture(scope="module")
def demo_server(made_demo: Path, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Server]:
    """A server on a copy of the demo kitchen, whose clock begins as its first start left it."""
    data = tmp_path_factory.mktemp("demo") / "data"
    shutil.copytree(made_demo, data)
    with closing(sqlite3.connect(data / FILE_NAME)) as db, db:
        db.execute("update clock set anchor_real = ?", [dt.datetime.now(dt.UTC).isoformat(timespec="microseconds")])
    with Server(data, demo=True) as server:
        server.wait_compiled()
        yield server
