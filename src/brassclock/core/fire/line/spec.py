"""A line as it is asked for and as it comes out: moves, spots, cooks; its lower bound, and what a line breaks."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise
from typing import NamedTuple

ROLL_PAD_S, TOUCH_PAD_S = 5, 2  # judgement: what a calm pace adds to rolling, and to loading and brushing
ROLL_S, LOAD_S, CONTACT_S, TURN_S, OFF_S, BRUSH_S = 25, 8, 5, 3, 3, 6  # practice: hand time of each move
RELAX_S, TOL_S = (30, 480), 4  # practice: a rolled round's rest before the heat; how late a turn may be


@dataclass(frozen=True)
class Op:
    """One hand move of a bread: its seconds of hands, and between which gaps the next one follows [s].

    `takes_spot`: the bread lies on its spot from `off_surface_s` into the move. `frees_spot`: the spot is free when the
    move ends. `takes`, `frees`: a second station (a grill, an oven) by its name, from the move's start to the end of
    the one that frees it.
    """

    name: str
    hands_s: int
    then_min_s: int = 0
    then_max_s: int = 0
    off_surface_s: int = 0
    takes_spot: bool = False
    frees_spot: bool = False
    takes: str = ""
    frees: str = ""


@dataclass(frozen=True)
class Station:
    """A second place of heat: how many breads it holds, and how long it needs between two [s]."""

    name: str
    count: int = 1
    recover_s: int = 0


@dataclass(frozen=True)
class Moves:
    """The moves of one kind of bread, in order."""

    ops: tuple[Op, ...]

    def __post_init__(self) -> None:
        if not any(o.takes_spot for o in self.ops) or not any(o.frees_spot for o in self.ops):
            raise ValueError("No move takes a spot, or none frees it. Mark one of each.")
        if self.unload < self.load:
            raise ValueError("The spot is freed before it is taken. Put the moves in their order.")

    @cached_property
    def load(self) -> int:
        """Index of the move that takes the spot."""
        return next(i for i, o in enumerate(self.ops) if o.takes_spot)

    @cached_property
    def unload(self) -> int:
        """Index of the move that frees the spot."""
        return next(i for i, o in enumerate(self.ops) if o.frees_spot)

    @cached_property
    def hands_s(self) -> int:
        """Seconds of hands for one bread."""
        return sum(o.hands_s for o in self.ops)

    @cached_property
    def names(self) -> tuple[str, ...]:
        """Names of the moves in their order."""
        return tuple(o.name for o in self.ops)

    @cached_property
    def at(self) -> dict[str, int]:
        """Index of a move by its name."""
        return {name: k for k, name in enumerate(self.names)}

    def op(self, name: str) -> Op:
        """The move of a name."""
        return self.ops[self.at[name]]

    @cached_property
    def on_s(self) -> int:
        """From contact until the spot is free, at the least."""
        return self.between_s(self.load, self.unload) - self.ops[self.load].off_surface_s

    @cached_property
    def longest_s(self) -> int:
        """From the first move to the end of the last, at the most."""
        return sum(o.hands_s + o.then_max_s for o in self.ops)

    def between_s(self, first: int, last: int) -> int:
        """From the start of one move to the end of another, at the least."""
        return sum(o.hands_s + o.then_min_s for o in self.ops[first:last]) + self.ops[last].hands_s

    def head_s(self, op: int) -> int:
        """From a bread's first move to its move `op`, at the least."""
        return sum(o.hands_s + o.then_min_s for o in self.ops[:op])

    def tail_s(self, op: int) -> int:
        """From the end of a bread's move `op` to the end of its last, at the least."""
        return sum(a.then_min_s + b.hands_s for a, b in pairwise(self.ops[op:]))

    def stay(self, station: str) -> tuple[int, int] | None:
        """Indices of the moves that take and free a station; None when the bread never goes there."""
        takes = [i for i, o in enumerate(self.ops) if o.takes == station]
        frees = [i for i, o in enumerate(self.ops) if o.frees == station]
        return (takes[0], frees[0]) if takes and frees else None


