"""Occupancy of cooks by second, as the bits of one integer for each cook: a set bit is a second that is taken, so
that every start at which a move fits is found by a few shifts."""

from __future__ import annotations

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
    """Position of the lowest set bit [s]."""
    return (bits & -bits).bit_length() - 1


def last_bit(bits: int) -> int:
    """Position of the highest set bit [s]."""
    return bits.bit_length() - 1


def next_begins(op: Op, bits: int) -> int:
    """Bits at which a bread's next move may begin, when this one begins at any of `bits`."""
    return later_by(bits, op.hands_s + op.then_min_s, op.hands_s + op.then_max_s)


def this_begins(op: Op, bits: int) -> int:
    """Bits at which a bread's move may begin, when the next one begins at any of `bits`."""
    return sooner_by(bits, op.hands_s + op.then_min_s, op.hands_s + op.then_max_s)


class Places:
    """Seconds at which each spot, and each place of a station, is free again."""

    def __init__(self, spec: LineSpec) -> None:
        self.spec = spec
        self.spots = [0] * spec.spots
        self.there = {s.name: [0] * s.count for s in spec.stations}

    def copy(self) -> Places:
        """The same, to go on with."""
        made = Places(self.spec)
        made.spots, made.there = list(self.spots), {name: list(free) for name, free in self.there.items()}
        return made

    def soonest(self, number: int) -> int:
        """The spot, counted from 0, that is free first of those a round may lie on."""
        return min(self.spec.spots_of(self.spec.kind(number)), key=lambda k: self.spots[k])

    def used(self, op: Op, task: Task) -> None:
        """A move is made: what it takes is held until another frees it."""
        if op.takes_spot:
            self.spots[task.spot - 1] = HELD
        if op.frees_spot:
            self.spots[task.spot - 1] = task.end_s + self.spec.recover_of(self.spec.kind(task.round_no))
        if op.takes:
            free = self.there[op.takes]
            free[free.index(min(free))] = HELD
        if op.frees and HELD in self.there[op.frees]:
            free = self.there[op.frees]
            free[free.index(HELD)] = task.end_s + self.spec.station(op.frees).recover_s


class Board:
    """A line that is put together: one integer of seconds for each cook, and its places."""

    def __init__(self, spec: LineSpec, horizon: int) -> None:
        self.spec, self.horizon = spec, horizon
        self.taken = [0] * spec.cooks
        self.places = Places(spec)
        self.tasks: list[Task] = []

    def fits(self, op: Op) -> int:
        """Bits at which some cook has time for a move."""
        found = 0
        for taken in self.taken:
            found |= starts(taken, op.hands_s, self.horizon)
        return found

    def put(self, number: int, op: int, start: int, spot: int) -> None:
        """A move at a time at which it fits, by the first cook who is free."""
        o = self.spec.moves(number).ops[op]
        bits = ((1 << o.hands_s) - 1) << start
        cook = next(k for k, taken in enumerate(self.taken) if not taken & bits)
        self.taken[cook] |= bits
        task = Task(number, o.name, spot + 1, cook + 1, start, start + o.hands_s)
        self.tasks.append(task)
        self.places.used(o, task)

    def insert(self, number: int, load_since: int, late: bool) -> int | None:
        """One bread as early as it goes on the spot that is free first; `late` rolls at the last moment.

        When the hands begin to load it [s]; None when it does not fit.
        """
        moves = self.spec.moves(number)
        ops, load = moves.ops, moves.load
        spots = self.places.spots
        spot = self.places.soonest(number)
        reach = [0] * len(ops)
        for k, op in enumerate(ops):
            reach[k] = self.fits(op)
            if k:
                reach[k] &= next_begins(ops[k - 1], reach[k - 1])
            if k == load:
                least = max(spots[spot] - op.off_surface_s, load_since)
                reach[k] = reach[k] >> least << least
            if op.takes:
                least = min(self.places.there[op.takes])
                reach[k] = reach[k] >> least << least
            if not reach[k]:
                return None
        for k in range(len(ops) - 2, -1, -1):
            reach[k] &= this_begins(ops[k], reach[k + 1])
            if not reach[k]:
                return None
        return self._place(number, reach, spot, late)

    def _place(self, number: int, reach: list[int], spot: int, late: bool) -> int:
        """Pick a start for each move: the load earliest, what follows earliest, what comes before latest or earliest.
        The load's."""
        moves = self.spec.moves(number)
        ops, load = moves.ops, moves.load
        at: dict[int, int] = {load: first_bit(reach[load])}
        for k in range(load + 1, len(ops)):
            at[k] = first_bit(reach[k] & next_begins(ops[k - 1], 1 << at[k - 1]))
        for k in range(load - 1, -1, -1):
            can = reach[k] & this_begins(ops[k], 1 << at[k + 1])
            at[k] = last_bit(can) if late else first_bit(can)
        for k in range(len(ops)):
            self.put(number, k, at[k], spot)
        return at[load]
