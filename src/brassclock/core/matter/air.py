"""Air over the kitchen: pressure by altitude, and the vapour pressure over water in it.

Sources: International Standard Atmosphere (ISO 2533, from memory); Magnus form of the vapour
pressure with the coefficients of Sonntag 1990 (from memory), valid -45 to 60 C.
"""

from __future__ import annotations

import math

from brassclock.core.evidence import Kind, Param

GAS_CONSTANT_J_MOLK = Param(8.314, "J/(mol K)", 8.314, 8.315, Kind.ANALYTIC, "molar gas constant, rounded")
SEA_LEVEL_PA = Param(101_325.0, "Pa", 101_325, 101_325, Kind.ANALYTIC, "standard atmosphere, by definition")
ZERO_C_IN_K = 273.15


def pressure_at_altitude_pa(altitude_m: float) -> float:
    """Standard pressure at `altitude_m` [m], valid -500 to 11 000 m.

    >>> round(pressure_at_altitude_pa(1150))
    88251
    """
    return float(SEA_LEVEL_PA * (1 - 2.25577e-5 * altitude_m) ** 5.25588)


def vapour_pressure_pa(temp_c: float) -> float:
    """Saturated vapour pressure over water [Pa] for dough near room temperature [C]."""
    return 611.2 * math.exp(17.62 * temp_c / (243.12 + temp_c))
