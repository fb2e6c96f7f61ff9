"""A unit of work: read and compute on one snapshot without a lock, then check that it still holds and write all at
once."""

from __future__ import annotations

import errno
import threading
import time
from collections import deque
from collections.abc import Callable, Hashable
from contextlib import ExitStack
from dataclasses import dataclass, field

from sqlalchemy import Connection, Engine
from sqlalchemy.exc import IntegrityError, OperationalError
from sqlmodel import Session, SQLModel

from brassclock.store.rows import highest_id


class Stale(RuntimeError):
    """Raised when the input of a change was altered meanwhile: nothing was stored, the change is to be made again."""


@dataclass(frozen=True)
class Guard:
    """A counter that must not have moved since it was read. `bumps`: the change moves it by one itself."""

    table: str
    column: str
    key: int
    seen: int
    bumps: bool

    def check(self, connection: Connection) -> None:
        """Raise Stale when the counter moved; move it."""
        if self.bumps:
            moved = connection.exec_driver_sql(
                f"update {self.table} set {self.column} = {self.column} + 1 where id = ? and {self.column} = ?",
                (self.key, self.seen),
            )
            if moved.rowcount == 0:
                raise Stale(f"{self.table} {self.key} was changed meanwhile, or is gone.")
            return
        found = connection.exec_driver_sql(f"select {self.column} from {self.table} where id = ?", (self.key,)).scalar()
        if found is not None and found != self.seen:
            raise Stale(f"{self.table} {self.key} was changed meanwhile.")


class Ids:
    """Ids for rows that are not written yet: each given once in this process."""

    def __init__(self) -> None:
        self._last: dict[type[SQLModel], int] = {}
        self._lock = threading.Lock()

    def __call__(self, session: Session, table: type[SQLModel]) -> int:
        with self._lock:
            last = self._last[table] if table in self._last else highest_id(session, table)
            self._last[table] = last + 1
            return last + 1

    def forget(self) -> None:
        """Read the highest ids again: another process has written."""
        with self._lock:
            self._last.clear()


class Locks:
    """One lock for each thing that changes take turns at, so that none computes in vain."""

    def __init__(self) -> None:
        self._locks: dict[Hashable, threading.RLock] = {}
        self._lock = threading.Lock()

    def of(self, what: Hashable) -> threading.RLock:
        with self._lock:
            return self._locks.setdefault(what, threading.RLock())


@dataclass
class Unit:
    """One change under way: its session, what it must find unchanged, and the turns it holds."""

    engine: Engine
    ids: Ids
    locks: Locks
    alive: Callable[[], bool] = lambda: True  # whether the data is still where it was
    held_ms: deque[float] = field(default_factory=lambda: deque(maxlen=10_000))  # how long write locks were held
    session: Session = field(init=False)
    guards: list[Guard] = field(default_factory=list)
    after: list[Callable[[], None]] = field(default_factory=list)
    _turns: ExitStack = field(default_factory=ExitStack)

    def __post_init__(self) -> None:
        looking = self.engine.execution_options(looking=True)
        self.session = Session(
            looking, expire_on_commit=False, autoflush=False, info={"ids": self.ids, "statements": []}
        )

    def take_turn(self, what: Hashable) -> None:
        """Wait for other changes of the same thing in this process."""
        self._turns.enter_context(self.locks.of(what))

    def guard(self, table: str, column: str, key: int, *, bumps: bool) -> None:
        """Have a counter checked before anything is stored."""
        if any((g.table, g.key) == (table, key) for g in self.guards):
            return
        query = f"select {column} from {table} where id = ?"
        seen = self.session.connection().exec_driver_sql(query, (key,)).scalar()
        if seen is not None:
            self.expect(table, column, key, int(seen), bumps=bumps)

    def expect(self, table: str, column: str, key: int, seen: int, *, bumps: bool) -> None:
        """The same for a counter that was read in this unit's snapshot already."""
        self.guards.append(Guard(table, column, key, seen, bumps))

    @property
    def changes(self) -> bool:
        """True if there is anything to write."""
        session = self.session
        waits = session.info["statements"] or session.new or session.deleted
        return bool(waits) or any(session.is_modified(x) for x in session.dirty)

    def store(self) -> bool:
        """Write everything, or nothing; whether there was anything. Raises Stale."""
        if not self.changes:
            return False
        if not self.alive():
            raise FileNotFoundError(errno.ENOENT, "The data was removed while it was in use; nothing was stored.")
        try:
            # writers of this process wait for each other here: SQLite's own waiting looks again and again, ever later
            with self.locks.of("writing"):
                self._write()
        except IntegrityError as fault:
            self.ids.forget()
            raise Stale(str(fault.orig)) from fault
        except OperationalError as fault:
            if "locked" in str(fault.orig):
                raise Stale("The data is being written by another for long.") from fault
            raise
        for action in self.after:
            action()
        return True

    def _write(self) -> None:
        session = self.session
        connection = session.connection()
        connection.exec_driver_sql("ROLLBACK")  # the snapshot; nothing was written in it
        connection.exec_driver_sql("BEGIN IMMEDIATE")
        began = time.perf_counter()
        if session.new or session.deleted:
            connection.exec_driver_sql("PRAGMA defer_foreign_keys=ON")
        for guard in self.guards:
            guard.check(connection)
        session.flush()
        for statement, values in session.info["statements"]:
            session.execute(statement, values)
        session.commit()
        self.held_ms.append(1000 * (time.perf_counter() - began))

    def close(self) -> None:
        """Let go of the session and of every turn."""
        try:
            self.session.close()
        finally:
            self._turns.close()
