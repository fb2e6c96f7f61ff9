"""The first bread as a thermometer: its own bubble, first-brown and puff times say how hot the surface really is.

The puff model is run on a grid of surface temperatures; each time seen weighs the grid by how far it is off, in logs,
and the temperature believed before weighs it too. Contact and temperature cannot be told apart by these times, so only
the temperature is moved.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param

SD_LOG = Param(
    0.25,
    "-",
    0.15,
    0.4,
    Kind.JUDGEMENT,
    "of a time: model and reading together; in simulation the 80 % interval then holds about 89 %",
)
PRIOR_SD_C = Param(25.0, "C", 15, 40, Kind.JUDGEMENT, "a surface before its first bread")
COLOUR_SD_LOG = Param(
    0.5, "-", 0.3, 0.8, Kind.JUDGEMENT, "of a dose as the eye calls it: dough, place and eye together"
)
PALE = Param(0.7, "-", 0.4, 0.9, Kind.JUDGEMENT, "of the dose that was wished: what is called too pale lies below")
DARK = Param(2.0, "-", 1.4, 3, Kind.JUDGEMENT, "of the dose that was wished: what is called too dark lies above")
REACH_C, STEP_C = 75.0, 5.0
EVENT_OF = {"bubbles": "bubbles", "browned": "light_bottom", "puffed": "puff"}
NEVER_S = 600.0  # an event the model never reaches counts as this late


@dataclass(frozen=True)
class Probe:
    """Belief of a surface's temperature: mean [C], its standard deviation [K], and its setting."""

    temp_c: float
    sd_c: float
    was_c: float


@dataclass(frozen=True)
class ColourSeen:
    """A bread that came off `pale` or `dark`: the dose of its face over the dose that was wished, at a temperature."""

    word: str
    dose_ratio: Callable[[float], float]


def invert(
    seen: Mapping[str, float],
    was_c: float,
    bake: Callable[[float], Mapping[str, float | None]],
    sd_k: float = PRIOR_SD_C,
    colours: Sequence[ColourSeen] = (),
) -> Probe:
    """The surface's temperature from facts [s from contact] by the names of EVENT_OF, and from colours; `bake` gives a
    bread's events at one.

    Without facts or colours nothing moves.
    """
    if not seen and not colours:
        return Probe(was_c, sd_k, was_c)
    grid = was_c + np.arange(-REACH_C, REACH_C + 1, STEP_C)
    chi2 = ((grid - was_c) / sd_k) ** 2
    for i, temp_c in enumerate(grid):
        events = bake(float(temp_c)) if seen else {}
        for fact, seconds in seen.items():
            told = events[EVENT_OF[fact]] or NEVER_S
            chi2[i] += (math.log(told / max(seconds, 1.0)) / SD_LOG) ** 2
        chi2[i] += sum(_off_colour(c, float(temp_c)) for c in colours)
    weight = np.exp(-0.5 * (chi2 - chi2.min()))
    weight /= weight.sum()
    mean = float(weight @ grid)
    return Probe(mean, float(np.sqrt(weight @ (grid - mean) ** 2 + STEP_C**2 / 12)), was_c)


def _off_colour(seen: ColourSeen, temp_c: float) -> float:
    """−2 ln of the chance that a bread baked at a temperature is called what it was called."""
    at = math.log(max(seen.dose_ratio(temp_c), 1e-9))
    far = (math.log(PALE) - at) if seen.word == "pale" else (at - math.log(DARK))
    return -2 * math.log(max(0.5 * math.erfc(-far / COLOUR_SD_LOG / math.sqrt(2)), 1e-12))
