"""A line that was told, done from now on: every move at its time or as soon after as its hands and its place allow.

List scheduling in the told order, so that a slip is taken up by the slack behind it, and what was told stays told.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

from brassclock.core.fire.line.board import HELD, Board
from brassclock.core.fire.line.spec import LineSpec, Op, Task

NEVER = HELD
AHEAD_S = 20  # judgement: loads may fall behind by so much before rolling waits for them


class _Next(NamedTuple):
    """A move that could be next: its earliest and latest start, by whom and when it would be made, and as it was told [s]."""

    start: int
    told: Task
    op: Op
    low: int
    high: int
    cook: int


class Missed(Exception):
    """A bread's window was missed: whose, by how much, and which round was loaded last before that (None: none was)."""

    def __init__(self, round_no: int, by_s: int, loaded: int | None) -> None:
        self.round_no, self.by_s, self.loaded = round_no, by_s, loaded


class Dispatch:
    """The state of hands, spots and breads while a told line is done again."""

    def __init__(
        self, spec: LineSpec, done: Mapping[int, Sequence[Task]], told: Sequence[Task], waits: Mapping[int, int], now_s: int, later_s: int, widen: int
    ) -> None:  # fmt: skip
        """`waits`: by how much a round goes on later than it was told; `later_s`: how late the last load was; `widen`: by how much windows stretch."""
        self.spec, self.now_s, self.widen, self.apart = spec, now_s, widen, [n for n, by in waits.items() if by]
        told = [t.later(waits.get(t.round_no, 0)) for t in told]
        self.last = {n: own[-1] for n, own in done.items() if own}
        self.free = [0] * spec.cooks  # when each cook is
        self.board = Board(spec, 0)
        for task in sorted((t for own in done.values() for t in own), key=lambda t: t.start_s):
            self._hold(task)
        self.loaded: int | None = None
        self.later_s = later_s  # the last load's
        self.ahead: dict[int, list[Task]] = {}
        for t in sorted(told, key=lambda t: (t.round_no, spec.moves(t.round_no).at[t.move])):
            self.ahead.setdefault(t.round_no, []).append(t)
        self.before = {o.name for k in spec.kinds for o in k.ops[: k.load + 1]}  # the moves of a round that waits
        # rounds are rolled and loaded in the order in which they were told
        loads = {
            t.round_no: t.start_s for t in told if spec.moves(t.round_no).at[t.move] == spec.moves(t.round_no).load
        }
        order = sorted(self.ahead, key=lambda n: (loads.get(n, -1), n))
        self.begun = [n for n in order if n in self.last]
        self.balls = [n for n in reversed(order) if n not in self.last]

    def run(self) -> list[Task]:
        """Every move with its time. Missed when a bread would miss its window."""
        alike, later, enough = 0, 0, len(self.spec.ops) * (self.spec.spots + 2)
        cooks: dict[int, int] = {}
        spots: dict[int, int] = {}
        while self.ahead:
            found = self._candidates()
            if not found:
                raise Missed(min(self.ahead), 1, self.loaded)
            going = next((x for x in found if not any(self._missed(y, x) for y in found)), None) or min(
                found, key=lambda x: x.high
            )
            waits = going.told.move in self.before  # a round that waits too long is rolled again, when its turn comes
            if going.start > going.high and not waits:
                raise Missed(going.told.round_no, going.start - going.high, self.loaded)
            made, told = self._make(going), going.told
            as_before = made.start_s - told.start_s == later and cooks.get(told.cook, made.cook) == made.cook
            if not as_before or spots.get(told.spot, made.spot) != made.spot:
                alike, later, cooks, spots = 0, made.start_s - told.start_s, {}, {}
            alike += 1
            cooks[told.cook], spots[told.spot] = made.cook, made.spot
            if alike >= enough and self._follows(later, cooks, spots):
                return [*self.board.tasks, *self._alike(later, cooks, spots)]
        return self.board.tasks

    def _alike(self, later: int, cooks: Mapping[int, int], spots: Mapping[int, int]) -> Iterator[Task]:
        """What is ahead, all of it so much later, each cook and each spot for the one that was told."""
        for n, own in self.ahead.items():
            lies = self.last[n].spot if n in self.last and own[0].move not in self.before else None
            for t in own:
                yield Task(n, t.move, lies or spots[t.spot], cooks[t.cook], t.start_s + later, t.end_s + later)

    def _follows(self, later: int, cooks: Mapping[int, int], spots: Mapping[int, int]) -> bool:
        """Whether everything may go on as it was told, so much later, each bread that has begun too."""
        if len(cooks) < self.spec.cooks or len(spots) < self.spec.spots:
            return False
        if len(set(cooks.values())) < len(cooks) or len(set(spots.values())) < len(spots):
            return False
        if any(n in self.ahead for n in self.apart):
            return False
        for n in self.begun:
            moves, last, told = self.spec.moves(n), self.last[n], self.ahead[n][0]
            before = moves.ops[moves.at[last.move]]
            if not before.then_min_s <= told.start_s + later - last.end_s <= before.then_max_s + self.widen:
                return False
        firsts = [own[0] for own in self.ahead.values()]
        return all(t.start_s + later >= self.free[cooks[t.cook] - 1] for t in firsts)

    def _candidates(self) -> list[_Next]:
        """The next move of each bread that has begun, the next round to be rolled and the next to be loaded; soonest first."""
        found = []
        firsts: set[int] = set()
        for n in (*self.begun, *self.balls[-1:]):
            told = self.ahead[n][0]
            moves = self.spec.moves(told.round_no)
            k = moves.at[told.move]
            if k <= moves.load:
                if k in firsts:
                    continue  # rounds are taken up in turn
                firsts.add(k)
            one = self._next(told, moves.ops[k], moves.ops[k - 1] if k else None)
            if one is not None:
                found.append(one)
        found.sort(key=lambda x: (x.start, x.told.start_s))
        return found

    def _next(self, told: Task, op: Op, before: Op | None) -> _Next | None:
        """When a move could be made; None while its place is taken."""
        low, high = max(told.start_s, self.now_s - op.off_surface_s), NEVER
        if before is None:
            low = max(low, told.start_s + self.later_s - AHEAD_S)  # nobody rolls on and on while the loads fall behind
        else:
            end = self.last[told.round_no].end_s
            high = end + before.then_max_s + self.widen
            if high < self.now_s - op.off_surface_s:
                high = NEVER  # missed already: as soon as there are hands
            low = max(min(low, high), end + before.then_min_s)
        if op.takes_spot:
            low = max(low, min(self.board.free_at) - op.off_surface_s)
        if op.takes:
            low = max(low, min(self.board.there[op.takes]))
        if low >= NEVER // 2:
            return None
        mine = told.cook - 1
        cook = mine if self.free[mine] <= low else min(range(len(self.free)), key=lambda c: (self.free[c], c != mine))
        return _Next(max(low, self.free[cook]), told, op, low, high, cook)

    def _missed(self, other: _Next, going: _Next) -> bool:
        """Whether another move would come too late if this one were made first, and not otherwise."""
        if other is going or other.start > other.high:
            return False
        until = going.start + going.op.hands_s
        free = min(until if c == going.cook else at for c, at in enumerate(self.free))
        return max(other.low, free) > other.high

    def _make(self, going: _Next) -> Task:
        n = going.told.round_no
        own = self.ahead[n]
        told = own.pop(0)
        if n not in self.last:
            self.begun.append(self.balls.pop())
        if not own:
            del self.ahead[n]
            self.begun.remove(n)
        spot = self.last[n].spot if n in self.last else told.spot
        if going.op.takes_spot:
            free, contact = self.board.free_at, going.start + going.op.off_surface_s
            spot = told.spot if free[told.spot - 1] <= contact else free.index(min(free)) + 1
            self.loaded, self.later_s = n, going.start - told.start_s
        task = Task(n, told.move, spot, going.cook + 1, going.start, going.start + going.op.hands_s)
        self.last[n] = task
        self._hold(task)
        return task

    def _hold(self, task: Task) -> None:
        self.free[task.cook - 1] = max(self.free[task.cook - 1], task.end_s)
        self.board.keep(task, self.spec.moves(task.round_no).at[task.move])
