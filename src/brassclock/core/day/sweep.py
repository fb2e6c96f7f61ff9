"""Every way through one bake's day on five-minute slots, weighed exactly: when to mix, ball, chill and take out.

Progress of a dough is taken as additive: hours weighed by the rate that yeast has at the air's temperature, what
cooling and warming add or cost counted apart. That makes the sweep exact and quick, and only a *proposal*:
`around` runs the real rise at what is found here.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.day.hands import Count, Hands, of_hands

Array = NDArray[np.float64]
# judgement: leaning on the early edge of a window is dearer than on its late one; past the best each width of it costs
EARLY_COST, LATE_COST, PAST_COST = 0.5, 0.15, 0.25


@dataclass(frozen=True)
class ProgressWindow:
    """Progress of a stage at which it is ready, at its best, at the end of its best, and too far."""

    low: float
    best: float
    best_to: float
    high: float

    def cost(self, progress: Array) -> Array:
        """0 at the best, EARLY_COST when only just ready, LATE_COST at the end of the best and rising after it;
        infinite outside."""
        early = np.maximum(self.best - progress, 0.0) / max(self.best - self.low, 1e-9)
        late = np.clip(progress - self.best, 0.0, self.best_to - self.best) / max(self.best_to - self.best, 1e-9)
        past = np.maximum(progress - self.best_to, 0.0) / max(self.best_to - self.low, 0.1)
        cost: Array = EARLY_COST * early**2 + LATE_COST * late**2 + PAST_COST * past
        return np.where((progress >= self.low) & (progress <= self.high), cost, np.inf)


@dataclass(frozen=True)
class Way:
    """A route and dose to sweep. With `chill` a stage (`bulk` or `ball`) goes into the cold `after` slots from its
    start and comes out `temper` slots before its end, to be there for `cold_low` to `cold_high` slots.
    """

    route: str
    dose: float
    bulk: ProgressWindow
    ball: ProgressWindow
    chill: str | None = None
    after: int = 0
    temper: int = 0
    cold_low: int = 0
    cold_high: int = 0
    warmed: float = 1.0  # share of what warming costs that is over after `temper`
    cost: float = 0.0


@dataclass(frozen=True)
class Chores:
    """Slots of each hand move; `before_mix` is weighing and mixing together, `sponge` how long before the mixing a
    sponge is made (0 for none), `feed` the slots (latest, earliest) before it at which a starter has to be fed."""

    before_mix: int = 5
    ball: int = 2
    cold: int = 1
    preheat: int = 9
    tended: int = 1
    sooner: int = 6
    roll: int = 3
    sponge: int = 0
    feed: tuple[int, int] | None = None


@dataclass(frozen=True)
class ServiceTimes:
    """Service slots: the boundaries at which rolling begins, until which balls wait, and at which all is done."""

    roll: int
    last: int
    end: int


@dataclass(frozen=True)
class Rates:
    """Progress along the horizon, in hours at 25 C: cumulative at each boundary on the bench and in the balls' place,
    per slot in the cold, and what going in there adds and coming out costs at each boundary. `full` counts the slots
    before each boundary in which the cold has no room for it."""

    bulk: Array
    ball: Array
    cold_slot: float = 0.0
    cools: Array = field(default_factory=lambda: np.zeros(1))
    warms: Array = field(default_factory=lambda: np.zeros(1))
    full: Count | None = None


@dataclass(frozen=True)
class Fixed:
    """Boundaries that are done or pinned and ask for no hands any more: mixed, balled, into the cold, out of it."""

    mix: int | None = None
    ball: int | None = None
    into: int | None = None
    out: int | None = None


FREE = Fixed()


@dataclass(frozen=True)
class Candidate:
    """A way with its boundaries: mixed, balled, into the cold and out (None without), and its cost (least is best)."""

    way: Way
    mix: int
    ball: int
    into: int | None
    out: int | None
    cost: float


@of_hands
def heat_slot(chores: Chores, free: Hands, table: ServiceTimes) -> int | None:
    """The last slot at which the surface can be lit in time; an unattended one may be lit a little sooner."""
    latest = table.roll + chores.roll - chores.preheat
    lit = free.clear(chores.tended)
    return next((at for at in range(latest, max(latest - chores.sooner, 0) - 1, -1) if at >= 0 and lit[at]), None)


@of_hands
def work_fits(chores: Chores, free: Hands, table: ServiceTimes, now: int) -> bool:
    """True if the end of the day, fixed by the table, finds free hands."""
    if table.roll < now or table.roll < 0 or table.end > len(free):
        return False
    if not free.clear(table.end - table.roll)[table.roll]:
        return False
    heat = heat_slot(chores, free, table)
    return heat is not None and heat >= min(now, table.roll + chores.roll - chores.preheat)


@of_hands
def mixing_times(chores: Chores, free: Hands, now: int) -> NDArray[np.bool_]:
    """For each boundary whether a dough can be mixed by then: hands for weighing and mixing, a sponge, a feed. Not to
    be altered."""
    count = len(free)
    ok = np.zeros(count + 1, dtype=bool)
    before = chores.before_mix
    ok[before:] = free.clear(before)[: count + 1 - before]
    if chores.sponge:
        starts = np.zeros(count + 1, dtype=bool)
        lead = chores.sponge + before
        starts[lead:] = free.clear(before)[: max(count + 1 - lead, 0)]
        ok &= starts
    earliest = now + before + chores.sponge
    if chores.feed is not None:
        latest, first = chores.feed
        feedable = free.clear(1).copy()
        feedable[: max(now, 0)] = False
        counted = np.concatenate([[0], np.cumsum(feedable)])
        at = np.arange(count + 1)
        a, b = np.maximum(at - first, 0), np.maximum(at - latest + 1, 0)
        ok &= counted[np.minimum(b, count + 1)] > counted[np.minimum(a, count + 1)]
    ok[: max(min(earliest, count + 1), 0)] = False
    return ok


def _progress_in_cold(way: Way, rates: Array, r: Rates, start: NDArray[np.int64], end: NDArray[np.int64]) -> Array:
    """Progress of a chilled stage from `start` to `end` (broadcast); -inf where its cold is too short or too long."""
    into, out = start + way.after, end - way.temper
    last = len(rates) - 1
    i, o = np.clip(into, 0, last), np.clip(out, 0, last)
    out_of_cold = np.maximum(rates[end] - rates[o] - way.warmed * r.warms[o], 0.0)
    progress = rates[i] - rates[start] + r.cools[i] + r.cold_slot * (out - into) + out_of_cold
    fits = (out - into >= max(way.cold_low, 1)) & (out - into <= way.cold_high) & (into <= last)
    if r.full is not None:
        fits &= r.full[o] == r.full[i]
    return np.where(fits, progress, -np.inf)


def ways(
    way: Way, rates: Rates, chores: Chores, free: Hands, table: ServiceTimes, now: int, fixed: Fixed = FREE
) -> list[Candidate]:
    """Candidates of a way, the best first: for every time of balling, the best mixing before it."""
    if not work_fits(chores, free, table, now):
        return []
    at, roll = np.arange(len(free) + 1), table.roll
    second = _balls(way, rates, chores, free, table, now, fixed)
    balls = at[np.isfinite(second)]
    mixes = at[mixing_times(chores, free, now)] if fixed.mix is None else np.array([fixed.mix])
    if not len(balls) or not len(mixes):
        return []
    if way.chill == "bulk":
        mix, first = _chilled_mixes(way, rates, chores, free, now, fixed, mixes, balls)
    else:
        mix, first = _mixes(way.bulk, rates.bulk, mixes, balls, fixed)
    cost = first + second[balls] + way.cost
    found = []
    for j in np.lexsort((-balls, -mix, cost)):
        if not np.isfinite(cost[j]):
            break
        m, b = int(mix[j]), int(balls[j])
        cold: tuple[int | None, int | None] = (None, None)
        if way.chill == "ball":
            cold = b + way.after, roll - way.temper
        elif way.chill == "bulk":
            cold = m + way.after, b - way.temper
        found.append(Candidate(way, m, b, *cold, float(cost[j])))
    return found


def _mixes(
    need: ProgressWindow, rates: Array, mixes: NDArray[np.int64], balls: NDArray[np.int64], fixed: Fixed
) -> tuple[NDArray[np.int64], Array]:
    """(best mixing for each balling, its cost). Progress falls as mixing gets later and its cost has one valley, so
    only the nearest times on each side of the best can be it."""
    ideal = np.searchsorted(rates, rates[balls] - need.best, side="right") - 1
    after = np.searchsorted(mixes, ideal, side="right")
    best, least = np.full(len(balls), -1), np.full(len(balls), np.inf)
    for beside in (after, after - 1):
        m = mixes[np.clip(beside, 0, len(mixes) - 1)]
        cost = need.cost(rates[balls] - rates[m])
        if fixed.ball is not None:
            cost = np.zeros(len(balls))  # balled already: nothing of the bulk is left to choose
        cost = np.where((m <= balls) & (beside >= 0) & (beside < len(mixes)), cost, np.inf)
        best, least = np.where(cost < least, m, best), np.minimum(cost, least)
    return best, least


def _chilled_mixes(
    way: Way,
    rates: Rates,
    chores: Chores,
    free: Hands,
    now: int,
    fixed: Fixed,
    mixes: NDArray[np.int64],
    balls: NDArray[np.int64],
) -> tuple[NDArray[np.int64], Array]:
    """The same for a dough chilled in one piece: every pair whose cold is long enough and not too long."""
    moved = _can_move(balls - way.temper, chores, free, now, fixed.out)
    stay = way.temper + way.after
    mixes = mixes[
        (mixes >= balls[0] - stay - way.cold_high)
        & (mixes <= balls[-1] - stay - way.cold_low)
        & _can_move(mixes + way.after, chores, free, now, fixed.into)
    ]
    if not len(mixes) or not moved.any():
        return np.full(len(balls), -1), np.full(len(balls), np.inf)
    progress = _progress_in_cold(way, rates.bulk, rates, mixes[:, None], balls[None, :])
    cost = np.where(moved[None, :], way.bulk.cost(progress), np.inf)
    rows = len(mixes) - 1 - np.argmin(cost[::-1], axis=0)
    return mixes[rows], cost[rows, np.arange(len(balls))]


def _can_move(to: NDArray[np.int64], chores: Chores, free: Hands, now: int, fixed: int | None) -> NDArray[np.bool_]:
    """True if a dough can be carried at these boundaries; one that is fixed needs no hands, and no other will do."""
    if fixed is not None:
        return np.asarray(to == fixed)
    inside = np.clip(to, 0, len(free))
    return np.asarray(free.clear(chores.cold)[inside] & (to >= now) & (to <= len(free)))


def _balls(way: Way, rates: Rates, chores: Chores, free: Hands, table: ServiceTimes, now: int, fixed: Fixed) -> Array:
    """Cost of the balls' stage for each boundary at which they could be made."""
    at, roll = np.arange(len(free) + 1), table.roll
    need = replace(way.ball, high=way.ball.high - (rates.ball[table.last] - rates.ball[roll]))
    if way.chill == "ball":
        cost = need.cost(_progress_in_cold(way, rates.ball, rates, at, np.full_like(at, roll)))
        moved = _can_move(np.array([roll - way.temper]), chores, free, now, fixed.out)
        carried = _can_move(at + way.after, chores, free, now, fixed.into)
        cost[~(carried & moved) | ((way.after < chores.ball) & (fixed.ball is None))] = np.inf
    else:
        cost = need.cost(rates.ball[roll] - rates.ball)
    if fixed.ball is not None:
        cost[at != fixed.ball] = np.inf
        return cost
    cost[~free.clear(chores.ball) | (at < now) | (at + chores.ball > roll)] = np.inf
    heat = heat_slot(chores, free, table)
    if heat is not None and free.alone(heat):
        cost[(at < heat + chores.tended) & (at + chores.ball > heat)] = np.inf
        if way.chill is not None:  # nor is the dough carried out while the surface is lit
            out = np.full_like(at, roll) - way.temper if way.chill == "ball" else at - way.temper
            cost[(out < heat + chores.tended) & (out + chores.cold > heat)] = np.inf
    return cost
