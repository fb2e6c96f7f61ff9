"""*Call it*: a bread on the heat by the puff model, with what a cook cannot know drawn; when to turn it, when it is
off."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from functools import cached_property, lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.drill.draw import Draw
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.fire.baking import Baking, laid_on
from brassclock.core.fire.colour import reached_s, word_of
from brassclock.core.fire.puff.model import Baked, Bread
from brassclock.core.fire.puff.params import CHARRED, GOLDEN
from brassclock.core.fire.surfaces import Surface
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.matter.steam import saturation_pressure_pa

Array = NDArray[np.float64]
CONTACT_SD = Param(0.20, "-", 0.1, 0.3, Kind.JUDGEMENT, "how well a bread lies on its surface, in the log")
THICKNESS_SD = Param(0.07, "-", 0.04, 0.12, Kind.JUDGEMENT, "of a round rolled with care, in the log")
WATER_SD = Param(0.04, "-", 0.02, 0.06, Kind.JUDGEMENT, "of a dough's water, in the log")
BROWNING_SD = (0.0, 0.08, 0.15, 0.22, 0.30)  # judgement, by level, in the log
SURFACE_SD_K = (8.0, 12.0, 18.0, 24.0, 30.0)  # judgement, by level
TURN_WIDTH = (0.25, 0.20, 0.15, 0.11, 0.08)  # judgement, by level: of the log of the time over the right one
HALF = 50.0  # points of the turn, and of the end
GAP_WIDTH = Param(0.12, "-", 0.08, 0.2, Kind.JUDGEMENT, "of the end's time: a gap that leaves 37 % of its points")
OF_THE_WAY = Param(0.8, "-", 0.6, 1, Kind.JUDGEMENT, "from golden to charred: dark, and still good")
PAST = 1.6  # of the right moment: so long a bread that is not called is shown
PAST_S = 15.0
MOST_S = 240.0
TRIES = 12
HOUSE: tuple[tuple[str, str, float, float, float, float, int], ...] = (
    # bread, surface, the right heat beside its usual [K], mm, cm, water over flour, from level
    ("a pita", "iron_plate", 45.0, 3.6, 18, 0.62, 1),
    ("a sponge round", "skillet", 40.0, 3.4, 17, 0.62, 1),
    ("a small naan", "iron_plate", 40.0, 4.2, 20, 0.60, 2),
    ("a milk flatbread", "lidded_pan", 20.0, 4.0, 18, 0.62, 2),
    ("a pita", "stone_oven", 25.0, 3.6, 18, 0.62, 3),
    ("a thin round", "iron_plate", 30.0, 2.4, 22, 0.56, 3),
    ("a naan", "inverted_plate", 20.0, 4.4, 22, 0.62, 4),
    ("a pita", "steel_oven", 20.0, 3.2, 18, 0.64, 4),
)
FLOUR_WATER = 0.14  # of flour
GROWS = 1.15
DOUGH_C = (19.0, 26.0)


@dataclass(frozen=True)
class Subject:
    """A bread as a cook knows it, and how far its surface [K] and its browning [log] may be off."""

    name: str
    bread: Bread
    surface: Surface
    surface_sd_k: float
    browning_sd: float
    altitude_m: float = 0.0


@dataclass(frozen=True)
class Call:
    """A case: the bread as it is told, the bread as it is, and how much better than usual it lies there.

    What is hidden: contact, thickness, water, browning and the surface's heat. Times count from contact [s].
    """

    level: int
    told: Subject
    true: Baking
    contact: float

    @cached_property
    def due(self) -> Baked:
        """The bread turned when its first side is ready."""
        return self.true.baked(contact=self.contact)

    @property
    def turn_s(self) -> float:
        """The right moment to turn it [s]."""
        return float(self.due.events["second"] or 0.0)

    def first_side(self) -> Baked:
        """The bread left on its first side, long past the right moment."""
        long_s = min(PAST * self.turn_s + PAST_S, MOST_S)
        return self.true.baked([replace(self.true.legs[0], seconds=long_s, until="time")], contact=self.contact)

    def turned(self, at_s: float) -> Baked:
        """The bread turned at an instant [s], and left on its second side."""
        first, second = self.true.legs[:2]
        held = replace(first, seconds=max(at_s, 0.5), until="time", after_s=0.0)
        return self.true.baked([held, replace(second, seconds=MOST_S, until="time")], contact=self.contact)

    def width(self) -> float:
        """The tolerance of a turn about its right moment: of the log of its time over it."""
        return TURN_WIDTH[self.level - 1]


@dataclass(frozen=True)
class Off:
    """From when to when a bread may come off [s], both None where it never is done; and how long it is shown [s]."""

    low_s: float | None
    high_s: float | None
    shown_s: float

    def gap_s(self, at_s: float) -> float | None:
        """Seconds before (below 0) or after the window; 0 inside; None where there is none."""
        if self.low_s is None or self.high_s is None:
            return None
        return min(at_s - self.low_s, 0.0) or max(at_s - self.high_s, 0.0)


def house(draw: Draw) -> Subject:
    """A bread of the house for a level: told as it is meant to be."""
    name, kind, hotter_k, mm, cm, water, _ = draw.pick(0, [row for row in HOUSE if row[-1] <= draw.level])
    bread = Bread(
        mm / 1000, cm / 100, (water + FLOUR_WATER) / (1 - FLOUR_WATER), draw.between(1, *DOUGH_C), rise_g=GROWS
    )
    usual = Surface(kind, 0.0).spec.usual_c
    surface = Surface(kind, usual + hotter_k + 10 * round(draw.between(2, -1.5, 1.5)))
    return Subject(name, bread, surface, SURFACE_SD_K[draw.level - 1], BROWNING_SD[draw.level - 1])


def call_case(draw: Draw, own: Subject | None = None) -> Call:
    """The case of a draw: of the house, or a bread of one's own. Redrawn where no moment to turn or to end it is."""
    told = own or house(draw)
    case = _hidden(draw, told, 0)
    for number in range(1, TRIES):
        if case.turn_s > 0 and off_window(case, case.due).low_s is not None:
            break
        case = _hidden(draw, told, number)
    return case


