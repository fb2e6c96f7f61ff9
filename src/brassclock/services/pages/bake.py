"""What the screens are given: a bake with every leaf, and the Bench."""

from __future__ import annotations

import datetime as dt
import hashlib
from collections.abc import Iterable, Sequence
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
from sqlmodel import Session

from brassclock.core.day.kitchen_air import air_c, hours_between
from brassclock.core.evidence import BadRequest
from brassclock.core.keep.facts import Compared, mean_or_none
from brassclock.core.mix.guide import bloom_test
from brassclock.core.weigh.methods import methods
from brassclock.services import solve as works
from brassclock.services.app import House, Refused, clock_now, stored_clock
from brassclock.services.bake.broken import Broken, Uncomputable, broken_of, catching
from brassclock.services.day.changes import change_text
from brassclock.services.day.options import fits
from brassclock.services.day.steps import steps_of
from brassclock.services.fire import model as fire_model
from brassclock.services.fire.hearth import hearth_of
from brassclock.services.fire.live import taps_out
from brassclock.services.fire.view import fire_out
from brassclock.services.kitchen import hours
from brassclock.services.kitchen.leavens import belief_of, leaven_of
from brassclock.services.kitchen.settings import clock_out, kitchen_out
from brassclock.services.mix.model import BowlHeat, is_liquid
from brassclock.services.pages.say import lower_first, next_step, say_step, text
from brassclock.services.rise.view import banded_at, rest_out, rise_out
from brassclock.services.schemas.bake import (
    BakeBrief,
    BakeOut,
    BakeSettings,
    BenchOut,
    BrokenOut,
    LeafOut,
    LogbookOut,
    SayPart,
)
from brassclock.services.schemas.base import ClockOut
from brassclock.services.schemas.keep import FactOut, KeepOut, OutcomeOut
from brassclock.services.schemas.mix import GuideStepOut, HeatRow, MixOut, OtherOut, PartOut
from brassclock.services.solve import Rows, Work
from brassclock.services.weigh.view import caution_out, weigh_out, why_out
from brassclock.store import bakes as bake_rows

LATEST_ENDED = 6
LEAVES = ("weigh", "mix", "rise", "fire", "keep")


def mix_out(r: Rows, bowl: BowlHeat, names: dict[str, str]) -> MixOut:
    """The heat account of a bake's bowl, and the hands' guide beside it."""
    heat = bowl.heat
    factor, times = r.kitchen.friction.get(r.bake.knead, [1.0, 0.0])
    seen = [x.value for x in r.readings if x.kind == "dough_c"]
    bloom_said = ""
    if r.bake.bloom_min is not None:
        bloom_said = bloom_test(r.bake.bloom_min if r.bake.activity_factor is not None else None).text
    return MixOut(
        dough_temp_c=heat.dough_temp_c, target_c=r.bake.dough_c, liquid=bowl.solved,
        liquid_name=names.get(bowl.solved, bowl.solved), liquid_g=bowl.solved_g, liquid_temp_c=heat.liquid_temp_c,
        wanted_liquid_c=heat.wanted_liquid_c, limit_c=heat.limit_c, ice_g=heat.ice_g, room_c=bowl.room_c,
        flour_c=bowl.flour_c,
        contributions=[HeatRow(name=names.get(n, n), joules=j) for n, j in heat.contributions],
        rule_liquid_c=heat.rule_liquid_c, rule_factor_c=heat.rule_factor_c, advice=heat.advice,
        others=[
            OtherOut(ingredient=o.ingredient, name=names.get(o.ingredient, o.ingredient), temp_c=o.temp_c)
            for o in heat.others
        ],
        parts=[
            PartOut(
                ingredient=p.ingredient.id, name=p.ingredient.name, grams=p.mass_g, temp_c=p.temp_c, liquid=is_liquid(p),
                given=p.ingredient.id in r.bake.part_temps,
            )
            for p in bowl.parts
        ],
        cue=bowl.cue, bloom=bowl.bloom, bloom_said=bloom_said, order=list(bowl.order),
        guide=[GuideStepOut(text=g.text, minutes=g.minutes) for g in bowl.guide], tests=list(bowl.tests),
        friction_factor=factor, friction_times=int(times), seen_c=seen[-1] if seen else None,
        cautions=caution_out(heat.cautions), why=why_out(heat.why),
    )  # fmt: skip


