"""The hand moves of a bake as they are shown: when, where, how long, why then, and whether hands are free."""

from __future__ import annotations

import datetime as dt

from brassclock.core.day.hands import clashes
from brassclock.core.day.spec import DayPlan, DayStep, Told, kind_of
from brassclock.core.time import hours_between, later
from brassclock.services.bake.snapshot import BakeSnapshot, breads_of
from brassclock.services.schemas.base import FeedPortion, StepRead
from brassclock.services.solve import BakeResult

LEAF_OF_STEP = {
    "feed": "weigh",
    "weigh": "weigh",
    "sponge": "mix",
    "mix": "mix",
    "ball": "rise",
    "cold_in": "rise",
    "cold_out": "rise",
    "wave": "rise",
    "preheat": "fire",
    "roll": "fire",
    "line": "fire",
    "serve": "keep",
}
AT_ONCE_H = 0.2


def hours_text(hours: float) -> str:
    """A stretch as it is said.

    >>> hours_text(0.7), hours_text(2.25), hours_text(14.0)
    ('40 min', '2 h 15', '14 h')
    """
    minutes = round(hours * 12) * 5
    h, m = divmod(minutes, 60)
    if not h:
        return f"{m} min"
    return f"{h} h {m:02d}" if m and h < 10 else f"{round(minutes / 60)} h"


def late_text(minutes: float) -> str:
    """A delay as it is said: to the minute within the hour.

    >>> late_text(18.2), late_text(319), late_text(4000)
    ('18 min', '5 h 20', '3 days')
    """
    if minutes < 59.5:
        return f"{minutes:.0f} min"
    return hours_text(minutes / 60) if minutes < 48 * 60 else f"{round(minutes / 1440)} days"


def steps_of(r: BakeSnapshot, work: BakeResult) -> list[StepRead]:
    """Every hand move of a bake's plan, in time order."""
    if work.plan is None:
        return []
    done, busy, pins, hot = r.done(), (*r.busy, *r.taken), r.pins(), _hot_words(r)
    found = []
    for s in work.plan.steps:
        ahead = s.done_at is None and r.bake.status == "live" and s.key != "serve"
        away = clashes(s.at, s.hands_min, busy, r.kitchen.cooks) if ahead else []
        found.append(
            StepRead(
                bake_id=r.bake.id or 0,
                bake=r.bake.name,
                seal=r.bake.seal,
                key=s.key,
                name=s.name,
                at=s.at,
                can_wait_until=s.can_wait_until,
                not_before=s.not_before,
                done_at=done.get(s.key),
                leaf=LEAF_OF_STEP[kind_of(s.key)],
                hands_min=s.hands_min,
                place=_place(s, work.plan, hot),
                reason=_reason(s, work.plan) if s.key != "feed" else _feed_words(work),
                feed=_feed_out(r, work) if s.key == "feed" else None,
                away=(away[0].name or "hours away") if away else None,
                pinned=ahead and pins.get(s.key) == (work.plan.mixed_at if s.key == "mix" else s.at),
            )
        )
    return found


def _feed_words(work: BakeResult) -> str:
    feed = work.risen.feed if work.risen else None
    return f"{feed.words}; it peaks when the dough is mixed" if feed else ""


def _feed_out(r: BakeSnapshot, work: BakeResult) -> FeedPortion | None:
    feed = work.risen.feed if work.risen else None
    if feed is None or r.starter is None:
        return None
    return FeedPortion(starter_id=r.starter.id or 0, seed_g=feed.seed_g, flour_g=feed.flour_g, water_g=feed.water_g)


def _hot_words(r: BakeSnapshot) -> str:
    """The surfaces of a bake's breads by their names."""
    names = dict.fromkeys(b.surface.name for b in breads_of(r) if b.surface)
    return " and ".join(names) or "the surface"


def _place(step: DayStep, plan: DayPlan, hot: str) -> str:
    if step.key in ("feed", "weigh", "mix", "sponge", "ball"):
        return "the bench"
    if step.key.startswith(("cold", "wave")):
        cold = plan.spec.bulk.cold or plan.spec.ball.cold
        return cold.place.name if cold else "the fridge"
    if step.key == "serve":
        return "the table"
    return hot


def _skipped(told: Told | None) -> bool:
    """True for a stage that is left out."""
    return told is not None and told.high_h == 0


def _told_words(told: Told, chilled: bool, after: str) -> str:
    """The time that ends a stage, as the cook said it."""
    if _skipped(told) and chilled:
        return "as it comes out of the cold"
    if _skipped(told):
        return f"straight after it is {after}"
    single = told.high_h - told.low_h <= 0.7 * told.aim_h
    hours = hours_text(told.aim_h) if single else f"{hours_text(told.low_h)} to {hours_text(told.high_h)}"
    return f"its time is over: {hours} out of the cold" if chilled else f"its time is over: {hours} after it is {after}"


def _reason(step: DayStep, plan: DayPlan) -> str:
    """The reason for that time, in a few words."""
    roll = plan.step("roll").at

    def between(a: dt.datetime, b: dt.datetime) -> str:
        return hours_text(hours_between(a, b))

    if step.key in ("weigh", "sponge", "mix"):
        if hours_between(plan.mixed_at, roll) < AT_ONCE_H:
            return "cooked at once" if step.key == "mix" else "just before mixing"
        first = between(plan.mixed_at, plan.balled_at)
        in_one = f"{first} in one piece"
        if _skipped(plan.spec.told[0]):
            in_one = f"{first} in the cold" if plan.spec.bulk.cold else "balled straight away"
        in_balls = "no rest in balls" if _skipped(plan.spec.told[1]) else f"{between(plan.balled_at, roll)} in balls"
        whole = f"{in_one}, {in_balls}"
        return whole if step.key == "mix" else "just before mixing" if step.key == "weigh" else f"then {whole}"
    if step.key == "ball" and hours_between(plan.balled_at, roll) < AT_ONCE_H:
        return "shaped and cooked at once"
    if step.key == "ball" and plan.spec.told[0] is not None:
        return _told_words(plan.spec.told[0], plan.spec.bulk.cold is not None, "mixed")
    if step.key == "ball":
        return (
            f"ripe from {later(plan.mixed_at, plan.bulk.ready_h):%H:%M}; the balls want {between(plan.balled_at, roll)}"
        )
    if step.key == "cold_in":
        out = plan.step("cold_out").at
        return f"{between(step.at, out)} in the cold hold it back"
    if step.key.startswith("cold_out"):
        if not plan.spec.ball.cold:
            return "balled as it comes out" if _skipped(plan.spec.told[0]) else "warm enough to ball"
        if hours_between(step.at, roll) < AT_ONCE_H:
            return "rolled as it comes out, still cold"
        return f"{between(step.at, roll)} to lose its chill before rolling"
    if step.key.startswith("wave"):
        return "so that the last balls are no older than the first"
    if step.key == "preheat":
        return f"{hours_text(plan.spec.preheat_min / 60)} to get hot"
    if step.key == "roll" and hours_between(plan.balled_at, roll) < AT_ONCE_H:
        return "straight to the heat"
    if step.key == "roll" and plan.spec.told[1] is not None:
        return _told_words(plan.spec.told[1], plan.spec.ball.cold is not None, "balled")
    if step.key == "roll":
        return f"balls are at their best {between(plan.balled_at, roll)} after balling"
    if step.key == "line":
        return "rounds have relaxed, the surface is hot"
    return ""
