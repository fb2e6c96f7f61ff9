"""The rise of one bake: its stages in the places of its kitchen, planned back from the table and forecast."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Any

from brassclock.core.day.courses import Choice, KitchenResources, PlanRequest
from brassclock.core.day.options import in_the_way
from brassclock.core.day.places import Place
from brassclock.core.day.plan import plan_back
from brassclock.core.day.search import Search
from brassclock.core.day.spec import BakeSpec, DayPlan
from brassclock.core.matter.dough import Dough
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.chemical import model as chemical_model
from brassclock.core.rise.recipe import Seed
from brassclock.core.rise.rescue import DoughState
from brassclock.core.rise.safety import Safety, warm_hours
from brassclock.core.rise.stages import Stage, run_stages
from brassclock.core.rise.worth import InformationGain, worth
from brassclock.core.time import hours_between
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.rise.spec import (
    COLD_REST_H,
    HOLDS_LIKE,
    USUAL_REST_H,
    batch_of,
    belief_here,
    bulk_radius_mm,
    litres_of,
    looks_of,
    places,
    rested_spec,
    spec_of,
    told_of,
)
from brassclock.services.rise.starter import FeedPlan, feed_before, feed_hours, with_feed


@dataclass(frozen=True)
class Rested:
    """A dough without yeast: where it waits, how long its gas does there, and the same in the fridge."""

    place: Place
    here: chemical_model.Waiting | None
    fridge: chemical_model.Waiting | None


@dataclass
class Risen:
    """A bake's plan, its stages with their air and lengths, and what is forecast of them."""

    plan: DayPlan
    stages: tuple[Stage, ...] = ()
    forecast: rise.Forecast | None = None
    worth: list[InformationGain] = field(default_factory=list)
    rested: Rested | None = None
    safety: Safety | None = None
    feed: FeedPlan | None = None
    rolled_c: float | None = None  # the dough when it is rolled, where no forecast tells it

    @property
    def zero(self) -> dt.datetime:
        """The instant from which the forecast counts its hours."""
        return self.plan.begun_at

    def level(self, now: dt.datetime, done: Mapping[str, dt.datetime]) -> tuple[float, float] | None:
        """(volume ratio, temperature [C]) of the dough now; None without a forecast. A dough that nobody has divided
        rises on, though its balls are due."""
        if self.forecast is None:
            return None
        ball_h = None if "ball" in done else hours_between(self.zero, self.plan.balled_at)
        return self.forecast.trace.at(hours_between(self.zero, now), ball_h)


def placed_stages(plan: DayPlan, hourly_c: list[float], done: Mapping[str, dt.datetime]) -> tuple[Stage, ...]:
    """The plan's stages in their air, as long as the plan makes them."""
    stages = plan.spec.stages(hourly_c, plan.mixed_at, plan.balled_at, done)
    bulk_h = max(hours_between(plan.mixed_at, plan.balled_at), 1 / 60)
    ball_h = max(hours_between(plan.balled_at, plan.step("roll").at), 1 / 60)
    lengths = (*(s.hours for s in stages[:-2]), bulk_h, ball_h)
    return tuple(replace(s, hours=h) for s, h in zip(stages, lengths, strict=True))


def all_done_at(r: BakeSnapshot) -> dt.datetime:
    """Instant at which the last bread is to be ready: the serving time, or the end of the service."""
    return (r.bake.serve_until or r.bake.serve_at).astimezone(r.now.tzinfo)


def resources_of(r: BakeSnapshot) -> KitchenResources:
    """The kitchen as the day's search sees it: its air, its places, hours in which hands are away, what others have."""
    return KitchenResources(r.kitchen.hourly_c, places(r), (*r.busy, *r.taken), r.kitchen.cooks, r.shared)


def request_of(r: BakeSnapshot, spec: BakeSpec) -> PlanRequest:
    """The bake as the day's search is asked for it."""
    doughs = [spec.batch.dough.portions, spec.sponge.joins if spec.sponge else ()]
    sour = any(p.ingredient.is_starter for portions in doughs for p in portions)
    return PlanRequest(
        spec, all_done_at(r), r.now, r.done(), r.pins(), feed_hours(r) if sour else None, litres_of(spec)
    )


def placed(r: BakeSnapshot, spec: BakeSpec) -> DayPlan:
    """The plan of a bake around the hours in which hands are away; as it would be without them when there is no way."""
    request, app = request_of(r, spec), resources_of(r)
    plan = plan_back(spec, r.kitchen.hourly_c, request.serve_at, r.now, request.done, r.initial_guess, request.pins)
    if (
        r.initial_guess is not None
    ):  # under the finger: moves that fall in busy hours are marked, and placed once it is made so
        return plan
    if r.bake.status != "live" or "roll" in request.done or not in_the_way(plan, request.litres, app):
        return plan
    solved = Search(request, app).best(Choice())
    return plan if solved is None else solved.plan


