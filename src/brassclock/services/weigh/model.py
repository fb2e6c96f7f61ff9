"""A bake on the scale: its typed lines, its shape, its weigh sheet, and what of it is the sponge's."""

from __future__ import annotations

from collections.abc import Mapping

from brassclock.core.matter.dough import Dough
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.weigh.formula import PieceWish, WeighSheet, weigh
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import TypedLine
from brassclock.services.bake.parts import beside_g, filled_beside
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.kitchen.pantry import kit_of
from brassclock.store.tables import Bake, Kitchen


def shape_of(bake: Bake) -> Shape:
    return Shape(bake.shape, bake.diameter_cm, bake.length_cm, bake.width_cm, bake.thickness_mm)


def lines_of(bake: Bake) -> list[TypedLine]:
    """The formula, and what was put in beside it."""
    lines = [TypedLine(x["ingredient"], x["amount"], x.get("basis"), x.get("part", "")) for x in bake.lines]
    return lines + [TypedLine(x["ingredient"], x["amount"], None, "added") for x in bake.additions]


def sheet_of(bake: Bake, kitchen: Kitchen, own: Mapping[str, Ingredient]) -> WeighSheet:
    """The weigh sheet of a bake. Raises InvalidInput."""
    stuffing = bake.filling or {}
    inside = [TypedLine(x["ingredient"], x["amount"], x.get("basis")) for x in stuffing.get("lines", ())]
    return weigh(
        lines_of(bake),
        PieceWish(bake.count, bake.piece_g, beside_g=beside_g(bake), filled_beside=filled_beside(bake)),
        shape_of(bake),
        None,
        kit_of(kitchen, own),
        inside,
        stuffing.get("per_piece_g"),
        bake.held,
        bool(stuffing.get("topping")),
    )


def dough_and_sponge(r: BakeSnapshot) -> tuple[Dough, dict[str, float]]:
    """The dough of a bake, and the grams of each ingredient in its sponge. Raises InvalidInput."""
    sheet = sheet_of(r.bake, r.kitchen, r.own)
    return sheet.dough, sponge_g(r.bake, sheet, 1.0)


def sponge_g(bake: Bake, sheet: WeighSheet, factor: float) -> dict[str, float]:
    """Grams of each ingredient in the part called sponge."""
    found: dict[str, float] = {}
    for typed, line in zip(lines_of(bake), sheet.lines, strict=False):
        if typed.part == "sponge":
            times = factor if line.ingredient.is_ferment else 1.0
            found[line.ingredient.id] = found.get(line.ingredient.id, 0.0) + line.mass_g * times
    return found