@dataclass(frozen=True)
class LineSpec:
    """The line: its moves in order, spots, cooks, and how long a spot needs between breads [s].

    Mixed breads: `others` are the moves of further kinds, `order` the kind of each round (0 is `ops`; empty: all of
    them). Several surfaces: `lies` is the first and the last spot of each kind, `recovers` its own `recover_s` (empty:
    every kind on every spot).
    """

    ops: tuple[Op, ...]
    spots: int = 1
    cooks: int = 1
    recover_s: int = 0
    others: tuple[tuple[Op, ...], ...] = ()
    order: tuple[int, ...] = ()
    stations: tuple[Station, ...] = ()
    lies: tuple[tuple[int, int], ...] = ()
    recovers: tuple[int, ...] = ()

    def __post_init__(self) -> None:
        if any(not 1 <= a <= b <= self.spots for a, b in self.lies):
            raise ValueError(f"A kind lies on spots {self.lies}, of 1 to {self.spots}. Give spots that there are.")
        for moves in self.kinds:
            for o in moves.ops:
                for name in (o.takes, o.frees):
                    if name and name not in {s.name for s in self.stations}:
                        raise ValueError(f"“{o.name}” goes to “{name}”, which is no station. Name it among them.")

    @cached_property
    def kinds(self) -> tuple[Moves, ...]:
        """Moves of each kind of bread, the main kind first."""
        return tuple(Moves(ops) for ops in (self.ops, *self.others))

    def moves(self, number: int) -> Moves:
        """The moves of a round, counted from 1."""
        return self.kinds[self.order[number - 1]] if self.order else self.kinds[0]

    def kind(self, number: int) -> int:
        """The kind of a round, counted from 1."""
        return self.order[number - 1] if self.order else 0

    def spots_of(self, kind: int) -> range:
        """The spots, counted from 0, that a kind may lie on."""
        first, last = self.lies[kind] if self.lies else (1, self.spots)
        return range(first - 1, last)

    def recover_of(self, kind: int) -> int:
        """Time a spot needs after a bread of a kind [s]."""
        return self.recovers[kind] if self.recovers else self.recover_s

    def station(self, name: str) -> Station:
        """The station of a name."""
        return next(s for s in self.stations if s.name == name)

    @cached_property
    def held_s(self) -> int:
        """From contact to the next bread's contact, at the least, of the kind that lies longest."""
        return max(k.on_s + self.recover_of(n) for n, k in enumerate(self.kinds))

    @cached_property
    def hands_s(self) -> int:
        """Seconds of hands for one bread, of the kind that wants most."""
        return max(k.hands_s for k in self.kinds)

    @cached_property
    def hands_bound_s(self) -> int:
        """The shortest cycle [s] that the hands allow, whatever the spots do."""
        return max(math.ceil(self.hands_s / self.cooks), max(o.hands_s for o in self.ops) if self.cooks == 1 else 1)

    @cached_property
    def cycle_bound_s(self) -> int:
        """No line of such breads repeats faster than this [s]."""
        bound = max(self.hands_bound_s, math.ceil(self.held_s / self.spots))
        for station in self.stations:
            stay = self.kinds[0].stay(station.name)
            if stay:
                bound = max(bound, math.ceil((self.kinds[0].between_s(*stay) + station.recover_s) / station.count))
        return bound


class Task(NamedTuple):
    """A hand move of one round."""

    round_no: int
    move: str
    spot: int
    cook: int
    start_s: int
    end_s: int

    def later(self, by: int) -> Task:
        """The same, so many seconds later."""
        return Task(self.round_no, self.move, self.spot, self.cook, self.start_s + by, self.end_s + by) if by else self


@dataclass(frozen=True)
class Line:
    """The whole line: tasks in time order, when the last is done, its cycle, the bound, what holds it up, how it was
    found."""

    tasks: tuple[Task, ...]
    makespan_s: int
    lower_bound_s: int
    cycle_s: float
    bottleneck: str
    method: str
    towel_wait_s: tuple[int, ...]

    @property
    def first_load_s(self) -> int:
        """Seconds until the first bread goes on: rolling begins before that."""
        return min((t.start_s for t in self.tasks if t.move == "load"), default=0)

    @property
    def from_load_s(self) -> int:
        """From the first load to the last bread wrapped."""
        return self.makespan_s - self.first_load_s


