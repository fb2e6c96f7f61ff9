"""The door of the application: a write is computed first and stored last, once for each key, and made again when
another came between."""

from __future__ import annotations

import hashlib
import random
import time
import zlib
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Lock
from typing import Any

from flask import Flask, Response, request
from sqlalchemy.exc import OperationalError

from brassclock.services.answers import answered, forget_old, remember
from brassclock.services.app import App, Conflict
from brassclock.store.unit import Stale

WRITES = ("POST", "PUT", "PATCH", "DELETE")
TRIES = 8
PAUSE_S = (0.002, 0.05)  # before a change is made again: short at first, longer with every try
MOST_KEY = 200
SECRET = ("/api/session", "/api/devices")  # their answers hold tokens: none is kept
ALONE = ("/api/compute", "/api/backups", "/api/instruments/readings")  # they store nothing, or by themselves
HEARTH, TAPS = "/hearth", "/taps"  # a tap carries a key of its own


COURTESY_S = 0.25  # the longest that a request of the hearth lets others go first
_turn = Lock()


@contextmanager
def _one_by_one() -> Iterator[None]:
    """Taps and looks at the hearth go one after the other: side by side they only wait for the interpreter, and half as
    long again.

    Never for long: one that is held up by an edit of its kitchen holds up nobody else.
    """
    mine = _turn.acquire(timeout=COURTESY_S)
    try:
        yield
    finally:
        if mine:
            _turn.release()


class Door(Flask):
    """Flask, with every write under /api as one unit of work around its handler."""

    def dispatch_request(self) -> Any:
        """The answer of a request. A write is stored when its answer is there, and not before."""
        writes = request.method in WRITES and request.path.startswith("/api/")
        if request.path.endswith(HEARTH):
            with _one_by_one():
                return super().dispatch_request()
        if not writes or request.routing_exception is not None or request.path.startswith(ALONE):
            return super().dispatch_request()
        app: App = self.extensions["brassclock"]
        key = None if request.path.startswith(SECRET) else _key()
        if request.path.endswith(TAPS):
            with _one_by_one():
                return self._tried(app, None)
        return self._tried(app, key)

    def _tried(self, app: App, key: str | None) -> Response:
        """The answer of a write, made again when another came between."""
        for attempt in range(TRIES):
            try:
                return self._write(app, key)
            except Stale:
                if attempt == TRIES - 1:
                    raise
            except OperationalError as fault:
                if "locked" not in str(fault.orig) or attempt == TRIES - 1:
                    raise
            time.sleep(random.uniform(PAUSE_S[0], PAUSE_S[1] * (attempt + 1) / TRIES))
        raise AssertionError("a try either answers or raises")

    def _write(self, app: App, key: str | None) -> Response:
        with app.unit() as unit:
            if key is not None:
                asked = _asked()
                had = answered(unit.session, key, app.real_now())
                if had is not None:
                    if had.asked != asked:
                        raise Conflict(
                            "This Idempotency-Key was used for another request. Make a new key for a new request."
                        )
                    return Response(zlib.decompress(had.body), had.status, content_type="application/json")
            response = self.make_response(super().dispatch_request())
            if key is not None and unit.changes and response.status_code < 400:
                body = zlib.compress(response.get_data(), 1)
                remember(unit.session, key, asked, response.status_code, body, app.real_now())
                forget_old(unit.session, app.real_now())
        return response


def _key() -> str | None:
    """The client's key for this request. Raises Conflict when it cannot be one."""
    key = request.headers.get("Idempotency-Key")
    if key is not None and not (8 <= len(key) <= MOST_KEY and key.isascii() and key.isprintable()):
        raise Conflict(f"An Idempotency-Key has 8 to {MOST_KEY} plain characters; this one has {len(key)}.")
    return key


def _asked() -> str:
    """A hash of what is asked: the same request has the same."""
    text = f"{request.method} {request.full_path}\n".encode() + request.get_data()
    return hashlib.sha256(text).hexdigest()
