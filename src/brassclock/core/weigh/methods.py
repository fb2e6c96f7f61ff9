"""The methods: a school's formula, strength, temperatures, stages and shape, as data of our own.

This release carries the first; the others follow with their leavens.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.weigh.formula import TypedLine


@dataclass(frozen=True)
class Method:
    """A school with its formula for eight breads, and what the other leaves start from."""

    id: str
    name: str
    school: str
    why: str
    lines: tuple[TypedLine, ...]
    strength: str
    dough_c: float
    knead: str
    knead_min: float
    count: int
    piece_g: float
    diameter_cm: float
    bulk_ratio: float
    ball_ratio: float
    surfaces: tuple[str, ...]
    intent: str
    seal: str


def _lines(*rows: tuple[str, str]) -> tuple[TypedLine, ...]:
    return tuple(TypedLine(ingredient, amount) for ingredient, amount in rows)


METHODS: dict[str, Method] = {
    "hatch-pita": Method(
        id="hatch-pita",
        name="Hatch pitas",
        school="Quick yeast, pocket wanted",
        why=(
            "A warm, well-fed dough doubles within two hours; knocked back and rolled level it keeps "
            "few large bubbles, so the steam has one seam to open."
        ),
        lines=_lines(
            ("plain_flour", "321 g"),
            ("bread_flour", "137 g"),
            ("water", "284 g"),
            ("oil", "13.7 g"),
            ("sugar", "6.9 g"),
            ("salt_fine", "8.7 g"),
            ("yeast_instant", "4.6 g"),
        ),
        strength="kneaded",
        dough_c=26.0,
        knead="hand",
        knead_min=8.0,
        count=8,
        piece_g=95.0,
        diameter_cm=18.0,
        bulk_ratio=1.9,
        ball_ratio=1.4,
        surfaces=("stone_oven", "iron_plate", "steel_oven", "skillet"),
        intent="pocket",
        seal="round",
    ),
    "blank": Method(
        id="blank",
        name="From nothing",
        school="Your own formula",
        why="Type what goes in the bowl; the program reads flour, water and leaven from your lines.",
        lines=(),
        strength="kneaded",
        dough_c=25.0,
        knead="hand",
        knead_min=8.0,
        count=8,
        piece_g=95.0,
        diameter_cm=18.0,
        bulk_ratio=2.0,
        ball_ratio=1.4,
        surfaces=("stone_oven", "iron_plate", "steel_oven", "skillet"),
        intent="pocket",
        seal="square",
    ),
}
