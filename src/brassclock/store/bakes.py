"""Bakes with all that belongs to them: taps, readings, outcomes and what was said."""

from __future__ import annotations

import datetime as dt
from collections.abc import Collection, Iterable, Sequence
from typing import Any

from sqlalchemy import case
from sqlmodel import Session, col, func, select, update

from brassclock.store.rows import find, get
from brassclock.store.tables import Bake, ForecastRecord, Outcome, Reading, Tap

LIVE = "live"


def live(session: Session, kitchen_id: int) -> list[Bake]:
    """Live bakes that are not deleted, soonest table first."""
    found = find(session, Bake, kitchen_id=kitchen_id, status=LIVE, deleted_at=None)
    return sorted(found, key=lambda b: (b.serve_at, b.id or 0))


def live_ids(session: Session, kitchen_id: int) -> list[int]:
    """Ids of live bakes, whatever else their rows hold."""
    query = select(Bake.id).where(Bake.kitchen_id == kitchen_id, Bake.status == LIVE, col(Bake.deleted_at).is_(None))
    stored = {x for x in session.exec(query) if x is not None}
    for b in (*session.new, *session.dirty):
        if isinstance(b, Bake) and b.kitchen_id == kitchen_id and b.id is not None:
            (stored.add if b.status == LIVE and b.deleted_at is None else stored.discard)(b.id)
    return sorted(stored)


def ended_ids(session: Session, kitchen_id: int, count: int, before: int | None = None) -> list[int]:
    """Ids of the bakes that were kept or abandoned, latest table first; `before` is the id to go on after."""
    query = select(Bake.id).where(Bake.kitchen_id == kitchen_id, Bake.status != LIVE, col(Bake.deleted_at).is_(None))
    if before is not None:
        at = select(Bake.serve_at).where(Bake.id == before).scalar_subquery()
        query = query.where((col(Bake.serve_at) < at) | ((col(Bake.serve_at) == at) & (col(Bake.id) < before)))
    query = query.order_by(col(Bake.serve_at).desc(), col(Bake.id).desc()).limit(count)
    return [x for x in session.exec(query) if x is not None]


def judged_counts(session: Session, bake_ids: Iterable[int]) -> dict[int, tuple[int, int]]:
    """(rounds with a full pocket, rounds judged) of each bake that has any."""
    full = func.count(case((col(Outcome.pocket) == "full", 1)))
    query = select(Outcome.bake_id, full, func.count()).where(col(Outcome.bake_id).in_(list(bake_ids)))
    return {bake_id: (f, n) for bake_id, f, n in session.exec(query.group_by(col(Outcome.bake_id)))}


def taps(session: Session, bake_id: int) -> Sequence[Tap]:
    """Taps that stand, by instant."""
    return sorted(find(session, Tap, bake_id=bake_id, undone_at=None), key=lambda t: (t.at, t.id or 0))


def tap_by_key(session: Session, bake_id: int, key: str) -> Tap | None:
    """The tap with that key, undone or not."""
    return next(iter(find(session, Tap, bake_id=bake_id, key=key)), None)


def readings(session: Session, bake_id: int) -> Sequence[Reading]:
    """Readings that stand, by instant."""
    return sorted(find(session, Reading, bake_id=bake_id, undone_at=None), key=lambda x: (x.at, x.id or 0))


def air_readings(session: Session, kitchen_id: int, since: dt.datetime) -> Sequence[Reading]:
    """Readings of a kitchen's air that stand, by instant."""
    found = find(
        session,
        Reading,
        col(Reading.at) >= since,
        keep=lambda x: x.at >= since,
        kitchen_id=kitchen_id,
        kind="air_c",
        undone_at=None,
    )
    return sorted(found, key=lambda x: (x.at, x.id or 0))


def outcomes(session: Session, bake_id: int) -> Sequence[Outcome]:
    """Outcomes of a bake, by round."""
    return sorted(find(session, Outcome, bake_id=bake_id), key=lambda o: o.round_no)


def said(session: Session, bake_id: int) -> dict[str, ForecastRecord]:
    """Forecasts kept for comparison, by name."""
    return {row.name: row for row in sorted(find(session, ForecastRecord, bake_id=bake_id), key=lambda x: x.id or 0)}


def judged(session: Session, kitchen_id: int) -> list[tuple[float, bool, int, dt.datetime]]:
    """(pocket score that was said, whether it opened fully, bake, when it was served) of every judged bread of a
    kitchen whose score was kept."""
    score = func.json_extract(Bake.program, "$.score")
    first, last = (func.json_extract(Bake.hearth, f"$.own[{k}]") for k in (0, 1))  # of the bread the score is of
    query = select(score, Outcome.pocket, Bake.id, Bake.serve_at).join(Outcome, col(Outcome.bake_id) == col(Bake.id))
    query = query.where(Bake.kitchen_id == kitchen_id, col(Bake.deleted_at).is_(None), score.is_not(None))
    query = query.where(col(Bake.left_out).is_(False))
    query = query.where(col(Outcome.pocket).is_not(None))
    query = query.where(first.is_(None) | col(Outcome.round_no).between(first, last))
    return [(said, pocket == "full", bake_id or 0, at) for said, pocket, bake_id, at in session.exec(query)]


def kitchen_of(session: Session, bake_id: int, *, deleted: bool = False) -> int | None:
    """The kitchen of a bake, whatever else its row holds; None when there is none (`deleted`: also of a deleted
    one)."""
    query = select(Bake.kitchen_id).where(Bake.id == bake_id)
    return session.exec(query if deleted else query.where(col(Bake.deleted_at).is_(None))).first()


def revision_of(session: Session, bake_id: int) -> int:
    """The newest revision of a bake, whatever else its row holds."""
    return session.exec(select(Bake.revision).where(Bake.id == bake_id)).one()


def alter(session: Session, bake_id: int, **values: Any) -> None:
    """Set columns of a bake; one whose row cannot be read is altered unread, at the end of the unit of work."""
    try:
        bake = get(session, Bake, bake_id)
    except (ValueError, TypeError):
        session.info["statements"].append((update(Bake).where(col(Bake.id) == bake_id).values(**values), None))
        return
    for name, value in values.items():
        setattr(bake, name, value)


ENDED_COLUMNS = (
    Bake.id,
    Bake.name,
    Bake.seal,
    Bake.status,
    Bake.method,
    Bake.count,
    Bake.piece_g,
    Bake.serve_at,
    Bake.kept_at,
    Bake.note,
    Bake.summary,
)


def ended_row(session: Session, bake_id: int) -> dict[str, Any]:
    """Stored row of a bake that has ended, for lists."""
    found = session.execute(select(*ENDED_COLUMNS).where(col(Bake.id) == bake_id)).one()  # type: ignore[call-overload]
    return dict(found._mapping)


def names_of(session: Session, bake_ids: Collection[int]) -> dict[int, str]:
    """Names of bakes by their ids."""
    query = select(Bake.id, Bake.name).where(col(Bake.id).in_(list(bake_ids)))
    return {bake_id: name for bake_id, name in session.exec(query) if bake_id is not None}


def asked_ids(session: Session) -> list[int]:
    """Live bakes of which the Bench asked whether they are to be kept."""
    query = select(Bake.id).where(
        col(Bake.asked_at).is_not(None), Bake.status == "live", col(Bake.deleted_at).is_(None)
    )
    return [bake_id for bake_id in session.exec(query) if bake_id is not None]
