"""The day of a kitchen: whether a bake fits its hours and what would make it fit, pins, and how plans have moved."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from dataclasses import replace
from typing import Any

from sqlmodel import Session

from brassclock.core.day.around import AS_PLANNED, COURSES, Choice
from brassclock.core.day.backward import WORDS, BakeSpec, DayPlan
from brassclock.core.day.relax import DOSES, Relaxation, because, clashing, moment, relaxations
from brassclock.core.evidence import refuse
from brassclock.services import rising
from brassclock.services import work as works
from brassclock.services.given_day import PinIn, RelaxIn
from brassclock.services.house import House, Refused
from brassclock.services.shown_day import DayOut, MovedOut, MovedStep, RelaxOut, WayOutOut
from brassclock.services.steps import steps_of
from brassclock.services.whatifs import scale_leaven
from brassclock.store import bakes as bake_rows
from brassclock.store import hours as rows
from brassclock.store.tables import Bake, BusyHours, PlanChange

MOVED_MIN = 5.0  # a step that moves by less is not told
SHOWN_CHANGES = 12
LATE_MIN = 1.0
Plans = Mapping[int, tuple[str, DayPlan]]


def typed_spec(r: works.Rows, work: works.Work) -> BakeSpec | None:
    """The bake as it is set, with the activity that its readings leave; None without a plan."""
    if work.plan is None or work.sheet is None:
        return None
    own = works.spec_now(r, work)
    return replace(own, activity=work.plan.spec.activity)


def fits(r: works.Rows, work: works.Work) -> bool:
    if work.plan is None or r.bake.status != "live" or "roll" in r.done():
        return True
    return work.plan.late_min < LATE_MIN and not clashing(work.plan, rising.house_of(r))


def _changes(r: works.Rows, work: works.Work) -> tuple[str, list[Relaxation]]:
    spec = typed_spec(r, work)
    if spec is None:
        return "", []
    wish, house = rising.wish_of(r, spec), rising.house_of(r)
    choice = Choice((AS_PLANNED,)) if spec.rests else Choice((AS_PLANNED, *COURSES), DOSES)
    return because(wish, house), relaxations(wish, house, choice=choice)


def way_out(house: House, bake_id: int) -> WayOutOut:
    """Whether a bake fits; if not, why not, and up to five changes that make it fit, each one tried."""
    with house.look() as session:
        r = works.load(house, session, bake_id)
    work = works.work_of(r)
    if fits(r, work):
        return WayOutOut(fits=True, because="", changes=[])
    why, found = _changes(r, work)
    return WayOutOut(
        fits=False, because=why,
        changes=[
            RelaxOut(
                number=i, text=x.text, serve_at=x.solved.plan.step("serve").at,
                steps=steps_of(r, replace(work, risen=rising.Risen(x.solved.plan))),
            )
            for i, x in enumerate(found)
        ],
    )  # fmt: skip


def take_way_out(house: House, bake_id: int, given: RelaxIn) -> None:
    """Make one of the changes. It is found again and has to read as it was shown, or nothing is changed."""
    with works.change(house, bake_id) as (session, r):
        work = works.work_of(r)
        found = [] if fits(r, work) else _changes(r, work)[1]
        picked = found[given.number] if given.number < len(found) else None
        if picked is None or picked.text != given.text:
            raise Refused("The day has moved since these ways out were shown. Look at them again.")
        with noted(house, session, r.bake.kitchen_id, f"you chose “{picked.text.rstrip('.')}”"):
            _apply(session, r, picked)


def _apply(session: Session, r: works.Rows, picked: Relaxation) -> None:
    bake, change = r.bake, picked.change
    scale_leaven(r, change.get("dose_factor", 1.0))
    if "course" in change:
        spec = picked.solved.plan.spec
        cold, which = (spec.ball.cold, "ball") if spec.ball.cold else (spec.bulk.cold, "bulk")
        bake.cold = None if cold is None else {"stage": which, "after_h": cold.after_h, "hours": cold.hours}
    if "serve_min" in change:
        by = dt.timedelta(minutes=change["serve_min"])
        bake.serve_at, bake.serve_until = bake.serve_at + by, bake.serve_until and bake.serve_until + by
    if "busy" in change:
        span = change["busy"]
        session.add(
            BusyHours(
                kitchen_id=bake.kitchen_id,
                name=f"free after all: {span['name']}"[:80],
                hands=0,
                start=span["start"],
                end=span["end"],
            )
        )
    bake.pins = {}


def pin(house: House, bake_id: int, given: PinIn) -> None:
    """Hold a hand move where the cook put it, or let it go. With the balling its mixing is held where it was planned."""
    with works.change(house, bake_id) as (session, r):
        before = plans(house, session, r.bake.kitchen_id)
        plan = works.work_of(r).plan
        if plan is None or r.bake.status != "live":
            raise Refused("This bake has no plan whose moves could be held.")
        step = next((s for s in plan.steps if s.key == given.key), None)
        if step is None:
            raise refuse("/key", f"This bake has no move “{given.key}”.")
        if step.done_at is not None:
            raise Refused(f"“{step.name}” is done already. Move it where it is marked.")
        pins = {k: v for k, v in r.bake.pins.items() if k != given.key}
        if given.at is not None:
            if given.at.tzinfo is None:
                raise refuse("/at", "An instant needs its zone, as 2026-11-25T20:00:00+01:00.")
            if given.at <= r.now:
                raise refuse("/at", f"It is {r.now:%H:%M} here; that is past. Hold a move at a time ahead.")
            at = given.at + (plan.mixed_at - step.at if given.key == "mix" else dt.timedelta())
            pins[given.key] = at.isoformat()
            if given.key != "mix" and "mix" not in r.done():
                pins.setdefault("mix", plan.mixed_at.isoformat())
        elif given.key == "mix":
            pins = {}
        r.bake.pins = pins
        session.flush()
        held = given.at is not None
        note(
            house,
            session,
            r.bake.kitchen_id,
            before,
            f"{step.name.lower()} was {'moved by hand' if held else 'let go'}",
        )


def plans(house: House, session: Session, kitchen_id: int) -> Plans:
    """The plan of every live bake, by its id."""
    return {
        r.bake.id or 0: (r.bake.name, w.plan)
        for r, w in works.load_all(house, session, kitchen_id)
        if r.bake.status == "live" and w.plan is not None
    }


def moved_steps(was: DayPlan, now: DayPlan) -> list[dict[str, Any]]:
    """Moves still to do whose time changed, with both instants."""
    old, new = ({s.key: s for s in p.steps} for p in (was, now))
    found = []
    for key, step in new.items():
        if step.done_at is not None or key == "weigh":
            continue
        before = old.get(key)
        if before is None or abs((step.at - before.at).total_seconds()) >= MOVED_MIN * 60:
            found.append({"key": key, "was": before and before.at.isoformat(), "at": step.at.isoformat()})
    found += [{"key": k, "was": s.at.isoformat(), "at": None} for k, s in old.items() if k not in new]
    return found


def note(house: House, session: Session, kitchen_id: int, before: Plans, why: str) -> None:
    """Keep what a change moved, of every live bake, with its reason. Part of the change's own transaction."""
    after = plans(house, session, kitchen_id)
    kitchen = house.kitchen(session, kitchen_id)
    for bake_id, (_, plan) in after.items():
        if bake_id in before and (moves := moved_steps(before[bake_id][1], plan)):
            session.add(PlanChange(bake_id=bake_id, at=house.now(session, kitchen), because=why, moves=moves))
    session.flush()


