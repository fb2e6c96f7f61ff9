"""A line after a slip: what began stays, the rest is placed anew, windows stretched as little as can be."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from itertools import islice, permutations, product

from brassclock.core.fire.line.board import Board
from brassclock.core.fire.line.spec import LineSpec, Op, Task

WIDEN_S = (0, 8, 12, 16, 24, 40, 60, 90)  # how far a window may stretch when something slipped
MOST_ORDERS = 6  # in which breads on the heat are served, when a line is mended


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
    breads = sorted({t.round_no for t in line})
    planned = {(t.round_no, t.move): t for t in line}
    longest = max(k.longest_s for k in spec.kinds)
    horizon = now_s + 2 * (len(breads) + 2) * (spec.held_s + spec.hands_s) + longest
    done: dict[int, list[Task]] = {number: [] for number in breads}
    for (number, move), start in sorted(began.items(), key=lambda x: x[1]):
        done[number].append(
            replace(planned[number, move], start_s=start, end_s=start + _op(spec, number, move)[1].hands_s)
        )
    ahead = [n for n in breads if len(done[n]) < len(spec.moves(n).ops)]
    hot = [n for n in ahead if len(done[n]) > spec.moves(n).load]
    cold = [n for n in ahead if n not in hot]
    kept = [t for own in done.values() for t in own]
    for widen in WIDEN_S:
        for order, late in product(islice(permutations(hot), MOST_ORDERS), (True, False)):
            board = Board(spec, horizon)
            for task in kept:
                board.keep(task, _op(spec, task.round_no, task.move)[0])
            if all(board.insert(n, now_s, now_s, late, widen, done[n]) for n in (*order, *cold)):
                tasks = tuple(sorted(board.tasks, key=lambda t: (t.start_s, t.round_no)))
                return Repair(tasks, widen, max(t.end_s for t in tasks))
    return None


def _op(spec: LineSpec, number: int, move: str) -> tuple[int, Op]:
    moves = spec.moves(number)
    k = moves.names.index(move)
    return k, moves.ops[k]
