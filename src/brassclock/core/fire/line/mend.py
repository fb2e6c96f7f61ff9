"""A line after a slip: what began stays, the rest is placed anew, windows stretched as little as can be."""

from __future__ import annotations

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import islice, permutations, product

from brassclock.core.fire.line.board import Board
from brassclock.core.fire.line.spec import LineSpec, Op, Task

# how far a window may stretch when something slipped; the last: whatever it takes
WIDEN_S = (0, 8, 12, 16, 24, 40, 60, 90, 300, 3600)
FEW = 30  # breads: up to so many are also placed anew, to see whether that ends sooner
MOST_ORDERS = 6  # in which breads on the heat are served, when a line is mended


@dataclass(frozen=True)
class Repair:
    """A line after a slip: every task, by how far windows were stretched [s], and when it ends now."""

    tasks: tuple[Task, ...]
    widened_s: int
    makespan_s: int


def replan(
    spec: LineSpec, line: Sequence[Task], now_s: int, began: Mapping[tuple[int, str], int], gone: Collection[int] = (),
    lies: Mapping[int, int] | None = None,
) -> Repair | None:  # fmt: skip
    """The line again from now: what `began` (round, move: second) stays as it was, the rest follows, windows as little stretched as can be.

    Breads on the heat come first; those that wait keep the planned line, moved as little as will fit, or are placed anew where that ends sooner.
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
    hot = [n for n in ahead if len(done[n]) > spec.moves(n).load]
    cold = [n for n in ahead if n not in hot]
    kept = [t for own in done.values() for t in own]
    waiting = [t for t in line if t.round_no in cold and (t.round_no, t.move) not in began]
    last = max((t.end_s for t in waiting), default=0)
    for widen in WIDEN_S:
        # its end, what is placed, by how much the rest is moved (None: it is placed too)
        best: tuple[int, list[Task], int | None] | None = None
        follow = _following(spec, waiting, done, now_s, widen)
        for order, late in product(islice(permutations(hot), MOST_ORDERS), (True, False)):
            board = Board(spec, now_s + 2 * longest)
            for task in kept:
                board.keep(task, _op(spec, task.round_no, task.move)[0])
            if not all(board.insert(n, now_s, now_s, late, widen, done[n]) for n in order):
                continue
            by = _moved(spec, board, waiting, follow)
            if by is not None:
                end = max(_end(board.tasks), last + by if waiting else 0)
                if best is None or end < best[0]:
                    best = end, list(board.tasks), by
            if waiting and (best is None or len(cold) <= FEW):
                for paced in (False, True):
                    placed = _anew(spec, board, cold, planned, done, now_s, late, widen, horizon, paced)
                    if placed is not None and (best is None or _end(placed) < best[0]):
                        best = _end(placed), placed, None
        if best is not None:
            end, placed, by = best
            rest = [] if by is None else [replace(t, start_s=t.start_s + by, end_s=t.end_s + by) for t in waiting]
            return Repair(tuple(sorted([*placed, *rest], key=lambda t: (t.start_s, t.round_no))), widen, end)
    return None


def _end(tasks: Sequence[Task]) -> int:
    return max(t.end_s for t in tasks)


def _anew(
    spec: LineSpec, hot: Board, cold: Sequence[int], planned: Mapping[tuple[int, str], Task], done: Mapping[int, Sequence[Task]], now_s: int,
    late: bool, widen: int, horizon: int, paced: bool,
) -> list[Task] | None:  # fmt: skip
    """What waits, each bread as early as it goes beside what is on the heat, or (`paced`) its load no sooner after the one before than planned."""
    board = hot.copy(horizon)
    since, before = 0, None
    for n in cold:
        at = planned[n, spec.moves(n).names[spec.moves(n).load]].start_s
        if paced and before is not None:
            since += at - before
        if not board.insert(n, now_s, since if paced else 0, late, widen, done[n]):
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


def _following(
    spec: LineSpec, waiting: Sequence[Task], done: Mapping[int, Sequence[Task]], now_s: int, widen: int
) -> _Following | None:  # fmt: skip
    """How what waits may follow as it was planned, all of it moved by one amount; None when a rolled round's rest forbids that."""
    if not waiting:
        return None
    least = now_s - min(t.start_s + _op(spec, t.round_no, t.move)[1].off_surface_s for t in waiting)
    most = least + max(o.hands_s + o.then_max_s for k in spec.kinds for o in k.ops) + spec.held_s
    for n, own in done.items():  # rolled, and waiting for its place: not sooner nor later than its rest allows
        mine = [t.start_s for t in waiting if t.round_no == n] if own else []
        if mine:
            op, gap = _op(spec, n, own[-1].move)[1], min(mine) - own[-1].end_s
            least, most = max(least, op.then_min_s - gap), min(most, op.then_max_s + widen - gap)
    if most < least:
        return None
    hands = [0] * spec.cooks
    for t in waiting:
        hands[t.cook - 1] |= ((1 << (t.end_s - t.start_s)) - 1) << (t.start_s + least)
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
    k = moves.names.index(move)
    return k, moves.ops[k]
