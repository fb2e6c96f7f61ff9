"""Looking after a starter: feeds, peaks, what they teach, and the feed that peaks when it is wanted."""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Sequence

import numpy as np
from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.recipe import Seed
from brassclock.core.rise.sourdough.starter import Jar, feed_for
from brassclock.core.rise.sourdough.upkeep import ONE_FEED_DAYS
from brassclock.core.rise.sourdough.upkeep import upkeep as upkeeps
from brassclock.core.time import hours_between, later
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.beliefs import Seen, key_of, teach, unteach
from brassclock.services.kitchen.jar import FORECAST_H, air_of, jar_of, seed_before
from brassclock.services.schemas.base import BandedAt
from brassclock.services.schemas.kitchen import (
    FeedCreate,
    FeedPlanRead,
    FeedPlanUpdate,
    FeedRead,
    JarTrace,
    MealRead,
    PeakCreate,
    StarterCreate,
    StarterRead,
    UpkeepRead,
    UpkeepWay,
)
from brassclock.services.times import moment_of, past_moment
from brassclock.store import starters as starter_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Kitchen, Starter, StarterFeed

PEAK_SD_LOG = Param(0.15, "-", 0.1, 0.3, Kind.JUDGEMENT, "of a vitality by a peak that was seen: its eye, its warmth")
BELIEVABLE_VITALITY = (0.15, 4.0)
Q80 = 1.2816
HISTORY = 20
TRACE_POINTS = 90
HUNGRY = dt.timedelta(hours=3)  # judgement: after its hold is over


def _starter(session: Session, kitchen_id: int, starter_id: int) -> Starter:
    row = get(session, Starter, starter_id)
    if row is None or row.kitchen_id != kitchen_id or row.deleted_at is not None:
        raise NotFound(f"There is no starter {starter_id} in this kitchen.")
    return row


def starter_out(session: Session, starter: Starter, kitchen: Kitchen, now: dt.datetime) -> StarterRead:
    """View of a starter as it stands now."""
    feeds = starter_rows.feeds(session, starter.id or 0)
    shown = [
        FeedRead(**f.model_dump(exclude={"starter_id", "before_mean", "before_sd_log", "undone_at"})) for f in feeds
    ]
    facts = {
        "id": starter.id or 0,
        "name": starter.name,
        "hydration_frac": starter.hydration_frac,
        "whole_share": starter.whole_share,
        "vitality": starter.vitality_mean,
        "vitality_sd_log": starter.vitality_sd_log,
        "feeds": shown[:HISTORY],
    }
    if not feeds:
        return StarterRead(
            **facts,
            state="unfed",
            ratio_now=None,
            peak_ratio=None,
            peak_at=None,
            hold_until=None,
            acid_word=None,
            next_feed_at=None,
            trace=None,
        )
    last, mean, sd = feeds[0], starter.vitality_mean, starter.vitality_sd_log
    jars = [jar_of(starter, kitchen, feeds, now, mean * math.exp(q * sd)) for q in (Q80, 0.0, -Q80)]
    middle = jars[1]

    def at(h: float | None) -> dt.datetime | None:
        return None if h is None else later(last.at, h)

    age_h = hours_between(last.at, now)
    peaked = last.peaked_at or at(middle.peak_h)
    until = at(middle.hold_until_h)
    if last.place == "fridge":
        state = "cold"
    elif until is not None and now > until:
        state = "past its peak"
    elif last.peaked_at is not None or (middle.hold_from_h is not None and age_h >= middle.hold_from_h):
        state = "at its peak"
    else:
        state = "rising"
    return StarterRead(
        **facts,
        state=state,
        ratio_now=float(np.interp(age_h, middle.h, middle.ratio)),
        peak_ratio=middle.peak_ratio,
        peak_at=BandedAt(p10=at(jars[0].peak_h), p50=peaked, p90=at(jars[2].peak_h)),
        hold_until=until,
        acid_word=middle.word,
        next_feed_at=_next_feed(last, until),
        trace=_jar_trace(last, jars, now),
    )


