"""Belief of the temperatures, and its update by a thermometer in the dough.

Three offsets are open: the dough after mixing, the room, the shelf of the fridge, each normal around zero. A reading
of the dough's own temperature moves all three by their slopes (linear, Gaussian); what stays open widens the windows.
Spreads are judgement; coverage by simulation stands in docs/science.md, *Belief*.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise.belief import Reading
from brassclock.core.rise.dough_heat import COLD_PLACE_C
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage, run_stages

Array = NDArray[np.float64]
SPREAD_C_FROM = "a plan's own guess against the evening's truth"
SPREAD_C = {
    "mix": Param(1.0, "C", 0.5, 2, Kind.JUDGEMENT, SPREAD_C_FROM),
    "room": Param(1.2, "C", 0.6, 2.4, Kind.JUDGEMENT, SPREAD_C_FROM),
    "shelf": Param(1.0, "C", 0.5, 2, Kind.JUDGEMENT, SPREAD_C_FROM),
}
THERMOMETER_C = Param(0.5, "C", 0.2, 1, Kind.PRACTICE, "a kitchen thermometer")
NUDGE_C = 1.0
ACTED_H = Param(0.5, "h", 0.2, 1, Kind.JUDGEMENT, "a shorter stay leaves no mark that an eye could see")


@dataclass(frozen=True)
class Warmth:
    """Offsets believed of mix, room and shelf: their means [C] and their covariance [C²]."""

    mean: Array
    cov: Array

    def moved(self, name: str, by: float) -> Warmth:
        """The same with one offset moved [C]."""
        mean = self.mean.copy()
        mean[list(SPREAD_C).index(name)] += by
        return Warmth(mean, self.cov)

    def spread_c(self, name: str) -> float:
        """Standard deviation of one offset [C]."""
        at = list(SPREAD_C).index(name)
        return float(np.sqrt(self.cov[at, at]))

    def applied(self, batch: Batch, stages: Sequence[Stage]) -> tuple[Batch, list[Stage]]:
        """The dough and its stages as believed."""
        if not self.mean.any():
            return batch, list(stages)
        mix, room, shelf = (float(x) for x in self.mean)
        return replace(batch, mix_temp_c=batch.mix_temp_c + mix), [_warmer(s, room, shelf) for s in stages]


def _warmer(stage: Stage, room: float, shelf: float) -> Stage:
    """Each point of the air moved by the offset of its place."""
    return replace(stage, path=tuple((h, c + (shelf if c < COLD_PLACE_C else room)) for h, c in stage.path))


def prior() -> Warmth:
    """Before any thermometer."""
    sd = np.array(list(SPREAD_C.values()))
    return Warmth(np.zeros(len(sd)), np.diag(sd**2))


def shifted(batch: Batch, stages: Sequence[Stage], name: str, by: float) -> tuple[Batch, list[Stage]]:
    """The dough and its stages with one offset (a key of SPREAD_C) moved [C]."""
    return prior().moved(name, by).applied(batch, stages)


def open_offsets(stages: Sequence[Stage]) -> list[str]:
    """Names of the offsets that matter to these stages."""
    colds = [c < COLD_PLACE_C for s in stages for _, c in s.path]
    return ["mix"] + ["room"] * (not all(colds)) + ["shelf"] * any(colds)


def offsets_until(stages: Sequence[Stage], h: float) -> set[str]:
    """Names of the offsets that have acted on the dough by an hour: its mixing, and every place it stood in for a
    while."""
    found, begin = {"mix"}, 0.0
    for stage in stages:
        hours = np.arange(0.0, min(stage.hours, h - begin), ACTED_H)[1:]
        for c in stage.air_c(hours):
            found.add("shelf" if c < COLD_PLACE_C else "room")
        begin += stage.hours
    return found


def learned(batch: Batch, stages: Sequence[Stage], readings: Sequence[Reading], activity: float) -> Warmth:
    """Offsets as updated by readings of the dough's temperature (kind `dough_c`)."""
    believed = prior()
    seen = [r for r in readings if r.kind == "dough_c" and r.temp_c is not None]
    if not seen:
        return believed
    hours = np.array([r.h for r in seen])
    lengths = [s.hours for s in stages]

    def told(warmth: Warmth) -> Array:
        dough, moved = warmth.applied(batch, stages)
        course = run_stages(dough, moved, lengths, activity).course
        return np.asarray(np.interp(hours, course.h, course.temp_c))

    expected = told(believed)
    slopes = np.zeros((len(seen), len(SPREAD_C)))
    for name in open_offsets(stages):
        at = list(SPREAD_C).index(name)
        slopes[:, at] = (told(believed.moved(name, NUDGE_C)) - expected) / NUDGE_C
    off = np.array([r.temp_c for r in seen], dtype=float) - expected
    noise = slopes @ believed.cov @ slopes.T + THERMOMETER_C**2 * np.eye(len(seen))
    gain = believed.cov @ slopes.T @ np.linalg.inv(noise)
    return Warmth(gain @ off, believed.cov - gain @ slopes @ believed.cov)
