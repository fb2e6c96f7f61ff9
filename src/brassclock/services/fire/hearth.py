"""The live hearth as the screens are given it: what lies where, what the hands do next by the mended line, the
towel."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from dataclasses import replace

from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.fire.line.live import LiveLine
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model
from brassclock.services.fire.kinds import MixedLine
from brassclock.services.fire.live import LINES, core_taps, pending, stamp, stamp_now, states_of, taps_out
from brassclock.services.fire.program import program_out
from brassclock.services.keep.kept import feel_of, kept_of, room_of
from brassclock.services.kitchen.clock import clock_out
from brassclock.services.kitchen.surface_view import surface_out
from brassclock.services.schemas.base import ClockRead
from brassclock.services.schemas.fire import (
    HearthRead,
    LineBreadRead,
    LineTaskRead,
    MoveRead,
    SpotRead,
    TapRead,
    TowelRead,
)
from brassclock.services.solve import BakeResult

SHOWN_TASKS = 40


def live_line(bake_id: int, kinds: MixedLine, taps: Sequence[hearth_rules.Tap]) -> LiveLine | None:
    """The line as the moves so far have mended it; None before the first load, and once it is over."""
    moves = [t for t in taps if t.kind in hearth_rules.ON_HEAT]
    if not moves:
        return None
    return LINES.after(bake_id, kinds.spec(), kinds.rounds, moves)


def hearth_of(r: BakeSnapshot, work: BakeResult) -> hearth_rules.Hearth:
    """The hearth after the taps, its loads where the line has them."""
    taps, kinds = core_taps(r.taps), solve.line_kinds(r, work)
    return _hearth(kinds, taps, live_line(r.bake.id or 0, kinds, taps))


def _hearth(kinds: MixedLine, taps: Sequence[hearth_rules.Tap], line: LiveLine | None) -> hearth_rules.Hearth:
    main = kinds.kinds[0]
    turn_s, off_s, recover_s = fire_model.timing_of(main.rows.bake, main.program)
    return hearth_rules.hearth(
        taps,
        kinds.rounds,
        kinds.spots,
        turn_s,
        off_s,
        recover_s,
        kinds.grill,
        line.contact_s if line else None,
        kinds.timings(),
    )


def hearth_tag(app: App, bake_id: int) -> str | None:
    """The entity tag of a bake's live hearth; None before its line has begun."""
    seen = stamp_now(app, bake_id)
    return seen.tag if seen is not None and seen.begun else None


def moved_tag(app: App, bake_id: int) -> str | None:
    """The tag that the hearth will have once the move that is being made is stored; None when none is."""
    with app.read() as session:
        found = pending(session, bake_id)
    return replace(found[1], revision=found[0].revision).tag if found else None


def hearth_out(app: App, bake_id: int) -> HearthRead:
    """The live hearth of a bake. Once the line has begun it is known from its taps alone: it is asked for every
    second."""
    with app.read() as session:
        state, seen = pending(session, bake_id) or (None, stamp(app, session.connection(), bake_id))
        if state is None and seen is not None and seen.begun and not session.dirty and not session.new:
            state = states_of(app).state(app, session, bake_id, seen)
        if state is not None and seen is not None and state.rows.bake.hearth and state.rows.bake.hearth["count"]:
            r, work, taps, shown = state.rows, BakeResult(), state.moves, state.shown
            clock = seen.clock_out()
        else:
            r = solve.load(app, session, bake_id)
            begun = r.bake.hearth is not None and r.bake.hearth["count"]
            work, taps = BakeResult() if begun else solve.solve(r), core_taps(r.taps)
            shown = taps_out(r.taps)
            clock = clock_out(app, session, r.kitchen)
    kinds = solve.line_kinds(r, work)
    line = live_line(bake_id, kinds, taps)
    return _out(kinds, work, clock, line, _hearth(kinds, taps, line), shown)


