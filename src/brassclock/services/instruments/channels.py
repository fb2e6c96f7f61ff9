"""Instruments as the Kitchen shows them, and what each of their channels is used for."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.errors import FieldFault, InvalidInput
from brassclock.core.sense.thin import middles
from brassclock.services.access.devices import gatekeeper
from brassclock.services.app import App, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.instruments import derived
from brassclock.services.instruments.words import doubt_words
from brassclock.services.kitchen.clock import clock_out
from brassclock.services.schemas.instruments import (
    ChannelRead,
    ChannelUpdate,
    CoursePoint,
    InstrumentList,
    InstrumentNote,
    InstrumentRead,
)
from brassclock.store import bakes as bake_rows
from brassclock.store import instruments as rows
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import find, get
from brassclock.store.tables import Channel, Device, Kitchen

COURSE = dt.timedelta(hours=12)
OF = {"air": "temp", "dough": "temp", "surface": "temp", "scale": "mass"}
MEASURES = {"temp": "a temperature", "mass": "a weight"}


def instruments_out(app: App, kitchen_id: int) -> InstrumentList:
    """Every instrument of a kitchen with its channels, each with its last half day made short."""
    keeper = gatekeeper(app)
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        found = find(session, Device, kitchen_id=kitchen_id, kind="instrument", forgotten_at=None)
        channels = rows.of_kitchen(session, kitchen_id)
        return InstrumentList(
            clock=clock_out(app, session, kitchen),
            instruments=[
                InstrumentRead(
                    id=d.id or 0,
                    name=d.name,
                    seen_at=keeper.seen_at(d.id or 0) or d.seen_at,
                    channels=[_out(session, d, c, now) for _, c in channels if c.device_id == d.id],
                )
                for d in sorted(found, key=lambda d: d.id or 0)
            ],
        )


def _out(session: Session, device: Device, channel: Channel, now: dt.datetime) -> ChannelRead:
    last = rows.last(session, channel.id or 0)
    begin = now - COURSE
    hours = [((at - begin).total_seconds() / 3600, v) for at, v in rows.since(session, channel.id or 0, begin)]
    facts = channel.model_dump(exclude={"used_since"})
    return ChannelRead(
        **facts,
        device=device.name,
        value=last[1] if last else None,
        at=last[0] if last else None,
        text=doubt_words(channel, now),
        course=[CoursePoint(at=begin + dt.timedelta(hours=h), value=round(v, 2)) for h, v in middles(hours)],
    )


def notes_of(session: Session, kitchen_id: int, now: dt.datetime) -> list[InstrumentNote]:
    """The faults of the kitchen's instruments, a sentence each."""
    told = ((c.id or 0, doubt_words(c, now)) for _, c in rows.of_kitchen(session, kitchen_id))
    return [InstrumentNote(channel_id=i, text=words) for i, words in told if words is not None]


def use_channel(app: App, channel_id: int, given: ChannelUpdate) -> InstrumentList:
    """Say what a channel measures. What it moved until now stays as it was read. Raises NotFound, InvalidInput."""
    with app.read() as session:
        kitchen_id = _kitchen_id(session, channel_id)
    with app.transaction(kitchen_id) as session:
        channel = get(session, Channel, channel_id)
        if channel is None:
            raise NotFound(f"There is no channel {channel_id}.")
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        _check(session, kitchen, channel, given)
        with recording_plan_change(app, session, kitchen_id, "a probe is used for something else"):
            channel.use, channel.place = given.use, given.place or ("bench" if given.use == "air" else None)
            channel.bake_id, channel.surface_id = given.bake_id, given.surface_id
            channel.used_since = now if given.use is not None else None
            channel.doubt = channel.doubt_since = None
            session.add(channel)
    derived.follow(app, kitchen_id, {channel_id: now})
    return instruments_out(app, kitchen_id)


def _kitchen_id(session: Session, channel_id: int) -> int:
    channel = get(session, Channel, channel_id)
    device = get(session, Device, channel.device_id) if channel is not None else None
    if device is None or device.kitchen_id is None or device.forgotten_at is not None:
        raise NotFound(f"There is no channel {channel_id}. Its instrument may have been forgotten.")
    return device.kitchen_id


def _check(session: Session, kitchen: Kitchen, channel: Channel, given: ChannelUpdate) -> None:
    """Raise InvalidInput with everything of a use that cannot be."""
    faults = []
    if given.use is not None and OF[given.use] != channel.quantity:
        faults.append(FieldFault("/use", f"“{channel.name}” sends {MEASURES[channel.quantity]}: it cannot be that."))
    for name, use in (("place", "air"), ("bake_id", "dough"), ("surface_id", "surface")):
        if getattr(given, name) is not None and given.use != use:
            faults.append(FieldFault(f"/{name}", f"It goes with “{use}” alone. Leave it out, or say {use}."))
    if given.use == "surface" and given.surface_id not in {
        s.id for s in kitchen_rows.surfaces(session, kitchen.id or 0)
    }:
        faults.append(FieldFault("/surface_id", "Say which surface of this kitchen it looks at."))
    if given.bake_id is not None and given.bake_id not in {b.id for b in bake_rows.live(session, kitchen.id or 0)}:
        faults.append(FieldFault("/bake_id", f"There is no live bake {given.bake_id} in this kitchen."))
    if faults:
        raise InvalidInput(faults)
