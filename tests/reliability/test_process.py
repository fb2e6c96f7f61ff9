"""The server as a process: what it says when it cannot start, and what is there after a kill, a stop, a restore."""

from __future__ import annotations

import contextlib
import datetime as dt
import http.client
import json
import os
import random
import shutil
import signal
import socket
import sqlite3
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from sqlmodel import Session, SQLModel, select
from werkzeug.test import Client

from brassclock.api.front import HOSTS, pages_app
from brassclock.housekeeping import Housekeeping
from brassclock.serving import Switch
from brassclock.store import backup
from brassclock.store.columns import Instant
from brassclock.store.engine import FILE_NAME, close_store, newest_revision, open_store
from brassclock.store.faults import CannotOpen, storage_fault
from brassclock.store.tables import Kitchen
from serving import Server, free_port

CLI = [sys.executable, "-m", "brassclock.cli"]
KITCHEN = {"zone": "UTC", "room_c": 22, "surface": {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 12}}


def cli(*args: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*CLI, *args], capture_output=True, text=True, timeout=60)


def store_of(tmp_path: Path) -> Path:
    engine = open_store(tmp_path)
    with Session(engine) as session:
        session.add(Kitchen(name="kept", hourly_c=[20.0] * 24, created_at=dt.datetime.now(dt.UTC)))
        session.commit()
    close_store(engine)
    return tmp_path / FILE_NAME


def no_database(path: Path) -> None:
    path.write_bytes(b"flour " * 4000)


def damaged(path: Path) -> None:
    whole = bytearray(path.read_bytes())
    whole[8192:12288] = b"\xff" * 4096
    path.write_bytes(whole)


def newer(path: Path) -> None:
    with sqlite3.connect(path) as raw:
        raw.execute("update alembic_version set version_num = '9001'")


def emptied(path: Path) -> None:
    backup.daily(path, dt.date(2026, 1, 1))
    path.write_bytes(b"")


def missing(path: Path) -> None:
    path.with_name(path.name + "-wal").write_bytes(b"x" * 100)
    path.unlink()


FAULTS: list[tuple[Callable[[Path], None], str]] = [
    (no_database, "is not a database. Move it away, and bring back a backup"),
    (damaged, "is damaged"),
    (newer, "made by a newer version"),
    (emptied, "is empty, but there are 2 backups"),
    (missing, "is missing, but there are changes that were not written back"),
]


@pytest.mark.parametrize(("spoil", "words"), FAULTS, ids=[f.__name__ for f, _ in FAULTS])
def test_data_that_cannot_be_opened_is_told_in_one_line(
    tmp_path: Path, spoil: Callable[[Path], None], words: str
) -> None:
    path = store_of(tmp_path)
    spoil(path)
    with pytest.raises(CannotOpen) as told:
        open_store(tmp_path)
    assert words in str(told.value) and "\n" not in str(told.value)


def test_faults_of_disk_and_folder_have_words(tmp_path: Path) -> None:
    full = sqlite3.OperationalError("database or disk is full")
    full.sqlite_errorcode = sqlite3.SQLITE_FULL
    wrapped = RuntimeError("flush")
    wrapped.__cause__ = full
    assert "disk is full" in str(storage_fault(wrapped))
    assert "may not be read or written" in str(storage_fault(PermissionError(13, "x")))
    assert storage_fault(ValueError("x")) is None
    (tmp_path / "file").write_text("x")
    with pytest.raises(CannotOpen, match="A file stands where"):
        open_store(tmp_path / "file" / "data")


def test_a_fault_of_the_start_is_a_line_and_a_page(tmp_path: Path) -> None:
    no_database(store_of(tmp_path))
    port = free_port()
    process = subprocess.Popen(
        [*CLI, "serve", "--port", str(port), "--data", str(tmp_path)],
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
    )
    try:
        page = ""
        for _ in range(200):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port}/", timeout=5)
            except urllib.error.HTTPError as fault:
                page = fault.read().decode()
                if "not a database" in page:
                    break
            except OSError:
                pass
            time.sleep(0.1)
        assert "<h1>Brass Clock cannot start</h1>" in page and "brass-clock restore" in page
        again = cli("serve", "--port", str(port), "--data", str(tmp_path / "other"))
        assert (again.returncode, "is taken by another program" in again.stderr, again.stdout) == (1, True, "")
    finally:
        process.send_signal(signal.SIGTERM)
        _, told = process.communicate(timeout=20)
    assert process.returncode == 1
    assert len([x for x in told.splitlines() if "not a database" in x]) == 1 and "Traceback" not in told
    assert cli("serve", "--port", "99999").returncode == 2


