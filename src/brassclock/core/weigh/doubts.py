"""Doubts about a weigh sheet: amounts and counts that were probably meant otherwise, each as (code, sentence)."""

from __future__ import annotations

from collections.abc import Sequence

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough
from brassclock.core.spoken import numbered
from brassclock.core.weigh.lines import SheetLine

WATERY = 0.8  # judgement: of its mass; a liquid that is taken for water by the cup
BELIEVABLE_WATER = (0.30, 1.30)  # of the flour: batters above, crackers below
WEAK_FLOURS = (  # with little gluten or none
    "rye_light",
    "rye_whole",
    "barley_flour",
    "oat_flour",
    "buckwheat_flour",
    "maize_flour",
    "rice_flour",
    "chickpea_flour",
)
WEAK_FROM = Param(0.3, "-", 0.2, 0.5, Kind.JUDGEMENT, "of the flour with little gluten: the dough is another one")
_MEMORY = "upper end of household formulas, from memory"
MOST_OF_FLOUR = {  # by ingredient id; more than this of the flour is questioned
    "salt_fine": Param(0.04, "1", 0.03, 0.05, Kind.PRACTICE, _MEMORY),
    "salt_flaky": Param(0.04, "1", 0.03, 0.05, Kind.PRACTICE, _MEMORY),
    "salt_coarse": Param(0.04, "1", 0.03, 0.05, Kind.PRACTICE, _MEMORY),
    "yeast_instant": Param(0.04, "1", 0.03, 0.05, Kind.PRACTICE, _MEMORY),
    "yeast_osmotolerant": Param(0.04, "1", 0.03, 0.05, Kind.PRACTICE, _MEMORY),
    "yeast_active": Param(0.05, "1", 0.035, 0.06, Kind.PRACTICE, _MEMORY),
    "yeast_fresh": Param(0.12, "1", 0.09, 0.15, Kind.PRACTICE, _MEMORY),
    "baking_soda": Param(0.03, "1", 0.02, 0.04, Kind.PRACTICE, _MEMORY),
    "baking_powder": Param(0.10, "1", 0.07, 0.12, Kind.PRACTICE, _MEMORY),
}
SCALED_FACTOR = Param(1.5, "1", 1.2, 2.0, Kind.JUDGEMENT, "a filling scaled by more than this is said")
LEFT_FRAC = Param(0.04, "1", 0.02, 0.08, Kind.JUDGEMENT, "of the dough over: the next count is offered")


def volume_confusion(lines: Sequence[SheetLine], dough: Dough) -> list[tuple[str, str]]:
    """The cup ratio of liquid to flour taken for hydration, when both were typed in volumes."""
    flour = [x for x in lines if x.ingredient.flour_frac >= 0.9 and "cup" in x.basis]
    water = [
        x for x in lines if x.ingredient.group == "liquid" and x.ingredient.water_frac >= WATERY and "cup" in x.basis
    ]
    if not flour or not water or dough.hydration_frac is None:
        return []
    volume_ratio = sum(x.mass_g / x.ingredient.cup_g for x in water) / sum(x.mass_g / x.ingredient.cup_g for x in flour)
    if abs(volume_ratio - dough.hydration_frac) < 0.15:
        return []
    text = (
        f"Cups of {_named(water)} over cups of flour is {volume_ratio:.0%}; "
        f"by weight it is {dough.hydration_frac:.0%}. "
        "Hydration goes by weight."
    )
    return [("volume_ratio", text)]


def _named(liquids: Sequence[SheetLine]) -> str:
    """Names of the liquids, as water and milk."""
    return " and ".join(dict.fromkeys(x.ingredient.name.split(",")[0].lower() for x in liquids))


def cups_as_grams(dough: Dough) -> list[tuple[str, str]]:
    """Water that no flour can hold: a cup was probably written as grams."""
    h = dough.hydration_frac
    if h is None or not dough.water_g or BELIEVABLE_WATER[0] <= h <= BELIEVABLE_WATER[1]:
        return []
    text = f"Water is {h:.0%} of the flour. Were cups written as grams, or grams as cups?"
    return [("cups_as_grams", text)]


def weak_flours(lines: Sequence[SheetLine], flour_g: float) -> list[tuple[str, str]]:
    """Flours with little gluten, where they are so much that the dough is no wheat dough any more."""
    weak = [x for x in lines if x.ingredient.id in WEAK_FLOURS]
    share = sum(x.mass_g for x in weak) / flour_g if flour_g else 0.0
    if share < WEAK_FROM:
        return []
    names = " and ".join(dict.fromkeys(x.ingredient.name.lower() for x in weak))
    text = (
        f"{share:.0%} of the flour has little gluten or none: {names}. It holds less gas and tears, and seldom opens a "
        "pocket; what is told of its rise and its heat is that of wheat."
    )
    return [("weak_flour", text)]


def unlikely_amounts(lines: Sequence[SheetLine], flour_g: float) -> list[tuple[str, str]]:
    """Salt and leavens of which there is more than any usual formula has."""
    sums: dict[str, float] = {}
    for x in lines:
        sums[x.ingredient.id] = sums.get(x.ingredient.id, 0.0) + x.mass_g
    names = {x.ingredient.id: x.ingredient.name for x in lines}
    return [
        (
            f"much_{key}",
            f"{names[key]} is {grams / flour_g:.0%} of the flour; {MOST_OF_FLOUR[key]:.0%} is much already. "
            "A spoon too many, or a point in the wrong place?",
        )
        for key, grams in sums.items()
        if flour_g and key in MOST_OF_FLOUR and grams > MOST_OF_FLOUR[key] * flour_g
    ]


def other_counts(usable_g: float, piece_g: float, count: int) -> list[tuple[str, str]]:
    """The counts on both sides, when whole pieces of a wished weight [g] leave dough over."""
    left = usable_g - count * piece_g
    if not count or left <= LEFT_FRAC * usable_g:
        return []
    text = f"{count} of {piece_g:g} g and {left:.0f} g over, or {count + 1} of {usable_g / (count + 1):.0f} g."
    return [("left_over", text)]


def scaled_filling(have_g: float, count: int, per_piece_g: float) -> list[tuple[str, str]]:
    """A filling whose typed lines are far from what its pieces want [g]."""
    need_g = count * per_piece_g
    factor = need_g / have_g if have_g else 1.0
    if 1 / SCALED_FACTOR <= factor <= SCALED_FACTOR:
        return []
    text = (
        f"The filling as typed is {have_g:.0f} g; {numbered(count, 'piece')} with {per_piece_g:g} g each: "
        f"{need_g:.0f} g, so its lines are shown times {factor:.2g}."
    )
    return [("filling_scaled", text)]
