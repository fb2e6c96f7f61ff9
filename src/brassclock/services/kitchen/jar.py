"""A starter's jar: the seed it gives, the air it stands in, and how it rises after its last feed."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from brassclock.core.day.kitchen_air import air_path
from brassclock.core.rise.recipe import Seed
from brassclock.core.rise.sourdough.starter import Feed, Jar, fed
from brassclock.store.tables import Kitchen, Starter, StarterFeed

FORECAST_H = 60.0


def seed_before(feeds: Sequence[StarterFeed], at: dt.datetime) -> tuple[str, float]:
    """(state, days cold) of the seed of a feed given at `at`, from the feed before it."""
    before = next((f for f in feeds if f.at < at), None)
    if before is None:
        return "ripe", 0.0
    days = (at - before.at).total_seconds() / 86400
    if before.place == "fridge" and days >= 1:
        return "chilled", min(days, 60.0)
    if before.peaked_at is not None and at - before.peaked_at < dt.timedelta(hours=2):
        return "peak", 0.0
    return "ripe", 0.0


def seed_now(
    starter: Starter, kitchen: Kitchen, feeds: Sequence[StarterFeed], now: dt.datetime, used: dt.datetime
) -> Seed:
    """State of a starter that goes into a dough at `used`: chilled, at its peak, or past it. Still rising counts as
    its peak to come."""
    before = [f for f in feeds if f.at <= used]
    vitality = starter.vitality_mean
    if not before:
        return Seed("peak", vitality)
    last = before[0]
    days = (used - last.at).total_seconds() / 86400
    if last.place == "fridge":
        return Seed("chilled", vitality, min(days, 60.0))
    jar = jar_of(starter, kitchen, before, now, vitality)
    return Seed("ripe" if jar.hold_until_h is not None and days * 24 > jar.hold_until_h else "peak", vitality)


def air_of(kitchen: Kitchen, at: dt.datetime, now: dt.datetime, place: str = "bench") -> list[tuple[float, float]]:
    """The air a jar stands in from `at`, as (hour, C)."""
    if place == "fridge":
        return [(0.0, kitchen.fridge_c)]
    return list(air_path(kitchen.hourly_c, at.astimezone(now.tzinfo), FORECAST_H))


def jar_of(starter: Starter, kitchen: Kitchen, feeds: Sequence[StarterFeed], now: dt.datetime, vitality: float) -> Jar:
    """The last feed's jar at a vitality."""
    last = feeds[0]
    state, days = seed_before(feeds[1:], last.at)
    feed = Feed(last.seed_g, last.flour_g, last.water_g, starter.hydration_frac, starter.whole_share)
    return fed(feed, Seed(state, vitality, days), air_of(kitchen, last.at, now, last.place), FORECAST_H)
