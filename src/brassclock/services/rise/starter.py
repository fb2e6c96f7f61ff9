"""The feed that a bake's starter needs before it is mixed: when and what, where hands are free."""

from __future__ import annotations

import datetime as dt
from dataclasses import dataclass, replace

from brassclock.core.day.hands import clashes
from brassclock.core.day.spec import WORDS, DayPlan, DayStep
from brassclock.core.rise.recipe import Seed
from brassclock.core.rise.sourdough.starter import Feed, fed, feed_for
from brassclock.core.time import hours_between, later
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.kitchen.jar import air_of, jar_of, seed_before

FEED_MIN = 5.0
USUAL = (1.0, 2.0, 2.0)  # practice: seed, flour, water
SPARE = 1.15  # what stays on the jar and goes on to the next feed
EARLY_H = 1.0  # a starter an hour short of its peak is good to use
SOONEST_H, LONGEST_H, STEP_H = 3.0, 16.0, 0.5
JAR_H = 40.0


@dataclass(frozen=True)
class FeedPlan:
    """A feed: when, and the grams that make it peak when the dough is mixed."""

    at: dt.datetime
    seed_g: float
    flour_g: float
    water_g: float

    @property
    def words(self) -> str:
        """Words for what goes into the jar.

        >>> FeedPlan(dt.datetime(2026, 1, 1, tzinfo=dt.UTC), 18.4, 36.2, 36.2).words
        '18 g starter, 36 g flour, 36 g water'
        """
        return f"{self.seed_g:.0f} g starter, {self.flour_g:.0f} g flour, {self.water_g:.0f} g water"


def good_at(r: BakeSnapshot, mixed: dt.datetime) -> bool:
    """True if the starter as it was last fed is near its peak, or holding, when the dough is mixed."""
    if r.starter is None or not r.feeds or r.feeds[0].place == "fridge":
        return r.starter is None
    last = r.feeds[0]
    jar = jar_of(r.starter, r.kitchen, r.feeds, r.now, r.starter.vitality_mean)
    hours = hours_between(last.at, mixed)
    return jar.peak_h is not None and jar.peak_h - EARLY_H <= hours <= (jar.hold_until_h or jar.peak_h + 1.0)


def feed_hours(r: BakeSnapshot) -> tuple[float, float] | None:
    """(latest, earliest) hours before mixing at which a feed needs hands; None when the last one is young, or it is
    mixed."""
    if r.starter is None or "mix" in r.done() or (r.feeds and hours_between(r.feeds[0].at, r.now) < LONGEST_H):
        return None
    return SOONEST_H, LONGEST_H


def feed_before(r: BakeSnapshot, grams: float, mixed: dt.datetime) -> FeedPlan | None:
    """The feed to give before mixing at `mixed`; None when none is needed, or no time is left for one."""
    if r.starter is None or "mix" in r.done() or not grams or good_at(r, mixed):
        return None
    state, days = seed_before(r.feeds, r.now)
    seed = Seed(state, r.starter.vitality_mean, days)
    total = grams * SPARE
    seed_g, flour_g, water_g = (total * p / sum(USUAL) for p in USUAL)
    path = air_of(r.kitchen, later(mixed, -6.0), r.now)
    usual = (
        fed(Feed(seed_g, flour_g, water_g, r.starter.hydration_frac, r.starter.whole_share), seed, path, JAR_H).peak_h
        or 6.0
    )
    steps = int((LONGEST_H - SOONEST_H) / STEP_H) + 1
    hours = sorted((SOONEST_H + i * STEP_H for i in range(steps)), key=lambda h: abs(h - usual))
    for h in hours:
        at = later(mixed, -h)
        if at < r.now or clashes(at, FEED_MIN, (*r.busy, *r.taken), r.kitchen.cooks):
            continue
        path = air_of(r.kitchen, at, r.now)
        found = feed_for(total, h, path, seed, r.starter.hydration_frac, r.starter.whole_share)
        if found is not None:
            return FeedPlan(at, found.seed_g, found.flour_g, found.water_g)
    return None


def with_feed(plan: DayPlan, feed: FeedPlan | None) -> DayPlan:
    """The plan with the feed among its moves."""
    if feed is None:
        return plan
    step = DayStep("feed", WORDS["feed"], feed.at, FEED_MIN)
    return replace(plan, steps=tuple(sorted((*plan.steps, step), key=lambda s: s.at)))
