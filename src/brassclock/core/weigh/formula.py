"""The weigh sheet: lines as typed become grams, shares of the flour, water, pieces and warnings."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.cautions import Caution, caution
from brassclock.core.errors import FieldFault, InvalidInput
from brassclock.core.evidence import Kind, Param, Why
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.spoiling import holds_of, kept_cold, must_be_hot
from brassclock.core.spoken import numbered
from brassclock.core.weigh import geometry
from brassclock.core.weigh.doubts import (
    cups_as_grams,
    other_counts,
    scaled_filling,
    unlikely_amounts,
    volume_confusion,
    weak_flours,
)
from brassclock.core.weigh.feel import Feel, feel_of
from brassclock.core.weigh.leavens import Equivalent, LeavenPart, equivalents, leaven_parts
from brassclock.core.weigh.lines import Kit, SheetLine, TypedLine, read_lines
from brassclock.core.weigh.scaling import Scaling, WholePieces, scale_factor, weighable_g, whole_pieces
from brassclock.core.weigh.self_raising import FlourSwap, flour_swaps
from brassclock.core.weigh.soda import SodaBalance, soda_balance
from brassclock.core.weigh.why import hydration_spread, whys

BOWL_LOSS_FRAC = Param(0.02, "-", 0.01, 0.03, Kind.PRACTICE, "stays on bowl and hands")
SMALL_G = 2.0
MAX_PIECES = 500


@dataclass(frozen=True)
class PieceWish:
    """Number of pieces and their mass [g]; either may be missing.

    `beside_g` is the mass of other breads' pieces from the same dough, `filled_beside` how many of those have the
    filling too.
    """

    count: int | None = None
    mass_g: float | None = None
    loss_frac: float = BOWL_LOSS_FRAC
    beside_g: float = 0.0
    filled_beside: int = 0


@dataclass(frozen=True)
class Pieces:
    """Division of the dough into pieces."""

    count: int
    mass_g: float
    left_over_g: float


@dataclass(frozen=True)
class Measurable:
    """Ways to measure what is too little for a scale: text and the grams each gives."""

    ingredient: str
    ways: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class Filling:
    """A stuffing or topping: its lines, grams per piece, and how heavy it is against the dough it lies in or on."""

    lines: tuple[SheetLine, ...]
    per_piece_g: float
    total_g: float
    to_dough_frac: float


@dataclass(frozen=True)
class WeighSheet:
    """Everything the Weigh leaf shows. `factor` is what the scaling multiplied every line by."""

    dough: Dough
    lines: tuple[SheetLine, ...]
    pieces: Pieces | None
    sheet: geometry.Sheet | None
    soda: SodaBalance | None
    contradictions: tuple[tuple[str, str], ...]
    measurable: tuple[Measurable, ...]
    cautions: tuple[Caution, ...]
    why: dict[str, Why]
    factor: float
    hydration_low: float
    hydration_high: float
    feel: Feel | None
    leavens: tuple[LeavenPart, ...]
    swaps: dict[str, tuple[Equivalent, ...]]
    flour_swaps: tuple[FlourSwap, ...]
    whole: tuple[WholePieces, ...]
    filling: Filling | None


def _pieces(dough_g: float, wish: PieceWish) -> tuple[Pieces | None, list[tuple[str, str]]]:
    usable = dough_g * (1 - wish.loss_frac) - wish.beside_g
    if usable <= 0:
        text = (
            f"The other breads take {wish.beside_g:.0f} g; after {wish.loss_frac:.0%} left on bowl and hands there are "
            f"{dough_g * (1 - wish.loss_frac):.0f} g of dough. Make more dough, or fewer of them."
        )
        given = Pieces(wish.count, wish.mass_g, usable) if wish.count and wish.mass_g else None
        return given, [("pieces_vs_dough", text)]
    if wish.count and wish.mass_g:
        need = wish.count * wish.mass_g
        left = usable - need
        if left < -0.03 * usable or left > 0.25 * usable + wish.mass_g * 0.5:
            fits = math.floor(usable / wish.mass_g + 1e-9)
            text = (
                f"{numbered(wish.count, 'piece')} of {wish.mass_g:g} g: {need:.0f} g of dough; after "
                f"{wish.loss_frac:.0%} left on bowl and hands{_and_others(wish)} there are {usable:.0f} g: "
                f"{numbered(fits, 'piece')} of {wish.mass_g:g} g, "
                f"or {wish.count} of {usable / wish.count:.0f} g."
            )
            return Pieces(wish.count, wish.mass_g, left), [("pieces_vs_dough", text)]
        return Pieces(wish.count, wish.mass_g, left), []
    if wish.count:
        return Pieces(wish.count, usable / wish.count, 0.0), []
    if wish.mass_g:
        count = math.floor(usable / wish.mass_g + 1e-9)
        return Pieces(count, wish.mass_g, usable - count * wish.mass_g), other_counts(usable, wish.mass_g, count)
    return None, []


def _and_others(wish: PieceWish) -> str:
    return f" and {wish.beside_g:.0f} g for the other breads" if wish.beside_g else ""


def _measurable(line: SheetLine) -> Measurable | None:
    row = line.ingredient
    if not (row.is_yeast or row.group == "leaven") or line.mass_g >= SMALL_G:
        return None
    ways: list[tuple[str, float]] = []
    spoons = ((1 / 8, "1/8 tsp"), (1 / 4, "1/4 tsp"), (1 / 2, "1/2 tsp"), (3 / 4, "3/4 tsp"), (1.0, "1 tsp"))
    part, name = min(spoons, key=lambda s: abs(math.log(s[0] * row.tsp_g / line.mass_g)))
    ways.append((f"{name}, level, is {part * row.tsp_g:.2f} g", part * row.tsp_g))
    if line.mass_g < 1.0:
        spoon_g = line.mass_g * 100
        ways.append((f"stir 1 g into 99 g of the water, use {spoon_g:.0f} g of that", line.mass_g))
    return Measurable(row.id, tuple(ways))


def _less_held(lines: list[SheetLine], held: Mapping[str, float]) -> list[SheetLine]:
    """Lines less what is held back, taken from the first line of each ingredient and never below nothing."""
    left = dict(held)
    out = []
    for x in lines:
        take = min(left.pop(x.ingredient.id, 0.0), x.mass_g)
        share = 1 - take / x.mass_g
        out.append(replace(x, mass_g=x.mass_g - take, low_g=x.low_g * share, high_g=x.high_g * share) if take else x)
    return out


def _filling(
    typed: Sequence[TypedLine], per_piece_g: float | None, pieces: Pieces | None, kit: Kit, beside: int = 0
) -> tuple[Filling | None, list[tuple[str, str]]]:
    """The filling scaled to what every piece gets, `beside` further ones too, and doubts about it."""
    if not typed:
        return None, []
    lines = read_lines(typed, kit)
    have_g = sum(x.mass_g for x in lines)
    count = (pieces.count if pieces else 1) + beside
    each = per_piece_g or have_g / max(count, 1)
    factor = each * count / have_g if per_piece_g else 1.0
    scaled = tuple(
        replace(x, mass_g=x.mass_g * factor, low_g=x.low_g * factor, high_g=x.high_g * factor) for x in lines
    )
    found = Filling(scaled, each, each * count, each / pieces.mass_g if pieces else 0.0)
    return found, scaled_filling(have_g, count, each)


def _cautions(dough: Dough, lines: Sequence[SheetLine], stuffed: Filling | None) -> tuple[Caution, ...]:
    """Cautions on a dough and its filling."""
    cautions = [caution("raw_dough")] if dough.flour_g else []
    if not any(x.ingredient.is_yeast or x.ingredient.is_other_leaven for x in lines):
        cautions.append(caution("no_leaven"))
    if stuffed and must_be_hot([what for x in stuffed.lines for what in holds_of(x.ingredient)]):
        cautions.append(caution("raw_filling"))
    elif stuffed and any(kept_cold(x.ingredient) for x in stuffed.lines):
        cautions.append(caution("cold_filling"))
    return tuple(cautions)


def _rolled(mass_g: float, shape: geometry.Shape, dough: Dough) -> tuple[geometry.Sheet | None, list[tuple[str, str]]]:
    """The sheet that so much gives in a shape, and what contradicts it."""
    kept = geometry.kept_gas_frac(dough)
    said = geometry.disagreement(mass_g, shape, kept_frac=kept)
    return geometry.sheet_of(mass_g, shape, kept_frac=kept), [("thickness", said)] if said else []


def weigh(
    typed: Sequence[TypedLine],
    wish: PieceWish | None = None,
    shape: geometry.Shape | None = None,
    scaling: Scaling | None = None,
    kit: Kit | None = None,
    filling: Sequence[TypedLine] = (),
    filling_g: float | None = None,
    held: Mapping[str, float] | None = None,
    topping: bool = False,
) -> WeighSheet:
    """The weigh sheet of a formula, with a filling of `filling_g` [g] a piece, less what is held back [g by
    ingredient]. The thickness of a filled piece is that of dough and filling together; a `topping` lies on the sheet.

    Raises InvalidInput with every fault.
    """
    wish, kit = wish or PieceWish(), kit or Kit()
    _check_wish(wish, shape)
    lines = _less_held(read_lines(typed, kit), held or {})
    dough = dough_of(Portion(x.ingredient, x.mass_g) for x in lines)
    factor = scale_factor(dough, scaling, wish.loss_frac) if scaling else 1.0
    if factor != 1.0:
        lines = [replace(x, mass_g=x.mass_g * factor, low_g=x.low_g * factor, high_g=x.high_g * factor) for x in lines]
        dough = dough_of(Portion(x.ingredient, x.mass_g) for x in lines)
    flour = dough.flour_g
    lines = [
        replace(x, baker_frac=x.mass_g / flour if flour else None, weighable_g=weighable_g(x.mass_g, kit.scale_step_g))
        for x in lines
    ]
    pieces, contradictions = _pieces(dough.total_g, wish)
    piece_g = wish.mass_g or (pieces.mass_g if pieces else None)
    stuffed, doubts = _filling(filling, filling_g, pieces, kit, wish.filled_beside)
    rolled_g = piece_g and piece_g + (stuffed.per_piece_g if stuffed and not topping else 0.0)
    sheet, said = _rolled(rolled_g, shape, dough) if rolled_g and shape else (None, [])
    contradictions += said
    contradictions += volume_confusion(lines, dough) + cups_as_grams(dough) + unlikely_amounts(lines, flour)
    contradictions += weak_flours(lines, flour)
    contradictions += doubts
    soda = soda_balance(dough, kit.powder)
    low, high = hydration_spread(lines)
    return WeighSheet(
        dough,
        tuple(lines),
        pieces,
        sheet,
        soda,
        tuple(contradictions),
        tuple(m for m in map(_measurable, lines) if m),
        _cautions(dough, lines, stuffed),
        whys(dough, lines, rolled_g, sheet, soda),
        factor,
        low,
        high,
        feel_of(dough),
        leaven_parts(dough, kit.powder),
        equivalents(dough),
        flour_swaps(dough, kit.powder),
        whole_pieces(lines),
        stuffed,
    )


def _check_wish(wish: PieceWish, shape: geometry.Shape | None) -> None:
    faults = []

    def check(pointer: str, value: float | None, low: float, high: float, unit: str) -> None:
        if value is not None and not (math.isfinite(value) and low <= value <= high):
            faults.append(FieldFault(pointer, f"{value:g}{unit} cannot be. Give {low:g} to {high:g}{unit}."))

    check("/pieces/count", wish.count, 1, MAX_PIECES, " pieces")
    check("/pieces/mass_g", wish.mass_g, 5, 5000, " g")
    check("/pieces/loss_frac", wish.loss_frac, 0, 0.3, "")
    if shape:
        check("/shape/diameter_cm", shape.diameter_cm, 3, 80, " cm")
        check("/shape/length_cm", shape.length_cm, 3, 120, " cm")
        check("/shape/width_cm", shape.width_cm, 3, 80, " cm")
        check("/shape/thickness_mm", shape.thickness_mm, 0.5, 60, " mm")
        if shape.kind not in ("round", "oval", "quarter"):
            faults.append(FieldFault("/shape/kind", f"“{shape.kind}” is no shape. Use round, oval or quarter."))
    if faults:
        raise InvalidInput(faults)
