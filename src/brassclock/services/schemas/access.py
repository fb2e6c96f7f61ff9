"""Shapes of who may ask: sign-in, devices, a guest's view."""

import datetime as dt
from typing import Annotated

from pydantic import StringConstraints

from brassclock.services.schemas.base import ClockRead, Shape, Strict
from brassclock.services.schemas.quantities import RowId

DeviceName = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]


class SignIn(Strict):
    """The passcode of the house, and what this device is to be called."""

    passcode: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    name: DeviceName


class SessionRead(Shape):
    """The sign-in state: `lan` where this server asks for a passcode, and as whom this device is signed in. `secure`:
    the page may be installed here and works without the server."""

    lan: bool
    signed_in: bool
    name: str | None
    device_id: int | None
    secure: bool


class GuestCreate(Strict):
    """A link for guests of a kitchen."""

    kitchen_id: RowId
    name: DeviceName = "Guests"


class InstrumentCreate(Strict):
    """An instrument that is to send readings to a kitchen."""

    kitchen_id: RowId
    name: DeviceName


class DeviceRead(Shape):
    """A device that was let in; `mine` is the one that asks."""

    id: int
    kind: str
    name: str
    kitchen_id: int | None
    made_at: dt.datetime
    seen_at: dt.datetime | None
    until: dt.datetime | None
    mine: bool


class DeviceList(Shape):
    devices: list[DeviceRead]


class DeviceMade(Shape):
    """A device and its token, which is told this once; `path` is where a guest's browser goes."""

    id: int
    token: str
    path: str | None = None


class GuestBread(Shape):
    """A bread under way: where it stands, how many are off the heat."""

    serve_at: dt.datetime
    stage: str
    off: int
    of: int | None


class GuestRead(Shape):
    """The guests' view: the next move and how far the bread is, and no names."""

    clock: ClockRead
    zone: str
    until: dt.datetime
    next: str | None
    next_at: dt.datetime | None
    breads: list[GuestBread]
