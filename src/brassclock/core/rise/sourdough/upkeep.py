"""Keeping a starter alive between bakes with the least flour thrown away.

Two ways: on the bench, fed so that each feed peaks before the next; or in the fridge, woken by one feed or two before
it is wanted (docs/science.md, *Upkeep*). Feeds come from the starter model; days are practice.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.recipe import Seed
from brassclock.core.rise.sourdough.starter import Feed, fed, feed_for

JAR_G = Param(40.0, "g", 20, 80, Kind.PRACTICE, "small enough to waste little, large enough to feed by a kitchen scale")
LEAST_SEED_G = Param(2.0, "g", 1, 5, Kind.PRACTICE, "what a kitchen scale weighs")
BENCH_WAYS = (
    (24.0, 0.75),
    (24.0, 0.6),
    (12.0, 0.75),
    (12.0, 0.9),
    (16.0, 0.75),
)  # interval [h], share of it to the peak
WAKE_H = (8.0, 10.0, 12.0, 14.0, 18.0, 24.0)
ONE_FEED_DAYS = Param(7.0, "d", 5, 10, Kind.PRACTICE, "beyond it two feeds")
LONGEST_COLD_DAYS = Param(21.0, "d", 14, 30, Kind.PRACTICE, "beyond it a feed between")
COLD_START = Param(0.5, "-", 0.2, 0.8, Kind.JUDGEMENT, "of the way to its peak, when it goes into the fridge")


@dataclass(frozen=True)
class Meal:
    """A feed so many hours before the starter is wanted: grams of seed, flour and water."""

    before_h: float
    feed: Feed


@dataclass(frozen=True)
class Upkeep:
    """A way of keeping: where, the feeds of one round, and per week what it takes and throws away [g of flour]."""

    place: str
    text: str
    meals: tuple[Meal, ...]
    flour_g_week: float
    waste_g_week: float


def on_the_bench(
    use_g: float, every_days: float, path: Sequence[tuple[float, float]], seed: Seed, hydration: float, whole: float
) -> Upkeep | None:
    """A small jar on the bench, fed as seldom as the place allows; the last feed makes what is used."""
    for interval, peak in BENCH_WAYS:
        kept = feed_for(JAR_G, peak * interval, path, seed, hydration, whole)
        if kept is None or kept.seed_g < LEAST_SEED_G:
            continue
        last = feed_for(use_g + kept.seed_g, peak * interval, path, seed, hydration, whole)
        if last is None:
            continue
        feeds = max(round(every_days * 24 / interval) - 1, 0)
        flour = feeds * kept.flour_g + last.flour_g
        thrown = feeds * (JAR_G - kept.seed_g) / (1 + hydration) - max(last.seed_g - kept.seed_g, 0) / (1 + hydration)
        weeks = 7 / every_days
        text = (
            f"On the bench, fed every {interval:.0f} h: {kept.seed_g:.0f} g starter, {kept.flour_g:.0f} g flour, "
            f"{kept.water_g:.0f} g water; the last feed is larger."
        )
        meals = (Meal((1 + peak) * interval, kept), Meal(peak * interval, last))
        return Upkeep("bench", text, meals, flour * weeks, max(thrown, 0.0) * weeks)
    return None


def in_the_fridge(
    use_g: float,
    every_days: float,
    path: Sequence[tuple[float, float]],
    vitality: float,
    hydration: float,
    whole: float,
) -> Upkeep | None:
    """A jar in the fridge; the feed before a bake makes what is used and the next jar at once.

    Of the hours to wake it in, those that use up most of the jar: what is not used is thrown away.
    """
    days = min(every_days, LONGEST_COLD_DAYS)
    rounds = every_days / days
    chilled, fresh = Seed("chilled", vitality, days), Seed("peak", vitality)

    def woken(total_g: float, seed: Seed) -> Meal | None:
        found = [(h, feed_for(total_g, h, path, seed, hydration, whole)) for h in WAKE_H]
        good = [Meal(h, f) for h, f in found if f is not None and f.seed_g <= JAR_G]
        return max(good, key=lambda m: m.feed.seed_g, default=None)

    if days <= ONE_FEED_DAYS:
        last = woken(use_g + JAR_G, chilled)
        meals: tuple[Meal, ...] = (last,) if last else ()
    else:
        last = woken(use_g + JAR_G, fresh)
        first = woken(last.feed.seed_g, chilled) if last else None
        meals = (Meal(first.before_h + last.before_h, first.feed), last) if first and last else ()
    if not meals:
        return None
    wake_h = meals[-1].before_h
    taken = meals[0].feed.seed_g
    flour = sum(m.feed.flour_g for m in meals) + (rounds - 1) * JAR_G / (1 + hydration)
    thrown = max(JAR_G - taken, 0.0) / (1 + hydration) * rounds
    jar = fed(meals[-1].feed, fresh, path)
    into = COLD_START * (jar.peak_h or wake_h)
    text = (
        f"In the fridge: {JAR_G:.0f} g put away {into:.0f} h after its feed; woken by "
        f"{'one feed' if len(meals) == 1 else 'two feeds'} before it is wanted."
    )
    return Upkeep("fridge", text, meals, flour * 7 / every_days, thrown * 7 / every_days)


def upkeep(
    use_g: float,
    every_days: float,
    path: Sequence[tuple[float, float]],
    vitality: float = 1.0,
    hydration: float = 1.0,
    whole_share: float = 0.0,
) -> list[Upkeep]:
    """Ways of keeping a starter that is used `use_g` at a time every so many days, the one that wastes least first."""
    ways = (
        in_the_fridge(use_g, every_days, path, vitality, hydration, whole_share),
        on_the_bench(use_g, every_days, path, Seed("ripe", vitality), hydration, whole_share),
    )
    return sorted((w for w in ways if w), key=lambda w: w.waste_g_week)
