"""How a bread goes through the heat on each kind of surface, as stretches for the puff model: chosen, or as the cook wrote it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.fire.puff.model import Bread, Face, Stage
from brassclock.core.fire.surfaces import DOOR_BACK_S, LID_FACE, OPEN_FACE, Surface

TURN_LIMIT_S = 180.0
SECOND_LIMIT_S = 240.0
FLAME_LIMIT_S = 120.0
THICK_LIMIT_S = 480.0  # a side of a thick round
THICK_SECOND_S = 720.0  # until it is through
WALL_LIMIT_S = 180.0
UNTURNED_LIMIT_S = 480.0  # of a docked or topped bread that stays as it lies
OIL_LIMIT_S = 60.0
AFTER_PUFF_S = 10.0
AFTER_OIL_PUFF_S = 6.0
AFTER_CUE_S = 5.0
MOVES = {"inverted": "invert", "grill": "grill"}  # what the second stretch begins with; else it is turned


@dataclass(frozen=True)
class Step:
    """One leg of a given program: what is done, for how long or until the cue.

    `do`: face_a or face_b down; cover (a lid on); edge (stood on its edges); grill (under the grill, or over the flame).
    """

    do: str
    seconds: float | None = None
    until_cue: bool = False


def second_move(surface: Surface) -> str:
    """What the second stretch begins with: turn, invert or grill."""
    return MOVES.get(surface.spec.way, "turn")


def _stage(
    surface: Surface,
    seconds: float,
    turn: bool = False,
    until: str = "time",
    after_s: float = 0.0,
    top: Face | None = None,
) -> Stage:
    flux, back_c, back_h = surface.below
    return Stage(
        seconds, turn, flux, back_c, back_h, top or surface.top, until, after_s, oil=surface.spec.way == "oil",
        dip_k=surface.dip_k, dip_tau_s=DOOR_BACK_S,
    )  # fmt: skip


def _over_flame(surface: Surface, seconds: float) -> Stage:
    """The plate upside down over the flame: the bread's free face sees it, the plate's back the kitchen."""
    return Stage(seconds, False, 0.0, 25.0, 8.0, surface.flame)


def chosen(surface: Surface, bread: Bread, turned: bool = True) -> list[Stage]:
    """The usual way of a bread through the heat on a surface. What is docked or topped is not `turned` in an oven: it has no pocket to hold up, or a face to keep."""
    way = surface.spec.way
    if way == "oven" and not turned:
        return [_stage(surface, UNTURNED_LIMIT_S)]
    if way == "oven":
        second = THICK_SECOND_S if bread.thick else SECOND_LIMIT_S
        return [_stage(surface, TURN_LIMIT_S, False, "puff", AFTER_PUFF_S), _stage(surface, second, True)]
    if way in ("wall", "floor"):
        return [_stage(surface, THICK_LIMIT_S if bread.thick else WALL_LIMIT_S)]
    if way == "oil":
        return [
            _stage(surface, OIL_LIMIT_S, False, "puff", AFTER_OIL_PUFF_S),
            _stage(surface, OIL_LIMIT_S, True),
        ]
    if bread.thick:
        return [_stage(surface, THICK_LIMIT_S, False, "cue", THICK_LIMIT_S / 4), _stage(surface, THICK_SECOND_S, True)]
    first = _stage(surface, TURN_LIMIT_S, False, "cue", AFTER_CUE_S)
    if way == "inverted":
        return [first, _over_flame(surface, FLAME_LIMIT_S)]
    if way == "grill":
        return [first, _stage(surface, FLAME_LIMIT_S, top=surface.flame)]
    return [first, _stage(surface, SECOND_LIMIT_S, True)]


def as_written(surface: Surface, steps: Sequence[Step]) -> list[Stage]:
    """The cook's own program. Each leg without seconds lasts until its cue, at most three minutes."""
    legs, face = [], "face_a"
    for step in steps:
        seconds = step.seconds if step.seconds is not None else TURN_LIMIT_S
        until, after = ("cue", AFTER_CUE_S) if step.until_cue else ("time", 0.0)
        if step.do == "edge":
            flux, back_c, back_h = surface.below
            legs.append(Stage(seconds, False, flux, back_c, back_h, OPEN_FACE, on_plate=False))
        elif step.do == "grill":
            over = surface.spec.way == "inverted"
            legs.append(_over_flame(surface, seconds) if over else _stage(surface, seconds, top=surface.flame))
        elif step.do == "cover":
            legs.append(_stage(surface, seconds, False, until, after, LID_FACE))
        else:
            legs.append(_stage(surface, seconds, step.do != face, until, after))
            face = step.do
    return legs
