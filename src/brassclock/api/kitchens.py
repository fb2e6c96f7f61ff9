"""/api/kitchens, /api/clock: kitchens, surfaces, the Bench, the demo's clock."""

from __future__ import annotations

from typing import Any

from flask import current_app
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from brassclock.api.problems import Problem
from brassclock.services import air, kitchens, views
from brassclock.services.given import AirIn, ClockIn, KitchenChange, KitchenIn, SurfaceIn
from brassclock.services.house import House, Refused
from brassclock.services.shown import BenchOut, ClockOut, KitchenOut
from brassclock.services.shown_rise import AirOut

blueprint = APIBlueprint("kitchens", __name__, url_prefix="/api", abp_tags=[Tag(name="kitchen")])
PROBLEMS: dict[str | int, type[BaseModel] | dict[Any, Any] | None] = {"404": Problem, "409": Problem}


class KitchenPath(BaseModel):
    kitchen_id: int = Field(ge=1, le=2_147_483_647)


class SurfacePath(KitchenPath):
    surface_id: int = Field(ge=1, le=2_147_483_647)


class AirPath(KitchenPath):
    reading_id: int = Field(ge=1, le=2_147_483_647)


class LeavenPath(KitchenPath):
    leaven: str = Field(max_length=60)


class KitchenList(BaseModel):
    kitchens: list[KitchenOut]


def house() -> House:
    """The house of this application."""
    found = current_app.extensions["house"]
    assert isinstance(found, House)
    return found


@blueprint.get("/kitchens", responses={"200": KitchenList})
def list_kitchens():
    """Every kitchen of this house."""
    return KitchenList(kitchens=kitchens.list_kitchens(house())).model_dump(mode="json")


@blueprint.post("/kitchens", responses={"201": KitchenOut, **PROBLEMS})
def create_kitchen(body: KitchenIn):
    """A new, empty kitchen."""
    return kitchens.create_kitchen(house(), body).model_dump(mode="json"), 201


@blueprint.get("/kitchens/<int:kitchen_id>", responses={"200": KitchenOut, **PROBLEMS})
def get_kitchen(path: KitchenPath):
    return kitchens.get_kitchen(house(), path.kitchen_id).model_dump(mode="json")


@blueprint.patch("/kitchens/<int:kitchen_id>", responses={"200": KitchenOut, **PROBLEMS})
def change_kitchen(path: KitchenPath, body: KitchenChange):
    return kitchens.change_kitchen(house(), path.kitchen_id, body).model_dump(mode="json")


@blueprint.get("/kitchens/<int:kitchen_id>/bench", responses={"200": BenchOut, **PROBLEMS})
def bench(path: KitchenPath):
    """What is alive, the next hand moves, the say-line."""
    return views.bench_out(house(), path.kitchen_id).model_dump(mode="json")


@blueprint.post("/kitchens/<int:kitchen_id>/surfaces", responses={"201": KitchenOut, **PROBLEMS})
def add_surface(path: KitchenPath, body: SurfaceIn):
    return kitchens.add_surface(house(), path.kitchen_id, body).model_dump(mode="json"), 201


@blueprint.put("/kitchens/<int:kitchen_id>/surfaces/<int:surface_id>", responses={"200": KitchenOut, **PROBLEMS})
def change_surface(path: SurfacePath, body: SurfaceIn):
    return kitchens.change_surface(house(), path.kitchen_id, path.surface_id, body).model_dump(mode="json")


@blueprint.delete("/kitchens/<int:kitchen_id>/surfaces/<int:surface_id>", responses={"200": KitchenOut, **PROBLEMS})
def remove_surface(path: SurfacePath):
    return kitchens.remove_surface(house(), path.kitchen_id, path.surface_id).model_dump(mode="json")


@blueprint.get("/kitchens/<int:kitchen_id>/clock", responses={"200": ClockOut, **PROBLEMS})
def get_clock(path: KitchenPath):
    """Now in a kitchen."""
    h = house()
    with h.look() as session:
        return kitchens.clock_out(h, session, h.kitchen(session, path.kitchen_id)).model_dump(mode="json")


@blueprint.post("/clock", responses={"200": ClockOut, **PROBLEMS})
def set_clock(body: ClockIn):
    """Demo only: pause, run, hurry, or jump to the next hand move."""
    h = house()
    with h.action() as session:
        kitchen = h.kitchen(session, body.kitchen_id)
        to = None
        if body.jump:
            to = views.next_move_at(h, session, body.kitchen_id)
            if to is None:
                raise Refused("There is no hand move ahead to jump to. Start a bake first.")
        h.set_clock(session, kitchen, rate=body.rate, to=to)
        session.flush()
        return kitchens.clock_out(h, session, kitchen).model_dump(mode="json")


@blueprint.get("/kitchens/<int:kitchen_id>/air", responses={"200": AirOut, **PROBLEMS})
def air_of(path: KitchenPath):
    """What was read of the kitchen's air lately, and what is odd about it."""
    return air.air_of(house(), path.kitchen_id).model_dump(mode="json")


@blueprint.post("/kitchens/<int:kitchen_id>/air", responses={"201": AirOut, **PROBLEMS})
def read_air(path: KitchenPath, body: AirIn):
    """Air that was read in a place: one reading, or a log."""
    return air.read_air(house(), path.kitchen_id, body).model_dump(mode="json"), 201


@blueprint.delete("/kitchens/<int:kitchen_id>/air/<int:reading_id>", responses={"200": AirOut, **PROBLEMS})
def unread_air(path: AirPath):
    return air.unread_air(house(), path.kitchen_id, path.reading_id).model_dump(mode="json")


@blueprint.delete("/kitchens/<int:kitchen_id>/leavens/<string:leaven>", responses={"200": KitchenOut, **PROBLEMS})
def forget_leaven(path: LeavenPath):
    """Forget what was learned of a leaven."""
    return kitchens.forget_leaven(house(), path.kitchen_id, path.leaven).model_dump(mode="json")


@blueprint.post("/kitchens/<int:kitchen_id>/leavens/<string:leaven>/back", responses={"200": KitchenOut, **PROBLEMS})
def recall_leaven(path: LeavenPath):
    """Undo of forgetting."""
    return kitchens.forget_leaven(house(), path.kitchen_id, path.leaven, back=True).model_dump(mode="json")
