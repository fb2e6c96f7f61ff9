"""Readings as instruments send them: kept raw, each once, late ones too; then what they move is made anew."""

from __future__ import annotations

import datetime as dt
from typing import get_args
from zoneinfo import ZoneInfo

from sqlmodel import Session

from brassclock.core.errors import FieldFault, InvalidInput
from brassclock.core.terms import PlaceKey
from brassclock.formats import measurements
from brassclock.formats.measurements import Measured
from brassclock.services.app import App, NotFound
from brassclock.services.instruments import derived, latest
from brassclock.services.kitchen.clock import clock_out
from brassclock.services.schemas.instruments import Taken
from brassclock.store import instruments as rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Channel, Device, Kitchen

AHEAD = dt.timedelta(minutes=2)  # of a clock that is not quite right
OLDEST = dt.timedelta(days=400)
MOST_CHANNELS = 40
RESTS = dt.timedelta(seconds=10)  # a scale at rest tells the same again and again
AIR_NAMES: dict[str, PlaceKey] = {
    **{key: key for key in get_args(PlaceKey)},
    "room": "bench",
    "kitchen": "bench",
    "proofer": "proof_box",
}


def take(app: App, device_id: int, body: bytes, media: str) -> Taken:
    """Store what an instrument sent, all of it or nothing, and have the plans follow. Raises InvalidInput with every
    fault."""
    try:
        text = body.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise InvalidInput([FieldFault("/", "The body is not UTF-8 text. Send it as UTF-8.")]) from None
    with app.transaction() as session:
        device = get(session, Device, device_id)
        if device is None or device.kitchen_id is None or device.forgotten_at is not None:
            raise NotFound("This instrument was forgotten. Add it anew in the Kitchen room.")
        kitchen = app.kitchen(session, device.kitchen_id)
        now = app.now(session, kitchen)
        found = measurements.read(text, media, ZoneInfo(kitchen.zone))
        by_name = _sorted(session, device_id, kitchen, found, now)
        taken = known = 0
        changed: list[tuple[Channel, dict[dt.datetime, float]]] = []
        for channel, points in by_name:
            there = rows.known(session, channel.id or 0, sorted(points))
            new = {at: v for at, v in points.items() if at not in there}
            known += len(points) - len(new)
            taken += len(new)
            if new:
                kept = _without_rests(app, channel, new) if channel.quantity == "mass" else sorted(new.items())
                rows.add(session, channel.id or 0, kept, now)
                changed.append((channel, new))
        # two readings of one instant in one body count as one
        result = Taken(
            taken=taken,
            known=known + len(found) - sum(len(p) for _, p in by_name),
            channels=[c.name for c, _ in by_name],
            clock=clock_out(app, session, kitchen),
            wants_g=latest.wanted(app, kitchen.id or 0),
        )
    for channel, new in changed:
        latest.latest(app).note(channel.id or 0, new)
    derived.following(app)(kitchen.id or 0, {channel.id or 0: min(new) for channel, new in changed})
    return result


def _without_rests(app: App, channel: Channel, new: dict[dt.datetime, float]) -> list[tuple[dt.datetime, float]]:
    """The weights that are kept: one that is the same as the last that was, within seconds, says nothing."""
    held = latest.latest(app).of(channel.id or 0)
    kept: list[tuple[dt.datetime, float]] = []
    last = held[-1] if held else None
    for at, value in sorted(new.items()):
        if last is None or value != last[1] or not dt.timedelta(0) <= at - last[0] < RESTS:
            kept.append((at, value))
        last = (at, value)
    return kept


def _sorted(
    session: Session, device_id: int, kitchen: Kitchen, found: list[Measured], now: dt.datetime
) -> list[tuple[Channel, dict[dt.datetime, float]]]:
    """Values by their channels, made where they are new. Raises InvalidInput with every fault."""
    channels = rows.channels_of(session, device_id)
    points: dict[str, dict[dt.datetime, float]] = {}
    faults: list[FieldFault] = []
    for m in found:
        at = (m.at or now).astimezone(now.tzinfo)
        known = channels.get(m.channel)
        wrong = _wrong(m, at, now, known, len(channels))
        if wrong is not None:
            faults.append(FieldFault(f"/readings/{m.row}/{wrong[0]}", wrong[1]))
            continue
        if known is None:
            channels[m.channel] = insert(session, _channel(device_id, m, now))
        points.setdefault(m.channel, {})[min(at, now)] = m.value
    if faults:
        raise InvalidInput(faults[:50])
    return [(channels[name], values) for name, values in points.items()]


def _wrong(
    m: Measured, at: dt.datetime, now: dt.datetime, known: Channel | None, channels: int
) -> tuple[str, str] | None:
    """(which part, why) of a reading that cannot be taken; None of one that can."""
    if not now - OLDEST <= at <= now + AHEAD:
        where = "ahead" if at > now else "too far back"
        told = f"{at:%Y-%m-%d %H:%M} lies {where}; here it is {now:%Y-%m-%d %H:%M}."
        return "at", f"{told} Set the instrument's clock, or leave out “at”."
    if known is None and channels >= MOST_CHANNELS:
        return "channel", f"A device has {MOST_CHANNELS} channels at most. Send others as another device."
    if known is not None and known.quantity != m.quantity:
        return "unit", f"“{m.channel}” has sent a {known.quantity} before, now a {m.quantity}. Give it another name."
    return None


def _channel(device_id: int, m: Measured, now: dt.datetime) -> Channel:
    """A new channel, used for what its name says; for nothing where it says nothing known."""
    made = Channel(device_id=device_id, name=m.channel, quantity=m.quantity)
    name = m.channel.rpartition("/")[2].lower().replace(" ", "_").replace("-", "_")
    if m.quantity == "mass":
        made.use = "scale"
    elif name in AIR_NAMES:
        made.use, made.place = "air", AIR_NAMES[name]
    elif name == "dough":
        made.use = "dough"
    if made.use is not None:
        made.used_since = now - OLDEST  # all that it sends is of that
    return made
