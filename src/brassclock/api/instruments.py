"""/api/instruments, /api/kitchens/N/instruments: readings taken in, channels and what they are used for, the scale."""

from __future__ import annotations

from flask import request
from pydantic import BaseModel, Field

from brassclock.api import gate
from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.problems import Problem
from brassclock.api.routes import Routes
from brassclock.services.instruments import channels, intake, latest
from brassclock.services.schemas.instruments import (
    ChannelUpdate,
    InstrumentList,
    ScaleQuery,
    ScaleRead,
    SurfaceSeenRead,
    Taken,
)

routes = Routes("instruments", __name__, url_prefix="/api", tag="instruments")
REFUSED: dict[str | int, type[BaseModel]] = {"401": Problem, "413": Problem, "429": Problem}


class ChannelPath(BaseModel):
    channel_id: int = Field(ge=1, le=2_147_483_647)


class SurfacesSeen(BaseModel):
    surfaces: list[SurfaceSeenRead]


@routes.post("/instruments/readings", responses={"200": Taken, **PROBLEMS, **REFUSED})
def take_readings():
    """Readings of an instrument: JSON, text/csv, or lines of text. All of a body, or nothing."""
    sender = gate.me()
    assert sender is not None  # the gate lets nobody else here
    return intake.take(app(), sender.id, request.get_data(), request.mimetype).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/instruments", responses={"200": InstrumentList, **PROBLEMS})
def list_instruments(path: KitchenPath):
    """Instruments with their channels, latest values and what is wrong with them."""
    return channels.instruments_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.patch("/instruments/channels/<int:channel_id>", responses={"200": InstrumentList, **PROBLEMS})
def use_channel(path: ChannelPath, body: ChannelUpdate):
    """Say what a channel measures."""
    return channels.use_channel(app(), path.channel_id, body).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/scale", responses={"200": ScaleRead, **PROBLEMS})
def scale(path: KitchenPath, query: ScaleQuery):
    """The display of the kitchen's scale now."""
    return latest.scale_out(app(), path.kitchen_id, query.wants_g).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/surfaces-seen", responses={"200": SurfacesSeen, **PROBLEMS})
def surfaces_seen(path: KitchenPath):
    """The latest heat of the surfaces by their pyrometers."""
    return SurfacesSeen(surfaces=latest.surfaces_out(app(), path.kitchen_id)).model_dump(mode="json")
