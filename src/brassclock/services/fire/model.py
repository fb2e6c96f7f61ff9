"""The heat of a bake: its bread's program on its surface, its line, and what was frozen of both when the first bread
went on."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

from brassclock.core.fire.actions import extra_moves, leaves_s
from brassclock.core.fire.baking import Faults
from brassclock.core.fire.colour import DOSES, Wish
from brassclock.core.fire.heating import RECOVER_LIMIT_S
from brassclock.core.fire.legs import Step
from brassclock.core.fire.line.pace import at_pace
from brassclock.core.fire.line.spec import GRILL, LineSpec, Station, bread_ops
from brassclock.core.fire.program import Program, events_on, plan_bread
from brassclock.core.fire.puff import model as puff_model
from brassclock.core.fire.puff.model import COARSE_GRID
from brassclock.core.matter.spoiling import holds_of, must_be_hot
from brassclock.core.weigh.formula import WeighSheet
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.kitchen.pantry import kit_of
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.store.tables import Bake

QUICK_LINE = 1_000  # placements tried while everything else is computed, some 0.02 s; more when the line is shown


def holds_meat(r: BakeSnapshot) -> bool:
    """True if the bread is filled with what must be hot inside.

    An unknown filling counts as meat: an own one of which nothing is said, or a line that was not read.
    """
    given = r.bake.filling or {}
    if given.get("topping") or not given.get("per_piece_g"):
        return False
    rows = kit_of(r.kitchen, r.own).rows
    held: list[str] = []
    for line in given.get("lines", ()):
        row = rows.get(line["ingredient"])
        held += ("meat",) if row is None else holds_of(row)
    return must_be_hot(held)


def program_at(
    r: BakeSnapshot,
    bread: puff_model.Bread,
    maturity: float | None,
    temp_c: float,
    rest_min: float | None = None,
    lies_min: float = 0.0,
) -> Program:
    """The program of a bread of a bake with its surface at `temp_c` [C], rested `rest_min` after rolling (None:
    enough), bare for `lies_min` [min]."""
    bake = r.bake
    bare_min = (bake.skin_min or 0.0) + lies_min
    return plan_bread(
        bread,
        replace(surface_of(r.surface), temp_c=temp_c),
        wish=wished(bake),
        altitude_m=r.kitchen.altitude_m,
        faults=Faults(bake.uneven_frac, bare_min or None, maturity=maturity, rest_min=rest_min),
        docked=bake.docked,
        topped=_topped(r),
        filled=holds_meat(r),
        steps=own_steps(bake),
        dressing_g=dressing_g(bake, "after_turn"),
    )


def wished(bake: Bake) -> Wish:
    """The colour wished for the two faces of a bake's bread."""
    return Wish(bake.doneness, bake.colour_top or bake.doneness)


def own_steps(bake: Bake) -> list[Step] | None:
    """The cook's own way through the heat; None for the usual one."""
    return [Step(**s) for s in bake.heat_steps] if bake.heat_steps else None


def dressing_g(bake: Bake, when: str) -> float:
    """Grams on each bread of what goes on it at that time, outside its dough."""
    given = bake.dressing or {}
    return float(given["mass_g"]) if given.get("when") == when else 0.0


def doses_at(program: Program, temp_c: float, turn_s: float | None, off_s: float) -> tuple[float, float]:
    """Browning doses of the two faces of a program's bread with its surface at `temp_c` [C], turned and taken off at
    those seconds."""
    baking = program.baking.usual.at(temp_c)
    sides = [off_s] if turn_s is None else [turn_s, max(off_s - turn_s, 0.5)]
    legs = [replace(leg, seconds=s, until="time") for leg, s in zip(baking.legs, sides, strict=False)]
    return baking.baked(legs, grid=COARSE_GRID).brown


def wished_dose(bake: Bake) -> float:
    """The least browning dose of a face that is as dark as was wished; of a pale bread that of a light one."""
    return max(DOSES[bake.doneness][0], DOSES["light"][0])


