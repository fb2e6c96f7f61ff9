"""A line as it is asked for and as it comes out: moves, spots, cooks; its lower bound, and what a line breaks."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

ROLL_PAD_S, TOUCH_PAD_S = 5, 2  # judgement: what a calm pace adds to rolling, and to loading and brushing
ROLL_S, LOAD_S, CONTACT_S, TURN_S, OFF_S, BRUSH_S = 25, 8, 5, 3, 3, 6  # practice: hand time of each move
RELAX_S, TOL_S = (30, 480), 4  # practice: a rolled round's rest before the heat; how late a turn may be


@dataclass(frozen=True)
class Op:
    """One hand move of a bread: its seconds of hands, and between which gaps the next one follows [s].

    `takes_spot`: the bread lies on its spot from `off_surface_s` into the move. `frees_spot`: the spot is free when the move ends.
    """

    name: str
    hands_s: int
    then_min_s: int = 0
    then_max_s: int = 0
    off_surface_s: int = 0
    takes_spot: bool = False
    frees_spot: bool = False


@dataclass(frozen=True)
class LineSpec:
    """The line: its moves in order, spots, cooks, and how long a spot needs between breads [s]."""

    ops: tuple[Op, ...]
    spots: int = 1
    cooks: int = 1
    recover_s: int = 0

    def __post_init__(self) -> None:
        if not any(o.takes_spot for o in self.ops) or not any(o.frees_spot for o in self.ops):
            raise ValueError("No move takes a spot, or none frees it. Mark one of each.")
        if self.unload < self.load:
            raise ValueError("The spot is freed before it is taken. Put the moves in their order.")

    @cached_property
    def load(self) -> int:
        """Which move takes the spot."""
        return next(i for i, o in enumerate(self.ops) if o.takes_spot)

    @cached_property
    def unload(self) -> int:
        """Which move frees it."""
        return next(i for i, o in enumerate(self.ops) if o.frees_spot)

    @cached_property
    def held_s(self) -> int:
        """From contact to the next bread's contact, at the least: on the heat, off it, and the spot's recovery."""
        on = sum(o.hands_s + o.then_min_s for o in self.ops[self.load : self.unload]) + self.ops[self.unload].hands_s
        return on - self.ops[self.load].off_surface_s + self.recover_s

    @cached_property
    def hands_s(self) -> int:
        """Seconds of hands for one bread."""
        return sum(o.hands_s for o in self.ops)

    @cached_property
    def cycle_bound_s(self) -> int:
        """No line repeats faster than this."""
        longest = max(o.hands_s for o in self.ops)
        return max(
            math.ceil(self.hands_s / self.cooks), math.ceil(self.held_s / self.spots), longest if self.cooks == 1 else 1
        )

    def head_s(self, op: int) -> int:
        """From a bread's first move to its move `op`, at the least."""
        return sum(o.hands_s + o.then_min_s for o in self.ops[:op])

    def tail_s(self, op: int) -> int:
        """From the end of a bread's move `op` to the end of its last, at the least."""
        return sum(a.then_min_s + b.hands_s for a, b in pairwise(self.ops[op:]))


@dataclass(frozen=True)
class Task:
    """A hand move of one round."""

    round_no: int
    move: str
    spot: int
    cook: int
    start_s: int
    end_s: int


@dataclass(frozen=True)
class Line:
    """The whole line: tasks in time order, when the last is done, its cycle, the bound, what holds it up, how it was found."""

    tasks: tuple[Task, ...]
    makespan_s: int
    lower_bound_s: int
    cycle_s: float
    bottleneck: str
    method: str
    towel_wait_s: tuple[int, ...]

    @property
    def first_load_s(self) -> int:
        """When the first bread goes on: rolling begins before that."""
        return min((t.start_s for t in self.tasks if t.move == "load"), default=0)

    @property
    def from_load_s(self) -> int:
        """From the first load to the last bread wrapped."""
        return self.makespan_s - self.first_load_s


def bread_ops(turn_s: float | None, off_s: float) -> tuple[Op, ...]:
    """The moves of a bread that is turned `turn_s` and taken off `off_s` after contact (None: never turned)."""
    over = LOAD_S - CONTACT_S
    roll, brush = Op("roll", ROLL_S, *RELAX_S), Op("brush", BRUSH_S)
    off = Op("off", OFF_S, 0, 20, frees_spot=True)
    if turn_s is None:
        side = max(round(off_s) - over, 0)
        return roll, Op("load", LOAD_S, side, side + TOL_S, CONTACT_S, True), off, brush
    first = max(round(turn_s) - over, 0)
    second = max(round(off_s - turn_s) - TURN_S, 0)
    load = Op("load", LOAD_S, first, first + TOL_S, CONTACT_S, True)
    return roll, load, Op("turn", TURN_S, second, second + TOL_S), off, brush


def calm(spec: LineSpec) -> LineSpec:
    """The same line with room to breathe: longer moves, so that a slip of some seconds is taken up."""

    def padded(i: int, o: Op) -> Op:
        more = ROLL_PAD_S if i < spec.load else TOUCH_PAD_S if o.takes_spot or i > spec.unload else 0
        return replace(o, hands_s=o.hands_s + more)

    return replace(spec, ops=tuple(padded(i, o) for i, o in enumerate(spec.ops)))


def lower_bound(spec: LineSpec, breads: int) -> int:
    """Seconds that `breads` breads take at the least: by the hands over any stretch of moves, and by the spots."""
    m = len(spec.ops)
    hands = max(
        spec.head_s(c) + math.ceil(breads * sum(o.hands_s for o in spec.ops[c : d + 1]) / spec.cooks) + spec.tail_s(d)
        for c in range(m)
        for d in range(c, m)
    )
    turns, more = divmod(breads - 1, spec.spots)
    load = spec.ops[spec.load].hands_s
    surface = spec.head_s(spec.load) + more // spec.cooks * load + turns * spec.held_s + load + spec.tail_s(spec.load)
    return max(hands, surface)


def check_line(spec: LineSpec, tasks: Sequence[Task], widen: int = 0) -> list[str]:
    """What a line breaks, in words; empty when it holds."""
    wrong = []
    for cook in {t.cook for t in tasks}:
        mine = sorted((t for t in tasks if t.cook == cook), key=lambda t: t.start_s)
        wrong += [f"cook {cook} has two moves at {b.start_s} s" for a, b in pairwise(mine) if b.start_s < a.end_s]
    if any(t.cook > spec.cooks or t.spot > spec.spots for t in tasks):
        wrong.append("a cook or a spot too many")
    names = [o.name for o in spec.ops]
    spans: dict[int, list[tuple[int, int, int]]] = {}
    for number in {t.round_no for t in tasks}:
        own = sorted((t for t in tasks if t.round_no == number), key=lambda t: names.index(t.move))
        if [t.move for t in own] != names:
            wrong.append(f"round {number} misses a move")
            continue
        for op, a, b in zip(spec.ops, own, own[1:], strict=False):
            if not op.then_min_s <= b.start_s - a.end_s <= op.then_max_s + widen:
                wrong.append(f"round {number}: {b.start_s - a.end_s} s between {a.move} and {b.move}")
        contact = own[spec.load].start_s + spec.ops[spec.load].off_surface_s
        spans.setdefault(own[spec.load].spot, []).append((contact, own[spec.unload].end_s, number))
    for spot, held in spans.items():
        for (_, free, one), (contact, _, other) in pairwise(sorted(held)):
            if contact < free + spec.recover_s:
                wrong.append(f"spot {spot} takes round {other} {contact - free} s after round {one}")
    return wrong
