"""Leavens in terms of one another: yeast for yeast, starter split, powder and self-raising flour taken apart.

Yeast equivalents are common practice (fresh : active dry : instant as 1 : .42 : .33 by mass); splits are arithmetic.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough
from brassclock.core.weigh.soda import parts_of

OF_FRESH_FROM = "grams that do the work of one gram of fresh yeast"
OF_FRESH = {
    "yeast_fresh": Param(1.0, "-", 0.85, 1.2, Kind.PRACTICE, OF_FRESH_FROM),
    "yeast_active": Param(0.42, "-", 0.357, 0.504, Kind.PRACTICE, OF_FRESH_FROM),
    "yeast_instant": Param(0.33, "-", 0.2805, 0.396, Kind.PRACTICE, OF_FRESH_FROM),
    "yeast_osmotolerant": Param(0.36, "-", 0.306, 0.432, Kind.PRACTICE, OF_FRESH_FROM),
}
NAMES = {
    "yeast_fresh": "fresh",
    "yeast_active": "active dry",
    "yeast_instant": "instant",
    "yeast_osmotolerant": "osmotolerant",
}
ADVICE = {
    "yeast_fresh": "Crumble it into the liquid, never on dry salt; 38 C at most.",
    "yeast_active": "Bloom it 10 min in part of the liquid at 38 to 43 C before it meets the flour.",
    "yeast_instant": "Stir it into the flour; no bloom needed.",
    "yeast_osmotolerant": "For doughs with more than 10 % sugar; stir it into the flour.",
}


@dataclass(frozen=True)
class Equivalent:
    """As much of another yeast, and what to do differently."""

    ingredient: str
    name: str
    mass_g: float
    advice: str


@dataclass(frozen=True)
class LeavenPart:
    """Composition of a leaven: named parts in grams."""

    ingredient: str
    name: str
    mass_g: float
    parts: tuple[tuple[str, float], ...]


def same_strength(mass_g: float, have: str, want: str) -> float:
    """Grams of yeast `want` that do the work of `mass_g` of `have`. Raises InvalidInput.

    >>> round(same_strength(21, "yeast_fresh", "yeast_instant"), 2)
    6.93
    """
    for kind, pointer in ((have, "/have"), (want, "/want")):
        if kind not in OF_FRESH:
            raise invalid(pointer, f"“{kind[:40]}” is no yeast. Use one of {', '.join(OF_FRESH)}.")
    return mass_g * OF_FRESH[want] / OF_FRESH[have]


def equivalents(dough: Dough) -> dict[str, tuple[Equivalent, ...]]:
    """For each yeast in a dough, the same strength of each other."""
    return {
        p.ingredient.id: tuple(
            Equivalent(k, NAMES[k], same_strength(p.mass_g, p.ingredient.id, k), ADVICE[k])
            for k in OF_FRESH
            if k != p.ingredient.id
        )
        for p in dough.portions
        if p.ingredient.id in OF_FRESH
    }


def leaven_parts(dough: Dough, powder: str = "double") -> tuple[LeavenPart, ...]:
    """Every leaven of a dough taken apart: starter into flour and water, powder and self-raising flour into soda and
    acid."""
    found = []
    for p in dough.portions:
        row = p.ingredient
        if row.is_yeast:
            parts: tuple[tuple[str, float], ...] = ()
        elif row.is_starter:
            parts = (("flour", p.mass_g * row.flour_frac), ("water", p.mass_g * row.counted_water_frac))
        elif row.is_other_leaven:
            parts = tuple((name, p.mass_g * share) for name, share in parts_of(row, powder))
        else:
            continue
        found.append(LeavenPart(row.id, row.name, p.mass_g, parts))
    return tuple(found)
