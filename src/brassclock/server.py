"""The server: a port that answers at once, the application behind it once it is up, its housekeeping, and a clean
end."""

from __future__ import annotations

import datetime as dt
import fcntl
import gc
import json
import signal
import socket
import sys
import threading
from collections.abc import Callable, Iterable
from html import escape
from pathlib import Path
from typing import Any

from brassclock.store import backup
from brassclock.store.engine import FILE_NAME, CannotOpen, checkpoint, close_store
from brassclock.store.faults import storage_fault

THREADS = 8  # more than cores: some wait for the disk or for their turn
CONNECTIONS = 1000
PATIENCE_S = 4.0  # a start takes less where nothing is to be compiled or made
IDLE_S = 30  # a connection that says nothing for so long is closed
MOST_BODY = 16_000_000
CHECKPOINT_S = 15 * 60
LOOK_S = 2.0  # how often the housekeeping looks whether the data is still there
PAGE = (
    '<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">'
    "{again}<title>Brass Clock</title>"
    '<body style="font:22px/1.45 Georgia,serif;max-width:34em;margin:12vh auto;padding:0 24px">'
    "<h1>{title}</h1><p>{words}</p></body></html>"
)


class Switch:
    """A WSGI application that has who asks wait for the real one, and tells how things stand when that takes long or is
    not to be."""

    def __init__(self) -> None:
        self.app: Callable[..., Iterable[bytes]] | None = None
        self.title, self.words, self.waits = "Brass Clock is starting", "It is here in a moment.", True
        self._known = threading.Event()  # that it is up, or that it will not be

    def __call__(self, environ: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        if self.app is None and self.waits:
            self._known.wait(PATIENCE_S)
        flask_app = self.app
        if flask_app is not None:
            return flask_app(environ, start)
        if str(environ.get("PATH_INFO", "")).startswith("/api/"):
            told = {"title": self.title, "status": 503, "detail": self.words, "errors": []}
            return _answer(start, "application/problem+json", json.dumps(told), self.waits)
        again = '<meta http-equiv="refresh" content="2">' if self.waits else ""
        return _answer(
            start,
            "text/html; charset=utf-8",
            PAGE.format(again=again, title=escape(self.title), words=escape(self.words)),
            self.waits,
        )

    def tell(self, title: str, words: str, *, waits: bool) -> None:
        """Show this from now on; `waits`: it is over by itself."""
        self.title, self.words, self.waits, self.app = title, words, waits, None
        if not waits:
            self._known.set()

    def put(self, flask_app: Callable[..., Iterable[bytes]]) -> None:
        """The real one answers from now on."""
        self.app = flask_app
        self._known.set()


def _answer(start: Callable[..., Any], media: str, text: str, waits: bool) -> Iterable[bytes]:
    headers = [("Content-Type", media), ("Cache-Control", "no-store")]
    start("503 Service Unavailable", [*headers, *([("Retry-After", "2")] if waits else [])])
    return [text.encode()]


def listening(host: str, port: int) -> socket.socket:
    """A socket that is bound. Raises CannotOpen in words when the port is taken or may not be used."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    found = socket.socket(family, socket.SOCK_STREAM)
    found.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        found.bind((host.strip("[]"), port))
    except OSError as fault:
        found.close()
        why = {98: "is taken by another program", 13: "may not be used by you", 99: "is no address of this machine"}
        raise CannotOpen(
            f"Port {port} on {host} {why.get(fault.errno or 0, f'cannot be used ({fault.strerror})')}. Choose "
            "another: --port 8422."
        ) from None
    found.set_inheritable(False)
    found.listen(256)
    return found


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
    """Writes the journal back every quarter of an hour, copies the data once a day, and watches that it is still
    there."""

    def __init__(
        self,
        engine: Any,
        path: Path,
        gone: Callable[[], None],
        today: Callable[[], dt.date] = dt.date.today,
        tidy: Callable[[], object] = lambda: None,
    ) -> None:
        """`gone` is told when the data is no longer there; `tidy` is done once a round."""
        super().__init__(name="housekeeping", daemon=True)
        self.engine, self.path, self.gone, self.today, self.tidy = engine, path, gone, today, tidy
        self.ended = threading.Event()

    def run(self) -> None:
        """Until `ended` is set."""
        since = float(CHECKPOINT_S)
        while not self.ended.wait(LOOK_S):
            since += LOOK_S
            if not self.path.exists():
                self.gone()
                return
            if since >= CHECKPOINT_S:
                since = 0.0
                self.once()

    def once(self) -> None:
        """One round: the journal written back, the day's copy made. A fault is told and tried again at the next."""
        try:
            checkpoint(self.engine)
            backup.daily(self.path, self.today())
        except Exception as fault:
            print(f"The data could not be copied: {storage_fault(fault) or fault}", file=sys.stderr, flush=True)
        try:
            self.tidy()
        except Exception as fault:
            print(f"Old bakes could not be tidied: {storage_fault(fault) or fault}", file=sys.stderr, flush=True)


def serve(
    directory: Path, host: str, port: int, names: frozenset[str], *, demo: bool, compiles: bool, fresh: bool
) -> int:
    """Serve until the process is told to stop; the exit code. Every fault of the start is one line."""
    import logging

    import waitress

    logging.getLogger("waitress.queue").setLevel(logging.ERROR)  # it tells of every request that waits for a moment
    try:
        sock = listening(host, port)
    except CannotOpen as fault:
        print(fault, file=sys.stderr)
        return 1
    switch = Switch()
    signal.signal(signal.SIGTERM, _stop)
    state: dict[str, Any] = {}
    starting = threading.Thread(
        target=_start,
        args=(switch, directory, names, state),
        kwargs={"demo": demo, "compiles": compiles, "fresh": fresh},
        name="start",
        daemon=True,
    )
    starting.start()
    shown = f"[{host}]" if ":" in host else host
    print(f"Brass Clock is at http://{shown}:{port}/  (stop with Ctrl-C)", flush=True)
    try:
        waitress.serve(
            switch,
            sockets=[sock],
            threads=THREADS,
            connection_limit=CONNECTIONS,
            channel_timeout=IDLE_S,
            cleanup_interval=5,
            asyncore_use_poll=True,
            max_request_body_size=MOST_BODY,
            _quiet=True,
            clear_untrusted_proxy_headers=True,
        )
    finally:
        if "keeping" in state:
            state["keeping"].ended.set()
        if "engine" in state and (directory / FILE_NAME).exists():
            close_store(state["engine"])
    return 1 if "fault" in state else 0


def _stop(*_: Any) -> None:
    raise SystemExit(0)


def _start(
    switch: Switch,
    directory: Path,
    names: frozenset[str],
    state: dict[str, Any],
    *,
    demo: bool,
    compiles: bool,
    fresh: bool,
) -> None:
    """Bring the application up behind its port; a fault is told on the terminal and on the page."""
    try:
        state["lock"] = hold(directory)
        if compiles and demo:  # its nights are computed one after the other: quicker once that is compiled
            _warming(switch, first=True).join()
        from brassclock.api.app import create_app
        from brassclock.services.app import App
        from brassclock.services.bake.ending import fill_ended, put_away
        from brassclock.store.engine import open_store

        state["engine"] = open_store(directory, fresh=fresh)
        app = App(state["engine"], with_demo=demo)
        if demo:
            from brassclock.demo.canteen import ensure_demo

            switch.tell("Brass Clock is starting", "The demo kitchen is being made: a few seconds.", waits=True)
            ensure_demo(app)
        flask_app = create_app(app, names)
        path = directory / FILE_NAME

        def gone() -> None:
            words = (
                f"The data folder {directory} was removed or moved while Brass Clock ran. Nothing more is "
                "taken. Put it back and start again."
            )
            print(words, file=sys.stderr, flush=True)
            switch.tell("The data is gone", words, waits=False)

        state["keeping"] = Housekeeping(state["engine"], path, gone, tidy=lambda: (fill_ended(app), put_away(app)))
        state["keeping"].start()
        gc.freeze()
        switch.put(flask_app)
        if compiles and not demo:  # once it answers: loading the compiler would hold up the first answer
            _warming(switch, first=False)
    except CannotOpen as fault:
        state["fault"] = fault
        print(fault, file=sys.stderr, flush=True)
        switch.tell("Brass Clock cannot start", str(fault), waits=False)
    except Exception as fault:
        state["fault"] = fault
        told = storage_fault(fault)
        words = told or f"{type(fault).__name__}: {fault}"
        print(f"Brass Clock cannot start. {words}", file=sys.stderr, flush=True)
        switch.tell("Brass Clock cannot start", words, waits=False)
        if told is None:
            raise
    finally:
        gc.enable()


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
