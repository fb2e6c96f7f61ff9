"""Fit of a bake in its hours, relaxations that make it fit, and other ways through the day worth seeing."""

from __future__ import annotations

import datetime as dt
from dataclasses import replace

from sqlmodel import Session

from brassclock.core.day.alternatives import hands_min, worth_seeing
from brassclock.core.day.courses import AS_PLANNED, Choice, PlanRequest
from brassclock.core.day.options import Relaxation, because, relaxations, way_text
from brassclock.core.day.search import Search, Solved
from brassclock.core.day.spec import BakeSpec
from brassclock.core.weigh.methods import methods
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import recording_plan_change
from brassclock.services.day import model as day_model
from brassclock.services.day.acts import act
from brassclock.services.day.choices import (
    MIXED,
    MOVED,
    NOT_RISING,
    apply_way,
    choice_of,
    fits,
    hold,
    option_id,
    refused_words,
    typed_spec,
    wait_share,
    way_id,
)
from brassclock.services.day.steps import steps_of
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

KEPT = 6
SURFACE_COST = 0.9  # judgement: of baking elsewhere, beside half an hour later at the table (1)


def _changes(session: Session, r: BakeSnapshot, work: solve.BakeResult) -> tuple[str, list[Relaxation]]:
    spec = typed_spec(r, work)
    if spec is None:
        return "", []
    request, app = day_model.request_of(r, spec), day_model.resources_of(r)
    found = [*relaxations(request, app, choice=choice_of(spec)), *_surfaces(session, r, spec)]
    found = [x for x in found if not x.solved.plan.overdone_h and wait_share(work, x.solved.plan, at_most=True) <= 1.0]
    return refused_words(r, work) or because(request, app), sorted(found, key=lambda x: x.cost)[:KEPT]


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
        best = Search(day_model.request_of(there, own), day_model.resources_of(there)).best(Choice()) if own else None
        if best is not None:
            text = f"Bake it on {surface.name[:1].lower()}{surface.name[1:]}."
            found.append(Relaxation({"surface_id": surface.id}, text, SURFACE_COST, best))
    return found


def way_out(app: App, bake_id: int) -> RelaxationRead:
    """The fit of a bake to its hours; if it does not fit, why not, and a few changes that make it fit, each one
    tried."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        work = solve.solve(r)
        if fits(r, work):
            return RelaxationRead(fits=True, because="", changes=[])
        why, found = _changes(session, r, work)
    return RelaxationRead(
        fits=False,
        because=why,
        changes=[
            FitReport(
                id=option_id(x.change),
                text=x.text,
                serve_at=x.solved.plan.step("serve").at,
                steps=steps_of(r, replace(work, risen=day_model.Risen(x.solved.plan))),
            )
            for x in found
        ],
    )


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


def _others(r: BakeSnapshot, work: solve.BakeResult) -> tuple[PlanRequest, dict[str, Solved]]:
    """(the bake as it is asked for, other ways for it by what each is best at)."""
    spec = typed_spec(r, work)
    if spec is None or spec.rests or work.forecast is None:
        raise Conflict(NOT_RISING)
    if "mix" in r.done():
        raise Conflict(MIXED)
    request = day_model.request_of(r, spec)
    return request, worth_seeing(request, day_model.resources_of(r), choice_of(spec), (AS_PLANNED, 1.0))


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
            id=way_id(s),
            names=[name],
            text=way_text(s, request),
            begins_at=s.plan.steps[0].at,
            mixed_at=s.plan.mixed_at,
            hands_min=hands_min(s),
            flavour=s.flavour,
            steps=steps_of(r, replace(work, risen=day_model.Risen(s.plan))),
        )
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
