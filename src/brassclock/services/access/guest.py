"""The view of a guest's link: the next move and how far the bread is, and no names."""

from __future__ import annotations

from brassclock.services.access.devices import Known, gatekeeper
from brassclock.services.app import App, NotFound
from brassclock.services.fire.hearth import hearth_out
from brassclock.services.schemas.access import GuestBread, GuestRead
from brassclock.services.schemas.bake import BakeSummary, BenchRead
from brassclock.store import bakes as bake_rows

GONE = "This link is not valid any more. Ask the kitchen for another."


def let_in(app: App, token: str) -> Known:
    """The guest of a link. Raises NotFound for a link that is over."""
    known = gatekeeper(app).who(app, token)
    if known is None or known.kind != "guest" or known.kitchen_id is None:
        raise NotFound(GONE)
    return known


def guest_out(app: App, known: Known, bench: BenchRead) -> GuestRead:
    """The next move of a guest's kitchen and its breads under way, without a name."""
    live = [b for b in bench.bakes if b.status == "live"]
    ahead = next((s for s in bench.steps if s.done_at is None), None)
    return GuestRead(
        clock=bench.clock,
        zone=bench.kitchen.zone,
        until=known.until or bench.clock.now,
        next=None if ahead is None else ahead.name,
        next_at=None if ahead is None else ahead.at,
        breads=[_bread(app, b) for b in live],
    )


def _bread(app: App, b: BakeSummary) -> GuestBread:
    """The progress of a bread; on the heat, the count of those that are off it."""
    with app.read() as session:
        burns = any(t.kind == "load" for t in bake_rows.taps(session, b.id))
    if not burns:
        return GuestBread(serve_at=b.serve_at, stage=b.leaf, off=0, of=b.count)
    hearth = hearth_out(app, b.id)
    return GuestBread(serve_at=b.serve_at, stage="fire", off=len(hearth.off), of=hearth.rounds)
