"""One bread to be baked on one surface, and how: what the program, its bands, the right heat and the habit all bake."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.colour import DOSES, GOLDEN_BOTH, Wish
from brassclock.core.fire.ends import End, comes_off, off_by_hand
from brassclock.core.fire.legs import TOPPING_WATER, Step, as_written, chosen
from brassclock.core.fire.puff import model
from brassclock.core.fire.puff.model import Baked, Bread, Stage
from brassclock.core.fire.puff.params import PARAMS
from brassclock.core.fire.surfaces import LID_FACE, Surface
from brassclock.core.matter.air import pressure_at_altitude_pa

Array = NDArray[np.float64]
RESTED_MIN = Param(8.0, "min", 4, 15, Kind.PRACTICE, "a rolled round that draws back no more")
MOST_SHRINK = Param(0.12, "-", 0.05, 0.2, Kind.PRACTICE, "a round rolled and not rested draws back by up to an eighth")
MOST_ROWS = 1000  # of a bake's picture
READY_S = Param(20.0, "s", 10, 40, Kind.JUDGEMENT, "after it is through and coloured: its pocket fills meanwhile")
SAFELY = Param(
    1.25, "-", 1.1, 1.5, Kind.JUDGEMENT, "the p90 of a filling's time over its middle, where only one bake is run"
)


@dataclass(frozen=True)
class Faults:
    """Known faults of a piece: unevenness, drying skin, bench flour, a tear, the dough's maturity, rest after
    rolling."""

    uneven_frac: float | None = None
    skin_min: float | None = None
    bench_flour_g_m2: float | None = None
    tear_mm2: float | None = None
    maturity: float | None = None
    rest_min: float | None = None


@dataclass(frozen=True)
class Baking:
    """A bread as it is laid on, its surface, the colour wished, and the cook's own `steps` (None: the usual way).

    `turned` is False for what is docked or topped; `pocket` whether one is wanted; `filled` whether it holds what must
    be hot; `dressed_kg_m2` is spread on its upper face once it is turned; its first side lies `held_s` longer than
    its colour takes.
    """

    bread: Bread
    surface: Surface
    wish: Wish = GOLDEN_BOTH
    altitude_m: float = 0.0
    turned: bool = True
    pocket: bool = True
    filled: bool = False
    steps: tuple[Step, ...] | None = None
    dressed_kg_m2: float = 0.0
    held_s: float = 0.0

    @property
    def legs(self) -> list[Stage]:
        """The stretches on the heat, each to its end or to its limit."""
        if self.steps is not None:
            return as_written(self.surface, self.steps)
        legs = chosen(self.surface, self.bread, self.wish, self.turned)
        if self.held_s:
            legs[0] = replace(legs[0], after_s=legs[0].after_s + self.held_s)
        if self.dressed_kg_m2 and len(legs) > 1:
            legs[1] = replace(legs[1], wet_kg_m2=TOPPING_WATER * self.dressed_kg_m2)
            if self.covered:
                legs[1] = replace(legs[1], top=LID_FACE)
        return legs

    @property
    def shown(self) -> Wish:
        """The colours by which it comes off: of a thin bread on a tray, where one colour is wished, the upper face's;
        nobody looks beneath it."""
        beneath = self.surface.spec.way == "tray" and not self.bread.thick and self.wish.bottom == self.wish.top
        return self.wish._replace(bottom="pale") if beneath else self.wish

    @property
    def usual(self) -> Baking:
        """The same by the usual way, whatever the cook's own is."""
        return replace(self, steps=None)

    @property
    def brief_legs(self) -> list[Stage]:
        """The legs without what comes well after the bread is ready: for one bake of many."""
        legs = self.legs
        if self.steps is None and not self.filled and not self.dressed_kg_m2:
            below, above = DOSES[self.wish.bottom], DOSES[self.wish.top]
            dose = max(below[0], above[0]), max(below[1], above[1])
            legs[-1] = replace(legs[-1], until="ready", after_s=READY_S, colour=dose)
        return legs

    def briefly(self) -> tuple[Baked, End]:
        """The bake and its end in coarse cells, without what comes after."""
        seen = self.baked(self.brief_legs, grid=model.COARSE_GRID)
        return seen, self.end(seen, self.safe_s(seen))

    @property
    def covered(self) -> bool:
        """True if a lid goes on once something was spread on it in the pan, so that it gets hot from above too."""
        return self.dressed_kg_m2 > 0 and self.surface.spec.way == "turned"

    def at(self, temp_c: float) -> Baking:
        """The same with the surface (and its oven) at another temperature [C]."""
        off_k = temp_c - self.surface.temp_c
        oven_c = self.surface.oven_c
        hot = replace(self.surface, temp_c=temp_c, oven_c=None if oven_c is None else oven_c + off_k)
        return replace(self, surface=hot)

    def baked(
        self,
        legs: Sequence[Stage] | None = None,
        *,
        contact: float = 1.0,
        grid: tuple[int, int] | None = None,
        plate_cells_c: Array | None = None,
    ) -> Baked:
        """The bread baked through its legs (or others); `contact` times how well it usually lies there, the plate as an
        earlier bread left it."""
        given = self.surface.contact
        if contact != 1.0:
            given = given | {k: (given.get(k) or PARAMS[k].value) * contact for k in ("h_wet", "h_dry")}
        legs = self.legs if legs is None else legs
        every_s = max(1.0, sum(leg.seconds for leg in legs) / MOST_ROWS)
        return model.simulate(
            self.bread,
            self.surface.plate,
            legs,
            grid=grid,
            every_s=every_s,
            plate_cells_c=plate_cells_c,
            pressure_pa=pressure_at_altitude_pa(self.altitude_m),
            overrides=given,
        )

    def safe_s(self, baked: Baked) -> float | None:
        """Seconds until the coldest point of a filling is safe in one bake: 0 without such a filling, None where it
        never is."""
        if not self.filled:
            return 0.0
        core_s = baked.events["core_75"]
        return core_s and core_s * SAFELY

    def end(self, baked: Baked, safe_s: float | None) -> End:
        """End of the bake, its filling being safe at `safe_s` (None: never)."""
        if self.steps is not None:
            return off_by_hand(baked, safe_s)
        return comes_off(baked, self.shown, pocket=self.pocket, safe_s=safe_s, dressed=self.dressed_kg_m2 > 0)

    def cut(self, baked: Baked, off_s: float) -> list[Stage]:
        """The legs as they went, the last ended when the bread comes off [s]."""
        legs = self.legs
        if self.steps is not None:
            return legs
        starts = [t for t in baked.starts_s if 0.0 <= t < off_s] or [0.0]
        ends = [*starts[1:], off_s]
        return [
            replace(leg, seconds=max(end - start, 0.5), until="time")
            for leg, start, end in zip(legs, starts, ends, strict=False)
        ]


def shrunk(bread: Bread, rest_min: float | None) -> Bread:
    """A round that drew back because it was not rested after rolling: smaller and thicker, the same dough.

    >>> b = shrunk(Bread(0.004, 0.2, 0.88, 22.0), 0.0)
    >>> round(b.thickness_m * 1000, 2), round(b.diameter_m, 3)
    (5.17, 0.176)
    """
    if rest_min is None or rest_min >= RESTED_MIN:
        return bread
    left = 1 - MOST_SHRINK * (1 - max(rest_min, 0.0) / RESTED_MIN)
    return replace(bread, thickness_m=bread.thickness_m / left**2, diameter_m=bread.diameter_m * left)


def laid_on(bread: Bread, surface: Surface) -> Bread:
    """The bread with the water that the surface wants on its back."""
    return replace(bread, film_kg_m2=bread.film_kg_m2 or surface.film_kg_m2)
