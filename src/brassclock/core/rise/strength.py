"""Strength of a dough, a key of STRENGTH_S: it holds its gas by what is in it and by its kneading.

The first that holds is taken: bran and weak flours, no kneading, richness, a strong flour kneaded long, and else a
plain kneaded dough. The shares and minutes are judgement; of our own formulas with yeast or a starter one, the semolina
round, is given otherwise than its school has it.
"""

from __future__ import annotations

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough
from brassclock.core.terms import Strength
from brassclock.core.weigh.doubts import WEAK_FLOURS
from brassclock.core.weigh.soda import WHOLE_FLOURS

WHOLE_FROM = Param(0.5, "-", 0.35, 0.65, Kind.JUDGEMENT, "of the flour wholemeal or weak: bran decides")
RICH_FROM = Param(0.09, "-", 0.07, 0.12, Kind.JUDGEMENT, "fat, sugar and protein that is not the flour's, over flour")
STRONG_FROM = Param(0.5, "-", 0.35, 0.65, Kind.JUDGEMENT, "of the flour strong white")
WELL_KNEADED_MIN = {  # practice: minutes after which a strong flour stretches thin, by the way of kneading
    "hand": 10.0,
    "planetary": 8.0,
    "spiral": 6.0,
    "processor": 1.0,
}
RISES_TO: dict[Strength, tuple[float, float]] = {  # practice: times its size, the dough and its balls
    "developed": (2.0, 1.4),
    "kneaded": (1.9, 1.4),
    "enriched": (1.9, 1.3),
    "wet_unkneaded": (1.8, 1.2),
    "wholemeal": (1.6, 1.2),
}
UNKNEADED = ("none", "no_knead")
STRONG_FLOURS = ("bread_flour",)


def _share(dough: Dough, ids: tuple[str, ...]) -> float:
    """Share of the flour that is of these ingredients."""
    return sum(p.mass_g * p.ingredient.flour_frac for p in dough.portions if p.ingredient.id in ids) / dough.flour_g


def _richness(dough: Dough) -> float:
    """Fat, sugar and protein beside the flour's and the leaven's own, over flour."""
    beside = [p for p in dough.portions if p.ingredient.flour_frac == 0 and p.ingredient.group != "leaven"]
    solids = sum(
        p.mass_g * (p.ingredient.fat_frac + p.ingredient.sugar_frac + p.ingredient.protein_frac) for p in beside
    )
    return solids / dough.flour_g


def strength_of(dough: Dough, knead: str, knead_min: float) -> Strength:
    """Strength of a dough that is kneaded so [`knead_min` in min]; of one without flour that of a plain dough.

    >>> from brassclock.core.matter.dough import dough_of_masses
    >>> whole = dough_of_masses([("wholemeal", 400), ("plain_flour", 100), ("water", 350), ("yeast_instant", 5)])
    >>> wet = dough_of_masses([("plain_flour", 500), ("water", 380)])
    >>> strength_of(whole, "hand", 8), strength_of(wet, "no_knead", 3)
    ('wholemeal', 'wet_unkneaded')
    """
    if not dough.flour_g:
        return "kneaded"
    if _share(dough, (*WHOLE_FLOURS, *WEAK_FLOURS)) >= WHOLE_FROM:
        return "wholemeal"
    if knead in UNKNEADED:
        return "wet_unkneaded"
    if _richness(dough) >= RICH_FROM:
        return "enriched"
    well = knead_min >= WELL_KNEADED_MIN.get(knead, WELL_KNEADED_MIN["hand"])
    return "developed" if well and _share(dough, STRONG_FLOURS) >= STRONG_FROM else "kneaded"