def events_at(r: BakeSnapshot, bread: puff_model.Bread, temp_c: float) -> dict[str, float | None]:
    """The events [s] of a bread with its surface at `temp_c` [C]."""
    turned = not (r.bake.docked or _topped(r))
    return events_on(
        bread,
        replace(surface_of(r.surface), temp_c=temp_c),
        wished(r.bake),
        r.kitchen.altitude_m,
        turned,
    )


def _topped(r: BakeSnapshot) -> bool:
    return bool((r.bake.filling or {}).get("topping")) or dressing_g(r.bake, "before") > 0


def line_spec(r: BakeSnapshot, program: Program | None) -> LineSpec:
    """The moves, spots, hands and grill of a bake's line."""
    turn_s, off_s, recover_s = timing_of(r.bake, program)
    grill = grill_of(r, program)
    topping, cooks, pace = _topped(r), r.kitchen.cooks, r.kitchen.pace
    if r.bake.hearth:
        kept = r.bake.hearth
        topping, cooks, pace = kept["topping"], kept["cooks"], kept.get("pace", {})
    ops = at_pace(bread_ops(turn_s, off_s, bool(grill), topping, moves_of(r.bake, program)), pace)
    stations = (Station(GRILL, grill),) if grill else ()
    return LineSpec(ops, spots_of(r), cooks, math.ceil(recover_s), stations=stations)


def grill_of(r: BakeSnapshot, program: Program | None) -> int:
    """Places under the grill: as many as pans, where breads go from one to the other; else none."""
    if r.bake.hearth:
        return int(r.bake.hearth["grill"])
    second = (r.bake.program or {}).get("second") or (program.second if program else "turn")
    return spots_of(r) if second == GRILL else 0


def rounds_of(bake: Bake, sheet: WeighSheet | None) -> int:
    """Number of rounds that go on the heat; once one was loaded, the number that was to go then."""
    if bake.hearth and bake.hearth["count"]:
        return int(bake.hearth["count"])
    if bake.count:
        return bake.count
    return sheet.pieces.count if sheet and sheet.pieces else 1


def loads_of(r: BakeSnapshot, sheet: WeighSheet | None) -> int:
    """Number of loads that go on the heat: each round for itself, rolls in a tray all at once."""
    if r.bake.hearth is None and surface_of(r.surface).spec.way == "tray":
        return 1
    return rounds_of(r.bake, sheet)


def spots_of(r: BakeSnapshot) -> int:
    """Spots of the surface; once a round was loaded, as many as it had then."""
    if r.bake.hearth:
        return int(r.bake.hearth["spots"])
    return r.surface.spots if r.surface else 1


def moves_of(bake: Bake, program: Program | None) -> list[tuple[str, float, int]]:
    """Moves on the heat besides load, turn and off, as frozen once the line has begun: name, seconds from contact,
    hands [s]."""
    if bake.program:
        return [(str(m["move"]), float(m["at_s"]), int(m["hands_s"])) for m in bake.program.get("moves", ())]
    return extra_moves(program) if program else []


def moves_told(program: Program) -> list[dict[str, Any]]:
    """The same of a program, as it is shown and frozen."""
    return [{"move": name, "at_s": at_s, "hands_s": hands_s} for name, at_s, hands_s in extra_moves(program)]


def timing_of(bake: Bake, program: Program | None) -> tuple[float | None, float, float]:
    """(turn, off, recover) [s]: the frozen program once the line has begun, else the computed one."""
    if bake.program:
        return bake.program["turn_s"], bake.program["off_s"], bake.program["recover_s"]
    if program is None:
        return None, 90.0, 30.0
    return program.turn_s, leaves_s(program), recover_s(program)


def recover_s(program: Program) -> float:
    """Seconds until the surface takes the next bread; its limit where it never is what it was."""
    return program.recovery_s if program.recovery_s is not None else RECOVER_LIMIT_S
