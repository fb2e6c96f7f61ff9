"""Heat and colour of a surface, believed together: how much hotter it is than it is set, and how fast bread browns on
it, on a grid of both, as the fold of what bakes showed.

A time of puff or bubbles tells of the heat, one of browning of both. A bake whose surface was measured (its own heat is
known to some kelvins, whatever it is set to) tells of the colour alone.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.probe import COLOUR_SD_LOG, DARK, EVENT_OF, NEVER_S, PALE, PRIOR_SD_C, SD_LOG

Array = NDArray[np.float64]
OFFSET_K = np.arange(-75.0, 76.0, 5.0)  # of the surface over its setting
BROWNING = np.linspace(-2.1, 2.1, 43)  # the logarithm of the browning rate over that of the table
TOLD_K = np.arange(-75.0, 76.0, 15.0)  # offsets at which a bake's model is run
TOLD_BROWNING = (-1.2, 0.0, 1.2)  # and browning rates; between them the logarithm of a time is as good as straight
BROWNING_SD = Param(
    0.70, "-", 0.4, 1.0, Kind.JUDGEMENT, "of the logarithm of the browning rate; of the time to brown that is 0.30"
)
LIGHT_SD_LOG = Param(0.22, "-", 0.15, 0.3, Kind.JUDGEMENT, "of the time to brown: model, eye and bread together")
BUBBLES_WEIGHT = Param(0.5, "-", 0.2, 1, Kind.JUDGEMENT, "of the bubbles beside the puff, which they come before")
FORGETS = Param(0.03, "-", 0.01, 0.1, Kind.JUDGEMENT, "of the prior, mixed in at each bake")
MOST_LESSONS = 120  # what is longer ago is forgotten to a fortieth
ODD_SDS, ODD_CHANCE = 3.0, 0.0027  # so far from what was expected a bake is set aside and asked
SPREADS = {
    "puffed": float(SD_LOG),
    "bubbles": float(SD_LOG) / math.sqrt(float(BUBBLES_WEIGHT)),
    "browned": float(LIGHT_SD_LOG),
}


@dataclass(frozen=True)
class Call:
    """Breads of a bake that were called `pale`, `right` or `dark`: how much the call counts, and the logarithm of their
    dose over the one that was wished at each of TOLD_K."""

    word: str
    weight: float
    ln_dose: tuple[float, ...]


@dataclass(frozen=True)
class Shown:
    """One bake on a surface: the logarithm of each time seen (`bubbles`, `puffed`, `browned`) over the one told at each
    of TOLD_BROWNING and TOLD_K, and the calls of its colour.

    `own_sd_k` [K] is the spread of a heat that was measured on its own; None for a surface at its setting.
    """

    times: Mapping[str, tuple[tuple[float, ...], ...]]
    calls: tuple[Call, ...] = ()
    own_sd_k: float | None = None


@dataclass(frozen=True)
class HeatLesson:
    """The evidence of one bake, its time, and whether it counts; `sure` has an odd one count."""

    shown: Shown
    at: str
    refused: bool = False
    sure: bool = False
    number: int = 0


@dataclass(frozen=True)
class HeatBelief:
    """Kelvins of a surface over its setting, and browning rate over the table's with the spread of its logarithm."""

    shift_k: float = 0.0
    sd_k: float = float(PRIOR_SD_C)
    browns: float = 1.0
    browns_sd: float = float(BROWNING_SD)


@dataclass(frozen=True)
class HeatFold:
    """The belief that lessons leave; before and after of each that counted, by its number; numbers of the odd ones."""

    belief: HeatBelief
    steps: dict[int, tuple[HeatBelief, HeatBelief]]
    odd: frozenset[int]


def shown_by(
    seen: Mapping[str, float],
    events: Callable[[float, float], Mapping[str, float | None]],
    calls: Sequence[tuple[str, float, Callable[[float], float]]] = (),
    own_sd_k: float | None = None,
) -> Shown:
    """The evidence of a bake. `seen` are times [s from contact] by the names of EVENT_OF; `events` gives a bread's
    events at (kelvins over the setting, browning rate over the table's); each call is its word, its weight, and the
    dose over the one wished at those kelvins."""
    told = {b: [events(float(k), math.exp(b)) for k in TOLD_K] for b in TOLD_BROWNING} if seen else {}
    times = {
        fact: tuple(
            tuple(math.log(max(seconds, 1.0) / (e[EVENT_OF[fact]] or NEVER_S)) for e in told[b]) for b in TOLD_BROWNING
        )
        for fact, seconds in seen.items()
    }
    doses = tuple(
        Call(word, weight, tuple(math.log(max(dose(float(k)), 1e-9)) for k in TOLD_K)) for word, weight, dose in calls
    )
    return Shown(times, doses, own_sd_k)


def together(parts: Sequence[Shown]) -> Shown:
    """The evidence of several breads of one bake for the same surface: each time by the first that showed it, every
    call.

    Raises ValueError when there is none.
    """
    first, *others = parts
    times = dict(first.times)
    for other in others:
        times = {**other.times, **times}
    return Shown(times, tuple(call for part in parts for call in part.calls), first.own_sd_k)


def as_stored(shown: Shown) -> dict[str, Any]:
    """The evidence of a bake, as JSON."""
    return {
        "times": {k: [[round(x, 4) for x in row] for row in rows] for k, rows in shown.times.items()},
        "calls": [[c.word, c.weight, [round(x, 4) for x in c.ln_dose]] for c in shown.calls],
        "own_sd_k": shown.own_sd_k,
    }


