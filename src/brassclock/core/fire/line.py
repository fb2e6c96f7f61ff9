"""The line at the heat: roll, rest, load, turn, take off, brush, for many breads, a few spots and one pair of hands or more.

Whole seconds. Time is kept as the bits of one integer for each cook: a set bit is a second that is taken, so that every start at which
a move fits is found by a few shifts. Two ways are tried and the better is shown: each bread in turn as early as it goes, at several
paces; and a rhythm, the shortest cycle in which every bread repeats the one before it. Neither is proven the best; the lower bound
says how far off it can be at most.
"""

from __future__ import annotations

import math
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache
from itertools import islice, pairwise, permutations, product

ROLL_PAD_S, TOUCH_PAD_S = 5, 2  # judgement: what a calm pace adds to rolling, and to loading and brushing
WIDEN_S = (0, 8, 12, 16, 24, 40, 60, 90)  # how far a window may stretch when something slipped
RHYTHM_BUDGET_S = 2.0
FIRST_BUDGET_S = 0.13
MOST_CYCLE_TRIES = 40
MOST_ORDERS = 6  # in which breads on the heat are served, when a line is mended
HELD = 1 << 40  # a spot with a bread on it


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


ROLL_S, LOAD_S, CONTACT_S, TURN_S, OFF_S, BRUSH_S = 25, 8, 5, 3, 3, 6  # practice: hand time of each move
RELAX_S, TOL_S = (30, 480), 4  # practice: a rolled round's rest before the heat; how late a turn may be


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
        self.tasks: list[Task] = []

    def fits(self, op: Op, since: int = 0) -> int:
        """Bits at which some cook has time for a move, from `since` on."""
        found = 0
        for taken in self.taken:
            found |= starts(taken, op.hands_s, self.horizon)
        return found >> since << since

    def put(self, number: int, op: int, start: int, spot: int) -> None:
        """A move at a time at which it fits."""
        o = self.spec.ops[op]
        bits = ((1 << o.hands_s) - 1) << start
        cook = next(k for k, taken in enumerate(self.taken) if not taken & bits)
        self.taken[cook] |= bits
        self.tasks.append(Task(number, o.name, spot + 1, cook + 1, start, start + o.hands_s))
        if o.frees_spot:
            self.free_at[spot] = start + o.hands_s + self.spec.recover_s

    def keep(self, task: Task, op: int) -> None:
        """A move that began: it stays where it was, and its spot is held until the bread is off it."""
        o = self.spec.ops[op]
        self.tasks.append(task)
        self.taken[task.cook - 1] |= ((1 << o.hands_s) - 1) << task.start_s
        if o.takes_spot:
            self.free_at[task.spot - 1] = HELD
        if o.frees_spot:
            self.free_at[task.spot - 1] = task.end_s + self.spec.recover_s

    def insert(
        self, number: int, since: int, load_since: int, late: bool, widen: int = 0, done: Sequence[Task] = ()
    ) -> bool:
        """One bread as early as it goes on the spot that is free first; `late` rolls at the last moment. False when it does not fit."""
        ops, load = self.spec.ops, self.spec.load
        spot = (
            done[0].spot - 1
            if done and len(done) > load
            else min(range(len(self.free_at)), key=lambda k: self.free_at[k])
        )
        first = len(done)
        reach = [0] * len(ops)
        for k in range(first, len(ops)):
            if k == 0:
                reach[k] = self.fits(ops[0], since)
            else:
                gap = (ops[k - 1].then_min_s, ops[k - 1].then_max_s + widen)
                if k == first:
                    end = done[-1].end_s
                    low, high = max(end + gap[0], since), max(end + gap[1], since)
                    reach[k] = self.fits(ops[k], low) & ((1 << (high + 1)) - 1)
                else:
                    p = ops[k - 1].hands_s
                    reach[k] = later_by(reach[k - 1], p + gap[0], p + gap[1]) & self.fits(ops[k], since)
            if k == load:
                least = max(self.free_at[spot] - ops[k].off_surface_s, load_since)
                reach[k] = reach[k] >> least << least
            if not reach[k]:
                return False
        for k in range(len(ops) - 2, first - 1, -1):
            p, gap = ops[k].hands_s, (ops[k].then_min_s, ops[k].then_max_s + widen)
            reach[k] &= sooner_by(reach[k + 1], p + gap[0], p + gap[1])
            if not reach[k]:
                return False
        self._place(number, reach, first, spot, late, widen)
        return True

    def _place(self, number: int, reach: list[int], first: int, spot: int, late: bool, widen: int) -> None:
        """Pick a start for each move: the load earliest, what follows earliest, what comes before latest or earliest."""
        ops, pivot = self.spec.ops, max(self.spec.load, first)
        at: dict[int, int] = {pivot: first_bit(reach[pivot])}
        for k in range(pivot + 1, len(ops)):
            p, o = ops[k - 1].hands_s, ops[k - 1]
            at[k] = first_bit(reach[k] & later_by(1 << at[k - 1], p + o.then_min_s, p + o.then_max_s + widen))
        for k in range(pivot - 1, first - 1, -1):
            p, o = ops[k].hands_s, ops[k]
            can = reach[k] & sooner_by(1 << at[k + 1], p + o.then_min_s, p + o.then_max_s + widen)
            at[k] = last_bit(can) if late else first_bit(can)
        for k in range(first, len(ops)):
            self.put(number, k, at[k], spot)


