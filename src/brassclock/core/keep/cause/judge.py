"""Causes of the faults that were seen, ranked; how sure that is; and the one change for next time.

Weight of a cause: its prior times the gain of setting its fact right, for every fault seen; unknown facts stay neutral.
"""

from __future__ import annotations

import math
from collections.abc import Collection, Sequence
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.cause.chance import chance, cured
from brassclock.core.keep.cause.facts import Facts
from brassclock.core.keep.cause.tables import CAUSES, FAULTS, OTHER, PRIORS
from brassclock.core.terms import CauseVerdict, Fault

KNOWN_LEAST = Param(0.04, "-", 0.02, 0.1, Kind.JUDGEMENT, "weight of a known fact that gains nothing")
KNOWN_MOST = Param(12.0, "-", 8, 18, Kind.JUDGEMENT, "weight of a known fact that explains all")
HALF_GAIN = Param(0.15, "-", 0.1, 0.25, Kind.JUDGEMENT, "gain at which half of that is given")
NO_ROW = Param(0.02, "-", 0.01, 0.05, Kind.JUDGEMENT, "weight of a cause that a fault does not know")
UNKNOWN_FROM, TOP_LEAST, LIKELY_FROM, OTHER_FROM = 0.5, 0.35, 0.60, 0.5
MOST_CAUSES, LEAST_SHARE, OF_FIRST = 3, 0.10, 0.25
NEW_FAULT = 0.1  # a cure may raise no other fault by so much


@dataclass(frozen=True)
class Ranked:
    """A cause: its share, its fact with the value it had and the one that is right, whether the fact was known, what
    setting it right gains, the change in words, and the faults that it is a cause of."""

    cause: str
    share: float
    fact: str
    value: object
    good: object
    known: bool
    gain: float
    name: str
    change: str
    faults: tuple[Fault, ...]


@dataclass(frozen=True)
class Judged:
    """Verdict on faults: at most three causes, the share of what nobody logged, the one change (None where none is
    safe), and the fact to note next time where too little is known."""

    verdict: CauseVerdict
    causes: tuple[Ranked, ...]
    other_share: float
    change: Ranked | None
    ask: str | None


def judge(faults: Sequence[Fault], x: Facts, known: Collection[str], denied: Sequence[Fault] = ()) -> Judged:
    """The causes of faults that were seen together, of the facts of which these names are known, where others are
    denied. Raises InvalidInput for no fault, for one that is none, or for one that is seen and denied."""
    _check(faults, denied)
    found, other = _rank(faults, x, known, denied)
    top = found[0]
    unseen = [f for f in faults if top.cause not in PRIORS[f]]
    shown = [r for r in found if r.share >= max(LEAST_SHARE, OF_FIRST * top.share)][:MOST_CAUSES]
    if unseen and len(unseen) < len(faults):  # what the first cause cannot explain is judged by itself
        second = _rank(unseen, x, known, denied)[0][0]
        shown = [top, second, *(r for r in shown[1:] if r.cause != second.cause)][:MOST_CAUSES]
    verdict = _verdict(found)
    ask = None
    if verdict == "not_enough_known":
        ask = next((r.fact for r in found if not r.known), None)
    change = None if verdict == "not_enough_known" else _change(shown, faults, x)
    return Judged(verdict, tuple(shown), other, change, ask)


def ranked(faults: Sequence[Fault], x: Facts, known: Collection[str]) -> list[Ranked]:
    """Every cause of faults that were seen together by its share, the largest first."""
    return _rank(faults, x, known, ())[0]


def _check(faults: Sequence[Fault], denied: Sequence[Fault]) -> None:
    if not faults:
        raise invalid("/faults", "No fault is named. Name what was wrong, as flat or pale.")
    for at, names in (("/faults", faults), ("/denied", denied)):
        for i, fault in enumerate(names):
            if fault not in FAULTS:
                raise invalid(f"{at}/{i}", f"“{fault}” is no fault here. Use one of {', '.join(FAULTS)}.")
    both = [f for f in faults if f in denied]
    if both:
        raise invalid("/denied", f"{both[0]} is seen and denied. Leave it in one list.")


def _rank(
    faults: Sequence[Fault], x: Facts, known: Collection[str], denied: Sequence[Fault]
) -> tuple[list[Ranked], float]:
    """(causes by their share, the share of what nobody logged)."""
    found = []
    for cause in dict.fromkeys(c for f in faults for c in PRIORS[f]):
        is_known = CAUSES[cause].fact in known
        gains = [gain(f, cause, x) if is_known and cause in PRIORS[f] else 0.0 for f in faults]
        weight = 1.0
        for fault, gained in zip(faults, gains, strict=True):
            prior = PRIORS[fault].get(cause)
            weight *= NO_ROW if prior is None else prior * (_evidence(gained) if is_known else 1.0)
        for fault in denied:
            if is_known and cause in PRIORS[fault]:
                weight *= 1 - gain(fault, cause, x)
        found.append((weight, cause, is_known, max(gains)))
    other = OTHER ** len(faults)
    whole = sum(w for w, *_ in found) + other
    ranked = [_ranked(cause, weight / whole, is_known, gained, x, faults) for weight, cause, is_known, gained in found]
    return sorted(ranked, key=lambda r: -r.share), other / whole


def gain(fault: Fault, cause: str, x: Facts) -> float:
    """By how much a fault gets less likely when one fact is set right; 0 where that does not help."""
    return max(0.0, chance(fault, x) - chance(fault, cured(cause, x)))


def _evidence(gained: float) -> float:
    return KNOWN_LEAST + KNOWN_MOST * gained / (gained + HALF_GAIN)


def _ranked(cause: str, share: float, is_known: bool, gained: float, x: Facts, faults: Sequence[Fault]) -> Ranked:
    row = CAUSES[cause]
    value = x.hot_c if row.fact == "surface_c" else getattr(x, row.fact)
    then = cured(cause, x)
    good = then.hot_c if row.fact == "surface_c" else getattr(then, row.fact)
    explains = tuple(f for f in faults if cause in PRIORS[f])
    return Ranked(cause, share, row.fact, value, good, is_known, gained, row.name, row.change, explains)


def _verdict(found: Sequence[Ranked]) -> CauseVerdict:
    top = found[0]
    if math.fsum(r.share for r in found if not r.known) >= UNKNOWN_FROM or top.share < TOP_LEAST:
        return "not_enough_known"
    return "likely" if top.share >= LIKELY_FROM and top.known else "perhaps"


def _change(shown: Sequence[Ranked], faults: Sequence[Fault], x: Facts) -> Ranked | None:
    """The first cause that is known and whose cure brings no other fault."""
    others = [f for f in FAULTS if f not in faults]
    for r in shown:
        if not r.known or r.gain <= 0:
            continue
        then = cured(r.cause, x)
        if all(chance(f, then) <= chance(f, x) + NEW_FAULT for f in others):
            return r
    return None
