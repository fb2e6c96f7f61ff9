"""The reasons why a day does not fit, in words, and the least inconvenient changes that make it fit, each one tried."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any

from brassclock.core.day.courses import AS_PLANNED, COURSES, Choice, KitchenResources, PlanRequest
from brassclock.core.day.hands import Busy, away, clashes
from brassclock.core.day.plan import plan_back
from brassclock.core.day.search import Search, Solved
from brassclock.core.day.shared import crowding
from brassclock.core.day.spec import DayPlan
from brassclock.core.rise.recipe import Batch

DOSES = (0.25, 0.4, 0.63, 1.0, 1.6)
SERVE_SHIFTS_MIN = (30, 60, 90, 120, 180, 240, -30, -60, -120)
KEPT = 5
# judgement: how unwelcome a change is, beside half an hour later at the table (1)
DOSE_COST, COURSE_COST, EARLIER, BUSY_COST = 0.8, 1.2, 1.3, 4.0
SAME_COLD_H = 1.0  # hours in the cold that differ by less, or by this share of them, are called the same
SAME_COLD_FRAC = 0.1
PURPOSES = {
    "weigh": "when it would be weighed",
    "sponge": "when its sponge would be made",
    "mix": "when it would be mixed",
    "ball": "when it would be balled",
    "cold_in": "when it would go into the cold",
    "cold_out": "when it would come out of the cold",
    "preheat": "when its surface would be lit",
    "roll": "when it would be rolled",
    "line": "when it would be baked",
}


@dataclass(frozen=True)
class Relaxation:
    """A change that makes the day fit: what to alter, in words, and the way it opens, borne out by the real rise."""

    change: Mapping[str, Any]
    text: str
    cost: float
    solved: Solved


def moment(at: dt.datetime, beside: dt.datetime) -> str:
    """A time as it is said: with its day when that is another than `beside`'s.

    >>> moment(dt.datetime(2026, 11, 26, 20, 15), dt.datetime(2026, 11, 27, 1, 0))
    '20:15 on Thursday'
    """
    return f"{at:%H:%M}" if at.date() == beside.date() else f"{at:%H:%M} on {at:%A}"


def leaven_frac(batch: Batch) -> float:
    """Leaven over flour: yeast when there is any, else the starter [-]."""
    portions = batch.dough.portions
    yeast = sum(p.mass_g for p in portions if p.ingredient.is_yeast)
    return (yeast or sum(p.mass_g for p in portions if p.ingredient.is_ferment)) / batch.dough.flour_g


def percent(frac: float) -> str:
    """A baker's share as it is said.

    >>> percent(0.0021), percent(0.12)
    ('0.21 %', '12 %')
    """
    return f"{100 * frac:.2g} %"


def way_text(solved: Solved, request: PlanRequest) -> str:
    """A way as one sentence: what to do otherwise than typed; empty when it is as typed."""
    share = leaven_frac(request.spec.batch) * solved.dose
    if solved.course == AS_PLANNED:
        if solved.dose == 1.0:
            return ""
        verb = "Lower" if solved.dose < 1 else "Raise"
        begins = moment(solved.plan.steps[0].at, request.serve_at)
        return f"{verb} the leaven to {percent(share)} and begin at {begins}{cold_words(solved, request)}."
    dose = "" if solved.dose == 1.0 else f", leaven {percent(share)}"
    course = COURSES[solved.course]
    if course.chill is None:
        return f"Leave it on the bench{dose}; mix at {moment(solved.plan.mixed_at, request.serve_at)}."
    what = "balls" if course.chill == "ball" else "dough"
    return f"Put the {what} in the fridge at {moment(solved.plan.step('cold_in').at, request.serve_at)}{dose}."


def cold_words(solved: Solved, request: PlanRequest) -> str:
    """The hours in the cold of a way that keeps the bake's own cold but not its hours; empty where they are about the
    same."""
    own = request.spec.bulk.cold or request.spec.ball.cold
    found = solved.plan.spec.bulk.cold or solved.plan.spec.ball.cold
    if own is None or found is None or solved.course != AS_PLANNED:
        return ""
    if abs(found.hours - own.hours) <= max(SAME_COLD_H, SAME_COLD_FRAC * own.hours):
        return ""
    return f", {found.hours:.0f} h in the cold instead of {own.hours:.0f}"


def clashing(plan: DayPlan, resources: KitchenResources) -> list[tuple[str, Busy]]:
    """(step, busy hours) for every hand move still to do that falls where no hands are free."""
    return [
        (s.key, span)
        for s in plan.steps
        if s.done_at is None and s.key != "serve"
        for span in clashes(s.at, s.hands_min, resources.busy, resources.cooks)
    ]


def in_the_way(plan: DayPlan, litres: float, resources: KitchenResources) -> list[tuple[str, Busy]]:
    """(step, `surface` or `shelf`, whose hours) for everything a plan wants and does not have."""
    return clashing(plan, resources) + crowding(plan, litres, resources.shared)


def because(request: PlanRequest, resources: KitchenResources) -> str:
    """One or two sentences on why the bake as it is set finds no place."""
    plan = plan_back(request.spec, resources.hourly_c, request.serve_at, request.now, request.done, pins=request.pins)
    hit, crowded = clashing(plan, resources), crowding(plan, request.litres, resources.shared)
    if crowded and not hit:
        return " ".join(dict.fromkeys(_crowded(what, span, request) for what, span in crowded))
    if plan.late_min >= 1 and not hit:
        return f"It cannot be ready before {moment(plan.serve_at, request.now)}, {plan.late_min:.0f} min late."
    if not hit:
        return "No time of mixing and balling leaves the dough inside its windows."
    stretches = away(resources.busy, resources.cooks)
    said: list[str] = []
    for key, span in hit:
        a, b_end = next(((a, b) for a, b in stretches if a < span.end and b > span.start), (span.start, span.end))
        a, b_end = a.astimezone(request.serve_at.tzinfo), b_end.astimezone(request.serve_at.tzinfo)
        longest = max(
            (b for b in resources.busy if b.start < b_end and b.end > a), key=lambda b: b.end - b.start, default=span
        )
        name = f" ({longest.name})" if longest.name else ""
        text = f"No free hands between {moment(a, request.serve_at)} and {moment(b_end, a)}{name}"
        when = PURPOSES.get(key, "when it would be carried")
        if not any(text in x for x in said):
            said.append(f"{text}, {when}.")
    return " ".join(said[:2])


def _crowded(what: str, span: Busy, request: PlanRequest) -> str:
    """Sentence naming the bake whose hours on a surface or a shelf conflict."""
    start, end = (x.astimezone(request.serve_at.tzinfo) for x in (span.start, span.end))
    hours = f"between {moment(start, request.serve_at)} and {moment(end, start)}"
    if what == "surface":
        return f"Its surface is taken {hours} ({span.name})."
    return f"The cold shelf has no room for it {hours} ({span.name})."


def relaxations(request: PlanRequest, resources: KitchenResources, *, choice: Choice | None = None) -> list[Relaxation]:
    """Changes that make a bake fit which does not, the least inconvenient first. `choice` bounds courses and doses."""
    choice = choice or Choice((AS_PLANNED, *COURSES), DOSES)
    open_to_change = "mix" not in request.done
    found: list[Relaxation] = []
    if open_to_change:
        found += [*_doses(request, resources, choice), *_courses(request, resources, choice)]
    found += _serving(request, resources, Choice())
    if not found and open_to_change:
        found += _serving(request, resources, Choice((AS_PLANNED,), choice.doses))
    found += _busy(request, resources, Choice() if found else choice)
    return sorted(found, key=lambda r: r.cost)[:KEPT]


def _doses(request: PlanRequest, resources: KitchenResources, choice: Choice) -> Iterable[Relaxation]:
    best = Search(request, resources).best(Choice((AS_PLANNED,), tuple(d for d in choice.doses if d != 1.0)))
    if best is not None:
        yield Relaxation({"dose_factor": best.dose}, way_text(best, request), DOSE_COST, best)


def _courses(request: PlanRequest, resources: KitchenResources, choice: Choice) -> Iterable[Relaxation]:
    own = "bulk" if request.spec.bulk.cold else "ball" if request.spec.ball.cold else None
    keys = [k for k in choice.courses if k != AS_PLANNED and (COURSES[k].chill != own or own is None)]
    keys = [k for k in keys if COURSES[k].chill or own]
    for best in Search(request, resources).each(replace(choice, courses=tuple(keys)))[:2]:
        change = {"course": best.course, "dose_factor": best.dose}
        yield Relaxation(change, way_text(best, request), COURSE_COST + best.cost, best)


def _serving(request: PlanRequest, resources: KitchenResources, choice: Choice) -> Iterable[Relaxation]:
    """The nearest later and the nearest earlier table that fit, with another dose when `choice` has one."""
    had, ways = leaven_frac(request.spec.batch), set()
    for minutes in SERVE_SHIFTS_MIN:
        if (minutes > 0) in ways:
            continue
        serve = request.serve_at + dt.timedelta(minutes=minutes)
        if serve <= request.now:
            continue
        best = Search(replace(request, serve_at=serve), resources).best(choice)
        if best is not None and best.plan.late_min < 1:
            dose = "" if best.dose == 1.0 else f", with {percent(had * best.dose)} leaven"
            extra = 0.0 if best.dose == 1.0 else DOSE_COST
            yield Relaxation(
                {"serve_min": minutes, **({} if best.dose == 1.0 else {"dose_factor": best.dose})},
                f"Serve at {moment(serve, request.serve_at)}{dose}{cold_words(best, request)}.",
                abs(minutes) / 30 * (1.0 if minutes > 0 else EARLIER) + extra,
                best,
            )
            ways.add(minutes > 0)


def _busy(request: PlanRequest, resources: KitchenResources, choice: Choice) -> Iterable[Relaxation]:
    """Busy hours in the way, each given up by itself."""
    plan = plan_back(request.spec, resources.hourly_c, request.serve_at, request.now, request.done, pins=request.pins)
    for span in dict.fromkeys(span for _, span in clashing(plan, resources)):
        best = Search(request, replace(resources, busy=[b for b in resources.busy if b != span])).best(choice)
        if best is not None:
            start, end = (x.astimezone(request.serve_at.tzinfo) for x in (span.start, span.end))
            name = f"“{span.name}”" if span.name else "the hours away"
            yield Relaxation(
                {"busy": {"start": span.start, "end": span.end, "name": span.name}, **way_of(best)},
                f"Free {name}, {moment(start, request.serve_at)} to {moment(end, start)}{cold_words(best, request)}.",
                BUSY_COST + (end - start).total_seconds() / 7200,
                best,
            )


def way_of(solved: Solved) -> dict[str, Any]:
    """Changes that a way makes to the bake itself."""
    found: dict[str, Any] = {} if solved.dose == 1.0 else {"dose_factor": solved.dose}
    return found if solved.course == AS_PLANNED else {**found, "course": solved.course}
