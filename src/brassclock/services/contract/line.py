"""`line` of the contract: many breads, a few spots, one pair of hands or more."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from brassclock.core.cautions import caution
from brassclock.core.errors import FieldFault, gather, invalid
from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.fire.line.plan import plan_line, saved_s
from brassclock.core.fire.line.spec import LineSpec, Op, Station, calm
from brassclock.core.keep.hold.model import Kept, Room
from brassclock.services.contract.common import Request
from brassclock.services.keep.kept import USUAL_X, towel
from brassclock.services.schemas.quantities import within
from brassclock.services.weigh.view import caution_out

Seconds = Annotated[int, Field(ge=0, le=3600)]
MOST_BREADS, MOST_SPOTS, MOST_COOKS = 200, 12, 6


class OpRequest(Request):
    name: Annotated[str, Field(min_length=1, max_length=40)]
    hands_s: Annotated[int, Field(ge=1, le=600)]
    off_surface_s: Seconds = 0
    pieces: Annotated[int, Field(ge=1, le=4)] = 1
    takes_spot: bool = False
    frees_spot: bool = False
    then_min_s: Seconds = 0
    then_max_s: Seconds | None = None
    takes: Annotated[str, Field(max_length=40)] = ""
    frees: Annotated[str, Field(max_length=40)] = ""

    @model_validator(mode="after")
    def _gap(self) -> OpRequest:
        if self.then_max_s is not None and self.then_max_s < self.then_min_s:
            raise ValueError(
                f"then_max_s {self.then_max_s} lies before then_min_s {self.then_min_s}. Give the later one last."
            )
        return self


class ResourceRequest(Request):
    name: Annotated[str, Field(max_length=40)]
    count: Annotated[int, Field(ge=1, le=12)] = 1
    recover_s: Seconds = 0


Ops = Annotated[list[OpRequest], Field(min_length=1, max_length=16)]


class KindRequest(Request):
    """So many breads of one kind, in a mixed line: baked in the order of the kinds, or in turn."""

    name: Annotated[str, Field(min_length=1, max_length=40)]
    breads: Annotated[int, Field(ge=1, le=MOST_BREADS)]
    ops: Ops


class LineRequest(Request):
    """`line`: `breads` of one kind by `ops`, or mixed `kinds`. An op may take and free a resource by its name."""

    breads: Annotated[int, Field(ge=1, le=MOST_BREADS)] | None = None
    cooks: Annotated[int, Field(ge=1, le=MOST_COOKS)] = 1
    spots: Annotated[int, Field(ge=1, le=MOST_SPOTS)] = 1
    recover_s: Annotated[float, within(0, 3600, "s")]
    ops: Ops | None = None
    kinds: Annotated[list[KindRequest], Field(max_length=6)] = []
    in_turn: bool = False
    loss_frac: Annotated[float, within(0, 0.4, "")] = 0.12
    exec_tol_s: Annotated[float, within(0, 60, "s")] = 0.0
    pace: Literal["fast", "calm"] = "fast"
    resources: Annotated[list[ResourceRequest], Field(max_length=8)] = []


HALF_GAP_S = 15  # a move in pieces: the next piece at most so much later


def _ops(asked: list[OpRequest], tol_s: int) -> tuple[Op, ...]:
    found: list[Op] = []
    for o in asked:
        gap = o.then_max_s if o.then_max_s is not None else o.then_min_s
        each, more = divmod(o.hands_s, o.pieces)
        for piece in range(o.pieces):
            first, last = piece == 0, piece == o.pieces - 1
            name = o.name if o.pieces == 1 else f"{o.name} {piece + 1}"
            found.append(
                Op(
                    name,
                    each + (more if last else 0),
                    o.then_min_s if last else 0,
                    gap + tol_s if last else HALF_GAP_S,
                    o.off_surface_s if first else 0,
                    o.takes_spot and first,
                    o.frees_spot and last,
                    o.takes if first else "",
                    o.frees if last else "",
                )
            )
    return tuple(found)


def _faults_of(ops: list[OpRequest], at: str, stations: set[str]) -> list[FieldFault]:
    """Faults of one kind's moves, each with its pointer."""
    faults = []
    names = [o.name for o in ops]
    for i, o in enumerate(ops):
        if names.index(o.name) != i:
            faults.append(FieldFault(f"{at}/{i}/name", f"Two moves are called “{o.name}”. Give each its own name."))
        if o.off_surface_s > o.hands_s:
            said = f"{o.off_surface_s} s off the surface is more than the move's {o.hands_s} s."
            faults.append(FieldFault(f"{at}/{i}/off_surface_s", said))
        for word in ("takes", "frees"):
            name = getattr(o, word)
            if name and name not in stations:
                said = f"“{name}” is no resource. Name it among the resources, or leave it out."
                faults.append(FieldFault(f"{at}/{i}/{word}", said))
    for flag, word in (("takes_spot", "takes"), ("frees_spot", "frees")):
        if sum(getattr(o, flag) for o in ops) != 1:
            faults.append(FieldFault(at, f"Exactly one move {word} the spot: mark it with {flag}."))
    pairs = [("the spot", [o.takes_spot for o in ops], [o.frees_spot for o in ops])]
    pairs += [(f"“{name}”", [o.takes == name for o in ops], [o.frees == name for o in ops]) for name in stations]
    for what, takes, frees in pairs:
        if (any(takes) and any(frees) and frees.index(True) < takes.index(True)) or (
            what != "the spot" and any(takes) != any(frees)
        ):
            where = f"{at}/{(frees if any(frees) else takes).index(True)}"
            faults.append(
                FieldFault(
                    where,
                    f"{what[0].upper()}{what[1:]} is freed before it is taken, or only one of both. Put the moves in "
                    "their order.",
                )
            )
    return faults


