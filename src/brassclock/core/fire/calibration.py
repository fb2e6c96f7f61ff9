"""The pocket score as a probability, once a kitchen has breads enough: x = logit(S / 100), p = sigma(a + b x).

Priors a ~ N(0, 0.7²), b ~ N(1, 0.35²): a new kitchen believes the score as it is. The most probable a and b (the cost
has one valley); the interval from the inverse of its curvature.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from brassclock.core.rise.belief import Z10

Array = NDArray[np.float64]
ENOUGH = 20  # breads: below that it is called a score
PRIOR_MEAN, PRIOR_SD = (0.0, 1.0), (0.7, 0.35)


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


def calibrate(scores: Sequence[float], full: Sequence[bool]) -> Calibration:
    """The most probable line for breads with these scores, of which some opened fully."""
    from scipy.optimize import minimize  # loaded when it is used: it would hold up the start

    x = np.column_stack([np.ones(len(scores)), [logit_of(s) for s in scores]]) if scores else np.zeros((0, 2))
    y = np.array(full, dtype=float)
    precision, mean = np.diag(1 / np.square(PRIOR_SD)), np.array(PRIOR_MEAN)

    def cost(at: Array) -> float:
        z = x @ at
        return float(np.sum(np.logaddexp(0, z) - y * z) + 0.5 * (at - mean) @ precision @ (at - mean))

    def slope(at: Array) -> Array:
        return np.asarray(x.T @ (expit(x @ at) - y) + precision @ (at - mean))

    def curvature(at: Array) -> Array:
        p = expit(x @ at)
        return np.asarray(x.T @ (x * (p * (1 - p))[:, None]) + precision)

    at = minimize(cost, mean, jac=slope, hess=curvature, method="trust-exact").x
    return Calibration(float(at[0]), float(at[1]), np.asarray(np.linalg.inv(curvature(at)), dtype=np.float64))


def probability(score: float, known: Calibration) -> tuple[float, float, float]:
    """(chance of a full pocket [0 to 1], and its p10 and p90)."""
    x = np.array([1.0, logit_of(score)])
    middle, spread = known.a + known.b * x[1], Z10 * math.sqrt(float(x @ known.covariance @ x))
    p, low, high = (float(expit(z)) for z in (middle, middle - spread, middle + spread))
    return p, low, high
