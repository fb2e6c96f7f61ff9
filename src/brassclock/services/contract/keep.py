"""`learn` and `stock` of the contract."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any

from pydantic import Field, StringConstraints

from brassclock.core.keep.ledger import Lesson, Ratio, fold
from brassclock.core.keep.stock import Frozen, taken_out
from brassclock.core.terms import FrozenWrap, Intent
from brassclock.services.contract.common import Request, check_offsets
from brassclock.services.schemas.quantities import within

Key = Annotated[str, StringConstraints(min_length=1, max_length=120)]


class LessonRequest(Request):
    """A lesson: its key, the ratio seen, its spread in the logarithm, when, and whether it is refused."""

    key: Key
    seen: Annotated[float, within(0.01, 100, "x")]
    spread: Annotated[float, within(0.001, 3, "")]
    at: dt.datetime
    refused: bool = False


class RatioRequest(Request):
    """A belief to start from."""

    mean: Annotated[float, within(0.01, 100, "x")] = 1.0
    sd: Annotated[float, within(0.001, 3, "")]


class LearnRequest(Request):
    """`learn`: lessons, and what was believed before any."""

    lessons: Annotated[list[LessonRequest], Field(max_length=20_000)]
    prior: dict[Key, RatioRequest] = {}


class FrozenRequest(Request):
    """A row of the freezer."""

    kind: Intent
    mass_g: Annotated[float, within(5, 2000, "g")]
    count: Annotated[int, Field(ge=1, le=500)]
    frozen_at: dt.datetime
    wrap: FrozenWrap = "bag"
    fat_frac: Annotated[float, within(0, 1, "")] = 0.03
    filled: bool = False


class StockRequest(Request):
    """`stock`: what the freezer holds, and how many are wanted when."""

    breads: Annotated[list[FrozenRequest], Field(min_length=1, max_length=200)]
    serve_at: dt.datetime
    wanted: Annotated[int, Field(ge=1, le=5000)]


def run_learn(q: LearnRequest) -> dict[str, Any]:
    check_offsets((x.at for x in q.lessons), "/lessons")
    lessons = [Lesson(x.key, x.seen, x.spread, x.at.isoformat(), x.refused) for x in sorted(q.lessons, key=_when)]
    found = fold(lessons, {k: Ratio(p.mean, p.sd) for k, p in q.prior.items()})
    return {
        "beliefs": {k: {"mean": b.mean, "sd": b.sd} for k, b in found.beliefs.items()},
        "before_after": [
            {"key": t.lesson.key, "at": t.lesson.at, "before": t.before.mean, "after": t.after.mean}
            for t in found.taught
        ],
        "odd": [{"key": x.key, "seen": x.seen, "at": x.at} for x in found.odd],
        "cautions": [],
        "why": {
            "beliefs": {
                "relation": "K = v/(v + spread^2); ln mean += K (ln seen - ln mean); v *= 1 - K",
                "inputs": {"lessons": len(lessons)},
                "evidence": "analytic",
            }
        },
    }


def _when(x: LessonRequest) -> dt.datetime:
    return x.at


def run_stock(q: StockRequest) -> dict[str, Any]:
    check_offsets((q.serve_at, *(x.frozen_at for x in q.breads)), "/serve_at")
    rows = [Frozen(x.kind, x.mass_g, x.count, x.frozen_at, x.wrap, x.fat_frac, x.filled) for x in q.breads]
    moves, said = taken_out(rows, q.wanted, q.serve_at)
    return {
        "take_out": [
            {
                "at": m.at.isoformat(),
                "count": m.count,
                "way": m.way,
                "bread": m.row,
                "waves": m.waves,
                "heat_at": m.heat_at.isoformat(),
            }
            for m in moves
        ],
        "best_by": [r.best_by.isoformat() for r in rows],
        "use_by": [r.use_by.isoformat() for r in rows],
        "advice": said,
        "cautions": [],
        "why": {"take_out": {"relation": "serving - wrap - waves x heat - thaw", "inputs": {}, "evidence": "practice"}},
    }
