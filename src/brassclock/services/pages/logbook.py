"""The Logbook of a kitchen: pages of past bakes, and what many of them show together."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from itertools import groupby
from typing import Any
from zoneinfo import ZoneInfo

from sqlalchemy import Row
from sqlmodel import Session, col, func, select

from brassclock.core.keep.cause.tables import CAUSES
from brassclock.core.keep.ledger import kind_of
from brassclock.core.keep.many import Blamed, believed_rate, by_month, lanes
from brassclock.core.weigh.methods import methods
from brassclock.services.app import App
from brassclock.services.bake.broken import Broken
from brassclock.services.bake.ended import broken_out, ended
from brassclock.services.kitchen.beliefs import fold_of, heat_fold, leaven_name, of_surface
from brassclock.services.kitchen.lessons import about
from brassclock.services.schemas.logbook import (
    ChoiceRead,
    CostMark,
    FiguresRead,
    HeatMark,
    HeatsRead,
    LaneChange,
    LaneMark,
    LaneRead,
    LogbookQuery,
    LogbookRead,
    PastQuery,
    PastRead,
    PocketMark,
    ReadyMark,
    RestMark,
    RestsRead,
    StrengthMark,
    StrengthsRead,
)
from brassclock.store import lessons as lesson_rows
from brassclock.store import logbook
from brassclock.store.rows import find
from brassclock.store.tables import Bake, Kitchen, Lesson, PastBake, Surface

MOST_MARKS = 240  # beyond it pockets are shown by month, and the newest marks of the rest
SEASONS = {"winter": (12, 1, 2), "spring": (3, 4, 5), "summer": (6, 7, 8), "autumn": (9, 10, 11)}
OPENED = (col(PastBake.full) + col(PastBake.part) + col(PastBake.flat)).label(
    "opened"
)  # breads whose pocket was judged
ABOUT: Any = (
    PastBake.bake_id, col(PastBake.cause_name).label("cause"), PastBake.surface, PastBake.left_out, PastBake.short,
    OPENED,
)  # fmt: skip
FIGURES = (
    PastBake.bake_id, PastBake.serve_at, PastBake.name, PastBake.left_out, PastBake.full, PastBake.judged, OPENED,
    PastBake.lost, PastBake.cause, PastBake.tried, PastBake.room_c, PastBake.ready_p10, PastBake.ready_p50,
    PastBake.ready_p90, PastBake.ready, PastBake.hands_min, PastBake.flour_g, PastBake.rests, PastBake.surface_id,
    PastBake.surface, Bake.seal,
)  # fmt: skip


def logbook_out(app: App, kitchen_id: int, asked: LogbookQuery) -> LogbookRead:
    """A page of the bakes that have ended and are chosen, the latest table first."""
    broken: list[Broken] = []
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        page = logbook.page(_chosen((PastBake.bake_id,), kitchen, asked), asked.count + 1, asked.before)
        ids = [i for (i,) in session.execute(page)]
        about = {
            row.bake_id: dict(row._mapping)
            for row in session.execute(select(*ABOUT).where(col(PastBake.bake_id).in_(ids)))
        }
        found = [
            PastRead.model_validate(b.model_dump() | about[b.id]) for b in ended(session, ids[: asked.count], broken)
        ]
        count = session.execute(_chosen((func.count(),), kitchen, asked)).scalar_one()
    return LogbookRead(bakes=found, count=count, more=len(ids) > asked.count, broken=broken_out(broken))


def _chosen(columns: Sequence[Any], kitchen: Kitchen, asked: PastQuery) -> Any:
    """The query of the bakes that are asked for; days begin at midnight in the kitchen."""
    zone = ZoneInfo(kitchen.zone)
    since = None if asked.since is None else dt.datetime.combine(asked.since, dt.time(), zone)
    until = None
    if asked.until is not None:
        until = dt.datetime.combine(asked.until, dt.time(), zone) + dt.timedelta(days=1)
    return logbook.past(
        columns,
        kitchen.id or 0,
        words=asked.words.split(),
        method=asked.bread,
        leaven=asked.leaven,
        surface_id=asked.surface_id,
        outcome=asked.became,
        since=since,
        until=until,
        months=SEASONS[asked.season] if asked.season else (),
    )


def figures_out(app: App, kitchen_id: int, asked: PastQuery) -> FiguresRead:
    """The figures of the chosen bakes together; one that is left out is counted as such and shows nothing."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        query = _chosen(FIGURES, kitchen, asked).order_by(col(PastBake.serve_at), col(PastBake.bake_id))
        rows = session.execute(query).all()
        choices = _choices(session, kitchen_id)
        taught = lesson_rows.of_kitchen(session, kitchen_id)
        chosen = asked.words or asked.model_dump(exclude_none=True, exclude={"words"})
        within = {r.bake_id for r in rows} if chosen else None
        heats, strengths = _heats(session, kitchen, taught, within), _strengths(session, kitchen, taught, within)
    own = [r for r in rows if not r.left_out]
    timed = [r for r in own if None not in (r.room_c, r.ready, r.ready_p10, r.ready_p50, r.ready_p90)]
    return FiguresRead(
        bakes=len(rows),
        left_out=len(rows) - len(own),
        full=sum(r.full for r in own),
        judged=sum(r.opened for r in own),
        pockets=_pockets([r for r in own if r.opened], ZoneInfo(kitchen.zone)),
        lanes=_lanes(own),
        ready=[
            ReadyMark(
                at=r.serve_at, bake_id=r.bake_id, name=r.name, room_c=r.room_c,
                p10=r.ready_p10, p50=r.ready_p50, p90=r.ready_p90, was=r.ready,
            )
            for r in timed[-MOST_MARKS:]
        ],
        ready_inside=sum(r.ready_p10 <= r.ready <= r.ready_p90 for r in timed),
        ready_of=len(timed),
        costs=[
            CostMark(
                at=r.serve_at, bake_id=r.bake_id, name=r.name,
                hands_min=r.hands_min, flour_g=r.flour_g, judged=r.judged,
            )
            for r in own[-MOST_MARKS:]
            if None not in (r.hands_min, r.flour_g)
        ],
        heats=heats,
        strengths=strengths,
        rests=_rests(own),
        **choices,
    )  # fmt: skip


