"""Parameters of chemical leavening, each with unit, range, evidence class and source."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

F, J, P = Kind.FITTED, Kind.JUDGEMENT, Kind.PUBLISHED_FROM_MEMORY

PARAMS: dict[str, Param] = {
    "fast_25": Param(1.0, "1/min at 25 C", 0.5, 2.0, J, "acids that dissolve at once"),
    "fast_ea": Param(40_000, "J/mol", 30_000, 50_000, J, "acids that dissolve at once"),
    "decay_80": Param(0.03, "1/min at 80 C", 0.01, 0.06, J, "soda alone, hot: half the gas"),
    "decay_ea": Param(90_000, "J/mol", 70_000, 110_000, J, "soda alone, hot"),
    "d_liquid": Param(1.2e-9, "m2/s", 0.8e-9, 1.9e-9, J, "CO2 in the dough's water"),
    "d_ea": Param(20_000, "J/mol", 17_000, 23_000, P, "diffusion of CO2 in water, 4 to 25 C"),
    "coalesce_ea": Param(30_000, "J/mol", 20_000, 40_000, J, "bubbles joining and escaping"),
    "set_c": Param(75.0, "C", 70, 80, P, "the crumb sets"),
    "steam_share": Param(0.95, "-", 0.9, 1.0, J, "of the saturated vapour at setting"),
    "mix_min": Param(3.0, "min", 1, 5, J, "mixing"),
    "half_lift": Param(0.5, "-", 0.4, 0.6, J, "of the loss-free lift: the end of the wait"),
}


@dataclass(frozen=True)
class Holding:
    """Gas holding of a dough without yeast: loss by coalescence [1/min at 25 C], gas fraction limit, share kept to
    setting."""

    coalesce_per_min: float
    gas_limit_frac: float
    oven_kept: float


HOLDINGS: dict[str, Holding] = {  # judgement; the batter row was set on griddle bread (calibrated)
    "batter": Holding(1 / 25, 0.25, 0.35),
    "weak": Holding(1 / 45, 0.35, 0.35),
    "moderate": Holding(1 / 240, 0.45, 0.42),
    "developed": Holding(1 / 1200, 0.60, 0.50),
}
WAIT_WORDS = ((0.75, "cook_at_once"), (4.0, "session"), (12.0, "same_day"))  # judgement: upper edge in h
LONGEST_H = 96.0
