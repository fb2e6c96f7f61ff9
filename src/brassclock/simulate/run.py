"""The stand-in at work: it sends what its probes and its scale tell, stamped by the clock of its kitchen."""

from __future__ import annotations

import datetime as dt
import json
import sys
import time
import urllib.error
import urllib.request
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from brassclock.simulate.things import Probes, Scale

PATH = "/api/instruments/readings"
WAIT_S = 10.0
SCALE_EVERY_S, RESTS_EVERY_S = 0.4, 1.5
HELD = 500  # readings that wait while the server is gone


@dataclass
class KitchenClock:
    """The clock of the kitchen, as the last answer told it; until then the machine's own."""

    told: dt.datetime | None = None
    rate: float = 1.0
    at: float = 0.0

    def sync(self, clock: dict[str, Any]) -> None:
        self.told, self.rate, self.at = dt.datetime.fromisoformat(clock["now"]), clock["rate"], time.monotonic()

    def now(self) -> dt.datetime:
        if self.told is None:
            return dt.datetime.now(dt.UTC)
        return self.told + dt.timedelta(seconds=self.rate * (time.monotonic() - self.at))


@dataclass
class Sender:
    """Sends readings to a kitchen; what finds no server waits, and goes with the next. It counts what was taken."""

    url: str
    token: str
    clock: KitchenClock = field(default_factory=KitchenClock)
    waiting: list[dict[str, Any]] = field(default_factory=list)
    taken: int = 0
    refused: str | None = None
    wants_g: float | None = None

    def send(self, readings: list[dict[str, Any]]) -> None:
        """Send these after those that wait."""
        self.waiting = [*self.waiting, *readings][-HELD:]
        if not self.waiting:
            return
        body = json.dumps({"readings": self.waiting}).encode()
        headers = {"Content-Type": "application/json", "Authorization": f"Bearer {self.token}"}
        request = urllib.request.Request(self.url + PATH, body, headers)
        try:
            with urllib.request.urlopen(request, timeout=WAIT_S) as answer:
                told = json.load(answer)
        except urllib.error.HTTPError as fault:
            if fault.code in (429, 503):
                return
            self.refused = f"{fault.code}: {json.loads(fault.read() or b'{}').get('detail', fault.reason)}"
            self.waiting = []
            return
        except OSError:
            return
        self.waiting, self.refused = [], None
        self.taken += told["taken"]
        self.wants_g = told["wants_g"]
        self.clock.sync(told["clock"])


@dataclass
class Run:
    """A run of the stand-in: probes every so often, and a scale in between where one is wanted."""

    sender: Sender
    probes: Probes
    scale: Scale | None = None
    every_s: float = 10.0
    tell: Callable[[str], object] = print

    def go(self, for_s: float | None) -> None:
        """Send until `for_s` is over [s]; None: until the process is ended, or the token is refused."""
        sender, began = self.sender, time.monotonic()
        sender.send([{"channel": "scale", "value": 0.0, "unit": "g"}] if self.scale else [])
        start = sender.clock.now()
        next_probes = next_scale = last_scale = time.monotonic()
        while for_s is None or time.monotonic() - began < for_s:
            now = time.monotonic()
            batch: list[dict[str, Any]] = []
            at = sender.clock.now()
            if now >= next_probes:
                next_probes = now + self.every_s
                hours = (at - start).total_seconds() / 3600
                of_day = at.hour + at.minute / 60
                found = self.probes.look(max(hours, 0.0), of_day)
                batch += [{"channel": n, "value": v, "unit": "C", "at": at.isoformat()} for n, v in found.items()]
            if self.scale is not None and now >= next_scale:
                self.scale.wants(sender.wants_g)
                shown = self.scale.look(min(now - last_scale, SCALE_EVERY_S))
                batch.append({"channel": "scale", "value": round(shown, 2), "unit": "g", "at": at.isoformat()})
                rests = self.scale.rests and sender.wants_g is None
                last_scale, next_scale = now, now + (RESTS_EVERY_S if rests else SCALE_EVERY_S)
            if batch:
                sender.send(batch)
            if sender.refused is not None:
                self.tell(f"The kitchen does not take it. {sender.refused}")
                if sender.refused.startswith("401"):
                    return
                sender.refused = None
            due = min(next_probes, next_scale if self.scale is not None else next_probes)
            time.sleep(max(due - time.monotonic(), 0.02))


def report(words: str) -> None:
    """Tell on the terminal's error stream."""
    print(words, file=sys.stderr, flush=True)
