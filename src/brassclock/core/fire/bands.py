"""Bands of a bread's times: a small ensemble of bakes, each with contact, thickness, heat and water a little off.

Thirty-two bakes on a fixed low-discrepancy set, so that the same bread gives the same bands. The model's own error is
added to what the inputs spread; it is stated, not measured.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.draws import DRAWS
from brassclock.core.rise.belief import Z10, Band

Array = NDArray[np.float64]
COUNT = 32
MODEL_SD_LOG = Param(
    0.20,
    "-",
    0.1,
    0.35,
    Kind.FITTED,
    "of a time, beside what the inputs spread; set so that four of five stated times lie inside",
)


@dataclass(frozen=True)
class Spread:
    """One uncertain input: its words, and its standard deviation, relative (`log`) or in its own unit."""

    words: str
    sd: float
    log: bool = True


SPREADS = {  # judgement: how well a cook knows each; that of the surface hangs on what says how hot it is
    "contact": Spread("how well it lies on the surface", 0.20),
    "thickness": Spread("thickness", 0.10),
    "surface": Spread("how hot the surface is", 1.0, log=False),
    "water": Spread("water in the dough", 0.04),
    "browning": Spread("how fast this dough browns", 0.30),
    "swelling": Spread("how far it swells", 0.10),
}


@lru_cache(maxsize=1)
def draws() -> Array:
    """Standard normal draws [1], COUNT rows by one column for each of SPREADS."""
    return np.array(DRAWS)


def offsets(surface_sd_k: float) -> list[dict[str, float]]:
    """For each bake of the ensemble: a factor for each input, for the surface an addition [K]."""
    return [
        {k: math.exp(s.sd * z) if s.log else surface_sd_k * z for (k, s), z in zip(SPREADS.items(), row, strict=True)}
        for row in draws().tolist()
    ]


@dataclass(frozen=True)
class Bands:
    """p10, p50, p90 of every event, and the inputs by how much they move the one that matters, largest first."""

    events: dict[str, Band]
    matters: tuple[str, ...]


def bands(nominal: Mapping[str, float | None], runs: Sequence[Mapping[str, float | None]], about: str) -> Bands:
    """Bands [s] about the nominal times from the ensemble's. `about` is the event whose causes are ranked."""
    events = {name: _band(t, [r[name] for r in runs]) for name, t in nominal.items()}
    return Bands(events, _matters([r.get(about) for r in runs]))


def _band(middle: float | None, seen: list[float | None]) -> Band:
    """The nominal time with the spread of the ensemble and the model's own; `never` is the share in which it does not
    happen."""
    happened = [t for t in seen if t]
    never = 1 - len(happened) / len(seen)
    if middle is None or middle <= 0:
        return Band(None, None, None, max(never, 0.5) if middle is None else never)
    low = high = Z10 * MODEL_SD_LOG
    if len(happened) >= 4:
        logs = np.log(np.array(happened) / np.median(happened))
        low = math.hypot(low, float(np.quantile(logs, 0.1)))
        high = math.hypot(high, float(np.quantile(logs, 0.9)))
    return Band(middle * math.exp(-low), middle, middle * math.exp(high), never)


def _matters(seen: list[float | None]) -> tuple[str, ...]:
    """Inputs by their standardised effect on an event's time (least squares in logs), those that matter only."""
    times = {i: t for i, t in enumerate(seen) if t}
    if len(times) < 12:
        return tuple(s.words for s in SPREADS.values())
    z = draws()[list(times)]
    y = np.log(np.array(list(times.values())))
    effect = np.abs(np.linalg.lstsq(np.column_stack([z, np.ones(len(times))]), y, rcond=None)[0][:-1])
    order = np.argsort(-effect)
    words = [s.words for s in SPREADS.values()]
    return tuple(words[i] for i in order if effect[i] >= 0.15 * effect[order[0]])
