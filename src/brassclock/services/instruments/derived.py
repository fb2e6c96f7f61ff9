"""The effects of instruments: the air of a place and the heat of a dough as thinned readings, the heat of a surface;
and which of them are not believed."""

from __future__ import annotations

import datetime as dt
import sys
import threading
from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from typing import cast

from sqlmodel import Session

from brassclock.core.day.places import places_of
from brassclock.core.fire.surface_heat import SOURCES
from brassclock.core.sense.doubts import Heard, Use, heard
from brassclock.core.sense.thin import AIR, DOUGH, STEADY, Grain, thinned
from brassclock.core.time import later
from brassclock.services.app import App
from brassclock.services.bake.snapshot import AIR_KEPT
from brassclock.services.change import recording_plan_change
from brassclock.services.instruments.latest import latest, settled
from brassclock.store import bakes as bake_rows
from brassclock.store import instruments as rows
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Bake, Channel, Kitchen, Reading, Surface
from brassclock.store.unit import Stale

RAW_KEPT = dt.timedelta(days=60)
SEEN_H = 8.0  # so far back a row is looked at for what is wrong with it
FED_K = 3.0  # a surface read within so much of what is believed teaches nothing
EPOCH = dt.datetime(1970, 1, 1, tzinfo=dt.UTC)


Due = Mapping[int, dt.datetime]  # channels, and from when on they told something


def follow(app: App, kitchen_id: int, due: Due) -> None:
    """Have the plans of a kitchen follow what channels told, each from its instant on, where that is something new; as
    one change.

    A change that comes between leaves it to the next look: `watch` makes it again.
    """
    with suppress(Stale):
        _follow(app, kitchen_id, due)


def _follow(app: App, kitchen_id: int, due: Due) -> None:
    with app.read() as session:
        now = app.now(session, app.kitchen(session, kitchen_id))
        told = {i: at for i, at in due.items() if _tells(session, app, kitchen_id, i, at, now)}
    if not told:
        return
    with app.transaction(kitchen_id) as session:
        found = [(c, at) for i, at in told.items() if (c := get(session, Channel, i)) is not None and c.use is not None]
        for channel, _ in found:
            if channel.use == "surface":
                _feed(session, app, channel)
        with recording_plan_change(app, session, kitchen_id, "a probe told otherwise"):
            for channel, begin in found:
                if channel.use in ("air", "dough"):
                    _put(session, app, kitchen_id, channel, begin, now)


def _tells(session: Session, app: App, kitchen_id: int, channel_id: int, begin: dt.datetime, now: dt.datetime) -> bool:
    """True if what a channel told changes a reading, its doubt, or a surface's heat."""
    channel = get(session, Channel, channel_id)
    if channel is None or channel.use is None or channel.used_since is None:
        return False
    if channel.use == "surface":
        return _fed(session, app, channel) is not None
    if channel.use not in ("air", "dough"):
        return False
    fresh = _fresh(session, app, kitchen_id, channel, begin, now)
    return fresh.differs or _doubted(channel, fresh.told)


class _Fresh:
    """Thinned readings of a channel as they are to be, beside those that are stored."""

    def __init__(
        self,
        told: Heard,
        begin: dt.datetime,
        stored: Sequence[Reading],
        wanted: list[tuple[dt.datetime, float]],
        bake: Bake | None,
    ) -> None:
        self.told, self.begin, self.stored, self.bake = told, begin, stored, bake
        there = {(x.at, x.value) for x in stored}
        self.new = [p for p in wanted if p not in there]
        self.gone = [x for x in stored if (x.at, x.value) not in set(wanted)]

    @property
    def differs(self) -> bool:
        return bool(self.new or self.gone)


def _hour(at: dt.datetime) -> float:
    return (at - EPOCH).total_seconds() / 3600


