"""Several bakes in one kitchen: one pair of hands does one thing, a surface bakes one bread, a shelf holds so much.

First one after the other, each around those before it, in a few orders; then, where that leaves a gap, all at once as a
set packing over a pool of ways (`scipy.optimize.milp`). The better is kept, and all of it is run by the real rise.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import permutations

import numpy as np

from brassclock.core.day.courses import Choice, KitchenResources, PlanRequest
from brassclock.core.day.hands import SLOT_MIN, Busy, Slots, free_hands
from brassclock.core.day.search import ROUNDS, Group, Search, Solved
from brassclock.core.day.shared import cold_span, hand_spans, surface_span
from brassclock.core.day.sweep import Candidate
from brassclock.core.time import hours_between

ORDERS = 6
PER_GROUP = 12  # ways of a course and dose in the pool: the best, and others spread over the time of balling
GROUPS_EACH = 6
UNPLACED = 25.0  # cost of a bake without a place, above any cost of a way
BUDGET_S = 0.6


@dataclass(frozen=True)
class Item:
    """A bake to place: its wish and choice, the surface it bakes on, and when that is taken whatever is placed."""

    key: str
    request: PlanRequest
    choice: Choice = field(default_factory=Choice)
    surface: str | None = None
    hot: tuple[Busy, ...] = ()


@dataclass(frozen=True)
class Packed:
    """Each bake's way, or None where it found no place, and how it was found: `in turn` or `together`."""

    ways: Mapping[str, Solved | None]
    how: str

    @property
    def cost(self) -> float:
        """Sum of the costs of all bakes, UNPLACED for one without a way; without unit."""
        return sum(UNPLACED if w is None else w.cost for w in self.ways.values())


def beside(resources: KitchenResources, item: Item, placed: Iterable[tuple[Item, Solved]]) -> KitchenResources:
    """The kitchen as a bake finds it when others are placed: their hands, their surfaces, their litres of the shelf."""
    others = [(o, way.plan) for o, way in placed if o.key != item.key]
    hands = [span for o, plan in others for span in hand_spans(plan, o.key)]
    hot = [surface_span(plan, o.key) for o, plan in others if item.surface is not None and o.surface == item.surface]
    cold = [span for o, plan in others for span in cold_span(plan, o.key, o.request.litres)]
    shared = replace(
        resources.shared, hot=(*resources.shared.hot, *item.hot, *hot), cold=(*resources.shared.cold, *cold)
    )
    return replace(resources, busy=[*resources.busy, *hands], shared=shared)


def in_turn(items: Sequence[Item], resources: KitchenResources) -> Packed:
    """One after the other, each around those before it."""
    found: dict[str, Solved | None] = {}
    placed: list[tuple[Item, Solved]] = []
    for item in items:
        solved = Search(item.request, beside(resources, item, placed)).best(item.choice)
        found[item.key] = solved
        if solved is not None:
            placed.append((item, solved))
    return Packed(found, "in turn")


def _orders(items: Sequence[Item]) -> list[list[Item]]:
    """By the table first; then a few others, or all when there are few."""
    by_table = sorted(items, key=lambda i: (("mix" not in i.request.done), i.request.serve_at))
    if len(items) <= 3:
        return [list(p) for p in permutations(by_table)]
    rotated = [[*by_table[k:], *by_table[:k]] for k in range(1, len(items))]
    return [by_table, by_table[::-1], *rotated][:ORDERS]


def pack(items: Sequence[Item], resources: KitchenResources) -> Packed:
    """A day for all bakes: the least costly of what is found in turn and together."""
    by_table = _orders(items)[0]
    best = in_turn(by_table, resources)
    missing = [i for i in by_table if best.ways[i.key] is None]
    # what finds no place even alone finds none in any order
    hopeless = {i.key for i in missing if Search(i.request, beside(resources, i, ())).best(i.choice) is None}
    if len(hopeless) == len(missing):
        return best
    hopeful = [i for i in items if i.key not in hopeless]
    for order in _orders(hopeful)[1:]:
        packed = in_turn(order, resources)
        if packed.cost < best.cost - UNPLACED * len(hopeless):
            best = Packed({**dict.fromkeys(hopeless), **packed.ways}, packed.how)
        if all(packed.ways.values()):
            return best
    whole = together(hopeful, resources) if len(hopeful) > 1 else None
    if whole is not None and whole.cost < best.cost - UNPLACED * len(hopeless):
        return Packed({**dict.fromkeys(hopeless), **whole.ways}, whole.how)
    return best


