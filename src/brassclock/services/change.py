"""One change of a bake: loaded, checked against its revision, applied, planned anew, stored."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from sqlmodel import Session

from brassclock.core.day.spec import DayPlan
from brassclock.services.app import App, Outdated
from brassclock.services.bake.broken import Broken, catching
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.solve import load, solve


@contextmanager
def change(app: App, bake_id: int, revision: int | None = None) -> Iterator[tuple[Session, BakeSnapshot]]:
    """One change of a bake, as one transaction: its rows to alter, kept with the next revision.

    `revision` is the one the change was made on. Raises Outdated when the bake has a later one.
    """
    with app.bake_transaction(bake_id) as session:
        r = load(app, session, bake_id)
        check_revision(bake_id, r.bake.revision, revision)
        r.bake.revision += 1
        yield session, r
        broken: list[Broken] = []
        with catching(session, bake_id, broken):  # one that cannot be computed can still be put away, and mended
            after = load(app, session, bake_id)
            plan = solve(after).plan if r.bake.status == "live" else None
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
