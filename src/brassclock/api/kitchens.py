"""/api/kitchens, /api/clock: kitchens, surfaces, the Bench, the demo's clock."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from flask import Response, current_app, request
from pydantic import BaseModel, Field

from brassclock.api import gate
from brassclock.api.problems import Problem
from brassclock.api.routes import Routes
from brassclock.services import aside
from brassclock.services.app import App, Conflict
from brassclock.services.kitchen import air
from brassclock.services.kitchen import clock as kitchen_clock
from brassclock.services.kitchen import settings as kitchen_settings
from brassclock.services.pages import bench as bench_page
from brassclock.services.schemas.bake import BenchRead
from brassclock.services.schemas.base import ClockRead
from brassclock.services.schemas.kitchen import (
    AirRead,
    AirReadingCreate,
    ClockUpdate,
    KitchenCreate,
    KitchenRead,
    KitchenUpdate,
    SurfaceUpdate,
)

routes = Routes("kitchens", __name__, url_prefix="/api", tag="kitchen")
PROBLEMS: dict[str | int, type[BaseModel] | dict[Any, Any] | None] = {"404": Problem, "409": Problem}


class KitchenPath(BaseModel):
    kitchen_id: int = Field(ge=1, le=2_147_483_647)


class SurfacePath(KitchenPath):
    surface_id: int = Field(ge=1, le=2_147_483_647)


class AirPath(KitchenPath):
    reading_id: int = Field(ge=1, le=2_147_483_647)


class KitchenList(BaseModel):
    kitchens: list[KitchenRead]


def app() -> App:
    """The App of this application."""
    found = current_app.extensions["brassclock"]
    assert isinstance(found, App)
    return found


def tagged(tag: str | None, answer: Callable[[], str]) -> Response:
    """An answer with its entity tag; 304 and no answer computed when the asker has it already."""
    if tag is not None and request.headers.get("If-None-Match") == tag:
        return Response(status=304, headers={"ETag": tag})
    response = Response(answer(), mimetype="application/json")
    if tag is not None:
        response.headers["ETag"] = tag
    return response


def long_answer(question: aside.Question, *args: Any) -> Response:
    """The answer of a question that takes long; of one asker the newest of its kind stands."""
    known = gate.me()
    asker = known.id if known is not None else request.remote_addr
    return Response(aside.asked(app(), asker, question, *args), mimetype="application/json")


@routes.get("/kitchens", responses={"200": KitchenList})
def list_kitchens():
    """Every kitchen."""
    return KitchenList(kitchens=kitchen_settings.list_kitchens(app())).model_dump(mode="json")


@routes.post("/kitchens", responses={"201": KitchenRead, **PROBLEMS})
def create_kitchen(body: KitchenCreate):
    """A new, empty kitchen."""
    return kitchen_settings.create_kitchen(app(), body).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>", responses={"200": KitchenRead, **PROBLEMS})
def get_kitchen(path: KitchenPath):
    return kitchen_settings.get_kitchen(app(), path.kitchen_id).model_dump(mode="json")


@routes.patch("/kitchens/<int:kitchen_id>", responses={"200": KitchenRead, **PROBLEMS})
def change_kitchen(path: KitchenPath, body: KitchenUpdate):
    return kitchen_settings.change_kitchen(app(), path.kitchen_id, body).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/bench", responses={"200": BenchRead, "304": None, **PROBLEMS})
def bench(path: KitchenPath):
    """Live bakes, the next hand moves, the say-line. It carries an ETag: 304 while nothing is new."""
    return tagged(
        bench_page.bench_tag(app(), path.kitchen_id),
        lambda: bench_page.bench_out(app(), path.kitchen_id).model_dump_json(),
    )


@routes.post("/kitchens/<int:kitchen_id>/surfaces", responses={"201": KitchenRead, **PROBLEMS})
def add_surface(path: KitchenPath, body: SurfaceUpdate):
    return kitchen_settings.add_surface(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.put("/kitchens/<int:kitchen_id>/surfaces/<int:surface_id>", responses={"200": KitchenRead, **PROBLEMS})
def change_surface(path: SurfacePath, body: SurfaceUpdate):
    return kitchen_settings.change_surface(app(), path.kitchen_id, path.surface_id, body).model_dump(mode="json")


@routes.delete("/kitchens/<int:kitchen_id>/surfaces/<int:surface_id>", responses={"200": KitchenRead, **PROBLEMS})
def remove_surface(path: SurfacePath):
    return kitchen_settings.remove_surface(app(), path.kitchen_id, path.surface_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/surfaces/<int:surface_id>/restore", responses={"200": KitchenRead, **PROBLEMS})
def restore_surface(path: SurfacePath):
    """Undo of removing a surface."""
    return kitchen_settings.restore_surface(app(), path.kitchen_id, path.surface_id).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/clock", responses={"200": ClockRead, **PROBLEMS})
def get_clock(path: KitchenPath):
    """Now in a kitchen."""
    h = app()
    with h.read() as session:
        return kitchen_clock.clock_out(h, session, h.kitchen(session, path.kitchen_id)).model_dump(mode="json")


@routes.post("/clock", responses={"200": ClockRead, **PROBLEMS})
def set_clock(body: ClockUpdate):
    """Demo only: pause, run, hurry, or jump to the next hand move."""
    h = app()
    with h.transaction(body.kitchen_id) as session:
        kitchen = h.kitchen(session, body.kitchen_id)
        to = None
        if body.jump:
            to = bench_page.next_move_at(h, session, body.kitchen_id)
            if to is None:
                raise Conflict("There is no hand move ahead to jump to. Start a bake first.")
        h.set_clock(session, kitchen, rate=body.rate, to=to)
        return kitchen_clock.clock_out(h, session, kitchen).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/air", responses={"200": AirRead, **PROBLEMS})
def air_of(path: KitchenPath):
    """Recent readings of the kitchen's air, and doubts about them."""
    return air.air_of(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/air", responses={"201": AirRead, **PROBLEMS})
def read_air(path: KitchenPath, body: AirReadingCreate):
    """Air that was read in a place: one reading, or a log."""
    return air.read_air(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.delete("/kitchens/<int:kitchen_id>/air/<int:reading_id>", responses={"200": AirRead, **PROBLEMS})
def unread_air(path: AirPath):
    return air.unread_air(app(), path.kitchen_id, path.reading_id).model_dump(mode="json")
