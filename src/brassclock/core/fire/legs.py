"""Legs of a bread through the heat on each kind of surface, as stretches for the puff model: chosen, or as the cook
wrote it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.colour import DOSES, Wish
from brassclock.core.fire.puff.model import Bread, Face, Stage
from brassclock.core.fire.surfaces import DOOR_BACK_S, LID_FACE, OPEN_FACE, Surface, SurfaceKind, oven_face

TURN_LIMIT_S = Param(300.0, "s", 150, 600, Kind.JUDGEMENT, "longest first side that is looked at")
SECOND_LIMIT_S = Param(300.0, "s", 150, 600, Kind.JUDGEMENT, "longest second side that is looked at")
FLAME_LIMIT_S = Param(150.0, "s", 60, 300, Kind.JUDGEMENT, "longest stay over a flame")
THICK_LIMIT_S = Param(900.0, "s", 600, 1500, Kind.JUDGEMENT, "longest side of a thick round")
WALL_LIMIT_S = Param(240.0, "s", 120, 480, Kind.JUDGEMENT, "longest stay on a wall")
UNTURNED_LIMIT_S = Param(
    600.0, "s", 300, 1200, Kind.JUDGEMENT, "longest stay of a docked or topped bread that stays as it lies"
)
THICK_OVEN_LIMIT_S = Param(3600.0, "s", 2400, 5400, Kind.JUDGEMENT, "longest stay of a thick bread in an oven")
AFTER_READY_S = Param(600.0, "s", 300, 1200, Kind.JUDGEMENT, "looked at past the end")
OIL_LIMIT_S = Param(180.0, "s", 90, 300, Kind.JUDGEMENT, "longest side in oil")
AFTER_PUFF_S = Param(10.0, "s", 4, 20, Kind.PRACTICE, "left after it puffed")
AFTER_CUE_S = Param(5.0, "s", 2, 15, Kind.PRACTICE, "hands react to bubbles and first brown")
CUE_LIMIT_S = Param(180.0, "s", 90, 300, Kind.JUDGEMENT, "longest wait for bubbles and first brown")
SPRAY_KG_M2 = Param(0.04, "kg/m2", 0.01, 0.1, Kind.PRACTICE, "a spray or two over one bread")
TOPPING_WATER = Param(0.65, "-", 0.4, 0.85, Kind.JUDGEMENT, "of a topping's mass")
TOP_WATER_KG_M2 = Param(0.65, "kg/m2", 0.3, 1, Kind.JUDGEMENT, "of a topping of 1 kg/m2, where its mass is not given")
OVEN_FINISH_C = Param(180.0, "C", 160, 200, Kind.PRACTICE, "an oven that finishes and browns no more")
MOVES = {"inverted": "invert", "grill": "grill"}  # what the second stretch begins with; else it is turned


NO_LID = ("oven", "tray", "wall", "floor", "oil")  # ways of surfaces that take none
LASTING = ("face_a", "face_b", "edge", "grill", "finish_oven")  # a leg that always takes time
AT_ONCE = ("cover", "uncover", "rotate", "spray", "top")  # takes no time of its own unless seconds are given


@dataclass(frozen=True)
class Step:
    """One leg of a given program: what is done, and for how long [s] or until what.

    `do`: face_a or face_b down; cover, uncover (a lid); rotate (half round, in the oven); spray (water), top (spread a
    topping on the upper face); edge (stood on its edges); grill (under the grill, or over the flame); finish_oven (off
    the surface, into an oven at `oven_c`). `until`: cue (bubbles and first brown), bubbles, puffed, golden.
    """

    do: str
    seconds: float | None = None
    until: str | None = None
    oven_c: float | None = None

    @property
    def lasts(self) -> bool:
        """True if the step takes time on the heat."""
        return self.do in LASTING or self.seconds is not None or self.until is not None


def fault_of(step: Step, surface: SurfaceKind) -> tuple[str, str] | None:
    """The field of a step that cannot be on a kind of surface, and the sentence; None where it can."""
    if step.do in ("cover", "uncover") and surface.way in NO_LID:
        return "do", f"There is no lid on this surface: {surface.name}. Leave the step out."
    if step.oven_c is not None and step.do != "finish_oven":
        return "oven_c", "oven_c belongs to a finish_oven step. Leave it out here."
    return None


def second_move(surface: Surface) -> str:
    """First move of the second stretch: turn, invert or grill."""
    return MOVES.get(surface.spec.way, "turn")


def _stage(
    surface: Surface,
    seconds: float,
    turn: bool = False,
    until: str = "time",
    after_s: float = 0.0,
    top: Face | None = None,
    colour: str = "golden",
    wet_kg_m2: float = 0.0,
) -> Stage:
    flux, back_c, back_h = surface.below
    return Stage(
        seconds,
        turn,
        flux,
        back_c,
        back_h,
        top or surface.top,
        until,
        after_s,
        oil=surface.spec.way == "oil",
        dip_k=surface.dip_k,
        dip_tau_s=DOOR_BACK_S,
        colour=DOSES[colour],
        wet_kg_m2=wet_kg_m2,
    )


def _over_flame(surface: Surface, seconds: float) -> Stage:
    """The plate upside down over the flame: the bread's free face sees it, the plate's back the kitchen."""
    return Stage(seconds, False, 0.0, 25.0, 8.0, surface.flame)


def chosen(surface: Surface, bread: Bread, wish: Wish, turned: bool = True) -> list[Stage]:
    """The usual way of a bread through the heat on a surface: the first side until it has its colour and the top has
    set.

    A bread in an oven is turned once its pocket opened, so that both leaves colour; what is docked, topped, thick or
    opens none stays as it lies. The top of a thick round sets long after its colour: it is turned by that alone.
    """
    way = surface.spec.way
    if surface.spec.air_heated:
        if bread.thick or way == "tray":
            return [_stage(surface, THICK_OVEN_LIMIT_S, False, "ready", AFTER_READY_S, colour=wish.bottom)]
        if not (turned and bread.pocket):
            return [_stage(surface, UNTURNED_LIMIT_S)]
        return [
            _stage(surface, CUE_LIMIT_S, False, "puff_colour", AFTER_PUFF_S, colour=wish.bottom),
            _stage(surface, SECOND_LIMIT_S, True),
        ]
    if way in ("wall", "floor"):
        return [_stage(surface, THICK_LIMIT_S if bread.thick else WALL_LIMIT_S)]
    if way == "oil":
        return [
            _stage(surface, OIL_LIMIT_S, False, "colour" if bread.pocket else "golden", colour=wish.bottom),
            _stage(surface, OIL_LIMIT_S, True),
        ]
    if way == "inverted":
        return [
            _stage(surface, CUE_LIMIT_S, False, "cue", AFTER_CUE_S),
            _over_flame(surface, FLAME_LIMIT_S),
        ]
    if bread.thick:
        first = _stage(surface, THICK_LIMIT_S, False, "golden", colour=wish.bottom)
    else:
        first = _stage(surface, TURN_LIMIT_S, False, "colour", colour=wish.bottom)
    if way == "grill":
        return [first, _stage(surface, FLAME_LIMIT_S, top=surface.flame)]
    return [first, _stage(surface, THICK_LIMIT_S if bread.thick else SECOND_LIMIT_S, True)]


def as_written(surface: Surface, steps: Sequence[Step]) -> list[Stage]:
    """The cook's own program, one stage for each step that lasts. A step until a cue lasts at most so long as the usual
    side does."""
    legs: list[Stage] = []
    face, lid, wet = "face_a", surface.spec.way == "lidded", 0.0
    for step in steps:
        lid = (lid or step.do == "cover") and step.do != "uncover" and surface.spec.way not in NO_LID
        wet += {"spray": SPRAY_KG_M2, "top": TOP_WATER_KG_M2}.get(step.do, 0.0)
        if not step.lasts:
            continue
        seconds = step.seconds if step.seconds is not None else TURN_LIMIT_S
        until = {"puffed": "puff", None: "time"}.get(step.until, step.until or "time")
        after = AFTER_CUE_S if until == "cue" else 0.0
        if step.do == "edge":
            flux, back_c, back_h = surface.below
            leg = Stage(seconds, False, flux, back_c, back_h, OPEN_FACE, on_plate=False)
        elif step.do == "finish_oven":
            oven_c = step.oven_c or OVEN_FINISH_C
            leg = Stage(
                seconds,
                False,
                0.0,
                oven_c,
                0.0,
                oven_face(oven_c, surface.fan),
                until,
                after,
                False,
                colour=DOSES["golden"],
            )
        elif step.do == "grill":
            over = surface.spec.way == "inverted"
            leg = _over_flame(surface, seconds) if over else _stage(surface, seconds, top=surface.flame)
        else:
            turn = step.do.startswith("face_") and step.do != face
            leg = _stage(surface, seconds, turn, until, after, LID_FACE if lid else _unlidded(surface))
            face = step.do if step.do.startswith("face_") else face
        legs.append(replace(leg, wet_kg_m2=wet))
        wet = 0.0
    return legs


def _unlidded(surface: Surface) -> Face:
    return OPEN_FACE if surface.spec.way == "lidded" else surface.top


def legs_of_steps(steps: Sequence[Step]) -> list[int | None]:
    """For each step the number of its stage; for one that takes no time that of the next stage, None at the end."""
    found: list[int | None] = []
    count, lasting = 0, sum(s.lasts for s in steps)
    for step in steps:
        found.append(count if count < lasting else None)
        count += step.lasts
    return found
