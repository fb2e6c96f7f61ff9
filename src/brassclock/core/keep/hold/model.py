"""A bread kept for three days: its trace, its bands, its windows and the words for it."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Literal, get_args

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.hold import stepper
from brassclock.core.keep.hold.params import PARAMS, SPREADS, Keeping, keeping
from brassclock.core.rise.belief import Band
from brassclock.core.terms import Intent, Wrap

Array = NDArray[np.float64]
WRAPS = get_args(Wrap)  # in the order of the stepper's codes
HOURS = 72.0
RUNS = 16
MOST_ROWS = 2400
FILM_FATS = ("butter", "ghee", "oil")
BRUSHED_FRAC = 0.04  # practice: of the dough, where it is not weighed
# judgement: of each kind its crust's share of the dry mass, mm, water per dry, and the bread's C as it comes off
CRUSTS: dict[Intent, tuple[float, float, float, float]] = {
    "pocket": (0.10, 0.25, 0.11, 95.0), "blister": (0.16, 0.40, 0.06, 95.0), "flat": (0.10, 0.25, 0.10, 95.0),
    "thick": (0.10, 0.60, 0.07, 94.0), "fried": (0.20, 0.40, 0.05, 98.0), "rolls": (0.08, 0.80, 0.05, 94.0),
}  # fmt: skip
TINTS = {"pale": 1.5, "light": 1.2, "golden": 1.0, "charred": 0.7}  # judgement: of the crust's water
BAKED_KG_M3: dict[Intent, float] = {  # judgement: of a baked bread, its pocket closed
    "pocket": 430.0, "blister": 360.0, "flat": 600.0, "thick": 420.0, "fried": 420.0, "rolls": 280.0,
}  # fmt: skip
OSMOL = 1.1  # osmol/kg: a usual dough's water
DIFFUSES_M2_S = Param(1.2e-7, "m2/s", 0.9e-7, 1.5e-7, Kind.PUBLISHED_FROM_MEMORY, "heat in baked crumb")


@dataclass(frozen=True)
class Kept:
    """A bread as it comes off the heat: its dough [g], that dough's water per dry mass, the share of mass lost, its
    size after baking [m]; fat over flour, what else slows or speeds staling; the fat brushed on it and its mass [g].

    `staled` and `again` are the staling age and its pace after a reheating.
    """

    intent: Intent
    dough_g: float
    water_per_dry: float
    loss_frac: float
    diameter_m: float
    height_m: float
    fat_frac: float = 0.03
    dairy: bool = False
    sour: bool = False
    chemical: bool = False
    osmol: float = OSMOL
    tint: str = "golden"
    brushed: str | None = None
    brushed_g: float | None = None
    staled: float = 0.0
    again: bool = False
    start_c: float | None = None

    @property
    def dry_g(self) -> float:
        """Dry mass [g]."""
        return self.dough_g / (1 + self.water_per_dry)

    @property
    def baked_x(self) -> float:
        """Water per dry mass as it comes off the heat."""
        return self.water_per_dry - self.loss_frac * (1 + self.water_per_dry)

    @property
    def mass_g(self) -> float:
        """Mass as it comes off the heat [g]."""
        return self.dry_g * (1 + self.baked_x)

    @property
    def even_s(self) -> float:
        """Seconds until the heat within it is even: the first term of a slab."""
        return (self.height_m / 2) ** 2 / (math.pi**2 / 4 * DIFFUSES_M2_S)

    def ages(self, p: Keeping) -> float:
        """Pace of its staling over that of a lean yeasted loaf (judgement)."""
        found = 1 - 0.15 * min(self.fat_frac / 0.05, 1.5)
        for is_so, factor in (
            (self.dairy, 0.85),
            (self.sour, 0.85),
            (self.chemical, 1.6),
            (self.again, p.stales_again),
        ):
            found *= factor if is_so else 1.0
        return found


@dataclass(frozen=True)
class Room:
    """The room: temperature [C], humidity [0 to 1], and a hot box's temperature [C]."""

    temp_c: float = 21.0
    rh: float = 0.5
    box_c: float = 62.0


Wrapped = Sequence[tuple[float, str]]  # from so many seconds after the heat on, a wrap of WRAPS
BAGGED: Wrapped = ((0.0, "cloth"), (2400.0, "rack"), (3600.0, "bag"))  # practice: a bag once they are cool
keep_stepper = Stepper(stepper.run, fastmath=True)


@dataclass(frozen=True)
class KeepTrace:
    """One run: seconds, temperature [C], crispness and softness [0 to 100], sweat [g], water lost [g], water per dry,
    water activity of the crumb, staling [0 to 1]."""

    s: Array
    temp_c: Array
    crisp: Array
    soft: Array
    sweat_g: Array
    lost_g: Array
    x: Array
    activity: Array
    stale: Array
    mass_g: float

    def at(self, name: str, seconds: float) -> float:
        """A column at an instant, between rows by a line."""
        return float(np.interp(seconds, self.s, getattr(self, name)))

    def first_s(self, when: NDArray[np.bool_]) -> float | None:
        """The first row at which something holds [s]; None for never."""
        rows = np.flatnonzero(when)
        return float(self.s[rows[0]]) if len(rows) else None

    @property
    def limp_from_s(self) -> float:
        """From when on a low softness is no crisp crust: once crispness was under 25, and after 20 min [s]."""
        return max(self.first_s(self.crisp < LIMP) or 0.0, CRISP_FOR_S)

    def softer_than_s(self, soft: float) -> float | None:
        """Seconds until softness is under a mark; None for not in these hours."""
        return self.first_s((self.soft < soft) & (self.s >= self.limp_from_s))


