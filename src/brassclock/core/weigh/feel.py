"""Feel of a dough, and additions while kneading. Common practice and judgement throughout.

`effective` hydration is water with its share of fat and sugar, less what this flour drinks (matter.dough).
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough

FEELS = (  # judgement: upper edge of effective hydration
    (0.50, "stiff", "Hard to knead by hand; rests help more than water."),
    (0.60, "firm", "Kneads clean, rolls without flour."),
    (0.68, "soft", "Soft and smooth; tacky at first, then clean."),
    (0.76, "sticky", "Sticks to the hand; wet hands or folds instead of flour."),
    (0.95, "slack", "Too wet to knead: stir, fold, flour it at shaping."),
)
SET_BY = "set by hand so that what cooks commonly say of fifteen doughs holds for fourteen"
# fat makes a dough give at less water, milk solids keep it off the hand at more: shifts of the edges of firm and soft
SOFTER_PER_FAT = Param(0.8, "-", 0.4, 1.2, Kind.JUDGEMENT, SET_BY)
MOST_SOFTER = Param(0.05, "-", 0.03, 0.08, Kind.JUDGEMENT, SET_BY)
CLEANER_BY_MILK = Param(0.05, "-", 0.03, 0.08, Kind.JUDGEMENT, SET_BY)
POURABLE = ("pourable", "A batter: it is spooned or poured, not shaped.")
MOST_ADDED_FRAC = Param(
    0.03, "-", 0.02, 0.06, Kind.PRACTICE, "of the flour: beyond that the formula, not the hand, is wrong"
)
STEP_FRAC = Param(0.01, "-", 0.005, 0.02, Kind.PRACTICE, "of the flour, at a time")


@dataclass(frozen=True)
class Feel:
    """The word for a dough, what that means for the hands, and the effective hydration behind it."""

    word: str
    means: str
    effective_frac: float


@dataclass(frozen=True)
class Handful:
    """Advice on a feel: grams to add (0 for none), of what, and how long to rest first [min]."""

    feel: str
    add: str | None
    grams: float
    rest_min: float
    text: str


def feel_of(dough: Dough) -> Feel | None:
    """Words for the feel of the dough; None without flour."""
    effective = dough.effective_hydration_frac
    if effective is None:
        return None
    shifts = {
        "firm": -min(SOFTER_PER_FAT * dough.fat_frac, MOST_SOFTER),
        "soft": CLEANER_BY_MILK * _milk_share(dough),
    }
    for edge, word, means in FEELS:
        if effective < edge + shifts.get(word, 0.0):
            return Feel(word, means, effective)
    return Feel(*POURABLE, effective)


def _milk_share(dough: Dough) -> float:
    """Share of the water that comes with milk, yoghurt or cheese."""
    water = {p.ingredient.id: p.mass_g * p.ingredient.counted_water_frac for p in dough.portions}
    milk = sum(water[p.ingredient.id] for p in dough.portions if "milk" in p.ingredient.allergens)
    return milk / sum(water.values()) if sum(water.values()) else 0.0


def handful(feel: str, dough: Dough, added_flour_g: float = 0.0, added_water_g: float = 0.0) -> Handful:
    """The next small step for `sticky`, `stiff`, `tears` or `springs_back`, given what was added so far [g].

    Never more than 3 % of the flour in all; past that it says to leave it.
    """
    step = round(dough.flour_g * STEP_FRAC)
    room_flour = dough.flour_g * MOST_ADDED_FRAC - added_flour_g
    room_water = dough.flour_g * MOST_ADDED_FRAC - added_water_g
    if feel == "sticky":
        if room_flour < step * 0.5:
            return Handful(
                feel, None, 0.0, 10.0, "That is flour enough. Oil the hands, fold it, rest 10 min: it tightens."
            )
        return Handful(
            feel,
            "flour",
            min(step, room_flour),
            5.0,
            f"Rest 5 min first; most stickiness goes. Still sticky: {min(step, room_flour):.0f} g flour.",
        )
    if feel == "stiff":
        if room_water < step * 0.5:
            return Handful(
                feel, None, 0.0, 15.0, "That is water enough. Cover it and rest 15 min: the flour still drinks."
            )
        return Handful(
            feel,
            "water",
            min(step, room_water),
            5.0,
            f"Wet the hands: {min(step, room_water):.0f} g water, kneaded in over two minutes.",
        )
    if feel == "tears":
        return Handful(
            feel, None, 0.0, 10.0, "Stop and rest it 10 min, covered; then fold, do not pull. Nothing is added."
        )
    return Handful(
        feel, None, 0.0, 3.0, "It is tight, not dry: rest it 3 min, up to 10, and roll again. Nothing is added."
    )
