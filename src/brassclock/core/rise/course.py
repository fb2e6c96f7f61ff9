"""From a dough's composition to the course of its rise, by the equations of `stepper`: yeast, a starter, soda, or all.

Basis 1 g flour, hours, C. Validity: 0 to 45 C, water .4 to 1.2 of flour, salt to 4 %, sugar to 20 %.
Equations, symbols and checks: docs/science.md, *Rise by yeast* and *Sourdough*.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.rise import stepper
from brassclock.core.rise.chemical.model import reactor
from brassclock.core.rise.recipe import Recipe
from brassclock.core.rise.start import End, Start, start_of
from brassclock.core.rise.state import (
    ACID,
    COLUMNS,
    FIRST_STATE,
    HOUR,
    MADE,
    ROW_AIR,
    ROW_GAS,
    ROW_PIECE,
    ROW_TO_COME,
    STATES,
    TEMP,
    WEAKENING,
    Pieces,
)

Array = NDArray[np.float64]
DT_H = 1 / 12
COARSE_DT_H = 1 / 6
course_stepper = Stepper(stepper.run)


@dataclass(frozen=True)
class Piece:
    """A stretch of time with a linear ambient, one time constant, and what ends it."""

    hours: float
    ambient0_c: float
    ambient1_c: float
    tau_h: float | None = None
    knock_back_frac: float | None = None

    @classmethod
    def constant(cls, hours: float, ambient_c: float, tau_h: float | None = None, knock: float | None = None) -> Piece:
        """A piece at one ambient [C]."""
        return cls(hours, ambient_c, ambient_c, tau_h, knock)


@dataclass(frozen=True)
class RiseTrace:
    """A simulated rise. Arrays run over time rows; a knock-back gives two rows at one hour.

    `starts` holds one start per stretch between joins, `stretch` which of them a row belongs to.
    """

    starts: tuple[Start, ...]
    h: Array
    state: Array
    gas_ml: Array
    air_mol: Array
    piece: NDArray[np.int64]
    to_come_mol: Array
    stretch: NDArray[np.int64]
    end: End

    @property
    def start(self) -> Start:
        """The last start: of the whole dough after all joins."""
        return self.starts[-1]

    def _of_start(self, name: str) -> Array:
        return np.array([getattr(s, name) for s in self.starts])[self.stretch]

    @property
    def volume_ml(self) -> Array:
        """Volume by row [mL per g flour]."""
        return np.asarray(self._of_start("dry_ml") + self.gas_ml)

    @property
    def expansion(self) -> Array:
        """E: volume over the volume just after mixing [-]."""
        return np.asarray(self.volume_ml / self._of_start("first_ml"))

    @property
    def gas_ml_per_100g(self) -> Array:
        """Gas [mL] in 100 g of dough."""
        return np.asarray(100 * self.gas_ml / self._of_start("mass"))

    @property
    def temp_c(self) -> Array:
        """Mean temperature by row [C]."""
        return self.state[:, TEMP]

    @property
    def co2_made_mol(self) -> Array:
        """CO2 made since the last knock-back [mol per g flour]."""
        return self.state[:, MADE]

    @property
    def weakening(self) -> Array:
        """Weakening by row, without unit: capacity falls by its exponential."""
        return self.state[:, WEAKENING]

    @property
    def capacity_expansion(self) -> Array:
        """E_m: the largest expansion the dough can hold at its age [-]."""
        p = self.start.p
        return np.asarray(1 + p.stretch * p.strength * np.exp(-self.weakening))

    @property
    def acid_mol(self) -> Array:
        """Acid [mol per g flour]; nothing without a starter."""
        return self.state[:, ACID]

    def then(self, later: RiseTrace) -> RiseTrace:
        """This course with a later one after it."""
        return RiseTrace(
            (*self.starts, *later.starts),
            np.concatenate([self.h, self.h[-1] + later.h]),
            np.concatenate([self.state, later.state]),
            np.concatenate([self.gas_ml, later.gas_ml]),
            np.concatenate([self.air_mol, later.air_mol]),
            np.concatenate([self.piece, self.piece[-1] + 1 + later.piece]),
            np.concatenate([self.to_come_mol, later.to_come_mol]),
            np.concatenate([self.stretch, len(self.starts) + later.stretch]),
            later.end,
        )


def pieces_of(pieces: Sequence[Piece]) -> Pieces:
    """The stretches as the integrator takes them."""
    columns = zip(
        *(
            (
                q.hours,
                q.ambient0_c,
                q.ambient1_c,
                q.tau_h or 0.0,
                -1.0 if q.knock_back_frac is None else q.knock_back_frac,
            )
            for q in pieces
        ),
        strict=True,
    )
    return Pieces(*(np.array(column, dtype=float) for column in columns))


def course(start: Start, pieces: Sequence[Piece], dt_h: float = DT_H) -> RiseTrace:
    """Run a start through its pieces. Step error in volume ratio at 5 min is below 1e-4."""
    rows = pieces_of(pieces)
    room = int(np.sum(np.ceil(rows.hours / dt_h))) + 2 * len(pieces) + 2
    out = np.zeros((room, COLUMNS))
    y, pools = start.state.copy(), start.pools.copy()
    n, air = course_stepper(y, start.air_mol, pools, rows, start.p, dt_h, out)
    out = out[:n]
    return RiseTrace(
        (start,),
        out[:, HOUR],
        out[:, FIRST_STATE : FIRST_STATE + STATES],
        out[:, ROW_GAS],
        out[:, ROW_AIR],
        out[:, ROW_PIECE].astype(np.int64),
        out[:, ROW_TO_COME],
        np.zeros(n, dtype=np.int64),
        End(y, float(air), pools),
    )


def first_passage_h(h: Array, trace: Array, level: float) -> float | None:
    """First hour at which a trace reaches `level` from below, linear between rows; None if never."""
    above = np.nonzero(trace >= level)[0]
    if len(above) == 0:
        return None
    i = int(above[0])
    if i == 0:
        return float(h[0])
    rise = trace[i] - trace[i - 1]
    if rise <= 0:
        return float(h[i])
    return float(h[i - 1] + (h[i] - h[i - 1]) * (level - trace[i - 1]) / rise)


def warm() -> bool:
    """Compile the steppers (or load them from the cache)."""
    start = start_of(Recipe((("yeast_instant", 0.01),), 0.62, 0.02, mass=1.65), 24.0)
    pieces = pieces_of([Piece.constant(0.5, 24.0)])
    rows = np.zeros((20, COLUMNS))
    fast = course_stepper.warm(start.state.copy(), start.air_mol, start.pools.copy(), pieces, start.p, DT_H, rows)
    return reactor.warm(start.pools.copy(), 24.0, 1.0) and fast
