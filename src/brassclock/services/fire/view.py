"""View of the Fire leaf: the program of a bread with its bands, the chance of a pocket, the line, and another bread
beside it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from brassclock.core.fire.actions import actions
from brassclock.core.fire.baking import Faults
from brassclock.core.fire.calibration import JudgedBread, of_breads, probability, wanting
from brassclock.core.fire.colour import words_of
from brassclock.core.fire.compare import Compared, compare
from brassclock.core.fire.line.plan import plan_line, saved_s
from brassclock.core.fire.line.spec import Line
from brassclock.core.fire.program import Program, program_of
from brassclock.core.fire.right_heat import implied, implied_reason, right_heat_reason
from brassclock.core.fire.surface_heat import heat_band, spread_k
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model
from brassclock.services.fire.program import program_out
from brassclock.services.keep.kept import feel_of, kept_of, room_of
from brassclock.services.kitchen.surface_view import surface_out
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.base import Banded
from brassclock.services.schemas.fire import (
    ActionRead,
    CarpetRead,
    ChanceRead,
    ColourSpell,
    ColoursRead,
    FireIfRead,
    FireIfsRead,
    FireRead,
    HabitRead,
    HeatLineRead,
    LineTaskRead,
    OwnWayRead,
    ReasonRead,
    RightHeatRead,
    WayRead,
)
from brassclock.services.solve import BakeResult
from brassclock.services.weigh.view import caution_out, why_out

NO_PROGRAM = "There is no program yet: give a piece weight and a diameter on the Weigh leaf."
LEAST_M = 0.001
LEFT_MIN = 5.0
# placements tried while the cook reads, some 0.9 s; two thirds of it more for what a spot and a pair of hands would
# save
LONG_LINE = 45_000


def fire_out(r: BakeSnapshot, work: BakeResult, judged: Sequence[JudgedBread]) -> FireRead | None:
    program, bread, line = work.program, work.bread, work.line
    if program is None or bread is None or line is None:
        return None
    begin = work.plan.step("line").at if work.plan else r.bake.serve_at
    breads, bakes = wanting(judged)
    return FireRead(
        surface=surface_out(r.surface) if r.surface else None,
        surface_kind=surface_of(r.surface).spec.name,
        **_heat_facts(r, program),
        colours=_colours(program),
        actions=[ActionRead(action=a.name, at_s=Banded(**a.at_s.as_dict()), each_s=a.each_s) for a in actions(program)],
        own_way=_own_way(r, work),
        dressing_g=(r.bake.dressing["mass_g"] * fire_model.rounds_of(r.bake, work.sheet)) if r.bake.dressing else None,
        thickness_mm=bread.thickness_m * 1000,
        diameter_cm=bread.diameter_m * 100,
        bread_c=bread.temp_c,
        events={k: Banded(**b.as_dict()) for k, b in program.events.items()},
        program=program_out(r, work),
        pocket=bread.pocket,
        score=program.score.score,
        chance=_chance(program.score.score, judged),
        breads_to_chance=breads,
        bakes_to_chance=bakes,
        reasons=[ReasonRead(factor=x.factor, points=x.points, text=x.text) for x in program.score.reasons],
        moisture_loss_frac=program.moisture_loss_frac,
        surface_after_c=program.surface_after_c,
        recovered=program.recovery_s is not None,
        edge_s=program.edge_s,
        matters=list(program.bands.matters),
        carpet=carpet_out(program),
        line=line_out(r, work, line, begin),
        cautions=caution_out(program.cautions),
        why=why_out(program.why),
    )


def _heat_facts(r: BakeSnapshot, program: Program) -> dict[str, Any]:
    """Belief of the surface's heat with its source, and the right heat for this bread."""
    surface, right = program.baking.surface, program.right_heat
    return {
        "surface_c": Banded(**heat_band(surface.temp_c, spread_k(surface)).as_dict()),
        "surface_source": r.surface.source if r.surface else "usual",
        "right_heat": right
        and RightHeatRead(surface_c=Banded(**right.band.as_dict()), turn_s=right.turn_s, off_s=right.off_s),
        "right_heat_reason": right_heat_reason(right, program.baking, r.kitchen.temp_unit),
    }


