"""The freezer of a kitchen: breads put in, taken out, given back, and what to take out for a table."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.keep.stock import SPOTS, Frozen, taken_out
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.fire.model import holds_meat
from brassclock.services.keep.kept import kept_of
from brassclock.services.schemas.freezer import (
    FreezeCreate,
    FreezerRead,
    FrozenRead,
    ServingMoveRead,
    ServingRead,
    TakeOutRead,
    ThawPlanRead,
)
from brassclock.services.times import past_moment, serve_moment
from brassclock.store import freezer, kitchens
from brassclock.store.rows import get, insert
from brassclock.store.tables import FrozenBread, Serving


def freezer_out(app: App, kitchen_id: int) -> FreezerRead:
    """The rows of the freezer, the oldest first."""
    with app.read() as session:
        app.kitchen(session, kitchen_id)
        return read(session, kitchen_id)


def read(session: Session, kitchen_id: int) -> FreezerRead:
    """Rows of a kitchen's freezer, and the tables that are served from it."""
    rows = [_row(x) for x in freezer.rows(session, kitchen_id) if _left(x) > 0 or x.taken]
    return FreezerRead(rows=rows, servings=[serving_out(x) for x in freezer.servings(session, kitchen_id)])


def serving_out(x: Serving) -> ServingRead:
    """A table as it is shown."""
    moves = [ServingMoveRead(number=n, **m) for n, m in enumerate(x.moves)]
    return ServingRead(id=x.id or 0, serve_at=x.serve_at, wanted=x.wanted, moves=moves)


def _row(x: FrozenBread) -> FrozenRead:
    frozen = _frozen(x)
    return FrozenRead(
        id=x.id or 0,
        name=x.name,
        kind=x.kind,
        mass_g=x.mass_g,
        count=x.count,
        left=_left(x),
        frozen_at=x.frozen_at,
        wrap=x.wrap,
        divided=x.divided,
        filled=x.filled,
        best_by=frozen.best_by,
        use_by=frozen.use_by,
    )


def _left(x: FrozenBread) -> int:
    """Number of breads of a row that are still in the freezer."""
    return x.count - sum(int(t["count"]) for t in x.taken)


def _frozen(x: FrozenBread) -> Frozen:
    row = x.model_dump(include={"kind", "mass_g", "frozen_at", "wrap", "fat_frac", "filled", "divided"})
    return Frozen(count=max(_left(x), 0), **row)


