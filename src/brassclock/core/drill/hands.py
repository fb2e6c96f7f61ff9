"""*Plan the hands*: the moves of a line put in order by a cook, timed as that order allows, beside the line that the
solver finds."""

from __future__ import annotations

from collections import deque
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import NamedTuple

from brassclock.core.drill.call import Call, call_case, off_window
from brassclock.core.drill.draw import Draw
from brassclock.core.errors import invalid
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import Line, LineSpec, Task, bread_ops, check_line

BREADS = (4, 5, 6, 8, 10)  # by level
COOKS = ((1,), (1,), (1, 2), (1, 2), (1, 2))
SPOTS = ((1, 2), (1, 2), (2,), (2, 3), (2, 3))
RECOVER_S = (0, 10)
POWER = 3  # of our time over yours
BROKEN = Param(15.0, "-", 10, 25, Kind.JUDGEMENT, "points that a missed gap costs")
Z_CALL = 1000
FREE = -1  # a spot that no bread has had
NO_SPOT = "A bread cannot go on before a spot is free. Take one off first."


@dataclass(frozen=True)
class Kit:
    """A line as a cook knows it: its bread, when it is turned and off [s], how long a spot then needs [s], spots, cooks
    and breads."""

    name: str
    turn_s: float
    off_s: float
    recover_s: int
    spots: int
    cooks: int
    breads: int


@dataclass(frozen=True)
class Hands:
    """A case: breads to bring through, and the line's moves."""

    level: int
    kit: Kit

    @cached_property
    def spec(self) -> LineSpec:
        """The line: its moves, spots and cooks."""
        ops = bread_ops(self.kit.turn_s, self.kit.off_s)
        return LineSpec(ops, self.kit.spots, self.kit.cooks, self.kit.recover_s)

    @property
    def moves(self) -> tuple[str, ...]:
        """Names of the moves of one bread, in their order."""
        return self.spec.kinds[0].names

    @property
    def ours(self) -> Line:
        """The line that the solver finds."""
        return plan_line(self.spec, self.kit.breads)


class Move(NamedTuple):
    """A move in a cook's order: which, by which pair of hands (1 or 2)."""

    name: str
    cook: int = 1


def hands_case(draw: Draw, own: Kit | None = None) -> Hands:
    """The case of a draw: a bread of the house on its plate, turned and off as the puff model has it."""
    if own is not None:
        return Hands(draw.level, own)
    i = draw.level - 1
    case: Call = call_case(Draw("call", min(draw.level, 2), draw.seed + Z_CALL))
    off_s = off_window(case, case.due).low_s or 2 * case.turn_s
    kit = Kit(
        f"{case.told.name} on the {case.told.surface.spec.name.lower()}",
        round(case.turn_s),
        round(off_s),
        draw.pick(3, RECOVER_S),
        draw.pick(1, SPOTS[i]),
        draw.pick(2, COOKS[i]),
        BREADS[i],
    )
    return Hands(draw.level, kit)


@dataclass(frozen=True)
class Planned:
    """An order of moves, timed: tasks, the gaps that it cannot hold, and whether every bread is through."""

    tasks: tuple[Task, ...]
    broken: tuple[str, ...]
    whole: bool

    @property
    def ends_s(self) -> int:
        """The end of the last hand move so far [s]."""
        return max((t.end_s for t in self.tasks), default=0)


def planned(case: Hands, order: Sequence[Move]) -> Planned:
    """The earliest times at which moves in that order can be made: each cook's one after the other, the k-th turn is
    that of the bread that was loaded k-th, each gap as the bread wants it. A gap that the order cannot hold is broken.

    Raises InvalidInput for a move that no bread is ready for, or of hands that there are not.
    """
    rounds = _rounds(case, order)
    edges = _Edges(case, order, rounds)
    times = edges.times()
    ops = case.spec.kinds[0]
    spots = edges.spots
    tasks = tuple(
        Task(n, m.name, spots.get(n, 1), m.cook, t, t + ops.op(m.name).hands_s)
        for m, n, t in zip(order, rounds, times, strict=True)
    )
    whole = len(order) == case.kit.breads * len(case.moves)
    broken = tuple(check_line(case.spec, tasks)) if whole else tuple(edges.broken)
    return Planned(tasks, broken, whole)


def _rounds(case: Hands, order: Sequence[Move]) -> list[int]:
    """The bread of each move: breads go through in the order in which they are rolled."""
    names, count = case.moves, [0] * len(case.moves)
    found = []
    for at, move in enumerate(order):
        if move.name not in names:
            raise invalid(f"/moves/{at}", f"“{move.name}” is no move here. Use one of {', '.join(names)}.")
        if not 1 <= move.cook <= case.kit.cooks:
            raise invalid(f"/moves/{at}", f"There are {case.kit.cooks} pairs of hands, and no {move.cook}.")
        k = names.index(move.name)
        ready = count[k - 1] if k else case.kit.breads
        if count[k] >= ready:
            why = f"no bread has had its “{names[k - 1]}” that is waiting" if k else "every bread is rolled"
            raise invalid(f"/moves/{at}", f"“{move.name}” cannot come there: {why}. Take it back.")
        count[k] += 1
        found.append(count[k])
    return found


