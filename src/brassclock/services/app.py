"""The application: the database, the one clock object, and units of work: read, compute, then store in one short
transaction."""

from __future__ import annotations

import datetime as dt
import os
import time
from collections import deque
from collections.abc import Callable, Hashable, Iterator
from contextlib import AbstractContextManager, contextmanager
from contextvars import ContextVar
from typing import Any, TypeVar
from zoneinfo import ZoneInfo

from sqlalchemy import Connection, Engine
from sqlmodel import Session

from brassclock.store import kitchens
from brassclock.store.rows import get
from brassclock.store.tables import ClockState, Kitchen
from brassclock.store.unit import Ids, Locks, Unit

RATES = (0.0, 1.0, 60.0)
T = TypeVar("T")


class SystemClock:
    """The machine's time, aware. Set meanwhile, it goes on by true seconds until it may follow: not while bread is on
    the heat, and not back behind what was done. Time in which the machine slept has passed: it is no jump."""

    def __init__(
        self,
        wall: Callable[[], float] = time.time,
        running: Callable[[], float] = lambda: time.clock_gettime(time.CLOCK_BOOTTIME),
    ) -> None:
        self._wall, self._running = wall, running
        self._ahead, self._began = wall(), running()
        # whether it may go over to the machine's time from its own [s since 1970 both]
        self.may_follow: Callable[[float, float], bool] = lambda machine, own: machine > own
        self.apart_s = 0.0  # this clock over the machine's own

    def __call__(self) -> dt.datetime:
        carried_on = self._ahead + self._running() - self._began
        told = self._wall()
        if abs(told - carried_on) > SET_S and not self.may_follow(told, carried_on):
            self.apart_s = carried_on - told
            told = carried_on
        else:
            self.apart_s = 0.0
            self._ahead, self._began = told, self._running()
        return dt.datetime.fromtimestamp(told, dt.UTC)


SET_S = 2.0  # clocks are corrected by less all the time
system_now = SystemClock()


class NotFound(LookupError):
    """Raised for something that is not there; the message says what, and where to look."""


class Conflict(ValueError):
    """The request is readable but cannot be done now; the message says why and what would be right."""


class Outdated(RuntimeError):
    """An edit was made on a revision of a bake that is not its newest."""

    def __init__(self, bake_id: int, words: str) -> None:
        super().__init__(words)
        self.bake_id = bake_id


