"""Whether a bake fits the hours there are, what would make it fit, and other ways through the day worth seeing."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Mapping
from dataclasses import replace

from sqlmodel import Session

from brassclock.core.day.alternatives import hands_min, worth_seeing
from brassclock.core.day.options import DOSES, Relaxation, because, in_the_way, relaxations, way_text
from brassclock.core.day.search import AS_PLANNED, COURSES, Choice, PlanRequest, Search, Solved, own_course
from brassclock.core.day.spec import BakeSpec, DayPlan
from brassclock.core.time import hours_between
from brassclock.core.weigh.methods import methods
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day.changes import MOVED_MIN, recording_plan_change
from brassclock.services.day.steps import steps_of
from brassclock.services.day.undo import act
from brassclock.services.rise import forecast as rise_forecast
from brassclock.services.rise.whatif import MIXED, NOT_RISING, cold_of, scale_leaven
from brassclock.services.schemas.day import (
    AlternativeRequest,
    FitReport,
    FitRequest,
    RelaxationRead,
    WaysThrough,
    WayThrough,
)
from brassclock.store import kitchens
from brassclock.store.rows import insert
from brassclock.store.tables import BusyHours

LATE_MIN = 1.0
HOLD_MIN = 15.0  # a move that comes to lie further off than this is held where it was shown
HELD = ("mix", "ball", "cold_in", "cold_out")
KEPT = 6
SURFACE_COST = 0.9  # judgement: of baking elsewhere, beside half an hour later at the table (1)
MOVED = "The day has moved since these ways were shown. Look at them again."


def option_id(*what: object) -> str:
    """The id of an option: the same for the same change, whatever its words are."""
    text = json.dumps(what, sort_keys=True, default=str)
    return hashlib.blake2s(text.encode(), digest_size=8).hexdigest()


def way_id(solved: Solved) -> str:
    """The id of a way through the day: of its course and its leaven."""
    return option_id(solved.course, solved.dose)


def typed_spec(r: BakeSnapshot, work: solve.BakeResult) -> BakeSpec | None:
    """The bake as it is set, with the activity that its readings leave; None without a plan."""
    if work.plan is None or work.sheet is None:
        return None
    own = solve.spec_now(r, work)
    return replace(own, activity=work.plan.spec.activity)


def fits(r: BakeSnapshot, work: solve.BakeResult) -> bool:
    """True if a live bake has all it wants: in time, hands, its surface, room in the cold."""
    plan = work.plan
    if plan is None or r.bake.status != "live" or "roll" in r.done():
        return True
    return plan.late_min < LATE_MIN and not in_the_way(
        plan, rise_forecast.litres_of(plan.spec), rise_forecast.resources_of(r)
    )


def choice_of(spec: BakeSpec, done: bool = False) -> Choice:
    """What may be chosen for a bake: every course and dose; its own alone when it rests, or when it is mixed."""
    if spec.rests or done:
        return Choice()
    own = own_course(spec).chill
    return Choice((AS_PLANNED, *(c.key for c in COURSES.values() if c.chill != own or c.nights > 1)), DOSES)


def _changes(session: Session, r: BakeSnapshot, work: solve.BakeResult) -> tuple[str, list[Relaxation]]:
    spec = typed_spec(r, work)
    if spec is None:
        return "", []
    request, app = rise_forecast.wish_of(r, spec), rise_forecast.resources_of(r)
    found = [*relaxations(request, app, choice=choice_of(spec)), *_surfaces(session, r, spec)]
    return because(request, app), sorted(found, key=lambda x: x.cost)[:KEPT]


def _surfaces(session: Session, r: BakeSnapshot, spec: BakeSpec) -> list[Relaxation]:
    """Other surfaces of the kitchen on which the bake fits as it is, of the kinds that its method is baked on."""
    if not r.shared.hot:
        return []
    method = methods().get(r.bake.method or "")
    found = []
    for surface in kitchens.surfaces(session, r.bake.kitchen_id):
        if surface.id == r.bake.surface_id or (method is not None and surface.kind not in method.surfaces):
            continue
        there = solve.on_surface(session, r, surface)
        work = solve.compute(there)
        own = typed_spec(there, work)
        best = (
            Search(rise_forecast.wish_of(there, own), rise_forecast.resources_of(there)).best(Choice()) if own else None
        )
        if best is not None:
            text = f"Bake it on {surface.name[:1].lower()}{surface.name[1:]}."
            found.append(Relaxation({"surface_id": surface.id}, text, SURFACE_COST, best))
    return found


def way_out(app: App, bake_id: int) -> RelaxationRead:
    """The fit of a bake to its hours; if it does not fit, why not, and a few changes that make it fit, each one tried."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        work = solve.solve(r)
        if fits(r, work):
            return RelaxationRead(fits=True, because="", changes=[])
        why, found = _changes(session, r, work)
    return RelaxationRead(
        fits=False, because=why,
        changes=[
            FitReport(
                id=option_id(x.change), text=x.text, serve_at=x.solved.plan.step("serve").at,
                steps=steps_of(r, replace(work, risen=rise_forecast.Risen(x.solved.plan))),
            )
            for x in found
        ],
    )  # fmt: skip


