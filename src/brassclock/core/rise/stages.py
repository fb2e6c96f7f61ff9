"""Stages of a rise along their air: one course through them, read as ratio, maturity and fill.

Hours run from the end of mixing; ratio is volume since the last knock-back or joining. Maturity m = Q/need and
fill f = (C0 + Q)/what the dough can hold, both at one shaping temperature (docs/science.md, *Windows*).
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Portion, dough_of
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import gas
from brassclock.core.rise import start as rise_start
from brassclock.core.rise.course import Piece, RiseTrace
from brassclock.core.rise.dough_heat import COLD_PLACE_C, Vessel, time_constant_h
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.state import CO2, SUGAR, TEMP

Array = NDArray[np.float64]
KNOCK_BACK_FRAC = Param(0.15, "-", 0.08, 0.25, Kind.JUDGEMENT, "gas fraction that knocking back leaves")
SHAPING_TEMP_C = Param(24.0, "C", 20, 28, Kind.JUDGEMENT, "of hands and bench while balls are made")
CARRIED_K_H = Param(4.0, "K/h", 2, 8, Kind.JUDGEMENT, "no kitchen warms so fast: the dough was carried elsewhere")
DEFAULT_TARGET = 2.0
REGASSED = ("knock_back", "divide", "ball")
SCALED_SUGAR = "sugar"


@dataclass(frozen=True)
class Stage:
    """A stretch of the rise: its air as (hour, C) points from its start, vessel, what ends it, what joins at its start.

    `add_c` is the newcomers' temperature, that of the air when None; `mixed_c` the whole's after mixing, when known.
    """

    name: str
    hours: float
    path: tuple[tuple[float, float], ...]
    vessel: Vessel | None = None
    then: str | None = None
    target_ratio: float | None = None
    too_far_maturity: float | None = None
    add: tuple[Portion, ...] = ()
    add_c: float | None = None
    mixed_c: float | None = None

    def ambient_c(self, h: float) -> float:
        """Air at `h` hours into the stage; the last value is held."""
        return float(np.interp(h, [p[0] for p in self.path], [p[1] for p in self.path]))

    def air_c(self, hours: Array) -> Array:
        """Air at many hours into the stage."""
        points = self._points
        return np.asarray(np.interp(hours, points[:, 0], points[:, 1]))

    @cached_property
    def _points(self) -> Array:
        return np.array(self.path)

    @cached_property
    def last_cold_h(self) -> float:
        """Hour of the stage at which it is last carried out of the cold; 0 when it never is, or stays there.

        A kitchen that falls below the cold's limit at night and warms again carries nothing out.
        """
        hours, air = self._points.T
        cold = air < COLD_PLACE_C
        carried = np.diff(air) >= float(CARRIED_K_H) * np.diff(hours)
        leaves = np.nonzero(cold[:-1] & ~cold[1:] & carried)[0]
        return float(self._points[leaves[-1] + 1, 0]) if len(leaves) else 0.0

    @property
    def gas_kept(self) -> bool:
        """True if the gas of the stage stays in the dough at its end."""
        return self.then not in REGASSED

    def shifted(self, add_c: float) -> Stage:
        """The stage in air warmer by `add_c`."""
        return replace(self, path=tuple((h, c + add_c) for h, c in self.path))

    @cached_property
    def _cut(self) -> dict[float, list[Piece]]:
        return {}

    def pieces(self, hours: float) -> list[Piece]:
        """The stage as pieces with linear air, broken at every point of the path; many runs ask for the same."""
        if hours not in self._cut:
            self._cut[hours] = self._pieces(hours)
        return self._cut[hours]

    def _pieces(self, hours: float) -> list[Piece]:
        marks = sorted({0.0, hours, *(h for h in (self.hours, *(h for h, _ in self.path)) if 0 < h < hours)})
        knock = None if self.gas_kept else KNOCK_BACK_FRAC
        spans = list(pairwise(marks))
        air = self.air_c(np.array(marks)).tolist()
        in_warm, in_cold = (time_constant_h(self.vessel, c) for c in (COLD_PLACE_C, COLD_PLACE_C - 1))
        return [
            Piece(
                b - a,
                air[i],
                air[i + 1],
                in_cold if air[i] + air[i + 1] < 2 * COLD_PLACE_C else in_warm,
                knock if i == len(spans) - 1 else None,
            )
            for i, (a, b) in enumerate(spans)
        ]


@dataclass(frozen=True)
class Run:
    """One course with what is read from it, and the stage each row belongs to."""

    course: RiseTrace
    ratio: Array
    maturity: Array
    fill: Array
    stage: NDArray[np.int64]

    @property
    def weakening(self) -> Array:
        """Weakening by row, without unit."""
        return self.course.weakening

    def until(self, h: float) -> Run:
        """The run up to an hour that is one of its rows."""
        n = int(np.searchsorted(self.course.h, h + 1e-9, side="right"))
        c = self.course
        cut = replace(
            c,
            h=c.h[:n],
            state=c.state[:n],
            gas_ml=c.gas_ml[:n],
            air_mol=c.air_mol[:n],
            piece=c.piece[:n],
            to_come_mol=c.to_come_mol[:n],
            stretch=c.stretch[:n],
        )
        return Run(cut, self.ratio[:n], self.maturity[:n], self.fill[:n], self.stage[:n])

    @property
    def fresh_fill(self) -> Array:
        """Fill had the dough not weakened: what of a full dough is gas alone."""
        c = self.course
        fresh = 1 + c.start.p.stretch * c.start.p.strength
        return np.asarray(self.fill * c.capacity_expansion / fresh)


def run_stages(
    batch: Batch,
    stages: Sequence[Stage],
    hours: Sequence[float],
    activity: float,
    scale: Mapping[str, float] | None = None,
    default_target: float = DEFAULT_TARGET,
    *,
    coarse: bool = False,
) -> Run:
    """One course through stages of these lengths. `scale` multiplies parameters of the dough by name, and `sugar`, what
    there is of it at the start.

    `coarse` takes ten-minute steps, as one of many runs may (step error in ratio below 1e-3).
    """
    dt_h = yeast_course.COARSE_DT_H if coarse else yeast_course.DT_H
    course: RiseTrace | None = None
    pieces: list[Piece] = []
    stage_of_piece: list[int] = []
    start = rise_start.start_of(batch.recipe, batch.mix_temp_c, activity, batch.pressure_pa)
    start = _scaled(start, scale or {}, first=True)

    def through() -> RiseTrace:
        more = yeast_course.course(start, pieces, dt_h)
        return more if course is None else course.then(more)

    for i, (stage, length) in enumerate(zip(stages, hours, strict=True)):
        if stage.add:
            if pieces:
                course, pieces = through(), []
            batch, start = _joined(batch, start, course, stage, activity)
            start = _scaled(start, scale or {}, first=False)
        more = stage.pieces(length)
        pieces += more
        stage_of_piece += [i] * len(more)
    done = through()
    stage_of_row = np.array(stage_of_piece)[done.piece]
    knocked = [stages[s].then in REGASSED for s in range(len(stages))]
    opens = [0, *(int(knocked[s - 1] or bool(stages[s].add)) for s in range(1, len(stages)))]
    epoch = np.cumsum(opens)[stage_of_row]
    return _read(done, stages, stage_of_row, epoch, default_target)


def with_all(batch: Batch, stages: Sequence[Stage]) -> Batch:
    """The dough with everything that joins it on the way."""
    added = [p for s in stages for p in s.add]
    return replace(batch, dough=dough_of([*batch.dough.portions, *added])) if added else batch


def _scaled(start: rise_start.Start, scale: Mapping[str, float], *, first: bool) -> rise_start.Start:
    """The start with parameters (and, the first time, its sugar) multiplied."""
    p = start.p._replace(**{name: getattr(start.p, name) * by for name, by in scale.items() if name != SCALED_SUGAR})
    state = start.state.copy()
    if first:
        state[SUGAR] *= scale.get(SCALED_SUGAR, 1.0)
    return replace(start, p=p, state=state)


def _joined(
    batch: Batch, start: rise_start.Start, course: RiseTrace | None, stage: Stage, activity: float
) -> tuple[Batch, rise_start.Start]:
    """The dough with what a stage adds; before any course, the two are one dough from the start."""
    whole = with_all(batch, [stage])
    end = course.end if course else rise_start.End(start.state, start.air_mol, start.pools)
    old_heat = sum(p.mass_g * p.ingredient.cp_j_gk for p in batch.dough.portions)
    new_heat = sum(p.mass_g * p.ingredient.cp_j_gk for p in stage.add)
    add_c = stage.ambient_c(0.0) if stage.add_c is None else stage.add_c
    temp_c = stage.mixed_c
    if temp_c is None:
        temp_c = (old_heat * float(end.state[TEMP]) + new_heat * add_c) / (old_heat + new_heat)
    share = batch.dough.flour_g / whole.dough.flour_g
    return whole, rise_start.joined(start, end, whole.recipe, share, temp_c, activity)


def _read(
    course: RiseTrace,
    stages: Sequence[Stage],
    stage_of_row: NDArray[np.int64],
    epoch: NDArray[np.int64],
    default: float,
) -> Run:
    ratio, maturity, fill = np.empty_like(course.h), np.empty_like(course.h), np.empty_like(course.h)
    volume, e_max = course.volume_ml, course.capacity_expansion
    for number in range(int(epoch[-1]) + 1):
        rows = epoch == number
        first = int(np.argmax(rows))
        start = course.starts[course.stretch[first]]
        v_ref, c_0, air = volume[first], course.state[first, CO2], course.air_mol[first]
        named = [t for s in dict.fromkeys(stage_of_row[rows].tolist()) if (t := stages[s].target_ratio)]
        args = (start.dry_ml, air, SHAPING_TEMP_C, start.water, start.pressure_pa)
        need = max(float(gas.co2_for_volume((named[-1] if named else default) * v_ref, *args)) - c_0, 1e-9)
        ratio[rows] = volume[rows] / v_ref
        maturity[rows] = course.co2_made_mol[rows] / need
        held = gas.co2_for_volume(e_max[rows] * start.first_ml, *args)
        fill[rows] = (c_0 + course.co2_made_mol[rows]) / np.maximum(held, 1e-9)
    return Run(course, ratio, maturity, fill, stage_of_row)
