"""A bake as its day is planned: its stages with their places, the minutes of hand work, and the plan that results."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.day.kitchen_air import Relocation, with_log, with_spells
from brassclock.core.day.places import DEFAULTS, LONGEST_H, USUAL_H, Place
from brassclock.core.matter.dough import Portion
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.rise.windows import Aim
from brassclock.core.time import hours_between, later

LEAST_COLD_H = 0.25
OVERDONE_H = 0.1
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
class Told:
    """A stage that ends after a time the cook names: hours at the earliest, as planned and at the latest.

    Of a chilled stage they are the hours after it comes out of the cold. `last_h` is how long the dough bears it there
    at most [h]; None where the forecast says so.
    """

    low_h: float
    aim_h: float
    high_h: float
    last_h: float | None = None

    def aim(self, cold: Cold | None = None, too_far_h: float | None = None) -> Aim:
        """The stage's aim from its start, its cold included [h]. `too_far_h` is the forecast's, from its start."""
        before = cold.after_h + cold.hours if cold else 0.0
        last = too_far_h if self.last_h is None else before + self.last_h
        high = before + self.high_h
        return Aim(before + self.low_h, before + self.aim_h, high, high if last is None else last)


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
        """(into the cold, out of it): as planned from its start, or as it was done."""
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
    """Input of the backward plan. Minutes of hand work before, between and after its stages.

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
    told: tuple[Told | None, Told | None] = (None, None)  # of bulk and balls, where a time ends them and not a rise
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
    def rests(self) -> tuple[Aim, Aim] | None:
        """The aims of a dough whose stages are both ended by a time; None where one ends at a rise."""
        bulk, ball = self.told
        return None if bulk is None or ball is None else (bulk.aim(self.bulk.cold), ball.aim(self.ball.cold))

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
        """Instant at which its rise begins: with the sponge when there is one, else when it is mixed."""
        return later(self.mixed_at, -self.spec.before_h)

    @property
    def apart_h(self) -> tuple[float, float]:
        """Hours from mixed to rolled: (warm, in the cold)."""
        whole_h = hours_between(self.mixed_at, self.step("roll").at)
        cold = self.spec.bulk.cold or self.spec.ball.cold
        cold_h = min(cold.hours, whole_h) if cold else 0.0
        return whole_h - cold_h, cold_h

    @property
    def overdone_h(self) -> dict[str, float]:
        """Hours by which a stage that a time ends passes the point where the dough is too far: `bulk`, `ball`."""
        told_bulk, told_ball = self.spec.told
        found: dict[str, float] = {}
        if self.spec.rests:
            return found  # its gas is reckoned apart
        if told_bulk is not None:
            found["bulk"] = hours_between(self.mixed_at, self.balled_at) - self.bulk.too_far_h
        if told_ball is not None:
            found["ball"] = hours_between(self.balled_at, self.step("roll").at) - self.ball.too_far_h
        return {which: over for which, over in found.items() if over > OVERDONE_H}

    def step(self, key: str) -> DayStep:
        """The step of that key."""
        return next(s for s in self.steps if s.key == key)