def _pockets(rows: Sequence[Row[Any]], zone: ZoneInfo) -> list[PocketMark]:
    """A mark for each judged bake, or for each month of many, with the rate that is believed after it."""
    if not rows:
        return []
    first = rows[0].serve_at
    days = [(r.serve_at - first).total_seconds() / 86400 for r in rows]
    full, opened = [r.full for r in rows], [r.opened for r in rows]

    def believed(after: Sequence[int]) -> list[dict[str, float]]:
        rate = believed_rate(days, full, opened, after)
        return [{"mean": float(m), "low": float(low), "high": float(high)} for m, low, high in zip(*rate, strict=True)]

    if len(rows) <= MOST_MARKS:
        return [
            PocketMark(
                at=r.serve_at, bake_id=r.bake_id, name=r.name, seal=r.seal, bakes=1, full=r.full, judged=r.opened, **b
            )
            for r, b in zip(rows, believed(range(len(rows))), strict=True)
        ]
    months = [f"{r.serve_at.astimezone(zone):%Y-%m}" for r in rows]
    last = {month: k for k, month in enumerate(months)}
    return [
        PocketMark(at=rows[last[m]].serve_at, bake_id=None, name="", seal="", bakes=n, full=f, judged=judged, **b)
        for (m, (n, f, judged)), b in zip(
            by_month(months, full, opened).items(), believed(list(last.values())), strict=True
        )
    ]


def _rests(rows: Sequence[Row[Any]]) -> list[RestsRead]:
    """The rests of each surface that was used more than once, the most used first."""
    of: dict[int, list[Row[Any]]] = {}
    for r in rows:
        if r.rests is not None and r.surface_id is not None:
            of.setdefault(r.surface_id, []).append(r)
    return [
        RestsRead(
            surface_id=number,
            name=own[-1].surface,
            marks=[RestMark(at=r.serve_at, bake_id=r.bake_id, name=r.name, share=r.rests) for r in own[-MOST_MARKS:]],
        )
        for number, own in sorted(of.items(), key=lambda x: -len(x[1]))
        if len(own) > 1
    ]