def in_turn(spec: LineSpec, breads: int, pace: int, late: bool, ahead: int = 0) -> list[Task] | None:
    """Each bread as early as it goes, its load `pace` seconds after the one before it at the soonest; None when one does not fit.

    The first is loaded only when `ahead` more could be ready for the heat.
    """
    longest = sum(o.hands_s + o.then_max_s for o in spec.ops)
    board = Board(spec, 2 * (breads + 2) * (spec.held_s + spec.hands_s) + longest)
    before = sum(o.hands_s for o in spec.ops[: spec.load])
    load_since = spec.head_s(spec.load) + ahead * before // spec.cooks if ahead else 0
    for number in range(1, breads + 1):
        if not board.insert(number, 0, load_since, late):
            return None
        load_since = (
            next(
                t.start_s for t in reversed(board.tasks) if t.round_no == number and t.move == spec.ops[spec.load].name
            )
            + pace
        )
    return board.tasks


@dataclass(frozen=True)
class Rhythm:
    """A cycle that repeats: its seconds, and the start of each move of the first bread, from its first."""

    cycle_s: int
    at: tuple[int, ...]


class _TimeUp(Exception):
    """The search has had its time."""


@lru_cache(maxsize=64)
def rhythm(spec: LineSpec, budget_s: float = RHYTHM_BUDGET_S) -> Rhythm | None:
    """The shortest cycle found in the time, one bread to a cycle, for any number of cooks; None when there was none."""
    until = time.monotonic() + budget_s
    try:
        for cycle in range(spec.cycle_bound_s, spec.cycle_bound_s + MOST_CYCLE_TRIES):
            at = _phases(spec, cycle, until)
            if at is not None:
                return Rhythm(cycle, tuple(t - at[0] for t in at))
    except _TimeUp:
        pass
    return None


def _phases(spec: LineSpec, cycle: int, until: float) -> list[int] | None:
    """Starts of every move about the load, so that breads `cycle` apart never want the same hands; None when there are none."""
    ops, load, whole = spec.ops, spec.load, (1 << cycle) - 1
    order = [*range(load + 1, len(ops)), *range(load - 1, -1, -1)]
    at: dict[int, int] = {load: 0}
    failed: set[tuple[int, int, tuple[int, ...]]] = set()

    def block(start: int, length: int) -> int:
        bits = ((1 << length) - 1) << (start % cycle)
        return (bits | bits >> cycle) & whole

    def place(step: int, masks: tuple[int, ...]) -> bool:
        if step == len(order):
            return True
        k = order[step]
        beside = at[k - 1] if k > load else at[k + 1]
        key = (step, beside % cycle, masks)
        if key in failed:
            return False
        if time.monotonic() > until:
            raise _TimeUp
        before = ops[k - 1] if k > load else ops[k]
        for gap in range(before.then_min_s, min(before.then_max_s, before.then_min_s + cycle - 1) + 1):
            start = beside + before.hands_s + gap if k > load else beside - gap - before.hands_s
            bits = block(start, ops[k].hands_s)
            for cook, mask in enumerate(masks):
                if not mask & bits:
                    at[k] = start
                    if _holds(spec, at, cycle, k) and place(step + 1, (*masks[:cook], mask | bits, *masks[cook + 1 :])):
                        return True
                    if mask == 0:
                        break  # another idle cook is no different
        failed.add(key)
        return False

    if max(o.hands_s for o in ops) > cycle:
        return None
    first = (block(0, ops[load].hands_s), *([0] * (spec.cooks - 1)))
    return [at[k] for k in range(len(ops))] if place(0, first) else None


def _holds(spec: LineSpec, at: dict[int, int], cycle: int, k: int) -> bool:
    """Whether the spots are enough once the move that frees one is placed."""
    if k != spec.unload:
        return True
    on = at[k] + spec.ops[k].hands_s - (at[spec.load] + spec.ops[spec.load].off_surface_s) + spec.recover_s
    return on <= spec.spots * cycle


def repeated(spec: LineSpec, found: Rhythm, breads: int) -> list[Task] | None:
    """A rhythm played for so many breads; None when whole breads do not fit its cooks (never for one)."""
    board = Board(spec, found.cycle_s * (breads + 1) + found.at[-1] + spec.ops[-1].hands_s + 1)
    every = sorted(
        (number * found.cycle_s + start, number, k) for number in range(breads) for k, start in enumerate(found.at)
    )
    for start, number, k in every:
        bits = ((1 << spec.ops[k].hands_s) - 1) << start
        if all(taken & bits for taken in board.taken):
            return None
        board.put(number + 1, k, start, number % spec.spots)
    return board.tasks


