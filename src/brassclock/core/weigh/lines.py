"""Lines as typed become lines in grams; every line that cannot be read is told at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from brassclock.core.errors import FieldFault, gather, invalid
from brassclock.core.matter.ingredients import Ingredient, table, unknown_text
from brassclock.core.units import Unreadable, parse_amount
from brassclock.core.weigh import measures

MAX_LINES = 60


@dataclass(frozen=True)
class Kit:
    """Measures of a kitchen: its ingredients, its cups and spoons where they are no US ones [mL], its own cup of flour,
    its scale, its powder."""

    rows: Mapping[str, Ingredient] = field(default_factory=table)
    own_ml: Mapping[str, float] = field(default_factory=dict)
    flour_cup: str | float | None = None
    scale_step_g: float = 0.1
    powder: str = "double"

    def basis_for(self, ingredient: Ingredient, basis: str | float | None) -> str | float | None:
        """The basis of a cup: the line's own, else the kitchen's for flour."""
        return self.flour_cup if basis is None and ingredient.group == "flour" else basis


@dataclass(frozen=True)
class TypedLine:
    """A line as the cook typed it: ingredient id, amount text, the basis of a cup, the part of the work it joins."""

    ingredient: str
    amount: str
    basis: str | float | None = None
    part: str = ""


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
    weighable_g: float = 0.0

    @property
    def rounding_frac(self) -> float:
        """Relative error of the weighable amount."""
        return self.weighable_g / self.mass_g - 1 if self.mass_g else 0.0


def read_lines(lines: Sequence[TypedLine], kit: Kit | None = None) -> list[SheetLine]:
    """Lines in grams, without baker's percent. Raises InvalidInput with every unreadable line."""
    kit = kit or Kit()
    faults: list[FieldFault] = []
    read: list[SheetLine] = []
    if not lines:
        raise invalid("/lines", "There are no lines. Give at least one ingredient, as plain_flour, 450 g.")
    if len(lines) > MAX_LINES:
        raise invalid("/lines", f"{len(lines)} lines are too many. Give at most {MAX_LINES}.")
    for index, line in enumerate(lines):
        ingredient = kit.rows.get(line.ingredient)
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
                got = measures.grams(ingredient, amount, kit.basis_for(ingredient, basis), kit.own_ml)
                read.append(
                    SheetLine(ingredient, line.amount.strip(), got.mass_g, got.low_g, got.high_g, got.basis, None)
                )
        except Unreadable as fault:
            faults.append(FieldFault(f"/lines/{index}/amount", str(fault)))
    gather(faults)
    return read
