"""One bake, computed: from its rows to sheet, heat, plan, forecast, program and line.

Nothing here is stored; the same rows and minute give the same answer, so answers are remembered.
"""

from __future__ import annotations

import datetime as dt
import json
import math
from collections import OrderedDict
from dataclasses import dataclass, field, replace

from sqlmodel import Session

from brassclock.core.day.hands import Busy
from brassclock.core.day.kitchen_air import air_c
from brassclock.core.day.spec import BakeSpec, DayPlan
from brassclock.core.errors import InvalidInput
from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.fire.actions import WRAP_S
from brassclock.core.fire.layers import (
    MOST_MM,
    browning,
    chemical_rise,
    heaped,
    layered,
    proved,
    yeasted,
)
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import Line
from brassclock.core.fire.program import Program
from brassclock.core.fire.puff import model as puff_model
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.dough_heat import sheet_excess_kept
from brassclock.core.rise.recipe import dosed
from brassclock.core.rise.safety import Safety
from brassclock.core.time import later
from brassclock.core.weigh.formula import Pieces, WeighSheet
from brassclock.core.weigh.geometry import kept_gas_frac, thickness_mm
from brassclock.core.weigh.geometry import sheet_of as geometry_of
from brassclock.services.app import App
from brassclock.services.bake import snapshot as bake_snapshot
from brassclock.services.bake.broken import Broken, catching
from brassclock.services.bake.parts import names_of
from brassclock.services.bake.snapshot import BakeSnapshot, breads_of
from brassclock.services.day import model as day_model
from brassclock.services.day import sharing
from brassclock.services.day.model import Risen
from brassclock.services.fire.kinds import Kind, MixedLine, mixed
from brassclock.services.fire.model import QUICK_LINE, dressing_g, program_at
from brassclock.services.kitchen import hours
from brassclock.services.kitchen.surfaces import browns_of, surface_of
from brassclock.services.mix import model as mix_model
from brassclock.services.rise import spec as rise_spec
from brassclock.services.weigh.model import shape_of, sheet_of, sponge_g
from brassclock.store import bakes as bake_rows
from brassclock.store.rows import get
from brassclock.store.tables import Bake, Surface

BENCH_REST_MIN = 8.0
REMEMBERED = 40
LINE_S = 900.0
USUALLY_BEFORE_H = 4.0  # a dough is mixed so long before the table, for its room's air before a plan is found


@dataclass
class BakeResult:
    """Computed result of a bake. A part that cannot be is None and its reason stands in `faults`."""

    sheet: WeighSheet | None = None
    bowl: mix_model.BowlHeat | None = None
    program: Program | None = None
    bread: puff_model.Bread | None = None
    maturity: float | None = None  # of the balls when they are rolled
    line: Line | None = None
    risen: Risen | None = None
    faults: dict[str, str] = field(default_factory=dict)
    parts: list[BakeResult] = field(default_factory=list)  # of the further breads of the dough

    @property
    def plan(self) -> DayPlan | None:
        return self.risen.plan if self.risen else None

    @property
    def forecast(self) -> rise.Forecast | None:
        return self.risen.forecast if self.risen else None


_memory: OrderedDict[str, BakeResult] = OrderedDict()


def solve(r: BakeSnapshot) -> BakeResult:
    """The computed bake, remembered for a minute."""
    key = json.dumps(
        [
            r.bake.model_dump(mode="json", exclude=UNSEEN),
            r.bake.serve_at.timestamp(),
            r.bake.serve_until and r.bake.serve_until.timestamp(),
            r.kitchen.model_dump(mode="json", exclude={"version"}),
            [s.model_dump() for s in (r.surface, *r.surfaces.values()) if s],
            {k: str(v) for k, v in r.own.items()},
            [
                (t.kind, t.at.timestamp())
                for t in r.taps
                if t.kind not in ("turn", "off", hearth_rules.LOST, *hearth_rules.FACTS)
            ],
            [(x.kind, x.value, x.feel, x.place, x.at.timestamp()) for x in (*r.readings, *r.air)],
            [r.starter.model_dump(mode="json") if r.starter else None, *(f.model_dump(mode="json") for f in r.feeds)],
            [(b.start.isoformat(), b.end.isoformat(), b.hands) for b in (*r.busy, *r.taken)],
            str(r.shared),
            _tick(r),
            yeast_course.course_stepper.ready and puff_model.bake_stepper.ready,
        ],
        default=str,
        sort_keys=True,
    )
    if key in _memory:
        _memory.move_to_end(key)
        return _memory[key]
    work = compute(r)
    _memory[key] = work
    while len(_memory) > REMEMBERED:
        _memory.popitem(last=False)
    return work


