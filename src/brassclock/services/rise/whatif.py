"""Trying a change before making it: what-ifs under the finger, and named routes to the same table."""

from __future__ import annotations

import math
from dataclasses import replace

from brassclock.core.day.hands import Busy
from brassclock.core.day.options import in_the_way
from brassclock.core.day.routes import Route, routes
from brassclock.core.day.spec import WORDS, kind_of
from brassclock.core.fire.risk import ripeness_share
from brassclock.core.time import hours_between, later
from brassclock.core.weigh.formula import WeighSheet
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day import model as day_model
from brassclock.services.day.choices import MIXED, NOT_RISING
from brassclock.services.day.model import cold_of
from brassclock.services.day.steps import steps_of
from brassclock.services.rise import rescue as rise_rescue
from brassclock.services.rise import spec as rise_spec
from brassclock.services.rise.view import rise_out
from brassclock.services.schemas.base import BandedAt
from brassclock.services.schemas.rise import RouteRead, RoutesRead, RouteUpdate, WhatIfRead, WhatIfRequest
from brassclock.services.times import moment_of, table_instant
from brassclock.services.weigh.leaven import scale_leaven
from brassclock.store.tables import Bake, Kitchen


def _changed(r: BakeSnapshot, given: WhatIfRequest) -> BakeSnapshot:
    """The rows as the change would make them; nothing of them belongs to a session."""
    # a thermostat's swing leaves the mean as it is: left out under the finger
    places = {**r.kitchen.places, "fridge": {**r.kitchen.places.get("fridge", {}), "swing_c": 0.0}}
    hours = [c + given.room_k for c in r.kitchen.hourly_c]
    kitchen = Kitchen(**{**r.kitchen.model_dump(), "hourly_c": hours, "places": places})
    facts = r.bake.model_dump()
    mixed = "mix" in r.done()
    if given.dough_c is not None and not mixed:
        facts["dough_c"] = given.dough_c
    if given.serve_at is not None:
        facts["serve_at"] = table_instant(given.serve_at, r.now, "/serve_at")
    if given.cold is not None or given.no_cold:
        facts["cold"] = None if given.cold is None else given.cold.model_dump()
    if given.place is not None:
        facts["bulk_place"] = given.place
    if given.spell is not None:
        if not mixed or "roll" in r.done():
            raise Conflict(rise_rescue.NOT_NOW)
        facts["spells"] = rise_rescue.away(r, given.spell)
    return replace(r, bake=Bake(**facts), kitchen=kitchen, dose_factor=1.0 if mixed else given.dose_factor)


def what_if(app: App, bake_id: int, given: WhatIfRequest) -> WhatIfRead:
    """The rise and the moves as a change would make them."""

    def stands() -> tuple[BakeSnapshot, solve.BakeResult]:
        with app.read() as session:
            r = solve.load(app, session, bake_id)
        return r, solve.solve(r)

    r, as_is = app.cached(("what if", bake_id), stands)
    line_min = as_is.plan.spec.line_min if as_is.plan else solve.LINE_S / 60
    changed = _changed(r, given)
    known = as_is.plan
    initial_guess = (known.mixed_at + (changed.bake.serve_at - r.bake.serve_at), known.bulk.aim_h) if known else None
    by = moment_of(given.by, r.now, "/by") if given.by else None
    changed = replace(changed, line_min=line_min, initial_guess=initial_guess, by=by)
    work = solve.compute(changed, coarse=True)
    rise = rise_out(changed, work, coarse=True)
    if rise is None or work.sheet is None:
        raise Conflict(NOT_RISING)
    ripe, pocket = _pocket(as_is, work)
    return WhatIfRead(
        rescues=rise_rescue.holding(r, as_is.risen, 60 * hours_between(r.bake.serve_at, changed.bake.serve_at)),
        maturity=ripe,
        pocket_score=pocket,
        rise=rise,
        steps=steps_of(changed, work),
        serve_at=changed.bake.serve_at,
        dose_text=_dose_text(as_is.sheet, changed.dose_factor),
    )


def _pocket(as_is: solve.BakeResult, then: solve.BakeResult) -> tuple[float | None, float | None]:
    """(maturity of the balls when they are rolled, the pocket score it leaves) after a change; nothing else of the
    bread changes."""
    if then.forecast is None:
        return None, None
    ripe = float(then.forecast.trace.maturity[-1])
    if as_is.program is None or as_is.forecast is None:
        return ripe, None
    before = ripeness_share(float(as_is.forecast.trace.maturity[-1]))
    return ripe, as_is.program.score.score / max(before, 0.1) * ripeness_share(ripe)