def _colours(program: Program) -> ColoursRead:
    at_turn, at_off = (program.colour_at(t) for t in (program.turn_s or program.off_s, program.off_s))
    return ColoursRead(bottom_at_turn=at_turn[0], bottom_at_off=at_off[0], top_at_off=at_off[1])


def _own_way(r: BakeSnapshot, work: BakeResult) -> OwnWayRead | None:
    """The cook's own steps beside the usual way, and the heat that their sides imply."""
    if not r.bake.heat_steps or work.program is None:
        return None
    baking = work.program.baking.usual
    usual = program_of(baking, Faults(), r.bake.docked)
    sides = sides_of(r.bake.heat_steps)
    return OwnWayRead(
        steps=r.bake.heat_steps,
        usual_turn_s=usual.turn_s,
        usual_off_s=usual.off_s,
        habit=_habit_out(r, work.program, sides) if sides else None,
    )


def sides_of(steps: Sequence[Mapping[str, Any]]) -> list[float]:
    """Seconds on each face by steps that say them all, at most two faces; else none."""
    sides: list[float] = []
    face = None
    for step in steps:
        if step["do"] in ("grill", "edge", "finish_oven") or step.get("until"):
            return []
        if step["do"].startswith("face_") and step["do"] != face:
            face = step["do"]
            sides.append(0.0)
        if step.get("seconds"):
            sides = sides or [0.0]
            sides[-1] += step["seconds"]
    return sides if len(sides) <= 2 and all(sides) else []


def _habit_out(r: BakeSnapshot, program: Program, sides_s: Sequence[float]) -> HabitRead:
    baking = program.baking.usual
    found = implied(baking, sides_s)
    back_s = fire_model.recover_s(program)
    ways = compare(baking, sides_s, found.mean_c if found.explained else None)
    return HabitRead(
        surface_c=Banded(**found.band.as_dict()) if found.band else None,
        sd_k=found.sd_k,
        text=implied_reason(found, baking, r.kitchen.temp_unit),
        ways=[_way_out(w, back_s, fire_model.spots_of(r)) for w in ways],
    )


def _way_out(way: Compared, back_s: float, spots: int) -> WayRead:
    """`every_s`: how often the surface gives a bread when every spot is filled again at once."""
    return WayRead(
        name=way.name,
        surface_c=way.temp_c,
        turn_s=way.turn_s,
        off_s=way.off_s,
        bottom=[ColourSpell(**x._asdict()) for x in way.bottom],
        top=[ColourSpell(**x._asdict()) for x in way.top],
        opens_s=way.opens_s,
        loss_frac=way.loss_frac,
        through=way.through,
        every_s=(way.off_s + back_s) / spots,
    )


