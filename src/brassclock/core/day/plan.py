"""The plan of one bake, backward from its serving time, around what is already done.

The serving time fixes the line, the line the roll and the preheat, the roll the ball proof, that the bulk, that the
mixing. Stage lengths come from the rise model along the kitchen's hourly air, solved by fixed-point iteration.
A step that is done keeps its instant; only what lies ahead moves.
"""

from __future__ import annotations

import datetime as dt
import math
from collections.abc import Callable, Mapping, Sequence
from typing import NamedTuple

from brassclock.core.day.spec import LEAST_COLD_H, WORDS, BakeSpec, DayPlan, DayStep, kind_of
from brassclock.core.rise.windows import Aim, aims
from brassclock.core.time import hours_between, later

SOLVE_ROUNDS = 6
COLD_ROUNDS = 3
SETTLED_H = 1 / 60
NEAR_ENOUGH_H = 2 / 60  # for a plan near a known one
FIRST_GUESS_H = 3.0  # from the mixing to the roll
ONCE_MIN = 1.0  # hands for a preheat that nobody tends
SPONGE_MIN = 6.0
CARRY_MIN = 3.0  # hands to put a dough into the cold, or to take it out
PREHEAT_WAITS_H = 10 / 60


def held_pins(
    pins: Mapping[str, dt.datetime], now: dt.datetime, done: Mapping[str, dt.datetime]
) -> dict[str, dt.datetime]:
    """The pins that still bind: ahead of now, not done, and no mixing after a balling that is held before it."""
    ahead = {k: v for k, v in pins.items() if v > now and k not in done}
    if "ball" in ahead and "mix" not in ahead and "mix" not in done:
        del ahead["ball"]  # its mixing slipped: where the balls belong is open again
    return ahead


class _Stages(NamedTuple):
    """A spec (its cold set), and where its bulk and its balls aim."""

    spec: BakeSpec
    bulk: Aim
    ball: Aim


class _Chain(NamedTuple):
    """The instants that bound the stages, and how long the hands may put the mixing off [h]."""

    mix_at: dt.datetime
    mixed: dt.datetime
    balled: dt.datetime
    roll_at: dt.datetime
    line_at: dt.datetime
    finish: dt.datetime
    slack_h: float


Move = tuple[str, dt.datetime, float, dt.datetime | None]  # key, instant, minutes of hands, latest instant


def _mixing(
    solve: Callable[[dt.datetime], tuple[Aim, Aim]], roll_at: dt.datetime, first: dt.datetime, settled_h: float
) -> tuple[dt.datetime, Aim, Aim]:
    """Latest mixing such that the balls are where they should be at `roll_at`, and what follows from it.

    A kitchen that cools at night makes the answer jump; of what was tried, the latest mixing that is in time is taken.
    """
    mixed, step_h = first, math.inf
    tried: list[tuple[float, dt.datetime, Aim, Aim]] = []
    for _ in range(SOLVE_ROUNDS):
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


def _after_hands(aim: Aim, hands_h: float) -> Aim:
    """The aim of a stage that cannot end before the hands that begin it are free."""
    ready, at = max(aim.ready_h, hands_h), max(aim.aim_h, hands_h)
    return Aim(ready, at, max(aim.best_to_h, at), aim.too_far_h)


