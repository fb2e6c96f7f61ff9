"""The application while it runs behind its port: brought up, put aside for a restore, brought up again, ended."""

from __future__ import annotations

import gc
import os
import subprocess
import sys
import threading
import time
from functools import partial
from pathlib import Path
from typing import Any

from brassclock.core.compiled import begin_warming
from brassclock.housekeeping import Housekeeping, hold
from brassclock.serving import Serving, Switch
from brassclock.store.engine import FILE_NAME, close_store
from brassclock.store.faults import CannotOpen, storage_fault

SETTLED_S = 5.0  # then the process for long questions is started
ANSWERED_S = 0.5  # until the answer of who asked for a restore is on its way
PATIENCE_RESTORE_S = 15.0


class Running:
    """The application while it runs behind its port: brought up, put aside for a restore, brought up again, ended."""

    def __init__(self, serving: Serving, switch: Switch) -> None:
        self.serving, self.switch = serving, switch
        self.fault: Exception | None = None
        self._lock: Any = None
        self._engine: Any = None
        self._keeping: Housekeeping | None = None
        self._changing = threading.Lock()
        self._stand_in: subprocess.Popen[bytes] | None = None
        self._follower: Any = None
        self._aside: Any = None
        self._listener: Any = None
        self._settled: threading.Timer | None = None

    def start(self) -> None:
        """Bring the application up; a fault is told on the terminal and on the page."""
        serving, switch = self.serving, self.switch
        try:
            self._lock = hold(serving.directory)
            if serving.compiles and serving.demo:  # its nights are computed one after the other: quicker once compiled
                _warming(switch, first=True).join()
            elif serving.compiles:
                begin_warming()  # what is asked before that waits for it
            self._open()
            gc.freeze()
            if self._aside is not None:
                self._settled = threading.Timer(SETTLED_S, self._aside.warm)
                self._settled.daemon = True
                self._settled.start()
            if serving.compiles and not serving.demo:  # once it answers: loading the compiler would hold up the first
                _warming(switch, first=False)
        except CannotOpen as fault:
            self.fault = fault
            print(fault, file=sys.stderr, flush=True)
            switch.tell("Brass Clock cannot start", str(fault), waits=False)
        except Exception as fault:
            self.fault = fault
            told = storage_fault(fault)
            words = told or f"{type(fault).__name__}: {fault}"
            print(f"Brass Clock cannot start. {words}", file=sys.stderr, flush=True)
            switch.tell("Brass Clock cannot start", words, waits=False)
            if told is None:
                raise
        finally:
            gc.enable()

    def _open(self) -> None:
        """Open the data and answer with it."""
        from brassclock.api.app import create_app
        from brassclock.mqtt import listener
        from brassclock.services.access.devices import gatekeeper
        from brassclock.services.access.passcode import is_set
        from brassclock.services.app import App, system_now
        from brassclock.services.aside import ASIDE, Aside
        from brassclock.services.backups import RESTORER
        from brassclock.services.bake.ending import fill_ended, put_away
        from brassclock.services.instruments.derived import FOLLOWER, Follower, forget_raw, watch
        from brassclock.services.kitchen.clock import may_follow
        from brassclock.store.engine import open_store

        serving, switch = self.serving, self.switch
        if self._engine is None:
            self._engine = open_store(serving.directory, fresh=serving.fresh)
        app = App(self._engine, with_demo=serving.demo)
        app.memory[RESTORER] = self.restore
        if serving.lan and not is_set(app):
            raise CannotOpen(NO_PASSCODE)
        if serving.demo:
            from brassclock.demo.canteen import ensure_demo

            switch.tell("Brass Clock is starting", "The demo kitchen is being made: up to half a minute.", waits=True)
            ensure_demo(app)
        flask_app = create_app(app, serving.names, lan=serving.lan)

        def tidy() -> None:
            fill_ended(app)
            put_away(app)
            gatekeeper(app).store_seen(app)
            forget_raw(app)

        system_now.may_follow = may_follow(app)
        if serving.aside:
            self._aside = app.memory[ASIDE] = Aside(serving.directory, with_demo=serving.demo)
        self._follower = app.memory[FOLLOWER] = Follower(app)
        self._follower.start()
        self._listener = listener(app, serving.directory)
        if self._listener is not None:
            self._listener.start()
        if serving.demo and serving.instruments and self._stand_in is None:
            self._stand_in = stand_in(app, serving)
        self._keeping = Housekeeping(
            self._engine, serving.directory / FILE_NAME, self._gone, tidy=tidy, look=partial(watch, app)
        )
        self._keeping.start()
        switch.put(flask_app)

    def _gone(self) -> None:
        words = (
            f"The data folder {self.serving.directory} was removed or moved while Brass Clock ran. Nothing more is "
            "taken. Put it back and start again."
        )
        print(words, file=sys.stderr, flush=True)
        self.switch.tell("The data is gone", words, waits=False)

    def restore(self, chosen: Path) -> None:
        """Put a backup in the data's place, beside the request that asked for it: once that is answered."""
        threading.Thread(target=self._restore, args=(chosen,), name="restore", daemon=True).start()

    def _restore(self, chosen: Path) -> None:
        from brassclock.store.restoring import restored

        time.sleep(ANSWERED_S)
        with self._changing:
            self.switch.tell("A backup is being put in place", "What it holds is here in a moment.", waits=True)
            if not self.switch.emptied(PATIENCE_RESTORE_S):
                print("A request is still being answered; the restore waits no longer.", file=sys.stderr, flush=True)
            self.end()
            self._engine = None
            try:
                self._engine, kept = restored(self.serving.directory, chosen)
                print(f"{chosen.name} is in place. What was there is kept as {kept}.", flush=True)
            except Exception as fault:  # what was there is in its place
                told = storage_fault(fault) or str(fault)
                print(f"{chosen.name} could not be put in place. {told}", file=sys.stderr, flush=True)
            try:
                self._open()
            except Exception as fault:
                self.switch.tell("Brass Clock cannot start", storage_fault(fault) or str(fault), waits=False)
                raise

    def send_home(self) -> None:
        """End the stand-in for the demo's instruments."""
        if self._stand_in is not None:
            self._stand_in.terminate()

    def end(self) -> None:
        """Write everything back and let go of the data."""
        if self._listener is not None:
            self._listener.end()
        if self._settled is not None:
            self._settled.cancel()
        if self._aside is not None:
            self._aside.end()
        if self._follower is not None:
            self._follower.end()
            self._follower.join(PATIENCE_RESTORE_S)
        if self._keeping is not None:
            self._keeping.ended.set()
            self._keeping.done.wait(PATIENCE_RESTORE_S)
        if self._engine is not None and (self.serving.directory / FILE_NAME).exists():
            close_store(self._engine)


