"""Load on a server of this machine: taps, polls and edits by many clients, bounded in number and time. Used by `make
bench`."""

from __future__ import annotations

import http.client
import json
import random
import statistics
import threading
import time
from dataclasses import dataclass, field
from typing import Any

from serving import Server


@dataclass
class Asked:
    """Times of answers [ms], and faults."""

    took_ms: list[float] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)

    def quantile(self, share: float) -> float:
        """The time that so many of the answers keep within [ms]."""
        ordered = sorted(self.took_ms)
        return ordered[min(int(len(ordered) * share), len(ordered) - 1)] if ordered else float("nan")

    def __str__(self) -> str:
        return (
            f"p50 {statistics.median(self.took_ms):.0f}, p95 {self.quantile(0.95):.0f}, p99 "
            f"{self.quantile(0.99):.0f} ms, {len(self.took_ms)} asked, {len(self.faults)} faults"
        )


class Client:
    """One connection that is kept open, as a tablet keeps it."""

    def __init__(self, server: Server) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", server.port, timeout=60)

    def ask(
        self, method: str, path: str, body: Any = None, headers: dict[str, str] | None = None
    ) -> tuple[int, Any, dict[str, str]]:
        """(status, what was answered, headers)."""
        sent = {"Content-Type": "application/json", **(headers or {})}
        self.connection.request(method, path, None if body is None else json.dumps(body), sent)
        answer = self.connection.getresponse()
        raw = answer.read()
        told = {k.lower(): v for k, v in answer.getheaders()}
        found = json.loads(raw) if raw and "json" in told.get("content-type", "") else None
        return answer.status, found, told


def kitchen_with_lines(server: Server, lines: int, breads: int, spots: int = 4) -> list[int]:
    """A kitchen whose bakes are all ready for the heat; their ids."""
    client = Client(server)
    plate = {"name": "Plates", "kind": "iron_plate", "temp_c": 240, "spots": spots}
    ids = []
    kitchen = 0
    for n in range(lines):
        if n % 20 == 0:
            kitchen = client.ask("POST", "/api/kitchens", {"zone": "UTC", "room_c": 22, "surface": plate})[1]["id"]
        made = client.ask("POST", "/api/bakes", {"kitchen_id": kitchen, "serve": "in 5 h"})[1]["id"]
        client.ask("PATCH", f"/api/bakes/{made}", {"count": breads})
        client.ask(
            "POST", f"/api/bakes/{made}/taps", {"key": f"first-{made:05}", "kind": "load", "round_no": 1, "spot": 1}
        )
        ids.append(made)
    return ids


def play(server: Server, bakes: list[int], seconds: float, pause_s: float) -> tuple[Asked, Asked]:
    """(taps, polls) of one cook for each bake, who begin one after the other, press what is due, rest about `pause_s`
    (half to one and a half times: cooks who rest alike would stay in the queue that one slow moment makes of them), and
    poll as the page does."""
    taps, polls, began_all = Asked(), Asked(), threading.Barrier(len(bakes))

    def cook(bake: int) -> None:
        client, number, tag, own = Client(server), 0, "", random.Random(bake)
        hearth = client.ask("GET", f"/api/bakes/{bake}/hearth")[1]
        began_all.wait(60)  # every cook has the line on the screen before the first presses
        until = time.monotonic() + seconds
        time.sleep(pause_s * bakes.index(bake) / len(bakes))
        while time.monotonic() < until and hearth["due"]:
            due = hearth["due"][0]
            number += 1
            body = {
                "key": f"b{bake}-{number:05}",
                "kind": due["move"],
                "round_no": due["round_no"],
                "spot": due["spot"],
            }
            began = time.perf_counter()
            status, told, headers = client.ask("POST", f"/api/bakes/{bake}/taps", body)
            taps.took_ms.append(1e3 * (time.perf_counter() - began))
            if status == 201:
                hearth, tag = told, headers.get("etag", "")
            else:
                taps.faults.append(f"{status} {told}")
                hearth = client.ask("GET", f"/api/bakes/{bake}/hearth")[1]
            time.sleep(pause_s * own.uniform(0.5, 1.5))
            began = time.perf_counter()
            status, told, headers = client.ask(
                "GET", f"/api/bakes/{bake}/hearth", headers={"If-None-Match": tag} if tag else None
            )
            polls.took_ms.append(1e3 * (time.perf_counter() - began))
            tag = headers.get("etag", "")
            if status >= 400:
                polls.faults.append(f"{status} {told}")

    threads = [threading.Thread(target=cook, args=(b,)) for b in bakes]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    return taps, polls


def edits(server: Server, kitchen: int, bakes: list[int], writers: int, seconds: float) -> Asked:
    """Writers that change the bakes of one kitchen as fast as they are answered."""
    asked, until = Asked(), time.monotonic() + seconds

    def writer(who: int) -> None:
        client, n = Client(server), 0
        while time.monotonic() < until:
            n += 1
            body = {"note": f"{who}-{n}"} if n % 2 else {"skin_min": n % 20}
            began = time.perf_counter()
            status, told, _ = client.ask("PATCH", f"/api/bakes/{bakes[(who + n) % len(bakes)]}", body)
            asked.took_ms.append(1e3 * (time.perf_counter() - began))
            if status != 200:
                asked.faults.append(f"{status} {told}")

    threads = [threading.Thread(target=writer, args=(k,)) for k in range(writers)]
    for t in threads:
        t.start()
    for t in threads:
        t.join()
    return asked
