"""The deeds of the demo in its kitchen: the clock set, a bake begun, a tap made, each through the doors a cook uses."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake import create as bake_create
from brassclock.services.fire import commands as fire_commands
from brassclock.services.kitchen import settings as kitchen_settings
from brassclock.services.schemas.bake import BakeCreate
from brassclock.services.schemas.fire import TapCreate
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import get
from brassclock.store.tables import Bake, ClockState, Kitchen


def set_clock(session: Session, kitchen: Kitchen, real: dt.datetime, sim: dt.datetime, rate: float = 0.0) -> None:
    state = kitchen_rows.clock_of(session, kitchen.id or 0)
    if state is None:
        kitchen_settings.start_clock(session, kitchen, real, sim, rate=0.0)
    else:
        state.anchor_real, state.anchor_sim, state.rate = real, sim, rate
        session.add(state)


def start(app: App, session: Session, kitchen: Kitchen, serve: str, surface: str) -> Bake:
    now = app.now(session, kitchen)
    bake_id = bake_create.add_bake(session, BakeCreate(kitchen_id=kitchen.id or 0, serve=serve), now)
    bake = get(session, Bake, bake_id)
    assert bake is not None
    bake.surface_id = next(s.id for s in kitchen_rows.surfaces(session, kitchen.id or 0) if s.name == surface)
    session.add(bake)
    return bake


def tap(
    app: App,
    session: Session,
    kitchen: Kitchen,
    bake: Bake,
    when: dt.datetime,
    kind: str,
    round_no: int | None = None,
    spot: int | None = None,
) -> None:
    state = kitchen_rows.clock_of(session, kitchen.id or 0)
    assert isinstance(state, ClockState)
    state.anchor_sim = when
    session.add(state)
    r = solve.load(app, session, bake.id or 0)
    key = f"demo-{bake.id}-{kind}-{round_no or 0}"
    fire_commands.add_tap(
        session,
        r,
        TapCreate.model_validate({"key": key, "kind": kind, "round_no": round_no, "spot": spot, "at": "now"}),
    )