@lru_cache(maxsize=64)
def plan_line(spec: LineSpec, breads: int, budget_s: float = FIRST_BUDGET_S) -> Line:
    """The better of what is found in turn, at several paces, and by the rhythm. Longer looking is never worse."""
    until = time.monotonic() + budget_s
    bound, best = lower_bound(spec, breads), None
    found = rhythm(spec, min(RHYTHM_BUDGET_S, budget_s / 3))
    if found is not None and (tasks := repeated(spec, found, breads)) is not None:
        best = (_ends(tasks), tasks, "rhythm")
    for n, (pace, late, ahead) in enumerate(_tries(spec, breads, found.cycle_s if found else spec.cycle_bound_s + 12)):
        if best is not None and (best[0] <= bound or (n > 1 and time.monotonic() > until)):
            break
        tried = in_turn(spec, breads, pace, late, ahead)
        if tried is not None and (best is None or _ends(tried) < best[0]):
            best = (_ends(tried), tried, "in turn")
    if best is None:
        raise ValueError("No line fits these moves: a gap is shorter than the hands allow. Widen then_max_s.")
    return _line(spec, breads, best[1], best[2])


def _tries(spec: LineSpec, breads: int, cycle: int) -> Iterator[tuple[int, bool, int]]:
    """(pace, rolls late, breads ahead) worth trying, the likeliest first."""
    bound = spec.cycle_bound_s
    yield from product(dict.fromkeys((0, bound, cycle)), (True, False), (0,))
    most = min(breads, spec.spots + 1)
    yield from (
        (pace, late, ahead) for ahead in range(1, most) for pace in (0, bound, bound // 2) for late in (True, False)
    )
    yield from product(range(bound + 1, bound + 13), (True, False), (0, 1))


def _ends(tasks: Sequence[Task]) -> int:
    return max(t.end_s for t in tasks) - min(t.start_s for t in tasks)


def _line(spec: LineSpec, breads: int, tasks: Sequence[Task], method: str) -> Line:
    zero = min(t.start_s for t in tasks)
    moved = sorted(
        (replace(t, start_s=t.start_s - zero, end_s=t.end_s - zero) for t in tasks),
        key=lambda t: (t.start_s, t.round_no),
    )
    done = sorted(max(t.end_s for t in moved if t.round_no == n) for n in range(1, breads + 1))
    cycle = (done[-1] - done[0]) / (breads - 1) if breads > 1 else float(done[0])
    by_hands, by_spots = spec.hands_s / spec.cooks, spec.held_s / spec.spots
    return Line(
        tuple(moved), done[-1], lower_bound(spec, breads), cycle, "hands" if by_hands >= by_spots else "spots", method,
        tuple(done[-1] - d for d in done),
    )  # fmt: skip


def saved_s(spec: LineSpec, breads: int, line: Line, budget_s: float = FIRST_BUDGET_S) -> tuple[int, int]:
    """(seconds another spot would save, seconds another pair of hands would)."""
    spot = plan_line(replace(spec, spots=spec.spots + 1), breads, budget_s).makespan_s
    cook = plan_line(replace(spec, cooks=spec.cooks + 1), breads, budget_s).makespan_s
    return max(line.makespan_s - spot, 0), max(line.makespan_s - cook, 0)


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


@dataclass(frozen=True)
class Repair:
    """A line after a slip: every task, by how far windows were stretched [s], and when it ends now."""

    tasks: tuple[Task, ...]
    widened_s: int
    makespan_s: int


def replan(spec: LineSpec, line: Sequence[Task], now_s: int, began: dict[tuple[int, str], int]) -> Repair | None:
    """The line again from now: what `began` (round, move: second) stays as it was, the rest is placed anew, windows as little stretched as can be.

    None when no stretch brings every bread through.
    """
    breads, names = sorted({t.round_no for t in line}), [o.name for o in spec.ops]
    planned = {(t.round_no, t.move): t for t in line}
    longest = sum(o.hands_s + o.then_max_s for o in spec.ops)
    horizon = now_s + 2 * (len(breads) + 2) * (spec.held_s + spec.hands_s) + longest
    done: dict[int, list[Task]] = {number: [] for number in breads}
    for (number, move), start in sorted(began.items(), key=lambda x: x[1]):
        done[number].append(
            replace(planned[number, move], start_s=start, end_s=start + spec.ops[names.index(move)].hands_s)
        )
    ahead = [n for n in breads if len(done[n]) < len(names)]
    hot = [n for n in ahead if len(done[n]) > spec.load]
    cold = [n for n in ahead if n not in hot]
    kept = [t for own in done.values() for t in own]
    for widen in WIDEN_S:
        for order, late in product(islice(permutations(hot), MOST_ORDERS), (True, False)):
            board = Board(spec, horizon)
            for task in kept:
                board.keep(task, names.index(task.move))
            if all(board.insert(n, now_s, now_s, late, widen, done[n]) for n in (*order, *cold)):
                tasks = tuple(sorted(board.tasks, key=lambda t: (t.start_s, t.round_no)))
                return Repair(tasks, widen, max(t.end_s for t in tasks))
    return None