def _with_program(app: App, bake_id: int) -> tuple[BakeSnapshot, BakeResult, Program]:
    """A bake, solved, and its program. Raises Conflict when it has none yet."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
    work = solve.solve(r)
    if work.program is None:
        raise Conflict(work.faults.get("fire", NO_PROGRAM))
    return r, work, work.program


def habit(app: App, bake_id: int, sides_s: Sequence[float]) -> HabitRead:
    """Surface heat implied by the seconds that a cook gives each side, the bread coming out as this bake wishes it."""
    r, _, program = _with_program(app, bake_id)
    return _habit_out(r, program, sides_s)


def _chance(score: float, judged: Sequence[JudgedBread]) -> ChanceRead | None:
    """The score as a chance; None until the kitchen has breads enough, of bakes enough."""
    if any(wanting(judged)):
        return None
    p, low, high = probability(score, of_breads(judged))
    return ChanceRead(p=p, p10=low, p90=high, breads=len(judged))


def line_out(
    r: BakeSnapshot, work: BakeResult, line: Line, begin: dt.datetime, saved: tuple[int | None, int] | None = None
) -> HeatLineRead:
    """A line with its instants: the first load is at `begin`, rolling before it."""
    zero, waits_s = line.first_load_s, max(line.towel_wait_s, default=0)
    stack = len(line.towel_wait_s)
    return HeatLineRead(
        tasks=[
            LineTaskRead(
                move=t.move,
                round_no=t.round_no,
                spot=t.spot,
                cook=t.cook,
                hands_s=t.end_s - t.start_s,
                at=begin + dt.timedelta(seconds=t.start_s - zero),
            )
            for t in line.tasks
        ],
        minutes=line.from_load_s / 60,
        bound_min=(line.lower_bound_s - zero) / 60,
        bottleneck=line.bottleneck,
        cycle_s=line.cycle_s,
        towel_min=waits_s / 60,
        towel_feel=feel_of(kept_of(solve.kind_of(r.bake.name, r, work)), stack, room_of(r), waits_s),
        spot_saves_s=saved[0] if saved else None,
        cook_saves_s=saved[1] if saved else None,
    )


def best_line(app: App, bake_id: int) -> HeatLineRead:
    """The line looked for longer, and what another spot or another pair of hands would save."""
    r, work, _ = _with_program(app, bake_id)
    kinds = solve.line_kinds(r, work)
    spec, rounds = kinds.spec(), kinds.rounds
    found = plan_line(spec, rounds, LONG_LINE)
    begin = work.plan.step("line").at if work.plan else r.bake.serve_at
    return line_out(r, work, found, begin, saved_s(spec, rounds, found, LONG_LINE // 3))


def carpet_out(program: Program) -> CarpetRead:
    """The carpet up to a little past take-off, at most about 120 columns."""
    baked = program.baked
    last = int(np.searchsorted(baked.s, max(program.off_s * 1.35, program.off_s + 15)))
    step = max(1, last // 120)
    return CarpetRead(
        s=[round(float(x), 1) for x in baked.s[:last:step]],
        bottom=words_of(baked.browned[:last:step, 0], baked.charred[:last:step, 0]),
        top=words_of(baked.browned[:last:step, 1], baked.charred[:last:step, 1]),
        depth_mm=[round(float(x), 3) for x in baked.depth_mm],
        temp_c=[[round(float(x), 1) for x in row] for row in baked.temp_c[:last:step]],
        pocket=[round(float(x), 3) for x in baked.pocket[:last:step]],
    )


def ifs(app: App, bake_id: int) -> FireIfsRead:
    """The bread again, one thing changed at a time: thinner, thicker, hotter, cooler, rested, left longer."""
    r, work, program = _with_program(app, bake_id)
    assert work.bread is not None  # a program is of a bread
    bread, temp_c = work.bread, surface_of(r.surface).temp_c
    thinner, thicker = (replace(bread, thickness_m=bread.thickness_m + mm / 1000) for mm in (-0.5, 0.5))
    tried = [
        ("half a millimetre thinner", thinner, temp_c, None, 0.0),
        ("half a millimetre thicker", thicker, temp_c, None, 0.0),
        ("20 °C hotter", bread, temp_c + 20, None, 0.0),
        ("20 °C cooler", bread, temp_c - 20, None, 0.0),
        ("baked right after rolling", bread, temp_c, 0.0, 0.0),
        (f"left bare {LEFT_MIN:.0f} min more", bread, temp_c, None, LEFT_MIN),
    ]
    return FireIfsRead(
        ifs=[
            _if_out(words, fire_model.program_at(r, changed, work.maturity, at_c, rest_min, lies_min), program)
            for words, changed, at_c, rest_min, lies_min in tried
            if changed.thickness_m > LEAST_M
        ]
    )


def _if_out(words: str, then: Program, now: Program) -> FireIfRead:
    return FireIfRead(
        words=words,
        score=then.score.score,
        score_by=then.score.score - now.score.score,
        puff_s=then.baked.events["puff"],
        off_s=then.off_s,
        moisture_loss_frac=then.moisture_loss_frac,
    )
