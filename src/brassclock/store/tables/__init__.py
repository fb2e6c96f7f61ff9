"""Tables of the database by what they are about.

Rows are built from validated schemas only; SQLModel tables do not validate. Their annotations are not deferred: each
would be evaluated as text at the start.
"""

from brassclock.store.tables.access import Channel, Device, Measurement, Passcode
from brassclock.store.tables.bake import Act, Answered, Bake, ForecastRecord, PlanChange, Reading, Tap
from brassclock.store.tables.drill import DrillTry
from brassclock.store.tables.hours import BusyHours, Calendar, CalendarHours
from brassclock.store.tables.keep import Brought, FrozenBread, Lesson, Outcome, Photo, PhotoBytes, Serving
from brassclock.store.tables.kitchen import (
    ClockState,
    FlourBag,
    Kitchen,
    OwnIngredient,
    OwnMethod,
    Starter,
    StarterFeed,
    Surface,
)
from brassclock.store.tables.logbook import PastBake

__all__ = [
    "Act",
    "Answered",
    "Bake",
    "Brought",
    "BusyHours",
    "Calendar",
    "CalendarHours",
    "Channel",
    "ClockState",
    "Device",
    "DrillTry",
    "FlourBag",
    "ForecastRecord",
    "FrozenBread",
    "Kitchen",
    "Lesson",
    "Measurement",
    "Outcome",
    "OwnIngredient",
    "OwnMethod",
    "Passcode",
    "PastBake",
    "Photo",
    "PhotoBytes",
    "PlanChange",
    "Reading",
    "Serving",
    "Starter",
    "StarterFeed",
    "Surface",
    "Tap",
]