def keep_out(r: Rows, leaven: str) -> KeepOut:
    """Outcomes, and every forecast that was said beside its fact."""
    done = r.done()
    loads = {t.round_no: t.at for t in r.taps if t.kind == "load"}

    def since_load(kind: str) -> float | None:
        return mean_or_none(
            [(t.at - loads[t.round_no]).total_seconds() for t in r.taps if t.kind == kind and t.round_no in loads]
        )

    offs = [t.at for t in r.taps if t.kind == "off"]
    seconds = {
        "ready to ball": (done["ball"] - done["mix"]).total_seconds() if {"ball", "mix"} <= set(done) else None,
        "bubbles": since_load("bubbles"),
        "first brown": since_load("browned"),
        "pocket opens": since_load("puffed"),
        "taken off": since_load("off"),
        "last one off": (max(offs) - min(loads.values())).total_seconds() if offs and loads else None,
    }
    facts = []
    for name, was in seconds.items():
        said = r.said.get(name)
        if said is None and was is None:
            continue
        c = Compared(name, "s", said.p50 if said else None, said.p10 if said else None, said.p90 if said else None, was)
        facts.append(
            FactOut(
                name=c.name, unit=c.unit, said=c.said, p10=c.p10, p90=c.p90, was=c.was, place=c.place, inside=c.inside
            )
        )
    taught = r.said.get("activity")
    known = belief_of(r.kitchen, leaven).mean
    before = taught.p10 if taught and taught.p10 else known
    after = taught.p50 if taught and taught.p50 else known
    return KeepOut(
        outcomes=[OutcomeOut(round_no=o.round_no, pocket=o.pocket, colour=o.colour) for o in r.outcomes],
        facts=facts, activity_before=before, activity_after=after,
    )  # fmt: skip


def leaves_of(r: Rows, work: Work) -> list[LeafOut]:
    """Which leaves are done, which one is now."""
    done = r.done()
    hearth = hearth_of(r, work)
    finished = {
        "weigh": "weigh" in done,
        "mix": "mix" in done,
        "rise": "roll" in done,
        "fire": hearth.finished and bool(hearth.off),
        "keep": r.bake.status == "kept",
    }
    current = next((leaf for leaf in LEAVES if not finished[leaf]), "keep")
    found = []
    for leaf in LEAVES:
        state = "done" if finished[leaf] else "now" if leaf == current else "later"
        found.append(LeafOut.model_validate({"leaf": leaf, "state": state}))
    return found


def leaf_now(leaves: list[LeafOut]) -> str:
    return next((x.leaf for x in leaves if x.state == "now"), "keep")


def say_of(r: Rows, work: Work) -> list[SayPart]:
    """The say-line of one bake."""
    bake = r.bake
    if bake.status == "kept":
        full = sum(o.pocket == "full" for o in r.outcomes)
        return [text(f"Kept. {full} of {len(r.outcomes)} had a full pocket.") if r.outcomes else text("Kept.")]
    if bake.status == "abandoned":
        return [text("Abandoned. Bring it back from the bake's own menu.")]
    if work.faults.get("weigh"):
        return [text("Type what goes in the bowl.")]
    if any(t.kind == "load" for t in r.taps):
        state = hearth_of(r, work)
        if state.finished:
            return [text("All off the heat. Wrap them in a cloth and judge each on the Keep leaf.")]
        return [
            text(
                f"{len(state.off)} of {fire_model.rounds_of(bake, work.sheet)} are off the heat. The hands are at the Fire leaf."
            )
        ]
    if work.plan is None:
        return [text(work.faults.get("rise", "There is no plan yet."))]
    step = next_step(work.plan)
    if step is None:
        return [text("Everything is done.")]
    return [*say_step(step, bake.name, r.now, work.plan.late_min), *_moved(r)]


