"""Soda against acid in a formula: what is left over when all that can react has reacted.

Stoichiometry: NaHCO3 + HX -> CO2 (1:1 by mole); an acid's capacity is its neutralising value (grams
of soda per 100 g), a dairy's its titratable acidity as lactic acid. Flour buffer is judgement.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.matter.dough import Dough

SODA_G_MOL = 84.007
LACTIC_G_MOL = 90.08
NEUTRALISING_G_PER_100G = {"mcp": 80.0, "sas": 104.0, "cream_tartar": 45.0}  # published, from memory
WHITE_BUFFER_MMOL_G = 0.015  # judgement
WHOLE_BUFFER_MMOL_G = 0.04  # judgement
WHOLE_FLOURS = ("wholemeal", "atta", "spelt_whole", "rye_whole")
VERDICTS = (
    (-1.5, "sour"),
    (-0.6, "tangy, pale"),
    (0.10, "balanced"),
    (0.30, "browner"),
    (0.60, "yellow, taste of soda"),
)  # judgement: upper edge of excess in g per 100 g flour


@dataclass(frozen=True)
class SodaBalance:
    """Soda and acid [mmol], the excess of soda [g per 100 g flour; negative is acid] and its word."""

    soda_mmol: float
    acid_mmol: float
    excess_g_per_100g_flour: float
    verdict: str


def soda_balance(dough: Dough) -> SodaBalance | None:
    """The balance of a dough, or None when it holds no soda at all."""
    soda = acid = 0.0
    for portion in dough.portions:
        row = portion.ingredient
        parts = dict(row.contains) or {row.id: 1.0}
        soda += portion.mass_g * parts.get("baking_soda", 0.0) / SODA_G_MOL * 1000
        acid += portion.mass_g * row.acid_frac / LACTIC_G_MOL * 1000
        for name, value in NEUTRALISING_G_PER_100G.items():
            acid += portion.mass_g * parts.get(name, 0.0) * value / 100 / SODA_G_MOL * 1000
        buffer = WHOLE_BUFFER_MMOL_G if row.id in WHOLE_FLOURS else WHITE_BUFFER_MMOL_G
        acid += portion.mass_g * row.flour_frac * buffer
    if soda == 0 or dough.flour_g == 0:
        return None
    excess = (soda - acid) * SODA_G_MOL / 1000 / dough.flour_g * 100
    verdict = next((word for edge, word in VERDICTS if excess < edge), "soapy, spots")
    return SodaBalance(soda, acid, excess, verdict)
