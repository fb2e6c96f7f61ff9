"""A line after a slip: what began stays, the rest follows as it was told or is placed anew, windows stretched as little as can be."""

from __future__ import annotations

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import islice, permutations, product

from brassclock.core.fire.line.board import Board
from brassclock.core.fire.line.dispatch import Dispatch, Missed
from brassclock.core.fire.line.spec import LineSpec, Op, Task

# how far a window may stretch when something slipped; the last: whatever it takes
WIDEN_S = (0, 8, 12, 16, 24, 40, 60, 90, 300, 3600)
LITTLE_S, WORTH = 8, 4  # judgement: a second of a window is worth four of the line
MOST_WAITS = 6  # loads that are made to wait, one after the other, before a line told is given up
FEW = 14  # breads: up to so many are also placed anew, to see whether that ends sooner
MOST_ORDERS = 2  # in which breads on the heat are served, when a line is mended


@dataclass(frozen=True)
class Repair:
    """A line after a slip: every task, by how far windows were stretched [s], and when it ends now."""

    tasks: tuple[Task, ...]
    widened_s: int
    makespan_s: int
    anew: bool = False  # whether it no longer follows the line it mends


def replan(
    spec: LineSpec, line: Sequence[Task], now_s: int, began: Mapping[tuple[int, str], int], gone: Collection[int] = (),
    lies: Mapping[int, int] | None = None, told_end_s: int | None = None,
) -> Repair | None:  # fmt: skip
    """The line again from now: what `began` (round, move: second) stays as it was, the rest follows, windows as little stretched as can be.

    Each move comes at its time or as soon after as it goes. Where that ends later than `told_end_s` (the line's own end and the slip, where it is
    not given), breads on the heat are placed first, and those that wait are moved all alike or placed anew; the better is taken.
    Rounds that are `gone` (they fell) want nothing more; `lies` is the spot that a round really took. None when no stretch brings every bread through.
    """
    breads = sorted({t.round_no for t in line})
    planned = {(t.round_no, t.move): replace(t, spot=(lies or {}).get(t.round_no, t.spot)) for t in line}
    longest = max(k.longest_s for k in spec.kinds)
    horizon = now_s + 2 * (len(breads) + 2) * (spec.held_s + spec.hands_s) + longest
    done: dict[int, list[Task]] = {number: [] for number in breads}
    for (number, move), start in sorted(began.items(), key=lambda x: x[1]):
        done[number].append(
            replace(planned[number, move], start_s=start, end_s=start + _op(spec, number, move)[1].hands_s)
        )
    ahead = [n for n in breads if n not in gone and len(done[n]) < len(spec.moves(n).ops)]
    of: dict[int, dict[str, Task]] = {n: {} for n in breads}
    for (number, move), t in planned.items():
        of[number][move] = t
    rest = _Rest(
        spec, now_s, done, {n: _anew_rolled(spec, of[n], done[n], now_s) for n in ahead},
        hot=[n for n in ahead if len(done[n]) > spec.moves(n).load], cold=[n for n in ahead if len(done[n]) <= spec.moves(n).load],
        slips={n: own[-1].start_s - planned[n, own[-1].move].start_s for n, own in done.items() if own},
    )  # fmt: skip
    board = Board(spec, now_s + 2 * longest)
    for task in sorted((t for own in done.values() for t in own), key=lambda t: t.start_s):
        board.keep(task, _op(spec, task.round_no, task.move)[0])
    held = _end(line) + max(rest.slips.values(), default=0) if told_end_s is None else told_end_s
    fell = any(t.round_no in gone and (t.round_no, t.move) not in began for t in line)
    for widen in WIDEN_S:
        told = _as_told(rest, widen)
        found = [] if told is None else [told]
        searched: list[Task] | None = None
        if fell or widen or told is None or _end(told) > held:
            if not widen:  # a little of a window for much of the line
                little = _as_told(rest, LITTLE_S)
                found += [] if little is None else [little]
            searched = _searched(rest, board, widen, horizon)
            found += [] if searched is None else [searched]
        if found:
            chosen = min(found, key=lambda tasks: _end(tasks) + WORTH * _stretched(spec, tasks, began))
            best = tuple(sorted(chosen, key=lambda t: (t.start_s, t.round_no)))
            return Repair(best, max(widen, _stretched(spec, best, began)), _end(best), chosen is searched)
    return None


