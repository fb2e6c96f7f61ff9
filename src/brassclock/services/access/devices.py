"""Devices that may ask: let in by a token that only they have, listed, forgotten."""

from __future__ import annotations

import datetime as dt
import hashlib
import secrets
from dataclasses import dataclass
from threading import Lock
from typing import Literal

from brassclock.services.app import App, NotFound
from brassclock.services.schemas.access import DeviceRead
from brassclock.store import access as rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Device

DeviceKind = Literal["cook", "guest", "instrument"]
GUEST_FOR = dt.timedelta(hours=24)
SEEN_EVERY = dt.timedelta(minutes=5)  # when it asked last is stored no finer
MOST_DEVICES = 200


def renewed(app: App, name: str, kitchen_id: int | None) -> str:
    """The token of an instrument of that name, made anew: one that had another is known by this one from now on."""
    token = secrets.token_hex(32)
    with app.transaction() as session:
        if kitchen_id is not None:
            app.kitchen(session, kitchen_id)
        known = [d for d in rows.devices(session) if (d.kind, d.name, d.kitchen_id) == ("instrument", name, kitchen_id)]
        if known:
            known[0].secret = hash_of(token)
            session.add(known[0])
        else:
            now = app.real_now()
            made = Device(kind="instrument", name=name, secret=hash_of(token), kitchen_id=kitchen_id, made_at=now)
            insert(session, made)
        unit_after(app)
    return token


@dataclass(frozen=True)
class Known:
    """A device that was let in."""

    id: int
    kind: str
    name: str
    kitchen_id: int | None
    until: dt.datetime | None


def hash_of(token: str) -> str:
    """The digest that is stored of a token: it is random enough to need no salt and no stretching."""
    return hashlib.sha256(token.encode()).hexdigest()


def let_in(app: App, kind: DeviceKind, name: str, kitchen_id: int | None = None) -> tuple[int, str]:
    """Let a device in: (its id, its token, which is told this once)."""
    token = secrets.token_hex(32)
    with app.transaction() as session:
        if kitchen_id is not None:
            app.kitchen(session, kitchen_id)
        now = app.real_now()
        known = rows.devices(session)
        for old in known[MOST_DEVICES - 1 :]:  # the oldest make room
            old.forgotten_at = now
        until = now + GUEST_FOR if kind == "guest" else None
        row = Device(kind=kind, name=name, secret=hash_of(token), kitchen_id=kitchen_id, made_at=now, until=until)
        return insert(session, row).id or 0, token


class Gatekeeper:
    """Who asks, by the token of a request; what was looked up is kept until a device is forgotten."""

    def __init__(self) -> None:
        self._known: dict[str, Known | None] = {}
        self._seen: dict[int, dt.datetime] = {}
        self._stored: dict[int, dt.datetime] = {}
        self._lock = Lock()

    def who(self, app: App, token: str) -> Known | None:
        """The device of a token; None where there is none, or its time is over."""
        secret = hash_of(token)
        found = self._known.get(secret)
        if found is None:  # one that is not known is looked up each time: it may be let in at any moment
            with app.read() as session:
                row = rows.device_of(session, secret)
            if row is None:
                return None
            found = self._known[secret] = Known(row.id or 0, row.kind, row.name, row.kitchen_id, row.until)
        now = app.real_now()
        if found.until is not None and found.until < now:
            return None
        with self._lock:
            self._seen[found.id] = now
        return found

    def forget(self) -> None:
        """Look every token up again."""
        self._known.clear()

    def seen_at(self, device_id: int) -> dt.datetime | None:
        """The instant at which a device asked last, as far as this process knows."""
        return self._seen.get(device_id)

    def store_seen(self, app: App) -> None:
        """Store when devices asked last, of those that asked since it was stored."""
        with self._lock:
            fresh = {
                i: at for i, at in self._seen.items() if i not in self._stored or at - self._stored[i] >= SEEN_EVERY
            }
        if not fresh:
            return
        with app.transaction() as session:
            for device_id, at in fresh.items():
                rows.seen(session, device_id, at)
        self._stored |= fresh


def gatekeeper(app: App) -> Gatekeeper:
    """The one of this process."""
    found: Gatekeeper = app.memory.setdefault("gatekeeper", Gatekeeper())
    return found


def devices_out(app: App, mine: int | None) -> list[DeviceRead]:
    """Devices that were let in, the newest first; `mine` is the one that asks."""
    keeper = gatekeeper(app)
    now = app.real_now()
    with app.read() as session:
        return [
            DeviceRead(
                id=d.id or 0,
                kind=d.kind,
                name=d.name,
                kitchen_id=d.kitchen_id,
                made_at=d.made_at,
                seen_at=keeper.seen_at(d.id or 0) or d.seen_at,
                until=d.until,
                mine=d.id == mine,
            )
            for d in rows.devices(session)
            if d.until is None or d.until > now
        ]


def forget(app: App, device_id: int) -> None:
    """Let a device in no more: its token is worth nothing from now on."""
    with app.transaction() as session:
        row = get(session, Device, device_id)
        if row is None or row.forgotten_at is not None:
            raise NotFound(f"There is no device {device_id}. It may have been forgotten already.")
        row.forgotten_at = app.real_now()
        session.add(row)
        unit_after(app)


def unit_after(app: App) -> None:
    """Have every token looked up again once the change is stored."""
    with app.unit() as unit:
        unit.after.append(gatekeeper(app).forget)
