"""Kitchens: make one, change it, its surfaces, its clock."""

from __future__ import annotations

import datetime as dt
from contextlib import nullcontext
from typing import Any

from sqlmodel import Session

from brassclock.core.day.places import places_of
from brassclock.core.errors import invalid
from brassclock.core.fire.surface_heat import believed
from brassclock.core.fire.surfaces import KINDS, check_fan
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.beliefs import learn_heat, leaven_name
from brassclock.services.kitchen.ingredients import list_bags
from brassclock.services.kitchen.suited import suited
from brassclock.services.kitchen.surface_view import surface_out
from brassclock.services.schemas.kitchen import (
    KitchenCreate,
    KitchenRead,
    KitchenUpdate,
    PlaceRead,
    PlaceUpdate,
    StrengthRead,
    SurfaceUpdate,
)
from brassclock.store import kitchens as kitchen_rows
from brassclock.store import lessons as lesson_rows
from brassclock.store.rows import insert
from brassclock.store.tables import ClockState, Kitchen, Surface

NIGHT_DROP_C = 2.5  # judgement: an unheated night


def default_hours(room_c: float) -> list[float]:
    """A day around one typed temperature: coolest before dawn, warmest mid-afternoon."""
    import math

    return [round(room_c - NIGHT_DROP_C / 2 * (1 - math.sin((h - 9.5) / 24 * 2 * math.pi)), 1) for h in range(24)]


def kitchen_out(session: Session, kitchen: Kitchen, now: dt.datetime) -> KitchenRead:
    """A kitchen with its surfaces."""
    found = [surface_out(s) for s in kitchen_rows.surfaces(session, kitchen.id or 0)]
    facts = kitchen.model_dump(exclude={"places", "leavens"})
    return KitchenRead(
        **facts,
        surfaces=found,
        bags=list_bags(session, kitchen.id or 0),
        places=places_out(kitchen, now),
        leavens=leavens_out(kitchen),
    )


def leavens_out(kitchen: Kitchen) -> list[StrengthRead]:
    """View of the beliefs for the Kitchen room."""
    return [
        StrengthRead(
            leaven=key,
            name=leaven_name(key),
            mean=known["mean"],
            sd_log=known["sd_log"],
            bakes=int(known["bakes"]),
        )
        for key, known in kitchen.leavens.items()
    ]


def places_out(kitchen: Kitchen, now: dt.datetime) -> list[PlaceRead]:
    """The kitchen's places as set, and their air now."""
    return [
        PlaceRead(
            key=p.key,
            name=p.name,
            temp_c=p.temp_c,
            over_k=p.over_k,
            swing_c=p.swing_c,
            litres=p.litres,
            now_c=p.air_c(kitchen.hourly_c, now),
        )
        for p in places_of(kitchen.places, kitchen.fridge_c).values()
    ]


def list_kitchens(app: App) -> list[KitchenRead]:
    with app.read() as session:
        return [kitchen_out(session, k, app.now(session, k)) for k in kitchen_rows.all_kitchens(session, app.with_demo)]


def get_kitchen(app: App, kitchen_id: int) -> KitchenRead:
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def create_kitchen(app: App, given: KitchenCreate) -> KitchenRead:
    """A new, empty kitchen with one surface."""
    with app.transaction() as session:
        kitchen = add_kitchen(session, given, app.real_now())
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def add_kitchen(session: Session, given: KitchenCreate, at: dt.datetime, *, demo: bool = False) -> Kitchen:
    kitchen = Kitchen(
        name=given.name,
        demo=demo,
        zone=given.zone,
        altitude_m=given.altitude_m,
        mass_unit=given.mass_unit,
        temp_unit=given.temp_unit,
        hourly_c=default_hours(given.room_c),
        created_at=at,
    )
    insert(session, kitchen)
    insert(session, Surface(kitchen_id=kitchen.id or 0, **_surface_facts(given.surface)))
    return kitchen


MOVES_PLANS = {
    "zone": "the kitchen's clock is another",
    "altitude_m": "the kitchen lies elsewhere",
    "hourly_c": "the kitchen's air is another",
    "hour_c": "the kitchen's air is another",
    "fridge_c": "the fridge is set otherwise",
    "tap_c": "the tap water is another",
    "places": "a place of the kitchen is another",
    "flour_basis": "the cup is filled otherwise",
    "spoons": "the spoons are others",
    "cup_ml": "the cup is another",
    "tbsp_ml": "the spoons are others",
    "tsp_ml": "the spoons are others",
    "powder": "the baking powder is another",
    "cooks": "there are other hands",
    "shelf_l": "the cold shelf is another",
}


CLEARABLE = {"flour_basis", "cup_ml", "tbsp_ml", "tsp_ml"}  # of these an empty one is the usual


