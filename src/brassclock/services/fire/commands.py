"""Taps: what was done and seen, stored when made, moved and undone; what was forecast is kept beside them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from contextlib import AbstractContextManager, nullcontext
from dataclasses import replace

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.terms import STEPS
from brassclock.core.time import hours_between, later
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake import frozen
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import MOVED_MIN, recording_plan_change
from brassclock.services.day.steps import hours_text
from brassclock.services.fire import model as fire_model
from brassclock.services.fire import session as heat_session
from brassclock.services.fire.live import core_taps, set_pending, stamp, states_of, with_tap
from brassclock.services.fire.program import program_dict
from brassclock.services.keep.learning import delete_records
from brassclock.services.rise.spec import STIR_MIN
from brassclock.services.schemas.fire import TapCreate, TapUpdate
from brassclock.services.times import past_moment
from brassclock.store import bakes as bake_rows
from brassclock.store.rows import append, insert
from brassclock.store.tables import ForecastRecord, Tap
from brassclock.store.unit import Stale

LINE_SPREAD = (0.85, 1.25)  # judgement: a first guess at how a line drifts
SAID_AT_LOAD = ("bubbles", "first brown", "pocket opens", "taken off", "last one off")


def tap(app: App, bake_id: int, given: TapCreate) -> int:
    """Store a tap when it is made. The same key again answers the first and stores nothing."""
    if given.kind in hearth_rules.ON_HEAT and (bake_id in states_of(app) or app.peek(bake_id, "hearth") is not None):
        return _move(app, bake_id, given)
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        had = bake_rows.tap_by_key(session, bake_id, given.key)
        if had is not None:
            return had.id or 0
        r.bake.revision += 1
        if given.kind not in STEPS:
            return add_tap(session, r, given)
        with recording_plan_change(app, session, r.bake.kitchen_id, _when_done(r, given), bake_id):
            return add_tap(session, r, given)


def _move(app: App, bake_id: int, given: TapCreate) -> int:
    """A move of a line that has begun: it hangs on the moves before it and on nothing else, and is one step of them."""
    with app.heat_transaction(bake_id) as unit:
        session = unit.session
        seen = stamp(app, session.connection(), bake_id, given.key)
        if seen is None:
            raise NotFound(f"There is no bake {bake_id}. It may have been deleted; undo brings it back.")
        if seen.tap_id is not None:
            return seen.tap_id
        if not seen.begun:
            states_of(app).forget(bake_id)
            raise Stale(f"The first load of bake {bake_id} was taken back meanwhile.")
        unit.expect("bake", "revision", bake_id, seen.revision, bumps=True)
        state = states_of(app).state(app, session, bake_id, seen)
        r = state.rows
        at = past_moment(given.at, r.now, given.said_at)
        _check_live(r)
        told = _check_move(r, state.moves, given, at)
        row = append(session, _row(r, given, max(at, dt.datetime.fromtimestamp(told, at.tzinfo))))
        set_pending(app, unit, bake_id, with_tap(state, row), seen)
        return row.id or 0


def _when_done(r: BakeSnapshot, given: TapCreate) -> str:
    """A step as the reason for what moves: done in time, late or early."""
    at, told = past_moment(given.at, r.now, given.said_at), _told_at(r, given.kind)
    said = f"it was {NAMES[given.kind]}"
    by_min = 60 * hours_between(told, at) if told else 0.0
    if abs(by_min) < MOVED_MIN:
        return said
    return f"{said} {hours_text(abs(by_min) / 60)} {'late' if by_min > 0 else 'early'}"


def _told_at(r: BakeSnapshot, kind: str) -> dt.datetime | None:
    """The instant at which a move is to be marked done, by the plan as it was told last; None where it was told nothing
    of it."""
    told = r.bake.told.get(kind)
    if told is None:
        return None
    mixing_min = r.bake.knead_min + STIR_MIN if kind == "mix" else 0.0  # its step begins the mixing, the tap ends it
    return later(dt.datetime.fromisoformat(told[0]), mixing_min / 60)


def _row(r: BakeSnapshot, given: TapCreate, at: dt.datetime) -> Tap:
    return Tap(
        bake_id=r.bake.id or 0,
        key=given.key,
        kind=given.kind,
        round_no=given.round_no,
        spot=given.spot,
        at=at,
        made_at=r.now,
        told_at=_told_at(r, given.kind),
        by=given.by,
    )


def add_tap(session: Session, r: BakeSnapshot, given: TapCreate) -> int:
    at = past_moment(given.at, r.now, given.said_at)
    told = _check_tap(r, given, at)
    if given.kind in hearth_rules.ON_HEAT:
        at = max(at, dt.datetime.fromtimestamp(told, at.tzinfo))
    _remember_forecast(session, r, given.kind, at)
    row = insert(session, _row(r, given, at))
    if given.kind in hearth_rules.FACTS:
        heat_session.retime(session, replace(r, taps=[*r.taps, row]))
    return row.id or 0


ORDER = ("weigh", "sponge", "mix", "ball", "roll")
NAMES = {
    "weigh": "weighed",
    "knead": "kneading",
    "sponge": "made into a sponge",
    "mix": "mixed",
    "cold_in": "put in the cold",
    "cold_out": "taken out of the cold",
    "ball": "balled",
    "preheat": "heating",
    "roll": "rolled",
}


def _check_live(r: BakeSnapshot) -> None:
    if r.bake.status != "live":
        raise Conflict(f"This bake is {r.bake.status}. Bring it back before you add to it.")


def _check_tap(r: BakeSnapshot, given: TapCreate, at: dt.datetime) -> float:
    """The instant of a tap in its order [s]. Raises Conflict when it cannot be."""
    _check_live(r)
    done = {t.kind: t.at for t in r.taps}
    if given.kind in NAMES:
        if given.kind in done:
            raise Conflict(
                f"Already marked {NAMES[given.kind]} at {done[given.kind].astimezone(r.now.tzinfo):%H:%M}. Undo that "
                "first."
            )
        if given.kind in ("cold_in", "cold_out") and "mix" not in done:
            raise Conflict("The dough is not marked mixed. Mark that first; it can be backdated.")
        if given.kind == "cold_out" and done.get("cold_in", at) >= at:
            raise Conflict("It is not marked as put in the cold before that. Mark that first; it can be backdated.")
        if given.kind == "ball" and "mix" not in done:
            raise Conflict("The dough is not marked mixed. Mark that first; it can be backdated.")
        for earlier in ORDER[: ORDER.index(given.kind)] if given.kind in ORDER else ():
            if earlier in done and done[earlier] > at:
                raise Conflict(
                    f"It was {NAMES[earlier]} at {done[earlier].astimezone(r.now.tzinfo):%H:%M}, after that. Give a "
                    "later time."
                )
        return at.timestamp()
    work = None if r.bake.program else solve.solve(r)
    if work is not None and any(w.program is None for w in (work, *work.parts)):
        raise Conflict(work.faults.get("fire", "There is no program for the heat yet."))
    return _check_move(r, core_taps(r.taps), given, at)


def _check_move(r: BakeSnapshot, moves: Sequence[hearth_rules.Tap], given: TapCreate, at: dt.datetime) -> float:
    """The instant of a move or a fact on the heat, not before the last one of its round or spot [s]. Raises Conflict
    when it cannot be."""
    if given.round_no is None or given.spot is None:
        raise invalid("/round_no", "A move on the heat names its round and its spot, as 1 and 1.")
    made = hearth_rules.Tap(given.kind, given.round_no, given.spot, at.timestamp())
    line = solve.line_of_rows(r)
    wrong = hearth_rules.impossible(moves, made, line.rounds, line.spots, line.grill, line.timings())
    if wrong:
        raise Conflict(wrong)
    return hearth_rules.in_order_s(moves, made)


def _remember_forecast(session: Session, r: BakeSnapshot, kind: str, at: dt.datetime) -> None:
    """Keep what was said before the fact, once, and freeze the program at the first load."""
    bake_id = r.bake.id or 0

    def keep(name: str, p10: float | None, p50: float | None, p90: float | None) -> None:
        if name not in r.said and p50 is not None:
            insert(session, ForecastRecord(bake_id=bake_id, name=name, p10=p10, p50=p50, p90=p90, since=at))

    if kind == "mix":
        ahead = replace(r, taps=[*r.taps, Tap(bake_id=bake_id, key="", kind="mix", at=at, made_at=at)])
        seen = solve.solve(ahead).forecast
        if seen:
            ready = seen.window("bulk").ready
            keep("ready to ball", *(None if h is None else h * 3600 for h in (ready.p10, ready.p50, ready.p90)))
    elif kind == "load" and r.bake.program is None:
        work = solve.solve(r)
        assert work.program and work.line  # a load without a program was refused
        _freeze(r, work)
        for name, event in zip(SAID_AT_LOAD, ("bubbles", "light_bottom", "puff"), strict=False):
            band = work.program.events[event]
            keep(name, band.p10, band.p50, band.p90)
        off = work.program.bands.events["off"]
        keep("taken off", off.p10, off.p50, off.p90)
        last = work.line.from_load_s
        keep("last one off", last * LINE_SPREAD[0], last, last * LINE_SPREAD[1])


def _freeze(r: BakeSnapshot, work: solve.BakeResult) -> None:
    """Keep the program and the hearth of every bread as the line begins with them."""
    line, programs, hearths = solve.line_kinds(r, work), [], []
    for kind, done in zip(line.kinds, (work, *work.parts), strict=True):
        b = kind.rows
        spots, grill = fire_model.spots_of(b), fire_model.grill_of(b, kind.program)
        topping = bool((b.bake.filling or {}).get("topping"))
        programs.append(program_dict(b, done))
        hearths.append(
            frozen.hearth_of(b.surface, r.kitchen, spots=spots, grill=grill, count=kind.loads, topping=topping)
        )
    r.bake.program, r.bake.hearth = programs[0], hearths[0]
    if line.several:
        own = line.rounds_of(0)
        r.bake.program = programs[0] | {"parts": programs[1:]}
        r.bake.hearth = hearths[0] | {"parts": hearths[1:], "order": list(line.order), "own": [own[0], own[-1]]}


def undo_tap(app: App, bake_id: int, tap_id: int) -> None:
    """Take a tap back; the hearth thaws when no load is left, and what was said of the heat then is unsaid."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        row = _tap(r, tap_id)
        _check_undo(r, row)
        r.bake.revision += 1
        with _told(app, session, r, row, "is not {what} after all"):
            row.undone_at = r.now
            if row.kind == "load" and sum(t.kind == "load" for t in r.taps) == 1:
                r.bake.program = r.bake.hearth = None
                delete_records(session, r, [n for n in r.said if n in SAID_AT_LOAD])
            if row.kind == "mix":
                delete_records(session, r, ["ready to ball"])
            if row.kind in hearth_rules.FACTS:
                heat_session.retime(session, heat_session.without(r, tap_id))