def _fresh(
    session: Session, app: App, kitchen_id: int, channel: Channel, begin: dt.datetime, now: dt.datetime
) -> _Fresh:
    """The readings that a channel is to have from a little before `begin` on."""
    first = max(min(begin, later(now, -SEEN_H)), channel.used_since or begin, now - AIR_KEPT).astimezone(dt.UTC)
    grain = _grain(app.kitchen(session, kitchen_id), channel)
    start = EPOCH + dt.timedelta(hours=_hour(first) // grain.bin_h * grain.bin_h)
    points = [(_hour(at), value) for at, value in rows.since(session, channel.id or 0, start)]
    told = heard(points, cast(Use, channel.use), _hour(now))
    stored = rows.readings_of(session, channel.id or 0, start)
    before = rows.last_reading_before(session, channel.id or 0, start)
    last = None if before is None else (_hour(before[0]), before[1])
    wanted = [
        (EPOCH + dt.timedelta(seconds=round(h * 3600)), round(value, 2))
        for h, value in thinned(told.sound, last, _hour(now), grain)
    ]
    refused = {x.at for x in rows.readings_of(session, channel.id or 0, start, undone=True)}
    wanted = [p for p in wanted if p[0] not in refused]  # the cook took those back
    if channel.use != "dough":
        return _Fresh(told, start, stored, wanted, None)
    bake = _bake_of(session, app, kitchen_id, channel)
    mixed = _mixed(session, bake) if bake is not None else None
    inside = [p for p in wanted if mixed is not None and p[0] > mixed]
    mine = [x for x in stored if bake is not None and x.bake_id == bake.id]  # those of a dough before it stay
    return _Fresh(told, start, mine, inside, bake)


def _grain(kitchen: Kitchen, channel: Channel) -> Grain:
    """The grain at which a forecast needs the readings of a channel."""
    if channel.use == "dough":
        return DOUGH
    place = places_of(kitchen.places, kitchen.fridge_c).get(channel.place or "bench")
    return STEADY if place is not None and place.temp_c is not None else AIR


def _doubted(channel: Channel, told: Heard) -> bool:
    """True if what is wrong with a channel is another than is stored."""
    return channel.doubt != (told.doubt.code if told.doubt else None)


def _put(session: Session, app: App, kitchen_id: int, channel: Channel, begin: dt.datetime, now: dt.datetime) -> None:
    fresh = _fresh(session, app, kitchen_id, channel, begin, now)
    doubt = fresh.told.doubt
    channel.doubt = doubt.code if doubt else None
    channel.doubt_since = EPOCH + dt.timedelta(seconds=round(doubt.since_h * 3600)) if doubt else None
    session.add(channel)
    bake = fresh.bake
    for row in fresh.gone:
        session.delete(row)
    for at, value in fresh.new:
        kind = "air_c" if bake is None else "dough_c"
        made = Reading(
            kitchen_id=kitchen_id,
            kind=kind,
            bake_id=bake.id if bake is not None else None,
            place=channel.place if bake is None else None,
            value=value,
            source="probe",
            channel_id=channel.id,
            at=at,
            made_at=now,
        )
        insert(session, made)
    if bake is not None and fresh.differs:
        bake.revision += 1
        session.add(bake)


def _bake_of(session: Session, app: App, kitchen_id: int, channel: Channel) -> Bake | None:
    """The bake whose dough a probe is in: the one it was told, else the only one that rises."""
    live = [b for b in bake_rows.live(session, kitchen_id) if not b.hearth and _mixed(session, b) is not None]
    if channel.bake_id is not None:
        return next((b for b in live if b.id == channel.bake_id), None)
    return live[0] if len(live) == 1 else None


def _mixed(session: Session, bake: Bake) -> dt.datetime | None:
    """The instant at which a bake's dough was mixed."""
    return next((t.at for t in bake_rows.taps(session, bake.id or 0) if t.kind == "mix"), None)


def _fed(session: Session, app: App, channel: Channel) -> float | None:
    """The heat [C] that a surface has settled at by its pyrometer, where it is another than is believed."""
    surface = get(session, Surface, channel.surface_id) if channel.surface_id is not None else None
    points = latest(app).of(channel.id or 0)
    heat = settled(points) if points else None
    if surface is None or heat is None:
        return None
    known = surface.source == "infrared" and abs(surface.temp_c - heat) < FED_K
    return None if known else heat


def _feed(session: Session, app: App, channel: Channel) -> None:
    heat = _fed(session, app, channel)
    surface = get(session, Surface, channel.surface_id) if channel.surface_id is not None else None
    if heat is None or surface is None:
        return
    with recording_plan_change(app, session, surface.kitchen_id, "the surface was measured"):
        surface.temp_c, surface.source, surface.sd_k = round(heat), "infrared", SOURCES["infrared"].value
        session.add(surface)


class Follower(threading.Thread):
    """Has the plans follow readings beside the requests that bring them; all that a kitchen's channels told meanwhile
    at once."""

    def __init__(self, app: App) -> None:
        super().__init__(name="instruments", daemon=True)
        self.app = app
        self._due: dict[int, dict[int, dt.datetime]] = {}
        self._told = threading.Condition()
        self._ended = False

    def __call__(self, kitchen_id: int, due: Due) -> None:
        """Have it done soon."""
        with self._told:
            mine = self._due.setdefault(kitchen_id, {})
            for channel_id, begin in due.items():
                mine[channel_id] = min(mine.get(channel_id, begin), begin)
            self._told.notify()

    def end(self) -> None:
        """End after what is under way."""
        with self._told:
            self._ended = True
            self._told.notify()

    def run(self) -> None:
        """Until `end`."""
        while True:
            with self._told:
                self._told.wait_for(lambda: self._due or self._ended)
                if self._ended:
                    return
                kitchen_id = next(iter(self._due))
                due = self._due.pop(kitchen_id)
            try:
                follow(self.app, kitchen_id, due)
            except Exception as fault:
                print(f"A plan could not follow an instrument: {fault}", file=sys.stderr, flush=True)


def following(app: App) -> Callable[[int, Due], None]:
    """The function that has the plans follow: a thread of the running server, else at once."""
    found: Callable[[int, Due], None] | None = app.memory.get(FOLLOWER)
    return found or (lambda kitchen_id, due: follow(app, kitchen_id, due))


FOLLOWER = "follower"


def forget_raw(app: App) -> None:
    """Take away raw values of long ago; what was thinned of them stays."""
    with app.read() as session:
        found = [(k.id or 0, app.now(session, k)) for k in kitchen_rows.all_kitchens(session, app.with_demo)]
    for kitchen_id, now in found:
        with app.transaction() as session:
            rows.drop_before(session, kitchen_id, now - RAW_KEPT)


def watch(app: App) -> None:
    """Look at every channel that is used: one may have fallen silent, or its stretch be over."""
    with app.read() as session:
        used = {
            k.id or 0: {
                c.id or 0: app.now(session, k)
                for _, c in rows.of_kitchen(session, k.id or 0)
                if c.use in ("air", "dough")
            }
            for k in kitchen_rows.all_kitchens(session, app.with_demo)
        }
    for kitchen_id, due in used.items():
        if due:
            follow(app, kitchen_id, due)
