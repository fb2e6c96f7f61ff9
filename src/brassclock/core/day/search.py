"""One bake around real hours: the sweep proposes, the real rise is run at what it found, and only that is shown.

Three rounds at most for a route and dose: sweep, run the real rise there, set the sweep's needs by it, sweep again.
"""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import product

from brassclock.core.day.courses import (
    AFTERS_H,
    AS_PLANNED,
    COURSES,
    DOSE_COST,
    Choice,
    KitchenResources,
    PlanRequest,
    Schedule,
    own_course,
    shaped,
)
from brassclock.core.day.hands import HORIZON_SLOTS, SLOT_MIN, Hands, Slots, free_hands, slots_of
from brassclock.core.day.plan import held_pins, plan_back
from brassclock.core.day.scale import At, Real, Scale, real, scale_of
from brassclock.core.day.spec import BakeSpec, DayPlan
from brassclock.core.day.sweep import (
    Candidate,
    Chores,
    Fixed,
    ProgressWindow,
    ServiceTimes,
    Way,
    heat_slot,
    ways,
    work_fits,
)
from brassclock.core.time import hours_between, later

ROUNDS = 3
SLACK_H = 0.03  # at 25 C: what a window's edge is worth here
HOUR = 60 // SLOT_MIN
BALL_TEMPERS_H = (1.0, 1.5, 2.0, 3.0, 4.0)
BULK_TEMPERS_H = (1 / HOUR, 0.5, 1.0, 2.0)
USUAL_TEMPER_H = 2.0
TOLD_COLD_GIVE, TOLD_LEAST_GIVE_H = 0.05, 0.5  # judgement: how far a stay gives way whose stage ends after a time
FIRST_GUESS_H = (2.0, 1.5)  # where the real rise is run first: bulk, balls
LATE_MIN = 2.0  # of the slots' own grain


@dataclass(frozen=True)
class Solved:
    """A way that the real rise bears out: its course, leaven over what was typed, plan, and what it cost the choice."""

    course: str
    dose: float
    plan: DayPlan
    found: Candidate

    @property
    def cost(self) -> float:
        """Cost of the choice, without unit: lower is better."""
        return self.found.cost

    @property
    def flavour(self) -> float:
        """0 to 1: longer and colder is fuller."""
        if self.course in COURSES and COURSES[self.course].chill:
            return COURSES[self.course].flavour
        hours = hours_between(self.plan.mixed_at, self.plan.step("roll").at)
        return min(0.1 + hours / 40, 1.0)


def slots_for(request: PlanRequest) -> Slots:
    """Four days of slots up to the table, or as far back as what is done goes."""
    first = min([request.now, *request.done.values()], default=request.now)
    back = math.ceil(60 * hours_between(first, request.serve_at) / SLOT_MIN) + HOUR
    return Slots.until(request.serve_at, max(HORIZON_SLOTS, back))


def chores_of(spec: BakeSpec, feed_h: tuple[float, float] | None = None) -> Chores:
    """A bake's hand moves in slots."""
    feed = None if feed_h is None else (round(feed_h[0] * HOUR), round(feed_h[1] * HOUR))
    return Chores(
        before_mix=slots_of(spec.weigh_min + spec.mix_min),
        ball=slots_of(spec.ball_min),
        preheat=slots_of(spec.preheat_min),
        tended=slots_of(spec.preheat_min) if spec.preheat_tended else 1,
        sooner=0 if spec.preheat_tended else 6,
        roll=slots_of(spec.roll_min),
        sponge=slots_of(spec.sponge.hours * 60) if spec.sponge else 0,
        feed=feed,
    )


def table_of(spec: BakeSpec, serve_at: dt.datetime, slots: Slots) -> ServiceTimes:
    """The boundaries that the table sets."""
    roll = slots.before(later(serve_at, -(spec.line_min + spec.roll_min) / 60))
    return ServiceTimes(roll, roll + slots_of(spec.service_min / spec.waves), slots.after(serve_at))


