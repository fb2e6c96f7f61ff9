"""Learning of a kitchen from a bake: yeast, friction, a bag's thirst; each can be taken back."""

from __future__ import annotations

import datetime as dt

from sqlmodel import Session

from brassclock.core.day.kitchen_air import air_c
from brassclock.core.keep.learning import learned
from brassclock.core.rise.belief import Belief
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.kitchen.leavens import bakes_behind, belief_of, leaven_of, set_belief
from brassclock.services.mix.model import friction_after
from brassclock.store.rows import get, insert
from brassclock.store.tables import FlourBag, ForecastRecord


def delete_records(session: Session, r: BakeSnapshot, names: list[str]) -> None:
    """Forget what was said under these names."""
    for name, row in r.said.items():
        if name in names:
            session.expunge(row) if row in session.new else session.delete(row)


def teach_activity(session: Session, r: BakeSnapshot) -> None:
    """Readings of a kept bake teach the kitchen what it believes of that leaven; what a bloom test said of this packet
    is taken out first."""
    forecast = solve.solve(r).forecast
    if forecast is None or not any(x.kind != "dough_c" for x in r.readings):
        return
    sheet = solve.solve(r).sheet
    leaven = leaven_of(sheet.dough) if sheet else ""
    before, said = belief_of(r.kitchen, leaven), forecast.belief
    after = learned(before, Belief(said.mean / (r.bake.activity_factor or 1.0), said.sd_log))
    set_belief(r.kitchen, leaven, after, bakes_behind(r.kitchen, leaven) + 1)
    session.add(r.kitchen)
    if "activity" not in r.said:
        told = ForecastRecord(
            bake_id=r.bake.id or 0,
            name="activity",
            p50=after.mean,
            since=r.now,
            before={"mean": before.mean, "sd_log": before.sd_log},
        )
        insert(session, told)


def unteach_activity(session: Session, r: BakeSnapshot) -> None:
    """Give the kitchen back the belief it had, unless another bake has taught it since."""
    told = r.said.get("activity")
    if told is None:
        return
    sheet = solve.solve(r).sheet
    leaven = leaven_of(sheet.dough) if sheet else ""
    if told.p50 == belief_of(r.kitchen, leaven).mean and told.before:
        set_belief(r.kitchen, leaven, Belief(**told.before), max(bakes_behind(r.kitchen, leaven) - 1, 0))
        session.add(r.kitchen)
    delete_records(session, r, ["activity"])


def learn_friction(session: Session, r: BakeSnapshot, mixed: dt.datetime, seen_c: float) -> None:
    """One thermometer reading after mixing teaches how much this way of mixing warms; once a bake."""
    sheet = solve.solve(r).sheet
    if sheet is None or "friction" in r.said:
        return
    before = r.kitchen.friction.get(r.bake.knead, [1.0, 0.0])
    after = friction_after(r.bake, r.kitchen, sheet.dough, air_c(r.kitchen.hourly_c, mixed), seen_c)
    r.kitchen.friction = {**r.kitchen.friction, r.bake.knead: after}
    session.add(r.kitchen)
    was = {"factor": before[0], "times": before[1]}
    insert(session, ForecastRecord(bake_id=r.bake.id or 0, name="friction", p50=after[0], before=was, since=r.now))


def unlearn_friction(session: Session, r: BakeSnapshot) -> None:
    told = r.said.get("friction")
    if told is not None and told.before and r.kitchen.friction.get(r.bake.knead, [None])[0] == told.p50:
        r.kitchen.friction = {**r.kitchen.friction, r.bake.knead: [told.before["factor"], told.before["times"]]}
        session.add(r.kitchen)
    delete_records(session, r, ["friction"])


def teach_bag(session: Session, r: BakeSnapshot) -> None:
    """Learn this bag's thirst from what was added while kneading; the mean over its kept bakes."""
    bag = get(session, FlourBag, r.bake.bag_id) if r.bake.bag_id else None
    sheet = solve.solve(r).sheet
    if bag is None or sheet is None or not sheet.dough.flour_g:
        return
    water_g = sum(x.mass_g * x.ingredient.counted_water_frac for x in sheet.lines[len(r.bake.lines) :])
    flour_g = sum(x.mass_g * x.ingredient.flour_frac for x in sheet.lines[len(r.bake.lines) :])
    held_g = sum(r.bake.held.values())
    hydration = sheet.dough.hydration_frac or 0.0
    thirst = (water_g - held_g - flour_g * hydration) / sheet.dough.flour_g
    was = {"thirst_frac": bag.thirst_frac, "times": bag.times}
    insert(session, ForecastRecord(bake_id=r.bake.id or 0, name="bag", before=was, since=r.now))
    bag.thirst_frac = (bag.thirst_frac * bag.times + thirst) / (bag.times + 1)
    bag.times += 1
    session.add(bag)


def unteach_bag(session: Session, r: BakeSnapshot) -> None:
    told, bag = r.said.get("bag"), get(session, FlourBag, r.bake.bag_id) if r.bake.bag_id else None
    if told is not None and told.before and bag is not None and bag.times == int(told.before["times"]) + 1:
        bag.thirst_frac, bag.times = told.before["thirst_frac"], int(told.before["times"])
        session.add(bag)
    delete_records(session, r, ["bag"])
