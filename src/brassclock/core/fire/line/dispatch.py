"""A line that was told, done from now on: every move at its time or as soon after as its hands and its place allow.

List scheduling in the told order, so that a slip is taken up by the slack behind it, and what was told stays told.
Where a bread would miss its window, the load before that waits, and the line goes on from where that round first came
in question.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from copy import copy
from typing import NamedTuple

from brassclock.core.fire.line.board import HELD, Places
from brassclock.core.fire.line.spec import LineSpec, Op, Task

NEVER = HELD
AHEAD_S = 20  # judgement: loads may fall behind by so much before rolling waits for them
MOST_WAITS = 3  # loads that are made to wait, one after the other, before a line told is given up


class _Move(NamedTuple):
    """A bread's next move as it was told, its number among the bread's, whether the bread waits for the heat, and when
    it wants to begin [s]."""

    told: Task
    op: Op
    number: int
    waits: bool
    low: int
    high: int


class _Next(NamedTuple):
    """A move that could be next: when it would begin [s], and by whose hands."""

    start: int
    cook: int
    move: _Move


class _Missed(Exception):
    """A bread's window was missed: whose, and by how much."""

    def __init__(self, round_no: int, by_s: int) -> None:
        self.round_no, self.by_s = round_no, by_s


class _State:
    """Hands, spots and breads at one moment of a line that is done again."""

    def __init__(self, spec: LineSpec, done: Mapping[int, Sequence[Task]], later_s: int) -> None:
        self.free = [0] * spec.cooks  # when each cook is
        self.places = Places(spec)
        self.tasks: list[Task] = []
        self.last = {n: own[-1] for n, own in done.items() if own}
        self.ahead: dict[int, tuple[Task, ...]] = {}  # of each round, as it was told
        self.begun: dict[int, _Move] = {}  # the next move of each round that is no ball any more
        self.balls: list[int] = []  # the next to be rolled is the last
        self.loaded: int | None = None  # which round was loaded last, of those ahead
        self.later_s = later_s  # how late the last load was

    def copy(self) -> _State:
        """The same, to go on from."""
        made = copy(self)
        made.free, made.balls, made.tasks, made.places = [*self.free], [*self.balls], [*self.tasks], self.places.copy()
        made.last, made.ahead, made.begun = {**self.last}, {**self.ahead}, {**self.begun}
        return made


