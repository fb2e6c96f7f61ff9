"""What several tests share: worked cases as data, a clock that a test sets, the pace of a cook's presses."""

from __future__ import annotations

import datetime as dt
import time
import tomllib
from collections.abc import Callable
from pathlib import Path
from typing import Any

from flask.testing import FlaskClient

WORKED = Path(__file__).parent / "worked"
BOUNCE_MS = 330  # a second press on the same place sooner than this is no move
NOON = dt.datetime(2026, 11, 24, 12, 0, tzinfo=dt.UTC)


def worked(name: str) -> dict[str, Any]:
    """A file of worked cases."""
    return tomllib.loads((WORKED / f"{name}.toml").read_text("utf-8"))


class Clock:
    """Real time, as the test sets it."""

    def __init__(self) -> None:
        self.now = NOON

    def __call__(self) -> dt.datetime:
        return self.now

    def pass_(self, **span: float) -> None:
        self.now += dt.timedelta(**span)

    def until(self, moment: str) -> None:
        """Go on to an instant; one that is past leaves it where it is."""
        self.pass_(seconds=max((dt.datetime.fromisoformat(moment) - self.now).total_seconds(), 0))


def bake_out(client: FlaskClient, clock: Clock, url: str) -> None:
    """Every move on the heat of a bake done when it is due, until all is off."""
    for n in range(200):
        hearth = client.get(f"{url}/hearth").json
        if hearth["finished"]:
            return
        due = hearth["due"][0]
        clock.until(due["at"])
        body = {"key": f"move-{n:03d}", "kind": due["move"], "round_no": due["round_no"], "spot": due["spot"]}
        answer = client.post(f"{url}/taps", json=body)
        assert answer.status_code == 201, answer.text[:300]
    raise AssertionError(f"{url} is not off the heat after 200 moves")


def wait_until(true: Callable[[], bool], within_s: float = 60) -> None:
    until = time.monotonic() + within_s
    while not true():
        assert time.monotonic() < until
        time.sleep(0.2)
