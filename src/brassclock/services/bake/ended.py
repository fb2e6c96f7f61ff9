"""Bakes that have ended in lists, as they were stored; and those that cannot be computed, in words."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

from sqlmodel import Session

from brassclock.services.bake.broken import Broken, Uncomputable, catching
from brassclock.services.schemas.bake import BakeSummary, BrokenRead
from brassclock.store import bakes as bake_rows


def broken_out(broken: Iterable[Broken]) -> list[BrokenRead]:
    """Bakes that cannot be computed, in words."""
    return [BrokenRead(bake_id=b.bake_id, name=b.name, text=str(Uncomputable(b))) for b in broken]


def ended(session: Session, bake_ids: Sequence[int], broken: list[Broken]) -> list[BakeSummary]:
    """Ended bakes as they were stored; none of them is computed."""
    judged = bake_rows.judged_counts(session, bake_ids)
    found = []
    for bake_id in bake_ids:
        with catching(session, bake_id, broken):
            row = bake_rows.ended_row(session, bake_id)
            summary = row.pop("summary") or {}
            full, outcomes = judged.get(bake_id, (0, 0))
            facts = {**ENDED_FACTS, "leaves": [], "leaf": "keep", **row, **summary, "full": full, "outcomes": outcomes}
            found.append(BakeSummary.model_validate(facts))
    return found


ENDED_FACTS: dict[str, Any] = {
    "dough_c": None,
    "ratio": None,
    "target_ratio": None,
    "too_far_ratio": None,
    "ready_at": None,
    "stands": None,
    "weighed_g": None,
    "fits": True,
}
