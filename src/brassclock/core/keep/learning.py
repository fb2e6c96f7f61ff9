"""Learning from a finished bake about the yeast of this kitchen (closed form; fitted by simulation).

Batch z ~ N(μ, s_b²), μ ~ N(μ₀, v): K = v/(v + s_b² + σ_z²); μ += K(ẑ − μ); v ×= 1 − K.
"""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.belief import Belief

BATCH_SD_LOG = Param(0.20, "-", 0.1, 0.35, Kind.JUDGEMENT, "of a batch about the kitchen's own activity")
LEAST_INFORMATION = 1.02


def learned(before: Belief, after_batch: Belief) -> Belief:
    """The kitchen's belief after a bake whose readings moved `before` to `after_batch`.

    Returns `before` when the readings told nothing.

    >>> learned(Belief(), Belief()) == Belief()
    True
    """
    prior, post = before.sd_log**2, after_batch.sd_log**2
    if prior / post < LEAST_INFORMATION:
        return before
    v = max(prior - BATCH_SD_LOG**2, 1e-4)
    noise = 1 / (1 / post - 1 / prior)
    mu, mean = math.log(before.mean), math.log(after_batch.mean)
    z_hat = mean + (mean - mu) * post / (prior - post)
    gain = v / (prior + noise)
    return Belief(math.exp(mu + gain * (z_hat - mu)), math.sqrt(v * (1 - gain) + BATCH_SD_LOG**2))
