"""Parameters of a bread that is kept. No measured bread stands behind them."""

from __future__ import annotations

from typing import NamedTuple

from brassclock.core.evidence import Kind, Param

_A, _P, _J = Kind.ANALYTIC, Kind.PUBLISHED_FROM_MEMORY, Kind.JUDGEMENT
_U = "heat into still air, cloth, bag, box or cold air, order"
PARAMS = {
    "latent": Param(2400.0, "J/g", 2330, 2470, _P, "steam tables, 20 to 60 C"),
    "k_bread": Param(0.12, "W/(m K)", 0.07, 0.2, _P, "baked crumb"),
    "u_air": Param(10.0, "W/(m2 K)", 7, 13, _J, _U),
    "u_cloth": Param(3.0, "W/(m2 K)", 2.1, 3.9, _J, _U),
    "u_bag": Param(6.0, "W/(m2 K)", 4.2, 7.8, _J, _U),
    "u_box": Param(3.0, "W/(m2 K)", 2.1, 3.9, _J, _U),
    "u_cold": Param(8.0, "W/(m2 K)", 5.6, 10.4, _J, _U),
    "k_air": Param(2.7e-8, "kg/(m2 s Pa)", 2e-8, 4e-8, _A, "Lewis relation at h_c 4.5 W/(m2 K)"),
    "k_cloth": Param(0.5e-8, "kg/(m2 s Pa)", 0.17e-8, 1.5e-8, _J, "days in cloth"),
    "k_box": Param(0.3e-8, "kg/(m2 s Pa)", 0.1e-8, 0.9e-8, _J, "a vented hot box"),
    "k_crust": Param(4.5e-8, "kg/(m2 s Pa)", 2e-8, 9e-8, _J, "a porous crust of .3 mm"),
    "tau_crust_s": Param(120.0, "s", 60, 240, _J, "a crust of .3 mm takes up water so fast at 60 C"),
    "tau_brushed_s": Param(150.0, "s", 75, 300, _J, "water of butter into the crust: butter check"),
    "fat_film": Param(0.25, "-", 0.15, 0.4, _J, "vapour that a film of fat lets through"),
    "butter_water": Param(0.16, "-", 0.14, 0.18, _P, "water of butter"),
    "half_crisp_x": Param(0.10, "kg/kg", 0.08, 0.13, _P, "crisp is lost at a water activity of .5 to .7"),
    "crisp_width_x": Param(0.02, "kg/kg", 0.01, 0.03, _J, "from crisp to limp"),
    "stale_days": Param(1.5, "d", 1, 2.5, _P, "Avrami time of loaves at 4 C (Cornford and others 1964), shortened"),
    "stale_per_k": Param(18.8, "K", 15, 23, _P, "e-fold of staling by temperature (the same loaves)"),
    "stale_firms": Param(1.15, "-", 0.86, 1.44, _J, "softness lost to staling: set on the practice rows"),
    "dry_firms": Param(1.2, "-", 0.9, 1.5, _J, "softness lost to drying: set on the practice rows"),
    "crisp_firms": Param(0.6, "-", 0.45, 0.75, _J, "softness lost to a crisp crust: set on the practice rows"),
    "melt_left": Param(0.2, "-", 0.1, 0.4, _P, "staling left after a reheating: amylopectin melts at 50 to 60 C"),
    "stales_again": Param(1.6, "x", 1.3, 2.0, _J, "a reheated bread stales faster"),
    "condenses": Param(0.5, "-", 0.3, 0.7, _J, "of the heat that leaves a bag, at most so much is sweat"),
    "sorption_a": Param(0.07, "kg/kg", 0.06, 0.08, _P, "Oswin isotherm of baked wheat"),
    "sorption_b": Param(0.38, "-", 0.34, 0.42, _P, "Oswin isotherm of baked wheat"),
}  # fmt: skip
SPREADS = {  # sd of the logarithm, by parameter: judgement
    "k_cloth": 0.4, "tau_crust_s": 0.4, "tau_brushed_s": 0.4, "k_crust": 0.3, "stale_days": 0.3, "u_cloth": 0.2,
    "u_bag": 0.2, "u_air": 0.15, "stale_firms": 0.15, "dry_firms": 0.15,
}  # fmt: skip


class Keeping(NamedTuple):
    """The parameters by name, as the stepper takes them."""

    latent: float
    k_bread: float
    u_air: float
    u_cloth: float
    u_bag: float
    u_box: float
    u_cold: float
    k_air: float
    k_cloth: float
    k_box: float
    k_crust: float
    tau_crust_s: float
    tau_brushed_s: float
    fat_film: float
    butter_water: float
    half_crisp_x: float
    crisp_width_x: float
    stale_days: float
    stale_per_k: float
    stale_firms: float
    dry_firms: float
    crisp_firms: float
    melt_left: float
    stales_again: float
    condenses: float
    sorption_a: float
    sorption_b: float


def keeping(**changed: float) -> Keeping:
    """The parameters with some of them changed."""
    return Keeping(**{name: float(changed.get(name, p)) for name, p in PARAMS.items()})
