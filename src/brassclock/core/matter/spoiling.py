"""Foods that are kept cold before baking, and foods that must be hot inside before they are safe: common practice of
kitchens, no source."""

from __future__ import annotations

from collections.abc import Collection

from brassclock.core.matter.ingredients import Ingredient

HOLDS = {"minced_meat": "meat"}  # of known ingredients
BY_ALLERGEN = {"egg": "egg", "fish": "fish", "milk": "dairy"}
COOKED_AND_WET = ("potato_mash", "pulses_cooked")  # they spoil as dairy does, though they are plants


def holds_of(ingredient: Ingredient) -> tuple[str, ...]:
    """Contents of an ingredient among meat, fish, egg, dairy and plant; a cook's own filling of which nothing is said
    counts as meat.

    >>> from brassclock.core.matter.ingredients import table
    >>> [holds_of(table()[i]) for i in ("minced_meat", "paneer", "potato_mash")]
    [('meat',), ('dairy',), ('plant',)]
    """
    if ingredient.holds:
        return ingredient.holds
    if ingredient.id in HOLDS:
        return (HOLDS[ingredient.id],)
    if ingredient.group == "filling" and ingredient.source == "the cook's own":
        return ("meat",)
    return tuple(BY_ALLERGEN[a] for a in ingredient.allergens if a in BY_ALLERGEN) or ("plant",)


def must_be_hot(contains: Collection[str] | None) -> bool:
    """True if a filling is safe only once its coldest point was at 75 C: with meat, egg or fish, and where nobody says
    what it is.

    >>> must_be_hot(None), must_be_hot(["plant", "dairy"]), must_be_hot(["plant", "egg"])
    (True, False, True)
    """
    return not contains or not set(contains) <= {"plant", "dairy"}


def kept_cold(ingredient: Ingredient) -> bool:
    """True if it spoils in a warm room: meat, fish, egg, dairy, and cooked potato.

    >>> from brassclock.core.matter.ingredients import table
    >>> [i for i in ("minced_meat", "potato_mash", "paneer", "onion_chopped") if kept_cold(table()[i])]
    ['minced_meat', 'potato_mash', 'paneer']
    """
    return ingredient.id in COOKED_AND_WET or holds_of(ingredient) != ("plant",)
