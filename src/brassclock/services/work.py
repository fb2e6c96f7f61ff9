"""One bake, computed: from its rows to sheet, heat, plan, forecast, program and line.

Nothing here is stored; the same rows and minute give the same answer, so answers are remembered.
"""

from __future__ import annotations

import datetime as dt
import json
import math
from collections import OrderedDict
from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field, replace

from sqlmodel import Session

from brassclock.core.day.backward import BakeSpec, DayPlan, StageSpec, plan_back
from brassclock.core.day.kitchen_air import Spell, air_c
from brassclock.core.evidence import BadRequest, Input, Kind, Why
from brassclock.core.fire import hearth as hearths
from brassclock.core.fire.line import Line, plan_line
from brassclock.core.fire.program import Faults, Program, plan_bread
from brassclock.core.fire.puff import model as puff
from brassclock.core.fire.surfaces import RECOVER_LIMIT_S, Surface
from brassclock.core.matter.dough import Dough
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.mix.guide import FOAM_SD_LOG
from brassclock.core.rise import course as yeast
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.belief import Reading as Look
from brassclock.core.rise.chemical import model as chemical
from brassclock.core.rise.dough_heat import Vessel, sheet_excess_kept
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.rescue import Standing
from brassclock.core.rise.stages import Stage
from brassclock.core.rise.windows import Aim, aims
from brassclock.core.rise.worth import Worth, worth
from brassclock.core.weigh.formula import PieceWish, WeighSheet, weigh
from brassclock.core.weigh.geometry import Shape, thickness_mm
from brassclock.core.weigh.lines import TypedLine
from brassclock.services import bowl as bowls
from brassclock.services.house import House, Missing
from brassclock.services.pantry import kit_of, own_rows
from brassclock.store import bakes as rows
from brassclock.store.tables import Bake, Kitchen, Outcome, Reading, Said, Tap
from brassclock.store.tables import Surface as SurfaceRow

TUB_CM = 20.0
ROLL_MIN = 12.0
COLD_REST_H = 6.0
JUST_MIXED = dt.timedelta(minutes=30)
HOLDS_LIKE = {  # how a strength holds gas without yeast
    "developed": "developed", "kneaded": "developed", "enriched": "moderate", "wet_unkneaded": "batter", "wholemeal": "weak",
}  # fmt: skip
BENCH_REST_MIN = 8.0
REMEMBERED = 64


@dataclass(frozen=True)
class Rows:
    """A bake with everything that belongs to it, and now."""

    bake: Bake
    kitchen: Kitchen
    surface: SurfaceRow | None
    taps: Sequence[Tap]
    readings: Sequence[Reading]
    outcomes: Sequence[Outcome]
    said: dict[str, Said]
    own: Mapping[str, Ingredient]
    now: dt.datetime

    def done(self) -> dict[str, dt.datetime]:
        """Step keys and when they were done; the first load is the start of the line."""
        found = {t.kind: t.at for t in self.taps if t.kind in ("weigh", "mix", "ball", "preheat", "roll")}
        loads = [t.at for t in self.taps if t.kind == "load"]
        if loads:
            found["line"] = min(loads)
            found.setdefault("roll", min(loads))
            found.setdefault("preheat", min(loads))
        if "mix" in found:
            found.setdefault("weigh", found["mix"])
        return {k: v.astimezone(self.now.tzinfo) for k, v in found.items()}


@dataclass
class Work:
    """What was computed of a bake. A part that cannot be is None and its reason stands in `faults`."""

    sheet: WeighSheet | None = None
    bowl: bowls.BowlHeat | None = None
    program: Program | None = None
    bread: puff.Bread | None = None
    line: Line | None = None
    plan: DayPlan | None = None
    stages: tuple[Stage, ...] = ()
    forecast: rise.Forecast | None = None
    wait: chemical.Waiting | None = None
    worth: list[Worth] = field(default_factory=list)
    faults: dict[str, str] = field(default_factory=dict)


_memory: OrderedDict[str, Work] = OrderedDict()


