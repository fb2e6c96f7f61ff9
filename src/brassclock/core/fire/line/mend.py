"""A line after a slip: what began stays, the rest follows as it was told, windows stretched as little as can be."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

from brassclock.core.fire.line.dispatch import Dispatch
from brassclock.core.fire.line.spec import LineSpec, Task

LITTLE_S, WORTH = 8, 4  # judgement: a second of a window is worth four of the line, up to so much of it
# how far windows stretch where they must; the last: whatever it takes
WIDEN_S = (LITTLE_S, 12, 16, 24, 40, 60, 90, 300, 3600)


@dataclass(frozen=True)
class Repair:
    """A line after a slip: every task, by how far windows were stretched [s], and when it ends now."""

    tasks: tuple[Task, ...]
    widened_s: int
    makespan_s: int


def replan(
    spec: LineSpec,
    line: Sequence[Task],
    now_s: int,
    began: Mapping[tuple[int, str], int],
    gone: Collection[int] = (),
    lies: Mapping[int, int] | None = None,
    told_end_s: int | None = None,
) -> Repair | None:
    """The line again from now: what `began` (round, move: second) stays as it was, the rest follows, each move at its
    time or as soon after as it goes.

    Where that ends later than `told_end_s` (the line's own end and the slip, where it is not given), windows are
    stretched a little if the line gains by it; and as far as it takes where a bread would miss its own. Rounds that are
    `gone` (they fell) want nothing more; `lies` is the spot that a round really took. None when no stretch brings every
    bread through.
    """
    told = by_round(line)
    for n, spot in (lies or {}).items():
        told[n] = {move: t._replace(spot=spot) for move, t in told[n].items()}
    done: dict[int, list[Task]] = {n: [] for n in told}
    for (n, move), start in sorted(began.items(), key=lambda x: x[1]):
        done[n].append(told[n][move]._replace(start_s=start, end_s=start + spec.moves(n).op(move).hands_s))
    slips = {n: own[-1].start_s - told[n][own[-1].move].start_s for n, own in done.items() if own}
    ahead = [
        t
        for n, own in told.items()
        if n not in gone and len(done[n]) < len(own)
        for t in _anew_rolled(spec, own, done[n], now_s).values()
        if (n, t.move) not in began
    ]
    dispatch = Dispatch(spec, done, ahead, now_s, _load_slip(spec, done, slips))
    found = [dispatch.run(0)]
    held = _end(line) + max(slips.values(), default=0) if told_end_s is None else told_end_s
    if found[0] is None:
        found.append(_stretched_least(dispatch))
    elif _end(found[0]) > held:
        found.append(dispatch.run(LITTLE_S))
    lines = [tuple(sorted(x, key=lambda t: (t.start_s, t.round_no))) for x in found if x is not None]
    if not lines:
        return None
    repairs = [Repair(tasks, _stretched(spec, tasks, began), _end(tasks)) for tasks in lines]
    return min(repairs, key=lambda r: r.makespan_s + WORTH * r.widened_s)


def by_round(line: Sequence[Task]) -> dict[int, dict[str, Task]]:
    """The moves of each round by their names, rounds in their order."""
    told: dict[int, dict[str, Task]] = {n: {} for n in sorted({t.round_no for t in line})}
    for t in line:
        told[t.round_no][t.move] = t
    return told


def _stretched_least(dispatch: Dispatch) -> list[Task] | None:
    """The line with windows stretched by the least of WIDEN_S that brings every bread through (what does will do with
    more); None where none does."""
    lines: dict[int, list[Task] | None] = {}

    def goes(widen: int) -> bool:
        lines[widen] = dispatch.run(widen)
        return lines[widen] is not None

    least = bisect_left(WIDEN_S, True, key=goes)
    return lines[WIDEN_S[least]] if least < len(WIDEN_S) else None


def _load_slip(spec: LineSpec, done: Mapping[int, Sequence[Task]], slips: Mapping[int, int]) -> int:
    """Delay of the round loaded last [s]."""
    loaded = [own for n, own in done.items() if len(own) > spec.moves(n).load]
    newest = max(loaded, key=lambda own: own[spec.moves(own[0].round_no).load].start_s, default=None)
    return slips[newest[0].round_no] if newest else 0


def _stretched(spec: LineSpec, tasks: Sequence[Task], began: Mapping[tuple[int, str], int]) -> int:
    """By how much the longest window ahead is overstepped [s]."""
    most = 0
    before: dict[int, Task] = {}
    for t in tasks:
        last = before.get(t.round_no)
        if last is not None and (t.round_no, t.move) not in began:
            most = max(most, t.start_s - last.end_s - spec.moves(t.round_no).op(last.move).then_max_s)
        before[t.round_no] = t
    return most


def _anew_rolled(spec: LineSpec, told: Mapping[str, Task], done: Sequence[Task], now_s: int) -> Mapping[str, Task]:
    """A round's moves as they were told; what was to be done to it before, and is to be done again, comes right before
    its load."""
    shape = spec.moves(next(iter(told.values())).round_no)
    if all(told[shape.names[k]].end_s + shape.ops[k].then_max_s >= now_s for k in range(shape.load)):
        return told  # nothing of it is overdue
    found, began = dict(told), {t.move for t in done}
    for k in range(shape.load - 1, -1, -1):
        op, t, follows = shape.ops[k], found[shape.names[k]], found[shape.names[k + 1]]
        if t.move not in began and t.end_s + op.then_max_s < now_s:
            start = max(t.start_s, follows.start_s - op.then_min_s - op.hands_s)
            found[t.move] = t.later(start - t.start_s)
    return found


def _end(tasks: Iterable[Task]) -> int:
    return max((t.end_s for t in tasks), default=0)