def _hidden(draw: Draw, told: Subject, number: int) -> Call:
    z = [draw.normal(10 + 5 * number + i) for i in range(5)]
    bread, surface = told.bread, told.surface
    true = replace(
        bread,
        thickness_m=bread.thickness_m * math.exp(THICKNESS_SD * z[1]),
        water_per_dry=bread.water_per_dry * math.exp(WATER_SD * z[2]),
        browning=bread.browning * math.exp(told.browning_sd * z[3]),
    )
    hot = Baking(laid_on(true, surface), surface, altitude_m=told.altitude_m)
    return Call(draw.level, told, hot.at(surface.temp_c + told.surface_sd_k * z[4]), math.exp(CONTACT_SD * z[0]))


def off_window(case: Call, baked: Baked) -> Off:
    """The span in which a bread that was turned may come off: done, its pocket full if it fills, both faces light;
    until it is dry, or four fifths of the way from golden to black."""
    e = baked.events
    light = [reached_s(e, face, "light") for face in ("bottom", "top")]
    if e["done"] is None or None in light:
        return Off(None, None, float(baked.s[-1]))
    low = max(e["done"], e["full"] or 0.0, *(s for s in light if s is not None))
    gold, char = e["golden_top"], e["char_top"]
    dark = None if gold is None or char is None else gold + OF_THE_WAY * (char - gold)
    high = max(low, min(s for s in (dark, e["too_dry"], float(baked.s[-1])) if s is not None))
    return Off(low, high, min(max(PAST * low, high) + PAST_S, float(baked.s[-1])))


def turn_points(case: Call, at_s: float) -> float:
    """Points of a turn at an instant [s]: 50 at the right one."""
    return HALF * math.exp(-0.5 * (math.log(max(at_s, 0.1) / case.turn_s) / case.width()) ** 2)


def off_points(window: Off, at_s: float) -> float:
    """Points of an end at an instant [s]: 50 within its window, 0 where the bread never is done."""
    gap = window.gap_s(at_s)
    if gap is None or window.low_s is None:
        return 0.0
    return HALF * math.exp(-abs(gap) / (GAP_WIDTH * window.low_s))


@dataclass(frozen=True)
class Looks:
    """The look of a bread at one second: share of its bubbles (1: they show all over), of its upper face that is
    dull, doses of browning and charring of the upper and the lower face over what reads as golden and as spots, the
    pocket's share, and its height [mm]."""

    s: float
    bubbles: float
    dull: float
    brown: float
    char: float
    brown_below: float
    char_below: float
    pocket: float
    height_mm: float


def film(case: Call, baked: Baked, until_s: float) -> list[Looks]:
    """A bread second by second, as it is seen."""
    rows = baked.s <= until_s + 1e-9
    turn = baked.events["flip"]
    swell = _swell(baked, case.true.bread)
    seen = _at(baked, swell, baked.events["bubbles"])
    dull = _dull(baked)
    thick_mm = case.true.bread.thickness_m * 1000
    found = []
    for i in np.flatnonzero(rows):
        up = 1 if turn is None or baked.s[i] < turn else 0  # the face that is seen: B, then A
        pocket = float(baked.pocket[i])
        grown = float(np.clip(swell[i] / seen, 0.0, 1.5)) if seen > 0 else 0.0
        found.append(
            Looks(
                float(baked.s[i]),
                grown,
                float(dull[i, up]),
                float(baked.browned[i, up] / GOLDEN),
                float(baked.charred[i, up] / CHARRED),
                float(baked.browned[i, 1 - up] / GOLDEN),
                float(baked.charred[i, 1 - up] / CHARRED),
                pocket,
                thick_mm * (1 + 0.15 * min(grown, 1.0)) + pocket * case.true.bread.diameter_m * 250,
            )
        )
    return found


