"""Ways to leaven by name, and what a search for a day is asked."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from brassclock.core.day.hands import Busy
from brassclock.core.day.places import Place
from brassclock.core.day.shared import Commitments
from brassclock.core.day.spec import BakeSpec, Cold, StageSpec

AFTERS_H = (0.25, 0.5, 1.0)


AS_PLANNED = "as planned"


@dataclass(frozen=True)
class Schedule:
    """A named way to leaven: what is chilled, for about how long and between which limits [h], what it costs the
    choice.

    Costs and flavour (0 to 1) are judgement.
    """

    key: str
    chill: str | None = None
    hours: float = 0.0
    low_h: float = 0.0
    high_h: float = 0.0
    cost: float = 0.0
    flavour: float = 0.2
    nights: int = 0


COURSES = {
    c.key: c
    for c in (
        Schedule("room"),
        Schedule("hybrid", "ball", 14.0, 6.0, 26.0, 0.25, 0.7, 1),
        Schedule("cold", "bulk", 14.0, 6.0, 26.0, 0.3, 0.7, 1),
        Schedule("hybrid, two nights", "ball", 38.0, 26.0, 60.0, 0.5, 1.0, 2),
        Schedule("cold, two nights", "bulk", 38.0, 26.0, 60.0, 0.55, 1.0, 2),
    )
}


COLD_GIVE, LEAST_GIVE_H = 0.15, 1.0  # judgement: how far a stay in the cold that is set gives way by itself [share; h]
DOSE_COST = 0.35  # judgement: of halving or doubling what the cook typed


@dataclass(frozen=True)
class PlanRequest:
    """A bake to be placed: when it is served, what is done, and what is pinned. All instants are aware."""

    spec: BakeSpec
    serve_at: dt.datetime
    now: dt.datetime
    done: Mapping[str, dt.datetime] = field(default_factory=dict)
    pins: Mapping[str, dt.datetime] = field(default_factory=dict)
    feed_h: tuple[float, float] | None = None  # hours before mixing at which a starter has to be fed: latest, earliest
    litres: float = 0.0  # of the shelf, while it is in the cold


@dataclass(frozen=True)
class KitchenResources:
    """Resources of a kitchen: air by the hour, places, hours in which hands are away, number of cooks, what other
    bakes have."""

    hourly_c: Sequence[float]
    places: Mapping[str, Place]
    busy: Sequence[Busy] = ()
    cooks: int = 1
    shared: Commitments = field(default_factory=Commitments)


@dataclass(frozen=True)
class Choice:
    """Options of a search: courses by key (or as planned), leaven over what is typed, and what any change costs
    beside that."""

    courses: tuple[str, ...] = (AS_PLANNED,)
    doses: tuple[float, ...] = (1.0,)
    change_cost: float = 0.0


def shaped(spec: BakeSpec, course: Schedule, places: Mapping[str, Place]) -> BakeSpec:
    """The spec with the course's cold and no other; air of its own stays out of a chilled stage."""

    def part(which: str) -> StageSpec:
        own: StageSpec = getattr(spec, which)
        if course.chill != which:
            return replace(own, cold=None)
        return replace(own, own_air=None, cold=Cold(AFTERS_H[1], course.hours, places["fridge"]))

    return replace(spec, bulk=part("bulk"), ball=part("ball"))


def own_course(spec: BakeSpec) -> Schedule:
    """The course a bake is set to: its own cold, about as long as that."""
    chill = "bulk" if spec.bulk.cold else "ball" if spec.ball.cold else None
    cold = spec.bulk.cold or spec.ball.cold
    if cold is None:
        return Schedule(AS_PLANNED)
    give_h = max(COLD_GIVE * cold.hours, LEAST_GIVE_H)
    return Schedule(AS_PLANNED, chill, cold.hours, max(cold.hours - give_h, 0.5), cold.hours + give_h)