@dataclass(frozen=True)
class _Rest:
    """What is still to be placed at `now_s`: what each bread had done to it, its moves as they were told, which lie on the heat, which wait, and
    by how much the last move of each was late [s].
    """

    spec: LineSpec
    now_s: int
    done: Mapping[int, Sequence[Task]]
    told: Mapping[int, Mapping[str, Task]]
    hot: Sequence[int]
    cold: Sequence[int]
    slips: Mapping[int, int]

    def waiting(self, breads: Sequence[int]) -> list[Task]:
        """What those that wait have ahead, as it was told."""
        began = {(n, t.move) for n in breads for t in self.done[n]}
        return [t for n in breads for t in self.told[n].values() if (n, t.move) not in began]


def _stretched(spec: LineSpec, tasks: Iterable[Task], began: Mapping[tuple[int, str], int]) -> int:
    """By how much the longest window ahead is overstepped [s]."""
    most = 0
    before: dict[int, Task] = {}
    for t in sorted(tasks, key=lambda t: t.start_s):
        last = before.get(t.round_no)
        if last is not None and (t.round_no, t.move) not in began:
            most = max(most, t.start_s - last.end_s - _op(spec, t.round_no, last.move)[1].then_max_s)
        before[t.round_no] = t
    return most


def _anew_rolled(spec: LineSpec, told: Mapping[str, Task], done: Sequence[Task], now_s: int) -> dict[str, Task]:
    """A round's moves as they were told; what was to be done to it before, and is to be done again, comes right before its load."""
    found, began = dict(told), {t.move for t in done}
    shape = spec.moves(next(iter(told.values())).round_no)
    for k in range(shape.load - 1, -1, -1):
        op, t, follows = shape.ops[k], found[shape.names[k]], found[shape.names[k + 1]]
        if t.move not in began and t.end_s + op.then_max_s < now_s:
            start = max(t.start_s, follows.start_s - op.then_min_s - op.hands_s)
            found[t.move] = t.later(start - t.start_s)
    return found


def _end(tasks: Iterable[Task]) -> int:
    return max((t.end_s for t in tasks), default=0)


def _as_told(rest: _Rest, widen: int) -> list[Task] | None:
    """The line as it was told, each move as soon after its time as it goes; where a bread would miss its window, the load before that waits."""
    loaded = [own for n, own in rest.done.items() if len(own) > rest.spec.moves(n).load]
    newest = max(loaded, key=lambda own: own[rest.spec.moves(own[0].round_no).load].start_s, default=None)
    later = rest.slips[newest[0].round_no] if newest else 0
    told = rest.waiting([*rest.hot, *rest.cold])
    waits = dict.fromkeys(rest.cold, 0)
    for _ in range(MOST_WAITS):
        try:
            return Dispatch(rest.spec, rest.done, told, waits, rest.now_s, later, widen).run()
        except Missed as missed:
            n = missed.round_no if missed.round_no in waits else missed.loaded
            if n is None:
                break
            waits[n] += missed.by_s
    return None


def _searched(rest: _Rest, kept: Board, widen: int, horizon: int) -> list[Task] | None:
    """The breads on the heat first, in several orders; what waits moved all alike, or placed anew where they are few: what ends soonest."""
    waiting = rest.waiting(rest.cold)
    follow, last = _following(rest, waiting, widen), _end(waiting)
    best: tuple[int, list[Task], int] | None = None  # its end, what is placed, by how much what waits is moved
    for order in islice(permutations(rest.hot), MOST_ORDERS):
        board = kept.copy(kept.horizon)
        if not all(board.insert(n, rest.now_s, rest.now_s, False, widen, rest.done[n], rest.told[n]) for n in order):
            continue
        by = _moved(rest.spec, board, waiting, follow)
        if by is not None:
            end = max(_end(board.tasks), last + by if waiting else 0)
            if best is None or end < best[0]:
                best = end, board.tasks, by
        if waiting and len(rest.cold) <= FEW:
            for late, paced in product((True, False), (False, True)):
                placed = _anew(rest, board, late, widen, horizon, paced)
                if placed is not None and (best is None or _end(placed) < best[0]):
                    best = _end(placed), placed, 0
    if best is None:
        return None
    placed_already = {(t.round_no, t.move) for t in best[1]}
    return [*best[1], *(t.later(best[2]) for t in waiting if (t.round_no, t.move) not in placed_already)]


