"""What a cook does with a bake: start, change, tap, read, judge, keep, delete, and undo of each."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace
from typing import Any

from sqlmodel import Session, col, delete

from brassclock.core.day.kitchen_air import air_c
from brassclock.core.evidence import refuse
from brassclock.core.fire import hearth as hearths
from brassclock.core.keep.learning import learned
from brassclock.core.rise.belief import Belief
from brassclock.core.units import Unreadable, parse_moment
from brassclock.core.weigh.lines import TypedLine, read_lines
from brassclock.core.weigh.methods import Method, methods
from brassclock.services import work as works
from brassclock.services.bowl import friction_after
from brassclock.services.house import House, Missing, Refused
from brassclock.services.pantry import kit_of
from brassclock.services.schemas import BakeChange, BakeIn, LineIn, OutcomeIn, ReadingIn, TapChange, TapIn
from brassclock.store import bakes as rows
from brassclock.store import kitchens
from brassclock.store import pantry as pantry_rows
from brassclock.store.tables import Bake, FlourBag, Outcome, OwnMethod, Reading, Said, Tap

SLACK = dt.timedelta(seconds=5)
OLDEST = dt.timedelta(days=14)
LINE_SPREAD = (0.85, 1.25)  # judgement: a first guess at how a line drifts


def moment_of(text: str, now: dt.datetime, pointer: str) -> dt.datetime:
    """The instant that a cook typed, or a BadRequest at `pointer`."""
    try:
        return parse_moment(text, now)
    except Unreadable as fault:
        raise refuse(pointer, str(fault)) from None


def serve_moment(text: str, now: dt.datetime) -> dt.datetime:
    """When people eat: ahead of now, within 14 days."""
    at = moment_of(text, now, "/serve")
    if at <= now:
        raise refuse("/serve", f"“{text}” is in the past; it is {now:%a %H:%M} here. Give a time ahead, as in 5 h.")
    if at - now > OLDEST:
        raise refuse("/serve", f"“{text}” is more than 14 days ahead. Give a nearer time.")
    return at


def past_moment(text: str | None, now: dt.datetime) -> dt.datetime:
    """When something was done: now when not given, never ahead of now."""
    if text is None:
        return now
    at = moment_of(text, now, "/at")
    if at > now + SLACK:
        at_yesterday = at - dt.timedelta(days=1)
        if now - at_yesterday < dt.timedelta(hours=20) and len(text) <= 8:
            return at_yesterday  # a bare time of day just gone
        raise refuse("/at", f"“{text}” is in the future. Give when it was done, as in 20 min ago.")
    if now - at > OLDEST:
        raise refuse("/at", f"“{text}” is more than 14 days ago. Give a nearer time.")
    return min(at, now)


def start_bake(house: House, given: BakeIn) -> int:
    """A new bake from a method; answers its id."""
    with house.action() as session:
        kitchen = house.kitchen(session, given.kitchen_id)
        return add_bake(session, given, house.now(session, kitchen))


def add_bake(session: Session, given: BakeIn, now: dt.datetime) -> int:
    """Store a new bake; answers its id."""
    surfaces = kitchens.surfaces(session, given.kitchen_id)
    if given.method.startswith("own-"):
        own = own_method(session, given.kitchen_id, given.method)
        suits: tuple[str, ...] = ()
        facts, name = {k: v for k, v in own.facts.items() if k != "from"}, own.name
    else:
        method = methods().get(given.method)
        if method is None:
            raise refuse("/method", f"“{given.method[:40]}” is not a method here. Use one of {', '.join(methods())}.")
        facts, name, suits = method_facts(method), method.name, method.surfaces
    suited = sorted((s for s in surfaces if s.kind in suits), key=lambda s: suits.index(s.kind))
    bake = Bake(
        kitchen_id=given.kitchen_id, name=given.name or name, method=given.method, **facts,
        surface_id=(suited or list(surfaces))[0].id if surfaces else None, serve_at=serve_moment(given.serve, now),
        created_at=now,
    )  # fmt: skip
    session.add(bake)
    session.flush()
    return bake.id or 0


def method_facts(method: Method) -> dict[str, Any]:
    """A method as the settings of a bake."""
    bulk_ratio, ball_ratio = method.ratios
    bulk, balls = method.rising
    stuffing = None
    if method.filling:
        stuffing = {
            "lines": [{"ingredient": x.ingredient, "amount": x.amount, "basis": None} for x in method.filling],
            "per_piece_g": method.filling_g, "topping": method.topping,
        }  # fmt: skip
    return {
        "seal": method.seal, "strength": method.strength, "bloomed": method.bloomed, "count": method.count,
        "piece_g": method.piece_g, "shape": method.shape.kind, "diameter_cm": method.shape.diameter_cm,
        "length_cm": method.shape.length_cm, "width_cm": method.shape.width_cm, "dough_c": method.dough_c,
        "knead": method.knead, "knead_min": method.knead_min, "bulk_ratio": bulk_ratio, "ball_ratio": ball_ratio,
        "bulk_h": bulk.low_h, "ball_h": balls.low_h, "docked": method.docked, "filling": stuffing,
        "lines": [{"ingredient": x.ingredient, "amount": x.amount, "basis": x.basis, "part": x.part} for x in method.lines],
    }  # fmt: skip


def own_method(session: Session, kitchen_id: int, method_id: str) -> OwnMethod:
    """A method of the kitchen's own, or Missing."""
    number = method_id.removeprefix("own-")
    row = session.get(OwnMethod, int(number)) if number.isdigit() and len(number) < 10 else None
    if row is None or row.kitchen_id != kitchen_id:
        raise Missing(f"There is no method {method_id[:40]} of this kitchen's own.")
    return row


