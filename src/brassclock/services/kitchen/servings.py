"""Tables that are served from the freezer: their moves on the Rule, done and undone."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.kitchen.freezer import give_back, planned, read, take_of
from brassclock.services.schemas.base import StepRead
from brassclock.services.schemas.freezer import FreezerRead, ServingCreate, ServingUpdate
from brassclock.services.times import serve_moment
from brassclock.store import freezer
from brassclock.store.rows import get, insert
from brassclock.store.tables import Serving

AT_ONCE = dt.timedelta(seconds=30)
SHOWN = dt.timedelta(hours=6)  # a table that is over for so long is no longer shown
HEAT_MIN = 2.0  # hands at the pan, for each wave


def plan_serving(app: App, kitchen_id: int, given: ServingCreate) -> FreezerRead:
    """Plan a table from the freezer: its moves stand on the Rule. Raises Conflict where there is none for it."""
    with app.transaction(kitchen_id) as session:
        now = app.now(session, app.kitchen(session, kitchen_id))
        at = serve_moment(given.serve, now)
        moves, said = planned(session, kitchen_id, given.wanted, at, now)
        if not moves:
            raise Conflict(said[0] if said else "The freezer holds nothing for that table.")
        kept = [
            {**m, "at": m["at"].isoformat(), "heat_at": m["heat_at"].isoformat(), "taken_at": None, "heated_at": None}
            for m in moves
        ]
        insert(session, Serving(kitchen_id=kitchen_id, serve_at=at, wanted=given.wanted, moves=kept))
        return read(session, kitchen_id)


def change_serving(app: App, kitchen_id: int, serving_id: int, given: ServingUpdate) -> FreezerRead:
    """Mark a move of a table done or not done, cancel it or bring it back. What is taken out leaves the freezer."""
    with app.transaction(kitchen_id) as session:
        now = app.now(session, app.kitchen(session, kitchen_id))
        row = get(session, Serving, serving_id)
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"There is no serving {serving_id} from this freezer.")
        if given.cancelled is not None:
            row.cancelled_at = now if given.cancelled else None
        elif given.number is None or given.what is None or given.number >= len(row.moves):
            raise invalid("/number", f"Say which move: number 0 to {len(row.moves) - 1}, and what was done.")
        else:
            row.moves = _marked(session, row, given, now)
        session.add(row)
        return read(session, kitchen_id)


def _marked(session: Session, row: Serving, given: ServingUpdate, now: dt.datetime) -> list[dict[str, Any]]:
    """The moves with one of them marked; what is heated was taken out."""
    moves = [dict(m) for m in row.moves]
    move = moves[given.number or 0]
    if given.done:
        if move["taken_at"] is None:
            take_of(session, row.kitchen_id, move["row_id"], move["count"], now, row.id or 0)
            move["taken_at"] = now.isoformat()
        if given.what == "heated":
            move["heated_at"] = now.isoformat()
    else:
        if given.what == "taken" or _at_once(move):
            give_back(session, row.kitchen_id, move["row_id"], row.id or 0)
            move["taken_at"] = None
        move["heated_at"] = None
    return moves


def _at_once(move: dict[str, Any]) -> bool:
    """True if it is taken out and heated in one move."""
    return _instant(move["heat_at"]) - _instant(move["at"]) < AT_ONCE


def _instant(text: str | None) -> dt.datetime:
    assert text is not None
    return dt.datetime.fromisoformat(text)


def steps_of_servings(session: Session, kitchen_id: int, now: dt.datetime) -> list[StepRead]:
    """The moves of tables from the freezer as they stand on the Rule, and the tables themselves."""
    found = []
    for row in freezer.servings(session, kitchen_id):
        if row.serve_at < now - SHOWN:
            continue
        for n, move in enumerate(row.moves):
            number = 100 * (row.id or 0) + n  # keys differ by their digits
            if not _at_once(move):
                found.append(_step(row, move, f"take_out{number}", "at", "taken_at", now))
            found.append(_step(row, move, f"heat{number}", "heat_at", "heated_at", now))
    return found


def _step(row: Serving, move: dict[str, Any], key: str, at: str, done: str, now: dt.datetime) -> StepRead:
    zone = now.tzinfo
    heats = key.startswith("heat")
    return StepRead(
        bake_id=0,
        bake=f"{move['count']} {move['name']}",
        seal="round",
        key=key,
        name="Heat" if heats else "Take out",
        at=_instant(move[at]).astimezone(zone),
        can_wait_until=None,
        not_before=None,
        done_at=None if move[done] is None else _instant(move[done]).astimezone(zone),
        leaf="freezer",
        hands_min=HEAT_MIN * move["waves"] if heats else 1.0,
        place="the pan" if heats else "the freezer",
        reason=move["way"],
        away=None,
        pinned=False,
        freezer=row.kitchen_id,
    )
