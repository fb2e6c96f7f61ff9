"""What several tests share: worked cases as data, a clock that a test sets, the pace of a cook's presses."""

from __future__ import annotations

import datetime as dt
import tomllib
from pathlib import Path
from typing import Any

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