def _beside(r: BakeSnapshot, row: Tap) -> list[Tap]:
    """The other moves on the heat of a move's round or spot."""
    return [
        t
        for t in r.taps
        if t.id != row.id and t.kind in hearth_rules.ON_HEAT and (t.round_no == row.round_no or t.spot == row.spot)
    ]


def _check_undo(r: BakeSnapshot, row: Tap) -> None:
    """A move on the heat is taken back before what came of it, or a round would be nowhere."""
    if row.kind not in hearth_rules.ON_HEAT:
        return
    since = [t for t in _beside(r, row) if (t.at, t.id or 0) > (row.at, row.id or 0)]
    if since:
        first = since[0]
        raise Conflict(f"Round {first.round_no} was {DONE[first.kind]} since. Undo that first.")


DONE = {"load": "loaded there", "turn": "turned", "off": "taken off", hearth_rules.LOST: "lost"}


def _told(app: App, session: Session, r: BakeSnapshot, row: Tap, words: str) -> AbstractContextManager[None]:
    """Record what a step's tap changes in the plans; moves on the heat change none."""
    if row.kind not in STEPS:
        return nullcontext()
    return recording_plan_change(app, session, r.bake.kitchen_id, "it " + words.format(what=NAMES[row.kind]), r.bake.id)


