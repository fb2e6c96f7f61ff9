"""The towel: how soft a bread still is when it has waited in the stack for the last one.

Practice and judgement: a bread wrapped in cloth keeps soft for about half an hour, and one that lost much water starts
stiffer.
"""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param

KEEPS_S = Param(2400.0, "s", 1200, 5400, Kind.JUDGEMENT, "wrapped in cloth, in a stack")
DRY_FRAC = (0.12, 0.26)  # of its mass lost in the heat: from as soft as can be to a cracker
SOFT, FIRM = 0.75, 0.5


def softness(wait_s: float, loss_frac: float) -> float:
    """1 just wrapped and moist, 0 stiff through.

    >>> [round(softness(w, 0.12), 2) for w in (0, 600, 2400)], softness(0, 0.3)
    ([1.0, 0.78, 0.37], 0.0)
    """
    low, high = DRY_FRAC
    moist = 1 - min(max((loss_frac - low) / (high - low), 0.0), 1.0)
    return moist * math.exp(-max(wait_s, 0.0) / KEEPS_S)


def feel(soft_frac: float) -> str:
    """Its word.

    >>> feel(1.0), feel(0.6), feel(0.2)
    ('soft', 'firm', 'stiff')
    """
    return "soft" if soft_frac >= SOFT else "firm" if soft_frac >= FIRM else "stiff"
