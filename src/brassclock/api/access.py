"""/api/session, /api/devices, /api/guest: sign-in, devices that were let in, a guest's view."""

from __future__ import annotations

import time
from typing import Annotated

from flask import Response, current_app, jsonify, request
from pydantic import BaseModel, Field, StringConstraints

from brassclock.api import gate
from brassclock.api.kitchens import PROBLEMS, app
from brassclock.api.problem import problem
from brassclock.api.problems import Problem
from brassclock.api.routes import Routes
from brassclock.services.access import devices, guest, passcode
from brassclock.services.pages import bench as bench_page
from brassclock.services.schemas.access import (
    DeviceList,
    DeviceMade,
    GuestCreate,
    GuestRead,
    InstrumentCreate,
    SessionRead,
    SignIn,
)

routes = Routes("access", __name__, url_prefix="/api", tag="access")
LOCKED: dict[str | int, type[BaseModel]] = {"401": Problem, "429": Problem}


class DevicePath(BaseModel):
    device_id: int = Field(ge=1, le=2_147_483_647)


class GuestPath(BaseModel):
    token: Annotated[str, StringConstraints(max_length=200)]


def _tries() -> passcode.Tries:
    found: passcode.Tries = app().memory.setdefault("passcode tries", passcode.Tries(time.monotonic))
    return found


def _lan() -> bool:
    return bool(current_app.extensions["lan"])


def _session(known: devices.Known | None) -> SessionRead:
    return SessionRead(
        lan=_lan(),
        signed_in=known is not None or not _lan(),
        name=None if known is None else known.name,
        device_id=None if known is None else known.id,
        secure=request.is_secure or request.host.split(":")[0] in ("127.0.0.1", "localhost"),
    )


@routes.get("/session", responses={"200": SessionRead})
def get_session():
    """The sign-in state: whether a passcode is asked for, and as whom this device is signed in."""
    known = gate.of_cookie(app())
    return _session(known if known is not None and known.kind == "cook" else None).model_dump(mode="json")


@routes.post("/session", responses={"200": SessionRead, "409": Problem, **LOCKED})
def sign_in(body: SignIn):
    """Sign this device in by the passcode. Wrong ones bring ever longer waits: 429."""
    if not _lan():
        return problem(409, "Not now", "This server is for its own machine alone and asks for no passcode.")
    try:
        right = _tries().matches(app(), body.passcode, gate.address())
    except passcode.Locked as locked:
        return gate.waits("Wait", str(locked), round(locked.wait_s) + 1)
    if not right:
        return problem(401, "Not the passcode", "That is not the passcode of this kitchen. Ask who set it up.")
    device_id, token = devices.let_in(app(), "cook", body.name)
    known = devices.Known(device_id, "cook", body.name, None, None)
    return gate.signed_in(jsonify(_session(known).model_dump(mode="json")), token)


@routes.delete("/session", responses={"200": SessionRead})
def sign_out():
    """Sign this device out: its token is worth nothing from now on."""
    known = gate.of_cookie(app())
    if known is not None:
        devices.forget(app(), known.id)
    return gate.signed_out(jsonify(_session(None).model_dump(mode="json")))


@routes.get("/devices", responses={"200": DeviceList})
def list_devices():
    """Devices that were let in, the newest first."""
    mine = gate.me()
    return DeviceList(devices=devices.devices_out(app(), mine.id if mine else None)).model_dump(mode="json")


@routes.delete("/devices/<int:device_id>", responses={"200": DeviceList, **PROBLEMS})
def forget_device(path: DevicePath):
    """Let a device in no more."""
    devices.forget(app(), path.device_id)
    return list_devices()


@routes.post("/devices/guest", responses={"201": DeviceMade, **PROBLEMS})
def make_guest_link(body: GuestCreate):
    """A link that shows the next move and how far the bread is, for a day; it changes nothing and holds no names."""
    device_id, token = devices.let_in(app(), "guest", body.name, body.kitchen_id)
    return DeviceMade(id=device_id, token=token, path=f"/guest#{token}").model_dump(mode="json"), 201


@routes.post("/devices/instrument", responses={"201": DeviceMade, **PROBLEMS})
def add_instrument(body: InstrumentCreate):
    """An instrument that may send readings to a kitchen, and nothing else."""
    device_id, token = devices.let_in(app(), "instrument", body.name, body.kitchen_id)
    return DeviceMade(id=device_id, token=token).model_dump(mode="json"), 201


@routes.get("/guest/<string:token>", responses={"200": GuestRead, "404": Problem})
def guest_view(path: GuestPath) -> Response:
    """The view of a guest's link."""
    known = guest.let_in(app(), path.token)
    bench = bench_page.bench_out(app(), known.kitchen_id or 0)
    return jsonify(guest.guest_out(app(), known, bench).model_dump(mode="json"))
