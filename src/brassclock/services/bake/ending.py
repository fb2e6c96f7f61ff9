"""The end of a bake that nobody closes: asked once on the Bench, kept by itself when nothing more is due."""

from __future__ import annotations

import datetime as dt
from contextlib import suppress

from brassclock.core.errors import InvalidInput
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake.broken import catching
from brassclock.services.bake.commands import keep_rows
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.hearth import hearth_of
from brassclock.store import bakes as bake_rows

LEFT_ALONE = dt.timedelta(hours=12)  # practice: after the question and the last bread, into the next day


def ask(app: App, bake_id: int) -> None:
    """The Bench has shown the question whether a bake that is all off is to be kept. Conflict before all is off."""
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        if r.bake.status != "live" or not over(r):
            raise Conflict("This bake is not over yet: its breads are not all off the heat.")
        r.bake.asked_at = r.bake.asked_at or r.now
        session.add(r.bake)


def over(r: BakeSnapshot) -> bool:
    """Whether every bread of a bake is off the heat."""
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
