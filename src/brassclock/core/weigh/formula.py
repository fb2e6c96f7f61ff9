"""The weigh sheet: lines as typed become grams, shares of the flour, water, pieces and warnings."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import BadRequest, FieldFault, Input, Kind, Why, gather, refuse
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import Ingredient, table, unknown_text
from brassclock.core.units import Unreadable, parse_amount
from brassclock.core.weigh import geometry, measures
from brassclock.core.weigh.soda import SodaBalance, soda_balance

BOWL_LOSS_FRAC = 0.02  # practice: 1 to 3 % stays on bowl and hands
SCALE_STEP_G = 0.1
SMALL_G = 2.0
MAX_LINES = 60
MAX_PIECES = 500


@dataclass(frozen=True)
class TypedLine:
    """A line as the cook typed it: ingredient id, amount text, and the basis of a cup."""

    ingredient: str
    amount: str
    basis: str | float | None = None


@dataclass(frozen=True)
class PieceWish:
    """How many pieces of what mass; either may be missing."""

    count: int | None = None
    mass_g: float | None = None
    loss_frac: float = BOWL_LOSS_FRAC


@dataclass(frozen=True)
class Scaling:
    """What to scale to: pieces, flour, or the ingredient that runs out."""

    count: int | None = None
    mass_g: float | None = None
    flour_g: float | None = None
    limit_ingredient: str | None = None
    limit_g: float | None = None


@dataclass(frozen=True)
class SheetLine:
    """A read line: grams with their likely low and high, share of the flour, and the basis used."""

    ingredient: Ingredient
    typed: str
    mass_g: float
    low_g: float
    high_g: float
    basis: str
    baker_frac: float | None


@dataclass(frozen=True)
class Pieces:
    """How the dough divides."""

    count: int
    mass_g: float
    left_over_g: float


@dataclass(frozen=True)
class Measurable:
    """Ways to measure what is too little for a scale: text and the grams each gives."""

    ingredient: str
    ways: tuple[tuple[str, float], ...]


@dataclass(frozen=True)
class WeighSheet:
    """Everything the Weigh leaf shows."""

    dough: Dough
    lines: tuple[SheetLine, ...]
    pieces: Pieces | None
    sheet: geometry.Sheet | None
    soda: SodaBalance | None
    contradictions: tuple[tuple[str, str], ...]
    measurable: tuple[Measurable, ...]
    cautions: tuple[Caution, ...]
    why: dict[str, Why]


def read_lines(lines: Sequence[TypedLine], metric: bool = False) -> list[SheetLine]:
    """Lines in grams, without baker's percent. Raises BadRequest with every unreadable line."""
    faults: list[FieldFault] = []
    read: list[SheetLine] = []
    rows = table()
    if not lines:
        raise refuse("/lines", "There are no lines. Give at least one ingredient, as plain_flour, 450 g.")
    if len(lines) > MAX_LINES:
        raise refuse("/lines", f"{len(lines)} lines are too many. Give at most {MAX_LINES}.")
    for index, line in enumerate(lines):
        ingredient = rows.get(line.ingredient)
        if ingredient is None:
            faults.append(FieldFault(f"/lines/{index}/ingredient", unknown_text(line.ingredient)))
        basis = line.basis
        if isinstance(basis, int | float) and not 20 <= basis <= 500:
            faults.append(
                FieldFault(f"/lines/{index}/basis", f"A cup of {basis:g} g is not believable. Give 20 to 500 g.")
            )
            continue
        if isinstance(basis, str) and basis not in measures.BASES:
            words = ", ".join(measures.BASES)
            faults.append(
                FieldFault(f"/lines/{index}/basis", f"Basis “{basis[:30]}” is not known. Use {words} or grams per cup.")
            )
            continue
        try:
            amount = parse_amount(line.amount)
            if ingredient is not None:
                got = measures.grams(ingredient, amount, basis, metric)
                read.append(SheetLine(ingredient, line.amount, got.mass_g, got.low_g, got.high_g, got.basis, None))
        except Unreadable as fault:
            faults.append(FieldFault(f"/lines/{index}/amount", str(fault)))
    gather(faults)
    return read