def _anew(rest: _Rest, hot: Board, late: bool, widen: int, horizon: int, paced: bool) -> list[Task] | None:
    """What waits, each bread as early as it goes beside what is on the heat, or (`paced`) its load no sooner after the one before than planned."""
    board = hot.copy(horizon)
    since, before = 0, None
    for n in rest.cold:
        shape = rest.spec.moves(n)
        at = rest.told[n][shape.names[shape.load]].start_s
        if paced and before is not None:
            since += at - before
        if not board.insert(n, rest.now_s, since if paced else 0, late, widen, rest.done[n]):
            return None
        since = board.loaded_s(n)
        before = at
    return board.tasks


@dataclass(frozen=True)
class _Following:
    """What waits, as the bits of each cook when it is moved by `least` seconds, and by how much more it may be moved."""

    hands: tuple[int, ...]
    least: int
    more: int


def _following(rest: _Rest, waiting: Sequence[Task], widen: int) -> _Following | None:
    """How what waits may follow as it was planned, all of it moved by one amount; None when a rolled round's rest forbids that."""
    if not waiting:
        return None
    spec = rest.spec
    least = rest.now_s - min(t.start_s + _op(spec, t.round_no, t.move)[1].off_surface_s for t in waiting)
    most = least + max(o.hands_s + o.then_max_s for k in spec.kinds for o in k.ops) + spec.held_s
    for n, own in rest.done.items():  # rolled, and waiting for its place: not sooner nor later than its rest allows
        mine = [t.start_s for t in waiting if t.round_no == n] if own else []
        if mine:
            op, gap = _op(spec, n, own[-1].move)[1], min(mine) - own[-1].end_s
            least, most = max(least, op.then_min_s - gap), min(most, op.then_max_s + widen - gap)
    if most < least:
        return None
    hands = [0] * spec.cooks
    for t in waiting:
        bits = ((1 << (t.end_s - t.start_s)) - 1) << (t.start_s + least)
        if hands[t.cook - 1] & bits:
            return None  # what is done again comes in between
        hands[t.cook - 1] |= bits
    return _Following(tuple(hands), least, most - least)


def _moved(spec: LineSpec, board: Board, waiting: Sequence[Task], follow: _Following | None) -> int | None:
    """By how many seconds what waits is moved as it was planned: the least that fits beside what is on the heat; None when nothing does."""
    if not waiting:
        return 0
    if follow is None:
        return None
    for more in range(follow.more + 1):
        clear = all(not taken & mask << more for taken, mask in zip(board.taken, follow.hands, strict=True))
        if clear and _places_free(spec, board, waiting, follow.least + more):
            return follow.least + more
    return None


def _places_free(spec: LineSpec, board: Board, waiting: Sequence[Task], by: int) -> bool:
    """Whether the breads that wait find places free, on whichever spot, and at each station: the first to come takes what is free first."""
    loads: list[int] = []
    there: dict[str, list[int]] = {s.name: [] for s in spec.stations}
    for t in waiting:
        op = _op(spec, t.round_no, t.move)[1]
        if op.takes_spot:
            loads.append(t.start_s + by + op.off_surface_s)
        if op.takes:
            there[op.takes].append(t.start_s + by)
    pairs = [(loads, board.free_at), *((starts, board.there[name]) for name, starts in there.items())]
    return all(at >= free for comes, frees in pairs for at, free in zip(sorted(comes), sorted(frees), strict=False))


def _op(spec: LineSpec, number: int, move: str) -> tuple[int, Op]:
    moves = spec.moves(number)
    k = moves.at[move]
    return k, moves.ops[k]