def _tap(r: BakeSnapshot, tap_id: int) -> Tap:
    row = next((t for t in r.taps if t.id == tap_id), None)
    if row is None:
        raise NotFound(f"There is no tap {tap_id} to change on this bake; it may be undone already.")
    return row


def move_tap(app: App, bake_id: int, tap_id: int, change: TapUpdate) -> None:
    """Backdate a tap."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        row = _tap(r, tap_id)
        r.bake.revision += 1
        at = past_moment(change.at, r.now, change.said_at)
        others = [t for t in r.taps if t.id != tap_id]
        given = TapCreate.model_validate({"key": row.key, "kind": row.kind, "round_no": row.round_no, "spot": row.spot})
        if row.kind in NAMES:
            _check_tap(replace(r, taps=others), given, at)
        elif row.round_no is not None:
            near = (
                _beside(r, row)
                if row.kind in hearth_rules.ON_HEAT
                else [t for t in others if t.round_no == row.round_no]
            )
            before, after = [t for t in near if t.at < row.at], [t for t in near if t.at >= row.at]
            if any(t.at > at for t in before) or any(t.at < at for t in after):
                raise Conflict(
                    "That would put the moves of this round or spot out of order. Give a time between its neighbours."
                )
        with _told(app, session, r, row, f"was {{what}} at {at:%H:%M}"):
            row.at = at
            if row.kind in hearth_rules.FACTS or row.kind == "load":
                heat_session.retime(session, r)
