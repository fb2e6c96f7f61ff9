"""The outcome of each bread, said by the cook: one at a time, a tray at once, or in a sentence; and what is known of
its making."""

from __future__ import annotations

from dataclasses import asdict

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.keep.judging import judged
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.noted import noted_of, set_noted
from brassclock.services.keep.past import store_past
from brassclock.services.schemas.keep import NotedUpdate, OutcomeUpdate, TrayUpdate
from brassclock.store.rows import insert
from brassclock.store.tables import Outcome


def judge(app: App, bake_id: int, given: OutcomeUpdate) -> None:
    """Store what became of a round. Raises InvalidInput for a round there is none of, Conflict for a bread that the
    line has begun without, or that is still on the heat."""
    judge_tray(app, bake_id, TrayUpdate(outcomes=[given]))


def judge_tray(app: App, bake_id: int, given: TrayUpdate) -> None:
    """Store what became of many rounds in one transaction; nothing is stored where one cannot be."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        r.bake.revision += 1
        rounds = solve.line_of_rows(r).rounds
        off = _off(r)
        outcomes = [*given.outcomes, *(_said(given.said, rounds, off) if given.said else [])]
        if not outcomes:
            raise invalid("/said", "Nothing is said of any bread. Say it as “all full except 3 and 7 flat”.")
        for i, one in enumerate(outcomes):
            _check(r, one.round_no, rounds, off, "/round_no" if len(outcomes) == 1 else f"/outcomes/{i}/round_no")
        for one in outcomes:
            add_outcome(session, r, one)
        _figures_again(app, session, r)


def _off(r: BakeSnapshot) -> set[int] | None:
    """Rounds that are off the heat; None where no line was begun."""
    if not any(t.kind == "load" for t in r.taps):
        return None
    return {t.round_no for t in r.taps if t.round_no is not None and t.kind in ("off", "fell")}


def _said(text: str, rounds: int, off: set[int] | None) -> list[OutcomeUpdate]:
    found = []
    for n, said in judged(text, rounds, off).items():
        words = asdict(said)
        found.append(OutcomeUpdate.model_validate({"round_no": n, **{k: v for k, v in words.items() if v}}))
    return found


def _check(r: BakeSnapshot, round_no: int, rounds: int, off: set[int] | None, at: str) -> None:
    if round_no > rounds:
        raise invalid(at, f"There is no round {round_no}; this bake has 1 to {rounds}.")
    if off is not None and round_no not in off:
        loaded = any(t.kind == "load" and t.round_no == round_no for t in r.taps)
        where = "still on the heat" if loaded else "not baked yet"
        raise Conflict(f"Round {round_no} is {where}. Take it off first, then judge it.")


def add_outcome(session: Session, r: BakeSnapshot, given: OutcomeUpdate) -> None:
    """Store what is said of a round beside what was said of it before."""
    row = next((o for o in r.outcomes if o.round_no == given.round_no), None)
    row = row or Outcome(bake_id=r.bake.id or 0, round_no=given.round_no)
    for name in given.model_fields_set - {"round_no"}:
        value = getattr(given, name)
        setattr(row, name, {"faults": [], "note": ""}.get(name) if value is None else value)
    insert(session, row)


def note_facts(app: App, bake_id: int, given: NotedUpdate) -> None:
    """Store what the cook knows of the making; null forgets it."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        r.bake.revision += 1
        set_noted(r.bake, {**noted_of(r.bake), **given.model_dump(exclude_unset=True)})
        session.add(r.bake)
        _figures_again(app, session, r)


def _figures_again(app: App, session: Session, r: BakeSnapshot) -> None:
    """The Logbook's figures of a bake that has ended, once it is judged anew."""
    if r.bake.status != "live":
        store_past(session, solve.load(app, session, r.bake.id or 0))
