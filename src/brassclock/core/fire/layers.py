"""Properties of a sheet before the heat: how far it will swell, and its layers when filled or topped."""

from __future__ import annotations

import math
from dataclasses import replace

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.model import Bread
from brassclock.core.matter.dough import Dough
from brassclock.core.weigh.soda import soda_left

FILLING_WATER_PER_DRY = Param(1.8, "kg/kg", 1, 3, Kind.JUDGEMENT, "a cooked filling of about two thirds water")
MOST_SHARE = Param(1.5, "-", 1, 2, Kind.PRACTICE, "more filling than one and a half times its dough tears it")

LEAN_SUGAR = Param(0.02, "-", 0.01, 0.04, Kind.JUDGEMENT, "of the flour: its own sugar and what its starch gives")
MOST_BROWNING = Param(2.5, "-", 1.5, 4, Kind.JUDGEMENT, "fastest browning over a lean dough")
SODA_GAIN = Param(0.3, "-", 0.1, 0.6, Kind.FITTED, "of browning, per gram of soda in 100 g of flour; stated times")
SOUR_LOSS = Param(
    0.7, "-", 0.3, 1, Kind.FITTED, "of browning, per gram of soda's worth of acid in 100 g of flour; stated times"
)
MOST_MM = 45  # of a bread before it swells
PROVED_RISE = Param(1.25, "-", 1.1, 1.5, Kind.PRACTICE, "what a proved roll still springs in the oven")
PROVED_RHO = Param(620.0, "kg/m3", 450, 800, Kind.JUDGEMENT, "a proved roll")
DENSE_RHO = Param(1150.0, "kg/m3", 1080, 1220, Kind.PUBLISHED_FROM_MEMORY, "dough without gas, handbook order")
LIGHT_MM = [5.5, 8.5]  # judgement, of the dough without gas: rolled so thin it lost its gas; so thick it proves again
HEAPED_MM = [9.0, 15.0]  # judgement: pressed out flat up to the first, shaped by hand from the second
HEAP = Param(
    1.35, "-", 1, 1.5, Kind.JUDGEMENT, "height of a hand-shaped round in its middle over its mean, stated times in view"
)
YEASTED_RISE = Param(1.15, "-", 1.05, 1.4, Kind.JUDGEMENT, "swelling of a yeasted sheet in the heat before it parts")


def chemical_rise(thickness_mm: float, in_oven: bool = False) -> float:
    """Swelling ratio of a sheet lifted by soda or powder (judgement: thin ones hold less; thick ones crust first on a
    plate, and rise to some 2 mL/g in an oven).

    >>> chemical_rise(6.0), chemical_rise(15.0), chemical_rise(17.0, in_oven=True)
    (2.0, 1.5, 2.0)
    """
    return float(np.interp(thickness_mm, [3.0, 6.0, 15.0], [1.2, 2.0, 2.0 if in_oven else 1.5]))


def heaped(bread: Bread) -> Bread:
    """A thick round shaped by hand and left to stand free in an oven: higher in its middle, which is done last, than
    its mass and size say."""
    share = float(np.interp(bread.thickness_m * 1000, HEAPED_MM, [0.0, 1.0]))
    return replace(bread, thickness_m=bread.thickness_m * (1 + share * (HEAP - 1)))


def yeasted(bread: Bread) -> Bread:
    """A yeasted sheet as it comes to the heat, of its thickness without gas: rolled out thin it lost its gas, pressed
    out thick it kept it and is as light as a proved roll."""
    keeps = float(np.interp(bread.thickness_m * 1000, LIGHT_MM, [0.0, 1.0]))
    if not keeps:
        return replace(bread, rise_g=YEASTED_RISE)
    rho = bread.rho_kg_m3 + keeps * (PROVED_RHO - bread.rho_kg_m3)
    risen = replace(proved(bread, rho), rise_g=YEASTED_RISE + keeps * (PROVED_RISE - YEASTED_RISE))
    return replace(risen, gas_frac=max(risen.gas_frac, bread.gas_frac))


def layered(bread: Bread, dough_g: float, filling_g: float) -> Bread:
    """A bread that carries so much filling or topping; it opens no pocket. Its middle must reach 75 C for meat or egg.

    >>> b = layered(Bread(0.004, 0.2, 0.8, 22.0), 100, 50)
    >>> round(b.thickness_m * 1000, 1), round(b.water_per_dry, 2), b.pocket
    (6.0, 1.04, False)
    """
    if filling_g <= 0:
        return bread
    dry, fill_dry = dough_g / (1 + bread.water_per_dry), filling_g / (1 + FILLING_WATER_PER_DRY)
    water = dry * bread.water_per_dry + fill_dry * FILLING_WATER_PER_DRY
    return replace(
        bread,
        thickness_m=bread.thickness_m * (dough_g + filling_g) / dough_g,
        water_per_dry=water / (dry + fill_dry),
        pocket=False,
    )


def proved(bread: Bread, rho_kg_m3: float = PROVED_RHO.value) -> Bread:
    """A roll that has risen in its tray: as light as a proved dough, and with a spring left."""
    return replace(
        bread,
        thickness_m=bread.thickness_m * bread.rho_kg_m3 / rho_kg_m3,
        rho_kg_m3=rho_kg_m3,
        gas_frac=1 - rho_kg_m3 / DENSE_RHO,
        rise_g=PROVED_RISE,
    )


def browning(dough: Dough) -> float:
    """Browning rate over that of a lean dough: by the sugars that colour (honey, malt, milk's own, and table sugar,
    which yeast splits), by soda left over, for an alkaline dough colours sooner, and by acid left over, for a sour one
    colours later. Directions published, sizes fitted.

    >>> from brassclock.core.matter.dough import dough_of_masses
    >>> lean = [("plain_flour", 500.0), ("water", 310.0)]
    >>> kinds = [], [("sugar", 10.0)], [("yoghurt_whole", 200.0)]
    >>> [round(browning(dough_of_masses([*lean, *more])), 2) for more in kinds]
    [1.0, 1.41, 1.02]
    """
    if not dough.flour_g:
        return 1.0
    left = soda_left(dough)
    sugars = (dough.hexose_g + dough.lactose_g + dough.sucrose_g) / dough.flour_g
    tint = min((1 + sugars / LEAN_SUGAR) ** 0.5, MOST_BROWNING)
    return float(tint * (1 + SODA_GAIN * min(max(left, 0.0), 1.0)) * math.exp(SOUR_LOSS * min(left, 0.0)))