def change_bake(house: House, bake_id: int, change: BakeChange) -> None:
    """Change any part of a bake; lines are read before they are stored, so nothing unreadable is kept."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        bake = r.bake
        for name in change.model_fields_set:
            value = getattr(change, name)
            if name == "serve":
                if value is not None:
                    bake.serve_at = serve_moment(value, r.now)
            elif name == "lines":
                bake.lines = _readable(r, change.lines or [])
                bake.weighed = []
            elif name == "filling":
                stuffing = change.filling
                bake.filling = (
                    None if stuffing is None else stuffing.model_dump() | {"lines": _readable(r, stuffing.lines)}
                )
            elif name == "bag_id":
                if value is not None and value not in {b.id for b in pantry_rows.bags(session, bake.kitchen_id)}:
                    raise refuse("/bag_id", f"There is no bag {value} in this kitchen.")
                bake.bag_id = value
            elif name == "surface_c":
                _set_surface_c(session, r, value)
            elif name == "surface_id":
                if value is not None and value not in {s.id for s in kitchens.surfaces(session, bake.kitchen_id)}:
                    raise refuse("/surface_id", f"There is no surface {value} in this kitchen.")
                bake.surface_id = value
            elif value is not None or name in OPTIONAL:
                setattr(bake, name, value)
        bake.revision += 1
        session.add(bake)


OPTIONAL = (
    "count", "piece_g", "diameter_cm", "length_cm", "width_cm", "thickness_mm", "flour_c", "uneven_frac", "skin_min", "solve_for",
)  # fmt: skip


def _readable(r: works.Rows, lines: list[LineIn]) -> list[dict[str, Any]]:
    """Lines as stored; read first, so nothing unreadable is kept."""
    typed = [TypedLine(x.ingredient, x.amount, x.basis, x.part) for x in lines]
    if typed:
        read_lines(typed, kit_of(r.kitchen, r.own))
    return [x.model_dump() for x in lines]


def _set_surface_c(session: Session, r: works.Rows, value: float | None) -> None:
    if r.surface is None or value is None:
        raise refuse("/surface_c", "This bake has no surface yet. Choose one first.")
    r.surface.temp_c = value
    session.add(r.surface)


def end_bake(house: House, bake_id: int, status: str) -> None:
    """Abandon a bake, or bring an abandoned or kept one back to life."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        bake, taught = r.bake, r.said.get("activity")
        if bake.status == "kept" and taught is not None:
            if taught.p50 == r.kitchen.activity_mean and taught.p10 and taught.p90:
                r.kitchen.activity_mean, r.kitchen.activity_sd_log = taught.p10, taught.p90
                session.add(r.kitchen)
            _unsay(session, r, ["activity"])
        _untaught_bag(session, r)
        bake.status = status
        bake.kept_at = None
        bake.revision += 1
        session.add(bake)


