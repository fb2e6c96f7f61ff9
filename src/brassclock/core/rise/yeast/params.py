"""Parameters of the yeast model, each with unit, range, evidence class and source."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

F, J, P, PR = Kind.FITTED, Kind.JUDGEMENT, Kind.PUBLISHED_FROM_MEMORY, Kind.PRACTICE

PARAMS: dict[str, Param] = {
    "q30": Param(0.0105, "mol CO2/(g DM h)", 0.008, 0.022, F, "practice rows; range van Hoek 1998, from memory"),
    "gas_t_min": Param(-2.0, "C", -4, 0, F, "Q10 20 to 30 C of 1.78"),
    "gas_t_opt": Param(37.0, "C", 35, 39, F, "Q10 20 to 30 C of 1.78"),
    "gas_t_max": Param(48.0, "C", 46, 50, F, "Q10 20 to 30 C of 1.78"),
    "growth_t_min": Param(2.8, "C", 0.8, 4.8, P, "Salvadó 2011"),
    "growth_t_opt": Param(32.3, "C", 30.3, 34.3, P, "Salvadó 2011"),
    "growth_t_max": Param(45.4, "C", 43.4, 47.4, P, "Salvadó 2011"),
    "mu27": Param(0.20, "1/h", 0.10, 0.30, F, "Hoffman 1941, recalled"),
    "growth_room": Param(0.0019, "g DM/g flour", 0.00095, 0.00285, F, "Hoffman 1941, recalled"),
    "tau_g": Param(2.0, "h", 1.0, 3.0, J, "start of growth"),
    "kappa": Param(0.085, "mol CO2/g yeast made", 0.075, 0.10, F, "range Verduyn 1990, from memory"),
    "k_n": Param(0.3, "-", 0.1, 1.0, J, "ease into the end of growth"),
    "osm50": Param(2.7, "osmol/kg", 2.3, 3.2, F, "salt curve recalled"),
    "osm_n": Param(2.3, "-", 1.5, 3.0, F, "salt curve recalled"),
    "k_h": Param(0.002, "g/g flour", 0.001, 0.004, F, "practice rows"),
    "k_m": Param(0.004, "g/g flour", 0.002, 0.008, F, "practice rows"),
    "phi_m": Param(0.7, "-", 0.35, 1.0, F, "practice rows"),
    "yield_y": Param(0.92 * 2 / 180.16, "mol CO2/g hexose", 0.0099, 0.0106, F, "stoichiometry x .92"),
    "h0": Param(0.015, "g/g flour", 0.005, 0.02, P, "free sugar of flour, Pyler"),
    "m0": Param(0.003, "g/g flour", 0.0, 0.006, J, "maltose at the start"),
    "d0": Param(0.030, "g/g flour", 0.015, 0.05, P, "maltose figure of flour, Pyler"),
    "k30": Param(0.5, "1/h", 0.25, 1.0, F, "amylase on damaged starch"),
    "amylase_ea": Param(45_000.0, "J/mol", 30_000, 60_000, F, "amylase on damaged starch"),
    "tau_a": Param(0.25, "h at 30 C", 0.15, 0.4, F, "lag of gas"),
    "k_d": Param(0.01, "1/h", 0.005, 0.02, F, "seep of gas; set, not fitted"),
    "k_r": Param(0.7, "1/h", 0.35, 1.4, F, "leak of a full dough; set, not fitted"),
    "leak_p": Param(10.0, "-", 5, 20, F, "leak of a full dough; set, not fitted"),
    "k_s": Param(0.008, "1/h at 25 C", 0.004, 0.016, F, "weakening; set, not fitted"),
    "stretch": Param(3.2, "-", 2.5, 4.0, F, "largest expansion over strength"),
    "phi0": Param(0.07, "-", 0.03, 0.10, P, "gas fraction after mixing, Campbell 1990s"),
    "rho_dry": Param(1.25, "g/mL", 1.2, 1.3, P, "gas-free dough, Campbell 1990s"),
    "d58": Param(2.0, "min", 1.0, 4.0, P, "order of magnitude"),
    "z_kill": Param(4.5, "K", 4.0, 6.0, P, "order of magnitude"),
    "heat": Param(40_000.0, "J/mol CO2", 35_000, 50_000, P, "thermochemistry of fermentation"),
    "cp": Param(2.8, "J/(g K)", 2.7, 2.9, P, "Rask 1989"),
}


@dataclass(frozen=True)
class YeastKind:
    """Dry matter, relative activity, readiness at the start, and how it bears sugar."""

    dry_matter_frac: float
    activity: float
    ready0: float
    osm50_mult: float
    maltose_mult: float


KINDS: dict[str, YeastKind] = {
    "yeast_fresh": YeastKind(0.30, 1.00, 0.70, 1.0, 1.0),
    "yeast_instant": YeastKind(0.95, 0.88, 0.20, 1.0, 1.0),
    "yeast_active": YeastKind(0.93, 0.78, 0.05, 1.0, 1.0),
    "yeast_osmotolerant": YeastKind(0.95, 0.80, 0.20, 1.6, 0.6),
}
BLOOMED_READY = 0.70

STRENGTH_S: dict[str, Param] = {
    "developed": Param(1.0, "-", 0.85, 1.1, PR, "strong, well kneaded"),
    "kneaded": Param(0.75, "-", 0.65, 0.85, PR, "plain flour, kneaded"),
    "enriched": Param(0.55, "-", 0.45, 0.65, PR, "fat, sugar, dairy"),
    "wet_unkneaded": Param(0.48, "-", 0.45, 0.5, PR, "wet, not kneaded"),
    "wholemeal": Param(0.4, "-", 0.3, 0.5, PR, "bran cuts the sheet"),
}
