"""Lines on the heat, kept in memory by revision: a move is one step, a poll without news one query.

A bake whose hearth is frozen needs nothing of the kitchen but its clock. What is kept here is thrown away when the
bake's revision is another, and is read anew from the taps after a restart.
"""

from __future__ import annotations

import datetime as dt
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from threading import Lock
from zoneinfo import ZoneInfo

from sqlalchemy import Connection
from sqlmodel import Session

from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.fire.line.live import Follower, LiveLine
from brassclock.core.fire.line.spec import LineSpec
from brassclock.services.app import App, clock_now, stored_clock
from brassclock.services.bake import frozen
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.model import QUICK_LINE
from brassclock.services.kitchen.clock import clock_shown
from brassclock.services.schemas.base import ClockRead
from brassclock.services.schemas.fire import TapRead
from brassclock.store import bakes as bake_rows
from brassclock.store.rows import get
from brassclock.store.tables import Bake, ClockState, Tap
from brassclock.store.unit import Unit

MOST_KEPT = 64
BUCKET_S = 20  # of the kitchen's time: how a bread in the towel feels changes that slowly


@dataclass(frozen=True)
class HeatState:
    """A bake on the heat at one revision: its rows (read only, in no session), its taps as the core reads them and as
    they are shown."""

    revision: int
    rows: BakeSnapshot
    moves: tuple[hearth_rules.Tap, ...]
    shown: tuple[TapRead, ...]


@dataclass(frozen=True)
class Stamp:
    """Version of a bake's live hearth, of one query: its revision, whether it is frozen, and now."""

    kitchen_id: int
    revision: int
    begun: bool
    now: dt.datetime
    clock: ClockState | None
    tap_id: int | None = None  # of the tap that was asked for, undone or not
    apart_s: float = 0.0  # of the one clock over the machine's

    @property
    def tag(self) -> str:
        """The entity tag of the hearth: the same while nothing is new."""
        set_at = self.clock.anchor_real.timestamp() if self.clock else 0
        rate = self.clock.rate if self.clock else 1.0
        return f'"{self.revision}-{set_at:.3f}-{rate:g}-{int(self.now.timestamp()) // BUCKET_S}"'

    def clock_out(self) -> ClockRead:
        """The kitchen's clock as the pages are told it."""
        return clock_shown(self.now, self.clock, self.apart_s)


STAMP = (
    "select b.kitchen_id, b.revision, b.hearth is not null, k.zone, c.anchor_real, c.anchor_sim, c.rate, "
    "(select t.id from tap t where t.bake_id = b.id and t.key = ?) from bake b "
    "join kitchen k on k.id = b.kitchen_id left join clock c on c.kitchen_id = k.id where b.id = ? and b.deleted_at "
    "is null "
    "and (k.demo = 0 or ?)"
)


def stamp_now(app: App, bake_id: int) -> Stamp | None:
    """The same, outside any change."""
    with app.connect() as connection:
        return stamp(app, connection, bake_id)


def stamp(app: App, connection: Connection, bake_id: int, key: str | None = None) -> Stamp | None:
    """Version of the hearth of a bake, and whether it has a tap of that key; None when there is no such bake."""
    row = connection.exec_driver_sql(STAMP, (key, bake_id, app.with_demo)).fetchone()
    if row is None:
        return None
    kitchen_id, revision, begun, zone, real, sim, rate, tap_id = row
    clock = stored_clock(kitchen_id, real, sim, rate)
    now = clock_now(clock, app.real_now()).astimezone(ZoneInfo(zone))
    return Stamp(kitchen_id, revision, bool(begun), now, clock, tap_id, app.apart_s)