@dataclass(frozen=True)
class _Entry:
    item: int
    group: Group
    found: Candidate


def _hopeful(search: Search, item: Item) -> list[Group]:
    """The least costly groups of a bake that have a way when it is alone."""
    found: list[Group] = []
    for group in search.groups(item.choice):
        if len(found) == GROUPS_EACH:
            break
        if group.calibrate() and group.sweep() is not None:
            found.append(group)
    return found


def _pool(groups: Sequence[tuple[int, Group]]) -> list[_Entry]:
    """Ways of every bake, with a quota for each course and dose: the best ones alone may all want the same hands."""
    pool = []
    for number, group in groups:
        found = group.all(400)
        by_ball: dict[int, Candidate] = {}
        for f in found:
            by_ball.setdefault(f.ball // 6, f)  # one for each half hour of balling
        picked = [*found[: PER_GROUP // 2], *list(by_ball.values())[: PER_GROUP // 2]]
        pool += [_Entry(number, group, f) for f in dict.fromkeys(picked)]
    return pool


def together(items: Sequence[Item], resources: KitchenResources, budget_s: float = BUDGET_S) -> Packed | None:
    """All at once as a set packing; what the real rise does not bear out is set right and packed again."""
    groups = [
        (number, group)
        for number, item in enumerate(items)
        for group in _hopeful(Search(item.request, beside(resources, item, ())), item)
    ]
    best: Packed | None = None
    for _ in range(ROUNDS):
        chosen = _packed(items, _pool(groups), resources, budget_s)
        found: dict[str, Solved | None] = {item.key: None for item in items}
        for e in chosen:
            found[items[e.item].key] = e.group.settle(e.found)[0]
        packed = Packed(found, "together")
        if best is None or packed.cost < best.cost:
            best = packed
        if all(found[items[e.item].key] for e in chosen):
            break
    return best


class _Rows:
    """The rows of a packing: for each thing that can be used up, how much each way takes of it."""

    def __init__(self) -> None:
        self.limits: list[float] = []
        self.entries: list[tuple[int, int, float]] = []
        self._known: dict[tuple[str, int], int] = {}

    def use(self, column: int, what: str, of: int, amount: float, limit: float) -> None:
        if (what, of) not in self._known:
            self._known[(what, of)] = len(self.limits)
            self.limits.append(limit)
        self.entries.append((self._known[(what, of)], column, amount))


def _packed(items: Sequence[Item], pool: list[_Entry], resources: KitchenResources, budget_s: float) -> list[_Entry]:
    """The ways of the least costly packing; none when none is found in the time."""
    from scipy.optimize import Bounds, LinearConstraint, milp
    from scipy.sparse import coo_matrix

    if not pool:
        return []
    zero = min(e.group.search.slots.zero for e in pool)
    end = max(e.group.search.slots.at(e.group.search.slots.count) for e in pool)
    slots = Slots(zero, round(60 * hours_between(zero, end) / SLOT_MIN))
    free, rows = free_hands(slots, resources.busy, resources.cooks), _Rows()
    for column, e in enumerate(pool):
        item = items[e.item]
        offset = round(60 * hours_between(zero, e.group.search.slots.zero) / SLOT_MIN)
        rows.use(column, "bake", e.item, 1.0, 1.0)
        for a, b in e.group.hand_slots(e.found):
            for slot in range(max(a + offset, 0), min(b + offset, slots.count)):
                rows.use(column, "hands", slot, 1.0, float(free[slot]))
        if item.surface is not None:
            a, b = e.group.surface_slots()
            for slot in range(a + offset, b + offset):
                rows.use(column, item.surface, slot, 1.0, 1.0)
        litres, shelf_l = item.request.litres, resources.shared.shelf_l
        if e.found.into is not None and e.found.out is not None and litres and np.isfinite(shelf_l):
            for quarter in range((e.found.into + offset) // 3, (e.found.out + offset) // 3 + 1):
                rows.use(column, "shelf", quarter, litres, shelf_l)
    at, columns, amounts = (np.array(x) for x in zip(*rows.entries, strict=True))
    matrix = coo_matrix((amounts, (at, columns)), shape=(len(rows.limits), len(pool)))
    done = milp(
        np.array([e.found.cost - UNPLACED for e in pool]),
        constraints=LinearConstraint(matrix, -np.inf, rows.limits),
        integrality=np.ones(len(pool)),
        bounds=Bounds(0, 1),
        options={"time_limit": budget_s},
    )
    return [] if done.x is None else [e for e, x in zip(pool, done.x, strict=True) if x > 0.5]