class Search:
    """The search for one bake's day; nothing is kept between searches."""

    def __init__(self, request: PlanRequest, resources: KitchenResources) -> None:
        self.request, self.resources = request, resources
        self.slots = slots_for(request)
        self.now = max(self.slots.after(request.now), 0)
        self.free = Hands(free_hands(self.slots, resources.busy, resources.cooks))
        self.hot = (
            []
            if "line" in request.done
            else [(self.slots.before(b.start), self.slots.after(b.end)) for b in resources.shared.hot]
        )
        self.full = None if "cold_in" in request.done else resources.shared.full(self.slots, request.litres)
        self.scales: dict[str, Scale] = {}
        self.aims: dict[str, tuple[float, float, float]] = {}  # of a course: dose, hours of bulk and balls it aimed at

    def groups(self, choice: Choice) -> list[Group]:
        """A group for each course and dose whose last hours find hands, the least costly first; nothing is run for them
        yet."""
        found = []
        for key, dose in product(choice.courses, choice.doses):
            course = own_course(self.request.spec) if key == AS_PLANNED else COURSES[key]
            if course.low_h * HOUR > self.slots.count - self.now and "mix" not in self.request.done:
                continue
            spec = self.request.spec if key == AS_PLANNED else shaped(self.request.spec, course, self.resources.places)
            if key != AS_PLANNED and AS_PLANNED in choice.courses and spec == self.request.spec:
                continue  # the same as planned
            if dose != 1.0:
                spec = replace(spec, batch=spec.batch.dosed(dose))
            group = Group(self, course, dose, spec)
            group.cost += choice.change_cost if (key, dose) != (AS_PLANNED, 1.0) else 0.0
            if work_fits(group.chores, self.free, group.table, self.now) and not self._hot(group):
                found.append(group)
        return sorted(found, key=lambda g: g.cost)

    def _hot(self, group: Group) -> bool:
        """True if another bake has the surface while this one wants it."""
        begins, ends = group.surface_slots()
        return any(a < ends and begins < b for a, b in self.hot)

    def best(self, choice: Choice) -> Solved | None:
        """The least costly way that the real rise bears out. A group is run only while it could still be it."""
        best: Solved | None = None
        for group in self.groups(choice):
            if best is not None and group.cost >= best.cost:
                break
            proposal = group.sweep() if group.calibrate() else None
            while proposal is not None and (best is None or proposal.cost < best.cost):
                solved, proposal = group.settle(proposal)
                best = solved or best
        return best

    def each(self, choice: Choice) -> list[Solved]:
        """The best of every course that the real rise bears out, the least costly first."""
        found = [x for key in choice.courses if (x := self.best(replace(choice, courses=(key,)))) is not None]
        return sorted(found, key=lambda s: s.cost)


