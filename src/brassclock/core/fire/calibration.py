"""The pocket score as a probability, once a kitchen has breads enough: x = logit(S / 100), p = sigma(a + b x).

Priors a ~ N(0, 0.7²), b ~ N(1, 0.35²): a new kitchen believes the score as it is. The most probable a and b (the cost
has one valley); the interval from the inverse of its curvature.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.belief import Z10

Array = NDArray[np.float64]
ENOUGH, ENOUGH_BAKES = 20, 4  # breads, and bakes they are of: below either it is called a score
HALF_LIFE_D = Param(180.0, "d", 90, 400, Kind.JUDGEMENT, "until what a bread shows of a kitchen counts half")
ALIKE = Param(0.3, "-", 0.1, 0.6, Kind.JUDGEMENT, "of each further bread of a bake: they share its dough and its heat")
PRIOR_MEAN, PRIOR_SD = (0.0, 1.0), (0.7, 0.35)


class JudgedBread(NamedTuple):
    """A bread of a kitchen: the pocket score [0 to 100] that was said of it, whether it opened fully, its bake, and how
    long ago that was [d]."""

    score: float
    full: bool
    bake: int
    age_d: float


def wanting(breads: Sequence[JudgedBread]) -> tuple[int, int]:
    """(breads, bakes) that are wanting before a score is called a chance; (0, 0) once there are enough."""
    return max(ENOUGH - len(breads), 0), max(ENOUGH_BAKES - len({b.bake for b in breads}), 0)


def weight_of_each(breads: int) -> float:
    """The weight of each of `breads` breads of one bake beside one that was baked alone."""
    return 1 / (1 + float(ALIKE) * (breads - 1))


def of_breads(breads: Sequence[JudgedBread]) -> Calibration:
    """The line of a kitchen's own breads: older ones count less, and each of a bake of many.

    >>> new, old = (of_breads([JudgedBread(80, False, n, age_d) for n in range(9)]) for age_d in (0.0, 720.0))
    >>> new.a < old.a < 0
    True
    """
    of_bake = Counter(b.bake for b in breads)
    weights = [0.5 ** (b.age_d / float(HALF_LIFE_D)) * weight_of_each(of_bake[b.bake]) for b in breads]
    return calibrate([b.score for b in breads], [b.full for b in breads], weights)


@dataclass(frozen=True)
class Calibration:
    """The line between score and chance, and its covariance."""

    a: float
    b: float
    covariance: Array


def expit(z: Any) -> Any:
    """The logistic function of a number or an array, steady at both ends."""
    return 0.5 * (1 + np.tanh(0.5 * np.asarray(z)))


def logit_of(score: float) -> float:
    """x of a score out of 100, held off 0 and 1.

    >>> round(logit_of(50), 6), logit_of(0) == logit_of(2)
    (0.0, True)
    """
    share = min(max(score / 100, 0.02), 0.98)
    return math.log(share / (1 - share))


def calibrate(scores: Sequence[float], full: Sequence[bool], weights: Sequence[float] | None = None) -> Calibration:
    """The most probable line for breads with these scores, of which some opened fully; each counts by its weight (1
    where none is given)."""
    from scipy.optimize import minimize  # loaded when it is used: it would hold up the start

    x = np.column_stack([np.ones(len(scores)), [logit_of(s) for s in scores]]) if scores else np.zeros((0, 2))
    y = np.array(full, dtype=float)
    w = np.ones(len(y)) if weights is None else np.array(weights, dtype=float)
    precision, mean = np.diag(1 / np.square(PRIOR_SD)), np.array(PRIOR_MEAN)

    def cost(at: Array) -> float:
        z = x @ at
        return float(np.sum(w * (np.logaddexp(0, z) - y * z)) + 0.5 * (at - mean) @ precision @ (at - mean))

    def slope(at: Array) -> Array:
        return np.asarray(x.T @ (w * (expit(x @ at) - y)) + precision @ (at - mean))

    def curvature(at: Array) -> Array:
        p = expit(x @ at)
        return np.asarray(x.T @ (x * (w * p * (1 - p))[:, None]) + precision)

    at = minimize(cost, mean, jac=slope, hess=curvature, method="trust-exact").x
    return Calibration(float(at[0]), float(at[1]), np.asarray(np.linalg.inv(curvature(at)), dtype=np.float64))


def probability(score: float, known: Calibration) -> tuple[float, float, float]:
    """(chance of a full pocket [0 to 1], and its p10 and p90)."""
    x = np.array([1.0, logit_of(score)])
    middle, spread = known.a + known.b * x[1], Z10 * math.sqrt(float(x @ known.covariance @ x))
    p, low, high = (float(expit(z)) for z in (middle, middle - spread, middle + spread))
    return p, low, high