def risen(
    r: BakeSnapshot, dough: Dough, line_min: float, sponge_g: Mapping[str, float], *, coarse: bool = False
) -> Risen:
    """Plan and forecast a dough with yeast or a starter. Readings move the plan before they are shown."""
    spec, done = spec_of(r, dough, line_min, sponge_g), r.done()
    belief = belief_here(r, dough)

    def at(spec: BakeSpec) -> Risen:
        plan = placed(r, spec)
        stages = placed_stages(plan, r.kitchen.hourly_c, done)
        found = Risen(plan, stages)
        asked = [plan.step("roll").at, *([r.by] if r.by else [])]
        by_h = [max(hours_between(found.zero, moment), 0.0) for moment in asked]
        found.forecast = rise.forecast(
            plan.spec.batch,
            stages,
            (r.bake.bulk_ratio, r.bake.ball_ratio),
            belief=belief,
            readings=looks_of(r, plan),
            by_h=by_h,
            coarse=coarse,
        )
        return found

    found = at(spec)
    assert found.forecast
    grams = sum(p.mass_g for p in dough.portions if p.ingredient.is_starter)
    feed = None if coarse or r.bake.status != "live" else feed_before(r, grams, found.plan.mixed_at)
    if feed is not None and r.starter is not None:
        fresh = replace(spec.batch, seed=Seed("peak", r.starter.vitality_mean))
        if spec.batch.seed is not None and spec.batch.seed.state != "peak":
            spec = replace(spec, batch=fresh)
            found = at(spec)
            feed = feed_before(r, grams, found.plan.mixed_at) or feed
        found.feed, found.plan = feed, with_feed(found.plan, feed)
    assert found.forecast
    if r.readings:
        found = at(replace(spec, activity=found.forecast.belief.mean))
        assert found.forecast
    if r.bake.status == "live" and "roll" not in done and not coarse:
        until = found.stages if "ball" in done else found.stages[:-1]
        assert found.forecast
        since = max(hours_between(found.zero, r.now), 0.0) if "mix" in done else 0.0
        found.worth = worth(found.plan.spec.batch, until, belief=found.forecast.belief, now_h=since)
    return found


def rested(r: BakeSnapshot, dough: Dough, line_min: float) -> Risen:
    """A dough without yeast rests for its told hours; soda and powder say how long it may."""
    bake, found = r.bake, places(r)
    serve = bake.serve_at.astimezone(r.now.tzinfo)
    hours = [t.aim_h for which in USUAL_REST_H if (t := told_of(bake, which, rests=True))]
    fridge = found["fridge"]
    long = hours[0] >= COLD_REST_H and not bake.cold and bake.bulk_end == "rise"
    place = fridge if long else found.get(bake.bulk_place, found["bench"])

    def waiting(where: Place) -> chemical_model.Waiting | None:
        rest = chemical_model.Rest(60.0, where.air_c(r.kitchen.hourly_c, serve), "bulk", bulk_radius_mm(dough.total_g))
        return chemical_model.waiting(
            dough, HOLDS_LIKE[bake.strength], rest, r.kitchen.powder, batch_of(r, dough).pressure_pa
        )

    here = waiting(place)
    cold = None if place is fridge else waiting(fridge)
    plan = placed(r, rested_spec(r, dough, line_min, here, cold))
    stages = placed_stages(plan, r.kitchen.hourly_c, r.done())
    run = run_stages(plan.spec.batch, stages, [s.hours for s in stages], 1.0, coarse=True)
    safety = warm_hours(run, stages) if dough.spoils else None
    rolled_c = float(run.course.temp_c[-1])
    return Risen(plan, stages, rested=Rested(place, here, cold), safety=safety, rolled_c=rolled_c)


def standing_of(r: BakeSnapshot, found: Risen | None) -> DoughState | None:
    """State of the dough now, for a rescue; None before mixing and after rolling."""
    done = r.done()
    if found is None or found.forecast is None or "mix" not in done or "roll" in done:
        return None
    before = len(found.stages) - 2
    at = before + (1 if "ball" in done else 0)
    plan = found.plan
    begun, ends = (plan.balled_at, plan.step("roll").at) if "ball" in done else (plan.mixed_at, plan.balled_at)
    return DoughState(
        found.plan.spec.batch,
        found.stages[:at],
        found.stages[at],
        max(hours_between(begun, r.now), 0.0),
        r.kitchen.fridge_c,
        found.forecast.belief.mean,
        found.stages[-1] if at == before else None,
        max(hours_between(r.now, ends), 0.0),
    )


def cold_of(spec: BakeSpec) -> dict[str, Any] | None:
    """A spec's cold as a bake keeps it."""
    cold, which = (spec.ball.cold, "ball") if spec.ball.cold else (spec.bulk.cold, "bulk")
    return None if cold is None else {"stage": which, "after_h": cold.after_h, "hours": cold.hours}
