"""The house: the database, the one clock object, and a session per action."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Hashable, Iterator
from contextlib import contextmanager
from typing import Any, TypeVar
from zoneinfo import ZoneInfo

from sqlalchemy import Engine
from sqlmodel import Session

from brassclock.store import kitchens
from brassclock.store.tables import ClockState, Kitchen

RATES = (0.0, 1.0, 60.0)
T = TypeVar("T")


def system_now() -> dt.datetime:
    """The machine's time, aware."""
    return dt.datetime.now(dt.UTC)


class Missing(LookupError):
    """What was asked for is not there; the message says what, and where to look."""


class Refused(ValueError):
    """The request is readable but cannot be done now; the message says why and what would be right."""


class House:
    """Opens sessions and tells the time. `real_now` is the only clock of the process."""

    def __init__(self, engine: Engine, *, with_demo: bool, real_now: Callable[[], dt.datetime] = system_now) -> None:
        self.engine = engine
        self._looking = engine.execution_options(looking=True)
        self.with_demo = with_demo
        self.real_now = real_now
        self._writes = 0
        self._steady: tuple[Hashable, Any] | None = None

    @contextmanager
    def look(self) -> Iterator[Session]:
        """A consistent view that changes nothing and makes nobody wait."""
        with Session(self._looking, expire_on_commit=False) as session, session.begin():
            yield session

    @contextmanager
    def action(self) -> Iterator[Session]:
        """One change, one transaction, one at a time: all of it or nothing."""
        with Session(self.engine, expire_on_commit=False) as session, session.begin():
            yield session
        self._writes += 1

    def steady(self, what: Hashable, look: Callable[[], T]) -> T:
        """What `look` finds, kept until anything is written or the minute is over: for many questions about one thing.

        Only the last one is kept, and nobody may alter it.
        """
        key = (what, self._writes, self.real_now().replace(second=0, microsecond=0))
        kept = self._steady
        if kept is None or kept[0] != key:
            kept = self._steady = (key, look())
        found: T = kept[1]
        return found

    def kitchen(self, session: Session, kitchen_id: int) -> Kitchen:
        """The kitchen, or Missing."""
        kitchen = session.get(Kitchen, kitchen_id)
        if kitchen is None or (kitchen.demo and not self.with_demo):
            raise Missing(f"There is no kitchen {kitchen_id}. /api/kitchens lists them.")
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
            raise Refused("Only the demo kitchen has a clock that can be set. Leave yours to the real time.")
        if rate is not None and rate not in RATES:
            raise Refused(f"Rate {rate:g} is not offered. Use 0 (pause), 1 or 60.")
        now = clock_now(state, self.real_now())
        if to is not None and to < now:
            raise Refused("The clock only jumps forward.")
        state.anchor_sim = to or now
        state.anchor_real = self.real_now()
        state.rate = state.rate if rate is None else rate
        session.add(state)


def clock_now(state: ClockState | None, real: dt.datetime) -> dt.datetime:
    """What a clock shows at a real instant; no state is the real clock."""
    if state is None:
        return real
    return state.anchor_sim + state.rate * (real - state.anchor_real)
