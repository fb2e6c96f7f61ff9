"""The server under load: latencies of taps, polls and edits, the write lock, the dearest requests, start and memory.
Part of `make bench`.

The named reference of each row is the same question asked by one client in the same run.
"""

from __future__ import annotations

import datetime as dt
import http.client
import json
import signal
import statistics
import subprocess
import sys
import tempfile
import time
from pathlib import Path
from typing import Any

from sqlmodel import Session

from brassclock.store.engine import close_store, open_store
from brassclock.store.tables import Bake
from load import Asked, Client, edits, kitchen_with_lines, play
from serving import Server, free_port

SECONDS = 12.0
HISTORIES = (5, 5000)


def folder() -> Path:
    return Path(tempfile.mkdtemp(prefix="bench-"))


def taps() -> None:
    """Cooks that press at once when they are answered, each on a line of its own; polls between."""
    one: Asked | None = None
    for clients, breads, pause, aim in (
        (1, 24, 0.0, ""),
        (20, 24, 0.0, "without a pause (aim: p95 150 ms)"),
        (50, 24, 0.0, "without a pause (aim: p95 400 ms)"),
        (20, 24, 1.0, "a press a second"),
        (50, 24, 1.0, "a press a second"),
        (1, 120, 0.0, ""),
        (20, 120, 2.0, "a press in two seconds"),
    ):
        with Server(folder(), demo=False) as server:
            server.wait_compiled()
            pressed, polled = play(server, kitchen_with_lines(server, clients, breads), SECONDS, pause)
        one = one or pressed
        ratio = statistics.median(pressed.took_ms) / statistics.median(one.took_ms)
        print(
            f"taps, {clients:2d} cooks, lines of {breads:3d}, pause {pause:.0f} s   {pressed}   {ratio:.1f} x one "
            f"cook   {aim}"
        )
        print(f"  polls between                        {polled}")


def writers() -> None:
    """Four and twelve writers on the bakes of one kitchen."""
    for count in (1, 4, 12):
        with Server(folder(), demo=False) as server:
            server.wait_compiled()
            bakes = kitchen_with_lines(server, 4, 8)
            asked = edits(server, 1, bakes, count, SECONDS)
            held = server.get("/api/health")["lock_ms"]
        print(
            f"edits, {count:2d} writers of one kitchen         {asked}   write lock held p95 {held['p95']:.1f}, "
            f"longest {held['most']:.1f} ms (aim: under 20)"
        )


def history() -> None:
    """The Bench with five kept bakes and with five thousand, one change between two polls."""
    took = []
    for kept in HISTORIES:
        data = folder()
        engine = open_store(data)
        close_store(engine)
        with Server(data, demo=False) as server:
            server.wait_compiled()
            kitchen_with_lines(server, 2, 8)
            _keep(data, kept)
            client, each = Client(server), []
            for n in range(24):
                client.ask("PATCH", "/api/bakes/1", {"note": str(n)})
                began = time.perf_counter()
                client.ask("GET", "/api/kitchens/1/bench")
                each.append(1e3 * (time.perf_counter() - began))
            news = client.ask("GET", "/api/kitchens/1/bench")[2]["etag"]
            silent = []
            for _ in range(40):
                began = time.perf_counter()
                client.ask("GET", "/api/kitchens/1/bench", headers={"If-None-Match": news})
                silent.append(1e3 * (time.perf_counter() - began))
            took.append(statistics.median(each))
        print(
            f"bench, {kept:5d} kept bakes                 {took[-1]:.1f} ms after a change, "
            f"{statistics.median(silent):.1f} ms without news (aim: under 2)"
        )
    print(f"  with {HISTORIES[1]} over with {HISTORIES[0]}               {took[1] / took[0]:.2f} (aim: 1.2 or less)")


def _keep(data: Path, count: int) -> None:
    engine = open_store(data)
    at = dt.datetime.now(dt.UTC)
    with Session(engine) as session:
        whole = session.get(Bake, 1)
        assert whole is not None
        facts = whole.model_dump(exclude={"id"})
        for n in range(count):
            session.add(
                Bake(
                    **{
                        **facts,
                        "status": "kept",
                        "kept_at": at,
                        "serve_at": at - dt.timedelta(hours=n),
                        "summary": {"count": 8},
                    }
                )
            )
        session.commit()
    engine.dispose()