def take_way_out(app: App, bake_id: int, given: FitRequest) -> None:
    """Make one of the changes. It is found again, or nothing is changed."""
    with bake_change.change(app, bake_id, given.revision) as (session, r):
        work = solve.solve(r)
        found = [] if fits(r, work) else _changes(session, r, work)[1]
        picked = next((x for x in found if option_id(x.change) == given.id), None)
        if picked is None:
            raise Conflict(MOVED)
        why = f"you chose “{picked.text.rstrip('.')}”"
        with (
            recording_plan_change(app, session, r.bake.kitchen_id, why, bake_id),
            act(session, r.kitchen, r.now, f"{r.bake.name}: {picked.text}", [r.bake]) as added,
        ):
            added += _apply(r, picked)
            for row in added:
                insert(session, row)
            hold(app, session, r.bake.kitchen_id, {bake_id: picked.solved.plan})


def _apply(r: BakeSnapshot, picked: Relaxation) -> list[BusyHours]:
    """Alter the bake; answers the busy hours that are freed for it."""
    bake, change = r.bake, picked.change
    apply_way(r, picked.solved if "course" in change else None, change.get("dose_factor", 1.0))
    if "serve_min" in change:
        by = dt.timedelta(minutes=change["serve_min"])
        bake.serve_at, bake.serve_until = bake.serve_at + by, bake.serve_until and bake.serve_until + by
    if "surface_id" in change:
        bake.surface_id = change["surface_id"]
    if "busy" not in change:
        return []
    span, name = change["busy"], f"free after all: {change['busy']['name']}"[:80]
    return [BusyHours(kitchen_id=bake.kitchen_id, name=name, hands=0, start=span["start"], end=span["end"])]


def apply_way(r: BakeSnapshot, course: Solved | None, dose: float) -> None:
    """The bake with a way's leaven and, when it is of another course, its cold; what was held by hand is let go."""
    scale_leaven(r, dose)
    if course is not None:
        r.bake.cold = cold_of(course.plan.spec)
    r.bake.pins = {}


def moved_from(plan: DayPlan, was: DayPlan | None, least_min: float = MOVED_MIN) -> int:
    """Number of hand moves of a plan that lie elsewhere than another has them."""
    if was is None:
        return len(plan.steps)
    old = {s.key: s.at for s in was.steps}
    ahead = [s for s in plan.steps if s.done_at is None and s.key != "weigh"]
    return sum(s.key not in old or 60 * abs(hours_between(old[s.key], s.at)) >= least_min for s in ahead)


def hold(app: App, session: Session, kitchen_id: int, plans: Mapping[int, DayPlan]) -> None:
    """Hold the moves of those bakes that would not come to lie where they were shown by themselves, one after the other."""
    for bake_id, plan in plans.items():
        r, work = next((r, w) for r, w in solve.plan_all(app, session, kitchen_id) if r.bake.id == bake_id)
        if not moved_from(plan, work.plan, HOLD_MIN):
            continue
        pins = {s.key: s.at for s in plan.steps if s.key in HELD and s.done_at is None and s.at > r.now}
        if "mix" in pins:  # its step begins the mixing; the dough's clock starts when it ends
            pins["mix"] = plan.mixed_at
        r.bake.pins = {k: t.isoformat() for k, t in pins.items()}
        session.add(r.bake)


def _others(r: BakeSnapshot, work: solve.BakeResult) -> tuple[PlanRequest, dict[str, Solved]]:
    """(the bake as it is asked for, other ways for it by what each is best at)."""
    spec = typed_spec(r, work)
    if spec is None or spec.rests or work.forecast is None:
        raise Conflict(NOT_RISING)
    if "mix" in r.done():
        raise Conflict(MIXED)
    request = rise_forecast.wish_of(r, spec)
    return request, worth_seeing(request, rise_forecast.resources_of(r), choice_of(spec), (AS_PLANNED, 1.0))


def others(app: App, bake_id: int) -> WaysThrough:
    """Up to three other ways through the day for a bake that is not mixed: least hands, best flavour, latest start."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
    work = solve.solve(r)
    request, found = _others(r, work)
    merged: dict[tuple[str, float], WayThrough] = {}
    for name, s in found.items():
        key = (s.course, s.dose)
        if key in merged:
            merged[key].names.append(name)
            continue
        merged[key] = WayThrough(
            id=way_id(s), names=[name], text=way_text(s, request), begins_at=s.plan.steps[0].at, mixed_at=s.plan.mixed_at,
            hands_min=hands_min(s), flavour=s.flavour,
            steps=steps_of(r, replace(work, risen=rise_forecast.Risen(s.plan))),
        )  # fmt: skip
    return WaysThrough(others=list(merged.values()))


def take_other(app: App, bake_id: int, given: AlternativeRequest) -> None:
    """Make one of those ways the bake's own. It is found again, or nothing is changed."""
    with bake_change.change(app, bake_id, given.revision) as (session, r):
        request, found = _others(r, solve.solve(r))
        picked = next((s for s in found.values() if way_id(s) == given.id), None)
        if picked is None:
            raise Conflict(MOVED)
        text = way_text(picked, request)
        why = f"you chose “{text.rstrip('.')}”"
        with (
            recording_plan_change(app, session, r.bake.kitchen_id, why, bake_id),
            act(session, r.kitchen, r.now, f"{r.bake.name}: {text}", [r.bake]),
        ):
            apply_way(r, None if picked.course == AS_PLANNED else picked, picked.dose)
            hold(app, session, r.bake.kitchen_id, {bake_id: picked.plan})
