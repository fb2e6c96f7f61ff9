"""What is done to a bread in the order it is done, each with its time as a band: load, turn, cover, edges, off, wrap."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.fire.legs import Step, legs_of_steps
from brassclock.core.fire.program import Program
from brassclock.core.rise.belief import Band

AT_ONCE = Band(0.0, 0.0, 0.0, 0.0)
WRAP_S = (
    600.0  # practice: a thick round rests ten minutes in its cloth, so that its crust softens and its middle evens out
)


@dataclass(frozen=True)
class Action:
    """One thing done: its name in the contract, when [s, a band], and how long it lasts each time [s]."""

    name: str
    at_s: Band
    each_s: float | None = None


def actions(program: Program) -> list[Action]:
    """The actions of a program, from load to off and the wrap."""
    off = program.bands.events["off"]
    found = _of_steps(program, program.baking.steps) if program.baking.steps is not None else _usual(program)
    if program.edge_s:
        found.append(Action("edge", off, program.edge_s))
    found.append(Action("off", off))
    if program.edge_s:
        found.append(Action("wrap", off, WRAP_S))
    return found


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
