"""One bake, computed: from its rows to sheet, heat, plan, forecast, program and line.

Nothing here is stored; the same rows and minute give the same answer, so answers are remembered.
"""

from __future__ import annotations

import datetime as dt
import json
import math
from collections import OrderedDict
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from typing import Any

from sqlmodel import Session

from brassclock.core.day.backward import BakeSpec, DayPlan
from brassclock.core.day.hands import Busy
from brassclock.core.day.kitchen_air import air_c
from brassclock.core.evidence import BadRequest
from brassclock.core.fire import hearth as hearths
from brassclock.core.fire.actions import extra_moves, leaves_s
from brassclock.core.fire.baking import Faults
from brassclock.core.fire.colour import Wish
from brassclock.core.fire.heating import RECOVER_LIMIT_S
from brassclock.core.fire.layers import (
    MOST_MM,
    YEASTED_RISE,
    browning,
    chemical_rise,
    layered,
    proved,
)
from brassclock.core.fire.legs import Step
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import GRILL, Line, LineSpec, Station, bread_ops
from brassclock.core.fire.program import Program, events_on, plan_bread
from brassclock.core.fire.puff import model as puff
from brassclock.core.fire.puff.model import COARSE_GRID
from brassclock.core.matter.spoiling import holds_of, must_be_hot
from brassclock.core.rise import course as yeast
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.dough_heat import sheet_excess_kept
from brassclock.core.rise.recipe import dosed
from brassclock.core.weigh.formula import WeighSheet
from brassclock.core.weigh.geometry import thickness_mm
from brassclock.services.app import House, Outdated
from brassclock.services.bake import snapshot as bakerows
from brassclock.services.bake.broken import Broken, catching
from brassclock.services.bake.snapshot import JUST_MIXED as JUST_MIXED
from brassclock.services.bake.snapshot import Rows as Rows
from brassclock.services.bake.snapshot import mix_temp_c as mix_temp_c
from brassclock.services.bake.snapshot import surface_of as surface_of
from brassclock.services.day import sharing
from brassclock.services.kitchen import hours
from brassclock.services.kitchen.pantry import kit_of
from brassclock.services.mix import model as bowls
from brassclock.services.rise import forecast as rising
from brassclock.services.rise.forecast import Risen
from brassclock.services.weigh.model import sheet_of, sponge_g
from brassclock.store import bakes as rows
from brassclock.store.rows import get
from brassclock.store.tables import Bake, Surface

BENCH_REST_MIN = 8.0
REMEMBERED = 64
LINE_S = 900.0
QUICK_LINE_S = 0.02  # of looking for a line while everything else is computed; it is looked for longer when it is shown


@dataclass
class Work:
    """What was computed of a bake. A part that cannot be is None and its reason stands in `faults`."""

    sheet: WeighSheet | None = None
    bowl: bowls.BowlHeat | None = None
    program: Program | None = None
    bread: puff.Bread | None = None
    maturity: float | None = None  # of the balls when they are rolled
    line: Line | None = None
    risen: Risen | None = None
    faults: dict[str, str] = field(default_factory=dict)

    @property
    def plan(self) -> DayPlan | None:
        return self.risen.plan if self.risen else None

    @property
    def forecast(self) -> rise.Forecast | None:
        return self.risen.forecast if self.risen else None


_memory: OrderedDict[str, Work] = OrderedDict()


