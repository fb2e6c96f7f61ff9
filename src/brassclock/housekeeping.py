"""The data while it is served: held by one process, written back, copied, tidied, watched that it is there; and the
memory of the process, kept from growing."""

from __future__ import annotations

import datetime as dt
import fcntl
import sys
import threading
from collections.abc import Callable
from pathlib import Path
from typing import Any

from brassclock.heaps import give_back
from brassclock.store import backup
from brassclock.store.engine import checkpoint
from brassclock.store.faults import CannotOpen, storage_fault

CHECKPOINT_S = 15 * 60
WATCH_S = 30.0  # how often it looks whether an instrument fell silent
LOOK_S = 2.0  # how often it looks whether the data is still there


def hold(directory: Path) -> Any:
    """The data folder for this process alone, until it ends. Raises CannotOpen when another has it."""
    try:
        directory.mkdir(parents=True, mode=0o700, exist_ok=True)
        lock = (directory / "in-use.lock").open("a")
        (directory / "in-use.lock").chmod(0o600)
        fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
    except BlockingIOError:
        raise CannotOpen(
            f"Another Brass Clock uses the data in {directory}. Stop it first, or choose another folder with --data."
        ) from None
    except OSError as fault:
        raise CannotOpen(f"{directory}: {storage_fault(fault) or fault.strerror}") from None
    return lock


class Housekeeping(threading.Thread):
    """Writes the journal back every quarter of an hour, copies the data once a day, watches that it is still there, and
    gives memory back."""

    def __init__(
        self,
        engine: Any,
        path: Path,
        gone: Callable[[], None],
        today: Callable[[], dt.date] = dt.date.today,
        tidy: Callable[[], object] = lambda: None,
        look: Callable[[], object] = lambda: None,
    ) -> None:
        """`gone` is told when the data is no longer there; `tidy` is done once a round, `look` each half minute."""
        super().__init__(name="housekeeping", daemon=True)
        self.engine, self.path, self.gone, self.today = engine, path, gone, today
        self.tidy, self.look = tidy, look
        self.ended, self.done = threading.Event(), threading.Event()

    def run(self) -> None:
        """Until `ended` is set."""
        try:
            self._rounds()
        finally:
            self.done.set()

    def _rounds(self) -> None:
        since, looked = float(CHECKPOINT_S), 0.0
        while not self.ended.wait(LOOK_S):
            since += LOOK_S
            looked += LOOK_S
            if not self.path.exists():
                self.gone()
                return
            if since >= CHECKPOINT_S:
                since = 0.0
                self.once()
            if looked >= WATCH_S:
                looked = 0.0
                self._done(self.look, "Instruments could not be looked at")
                give_back()

    def once(self) -> None:
        """One round: the journal written back, the day's copy made. A fault is told and tried again at the next."""
        try:
            checkpoint(self.engine)
            backup.daily(self.path, self.today())
        except Exception as fault:
            print(f"The data could not be copied: {storage_fault(fault) or fault}", file=sys.stderr, flush=True)
        self._done(self.tidy, "Old bakes could not be tidied")

    @staticmethod
    def _done(what: Callable[[], object], words: str) -> None:
        """Do it; a fault is told, and it is tried again at the next round."""
        try:
            what()
        except Exception as fault:
            print(f"{words}: {storage_fault(fault) or fault}", file=sys.stderr, flush=True)
