"""View of a kitchen's clock."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.services.app import App
from brassclock.services.schemas.base import ClockRead
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.tables import ClockState, Kitchen


def clock_out(app: App, session: Session, kitchen: Kitchen) -> ClockRead:
    """A kitchen's clock as the pages are told it."""
    return clock_shown(app.now(session, kitchen), kitchen_rows.clock_of(session, kitchen.id or 0))


def clock_shown(now: dt.datetime, state: ClockState | None) -> ClockRead:
    """A clock as the pages are told it; no state is the real clock."""
    rate, set_at = (1.0, None) if state is None else (state.rate, state.anchor_real)
    return ClockRead(now=now, rate=rate, simulated=state is not None, set_at=set_at)
