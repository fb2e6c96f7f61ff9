"""Shapes of the Mix leaf."""

from typing import Annotated

from brassclock.services.schemas.base import CautionRead, Edit, Shape, WhyRead
from brassclock.services.schemas.quantities import within


class BloomCreate(Edit):
    """Minutes until the yeast foamed; null when it did not within 15."""

    minutes: Annotated[float, within(1, 60, "min")] | None


class GuideStepRead(Shape):
    text: str
    minutes: float


class WarmedRead(Shape):
    ingredient: str
    name: str
    temp_c: float


class PartRead(Shape):
    """A part of the bowl and the temperature it goes in at."""

    ingredient: str
    name: str
    grams: float
    temp_c: float
    liquid: bool
    given: bool


class HeatRow(Shape):
    name: str
    joules: float


class MixRead(Shape):
    dough_temp_c: float
    target_c: float
    liquid: str
    liquid_name: str
    liquid_g: float
    liquid_temp_c: float | None
    wanted_liquid_c: float | None
    limit_c: float
    ice_g: float
    room_c: float
    flour_c: float
    contributions: list[HeatRow]
    rule_liquid_c: float | None
    rule_factor_c: float | None
    advice: str
    others: list[WarmedRead]
    parts: list[PartRead]
    cue: str
    bloom: str
    bloom_said: str
    order: list[str]
    guide: list[GuideStepRead]
    tests: list[str]
    friction_factor: float
    friction_times: int
    seen_c: float | None
    cautions: list[CautionRead]
    why: dict[str, WhyRead]
