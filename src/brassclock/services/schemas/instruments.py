"""Shapes of instruments and their readings."""

import datetime as dt
from typing import Annotated, Literal

from brassclock.core.terms import PlaceKey
from brassclock.services.schemas.base import ClockRead, Shape, Strict
from brassclock.services.schemas.quantities import RowId, within

ChannelUse = Literal["air", "dough", "surface", "scale"]


class Taken(Shape):
    """Answer to readings that were sent: how many are new, how many were there already, and of which channels; the
    kitchen's clock to stamp the next by. `wants_g`: what the scale is to show next, while somebody weighs."""

    taken: int
    known: int
    channels: list[str]
    clock: ClockRead
    wants_g: float | None


class ChannelUpdate(Strict):
    """The quantity that a channel measures: the air of a place, the dough of a bake (none: the one that rises), a
    surface, the scale; nothing where `use` is null."""

    use: ChannelUse | None
    place: PlaceKey | None = None
    bake_id: RowId | None = None
    surface_id: RowId | None = None


class CoursePoint(Shape):
    at: dt.datetime
    value: float


class ChannelRead(Shape):
    """A channel: what it is used for, its latest value, why it is not believed, and its last hours made short."""

    id: int
    device_id: int
    device: str
    name: str
    quantity: str
    use: ChannelUse | None
    place: PlaceKey | None
    bake_id: int | None
    surface_id: int | None
    value: float | None
    at: dt.datetime | None
    doubt: str | None
    doubt_since: dt.datetime | None
    text: str | None
    course: list[CoursePoint]


class InstrumentRead(Shape):
    """An instrument with its channels; one that has sent nothing yet has none."""

    id: int
    name: str
    seen_at: dt.datetime | None
    channels: list[ChannelRead]


class InstrumentList(Shape):
    clock: ClockRead
    instruments: list[InstrumentRead]


class ScaleQuery(Strict):
    """The weight that the weighing page waits for [g], by the scale's own display."""

    wants_g: Annotated[float, within(-60_000, 60_000, "g")] | None = None


class ScaleRead(Shape):
    """The display of the scale: its weight, and the weight it stands still at; none where it has not been heard just
    now."""

    value_g: float | None
    still_g: float | None
    at: dt.datetime | None


class SurfaceSeenRead(Shape):
    """The heat of a surface by its pyrometer, and the heat it has settled at."""

    surface_id: int
    value_c: float
    settled_c: float | None
    at: dt.datetime


class InstrumentNote(Shape):
    """A sentence about an instrument that is not believed."""

    channel_id: int
    text: str
