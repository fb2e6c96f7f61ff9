"""The day of one bake, backward from the table: a simple chain of stages around what is already done.

Serving fixes the line, the line the roll and the preheat, the roll the ball proof, that the bulk, that
the mixing. Stage lengths come from the rise model along the kitchen's own hours, solved by repetition.
Once a step is done its instant is kept and only what lies ahead moves.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.day.kitchen_air import Relocation, hours_between, later, with_log, with_spells
from brassclock.core.day.places import DEFAULTS, LONGEST_H, USUAL_H, Place
from brassclock.core.matter.dough import Portion
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.rise.windows import Aim, aims

ROUNDS_OF_SOLVING = 6
SETTLED_H = 1 / 60
NEAR_ENOUGH_H = 2 / 60  # for a plan near a known one
LEAST_COLD_H = 0.25
WORDS = {
    "feed": "Feed the starter",
    "sponge": "Mix the sponge",
    "weigh": "Weigh",
    "mix": "Mix",
    "ball": "Ball",
    "cold_in": "Into the cold",
    "cold_out": "Out of the cold",
    "preheat": "Heat the surface",
    "roll": "Roll",
    "line": "Load the first round",
    "serve": "Serve",
    "wave": "Next tray out of the cold",
}
Path = tuple[tuple[float, float], ...]


def kind_of(key: str) -> str:
    """The kind of a move by its key: one that comes several times is numbered.

    >>> kind_of("wave2"), kind_of("ball")
    ('wave', 'ball')
    """
    return key.rstrip("0123456789")


@dataclass(frozen=True)
class Cold:
    """Hours in a cold place, begun so long into a stage [h]."""

    after_h: float
    hours: float
    place: Place


@dataclass(frozen=True)
class StageSpec:
    """A stage without its air: its place, or air of its own, gives that once its start is known."""

    stage: Stage
    place: Place = DEFAULTS["bench"]
    own_air: Path | None = None
    cold: Cold | None = None
    spells: tuple[Relocation, ...] = ()
    log: tuple[tuple[dt.datetime, float], ...] = ()

    def cold_span(self, start: dt.datetime, done: Mapping[str, dt.datetime]) -> tuple[dt.datetime, dt.datetime] | None:
        """When it goes into the cold and comes out: as planned from its start, or as it was done."""
        if self.cold is None:
            return None
        into = done.get("cold_in") or later(start, self.cold.after_h)
        return into, done.get("cold_out") or later(into, self.cold.hours)

    def placed(self, hourly_c: Sequence[float], start: dt.datetime, done: Mapping[str, dt.datetime]) -> Stage:
        """The stage with the air it will have from `start`: what was read of it, its cold, and spells elsewhere."""
        path = self.own_air or self.place.path(hourly_c, start, LONGEST_H if self.cold else USUAL_H)
        if self.own_air is None and self.log:
            path = with_log(path, start, self.log)
        spells = self.spells
        span = self.cold_span(start, done)
        if span and self.cold:
            spells = (self.cold.place.stay(*span, hourly_c), *spells)
        if spells and len(path) == 1:
            path = (path[0], (LONGEST_H, path[0][1]))
        return replace(self.stage, path=with_spells(path, start, spells))


@dataclass(frozen=True)
class Sponge:
    """A first dough that rests before the rest joins it: its hours, and what joins."""

    hours: float
    joins: tuple[Portion, ...]
    stage: Stage


@dataclass(frozen=True)
class BakeSpec:
    """What the chain needs of a bake. Minutes of hand work before, between and after its stages.

    With a sponge the batch is the sponge's dough; what joins it does so when the dough is mixed.
    """

    batch: Batch
    bulk: StageSpec
    ball: StageSpec
    weigh_min: float = 10.0
    mix_min: float = 12.0
    roll_min: float = 12.0
    ball_min: float = 10.0
    preheat_min: float = 45.0
    preheat_tended: bool = False
    line_min: float = 15.0
    activity: float = 1.0
    rests: tuple[Aim, Aim] | None = None  # a dough whose stages are told, not forecast
    sponge: Sponge | None = None
    service_min: float = 0.0  # from the first load to the last, when the table is longer than the line
    waves: int = 1  # how often a tray comes out of the cold

    def stages(
        self, hourly_c: Sequence[float], mixed: dt.datetime, balled: dt.datetime, done: Mapping[str, dt.datetime]
    ) -> tuple[Stage, ...]:
        """Every stage in its air: the sponge when there is one, the bulk, the balls."""
        bulk, ball = self.bulk.placed(hourly_c, mixed, done), self.ball.placed(hourly_c, balled, done)
        if self.sponge is None:
            return bulk, ball
        begun = later(mixed, -self.sponge.hours)
        first = replace(self.sponge.stage, hours=self.sponge.hours, path=self.bulk.place.path(hourly_c, begun))
        return first, replace(bulk, add=self.sponge.joins, mixed_c=self.batch.mix_temp_c), ball

    @property
    def before_h(self) -> float:
        """Hours of the rise before the dough is mixed."""
        return self.sponge.hours if self.sponge else 0.0

    def with_cold_hours(self, which: str, hours: float) -> BakeSpec:
        """The same with its cold as long as that."""
        spec: StageSpec = getattr(self, which)
        assert spec.cold is not None
        longer = replace(spec, cold=replace(spec.cold, hours=max(hours, LEAST_COLD_H)))
        return replace(self, bulk=longer) if which == "bulk" else replace(self, ball=longer)


@dataclass(frozen=True)
class DayStep:
    """A hand move: when, how long it can wait, and when it was done if it was."""

    key: str
    name: str
    at: dt.datetime
    hands_min: float
    can_wait_until: dt.datetime | None = None
    not_before: dt.datetime | None = None
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
    spec: BakeSpec  # as it was planned: its cold as long as the table leaves it

    @property
    def begun_at(self) -> dt.datetime:
        """When its rise begins: with the sponge when there is one, else when it is mixed."""
        return later(self.mixed_at, -self.spec.before_h)

    def step(self, key: str) -> DayStep:
        """The step of that key."""
        return next(s for s in self.steps if s.key == key)


def held_pins(
    pins: Mapping[str, dt.datetime], now: dt.datetime, done: Mapping[str, dt.datetime]
) -> dict[str, dt.datetime]:
    """The pins that still bind: ahead of now, not done, and no mixing after a balling that is held before it."""
    ahead = {k: v for k, v in pins.items() if v > now and k not in done}
    if "ball" in ahead and "mix" not in ahead and "mix" not in done:
        del ahead["ball"]  # its mixing slipped: where the balls belong is open again
    return ahead


def _mixing(
    solve: Callable[[dt.datetime], tuple[Aim, Aim]], roll_at: dt.datetime, first: dt.datetime, settled_h: float
) -> tuple[dt.datetime, Aim, Aim]:
    """When to mix so that the balls are where they should be at `roll_at`, and what follows from it.

    A kitchen that cools at night makes the answer jump; of what was tried, the latest mixing that is in time is taken.
    """
    mixed, step_h = first, math.inf
    tried: list[tuple[float, dt.datetime, Aim, Aim]] = []
    for _ in range(ROUNDS_OF_SOLVING):
        bulk, ball = solve(mixed)
        slack_h = hours_between(mixed, roll_at) - bulk.aim_h - ball.aim_h
        tried.append((slack_h, mixed, bulk, ball))
        if abs(slack_h) < settled_h:
            break
        mixed = later(mixed, slack_h if abs(slack_h) < step_h else slack_h / 2)
        step_h = abs(slack_h)
    in_time = [x for x in tried if x[0] >= -settled_h]
    _, mixed, bulk, ball = min(in_time or tried, key=lambda x: abs(x[0]))
    return mixed, bulk, ball


def plan_back(
    spec: BakeSpec,
    hourly_c: Sequence[float],
    serve_at: dt.datetime,
    now: dt.datetime,
    done: Mapping[str, dt.datetime],
    near: tuple[dt.datetime, float] | None = None,
    pins: Mapping[str, dt.datetime] | None = None,
) -> DayPlan:
    """Plan a bake to be served at `serve_at`. `done` maps step keys to the instants they ended.

    `pins` maps step keys to instants ahead that are to hold; one that has gone by, or that the dough overtook, is let go.
    `near` is about when it will be mixed and how long its bulk is [h], if a plan like this is known. All instants are aware. `mix` done means the dough was made then; `ball` done, that balls were.
    """
    zone = serve_at.tzinfo
    held = {**held_pins(pins or {}, now, done), **done}

    def shift(moment: dt.datetime, hours: float) -> dt.datetime:
        return later(moment.astimezone(zone), hours)

    bulk_before = near[1] if near else None

    def solve(spec: BakeSpec, mixed: dt.datetime, balled: dt.datetime | None) -> tuple[Aim, Aim]:
        nonlocal bulk_before  # how long the bulk was when last solved: near enough to place the balls' air
        if spec.rests:
            return spec.rests
        bulk_h = hours_between(mixed, balled) if balled else None
        first = (spec.before_h,) if spec.sponge else ()
        guess = balled or shift(mixed, bulk_before or spec.bulk.stage.hours)
        for _ in range(2 if balled is None and bulk_before is None else 1):
            stages = spec.stages(hourly_c, mixed, guess, held)
            found = aims(spec.batch, stages, fixed_h=(*first, bulk_h, None), activity=spec.activity)
            guess = balled or shift(mixed, found[-2].aim_h)
            bulk_before = found[-2].aim_h
        return found[-2], found[-1]

    def solve_cold(mixed: dt.datetime, balled: dt.datetime | None) -> tuple[BakeSpec, Aim, Aim]:
        """Once the dough is made its cold is as long as the table leaves it, if it has not come out already."""
        found = spec
        bulk, ball = solve(found, mixed, balled)
        which = "bulk" if spec.bulk.cold else "ball" if spec.ball.cold else None
        if which is None or "cold_out" in held or spec.rests:
            return found, bulk, ball
        for _ in range(3):
            over_h = hours_between(roll_at, shift(balled or shift(mixed, bulk.aim_h), ball.aim_h))
            cold = getattr(found, which).cold
            if abs(over_h) < SETTLED_H or cold.hours - over_h < LEAST_COLD_H:
                break
            found = found.with_cold_hours(which, cold.hours - over_h)
            bulk, ball = solve(found, mixed, balled)
        return found, bulk, ball

    line_at = shift(serve_at, -spec.line_min / 60)
    roll_at = shift(line_at, -spec.roll_min / 60)
    mixed, balled = held.get("mix"), held.get("ball")
    if mixed is None:
        mixed, bulk, ball = _mixing(
            lambda at: solve(spec, at, None),
            roll_at,
            near[0] if near else shift(roll_at, -3.0),
            NEAR_ENOUGH_H if near else SETTLED_H,
        )
        earliest = max(shift(now, spec.mix_min / 60 + spec.before_h), mixed)
        if earliest > mixed:
            mixed = earliest
            spec, bulk, ball = solve_cold(mixed, None)
    else:
        spec, bulk, ball = solve_cold(mixed, balled)
    if balled is None:
        wanted = shift(roll_at, -ball.aim_h)
        low, high = shift(mixed, bulk.ready_h), shift(mixed, max(bulk.best_to_h, bulk.ready_h))
        balled = min(max(wanted, low), high)
        if "mix" in done:
            balled = max(balled, min(now, shift(mixed, bulk.too_far_h)))
        spec, bulk, ball = solve_cold(mixed, balled)
    rolled = done.get("roll")
    soonest = shift(balled, ball.ready_h)
    roll_at = rolled or max(roll_at, soonest)
    if "line" not in done and rolled is None:
        roll_at = max(roll_at, now)
    line_at = done.get("line") or shift(roll_at, spec.roll_min / 60)
    finish = shift(line_at, spec.line_min / 60)
    late_min = max(0.0, hours_between(serve_at, finish) * 60)
    preheat_at = min(held.get("preheat", line_at), shift(line_at, -spec.preheat_min / 60))
    mix_at = shift(mixed, -spec.mix_min / 60)
    last_ball = min(shift(mixed, bulk.too_far_h), shift(roll_at, -ball.ready_h))
    last_roll = shift(balled, max(ball.too_far_h - spec.service_min / spec.waves / 60, ball.ready_h))
    slack_h = (bulk.aim_h - bulk.ready_h) + (ball.aim_h - ball.ready_h)
    chain = [
        ("weigh", shift(mix_at, -spec.weigh_min / 60), spec.weigh_min, shift(mix_at, slack_h - spec.weigh_min / 60)),
        ("mix", mix_at, spec.mix_min, shift(mix_at, slack_h)),
        ("ball", balled, spec.ball_min, max(last_ball, balled)),
        ("preheat", preheat_at, spec.preheat_min if spec.preheat_tended else 1.0, shift(preheat_at, 10 / 60)),
        ("roll", roll_at, spec.roll_min, max(last_roll, roll_at)),
        ("line", line_at, spec.line_min, shift(max(last_roll, roll_at), spec.roll_min / 60)),
        ("serve", shift(max(finish, serve_at), -spec.service_min / 60), 0.0, None),
    ]  # fmt: skip
    early_h = max(bulk.best_to_h - bulk.aim_h, 0.0) + max(ball.best_to_h - ball.aim_h, 0.0)
    soonest_of = {
        "mix": shift(mix_at, -early_h),
        "ball": shift(mixed, bulk.ready_h),
        "roll": shift(balled, ball.ready_h),
    }
    if spec.sponge:
        begun = shift(mix_at, -spec.before_h)
        chain[0] = (
            "weigh",
            shift(begun, -spec.weigh_min / 60),
            spec.weigh_min,
            shift(begun, slack_h - spec.weigh_min / 60),
        )
        chain.append(("sponge", begun, 6.0, shift(begun, slack_h)))
    for part, begins, ends in ((spec.bulk, mixed, balled), (spec.ball, balled, roll_at)):
        span = part.cold_span(begins, held)
        if span and not spec.rests:
            chain.append(("cold_in", span[0], 3.0, None))
            chain.append(("cold_out", span[1], 3.0, max(span[1], min(ends, shift(ends, -1.0)))))
            if part is spec.ball:
                gap_h = spec.service_min / spec.waves / 60
                chain += [(f"wave{i + 1}", shift(span[1], i * gap_h), 3.0, None) for i in range(1, spec.waves)]
    steps = tuple(
        DayStep(key, WORDS[kind_of(key)], done.get(key, at), minutes, wait, soonest_of.get(key), done.get(key))
        for key, at, minutes, wait in chain
    )
    ordered = tuple(sorted(steps, key=lambda s: s.at))
    return DayPlan(ordered, mixed, balled, bulk, ball, late_min, max(finish, serve_at), spec)
