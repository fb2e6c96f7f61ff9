"""Ways through a day: their ids, the choice there is, and a bake set to one."""

from __future__ import annotations

import datetime as dt
import hashlib
import json
from collections.abc import Mapping
from dataclasses import replace

from sqlmodel import Session

from brassclock.core.day.courses import AS_PLANNED, COURSES, Choice, own_course
from brassclock.core.day.options import DOSES, in_the_way, moment
from brassclock.core.day.search import Solved
from brassclock.core.day.spec import BakeSpec, DayPlan
from brassclock.core.time import hours_between, later
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.parts import names_of
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import MOVED_MIN
from brassclock.services.day import model as day_model
from brassclock.services.day.model import cold_of
from brassclock.services.day.steps import hours_text
from brassclock.services.rise import spec as rise_spec
from brassclock.services.weigh.leaven import scale_leaven

LATE_MIN = 1.0


HOLD_MIN = 15.0  # a move that comes to lie further off than this is held where it was shown


COOLER = "Give it less time, a cooler place or less leaven."
FEWER_COLD = "Give it fewer hours in the fridge."
LESS_TIME = "Give it less time, or put it in the fridge."
RAW_CODES = ("does_not_cook_through", "filling_not_safe")
# of the hours to half the lift, by the far end of their band: a third is left then, as the lift's own curves have it.
# Up to there it is said, not refused: kitchens keep powder doughs two nights cold and bake them flatter.
REFUSED_SHARE = 2.0
HELD = ("mix", "ball", "cold_in", "cold_out")


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
    """True if a live bake has all it wants: in time, hands, its surface, room in the cold, a dough that bears its
    times, a bread that the heat takes."""
    plan, done = work.plan, r.done()
    if plan is None or r.bake.status != "live" or "line" in done:
        return True
    if plan.late_min >= LATE_MIN:
        return False
    if "roll" in done:
        return True
    return not refused_words(r, work) and not in_the_way(
        plan, rise_spec.litres_of(plan.spec), day_model.resources_of(r)
    )


def refused_words(r: BakeSnapshot, work: solve.BakeResult) -> str:
    """Sentence on what no other hour mends: a stage longer than its dough bears, a bread that the heat cannot bake."""
    if work.plan is not None and work.plan.overdone_h:
        return _too_far_words(r, work.plan)
    if work.plan is not None and wait_share(work, work.plan, at_most=True) > REFUSED_SHARE:
        return f"Two thirds of the lift are gone before it is rolled. {FEWER_COLD if r.bake.cold else LESS_TIME}"
    for name, bread in zip(names_of(r.bake), (work, *work.parts), strict=False):
        said = f"{name}: " if bread is not work else ""
        if "fire" in bread.faults and bread.bread is None and bread.sheet is not None and bread.sheet.sheet is not None:
            return said + bread.faults["fire"].removeprefix(said)
        raw = [v for v in bread.program.verdicts if v.code in RAW_CODES] if bread.program else []
        if raw:
            return said + raw[0].words(r.kitchen.temp_unit)
    return ""


def _too_far_words(r: BakeSnapshot, plan: DayPlan) -> str:
    which, over = next(iter(plan.overdone_h.items()))
    end = plan.balled_at if which == "bulk" else plan.step("roll").at
    at = moment(later(end, -over).astimezone(r.now.tzinfo), r.now)
    what = "dough is" if which == "bulk" else "balls are"
    return f"The {what} too ripe by {at}, {hours_text(over)} before the time is over. {COOLER}"


def ripe_until(r: BakeSnapshot, work: solve.BakeResult) -> dt.datetime | None:
    """The instant from which a dough that rises is too ripe, as it is now: in the bowl, in balls, rolled; None of one
    that is not mixed or does not rise."""
    plan, done = work.plan, r.done()
    if plan is None or work.forecast is None or "mix" not in done or "line" in done:
        return None
    if "roll" in done:
        return plan.step("line").can_wait_until
    if "ball" in done:
        return later(plan.balled_at, plan.ball.too_far_h)
    return later(plan.mixed_at, plan.bulk.too_far_h)


def wait_share(work: solve.BakeResult, plan: DayPlan, *, at_most: bool = False) -> float:
    """Share of its waiting that a plan takes of a dough of soda or powder: over 1, half its lift is gone before it is
    rolled, by the middle of the bands or (`at_most`) by their far end. 0 for a dough that rises."""
    rest = work.risen.rested if work.risen else None
    if rest is None or rest.here is None:
        return 0.0
    warm_h, cold_h = plan.apart_h
    share = warm_h / max(rest.here.high_h if at_most else rest.here.h, 1e-6)
    if cold_h and rest.fridge is not None:
        share += cold_h / max(rest.fridge.high_h if at_most else rest.fridge.h, 1e-6)
    return float(share)


def half_gone(work: solve.BakeResult) -> bool:
    """True if a dough of soda or powder has, by the middle of its bands, lost half its lift before it is rolled."""
    return work.plan is not None and wait_share(work, work.plan) > 1.0


def choice_of(spec: BakeSpec, done: bool = False) -> Choice:
    """Options for a bake: every course and dose; one night cold or its own when it rests; its own when it is mixed."""
    if done:
        return Choice()
    own = own_course(spec).chill
    if spec.rests:
        return Choice(
            (AS_PLANNED, *(c.key for c in COURSES.values() if c.nights == 1)) if own is None else (AS_PLANNED,)
        )
    return Choice((AS_PLANNED, *(c.key for c in COURSES.values() if c.chill != own or c.nights > 1)), DOSES)


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
    """Hold the moves of those bakes that would not come to lie where they were shown by themselves, one after the
    other."""
    for bake_id, plan in plans.items():
        r, work = next((r, w) for r, w in solve.plan_all(app, session, kitchen_id) if r.bake.id == bake_id)
        if not moved_from(plan, work.plan, HOLD_MIN):
            continue
        pins = {s.key: s.at for s in plan.steps if s.key in HELD and s.done_at is None and s.at > r.now}
        if "mix" in pins:  # its step begins the mixing; the dough's clock starts when it ends
            pins["mix"] = plan.mixed_at
        r.bake.pins = {k: t.isoformat() for k, t in pins.items()}
        session.add(r.bake)


NOT_RISING = "This dough does not rise: there is nothing to try on it here. Its Weigh leaf balances soda and powder."


MIXED = "The dough is mixed: its way is taken. Late guests and too fast change what is ahead."


MOVED = "The day has moved since these ways were shown. Look at them again."