TOLD_FOR = dt.timedelta(minutes=15)


def _moved(r: Rows) -> list[SayPart]:
    """What changed in the plan a while ago, and why."""
    if r.moved is None or r.now - r.moved.at > TOLD_FOR or r.now.tzinfo is None:
        return []
    return [text(" " + change_text(r.moved.moves, r.moved.because, r.now.tzinfo, r.now))]


def settings_out(r: Rows) -> BakeSettings:
    return BakeSettings.model_validate(r.bake.model_dump())


def bake_out(house: House, bake_id: int) -> BakeOut:
    """A bake with every leaf computed; of one that cannot be, what can be done. Raises Uncomputable when it cannot even be read."""
    with house.look() as session:
        try:
            r = works.load(house, session, bake_id)
        except (ValueError, TypeError) as fault:
            if isinstance(fault, BadRequest | Refused):
                raise
            raise Uncomputable(broken_of(session, bake_id, fault)) from None
        clock = clock_out(house, session, r.kitchen)
        broken: list[Broken] = []
        with catching(session, bake_id, broken):
            return _bake_out(r, clock, works.work_of(r), bake_rows.judged(session, r.bake.kitchen_id))
        with catching(session, bake_id, broken):
            about = _about(r)
    if len(broken) > 1:
        raise Uncomputable(broken[0])
    told = str(Uncomputable(broken[0]))
    return BakeOut(
        clock=clock, **about, fits=True, leaf="weigh", leaves=[], steps=[], say=[text(told)], taps=list(taps_out(r.taps)),
        weigh=None, mix=None, rise=None, rest=None, fire=None, keep=KeepOut(outcomes=[], facts=[], activity_before=1.0, activity_after=1.0),
        faults={"bake": told},
    )  # fmt: skip


def _about(r: Rows) -> dict[str, Any]:
    """What a bake's row says of it."""
    method = methods().get(r.bake.method)
    return {
        "id": r.bake.id or 0, "kitchen_id": r.bake.kitchen_id, "name": r.bake.name, "seal": r.bake.seal, "status": r.bake.status,
        "method": r.bake.method, "method_why": method.why if method else "", "revision": r.bake.revision,
        "serve_at": r.bake.serve_at, "serve_until": r.bake.serve_until, "settings": settings_out(r),
    }  # fmt: skip


def _bake_out(r: Rows, clock: ClockOut, work: Work, judged: list[tuple[float, bool]]) -> BakeOut:
    """A bake with every leaf, of what was computed."""
    leaves = leaves_of(r, work)
    names = {x.ingredient.id: x.ingredient.name for x in work.sheet.lines} if work.sheet else {}
    return BakeOut(
        clock=clock, **_about(r), leaf=leaf_now(leaves), leaves=leaves,
        steps=steps_of(r, work), say=say_of(r, work), fits=fits(r, work), taps=list(taps_out(r.taps)),
        weigh=weigh_out(work.sheet) if work.sheet else None,
        mix=mix_out(r, work.bowl, names) if work.bowl else None,
        rise=rise_out(r, work), rest=rest_out(r, work), fire=fire_out(r, work, judged), keep=keep_out(r, leaven_of(work.sheet.dough) if work.sheet else ""), faults=work.faults,
    )  # fmt: skip