@contextmanager
def noted(house: House, session: Session, kitchen_id: int, why: str) -> Iterator[None]:
    """What happens inside is one reason for what moves in the kitchen's plans."""
    before = plans(house, session, kitchen_id)
    yield
    session.flush()
    note(house, session, kitchen_id, before, why)


def change_text(moves: list[dict[str, Any]], why: str, zone: dt.tzinfo, now: dt.datetime) -> str:
    """A change as one sentence: its first move still ahead, how many more, and why."""
    told = sorted((m for m in moves if m["at"] and m["was"]), key=lambda m: str(m["at"]))
    if not told:
        return f"The moves are others now: {why}."
    first = told[0]
    was, at = (dt.datetime.fromisoformat(first[k]).astimezone(zone) for k in ("was", "at"))
    name = WORDS[first["key"].rstrip("0123456789")].lower()
    way = "earlier" if at < was else "later"
    more = f", {len(told) - 1} more with it" if len(told) > 1 else ""
    gap = round(abs((at - was).total_seconds()) / 300) * 5
    span = f"{gap} min" if gap < 90 else f"{gap / 60:.0f} h"
    return f"{name.capitalize()} is {span} {way}, at {moment(at, now)}{more}: {why}."


def day_out(house: House, kitchen_id: int) -> DayOut:
    """How the plans of the live bakes have moved, newest first."""
    with house.look() as session:
        kitchen = house.kitchen(session, kitchen_id)
        now = house.now(session, kitchen)
        zone = now.tzinfo
        assert zone is not None
        live = [b for b in bake_rows.of_kitchen(session, kitchen_id) if b.status == "live"]
        found = [(b, c) for b in live for c in rows.changes(session, b.id or 0, SHOWN_CHANGES)]
    found.sort(key=lambda x: x[1].at, reverse=True)
    return DayOut(moved=[_moved_out(b, c, zone, now) for b, c in found[:SHOWN_CHANGES]])


def _moved_out(bake: Bake, c: PlanChange, zone: dt.tzinfo, now: dt.datetime) -> MovedOut:
    return MovedOut(
        bake_id=bake.id or 0, bake=bake.name, at=c.at, because=c.because,
        moves=[
            MovedStep(
                key=m["key"], name=WORDS[m["key"].rstrip("0123456789")],
                was=dt.datetime.fromisoformat(m["was"]) if m["was"] else None,
                at=dt.datetime.fromisoformat(m["at"]) if m["at"] else None,
            )
            for m in c.moves
        ],
        text=change_text(c.moves, c.because, zone, now),
    )  # fmt: skip
