"""Forecast beside fact: what was said, the 8-in-10 band, what happened, and whether it fell inside."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from statistics import mean

POCKETS = ("full", "part", "flat")
COLOURS = ("pale", "right", "dark")


@dataclass(frozen=True)
class Compared:
    """One line of the comparison. `place` is 0 at p10, 1 at p90, outside beyond; None without a fact."""

    name: str
    unit: str
    said: float | None
    p10: float | None
    p90: float | None
    was: float | None

    @property
    def place(self) -> float | None:
        """Position of the fact between the forecast's p10 (0) and p90 (1); None where either is missing."""
        if self.was is None or self.p10 is None or self.p90 is None or self.p90 <= self.p10:
            return None
        return (self.was - self.p10) / (self.p90 - self.p10)

    @property
    def inside(self) -> bool | None:
        """True if the fact lies between the forecast's p10 and p90."""
        return None if self.place is None else 0 <= self.place <= 1


def mean_or_none(values: Sequence[float]) -> float | None:
    """Mean of what was seen, None of nothing."""
    return mean(values) if values else None