def change_kitchen(app: App, kitchen_id: int, change: KitchenUpdate) -> KitchenRead:
    """Change any part of a kitchen; what that moves in its plans is told with its reason."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        cleared = {n for n in CLEARABLE & change.model_fields_set if getattr(change, n) is None}
        moving = [why for n, why in MOVES_PLANS.items() if n in cleared or getattr(change, n) is not None]
        with recording_plan_change(app, session, kitchen_id, moving[0]) if moving else nullcontext():
            for name in change.model_fields_set:
                value = getattr(change, name)
                if name == "places" and value is not None:
                    _set_places(kitchen, value)
                elif name == "hour_c" and value is not None:
                    kitchen.hourly_c = [value.get(hour, c) for hour, c in enumerate(kitchen.hourly_c)]
                elif value is not None or name in cleared:
                    setattr(kitchen, name, value)
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def _set_places(kitchen: Kitchen, given: dict[str, PlaceUpdate]) -> None:
    """Settings of named places over what was set before; the fridge's temperature is the kitchen's own."""
    known = places_of({}, kitchen.fridge_c)
    for key, place in given.items():
        if key not in known:
            raise invalid(f"/places/{key}", f"“{key[:40]}” is not a place here. Use one of {', '.join(known)}.")
        settings = place.model_dump(exclude_none=True)
        if key == "bench" and settings:
            raise invalid("/places/bench", "The bench follows the kitchen's hours. Change those.")
        if key == "fridge" and "temp_c" in settings:
            kitchen.fridge_c = settings.pop("temp_c")
        kitchen.places = {**kitchen.places, key: {**kitchen.places.get(key, {}), **settings}}


def add_surface(app: App, kitchen_id: int, given: SurfaceUpdate) -> KitchenRead:
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        _free_there(session, kitchen_id, None, given.lies)
        insert(session, Surface(kitchen_id=kitchen_id, **_surface_facts(given)))
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def change_surface(app: App, kitchen_id: int, surface_id: int, given: SurfaceUpdate) -> KitchenRead:
    """Set a surface otherwise, for every bake that has not begun on it; a line on the heat goes on as it was
    planned."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        surface = _surface(session, kitchen_id, surface_id)
        _free_there(session, kitchen_id, surface_id, given.lies)
        with recording_plan_change(app, session, kitchen_id, f"the surface “{given.name}” is set otherwise"):
            for name, value in _surface_facts(given).items():
                setattr(surface, name, value)
            learn_heat(surface, lesson_rows.of_kitchen(session, kitchen_id))
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def remove_surface(app: App, kitchen_id: int, surface_id: int) -> KitchenRead:
    """Take a surface away. A line on it goes on; bakes that have not begun go to the surface that suits them best."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        surface = _surface(session, kitchen_id, surface_id)
        left = [s for s in kitchen_rows.surfaces(session, kitchen_id) if s.id != surface_id]
        if not left:
            raise Conflict("A kitchen needs one surface. Add another before you take this one away.")
        now = app.now(session, kitchen)
        with recording_plan_change(app, session, kitchen_id, f"the surface “{surface.name}” was taken away"):
            surface.removed_at = now
            for bake in solve.live_bakes(session, kitchen_id):
                if bake.surface_id == surface_id and bake.hearth is None:
                    bake.surface_id = suited(left, bake.method).id
                    bake.revision += 1
        return kitchen_out(session, kitchen, now)


def restore_surface(app: App, kitchen_id: int, surface_id: int) -> KitchenRead:
    """Undo of removing a surface; bakes stay where they went meanwhile."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        surface = _surface(session, kitchen_id, surface_id, removed=True)
        surface.removed_at = None
        if any(s.lies == surface.lies for s in kitchen_rows.surfaces(session, kitchen_id) if s.id != surface_id):
            surface.lies = None
        return kitchen_out(session, kitchen, app.now(session, kitchen))


def _free_there(session: Session, kitchen_id: int, surface_id: int | None, lies: int | None) -> None:
    """Raises where another surface lies on that place of the floor plan."""
    there = [s for s in kitchen_rows.surfaces(session, kitchen_id) if s.lies == lies and s.id != surface_id]
    if lies is not None and there:
        raise invalid("/lies", f"“{there[0].name}” lies there. Choose a free place of the plan.")


def _surface_facts(given: SurfaceUpdate) -> dict[str, Any]:
    """A surface as it is stored: where its heat is not typed, its setting or the kind's usual heat says it."""
    facts, kind = given.model_dump(), KINDS[given.kind]
    if given.fan:
        check_fan(kind, "/fan")
    if given.temp_c is None:
        heat = believed(given.kind, setting=given.power if kind.on_hob else None)
        return facts | {"temp_c": round(heat.mean_c), "source": "usual", "sd_k": None}
    return facts | {"source": given.source or "typed"}


def _surface(session: Session, kitchen_id: int, surface_id: int, *, removed: bool = False) -> Surface:
    surface = kitchen_rows.surface(session, surface_id)
    if surface is None or surface.kitchen_id != kitchen_id or (surface.removed_at is not None) != removed:
        raise NotFound(f"There is no surface {surface_id} in this kitchen.")
    return surface


def start_clock(session: Session, kitchen: Kitchen, real: dt.datetime, sim: dt.datetime, rate: float = 1.0) -> None:
    """Give a kitchen a simulated clock."""
    if kitchen.id is None:
        raise invalid("/kitchen", "A clock needs a stored kitchen.")
    session.add(ClockState(kitchen_id=kitchen.id, anchor_real=real, anchor_sim=sim, rate=rate))
