"""Ended bakes as the Logbook lists and searches them."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any

from sqlalchemy import String, cast
from sqlmodel import Session, col, func, or_, select, text

from brassclock.store.rows import find
from brassclock.store.tables import Bake, PastBake


def store(session: Session, row: PastBake) -> None:
    """Store the figures of an ended bake, in the place of those before."""
    was = _of(session, row.bake_id)
    if was is None:
        session.add(row)
        return
    for name, value in row.model_dump(exclude={"bake_id"}).items():
        setattr(was, name, value)
    session.add(was)


def forget(session: Session, bake_id: int) -> None:
    """Take the figures of a bake away that is alive again."""
    was = _of(session, bake_id)
    if was is not None:
        session.expunge(was) if was in session.new else session.delete(was)


def _of(session: Session, bake_id: int) -> PastBake | None:
    return next(iter(find(session, PastBake, bake_id=bake_id)), None)


def matching(words: Sequence[str]) -> str:
    """A query of the text index: every word, each as the beginning of one.

    >>> matching(['crème', 'pla"te'])
    '"crème"* "pla""te"*'
    """
    return " ".join('"' + w.replace('"', '""') + '"*' for w in words)


FELL_SHORT, NOTED, ALL_WELL, UNJUDGED = "fell_short", "noted", "all_well", "not_judged"


def past(
    columns: Sequence[Any],
    kitchen_id: int,
    *,
    words: Sequence[str] = (),
    method: str | None = None,
    leaven: str | None = None,
    surface_id: int | None = None,
    outcome: str | None = None,
    since: dt.datetime | None = None,
    until: dt.datetime | None = None,
    months: Sequence[int] = (),
) -> Any:
    """A query of ended bakes that are not deleted: those that hold every word, of one method, leaven or surface, that
    became so, of a stretch of time or of some months of the year (in UTC)."""
    query = select(*columns).select_from(PastBake).join(Bake, col(Bake.id) == col(PastBake.bake_id))
    query = query.where(PastBake.kitchen_id == kitchen_id, col(Bake.deleted_at).is_(None))
    equal = {PastBake.method: method, PastBake.leaven: leaven, PastBake.surface_id: surface_id}
    query = query.where(*(column == value for column, value in equal.items() if value is not None))
    if words:
        hits = text("select rowid from past_text where past_text match :words").bindparams(words=matching(words))
        query = query.where(col(PastBake.bake_id).in_(hits))
    if since is not None:
        query = query.where(PastBake.serve_at >= since)
    if until is not None:
        query = query.where(PastBake.serve_at < until)
    if months:
        query = query.where(func.substr(cast(PastBake.serve_at, String), 6, 2).in_([f"{m:02d}" for m in months]))
    became = {
        FELL_SHORT: PastBake.short > 0,
        NOTED: PastBake.notes != "",
        ALL_WELL: (col(PastBake.judged) > 0) & (col(PastBake.short) == 0),
        UNJUDGED: PastBake.judged == 0,
    }
    return query.where(became[outcome]) if outcome is not None else query


def page(query: Any, count: int, before: int | None) -> Any:
    """So many of them, the latest table first; `before` is the bake to go on after."""
    if before is not None:
        at = select(PastBake.serve_at).where(PastBake.bake_id == before).scalar_subquery()
        older = or_(col(PastBake.serve_at) < at, (col(PastBake.serve_at) == at) & (col(PastBake.bake_id) < before))
        query = query.where(older)
    return query.order_by(col(PastBake.serve_at).desc(), col(PastBake.bake_id).desc()).limit(count)


NOT_COMPUTED = ""  # as `bread`: the figures stand as a migration made them


def missing(session: Session, most: int) -> list[int]:
    """Ended bakes whose figures were not computed yet, at most so many; a deleted one waits until it is brought
    back."""
    known = select(PastBake.bake_id).where(PastBake.bread != NOT_COMPUTED)
    query = select(Bake.id).where(Bake.status != "live", col(Bake.deleted_at).is_(None), col(Bake.id).not_in(known))
    return [x for x in session.exec(query.limit(most)) if x is not None]


BARE = (Bake.kitchen_id, Bake.serve_at, Bake.status, Bake.left_out, Bake.name, Bake.method)


def bare(session: Session, bake_id: int) -> PastBake:
    """The figures of an ended bake of which nothing is computed."""
    found = session.execute(select(*BARE).where(col(Bake.id) == bake_id)).one()  # type: ignore[call-overload]
    return PastBake(bake_id=bake_id, bread="flat", leaven="none", **found._mapping)
