"""A starter in its jar: when a feed peaks, how long it holds, and the feed that peaks when it is wanted.

The same equations as a dough, without salt, in a jar's strength. Seeds are looked up, never carried over from
a run: chained feeds would fade (docs/science.md, *Sourdough*).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import start as rise_start
from brassclock.core.rise.course import Piece, RiseTrace
from brassclock.core.rise.recipe import Recipe, Seed, Sour
from brassclock.core.rise.sourdough.acid import ph_of, sourness, tta_ml
from brassclock.core.rise.sourdough.params import PARAMS, WHOLEMEAL_JAR

Array = NDArray[np.float64]
HOLD_SHARE = Param(0.9, "-", 0.8, 0.95, Kind.JUDGEMENT, "of its height, at which a starter counts as at its peak")
FEED_LIMITS = (0.3, 40.0)
LONGEST_H = 72.0


@dataclass(frozen=True)
class Feed:
    """Grams of seed, flour and water; the seed's own hydration; wholemeal share of the flour."""

    seed_g: float
    flour_g: float
    water_g: float
    seed_hydration: float = 1.0
    whole_share: float = 0.0

    @property
    def ratio(self) -> tuple[float, float, float]:
        """Seed to flour to water, the seed as one."""
        return 1.0, self.flour_g / self.seed_g, self.water_g / self.seed_g


@dataclass(frozen=True)
class Jar:
    """A fed starter: peak [h], how long it holds (from, until) [h], height at the peak, and its course."""

    peak_h: float | None
    hold_from_h: float | None
    hold_until_h: float | None
    peak_ratio: float
    ph_at_peak: float
    tta_at_peak: float
    word: str
    h: Array
    ratio: Array
    temp_c: Array


def jar_strength(water_frac: float, whole_share: float = 0.0) -> float:
    """Strength of a starter at `water_frac` of its flour: .75 stiff, .63 at 100 %, falling when thinner.

    >>> round(jar_strength(1.0), 2), round(jar_strength(1.25), 2)
    (0.63, 0.38)
    """
    top = PARAMS["jar_s"].value
    s = 0.75 - 0.30 * (water_frac - 0.6) if water_frac <= 1 else top * math.exp(-2 * (water_frac - 1))
    return s * (1 + (WHOLEMEAL_JAR - 1) * whole_share)


def _course(feed: Feed, seed: Seed, path: Sequence[tuple[float, float]], hours: float) -> RiseTrace:
    inside = feed.seed_g / (1 + feed.seed_hydration)
    flour = inside + feed.flour_g
    water = (feed.seed_g - inside + feed.water_g) / flour
    sour = Sour(inside / flour, seed.state, seed.vitality, feed.whole_share, seed.days_cold)
    recipe = Recipe((), water, 0.0, mass=1 + water, strength=jar_strength(water, feed.whole_share), sour=sour)
    marks = sorted({0.0, hours, *(h for h, _ in path if 0 < h < hours)})

    def air(h: float) -> float:
        return float(np.interp(h, [p[0] for p in path], [p[1] for p in path]))

    pieces = [Piece(b - a, air(a), air(b)) for a, b in pairwise(marks)]
    return yeast_course.course(rise_start.start_of(recipe, air(0.0)), pieces)


def fed(feed: Feed, seed: Seed, path: Sequence[tuple[float, float]], hours: float = 36.0) -> Jar:
    """A feed along a temperature path of (hour, C). Peak None when it has not peaked within `hours`."""
    run = _course(feed, seed, path, hours)
    ratio = run.expansion
    top = int(np.argmax(ratio))
    peak_h = float(run.h[top]) if top < len(run.h) - 1 else None
    level = 1 + HOLD_SHARE * (ratio[top] - 1)
    high = np.nonzero(ratio >= level)[0]
    after = high[-1] if high[-1] < len(run.h) - 1 else None
    acid = float(run.acid_mol[top])
    water_mass = run.start.p.mass
    tta = tta_ml(acid, float(water_mass), feed.whole_share)
    return Jar(
        peak_h,
        float(run.h[high[0]]),
        None if after is None else float(run.h[after]),
        float(ratio[top]),
        ph_of(acid, feed.whole_share),
        tta,
        sourness(tta),
        run.h,
        ratio,
        run.temp_c,
    )


def feed_for(
    total_g: float,
    peak_at_h: float,
    path: Sequence[tuple[float, float]],
    seed: Seed,
    hydration: float = 1.0,
    whole_share: float = 0.0,
) -> Feed | None:
    """The feed of `total_g` that peaks at `peak_at_h`; None outside 1:0.3 to 1:40."""

    def made(log_f: float) -> Feed:
        f = math.exp(log_f)
        seed_g = total_g / (1 + f + f * hydration)
        return Feed(seed_g, f * seed_g, f * hydration * seed_g, 1.0, whole_share)

    def late(log_f: float) -> float:
        hours = min(LONGEST_H, 3 * peak_at_h + 12)
        jar = fed(made(log_f), seed, path, hours)
        return (jar.peak_h if jar.peak_h is not None else hours) - peak_at_h

    low, high = (math.log(x) for x in FEED_LIMITS)
    if late(low) > 0 or late(high) < 0:
        return None
    from scipy.optimize import brentq  # loaded when it is used: it would hold up the start

    return made(float(brentq(late, low, high, xtol=0.01)))