CRISP, LIMP, CRISP_FOR_S = 50.0, 25.0, 1200.0
SOFT_MARKS = ((75.0, "soft"), (55.0, "pliable"), (35.0, "firm"), (18.0, "stiff"))
SWEATS_FRAC = 0.005  # of its mass: from there it sweats


def word(crisp: float, soft: float) -> str:
    """The word for a bread of that crispness and softness.

    >>> word(80, 60), word(30, 60), word(5, 80), word(5, 10)
    ('crisp', 'dry-skinned', 'soft', 'hard')
    """
    if crisp >= CRISP:
        return "crisp"
    if crisp >= LIMP and soft >= 55:
        return "dry-skinned"
    return next((name for mark, name in SOFT_MARKS if soft >= mark), "hard")


def run(
    bread: Kept,
    wrapped: Wrapped = ((0.0, "cloth"),),
    stack: int = 1,
    room: Room | None = None,
    p: Keeping | None = None,
    hours: float = HOURS,
) -> KeepTrace:
    """One run of a bread through its wraps. ValueError for a wrap that is none, or for wraps out of order."""
    room, p = room or Room(), p or keeping()
    if not wrapped or [w for _, w in wrapped if w not in WRAPS] or sorted(wrapped, key=lambda x: x[0]) != list(wrapped):
        raise ValueError(f"{list(wrapped)} is no way to wrap. Give wraps of {', '.join(WRAPS)} in time order.")
    rows = np.empty((MOST_ROWS, stepper.COLUMNS))
    from_s = np.array([float(s) for s, _ in wrapped])
    codes = np.array([WRAPS.index(w) for _, w in wrapped])
    n = keep_stepper(_state(bread, stack, room, p), p, from_s, codes, hours * 3600.0, rows)
    c = rows[:n].T.copy()  # the rest of the rows is let go: runs are remembered
    return KeepTrace(
        c[stepper.AT],
        c[stepper.TEMP],
        c[stepper.CRISP],
        c[stepper.SOFT],
        c[stepper.SWEAT],
        c[stepper.LOST],
        c[stepper.MEAN_X],
        c[stepper.ACTIVITY],
        c[stepper.STALED],
        bread.mass_g,
    )


def _state(bread: Kept, stack: int, room: Room, p: Keeping) -> stepper.Bread:
    share, depth_mm, crust_x, start_c = CRUSTS[bread.intent]
    crust_x = crust_x * TINTS[bread.tint]
    fat = bread.brushed in FILM_FATS
    brushed_g = bread.dough_g * BRUSHED_FRAC if bread.brushed_g is None else bread.brushed_g
    return stepper.Bread(
        dry_g=bread.dry_g,
        crust_share=share,
        crust_mm=depth_mm,
        crust_x=crust_x,
        crumb_x=(bread.baked_x - share * crust_x) / (1 - share),
        start_c=start_c if bread.start_c is None else bread.start_c,
        soft_x=min(0.65, bread.water_per_dry - 0.10 * (1 + bread.water_per_dry)),
        diameter_m=bread.diameter_m,
        height_m=bread.height_m,
        stack=float(stack),
        salt=1 - 0.018 * bread.osmol,
        ages=bread.ages(p),
        staled=bread.staled,
        film=p.fat_film if fat else 1.0,
        brushed_g=p.butter_water * brushed_g if bread.brushed == "butter" else 0.0,
        room_c=room.temp_c,
        room_rh=room.rh,
        box_c=room.box_c,
    )


@lru_cache(maxsize=4)
def drawn(runs: int = RUNS) -> tuple[Keeping, ...]:
    """Parameters of so many runs, spread evenly (Halton)."""
    from scipy.special import ndtri
    from scipy.stats import qmc  # slow to import, and needed once

    normals = ndtri(qmc.Halton(len(SPREADS), scramble=False).random(runs + 1)[1:])
    return tuple(
        keeping(**{n: PARAMS[n] * math.exp(sd * z) for (n, sd), z in zip(SPREADS.items(), row, strict=True)})
        for row in normals
    )


def band(values: Sequence[float | None], middle: float | None) -> Band:
    """p10 and p90 of values of which None is later than all, about the middle run's."""
    late = np.sort([math.inf if v is None else v for v in values])
    method: Literal["linear", "nearest"] = "linear" if math.isfinite(late[-1]) else "nearest"
    p10, p90 = (float(np.quantile(late, q, method=method)) for q in (0.1, 0.9))
    never = sum(v is None for v in values) / len(values)
    if middle is not None:
        p10, p90 = min(p10, middle), max(p90, middle)
    return Band(None if math.isinf(p10) else p10, middle, None if math.isinf(p90) else p90, never)


def reheated(bread: Kept, trace: KeepTrace, at_s: float, start_c: float = 62.0) -> Kept:
    """The bread reheated so long after the heat: its water as it was then, its staling mostly melted."""
    left = float(PARAMS["melt_left"]) * trace.at("stale", at_s)
    x = trace.at("x", at_s)
    loss = (bread.water_per_dry - x) / (1 + bread.water_per_dry)
    return replace(bread, staled=-math.log(1 - left), again=True, loss_frac=loss, start_c=start_c, brushed=None)


def warm() -> bool:
    """Compile the stepper, or load it from the cache."""
    bread = Kept("pocket", 95.0, 0.884, 0.08, 0.18, 0.008)
    state = _state(bread, 1, Room(), keeping())
    return keep_stepper.warm(
        state, keeping(), np.array([0.0]), np.array([2]), 60.0, np.empty((MOST_ROWS, stepper.COLUMNS))
    )