def _lanes(rows: Sequence[Row[Any]]) -> list[LaneRead]:
    of = {r.bake_id: r for r in rows}
    found = lanes(
        Blamed(
            r.bake_id,
            r.cause if r.lost else None,
            r.lost,
            (r.tried or {}).get("cause"),
            (r.tried or {}).get("text", ""),
            bool(r.judged),
        )
        for r in rows
    )
    return [
        LaneRead(
            cause=lane.cause,
            name=CAUSES[lane.cause].name,
            lost=lane.lost,
            silent=lane.silent,
            marks=[LaneMark(at=of[n].serve_at, bake_id=n, lost=k) for n, k in lane.marks[-MOST_MARKS:]],
            changes=[LaneChange(at=of[n].serve_at, bake_id=n, text=t) for n, t in lane.changes[-MOST_MARKS:]],
        )
        for lane in found
    ]


def _heats(session: Session, kitchen: Kitchen, rows: Sequence[Lesson], within: set[int] | None) -> list[HeatsRead]:
    """The belief about each surface bake by bake, while it was set as it was; refused since or not."""
    found = []
    for surface in find(session, Surface, kitchen_id=kitchen.id):
        own = sorted(of_surface(rows, surface.id), key=lambda x: (x.at, x.id or 0))
        marks: list[HeatMark] = []
        for set_c, group in groupby(own, key=lambda x: float((x.shown or {})["set_c"])):
            as_set = Surface(**(surface.model_dump() | {"temp_c": set_c}))
            counted = [Lesson(**(x.model_dump() | {"refused": False})) for x in group]
            steps = heat_fold(as_set, counted[-MOST_MARKS:])[0].steps
            for x in counted:
                if (x.id or 0) in steps and x.bake_id is not None:
                    b = steps[x.id or 0][1]
                    marks.append(HeatMark(at=x.at, bake_id=x.bake_id, set_c=set_c, shift_k=b.shift_k, sd_k=b.sd_k))
        shown = [m for m in marks if within is None or m.bake_id in within]
        if shown:
            found.append(HeatsRead(surface_id=surface.id or 0, name=surface.name, marks=shown[-MOST_MARKS:]))
    return found


def _strengths(
    session: Session, kitchen: Kitchen, rows: Sequence[Lesson], within: set[int] | None
) -> list[StrengthsRead]:
    """The belief about each leaven, starter and bag of flour after each lesson that counts."""
    bake_of = {x.id or 0: x.bake_id for x in rows}
    found: dict[str, list[StrengthMark]] = {}
    for step in fold_of(kitchen, rows).taught:
        lesson = step.lesson
        if kind_of(lesson.key) not in ("activity", "vitality", "thirst"):
            continue
        bake_id = bake_of.get(lesson.number)
        if within is not None and bake_id not in within:
            continue
        mark = StrengthMark(
            at=dt.datetime.fromisoformat(lesson.at), bake_id=bake_id, seen=lesson.seen, mean=step.after.mean,
            sd=step.after.sd,
        )  # fmt: skip
        found.setdefault(lesson.key, []).append(mark)
    return [
        StrengthsRead(key=key, name=about(session, key).partition(":")[0], marks=marks[-MOST_MARKS:])
        for key, marks in found.items()
    ]


def _choices(session: Session, kitchen_id: int) -> dict[str, list[ChoiceRead]]:
    """Breads, leavens and surfaces of every past bake, the most frequent first."""

    def counted(*columns: Any) -> list[Any]:
        query = logbook.past((*columns, func.count()), kitchen_id).group_by(columns[0])
        return sorted(session.execute(query).all(), key=lambda row: -row[-1])

    known = methods()
    return {
        "breads": [
            ChoiceRead(key=key, name=known[key].name if key in known else name, seal=seal, bakes=n)
            for key, name, seal, n in counted(PastBake.method, func.max(PastBake.name), func.max(Bake.seal))
        ],
        "leavens": [
            ChoiceRead(key=key, name=LEAVENS.get(key) or leaven_name(key), bakes=n)
            for key, n in counted(PastBake.leaven)
        ],
        "surfaces": [
            ChoiceRead(key=str(key), name=name, bakes=n)
            for key, name, n in counted(PastBake.surface_id, func.max(PastBake.surface))
            if key is not None
        ],
    }


LEAVENS = {"starter": "Sourdough starter", "chemical": "Soda or powder", "none": "No leaven"}
