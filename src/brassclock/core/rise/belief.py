"""Belief of the leaven's strength in a kitchen, and its update by readings.

z = ln A is normal. Each node of a grid over z is a whole simulated course; readings weigh the nodes
with a heavy-tailed likelihood, so one bad look does not overturn the rest. Set by simulation
(docs/science.md, *Belief*); evidence class fitted.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param

Array = NDArray[np.float64]
PRIOR_SD_LOG = Param(0.50, "-", 0.3, 0.7, Kind.JUDGEMENT, "of a leaven's strength in a new kitchen")
OWN_NOISE = Param(
    0.06,
    "-",
    0.03,
    0.15,
    Kind.JUDGEMENT,
    "of the time that remains, apart from the temperature's: lag, sugar, the flour",
)
TAIL_NU = Param(4.0, "-", 3, 8, Kind.JUDGEMENT, "degrees of freedom of a look")
FINE = 301
NOISE_QUANTILES = (-1.645, -1.036, -0.674, -0.385, -0.126, 0.126, 0.385, 0.674, 1.036, 1.645)


@dataclass(frozen=True)
class Belief:
    """Median activity (1 is the table's yeast) and the spread of its logarithm."""

    mean: float = 1.0
    sd_log: float = PRIOR_SD_LOG


@dataclass(frozen=True)
class Reading:
    """A look at the dough, `h` hours from the end of mixing: a `ratio` by eye, a `jar` mark, a `feel`, or `dough_c`."""

    h: float
    kind: str = "ratio"
    ratio: float | None = None
    feel: str | None = None
    temp_c: float | None = None


@dataclass(frozen=True)
class Band:
    """10, 50 and 90 % quantiles; None where too little of the belief ever gets there."""

    p10: float | None
    p50: float | None
    p90: float | None
    p_never: float = 0.0

    def as_dict(self) -> dict[str, float | None]:
        """p10, p50 and p90, as answers carry them [h]."""
        return {"p10": self.p10, "p50": self.p50, "p90": self.p90}


Z10 = 1.2815515655446004  # standard deviations from the middle to a tenth
NEVER = Band(None, None, None, 1.0)


def nodes(belief: Belief, count: int) -> Array:
    """Grid of z = ln A [1] over three spreads either side."""
    centre = math.log(belief.mean)
    return np.linspace(centre - 3 * belief.sd_log, centre + 3 * belief.sd_log, count)


def _log_likelihood(predicted: Array, maturity: Array, reading: Reading) -> Array:
    if reading.kind == "feel":
        low, high = {"not_yet": (-9.0, 0.85), "just": (0.85, 1.15), "past": (1.3, 99.0)}[reading.feel or "just"]
        soft = 0.15
        inside = 1 / (1 + np.exp(-(maturity - low) / (soft / 2))) / (1 + np.exp((maturity - high) / (soft / 2)))
        return np.asarray(np.log(np.maximum(inside, 1e-6)))
    seen = reading.ratio or 1.0
    sigma = 0.03 if reading.kind == "jar" else np.sqrt(0.04**2 + (0.10 * np.maximum(predicted - 1, 0)) ** 2)
    off = (seen - predicted) / sigma
    return np.asarray(-0.5 * (TAIL_NU + 1) * np.log1p(off**2 / TAIL_NU) - np.log(sigma))


@dataclass(frozen=True)
class Posterior:
    """A fine grid of z with weights, after the readings."""

    z_nodes: Array
    z: Array
    weight: Array
    last_reading_h: float

    def quantile_z(self, share: float) -> float:
        """z below which `share` of the belief lies."""
        return float(np.interp(share, np.cumsum(self.weight), self.z))

    def updated(self) -> Belief:
        """The belief that these readings leave behind."""
        mean = float(np.sum(self.weight * self.z))
        sd = math.sqrt(max(float(np.sum(self.weight * (self.z - mean) ** 2)), 1e-8))
        return Belief(math.exp(mean), sd)

    def _spread(self, hours_by_node: Sequence[float | None], noise: float) -> tuple[Array, Array, float] | None:
        """(hours, their weight, the share that never gets there), each node's hour widened; None when none does."""
        reached = np.array([t is not None for t in hours_by_node])
        if not reached.any():
            return None
        t_nodes = np.array([math.log(max(t, 1e-6)) for t in hours_by_node if t is not None])
        weight = np.where(self._reached(reached), self.weight, 0.0)
        t = np.exp(np.interp(self.z, self.z_nodes[reached], t_nodes))
        left = t - self.last_reading_h
        factors = np.exp(noise * np.array(NOISE_QUANTILES))[:, None]
        samples = np.where(left > 0, self.last_reading_h + left * factors, t).ravel()
        return samples, np.concatenate([weight / len(NOISE_QUANTILES)] * len(NOISE_QUANTILES)), float(1 - weight.sum())

    def band(self, hours_by_node: Sequence[float | None], noise: float = 0.10, not_before: float = 0.0) -> Band:
        """Quantiles of a time given per node; `noise` is the spread of what remains, as a share of it.

        `not_before` holds them: a stage can't be ready before it begins.
        """
        spread = self._spread(hours_by_node, noise)
        if spread is None:
            return NEVER
        samples, mass, p_never = spread
        if p_never > 0.9:
            return Band(None, None, None, p_never)
        samples = np.maximum(samples, not_before)
        order = np.argsort(samples)
        cumulative = np.cumsum(mass[order])

        def at(share: float) -> float | None:
            return None if share > cumulative[-1] else float(samples[order][np.searchsorted(cumulative, share)])

        return Band(at(0.1), at(0.5), at(0.9), p_never)

    def share_by(self, hours_by_node: Sequence[float | None], h: float, noise: float = 0.10) -> float:
        """Probability that a time given per node has come by hour `h`."""
        spread = self._spread(hours_by_node, noise)
        return 0.0 if spread is None else float(spread[1][spread[0] <= h].sum())

    def _reached(self, reached: NDArray[np.bool_]) -> NDArray[np.bool_]:
        nearest = np.searchsorted((self.z_nodes[1:] + self.z_nodes[:-1]) / 2, self.z)
        return np.asarray(reached[nearest])


def posterior(
    belief: Belief,
    z_nodes: Array,
    readings: Sequence[Reading],
    predict: Callable[[int, float], tuple[float, float]],
) -> Posterior:
    """Weigh the nodes by the readings. `predict(node, h)` gives (ratio, maturity) of that node then."""
    fine = np.linspace(z_nodes[0], z_nodes[-1], FINE)
    log_w = -0.5 * ((fine - math.log(belief.mean)) / belief.sd_log) ** 2
    for reading in readings:
        seen = np.array([predict(i, reading.h) for i in range(len(z_nodes))])
        ratio = np.interp(fine, z_nodes, seen[:, 0])
        maturity = np.interp(fine, z_nodes, seen[:, 1])
        log_w = log_w + _log_likelihood(ratio, maturity, reading)
    weight = np.exp(log_w - log_w.max())
    last = max((r.h for r in readings), default=0.0)
    return Posterior(z_nodes, fine, weight / weight.sum(), last)