def test_the_pages_are_there_while_the_application_is_brought_up() -> None:
    switch = Switch(pages_app(HOSTS))
    tablet = Client(switch)
    page = tablet.get("/b/3/fire")
    assert page.status_code == 200 and 'id="root"' in page.text and "nonce-" in page.headers["Content-Security-Policy"]
    assert tablet.get("/", base_url="http://elsewhere.example").status_code == 421
    with ThreadPoolExecutor(1) as pool:
        asked = pool.submit(tablet.get, "/api/kitchens")
        switch.put(lambda environ, start: (start("200 OK", []), [b"the application"])[1])
        assert asked.result(3).text == "the application"
    switch.tell("Brass Clock is starting", "The demo kitchen is being made.", waits=True)
    assert tablet.get("/").status_code == 200
    switch.tell("The data is gone", "It was <moved>.", waits=False)
    page, answer = tablet.get("/"), tablet.get("/api/kitchens")
    assert page.status_code == answer.status_code == 503 and "It was &lt;moved&gt;." in page.text
    assert answer.json is not None and answer.json["detail"] == "It was <moved>."


def test_after_a_clean_stop_the_file_alone_is_the_data_and_a_backup_brings_it_back(tmp_path: Path) -> None:
    with Server(tmp_path, demo=False) as server:
        server.send("POST", "/api/kitchens", KITCHEN)
        saved = cli("backup", "--data", str(tmp_path))
        assert saved.returncode == 0
        assert cli("restore", saved.stdout.strip(), "--data", str(tmp_path)).stderr.startswith(
            "Another Brass Clock uses"
        )
        server.send("PATCH", "/api/kitchens/1", {"name": "Later"})
        assert server.process is not None
        server.process.send_signal(signal.SIGTERM)
        assert server.process.wait(20) == 0
        server.process = None
    left = {p.name for p in tmp_path.iterdir()}
    assert left <= {FILE_NAME, "in-use.lock", "backups"}
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        assert raw.execute("select name from kitchen").fetchall() == [("Later",)]
    back = cli("restore", saved.stdout.strip(), "--data", str(tmp_path))
    assert (back.returncode, "is kept as" in back.stdout) == (0, True), back.stderr
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        assert raw.execute("select name from kitchen").fetchall() == [("My kitchen",)]


def test_two_copies_within_a_second_do_not_take_each_others_place(tmp_path: Path) -> None:
    """A restore keeps what was there under a name of its own, not under the one that it restores."""
    close_store(open_store(tmp_path))
    source, names = tmp_path / FILE_NAME, set()
    for _ in range(4):
        names.add(backup.save(source, backup.fresh(tmp_path)))
    assert len(names) == 4
    for chosen in sorted(names):
        was = chosen.read_bytes()
        kept = backup.restore(chosen, source)
        assert kept not in names and source.read_bytes() == was == chosen.read_bytes()