def stand_in(app: Any, serving: Serving) -> subprocess.Popen[bytes] | None:
    """Start the program that stands in for the demo kitchen's instruments; None where there is no demo kitchen. It ends
    with this process."""
    from brassclock.demo.instruments import prepared

    found = prepared(app)
    if found is None:
        return None
    token, told = found
    command = [sys.executable, "-m", "brassclock.cli", "simulate", "--url", f"http://127.0.0.1:{serving.port}"]
    command += [*told, "--scale", "--with-parent"]
    return subprocess.Popen(command, env={**os.environ, "BRASS_CLOCK_TOKEN": token}, stdin=subprocess.PIPE)


NO_PASSCODE = (
    "Others in the network may use this kitchen only by a passcode, and none is set. Set one: brass-clock passcode. "
    "Or leave out --lan: then this machine alone."
)


def _warming(switch: Switch, *, first: bool) -> threading.Thread:
    """Compile, or load what was compiled before; told on the terminal, and on the page where it waits for it, when that
    takes long."""

    def warm() -> None:
        from brassclock.services.steppers import COLD_WORDS, warm_all

        def told() -> None:
            print(f"{COLD_WORDS} Answers are {'made' if first else 'finer'} after that.", file=sys.stderr, flush=True)
            if switch.app is None:
                switch.tell("Brass Clock is starting", COLD_WORDS, waits=True)

        warm_all(told)
        gc.freeze()  # a pass of the collector over what was loaded would hold up an answer by a third of a second

    thread = threading.Thread(target=warm, name="warm", daemon=True)
    thread.start()
    return thread
