"""Rescues when the serving time moves or the dough does: the least disruptive change, each with the window it gives.

Every option is the real rise model run again from where the dough is, at the median of what is believed. The rise
that goes on while a dough cools or warms is in it: the dough follows its vessel, not the air.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.rise.windows import Aim, aims

FRIDGE_MIN = (20.0, 40.0, 60.0, 90.0, 120.0, 180.0)
SPOT_K = 5.0
COOL_LEAST_C, WARM_MOST_C = 8.0, 35.0
ONWARD_H = 4.0


@dataclass(frozen=True)
class Option:
    """A change from now: its kind, the sentence, where the dough goes (C) and for how long [min], and the window it
    gives.

    Hours run from now: ready, best until, too far. `disruption` orders them, least first.
    """

    kind: str
    text: str
    temp_c: float | None
    minutes: float | None
    ready_h: float
    best_to_h: float
    too_far_h: float
    disruption: float


@dataclass(frozen=True)
class DoughState:
    """State of a dough in its plan: the stages done, the one it is in and for how long [h], and what comes after it."""

    batch: Batch
    done: tuple[Stage, ...]
    stage: Stage
    elapsed_h: float
    fridge_c: float
    activity: float = 1.0
    next_stage: Stage | None = None
    due_h: float = 0.0  # from now: when the stage is planned to end


def _after(at: DoughState, parts: Sequence[Stage]) -> Aim:
    """The last part's aims, hours from its start; every part before it keeps its length."""
    stages = [*at.done, *parts]
    return aims(at.batch, stages, fixed_h=[s.hours for s in stages[:-1]], activity=at.activity)[-1]


def _shifted(path: tuple[tuple[float, float], ...], by_h: float, add_c: float = 0.0) -> tuple[tuple[float, float], ...]:
    """A path seen from `by_h` later, warmer by `add_c`."""
    begin = Stage("", 1.0, path).ambient_c(by_h)
    return ((0.0, begin + add_c), *((h - by_h, c + add_c) for h, c in path if h > by_h))


def _option(
    at: DoughState,
    kind: str,
    text: str,
    disruption: float,
    *,
    away_h: float = 0.0,
    add_c: float = 0.0,
    temp_c: float | None = None,
    then: str | None = None,
) -> Option:
    """From now `away_h` at the fridge, then on in the stage's own air warmer by `add_c`; `then` is done to the dough
    now."""
    onward = replace(at.stage, hours=ONWARD_H, path=_shifted(at.stage.path, at.elapsed_h + away_h, add_c))
    parts = [replace(at.stage, hours=max(at.elapsed_h, 1 / 60), then=then), onward]
    if away_h:
        parts.insert(1, replace(at.stage, name="cold", hours=away_h, path=((0.0, at.fridge_c),), then=None))
    aim = _after(at, parts)
    return Option(
        kind,
        text,
        temp_c,
        away_h * 60 or None,
        away_h + aim.ready_h,
        away_h + aim.best_to_h,
        away_h + aim.too_far_h,
        disruption,
    )


def as_it_stands(at: DoughState) -> Option:
    """The window if nothing is done, from now."""
    return _option(at, "leave", "Leave it where it is.", 0.0)


def options(at: DoughState) -> list[Option]:
    """Every change worth considering: the fridge for a while, a cooler or a warmer spot, and in bulk a knock-back."""
    air_c = at.stage.ambient_c(at.elapsed_h)
    found = [
        _option(
            at, "fridge", f"Into the fridge for {m:.0f} min, then back.", 1 + m / 120, away_h=m / 60, temp_c=at.fridge_c
        )
        for m in FRIDGE_MIN
    ]
    for kind, add_c, disruption, least_c, most_c in (
        ("cooler", -SPOT_K, 0.5, COOL_LEAST_C, math.inf),
        ("warmer", SPOT_K, 0.6, -math.inf, WARM_MOST_C),
    ):
        spot_c = air_c + add_c
        if least_c <= spot_c <= most_c:
            text = f"A {kind} spot, about {spot_c:.0f} C."
            found.append(_option(at, kind, text, disruption, add_c=add_c, temp_c=spot_c))
    if not at.stage.gas_kept:
        found.append(_option(at, "knock_back", "Knock it back once and let it rise again.", 2.0, then="knock_back"))
        if at.next_stage is not None:
            found.append(_ball_now(at, at.next_stage))
    return found


def _ball_now(at: DoughState, balls: Stage) -> Option:
    """Ball the dough now, whatever its bulk came to, and let the balls prove in the air there is."""
    proof = replace(balls, hours=ONWARD_H, path=_shifted(at.stage.path, at.elapsed_h))
    aim = _after(at, [replace(at.stage, hours=max(at.elapsed_h, 1 / 60), then="ball"), proof])
    text = "Ball it now; the balls prove on from there."
    return Option("ball_now", text, None, None, aim.ready_h, aim.best_to_h, aim.too_far_h, 1.2)


def for_later(at: DoughState, minutes: float) -> list[Option]:
    """Changes that keep the dough good for a table so much later [min], the least disruptive first; leaving it, when
    that holds.

    Good is not too far when the stage ends so much later than planned.
    """
    wanted_h = at.due_h + minutes / 60
    base = as_it_stands(at)
    if base.too_far_h > max(base.ready_h + minutes / 60, wanted_h) and base.best_to_h >= wanted_h:
        return [base]
    good = [
        o
        for o in options(at)
        if o.kind != "warmer" and o.too_far_h >= wanted_h and o.ready_h <= max(base.ready_h, wanted_h) + 0.34
    ]
    return sorted(good, key=lambda o: o.disruption)


def for_slower(at: DoughState) -> list[Option]:
    """Changes that slow a dough that runs away, by how much later it is too far, the least disruptive first."""
    base = as_it_stands(at)
    good = [o for o in options(at) if o.kind != "warmer" and o.too_far_h > base.too_far_h + 0.15]
    return sorted(good, key=lambda o: o.disruption)
