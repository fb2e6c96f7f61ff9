"""The say-line: one plain sentence of what is next, when, and how long it can wait."""

from __future__ import annotations

import datetime as dt
import re
from collections.abc import Sequence

from brassclock.core.day.spec import DayPlan, DayStep
from brassclock.core.fire.hearth import Due
from brassclock.core.time import later
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.day.changes import change_text
from brassclock.services.day.choices import half_gone, refused_words, ripe_until
from brassclock.services.day.steps import late_text
from brassclock.services.fire.hearth import hearth_of
from brassclock.services.keep.hold import say_kept
from brassclock.services.schemas.bake import SayPart
from brassclock.services.schemas.base import StepRead
from brassclock.services.solve import BakeResult, safety_of

SENTENCES = {
    "feed": ("Feed", "the starter for the {name}"),
    "weigh": ("Weigh", "the {name}"),
    "sponge": ("Mix", "the sponge of the {name}"),
    "mix": ("Mix", "the {name}"),
    "cold_in": ("Put", "the {name} in the fridge"),
    "cold_out": ("Take", "the {name} out of the fridge"),
    "ball": ("Ball", "the {name}"),
    "preheat": ("Heat", "the surface for the {name}"),
    "roll": ("Roll", "the {name}"),
    "line": ("Load", "the first of the {name}"),
    "serve": ("Serve", "the {name}"),
}
ORDER = ("feed", "weigh", "sponge", "mix", "ball", "cold_in", "cold_out", "preheat", "roll", "line")
DOUGH_STEPS = ("ball", "cold_in", "cold_out", "roll", "line")
ON_THE_HEAT = {"turn": "Turn round {n}", "off": "Take round {n} off"}
SOON = dt.timedelta(minutes=1)


def text(words: str) -> SayPart:
    return SayPart(kind="text", text=words)


def next_step(plan: DayPlan) -> DayStep | None:
    """The soonest hand move not done yet."""
    open_steps = [s for s in plan.steps if s.key in ORDER and s.done_at is None]
    return min(open_steps, key=lambda s: (s.at, ORDER.index(s.key)), default=None)


def lower_first(name: str) -> str:
    """A bake's name within a sentence; one that is written in capitals, or with each word in one, stays so.

    >>> lower_first("Hatch pitas, Friday"), lower_first("Soft Pita Pockets")
    ('hatch pitas, Friday', 'Soft Pita Pockets')
    """
    return name if re.match(r"[^\W\d_]?[A-Z]|\S+ [A-Z]", name[1:]) else name[:1].lower() + name[1:]


def say_step(step: DayStep, name: str, now: dt.datetime, late_min: float = 0.0) -> list[SayPart]:
    """The sentence of a step that is ahead, due, or past its window."""
    verb, rest = SENTENCES[step.key]
    what = f"{verb} {rest.format(name=lower_first(name))}"
    if step.at - now > SOON:
        parts = [
            text(f"{what} at "),
            SayPart(kind="at", at=step.at),
            text(", in "),
            SayPart(kind="until", at=step.at),
            text("."),
        ]
    else:
        parts = [text(f"{what} "), SayPart(kind="figure", text="now"), text(".")]
    wait = step.can_wait_until
    if late_min >= 1:
        return [*parts, text(f" It will be served {late_text(late_min)} late.")]
    if wait and wait > now and wait - step.at > SOON:
        who = "Dough keeps" if step.key in DOUGH_STEPS else "It can wait"
        return [*parts, text(f" {who} until "), SayPart(kind="at", at=wait), text(".")]
    return parts


def say_stock(step: StepRead, now: dt.datetime) -> list[SayPart]:
    """The sentence of a move of the freezer: what is taken out or heated, when, and how."""
    what = f"{step.name} {lower_first(step.bake)}"
    how = f", {step.reason}." if step.key.startswith("heat") else "."
    if step.at - now <= SOON:
        return [text(f"{what} "), SayPart(kind="figure", text="now"), text(how)]
    return [
        text(f"{what} at "),
        SayPart(kind="at", at=step.at),
        text(", in "),
        SayPart(kind="until", at=step.at),
        text(how),
    ]