def delete_bake(house: House, bake_id: int) -> None:
    """Put a bake away; `restore_bake` brings it back whole."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        r.bake.deleted_at = r.now
        session.add(r.bake)


def restore_bake(house: House, bake_id: int) -> None:
    with house.action() as session:
        bake = session.get(Bake, bake_id)
        if bake is None:
            raise Missing(f"There is no bake {bake_id}.")
        bake.deleted_at = None
        session.add(bake)


def tap(house: House, bake_id: int, given: TapIn) -> int:
    """Store a tap when it is made. The same key again answers the first and stores nothing."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        had = rows.tap_by_key(session, bake_id, given.key)
        if had is not None:
            return had.id or 0
        return add_tap(session, r, given)


def add_tap(session: Session, r: works.Rows, given: TapIn) -> int:
    at = past_moment(given.at, r.now)
    _check_tap(r, given, at)
    _remember_forecast(session, r, given.kind, at)
    row = Tap(
        bake_id=r.bake.id or 0, key=given.key, kind=given.kind, round_no=given.round_no, spot=given.spot, at=at,
        made_at=r.now,
    )  # fmt: skip
    session.add(row)
    session.flush()
    return row.id or 0


ORDER = ("weigh", "mix", "ball", "roll")
NAMES = {
    "weigh": "weighed",
    "knead": "kneading",
    "mix": "mixed",
    "ball": "balled",
    "preheat": "heating",
    "roll": "rolled",
}


def _check_tap(r: works.Rows, given: TapIn, at: dt.datetime) -> None:
    if r.bake.status != "live":
        raise Refused(f"This bake is {r.bake.status}. Bring it back before you add to it.")
    done = {t.kind: t.at for t in r.taps}
    if given.kind in NAMES:
        if given.kind in done:
            raise Refused(
                f"Already marked {NAMES[given.kind]} at {done[given.kind].astimezone(r.now.tzinfo):%H:%M}. Undo that first."
            )
        if given.kind == "ball" and "mix" not in done:
            raise Refused("The dough is not marked mixed. Mark that first; it can be backdated.")
        for earlier in ORDER[: ORDER.index(given.kind)] if given.kind in ORDER else ():
            if earlier in done and done[earlier] > at:
                raise Refused(
                    f"It was {NAMES[earlier]} at {done[earlier].astimezone(r.now.tzinfo):%H:%M}, after that. Give a later time."
                )
        return
    if r.bake.program is None and works.work_of(r).program is None:
        raise Refused(works.work_of(r).faults.get("fire", "There is no program for the heat yet."))
    if given.round_no is None or given.spot is None:
        raise refuse("/round_no", "A move on the heat names its round and its spot, as 1 and 1.")
    moves = core_taps(r.taps)
    wrong = hearths.impossible(
        moves, hearths.Tap(given.kind, given.round_no, given.spot, at.timestamp()),
        works.rounds_of_rows(r), works.spots_of(r),
    )  # fmt: skip
    if wrong:
        raise Refused(wrong)


def core_taps(taps: Any) -> list[hearths.Tap]:
    """The moves and facts on the heat, as the core reads them."""
    return [
        hearths.Tap(t.kind, t.round_no, t.spot, t.at.timestamp())
        for t in taps
        if t.kind in (*hearths.MOVES, *hearths.FACTS)
    ]


def program_dict(r: works.Rows, work: works.Work) -> dict[str, Any]:
    """The program of this bake as it is shown and frozen."""
    if r.bake.program:
        return r.bake.program
    turn_s, off_s, recover_s = works.timing_of(r.bake, work.program)
    events = work.program.events if work.program else {}

    def at(name: str) -> float | None:
        return events[name].p50 if name in events else None

    return {
        "turn_s": turn_s, "off_s": off_s, "recover_s": recover_s, "puff_s": at("puff"), "bubbles_s": at("bubbles"),
        "brown_s": at("light_bottom"),
    }  # fmt: skip


def _remember_forecast(session: Session, r: works.Rows, kind: str, at: dt.datetime) -> None:
    """Keep what was said before the fact, once, and freeze the program at the first load."""
    bake_id = r.bake.id or 0

    def keep(name: str, p10: float | None, p50: float | None, p90: float | None) -> None:
        if name not in r.said and p50 is not None:
            session.add(Said(bake_id=bake_id, name=name, p10=p10, p50=p50, p90=p90, since=at))

    if kind == "mix":
        ahead = replace(r, taps=[*r.taps, Tap(bake_id=bake_id, key="", kind="mix", at=at, made_at=at)])
        seen = works.work_of(ahead).forecast
        if seen:
            ready = seen.window("bulk").ready
            keep("ready to ball", *(None if h is None else h * 3600 for h in (ready.p10, ready.p50, ready.p90)))
    elif kind == "load" and r.bake.program is None:
        work = works.work_of(r)
        assert work.program and work.line  # a load without a program was refused
        r.bake.program = program_dict(r, work)
        session.add(r.bake)
        for name, event in (("bubbles", "bubbles"), ("first brown", "light_bottom"), ("pocket opens", "puff")):
            band = work.program.events[event]
            keep(name, band.p10, band.p50, band.p90)
        off = work.program.off_s
        keep("taken off", off * 0.7, off, off * 1.3)
        last = work.line.makespan_s
        keep("last one off", last * LINE_SPREAD[0], last, last * LINE_SPREAD[1])


