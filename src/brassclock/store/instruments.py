"""Instruments of a kitchen: what they measure, and what they measured."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from typing import Any

from sqlalchemy import insert as core_insert
from sqlmodel import Session, col, delete, select

from brassclock.store.rows import find
from brassclock.store.tables import Channel, Device, Measurement, Reading

AT_ONCE = 500  # instants in one query


def channels_of(session: Session, device_id: int) -> dict[str, Channel]:
    """Channels of an instrument by their names."""
    return {c.name: c for c in find(session, Channel, device_id=device_id)}


def of_kitchen(session: Session, kitchen_id: int) -> list[tuple[Device, Channel]]:
    """Instruments of a kitchen that were not forgotten, with each of their channels, in the order they came."""
    devices = {d.id: d for d in find(session, Device, kitchen_id=kitchen_id, kind="instrument", forgotten_at=None)}
    query = col(Channel.device_id).in_(list(devices))
    found = find(session, Channel, query, keep=lambda c: c.device_id in devices)
    return [(devices[c.device_id], c) for c in sorted(found, key=lambda c: (c.device_id, c.id or 0))]


def known(session: Session, channel_id: int, instants: Sequence[dt.datetime]) -> set[dt.datetime]:
    """Those of the instants at which a channel has a value already."""
    found: set[dt.datetime] = set()
    for n in range(0, len(instants), AT_ONCE):
        part = col(Measurement.at).in_(instants[n : n + AT_ONCE])
        found.update(session.exec(select(Measurement.at).where(Measurement.channel_id == channel_id, part)))
    return found


def add(session: Session, channel_id: int, points: Iterable[tuple[dt.datetime, float]], now: dt.datetime) -> None:
    """Store values at the end of the unit of work; one that another stored meanwhile stands."""
    rows: list[dict[str, Any]] = [
        {"channel_id": channel_id, "at": at, "value": value, "received_at": now} for at, value in points
    ]
    if rows:
        session.info["statements"].append((core_insert(Measurement).prefix_with("OR IGNORE"), rows))


def since(session: Session, channel_id: int, begin: dt.datetime) -> list[tuple[dt.datetime, float]]:
    """(instant, value) of a channel from then on, in order."""
    query = select(Measurement.at, Measurement.value).where(
        Measurement.channel_id == channel_id, col(Measurement.at) >= begin
    )
    return list(session.exec(query.order_by(col(Measurement.at))))


def last(session: Session, channel_id: int) -> tuple[dt.datetime, float] | None:
    """The latest (instant, value) of a channel; None where it has none."""
    query = select(Measurement.at, Measurement.value).where(Measurement.channel_id == channel_id)
    return session.exec(query.order_by(col(Measurement.at).desc()).limit(1)).first()


def readings_of(session: Session, channel_id: int, begin: dt.datetime, *, undone: bool = False) -> list[Reading]:
    """Readings that were thinned from a channel, from then on, in order; `undone`: those that the cook took back."""
    found = find(
        session,
        Reading,
        col(Reading.at) >= begin,
        keep=lambda x: x.at >= begin,
        channel_id=channel_id,
    )
    return sorted((x for x in found if (x.undone_at is not None) == undone), key=lambda x: x.at)


def last_reading_before(session: Session, channel_id: int, begin: dt.datetime) -> tuple[dt.datetime, float] | None:
    """The latest thinned (instant, value) of a channel before then; None where it has none."""
    query = select(Reading.at, Reading.value).where(
        Reading.channel_id == channel_id, col(Reading.at) < begin, col(Reading.undone_at).is_(None)
    )
    found = session.exec(query.order_by(col(Reading.at).desc()).limit(1)).first()
    return None if found is None or found[1] is None else (found[0], found[1])


def drop_before(session: Session, kitchen_id: int, begin: dt.datetime) -> None:
    """Take away the raw values of a kitchen's instruments before then, at the end of the unit of work."""
    devices = select(Device.id).where(Device.kitchen_id == kitchen_id)
    channels = select(Channel.id).where(col(Channel.device_id).in_(devices))
    gone = delete(Measurement).where(col(Measurement.channel_id).in_(channels), col(Measurement.at) < begin)
    session.info["statements"].append((gone, None))
