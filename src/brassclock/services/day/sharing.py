"""Commitments of the live bakes of a kitchen: hands, surfaces, litres of the cold shelf; and a bake set around that."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from dataclasses import dataclass, replace

from brassclock.core.day.hands import Busy
from brassclock.core.day.shared import Commitments, Shelved, cold_span, hand_spans, shelf_litres, surface_span
from brassclock.core.day.spec import DayPlan
from brassclock.core.errors import InvalidInput
from brassclock.core.time import later
from brassclock.services.bake.parts import surface_ids
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.rise import spec as rise_spec
from brassclock.services.weigh.model import sheet_of
from brassclock.store.tables import Bake


@dataclass(frozen=True)
class Takes:
    """Commitments of one bake."""

    hands: tuple[Busy, ...]
    surface_ids: frozenset[int]
    hot: tuple[Busy, ...]
    cold: tuple[Shelved, ...]


def _litres(bake: Bake, r: BakeSnapshot) -> float:
    """Litres of the shelf that another bake of this kitchen fills; 0 while its lines cannot be read."""
    try:
        return shelf_litres(sheet_of(bake, r.kitchen, r.own).dough.total_g)
    except InvalidInput:
        return 0.0


def planned(r: BakeSnapshot, plan: DayPlan) -> Takes:
    """Commitments of a bake by its plan."""
    name = r.bake.name
    return Takes(
        tuple(hand_spans(plan, name)),
        frozenset(surface_ids(r.bake)),
        (surface_span(plan, name),),
        tuple(cold_span(plan, name, rise_spec.litres_of(plan.spec))),
    )


def announced_plan(bake: Bake, r: BakeSnapshot) -> Takes:
    """Commitments of a bake by its announced plan, of the hours still ahead; what it holds already, from this minute
    on: the same to whoever asks within it."""
    this_minute = r.now.replace(second=0, microsecond=0)
    at = {k: dt.datetime.fromisoformat(t).astimezone(r.now.tzinfo) for k, (t, _) in bake.told.items()}
    hands = [
        Busy(at[k], later(at[k], minutes / 60), bake.name, 1) for k, (_, minutes) in bake.told.items() if minutes > 0
    ]
    hot, cold = [], []
    if "serve" in at:
        first = at.get("line", this_minute)
        hot = [Busy(first, at["serve"], bake.name)] if first < at["serve"] else []
    if "cold_out" in at:
        into = at.get("cold_in", this_minute)
        cold = [Shelved(into, at["cold_out"], bake.name, _litres(bake, r))] if into < at["cold_out"] else []
    return Takes(tuple(b for b in hands if b.end > r.now), frozenset(surface_ids(bake)), tuple(hot), tuple(cold))


def around(r: BakeSnapshot, others: Iterable[Takes]) -> BakeSnapshot:
    """The rows of a bake with what others take."""
    others, on = list(others), surface_ids(r.bake)
    hot = tuple(b for t in others if on & t.surface_ids for b in t.hot)
    shared = Commitments(hot, tuple(s for t in others for s in t.cold), r.kitchen.shelf_l)
    return replace(r, taken=tuple(b for t in others for b in t.hands), shared=shared)