GRILL = "grill"
TOP_S, TOP_LEAD_S = 12, (0, 30)  # practice: a topping goes on at the last moment, or its water soaks the round


def bread_ops(
    turn_s: float | None,
    off_s: float,
    grilled: bool = False,
    topped: bool = False,
    more: Sequence[tuple[str, float, int]] = (),
) -> tuple[Op, ...]:
    """The moves of a bread that is turned `turn_s` and taken off `off_s` after contact (None: never turned).

    `grilled`: it is not turned but goes under the grill, and leaves its pan to the next. `topped` just before it is
    loaded. `more` is done to it on the heat besides: name, seconds after contact, seconds of hands; a name that comes
    twice is counted.
    """
    roll, brush = Op("roll", ROLL_S, *RELAX_S), Op("brush", BRUSH_S)
    before = (roll, Op("top", TOP_S, *TOP_LEAD_S)) if topped else (roll,)
    off = Op("off", OFF_S, 0, 20, frees_spot=not grilled, frees=GRILL if grilled else "")
    moves = [(at_s, Op(name, hands_s)) for name, at_s, hands_s in numbered(more, before)]
    if turn_s is not None:
        moves.append((turn_s, Op("turn", TURN_S, frees_spot=grilled, takes=GRILL if grilled else "")))
    load = (CONTACT_S * -1.0, Op("load", LOAD_S, off_surface_s=CONTACT_S, takes_spot=True))
    on = []
    for (at_s, op), (next_s, _) in pairwise([load, *sorted(moves, key=lambda m: m[0]), (off_s, off)]):
        gap = max(round(next_s - at_s) - op.hands_s, 0)
        on.append(replace(op, then_min_s=gap, then_max_s=gap + TOL_S))
    return *before, *on, off, brush


def numbered(moves: Sequence[tuple[str, float, int]], before: Sequence[Op] = ()) -> list[tuple[str, float, int]]:
    """Moves of which no two have one name, nor that of a move `before` them: a second `edge` is `edge 2`.

    >>> [name for name, _, _ in numbered([("edge", 1.0, 4), ("edge", 2.0, 4), ("spray", 3.0, 3)])]
    ['edge', 'edge 2', 'spray']
    """
    seen = {op.name: 1 for op in before}
    found = []
    for name, at_s, hands_s in moves:
        seen[name] = seen.get(name, 0) + 1
        found.append((name if seen[name] == 1 else f"{name} {seen[name]}", at_s, hands_s))
    return found


def calm(spec: LineSpec) -> LineSpec:
    """The same line with room to breathe: longer moves, so that a slip of some seconds is taken up."""

    def padded(moves: Moves) -> tuple[Op, ...]:
        def more(i: int, o: Op) -> int:
            return ROLL_PAD_S if i < moves.load else TOUCH_PAD_S if o.takes_spot or i > moves.unload else 0

        return tuple(replace(o, hands_s=o.hands_s + more(i, o)) for i, o in enumerate(moves.ops))

    first, *others = (padded(k) for k in spec.kinds)
    return replace(spec, ops=first, others=tuple(others))


def lower_bound(spec: LineSpec, breads: int) -> int:
    """Seconds that `breads` breads take at the least: by the hands over any stretch of moves, by the spots, and by each
    station.

    Of mixed breads: each kind as if it were alone, and all of them by their hands and their time on the spots.
    """
    if not spec.order:
        return _bound_of(spec, 0, breads)
    kinds = [spec.kind(n) for n in range(1, breads + 1)]
    rounds = [spec.kinds[k] for k in kinds]
    alone = max(_bound_of(spec, k, kinds.count(k)) for k in set(kinds))
    hands = math.ceil(sum(k.hands_s for k in rounds) / spec.cooks)
    if len(set(spec.lies)) > 1:  # several surfaces: each kind alone on its own is the bound of the spots
        return max(alone, hands)
    recovers = [spec.recover_of(k) for k in kinds]
    on_s = sum(k.on_s + s for k, s in zip(rounds, recovers, strict=True)) - spec.spots * max(recovers)
    on = math.ceil(on_s / len(spec.spots_of(kinds[0])))
    ends = min(k.head_s(k.load) + k.ops[k.load].off_surface_s for k in rounds) + min(k.tail_s(k.unload) for k in rounds)
    return max(alone, hands, on + ends)


