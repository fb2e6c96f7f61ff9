"""The lessons of a bake for its kitchen: the strength of a leaven, how kneading warms, a bag's thirst. Each is a
lesson."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.day.kitchen_air import air_c
from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.learning import activity_seen
from brassclock.core.keep.ledger import kind_of
from brassclock.core.rise.belief import Belief
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.heat_lessons import heat_lessons
from brassclock.services.kitchen.beliefs import Seen, belief_of, key_of, leaven_of, teach, unteach
from brassclock.services.mix.model import friction_shown
from brassclock.store.rows import get
from brassclock.store.tables import FlourBag

THIRST_SD = Param(0.012, "-", 0.008, 0.02, Kind.JUDGEMENT, "of one dough's feel, as points of water over flour")


OF_KEEPING = ("activity", "thirst", "surface", "pace")


def teach_kept(session: Session, r: BakeSnapshot) -> None:
    """A kept bake teaches what its readings, its weighing and its heat show."""
    of_dough = [seen for seen in (_activity(r), _thirst(session, r)) if seen is not None]
    teach(session, r.kitchen, [*of_dough, *heat_lessons(r)], r.now, r.bake.id)


def unteach_kept(session: Session, r: BakeSnapshot) -> None:
    """Takes back the lessons of its keeping; its own readings of the dough after mixing stand."""
    unteach(session, r.kitchen, lambda x: x.bake_id == r.bake.id and kind_of(x.key) in OF_KEEPING)


def _activity(r: BakeSnapshot) -> Seen | None:
    """The leaven's strength here by the looks at this dough; what a bloom test said of this packet is taken out
    first."""
    found = solve.solve(r)
    if found.forecast is None or found.sheet is None or not any(x.kind != "dough_c" for x in r.readings):
        return None
    leaven, said = leaven_of(found.sheet.dough), found.forecast.belief
    batch = Belief(said.mean / (r.bake.activity_factor or 1.0), said.sd_log)
    seen = activity_seen(belief_of(r.kitchen, leaven), batch)
    return None if seen is None else Seen(key_of("activity", leaven), seen.mean, seen.sd)


def _thirst(session: Session, r: BakeSnapshot) -> Seen | None:
    """The bag's thirst by what was added and held back while kneading, as one plus the points of water."""
    bag = get(session, FlourBag, r.bake.bag_id) if r.bake.bag_id else None
    sheet = solve.solve(r).sheet
    if bag is None or sheet is None or not sheet.dough.flour_g:
        return None
    added = sheet.lines[len(r.bake.lines) :]
    water_g = sum(x.mass_g * x.ingredient.counted_water_frac for x in added)
    flour_g = sum(x.mass_g * x.ingredient.flour_frac for x in added)
    hydration = sheet.dough.hydration_frac or 0.0
    points = (water_g - sum(r.bake.held.values()) - flour_g * hydration) / sheet.dough.flour_g
    return Seen(key_of("thirst", bag.id), max(1 + points, MOST_DRY), float(THIRST_SD))


MOST_DRY = 0.5  # a bag that would take half of its flour less is a slip of typing: the ledger sets it aside


def learn_friction(session: Session, r: BakeSnapshot, mixed: dt.datetime, seen_c: float) -> None:
    """A thermometer right after mixing teaches how much this way of mixing warms; the first reading of a bake."""
    sheet, key = solve.solve(r).sheet, key_of("friction", r.bake.knead)
    if sheet is None or any(x.kind == "dough_c" for x in r.readings):
        return
    shown = friction_shown(r.bake, r.kitchen, sheet.dough, air_c(r.kitchen.hourly_c, mixed), seen_c)
    if shown is not None:
        teach(session, r.kitchen, [Seen(key, *shown)], r.now, r.bake.id)


def unlearn_friction(session: Session, r: BakeSnapshot) -> None:
    unteach(session, r.kitchen, lambda x: x.bake_id == r.bake.id and kind_of(x.key) == "friction")


def delete_records(session: Session, r: BakeSnapshot, names: list[str]) -> None:
    """Forget what was said under these names."""
    for name, row in r.said.items():
        if name in names:
            session.expunge(row) if row in session.new else session.delete(row)