class Dispatch:
    """A told line, done again."""

    def __init__(
        self, spec: LineSpec, done: Mapping[int, Sequence[Task]], told: Sequence[Task], now_s: int, later_s: int
    ) -> None:
        """Start from what was `done` of each round, what else was `told`, and how late the last load was [s]."""
        self.spec, self.now_s, self.widen = spec, now_s, 0
        self.waits: dict[int, int] = {}  # how much later than it was told a round comes
        self.state = state = _State(spec, done, later_s)
        for task in sorted((t for own in done.values() for t in own), key=lambda t: t.start_s):
            self._hold(spec.moves(task.round_no).op(task.move), task)
        for t in sorted(told, key=lambda t: (t.round_no, spec.moves(t.round_no).at[t.move])):
            state.ahead[t.round_no] = (*state.ahead.get(t.round_no, ()), t)
        self.loads = self._loads(told)
        state.balls = [n for n in state.ahead if n not in state.last]
        self.first = state.copy()
        self.came: dict[int, _State] = {}  # how all was when a round came to be the next to be rolled

    def run(self, widen: int) -> list[Task] | None:
        """Every move with its time, windows stretched by so much; None when loads that wait do not bring every bread
        through."""
        self.widen = widen
        self.waits.clear()
        self.came.clear()
        self._from(self.first)
        for _ in range(MOST_WAITS):
            try:
                return self._on()
            except _Missed as missed:
                n = missed.round_no if missed.round_no in self.loads else self.state.loaded
                if n is None:
                    return None
                self.waits[n] = max(self.waits.get(n, 0), self._late(n)) + missed.by_s
                self._from(self._before(n))
        return None

    def _late(self, n: int) -> int:
        """Delay of a round's load over its told time [s]; 0 when it is not loaded."""
        return self._loads(self.state.tasks).get(n, self.loads[n]) - self.loads[n]

    def _loads(self, tasks: Sequence[Task]) -> dict[int, int]:
        """Load time of each round [s]."""
        return {t.round_no: t.start_s for t in tasks if self.spec.moves(t.round_no).op(t.move).takes_spot}

    def _before(self, n: int) -> _State:
        """State before a round came in question; what came later is forgotten."""
        while self.came:
            other, state = self.came.popitem()  # the last to come first
            if other == n:
                return state
        return self.first

    def _from(self, state: _State) -> None:
        """Go on from there; rounds are rolled and loaded in the order in which they were told."""
        self.state = state.copy()
        self.state.balls.sort(key=self._turn, reverse=True)
        if state is self.first:
            begun = sorted((n for n in state.ahead if n in state.last), key=self._turn)
            self.state.begun = {n: self._wanted(n) for n in begun}

    def _turn(self, n: int) -> tuple[int, int]:
        """By what rounds go in turn: when each is to be loaded; those on the heat first."""
        return self.loads[n] + self.waits.get(n, 0) if n in self.loads else -1, n

    def _on(self) -> list[Task]:
        """Every move with its time, from the state that there is. _Missed when a bread would miss its window."""
        alike, later, enough = 0, 0, len(self.spec.ops) * (self.spec.spots + 2)
        cooks: dict[int, int] = {}
        spots: dict[int, int] = {}
        while self.state.ahead:
            going = self._chosen(self._candidates())
            told, high = going.move.told, going.move.high
            if going.start > high and not going.move.waits:  # a round that waits too long is rolled again, in its turn
                raise _Missed(told.round_no, going.start - high)
            made = self._make(going)
            as_before = made.start_s - told.start_s == later and cooks.get(told.cook, made.cook) == made.cook
            if not as_before or spots.get(told.spot, made.spot) != made.spot:
                alike, later, cooks, spots = 0, made.start_s - told.start_s, {}, {}
            alike += 1
            cooks[told.cook], spots[told.spot] = made.cook, made.spot
            if alike >= enough and self._follows(later, cooks, spots):
                return [*self.state.tasks, *self._alike(later, cooks, spots)]
        return self.state.tasks

    def _alike(self, later: int, cooks: Mapping[int, int], spots: Mapping[int, int]) -> Iterator[Task]:
        """The moves ahead, all of them later by as much, each cook and each spot for the one that was told."""
        begun = self.state.begun
        for n, own in self.state.ahead.items():
            lies = self.state.last[n].spot if n in begun and not begun[n].waits else None
            for t in own:
                spot, cook = lies or spots[t.spot], cooks[t.cook]
                same = (spot, cook) == (t.spot, t.cook)
                yield t.later(later) if same else Task(n, t.move, spot, cook, t.start_s + later, t.end_s + later)

    def _follows(self, later: int, cooks: Mapping[int, int], spots: Mapping[int, int]) -> bool:
        """True if everything may go on as it was told, so much later, each bread that has begun too."""
        state = self.state
        if len(cooks) < self.spec.cooks or len(spots) < self.spec.spots:
            return False
        if len(set(cooks.values())) < len(cooks) or len(set(spots.values())) < len(spots):
            return False
        if any(n in state.ahead for n in self.waits):
            return False
        for n, move in state.begun.items():
            before, gap = self.spec.moves(n).ops[move.number - 1], move.told.start_s + later - state.last[n].end_s
            if not before.then_min_s <= gap <= before.then_max_s + self.widen:
                return False
        firsts = [own[0] for own in state.ahead.values()]
        return all(t.start_s + later >= state.free[cooks[t.cook] - 1] for t in firsts)

    def _wanted(self, n: int) -> _Move:
        """The next move of a round, and when it is to begin by what was told, by now, and by the window of the move
        before it."""
        told, moves = self.state.ahead[n][0].later(self.waits.get(n, 0)), self.spec.moves(n)
        k = moves.at[told.move]
        op = moves.ops[k]
        since = self.now_s - op.off_surface_s
        low, high = max(told.start_s, since), NEVER
        if k == 0:  # nobody rolls on and on while the loads fall behind
            low = max(low, told.start_s + self.state.later_s - AHEAD_S)
        else:
            end, before = self.state.last[n].end_s, moves.ops[k - 1]
            high = end + before.then_max_s + self.widen
            if high < since:
                high = NEVER  # missed already: as soon as there are hands
            low = max(min(low, high), end + before.then_min_s)
        return _Move(told, op, k, k <= moves.load, low, high)

    def _candidates(self) -> list[_Next]:
        """The next move of each bread that has begun, the next round to be rolled and the next to be loaded; soonest
        first."""
        state = self.state
        moves = list(state.begun.values())
        if state.balls:
            n = state.balls[-1]
            if n not in self.came:
                self.came[n] = state.copy()
            moves.append(self._wanted(n))
        found: list[_Next] = []
        firsts: set[int] = set()
        free, places = state.free, state.places
        hands = min(free)
        for move in moves:
            told, op, k, waits, low, _ = move
            if waits:
                if k in firsts:
                    continue  # rounds are taken up in turn
                firsts.add(k)
            if op.takes_spot:
                low = max(low, places.spots[places.soonest(told.round_no)] - op.off_surface_s)
            if op.takes:
                low = max(low, min(state.places.there[op.takes]))
            if low < NEVER // 2:  # its place comes free
                mine = told.cook - 1  # the cook it was told, unless another is free sooner
                cook = mine if free[mine] <= low or free[mine] == hands else free.index(hands)
                found.append(_Next(low if low > free[cook] else free[cook], cook, move))
        found.sort(key=lambda x: (x.start, x.move.told.start_s))
        if not found:
            raise _Missed(min(state.ahead), 1)
        return found

    def _chosen(self, found: Sequence[_Next]) -> _Next:
        """The first that makes no other come too late, and is no rolling that holds up a load told before it by more
        than the hands would rest.

        Where each makes another late: the one whose window closes first.
        """
        in_time = [x for x in found if x.start <= x.move.high]
        closes = min((x.move.high for x in in_time), default=NEVER)
        loads = [x for x in found if x.move.op.takes_spot]
        safe: _Next | None = None
        for going in found:
            if going.start > closes:
                break
            until, told = going.start + going.move.op.hands_s, going.move.told.start_s
            free = min(until if c == going.cook else at for c, at in enumerate(self.state.free))
            if all(x.move.high >= free or x is going for x in in_time):
                if going.move.number or not any(
                    x.move.told.start_s < told and free - x.start > x.start - going.start for x in loads
                ):
                    return going
                safe = safe or going
        return safe or min(found, key=lambda x: x.move.high)

    def _make(self, going: _Next) -> Task:
        state, (told, op, *_) = self.state, going.move
        n, contact = told.round_no, going.start + op.off_surface_s
        spot = state.last[n].spot if n in state.last else told.spot
        if op.takes_spot:
            spot = told.spot if state.places.spots[told.spot - 1] <= contact else state.places.soonest(n) + 1
            state.loaded, state.later_s = n, going.start - told.start_s
        task = Task(n, told.move, spot, going.cook + 1, going.start, going.start + op.hands_s)
        state.last[n] = task
        self._hold(op, task)
        state.ahead[n] = state.ahead[n][1:]
        if state.ahead[n]:
            state.begun[n] = self._wanted(n)
        else:
            del state.ahead[n]
            state.begun.pop(n, None)
        if going.move.number == 0:
            state.balls.pop()
            state.begun = {other: state.begun[other] for other in sorted(state.begun, key=self._turn)}
        return task

    def _hold(self, op: Op, task: Task) -> None:
        """A move is made: its hands and its place are taken."""
        state, cook = self.state, task.cook - 1
        state.free[cook] = max(state.free[cook], task.end_s)
        state.tasks.append(task)
        state.places.used(op, task)