def _out(
    kinds: MixedLine,
    work: BakeResult,
    clock: ClockRead,
    line: LiveLine | None,
    state: hearth_rules.Hearth,
    taps: Sequence[TapRead],
) -> HearthRead:
    r, started = kinds.kinds[0].rows, any(t.kind == "load" for t in taps)
    return HearthRead(
        clock=clock,
        bake_id=r.bake.id or 0,
        name=r.bake.name,
        rounds=kinds.rounds,
        started=started,
        finished=state.finished,
        program=program_out(r, work),
        surface=surface_out(r.surface) if r.surface else None,
        breads=breads_out(kinds),
        spots=[
            SpotRead(
                number=s.number,
                state=s.state,
                round_no=s.round_no,
                side=s.side,
                since=_instant(s.since_s),
                until=_instant(s.until_s),
                grill=s.grill,
            )
            for s in state.spots
        ],
        due=[
            MoveRead(move=d.move, round_no=d.round_no, spot=d.spot, at=(_instant(d.at_s) if d.at_s else None) or r.now)
            for d in state.due
        ],
        waiting=list(state.waiting),
        off=list(state.off),
        lost=list(state.lost),
        taps=list(taps),
        line=_tasks_out(line, state) if line else [],
        late_s=line.late_s if line else 0.0,
        towel=_towel_out(r, kinds, state),
        last_off_at=_last_off(r, work, state, line) if started and not state.finished else None,
    )


def breads_out(kinds: MixedLine) -> list[LineBreadRead]:
    """The kinds on a line with their rounds, spots and programs; empty where there is one."""
    if not kinds.several:
        return []
    return [
        LineBreadRead(
            name=kind.name,
            rounds=kinds.rounds_of(k),
            pieces=kind.pieces,
            first_spot=kinds.lies[k][0],
            last_spot=kinds.lies[k][1],
            surface=surface_out(kind.rows.surface) if kind.rows.surface else None,
            program=program_out(kind.rows, BakeResult(program=kind.program)),
        )
        for k, kind in enumerate(kinds.kinds)
    ]


def _instant(seconds: float | None) -> dt.datetime | None:
    return None if seconds is None else dt.datetime.fromtimestamp(seconds, dt.UTC)


def _tasks_out(line: LiveLine, state: hearth_rules.Hearth) -> list[LineTaskRead]:
    """The hand moves ahead, soonest first: those on the heat when the clock of each bread has them, loads when they
    touch. The first SHOWN_TASKS, and every load after them: a page that lost the server plans by them."""
    due = {(d.round_no, d.move): d.at_s for d in state.due if d.move != "load"}
    due |= {(n, "load"): at_s for n, at_s in line.contact_s.items()}
    soonest = sorted(((due.get((t.round_no, t.move), t.start_s), n, t) for n, t in enumerate(line.tasks)))
    return [
        LineTaskRead(
            move=t.move,
            round_no=t.round_no,
            spot=t.spot,
            cook=t.cook,
            hands_s=t.end_s - t.start_s,
            at=dt.datetime.fromtimestamp(at_s, dt.UTC),
        )
        for k, (at_s, _, t) in enumerate(soonest)
        if k < SHOWN_TASKS or t.move == "load"
    ]


def _towel_out(r: BakeSnapshot, kinds: MixedLine, state: hearth_rules.Hearth) -> list[TowelRead]:
    """Each round in the towel: since when, and how it feels by now."""
    came = {t.round_no: t.at for t in r.taps if t.kind == "off"}
    breads = [kept_of(k) for k in kinds.kinds]
    stack, room, of_round = len(state.off), room_of(r), kinds.order
    return [
        TowelRead(
            round_no=n,
            since=came[n],
            feel=feel_of(breads[of_round[n - 1]], stack, room, (r.now - came[n]).total_seconds()),
        )
        for n in state.off
    ]


def _last_off(
    r: BakeSnapshot, work: BakeResult, state: hearth_rules.Hearth, line: LiveLine | None
) -> dt.datetime | None:
    """Instant at which the last round comes off by the line, or by the spots alone where none holds."""
    if line is not None and line.off_s:
        return _instant(max(line.off_s.values()))
    turn_s, off_s, recover_s = fire_model.timing_of(r.bake, work.program)  # of its own bread, for all, where none holds
    frees = []
    for spot in (s for s in state.spots if not s.grill):
        due = next((d.at_s for d in state.due if d.spot == spot.number and d.move != "load"), None)
        left = off_s - (turn_s or 0.0) if spot.side == "a" and turn_s is not None else 0.0
        frees.append(max(due + left if due else spot.until_s or 0.0, r.now.timestamp()) + (recover_s if due else 0.0))
    last = max((f - recover_s for f in frees), default=0.0)
    for _ in state.waiting:
        k = min(range(len(frees)), key=lambda i: frees[i])
        last = frees[k] + off_s
        frees[k] = last + recover_s
    return _instant(last)
