"""The latest seconds of each channel, held in memory: what the scale shows now, what a surface reads."""

from __future__ import annotations

import datetime as dt
import time
from collections import deque
from collections.abc import Mapping
from threading import Lock

from brassclock.core.sense.weight import settled_c, still_g
from brassclock.services.app import App
from brassclock.services.schemas.instruments import ScaleRead, SurfaceSeenRead
from brassclock.store import instruments as rows

WANTED_S = 3.0  # a page that weighs asks twice a second
KEPT = 400  # values of a channel
SCALE_GONE = dt.timedelta(seconds=10)  # a scale not heard for so long shows nothing
SURFACE_GONE = dt.timedelta(minutes=10)
Points = deque[tuple[dt.datetime, float]]


class Latest:
    """The last values of channels, in order of their instants."""

    def __init__(self) -> None:
        self._points: dict[int, Points] = {}
        self._lock = Lock()

    def note(self, channel_id: int, points: Mapping[dt.datetime, float]) -> None:
        with self._lock:
            held = self._points.setdefault(channel_id, deque(maxlen=KEPT))
            if not held or min(points) > held[-1][0]:
                held.extend(sorted(points.items()))
            else:  # late ones go in their place
                merged = sorted({**dict(held), **points}.items())[-KEPT:]
                held.clear()
                held.extend(merged)

    def of(self, channel_id: int) -> list[tuple[dt.datetime, float]]:
        with self._lock:
            return list(self._points.get(channel_id, ()))


def latest(app: App) -> Latest:
    """The one of this process."""
    found: Latest = app.memory.setdefault("latest values", Latest())
    return found


def wanted(app: App, kitchen_id: int) -> float | None:
    """The weight that somebody waits for [g]; None where nobody has asked the scale just now."""
    told: tuple[float, float] | None = app.memory.get(f"scale wanted {kitchen_id}")
    return told[0] if told is not None and time.monotonic() - told[1] < WANTED_S else None


def scale_out(app: App, kitchen_id: int, wants_g: float | None = None) -> ScaleRead:
    """The display of the kitchen's scale, of several the one heard last. `wants_g` is the weight waited for."""
    if wants_g is not None:
        app.memory[f"scale wanted {kitchen_id}"] = (wants_g, time.monotonic())
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        scales = [c.id or 0 for _, c in rows.of_kitchen(session, kitchen_id) if c.use == "scale"]
    heard = [p for p in (latest(app).of(i) for i in scales) if p and now - p[-1][0] <= SCALE_GONE]
    if not heard:
        return ScaleRead(value_g=None, still_g=None, at=None)
    points = max(heard, key=lambda p: p[-1][0])
    begin = points[-1][0]
    row = [((at - begin).total_seconds(), v) for at, v in points]
    return ScaleRead(value_g=points[-1][1], still_g=still_g(row, kitchen.scale_step_g), at=begin)


def surfaces_out(app: App, kitchen_id: int) -> list[SurfaceSeenRead]:
    """The latest heat of the kitchen's surfaces by their pyrometers."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        seen = [(c.surface_id, c.id or 0) for _, c in rows.of_kitchen(session, kitchen_id) if c.use == "surface"]
    found: dict[int, SurfaceSeenRead] = {}
    for surface_id, channel_id in seen:
        points = latest(app).of(channel_id)
        if surface_id is None or not points or now - points[-1][0] > SURFACE_GONE:
            continue
        told = SurfaceSeenRead(
            surface_id=surface_id, value_c=points[-1][1], settled_c=settled(points), at=points[-1][0]
        )
        if surface_id not in found or found[surface_id].at < told.at:
            found[surface_id] = told
    return list(found.values())


def settled(points: list[tuple[dt.datetime, float]]) -> float | None:
    """The heat [C] that a surface has settled at; None while it moves."""
    end = points[-1][0]
    return settled_c([((at - end).total_seconds() / 60, v) for at, v in points])