@contextmanager
def change(house: House, bake_id: int) -> Iterator[tuple[Session, Rows]]:
    """One change of a bake, as one transaction: its rows to alter, kept with the next revision."""
    with house.action() as session:
        r = load(house, session, bake_id)
        yield session, r
        r.bake.revision += 1
        session.add(r.bake)


def load(house: House, session: Session, bake_id: int) -> Rows:
    """The rows of a bake, or Missing."""
    bake = session.get(Bake, bake_id)
    if bake is None or bake.deleted_at is not None:
        raise Missing(f"There is no bake {bake_id}. It may have been deleted; undo brings it back.")
    kitchen = house.kitchen(session, bake.kitchen_id)
    surface = session.get(SurfaceRow, bake.surface_id) if bake.surface_id else None
    return Rows(
        bake, kitchen, surface, rows.taps(session, bake_id), rows.readings(session, bake_id),
        rows.outcomes(session, bake_id), rows.said(session, bake_id), own_rows(session, kitchen.id or 0),
        house.now(session, kitchen),
    )  # fmt: skip


def work_of(r: Rows) -> Work:
    """The computed bake, remembered for a minute."""
    key = json.dumps(
        [
            r.bake.model_dump(mode="json", exclude={"note", "revision", "name"}),
            r.kitchen.model_dump(mode="json"),
            r.surface.model_dump() if r.surface else None,
            {k: str(v) for k, v in r.own.items()},
            [(t.kind, t.at.isoformat()) for t in r.taps if t.kind not in ("turn", "off", *hearths.FACTS)],
            [(x.kind, x.value, x.feel, x.at.isoformat()) for x in r.readings],
            int(r.now.timestamp() // 60) if r.bake.status == "live" else 0,
            yeast.course_stepper.ready,
            puff.bake_stepper.ready,
        ],
        default=str,
        sort_keys=True,
    )
    if key in _memory:
        _memory.move_to_end(key)
        return _memory[key]
    work = _compute(r)
    _memory[key] = work
    while len(_memory) > REMEMBERED:
        _memory.popitem(last=False)
    return work


def shape_of(bake: Bake) -> Shape:
    return Shape(bake.shape, bake.diameter_cm, bake.length_cm, bake.width_cm, bake.thickness_mm)


def lines_of(bake: Bake) -> list[TypedLine]:
    """The formula, and what was put in beside it."""
    lines = [TypedLine(x["ingredient"], x["amount"], x.get("basis"), x.get("part", "")) for x in bake.lines]
    return lines + [TypedLine(x["ingredient"], x["amount"], None, "added") for x in bake.additions]


def sheet_of(bake: Bake, kitchen: Kitchen, own: Mapping[str, Ingredient]) -> WeighSheet:
    """The weigh sheet of a bake. Raises BadRequest."""
    stuffing = bake.filling or {}
    inside = [TypedLine(x["ingredient"], x["amount"], x.get("basis")) for x in stuffing.get("lines", ())]
    return weigh(
        lines_of(bake), PieceWish(bake.count, bake.piece_g), shape_of(bake), None, kit_of(kitchen, own), inside,
        stuffing.get("per_piece_g"), bake.held,
    )  # fmt: skip


def _compute(r: Rows) -> Work:
    work = Work()
    bake, kitchen = r.bake, r.kitchen
    try:
        work.sheet = sheet_of(bake, kitchen, r.own)
    except BadRequest as fault:
        work.faults["weigh"] = " ".join(f.detail for f in fault.faults)
        return work
    dough = work.sheet.dough
    serve = bake.serve_at.astimezone(r.now.tzinfo)
    _fire(work, r, air_c(kitchen.hourly_c, serve))
    if not dough.flour_g or not dough.water_g:
        work.faults["mix"] = work.faults["rise"] = "A dough needs flour and water. Add both on the Weigh leaf."
        return work
    if any(p.ingredient.is_yeast or p.ingredient.is_starter for p in dough.portions):
        _rise(work, r, dough, serve)
    else:
        _rest(work, r, dough, serve)
    mixed = work.plan.mixed_at if work.plan else r.now
    work.bowl = bowls.bowl_heat(bake, kitchen, dough, air_c(kitchen.hourly_c, mixed))
    return work


def surface_of(row: SurfaceRow | None) -> Surface:
    """The core's surface of a row; an iron plate when the bake has none."""
    if row is None:
        return Surface("iron_plate", 240.0)
    return Surface(row.kind, row.temp_c, row.power)


def _fire(work: Work, r: Rows, bread_c: float, maturity: float | None = None) -> None:
    bake, sheet = r.bake, work.sheet
    assert sheet is not None
    surface = surface_of(r.surface)
    piece_g = bake.piece_g or (sheet.pieces.mass_g if sheet.pieces else 0.0)
    if sheet.sheet is None or not piece_g:
        work.faults["fire"] = "Give a piece weight and a diameter on the Weigh leaf; the heat needs a thickness."
        return
    mm = thickness_mm(piece_g, sheet.sheet.area_cm2)
    if not 1 <= mm <= 20:
        work.faults["fire"] = f"{mm:.1f} mm is no flatbread. Change the weight or the diameter: 1 to 20 mm."
        return
    work.bread = puff.Bread(
        mm / 1000, sheet.sheet.diameter_cm / 100, sheet.dough.water_per_dry, bread_c, pocket=mm <= 8 and not bake.docked
    )
    work.program = plan_bread(
        work.bread, surface, doneness=bake.doneness, altitude_m=r.kitchen.altitude_m,
        faults=Faults(bake.uneven_frac, bake.skin_min, maturity=maturity), docked=bake.docked,
    )  # fmt: skip
    work.line = plan_line(rounds_of(bake, sheet), spots_of(r), *timing_of(bake, work.program))


def rounds_of(bake: Bake, sheet: WeighSheet | None) -> int:
    """How many rounds go on the heat."""
    if bake.count:
        return bake.count
    return sheet.pieces.count if sheet and sheet.pieces else 1


def rounds_of_rows(r: Rows) -> int:
    """The same, computing only when the count is not set."""
    return r.bake.count or rounds_of(r.bake, work_of(r).sheet)


def spots_of(r: Rows) -> int:
    return r.surface.spots if r.surface else 1


def timing_of(bake: Bake, program: Program | None) -> tuple[float | None, float, float]:
    """(turn, off, recover) [s]: the frozen program once the line has begun, else the computed one."""
    if bake.program:
        return bake.program["turn_s"], bake.program["off_s"], bake.program["recover_s"]
    if program is None:
        return None, 90.0, 30.0
    recover = program.recovery_s if program.recovery_s is not None else RECOVER_LIMIT_S
    return program.turn_s, program.off_s, recover


def mix_temp_c(r: Rows) -> float:
    """The dough's temperature after mixing: read then, else the one aimed at."""
    mixed = r.done().get("mix")
    read = [x.value for x in r.readings if x.kind == "dough_c" and mixed and abs(x.at - mixed) <= JUST_MIXED]
    return read[-1] if read and read[-1] is not None else r.bake.dough_c


def spells_of(bake: Bake) -> tuple[Spell, ...]:
    """Where the dough was put for a while."""
    return tuple(
        Spell(dt.datetime.fromisoformat(x["start"]), dt.datetime.fromisoformat(x["end"]), x["temp_c"])
        for x in bake.spells
    )


def standing_of(r: Rows, work: Work) -> Standing | None:
    """Where the dough is now, for a rescue; None before mixing and after rolling."""
    done = r.done()
    if (
        work.plan is None
        or work.forecast is None
        or "mix" not in done
        or "roll" in done
        or not work.stages
        or work.sheet is None
    ):
        return None
    at = 1 if "ball" in done else 0
    begun = (work.plan.mixed_at, work.plan.balled_at)[at]
    return Standing(
        batch_of(r, work.sheet.dough), work.stages[:at], work.stages[at], max((r.now - begun).total_seconds() / 3600, 0.0),
        r.kitchen.fridge_c, work.forecast.belief.mean, work.stages[1] if at == 0 else None,
    )  # fmt: skip


def batch_of(r: Rows, dough: Dough) -> Batch:
    """The bake's dough as it was, or will be, mixed."""
    return Batch(dough, r.bake.strength, mix_temp_c(r), r.bake.bloomed, r.kitchen.altitude_m, None, r.kitchen.powder)


def _spec(work: Work, r: Rows, dough: Dough) -> BakeSpec:
    bake = r.bake
    piece_g = bake.piece_g or (dough.total_g / (bake.count or 1))
    bulk = Stage(
        "bulk", 2.0, ((0.0, 0.0),), Vessel("tub", dough.total_g, True, TUB_CM, "wood"), "ball", bake.bulk_ratio
    )
    ball = Stage("ball proof", 1.0, ((0.0, 0.0),), Vessel("tray", piece_g, True), None, bake.ball_ratio)
    spells = spells_of(bake)
    return BakeSpec(
        batch_of(r, dough), StageSpec(bulk, None, spells), StageSpec(ball, None, spells), mix_min=bake.knead_min + 5,
        preheat_min=surface_of(r.surface).spec.preheat_min,
        line_min=math.ceil((work.line.makespan_s if work.line else 900) / 60) + 1,
        activity=r.kitchen.activity_mean * (bake.activity_factor or 1.0), roll_min=ROLL_MIN,
    )  # fmt: skip


def _rest(work: Work, r: Rows, dough: Dough, serve: dt.datetime) -> None:
    """A dough without yeast rests for its told hours; soda and powder say how long it may."""
    bake = r.bake
    hours = (bake.bulk_h if bake.bulk_h is not None else 0.5, bake.ball_h if bake.ball_h is not None else 0.25)
    room_c = air_c(r.kitchen.hourly_c, serve)
    cold = hours[0] >= COLD_REST_H
    rest = chemical.Rest(60.0, r.kitchen.fridge_c if cold else room_c, "bulk", 55.0)
    work.wait = chemical.waiting(dough, HOLDS_LIKE[bake.strength], rest, r.kitchen.powder)
    last_h = max(work.wait.h if work.wait else 1.6 * sum(hours), sum(hours))
    rests = tuple(Aim(0.9 * h, h, 1.3 * h, max(last_h - (sum(hours) - h), h)) for h in hours)
    spec = replace(_spec(work, r, dough), rests=(rests[0], rests[1]))
    work.plan = plan_back(spec, r.kitchen.hourly_c, serve, r.now, r.done())
    if work.wait:
        word = {
            "cook_at_once": "cook at once",
            "session": "this session",
            "same_day": "same day",
            "overnight": "overnight",
        }
        work.faults["rise"] = (
            f"No yeast: this dough rests, it does not rise. Its gas waits about {_span(work.wait.low_h)} to "
            f"{_span(work.wait.high_h)} {'in the fridge' if cold else 'on the bench'} ({word[work.wait.verdict]})."
        )
    else:
        work.faults["rise"] = "Nothing in this formula makes gas: it rests, it does not rise."


def _span(hours: float) -> str:
    return f"{hours * 60:.0f} min" if hours < 1 else f"{hours:.0f} h"


def _rise(work: Work, r: Rows, dough: Dough, serve: dt.datetime) -> None:
    bake, kitchen = r.bake, r.kitchen
    spec = _spec(work, r, dough)
    tired = bake.activity_factor
    belief = Belief(
        spec.activity, math.hypot(kitchen.activity_sd_log, FOAM_SD_LOG) if tired else kitchen.activity_sd_log
    )
    done = r.done()
    plan = plan_back(spec, kitchen.hourly_c, serve, r.now, done)
    seen = _forecast(work, r, dough, spec, plan, belief)
    if r.readings:
        spec = replace(spec, activity=seen.belief.mean)
        plan = plan_back(spec, kitchen.hourly_c, serve, r.now, done)
        seen = _forecast(work, r, dough, spec, plan, belief)
    work.plan, work.forecast = plan, seen
    if bake.status == "live" and "roll" not in done:
        until = work.stages if "ball" in done else work.stages[:1]
        since = max((r.now - plan.mixed_at).total_seconds() / 3600, 0.0) if "mix" in done else 0.0
        work.worth = worth(
            spec.batch, until, belief=seen.belief, now_h=since,
        )  # fmt: skip
    if work.bread:
        air = air_c(kitchen.hourly_c, plan.step("line").at)
        kept = sheet_excess_kept(work.bread.thickness_m, BENCH_REST_MIN)
        bread_c = air + (float(seen.trace.dough_c[-1]) - air) * kept
        _fire(work, r, bread_c, float(seen.trace.maturity[-1]))


def _forecast(work: Work, r: Rows, dough: Dough, spec: BakeSpec, plan: DayPlan, belief: Belief) -> rise.Forecast:
    hourly = r.kitchen.hourly_c
    bulk_h = max((plan.balled_at - plan.mixed_at).total_seconds() / 3600, 1 / 60)
    ball_h = max((plan.step("roll").at - plan.balled_at).total_seconds() / 3600, 1 / 60)
    work.stages = (
        replace(spec.bulk.placed(hourly, plan.mixed_at), hours=bulk_h),
        replace(spec.ball.placed(hourly, plan.balled_at), hours=ball_h),
    )
    looks = [
        Look((x.at - plan.mixed_at).total_seconds() / 3600, x.kind, x.value, x.feel, x.value)
        for x in r.readings
        if x.at > plan.mixed_at
    ]
    return rise.forecast(
        spec.batch, work.stages, (r.bake.bulk_ratio, r.bake.ball_ratio), belief=belief, readings=looks,
    )  # fmt: skip


def rise_whys(work: Work, r: Rows) -> dict[str, Why]:
    """Why the stage that is running is ready when it is."""
    assert work.forecast and work.plan and work.sheet
    dough, bake, seen = work.sheet.dough, r.bake, work.forecast
    at = 1 if "ball" in r.done() else 0
    begins = (work.plan.mixed_at, work.plan.balled_at)[at]
    leavens = [
        (n, sum(p.mass_g for p in dough.portions if getattr(p.ingredient, f"is_{n}"))) for n in ("yeast", "starter")
    ]
    inputs = (
        *(Input(name, round(g / dough.flour_g * 100, 2), "% of flour") for name, g in leavens if g),
        Input("salt", round(dough.salt_g / dough.flour_g * 100, 2), "% of flour"),
        Input("dough after mixing", round(mix_temp_c(r), 1), "°C"),
        Input("kitchen when it began", round(air_c(r.kitchen.hourly_c, begins), 1), "°C"),
        Input("target", (bake.bulk_ratio, bake.ball_ratio)[at], "×"),
        Input("activity of this dough", round(seen.belief.mean, 2), "×"),
        Input("altitude", r.kitchen.altitude_m, "m"),
    )

    def ready_h(room_k: float, dough_k: float) -> float:
        stages = [s.shifted(room_k) for s in work.stages[: at + 1]]
        fixed = (work.stages[0].hours,) if at else ()
        batch = batch_of(r, dough)
        warmer = replace(batch, mix_temp_c=batch.mix_temp_c + dough_k)
        return aims(warmer, stages, fixed_h=fixed, activity=seen.belief.mean)[at].ready_h

    as_is, band = ready_h(0, 0), seen.windows[at].ready
    since = work.stages[0].hours if at else 0.0
    spread = "wide"
    if band.p10 and band.p90:
        spread = f"8 in 10 between {(band.p10 - since) * 60:.0f} and {(band.p90 - since) * 60:.0f} min after it began"
    return {
        "ready": Why(
            f"When the {work.stages[at].name} is ready", "m = Q / need ≥ 0.9; Q' = q₃₀·γ(T)/γ(30)·f_osm·a·X",
            "Gas made since mixing or since the balls were made, over the gas that the target needs. The yeast's "
            "rate follows the dough's own temperature, which trails the kitchen's.",
            inputs, Kind.FITTED, spread,
            (
                f"+1 °C in the dough is {(as_is - ready_h(0, 1)) * 60:.0f} min sooner",
                f"+1 °C in the kitchen is {(as_is - ready_h(1, 0)) * 60:.0f} min sooner",
                "the yeast's strength: take a reading",
            ),
            ("cardinal temperatures: Rosso 1993, from memory", "rates fitted to practice rows"),
        )
    }  # fmt: skip
