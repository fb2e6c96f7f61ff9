"""Scaling a formula: to pieces, to flour, to what runs out; amounts a scale can show; eggs that cannot be halved."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough
from brassclock.core.weigh.lines import SheetLine

EGG_WATER_PER_G = Param(0.76, "g/g", 0.74, 0.77, Kind.PUBLISHED_FROM_MEMORY, "composition tables")


@dataclass(frozen=True)
class Scaling:
    """Target of a scaling: pieces (and `beside_g` [g] of other breads), flour, or the ingredient that runs out."""

    count: int | None = None
    mass_g: float | None = None
    flour_g: float | None = None
    limits: tuple[tuple[str, float], ...] = ()
    beside_g: float = 0.0


@dataclass(frozen=True)
class WholePieces:
    """Something counted in whole pieces (an egg) that scaling left in parts: what to do."""

    ingredient: str
    text: str


def scale_factor(dough: Dough, scaling: Scaling, loss_frac: float) -> float:
    """Factor [1] by which every line is multiplied. Several limits: the first to run out decides. Raises
    InvalidInput."""
    if scaling.count and scaling.mass_g:
        return (scaling.count * scaling.mass_g + scaling.beside_g) / (1 - loss_frac) / dough.total_g
    if scaling.flour_g:
        if dough.flour_g == 0:
            raise invalid("/scale_to/flour_g", "This formula has no flour to scale by. Add a flour.")
        return scaling.flour_g / dough.flour_g
    factors = []
    for ingredient, have_g in scaling.limits:
        need_g = dough.mass_of(ingredient)
        if need_g == 0:
            raise invalid("/scale_to/limit/ingredient", f"“{ingredient}” is not in this formula. Name one that is.")
        factors.append(have_g / need_g)
    return min(factors, default=1.0)


def weighable_g(mass_g: float, step_g: float) -> float:
    """The nearest amount a scale of that step can show, never nothing.

    >>> weighable_g(4.58, 0.1), weighable_g(0.3, 1.0)
    (4.6, 1.0)
    """
    return round(max(round(mass_g / step_g), 1) * step_g, 6)


def whole_pieces(lines: Sequence[SheetLine]) -> tuple[WholePieces, ...]:
    """Advice for eggs and yolks that come out in parts: beat and weigh, or round and correct the water."""
    found = []
    for line in lines:
        row = line.ingredient
        if row.piece_g is None or row.piece_unit != "piece":
            continue
        count = line.mass_g / row.piece_g
        whole = max(round(count), 0)
        if abs(count - whole) < 0.08:
            continue
        fewer = int(count)
        lacking = (count - fewer) * row.piece_g * row.counted_water_frac
        name = row.name.lower()
        rest = (
            f"{fewer} whole and {lacking:.0f} g more water or milk"
            if fewer
            else f"{lacking:.0f} g water or milk instead"
        )
        found.append(
            WholePieces(row.id, f"{count:.1f} of {name}: beat and weigh out {line.mass_g:.0f} g, or take {rest}.")
        )
    return tuple(found)