def of_stored(kept: Mapping[str, Any]) -> Shown:
    """The same of what was stored."""
    return Shown(
        {k: tuple(tuple(row) for row in rows) for k, rows in kept["times"].items()},
        tuple(Call(word, weight, tuple(doses)) for word, weight, doses in kept["calls"]),
        kept["own_sd_k"],
    )


def _misses(shown: Shown) -> dict[str, Array]:
    """The logarithm of each time over the told one on the whole grid."""
    return {fact: _whole(np.array(rows)) for fact, rows in shown.times.items()}


def _whole(rows: Array) -> Array:
    """Values at TOLD_BROWNING and TOLD_K on the whole grid: straight between, and beyond the rates that were run."""
    at_k = np.array([np.interp(OFFSET_K, TOLD_K, row) for row in rows])
    low, middle, high = at_k
    share = BROWNING[None, :] / TOLD_BROWNING[2]
    up, down = (high - middle)[:, None] * share, (low - middle)[:, None] * -share
    return np.asarray(middle[:, None] + np.where(BROWNING[None, :] >= 0, up, down))


def _log_likelihood(shown: Shown, misses: Mapping[str, Array]) -> Array:
    """Of what a bake showed, on the grid."""
    found = np.zeros((len(OFFSET_K), len(BROWNING)))
    for fact, off in misses.items():
        found -= 0.5 * (off / SPREADS[fact]) ** 2
    for c in shown.calls:
        found += c.weight * np.log(np.maximum(_chance(c), 1e-6))
    if shown.own_sd_k is None:
        return found
    own = _at_its_heat(shown.own_sd_k)
    top = found.max()
    of_colour = top + np.log(np.maximum((own * np.exp(found - top)).sum(0), 1e-300))
    return np.broadcast_to(of_colour[None, :], found.shape)


def _chance(call: Call) -> Array:
    """Chance that breads are called what they were called, on the grid."""
    from scipy.special import ndtr  # loaded when it is used: it would hold up the start

    pale, dark, sd = math.log(float(PALE)), math.log(float(DARK)), float(COLOUR_SD_LOG)
    dose = np.interp(OFFSET_K, TOLD_K, call.ln_dose)[:, None] + BROWNING[None, :]
    below, above = ndtr((pale - dose) / sd), ndtr((dose - dark) / sd)
    return np.asarray({"pale": below, "dark": above}.get(call.word, 1 - below - above))


def _normed(log_weight: Array) -> Array:
    weight = np.exp(log_weight - log_weight.max())
    return np.asarray(weight / weight.sum())


def _at_its_heat(sd_k: float) -> Array:
    """Weight of each offset of a surface whose heat was measured with this spread [K], as a column."""
    return _normed(-0.5 * (OFFSET_K / sd_k) ** 2)[:, None]


def _prior(sd_k: float) -> Array:
    of_k, of_browning = -0.5 * (OFFSET_K / sd_k) ** 2, -0.5 * (BROWNING / float(BROWNING_SD)) ** 2
    return np.asarray(of_k[:, None] + of_browning[None, :])


def _summary(log_weight: Array) -> HeatBelief:
    weight = _normed(log_weight)
    of_k, of_b = weight.sum(1), weight.sum(0)
    k, b = float(of_k @ OFFSET_K), float(of_b @ BROWNING)
    sd_k = math.sqrt(float(of_k @ (OFFSET_K - k) ** 2) + 25 / 12)
    return HeatBelief(k, sd_k, math.exp(b), math.sqrt(float(of_b @ (BROWNING - b) ** 2) + 0.01 / 12))


def _odd(log_weight: Array, shown: Shown, misses: Mapping[str, Array]) -> bool:
    """True if a time of a bake lies further from what was expected than ODD_SDS of its spread, or its colour was as
    unlikely as that to be called so."""
    weight = _normed(log_weight)
    if shown.own_sd_k is not None:
        weight = _at_its_heat(shown.own_sd_k) * weight.sum(0)[None, :]
    for fact, off in misses.items():
        middle = float((weight * off).sum())
        whole = float((weight * (off - middle) ** 2).sum()) + SPREADS[fact] ** 2
        if middle * middle > ODD_SDS * ODD_SDS * whole:
            return True
    return any(float((weight * _chance(c)).sum()) < ODD_CHANCE for c in shown.calls)


def fold_heat(lessons: Iterable[HeatLesson], prior_sd_k: float = float(PRIOR_SD_C)) -> HeatFold:
    """The belief of one surface that its lessons leave, taken in the order of their instants; of very many the newest.

    `prior_sd_k` [K] is the spread of what is known of its heat before any.
    """
    prior = _prior(prior_sd_k)
    weight, steps, odd = prior, {}, set()
    before = HeatBelief(sd_k=prior_sd_k)
    for lesson in sorted(lessons, key=lambda x: x.at)[-MOST_LESSONS:]:
        if lesson.refused:
            continue
        known = (1 - float(FORGETS)) * weight + float(FORGETS) * prior
        misses = _misses(lesson.shown)
        if not lesson.sure and _odd(known, lesson.shown, misses):
            odd.add(lesson.number)
            continue
        weight = known + _log_likelihood(lesson.shown, misses)
        after = _summary(weight)
        steps[lesson.number] = (before, after)
        before = after
    return HeatFold(before, steps, frozenset(odd))