def ask(port: int, path: str) -> int:
    """The status of an answer of this machine."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=5)
    connection.request("GET", path)
    return connection.getresponse().status


def start() -> None:
    """From the command to the page, and to the first answer of the application behind it."""
    data = folder()
    close_store(open_store(data))
    found = []
    for _ in range(5):
        port, began = free_port(), time.perf_counter()
        process = subprocess.Popen(
            [sys.executable, "-m", "brassclock.cli", "serve", "--port", str(port), "--data", str(data)],
            stdout=subprocess.DEVNULL,
        )
        page = answer = 0.0
        while not answer and time.perf_counter() - began < 60:
            try:
                if not page and ask(port, "/") == 200:
                    page = time.perf_counter() - began
                if page and ask(port, "/api/kitchens") == 200:
                    answer = time.perf_counter() - began
            except OSError:
                time.sleep(0.01)
        found.append((page, answer))
        process.send_signal(signal.SIGTERM)
        process.wait(20)
    to_page, to_answer = (statistics.median(x) for x in zip(*found, strict=True))
    began = time.perf_counter()
    subprocess.run([sys.executable, "-c", "import numpy, flask, sqlmodel"], check=True)
    libraries = time.perf_counter() - began
    print(
        f"start, to its page                       {to_page:.2f} s (aim: 0.6); to the first answer {to_answer:.2f} s, "
        f"{to_answer / libraries:.1f} x importing its libraries alone"
    )


DEAREST: list[tuple[str, str, str, Any]] = [
    ("a bake, computed", "GET", "/api/bakes/1", None),
    ("the best line of 120", "GET", "/api/bakes/1/line", None),
    ("fire what-ifs", "GET", "/api/bakes/1/fire-ifs", None),
    ("a rise what-if", "POST", "/api/bakes/2/whatif", {"room_k": 3}),
    ("named routes", "GET", "/api/bakes/2/routes", None),
    ("way out", "GET", "/api/bakes/2/way-out", None),
    ("other ways", "GET", "/api/bakes/2/others", None),
    ("twelve bakes together", "GET", "/api/kitchens/1/day/together", None),
    ("the bench of 24 live bakes", "GET", "/api/kitchens/1/bench", None),
    ("a kitchen's air changed under 24 live bakes", "PATCH", "/api/kitchens/1", {"hourly_c": [19.0] * 24}),
    ("a plan as a calendar", "GET", "/api/kitchens/1/plan/ics", None),
    ("compute day, eight bakes", "POST", "/api/compute/day", None),
    (
        "compute line of 500",
        "POST",
        "/api/compute/line",
        {
            "breads": 500,
            "cooks": 2,
            "spots": 6,
            "recover_s": 5,
            "ops": [
                {"name": "roll", "hands_s": 20, "then_min_s": 60, "then_max_s": 600},
                {"name": "load", "hands_s": 6, "takes_spot": True, "then_min_s": 40, "then_max_s": 50},
                {"name": "off", "hands_s": 5, "frees_spot": True, "then_min_s": 0, "then_max_s": 60},
            ],
        },
    ),
    ("a starter's upkeep", "GET", "/api/kitchens/1/starters", None),
]


def dearest() -> None:
    """The ten dearest requests there are, alone on a warm server with 24 live bakes, and how much memory all of them
    take."""
    with Server(folder(), demo=False) as server:
        server.wait_compiled()
        client = Client(server)
        plate = {"name": "Plates", "kind": "iron_plate", "temp_c": 240, "spots": 4}
        client.ask("POST", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": plate})
        for n in range(24):
            client.ask(
                "POST",
                "/api/bakes",
                {
                    "kitchen_id": 1,
                    "serve": f"in {6 + 3 * n} h",
                    "method": ("hatch-pita", "terrace-naan", "ridge-sour")[n % 3],
                },
            )
        client.ask("PATCH", "/api/bakes/1", {"count": 120})
        before, rows = _memory_mb(server), []
        at = (dt.datetime.now(dt.UTC) + dt.timedelta(hours=30)).isoformat()
        whole_day = {"serve_at": at, "bakes": [{"name": str(n), "method": "hatch-pita"} for n in range(8)]}
        for words, method, path, body in DEAREST:
            body = whole_day if path.endswith("/day") and method == "POST" else body
            if "together" in path:
                for n in range(13, 25):
                    client.ask("PUT", f"/api/bakes/{n}/status", {"status": "abandoned"})
            began = time.perf_counter()
            status, told, _ = client.ask(method, path, body)
            rows.append((time.perf_counter() - began, words, status, "" if status < 400 else json.dumps(told)[:90]))
        grown = _memory_mb(server) - before
    for took, words, status, told in sorted(rows, reverse=True)[:10]:
        print(f"dearest: {words:<45} {took:6.2f} s   {status} {told}   (aim: 2 s or less)")
    print(f"  memory over that of the server before    {grown:.0f} MB (aim: 300 or less)")


def _memory_mb(server: Server) -> float:
    assert server.process is not None
    status = Path(f"/proc/{server.process.pid}/status").read_text()
    return int(next(x for x in status.splitlines() if x.startswith("VmRSS")).split()[1]) / 1024


def memory(minutes: float = 10.0, options: tuple[str, ...] = ("--demo", "--no-instruments")) -> None:
    """The demo at sixty times real time, polled as a page polls: memory of the server in its second minute and in its
    last."""
    with Server(folder(), demo=False, options=options) as server:
        server.wait_compiled()
        client = Client(server)
        kitchen = client.ask("GET", "/api/kitchens")[1]["kitchens"][0]["id"]
        client.ask("POST", "/api/clock", {"kitchen_id": kitchen, "rate": 60})
        seen = []
        began = time.monotonic()
        while time.monotonic() - began < 60 * minutes:
            bench = client.ask("GET", f"/api/kitchens/{kitchen}/bench")[1]
            for bake in bench["bakes"][:4]:
                client.ask("GET", f"/api/bakes/{bake['id']}")
            seen.append((time.monotonic() - began, _memory_mb(server)))
            time.sleep(1)
    early = statistics.median(mb for s, mb in seen if 60 < s < 120)
    late = statistics.median(mb for s, mb in seen if s > 60 * (minutes - 1))
    told = f"{early:.0f} and {late:.0f} MB, {late / early:.3f} (aim: within 5 %)"
    print(f"memory at 60 x, after 1 and {minutes:.0f} min       {told}")


def main() -> None:
    for part in (start, history, writers, taps, dearest, memory):
        part()


if __name__ == "__main__":
    main()
