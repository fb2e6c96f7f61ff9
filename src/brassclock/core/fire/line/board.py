"""Who is doing what when, as the bits of one integer for each cook: a set bit is a second that is taken, so that every start at which a
move fits is found by a few shifts.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from brassclock.core.fire.line.spec import LineSpec, Op, Task

HELD = 1 << 40  # a spot with a bread on it


def starts(taken: int, length: int, horizon: int) -> int:
    """Bits at which a move of `length` seconds fits between the taken ones."""
    free = ~taken & ((1 << horizon) - 1)
    have = 1
    while have < length:
        step = min(have, length - have)
        free &= free >> step
        have += step
    return free


def later_by(bits: int, low: int, high: int) -> int:
    """Bits moved later by every amount from `low` to `high`."""
    found, have, width = bits << low, 1, high - low + 1
    while have < width:
        step = min(have, width - have)
        found |= found << step
        have += step
    return found


def sooner_by(bits: int, low: int, high: int) -> int:
    """Bits moved sooner by every amount from `low` to `high`."""
    found, have, width = bits >> low, 1, high - low + 1
    while have < width:
        step = min(have, width - have)
        found |= found >> step
        have += step
    return found


def first_bit(bits: int) -> int:
    return (bits & -bits).bit_length() - 1


def last_bit(bits: int) -> int:
    return bits.bit_length() - 1


class Board:
    """Who is doing what when: one integer of seconds for each cook, and when each spot is free again."""

    def __init__(self, spec: LineSpec, horizon: int) -> None:
        self.spec, self.horizon = spec, horizon
        self.taken = [0] * spec.cooks
        self.free_at = [0] * spec.spots
        self.there = {s.name: [0] * s.count for s in spec.stations}  # when each place of a station is free again
        self.recover = {s.name: s.recover_s for s in spec.stations}
        self.tasks: list[Task] = []

    def copy(self, horizon: int) -> Board:
        """The same board to go on with, up to another horizon."""
        made = Board(self.spec, horizon)
        made.taken, made.free_at, made.tasks = list(self.taken), list(self.free_at), list(self.tasks)
        made.there = {name: list(free) for name, free in self.there.items()}
        return made

    def loaded_s(self, number: int) -> int:
        """When the hands begin to load a round that is placed."""
        moves = self.spec.moves(number)
        load = moves.names[moves.load]
        return next(t.start_s for t in reversed(self.tasks) if (t.round_no, t.move) == (number, load))

    def fits(self, op: Op, since: int = 0) -> int:
        """Bits at which some cook has time for a move, from `since` on."""
        found = 0
        for taken in self.taken:
            found |= starts(taken, op.hands_s, self.horizon)
        return found >> since << since

    def put(self, number: int, op: int, start: int, spot: int, told: Task | None = None) -> None:
        """A move at a time at which it fits; by the cook who was told it, where that one is free."""
        o = self.spec.moves(number).ops[op]
        bits = ((1 << o.hands_s) - 1) << start
        free = [k for k, taken in enumerate(self.taken) if not taken & bits]
        cook = told.cook - 1 if told is not None and told.cook - 1 in free else free[0]
        self.taken[cook] |= bits
        self._lies(o, Task(number, o.name, spot + 1, cook + 1, start, start + o.hands_s))

    def keep(self, task: Task, op: int) -> None:
        """A move that began: it stays where it was, and what it took is held until the bread is off it."""
        o = self.spec.moves(task.round_no).ops[op]
        self.taken[task.cook - 1] |= ((1 << o.hands_s) - 1) << task.start_s
        if o.takes_spot:
            self.free_at[task.spot - 1] = HELD
        self._lies(o, task)

    def _lies(self, o: Op, task: Task) -> None:
        self.tasks.append(task)
        if o.frees_spot:
            self.free_at[task.spot - 1] = task.end_s + self.spec.recover_s
        if o.takes:
            free = self.there[o.takes]
            free[free.index(min(free))] = HELD
        if o.frees:
            free = self.there[o.frees]
            if HELD in free:
                free[free.index(HELD)] = task.end_s + self.recover[o.frees]

    def insert(
        self, number: int, since: int, load_since: int, late: bool, widen: int = 0, done: Sequence[Task] = (),
        told: Mapping[str, Task] | None = None,
    ) -> bool:  # fmt: skip
        """One bread as early as it goes on the spot that is free first; `late` rolls at the last moment. False when it does not fit.

        `told`: its moves as the cooks were told them; each keeps its own where it can.
        """
        moves = self.spec.moves(number)
        ops, load = moves.ops, moves.load
        spot = (
            done[0].spot - 1
            if done and len(done) > load
            else min(range(len(self.free_at)), key=lambda k: self.free_at[k])
        )
        first = len(done)
        reach = [0] * len(ops)
        for k in range(first, len(ops)):
            begin = max(
                since - (ops[k].off_surface_s if k == load else 0), 0
            )  # a load is told when it touches; its hands began before
            if k == 0:
                reach[k] = self.fits(ops[0], begin)
            else:
                gap = (ops[k - 1].then_min_s, ops[k - 1].then_max_s + widen)
                if k == first:
                    end = done[-1].end_s
                    low, high = max(end + gap[0], begin), max(end + gap[1], begin)
                    reach[k] = self.fits(ops[k], low) & ((1 << (high + 1)) - 1)
                else:
                    p = ops[k - 1].hands_s
                    reach[k] = later_by(reach[k - 1], p + gap[0], p + gap[1]) & self.fits(ops[k], begin)
            if k == load:
                least = max(self.free_at[spot] - ops[k].off_surface_s, load_since)
                reach[k] = reach[k] >> least << least
            if ops[k].takes:
                least = min(self.there[ops[k].takes])
                reach[k] = reach[k] >> least << least
            if not reach[k]:
                return False
        for k in range(len(ops) - 2, first - 1, -1):
            p, gap = ops[k].hands_s, (ops[k].then_min_s, ops[k].then_max_s + widen)
            reach[k] &= sooner_by(reach[k + 1], p + gap[0], p + gap[1])
            if not reach[k]:
                return False
        self._place(number, reach, first, spot, late, widen, told or {})
        return True

    def _place(
        self, number: int, reach: list[int], first: int, spot: int, late: bool, widen: int, told: Mapping[str, Task]
    ) -> None:  # fmt: skip
        """Pick a start for each move: the load earliest, what follows earliest, what comes before latest or earliest."""
        moves = self.spec.moves(number)
        ops, pivot = moves.ops, max(moves.load, first)
        at: dict[int, int] = {pivot: first_bit(reach[pivot])}
        for k in range(pivot + 1, len(ops)):
            p, o = ops[k - 1].hands_s, ops[k - 1]
            at[k] = first_bit(reach[k] & later_by(1 << at[k - 1], p + o.then_min_s, p + o.then_max_s + widen))
        for k in range(pivot - 1, first - 1, -1):
            p, o = ops[k].hands_s, ops[k]
            can = reach[k] & sooner_by(1 << at[k + 1], p + o.then_min_s, p + o.then_max_s + widen)
            at[k] = last_bit(can) if late else first_bit(can)
        for k in range(first, len(ops)):
            self.put(number, k, at[k], spot, told.get(ops[k].name))
