"""Named ways to the same table: the room, a warmer spot, less leaven, one night or two in the fridge.

Each is the real plan run again with what the route changes; where a route needs another dose it is solved so that the
balls stand in the middle of their best when they can be worked. Hours and flavour notes are practice.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.day.places import Place
from brassclock.core.day.plan import plan_back
from brassclock.core.day.spec import BakeSpec, Cold, DayPlan, StageSpec
from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.stages import run_stages
from brassclock.core.rise.windows import aims
from brassclock.core.time import hours_between, later

DOSE_LIMITS = (0.03, 3.0)
LEAST_IN_BALLS = Param(
    0.2, "-", 0.1, 0.4, Kind.JUDGEMENT, "with less the bulk takes half a day before the balls are chilled"
)
BEST_AT_WORK_M = 1.15
LEAST_OF_COLD = Param(0.75, "-", 0.5, 0.9, Kind.JUDGEMENT, "with less of its cold a route is another route")
SLOW_BULK_H = 7.0  # ready then; at its best hours later
COLD_AFTER_H = 0.5
PLAIN_BULK_H, PLAIN_BALL_H, TEMPER_H = 1.5, 2.5, 1.5  # practice: where the clock stands when a dose is sought


@dataclass(frozen=True)
class Plan:
    """A named route: its name, flavour note, hours in the cold, and where its warm hours are."""

    key: str
    name: str
    flavour: str
    cold_h: float | None = None
    warm: str | None = None
    bulk_h: float | None = None


ROUTES = (
    Plan("room", "On the bench", "Mild, wheaty; softest on the day."),
    Plan("warm", "A warmer spot", "Mildest: little time for flavour, soonest ready.", warm="oven_light"),
    Plan(
        "less",
        "Less leaven, longer",
        "Fuller, nutty; a dough that stretches thin without shrinking.",
        bulk_h=SLOW_BULK_H,
    ),
    Plan(
        "night",
        "One night in the fridge",
        "Deeper, browns and blisters better; hands are free in the day.",
        cold_h=14.0,
    ),
    Plan("nights", "Two nights in the fridge", "Deepest, a little sour; the crust colours soonest.", cold_h=38.0),
)


@dataclass(frozen=True)
class Route:
    """A route worked out: its plan, leaven over what is typed, and whether it reaches the table, or why not."""

    route: Plan
    plan: DayPlan
    dose_factor: float
    fits: bool
    because: str


def _shaped(spec: BakeSpec, route: Plan, places: Mapping[str, Place], *, balls: bool) -> BakeSpec:
    """The spec with the route's places and cold, of the balls or of the dough in one piece; own air stays out of it."""

    def stage(part: StageSpec, cold: Cold | None) -> StageSpec:
        place = places[route.warm] if route.warm else places["bench"]
        log = part.log if place.key == part.place.key else ()
        return replace(part, place=place, own_air=None, cold=cold, log=log)

    cold = Cold(COLD_AFTER_H, route.cold_h, places["fridge"]) if route.cold_h else None
    return replace(spec, bulk=stage(spec.bulk, None if balls else cold), ball=stage(spec.ball, cold if balls else None))


def _solved(short: Callable[[float], float]) -> float | None:
    """The factor at which `short` (rising with the dose) is nothing; None when the limits do not hold it."""
    low, high = (math.log(x) for x in DOSE_LIMITS)
    if short(low) > 0 or short(high) < 0:
        return None
    from scipy.optimize import brentq  # loaded when it is used: it would hold up the start

    return math.exp(float(brentq(short, low, high, xtol=0.01)))


def _dose_factor(spec: BakeSpec, route: Plan, hourly_c: Sequence[float], roll_at: dt.datetime) -> float | None:
    """Leaven over what is typed that the route needs; 1 when it needs no other, None when none does."""
    if route.cold_h is None and route.bulk_h is None:
        return 1.0
    cold_h = (route.cold_h or 0.0) + COLD_AFTER_H
    balls = spec.ball.cold is not None
    bulk_h = route.bulk_h or (PLAIN_BULK_H if balls else cold_h)
    ball_h = cold_h + TEMPER_H if balls else PLAIN_BALL_H
    balled = later(roll_at, -ball_h)
    stages = spec.stages(hourly_c, later(balled, -bulk_h), balled, {})
    first = (spec.before_h,) if spec.sponge else ()

    def ripe_over(log_factor: float) -> float:
        """Maturity past the middle of the best, at the end of the cold stage."""
        batch = spec.batch.dosed(math.exp(log_factor))
        if balls:
            bulk = aims(batch, stages[:-1], fixed_h=(*first, None), activity=spec.activity)[-1].aim_h
            run = run_stages(batch, stages, [*first, bulk, ball_h], spec.activity, coarse=True)
        else:
            run = run_stages(batch, stages[:-1], [*first, bulk_h], spec.activity, coarse=True)
        return float(run.maturity[-1]) - BEST_AT_WORK_M

    def too_quick(log_factor: float) -> float:
        """Hours by which the bulk is ready too soon."""
        batch = spec.batch.dosed(math.exp(log_factor))
        return bulk_h - aims(batch, stages[:-1], fixed_h=(*first, None), activity=spec.activity)[-1].ready_h

    return _solved(ripe_over if route.cold_h else too_quick)


def routes(
    spec: BakeSpec, hourly_c: Sequence[float], serve_at: dt.datetime, now: dt.datetime, places: Mapping[str, Place]
) -> list[Route]:
    """Every named route of a dough that is not mixed yet, in the order of `ROUTES`."""
    found = []
    roll_at = later(serve_at, -(spec.line_min + spec.roll_min) / 60)
    for route in ROUTES:
        # as its method chills it first, then the other way
        as_method = spec.ball.cold is not None
        shaped = _shaped(spec, route, places, balls=as_method)
        factor = _dose_factor(shaped, route, hourly_c, roll_at)
        if (factor is None or factor < LEAST_IN_BALLS) and route.cold_h and as_method:
            shaped = _shaped(spec, route, places, balls=False)
            factor = _dose_factor(shaped, route, hourly_c, roll_at)
        plan = plan_back(replace(shaped, batch=shaped.batch.dosed(factor or 1.0)), hourly_c, serve_at, now, {})
        fits, because = _verdict(plan, factor, serve_at, now, route.cold_h)
        found.append(Route(route, plan, factor or 1.0, fits, because))
    return found


def _verdict(
    plan: DayPlan, factor: float | None, serve_at: dt.datetime, now: dt.datetime, asked_h: float | None
) -> tuple[bool, str]:
    if factor is None:
        return False, "No dose of this leaven is right for it here."
    have_h = hours_between(now, serve_at)
    if plan.late_min >= 1:
        first = min(s.at for s in plan.steps)
        needs_h = hours_between(first, plan.serve_at)
        return False, f"It takes {needs_h:.0f} h from weighing; serving is in {have_h:.0f} h."
    cold = plan.spec.ball.cold or plan.spec.bulk.cold
    if cold is not None and asked_h is not None and cold.hours < LEAST_OF_COLD * asked_h:
        return False, f"It wants {asked_h:.0f} h in the fridge; serving is in {have_h:.0f} h."
    if plan.ball.aim_h > plan.ball.too_far_h + 0.02:
        return False, "The balls are too ripe before they are warm enough to roll."
    return True, ""
