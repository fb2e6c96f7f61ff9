"""Parameters of the sourdough model, each with unit, range, evidence class and source."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

F, J, P = Kind.FITTED, Kind.JUDGEMENT, Kind.PUBLISHED_FROM_MEMORY
GANZLE = "form Gänzle 1998; numbers within 15 %"

PARAMS: dict[str, Param] = {
    "y_t_max": Param(36.0, "C", 35, 37, P, GANZLE + "; wild yeast"),
    "y_x": Param(9.0, "K", 8, 10, P, GANZLE + "; wild yeast"),
    "y_c": Param(0.34, "1/K", 0.3, 0.38, P, GANZLE + "; wild yeast"),
    "y_mu": Param(0.42, "1/h", 0.36, 0.48, P, GANZLE + "; wild yeast"),
    "l_t_max": Param(41.0, "C", 40, 42, P, GANZLE + "; lactic bacteria"),
    "l_x": Param(8.5, "K", 7.5, 9.5, P, GANZLE + "; lactic bacteria"),
    "l_c": Param(0.202, "1/K", 0.17, 0.23, P, GANZLE + "; lactic bacteria"),
    "l_mu": Param(0.66, "1/h", 0.56, 0.76, P, GANZLE + "; lactic bacteria"),
    "salt_y": Param(8.0, "% of water", 7, 9, P, "salt that stops wild yeast"),
    "salt_l": Param(4.0, "% of water", 3.5, 5, P, "salt that stops lactic bacteria"),
    "u_max": Param(115.0, "mmol/kg water", 50, 200, P, "undissociated acetic acid that stops yeast; low confidence"),
    "km": Param(0.68, "-", 0.55, 0.85, F, "growth in dough over growth in broth; starter peaks of practice"),
    "x_ripe": Param(
        0.0116, "g DM/g flour", 0.009, 0.015, F, "gas of a ripe starter as baker's yeast; starter peaks of practice"
    ),
    "q_acid": Param(142e-6, "mol/(g h)", 1e-4, 2e-4, F, "acid of ripe bacteria at 25 C; ripe pH and acidity"),
    "k_weak": Param(0.38, "1/h", 0.2, 0.6, F, "gluten weakened by acid; fall of ripe jars"),
    "ph_weak": Param(3.92, "pH", 3.8, 4.05, F, "gluten weakened by acid; fall of ripe jars"),
    "weak_steep": Param(6.0, "1/pH", 4, 8, J, "gluten weakened by acid"),
    "crowd": Param(1.6, "-", 1.3, 2.0, J, "of the ripe count: no more wild yeast than that"),
    "ph_stop": Param(3.65, "pH", 3.5, 3.8, J, "bacteria stop"),
    "ph_full": Param(1.15, "pH", 0.9, 1.4, J, "above the stop: bacteria at full pace"),
    "co2_of_acid": Param(0.4, "mol/mol", 0.0, 0.8, J, "gas of heterofermentation"),
    "sugar_of_acid": Param(115.0, "g/mol", 90, 144, J, "sugar per mole of acid; bound by stoichiometry"),
    "acetic": Param(0.2, "-", 0.1, 0.35, J, "share of acetic in the acid"),
    "beta": Param(50e-6, "mol/(g pH)", 40e-6, 65e-6, P, "buffer of white flour"),
    "ph0": Param(6.1, "pH", 5.9, 6.3, P, "white flour and water"),
    "t0": Param(30e-6, "mol/g", 20e-6, 45e-6, P, "titratable acidity of white flour"),
    "acid_ripe": Param(270e-6, "mol/g", 2e-4, 3.4e-4, J, "acid of a ripe starter: TTA 15, pH 3.85"),
    "jar_s": Param(0.63, "-", 0.5, 0.75, F, "strength of a liquid starter in a jar; height of jars"),
}
WHOLEMEAL_BUFFER, WHOLEMEAL_PH, WHOLEMEAL_T0, WHOLEMEAL_JAR = (
    1.6,
    0.2,
    2.0,
    0.6,
)  # published order and judgement; untested
PKA_LACTIC, PKA_ACETIC = 3.86, 4.76


@dataclass(frozen=True)
class SeedState:
    """A starter when it goes in: lag, acid over ripe, strength over ripe (judgement)."""

    lag: float
    acid: float
    strength: float


SEEDS = {"peak": SeedState(0.10, 0.8, 1.0), "ripe": SeedState(0.25, 1.0, 1.0)}
CHILL_DAYS = 3.0


def seed_state(state: str, days_cold: float = CHILL_DAYS) -> SeedState:
    """The seed of a state: `peak`, `ripe`, or `chilled` for so many days.

    >>> seed_state("chilled", 10.0).lag
    1.25
    """
    if state != "chilled":
        return SEEDS[state]
    return SeedState(min(1.6, 0.25 + 0.1 * days_cold), 1.1, 2.718281828459045 ** (-days_cold / 10))
