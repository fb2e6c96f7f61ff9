"""A thermometer without a thermometer: how hot a surface is by what it does to flour, water, fat or dough, and what an
infrared one should have read.

Every answer is a band. Flour by a browning law of its own; water, smoke and dough by the trade (common practice);
infrared by Stefan and Boltzmann.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.params import GOLDEN
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK

FLOUR_K = Param(42_000.0, "1/s", 2e4, 9e4, Kind.JUDGEMENT, "browning of loose flour; set so that 200 C takes a minute")
FLOUR_EA = Param(
    64_151.0,
    "J/mol",
    55000,
    75000,
    Kind.PUBLISHED_FROM_MEMORY,
    "browning of loose flour as of crust: Zanoni, Peri and Bruno 1995",
)
FLOUR_FACTOR = Param(1.30, "-", 1.1, 1.6, Kind.JUDGEMENT, "of its seconds, either way")
ROOM_C = Param(25.0, "C", 15, 32, Kind.JUDGEMENT, "the kitchen that a thermometer sees in a shiny surface")


@dataclass(frozen=True)
class Heat:
    """A surface temperature as a band [C], and what it means."""

    low_c: float
    middle_c: float
    high_c: float
    text: str


@dataclass(frozen=True)
class Smoke:
    """The first wisp of a fat [C]; common practice, 20 C either way."""

    name: str
    low_c: float
    high_c: float


SMOKES = {
    "butter": Smoke("butter", 150, 175),
    "olive_extra": Smoke("extra-virgin olive oil", 165, 200),
    "sunflower": Smoke("sunflower oil", 205, 230),
    "rapeseed": Smoke("rapeseed oil", 205, 230),
    "groundnut": Smoke("groundnut oil", 220, 240),
    "ghee": Smoke("ghee", 230, 250),
    "mustard": Smoke("mustard oil", 240, 260),
}
WATER = {  # what a drop does: band [C], common practice; the dance after Leidenfrost, published, 150 to 300 by surface
    "lies": (40.0, 100.0, "Below boiling: a drop lies there."),
    "sizzles": (110.0, 170.0, "A drop sizzles away at once: hot, not yet hot enough for bread."),
    "dances": (190.0, 260.0, "A drop runs about as a bead: bread may go on."),
    "vanishes": (170.0, 200.0, "A drop bursts and is gone: nearly there."),
}
DOUGH = {  # a pinch of dough in oil
    "sinks": (100.0, 150.0, "It sinks and hardly bubbles: too cool to fry."),
    "rises_slowly": (150.0, 170.0, "It rises slowly: a little longer."),
    "rises": (170.0, 195.0, "It comes up at once in fine bubbles: fry now."),
    "browns_at_once": (200.0, 230.0, "It browns within seconds: too hot, take it off the fire."),
}
EMISSIVITY_FROM = "handbook order"
EMISSIVITY = {
    "bare_steel": Param(0.4, "-", 0.32, 0.432, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
    "iron_seasoned": Param(0.9, "-", 0.72, 0.972, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
    "stone": Param(0.93, "-", 0.744, 1.0044, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
    "clay": Param(0.91, "-", 0.728, 0.9828, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
    "aluminium": Param(0.15, "-", 0.12, 0.162, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
    "glass": Param(0.92, "-", 0.736, 0.9936, Kind.PUBLISHED_FROM_MEMORY, EMISSIVITY_FROM),
}


def flour_gold_s(surface_c: float) -> float:
    """Seconds for a dusting of flour to turn golden on a bare surface.

    >>> [round(flour_gold_s(t)) for t in (200, 250)]
    [58, 12]
    """
    rate = FLOUR_K * math.exp(-FLOUR_EA / (GAS_CONSTANT_J_MOLK * (surface_c + 273.15)))
    return GOLDEN / rate


def by_flour(seconds: float) -> Heat:
    """From the seconds that flour took to turn golden; the band is its timing and its layer, 30 % either way."""

    def at(s: float) -> float:
        return FLOUR_EA / GAS_CONSTANT_J_MOLK / math.log(FLOUR_K * s / GOLDEN) - 273.15

    middle = at(seconds)
    return Heat(
        at(seconds * FLOUR_FACTOR),
        middle,
        at(seconds / FLOUR_FACTOR),
        f"Flour golden after {seconds:.0f} s, as its browning goes. Wipe it off.",
    )


def by_infrared(reads_c: float, material: str, set_emissivity: float = 0.95) -> Heat:
    """Temperature of a surface from an infrared reading at emissivity 0.95: the thermometer sees the surface by its
    own emissivity, and the room in it."""
    e = EMISSIVITY[material]
    room = (ROOM_C + 273.15) ** 4
    seen = set_emissivity * ((reads_c + 273.15) ** 4 - room)

    def at(emissivity: float) -> float:
        return float((seen / emissivity + room) ** 0.25 - 273.15)

    spread = 0.1 if e < 0.6 else 0.03
    found = at(e)
    far = (
        "Bare metal mirrors the room and reads far too low: rub on a spot of oil and measure there."
        if e < 0.6
        else "This surface reads nearly right; the little it mirrors is put right."
    )
    return Heat(
        at(min(e + spread, 1.0)),
        found,
        at(max(e - spread, 0.05)),
        far,
    )


def by_smoke(fat: str) -> Heat:
    """From the first wisp of smoke of a film of fat."""
    s = SMOKES[fat]
    middle = (s.low_c + s.high_c) / 2
    return Heat(s.low_c - 20, middle, s.high_c + 20, f"The first wisp of {s.name}. Open a window.")


def by_sign(signs: dict[str, tuple[float, float, str]], sign: str) -> Heat:
    """From what a drop of water or a pinch of dough does."""
    low, high, text = signs[sign]
    return Heat(low, (low + high) / 2, high, text)