class App:
    """Opens sessions and tells the time. `real_now` is the only clock of the process."""

    def __init__(self, engine: Engine, *, with_demo: bool, real_now: Callable[[], dt.datetime] = system_now) -> None:
        self.engine = engine
        self._looking = engine.execution_options(looking=True)
        self.with_demo = with_demo
        self.real_now = real_now
        self.held_ms: deque[float] = deque(maxlen=10_000)  # how long each change held the write lock
        self.memory: dict[str, Any] = {}  # what services keep between requests, each under its own name
        self._writes = 0
        self._steady: tuple[Hashable, Any] | None = None
        self._ids, self._locks = Ids(), Locks()
        self._unit: ContextVar[Unit | None] = ContextVar("unit", default=None)
        self._kitchen_of: dict[int, int] = {}

    @property
    def apart_s(self) -> float:
        """Seconds by which the one clock is ahead of the machine's, which was set meanwhile; 0 where they agree."""
        return float(getattr(self.real_now, "apart_s", 0.0))

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A consistent view that changes nothing and makes nobody wait; inside a change, that change as it stands."""
        unit = self._unit.get()
        if unit is not None:
            yield unit.session
            return
        with Session(self._looking, expire_on_commit=False) as session, session.begin():
            yield session

    @contextmanager
    def unit(self) -> Iterator[Unit]:
        """Everything done inside is stored at the end, all of it or nothing. A unit inside a unit is that unit.

        Raises Stale when what it was computed from was changed meanwhile.
        """
        outer = self._unit.get()
        if outer is not None:
            yield outer
            return
        unit = Unit(self.engine, self._ids, self._locks, self._alive, self.held_ms)
        token = self._unit.set(unit)
        try:
            yield unit
            self._writes += unit.store()
        finally:
            self._unit.reset(token)
            unit.close()

    @contextmanager
    def transaction(self, kitchen_id: int | None = None) -> Iterator[Session]:
        """A change of a kitchen, or of none yet. Changes of one kitchen take turns."""
        with self.unit() as unit:
            if kitchen_id is not None:
                unit.take_turn(("kitchen", kitchen_id))
                unit.guard("kitchen", "version", kitchen_id, bumps=True)
            yield unit.session

    @contextmanager
    def bake_transaction(self, bake_id: int) -> Iterator[Session]:
        """A change of a bake that other plans of its kitchen may hang on."""
        kitchen_id = self._kitchen_id(bake_id)
        with self.transaction(kitchen_id) as session, self.unit() as unit:
            unit.guard("bake", "revision", bake_id, bumps=False)
            yield session

    @contextmanager
    def heat_transaction(self, bake_id: int) -> Iterator[Unit]:
        """A move on the heat of a bake whose line has begun: nothing else in the kitchen hangs on it. The move guards
        the revision it read."""
        with self.unit() as unit:
            unit.take_turn(("bake", bake_id))
            yield unit

    def connect(self) -> AbstractContextManager[Connection]:
        """A connection for one look at what is stored, outside any change."""
        return self._looking.connect()

    def peek(self, bake_id: int, column: str) -> Any:
        """A stored value of a bake, outside any change; None when there is none, or it cannot be read."""
        with self._looking.connect() as connection:
            return connection.exec_driver_sql(f"select {column} from bake where id = ?", (bake_id,)).scalar()

    def _alive(self) -> bool:
        """True if the database's file is still there."""
        path = self.engine.url.database
        return path is None or os.path.exists(path)

    def _kitchen_id(self, bake_id: int) -> int | None:
        """The kitchen of a bake, which never changes; None when there is no such bake."""
        if bake_id not in self._kitchen_of:
            found = self.peek(bake_id, "kitchen_id")
            if found is None:
                return None
            self._kitchen_of[bake_id] = found
        return self._kitchen_of[bake_id]

    def cached(self, what: Hashable, look: Callable[[], T]) -> T:
        """Cached result of `look`, kept until anything is written or the minute is over: for many questions about one
        thing.

        Only the last one is kept, and nobody may alter it.
        """
        key = (what, self._writes, self.real_now().replace(second=0, microsecond=0))
        kept = self._steady
        if kept is None or kept[0] != key:
            kept = self._steady = (key, look())
        found: T = kept[1]
        return found

    def kitchen(self, session: Session, kitchen_id: int) -> Kitchen:
        """The kitchen, or NotFound."""
        kitchen = get(session, Kitchen, kitchen_id)
        if kitchen is None or (kitchen.demo and not self.with_demo):
            raise NotFound(f"There is no kitchen {kitchen_id}. /api/kitchens lists them.")
        return kitchen

    def now(self, session: Session, kitchen: Kitchen) -> dt.datetime:
        """Now in that kitchen, in its zone: simulated in the demo."""
        state = kitchens.clock_of(session, kitchen.id or 0)
        return clock_now(state, self.real_now()).astimezone(ZoneInfo(kitchen.zone))

    def set_clock(
        self, session: Session, kitchen: Kitchen, *, rate: float | None = None, to: dt.datetime | None = None
    ) -> None:
        """Run the demo's clock at another rate, or jump it forward."""
        state = kitchens.clock_of(session, kitchen.id or 0)
        if state is None:
            raise Conflict("Only the demo kitchen has a clock that can be set. Leave yours to the real time.")
        if rate is not None and rate not in RATES:
            raise Conflict(f"Rate {rate:g} is not offered. Use 0 (pause), 1 or 60.")
        now = clock_now(state, self.real_now())
        if to is not None and to < now:
            raise Conflict("The clock only jumps forward.")
        state.anchor_sim = to or now
        state.anchor_real = self.real_now()
        state.rate = state.rate if rate is None else rate
        session.add(state)


def stored_clock(kitchen_id: int, real: str | None, sim: str | None, rate: float | None) -> ClockState | None:
    """A kitchen's clock of its columns as they are stored, in no session; None for the real clock."""
    if real is None or sim is None or rate is None:
        return None
    anchors = dt.datetime.fromisoformat(real), dt.datetime.fromisoformat(sim)
    return ClockState(kitchen_id=kitchen_id, anchor_real=anchors[0], anchor_sim=anchors[1], rate=rate)


def clock_now(state: ClockState | None, real: dt.datetime) -> dt.datetime:
    """Time that a clock shows at a real instant; no state is the real clock."""
    if state is None:
        return real
    return state.anchor_sim + state.rate * (real - state.anchor_real)