def _next_feed(last: StarterFeed, hold_until: dt.datetime | None) -> dt.datetime | None:
    """Instant of the next feed: a week in the fridge, or some hours after its peak is over."""
    if last.place == "fridge":
        return last.at + dt.timedelta(days=ONE_FEED_DAYS)
    return None if hold_until is None else hold_until + HUNGRY


def _jar_trace(last: StarterFeed, jars: Sequence[Jar], now: dt.datetime) -> JarTrace:
    """The jar's height since its feed, as a band, to a little past its hold."""
    middle = jars[1]
    age_h = hours_between(last.at, now)
    end_h = min(max((middle.hold_until_h or FORECAST_H) * 1.25, age_h + 1), FORECAST_H)
    hours = np.linspace(0, end_h, TRACE_POINTS)

    def height(jar: Jar) -> list[float]:
        return [round(float(x), 3) for x in np.interp(hours, jar.h, jar.ratio)]

    heights = [height(j) for j in jars]
    return JarTrace(
        at=[later(last.at, float(h)) for h in hours],
        ratio=heights[1],
        low=[min(x) for x in zip(*heights, strict=True)],
        high=[max(x) for x in zip(*heights, strict=True)],
    )


def upkeep(app: App, kitchen_id: int, starter_id: int, use_g: float, every_days: float) -> UpkeepRead:
    """Ways of keeping the starter between bakes, the one that throws away least first."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        starter, now = _starter(session, kitchen_id, starter_id), app.now(session, kitchen)
    ways = upkeeps(
        use_g, every_days, air_of(kitchen, now, now), starter.vitality_mean, starter.hydration_frac, starter.whole_share
    )
    return UpkeepRead(
        ways=[
            UpkeepWay(
                place=w.place,
                text=w.text,
                flour_g_week=w.flour_g_week,
                waste_g_week=w.waste_g_week,
                meals=[
                    MealRead(before_h=m.before_h, seed_g=m.feed.seed_g, flour_g=m.feed.flour_g, water_g=m.feed.water_g)
                    for m in w.meals
                ],
            )
            for w in ways
        ]
    )


def list_starters(app: App, kitchen_id: int) -> list[StarterRead]:
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        return [starter_out(session, s, kitchen, now) for s in starter_rows.of_kitchen(session, kitchen_id)]


def add_starter(app: App, kitchen_id: int, given: StarterCreate) -> StarterRead:
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = Starter(kitchen_id=kitchen_id, **given.model_dump())
        insert(session, row)
        return starter_out(session, row, kitchen, app.now(session, kitchen))


def put_away(app: App, kitchen_id: int, starter_id: int, *, back: bool = False) -> None:
    """Take a starter off the list, or put it back."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = get(session, Starter, starter_id)
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"There is no starter {starter_id} in this kitchen.")
        away = f"the starter {row.name} is {'back' if back else 'put away'}"
        with recording_plan_change(app, session, kitchen_id, away):
            row.deleted_at = None if back else app.now(session, kitchen)
            session.add(row)


def feed(app: App, kitchen_id: int, starter_id: int, given: FeedCreate) -> StarterRead:
    """Store a feed."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        starter, now = _starter(session, kitchen_id, starter_id), app.now(session, kitchen)
        at = past_moment(given.at, now)
        facts = given.model_dump(exclude={"at"})
        with recording_plan_change(app, session, kitchen_id, f"{starter.name} was fed"):
            insert(session, StarterFeed(starter_id=starter_id, at=at, **facts))
        return starter_out(session, starter, kitchen, now)


def peaked(app: App, kitchen_id: int, starter_id: int, given: PeakCreate) -> StarterRead:
    """The last feed stood highest then: it teaches how strong this starter is. Said again it replaces."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        starter, now = _starter(session, kitchen_id, starter_id), app.now(session, kitchen)
        feeds = starter_rows.feeds(session, starter_id)
        if not feeds or feeds[0].place == "fridge":
            raise Conflict("There is no feed on the bench whose peak could be seen. Feed it first.")
        last, at = feeds[0], past_moment(given.at, now)
        hours = hours_between(last.at, at)
        if not 1 <= hours <= FORECAST_H - 1:
            raise invalid(
                "/at",
                f"It was fed {hours:.1f} h before that; a peak comes after 1 to {FORECAST_H - 1:.0f} h. Give another "
                "time.",
            )
        with recording_plan_change(app, session, kitchen_id, f"{starter.name} was seen at its peak"):
            _forget(session, kitchen, last)
            vitality = _vitality_for(starter, kitchen, feeds, now, hours)
            teach(session, kitchen, [Seen(key_of("vitality", starter_id), vitality, float(PEAK_SD_LOG))], last.at)
            last.peaked_at = at
            session.add(last)
        return starter_out(session, starter, kitchen, now)


