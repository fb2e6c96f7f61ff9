"""A surface by itself: how it gets hot, what holds it there, how it drifts when left, how it comes back after a bread,
when to wipe it.

One-dimensional conduction through the plate, its faces as the surface has them. What heats it is data: fluxes, ramps
and settling times are practice and judgement, the heat of charcoal is published (from memory).
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.model import Face, Plate
from brassclock.core.fire.puff.params import MATERIALS, PARAMS
from brassclock.core.fire.surfaces import HOB_W_M2, OPEN_FACE, Surface, oven_face
from brassclock.core.matter.air import GAS_CONSTANT_J_MOLK

Array = NDArray[np.float64]
RECOVERED_K_FROM = "near enough to the start for the next bread; a clay oven's range is wide"
RECOVERED_K = {
    "wall": Param(60.0, "K", 30, 120, Kind.JUDGEMENT, RECOVERED_K_FROM),
    "floor": Param(40.0, "K", 20, 80, Kind.JUDGEMENT, RECOVERED_K_FROM),
    "oven": Param(45.0, "K", 22.5, 90, Kind.JUDGEMENT, RECOVERED_K_FROM),
}
RECOVERED_USUAL_K = Param(20.0, "K", 10, 40, Kind.JUDGEMENT, "near enough to the start for the next bread")
RECOVER_LIMIT_S = Param(900.0, "s", 600, 1800, Kind.JUDGEMENT, "longest wait for a surface")
OIL_KG = Param(1.5, "kg", 0.7, 3, Kind.JUDGEMENT, "a small wok of oil")
OIL_J_KGK = Param(2000.0, "J/(kg K)", 1700, 2300, Kind.PUBLISHED_FROM_MEMORY, "heat capacity of oil, handbook order")
OIL_W = Param(1200.0, "W", 700, 2000, Kind.JUDGEMENT, "of the flame that reaches the oil")
ROOM_C = Param(20.0, "C", 15, 28, Kind.JUDGEMENT, "the kitchen about a cold surface")
CELLS = 10
HOT_ENOUGH_K = Param(5.0, "K", 2, 10, Kind.JUDGEMENT, "below what is wanted counts as there")
SOAKED = Param(
    0.6, "-", 0.4, 0.8, Kind.JUDGEMENT, "of a thick wall's own rise, on the mean, before it gives what it gets"
)
OVEN_RAMP_MIN = Param(20.0, "min", 10, 35, Kind.PRACTICE, "a kitchen oven's air to its setting")
WALL_FIRE_W_M2_FROM = "into a wall or a floor"
WALL_FIRE_W_M2 = {
    "charcoal": Param(7_500.0, "W/m2", 4500, 12000, Kind.JUDGEMENT, WALL_FIRE_W_M2_FROM),
    "gas": Param(8_000.0, "W/m2", 4800, 12800, Kind.JUDGEMENT, WALL_FIRE_W_M2_FROM),
    "electric": Param(6_000.0, "W/m2", 3600, 9600, Kind.JUDGEMENT, WALL_FIRE_W_M2_FROM),
    "ceramic": Param(6_000.0, "W/m2", 3600, 9600, Kind.JUDGEMENT, WALL_FIRE_W_M2_FROM),
}
FLOOR_FIRE_W_M2_FROM = "set so that a flame oven's floor is ready in about twenty minutes on high"
FLOOR_FIRE_W_M2 = {
    "gas": Param(9_000.0, "W/m2", 5400, 14400, Kind.PRACTICE, FLOOR_FIRE_W_M2_FROM),
}
WALL_BACK_H = Param(3.0, "W/(m2 K)", 1, 8, Kind.JUDGEMENT, "an insulated back")
WALL_AREA_M2_FROM = "inside of a clay oven; set by the charcoal that is usual at home (2.5 to 2.7 kg)"
WALL_AREA_M2 = {
    "home": Param(0.57, "m2", 0.342, 0.912, Kind.PRACTICE, WALL_AREA_M2_FROM),
    "canteen": Param(0.9, "m2", 0.54, 1.44, Kind.PRACTICE, WALL_AREA_M2_FROM),
}
CHARCOAL_J_KG = Param(29e6, "J/kg", 26e6, 32e6, Kind.PUBLISHED_FROM_MEMORY, "heating value of charcoal")
CHARCOAL_SHARE = Param(0.20, "-", 0.1, 0.35, Kind.JUDGEMENT, "of charcoal's heat that ends up in the wall")
LIGHTING_S_FROM = "until the coals glow and the flames are down"
LIGHTING_S = {
    "charcoal": Param(1500.0, "s", 900, 2400, Kind.PRACTICE, LIGHTING_S_FROM),
}
SETTLES_S_FROM = "until a change of the fire is felt"
SETTLES_S = {
    "gas": Param(15.0, "s", 7.5, 30, Kind.PRACTICE, SETTLES_S_FROM),
    "ceramic": Param(90.0, "s", 45, 180, Kind.PRACTICE, SETTLES_S_FROM),
    "electric": Param(120.0, "s", 60, 240, Kind.PRACTICE, SETTLES_S_FROM),
    "charcoal": Param(900.0, "s", 450, 1800, Kind.PRACTICE, SETTLES_S_FROM),
}
MOST_PREHEAT_S, HOPELESS_S = 4 * 3600.0, 7200.0
MOST_WIPE = 12
KNOB_SLACK = Param(1.15, "-", 1.05, 1.3, Kind.JUDGEMENT, "a knob is no finer than this")
COVERED = Param(0.55, "-", 0.35, 0.8, Kind.JUDGEMENT, "share of a heated plate that its bread covers")
KNOBS = tuple(HOB_W_M2)  # from the weakest


class _Alone:
    """A plate with nothing on it, stepped by a second: cells from the back to the contact face."""

    def __init__(self, plate: Plate, count: int, h_back: float, h_top: float) -> None:
        mat = MATERIALS[plate.material]
        width = 1.6 ** np.arange(count)[::-1]
        dz = plate.thickness_m * width / width.sum()
        self.store = mat.rho * mat.c * dz
        matrix = np.diag(self.store)
        for j in range(count - 1):
            g = mat.k / (0.5 * (dz[j] + dz[j + 1]))
            matrix[j : j + 2, j : j + 2] += g * np.array([[1, -1], [-1, 1]])
        self.outward = [1 / (1 / (h + 1e-12) + dz[at] / 2 / mat.k) for at, h in ((0, h_back), (-1, h_top))]
        matrix[0, 0] += self.outward[0]
        matrix[-1, -1] += self.outward[1]
        self.inverse = np.linalg.inv(matrix)

    def second(
        self, cells: Array, back_c: float, top_c: float, into_back: float = 0.0, into_face: float = 0.0
    ) -> Array:
        """The cells a second later; `into_*` are fluxes [W/m2]."""
        given = self.store * cells
        given[0] += self.outward[0] * back_c + into_back
        given[-1] += self.outward[1] * top_c + into_face
        return np.asarray(self.inverse @ given)


def _seen(top: Face, at_c: float) -> tuple[float, float]:
    """(coefficient [W/m2K], temperature [C]) of a face, radiation linearised at `at_c`."""
    tk, rk = at_c + 273.15, top.rad_c + 273.15
    h = top.h_w_m2k + top.emissivity * 5.67e-8 * (tk**2 + rk**2) * (tk + rk) + 1e-12
    return h, (top.h_w_m2k * top.gas_c + (h - top.h_w_m2k) * top.rad_c) / h


def oil_after(surface: Surface, taken_j_m2: float, area_m2: float) -> tuple[float, float]:
    """(temperature of the oil after a bread [C], seconds until it is back within 5 K)."""
    fall = taken_j_m2 * area_m2 / (OIL_KG * OIL_J_KGK)
    return surface.temp_c - fall, max(fall - 5.0, 0.0) * OIL_KG * OIL_J_KGK / OIL_W


def recovery_s(surface: Surface, plate_cells_c: Array, pause_s: float = RECOVER_LIMIT_S) -> tuple[float | None, Array]:
    """Seconds until the emptied surface is near enough its start again, and its cells after `pause_s`.

    None when it is not back within `pause_s`. The contact face lies under its open or oven air; the
    hob gives all it has until the start is reached.
    """
    near_k = RECOVERED_K.get(surface.spec.way, RECOVERED_USUAL_K)
    return idle(surface.plate, plate_cells_c, surface.empty, surface.below, pause_s, near_k)


def idle(
    plate: Plate,
    plate_cells_c: Array,
    top: Face,
    below: tuple[float, float, float],
    pause_s: float,
    near_k: float = RECOVERED_USUAL_K,
    held: bool = True,
) -> tuple[float | None, Array]:
    """An empty plate left for `pause_s`: when it is within `near_k` of its own start, and its cells then.

    `held`: the fire is turned off while the face is at its start, else it burns on. Cells run from the back to the
    contact face.
    """
    flux, back_c, back_h = below
    h_top, te = _seen(top, plate.temp_c)
    alone = _Alone(plate, len(plate_cells_c), back_h, h_top)
    cells = np.array(plate_cells_c, dtype=float)
    back_at: float | None = None
    for second in range(math.ceil(pause_s)):
        if back_at is None and cells[-1] >= plate.temp_c - near_k:
            back_at = float(second)
        cells = alone.second(cells, back_c, te, flux if cells[-1] < plate.temp_c or not held else 0.0)
    return back_at, cells


@dataclass(frozen=True)
class Heating:
    """Heating behaviour of a surface.

    `preheat_s`: from a cold kitchen, at the power it is set to (None: it does not get there). `charcoal_kg`: what its
    stored heat asks for. `settles_s`: until a change of the fire is felt. `drift_k_min`: how an empty surface goes when
    the fire is left as it is. `hold`: the lowest power that carries the line (None: not even the highest; no knob is
    turned where there is none). `wipe_every`: breads until flour left there chars.
    """

    preheat_s: float | None
    charcoal_kg: float | None
    settles_s: float
    drift_k_min: float
    hold: str | None
    knob: bool
    wipe_every: int | None


def heating(surface: Surface, bread_j_m2: float, cycle_s: float, room_c: float = ROOM_C) -> Heating:
    """The heating of a surface whose breads take `bread_j_m2` each, one to a spot every `cycle_s` seconds."""
    knob = surface.spec.way in ("turned", "lidded", "inverted", "grill")
    wanted = lost_w_m2(surface) + COVERED * bread_j_m2 / max(cycle_s, 1.0)
    return Heating(
        preheat_s(surface, room_c),
        _charcoal_kg(surface, room_c) if surface.spec.way == "wall" and surface.heat_kind == "charcoal" else None,
        SETTLES_S[surface.heat_kind],
        drift_k_min(surface),
        next((k for k in KNOBS if KNOB_SLACK * HOB_W_M2[k] >= wanted), None) if knob else None,
        knob,
        wipe_every(surface, cycle_s),
    )


def preheat_min(surface: Surface) -> float:
    """Minutes to plan for getting hot, in fives; two hours where the power does not get it there."""
    seconds = preheat_s(surface)
    return 5.0 * math.ceil((HOPELESS_S if seconds is None else seconds) / 300)


@lru_cache(maxsize=256)
def preheat_s(surface: Surface, room_c: float = ROOM_C) -> float | None:
    """Seconds from a cold kitchen until the face is hot enough, and a thick wall has soaked; None when this power does
    not get it there.

    A hob heats the plate from beneath; an oven's air climbs to its setting and heats stone or steel from both sides; a
    wall or a floor takes its fire on the face. Oil is one well-stirred mass.
    """
    wanted, way = surface.temp_c - HOT_ENOUGH_K, surface.spec.way
    if wanted <= room_c:
        return 0.0
    if way == "oil":
        return OIL_KG * OIL_J_KGK * (wanted - room_c) / OIL_W
    if way == "tray":
        return 60 * OVEN_RAMP_MIN
    fired = way in ("wall", "floor")
    flux, _, back_h = (0.0, room_c, WALL_BACK_H) if fired else surface.below
    cells, fire = np.full(CELLS, room_c), _fire_w_m2(surface) if fired else 0.0
    for second in range(int(MOST_PREHEAT_S)):
        air = (
            min(surface.air_c, room_c + (surface.air_c - room_c) * second / (60 * OVEN_RAMP_MIN))
            if surface.spec.air_heated
            else room_c
        )
        if second % 60 == 0:  # radiation about where the face is now
            h = _seen(oven_face(air, surface.fan) if way == "oven" else OPEN_FACE, float(cells[-1]))[0]
            alone = _Alone(surface.plate, CELLS, h if way == "oven" else back_h, 0.0 if fired else h)
        soaked = not fired or float(alone.store @ cells / alone.store.sum()) >= room_c + SOAKED * (
            surface.temp_c - room_c
        )
        if cells[-1] >= wanted and soaked:
            return float(second) + (LIGHTING_S.get(surface.heat_kind, 0.0) if fired else 0.0)
        cells = alone.second(cells, air, air, flux, fire if cells[-1] < surface.temp_c else 0.0)
    return None


def _fire_w_m2(surface: Surface) -> float:
    """Heat flux of the fire into a wall or a floor [W/m2]."""
    usual = WALL_FIRE_W_M2[surface.heat_kind]
    return FLOOR_FIRE_W_M2.get(surface.heat_kind, usual) if surface.spec.way == "floor" else usual


def _charcoal_kg(surface: Surface, room_c: float) -> float:
    """Charcoal for the heat that the wall stores."""
    mat, plate = MATERIALS[surface.plate.material], surface.plate
    stored_j = (
        mat.rho
        * mat.c
        * plate.thickness_m
        * WALL_AREA_M2[surface.size]
        * 0.5
        * (1 + SOAKED)
        * (surface.temp_c - room_c)
    )
    return stored_j / (CHARCOAL_J_KG * CHARCOAL_SHARE)


def lost_w_m2(surface: Surface) -> float:
    """Heat loss of an empty plate to the kitchen [W/m2]."""
    h, seen_c = _seen(surface.empty, surface.temp_c)
    _, back_c, back_h = surface.below
    return h * (surface.temp_c - seen_c) + back_h * (surface.temp_c - back_c)


def drift_k_min(surface: Surface) -> float:
    """Drift of an empty surface with its fire left as it is [K/min]; 0 where a thermostat or a fire keeps it."""
    if surface.spec.way in ("oven", "tray", "floor", "wall", "oil"):
        return 0.0
    _, cells = idle(surface.plate, np.full(CELLS, surface.temp_c), surface.empty, surface.below, 60.0, held=False)
    return float(cells[-1]) - surface.temp_c


def wipe_every(surface: Surface, cycle_s: float) -> int | None:
    """Breads until the flour that one left there chars; None where nothing is dusted or left lying."""
    if surface.spec.way in ("wall", "oil", "tray") or surface.greased != "dry":
        return None
    char_k = PARAMS["char_ea"].value / GAS_CONSTANT_J_MOLK
    rate = PARAMS["char_300"].value * math.exp(-char_k * (1 / (surface.temp_c + 273.15) - 1 / 573.15))
    return max(1, min(int(1 / rate / max(cycle_s, 1.0)), MOST_WIPE))
