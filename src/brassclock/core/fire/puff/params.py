"""Parameters of the puff model, each with unit, range, evidence class and source."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

F, J, P, PR = Kind.FITTED, Kind.JUDGEMENT, Kind.PUBLISHED_FROM_MEMORY, Kind.PRACTICE
BREAD_CASES = "timed breads of common practice"
STATED = BREAD_CASES + " and the times that cooks state for whole breads"

PARAMS: dict[str, Param] = {
    "h_wet": Param(350, "W/(m2 K)", 200, 700, F, "order Pan, Singh & Rumsey 2000, from memory; " + BREAD_CASES),
    "h_dry": Param(70, "W/(m2 K)", 50, 150, F, BREAD_CASES),
    "k_ec": Param(0.15, "W/(m K)", 0.1, 0.3, F, "evaporation and condensation in bubbles; idea de Vries 1989"),
    "f_contact": Param(0.5, "-", 0.3, 0.7, F, "steam driven inward above a sealed face"),
    "f_free": Param(0.12, "-", 0.05, 0.2, F, "steam driven inward below a free face"),
    "tau_c": Param(2.0, "s", 1, 4, J, "uptake of steam by cooler crumb"),
    "h_p": Param(600, "W/(m2 K)", 150, 600, J, "steam condensing on the far wall of the pocket"),
    "b_ev": Param(0.2, "-", 0.15, 0.4, F, "share of the wet-surface evaporation"),
    "e_bubbles": Param(
        0.43, "-", 0.35, 0.5, F, "expansion at which bubbles show on 5 mm; a thinner sheet by (5 mm/thickness)^0.7 more"
    ),
    "r_onset": Param(6.5, "-", 5, 9, F, "gas expansion at which the sheet parts"),
    "j_leak": Param(5e-4, "kg/(m2 s)", 2e-4, 1e-3, F, "steam through a sound skin"),
    "g_pocket": Param(500, "W/(m2 K)", 100, 600, J, "across an open pocket full of steam"),
    "spot_radius": Param(
        0.003, "m", 1e-3, 6e-3, J, "of a brown spot; constriction of heat to a disc: Carslaw & Jaeger"
    ),
    "g_blister": Param(
        253, "W/(m2 K)", 60, 400, F, "from a face in air, flame or oil to the boiling beneath it; " + STATED
    ),
    "char_300": Param(0.206, "1/s", 0.1, 0.4, F, "charring of touching skin at 300 C; " + BREAD_CASES),
    "char_ea": Param(120_000, "J/mol", 100_000, 140_000, J, "charring, first order"),
    "brown_200": Param(0.0123, "1/s", 0.01, 0.05, F, "browning of dry skin at 200 C; " + STATED),
    "brown_ea": Param(64_151, "J/mol", 55_000, 75_000, P, "Zanoni, Peri and Bruno 1995"),
    "dust": Param(0.0, "m2 K/W", 0.0, 0.005, PR, "flour between bread and surface"),
    "k_crust": Param(0.08, "W/(m K)", 0.05, 0.12, P, "dry crust"),
    "sorption_a": Param(0.07, "-", 0.05, 0.1, F, "water activity of bread"),
    "sorption_b": Param(0.38, "-", 0.3, 0.45, F, "water activity of bread"),
    "d_w": Param(1e-9, "m2/s", 2e-10, 4e-9, P, "liquid water in dough"),
    "t_set": Param(70, "C", 65, 75, P, "starch sets"),
    "t_turn": Param(
        62, "C", 50, 70, F, "the upper face is dull and no longer sticks: it may be turned; times that cooks state"
    ),
    "phi0": Param(0.12, "-", 0.03, 0.3, J, "gas left in a rolled sheet"),
    "dry_limit": Param(0.22, "-", 0.18, 0.26, J, "moisture loss at which a flatbread is too dry"),
    "dt": Param(0.5, "s", 0.05, 0.5, Kind.ANALYTIC, "step; a quarter of it in the first 15 s of a stage"),
}
LIGHT = Param(0.05, "-", 0.03, 0.08, J, "dose of browning that reads as light")
GOLDEN = Param(0.20, "-", 0.15, 0.3, J, "dose of browning that reads as golden")
CHARRED = Param(1.0, "-", 0.7, 1.4, J, "dose of charring that reads as spots")
DONE_BELOW_BOIL_C = Param(4.4, "K", 3, 6, PR, "crumb that is cooked lies so far below its boiling point")
DONE_MOST_C = Param(96.0, "C", 93, 98, PR, "crumb of a flatbread that is cooked, near sea level")
DONE_THICK_C = Param(93.0, "C", 90, 96, PR, "a thick round comes off at that, and evens out in its cloth")


@dataclass(frozen=True)
class Material:
    """Density [kg/m3], heat capacity [J/kgK], conductivity [W/mK]; from memory, handbook order."""

    rho: float
    c: float
    k: float

    @property
    def effusivity(self) -> float:
        """sqrt(kρc) [W s½/(m2 K)]."""
        return float((self.k * self.rho * self.c) ** 0.5)


MATERIALS: dict[str, Material] = {
    "iron": Material(7200, 460, 50),
    "steel": Material(7850, 490, 50),
    "stone": Material(2100, 900, 1.5),
    "clay": Material(1800, 880, 0.8),
    "aluminium": Material(2700, 900, 200),
}
