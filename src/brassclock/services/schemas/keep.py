"""Shapes of the Keep leaf."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from brassclock.core.terms import Pocket
from brassclock.services.schemas.base import Shape, Strict


class OutcomeUpdate(Strict):
    round_no: Annotated[int, Field(ge=1, le=500)]
    pocket: Pocket | None = None
    colour: Literal["pale", "right", "dark"] | None = None


class OutcomeRead(Shape):
    round_no: int
    pocket: str | None
    colour: str | None


class FactRead(Shape):
    """Forecast beside fact. `place` is 0 at p10 and 1 at p90."""

    name: str
    unit: str
    said: float | None
    p10: float | None
    p90: float | None
    was: float | None
    place: float | None
    inside: bool | None


class RoundRead(Shape):
    """A round on the heat by the name of its bread; several pieces where they go in one tray."""

    round_no: int
    name: str
    pieces: int


class KeepRead(Shape):
    rounds: list[RoundRead]
    outcomes: list[OutcomeRead]
    facts: list[FactRead]
    activity_before: float
    activity_after: float
