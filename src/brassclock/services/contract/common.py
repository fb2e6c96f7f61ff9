"""Shapes that requests of the contract share: bounds, lenient models, a dough by mass."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, ConfigDict

from brassclock.core.errors import FieldFault, gather
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.services.schemas.quantities import within

Mass = Annotated[float, within(0.001, 1_000_000, "g")]
Temp = Annotated[float, within(-30, 600, "C")]
Ratio = Annotated[float, within(1.01, 6, "x")]


class Loose(BaseModel):
    """Extra fields are welcome and ignored."""

    model_config = ConfigDict(extra="ignore", defer_build=True)


class MassLine(Loose):
    ingredient: str
    mass_g: Mass


def portions_of(lines: list[MassLine], pointer: str) -> tuple[Portion, ...]:
    """Lines as portions; every unknown ingredient is named at its place under `pointer`."""
    known = table()
    gather(
        FieldFault(f"{pointer}/{i}/ingredient", unknown_text(x.ingredient))
        for i, x in enumerate(lines)
        if x.ingredient not in known
    )
    return tuple(Portion(known[x.ingredient], x.mass_g) for x in lines)


def mass_dough(lines: list[MassLine]) -> Dough:
    return dough_of(portions_of(lines, "/lines"))