@lru_cache(maxsize=1)
def _vapour() -> tuple[Array, Array]:
    """Saturation pressure of water [Pa] by kelvins: (C, Pa)."""
    at_c = np.arange(-30.0, 360.0)
    return at_c, np.array([saturation_pressure_pa(float(c)) for c in at_c])


def _swell(baked: Baked, bread: Bread) -> Array:
    """The swelling of the sheet by its warming gas, by row: the mean of its growth over the depth [-]."""
    pressure = SEA_LEVEL_PA
    dry0 = pressure - float(saturation_pressure_pa(bread.temp_c))
    vapour = np.interp(baked.temp_c, *_vapour())
    grown = (baked.temp_c + 273.15) / (bread.temp_c + 273.15) * dry0 / np.maximum(pressure - vapour, 0.02 * pressure)
    return np.asarray(np.maximum(np.mean(np.minimum(grown, 10.0), axis=1) - 1.0, 0.0))


def _dull(baked: Baked) -> Array:
    """Share of each face that has set, by row: by its way from the start to the heat at which it sets."""
    share = np.zeros((len(baked.s), 2))
    for face, name in ((0, "bottom_set"), (1, "top_set")):
        skin = baked.temp_c[:, -face]
        set_c = _at(baked, skin, baked.events[name])
        if set_c > skin[0]:
            share[:, face] = np.maximum.accumulate(np.clip((skin - skin[0]) / (set_c - skin[0]), 0.0, 1.0))
    return share


def _at(baked: Baked, values: Array, at_s: float | None) -> float:
    """A value at an instant [s]; 0 where there is none."""
    return 0.0 if at_s is None else float(np.interp(at_s, baked.s, values))


SIGNS = {
    "bubbles": "bubbles all over",
    "top_set": "dull all over",
    "light_bottom": "first brown beneath",
    "golden_bottom": "golden beneath",
    "puff": "the pocket opens",
    "full": "the pocket is full",
    "golden_top": "the other side golden",
    "done": "cooked through",
    "too_dry": "too dry",
}


def signs(baked: Baked, after_s: float, until_s: float) -> list[tuple[float, str]]:
    """The signs in a stretch of time: (second, words), in their order."""
    found = [(t, words) for name, words in SIGNS.items() if (t := baked.events[name]) and after_s < t <= until_s]
    return sorted(found)


@dataclass(frozen=True)
class Became:
    """A bread as it came off: its pocket's share, the colour words of its faces, moisture lost, and whether it is
    cooked through."""

    pocket: float
    bottom: str
    top: str
    loss_frac: float
    cooked: bool


def became(baked: Baked, off_s: float) -> Became:
    """The bread at an instant [s]."""
    row = min(int(np.searchsorted(baked.s, off_s)), len(baked.s) - 1)
    brown, char = baked.browned[row], baked.charred[row]
    done = baked.events["done"]
    return Became(
        float(baked.pocket[row]),
        word_of(float(brown[0]), float(char[0])),
        word_of(float(brown[1]), float(char[1])),
        float(baked.loss[row]),
        done is not None and done <= off_s,
    )


def why_turn(case: Call) -> Why:
    """The right moment to turn, explained: what it is by, and what was hidden."""
    told, true = case.told, case.true
    hidden: Sequence[Input] = (
        Input("surface as told", told.surface.temp_c, "C"),
        Input("surface as it was", round(true.surface.temp_c, 1), "C"),
        Input("thickness as told", round(told.bread.thickness_m * 1000, 2), "mm"),
        Input("thickness as it was", round(true.bread.thickness_m * 1000, 2), "mm"),
        Input("how well it lay there", round(case.contact, 2), "x"),
        Input("how fast it browned", round(true.bread.browning / told.bread.browning, 2), "x"),
    )
    return Why(
        "The right moment to turn",
        "first second at which the face below is coloured and the face above is dull",
        "The puff model bakes this bread with what was hidden, and stops its first side by the two signs that a cook "
        "goes by. Everything else follows from the surface, the sheet and how well it lies.",
        tuple(hidden),
        Kind.FITTED,
        matters=("how well it lies on the surface", "how hot the surface is", "thickness"),
    )
