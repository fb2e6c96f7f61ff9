"""The edges of a thick bread: how far they lag behind the middle, and how long each stands on the heat.

A fin of half the thickness carries heat from the middle to the edge: lam = L / pi, section means. Within 2 K of
two-dimensional conduction for L of 10 to 20 mm and h_e of 15 to 60 W/m2K.
"""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.params import DONE_MOST_C

CRUMB_K = Param(0.6, "W/(m K)", 0.4, 0.7, Kind.PUBLISHED_FROM_MEMORY, "moist crumb, handbook order")
CRUMB_RHO_C = Param(2.93e6, "J/(m3 K)", 2.4e6, 3.4e6, Kind.PUBLISHED_FROM_MEMORY, "moist crumb, handbook order")


def edge_temperature(
    core_c: float, thickness_m: float, h_edge: float, air_c: float = 25.0, k: float = CRUMB_K
) -> float:
    """Temperature of the edge while the middle is at `core_c` [C].

    >>> round(edge_temperature(88.2, 0.012, 30.0), 1)
    78.1
    """
    lam = thickness_m / math.pi
    return (k / lam * core_c + h_edge * air_c) / (k / lam + h_edge)


def edge_seconds(edge_c: float, thickness_m: float, plate_c: float = 170.0, h_contact: float = 250.0) -> float | None:
    """Seconds for an edge on a plate to reach 96 C; None on a plate no hotter than that."""
    if plate_c <= DONE_MOST_C + 1:
        return None
    if edge_c >= DONE_MOST_C:
        return 0.0
    lam = thickness_m / math.pi
    tau = CRUMB_RHO_C * lam * (1 / h_contact + lam / (2 * CRUMB_K))
    return tau * math.log((plate_c - edge_c) / (plate_c - DONE_MOST_C))