class _Planner:
    """One plan in the making: what is held, and the bulk's last solved length [h], from which its balls are placed."""

    def __init__(
        self,
        spec: BakeSpec,
        hourly_c: Sequence[float],
        serve_at: dt.datetime,
        now: dt.datetime,
        done: Mapping[str, dt.datetime],
        pins: Mapping[str, dt.datetime],
        initial_guess: tuple[dt.datetime, float] | None,
    ) -> None:
        self.spec, self.hourly_c, self.serve_at, self.now, self.done, self.initial_guess = (
            spec,
            hourly_c,
            serve_at,
            now,
            done,
            initial_guess,
        )
        self.held = {**held_pins(pins, now, done), **done}
        self.bulk_before = initial_guess[1] if initial_guess else None

    def shift(self, moment: dt.datetime, hours: float) -> dt.datetime:
        """The instant so many hours later, in the zone of the serving time."""
        return later(moment.astimezone(self.serve_at.tzinfo), hours)

    def solve(self, spec: BakeSpec, mixed: dt.datetime, balled: dt.datetime | None) -> tuple[Aim, Aim]:
        """Aims of bulk and balls when the dough is mixed, and (if known) balled, at those instants."""
        if spec.rests:
            return spec.rests[0], _after_hands(spec.rests[1], spec.ball_min / 60)
        told_bulk, told_ball = spec.told
        bulk_h = hours_between(mixed, balled) if balled else None
        if bulk_h is None and told_bulk is not None:
            bulk_h = told_bulk.aim(spec.bulk.cold).aim_h
        first = (spec.before_h,) if spec.sponge else ()
        guess = balled or self.shift(mixed, self.bulk_before or spec.bulk.stage.hours)
        for _ in range(2 if balled is None and self.bulk_before is None else 1):
            stages = spec.stages(self.hourly_c, mixed, guess, self.held)
            found = aims(spec.batch, stages, fixed_h=(*first, bulk_h, None), activity=spec.activity)
            bulk, ball = found[-2:]
            if told_bulk is not None:
                bulk = told_bulk.aim(spec.bulk.cold, bulk.too_far_h)
            if told_ball is not None:
                ball = told_ball.aim(spec.ball.cold, ball.too_far_h)
            guess = balled or self.shift(mixed, bulk.aim_h)
            self.bulk_before = bulk.aim_h
        return bulk, _after_hands(ball, spec.ball_min / 60)

    def solve_cold(
        self, spec: BakeSpec, roll_at: dt.datetime, mixed: dt.datetime, balled: dt.datetime | None
    ) -> _Stages:
        """As `solve`; the cold of a dough already made is as long as `roll_at` leaves it, unless it has come out."""
        bulk, ball = self.solve(spec, mixed, balled)
        which = "bulk" if spec.bulk.cold else "ball" if spec.ball.cold else None
        if which is None or "cold_out" in self.held:
            return _Stages(spec, bulk, ball)
        for _ in range(COLD_ROUNDS):
            ends = self.shift(balled or self.shift(mixed, bulk.aim_h), ball.aim_h)
            over_h = hours_between(roll_at, ends)
            cold = getattr(spec, which).cold
            if abs(over_h) < SETTLED_H or cold.hours - over_h < LEAST_COLD_H:
                break
            spec = spec.with_cold_hours(which, cold.hours - over_h)
            bulk, ball = self.solve(spec, mixed, balled)
        stood_h = hours_between(self.done["cold_in"], self.now) if "cold_in" in self.done else 0.0
        if getattr(spec, which).cold.hours < stood_h:  # nobody has taken it out: it stands there still
            spec = spec.with_cold_hours(which, stood_h)
            bulk, ball = self.solve(spec, mixed, balled)
        return _Stages(spec, bulk, ball)

    def mixing(self, roll_at: dt.datetime) -> tuple[dt.datetime, _Stages]:
        """Instant of mixing (as held, or as late as `roll_at` allows, or as soon as hands can), and its stages."""
        mixed = self.held.get("mix")
        if mixed is not None:
            return mixed, self.solve_cold(self.spec, roll_at, mixed, self.held.get("ball"))
        guess = self.initial_guess[0] if self.initial_guess else self.shift(roll_at, -FIRST_GUESS_H)
        settled_h = NEAR_ENOUGH_H if self.initial_guess else SETTLED_H
        mixed, bulk, ball = _mixing(lambda at: self.solve(self.spec, at, None), roll_at, guess, settled_h)
        soonest = self.shift(self.now, self.spec.mix_min / 60 + self.spec.before_h)
        if soonest > mixed:
            return soonest, self.solve_cold(self.spec, roll_at, soonest, None)
        return mixed, _Stages(self.spec, bulk, ball)

    def balling(self, roll_at: dt.datetime, mixed: dt.datetime, stages: _Stages) -> tuple[dt.datetime, _Stages]:
        """Instant of balling: as held, else as the roll wants it within the bulk's window."""
        balled = self.held.get("ball")
        if balled is not None:
            return balled, stages
        bulk = stages.bulk
        low, high = self.shift(mixed, bulk.ready_h), self.shift(mixed, max(bulk.best_to_h, bulk.ready_h))
        balled = min(max(self.shift(roll_at, -stages.ball.aim_h), low), high)
        if "mix" in self.done:
            balled = max(balled, min(self.now, self.shift(mixed, bulk.too_far_h)))
        return balled, self.solve_cold(stages.spec, roll_at, mixed, balled)

    def chain(self) -> tuple[_Chain, _Stages]:
        """Every bounding instant, forward from the mixing that the serving time asks for."""
        spec, done, shift = self.spec, self.done, self.shift
        roll_at = shift(self.serve_at, -(spec.line_min + spec.roll_min) / 60)
        mixed, stages = self.mixing(roll_at)
        balled, stages = self.balling(roll_at, mixed, stages)
        bulk, ball = stages.bulk, stages.ball
        rolled = done.get("roll")
        roll_at = rolled or max(roll_at, shift(balled, ball.ready_h))
        if "line" not in done and rolled is None:
            roll_at = max(roll_at, self.now)
        line_at = done.get("line") or max(shift(roll_at, spec.roll_min / 60), self.now)
        finish = shift(line_at, spec.line_min / 60)
        slack_h = (bulk.aim_h - bulk.ready_h) + (ball.aim_h - ball.ready_h)
        return _Chain(shift(mixed, -spec.mix_min / 60), mixed, balled, roll_at, line_at, finish, slack_h), stages

    def moves(self, chain: _Chain, stages: _Stages) -> list[Move]:
        """The moves from the weighing to the table."""
        spec, bulk, ball = stages
        shift, mix_at, roll_at = self.shift, chain.mix_at, chain.roll_at
        preheat_at = min(self.held.get("preheat", chain.line_at), shift(chain.line_at, -spec.preheat_min / 60))
        busy = ((roll_at, spec.roll_min), (chain.balled, spec.ball_min), (mix_at, spec.mix_min))
        for start, minutes in busy if not spec.preheat_tended and "preheat" not in self.held else ():
            if shift(start, -ONCE_MIN / 60) < preheat_at < shift(start, minutes / 60):
                preheat_at = shift(start, -ONCE_MIN / 60)  # the same hands are at the dough then
        last_ball = min(shift(chain.mixed, bulk.too_far_h), shift(roll_at, -ball.ready_h))
        gap_h = spec.service_min / spec.waves / 60
        last_roll = max(shift(chain.balled, max(ball.too_far_h - gap_h, ball.ready_h)), roll_at)
        begun = shift(mix_at, -spec.before_h)
        weigh_at = shift(begun, -spec.weigh_min / 60)
        table = shift(max(chain.finish, self.serve_at), -spec.service_min / 60)
        found: list[Move] = [
            ("weigh", weigh_at, spec.weigh_min, shift(weigh_at, chain.slack_h)),
            ("mix", mix_at, spec.mix_min, shift(mix_at, chain.slack_h)),
            ("ball", chain.balled, spec.ball_min, max(last_ball, chain.balled)),
            (
                "preheat",
                preheat_at,
                spec.preheat_min if spec.preheat_tended else ONCE_MIN,
                shift(preheat_at, PREHEAT_WAITS_H),
            ),
            ("roll", roll_at, spec.roll_min, last_roll),
            ("line", chain.line_at, spec.line_min, shift(last_roll, spec.roll_min / 60)),
            ("serve", table, 0.0, None),
        ]
        if spec.sponge:
            found.append(("sponge", begun, SPONGE_MIN, shift(begun, chain.slack_h)))
        return found

    def carries(self, chain: _Chain, spec: BakeSpec) -> list[Move]:
        """The moves into the cold and out of it, and the later trays of a long service."""
        found: list[Move] = []
        for part, begins, ends in ((spec.bulk, chain.mixed, chain.balled), (spec.ball, chain.balled, chain.roll_at)):
            span = part.cold_span(begins, self.held)
            if span is None:
                continue
            out = span[1]
            if "cold_out" not in self.held:  # what follows at once needs the same hands
                out = max(min(out, self.shift(ends, -CARRY_MIN / 60)), span[0])
            latest = max(out, min(ends, self.shift(ends, -1.0)))
            found += [("cold_in", span[0], CARRY_MIN, None), ("cold_out", out, CARRY_MIN, latest)]
            if part is spec.ball:
                gap_h = spec.service_min / spec.waves / 60
                trays = range(1, spec.waves)
                found += [(f"wave{i + 1}", self.shift(span[1], i * gap_h), CARRY_MIN, None) for i in trays]
        return found

    def plan(self) -> DayPlan:
        """The whole plan."""
        chain, stages = self.chain()
        spec, bulk, ball = stages
        shift = self.shift
        early_h = max(bulk.best_to_h - bulk.aim_h, 0.0) + max(ball.best_to_h - ball.aim_h, 0.0)
        soonest = {
            "mix": shift(chain.mix_at, -early_h),
            "ball": shift(chain.mixed, bulk.ready_h),
            "roll": shift(chain.balled, ball.ready_h),
        }
        steps = [
            DayStep(
                key, WORDS[kind_of(key)], self.done.get(key, at), minutes, wait, soonest.get(key), self.done.get(key)
            )
            for key, at, minutes, wait in (*self.moves(chain, stages), *self.carries(chain, spec))
        ]
        ordered = tuple(sorted(steps, key=lambda s: s.at))
        late_min = max(0.0, hours_between(self.serve_at, chain.finish) * 60)
        serve_at = max(chain.finish, self.serve_at)
        return DayPlan(ordered, chain.mixed, chain.balled, bulk, ball, late_min, serve_at, spec)


def plan_back(
    spec: BakeSpec,
    hourly_c: Sequence[float],
    serve_at: dt.datetime,
    now: dt.datetime,
    done: Mapping[str, dt.datetime],
    initial_guess: tuple[dt.datetime, float] | None = None,
    pins: Mapping[str, dt.datetime] | None = None,
) -> DayPlan:
    """Plan a bake to be served at `serve_at`. `done` maps step keys to the instants they ended. All instants are aware.

    `pins` maps step keys to instants ahead that are to hold; one that is past, or that the dough overtook, is dropped.
    `initial_guess` is (instant of mixing, hours of bulk) of a similar plan, if one is known. `mix` done means that the
    dough was made then; `ball` done, that it was balled.
    """
    return _Planner(spec, hourly_c, serve_at, now, done, pins or {}, initial_guess).plan()