class HeatStates:
    """The bakes that are on the heat, each at the revision it was asked for last."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._states: OrderedDict[int, HeatState] = OrderedDict()

    def state(self, app: App, session: Session, bake_id: int, seen: Stamp) -> HeatState:
        """A bake that is on the heat, as of its stamp."""
        with self._lock:
            kept = self._states.get(bake_id)
        if kept is not None and kept.revision == seen.revision:
            return replace(kept, rows=replace(kept.rows, now=seen.now))
        found = _read(app, session, bake_id, seen)
        self.keep(bake_id, found)
        return found

    def __contains__(self, bake_id: int) -> bool:
        return bake_id in self._states

    def forget(self, bake_id: int) -> None:
        """The bake is on the heat no more."""
        with self._lock:
            self._states.pop(bake_id, None)

    def keep(self, bake_id: int, state: HeatState) -> None:
        """Keep a state for the next question."""
        with self._lock:
            self._states[bake_id] = state
            self._states.move_to_end(bake_id)
            while len(self._states) > MOST_KEPT:
                self._states.popitem(last=False)


def states_of(app: App) -> HeatStates:
    """States of the bakes on the heat that the App keeps."""
    found = app.memory.setdefault("heat", HeatStates())
    assert isinstance(found, HeatStates)
    return found


class Lines:
    """Lines that are followed. One that is planned otherwise, or has other moves, is taken up anew by its follower."""

    def __init__(self) -> None:
        self._lock = Lock()
        self._lines: OrderedDict[int, tuple[Follower, Lock]] = OrderedDict()

    def after(self, bake_id: int, spec: LineSpec, rounds: int, moves: Sequence[hearth_rules.Tap]) -> LiveLine | None:
        """The rest of a bake's line after these moves."""
        with self._lock:
            kept = self._lines.get(bake_id)
            if kept is None or (kept[0].spec, kept[0].breads) != (spec, rounds):
                kept = self._lines[bake_id] = (Follower(spec, rounds, QUICK_LINE), Lock())
            self._lines.move_to_end(bake_id)
            while len(self._lines) > MOST_KEPT:
                self._lines.popitem(last=False)
        follower, lock = kept
        with lock:
            return follower.follow(moves)


LINES = Lines()


def _read(app: App, session: Session, bake_id: int, seen: Stamp) -> HeatState:
    """A bake on the heat, read whole; its rows belong to no session."""
    bake = get(session, Bake, bake_id)
    assert bake is not None and bake.hearth is not None
    kitchen = app.kitchen(session, bake.kitchen_id)
    taps = bake_rows.taps(session, bake_id)
    apart = BakeSnapshot(
        Bake(**bake.model_dump()),
        type(kitchen)(**kitchen.model_dump()),
        frozen.surface_of(bake),
        [Tap(**t.model_dump()) for t in taps],
        (),
        (),
        {},
        {},
        seen.now,
    )
    return HeatState(seen.revision, apart, core_taps(taps), taps_out(taps))


def with_tap(state: HeatState, row: Tap) -> HeatState:
    """The state after one more tap, at the next revision."""
    new, last = Tap(**row.model_dump()), state.shown[-1] if state.shown else None
    if last is None or last.at <= row.at:
        return HeatState(
            state.revision + 1,
            replace(state.rows, taps=[*state.rows.taps, new]),
            (*state.moves, *core_taps([new])),
            (*state.shown, *taps_out([new])),
        )
    taps = sorted([*state.rows.taps, new], key=lambda t: (t.at, t.id or 0))
    return HeatState(state.revision + 1, replace(state.rows, taps=taps), core_taps(taps), taps_out(taps))


def pending(session: Session, bake_id: int) -> tuple[HeatState, Stamp] | None:
    """The state that a unit of work is about to store, and the stamp it was made from; None when it moves nothing on
    that bake's heat."""
    found: tuple[HeatState, Stamp] | None = session.info.get(("heat", bake_id))
    return found


def set_pending(app: App, unit: Unit, bake_id: int, state: HeatState, seen: Stamp) -> None:
    """Have a state shown by its unit of work, and kept once that is stored."""
    unit.session.info["heat", bake_id] = state, seen
    unit.after.append(lambda: states_of(app).keep(bake_id, state))


def taps_out(taps: Sequence[Tap]) -> tuple[TapRead, ...]:
    """Taps as the pages are told them."""
    return tuple(
        TapRead(id=t.id or 0, key=t.key, kind=t.kind, round_no=t.round_no, spot=t.spot, at=t.at, by=t.by) for t in taps
    )


def core_taps(taps: Sequence[Tap]) -> tuple[hearth_rules.Tap, ...]:
    """The moves and facts on the heat, as the core reads them."""
    return tuple(
        hearth_rules.Tap(t.kind, t.round_no or 0, t.spot or 0, t.at.timestamp())
        for t in taps
        if t.kind in hearth_rules.ON_HEAT or t.kind in hearth_rules.FACTS
    )
