"""Quantities and texts that requests share, with their bounds."""

import math
from typing import Annotated

from pydantic import AfterValidator, Field, StringConstraints

MAX_NOTE = 20_000


def _finite(value: float) -> float:
    if not math.isfinite(value):
        raise ValueError("This must be a plain number, not NaN or infinite.")
    return value


def within(low: float, high: float, unit: str) -> AfterValidator:
    """For `Annotated`: a finite number between low and high; the error names both and what was given."""

    def check(value: float) -> float:
        _finite(value)
        if not low <= value <= high:
            raise ValueError(f"{value:g} {unit} cannot be. Give {low:g} to {high:g} {unit}.".replace("  ", " "))
        return value

    return AfterValidator(check)


TempC = Annotated[float, within(-30, 600, "C")]


AirC = Annotated[float, within(-30, 60, "C")]


PieceG = Annotated[float, within(5, 5000, "g")]


SizeCm = Annotated[float, within(3, 120, "cm")]


ThickMm = Annotated[float, within(0.5, 60, "mm")]


RowId = Annotated[int, Field(ge=1, le=2_147_483_647)]


Small = Annotated[int, Field(ge=1, le=500)]


Name = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=80)]


Note = Annotated[str, StringConstraints(max_length=MAX_NOTE)]


Key = Annotated[str, StringConstraints(min_length=4, max_length=64, pattern=r"^[A-Za-z0-9_-]+$")]
