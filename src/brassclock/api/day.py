"""/api/kitchens/…/hours, calendars, day, plan; /api/bakes/…/way-out, pin: the day around real hours."""

from __future__ import annotations

from flask import Response
from pydantic import BaseModel, Field

from brassclock.api.bakes import BakePath, answer_bake
from brassclock.api.kitchens import PROBLEMS, KitchenPath, app, long_answer
from brassclock.api.routes import Routes
from brassclock.services.day import changes as day_changes
from brassclock.services.day import export as day_export
from brassclock.services.day import options as day_options
from brassclock.services.day import pack as day_pack
from brassclock.services.day import undo as day_undo
from brassclock.services.kitchen import busy
from brassclock.services.schemas.bake import BakeRead
from brassclock.services.schemas.day import (
    AlternativeRequest,
    BusyCreate,
    CalendarCreate,
    DayRead,
    FitRequest,
    HoursRead,
    PackRead,
    PackRequest,
    PinUpdate,
    RelaxationRead,
    WaysThrough,
)

routes = Routes("day", __name__, url_prefix="/api", tag="day")


class BusyPath(KitchenPath):
    busy_id: int = Field(ge=1, le=2_147_483_647)


class CalendarPath(KitchenPath):
    calendar_id: int = Field(ge=1, le=2_147_483_647)


class ActPath(KitchenPath):
    act_id: int = Field(ge=1, le=2_147_483_647)


class PlanPath(KitchenPath):
    kind: str = Field(max_length=20)


def answer(found: BaseModel):
    return found.model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/hours", responses={"200": HoursRead, **PROBLEMS})
def list_hours(path: KitchenPath):
    """The hours in which hands are away."""
    return answer(busy.list_hours(app(), path.kitchen_id))


@routes.post("/kitchens/<int:kitchen_id>/hours", responses={"201": HoursRead, **PROBLEMS})
def add_busy(path: KitchenPath, body: BusyCreate):
    """Hours away, once or by the week; every plan moves around them."""
    return answer(busy.add_busy(app(), path.kitchen_id, body)), 201


@routes.put("/kitchens/<int:kitchen_id>/hours/<int:busy_id>", responses={"200": HoursRead, **PROBLEMS})
def change_busy(path: BusyPath, body: BusyCreate):
    return answer(busy.change_busy(app(), path.kitchen_id, path.busy_id, body))


@routes.delete("/kitchens/<int:kitchen_id>/hours/<int:busy_id>", responses={"200": HoursRead, **PROBLEMS})
def drop_busy(path: BusyPath):
    return answer(busy.drop_busy(app(), path.kitchen_id, path.busy_id))


@routes.post("/kitchens/<int:kitchen_id>/hours/<int:busy_id>/restore", responses={"200": HoursRead, **PROBLEMS})
def restore_busy(path: BusyPath):
    """Undo of putting hours away."""
    return answer(busy.drop_busy(app(), path.kitchen_id, path.busy_id, back=True))


@routes.post("/kitchens/<int:kitchen_id>/calendars", responses={"201": HoursRead, **PROBLEMS})
def bring_calendar(path: KitchenPath, body: CalendarCreate):
    """A calendar's text (iCalendar); one of the same name is replaced."""
    return answer(busy.bring_calendar(app(), path.kitchen_id, body)), 201


@routes.delete("/kitchens/<int:kitchen_id>/calendars/<int:calendar_id>", responses={"200": HoursRead, **PROBLEMS})
def drop_calendar(path: CalendarPath):
    return answer(busy.drop_calendar(app(), path.kitchen_id, path.calendar_id))


@routes.post("/kitchens/<int:kitchen_id>/calendars/<int:calendar_id>/restore", responses={"200": HoursRead, **PROBLEMS})
def restore_calendar(path: CalendarPath):
    """Undo of putting a calendar away."""
    return answer(busy.drop_calendar(app(), path.kitchen_id, path.calendar_id, back=True))


@routes.get("/kitchens/<int:kitchen_id>/day", responses={"200": DayRead, **PROBLEMS})
def get_day(path: KitchenPath):
    """Changes of the plans with their reasons, newest first, and the last act that can be taken back."""
    return answer(day_undo.day_out(app(), path.kitchen_id))


@routes.post("/kitchens/<int:kitchen_id>/day/acts/<int:act_id>/undo", responses={"200": DayRead, **PROBLEMS})
def undo_act(path: ActPath):
    """Take an act back: every bake it touched as it was before."""
    day_undo.undo(app(), path.kitchen_id, path.act_id)
    return answer(day_undo.day_out(app(), path.kitchen_id))


@routes.get("/kitchens/<int:kitchen_id>/day/together", responses={"200": PackRead, **PROBLEMS})
def together(path: KitchenPath):
    """A day for all live bakes at once, bake by bake; nothing is stored."""
    return long_answer(day_pack.together, path.kitchen_id)


@routes.post("/kitchens/<int:kitchen_id>/day/together", responses={"200": DayRead, **PROBLEMS})
def take_together(path: KitchenPath, body: PackRequest):
    """Make that day so."""
    day_pack.take_together(app(), path.kitchen_id, body)
    return answer(day_undo.day_out(app(), path.kitchen_id))


@routes.get("/kitchens/<int:kitchen_id>/plan/<kind>", responses={"200": {"content": {}}, **PROBLEMS})
def plan_file(path: PlanPath):
    """Every hand move still ahead as iCalendar (`ics`) or a table (`csv`)."""
    text, media, name = day_export.plan_file(app(), path.kitchen_id, path.kind)
    return Response(text, mimetype=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@routes.get("/bakes/<int:bake_id>/way-out", responses={"200": RelaxationRead, **PROBLEMS})
def way_out(path: BakePath):
    """The fit of a bake to the hours there are: why it does not fit, and what would make it fit."""
    return long_answer(day_options.way_out, path.bake_id)


@routes.post("/bakes/<int:bake_id>/way-out", responses={"200": BakeRead, **PROBLEMS})
def take_way_out(path: BakePath, body: FitRequest):
    """Make one of those changes."""
    day_options.take_way_out(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.get("/bakes/<int:bake_id>/others", responses={"200": WaysThrough, **PROBLEMS})
def others(path: BakePath):
    """Other ways through the day worth seeing: least hands-on, best flavour, latest start."""
    return long_answer(day_options.others, path.bake_id)


@routes.post("/bakes/<int:bake_id>/others", responses={"200": BakeRead, **PROBLEMS})
def take_other(path: BakePath, body: AlternativeRequest):
    """Make one of those ways the bake's own."""
    day_options.take_other(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.put("/bakes/<int:bake_id>/pin", responses={"200": BakeRead, **PROBLEMS})
def pin(path: BakePath, body: PinUpdate):
    """Hold a hand move at an instant ahead, or let it go."""
    day_changes.pin(app(), path.bake_id, body)
    return answer_bake(path.bake_id)
