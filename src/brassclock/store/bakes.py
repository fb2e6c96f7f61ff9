"""Bakes with all that belongs to them: taps, readings, outcomes and what was said."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence

from sqlmodel import Session, col, func, select

from brassclock.store.tables import Bake, Outcome, Reading, Said, Tap


def of_kitchen(session: Session, kitchen_id: int) -> Sequence[Bake]:
    """Bakes that are not deleted, soonest table first."""
    query = select(Bake).where(Bake.kitchen_id == kitchen_id, col(Bake.deleted_at).is_(None))
    return session.exec(query.order_by(col(Bake.serve_at))).all()


def taps(session: Session, bake_id: int) -> Sequence[Tap]:
    """Taps that stand, by instant."""
    query = select(Tap).where(Tap.bake_id == bake_id, col(Tap.undone_at).is_(None))
    return session.exec(query.order_by(col(Tap.at), col(Tap.id))).all()


def tap_by_key(session: Session, bake_id: int, key: str) -> Tap | None:
    return session.exec(select(Tap).where(Tap.bake_id == bake_id, Tap.key == key)).first()


def readings(session: Session, bake_id: int) -> Sequence[Reading]:
    """Readings that stand, by instant."""
    query = select(Reading).where(Reading.bake_id == bake_id, col(Reading.undone_at).is_(None))
    return session.exec(query.order_by(col(Reading.at), col(Reading.id))).all()


def air_readings(session: Session, kitchen_id: int, since: dt.datetime) -> Sequence[Reading]:
    """Readings of a kitchen's air that stand, by instant."""
    query = select(Reading).where(
        Reading.kitchen_id == kitchen_id,
        Reading.kind == "air_c",
        col(Reading.undone_at).is_(None),
        col(Reading.at) >= since,
    )
    return session.exec(query.order_by(col(Reading.at), col(Reading.id))).all()


def outcomes(session: Session, bake_id: int) -> Sequence[Outcome]:
    return session.exec(select(Outcome).where(Outcome.bake_id == bake_id).order_by(col(Outcome.round_no))).all()


def said(session: Session, bake_id: int) -> dict[str, Said]:
    """Forecasts kept for comparison, by name."""
    return {row.name: row for row in session.exec(select(Said).where(Said.bake_id == bake_id))}


def judged(session: Session, kitchen_id: int) -> list[tuple[float, bool]]:
    """(pocket score that was said, whether it opened fully) of every judged bread of a kitchen whose score was kept."""
    score = func.json_extract(Bake.program, "$.score")
    query = select(score, Outcome.pocket).join(Outcome, col(Outcome.bake_id) == col(Bake.id))
    query = query.where(Bake.kitchen_id == kitchen_id, col(Bake.deleted_at).is_(None), score.is_not(None))
    return [(said, pocket == "full") for said, pocket in session.exec(query.where(col(Outcome.pocket).is_not(None)))]
