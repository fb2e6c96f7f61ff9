"""`day` of the contract: bakes planned backward from the table around busy hours, several in one kitchen."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from typing import Any

from brassclock.core.day.alternatives import hands_min, worth_seeing
from brassclock.core.day.courses import AS_PLANNED, COURSES, KitchenResources, own_course
from brassclock.core.day.hands import Busy, clashes
from brassclock.core.day.options import Relaxation, because, leaven_frac, relaxations
from brassclock.core.day.pack import Item, beside, pack
from brassclock.core.day.places import places_of
from brassclock.core.day.search import Solved
from brassclock.core.day.shared import Commitments
from brassclock.core.day.spec import DayPlan
from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.rise.course import course_stepper, warm
from brassclock.core.time import hours_between
from brassclock.services.contract.day_request import NEAR, Asked, DayRequest, asked_of, check_request, zone_of


def run_day(req: DayRequest) -> dict[str, Any]:
    """Plan the day. Raises InvalidInput with every fault."""
    check_request(req)
    if not course_stepper.ready:
        warm()
    zone = zone_of(req)
    asked = [asked_of(req, i, zone) for i in range(len(req.bakes))]
    first, last = min(a.request.now for a in asked), max(a.request.serve_at for a in asked)
    busy = [
        Busy(b.start.astimezone(zone), b.end.astimezone(zone), b.name, b.hands and min(b.hands, req.kitchen.cooks))
        for b in req.busy
        if b.end > first - NEAR and b.start < last + NEAR
    ]
    shelf = Commitments(shelf_l=req.kitchen.fridge_litres or float("inf"))
    home = KitchenResources(req.kitchen.hourly_c, places_of({}, req.kitchen.fridge_c), busy, req.kitchen.cooks, shelf)
    items = {a.name: Item(a.name, a.request, a.choice, a.surface) for a in asked}
    packed = pack(list(items.values()), home)
    placed = [(items[key], way) for key, way in packed.ways.items() if way is not None]
    out: dict[str, Any] = {"steps": [], "routes": {}, "slack_min": None, "alternatives": [], "cautions": []}
    slack: list[float] = []
    missing = []
    for a in asked:
        solved = packed.ways[a.name]
        if solved is None:
            missing.append(a)
            continue
        others = beside(home, items[a.name], placed)
        steps, free_min = _steps(a, solved.plan, others)
        out["steps"] += steps
        out["routes"][a.name] = _route(a, solved)
        slack.append(free_min)
        out["alternatives"] += _alternatives(a, solved, others)
    out["steps"].sort(key=lambda s: (s["start"], s["end"]))
    out["slack_min"] = round(min(slack), 1) if slack else None
    if missing:
        out["infeasible"] = _infeasible(missing[0], beside(home, items[missing[0].name], placed))
    out["why"] = {"steps": WHY.as_dict(), "slack_min": WHY.as_dict()}
    return out


WHY = Why(
    "The day",
    "mix + bulk + balls = roll, every hand move where hands are free",
    "An exact sweep over five-minute slots proposes when to mix, ball, chill and take out; the real rise is run "
    "there, and its windows are what is shown.",
    (Input("slot", 5, "min"), Input("horizon", 96, "h")),
    Kind.ANALYTIC,
    matters=("The kitchen's warmth, the leaven's activity, and the hours in which hands are away.",),
)


def _steps(a: Asked, plan: DayPlan, others: KitchenResources) -> tuple[list[dict[str, Any]], float]:
    """(moves and waits in time order, the least slack of a move [min])."""
    found: list[dict[str, Any]] = []
    slack = []
    for s in plan.steps:
        minutes = s.hands_min
        latest = _latest(s.at, s.can_wait_until, minutes, others)
        if s.key not in ("serve", "preheat"):
            slack.append(60 * hours_between(s.at, latest))
        found.append(
            _step(
                a,
                s.key,
                s.at,
                s.at + dt.timedelta(minutes=minutes),
                minutes > 0,
                _where(s.key, plan, a),
                latest,
                s.can_wait_until,
            )
        )
    roll = plan.step("roll").at
    found.append(_step(a, "bulk", plan.mixed_at, plan.balled_at, False, plan.spec.bulk.place.name, None, None))
    found.append(_step(a, "ball proof", plan.balled_at, roll, False, plan.spec.ball.place.name, None, None))
    return found, min(slack, default=0.0)


def _step(
    a: Asked,
    step: str,
    start: dt.datetime,
    end: dt.datetime,
    hands: bool,
    place: str,
    latest: dt.datetime | None,
    wait: dt.datetime | None,
) -> dict[str, Any]:
    return {
        "bake": a.name,
        "step": step,
        "start": start.isoformat(),
        "end": end.isoformat(),
        "hands": hands,
        "place": place,
        "latest_start": latest and latest.isoformat(),
        "can_wait_until": wait and wait.isoformat(),
    }


def _where(key: str, plan: DayPlan, a: Asked) -> str:
    if key.startswith(("cold", "wave")):
        return "the fridge"
    return a.surface if key in ("preheat", "line") else "the table" if key == "serve" else "the bench"


def _latest(at: dt.datetime, until: dt.datetime | None, minutes: float, others: KitchenResources) -> dt.datetime:
    """The last instant, in five minutes, until which a move can be put off without a busy hour in its way."""
    latest = at
    while until is not None and (later := latest + dt.timedelta(minutes=5)) <= until:
        if clashes(later, minutes, others.busy, others.cooks):
            break
        latest = later
    return latest


def _route(a: Asked, solved: Solved) -> dict[str, Any]:
    course = own_course(a.request.spec) if solved.course == AS_PLANNED else COURSES[solved.course]
    route = {None: "room", "bulk": "cold", "ball": "hybrid"}[course.chill]
    dose = None if a.request.spec.rests else round(leaven_frac(a.request.spec.batch) * solved.dose, 6)
    hours = next((s.cold.hours for s in (solved.plan.spec.bulk, solved.plan.spec.ball) if s.cold), 0.0)
    return {"route": route, "dose_frac": dose, "cold_h": round(hours, 2), "why": _chosen(solved)}


def _chosen(solved: Solved) -> str:
    if solved.course == AS_PLANNED and solved.dose == 1.0:
        return "As the method has it: it fits the hours there are."
    return "The nearest to the method that fits the hours there are."


def _alternatives(a: Asked, best: Solved, others: KitchenResources) -> list[dict[str, Any]]:
    """Up to three ways worth seeing beside the one taken."""
    return [
        {
            "bake": a.name,
            "name": name,
            **_route(a, s),
            "start": s.plan.steps[0].at.isoformat(),
            "mixed_at": s.plan.mixed_at.isoformat(),
            "hands_min": round(hands_min(s), 1),
            "flavour": round(s.flavour, 2),
        }
        for name, s in worth_seeing(a.request, others, a.choice, (best.course, best.dose)).items()
    ]


def _infeasible(a: Asked, home: KitchenResources) -> dict[str, Any]:
    """The reason why one finds no place, and the changes that were tried and make it fit."""
    relaxed: list[Relaxation] = relaxations(a.request, home, choice=a.choice)
    return {
        "bake": a.name,
        "because": because(a.request, home),
        "relaxations": [{"change": _plain(x.change), "text": x.text} for x in relaxed],
    }


def _plain(change: Mapping[str, Any]) -> dict[str, Any]:
    return {
        k: {n: (x.isoformat() if isinstance(x, dt.datetime) else x) for n, x in v.items()} if isinstance(v, dict) else v
        for k, v in change.items()
    }
