"""The bench of the house: the hearth beside the dearest questions, a restore, an idle server's share of a core, a start
over five years of bakes. Part of `make bench`.

The named reference of the hearth is the same hearth with nobody else asking, in the same run.
"""

from __future__ import annotations

import shutil
import statistics
import sys
import threading
import time
from pathlib import Path
from typing import Any

from bench_server import _keep, folder, memory
from load import Asked, Client, kitchen_with_lines, play
from serving import Server

SECONDS = 20.0
LOOKS_S = 0.25  # between two looks at a hearth
IDLE_S = 60.0
FIVE_YEARS = 5000
DEAR: list[tuple[str, str, str, Any]] = [
    ("the best line of 120", "GET", "/api/bakes/1/line", None),
    ("fire what-ifs", "GET", "/api/bakes/1/fire-ifs", None),
    ("a day of eight", "POST", "/api/compute/day", "day"),
    ("twelve bakes together", "GET", "/api/kitchens/2/day/together", None),
    ("a kitchen's air changed under its bakes", "PATCH", "/api/kitchens/2", {"hourly_c": [19.0] * 24}),
]


def _hearth(server: Server, bake: int, seconds: float) -> Asked:
    """Looks at a hearth as a page makes them, each computed: no tag is sent."""
    asked, client, until = Asked(), Client(server), time.monotonic() + seconds
    while time.monotonic() < until:
        began = time.perf_counter()
        status, _, _ = client.ask("GET", f"/api/bakes/{bake}/hearth")
        asked.took_ms.append(1e3 * (time.perf_counter() - began))
        if status != 200:
            asked.faults.append(str(status))
        time.sleep(LOOKS_S)
    return asked