def _scale_factor(dough: Dough, scaling: Scaling, loss_frac: float) -> float:
    if scaling.count and scaling.mass_g:
        return scaling.count * scaling.mass_g / (1 - loss_frac) / dough.total_g
    if scaling.flour_g:
        if dough.flour_g == 0:
            raise refuse("/scale_to/flour_g", "This formula has no flour to scale by. Add a flour.")
        return scaling.flour_g / dough.flour_g
    if scaling.limit_ingredient and scaling.limit_g:
        have = dough.mass_of(scaling.limit_ingredient)
        if have == 0:
            raise refuse(
                "/scale_to/limit/ingredient",
                f"“{scaling.limit_ingredient}” is not in this formula. Name one that is.",
            )
        return scaling.limit_g / have
    return 1.0


def _pieces(dough_g: float, wish: PieceWish) -> tuple[Pieces | None, list[tuple[str, str]]]:
    usable = dough_g * (1 - wish.loss_frac)
    if wish.count and wish.mass_g:
        need = wish.count * wish.mass_g
        left = usable - need
        if left < -0.03 * usable or left > 0.25 * usable + wish.mass_g * 0.5:
            fits = math.floor(usable / wish.mass_g + 1e-9)
            text = (
                f"{wish.count} pieces of {wish.mass_g:g} g need {need:.0f} g of dough; after {wish.loss_frac:.0%} "
                f"left on bowl and hands there are {usable:.0f} g: {fits} pieces of {wish.mass_g:g} g, "
                f"or {wish.count} of {usable / wish.count:.0f} g."
            )
            return Pieces(wish.count, wish.mass_g, left), [("pieces_vs_dough", text)]
        return Pieces(wish.count, wish.mass_g, left), []
    if wish.count:
        return Pieces(wish.count, usable / wish.count, 0.0), []
    if wish.mass_g:
        count = math.floor(usable / wish.mass_g + 1e-9)
        return Pieces(count, wish.mass_g, usable - count * wish.mass_g), []
    return None, []


def _volume_confusion(lines: Sequence[SheetLine], dough: Dough) -> list[tuple[str, str]]:
    """The cup ratio of liquid to flour taken for hydration, when both were typed in volumes."""
    flour = [x for x in lines if x.ingredient.flour_frac >= 0.9 and "cup" in x.basis]
    water = [x for x in lines if x.ingredient.id == "water" and "cup" in x.basis]
    if not flour or not water or dough.hydration_frac is None:
        return []
    volume_ratio = sum(x.mass_g / x.ingredient.cup_g for x in water) / sum(x.mass_g / x.ingredient.cup_g for x in flour)
    if abs(volume_ratio - dough.hydration_frac) < 0.15:
        return []
    text = (
        f"Cups of water over cups of flour is {volume_ratio:.0%}; by weight it is {dough.hydration_frac:.0%}. "
        "Hydration goes by weight."
    )
    return [("volume_ratio", text)]


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