class Group:
    """One course and dose: its scale and needs, swept and set right by the real rise."""

    def __init__(self, search: Search, course: Schedule, dose: float, spec: BakeSpec) -> None:
        self.search, self.course, self.dose, self.spec = search, course, dose, spec
        request, slots = search.request, search.slots
        self.table = table_of(spec, request.serve_at, slots)
        self.chores = chores_of(spec, request.feed_h)
        held = {**held_pins(request.pins, request.now, request.done), **request.done}
        self.over = bool(course.chill) and "cold_out" in request.done
        place = {k: slots.before(v) for k, v in held.items()}
        self.fixed = Fixed(place.get("mix"), place.get("ball"), place.get("cold_in"), place.get("cold_out"))
        self.rounds = 0
        self.cost = course.cost + DOSE_COST * abs(math.log2(dose))
        self.found: Real | None = None

    @property
    def key(self) -> str:
        """Cache key of a scale and an aim: the course, and whether its cold is over."""
        return f"{self.course.key} {self.over}"

    @cached_property
    def scale(self) -> Scale:
        """The sweep's scale of progress for this course, computed once for a search."""
        known, key = self.search.scales, self.key
        if key not in known:
            cold = None if self.over else self.spec.bulk.cold or self.spec.ball.cold
            scale = scale_of(self.spec, self.search.resources.hourly_c, self.search.slots, cold)
            known[key] = replace(scale, rates=replace(scale.rates, full=self.search.full))
        return known[key]

    @property
    def chill(self) -> str | None:
        """Stage that is still to be chilled, None when none is."""
        return None if self.over else self.course.chill

    def _near(self, bulk_h: float, ball_h: float) -> At:
        """About where the way runs, for stages of about those hours; what is fixed stands where it is."""
        fixed, roll, cold = self.fixed, float(self.table.roll), self.course.hours * HOUR

        def held(at: int | None, planned: float) -> float:
            return planned if at is None else float(at)

        if self.course.chill == "ball":
            out = held(fixed.out, roll - USUAL_TEMPER_H * HOUR)
            ball = held(fixed.ball, out - cold - AFTERS_H[1] * HOUR)
            into = held(fixed.into, ball + AFTERS_H[1] * HOUR)
            return At(held(fixed.mix, ball - bulk_h * HOUR), ball, into, max(out, into + 1))
        ball = held(fixed.ball, roll - ball_h * HOUR)
        if self.course.chill is None:
            return At(held(fixed.mix, ball - bulk_h * HOUR), ball)
        out = held(fixed.out, ball - BULK_TEMPERS_H[2] * HOUR)
        mix = held(fixed.mix, out - cold - AFTERS_H[1] * HOUR)
        into = held(fixed.into, mix + AFTERS_H[1] * HOUR)
        return At(mix, ball, into, max(out, into + 1))

    def calibrate(self) -> bool:
        """Set the needs by the real rise about where the way will run; False when the dough never gets there."""
        hourly_c = self.search.resources.hourly_c
        known = self.search.aims.get(self.key)
        if known is not None:  # of another dose: about as many hours as it is weaker
            dose, bulk_h, ball_h = known
            guess = (bulk_h * dose / self.dose, ball_h * dose / self.dose)
        elif self.spec.rests:
            guess = (self.spec.rests[0].aim_h, self.spec.rests[1].aim_h)
        else:
            guess = FIRST_GUESS_H
        seen = real(self.spec, hourly_c, self.scale, self._near(*guess))
        if seen.bulk is not None and not self.spec.rests and known is None:
            seen = real(self.spec, hourly_c, self.scale, self._near(seen.bulk_aim_h, seen.ball_aim_h or guess[1]))
        if seen.bulk is None or seen.ball is None:
            return False
        self.search.aims[self.key] = (self.dose, seen.bulk_aim_h, seen.ball_aim_h)
        self.found = seen
        return True

    def _ways(self) -> list[Way]:
        assert self.found and self.found.bulk and self.found.ball
        plain = Way(self.course.key, self.dose, self.found.bulk, self.found.ball, cost=self.cost)
        if self.chill is None:
            return [plain]
        own = self.spec.bulk.cold or self.spec.ball.cold
        told = self.spec.told[0 if self.chill == "bulk" else 1]
        afters = {round(h * HOUR) for h in (*AFTERS_H, *([own.after_h] if own else ()))}
        if told is not None and own is not None:
            afters = {round(own.after_h * HOUR)}
        start = self.fixed.ball if self.chill == "ball" else self.fixed.mix
        if start is not None and self.fixed.into is not None:
            afters = {self.fixed.into - start}
        if self.chill == "ball":
            least = math.ceil(self.found.workable_slots)
            tempers = {least, *(round(h * HOUR) for h in BALL_TEMPERS_H if h * HOUR >= least)}
            if self.fixed.out is not None:
                tempers = {self.table.roll - self.fixed.out}
        else:
            tempers = {round(h * HOUR) for h in BULK_TEMPERS_H}
            if self.fixed.out is not None and self.fixed.ball is not None:
                tempers = {self.fixed.ball - self.fixed.out}
        if told is not None and self.fixed.out is None:
            tempers = {max(round(h * HOUR), 1) for h in (told.low_h, told.aim_h, told.high_h)}
        low, high = round(self.course.low_h * HOUR), round(self.course.high_h * HOUR)
        if told is not None and own is not None and self.course.key == AS_PLANNED:
            give_h = max(TOLD_COLD_GIVE * own.hours, TOLD_LEAST_GIVE_H)
            low, high = max(round((own.hours - give_h) * HOUR), 1), round((own.hours + give_h) * HOUR)
        if self.fixed.into is not None and self.fixed.out is not None:
            low, high = 1, len(self.search.free)
        return [
            replace(
                plain, chill=self.chill, after=a, temper=t, cold_low=low, cold_high=high, warmed=self.scale.warmed(t)
            )
            for a, t in product(sorted(afters), sorted(tempers))
        ]

    def all(self, keep: int) -> list[Candidate]:
        """The sweep's proposals, the least costly first."""
        rates, free, now = self.scale.rates, self.search.free, self.search.now
        found = [
            f for way in self._ways() for f in ways(way, rates, self.chores, free, self.table, now, self.fixed)[:keep]
        ]
        return sorted(found, key=lambda f: (f.cost, -f.mix, -f.ball))[:keep]

    def hand_slots(self, f: Candidate) -> list[tuple[int, int]]:
        """The slots (from, to) in which a proposal takes a pair of hands."""
        c, t, fixed = self.chores, self.table, self.fixed
        heat = heat_slot(c, self.search.free, t)
        taken = [(t.roll, t.end)] if heat is None else [(heat, heat + c.tended), (t.roll, t.end)]
        if fixed.mix is None:
            taken.append((f.mix - c.before_mix, f.mix))
        if fixed.ball is None:
            taken.append((f.ball, f.ball + c.ball))
        for at, was in ((f.into, fixed.into), (f.out, fixed.out)):
            if at is not None and was is None:
                taken.append((at, at + c.cold))
        return taken

    def surface_slots(self) -> tuple[int, int]:
        """The slots (from, to) in which it bakes on its surface."""
        first = later(self.search.request.serve_at, -self.spec.line_min / 60)
        return self.search.slots.before(first), self.table.end

    def sweep(self) -> Candidate | None:
        """The least costly proposal."""
        return next(iter(self.all(1)), None)

    def settle(self, proposal: Candidate) -> tuple[Solved | None, Candidate | None]:
        """(the way as the real rise bears it out, or None and another proposal when rounds are left)."""
        self.rounds += 1
        at = At(proposal.mix, proposal.ball, proposal.into, proposal.out)
        seen = real(self.spec, self.search.resources.hourly_c, self.scale, at)
        if seen.bulk is None or seen.ball is None:
            return None, None
        self.found = seen
        if self._bears(proposal, seen.bulk, seen.ball, seen.workable_slots):
            solved = self._planned(proposal)
            if solved.plan.late_min < LATE_MIN:
                return solved, None
        return None, self.sweep() if self.rounds < ROUNDS else None

    def _bears(self, f: Candidate, bulk: ProgressWindow, ball: ProgressWindow, workable: float) -> bool:
        cold = None if f.into is None or f.out is None else (float(f.into), float(f.out))
        scale, roll = self.scale, self.table.roll
        first = scale.since(scale.bulk, f.mix, f.ball, cold if self.chill == "bulk" else None)
        second = scale.since(scale.ball, f.ball, roll, cold if self.chill == "ball" else None)
        wait = scale.bench(scale.ball, roll, self.table.last)
        warm = self.chill != "ball" or f.out is None or roll - f.out >= workable - 0.5
        inside = self.fixed.ball is not None or bulk.low - SLACK_H <= first <= bulk.high + SLACK_H
        return inside and warm and ball.low - SLACK_H <= second <= ball.high - wait + SLACK_H

    def _planned(self, f: Candidate) -> Solved:
        """The plan at a proposal, by the real rise."""
        at, request = self.search.slots.at, self.search.request
        pins = {"mix": at(f.mix), "ball": at(f.ball)}
        spec = self.spec
        if f.into is not None and f.out is not None and self.chill is not None:
            pins |= {"cold_in": at(f.into), "cold_out": at(f.out)}
            start = f.mix if self.chill == "bulk" else f.ball
            part = getattr(spec, self.chill)
            cold = replace(part.cold, after_h=(f.into - start) / HOUR, hours=(f.out - f.into) / HOUR)
            spec = replace(spec, **{self.chill: replace(part, cold=cold)})
        heat = heat_slot(self.chores, self.search.free, self.table)
        if heat is not None and heat < self.table.roll + self.chores.roll - self.chores.preheat:
            pins["preheat"] = at(heat)
        pins = {k: v for k, v in pins.items() if k not in request.done}
        plan = plan_back(spec, self.search.resources.hourly_c, request.serve_at, request.now, request.done, pins=pins)
        return Solved(self.course.key, self.dose, plan, f)