def beside() -> None:
    """A live hearth's answers while a dear question is asked again and again."""
    with Server(folder(), demo=False, options=()) as server:
        server.wait_compiled()
        live = kitchen_with_lines(server, 1, 24)[0]
        client = Client(server)
        client.ask("PATCH", "/api/bakes/1", {"count": 120})
        plate = {"name": "Plates", "kind": "iron_plate", "temp_c": 240, "spots": 4}
        client.ask("POST", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": plate})
        for n in range(12):
            client.ask("POST", "/api/bakes", {"kitchen_id": 2, "serve": f"in {6 + 3 * n} h"})
        at = time.strftime("%Y-%m-%dT%H:%M:00Z", time.gmtime(time.time() + 30 * 3600))
        day = {"serve_at": at, "bakes": [{"name": str(n), "method": "hatch-pita"} for n in range(8)]}
        time.sleep(12)  # the process for long questions is up
        alone = _hearth(server, live, SECONDS / 2)
        print(f"hearth, nobody else asks                    {alone}")
        for words, method, path, body in DEAR:
            ended, took = threading.Event(), list[float]()

            def ask(
                method: str = method, path: str = path, body: Any = body, ended: Any = ended, took: Any = took
            ) -> None:
                mine = Client(server)
                while not ended.is_set():
                    began = time.perf_counter()
                    mine.ask(method, path, day if body == "day" else body)
                    took.append(time.perf_counter() - began)

            asker = threading.Thread(target=ask)
            asker.start()
            seen = _hearth(server, live, SECONDS)
            ended.set()
            asker.join()
            ratio = seen.quantile(0.95) / alone.quantile(0.95)
            print(
                f"hearth, beside {words:<40} {seen}   p95 {ratio:.1f} x alone (aim: p95 150 ms); one {max(took):.2f} s"
            )


def fifty(seconds: float, breads: int = 120, pause_s: float = 1.0) -> None:
    """Fifty cooks, a press each about `pause_s` (a second is faster than hands are: a move takes five to ten), polls
    between: none lost, none doubled."""
    with Server(folder(), demo=False) as server:
        server.wait_compiled()
        bakes = kitchen_with_lines(server, 50, breads)
        pressed, polled = play(server, bakes, seconds, pause_s)
        client = Client(server)
        stored = keys = 0
        for bake in bakes:
            found = [t["key"] for t in client.ask("GET", f"/api/bakes/{bake}/hearth")[1]["taps"]]
            stored, keys = stored + len(found), keys + len(set(found))
        sent = len(pressed.took_ms) - len(pressed.faults) + len(bakes)
        told = f"50 cooks, {breads} breads each, a press in {pause_s:g} s, for {seconds:.0f} s"
        print(f"{told}   {pressed}   (aim: p95 150 ms)")
        print(f"  polls between                             {polled}")
        print(f"  taps answered {sent}, stored {stored}, of different keys {keys}")


def idle() -> None:
    """One tablet on a live hearth, polling as the page does: the server's share of a core."""
    with Server(folder(), demo=False, options=()) as server:
        server.wait_compiled()
        live = kitchen_with_lines(server, 1, 24)[0]
        time.sleep(15)
        client, tag = Client(server), ""
        began, used = time.monotonic(), _cpu_s(server)
        n = 0
        while time.monotonic() - began < IDLE_S:
            _, _, headers = client.ask(
                "GET", f"/api/bakes/{live}/hearth", headers={"If-None-Match": tag} if tag else None
            )
            tag = headers.get("etag", "")
            if n % 16 == 0:
                client.ask("GET", "/api/kitchens/1/bench")
            n += 1
            time.sleep(0.9)
        share = (_cpu_s(server) - used) / (time.monotonic() - began)
        print(f"idle with one tablet on a hearth            {100 * share:.1f} % of a core (aim: under 3)")


def _cpu_s(server: Server) -> float:
    """Seconds of a core that the server and its processes have used."""
    import os

    assert server.process is not None
    parents = {server.process.pid}
    total = 0.0
    for found in Path("/proc").glob("[0-9]*/stat"):
        try:
            rest = found.read_text().rpartition(")")[2].split()
        except OSError:
            continue
        if int(found.parent.name) in parents or int(rest[1]) in parents:
            total += (int(rest[11]) + int(rest[12])) / os.sysconf("SC_CLK_TCK")
    return total


def five_years() -> None:
    """A start over 5,000 bakes, and a restore of them, beside one over none."""
    took, back = [], []
    for kept in (5, FIVE_YEARS):
        data = folder()
        with Server(data, demo=False) as server:
            kitchen_with_lines(server, 2, 8)
            _keep(data, kept)
        for _ in range(3):
            began = time.perf_counter()
            with Server(data, demo=False) as server:
                client = Client(server)
                while client.ask("GET", "/api/kitchens/1/bench")[0] != 200:
                    time.sleep(0.01)
                took.append(time.perf_counter() - began)
        with Server(data, demo=False) as server:
            client = Client(server)
            name = client.ask("POST", "/api/backups", {})[1]["name"]
            began = time.perf_counter()
            client.ask("POST", f"/api/backups/{name}/restore", {})
            time.sleep(0.7)
            while Client(server).ask("GET", "/api/kitchens/1/bench")[0] != 200:
                time.sleep(0.02)
            back.append(time.perf_counter() - began)
        shutil.rmtree(data)
    small, large = statistics.median(took[:3]), statistics.median(took[3:])
    print(
        f"start to the Bench, 5 bakes and {FIVE_YEARS}        {small:.2f} and {large:.2f} s, {large / small:.2f} x "
        "(aim: 1.5 s)"
    )
    print(f"a restore, 5 bakes and {FIVE_YEARS}                 {back[0]:.1f} and {back[1]:.1f} s (aim: a minute)")


def with_instruments(minutes: float) -> None:
    """Memory of the demo at sixty times, with its stand-in and the process aside."""
    memory(minutes, ("--demo",))


def main() -> None:
    """Every part, or those that are named; `fifty` takes seconds, breads and seconds between presses and `memory`
    minutes after a colon, as fifty:300:24:4."""
    parts: dict[str, Any] = {"beside": beside, "idle": idle, "five_years": five_years}
    spans: dict[str, Any] = {"fifty": fifty, "memory": with_instruments}
    for told in sys.argv[1:] or [*parts, "fifty:60:120", "fifty:60:24"]:
        name, *figures = told.split(":")
        if name in spans:
            spans[name](*(int(figure) for figure in figures or ["10"]))
        else:
            parts[name]()


if __name__ == "__main__":
    main()
