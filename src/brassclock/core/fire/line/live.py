"""The line as it is being baked: the planned one, mended by every move that was made.

A pure function of the plan and the moves; between two moves it stands, so every tablet sees the same one. Rolling and brushing are not tapped:
a round that is on the heat was rolled, one that waits is taken to be rolled when the plan, as late as the last load was, has it so.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from brassclock.core.fire.hearth import LOST, Tap
from brassclock.core.fire.line.mend import replan
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import LineSpec, Task


@dataclass(frozen=True)
class LiveLine:
    """What is still to be done, in seconds on the taps' clock; when the last is wrapped; how much later that is than it was to be."""

    tasks: tuple[Task, ...]
    off_s: dict[int, int]
    late_s: float

    def contact_s(self, spec: LineSpec) -> dict[int, float]:
        """When each waiting round is to touch its spot."""
        return {
            t.round_no: t.start_s + spec.moves(t.round_no).ops[spec.moves(t.round_no).load].off_surface_s
            for t in self.tasks
            if t.move == "load"
        }


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
        if m.kind == LOST and (m.round_no, "load") not in planned:
            continue
        at = round(m.at_s) - zero - (lead[m.round_no] if m.kind == "load" else 0)
        began[m.round_no, "off" if m.kind == LOST else m.kind] = max(at, 0)
    last = max(loads, key=lambda m: m.at_s).round_no
    late = began[last, "load"] - planned[last, "load"].start_s
    for n in range(1, breads + 1):
        shape = spec.moves(n)
        loaded, off = began.get((n, "load")), began.get((n, "off"))
        for k, op in enumerate(shape.ops):
            task = planned[n, op.name]
            if k < shape.load and (loaded is not None or task.start_s + late + op.hands_s <= now):
                latest = (loaded if loaded is not None else now) - shape.between_s(k, shape.load - 1)
                began[n, op.name] = max(min(task.start_s + late, latest), 0)
            elif op.name == "brush" and off is not None and now >= off + shape.ops[k - 1].hands_s + op.hands_s:
                began[n, op.name] = off + shape.ops[k - 1].hands_s
    found = replan(spec, line.tasks, now, began, gone)
    if found is None:
        return None
    rest = tuple(
        Task(t.round_no, t.move, t.spot, t.cook, t.start_s + zero, t.end_s + zero)
        for t in found.tasks
        if (t.round_no, t.move) not in began
    )
    off_s = {t.round_no: t.end_s for t in rest if t.move == "off"}
    return LiveLine(rest, off_s, float(found.makespan_s - line.makespan_s))