def undo_tap(house: House, bake_id: int, tap_id: int) -> None:
    """Take a tap back; the program thaws when no load is left, and what was said then is unsaid."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        row = _tap(r, tap_id)
        row.undone_at = r.now
        session.add(row)
        if row.kind == "load" and sum(t.kind == "load" for t in r.taps) == 1:
            r.bake.program = None
            session.add(r.bake)
            _unsay(session, r, [n for n in r.said if n != "ready to ball"])
        if row.kind == "mix":
            _unsay(session, r, ["ready to ball"])


def _unsay(session: Session, r: works.Rows, names: list[str]) -> None:
    session.exec(delete(Said).where(col(Said.bake_id) == r.bake.id, col(Said.name).in_(names)))


def _tap(r: works.Rows, tap_id: int) -> Tap:
    row = next((t for t in r.taps if t.id == tap_id), None)
    if row is None:
        raise Missing(f"There is no tap {tap_id} to change on this bake; it may be undone already.")
    return row


def move_tap(house: House, bake_id: int, tap_id: int, change: TapChange) -> None:
    """Backdate a tap."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        row = _tap(r, tap_id)
        at = past_moment(change.at, r.now)
        others = [t for t in r.taps if t.id != tap_id]
        given = TapIn.model_validate({"key": row.key, "kind": row.kind, "round_no": row.round_no, "spot": row.spot})
        if row.kind in NAMES:
            _check_tap(replace(r, taps=others), given, at)
        elif row.round_no is not None:
            before = [t for t in others if t.round_no == row.round_no and t.at < row.at]
            after = [t for t in others if t.round_no == row.round_no and t.at >= row.at]
            if any(t.at > at for t in before) or any(t.at < at for t in after):
                raise Refused(
                    "That would put the moves of this round out of order. Give a time between its neighbours."
                )
        row.at = at
        session.add(row)


def read(house: House, given: ReadingIn) -> int:
    """Store a look at the dough."""
    with house.action() as session:
        r = works.load(house, session, given.bake_id)
        return add_reading(session, r, given)


def add_reading(session: Session, r: works.Rows, given: ReadingIn) -> int:
    if given.kind == "feel" and given.feel is None:
        raise refuse("/feel", "Say how it felt: not_yet, just or past.")
    if given.kind != "feel" and given.value is None:
        raise refuse("/value", "Give what was read: the ratio to the start, as 1.4, or the dough's temperature.")
    at = past_moment(given.at, r.now)
    mixed = r.done().get("mix")
    if mixed is None:
        raise Refused("The dough is not mixed yet. Mark it mixed (it can be backdated), then read it.")
    if at <= mixed:
        raise refuse("/at", f"The dough was mixed at {mixed:%H:%M}; a reading comes after that.")
    row = Reading(
        kitchen_id=r.bake.kitchen_id, bake_id=r.bake.id, kind=given.kind, value=given.value, feel=given.feel, at=at,
        made_at=r.now,
    )  # fmt: skip
    session.add(row)
    session.flush()
    if given.kind == "dough_c" and given.value is not None and at - mixed <= works.JUST_MIXED:
        _learn_friction(session, r, mixed, given.value)
    return row.id or 0


def _learn_friction(session: Session, r: works.Rows, mixed: dt.datetime, seen_c: float) -> None:
    """One thermometer reading after mixing teaches how much this way of mixing warms; once a bake."""
    sheet = works.work_of(r).sheet
    if sheet is None or "friction" in r.said:
        return
    before = r.kitchen.friction.get(r.bake.knead, [1.0, 0.0])
    after = friction_after(r.bake, r.kitchen, sheet.dough, air_c(r.kitchen.hourly_c, mixed), seen_c)
    r.kitchen.friction = {**r.kitchen.friction, r.bake.knead: after}
    session.add(r.kitchen)
    told = Said(bake_id=r.bake.id or 0, name="friction", p10=before[0], p50=after[0], p90=before[1], since=r.now)
    session.add(told)


