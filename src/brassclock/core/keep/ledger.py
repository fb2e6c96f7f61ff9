"""Beliefs as folds of a ledger of lessons: any lesson, not only the last, may be refused and restored.

Scalars in the logarithm of a ratio to the table. Between two lessons a belief forgets a little, never past its prior.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param

ODD_SDS = 3.0  # so far from what was expected a lesson is set aside and asked
_J = Kind.JUDGEMENT
PRIOR_SD = {  # of the logarithm, by the kind of a key
    "activity": Param(0.50, "-", 0.35, 0.7, _J, "a kitchen's leaven beside the table"),
    "friction": Param(0.35, "-", 0.2, 0.5, _J, "how much a way of kneading warms the dough"),
    "thirst": Param(0.02, "-", 0.01, 0.04, _J, "water that a bag of flour takes over the table"),
    "vitality": Param(0.30, "-", 0.2, 0.45, _J, "a starter beside the table"),
    "pace": Param(0.25, "-", 0.15, 0.4, _J, "a cook's seconds for a move beside the usual"),
}
DRIFT_SD = {"activity": 0.03, "friction": 0.02, "thirst": 0.0, "vitality": 0.06, "pace": 0.03}  # judgement: per bake


@dataclass(frozen=True)
class Lesson:
    """One thing seen: its key (`kind` or `kind:which`), the ratio seen, its spread in the logarithm, when.

    A refused one teaches nothing; a `sure` one counts however odd it is. `number` is the keeper's own of it.
    """

    key: str
    seen: float
    spread: float
    at: str
    refused: bool = False
    sure: bool = False
    number: int = 0


@dataclass(frozen=True)
class Ratio:
    """A belief of a ratio: its middle, and its spread in the logarithm."""

    mean: float
    sd: float


@dataclass(frozen=True)
class Taught:
    """One lesson that moved a belief: before and after."""

    lesson: Lesson
    before: Ratio
    after: Ratio


@dataclass(frozen=True)
class Fold:
    """Beliefs by key, every lesson that moved one, and those set aside as odd."""

    beliefs: dict[str, Ratio]
    taught: tuple[Taught, ...]
    odd: tuple[Lesson, ...]


STARTS = {kind: Ratio(1.0, float(sd)) for kind, sd in PRIOR_SD.items()}


def kind_of(key: str) -> str:
    """The kind of a key: what stands before its colon."""
    return key.partition(":")[0]


def fold(lessons: Iterable[Lesson], priors: Mapping[str, Ratio] | None = None) -> Fold:
    """The beliefs that lessons leave, taken in the order of their instants. Raises InvalidInput for a key of no known
    kind, or a ratio or spread that is none.

    >>> found = fold([Lesson("activity:yeast_instant", 1.5, 0.22, "2026-11-29")])
    >>> round(found.beliefs["activity:yeast_instant"].mean, 2)
    1.4
    """
    priors, taught, odd = priors or {}, [], []
    given = list(lessons)
    for i, x in enumerate(given):
        if kind_of(x.key) not in PRIOR_SD:
            raise invalid(f"/lessons/{i}/key", f"“{x.key[:40]}” is nothing learned here. Use {', '.join(PRIOR_SD)}.")
        if not (math.isfinite(x.seen) and x.seen > 0 and math.isfinite(x.spread) and x.spread > 0):
            raise invalid(f"/lessons/{i}/seen", f"{x.seen:g} spread by {x.spread:g} is no ratio. Give 1.2 and .2, say.")
    beliefs: dict[str, Ratio] = {}
    for lesson in sorted(given, key=lambda x: x.at):
        if lesson.refused:
            continue
        key = lesson.key
        known = beliefs.get(key)
        start = priors[key] if key in priors else STARTS[kind_of(key)]
        before, forgets = (start, 0.0) if known is None else (known, DRIFT_SD[kind_of(key)])
        v = min(start.sd * start.sd, before.sd * before.sd + forgets * forgets)
        whole = v + lesson.spread * lesson.spread
        off = math.log(lesson.seen / before.mean)
        if not lesson.sure and off * off > ODD_SDS * ODD_SDS * whole:
            odd.append(lesson)
            continue
        gain = v / whole
        after = Ratio(before.mean * math.exp(gain * off), math.sqrt(v * (1 - gain)))
        beliefs[key] = after
        taught.append(Taught(lesson, before, after))
    return Fold(beliefs, tuple(taught), tuple(odd))
