"""Practice cases of a kitchen, and what its cooks did on the real heat."""

from __future__ import annotations

import datetime as dt
from collections.abc import Sequence
from typing import Any

from sqlalchemy import String, cast
from sqlmodel import Session, col, select

from brassclock.store.rows import find
from brassclock.store.tables import Bake, DrillTry, Tap


def tries(session: Session, kitchen_id: int, kind: str) -> list[DrillTry]:
    """Every case of a kitchen of one kind, in the order in which they were opened."""
    return sorted(find(session, DrillTry, kitchen_id=kitchen_id, kind=kind), key=lambda x: x.id or 0)


def calls(session: Session, kitchen_id: int, since: dt.datetime, most: int) -> Sequence[Any]:
    """The last loads, turns and ends on the heat since an instant, of bakes of one bread whose times were frozen:
    (bake, its name, its frozen program, kind, round, instant), in their order."""
    query = (
        select(Bake.id, Bake.name, Bake.program, Tap.kind, Tap.round_no, Tap.at)  # type: ignore[call-overload]
        .join(Tap, col(Tap.bake_id) == Bake.id)
        .where(Bake.kitchen_id == kitchen_id, col(Bake.deleted_at).is_(None), col(Bake.program).is_not(None))
        .where(cast(Bake.parts, String) == "[]")  # breads of several kinds have times of their own
        .where(col(Tap.kind).in_(("load", "turn", "off")), col(Tap.at) >= since)
        .order_by(col(Tap.at).desc(), col(Tap.id).desc())
        .limit(most)
    )
    return list(reversed(session.exec(query).all()))
