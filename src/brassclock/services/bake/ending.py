"""The end of a bake: kept, abandoned or brought back; of one that nobody closes the Bench asks once, and it is kept."""

from __future__ import annotations

import datetime as dt
from contextlib import suppress

from sqlmodel import Session

from brassclock.core.errors import InvalidInput
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake.broken import catching
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.bake.view import stored_summary
from brassclock.services.change import change, check_revision
from brassclock.services.fire.hearth import hearth_of
from brassclock.services.keep.learning import teach_kept, unteach_kept
from brassclock.services.keep.past import past_of, store_past
from brassclock.store import bakes as bake_rows
from brassclock.store import logbook as logbook_rows

LEFT_ALONE = dt.timedelta(hours=12)  # practice: after the question and the last bread, into the next day


def end_bake(app: App, bake_id: int, status: str, revision: int | None = None) -> None:
    """Abandon a bake, or bring an abandoned or kept one back to life; what it taught is taken back."""
    with change(app, bake_id, revision) as (session, r):
        bake = r.bake
        unteach_kept(session, r)
        bake.status = status
        bake.kept_at = bake.asked_at = None
        bake.summary = None if status == "live" else stored_summary(session, r)
        store_past(session, r)


def ask(app: App, bake_id: int) -> None:
    """The Bench has shown the question whether a bake that is all off is to be kept. Conflict before all is off."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        if r.bake.status != "live" or not over(r):
            raise Conflict("This bake is not over yet: its breads are not all off the heat.")
        r.bake.asked_at = r.bake.asked_at or r.now
        session.add(r.bake)


def over(r: BakeSnapshot) -> bool:
    """True if every bread of a bake is off the heat."""
    return any(t.kind == "load" for t in r.taps) and hearth_of(r, solve.solve(r)).finished


def put_away(app: App) -> int:
    """Keep every bake that was asked about and left alone, one transaction each; how many there were.

    One that cannot be computed stays.
    """
    with app.read() as session:
        ids = bake_rows.asked_ids(session)
    kept = 0
    unkept = suppress(NotFound, Conflict, InvalidInput)
    for bake_id in ids:
        with unkept, app.bake_transaction(bake_id) as session, catching(session, bake_id, []):
            r = solve.load(app, session, bake_id)
            last = max((t.at for t in r.taps), default=r.now)
            if r.bake.asked_at is not None and r.now - max(last, r.bake.asked_at) >= LEFT_ALONE and over(r):
                keep_rows(session, r)
                kept += 1
    return kept


def keep(app: App, bake_id: int, revision: int | None = None) -> None:
    """Close a bake into the logbook; its readings teach the kitchen's activity."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        check_revision(bake_id, r.bake.revision, revision)
        keep_rows(session, r)


def keep_rows(session: Session, r: BakeSnapshot) -> None:
    if r.bake.status == "kept":
        return
    r.bake.status = "kept"
    r.bake.kept_at = r.now
    r.bake.revision += 1
    teach_kept(session, r)
    r.bake.summary = stored_summary(session, r)
    store_past(session, r)


def fill_ended(app: App, most: int = 200) -> int:
    """Give bakes that ended before figures for lists and the Logbook were stored theirs, one transaction each; how many
    there were to give.

    One that cannot be computed, or whose kitchen is not served now, is given what stands in its columns.
    """
    with app.read() as session:
        ids = logbook_rows.missing(session, most)
    for bake_id in ids:
        with app.bake_transaction(bake_id) as session, suppress(NotFound, Conflict, InvalidInput):
            bare = bake_rows.ended_row(session, bake_id)
            found, past = bare["summary"] or {}, logbook_rows.bare(session, bake_id)
            with suppress(NotFound, Conflict, InvalidInput), catching(session, bake_id, []):
                r = solve.load(app, session, bake_id)
                found, past = found or stored_summary(session, r) or {}, past_of(session, r)
            bake_rows.alter(session, bake_id, summary=found)
            logbook_rows.store(session, past)
    return len(ids)