def brief_of(r: Rows, work: Work) -> BakeBrief:
    leaves = leaves_of(r, work)
    rise = rise_brief(r, work)
    sheet = work.sheet
    return BakeBrief(
        id=r.bake.id or 0, name=r.bake.name, seal=r.bake.seal, status=r.bake.status, method=r.bake.method,
        leaf=leaf_now(leaves), leaves=leaves,
        count=fire_model.rounds_of(r.bake, sheet), piece_g=r.bake.piece_g or (sheet.pieces.mass_g if sheet and sheet.pieces else None),
        serve_at=r.bake.serve_at, kept_at=r.bake.kept_at, weighed_g=sheet.dough.total_g if sheet else None,
        full=sum(o.pocket == "full" for o in r.outcomes), outcomes=len(r.outcomes), note=r.bake.note, fits=fits(r, work), **rise,
    )  # fmt: skip


def rise_brief(r: Rows, work: Work) -> dict[str, float | dt.datetime | None]:
    """The jar in five figures, for the Bench."""
    empty = {"dough_c": None, "ratio": None, "target_ratio": None, "too_far_ratio": None, "ready_at": None}
    seen, done = work.forecast, r.done()
    if work.risen is None or seen is None:
        return dict(empty)
    balled = "ball" in done
    window = seen.windows[1 if balled else 0]
    ready = banded_at(window.ready, work.risen.zero).p50
    target = r.bake.ball_ratio if balled else r.bake.bulk_ratio
    if "mix" not in done:
        return empty | {"target_ratio": target, "ready_at": ready}
    h = min(hours_between(work.risen.zero, r.now), float(seen.trace.h[-1]))
    return {
        "dough_c": float(np.interp(h, seen.trace.h, seen.trace.dough_c)),
        "ratio": float(np.interp(h, seen.trace.h, seen.trace.ratio)),
        "target_ratio": target,
        "too_far_ratio": None,
        "ready_at": ready,
    }


BENCH_STAMP = (
    "select k.version, c.anchor_real, c.anchor_sim, c.rate, (select count(*) || ' ' || total(revision) from bake "
    "where kitchen_id = k.id and status = 'live' and deleted_at is null) from kitchen k left join clock c on c.kitchen_id = k.id "
    "where k.id = ? and (k.demo = 0 or ?)"
)


def bench_tag(house: House, kitchen_id: int) -> str | None:
    """The entity tag of a kitchen's Bench: the same while nothing is done and the minute is the same; None when there is no such kitchen."""
    with house.look() as session:
        row = session.connection().exec_driver_sql(BENCH_STAMP, (kitchen_id, house.with_demo)).fetchone()
    if row is None:
        return None
    version, real, sim, rate, bakes = row
    now = clock_now(stored_clock(kitchen_id, real, sim, rate), house.real_now())
    told = f"{version} {bakes} {real} {rate} {int(now.timestamp()) // 60} {works.compiled()}"
    return f'"{hashlib.sha256(told.encode()).hexdigest()[:24]}"'


def bench_out(house: House, kitchen_id: int) -> BenchOut:
    """The start screen of a kitchen."""
    with house.look() as session:
        kitchen = house.kitchen(session, kitchen_id)
        clock = clock_out(house, session, kitchen)
        shown = kitchen_out(session, kitchen, clock.now)
        live, broken = works.load_live(house, session, kitchen_id)
        away = hours.spans_out(hours.spans(session, kitchen, clock.now.astimezone(ZoneInfo(kitchen.zone))))
        briefs, steps, sound = [], [], []
        for r, work in live:
            with catching(session, r.bake.id or 0, broken):
                brief, moves = brief_of(r, work), steps_of(r, work)
                briefs.append(brief)
                steps += moves
                sound.append((r, work))
        ended = _ended(session, bake_rows.ended_ids(session, kitchen_id, LATEST_ENDED), broken)
    return BenchOut(
        clock=clock, kitchen=shown, room_c=air_c(kitchen.hourly_c, clock.now), bakes=[*briefs, *ended],
        steps=sorted(steps, key=lambda s: s.at), say=_bench_say(sound), away=away, broken=broken_out(broken),
    )  # fmt: skip