def _dose_text(sheet: WeighSheet | None, factor: float) -> str:
    """The leaven in grams, times a factor."""
    if sheet is None:
        return ""
    found = [
        f"{p.mass_g * factor:.1f} g {p.ingredient.name.lower()}"
        for p in sheet.dough.portions
        if p.ingredient.is_ferment
    ]
    return ", ".join(found)


def keep_what_if(app: App, bake_id: int, given: WhatIfRequest) -> None:
    """Make a tried change the bake's own; the weather is nobody's to keep."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        changed = _changed(r, given)
        scale_leaven(r, changed.dose_factor)
        if r.bake.serve_until is not None:
            r.bake.serve_until += changed.bake.serve_at - r.bake.serve_at
        for name in ("dough_c", "serve_at", "cold", "bulk_place", "spells"):
            setattr(r.bake, name, getattr(changed.bake, name))


def _worked_out(r: BakeSnapshot) -> list[Route]:
    work = solve.solve(r)
    if work.plan is None or work.forecast is None:
        raise Conflict(NOT_RISING)
    if "mix" in r.done():
        raise Conflict(MIXED)
    serve = r.bake.serve_at.astimezone(r.now.tzinfo)
    return routes(work.plan.spec, r.kitchen.hourly_c, serve, r.now, rise_spec.places(r))


def named_routes(app: App, bake_id: int) -> RoutesRead:
    """Every named route of a bake that is not mixed."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
    work = solve.solve(r)
    found = _worked_out(r)
    return RoutesRead(routes=[_route_out(r, work, route) for route in found])


def _route_out(r: BakeSnapshot, work: solve.BakeResult, found: Route) -> RouteRead:
    plan, route = found.plan, found.route
    steps = steps_of(r, replace(work, risen=day_model.Risen(plan)))
    first, serve = min(s.at for s in plan.steps), plan.serve_at

    def at(h: float) -> BandedAt:
        moment = later(plan.balled_at, h)
        return BandedAt(p10=None, p50=moment, p90=None)

    away = in_the_way(plan, rise_spec.litres_of(plan.spec), day_model.resources_of(r)) if found.fits else []
    return RouteRead(
        key=route.key,
        name=route.name,
        flavour=route.flavour,
        fits=found.fits,
        because=_said(*away[0]) if away else found.because,
        clashes=bool(away),
        in_use=_in_use(r.bake, found),
        dose_factor=found.dose_factor,
        dose_text=_dose_text(work.sheet, found.dose_factor),
        hours=hours_between(first, serve),
        hands_min=sum(s.hands_min for s in plan.steps),
        steps=steps,
        ready_at=at(plan.ball.ready_h),
        too_far_at=at(plan.ball.too_far_h),
    )


def _said(what: str, span: Busy) -> str:
    """Sentence on what a way wants and does not have."""
    who = span.name or "hours away"
    if what == "surface":
        return f"Its surface is taken then: {who}."
    if what == "shelf":
        return f"The cold shelf has no room for it then: {who}."
    return f"{WORDS[kind_of(what)]} falls where no hands are free: {who}."


def _in_use(bake: Bake, found: Route) -> bool:
    cold_h = bake.cold["hours"] if bake.cold else None
    same_place = bake.bulk_place == (found.route.warm or "bench")
    same_dose = math.isclose(found.dose_factor, 1.0, rel_tol=0.03)
    return (
        same_place
        and same_dose
        and (cold_h is None) == (found.route.cold_h is None)
        and (cold_h is None or abs(cold_h - (found.route.cold_h or 0.0)) < 6)
    )


def take_route(app: App, bake_id: int, given: RouteUpdate) -> None:
    """Make a named route the bake's own: its places, its cold, its dose."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        found = next(x for x in _worked_out(r) if x.route.key == given.key)
        if not found.fits:
            raise Conflict(f"{found.route.name} does not reach this table. {found.because}")
        scale_leaven(r, found.dose_factor)
        cold = cold_of(found.plan.spec)
        r.bake.cold = cold and cold | {"hours": found.route.cold_h}
        r.bake.bulk_place = r.bake.ball_place = found.route.warm or "bench"
        r.bake.bulk_air = r.bake.ball_air = None
