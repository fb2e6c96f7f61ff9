"""The first bread as a thermometer: its own bubble, first-brown and puff times say how hot the surface really is.

The puff model is run on a grid of surface temperatures; each time seen weighs the grid by how far it is off, in logs, and the temperature believed
before weighs it too. Contact and temperature cannot be told apart by these times, so only the temperature is moved.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np

SD_LOG = 0.25  # of a time: model and reading together; in simulation the 80 % interval then holds about 89 %
PRIOR_SD_C = 25.0
REACH_C, STEP_C = 75.0, 5.0
EVENT_OF = {"bubbles": "bubbles", "browned": "light_bottom", "puffed": "puff"}
NEVER_S = 600.0  # an event the model never reaches counts as this late


@dataclass(frozen=True)
class Probe:
    """What the surface is believed to be at [C], its standard deviation, and what it was set to."""

    temp_c: float
    sd_c: float
    was_c: float


def invert(seen: Mapping[str, float], was_c: float, bake: Callable[[float], Mapping[str, float | None]]) -> Probe:
    """The surface's temperature from facts [s from contact] by the names of EVENT_OF; `bake` gives a bread's events at a temperature.

    Without facts nothing moves.
    """
    if not seen:
        return Probe(was_c, PRIOR_SD_C, was_c)
    grid = was_c + np.arange(-REACH_C, REACH_C + 1, STEP_C)
    chi2 = ((grid - was_c) / PRIOR_SD_C) ** 2
    for i, temp_c in enumerate(grid):
        events = bake(float(temp_c))
        for fact, seconds in seen.items():
            told = events[EVENT_OF[fact]] or NEVER_S
            chi2[i] += (math.log(told / max(seconds, 1.0)) / SD_LOG) ** 2
    weight = np.exp(-0.5 * (chi2 - chi2.min()))
    weight /= weight.sum()
    mean = float(weight @ grid)
    return Probe(mean, float(np.sqrt(weight @ (grid - mean) ** 2 + STEP_C**2 / 12)), was_c)