def safety_of(work: BakeResult) -> Safety | None:
    """Warm hours of a dough that spoils, whichever way it is lifted."""
    if work.forecast is not None:
        return work.forecast.safety
    return work.risen.safety if work.risen else None


def compiled() -> bool:
    """True if both steppers answer compiled, on their finer grids."""
    return yeast_course.course_stepper.compiled and puff_model.bake_stepper.compiled


UNSEEN = {
    "uid",
    "left_out",
    "note",
    "revision",
    "name",
    "told",
    "summary",
    "serve_at",
    "serve_until",
}  # of a bake, by its answer's key
FAR, FAR_TICK_S = dt.timedelta(hours=1), 600


def _tick(r: BakeSnapshot) -> int:
    """Cache bucket: the minute, or ten while every move is over an hour away."""
    if r.bake.status != "live" or _last_seen(r) < r.now:
        return 0
    moves = [dt.datetime.fromisoformat(at) for at, _ in r.bake.told.values()]
    far = not r.taps and moves and min(moves) - r.now > FAR
    return int(r.now.timestamp() // (FAR_TICK_S if far else 60))


Computed = list[tuple[BakeSnapshot, BakeResult]]


def load_live(app: App, session: Session, kitchen_id: int) -> tuple[Computed, list[Broken]]:
    """(the live bakes of a kitchen, computed, soonest table first, each around the hands that the others were last told
    to want; those that cannot be)."""
    busy = _hours_away(app, session, kitchen_id)
    found: Computed = []
    broken: list[Broken] = []
    for bake_id in bake_rows.live_ids(session, kitchen_id):
        with catching(session, bake_id, broken):
            r = load(app, session, bake_id, busy)
            found.append((r, solve(r)))
    return sorted(found, key=lambda x: (x[0].bake.serve_at, x[0].bake.id or 0)), broken


def live_bakes(session: Session, kitchen_id: int) -> list[Bake]:
    """The live bakes of a kitchen whose rows can be read."""
    found: list[Bake] = []
    for bake_id in bake_rows.live_ids(session, kitchen_id):
        with catching(session, bake_id, []):
            bake = get(session, Bake, bake_id)
            if bake is not None:
                found.append(bake)
    return found


def plan_all(app: App, session: Session, kitchen_id: int) -> list[tuple[BakeSnapshot, BakeResult]]:
    """The live bakes of a kitchen planned anew, one after the other, each around what those before it take.

    A dough that is mixed goes first, then the soonest table.
    """
    busy = _hours_away(app, session, kitchen_id)
    takes: list[sharing.Takes] = []
    done = []
    for bake in sorted(live_bakes(session, kitchen_id), key=_rank):
        with catching(session, bake.id or 0, []):
            r = sharing.around(bake_snapshot.load(app, session, bake.id or 0, busy), takes)
            work = solve(r)
            if work.plan is not None:
                takes.append(sharing.planned(r, work.plan))
            done.append((r, work))
    return done


def _hours_away(app: App, session: Session, kitchen_id: int) -> tuple[Busy, ...]:
    """The kitchen's busy hours, read once for all its bakes."""
    kitchen = app.kitchen(session, kitchen_id)
    return hours.spans(session, kitchen, app.now(session, kitchen))


def _rank(bake: Bake) -> tuple[bool, dt.datetime, int]:
    """Rank of a bake for hands, the lowest first."""
    return not bake.told or "mix" in bake.told, bake.serve_at, bake.id or 0


def load(app: App, session: Session, bake_id: int, busy: tuple[Busy, ...] | None = None) -> BakeSnapshot:
    """The rows of a bake, with what bakes before it were told to have of hands, surface and shelf; or NotFound."""
    r = bake_snapshot.load(app, session, bake_id, busy)
    return sharing.around(r, _before(session, r)) if r.bake.status == "live" else r


def on_surface(session: Session, r: BakeSnapshot, surface: Surface) -> BakeSnapshot:
    """The rows of a live bake as if it baked on another surface; its own stay as they are."""
    bake = Bake(**{**r.bake.model_dump(), "surface_id": surface.id})
    return sharing.around(replace(r, bake=bake, surface=surface), _before(session, r))


def _before(session: Session, r: BakeSnapshot) -> list[sharing.Takes]:
    """Announced commitments of the live bakes that go before this one."""
    found = []
    for other in sorted(live_bakes(session, r.bake.kitchen_id), key=_rank):
        if other.id != r.bake.id and _rank(other) < _rank(r.bake):
            with catching(session, other.id or 0, []):
                found.append(sharing.announced_plan(other, r))
    return found


FORGOTTEN = dt.timedelta(days=3)
NO_DOUGH = "A dough needs flour and water. Add both on the Weigh leaf."


def _last_seen(r: BakeSnapshot) -> dt.datetime:
    """Now, or FORGOTTEN after the last that is known of a bake: one that lies about for a year is not reckoned through
    it."""
    last = max([r.bake.serve_at, r.bake.created_at, *(t.at for t in r.taps), *(x.at for x in r.readings)])
    return min(r.now, (last + FORGOTTEN).astimezone(r.now.tzinfo))


def compute(r: BakeSnapshot, *, coarse: bool = False) -> BakeResult:
    """The bake computed anew. `coarse` leaves out what a picture under a finger does not show."""
    work = BakeResult()
    r = replace(r, now=_last_seen(r))
    bake, kitchen = r.bake, r.kitchen
    try:
        work.sheet = sheet_of(bake, kitchen, r.own)
    except InvalidInput as fault:
        work.faults["weigh"] = " ".join(f.detail for f in fault.faults)
        return work
    dough = dosed(work.sheet.dough, r.dose_factor)
    serve = bake.serve_at.astimezone(r.now.tzinfo)
    if not coarse:
        _fire(work, r, air_c(kitchen.hourly_c, serve))
    if not dough.has_flour_and_water:
        work.faults["mix"] = work.faults["rise"] = NO_DOUGH
        return work
    if "mix" not in r.done():
        about = air_c(kitchen.hourly_c, later(serve, -USUALLY_BEFORE_H))
        r = replace(r, lands_c=mix_model.lands_c(bake, mix_model.bowl_heat(bake, kitchen, dough, about)))
    line_s = work.line.from_load_s if work.line else LINE_S
    line_min = math.ceil((line_s + wrapped_s(work)) / 60) + 1 if not coarse else r.line_min
    if rise_spec.rises(dough, kitchen.powder):
        work.risen = day_model.risen(r, dough, line_min, sponge_g(bake, work.sheet, r.dose_factor), coarse=coarse)
    else:
        work.risen = day_model.rested(r, dough, line_min)
        rest = work.risen.rested
        if rest is None or rest.here is None:
            work.faults["rise"] = rise_spec.NOTHING_LIFTS
    if not coarse:
        _fire_after(work, r)
        work.bowl = mix_model.bowl_heat(bake, kitchen, dough, air_c(kitchen.hourly_c, work.risen.plan.mixed_at))
    return work


def wrapped_s(work: BakeResult) -> float:
    """Rest of the last bread in its cloth before the table [s]: the longest of all kinds."""
    thick = any(w.program is not None and w.program.edge_s for w in (work, *work.parts))
    return float(WRAP_S) if thick else 0.0


def spec_now(r: BakeSnapshot, work: BakeResult) -> BakeSpec:
    """The spec of a computed bake as its settings have it."""
    assert work.sheet is not None and work.plan is not None
    if work.plan.spec.rests:
        return work.plan.spec
    line_min = work.plan.spec.line_min - work.plan.spec.service_min
    return rise_spec.spec_of(r, work.sheet.dough, line_min, sponge_g(r.bake, work.sheet, 1.0))


def _fire_after(work: BakeResult, r: BakeSnapshot) -> None:
    """The heat again, for the dough as its rise or rest will leave it: as ripe, and as cold."""
    if work.bread is None or work.risen is None:
        return
    air, seen = air_c(r.kitchen.hourly_c, work.risen.plan.step("line").at), work.forecast
    dough_c = float(seen.trace.dough_c[-1]) if seen is not None else work.risen.rolled_c
    if dough_c is None:
        return
    kept = sheet_excess_kept(work.bread.thickness_m, BENCH_REST_MIN)
    _fire(work, r, air + (dough_c - air) * kept, float(seen.trace.maturity[-1]) if seen is not None else None)


def kind_of(name: str, r: BakeSnapshot, work: BakeResult) -> Kind:
    """One bread of a bake as a kind on its line."""
    return Kind(name, r, work.program, work.sheet, work.bread)


def line_kinds(r: BakeSnapshot, work: BakeResult) -> MixedLine:
    """The kinds of bread on a bake's line."""
    results = [work, *work.parts]
    results += [BakeResult()] * (1 + len(r.bake.parts) - len(results))
    named = zip(names_of(r.bake), breads_of(r), results, strict=True)
    return mixed([kind_of(name, b, w) for name, b, w in named])


def _fire(work: BakeResult, r: BakeSnapshot, bread_c: float, maturity: float | None = None) -> None:
    """Every bread of the dough on its heat, and the line of them all."""
    assert work.sheet is not None
    main, *further = breads_of(r)
    _bread(work, main, bread_c, maturity)
    work.parts = []
    for given, b in zip(r.bake.parts, further, strict=True):
        part = BakeResult(sheet=_part_sheet(work.sheet, b.bake), bowl=work.bowl, risen=work.risen)
        _bread(part, b, bread_c, maturity)
        if "fire" in part.faults:
            work.faults.setdefault("fire", f"{given['name']}: {part.faults['fire']}")
        work.parts.append(part)
    if work.program is not None:
        line = line_kinds(r, work)
        work.line = plan_line(line.spec(), line.rounds, QUICK_LINE)
        for part in work.parts:
            part.line = work.line


def _part_sheet(sheet: WeighSheet, bake: Bake) -> WeighSheet:
    """The sheet of a dough with another bread's pieces and size."""
    assert bake.count is not None and bake.piece_g is not None  # a further bread has both
    laid = geometry_of(bake.piece_g, shape_of(bake), kept_frac=kept_gas_frac(sheet.dough))
    return replace(sheet, pieces=Pieces(bake.count, bake.piece_g, 0.0), sheet=laid, filling=None)


def _bread(work: BakeResult, r: BakeSnapshot, bread_c: float, maturity: float | None) -> None:
    """One bread on its heat."""
    bake, sheet = r.bake, work.sheet
    assert sheet is not None
    piece_g = bake.piece_g or (sheet.pieces.mass_g if sheet.pieces else 0.0)
    if sheet.sheet is None or not piece_g:
        work.faults["fire"] = "Give a piece weight and a diameter on the Weigh leaf; the heat needs a thickness."
        return
    if not sheet.dough.has_flour_and_water:
        work.faults["fire"] = NO_DOUGH
        return
    mm = thickness_mm(piece_g, sheet.sheet.area_cm2)
    if not 1 <= mm <= MOST_MM:
        work.faults["fire"] = f"{mm:.1f} mm is no flatbread. Change the weight or the diameter: 1 to {MOST_MM} mm."
        return
    lifted = not sheet.dough.has_ferment
    surface = surface_of(r.surface).spec
    bread = puff_model.Bread(
        mm / 1000,
        sheet.sheet.diameter_cm / 100,
        sheet.dough.water_per_dry,
        bread_c,
        pocket=not bake.docked,
        browning=browning(sheet.dough) * browns_of(r.surface),
    )
    if lifted:
        bread = replace(bread, rise_g=chemical_rise(mm, surface.air_heated))
        bread = heaped(bread) if surface.air_heated else bread
    else:
        bread = proved(bread) if surface.way == "tray" else yeasted(bread)
    work.bread = layered(
        replace(bread, pocket=bread.pocket and not bread.thick), piece_g, (bake.filling or {}).get("per_piece_g") or 0.0
    )
    work.bread = layered(work.bread, piece_g, dressing_g(bake, "before"))
    work.maturity = maturity
    work.program = program_at(r, work.bread, maturity, surface_of(r.surface).temp_c)


def line_of_rows(r: BakeSnapshot) -> MixedLine:
    """The kinds on a bake's line, computing only what is not frozen."""
    return line_kinds(r, BakeResult() if r.bake.hearth else solve(r))
