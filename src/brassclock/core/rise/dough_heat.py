"""Thermal lag of a piece of dough behind the air: one time constant per vessel.

τ = ρc·(V/A)·(1/h + δ/k), δ = R/5 for a sphere (linear driving force: exact for the integral of
the mean-temperature excess, which is what fermentation sees); a tub adds its radial and axial
conductances. SI inside; masses g and times h at the edge.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

RHO_KG_M3 = Param(1160.0, "kg/m3", 1080, 1250, Kind.PUBLISHED_FROM_MEMORY, "Rask 1989")
CP_J_KGK = Param(2800.0, "J/(kg K)", 2500, 3100, Kind.PUBLISHED_FROM_MEMORY, "Rask 1989")
PARAMS = {
    "rho_c": Param(RHO_KG_M3 * CP_J_KGK, "J/(m3 K)", 3.0e6, 3.4e6, Kind.PUBLISHED_FROM_MEMORY, "Rask 1989"),
    "k": Param(0.42, "W/(m K)", 0.35, 0.5, Kind.PUBLISHED_FROM_MEMORY, "Rask 1989"),
    "h_bare_room": Param(9.0, "W/(m2 K)", 6, 12, Kind.FITTED, "free convection and radiation, estimated"),
    "h_covered_room": Param(8.0, "W/(m2 K)", 5, 11, Kind.FITTED, "free convection and radiation, estimated"),
    "h_fridge": Param(7.0, "W/(m2 K)", 5, 12, Kind.FITTED, "free convection and radiation, estimated"),
    "h_tub_side": Param(6.0, "W/(m2 K)", 4, 8, Kind.FITTED, "free convection and radiation, estimated"),
    "h_tub_lid": Param(3.5, "W/(m2 K)", 2, 5, Kind.FITTED, "air gap under a lid, estimated"),
    "h_shelf": Param(5.0, "W/(m2 K)", 3, 8, Kind.FITTED, "wire or metal shelf, estimated"),
    "fridge_draw": Param(
        0.08, "W/(K L)", 0.04, 0.16, Kind.JUDGEMENT, "heat a fridge takes up per litre and kelvin of its air"
    ),
    "h_wood": Param(1.0, "W/(m2 K)", 0.5, 2, Kind.FITTED, "wood or cloth beneath, estimated"),
}
VALUES = {name: p.value for name, p in PARAMS.items()}
COLD_PLACE_C = 10.0


@dataclass(frozen=True)
class Vessel:
    """Vessel of a dough: `ball`, `tray` (mass is that of one ball), `tub`, or `none` (follows the air).

    A tub's mass may be split over `count` tubs. `load_g` is all that goes into the fridge of `fridge_litres` at
    once: its warmth warms the fridge's own air.
    """

    kind: str
    mass_g: float
    lid: bool = False
    diameter_cm: float | None = None
    base: str = "shelf"
    count: int = 1
    load_g: float | None = None
    fridge_litres: float | None = None


def sphere_radius_m(mass_g: float) -> float:
    """Radius of a ball of dough [m]."""
    return float((3 * mass_g / 1000 / RHO_KG_M3 / (4 * math.pi)) ** (1 / 3))


def time_constant_sphere_h(mass_g: float, h_w_m2k: float) -> float:
    """Time constant of a ball [h], 20 g to 10 kg.

    >>> round(time_constant_sphere_h(200, 7), 2), round(time_constant_sphere_h(90, 7), 2)
    (1.65, 1.24)
    """
    radius = sphere_radius_m(mass_g)
    return float(PARAMS["rho_c"].value * radius / 3 * (1 / h_w_m2k + radius / 5 / PARAMS["k"].value) / 3600)


def time_constant_tub_h(radius_m: float, depth_m: float, h_side: float, h_top: float, h_base: float) -> float:
    """Time constant of dough in a tub [h].

    >>> round(time_constant_tub_h(.13, .081, 6, 3.5, 5), 2)
    5.83
    """
    rho_c, k = PARAMS["rho_c"].value, PARAMS["k"].value
    radial = rho_c * (radius_m / (2 * h_side) + radius_m**2 / (8 * k))
    b = (rho_c * depth_m + h_top * rho_c * depth_m**2 / (2 * k)) / (k + h_top * depth_m + h_top * k / h_base)
    axial = -(rho_c / k) * depth_m**2 / 6 + b * depth_m / 2 + k * b / h_base
    return 1 / (1 / radial + 1 / axial) / 3600


def warm_load_h(vessel: Vessel) -> float:
    """Hours more that a warm load takes to cool because it warms the fridge.

    Air over its set point = heat given off / heat drawn per kelvin: with a load m·c following that air, the time
    constant grows by m·c/K. Ten kilos in 150 litres take 40 minutes longer.

    >>> round(warm_load_h(Vessel("ball", 200, load_g=10_000, fridge_litres=150)) * 60)
    39
    """
    if vessel.fridge_litres is None:
        return 0.0
    draw_w_k = PARAMS["fridge_draw"].value * vessel.fridge_litres
    return (vessel.load_g or vessel.mass_g) / 1000 * CP_J_KGK / draw_w_k / 3600


def time_constant_h(vessel: Vessel | None, ambient_c: float) -> float | None:
    """Time constant of a vessel in a place at `ambient_c` [h]; None pins the dough to the air."""
    if vessel is None or vessel.kind == "none":
        return None
    return _alone_h(vessel, ambient_c) + (warm_load_h(vessel) if ambient_c < COLD_PLACE_C else 0.0)


def _tub_m(vessel: Vessel) -> tuple[float, float]:
    """(radius, depth) of the dough in one tub [m]; as wide as deep when no diameter is given."""
    volume = vessel.mass_g / vessel.count / 1000 / RHO_KG_M3
    radius = vessel.diameter_cm / 200 if vessel.diameter_cm else (volume / math.pi) ** (1 / 3)
    return radius, volume / (math.pi * radius**2)


def _alone_h(vessel: Vessel, ambient_c: float) -> float:
    v = VALUES
    if vessel.kind in ("ball", "tray"):
        cold = ambient_c < COLD_PLACE_C
        covered = vessel.lid or vessel.kind == "tray"
        h = v["h_fridge"] if cold else v["h_covered_room"] if covered else v["h_bare_room"]
        return time_constant_sphere_h(vessel.mass_g, h)
    radius, depth = _tub_m(vessel)
    top = v["h_tub_lid"] if vessel.lid else v["h_covered_room"]
    return time_constant_tub_h(radius, depth, v["h_tub_side"], top, v["h_wood" if vessel.base == "wood" else "h_shelf"])


def centre_lag_h(vessel: Vessel | None) -> float:
    """Lag of the centre behind the mean when the mean changes steadily [h]: lag = (centre − mean)/(dT/dt).

    Quasi-steady sphere R²/(10α); a tub takes the smaller of slab and cylinder.
    """
    if vessel is None or vessel.kind == "none":
        return 0.0
    alpha = PARAMS["k"].value / PARAMS["rho_c"].value
    if vessel.kind == "tub":
        radius, depth = _tub_m(vessel)
        return min((depth / 2) ** 2 / 6, radius**2 / 8) / alpha / 3600
    return sphere_radius_m(vessel.mass_g) ** 2 / (10 * alpha) / 3600


def sheet_excess_kept(thickness_m: float, minutes: float) -> float:
    """Share of its excess over the air that a rolled sheet keeps after `minutes` on the bench, one side free.

    >>> round(sheet_excess_kept(0.0034, 8), 2)
    0.68
    """
    seconds = PARAMS["rho_c"].value * thickness_m / PARAMS["h_bare_room"].value
    return math.exp(-minutes * 60 / seconds)
