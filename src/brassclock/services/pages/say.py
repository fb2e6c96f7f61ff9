"""The say-line: one plain sentence of what is next, when, and how long it can wait."""

from __future__ import annotations

import datetime as dt

from brassclock.core.day.spec import DayPlan, DayStep
from brassclock.services.schemas.bake import SayPart
from brassclock.services.schemas.base import StepRead

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
SOON = dt.timedelta(minutes=1)


def text(words: str) -> SayPart:
    return SayPart(kind="text", text=words)


def next_step(plan: DayPlan) -> DayStep | None:
    """The soonest hand move not done yet."""
    open_steps = [s for s in plan.steps if s.key in ORDER and s.done_at is None]
    return min(open_steps, key=lambda s: (s.at, ORDER.index(s.key)), default=None)


def lower_first(name: str) -> str:
    return name[:1].lower() + name[1:]


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
        return [*parts, text(f" The table will be {late_min:.0f} min late.")]
    if wait and wait > now and wait - step.at > SOON:
        who = "Dough keeps" if step.key in DOUGH_STEPS else "It can wait"
        return [*parts, text(f" {who} until "), SayPart(kind="at", at=wait), text(".")]
    if wait and wait <= now and step.key in ("ball", "roll"):
        return [*parts, text(" Its window closed at "), SayPart(kind="at", at=wait), text(".")]
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
