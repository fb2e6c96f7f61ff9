"""The acid table: what each leavening acid neutralises, and how fast its fast, slow and hot shares react.

Rows are package data (`data/acids.csv`). Neutralising values are grams of soda per 100 g of acid
(published, from memory; those of pure acids follow from molar masses); rate constants are judgement.
"""

from __future__ import annotations

import csv
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files

from brassclock.core.evidence import Kind, Param

SODA_G_MOL = Param(84.007, "g/mol", 84.007, 84.007, Kind.ANALYTIC, "atomic weights")
LACTIC_G_MOL = Param(90.08, "g/mol", 90.07, 90.09, Kind.ANALYTIC, "atomic weights")


@dataclass(frozen=True)
class Acid:
    """One acid. Shares add up to one; rates per min at 25 C (slow) and 60 C (heat), activation energies J/mol."""

    id: str
    name: str
    molar_mass_g_mol: float
    equiv_per_mol: float | None
    neutralising_g_per_100g: float
    fast_frac: float
    slow_frac: float
    heat_frac: float
    slow_25_per_min: float
    slow_ea_j_mol: float
    heat_60_per_min: float
    heat_ea_j_mol: float
    source: str

    @property
    def mmol_per_g(self) -> float:
        """Soda that one gram neutralises [mmol]."""
        return self.neutralising_g_per_100g / 100 / SODA_G_MOL * 1000


@lru_cache(maxsize=1)
def acids() -> dict[str, Acid]:
    """Every acid by id.

    >>> round(acids()["cream_tartar"].mmol_per_g, 2)
    5.36
    """
    text = (files("brassclock.core.matter") / "data" / "acids.csv").read_text("utf-8")
    rows = {}
    for row in csv.DictReader(text.splitlines()):
        rows[row["id"]] = Acid(
            row["id"],
            row["name"],
            float(row["molar_mass"]),
            float(row["equiv_per_mol"]) if row["equiv_per_mol"] else None,
            float(row["NV_g_soda_per_100g"]),
            float(row["frac_fast"]),
            float(row["frac_slow"]),
            float(row["frac_heat"]),
            float(row["k_slow25_per_min"]),
            1000 * float(row["Ea_slow_kJ"]),
            float(row["k_heat60_per_min"]),
            1000 * float(row["Ea_heat_kJ"]),
            row["source"],
        )
    return rows
