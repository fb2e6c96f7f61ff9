"""Long questions aside: computed by a process of its own, so that a live hearth is answered meanwhile; of one asker the
newest question of a kind stands."""

from __future__ import annotations

import os
import threading
import time
from collections.abc import Callable, Hashable
from concurrent.futures import CancelledError, Future, ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing import get_context
from pathlib import Path
from typing import Any

from pydantic import BaseModel

from brassclock.services.app import App, Conflict
from brassclock.store.unit import Stale

ASIDE = "aside"
MOST_WAITING = 4  # fewer than the server's threads: some are always left for the hearth
LONGEST_S = 20.0
PARENT_S = 3.0  # how often the process looks whether who started it is there still
NICE = 10
Question = Callable[..., BaseModel | dict[str, Any]]
_app: App | None = None  # of the process aside


class Superseded(Conflict):
    """Raised for a question that was left because its asker has asked a newer one of its kind."""

    def __init__(self) -> None:
        super().__init__("A newer question of yours took this one's place.")


class Aside:
    """The process aside, and the questions that wait for it."""

    def __init__(self, directory: Path, *, with_demo: bool) -> None:
        self._told = (directory, with_demo, os.getpid())
        self._pool = self._made()
        self._waiting: dict[Hashable, Future[str]] = {}
        self._lock = threading.Lock()

    def _made(self) -> ProcessPoolExecutor:
        return ProcessPoolExecutor(1, get_context("spawn"), _begin, self._told)

    def warm(self) -> None:
        """Start the process now, so that the first question does not wait for it."""
        self._pool.submit(_ready)

    def ask(self, asker: Hashable, question: Question, *args: Any) -> str:
        """The answer of a question as JSON. Raises what it raises; Superseded; Stale where too many wait."""
        with self._lock:
            had = self._waiting.get(asker)
            if had is not None:
                had.cancel()
            self._waiting = {k: f for k, f in self._waiting.items() if not f.done()}
            if len(self._waiting) >= MOST_WAITING:
                raise Stale("Others ask much at once.")
            try:
                mine = self._pool.submit(_answered, question, args)
            except BrokenProcessPool:
                self._pool = self._made()
                mine = self._pool.submit(_answered, question, args)
            self._waiting[asker] = mine
        try:
            return mine.result(LONGEST_S)
        except CancelledError:
            raise Superseded from None
        except (TimeoutError, BrokenProcessPool):
            raise Stale("The process that computes this did not answer.") from None

    def end(self) -> None:
        """End the process, whatever it computes: nothing of it is stored."""
        self._pool.shutdown(wait=False, cancel_futures=True)
        for process in list((getattr(self._pool, "_processes", None) or {}).values()):
            process.terminate()


def asked(app: App, asker: Hashable, question: Question, *args: Any) -> str:
    """The answer of a question that takes long, as JSON: computed aside where the server has a process for it, else
    here."""
    aside: Aside | None = app.memory.get(ASIDE)
    if aside is None:
        return _json(question(app, *args))
    return aside.ask((asker, question.__name__), question, *args)


def _json(found: BaseModel | dict[str, Any]) -> str:
    import json

    return json.dumps(found) if isinstance(found, dict) else found.model_dump_json(by_alias=True)


def _answered(question: Question, args: tuple[Any, ...]) -> str:
    assert _app is not None
    return _json(question(_app, *args))


def _ready() -> None:
    """The process is up."""


def _begin(directory: Path, with_demo: bool, parent: int) -> None:
    """Begin in the process aside: behind everything else of the machine, over the same data, which it only reads."""
    global _app
    import signal

    from brassclock.services.steppers import warm_all
    from brassclock.store.engine import read_store

    threading.Thread(target=_end_with_parent, args=(parent,), daemon=True).start()
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    os.nice(NICE)
    _app = App(read_store(directory), with_demo=with_demo)
    warm_all()


def _end_with_parent(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(PARENT_S)
    os._exit(0)