def _unlearn_friction(session: Session, r: works.Rows) -> None:
    told = r.said.get("friction")
    if told is not None and r.kitchen.friction.get(r.bake.knead, [None])[0] == told.p50:
        r.kitchen.friction = {**r.kitchen.friction, r.bake.knead: [told.p10 or 1.0, told.p90 or 0.0]}
        session.add(r.kitchen)
    _unsay(session, r, ["friction"])


def undo_reading(house: House, reading_id: int) -> int:
    """Take a reading back; answers its bake's id."""
    with house.action() as session:
        row = session.get(Reading, reading_id)
        if row is None or row.undone_at is not None or row.bake_id is None:
            raise Missing(f"There is no reading {reading_id} to undo.")
        r = works.load(house, session, row.bake_id)
        row.undone_at = r.now
        session.add(row)
        if row.kind == "dough_c":
            _unlearn_friction(session, r)
        return row.bake_id


def judge(house: House, bake_id: int, given: OutcomeIn) -> None:
    """Store what became of a round; sent again it replaces."""
    with house.action() as session:
        r = works.load(house, session, bake_id)
        add_outcome(session, r, given)


def add_outcome(session: Session, r: works.Rows, given: OutcomeIn) -> None:
    rounds = works.rounds_of_rows(r)
    if given.round_no > rounds:
        raise refuse("/round_no", f"There is no round {given.round_no}; this bake has 1 to {rounds}.")
    row = next((o for o in r.outcomes if o.round_no == given.round_no), None)
    row = row or Outcome(bake_id=r.bake.id or 0, round_no=given.round_no)
    for name in given.model_fields_set - {"round_no"}:
        setattr(row, name, getattr(given, name))
    session.add(row)


def keep(house: House, bake_id: int) -> None:
    """Close a bake into the logbook; its readings teach the kitchen's activity."""
    with house.action() as session:
        keep_rows(session, works.load(house, session, bake_id))


def keep_rows(session: Session, r: works.Rows) -> None:
    if r.bake.status == "kept":
        return
    forecast = works.work_of(r).forecast
    r.bake.status = "kept"
    r.bake.kept_at = r.now
    r.bake.revision += 1
    session.add(r.bake)
    _teach_bag(session, r)
    if forecast and r.readings:
        before = Belief(r.kitchen.activity_mean, r.kitchen.activity_sd_log)
        after = learned(before, forecast.belief)
        r.kitchen.activity_mean, r.kitchen.activity_sd_log = after.mean, after.sd_log
        session.add(r.kitchen)
        if "activity" not in r.said:
            told = Said(
                bake_id=r.bake.id or 0, name="activity", p10=before.mean, p50=after.mean, p90=before.sd_log, since=r.now
            )
            session.add(told)


def _teach_bag(session: Session, r: works.Rows) -> None:
    """What was added while kneading is this bag's thirst; the mean over its kept bakes."""
    bag = session.get(FlourBag, r.bake.bag_id) if r.bake.bag_id else None
    sheet = works.work_of(r).sheet
    if bag is None or sheet is None or not sheet.dough.flour_g:
        return
    water_g = sum(x.mass_g * x.ingredient.counted_water_frac for x in sheet.lines[len(r.bake.lines) :])
    flour_g = sum(x.mass_g * x.ingredient.flour_frac for x in sheet.lines[len(r.bake.lines) :])
    held_g = sum(r.bake.held.values())
    hydration = sheet.dough.hydration_frac or 0.0
    thirst = (water_g - held_g - flour_g * hydration) / sheet.dough.flour_g
    session.add(Said(bake_id=r.bake.id or 0, name="bag", p10=bag.thirst_frac, p90=float(bag.times), since=r.now))
    bag.thirst_frac = (bag.thirst_frac * bag.times + thirst) / (bag.times + 1)
    bag.times += 1
    session.add(bag)


def _untaught_bag(session: Session, r: works.Rows) -> None:
    told, bag = r.said.get("bag"), session.get(FlourBag, r.bake.bag_id) if r.bake.bag_id else None
    if told is not None and bag is not None and bag.times == int(told.p90 or 0) + 1:
        bag.thirst_frac, bag.times = told.p10 or 0.0, int(told.p90 or 0)
        session.add(bag)
    _unsay(session, r, ["bag"])
