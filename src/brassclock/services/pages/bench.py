"""The Bench of a kitchen."""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Iterable
from zoneinfo import ZoneInfo

from sqlmodel import Session

from brassclock.core.day.kitchen_air import air_c
from brassclock.services import solve
from brassclock.services.app import App, clock_now, stored_clock
from brassclock.services.bake.broken import catching
from brassclock.services.bake.ended import broken_out, ended
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.bake.view import brief_of
from brassclock.services.day.steps import steps_of
from brassclock.services.fire.hearth import hearth_of
from brassclock.services.instruments.channels import notes_of
from brassclock.services.kitchen import hours
from brassclock.services.kitchen.busy import spans_out
from brassclock.services.kitchen.clock import clock_out
from brassclock.services.kitchen.servings import steps_of_servings
from brassclock.services.kitchen.settings import kitchen_out
from brassclock.services.pages.say import moved_lately, next_step, say_of, say_step, say_stock, text, warned
from brassclock.services.schemas.bake import BenchRead, SayPart
from brassclock.services.schemas.base import StepRead
from brassclock.services.solve import BakeResult
from brassclock.store import bakes as bake_rows

LATEST_ENDED = 6


BENCH_STAMP = (
    "select k.version, c.anchor_real, c.anchor_sim, c.rate, (select count(*) || ' ' || total(revision) from bake "
    "where kitchen_id = k.id and status = 'live' and deleted_at is null) from kitchen k left join clock c on "
    "c.kitchen_id = k.id "
    "where k.id = ? and (k.demo = 0 or ?)"
)


def bench_tag(app: App, kitchen_id: int) -> str | None:
    """The entity tag of a kitchen's Bench: the same while nothing is done and the minute is the same; None when there
    is no such kitchen."""
    with app.read() as session:
        row = session.connection().exec_driver_sql(BENCH_STAMP, (kitchen_id, app.with_demo)).fetchone()
    if row is None:
        return None
    version, real, sim, rate, bakes = row
    now = clock_now(stored_clock(kitchen_id, real, sim, rate), app.real_now())
    told = f"{version} {bakes} {real} {rate} {int(now.timestamp()) // 60} {solve.compiled()}"
    return f'"{hashlib.sha256(told.encode()).hexdigest()[:24]}"'


def bench_out(app: App, kitchen_id: int) -> BenchRead:
    """The start screen of a kitchen."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        clock = clock_out(app, session, kitchen)
        shown = kitchen_out(session, kitchen, clock.now)
        live, broken = solve.load_live(app, session, kitchen_id)
        away = spans_out(hours.spans(session, kitchen, clock.now.astimezone(ZoneInfo(kitchen.zone))))
        briefs, steps, sound = [], [], []
        for r, work in live:
            with catching(session, r.bake.id or 0, broken):
                brief, moves = brief_of(r, work), steps_of(r, work)
                briefs.append(brief)
                steps += moves
                sound.append((r, work))
        steps += steps_of_servings(session, kitchen_id, clock.now.astimezone(ZoneInfo(kitchen.zone)))
        doubted = notes_of(session, kitchen_id, clock.now.astimezone(ZoneInfo(kitchen.zone)))
        past = ended(session, bake_rows.ended_ids(session, kitchen_id, LATEST_ENDED), broken)
    return BenchRead(
        clock=clock,
        kitchen=shown,
        room_c=air_c(kitchen.hourly_c, clock.now),
        bakes=[*briefs, *past],
        steps=sorted(steps, key=lambda s: s.at),
        say=_bench_say(sound, steps, clock.now),
        away=away,
        broken=broken_out(broken),
        instruments=doubted,
    )


def _bench_say(
    live: list[tuple[BakeSnapshot, BakeResult]], steps: Iterable[StepRead], now: dt.datetime
) -> list[SayPart]:
    burning = [(r, w) for r, w in live if any(t.kind == "load" for t in r.taps) and not hearth_of(r, w).finished]
    if burning:
        return [text(f"{burning[0][0].bake.name} are on the heat. "), *say_of(*burning[0])]
    coming = [(step, r, w) for r, w in live if w.plan and (step := next_step(w.plan))]
    stock = min((s for s in steps if s.freezer is not None and s.done_at is None), key=lambda s: s.at, default=None)
    if stock is not None and all(stock.at <= step.at for step, *_ in coming):
        return say_stock(stock, now)
    if coming:
        step, r, w = min(coming, key=lambda x: x[0].at)
        assert w.plan
        return [*say_step(step, r.bake.name, r.now, w.plan.late_min), *warned(r, w), *moved_lately(r)]
    if live:
        return [text(f"{live[0][0].bake.name}: "), *(say_of(*live[0]))]
    return [text("Nothing is on the bench. Start a new bake: say when people eat.")]


def next_move_at(app: App, session: Session, kitchen_id: int) -> dt.datetime | None:
    """The soonest hand move ahead, for the demo's clock; while a bake is on the heat, the soonest there."""
    live, _ = solve.load_live(app, session, kitchen_id)
    on_heat = [hearth_of(r, w) for r, w in live if any(t.kind == "load" for t in r.taps)]
    burning = [h for h in on_heat if not h.finished]
    if burning:
        found = [dt.datetime.fromtimestamp(d.at_s, dt.UTC) for h in burning for d in h.due if d.at_s]
    else:
        found = [s.at for _, w in live if w.plan for s in w.plan.steps if s.done_at is None and s.key != "serve"]
    now = app.now(session, app.kitchen(session, kitchen_id))
    if not burning:
        found += [s.at for s in steps_of_servings(session, kitchen_id, now) if s.done_at is None]
    return min((at for at in found if at > now), default=None)
