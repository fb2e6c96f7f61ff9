"""Verdicts on a program, each with a remedy: another heat, a thinner round, a finish in the oven; each of them
tried."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass, replace

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.baking import Baking
from brassclock.core.fire.ends import End, sides_s
from brassclock.core.fire.legs import OVEN_FINISH_C
from brassclock.core.fire.puff.model import Baked, Bread, Stage
from brassclock.core.fire.right_heat import RightHeat
from brassclock.core.fire.surfaces import oven_face
from brassclock.core.units import degrees

FINISH_MOST_S = Param(2400.0, "s", 1200, 3600, Kind.JUDGEMENT, "longest finish that is proposed")
FINISH = Stage(
    FINISH_MOST_S,
    False,
    0.0,
    OVEN_FINISH_C,
    15.0,
    oven_face(OVEN_FINISH_C),
    on_plate=False,
    take_off=False,
)
TRY_THIN = (0.85, 0.7, 0.6, 0.5, 0.4)
LEAST_M = Param(0.0025, "m", 0.0015, 0.004, Kind.PRACTICE, "nobody rolls thinner")
RAW = {"does_not_cook_through", "filling_not_safe", "browns_before_through", "dries_before_through"}
SAFE_C = 75  # meat and egg
WHY = {
    "does_not_cook_through": "It does not cook through here: its coldest point gets to {coldest} by the time it "
    "comes off",
    "filling_not_safe": "The filling does not get hot enough here: its coldest point is to reach {safe} and gets to "
    "{coldest}",
    "browns_before_through": "It is black before it is through",
    "dries_before_through": "It is dried out before it is through",
    "dries_before_brown": "It dries out before it has its colour here",
    "burns_before_brown": "One face is black here before the other has its colour",
    "stays_pale": "It does not get its colour here",
}


PALER = "a hotter surface, a grill at the end, or a brush of milk or fat before"
COOLER = "a thinner round, and a lower heat"
EVENER = "a lower heat, or a grill for the upper face at the end"
ELSE = {
    "does_not_cook_through": COOLER,
    "filling_not_safe": COOLER,
    "browns_before_through": COOLER,
    "dries_before_through": COOLER,
    "dries_before_brown": PALER,
    "burns_before_brown": EVENER,
    "stays_pale": PALER,
}


@dataclass(frozen=True)
class Verdict:
    """A code of the contract, the coldest point when it comes off [C], and what would do: the right heat, a thickness
    [mm], coming off at a second and so many minutes in an oven."""

    code: str
    coldest_c: float
    heat: RightHeat | None
    thin_mm: float | None
    finish: tuple[float, int] | None

    def words(self, unit: str = "C") -> str:
        """The sentence, in C or F."""
        what = WHY[self.code].format(coldest=degrees(self.coldest_c, unit), safe=degrees(SAFE_C, unit))
        ways = []
        if self.heat is not None:
            sides = sides_s(self.heat.turn_s, self.heat.off_s)
            ways.append(f"{degrees(self.heat.best_c, unit)}, {' and then '.join(map(_lasting, sides))}")
        if self.thin_mm is not None:
            ways.append(f"{self.thin_mm:.0f} mm thick")
        if self.finish is not None:
            off_s, minutes = self.finish
            early = f"off at {_lasting(off_s)} and " if self.code.endswith("before_through") else ""
            ways.append(f"{early}{minutes} min more in an oven at {degrees(OVEN_FINISH_C, unit)}")
        return f"{what}. What would do: {', or '.join(ways) or ELSE[self.code]}."


def told(found: Iterable[Verdict], unit: str = "C") -> list[dict[str, str]]:
    """Verdicts as they are shown and stored: code and sentence."""
    return [{"code": v.code, "text": v.words(unit)} for v in found]


def _lasting(seconds: float) -> str:
    return f"{seconds:.0f} s" if seconds < 120 else f"{seconds / 60:.0f} min"


def verdicts(end: End, baking: Baking, coldest_c: float, whole: Baked, heat: RightHeat | None) -> tuple[Verdict, ...]:
    """Each code of the end of a baking, with what would do: the right heat, and what else was tried."""
    thin = _thin_mm(baking) if RAW & {*end.codes} and (baking.filled or not baking.bread.thick) else None
    finish = _finish(baking, end, whole) if RAW & {*end.codes} else None
    return tuple(Verdict(code, coldest_c, heat, thin, finish) for code in end.codes)


def _thin_mm(baking: Baking) -> float | None:
    """The thickest of some thinner rounds that bakes well here [mm]."""
    for factor in TRY_THIN:
        thickness = baking.bread.thickness_m * factor
        if thickness >= LEAST_M:
            other = replace(baking, bread=_thinner(baking.bread, thickness))
            seen = other.baked()
            if not other.end(seen, other.safe_s(seen)).codes:
                return thickness * 1000
    return None


def _finish(baking: Baking, end: End, whole: Baked) -> tuple[float, int] | None:
    """(seconds until it goes to an oven, minutes there); None where that does not finish it either."""
    stop_s = min(end.off_s, end.spoilt_s or end.off_s)
    seen = baking.baked([*baking.cut(whole, stop_s), FINISH])
    through = [seen.events["done"], baking.safe_s(seen)]
    if None in through:
        return None
    return stop_s, max(1, math.ceil((max(t for t in through if t is not None) - stop_s) / 60))


def _thinner(bread: Bread, thickness_m: float) -> Bread:
    """The same dough, rolled out further."""
    return replace(
        bread, thickness_m=thickness_m, diameter_m=bread.diameter_m * math.sqrt(bread.thickness_m / thickness_m)
    )
