"""Shapes that requests of the contract share: bounds, strict models, a dough by mass."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict

from brassclock.core.errors import FieldFault, gather, invalid
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.services.schemas.quantities import within

Mass = Annotated[float, within(0.001, 1_000_000, "g")]
Temp = Annotated[float, within(-30, 600, "C")]
Ratio = Annotated[float, within(1.01, 6, "x")]


class Request(BaseModel):
    """A field that is not known is refused by its name: nothing is accepted and ignored."""

    model_config = ConfigDict(extra="forbid", defer_build=True)


class StageEnds(Request):
    """The end of a stage: its rise, a time of so many minutes (least, most) that rules over its hours, or the change of
    its place; `skip` leaves it out."""

    hours: Annotated[float, within(0.01, 240, "h")] | None = None
    ends: Literal["rise", "time", "place"] | None = None
    minutes: tuple[Annotated[float, within(0, 14_400, "min")], Annotated[float, within(0, 14_400, "min")]] | None = None
    skip: bool = False

    def check(self, pointer: str) -> None:
        """Raise InvalidInput for an end that misses its time, or a time that runs backward."""
        if self.minutes is not None and self.minutes[0] > self.minutes[1]:
            low, high = self.minutes
            raise invalid(f"{pointer}/minutes", f"{low:g} to {high:g} min runs backward. Give the least first.")
        if self.ends == "time" and self.minutes is None and self.hours is None and not self.skip:
            raise invalid(f"{pointer}/minutes", "A stage that ends after a time needs one: minutes, least and most.")

    @property
    def length_h(self) -> float | None:
        """Hours of the stage: the middle of its minutes, else its own; 0 where it is left out."""
        if self.skip:
            return 0.0
        return sum(self.minutes) / 120 if self.minutes is not None else self.hours


def check_offsets(instants: Iterable[dt.datetime], pointer: str) -> None:
    """Raise InvalidInput at `pointer` where some instants have an offset and some have none."""
    if len({at.tzinfo is None for at in instants}) > 1:
        raise invalid(pointer, "Some instants have an offset and some have none. Give all alike.")


class MassLine(Request):
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