def _kinds(q: LineRequest) -> list[tuple[str, str, int, list[OpRequest]]]:
    """(where, name, breads, moves) of each kind."""
    if q.kinds:
        return [(f"/kinds/{i}/ops", k.name, k.breads, k.ops) for i, k in enumerate(q.kinds)]
    if q.ops is None:
        raise invalid("/ops", "Give the moves of a bread as ops, or the kinds of a mixed line.")
    if q.breads is None:
        raise invalid("/breads", f"Give how many breads: 1 to {MOST_BREADS}.")
    return [("/ops", "", q.breads, q.ops)]


def _order(breads: list[int], in_turn: bool) -> tuple[int, ...]:
    """The kind of each round: one kind after the other, or as evenly in turn as their numbers allow."""
    if not in_turn:
        return tuple(k for k, n in enumerate(breads) for _ in range(n))
    return tuple(k for _, k in sorted(((i + 0.5) / n, k) for k, n in enumerate(breads) for i in range(n)))


def _spec(q: LineRequest) -> tuple[LineSpec, list[str], int]:
    """(the line as asked for, the name of each round's kind, how many rounds). Raises InvalidInput with every fault."""
    kinds, stations = _kinds(q), {x.name for x in q.resources}
    faults = [fault for at, _, _, ops in kinds for fault in _faults_of(ops, at, stations)]
    total = sum(n for _, _, n, _ in kinds)
    if total > MOST_BREADS:
        faults.append(FieldFault("/kinds", f"{total} breads in all are too many. Give at most {MOST_BREADS}."))
    gather(faults)
    first, *others = (_ops(ops, round(q.exec_tol_s)) for _, _, _, ops in kinds)
    order = _order([n for _, _, n, _ in kinds], q.in_turn)
    spec = LineSpec(
        first,
        q.spots,
        q.cooks,
        round(q.recover_s),
        tuple(others),
        order if others else (),
        tuple(Station(x.name, x.count, x.recover_s) for x in q.resources),
    )
    return calm(spec) if q.pace == "calm" else spec, [kinds[k][1] for k in order], total


def run_line(q: LineRequest) -> dict[str, Any]:
    """Plan the line. Raises InvalidInput with every fault."""
    spec, names, breads = _spec(q)
    try:
        line = plan_line(spec, breads)
        spot, cook = saved_s(spec, breads, line)
    except ValueError as fault:
        raise invalid("/kinds" if q.kinds else "/ops", str(fault)) from None
    stack = towel(Kept("pocket", 100.0, USUAL_X, q.loss_frac, 0.18, 0.008), breads, Room())
    why = Why(
        "The line",
        "every hand move where its cook is free; each gap between then_min_s and then_max_s",
        "Breads are set in one after the other at several paces, and as a rhythm that repeats; the shorter is shown. "
        "The bound says what no line can beat.",
        (
            Input("hands for one bread", spec.hands_s, "s"),
            Input("a spot is held", spec.held_s, "s"),
            Input("spots", q.spots, ""),
            Input("cooks", q.cooks, ""),
        ),
        Kind.ANALYTIC,
        matters=("The seconds of hands a bread takes, and how long it holds its spot.",),
    )
    return {
        "makespan_s": line.makespan_s,
        "lower_bound_s": line.lower_bound_s,
        "bottleneck": line.bottleneck,
        "cycle_s": line.cycle_s,
        "tasks": [
            {"bread": t.round_no, "op": t.move, "cook": t.cook, "spot": t.spot, "start_s": t.start_s, "end_s": t.end_s}
            | ({"kind": names[t.round_no - 1]} if q.kinds else {})
            for t in line.tasks
        ],
        "towel_wait_s": list(line.towel_wait_s),
        "softness_frac": [stack.at("soft", w) / 100 for w in line.towel_wait_s],
        "another_spot_saves_s": spot,
        "another_cook_saves_s": cook,
        "how": line.method,
        "cautions": [c.model_dump() for c in caution_out([caution("hot_surface")])],
        "why": {"makespan_s": why.as_dict()},
    }
