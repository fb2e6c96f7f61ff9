"""The passcode of the house: set, and tried with ever longer waits after wrong ones."""

from __future__ import annotations

import threading
from collections.abc import Callable
from dataclasses import dataclass, field

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from brassclock.core.errors import invalid
from brassclock.services.app import App
from brassclock.store import access as rows
from brassclock.store.rows import insert
from brassclock.store.tables import Passcode

LEAST, MOST = 8, 200
FREE_TRIES = 5  # wrong ones from one address before it has to wait
FIRST_WAIT_S, LONGEST_WAIT_S = 30.0, 3600.0
ALL_TRIES = 60  # wrong ones from everywhere before all have to wait
FORGET_S = 24 * 3600.0
MOST_KNOWN = 10_000  # addresses remembered
HASHER = PasswordHasher()  # argon2id, with the library's costs (RFC 9106, the low-memory choice)
EASY = frozenset({"12345678", "123456789", "1234567890", "password", "passcode", "brassclock", "flatbread", "11111111"})


def set_passcode(app: App, words: str) -> None:
    """Set the passcode, or another. Devices that were signed in stay so until they are forgotten.

    Raises InvalidInput for one that is too short, too long or easily guessed.
    """
    if not LEAST <= len(words) <= MOST:
        raise invalid("/passcode", f"{len(words)} characters are not taken. Give {LEAST} to {MOST}; three words do.")
    if words.casefold() in EASY or len(set(words)) < 4:
        raise invalid("/passcode", "That one is guessed at once. Three words that do not belong together do better.")
    with app.transaction() as session:
        had = rows.passcode(session)
        if had is None:
            insert(session, Passcode(hash=HASHER.hash(words), made_at=app.real_now()))
        else:
            had.hash, had.made_at = HASHER.hash(words), app.real_now()
            session.add(had)


def is_set(app: App) -> bool:
    """True if a passcode is set."""
    with app.read() as session:
        return rows.passcode(session) is not None


class Locked(RuntimeError):
    """Raised for a try while its address has to wait; `wait_s` is how long yet [s]."""

    def __init__(self, wait_s: float) -> None:
        super().__init__(f"Too many wrong passcodes. Try again in {_span(wait_s)}.")
        self.wait_s = wait_s


def _span(seconds: float) -> str:
    return f"{seconds:.0f} s" if seconds < 90 else f"{seconds / 60:.0f} min"


@dataclass
class _Known:
    wrong: int = 0
    until: float = 0.0
    last: float = 0.0


@dataclass
class Tries:
    """Wrong passcodes of late, by address, and the waits they brought. One passcode is tried at a time."""

    running: Callable[[], float]  # seconds that no clock's setting moves
    _by: dict[str, _Known] = field(default_factory=dict)
    _all: _Known = field(default_factory=_Known)
    _lock: threading.Lock = field(default_factory=threading.Lock)

    def matches(self, app: App, words: str, address: str) -> bool:
        """True if that is the passcode. Raises Locked."""
        with self._lock:
            now = self.running()
            mine = self._of(address, now)
            wait = max(mine.until, self._all.until) - now
            if wait > 0:
                raise Locked(wait)
            with app.read() as session:
                row = rows.passcode(session)
            right = row is not None and _verified(row.hash, words)
            if right:
                self._by.pop(address, None)
                return True
            _count(mine, now, FREE_TRIES)
            _count(self._all, now, ALL_TRIES)
            return False

    def _of(self, address: str, now: float) -> _Known:
        for key in [k for k, x in self._by.items() if now - x.last > FORGET_S]:
            del self._by[key]
        if now - self._all.last > FORGET_S:
            self._all = _Known()
        if len(self._by) >= MOST_KNOWN:
            del self._by[min(self._by, key=lambda k: self._by[k].last)]
        return self._by.setdefault(address, _Known(last=now))


def _count(known: _Known, now: float, free: int) -> None:
    known.wrong, known.last = known.wrong + 1, now
    over = known.wrong - free
    if over >= 0:
        known.until = now + min(FIRST_WAIT_S * 2.0 ** min(over, 20), LONGEST_WAIT_S)


def _verified(stored: str, words: str) -> bool:
    try:
        return HASHER.verify(stored, words[:MOST])
    except (VerificationError, InvalidHashError):
        return False
