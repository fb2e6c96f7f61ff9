"""The evidence of a finished bake's readings for the leaven of this kitchen (closed form), as a lesson of the ledger.

Batch z ~ N(μ, s_b²) about the kitchen's μ: readings that moved N(μ₀, v₀) to N(m, v₁) saw ẑ = m + (m − μ₀)·v₁/(v₀ − v₁)
with the variance 1/(1/v₁ − 1/v₀); of the kitchen that is known with s_b² more.
"""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.ledger import Ratio
from brassclock.core.rise.belief import Belief

BATCH_SD_LOG = Param(0.20, "-", 0.1, 0.35, Kind.JUDGEMENT, "of a batch about the kitchen's own activity")
LEAST_INFORMATION = 1.02
LEAST_VARIANCE = 1e-4


def activity_seen(before: Belief, after_batch: Belief) -> Ratio | None:
    """The activity that readings show which moved `before` to `after_batch`, and its spread in the logarithm as a
    lesson of the kitchen; None when they told nothing.

    >>> activity_seen(Belief(), Belief()) is None
    True
    """
    prior, post = before.sd_log**2, after_batch.sd_log**2
    if prior / post < LEAST_INFORMATION:
        return None
    noise = 1 / (1 / post - 1 / prior)
    mu, mean = math.log(before.mean), math.log(after_batch.mean)
    z_hat = mean + (mean - mu) * post / (prior - post)
    return Ratio(math.exp(z_hat), math.sqrt(noise + BATCH_SD_LOG**2))


def of_kitchen(batch: Belief) -> Ratio:
    """The kitchen's part of the belief about its next batch."""
    return Ratio(batch.mean, math.sqrt(max(batch.sd_log**2 - BATCH_SD_LOG**2, LEAST_VARIANCE)))


def of_next_batch(kitchen: Ratio) -> Belief:
    """The belief about the next batch, of what is believed of the kitchen."""
    return Belief(kitchen.mean, math.sqrt(kitchen.sd**2 + BATCH_SD_LOG**2))
