"""Actions on a bread in order, each with its time as a band: load, turn, cover, edges, off, wrap."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.legs import Step, legs_of_steps
from brassclock.core.fire.program import Program
from brassclock.core.rise.belief import Band

HANDS_S = {
    "flip": 3,
    "cover": 3,
    "uncover": 3,
    "rotate": 4,
    "spray": 3,
    "top": 12,
    "edge": 4,
    "finish_oven": 8,
}  # practice
EDGES = 3  # of a quarter, of a round cut with a cross: each is stood up
AT_ONCE = Band(0.0, 0.0, 0.0, 0.0)
WRAP_S = Param(
    600.0,
    "s",
    300,
    1200,
    Kind.PRACTICE,
    "a thick round rests in its cloth, so that its crust softens and its middle evens out",
)


@dataclass(frozen=True)
class Action:
    """One thing done: its name in the contract, when [s, a band], and how long it lasts each time [s]."""

    name: str
    at_s: Band
    each_s: float | None = None


def actions(program: Program) -> list[Action]:
    """The actions of a program, from load to off and the wrap."""
    flat = program.bands.events["off"]
    off = _later(flat, leaves_s(program) - program.off_s)
    found = _of_steps(program, program.baking.steps) if program.baking.steps is not None else _usual(program)
    if program.edge_s:
        found.append(Action("edge", flat, program.edge_s))
    found.append(Action("off", off))
    if program.edge_s:
        found.append(Action("wrap", off, WRAP_S))
    return found


def _later(band: Band, by_s: float) -> Band:
    p10, p50, p90 = (None if t is None else t + by_s for t in (band.p10, band.p50, band.p90))
    return Band(p10, p50, p90, band.p_never)


def extra_moves(program: Program) -> list[tuple[str, float, int]]:
    """Moves on the heat besides load, turn and off: name, seconds from contact, seconds of hands."""
    found: list[tuple[str, float, int]] = []
    steps, starts = program.baking.steps, program.baked.starts_s
    if steps is not None:
        turns = 0
        face = "face_a"
        for step, leg in zip(steps, legs_of_steps(steps), strict=True):
            at_s = program.off_s if leg is None else starts[leg]
            if step.do in HANDS_S:
                found.append((step.do, at_s, HANDS_S[step.do]))
            elif step.do.startswith("face_"):
                turns += step.do != face and at_s > 0
                if step.do != face and turns > 1:  # the first turn is the program's own
                    found.append(("flip", at_s, HANDS_S["flip"]))
                face = step.do
        return found
    if program.baking.dressed_kg_m2 and program.turn_s is not None:
        found.append(("top", program.turn_s, HANDS_S["top"]))
        found += [("cover", program.turn_s, HANDS_S["cover"])] if program.baking.covered else []
    if program.edge_s:
        found += [("edge", program.off_s + i * program.edge_s, HANDS_S["edge"]) for i in range(EDGES)]
    return found


def leaves_s(program: Program) -> float:
    """Seconds at which a bread leaves its place, edges stood up included."""
    return program.off_s + EDGES * (program.edge_s or 0.0)


def _usual(program: Program) -> list[Action]:
    found = [Action("load", AT_ONCE)]
    if program.turn_s is not None:
        turn = program.bands.events["leg1"]
        found.append(Action(program.second, turn))
        if program.baking.dressed_kg_m2:
            found.append(Action("top", turn))
        if program.baking.covered:
            found.append(Action("cover", turn))
    return found


def _of_steps(program: Program, steps: Sequence[Step]) -> list[Action]:
    found = [Action("load", AT_ONCE)]
    face = next((s.do for s in steps if s.do.startswith("face_")), "face_a")
    for step, leg in zip(steps, legs_of_steps(steps), strict=True):
        at = AT_ONCE if not leg else program.bands.events[f"leg{leg}"]
        if leg is None:
            at = program.bands.events["off"]
        if step.do.startswith("face_"):
            if step.do != face:
                found.append(Action("turn", at))
            face = step.do
        elif step.do == "grill" and program.second == "invert":
            found.append(Action("invert", at))
        else:
            found.append(Action(step.do, at, step.seconds if step.do == "edge" else None))
    return found
