"""`line` of the contract: many breads, a few spots, one pair of hands or more."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from brassclock.core.cautions import caution
from brassclock.core.evidence import FieldFault, Input, Kind, Why, gather, refuse
from brassclock.core.fire.line.plan import plan_line, saved_s
from brassclock.core.fire.line.spec import LineSpec, Op, calm
from brassclock.services.compute.common import Loose
from brassclock.services.given import within
from brassclock.services.sheets import caution_out

Seconds = Annotated[int, Field(ge=0, le=3600)]
MOST_BREADS, MOST_SPOTS, MOST_COOKS = 200, 12, 6


class OpReq(Loose):
    name: Annotated[str, Field(min_length=1, max_length=40)]
    hands_s: Annotated[int, Field(ge=1, le=600)]
    off_surface_s: Seconds = 0
    pieces: Annotated[int, Field(ge=1, le=4)] = 1
    takes_spot: bool = False
    frees_spot: bool = False
    then_min_s: Seconds = 0
    then_max_s: Seconds | None = None

    @model_validator(mode="after")
    def _gap(self) -> OpReq:
        if self.then_max_s is not None and self.then_max_s < self.then_min_s:
            raise ValueError(
                f"then_max_s {self.then_max_s} lies before then_min_s {self.then_min_s}. Give the later one last."
            )
        return self


class ResourceReq(Loose):
    name: Annotated[str, Field(max_length=40)]
    count: Annotated[int, Field(ge=1, le=12)] = 1


class LineReq(Loose):
    breads: Annotated[int, Field(ge=1, le=MOST_BREADS)]
    cooks: Annotated[int, Field(ge=1, le=MOST_COOKS)] = 1
    spots: Annotated[int, Field(ge=1, le=MOST_SPOTS)] = 1
    recover_s: Annotated[float, within(0, 3600, "s")]
    ops: Annotated[list[OpReq], Field(min_length=1, max_length=16)]
    exec_tol_s: Annotated[float, within(0, 60, "s")] = 0.0
    pace: Literal["fast", "calm"] = "fast"
    resources: Annotated[list[ResourceReq], Field(max_length=8)] = []


HALF_GAP_S = 15  # a move in pieces: the next piece at most so much later


def _ops(q: LineReq) -> list[Op]:
    found: list[Op] = []
    for o in q.ops:
        gap = o.then_max_s if o.then_max_s is not None else o.then_min_s
        each, more = divmod(o.hands_s, o.pieces)
        for piece in range(o.pieces):
            last = piece == o.pieces - 1
            name = o.name if o.pieces == 1 else f"{o.name} {piece + 1}"
            found.append(
                Op(
                    name, each + (more if last else 0), o.then_min_s if last else 0,
                    gap + round(q.exec_tol_s) if last else HALF_GAP_S, o.off_surface_s if piece == 0 else 0,
                    o.takes_spot and piece == 0, o.frees_spot and last,
                )
            )  # fmt: skip
    return found


def run_line(q: LineReq) -> dict[str, Any]:
    """Plan the line. Raises BadRequest with every fault."""
    faults = []
    names = [o.name for o in q.ops]
    for i, o in enumerate(q.ops):
        if names.index(o.name) != i:
            faults.append(FieldFault(f"/ops/{i}/name", f"Two moves are called “{o.name}”. Give each its own name."))
        if o.off_surface_s > o.hands_s:
            faults.append(
                FieldFault(
                    f"/ops/{i}/off_surface_s",
                    f"{o.off_surface_s} s off the surface is more than the move's {o.hands_s} s.",
                )
            )
    for flag, word in (("takes_spot", "takes"), ("frees_spot", "frees")):
        if sum(getattr(o, flag) for o in q.ops) != 1:
            faults.append(FieldFault("/ops", f"Exactly one move {word} the spot: mark it with {flag}."))
    takes = [i for i, o in enumerate(q.ops) if o.takes_spot]
    frees = [i for i, o in enumerate(q.ops) if o.frees_spot]
    if takes and frees and frees[0] < takes[0]:
        faults.append(
            FieldFault(f"/ops/{frees[0]}", "The spot is freed before it is taken. Put the moves in their order.")
        )
    gather(faults)
    spec = LineSpec(tuple(_ops(q)), q.spots, q.cooks, round(q.recover_s))
    if q.pace == "calm":
        spec = calm(spec)
    try:
        line = plan_line(spec, q.breads)
        spot, cook = saved_s(spec, q.breads, line)
    except ValueError as fault:
        raise refuse("/ops", str(fault)) from None
    why = Why(
        "The line", "every hand move where its cook is free; each gap between then_min_s and then_max_s",
        "Breads are set in one after the other at several paces, and as a rhythm that repeats; the shorter is shown. The bound says what no line can beat.",
        (Input("hands for one bread", spec.hands_s, "s"), Input("a spot is held", spec.held_s, "s"), Input("spots", q.spots, ""), Input("cooks", q.cooks, "")),
        Kind.ANALYTIC, matters=("The seconds of hands a bread takes, and how long it holds its spot.",),
    )  # fmt: skip
    return {
        "makespan_s": line.makespan_s, "lower_bound_s": line.lower_bound_s, "bottleneck": line.bottleneck, "cycle_s": line.cycle_s,
        "tasks": [
            {"bread": t.round_no, "op": t.move, "cook": t.cook, "spot": t.spot, "start_s": t.start_s, "end_s": t.end_s}
            for t in line.tasks
        ],
        "towel_wait_s": list(line.towel_wait_s), "another_spot_saves_s": spot, "another_cook_saves_s": cook, "how": line.method,
        "cautions": [c.model_dump() for c in caution_out([caution("hot_surface")])], "why": {"makespan_s": why.as_dict()},
    }  # fmt: skip
