"""Cases of the Drill opened, answered and looked back on; and the calls of the real hearth beside them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from types import ModuleType
from typing import Any

from sqlmodel import Session

from brassclock.core.drill.draw import KINDS as NAMES
from brassclock.core.drill.draw import Draw
from brassclock.core.drill.level import level_after
from brassclock.core.errors import invalid
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake.broken import catching
from brassclock.services.drill import call, fault, hands, read
from brassclock.services.drill.judged import Judged
from brassclock.services.schemas.drill import (
    AnswerCreate,
    DrillCreate,
    DrillRead,
    HandMove,
    KindRead,
    MissRead,
    OrderRead,
    RealCall,
    SideRead,
    TruthRead,
    TryRead,
)
from brassclock.services.weigh.view import why_out
from brassclock.store import bakes as bake_rows
from brassclock.store import drill as drill_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import DrillTry, Kitchen

KINDS: dict[str, ModuleType] = dict(zip(NAMES, (call, read, fault, hands), strict=True))
VERSION = 1  # of the drawing: a case of another one is not drawn again
SET, OWN_SET = 12, 10  # cases of a set
OWN_SEED = 10_000  # from there on seeds are of one's own kitchen
REAL_SINCE = dt.timedelta(days=400)
MOST_REAL, MOST_TAPS = 24, 400  # breads that are told, moves that are looked at
NO_OWN = {
    "call": "No bake here is turned by its signs yet: one on a plate, in a pan or on a stone.",
    "read": "No dough here is lifted by yeast or a starter yet.",
    "fault": "No bake here has a bread with a weight and a width yet.",
    "hands": "No bake here is turned on a plate or in a pan yet.",
}


def drill_out(app: App, kitchen_id: int) -> DrillRead:
    """The records of a kitchen's learners, kind by kind, and the calls of its real hearth."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        has_own = bool(_bakes(session, kitchen_id))
        return DrillRead(
            kinds=[_kind_out(k, drill_rows.tries(session, kitchen_id, kind=k), has_own) for k in NAMES],
            hearth=_hearth(drill_rows.calls(session, kitchen_id, now - REAL_SINCE, MOST_TAPS)),
        )


def _kind_out(kind: str, tries: Sequence[DrillTry], has_own: bool) -> KindRead:
    counted = [t for t in tries if t.points is not None]
    misses = [MissRead(level=t.level, **(t.figures or {})) for t in counted]
    own = sum(t.own is not None for t in tries if t.answered_at is not None)
    return KindRead(
        kind=kind,  # type: ignore[arg-type]
        level=_level(counted),
        answered=len(counted),
        first=misses[:SET],
        last=misses[-SET:],
        own_left=OWN_SET - own % OWN_SET if has_own else None,
    )


def _level(tries: Iterable[DrillTry]) -> int:
    return level_after(t.points for t in tries if t.points is not None)


def _hearth(rows: Iterable[Sequence[Any]]) -> list[RealCall]:
    """Each bread's turn and end beside what was due, newest last."""
    begun: dict[tuple[int, int], dict[str, dt.datetime]] = {}
    told: dict[tuple[int, int], tuple[str, dict[str, Any]]] = {}
    for bake, name, program, kind, round_no, at in rows:
        begun.setdefault((bake, round_no), {})[kind] = at
        told[bake, round_no] = name, program
    found = []
    for key, at in begun.items():
        (name, program), load = told[key], at.get("load")
        due_s, off_s = program.get("turn_s"), program.get("off_s")
        if load is None or off_s is None or "off" not in at:
            continue
        turn_late, late = None, (at["off"] - load).total_seconds() - off_s
        if due_s is not None and "turn" in at:
            turn_late = (at["turn"] - load).total_seconds() - due_s
            late -= turn_late  # the end is due by the turn as it was
        found.append(RealCall(bake=key[0], name=name, at=at["off"], turn_s=turn_late, off_s=late))
    return sorted(found, key=lambda x: x.at)[-MOST_REAL:]


def open_try(app: App, kitchen_id: int, given: DrillCreate) -> TryRead:
    """Open the next case of a kind; the one that is open and not answered, where there is one. Raises Conflict where
    the kitchen has no bake of its own for it."""
    with app.unit() as unit:
        unit.take_turn(("drill", kitchen_id))
        session = unit.session
        kitchen = app.kitchen(session, kitchen_id)
        tries = drill_rows.tries(session, kitchen_id, kind=given.kind)
        for t in tries:
            if t.answered_at is None and (t.own is not None) == given.own and t.version == VERSION:
                return _out(t, tries, kitchen)
        before = sum((t.own is not None) == given.own for t in tries)
        own = _own(app, session, kitchen_id, given.kind, before) if given.own else None
        row = DrillTry(
            kitchen_id=kitchen_id,
            kind=given.kind,
            level=_level(tries),
            seed=(OWN_SEED if given.own else 0) + before + 1,
            version=VERSION,
            own=own,
            opened_at=app.now(session, kitchen),
        )
        insert(session, row)
        return _out(row, tries, kitchen)


def _bakes(session: Session, kitchen_id: int) -> list[int]:
    """Bakes to draw cases of one's own kitchen from, newest first."""
    return [*bake_rows.live_ids(session, kitchen_id), *bake_rows.ended_ids(session, kitchen_id, OWN_SET)][:OWN_SET]