def _vitality_for(
    starter: Starter, kitchen: Kitchen, feeds: Sequence[StarterFeed], now: dt.datetime, hours: float
) -> float:
    """The vitality whose jar peaks at `hours`, held within what is believable."""

    def late(log_v: float) -> float:
        peak = jar_of(starter, kitchen, feeds, now, math.exp(log_v)).peak_h
        return (FORECAST_H if peak is None else peak) - hours

    low, high = (math.log(v) for v in BELIEVABLE_VITALITY)
    if late(low) < 0:
        return BELIEVABLE_VITALITY[0]
    if late(high) > 0:
        return BELIEVABLE_VITALITY[1]
    from scipy.optimize import brentq  # loaded when it is used: it would hold up the start

    return math.exp(float(brentq(late, low, high, xtol=0.02)))


def _forget(session: Session, kitchen: Kitchen, feed_row: StarterFeed) -> None:
    """Take back the peak that was seen of a feed, and what it taught."""
    key = key_of("vitality", feed_row.starter_id)
    unteach(session, kitchen, lambda x: x.key == key and x.at == feed_row.at)
    feed_row.peaked_at = None


def undo_last(app: App, kitchen_id: int, starter_id: int) -> StarterRead:
    """Take the last thing back: the peak that was seen, else the feed."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        starter, now = _starter(session, kitchen_id, starter_id), app.now(session, kitchen)
        feeds = starter_rows.feeds(session, starter_id)
        if not feeds:
            raise NotFound("Nothing was done with this starter that could be taken back.")
        with recording_plan_change(app, session, kitchen_id, f"the last of {starter.name} was taken back"):
            if feeds[0].peaked_at is not None:
                _forget(session, kitchen, feeds[0])
            else:
                feeds[0].undone_at = now
            session.add(starter)
            session.add(feeds[0])
        return starter_out(session, starter, kitchen, now)


def wish(app: App, kitchen_id: int, starter_id: int, given: FeedPlanUpdate) -> FeedPlanRead:
    """The feed that, given now on the bench, peaks at a moment."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        starter, now = _starter(session, kitchen_id, starter_id), app.now(session, kitchen)
        feeds = starter_rows.feeds(session, starter_id)
    at = moment_of(given.peak_at, now, "/peak_at")
    hours = hours_between(now, at)
    if not 2 <= hours <= 48:
        raise invalid("/peak_at", f"“{given.peak_at}” is {hours:.1f} h away. Give 2 to 48 h from now.")
    state, days = seed_before(feeds, now)
    seed = Seed(state, starter.vitality_mean, days)
    found = feed_for(given.total_g, hours, air_of(kitchen, now, now), seed, starter.hydration_frac, starter.whole_share)
    if found is None:
        raise invalid(
            "/peak_at",
            f"No feed from 1:0.3 to 1:40 peaks in {hours:.1f} h at this kitchen's temperature. Choose another hour.",
        )
    text = (
        f"{found.seed_g:.0f} g starter, {found.flour_g:.0f} g flour, {found.water_g:.0f} g water "
        f"(1:{found.ratio[1]:.1f}:{found.ratio[2]:.1f})"
    )
    return FeedPlanRead(seed_g=found.seed_g, flour_g=found.flour_g, water_g=found.water_g, peak_at=at, text=text)
