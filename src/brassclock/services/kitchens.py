"""Kitchens: make one, change it, its surfaces, its clock."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.day.places import places_of
from brassclock.core.evidence import refuse
from brassclock.services.given import KitchenChange, KitchenIn, PlaceIn, SurfaceIn
from brassclock.services.house import House, Missing, Refused
from brassclock.services.leavens import forget, leavens_out, recall
from brassclock.services.pantry import list_bags
from brassclock.services.shown import ClockOut, KitchenOut, PlaceOut
from brassclock.services.shown_fire import SurfaceOut
from brassclock.store import kitchens as rows
from brassclock.store.tables import ClockState, Kitchen, Surface

NIGHT_DROP_C = 2.5  # judgement: an unheated night


def default_hours(room_c: float) -> list[float]:
    """A day around one typed temperature: coolest before dawn, warmest mid-afternoon."""
    import math

    return [round(room_c - NIGHT_DROP_C / 2 * (1 - math.sin((h - 9.5) / 24 * 2 * math.pi)), 1) for h in range(24)]


def kitchen_out(session: Session, kitchen: Kitchen, now: dt.datetime) -> KitchenOut:
    """A kitchen with its surfaces."""
    found = [SurfaceOut(**s.model_dump()) for s in rows.surfaces(session, kitchen.id or 0)]
    facts = kitchen.model_dump(exclude={"places", "leavens"})
    return KitchenOut(
        **facts, surfaces=found, bags=list_bags(session, kitchen.id or 0), places=places_out(kitchen, now), leavens=leavens_out(kitchen)
    )  # fmt: skip


def places_out(kitchen: Kitchen, now: dt.datetime) -> list[PlaceOut]:
    """The kitchen's places as set, and their air now."""
    return [
        PlaceOut(
            key=p.key, name=p.name, temp_c=p.temp_c, over_k=p.over_k, swing_c=p.swing_c, litres=p.litres,
            now_c=p.air_c(kitchen.hourly_c, now),
        )
        for p in places_of(kitchen.places, kitchen.fridge_c).values()
    ]  # fmt: skip


def clock_out(house: House, session: Session, kitchen: Kitchen) -> ClockOut:
    state = rows.clock_of(session, kitchen.id or 0)
    return ClockOut(
        now=house.now(session, kitchen), rate=1.0 if state is None else state.rate, simulated=state is not None,
        set_at=None if state is None else state.anchor_real,
    )  # fmt: skip


def list_kitchens(house: House) -> list[KitchenOut]:
    with house.look() as session:
        return [kitchen_out(session, k, house.now(session, k)) for k in rows.all_kitchens(session, house.with_demo)]


def get_kitchen(house: House, kitchen_id: int) -> KitchenOut:
    with house.look() as session:
        kitchen = house.kitchen(session, kitchen_id)
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def create_kitchen(house: House, given: KitchenIn) -> KitchenOut:
    """A new, empty kitchen with one surface."""
    with house.action() as session:
        kitchen = add_kitchen(session, given, house.real_now())
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def add_kitchen(session: Session, given: KitchenIn, at: dt.datetime, *, demo: bool = False) -> Kitchen:
    kitchen = Kitchen(
        name=given.name, demo=demo, zone=given.zone, altitude_m=given.altitude_m, mass_unit=given.mass_unit,
        temp_unit=given.temp_unit, hourly_c=default_hours(given.room_c), created_at=at,
    )  # fmt: skip
    session.add(kitchen)
    session.flush()
    session.add(Surface(kitchen_id=kitchen.id or 0, **given.surface.model_dump()))
    session.flush()
    return kitchen


def change_kitchen(house: House, kitchen_id: int, change: KitchenChange) -> KitchenOut:
    with house.action() as session:
        kitchen = house.kitchen(session, kitchen_id)
        for name in change.model_fields_set:
            value = getattr(change, name)
            if name == "places" and value is not None:
                _set_places(kitchen, value)
            elif value is not None:
                setattr(kitchen, name, value)
        session.add(kitchen)
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def _set_places(kitchen: Kitchen, given: dict[str, PlaceIn]) -> None:
    """Settings of named places over what was set before; the fridge's temperature is the kitchen's own."""
    known = places_of({}, kitchen.fridge_c)
    for key, place in given.items():
        if key not in known:
            raise refuse(f"/places/{key}", f"“{key[:40]}” is not a place here. Use one of {', '.join(known)}.")
        settings = place.model_dump(exclude_none=True)
        if key == "bench" and settings:
            raise refuse("/places/bench", "The bench follows the kitchen's hours. Change those.")
        if key == "fridge" and "temp_c" in settings:
            kitchen.fridge_c = settings.pop("temp_c")
        kitchen.places = {**kitchen.places, key: {**kitchen.places.get(key, {}), **settings}}


def add_surface(house: House, kitchen_id: int, given: SurfaceIn) -> KitchenOut:
    with house.action() as session:
        kitchen = house.kitchen(session, kitchen_id)
        session.add(Surface(kitchen_id=kitchen_id, **given.model_dump()))
        session.flush()
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def change_surface(house: House, kitchen_id: int, surface_id: int, given: SurfaceIn) -> KitchenOut:
    with house.action() as session:
        kitchen = house.kitchen(session, kitchen_id)
        surface = _surface(session, kitchen_id, surface_id)
        for name, value in given.model_dump().items():
            setattr(surface, name, value)
        session.add(surface)
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def remove_surface(house: House, kitchen_id: int, surface_id: int) -> KitchenOut:
    with house.action() as session:
        kitchen = house.kitchen(session, kitchen_id)
        surface = _surface(session, kitchen_id, surface_id)
        if len(rows.surfaces(session, kitchen_id)) < 2:
            raise Refused("A kitchen needs one surface. Add another before you take this one away.")
        session.delete(surface)
        session.flush()
        return kitchen_out(session, kitchen, house.now(session, kitchen))


def _surface(session: Session, kitchen_id: int, surface_id: int) -> Surface:
    surface = session.get(Surface, surface_id)
    if surface is None or surface.kitchen_id != kitchen_id:
        raise Missing(f"There is no surface {surface_id} in this kitchen.")
    return surface


def start_clock(session: Session, kitchen: Kitchen, real: dt.datetime, sim: dt.datetime, rate: float = 1.0) -> None:
    """Give a kitchen a simulated clock."""
    if kitchen.id is None:
        raise refuse("/kitchen", "A clock needs a stored kitchen.")
    session.add(ClockState(kitchen_id=kitchen.id, anchor_real=real, anchor_sim=sim, rate=rate))


def forget_leaven(house: House, kitchen_id: int, leaven: str, *, back: bool = False) -> KitchenOut:
    """Forget what was learned of a leaven, or bring it back."""
    with house.action() as session:
        kitchen = house.kitchen(session, kitchen_id)
        (recall if back else forget)(kitchen, leaven)
        session.add(kitchen)
        return kitchen_out(session, kitchen, house.now(session, kitchen))
