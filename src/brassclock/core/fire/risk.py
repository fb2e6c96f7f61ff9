"""Likelihood of a full pocket, as a score with ranked reasons.

S = 95·Π(1 − w·r), each factor a ramp r from 0 to 1 with a weight w (judgement, common practice). It
is called a score until a kitchen has logged enough breads to make it a probability.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param

BEST_SCORE = Param(95.0, "-", 90, 100, Kind.JUDGEMENT, "of a pocket with nothing against it")
DOCKED_SCORE = Param(3.0, "-", 0, 10, Kind.PRACTICE, "docked breads stay flat")


@dataclass(frozen=True)
class Factor:
    """A fault that costs pockets: weight, where its ramp starts and ends, and what to do."""

    weight: float
    start: float
    end: float
    text: str


FACTORS: dict[str, Factor] = {
    "thin": Factor(0.90, 2.0, 1.0, "Thinner than 2 mm: no room for a pocket."),
    "thick": Factor(0.90, 5.0, 9.0, "Thicker than 5 mm: roll it thinner."),
    "uneven": Factor(0.60, 0.1, 0.5, "A thick and a thin side will not open: roll it level."),
    "skin": Factor(0.60, 3.0, 15.0, "The rounds dried: cover them."),
    "cold": Factor(0.35, 15.0, 0.0, "Cold dough: let it warm."),
    "cool": Factor(0.90, 0.0, 60.0, "The surface is too cool: let it heat."),
    "hot": Factor(0.50, 0.0, 100.0, "The surface is too hot: it crusts first."),
    "crust_first": Factor(0.40, 0.0, 0.6, "The top browns before it opens."),
    "under": Factor(0.35, 0.7, 0.2, "Under-risen: wait a little."),
    "over": Factor(0.50, 1.2, 1.8, "Over-risen: use the dough sooner."),
    "tear": Factor(0.95, 0.0, 8.0, "A hole lets the steam out."),
    "grease": Factor(0.90, 0.0, 1.0, "A greased surface lets the bread fall: wipe it dry."),
    "slick": Factor(0.80, 0.0, 1.0, "Bread does not hold on a non-stick surface: use bare iron."),
    "unwetted": Factor(0.50, 0.0, 1.0, "The back was not wetted: it may not hold."),
    "oil_cool": Factor(0.90, 0.0, 35.0, "The oil is too cool: let it heat."),
    "oil_hot": Factor(0.50, 0.0, 25.0, "The oil is too hot: the skin hardens first."),
    "flour": Factor(0.25, 15.0, 60.0, "Much flour on the bench: brush it off."),
}


@dataclass(frozen=True)
class Reason:
    """A factor that costs points, largest first."""

    factor: str
    points: float
    text: str


@dataclass(frozen=True)
class Score:
    """The score out of 100 and what it lost."""

    score: float
    reasons: tuple[Reason, ...]


def ramp(value: float, start: float, end: float) -> float:
    """0 before `start`, 1 past `end`, linear between; runs either way."""
    return min(1.0, max(0.0, (value - start) / (end - start)))


def ripeness_share(maturity: float) -> float:
    """Share of the pockets that the dough's ripeness leaves: 1 when it is neither under- nor over-risen.

    >>> ripeness_share(1.0), round(ripeness_share(1.8), 2)
    (1.0, 0.5)
    """
    found = 1.0
    for name in ("under", "over"):
        found *= 1 - FACTORS[name].weight * ramp(maturity, FACTORS[name].start, FACTORS[name].end)
    return found


def pocket_score(levels: Mapping[str, float], *, docked: bool = False, pocket_share: float | None = None) -> Score:
    """Score from fault levels (names of FACTORS in their own units) and the simulated pocket share.

    >>> round(pocket_score({"uneven": .3, "cold": 5}).score, 2)
    50.98
    """
    if docked:
        return Score(DOCKED_SCORE, (Reason("docked", DOCKED_SCORE - BEST_SCORE, "Docked breads stay flat."),))
    costs = {
        name: FACTORS[name].weight * ramp(level, FACTORS[name].start, FACTORS[name].end)
        for name, level in levels.items()
    }
    score: float = BEST_SCORE
    for cost in costs.values():
        score *= 1 - cost
    reasons = [
        Reason(name, -(score / (1 - cost) - score), FACTORS[name].text) for name, cost in costs.items() if cost > 0.005
    ]
    if pocket_share is not None and score > 10 + 85 * pocket_share:
        cap = 10 + 85 * pocket_share
        reasons.append(Reason("model", cap - score, "By the heat model the pocket does not fill."))
        score = cap
    return Score(score, tuple(sorted(reasons, key=lambda r: r.points)))
