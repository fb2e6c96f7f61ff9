"""One change: a bake loaded, checked against its revision, altered, planned anew and stored; and a note of the moves
that changed."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from contextlib import contextmanager
from typing import Any

from sqlmodel import Session

from brassclock.core.day.spec import DayPlan
from brassclock.core.time import hours_between
from brassclock.services import solve
from brassclock.services.app import App, Outdated
from brassclock.services.bake.broken import Broken, catching
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.store.rows import insert
from brassclock.store.tables import PlanChange

MOVED_MIN = 8.0  # a step that moves by less is not told


@contextmanager
def change(app: App, bake_id: int, revision: int | None = None) -> Iterator[tuple[Session, BakeSnapshot]]:
    """One change of a bake, as one transaction: its rows to alter, kept with the next revision.

    `revision` is the one the change was made on. Raises Outdated when the bake has a later one.
    """
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        check_revision(bake_id, r.bake.revision, revision)
        r.bake.revision += 1
        yield session, r
        broken: list[Broken] = []
        with catching(session, bake_id, broken):  # one that cannot be computed can still be put away, and mended
            after = solve.load(app, session, bake_id)
            plan = solve.solve(after).plan if r.bake.status == "live" else None
            if not overdue(after):  # what the cook sees in the answer; a slip is told by the move itself
                r.bake.told = moments(plan) if plan is not None else {}
        if broken:
            r.bake.told = {}


def check_revision(bake_id: int, newest: int, revision: int | None) -> None:
    """Raise Outdated when a bake was changed since that revision; None is the newest."""
    if revision is not None and revision != newest:
        raise Outdated(
            bake_id, f"Bake {bake_id} was changed meanwhile (yours is revision {revision}, it is at {newest} now)."
        )


Moments = dict[str, list[Any]]


ELSEWHERE = ("feed", "serve")  # marked on the starter, or not at all


def overdue(r: BakeSnapshot) -> bool:
    """True if a move that was told has gone by and is not done: the plan slips with the clock."""
    done = {*ELSEWHERE, *r.done()}
    return any(dt.datetime.fromisoformat(at) < r.now for key, (at, _) in r.bake.told.items() if key not in done)


def moments(plan: DayPlan) -> Moments:
    """Moves still to do: when each is, and its minutes of hands."""
    return {s.key: [s.at.isoformat(), s.hands_min] for s in plan.steps if s.done_at is None}


def _moved(was: Moments, now: Moments, done: Iterable[str]) -> list[dict[str, Any]]:
    """Moves whose time changed, new ones, and those that are not there any more; what was done is no change."""
    found = []
    for key, (at, _) in now.items():
        before = was[key][0] if key in was else None
        if key != "weigh" and (before is None or abs(60 * hours_between(_at(before), _at(at))) >= MOVED_MIN):
            found.append({"key": key, "was": before, "at": at})
    return found + [{"key": k, "was": t, "at": None} for k, (t, _) in was.items() if k not in now and k not in done]


def _at(text: str) -> dt.datetime:
    return dt.datetime.fromisoformat(text)


@contextmanager
def recording_plan_change(
    app: App, session: Session, kitchen_id: int, why: str, acted: int | None = None
) -> Iterator[None]:
    """Record what the block inside moves in the kitchen's plans, with one reason, in the same transaction.

    Every plan is set beside what the cook was last told of it. A bake that only slips while nobody acts on it keeps
    what it was told, so that its own next move shows the slip whole.
    """
    yield
    kitchen = app.kitchen(session, kitchen_id)
    now = app.now(session, kitchen)
    for r, work in solve.plan_all(app, session, kitchen_id):
        bake = r.bake
        if work.plan is None:
            continue
        done = {*ELSEWHERE, *r.done()}
        if bake.id != acted and overdue(r):
            continue
        ahead = moments(work.plan)
        moves = _moved(bake.told, ahead, done) if bake.told else []
        if moves:
            insert(session, PlanChange(bake_id=bake.id or 0, at=now, because=why, moves=moves))
        bake.told = ahead
        session.add(bake)
