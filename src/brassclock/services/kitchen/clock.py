"""View of a kitchen's clock."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable

from sqlmodel import Session

from brassclock.services.app import App
from brassclock.services.schemas.base import ClockRead
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.tables import ClockState, Kitchen

ON_HEAT_S = 20 * 60.0  # after the last move at a heat, none is on it any more
AGAIN_S = 1.0
LAST_DONE = (
    "select max(t.at), max(case when t.kind in ('load', 'turn', 'off', 'fell') then t.at end) from tap t "
    "join bake b on b.id = t.bake_id left join clock c on c.kitchen_id = b.kitchen_id "
    "where t.undone_at is null and c.kitchen_id is null"
)


def clock_out(app: App, session: Session, kitchen: Kitchen) -> ClockRead:
    """A kitchen's clock as the pages are told it."""
    now = app.now(session, kitchen)
    return clock_shown(now, kitchen_rows.clock_of(session, kitchen.id or 0), app.apart_s)


def clock_shown(now: dt.datetime, state: ClockState | None, apart_s: float = 0.0) -> ClockRead:
    """A clock as the pages are told it; no state is the real clock."""
    rate, set_at = (1.0, None) if state is None else (state.rate, state.anchor_real)
    return ClockRead(now=now, rate=rate, simulated=state is not None, set_at=set_at, apart_s=round(apart_s, 1))


def may_follow(app: App) -> Callable[[float, float], bool]:
    """True if the one clock may go over to the machine's, which was set: no bread is on the heat, and nothing was done
    after the time it would show."""

    looked: list[tuple[float, bool]] = []  # it is asked with every look at a clock

    def free(machine: float, own: float) -> bool:
        if not looked or abs(own - looked[0][0]) >= AGAIN_S:
            looked[:] = [(own, now_free(machine, own))]
        return looked[0][1]

    def now_free(machine: float, own: float) -> bool:
        with app.connect() as connection:
            last, burnt = connection.exec_driver_sql(LAST_DONE).one()
        burns = burnt is not None and own - dt.datetime.fromisoformat(burnt).timestamp() < ON_HEAT_S
        return not burns and (last is None or dt.datetime.fromisoformat(last).timestamp() <= machine)

    return free