def weigh(
    typed: Sequence[TypedLine],
    wish: PieceWish | None = None,
    shape: geometry.Shape | None = None,
    scaling: Scaling | None = None,
    metric: bool = False,
) -> WeighSheet:
    """The weigh sheet of a formula. Raises BadRequest with every fault found in it."""
    wish = wish or PieceWish()
    _check_wish(wish, shape)
    lines = read_lines(typed, metric)
    dough = dough_of(Portion(x.ingredient, x.mass_g) for x in lines)
    factor = _scale_factor(dough, scaling, wish.loss_frac) if scaling else 1.0
    if factor != 1.0:
        lines = [replace(x, mass_g=x.mass_g * factor, low_g=x.low_g * factor, high_g=x.high_g * factor) for x in lines]
        dough = dough_of(Portion(x.ingredient, x.mass_g) for x in lines)
    if dough.flour_g:
        lines = [replace(x, baker_frac=x.mass_g / dough.flour_g) for x in lines]
    pieces, contradictions = _pieces(dough.total_g, wish)
    piece_g = wish.mass_g or (pieces.mass_g if pieces else None)
    sheet = geometry.sheet_of(piece_g, shape) if piece_g and shape else None
    if piece_g and shape:
        said = geometry.disagreement(piece_g, shape)
        contradictions += [("thickness", said)] if said else []
    contradictions += _volume_confusion(lines, dough)
    cautions = [caution("raw_dough")] if dough.flour_g else []
    if not any(x.ingredient.is_yeast or x.ingredient.is_other_leaven for x in lines):
        cautions.append(caution("no_leaven"))
    small = tuple(m for m in map(_measurable, lines) if m)
    return WeighSheet(
        dough, tuple(lines), pieces, sheet, soda_balance(dough), tuple(contradictions), small,
        tuple(cautions), _whys(dough, lines, pieces, sheet, wish),
    )  # fmt: skip


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
        raise BadRequest(faults)


def _whys(
    dough: Dough,
    lines: Sequence[SheetLine],
    pieces: Pieces | None,
    sheet: geometry.Sheet | None,
    wish: PieceWish,
) -> dict[str, Why]:
    why = {
        "total_g": Why(
            "Dough weight", "m = Σ mᵢ", "Every line in grams, added up.",
            tuple(Input(x.ingredient.name, round(x.mass_g, 1), "g") for x in lines), Kind.ANALYTIC,
            _mass_spread(lines),
        ),
    }  # fmt: skip
    if dough.hydration_frac is not None:
        low, high = _hydration_spread(lines)
        wet = [x for x in lines if x.mass_g * x.ingredient.counted_water_frac > 0.005 * dough.flour_g]
        why["hydration_frac"] = Why(
            "True water",
            "H = Σ mᵢ·wᵢ / Σ mᵢ·fᵢ",
            "Water from the tap and water inside dairy, egg, butter and starter, over the flour. "
            "The moisture of the flour itself is left out, as bakers do.",
            (
                *(
                    Input(f"water in {x.ingredient.name}", round(x.mass_g * x.ingredient.counted_water_frac, 1), "g")
                    for x in wet
                ),
                Input("flour", round(dough.flour_g, 1), "g"),
            ),
            Kind.PUBLISHED_FROM_MEMORY,
            f"{low:.0%} to {high:.0%} with the way cups are filled" if high - low > 0.005 else "as weighed",
            ("how the flour cup was filled", "how wet the dairy is"),
            ("composition tables, rounded", "cup weights: common practice"),
        )
    if sheet:
        mass = wish.mass_g or (pieces.mass_g if pieces else 0.0)
        why["thickness_mm"] = Why(
            "Thickness", "t = m / (ρ·A)", "The piece spread evenly over its area.",
            (Input("piece", round(mass, 1), "g"), Input("area", round(sheet.area_cm2, 1), "cm²"),
             Input("density of a rolled sheet", round(geometry.sheet_density_g_cm3(), 2), "g/mL")),
            Kind.ANALYTIC, "3 % by density, more by an uneven sheet", ("the diameter: it counts twice",),
            ("density 1.25 g/mL gas-free: Campbell 1990s, from memory",),
        )  # fmt: skip
    return why


def _mass_spread(lines: Sequence[SheetLine]) -> str:
    low, high = sum(x.low_g for x in lines), sum(x.high_g for x in lines)
    return f"{low:.0f} to {high:.0f} g" if high - low > 1 else "as weighed"


def _hydration_spread(lines: Sequence[SheetLine]) -> tuple[float, float]:
    def share(flour: str, water: str) -> float:
        over = sum(getattr(x, water) * x.ingredient.counted_water_frac for x in lines)
        under = sum(getattr(x, flour) * x.ingredient.flour_frac for x in lines)
        return over / under if under else 0.0

    return share("high_g", "low_g"), share("low_g", "high_g")
