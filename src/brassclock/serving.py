"""A server's settings, and what answers at its port until the application is up."""

from __future__ import annotations

import json
import threading
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from html import escape
from pathlib import Path
from typing import Any

PATIENCE_S = 4.0  # a start takes less where nothing is to be compiled or made
PAGE = (
    '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
    "<title>Brass Clock</title>"
    '<body style="font:22px/1.45 Georgia,serif;max-width:34em;margin:12vh auto;padding:0 24px">'
    "<h1>{title}</h1><p>{words}</p></body></html>"
)

Wsgi = Callable[..., Iterable[bytes]]


@dataclass(frozen=True)
class Serving:
    """The settings of a server: the data's folder, where to listen, under which names, and what comes with it.

    `lan`: beyond this machine, for who knows the passcode. `behind_proxy`: a proxy of this machine says who asks.
    `instruments`: the demo's kitchen gets a stand-in for its instruments, a program of its own. `aside`: long questions
    are computed by another process.
    """

    directory: Path
    host: str
    port: int
    names: frozenset[str]
    demo: bool = False
    compiles: bool = True
    fresh: bool = False
    lan: bool = False
    behind_proxy: bool = False
    instruments: bool = False
    aside: bool = True


class Switch:
    """A WSGI application that has who asks wait for the real one, and tells how things stand when that takes long or is
    not to be. The pages (`pages`) are there at once: a browser loads them meanwhile."""

    def __init__(self, pages: Wsgi) -> None:
        self.app: Wsgi | None = None
        self._pages = pages
        self.title, self.words, self.waits = "Brass Clock is starting", "The kitchen is here in a moment.", True
        self._known = threading.Event()  # that it is up, or that it will not be
        self._inside = 0  # requests that are being answered
        self._count = threading.Condition()

    def __call__(self, environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        of_api = str(environ.get("PATH_INFO", "")).startswith("/api/")
        if self.app is None and self.waits:
            if not of_api:
                return self._pages(environ, start)
            self._known.wait(PATIENCE_S)
        flask_app = self.app
        if flask_app is not None:
            with self._counted():
                return flask_app(environ, start)
        if of_api:
            told = {"title": self.title, "status": 503, "detail": self.words, "errors": []}
            return _answer(start, "application/problem+json", json.dumps(told), self.waits)
        page = PAGE.format(title=escape(self.title), words=escape(self.words))
        return _answer(start, "text/html; charset=utf-8", page, self.waits)

    def tell(self, title: str, words: str, *, waits: bool) -> None:
        """Show this from now on; `waits`: it is over by itself."""
        self.title, self.words, self.waits, self.app = title, words, waits, None
        (self._known.clear if waits else self._known.set)()

    @contextmanager
    def _counted(self) -> Iterator[None]:
        with self._count:
            self._inside += 1
        try:
            yield
        finally:
            with self._count:
                self._inside -= 1
                self._count.notify_all()

    def emptied(self, within_s: float) -> bool:
        """Wait until no request is being answered; False when that takes longer."""
        with self._count:
            return self._count.wait_for(lambda: self._inside == 0, within_s)

    def put(self, flask_app: Wsgi) -> None:
        """The real one answers from now on."""
        self.app = flask_app
        self._known.set()


def _answer(start: Callable[..., Any], media: str, text: str, waits: bool) -> Iterable[bytes]:
    headers = [("Content-Type", media), ("Cache-Control", "no-store")]
    start("503 Service Unavailable", [*headers, *([("Retry-After", "2")] if waits else [])])
    return [text.encode()]