def _own(app: App, session: Session, kitchen_id: int, kind: str, number: int) -> dict[str, Any]:
    """The source of a case of the own kitchen: one of its bakes, the next one each time."""
    ids = _bakes(session, kitchen_id)
    turn = number % max(len(ids), 1)
    for bake_id in [*ids[turn:], *ids[:turn]]:
        found = None
        with catching(session, bake_id, []):
            r = solve.load(app, session, bake_id)
            found = KINDS[kind].own_of(r, solve.solve(r))
        if found is not None:
            stored: dict[str, Any] = KINDS[kind].OWN.dump_python(found, mode="json")
            return stored
    raise Conflict(NO_OWN[kind])


def try_out(app: App, kitchen_id: int, try_id: int) -> TryRead:
    """A case, with its answer and what it was once it is answered."""
    with app.read() as session:
        row = _row(session, kitchen_id, try_id)
        tries = drill_rows.tries(session, kitchen_id, kind=row.kind)
        return _out(row, tries, app.kitchen(session, kitchen_id))


def side_out(app: App, kitchen_id: int, try_id: int, turn_s: float) -> SideRead:
    """The second side of a bread that was turned at that second; nothing is stored."""
    with app.read() as session:
        row = _row(session, kitchen_id, try_id)
    return call.side(_case(row, "call"), turn_s)


def order_out(app: App, kitchen_id: int, try_id: int, moves: Sequence[HandMove]) -> OrderRead:
    """An order of moves as far as it has come, timed; nothing is stored."""
    with app.read() as session:
        row = _row(session, kitchen_id, try_id)
    return hands.order_out(_case(row, "hands"), moves)


def answer_try(app: App, kitchen_id: int, try_id: int, given: AnswerCreate) -> TryRead:
    """Store the answer to a case. Raises Conflict where it was answered before."""
    with app.unit() as unit:
        unit.take_turn(("drill", kitchen_id))
        session = unit.session
        row, kitchen = _row(session, kitchen_id, try_id), app.kitchen(session, kitchen_id)
        if row.answered_at is not None:
            raise Conflict("This case was answered before. Open the next one.")
        case = _case(row, row.kind)
        judged = _judged(row, case, given, kitchen.temp_unit)
        row.answered_at = app.now(session, kitchen)
        row.answer = given.model_dump(mode="json", exclude_none=True)
        row.points, row.figures = judged.points, judged.figures
        session.add(row)
        return _out(row, drill_rows.tries(session, kitchen_id, kind=row.kind), kitchen, case, judged)


def _row(session: Session, kitchen_id: int, try_id: int) -> DrillTry:
    row = get(session, DrillTry, try_id)
    if row is None or row.kitchen_id != kitchen_id:
        raise NotFound(f"There is no case {try_id} in this kitchen. Open one.")
    return row


def _check_version(row: DrillTry) -> None:
    if row.version != VERSION:
        raise Conflict("This case was drawn by an older version of the program. Open the next one.")


def _case(row: DrillTry, kind: str) -> Any:
    if row.kind != kind:
        raise Conflict(f"Case {row.id} is of another kind: {row.kind}.")
    _check_version(row)
    room = KINDS[kind]
    return room.case(Draw(kind, row.level, row.seed), None if row.own is None else room.OWN.validate_python(row.own))


def _judged(row: DrillTry, case: Any, given: AnswerCreate, unit: str) -> Judged:
    """An answer judged. Raises InvalidInput where it is of another kind."""
    answer = getattr(given, row.kind)
    others = [k for k in NAMES if k != row.kind and getattr(given, k) is not None]
    if answer is None or others:
        raise invalid(
            f"/{others[0] if others else row.kind}", f"This case is answered under “{row.kind}”, and no other."
        )
    told = {"unit": unit} if row.kind == "fault" else {}
    found: Judged = KINDS[row.kind].judged(case, answer, **told)
    return found


def _out(
    row: DrillTry, tries: Sequence[DrillTry], kitchen: Kitchen, case: Any = None, judged: Judged | None = None
) -> TryRead:
    """A case as it is told; drawn and judged here where that was not done already."""
    told = {"unit": kitchen.temp_unit} if row.kind == "fault" else {}
    own = row.own is not None
    before = sum((t.own is not None) == own and (t.id or 0) < (row.id or 0) for t in tries)
    if case is None and row.version == VERSION:
        case = _case(row, row.kind)
    shown = KINDS[row.kind].shown(case, **told) if case is not None else None
    answer = AnswerCreate.model_validate(row.answer) if row.answer is not None else None
    truth = None
    if answer is not None and case is not None:
        judged = judged or _judged(row, case, answer, kitchen.temp_unit)
        truth = TruthRead(why=why_out(judged.why), **{row.kind: judged.truth})
    return TryRead(
        id=row.id or 0,
        kind=row.kind,  # type: ignore[arg-type]
        level=row.level,
        seed=row.seed,
        own=str(row.own.get("name", "")) if row.own is not None else None,
        number=before % (OWN_SET if own else SET) + 1,
        answer=answer,
        truth=truth,
        **{row.kind: shown},
    )
