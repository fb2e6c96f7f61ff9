"""A bake in lists: its leaves, its brief row, and what of that is stored when it ends."""

from __future__ import annotations

import datetime as dt
from typing import Any

from sqlmodel import Session

from brassclock.services import solve
from brassclock.services.bake.broken import catching
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day.choices import fits
from brassclock.services.fire import model as fire_model
from brassclock.services.fire.hearth import hearth_of
from brassclock.services.rise.view import banded_at, stands_at
from brassclock.services.schemas.bake import BakeSummary, LeafRead
from brassclock.services.solve import BakeResult

LEAVES = ("weigh", "mix", "rise", "fire", "keep")


def leaves_of(r: BakeSnapshot, work: BakeResult) -> list[LeafRead]:
    """State of each leaf: done, now or later."""
    done = r.done()
    hearth = hearth_of(r, work)
    finished = {
        "weigh": "weigh" in done,
        "mix": "mix" in done,
        "rise": "roll" in done,
        "fire": hearth.finished and bool(hearth.off),
        "keep": r.bake.status == "kept",
    }
    current = next((leaf for leaf in LEAVES if not finished[leaf]), "keep")
    found = []
    for leaf in LEAVES:
        state = "done" if finished[leaf] else "now" if leaf == current else "later"
        found.append(LeafRead.model_validate({"leaf": leaf, "state": state}))
    return found


def leaf_now(leaves: list[LeafRead]) -> str:
    return next((x.leaf for x in leaves if x.state == "now"), "keep")


def brief_of(r: BakeSnapshot, work: BakeResult) -> BakeSummary:
    leaves = leaves_of(r, work)
    rise = rise_brief(r, work)
    sheet = work.sheet
    place = stands_at(r, work.risen) if work.risen else None
    return BakeSummary(
        stands=place.key if place else None,
        id=r.bake.id or 0,
        name=r.bake.name,
        seal=r.bake.seal,
        status=r.bake.status,
        method=r.bake.method,
        leaf=leaf_now(leaves),
        leaves=leaves,
        count=fire_model.rounds_of(r.bake, sheet),
        piece_g=r.bake.piece_g or (sheet.pieces.mass_g if sheet and sheet.pieces else None),
        serve_at=r.bake.serve_at,
        kept_at=r.bake.kept_at,
        weighed_g=sheet.dough.total_g if sheet else None,
        full=sum(o.pocket == "full" for o in r.outcomes),
        outcomes=len(r.outcomes),
        note=r.bake.note,
        fits=fits(r, work),
        **rise,
    )


def rise_brief(r: BakeSnapshot, work: BakeResult) -> dict[str, float | dt.datetime | None]:
    """The jar in five figures, for the Bench."""
    empty = {"dough_c": None, "ratio": None, "target_ratio": None, "too_far_ratio": None, "ready_at": None}
    seen, done = work.forecast, r.done()
    if work.risen is None or seen is None:
        return dict(empty)
    balled = "ball" in done
    window = seen.windows[1 if balled else 0]
    ready = banded_at(window.ready, work.risen.zero).p50
    target = r.bake.ball_ratio if balled else r.bake.bulk_ratio
    level = work.risen.level(r.now, done) if "mix" in done else None
    if level is None:
        return empty | {"target_ratio": target, "ready_at": ready}
    return {
        "dough_c": level[1],
        "ratio": level[0],
        "target_ratio": target,
        "too_far_ratio": None,
        "ready_at": ready,
    }


SUMMARY = ("leaf", "leaves", "count", "piece_g", "weighed_g")


def stored_summary(session: Session, r: BakeSnapshot) -> dict[str, Any] | None:
    """Figures of a bake that lists show once it has ended, stored then; None while it cannot be computed."""
    with catching(session, r.bake.id or 0, []):
        return brief_of(r, solve.solve(r)).model_dump(mode="json", include=set(SUMMARY))
    return None