def work_of(r: Rows) -> Work:
    """The computed bake, remembered for a minute."""
    key = json.dumps(
        [
            r.bake.model_dump(mode="json", exclude=UNSEEN),
            r.bake.serve_at.timestamp(),
            r.bake.serve_until and r.bake.serve_until.timestamp(),
            r.kitchen.model_dump(mode="json", exclude={"version"}),
            r.surface.model_dump() if r.surface else None,
            {k: str(v) for k, v in r.own.items()},
            [(t.kind, t.at.timestamp()) for t in r.taps if t.kind not in ("turn", "off", hearths.LOST, *hearths.FACTS)],
            [(x.kind, x.value, x.feel, x.place, x.at.timestamp()) for x in (*r.readings, *r.air)],
            [r.starter.model_dump(mode="json") if r.starter else None, *(f.model_dump(mode="json") for f in r.feeds)],
            [(b.start.isoformat(), b.end.isoformat(), b.hands) for b in (*r.busy, *r.taken)],
            str(r.shared),
            _tick(r),
            compiled(),
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


def compiled() -> bool:
    """Whether both steppers answer compiled, on their finer grids."""
    return yeast.course_stepper.ready and puff.bake_stepper.ready


UNSEEN = {"note", "revision", "name", "told", "summary", "serve_at", "serve_until"}  # of a bake, by its answer's key
FAR, FAR_TICK_S = dt.timedelta(hours=1), 600


def _tick(r: Rows) -> int:
    """What of the time a bake's answer hangs on: its minute; ten of them while every move lies an hour ahead."""
    if r.bake.status != "live" or _last_seen(r) < r.now:
        return 0
    moves = [dt.datetime.fromisoformat(at) for at, _ in r.bake.told.values()]
    far = not r.taps and moves and min(moves) - r.now > FAR
    return int(r.now.timestamp() // (FAR_TICK_S if far else 60))


Computed = list[tuple[Rows, Work]]


def load_live(house: House, session: Session, kitchen_id: int) -> tuple[Computed, list[Broken]]:
    """(the live bakes of a kitchen, computed, soonest table first, each around the hands that the others were last told to want; those that cannot be)."""
    busy = _hours_away(house, session, kitchen_id)
    found: Computed = []
    broken: list[Broken] = []
    for bake_id in rows.live_ids(session, kitchen_id):
        with catching(session, bake_id, broken):
            r = load(house, session, bake_id, busy)
            found.append((r, work_of(r)))
    return sorted(found, key=lambda x: (x[0].bake.serve_at, x[0].bake.id or 0)), broken


def live_bakes(session: Session, kitchen_id: int) -> list[Bake]:
    """The live bakes of a kitchen whose rows can be read."""
    found: list[Bake] = []
    for bake_id in rows.live_ids(session, kitchen_id):
        with catching(session, bake_id, []):
            bake = get(session, Bake, bake_id)
            if bake is not None:
                found.append(bake)
    return found


def plan_all(house: House, session: Session, kitchen_id: int) -> list[tuple[Rows, Work]]:
    """The live bakes of a kitchen planned anew, one after the other, each around what those before it take.

    A dough that is mixed goes first, then the soonest table.
    """
    busy = _hours_away(house, session, kitchen_id)
    takes: list[sharing.Takes] = []
    done = []
    for bake in sorted(live_bakes(session, kitchen_id), key=_rank):
        with catching(session, bake.id or 0, []):
            r = sharing.around(bakerows.load(house, session, bake.id or 0, busy), takes)
            work = work_of(r)
            if work.plan is not None:
                takes.append(sharing.planned(r, work.plan))
            done.append((r, work))
    return done


def _hours_away(house: House, session: Session, kitchen_id: int) -> tuple[Busy, ...]:
    """The kitchen's busy hours, read once for all its bakes."""
    kitchen = house.kitchen(session, kitchen_id)
    return hours.spans(session, kitchen, house.now(session, kitchen))


def _rank(bake: Bake) -> tuple[bool, dt.datetime, int]:
    """Which bake takes its hands first."""
    return not bake.told or "mix" in bake.told, bake.serve_at, bake.id or 0


def load(house: House, session: Session, bake_id: int, busy: tuple[Busy, ...] | None = None) -> Rows:
    """The rows of a bake, with what bakes before it were told to have of hands, surface and shelf; or Missing."""
    r = bakerows.load(house, session, bake_id, busy)
    return sharing.around(r, _before(session, r)) if r.bake.status == "live" else r


def on_surface(session: Session, r: Rows, surface: Surface) -> Rows:
    """The rows of a live bake as if it baked on another surface; its own stay as they are."""
    bake = Bake(**{**r.bake.model_dump(), "surface_id": surface.id})
    return sharing.around(replace(r, bake=bake, surface=surface), _before(session, r))


def _before(session: Session, r: Rows) -> list[sharing.Takes]:
    """What the live bakes that go before this one were told to take."""
    found = []
    for other in sorted(live_bakes(session, r.bake.kitchen_id), key=_rank):
        if other.id != r.bake.id and _rank(other) < _rank(r.bake):
            with catching(session, other.id or 0, []):
                found.append(sharing.told(other, r))
    return found


@contextmanager
def change(house: House, bake_id: int, revision: int | None = None) -> Iterator[tuple[Session, Rows]]:
    """One change of a bake, as one transaction: its rows to alter, kept with the next revision.

    `revision` is the one the change was made on. Raises Outdated when the bake has a later one.
    """
    with house.bake_action(bake_id) as session:
        r = load(house, session, bake_id)
        check_revision(bake_id, r.bake.revision, revision)
        r.bake.revision += 1
        yield session, r
        broken: list[Broken] = []
        with catching(session, bake_id, broken):  # one that cannot be computed can still be put away, and mended
            after = load(house, session, bake_id)
            plan = work_of(after).plan if r.bake.status == "live" else None
            if not overdue(after):  # what the cook sees in the answer; a slip is told by the move itself
                r.bake.told = moments(plan) if plan is not None else {}
        if broken:
            r.bake.told = {}


def check_revision(bake_id: int, newest: int, revision: int | None) -> None:
    """Raise Outdated when a bake was changed since that revision; None is the newest."""
    if revision is not None and revision != newest:
        raise Outdated(
            bake_id, f"Bake {bake_id} was changed meanwhile (yours is revision {revision}, it is at {newest} now)."
        )


Moments = dict[str, list[Any]]
ELSEWHERE = ("feed", "serve")  # marked on the starter, or not at all


def overdue(r: Rows) -> bool:
    """Whether a move that was told has gone by and is not done: the plan slips with the clock."""
    done = {*ELSEWHERE, *r.done()}
    return any(dt.datetime.fromisoformat(at) < r.now for key, (at, _) in r.bake.told.items() if key not in done)


def moments(plan: DayPlan) -> Moments:
    """Moves still to do: when each is, and its minutes of hands."""
    return {s.key: [s.at.isoformat(), s.hands_min] for s in plan.steps if s.done_at is None}


FORGOTTEN = dt.timedelta(days=3)


def _last_seen(r: Rows) -> dt.datetime:
    """Now, or FORGOTTEN after the last that is known of a bake: one that lies about for a year is not reckoned through it."""
    last = max([r.bake.serve_at, r.bake.created_at, *(t.at for t in r.taps), *(x.at for x in r.readings)])
    return min(r.now, (last + FORGOTTEN).astimezone(r.now.tzinfo))


def compute(r: Rows, *, quick: bool = False) -> Work:
    """The bake computed anew. `quick` leaves out what a picture under a finger does not show."""
    work = Work()
    r = replace(r, now=_last_seen(r))
    bake, kitchen = r.bake, r.kitchen
    try:
        work.sheet = sheet_of(bake, kitchen, r.own)
    except BadRequest as fault:
        work.faults["weigh"] = " ".join(f.detail for f in fault.faults)
        return work
    dough = dosed(work.sheet.dough, r.dose_factor)
    serve = bake.serve_at.astimezone(r.now.tzinfo)
    if not quick:
        _fire(work, r, air_c(kitchen.hourly_c, serve))
    if not dough.flour_g or not dough.water_g:
        work.faults["mix"] = work.faults["rise"] = "A dough needs flour and water. Add both on the Weigh leaf."
        return work
    line_min = math.ceil((work.line.from_load_s if work.line else LINE_S) / 60) + 1 if not quick else r.line_min
    if rising.rises(dough, kitchen.powder):
        work.risen = rising.risen(r, dough, line_min, sponge_g(bake, work.sheet, r.dose_factor), quick=quick)
        if not quick:
            _fire_after(work, r)
    else:
        work.risen = rising.rested(r, dough, line_min)
        rest = work.risen.rested
        if rest is None or rest.here is None:
            work.faults["rise"] = rising.NOTHING_LIFTS
    if not quick:
        work.bowl = bowls.bowl_heat(bake, kitchen, dough, air_c(kitchen.hourly_c, work.risen.plan.mixed_at))
    return work


def spec_now(r: Rows, work: Work) -> BakeSpec:
    """The spec of a computed bake as its settings have it."""
    assert work.sheet is not None and work.plan is not None
    if work.plan.spec.rests:
        return work.plan.spec
    line_min = work.plan.spec.line_min - work.plan.spec.service_min
    return rising.spec_of(r, work.sheet.dough, line_min, sponge_g(r.bake, work.sheet, 1.0))


def _fire_after(work: Work, r: Rows) -> None:
    """The heat again, for the dough as the rise will leave it."""
    seen, plan = work.forecast, work.plan
    if work.bread is None or seen is None or plan is None:
        return
    air = air_c(r.kitchen.hourly_c, plan.step("line").at)
    kept = sheet_excess_kept(work.bread.thickness_m, BENCH_REST_MIN)
    _fire(work, r, air + (float(seen.trace.dough_c[-1]) - air) * kept, float(seen.trace.maturity[-1]))


def _fire(work: Work, r: Rows, bread_c: float, maturity: float | None = None) -> None:
    bake, sheet = r.bake, work.sheet
    assert sheet is not None
    piece_g = bake.piece_g or (sheet.pieces.mass_g if sheet.pieces else 0.0)
    if sheet.sheet is None or not piece_g:
        work.faults["fire"] = "Give a piece weight and a diameter on the Weigh leaf; the heat needs a thickness."
        return
    mm = thickness_mm(piece_g, sheet.sheet.area_cm2)
    if not 1 <= mm <= MOST_MM:
        work.faults["fire"] = f"{mm:.1f} mm is no flatbread. Change the weight or the diameter: 1 to {MOST_MM} mm."
        return
    lifted = not rising.has_ferment(sheet.dough) and sheet.dough.flour_g > 0
    bread = puff.Bread(
        mm / 1000, sheet.sheet.diameter_cm / 100, sheet.dough.water_per_dry, bread_c,
        rise_g=chemical_rise(mm) if lifted else YEASTED_RISE, pocket=not bake.docked,
        browning=browning(sheet.dough),
    )  # fmt: skip
    if surface_of(r.surface).spec.way == "tray" and not lifted:
        bread = proved(bread)
    work.bread = layered(
        replace(bread, pocket=bread.pocket and not bread.thick), piece_g, (bake.filling or {}).get("per_piece_g") or 0.0
    )
    work.bread = layered(work.bread, piece_g, dressing_g(bake, "before"))
    work.maturity = maturity
    work.program = program_at(r, work, surface_of(r.surface).temp_c)
    work.line = plan_line(line_spec(r, work.program), loads_of(r, sheet), QUICK_LINE_S)


def _holds_meat(r: Rows) -> bool:
    """Whether the bread is filled with what must be hot inside. What nobody knows, an own
    filling of which nothing is said or a line not read, counts as meat."""
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
    r: Rows, work: Work, temp_c: float, rest_min: float | None = None, lies_min: float = 0.0
) -> Program:  # fmt: skip
    """The program of a computed bake's bread with its surface at a temperature, so long rested after rolling (None: enough) or lying bare."""
    assert work.bread is not None
    bake = r.bake
    bare_min = (bake.skin_min or 0.0) + lies_min
    return plan_bread(
        work.bread, replace(surface_of(r.surface), temp_c=temp_c), wish=wished(bake), altitude_m=r.kitchen.altitude_m,
        faults=Faults(bake.uneven_frac, bare_min or None, maturity=work.maturity, rest_min=rest_min), docked=bake.docked,
        topped=_topped(r), filled=_holds_meat(r), steps=own_steps(bake), dressing_g=dressing_g(bake, "after_turn"),
    )  # fmt: skip


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


def doses_at(r: Rows, work: Work, temp_c: float, turn_s: float | None, off_s: float) -> tuple[float, float]:
    """Browning of the two faces of that bread with its surface at a temperature, turned and taken off as it was."""
    assert work.program is not None
    baking = work.program.baking.usual.at(temp_c)
    sides = [off_s] if turn_s is None else [turn_s, max(off_s - turn_s, 0.5)]
    legs = [replace(leg, seconds=s, until="time") for leg, s in zip(baking.legs, sides, strict=False)]
    return baking.baked(legs, grid=COARSE_GRID).brown


def events_at(r: Rows, work: Work, temp_c: float) -> dict[str, float | None]:
    """The events of that bread with its surface at a temperature."""
    assert work.bread is not None
    turned = not (r.bake.docked or _topped(r))
    return events_on(
        work.bread,
        replace(surface_of(r.surface), temp_c=temp_c),
        wished(r.bake),
        r.kitchen.altitude_m,
        turned,
    )


def _topped(r: Rows) -> bool:
    return bool((r.bake.filling or {}).get("topping")) or dressing_g(r.bake, "before") > 0


def line_spec(r: Rows, program: Program | None) -> LineSpec:
    """The moves, spots, hands and grill of a bake's line."""
    turn_s, off_s, recover_s = timing_of(r.bake, program)
    grill = grill_of(r, program)
    topping, cooks = _topped(r), r.kitchen.cooks
    if r.bake.hearth:
        topping, cooks = r.bake.hearth["topping"], r.bake.hearth["cooks"]
    ops = bread_ops(turn_s, off_s, bool(grill), topping, moves_of(r.bake, program))
    stations = (Station(GRILL, grill),) if grill else ()
    return LineSpec(ops, spots_of(r), cooks, math.ceil(recover_s), stations=stations)


def grill_of(r: Rows, program: Program | None) -> int:
    """Places under the grill: as many as pans, where breads go from one to the other; else none."""
    if r.bake.hearth:
        return int(r.bake.hearth["grill"])
    second = (r.bake.program or {}).get("second") or (program.second if program else "turn")
    return spots_of(r) if second == GRILL else 0


def rounds_of(bake: Bake, sheet: WeighSheet | None) -> int:
    """How many rounds go on the heat; once one was loaded, as many as were to go then."""
    if bake.hearth and bake.hearth["count"]:
        return int(bake.hearth["count"])
    if bake.count:
        return bake.count
    return sheet.pieces.count if sheet and sheet.pieces else 1


def loads_of(r: Rows, sheet: WeighSheet | None) -> int:
    """How many loads go on the heat: each round for itself, rolls in a tray all at once."""
    if r.bake.hearth is None and surface_of(r.surface).spec.way == "tray":
        return 1
    return rounds_of(r.bake, sheet)


def loads_of_rows(r: Rows) -> int:
    """The same, computing only when the count is not set."""
    known = r.bake.hearth["count"] if r.bake.hearth else r.bake.count
    return int(known) if r.bake.hearth and known else loads_of(r, None if known else work_of(r).sheet)


def spots_of(r: Rows) -> int:
    """Spots of the surface; once a round was loaded, as many as it had then."""
    if r.bake.hearth:
        return int(r.bake.hearth["spots"])
    return r.surface.spots if r.surface else 1


def moves_of(bake: Bake, program: Program | None) -> list[tuple[str, float, int]]:
    """What the hands do to a bread on the heat besides load, turn and off, as frozen once the line has begun: name, seconds from contact, hands [s]."""
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
    recover = program.recovery_s if program.recovery_s is not None else RECOVER_LIMIT_S
    return program.turn_s, leaves_s(program), recover