def freeze(app: App, bake_id: int, given: FreezeCreate) -> FreezerRead:
    """Put breads of a bake into the freezer. Raises Conflict for more than it made, or before it was baked."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        kinds = solve.line_kinds(r, solve.solve(r)).kinds
        if given.bread >= len(kinds):
            raise invalid("/bread", f"There is no bread {given.bread} of this dough; it has 0 to {len(kinds) - 1}.")
        kind = kinds[given.bread]
        bread = kept_of(kind)
        if bread is None:
            raise Conflict("There is no bread yet: give it a piece weight and a size on the Weigh leaf.")
        if not any(t.kind == "off" for t in r.taps) and r.bake.status == "live":
            raise Conflict("Nothing is off the heat yet. Mark the breads taken off first, then freeze what is left.")
        had = [x for x in freezer.rows(session, r.bake.kitchen_id) if x.bake_id == bake_id and x.name == kind.name]
        left = kind.pieces - sum(x.count for x in had)
        if given.count > left:
            raise invalid("/count", f"{given.count} are more than are left of {kind.pieces}: give 1 to {max(left, 0)}.")
        row = FrozenBread(
            kitchen_id=r.bake.kitchen_id,
            bake_id=bake_id,
            name=kind.name,
            kind=bread.intent,
            mass_g=bread.mass_g,
            count=given.count,
            frozen_at=past_moment(given.at, r.now),
            wrap=given.wrap,
            divided=given.divided,
            fat_frac=bread.fat_frac,
            filled=holds_meat(kind.rows),
        )
        insert(session, row)
        return read(session, r.bake.kitchen_id)


def take(app: App, kitchen_id: int, row_id: int, count: int) -> FreezerRead:
    """Take so many of a row out. Raises InvalidInput for more than there are."""
    with app.transaction(kitchen_id) as session:
        row = _of(session, kitchen_id, row_id)
        left = _left(row)
        if count > left:
            raise invalid("/count", f"{count} are more than there are. Give 1 to {left}.")
        now = app.now(session, app.kitchen(session, kitchen_id))
        row.taken = [*row.taken, {"count": count, "at": now.isoformat()}]
        return read(session, kitchen_id)


def put_back(app: App, kitchen_id: int, row_id: int) -> FreezerRead:
    """Undo the last taking out of a row."""
    with app.transaction(kitchen_id) as session:
        row = _of(session, kitchen_id, row_id)
        if not row.taken:
            raise Conflict("Nothing was taken out of it.")
        row.taken = row.taken[:-1]
        return read(session, kitchen_id)


def remove(app: App, kitchen_id: int, row_id: int, *, back: bool = False) -> FreezerRead:
    """Take a row off the list, or bring it back."""
    with app.transaction(kitchen_id) as session:
        row = _of(session, kitchen_id, row_id)
        row.removed_at = None if back else app.now(session, app.kitchen(session, kitchen_id))
        return read(session, kitchen_id)


def _of(session: Session, kitchen_id: int, row_id: int) -> FrozenBread:
    row = get(session, FrozenBread, row_id)
    if row is None or row.kitchen_id != kitchen_id:
        raise NotFound(f"There is no row {row_id} in this freezer.")
    return row


def thaw_plan(app: App, kitchen_id: int, wanted: int, serve: str) -> ThawPlanRead:
    """Moves that take out so many breads for a table, with their instants."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        at = serve_moment(serve, now)
        moves, said = planned(session, kitchen_id, wanted, at, now)
        found = [TakeOutRead(**{k: m[k] for k in TakeOutRead.model_fields}) for m in moves]
        return ThawPlanRead(serve_at=at, moves=found, said=said)


PANS = ("iron_plate", "skillet", "lidded_pan", "inverted_plate")  # surfaces that a bread is heated again on


def planned(
    session: Session, kitchen_id: int, wanted: int, at: dt.datetime, now: dt.datetime
) -> tuple[list[dict[str, Any]], list[str]]:
    """(moves for a table as they are stored, sentences), on the pan of the kitchen that takes most breads."""
    rows = [x for x in freezer.rows(session, kitchen_id) if _left(x) > 0]
    spots = max((s.spots for s in kitchens.surfaces(session, kitchen_id) if s.kind in PANS), default=SPOTS)
    moves, said = taken_out([_frozen(x) for x in rows], wanted, at, spots, now)
    found = [
        {
            "row_id": rows[m.row].id or 0,
            "name": rows[m.row].name,
            "count": m.count,
            "way": m.way,
            "waves": m.waves,
            "at": m.at,
            "heat_at": m.heat_at,
        }
        for m in moves
    ]
    return found, said


def take_of(session: Session, kitchen_id: int, row_id: int, count: int, at: dt.datetime, serving: int) -> None:
    """Take so many of a row out for a table. Raises Conflict for more than are left."""
    row = _of(session, kitchen_id, row_id)
    if count > _left(row):
        raise Conflict(f"{_left(row)} are left of those {count}: plan the serving again.")
    row.taken = [*row.taken, {"count": count, "at": at.isoformat(), "serving": serving}]
    session.add(row)


def give_back(session: Session, kitchen_id: int, row_id: int, serving: int) -> None:
    """Undo of `take_of`."""
    row = _of(session, kitchen_id, row_id)
    row.taken = [t for t in row.taken if t.get("serving") != serving]
    session.add(row)
