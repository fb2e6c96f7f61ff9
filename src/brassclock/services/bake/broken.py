"""A bake that cannot be computed never hides the others: it is named, with what can be done."""

from __future__ import annotations

import logging
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from sqlalchemy.exc import SQLAlchemyError
from sqlmodel import Session, select

from brassclock.core.errors import InvalidInput
from brassclock.services.app import Conflict, NotFound, Outdated
from brassclock.store.tables import Bake
from brassclock.store.unit import Stale

log = logging.getLogger(__name__)
WHAT_TO_DO = "Nothing of it is lost. Put it away or delete it; the other bakes go on."


@dataclass(frozen=True)
class Broken:
    """A bake that cannot be computed: which, and the fault as it was met."""

    bake_id: int
    name: str
    fault: str


class Uncomputable(Conflict):
    """One bake cannot be computed; the message says which and what can be done."""

    def __init__(self, broken: Broken) -> None:
        super().__init__(f"{broken.name} cannot be computed ({broken.fault}). {WHAT_TO_DO}")
        self.broken = broken


def broken_of(session: Session, bake_id: int, fault: Exception) -> Broken:
    """The bake that `fault` came of; it is written to the log whole."""
    log.error("bake %s cannot be computed", bake_id, exc_info=fault)
    name = session.exec(select(Bake.name).where(Bake.id == bake_id)).first() or f"Bake {bake_id}"
    words = f"{type(fault).__name__}: {fault}".splitlines()[0]
    return Broken(bake_id, str(name), words[:160])


@contextmanager
def catching(session: Session, bake_id: int, into: list[Broken]) -> Iterator[None]:
    """A fault inside is this bake's alone: it is put into the list. What is meant for the asker goes through."""
    try:
        yield
    except (Stale, NotFound, Conflict, Outdated, InvalidInput):
        raise
    except Exception as fault:
        if isinstance(fault, SQLAlchemyError) and "locked" in str(fault):
            raise
        into.append(broken_of(session, bake_id, fault))