def _bound_of(spec: LineSpec, kind: int, breads: int) -> int:
    """Seconds that `breads` breads of one kind take at the least."""
    moves = spec.kinds[kind]
    m = len(moves.ops)
    hands = max(
        moves.head_s(c)
        + math.ceil(breads * sum(o.hands_s for o in moves.ops[c : d + 1]) / spec.cooks)
        + moves.tail_s(d)
        for c in range(m)
        for d in range(c, m)
    )
    turns, more = divmod(breads - 1, len(spec.spots_of(kind)))
    load = moves.ops[moves.load].hands_s
    held = moves.on_s + spec.recover_of(kind)
    surface = moves.head_s(moves.load) + more // spec.cooks * load + turns * held + load + moves.tail_s(moves.load)
    bound = max(hands, surface)
    for station in spec.stations:
        stay = moves.stay(station.name)
        if stay:
            there = moves.between_s(*stay)
            rounds = (breads - 1) // station.count
            bound = max(
                bound, moves.head_s(stay[0]) + rounds * (there + station.recover_s) + there + moves.tail_s(stay[1])
            )
    return bound


def check_line(spec: LineSpec, tasks: Sequence[Task], widen: int = 0) -> list[str]:
    """Broken constraints of a line, in words; empty when it holds."""
    wrong = []
    for cook in {t.cook for t in tasks}:
        mine = sorted((t for t in tasks if t.cook == cook), key=lambda t: t.start_s)
        wrong += [f"cook {cook} has two moves at {b.start_s} s" for a, b in pairwise(mine) if b.start_s < a.end_s]
    if any(t.cook > spec.cooks or t.spot > spec.spots for t in tasks):
        wrong.append("a cook or a spot too many")
    spans: dict[int, list[tuple[int, int, int, int]]] = {}
    stays: dict[str, list[tuple[int, int]]] = {}
    for number in {t.round_no for t in tasks}:
        moves = spec.moves(number)
        own = sorted((t for t in tasks if t.round_no == number), key=lambda t: moves.names.index(t.move))
        if tuple(t.move for t in own) != moves.names:
            wrong.append(f"round {number} misses a move")
            continue
        for op, a, b in zip(moves.ops, own, own[1:], strict=False):
            if not op.then_min_s <= b.start_s - a.end_s <= op.then_max_s + widen:
                wrong.append(f"round {number}: {b.start_s - a.end_s} s between {a.move} and {b.move}")
        contact = own[moves.load].start_s + moves.ops[moves.load].off_surface_s
        kind, spot = spec.kind(number), own[moves.load].spot
        if spot - 1 not in spec.spots_of(kind):
            wrong.append(f"round {number} lies on spot {spot}, which is of another surface")
        spans.setdefault(spot, []).append((contact, own[moves.unload].end_s, number, spec.recover_of(kind)))
        for station in spec.stations:
            stay = moves.stay(station.name)
            if stay:
                stays.setdefault(station.name, []).append(
                    (own[stay[0]].start_s, own[stay[1]].end_s + station.recover_s)
                )
    for spot, held in spans.items():
        for (_, free, one, back), (contact, _, other, _) in pairwise(sorted(held)):
            if contact < free + back:
                wrong.append(f"spot {spot} takes round {other} {contact - free} s after round {one}")
    for station in spec.stations:
        there = stays.get(station.name, [])
        for at, _ in there:
            if sum(begin <= at < end for begin, end in there) > station.count:
                wrong.append(f"{station.name} holds too many at {at} s")
    return wrong