def test_a_copy_a_day_and_one_a_week_are_kept(tmp_path: Path) -> None:
    path = store_of(tmp_path)
    engine = open_store(tmp_path)
    days = iter(dt.date(2026, 1, 1) + dt.timedelta(days=n // 2) for n in range(20))
    keeping = Housekeeping(engine, path, lambda: None, lambda: next(days))
    for n in range(20):
        keeping.once()
        for made in (tmp_path / "backups").glob(f"daily-*{n // 2 + 1:02d}.sqlite3"):
            os.utime(made, (n, n))
    kept = sorted(p.name for p in (tmp_path / "backups").iterdir())
    weeks = [f"weekly-2026-W{w:02d}.sqlite3" for w in (1, 2)]
    assert kept == [*(f"daily-2026-01-{d:02d}.sqlite3" for d in range(4, 11)), *weeks]
    assert {oct(p.stat().st_mode & 0o777) for p in (tmp_path / "backups").iterdir()} == {"0o600"}
    assert backup.check(tmp_path / "backups" / kept[0]) == newest_revision()
    close_store(engine)


def test_data_that_is_removed_while_it_is_used_is_taken_no_more(tmp_path: Path) -> None:
    with Server(tmp_path / "data", demo=False) as server:
        server.send("POST", "/api/kitchens", KITCHEN)
        shutil.rmtree(tmp_path / "data")
        with pytest.raises(urllib.error.HTTPError) as refused:
            server.send("PATCH", "/api/kitchens/1", {"name": "Into nothing"})
        assert refused.value.code in (503, 507)
        assert "removed or moved" in json.load(refused.value)["detail"]


def test_idle_connections_hold_up_nobody(tmp_path: Path) -> None:
    """A hundred and fifty sockets that say nothing, or half a header: the others are answered."""
    with Server(tmp_path, demo=False) as server:
        idle = [socket.create_connection(("127.0.0.1", server.port)) for _ in range(150)]
        for s in idle[::2]:
            s.sendall(b"GET / HTTP/1.1\r\nHost: 127")
        assert server.get("/api/health")["ok"]
        for s in idle:
            s.close()


ROUNDS = int(os.environ.get("KILLS", "6"))  # the figure of docs/performance.md is of 200


def test_a_kill_loses_nothing_that_was_answered(tmp_path: Path) -> None:
    """Killed in the midst of writes, again and again: each answered write is there, none is there by half."""
    server, seen = Server(tmp_path, demo=False), random.Random(7)
    answered: dict[int, str] = {}
    server.start()
    server.send("POST", "/api/kitchens", KITCHEN)
    for n in range(ROUNDS):
        stop = threading.Event()

        def write(n: int = n, stop: threading.Event = stop) -> None:
            for k in range(10_000):
                if stop.is_set():
                    return
                number = n * 10_000 + k
                try:
                    made = server.send("POST", "/api/kitchens/1/starters", {"name": f"s-{number}"})
                    answered[number] = made["name"]
                except (OSError, ValueError, http.client.HTTPException):
                    return

        writer = threading.Thread(target=write)
        writer.start()
        time.sleep(seen.uniform(0.05, 0.4))
        server.kill()
        stop.set()
        writer.join()
        server.start()
    names = {s["name"] for s in server.get("/api/kitchens/1/starters")["starters"]}
    server.kill()
    lost = {n for n, name in answered.items() if name not in names}
    print(f"{ROUNDS} kills, {len(answered)} answered writes, {len(lost)} lost")
    assert answered and lost == set()
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        assert raw.execute("pragma integrity_check").fetchone() == ("ok",)
        assert raw.execute("select count(*) from starter where name not like 's-%'").fetchone() == (0,)


def test_a_kill_in_a_migration_leaves_the_old_data_or_the_new(tmp_path: Path) -> None:
    """From every third of the earlier schemas and the last, killed at some moment of the upgrade: the next start has
    every row."""
    from alembic import command
    from sqlmodel import create_engine

    from brassclock.store.engine import alembic_config

    earlier = range(1, int(newest_revision()))
    for revision in [f"{n:04d}" for n in (*earlier[:-1:3], earlier[-1])]:
        folder = tmp_path / revision
        folder.mkdir()
        old = create_engine(f"sqlite:///{folder / FILE_NAME}")
        command.upgrade(alembic_config(old), revision)
        filled = _fill(old)
        old.dispose()
        code = (
            "from pathlib import Path; from brassclock.store.engine import open_store; "
            f"open_store(Path({str(folder)!r}))"
        )
        process = subprocess.Popen([sys.executable, "-c", code])
        time.sleep(0.9 + 0.15 * (int(revision) % 6))
        process.kill()
        process.wait()
        with Session(open_store(folder)) as session:
            assert [k.name for k in session.exec(select(Kitchen))] == ["kept"], revision
            for table in SQLModel.metadata.tables.values():
                if table.name in filled:
                    assert len(session.execute(table.select()).all()) == 1, (revision, table.name)
        assert {"kitchen", "surface", "bake", "tap", "reading", "outcome", "said"} <= filled


def _fill(engine: Any) -> set[str]:
    """A row in every table of a schema, whatever its columns: text, numbers and JSON by their names. Which tables there
    are."""
    at = "2026-01-01T00:00:00.000000+00:00"
    special = {
        "zone": "UTC",
        "name": "kept",
        "method": "hatch-pita",
        "kind": "mix",
        "status": "live",
        "hourly_c": json.dumps([20.0] * 24),
        "key": "k-0000001",
    }
    lists = ("lines", "unread", "weighed", "additions", "spells")

    def text_of(table: str, name: str) -> str:
        known = SQLModel.metadata.tables.get(table)
        instant = known is not None and name in known.columns and isinstance(known.columns[name].type, Instant)
        return special.get(name) or (at if instant else "[]" if name in lists else "{}")

    with engine.begin() as c:
        found = c.exec_driver_sql("select name from sqlite_master where type = 'table' and name not like 'sqlite_%'")
        tables = {name for (name,) in found.fetchall() if not name.startswith("past_text")} - {"alembic_version"}
        for table in sorted(tables):
            values: dict[str, Any] = {}
            for _, name, kind, notnull, default, key in c.exec_driver_sql(f"pragma table_info({table})").fetchall():
                if name == "surface" and table == "bake":
                    values[name] = None
                elif name.endswith("_id") or (key and kind != "TEXT"):
                    values[name] = 1
                elif key or (notnull and default is None):
                    values[name] = text_of(table, name) if kind == "TEXT" else b"" if kind == "BLOB" else 1
            c.exec_driver_sql(
                f"insert into {table} ({', '.join(values)}) values ({', '.join('?' * len(values))})",
                tuple(values.values()),
            )
    return tables


@pytest.fixture
def small_disk(tmp_path: Path) -> Iterator[Path]:
    """A disk of 12 MB."""
    at = tmp_path / "small"
    at.mkdir()
    if subprocess.run(["mount", "-t", "tmpfs", "-o", "size=12m", "tmpfs", str(at)], capture_output=True).returncode:
        pytest.skip("no disk can be mounted here: it takes root")
    yield at
    subprocess.run(["umount", "-l", str(at)], check=True)


def refusal(server: Server, bake: int) -> urllib.error.HTTPError:
    """The answer once nothing more can be stored: the journal may have room for a few writes yet."""
    for n in range(60):
        try:
            server.send("PATCH", f"/api/bakes/{bake}", {"note": f"{n} {'x' * 19_000}"})
        except urllib.error.HTTPError as fault:
            return fault
    raise AssertionError("the disk was never full")


def test_a_full_disk_is_met_and_recovered(small_disk: Path) -> None:
    """In the middle of a line the disk is full: the press is told so, what was there is shown on, and once there is
    room the same press is taken."""
    with Server(small_disk / "data", demo=False) as server:
        server.send("POST", "/api/kitchens", KITCHEN)
        bake = server.send("POST", "/api/bakes", {"kitchen_id": 1, "serve": "in 9 h"})["id"]
        server.send("PATCH", f"/api/bakes/{bake}", {"surface_id": 1})
        tap = {"kind": "load", "round_no": 1, "spot": 1, "key": "load-0001"}
        server.send("POST", f"/api/bakes/{bake}/taps", tap)
        filler = small_disk / "filler"
        with pytest.raises(OSError, match="No space left"), filler.open("wb", buffering=0) as file:
            while True:
                file.write(b"x" * 4096)
        told = refusal(server, bake)
        assert told.code == 507 and "The disk is full. Make room on it" in json.load(told)["detail"]
        later = tap | {"round_no": 2, "spot": 2, "key": "load-0002"}
        with pytest.raises(urllib.error.HTTPError, match="507"):
            server.send("POST", f"/api/bakes/{bake}/taps", later)
        assert [t["key"] for t in server.get(f"/api/bakes/{bake}/hearth")["taps"]] == ["load-0001"]
        filler.unlink()
        after = server.send("POST", f"/api/bakes/{bake}/taps", later)
        assert [t["key"] for t in after["taps"]] == ["load-0001", "load-0002"]
        server.kill()
        server.start()
        assert server.get(f"/api/bakes/{bake}/hearth")["taps"] == after["taps"]


def children(pid: int, within_s: float = 30) -> list[int]:
    """The processes that a process has started, once it has."""
    until = time.monotonic() + within_s
    while time.monotonic() < until:
        mine = [int(p) for path in Path(f"/proc/{pid}/task").iterdir() for p in (path / "children").read_text().split()]
        if len(mine) >= 2:  # the process itself, and the one that looks after its locks
            return mine
        time.sleep(0.1)
    raise AssertionError("no process was started")


@pytest.mark.parametrize("how", [signal.SIGKILL, signal.SIGTERM])
def test_the_process_for_long_questions_ends_with_the_server(tmp_path: Path, how: signal.Signals) -> None:
    """Killed in the midst of a question, or stopped: nothing of it is left running."""
    with Server(tmp_path, demo=False, options=()) as server:
        server.send("POST", "/api/kitchens", KITCHEN)
        bake = server.send("POST", "/api/bakes", {"kitchen_id": 1, "serve": "in 9 h"})["id"]

        def ask() -> None:
            with contextlib.suppress(OSError):
                server.get(f"/api/bakes/{bake}/line")

        asking = threading.Thread(target=ask)
        asking.start()
        assert server.process is not None
        mine = children(server.process.pid)
        server.process.send_signal(how)
        server.process.wait(60)  # it is patient with what is being asked
        asking.join(30)
        until = time.monotonic() + 20
        while any(Path(f"/proc/{pid}").exists() for pid in mine) and time.monotonic() < until:
            time.sleep(0.2)
        assert [pid for pid in mine if Path(f"/proc/{pid}").exists()] == []
