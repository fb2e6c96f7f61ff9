"""The straight jar: a sample of the dough that shows its rise as millimetres. Analytic: a straight glass keeps its
area."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import dough_density_kg_m3
from brassclock.core.rise.yeast.params import PARAMS

START_MM = Param(30.0, "mm", 20, 45, Kind.PRACTICE, "low enough to triple in a tumbler, high enough to read")


@dataclass(frozen=True)
class Mark:
    """Height of the mark over the jar's inner floor [mm], for a sample of `start_mm`."""

    ratio: float
    start_mm: float
    mark_mm: float


def sample_g_cm2(start_mm: float = START_MM) -> float:
    """Mass of dough that fills each square centimetre of a straight jar so high just after mixing [g/cm2].

    >>> round(sample_g_cm2() * 28.27)  # a jar of 6 cm
    99
    """
    return start_mm / 10 * dough_density_kg_m3(PARAMS["phi0"].value) / 1000


def mark(ratio: float, start_mm: float = START_MM) -> Mark:
    """The mark for a volume ratio.

    >>> mark(1.9).mark_mm
    57.0
    """
    return Mark(ratio, start_mm, ratio * start_mm)