def broken_out(broken: Iterable[Broken]) -> list[BrokenOut]:
    """Bakes that cannot be computed, in words."""
    return [BrokenOut(bake_id=b.bake_id, name=b.name, text=str(Uncomputable(b))) for b in broken]


def logbook_out(house: House, kitchen_id: int, count: int, before: int | None) -> LogbookOut:
    """A page of the bakes that have ended; `before` is the last one of the page before it."""
    broken: list[Broken] = []
    with house.look() as session:
        house.kitchen(session, kitchen_id)
        ids = bake_rows.ended_ids(session, kitchen_id, count + 1, before)
        found = _ended(session, ids[:count], broken)
        total = bake_rows.ended_count(session, kitchen_id)
    return LogbookOut(bakes=found, count=total, more=len(ids) > count, broken=broken_out(broken))


def _ended(session: Session, bake_ids: Sequence[int], broken: list[Broken]) -> list[BakeBrief]:
    """Ended bakes as they were stored; none of them is computed."""
    judged = bake_rows.judged_counts(session, bake_ids)
    found = []
    for bake_id in bake_ids:
        with catching(session, bake_id, broken):
            row = bake_rows.ended_row(session, bake_id)
            summary = row.pop("summary") or {}
            full, outcomes = judged.get(bake_id, (0, 0))
            facts = {**ENDED_FACTS, "leaves": [], "leaf": "keep", **row, **summary, "full": full, "outcomes": outcomes}
            found.append(BakeBrief.model_validate(facts))
    return found


SUMMARY = ("leaf", "leaves", "count", "piece_g", "weighed_g")
ENDED_FACTS: dict[str, Any] = {
    "dough_c": None, "ratio": None, "target_ratio": None, "too_far_ratio": None, "ready_at": None, "weighed_g": None,
    "fits": True,
}  # fmt: skip


def summary_of(r: Rows, work: Work) -> dict[str, Any]:
    """The figures of a bake that lists show once it has ended: stored then, never computed again."""
    return brief_of(r, work).model_dump(mode="json", include=set(SUMMARY))


def _bench_say(live: list[tuple[Rows, Work]]) -> list[SayPart]:
    burning = [(r, w) for r, w in live if any(t.kind == "load" for t in r.taps) and not hearth_of(r, w).finished]
    if burning:
        return [text(f"{burning[0][0].bake.name} are on the heat. "), *say_of(*burning[0])]
    coming = [(step, r, w) for r, w in live if w.plan and (step := next_step(w.plan))]
    if coming:
        step, r, w = min(coming, key=lambda x: x[0].at)
        assert w.plan
        return [*say_step(step, r.bake.name, r.now, w.plan.late_min), *_moved(r)]
    if live:
        return [text(f"{live[0][0].bake.name}: "), *(say_of(*live[0]))]
    return [text("Nothing is on the bench. Start a new bake: say when people eat.")]


def next_move_at(house: House, session: Session, kitchen_id: int) -> dt.datetime | None:
    """The soonest hand move ahead, for the demo's clock; while a bake is on the heat, the soonest there."""
    live, _ = works.load_live(house, session, kitchen_id)
    on_heat = [hearth_of(r, w) for r, w in live if any(t.kind == "load" for t in r.taps)]
    burning = [h for h in on_heat if not h.finished]
    if burning:
        found = [dt.datetime.fromtimestamp(d.at_s, dt.UTC) for h in burning for d in h.due if d.at_s]
    else:
        found = [s.at for _, w in live if w.plan for s in w.plan.steps if s.done_at is None and s.key != "serve"]
    now = house.now(session, house.kitchen(session, kitchen_id))
    return min((at for at in found if at > now), default=None)


__all__ = ["bake_out", "bench_out", "lower_first", "next_move_at", "weigh_out"]
