"""A new bake, from a method."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.weigh.methods import methods
from brassclock.services.app import App, Conflict
from brassclock.services.bake.methods import method_facts, own_method
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.suited import suited
from brassclock.services.schemas.bake import BakeCreate
from brassclock.services.times import serve_moment
from brassclock.store import bakes as bake_rows
from brassclock.store import kitchens
from brassclock.store.rows import insert
from brassclock.store.tables import Bake


def start_bake(app: App, given: BakeCreate) -> int:
    """A new bake from a method; answers its id."""
    with app.transaction(given.kitchen_id) as session:
        kitchen = app.kitchen(session, given.kitchen_id)
        with recording_plan_change(app, session, given.kitchen_id, "another bake was begun"):
            return add_bake(session, given, app.now(session, kitchen))


def add_bake(session: Session, given: BakeCreate, now: dt.datetime) -> int:
    """Store a new bake; answers its id."""
    surfaces = kitchens.surfaces(session, given.kitchen_id)
    if given.method.startswith("own-"):
        own = own_method(session, given.kitchen_id, given.method)
        facts, name = {k: v for k, v in own.facts.items() if k != "from"}, own.name
    else:
        method = methods().get(given.method)
        if method is None:
            raise invalid("/method", f"“{given.method[:40]}” is not a method here. Use one of {', '.join(methods())}.")
        facts, name = method_facts(method), method.name
    bake = Bake(
        kitchen_id=given.kitchen_id,
        name=given.name or name,
        method=given.method,
        **facts,
        surface_id=suited(surfaces, given.method).id if surfaces else None,
        serve_at=serve_moment(given.serve, now),
        created_at=now,
    )
    return insert_bake(session, bake)


MOST_LIVE = 24


def insert_bake(session: Session, bake: Bake) -> int:
    """Store a bake that is begun; answers its id. Raises Conflict where too many are alive."""
    if len(bake_rows.live_ids(session, bake.kitchen_id)) >= MOST_LIVE:
        raise Conflict(
            f"{MOST_LIVE} bakes are alive in this kitchen, the most there can be. Keep or abandon one first."
        )
    insert(session, bake)
    return bake.id or 0
