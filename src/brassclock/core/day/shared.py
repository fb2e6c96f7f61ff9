"""Commitments of a plan in its kitchen: hands, a surface from the first bread to the last, litres of the cold shelf.

A surface is another bake's only while it bakes: what heats up for the next one meanwhile is hot already.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.day.hands import Busy, Count, Slots
from brassclock.core.day.spec import DayPlan
from brassclock.core.evidence import Kind, Param
from brassclock.core.time import later

LITRES_PER_KG = Param(2.5, "L/kg", 1.8, 4, Kind.JUDGEMENT, "a risen dough in its tub, or balls on their trays")


def shelf_litres(dough_g: float) -> float:
    """Litres of the cold shelf that a dough fills.

    >>> shelf_litres(800)
    2.0
    """
    return dough_g / 1000 * LITRES_PER_KG


@dataclass(frozen=True)
class Shelved:
    """Litres of the cold shelf that a bake has for a stretch (aware)."""

    start: dt.datetime
    end: dt.datetime
    name: str
    litres: float


@dataclass(frozen=True)
class Commitments:
    """Commitments of the bakes that go before this one: hours on its surface, litres of the shelf; and how many the
    shelf holds."""

    hot: tuple[Busy, ...] = ()
    cold: tuple[Shelved, ...] = ()
    shelf_l: float = math.inf

    def full(self, slots: Slots, litres: float) -> Count:
        """Number of slots before each boundary that have no room for so many litres."""
        held = np.zeros(slots.count)
        for s in self.cold:
            held[max(slots.before(s.start), 0) : max(min(slots.after(s.end), slots.count), 0)] += s.litres
        return np.concatenate([[0], np.cumsum(held + litres > self.shelf_l + 1e-9)])


def hand_spans(plan: DayPlan, name: str) -> list[Busy]:
    """The hours in which a planned bake takes one pair of hands."""
    return [
        Busy(s.at, later(s.at, s.hands_min / 60), name, 1) for s in plan.steps if s.hands_min > 0 and s.done_at is None
    ]


def surface_span(plan: DayPlan, name: str = "") -> Busy:
    """From the first bread on the surface to the last one off."""
    start = plan.step("line").at
    return Busy(start, max(plan.serve_at, later(start, 1 / 60)), name)


def cold_span(plan: DayPlan, name: str, litres: float) -> list[Shelved]:
    """Time of a planned bake in the cold; empty when it never is."""
    into = next((s.at for s in plan.steps if s.key == "cold_in"), None)
    out = next((s.at for s in plan.steps if s.key == "cold_out"), None)
    return [Shelved(into, out, name, litres)] if into and out and into < out else []


def crowding(plan: DayPlan, litres: float, shared: Commitments) -> list[tuple[str, Busy]]:
    """(what, whose hours) where a plan wants a surface or a place on the shelf that others have: `surface`, `shelf`."""
    found: list[tuple[str, Busy]] = []
    done = {s.key for s in plan.steps if s.done_at is not None}
    if "line" not in done:
        own = surface_span(plan)
        found += [("surface", b) for b in shared.hot if b.start < own.end and own.start < b.end]
    if "cold_in" not in done:
        found += [("shelf", b) for own in cold_span(plan, "", litres) for b in _too_much(own, shared)]
    return found


def _too_much(own: Shelved, shared: Commitments) -> Sequence[Busy]:
    """The others on the shelf at the first moment at which it would hold too much."""
    beside = [s for s in shared.cold if s.start < own.end and own.start < s.end]
    for moment in sorted({own.start, *(s.start for s in beside if s.start > own.start)}):
        here = [s for s in beside if s.start <= moment < s.end]
        if own.litres + sum(s.litres for s in here) > shared.shelf_l + 1e-9:
            if not here:
                return [Busy(own.start, own.end, "it is too small for this dough")]
            last = max(here, key=lambda s: s.end)
            return [Busy(min(s.start for s in here), last.end, last.name)]
    return []
