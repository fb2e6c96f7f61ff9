"""What a program cannot do, said with what would: another heat, a thinner round, a finish in the oven; each of them tried."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from brassclock.core.fire.ends import End
from brassclock.core.fire.puff.model import Bread, Face, Stage
from brassclock.core.fire.surfaces import Surface

FINISH_C, FINISH_MOST_S = 180.0, 2400.0  # practice: an oven that browns no more
FINISH = Stage(
    FINISH_MOST_S, False, 0.0, FINISH_C, 15.0, Face(FINISH_C, 15.0, FINISH_C, 0.9, 3000.0), on_plate=False, take_off=False
)  # fmt: skip
TRY_K = (-20, -40, -60, -80, -100, -130, -160, -200, 20, 40, 60)  # of the heat, nearest first, cooler before hotter
LEAST_C, MOST_C = 130.0, 520.0
TRY_THIN = (0.85, 0.7, 0.6, 0.5, 0.4)
LEAST_M = 0.0025
SAFE_C = 75  # meat and egg
WHY = {
    "does_not_cook_through": "It does not cook through here: its coldest point is at {coldest} when it comes off",
    "filling_not_safe": "The filling does not get hot enough here: its coldest point is to reach {safe} and is at {coldest}",
    "browns_before_through": "It is black on top before it is through",
    "dries_before_through": "It is dried out before it is through",
}


@dataclass(frozen=True)
class Verdict:
    """A code of the contract, the coldest point when it comes off [C], and what would do: a heat [C] and its time [s], a thickness [mm], coming
    off at a second and so many minutes in an oven."""

    code: str
    coldest_c: float
    heat: tuple[float, float] | None
    thin_mm: float | None
    finish: tuple[float, int] | None

    def words(self, unit: str = "C") -> str:
        """The sentence, in C or F."""
        what = WHY[self.code].format(coldest=_degrees(self.coldest_c, unit), safe=_degrees(SAFE_C, unit))
        ways = []
        if self.heat is not None:
            ways.append(f"{_degrees(self.heat[0], unit)}, in {_lasting(self.heat[1])}")
        if self.thin_mm is not None:
            ways.append(f"{self.thin_mm:.0f} mm thick")
        if self.finish is not None:
            off_s, minutes = self.finish
            early = f"off at {_lasting(off_s)} and " if self.code.endswith("before_through") else ""
            ways.append(f"{early}{minutes} min more in an oven at {_degrees(FINISH_C, unit)}")
        return f"{what}. What would do: {', or '.join(ways) or 'thinner, and a lower heat'}."


def told(found: Iterable[Verdict], unit: str = "C") -> list[dict[str, str]]:
    """Verdicts as they are shown and stored: code and sentence."""
    return [{"code": v.code, "text": v.words(unit)} for v in found]


def _degrees(c: float, unit: str) -> str:
    return f"{round(c * 1.8 + 32) if unit == 'F' else round(c)}\u00a0°{unit}"


def _lasting(seconds: float) -> str:
    return f"{seconds:.0f} s" if seconds < 120 else f"{seconds / 60:.0f} min"


def verdicts(
    codes: tuple[str, ...], bread: Bread, surface: Surface, coldest_c: float, trial: Callable[[Bread, Surface], End],
    finish: Callable[[], tuple[float, float] | None], thinner: bool,
) -> tuple[Verdict, ...]:  # fmt: skip
    """What codes mean for this bread. `trial` ends another bread on another surface; `finish` is when this one comes off for
    an oven and how long that finishes it [s]; `thinner` whether it may be rolled thinner at all."""
    if not codes:
        return ()
    heat = next((found for k in TRY_K if (found := _at(bread, surface, k, trial)) is not None), None)
    thin = None
    if thinner:
        thicknesses = (bread.thickness_m * f for f in TRY_THIN)
        thin = next((m for m in thicknesses if m >= LEAST_M and not trial(_thinner(bread, m), surface).codes), None)
    oven = finish()
    finished = None if oven is None else (oven[0], max(math.ceil(oven[1] / 60), 1))
    return tuple(Verdict(code, coldest_c, heat, None if thin is None else 1000 * thin, finished) for code in codes)


def _at(bread: Bread, surface: Surface, k: float, trial: Callable[[Bread, Surface], End]) -> tuple[float, float] | None:
    """(heat [C], time [s]) so much hotter, where the bread comes off with nothing wrong."""
    temp_c = surface.temp_c + k
    if not LEAST_C <= temp_c <= MOST_C:
        return None
    end = trial(bread, replace(surface, temp_c=temp_c, oven_c=surface.oven_c and surface.oven_c + k))
    return None if end.codes else (temp_c, end.off_s)


def _thinner(bread: Bread, thickness_m: float) -> Bread:
    """The same dough, rolled out further."""
    return replace(
        bread, thickness_m=thickness_m, diameter_m=bread.diameter_m * math.sqrt(bread.thickness_m / thickness_m)
    )
