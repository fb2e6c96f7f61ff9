"""The day of one bake, backward from the table: a simple chain of stages around what is already done.

Serving fixes the line, the line the roll and the preheat, the roll the ball proof, that the bulk, that
the mixing. Stage lengths come from the rise model along the kitchen's own hours, solved by repetition.
Once a step is done its instant is kept and only what lies ahead moves.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.day.kitchen_air import Spell, air_path, with_spells
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.rise.windows import Aim, aims

ROUNDS_OF_SOLVING = 5
PATH_H = 60.0
WORDS = {
    "weigh": "Weigh",
    "mix": "Mix",
    "ball": "Ball",
    "preheat": "Heat the surface",
    "roll": "Roll",
    "line": "Load the first round",
    "serve": "Serve",
}


@dataclass(frozen=True)
class StageSpec:
    """A stage without its air: the kitchen's hours give that once its start is known."""

    stage: Stage
    fixed_c: float | None = None

    spells: tuple[Spell, ...] = ()

    def placed(self, hourly_c: Sequence[float], start: dt.datetime) -> Stage:
        """The stage with the air it will have from `start`, spells elsewhere included."""
        if self.fixed_c is not None:
            return replace(self.stage, path=((0.0, self.fixed_c),))
        return replace(self.stage, path=with_spells(air_path(hourly_c, start, PATH_H), start, self.spells))


@dataclass(frozen=True)
class BakeSpec:
    """What the chain needs of a bake. Minutes of hand work before, between and after its stages."""

    batch: Batch
    bulk: StageSpec
    ball: StageSpec
    weigh_min: float = 10.0
    mix_min: float = 12.0
    roll_min: float = 12.0
    preheat_min: float = 45.0
    line_min: float = 15.0
    activity: float = 1.0
    rests: tuple[Aim, Aim] | None = None  # a dough whose stages are told, not forecast


@dataclass(frozen=True)
class DayStep:
    """A hand move: when, how long it can wait, and when it was done if it was."""

    key: str
    name: str
    at: dt.datetime
    hands_min: float
    can_wait_until: dt.datetime | None = None
    done_at: dt.datetime | None = None


@dataclass(frozen=True)
class DayPlan:
    """The steps in time order, where the stages aim, and how late the table will be [min; 0 is on time]."""

    steps: tuple[DayStep, ...]
    mixed_at: dt.datetime
    balled_at: dt.datetime
    bulk: Aim
    ball: Aim
    late_min: float
    serve_at: dt.datetime

    def step(self, key: str) -> DayStep:
        """The step of that key."""
        return next(s for s in self.steps if s.key == key)


def _hours(delta: dt.timedelta) -> float:
    return delta.total_seconds() / 3600


def plan_back(
    spec: BakeSpec,
    hourly_c: Sequence[float],
    serve_at: dt.datetime,
    now: dt.datetime,
    done: Mapping[str, dt.datetime],
) -> DayPlan:
    """Plan a bake to be served at `serve_at`. `done` maps step keys to the instants they ended.

    All instants are aware. `mix` done means the dough was made then; `ball` done, that balls were.
    """
    zone = serve_at.tzinfo

    def shift(moment: dt.datetime, hours: float) -> dt.datetime:
        return (moment.astimezone(dt.UTC) + dt.timedelta(hours=hours)).astimezone(zone)

    def solve(mixed: dt.datetime, balled: dt.datetime | None) -> tuple[Aim, Aim]:
        if spec.rests:
            return spec.rests
        bulk_h = _hours(balled - mixed) if balled else None
        bulk = spec.bulk.placed(hourly_c, mixed)
        guess = balled or shift(mixed, bulk_h or 2.0)
        for _ in range(2 if balled is None else 1):
            ball = spec.ball.placed(hourly_c, guess)
            found = aims(spec.batch, (bulk, ball), fixed_h=(bulk_h, None), activity=spec.activity)
            guess = balled or shift(mixed, found[0].aim_h)
        return found[0], found[1]

    line_at = shift(serve_at, -spec.line_min / 60)
    roll_at = shift(line_at, -spec.roll_min / 60)
    mixed, balled = done.get("mix"), done.get("ball")
    if mixed is None:
        mixed = shift(roll_at, -3.0)
        for _ in range(ROUNDS_OF_SOLVING):
            bulk, ball = solve(mixed, None)
            mixed = shift(roll_at, -(bulk.aim_h + ball.aim_h))
        earliest = max(shift(now, spec.mix_min / 60), mixed)
        if earliest > mixed:
            mixed = earliest
            bulk, ball = solve(mixed, None)
    else:
        bulk, ball = solve(mixed, balled)
    if balled is None:
        wanted = shift(roll_at, -ball.aim_h)
        low, high = shift(mixed, bulk.ready_h), shift(mixed, max(bulk.best_to_h, bulk.ready_h))
        balled = min(max(wanted, low), high)
        if "mix" in done:
            balled = max(balled, min(now, shift(mixed, bulk.too_far_h)))
        ball = solve(mixed, balled)[1]
    rolled = done.get("roll")
    soonest = shift(balled, ball.ready_h)
    roll_at = rolled or max(roll_at, soonest)
    if "line" not in done and rolled is None:
        roll_at = max(roll_at, now) if roll_at < now else roll_at
    line_at = done.get("line") or shift(roll_at, spec.roll_min / 60)
    finish = shift(line_at, spec.line_min / 60)
    late_min = max(0.0, _hours(finish - serve_at) * 60)
    preheat_at = shift(line_at, -spec.preheat_min / 60)
    mix_at = shift(mixed, -spec.mix_min / 60)
    last_ball = min(shift(mixed, bulk.too_far_h), shift(roll_at, -ball.ready_h))
    last_roll = shift(balled, max(ball.too_far_h, ball.ready_h))
    slack_h = (bulk.aim_h - bulk.ready_h) + (ball.aim_h - ball.ready_h)
    chain = [
        ("weigh", shift(mix_at, -spec.weigh_min / 60), spec.weigh_min, shift(mix_at, slack_h - spec.weigh_min / 60)),
        ("mix", mix_at, spec.mix_min, shift(mix_at, slack_h)),
        ("ball", balled, 10.0, max(last_ball, balled)),
        ("preheat", preheat_at, 1.0, shift(preheat_at, 10 / 60)),
        ("roll", roll_at, spec.roll_min, max(last_roll, roll_at)),
        ("line", line_at, spec.line_min, shift(max(last_roll, roll_at), spec.roll_min / 60)),
        ("serve", max(finish, serve_at), 0.0, None),
    ]  # fmt: skip
    steps = tuple(
        DayStep(key, WORDS[key], done.get(key, at), minutes, wait, done.get(key)) for key, at, minutes, wait in chain
    )
    return DayPlan(tuple(sorted(steps, key=lambda s: s.at)), mixed, balled, bulk, ball, late_min, max(finish, serve_at))
