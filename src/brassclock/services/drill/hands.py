"""*Plan the hands*: a line to be put in order, as it is shown, timed as it grows, and beside ours."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import TypeAdapter

from brassclock.core.drill.hands import Hands, Kit, Move, hands_case, planned, points, why_line
from brassclock.core.errors import invalid
from brassclock.core.fire.line.spec import Task
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.drill.judged import Judged
from brassclock.services.fire import model as fire_model
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.drill import (
    HandMove,
    HandsAnswer,
    HandsRead,
    HandsTruth,
    LineMoveRead,
    OrderRead,
    TaskRead,
)
from brassclock.services.solve import BakeResult

OWN = TypeAdapter(Kit)
case = hands_case
BREADS = (4, 10)  # at the least, at the most
MOST_SPOTS = 3
MOST_OFF_S = 600.0
MOST_RECOVER_S = 60


def own_of(r: BakeSnapshot, work: BakeResult) -> Kit | None:
    """The line of a bake with its own times, spots and hands; None where a bread is not turned, or lies there long."""
    turn_s, off_s, recover_s = fire_model.timing_of(r.bake, work.program)
    if turn_s is None or off_s > MOST_OFF_S or surface_of(r.surface).spec.way not in ("turned", "lidded"):
        return None
    return Kit(
        r.bake.name,
        round(turn_s),
        round(off_s),
        min(round(recover_s), MOST_RECOVER_S),
        min(fire_model.spots_of(r), MOST_SPOTS),
        min(r.kitchen.cooks, 2),
        max(BREADS[0], min(r.bake.count or BREADS[0], BREADS[1])),
    )


def shown(found: Hands) -> HandsRead:
    """A case before it is answered."""
    kit = found.kit
    return HandsRead(
        bread=kit.name,
        breads=kit.breads,
        cooks=kit.cooks,
        spots=kit.spots,
        recover_s=kit.recover_s,
        turn_s=kit.turn_s,
        off_s=kit.off_s,
        moves=[
            LineMoveRead(name=o.name, hands_s=o.hands_s, then_min_s=o.then_min_s, then_max_s=o.then_max_s)
            for o in found.spec.kinds[0].ops
        ],
    )


def order_out(found: Hands, moves: Sequence[HandMove]) -> OrderRead:
    """An order as far as it has come: timed, and what can come next."""
    order = _order(moves)
    done = planned(found, order)
    names, count = found.moves, [sum(m.name == name for m in order) for name in found.moves]
    on = count[found.spec.kinds[0].load] - count[found.spec.kinds[0].unload]
    able = [
        name
        for k, name in enumerate(names)
        if count[k] < (count[k - 1] if k else found.kit.breads)
        and (k != found.spec.kinds[0].load or on < found.kit.spots)
    ]
    return OrderRead(
        tasks=_tasks(done.tasks), ends_s=done.ends_s, broken=list(done.broken), whole=done.whole, next=able
    )


def judged(found: Hands, answer: HandsAnswer) -> Judged:
    """The score of an order, and our own order. Raises InvalidInput for one that does not bring every bread through."""
    done = planned(found, _order(answer.moves))
    if not done.whole:
        left = found.kit.breads * len(found.moves) - len(answer.moves)
        raise invalid("/hands/moves", f"{left} moves are missing. Bring every bread through to its last.")
    ours = found.ours
    truth = HandsTruth(
        yours_s=done.ends_s,
        ours_s=ours.makespan_s,
        bound_s=ours.lower_bound_s,
        broken=list(done.broken),
        held_up_by=ours.bottleneck,
        ours=_tasks(ours.tasks),
        yours=_tasks(done.tasks),
    )
    figures = {"ratio": ours.makespan_s / done.ends_s, "broken": len(done.broken)}
    return Judged(points(found, done), figures, truth, {"line": why_line(found)})


def _order(moves: Sequence[HandMove]) -> list[Move]:
    return [Move(m.move, m.cook) for m in moves]


def _tasks(tasks: Sequence[Task]) -> list[TaskRead]:
    rows = sorted(tasks, key=lambda t: (t.start_s, t.round_no))
    return [TaskRead(**t._asdict()) for t in rows]
