"""Figures of a bake that has ended, for the Logbook: stored with its end, and again when it is judged or renamed."""

from __future__ import annotations

import datetime as dt
from statistics import fmean, median
from typing import Any

from sqlmodel import Session

from brassclock.core.day.kitchen_air import air_c
from brassclock.core.matter.dough import Dough
from brassclock.services import solve
from brassclock.services.bake.broken import catching
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.cause import faults_of, fell_short, judged_bake, pauses
from brassclock.services.keep.kept import intent_of
from brassclock.services.kitchen.beliefs import leaven_of
from brassclock.services.solve import BakeResult
from brassclock.store import logbook
from brassclock.store.tables import PastBake

AIR_EVERY = dt.timedelta(minutes=15)
NO_LEAVEN, CHEMICAL = "none", "chemical"


def store_past(session: Session, r: BakeSnapshot) -> None:
    """Store the Logbook's figures of a bake that has ended; of one that is alive again, take them away."""
    if r.bake.status == "live":
        logbook.forget(session, r.bake.id or 0)
    else:
        logbook.store(session, past_of(session, r))


def past_of(session: Session, r: BakeSnapshot) -> PastBake:
    """The figures of an ended bake; of one that cannot be computed what stands in its columns."""
    facts: dict[str, Any] = {"bread": "flat", "leaven": NO_LEAVEN}
    with catching(session, r.bake.id or 0, []):
        facts |= _computed(r, solve.solve(r))
    pockets = [o.pocket for o in r.outcomes]
    words = (r.bake.note, *(o.note for o in r.outcomes))
    return PastBake(
        bake_id=r.bake.id or 0,
        kitchen_id=r.bake.kitchen_id,
        serve_at=r.bake.serve_at,
        status=r.bake.status,
        left_out=r.bake.left_out,
        name=r.bake.name,
        method=r.bake.method,
        surface_id=r.surface.id if r.surface else None,
        surface=r.surface.name if r.surface else None,
        full=pockets.count("full"),
        part=pockets.count("part"),
        flat=pockets.count("flat"),
        judged=len(r.outcomes),
        short=sum(bool(faults_of(o)) for o in r.outcomes),
        tried=r.bake.carried,
        notes="\n".join(dict.fromkeys(w for w in words if w)),
        rests=_rests(r),
        **(facts | _ready(r)),
    )


def _computed(r: BakeSnapshot, work: BakeResult) -> dict[str, Any]:
    """The figures that hang on the computed bake: its bread and leaven, its flour and hands, why it fell short."""
    found: dict[str, Any] = {"bread": intent_of(r, work.bread)}
    if work.sheet is not None:
        dough = work.sheet.dough
        found |= {"leaven": leaven_kind(dough), "flour_g": dough.flour_g}
        found["holds"] = ", ".join(dict.fromkeys(p.ingredient.name for p in dough.portions))
    if work.plan is not None:
        found["hands_min"] = sum(s.hands_min for s in work.plan.steps)
    judged = judged_bake(r)
    if judged is not None and judged.causes and judged.verdict != "not_enough_known":
        first = judged.causes[0]
        short, _, _ = fell_short(r.outcomes)
        found |= {"cause": first.cause, "cause_name": first.name, "cause_share": first.share}
        found["lost"] = sum(bool(set(faults_of(o)) & set(first.faults)) for o in short)
        found["causes"] = ", ".join(c.name for c in judged.causes)
    return found


def leaven_kind(dough: Dough) -> str:
    """The leaven that does most: a yeast's id, `starter`, `chemical`, or `none`."""
    found = leaven_of(dough)
    if found:
        return found
    return CHEMICAL if any(p.ingredient.is_other_leaven for p in dough.portions) else NO_LEAVEN


def _rests(r: BakeSnapshot) -> float | None:
    """Share of its time to come back that the surface was given between two breads, in the middle of the line; None
    where no bread followed another, or it needs no time."""
    recover_s = (r.bake.program or {}).get("recover_s")
    if not recover_s:
        return None
    shares = [pause_s / recover_s for _, pause_s in pauses(r.taps) if pause_s is not None]
    return median(shares) if shares else None


def _ready(r: BakeSnapshot) -> dict[str, float | None]:
    """Hours of the bulk rise as forecast and as it was, and the air it stood in."""
    done = r.done()
    said = r.said.get("ready to ball")
    if "mix" not in done or "ball" not in done or (r.bake.cold or {}).get("stage") == "bulk":
        return {}  # in the cold a bulk waits for the cook
    mixed, balled = done["mix"], done["ball"]
    steps = max(int((balled - mixed) / AIR_EVERY), 1)
    zone = r.now.tzinfo
    air = [air_c(r.kitchen.hourly_c, (mixed + k * AIR_EVERY).astimezone(zone)) for k in range(steps + 1)]
    found: dict[str, float | None] = {"ready": (balled - mixed).total_seconds() / 3600, "room_c": fmean(air)}
    if said is not None:
        found |= {f"ready_{p}": s / 3600 for p in ("p10", "p50", "p90") if (s := getattr(said, p)) is not None}
    return found
