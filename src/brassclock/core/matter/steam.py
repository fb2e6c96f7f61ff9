"""Water at saturation: pressure, temperature and latent heat.

The saturation line is equation 30/31 of IAPWS-IF97 (region 4, 273.15 to 647.096 K; coefficients
published by IAPWS). The latent heat is a quadratic fit good to 0.3 % from 0 to 150 C (fitted).
"""

from __future__ import annotations

import math

N = (
    0.11670521452767e4, -0.72421316703206e6, -0.17073846940092e2, 0.12020824702470e5,
    -0.32325550322333e7, 0.14915108613530e2, -0.48232657361591e4, 0.40511340542057e6,
    -0.23855557567849, 0.65017534844798e3,
)  # fmt: skip


def saturation_pressure_pa(temp_c: float) -> float:
    """Saturation pressure [Pa] at `temp_c` [C], 0 to 373.9 C.

    >>> round(saturation_pressure_pa(100.0))
    101418
    """
    k = min(max(temp_c + 273.15, 273.15), 647.096)
    theta = k + N[8] / (k - N[9])
    a = theta * theta + N[0] * theta + N[1]
    b = N[2] * theta * theta + N[3] * theta + N[4]
    c = N[5] * theta * theta + N[6] * theta + N[7]
    return float((2 * c / (-b + math.sqrt(b * b - 4 * a * c))) ** 4 * 1e6)


def saturation_temp_c(pressure_pa: float) -> float:
    """Boiling temperature [C] at `pressure_pa` [Pa], 611.2 Pa to 22.06 MPa (clamped to that).

    >>> round(saturation_temp_c(101325.0), 2)
    99.97
    """
    p = min(max(pressure_pa, 611.213), 22.064e6) * 1e-6
    beta = p**0.25
    e = beta * beta + N[2] * beta + N[5]
    f = N[0] * beta * beta + N[3] * beta + N[6]
    g = N[1] * beta * beta + N[4] * beta + N[7]
    d = 2 * g / (-f - math.sqrt(f * f - 4 * e * g))
    return float((N[9] + d - math.sqrt((N[9] + d) ** 2 - 4 * (N[8] + N[9] * d))) / 2 - 273.15)


def latent_heat_j_kg(temp_c: float) -> float:
    """Heat to evaporate water [J/kg] at `temp_c` [C], 0 to 150 C.

    >>> round(latent_heat_j_kg(100.0) / 1e6, 3)
    2.251
    """
    return 2.5009e6 - 2360.0 * temp_c - 1.35 * temp_c * temp_c
