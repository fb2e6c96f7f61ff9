"""The line as it is being baked: the planned one, mended by every move that was made.

A pure function of the plan and the moves; between two moves it stands, so every tablet sees the same one. Rolling and
brushing are not tapped: a round that is on the heat was rolled, one that waits is taken to be rolled when the line, as
it was told last, had it so.
"""

from __future__ import annotations

from collections import deque
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import pairwise

from brassclock.core.fire.hearth import LOST, Tap
from brassclock.core.fire.line.mend import replan
from brassclock.core.fire.line.pace import PACED
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import Line, LineSpec, Moves, Task


@dataclass(frozen=True)
class LiveLine:
    """Remaining moves in seconds on the taps' clock; contact and take-off of each round; delay of the last wrap over
    the plan [s]."""

    tasks: tuple[Task, ...]
    contact_s: dict[int, float]
    off_s: dict[int, int]
    late_s: float


@dataclass(frozen=True)
class _Told:
    """The line as it was planned; as it stands after some moves, whole; what is ahead; how late it ends [s]; whether it
    brings every bread through."""

    planned: Line
    tasks: tuple[Task, ...]
    ahead: tuple[Task, ...] = ()
    late_s: int = 0
    holds: bool = True


def _lead(spec: LineSpec, round_no: int) -> int:
    """Seconds of hands at a load before the bread touches."""
    shape = spec.moves(round_no)
    return shape.ops[shape.load].off_surface_s


def _zero(spec: LineSpec, plan: Line, moves: tuple[Tap, ...]) -> int:
    """The plan's second 0 on the taps' clock: its first load is the first that was made."""
    first = next(m for m in moves if m.kind == "load")
    planned = next(t.start_s for t in plan.tasks if (t.round_no, t.move) == (first.round_no, "load"))
    return round(first.at_s) - _lead(spec, first.round_no) - planned


KEPT_STEPS = 6  # of a line's last moves: to go on from, and to undo
REPLAYED = 40  # moves that are followed one by one when a line is taken up in its midst


class Follower:
    """A line that is followed move by move: one more move is one step, an undone one goes back to the step before it.

    A pure function of the plan and the moves but for a line taken up in its midst: there all but the last REPLAYED
    moves are one step, so that taking it up costs no more than that. Not for two threads at once.
    """

    def __init__(self, spec: LineSpec, breads: int, most: int) -> None:
        """`most` is how many placements the plan itself may try."""
        self.spec, self.breads, self.most = spec, breads, most
        self._steps: deque[tuple[tuple[Tap, ...], _Told]] = deque(maxlen=KEPT_STEPS)

    def follow(self, moves: Sequence[Tap]) -> LiveLine | None:
        """The rest of the line after these moves (load, turn, off, fell); None before the first, and when no stretch
        brings every bread through."""
        if not any(m.kind == "load" for m in moves):
            return None
        made = tuple(sorted(moves, key=lambda m: m.at_s))
        told = self._told(made)
        if not told.holds:
            return None
        zero = _zero(self.spec, told.planned, made)
        rest = tuple(t.later(zero) for t in told.ahead)
        contact_s = {t.round_no: float(t.start_s + _lead(self.spec, t.round_no)) for t in rest if t.move == "load"}
        return LiveLine(rest, contact_s, {t.round_no: t.end_s for t in rest if t.move == "off"}, float(told.late_s))

    def _told(self, made: tuple[Tap, ...]) -> _Told:
        known = [(m, told) for m, told in self._steps if made[: len(m)] == m]
        if known:
            done, told = max(known, key=lambda x: len(x[0]))
        else:
            plan = plan_line(self.spec, self.breads, self.most)
            done, told = (), _Told(plan, plan.tasks)
        if len(made) - len(done) > REPLAYED:
            done = made[: len(made) - REPLAYED]
            told = _after(self.spec, self.breads, told, done)
        for n in range(len(done) + 1, len(made) + 1):
            told = _after(self.spec, self.breads, told, made[:n])
            self._steps.append((made[:n], told))
        return told


def follow(spec: LineSpec, breads: int, moves: Sequence[Tap], most: int) -> LiveLine | None:
    """The rest of a line after these moves, followed anew."""
    return Follower(spec, breads, most).follow(moves)


def _after(spec: LineSpec, breads: int, before: _Told, moves: tuple[Tap, ...]) -> _Told:
    """The line after these moves, in time order, from the one that was told before the last of them."""
    zero = _zero(spec, before.planned, moves)
    told = {(t.round_no, t.move): t for t in before.tasks}
    now = round(moves[-1].at_s) - zero
    began: dict[tuple[int, str], int] = {}
    gone = {m.round_no for m in moves if m.kind == LOST}
    for m in moves:
        at = round(m.at_s) - zero - (_lead(spec, m.round_no) if m.kind == "load" else 0)
        began[m.round_no, "off" if m.kind == LOST else m.kind] = max(at, 0)
    newest = told.get((moves[-1].round_no, "off" if moves[-1].kind == LOST else moves[-1].kind))
    reached = now if newest is None else newest.start_s + (_lead(spec, newest.round_no) if newest.move == "load" else 0)
    if len(moves) > 1:
        reached = max(reached, round(moves[-2].at_s) - zero)
    for n in range(1, breads + 1):
        _untapped(spec.moves(n), n, told, began, now, min(reached, now))
    lies = {m.round_no: m.spot for m in moves if m.kind == "load"}
    slip = max(0, now - reached)
    found = replan(spec, before.planned.tasks, now, began, gone, lies, max(t.end_s for t in before.tasks) + slip)
    if found is None:
        return replace(before, ahead=(), holds=False)
    ahead = tuple(t for t in found.tasks if (t.round_no, t.move) not in began)
    late_s = found.makespan_s - before.planned.makespan_s
    return _Told(before.planned, found.tasks, ahead, late_s)


def _untapped(
    shape: Moves,
    n: int,
    told: Mapping[tuple[int, str], Task],
    began: dict[tuple[int, str], int],
    now: int,
    reached: int,
) -> None:
    """Moves of a round that nobody taps, where the line had it before what the hands have `reached`: rolled and
    topped before the heat, brushed after it; and a move that was left out."""
    for op in shape.ops[: shape.load]:
        at = told[n, op.name].start_s
        waits = at <= reached and now <= at + op.hands_s + op.then_max_s  # longer ago, and it is rolled again
        if (n, "load") not in began and not waits:
            break
        if waits:
            began[n, op.name] = max(at, 0)
    for before, op in pairwise(shape.ops[shape.load : shape.unload]):  # done on the heat without a tap
        told_at = told.get((n, op.name))
        if op.name not in PACED and told_at is not None and (n, before.name) in began and told_at.start_s <= reached:
            began.setdefault((n, op.name), max(told_at.start_s, began[n, before.name] + before.hands_s))
    off, brush = began.get((n, "off")), told.get((n, "brush"))
    if off is not None and brush is not None:
        at = max(brush.start_s, off + shape.ops[shape.unload].hands_s)
        if at <= reached:
            began[n, "brush"] = at
    follows: int | None = None
    for op in reversed(shape.ops):
        at_s = began.get((n, op.name))
        if follows is not None:
            latest = max(follows - op.hands_s, 0)
            began[n, op.name] = latest if at_s is None else min(at_s, latest)
        follows = began.get((n, op.name))
