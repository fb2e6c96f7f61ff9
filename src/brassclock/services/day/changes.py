"""Changes of a kitchen's plans: moves held by hand, what moved when something happened, and why."""

from __future__ import annotations

import datetime as dt
from typing import Any

from brassclock.core.day.options import moment
from brassclock.core.day.spec import WORDS, DayPlan, DayStep, kind_of
from brassclock.core.errors import invalid
from brassclock.core.time import hours_between, later
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import recording_plan_change
from brassclock.services.schemas.day import PinUpdate
from brassclock.services.times import table_instant

TURN = ("weigh", "sponge", "mix", "ball", "roll", "line")  # each needs the one before it
PIN_SLACK = dt.timedelta(minutes=2)


def pin(app: App, bake_id: int, given: PinUpdate) -> None:
    """Hold a hand move where the cook put it, or let it go. With the balling its mixing is held where it was
    planned."""
    with bake_change.change(app, bake_id, given.revision) as (session, r):
        plan = solve.solve(r).plan
        if plan is None or r.bake.status != "live":
            raise Conflict("This bake has no plan whose moves could be held.")
        step = next((s for s in plan.steps if s.key == given.key), None)
        if step is None:
            raise invalid("/key", f"This bake has no move “{given.key}”.")
        if step.done_at is not None:
            raise Conflict(f"“{step.name}” is done already. Move it where it is marked.")
        pins = _pinned(r, plan, step, given.at)
        how = "was moved by hand" if given.at is not None else "was let go"
        with recording_plan_change(app, session, r.bake.kitchen_id, f"{step.name.lower()} {how}", bake_id):
            r.bake.pins = pins


def _pinned(r: BakeSnapshot, plan: DayPlan, step: DayStep, at: dt.datetime | None) -> dict[str, str]:
    """The bake's pins with this one held or let go; the last one let go lets the mixing go with it, and the mixing
    all."""
    pins = {k: v for k, v in r.bake.pins.items() if k != step.key}
    if at is None:
        return pins if pins.keys() - {"mix"} and step.key != "mix" else {}
    at = table_instant(at, r.now, "/at")
    if at <= r.now:
        raise invalid("/at", f"It is {r.now:%H:%M} here; that is past. Hold a move at a time ahead.")
    _refuse_out_of_turn(r, plan, step, at)
    if step.key == "mix":  # its step begins the mixing; the dough's clock starts when it ends
        at = later(at, hours_between(step.at, plan.mixed_at))
    elif "mix" not in r.done():
        pins.setdefault("mix", plan.mixed_at.isoformat())
    return {**pins, step.key: at.isoformat()}


def _refuse_out_of_turn(r: BakeSnapshot, plan: DayPlan, step: DayStep, at: dt.datetime) -> None:
    """Raise InvalidInput for a hand move held before the moves that it needs, or after one that needs it."""
    chain = sorted((s for s in plan.steps if s.key in TURN), key=lambda s: TURN.index(s.key))
    place = next((i for i, s in enumerate(chain) if s is step), None)
    if place is None:
        return
    held = r.bake.pins
    begin = r.now
    for s in chain[:place]:
        if s.done_at is not None or s.key in held:
            begin = max(begin, later(s.done_at or s.at, s.hands_min / 60 if s.done_at is None else 0.0))
        else:
            begin = later(begin, s.hands_min / 60)
        if at < begin - PIN_SLACK:
            why = "held where you put it" if s.key in held else "not done yet" if s.done_at is None else "marked done"
            raise invalid(
                "/at",
                f"“{step.name}” needs “{s.name}” before it, which is {why}: {begin:%H:%M} is the earliest. "
                f"Hold it then or later{', or let the other go' if s.key in held else ''}.",
            )
    after = next((s for s in chain[place + 1 :] if s.key in held), None)
    if after is not None and at >= after.at:
        raise invalid(
            "/at",
            f"“{after.name}” is held at {after.at:%H:%M} and comes after “{step.name}”. "
            "Hold it earlier, or let the other go first.",
        )


def change_text(moves: list[dict[str, Any]], why: str, zone: dt.tzinfo, now: dt.datetime) -> str:
    """A change as one sentence: its first move still ahead, how many more, and why."""
    told = sorted((m for m in moves if m["at"] and m["was"]), key=lambda m: str(m["at"]))
    if not told:
        return f"The moves are others now: {why}."
    first = told[0]
    was, at = (dt.datetime.fromisoformat(first[k]).astimezone(zone) for k in ("was", "at"))
    name = WORDS[kind_of(first["key"])].lower()
    way = "earlier" if at < was else "later"
    more = f", {len(told) - 1} more with it" if len(told) > 1 else ""
    gap = round(abs(hours_between(was, at)) * 12) * 5
    span = f"{gap} min" if gap < 90 else f"{gap / 60:.0f} h"
    return f"{name.capitalize()} is {span} {way}, at {moment(at, now)}{more}: {why}."