def say_of(r: BakeSnapshot, work: BakeResult) -> list[SayPart]:
    """The say-line of one bake."""
    bake = r.bake
    if bake.status == "kept":
        full = sum(o.pocket == "full" for o in r.outcomes)
        return [text(f"Kept. {full} of {len(r.outcomes)} had a full pocket.") if r.outcomes else text("Kept.")]
    if bake.status == "abandoned":
        return [text("Abandoned. Bring it back from the bake's own menu.")]
    if work.faults.get("weigh"):
        return [text("Type what goes in the bowl.")]
    if any(t.kind == "load" for t in r.taps):
        state = hearth_of(r, work)
        if state.finished:
            return say_kept(r, work)
        off = f"{len(state.off)} of {solve.line_kinds(r, work).rounds} are off the heat."
        return [text(f"{off} The hands are at the Fire leaf."), *_forgotten(state.due, r.now)]
    if work.plan is None:
        return [text(work.faults.get("rise", "There is no plan yet."))]
    step = next_step(work.plan)
    if step is None:
        return [text("Everything is done.")]
    return [*say_step(step, bake.name, r.now, work.plan.late_min), *warned(r, work), *moved_lately(r)]


def _forgotten(due: Sequence[Due], now: dt.datetime) -> list[SayPart]:
    """The bread on the heat that has waited longest for a hand, once that is over a minute."""
    waits = [d for d in due if d.move in ON_THE_HEAT and d.at_s is not None and d.at_s < (now - SOON).timestamp()]
    if not waits:
        return []
    first = min(waits, key=lambda d: d.at_s or 0.0)
    since = dt.datetime.fromtimestamp(first.at_s or 0.0, dt.UTC)
    return [
        text(f" {ON_THE_HEAT[first.move].format(n=first.round_no)}: due since "),
        SayPart(kind="at", at=since),
        text("."),
    ]


def warned(r: BakeSnapshot, work: BakeResult) -> list[SayPart]:
    """Warning of what the plan does not bear, and when the usual count of warm hours is full, where that is sooner
    than the wait."""
    refused = refused_words(r, work)
    if refused:
        return [text(" " + refused)]
    if half_gone(work):
        return [text(" By then half of its lift or more is gone: expect it flatter."), *_warm(work, over=False)]
    ripe = ripe_until(r, work)
    if ripe is None or ripe >= r.now - SOON:
        return _warm(work, over=False)
    too_ripe = [text(" It was too ripe from "), SayPart(kind="at", at=ripe), text(": expect it flat and sour.")]
    return [*too_ripe, *_warm(work, over=True)]


def _warm(work: BakeResult, *, over: bool) -> list[SayPart]:
    """The instant at which the usual count of warm hours is full, where that is sooner than the wait, or the wait is
    over."""
    count, plan = safety_of(work), work.plan
    step = next_step(plan) if plan is not None else None
    if count is None or count.reached_at_h is None or step is None or work.risen is None:
        return []
    full = later(work.risen.zero, count.reached_at_h)
    if not over and (step.key not in DOUGH_STEPS or full >= (step.can_wait_until or step.at)):
        return []
    return [
        text(f" It has been warm for {count.limit_h:g} h by "),
        SayPart(kind="at", at=full),
        text(": local rules decide."),
    ]


TOLD_FOR = dt.timedelta(minutes=15)


def moved_lately(r: BakeSnapshot) -> list[SayPart]:
    """Recent changes of the plan with their reasons."""
    if r.moved is None or r.now - r.moved.at > TOLD_FOR or r.now.tzinfo is None:
        return []
    return [text(" " + change_text(r.moved.moves, r.moved.because, r.now.tzinfo, r.now))]