class _Edge(NamedTuple):
    before: int
    after: int
    least_s: int  # from the start of one to the start of the other
    gap: str = ""  # in words, of one that may be broken


class _Edges:
    """The constraints between the starts of the moves of an order: differences, at least."""

    def __init__(self, case: Hands, order: Sequence[Move], rounds: Sequence[int]) -> None:
        self.count = len(order)
        self.broken: list[str] = []
        self.spots: dict[int, int] = {}
        moves, spec = case.spec.kinds[0], case.spec
        index = {(n, m.name): i for i, (m, n) in enumerate(zip(order, rounds, strict=True))}
        self.edges: list[_Edge] = []
        last: dict[int, int] = {}
        for i, move in enumerate(order):
            if move.cook in last:
                before = last[move.cook]
                self.edges.append(_Edge(before, i, moves.op(order[before].name).hands_s))
            last[move.cook] = i
        for (n, name), i in index.items():
            k = moves.at[name]
            if k + 1 < len(moves.ops) and (n, moves.names[k + 1]) in index:
                op, j = moves.ops[k], index[n, moves.names[k + 1]]
                self.edges.append(_Edge(i, j, op.hands_s + op.then_min_s))
                gap = f"bread {n}: {moves.names[k + 1]} comes too late after {name}"
                self.edges.append(_Edge(j, i, -(op.hands_s + op.then_max_s), gap))
        self._spots(spec, order, rounds, index)

    def _spots(
        self, spec: LineSpec, order: Sequence[Move], rounds: Sequence[int], index: dict[tuple[int, str], int]
    ) -> None:
        """A bread takes the spot that was given free first, once it has come back to its heat."""
        moves = spec.kinds[0]
        load, off = moves.ops[moves.load], moves.ops[moves.unload]
        free: deque[tuple[int, int | None]] = deque((spot + 1, FREE) for spot in range(spec.spots))
        for m, n in zip(order, rounds, strict=True):
            if m.name != load.name:
                continue
            self.spots[n], freed_by = free.popleft()  # first in, first out: the breads are alike
            if freed_by is None:
                raise invalid("/moves", NO_SPOT)
            if freed_by != FREE:
                least = off.hands_s + spec.recover_s - load.off_surface_s
                self.edges.append(_Edge(freed_by, index[n, load.name], least))
            free.append((self.spots[n], index.get((n, off.name))))

    def times(self) -> list[int]:
        """Earliest start of each move [s]; gaps on a circle that cannot be are broken, one after the other."""
        while True:
            times, circle = self._relaxed()
            if circle is None:
                return times
            gap = next((e for e in circle if e.gap), None)
            if gap is None:
                raise invalid("/moves", NO_SPOT)
            self.broken.append(gap.gap)
            self.edges.remove(gap)

    def _relaxed(self) -> tuple[list[int], list[_Edge] | None]:
        """(longest distances from the start, or a circle of edges that adds up to more than nothing)."""
        times, by = [0] * self.count, dict[int, _Edge]()
        for _ in range(self.count + 1):
            moved = None
            for edge in self.edges:
                if times[edge.before] + edge.least_s > times[edge.after]:
                    times[edge.after] = times[edge.before] + edge.least_s
                    by[edge.after] = edge
                    moved = edge.after
            if moved is None:
                return times, None
        at = moved or 0
        for _ in range(self.count):  # back until it is on the circle
            at = by[at].before
        circle, start = [by[at]], at
        while circle[-1].before != start:
            circle.append(by[circle[-1].before])
        return times, circle


def points(case: Hands, done: Planned) -> float:
    """Points of a whole order: 100 for ours or better, by the cube of the times, less what each broken gap costs."""
    if not done.whole:
        return 0.0
    share = (case.ours.makespan_s / done.ends_s) ** POWER
    return max(0.0, min(100.0, 100 * share - BROKEN * len(done.broken)))


def why_line(case: Hands) -> Why:
    """The time of the line, explained."""
    ours, kit = case.ours, case.kit
    return Why(
        "The shortest line",
        "time = first move to last; no line is shorter than its bound",
        "Every move takes its hands for some seconds, every gap has a least and a most, every spot holds one bread. "
        "The solver looks for a rhythm that repeats; the bound is what hands and spots allow.",
        (
            Input("breads", kit.breads, ""),
            Input("spots", kit.spots, ""),
            Input("pairs of hands", kit.cooks, ""),
            Input("from contact to turn", kit.turn_s, "s"),
            Input("from contact to off", kit.off_s, "s"),
            Input("ours", ours.makespan_s, "s"),
            Input("bound", ours.lower_bound_s, "s"),
            Input("held up by", ours.bottleneck, ""),
        ),
        Kind.ANALYTIC,
    )
