"""Acts of one press, kept so that they can be undone."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

from sqlmodel import Session

from brassclock.store.rows import insert
from brassclock.store.tables import Act, Bake, BusyHours, Kitchen

KEPT = (
    "lines",
    "weighed",
    "cold",
    "pins",
    "serve_at",
    "serve_until",
    "surface_id",
    "bulk_place",
    "ball_place",
    "bulk_air",
    "ball_air",
)


@contextmanager
def act(
    session: Session, kitchen: Kitchen, now: dt.datetime, what: str, bakes: Sequence[Bake]
) -> Iterator[list[BusyHours]]:
    """Record the changes of these bakes inside as one act; busy hours that it adds to the session are told in the list.

    Every bake has its next revision already.
    """
    before = {str(b.id): {**_kept(b), "revision": b.revision} for b in bakes}
    added: list[BusyHours] = []
    yield added
    act_row = Act(kitchen_id=kitchen.id or 0, at=now, what=what[:300], before=before, busy=[b.id or 0 for b in added])
    insert(session, act_row)


def _kept(bake: Bake) -> dict[str, Any]:
    found = {name: getattr(bake, name) for name in KEPT}
    return {k: v.isoformat() if isinstance(v, dt.datetime) else v for k, v in found.items()}
