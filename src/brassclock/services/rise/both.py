"""A dough with yeast and with soda or powder: how much of that lift is left when it is rolled."""

from __future__ import annotations

from brassclock.core.rise.chemical.model import Rest, gas_potential_ml, waiting
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.rise.spec import HOLDS_LIKE, bulk_radius_mm
from brassclock.services.solve import BakeResult

WORTH_SAYING_ML = 10.0  # judgement: gas of soda and powder per 100 g flour that is noticed
KEPT_FRAC = 0.5


def soda_beside_yeast(r: BakeSnapshot, work: BakeResult) -> str:
    """Sentence on what soda and powder still lift when a yeasted dough is rolled; empty without any.

    Hours warm and in the cold add up as shares of the half-times that the model of gas has there (judgement).
    """
    if work.sheet is None or work.plan is None or work.risen is None or work.risen.forecast is None:
        return ""
    dough, plan = work.sheet.dough, work.plan
    if gas_potential_ml(dough, r.kitchen.powder) < WORTH_SAYING_ML:
        return ""
    seen = work.risen.forecast.trace.dough_c
    warm_h, cold_h = plan.apart_h
    share = 0.0
    for hours, temp_c in ((warm_h, float(seen[0])), (cold_h, r.kitchen.fridge_c)):
        rest = Rest(60.0, temp_c, "bulk", bulk_radius_mm(dough.total_g))
        found = waiting(dough, HOLDS_LIKE[r.bake.strength], rest, r.kitchen.powder) if hours > 0 else None
        share += hours / max(found.h, 1e-6) if found else 0.0
    left = 0.5**share
    if left >= KEPT_FRAC:
        return f"Yeast and soda lift it together: some {left:.0%} of the soda's lift is left when it is rolled."
    return (
        f"The yeast lifts it: by rolling some {1 - left:.0%} of the soda's lift is gone. What the soda then does is "
        "colour and tenderness. Work it in after the rise to keep its lift."
    )
