"""The line as it is being baked: the planned one, mended by every move that was made.

A pure function of the plan and the moves; between two moves it stands, so every tablet sees the same one. Rolling and brushing are not tapped:
a round that is on the heat was rolled, one that waits is taken to be rolled when the plan, as late as the last load was, has it so.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

from brassclock.core.fire.hearth import LOST, Tap
from brassclock.core.fire.line.mend import replan
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import LineSpec, Moves, Task


@dataclass(frozen=True)
class LiveLine:
    """What is still to be done, in seconds on the taps' clock; when each round touches its spot and comes off; how much later the last is
    wrapped than it was to be.
    """

    tasks: tuple[Task, ...]
    contact_s: dict[int, float]
    off_s: dict[int, int]
    late_s: float


@lru_cache(maxsize=256)
def follow(spec: LineSpec, breads: int, moves: tuple[Tap, ...], budget_s: float) -> LiveLine | None:
    """The rest of a line after these moves (load, turn, off, fell); None before the first, and when no stretch brings every bread through.

    `budget_s` is what the plan itself may be looked for.
    """
    loads = [m for m in moves if m.kind == "load"]
    if not loads:
        return None
    line = plan_line(spec, breads, budget_s)
    planned = {(t.round_no, t.move): t for t in line.tasks}
    lead = {n: spec.moves(n).ops[spec.moves(n).load].off_surface_s for n in range(1, breads + 1)}
    first = min(loads, key=lambda m: m.at_s)
    zero = round(first.at_s) - lead[first.round_no] - planned[first.round_no, "load"].start_s
    now = round(max(m.at_s for m in moves)) - zero
    began: dict[tuple[int, str], int] = {}
    gone = {m.round_no for m in moves if m.kind == LOST}
    for m in moves:
        at = round(m.at_s) - zero - (lead[m.round_no] if m.kind == "load" else 0)
        began[m.round_no, "off" if m.kind == LOST else m.kind] = max(at, 0)
    last = max(loads, key=lambda m: m.at_s).round_no
    late = began[last, "load"] - planned[last, "load"].start_s
    for n in range(1, breads + 1):
        _untapped(spec.moves(n), n, planned, began, late, now)
    found = replan(spec, line.tasks, now, began, gone, {m.round_no: m.spot for m in loads})
    if found is None:
        return None
    rest = tuple(
        Task(t.round_no, t.move, t.spot, t.cook, t.start_s + zero, t.end_s + zero)
        for t in found.tasks
        if (t.round_no, t.move) not in began
    )
    off_s = {t.round_no: t.end_s for t in rest if t.move == "off"}
    contact_s = {t.round_no: float(t.start_s + lead[t.round_no]) for t in rest if t.move == "load"}
    return LiveLine(rest, contact_s, off_s, float(found.makespan_s - line.makespan_s))


def _untapped(
    shape: Moves, n: int, planned: Mapping[tuple[int, str], Task], began: dict[tuple[int, str], int], late: int, now: int
) -> None:  # fmt: skip
    """What a round had done to it that nobody taps: rolled and topped before the heat, brushed after it; and a move that was left out."""
    for op in shape.ops[: shape.load]:
        at = planned[n, op.name].start_s + late
        waits = at <= now <= at + op.hands_s + op.then_max_s  # in hand or resting; longer ago, and it is rolled again
        if (n, "load") not in began and not waits:
            break
        if waits:
            began[n, op.name] = max(at, 0)
    off, last = began.get((n, "off")), shape.ops[-1]
    if off is not None and last.name == "brush" and now >= off + shape.ops[-2].hands_s:
        began[n, "brush"] = off + shape.ops[-2].hands_s
    follows: int | None = None
    for op in reversed(shape.ops):
        at_s = began.get((n, op.name))
        if follows is not None:
            latest = max(follows - op.hands_s, 0)
            began[n, op.name] = latest if at_s is None else min(at_s, latest)
        follows = began.get((n, op.name))
