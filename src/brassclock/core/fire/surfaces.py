"""The hot surfaces: what each gives a bread from below and above, and how it comes back after one.

Faces (gas C, convection W/m2K, radiation C, emissivity, vapour Pa) and hob fluxes are practice and
judgement; materials are handbook order, from memory.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from brassclock.core.fire.puff.model import Face, Plate
from brassclock.core.fire.puff.params import MATERIALS

Array = NDArray[np.float64]
HOB_W_M2 = {"low": 8_000.0, "medium": 12_000.0, "medium_high": 16_000.0, "high": 22_000.0}
OPEN_FACE = Face(30, 10, 30, 0.9, 1200)
RECOVERED_K = 20.0  # judgement: near enough to the start for the next bread
RECOVER_LIMIT_S = 900.0


@dataclass(frozen=True)
class SurfaceKind:
    """A kind of surface: its usual plate, whether an oven surrounds it, and its working range [C]."""

    name: str
    material: str
    thickness_mm: float
    oven: bool
    need_c: float
    most_c: float
    usual_c: float
    preheat_min: float


KINDS: dict[str, SurfaceKind] = {
    "stone_oven": SurfaceKind("Baking stone in an oven", "stone", 15, True, 230, 330, 275, 45),
    "steel_oven": SurfaceKind("Steel in an oven", "steel", 6, True, 230, 330, 265, 40),
    "iron_plate": SurfaceKind("Iron plate", "iron", 6, False, 190, 300, 240, 10),
    "skillet": SurfaceKind("Skillet", "iron", 5, False, 190, 300, 230, 6),
}
LATER_KINDS = ("clay_wall", "inverted_plate", "lidded_pan", "flame_oven", "oil", "pan_then_grill")


@dataclass(frozen=True)
class Surface:
    """A surface in use: kind, temperature [C], hob power for plates, oven air [C] for stones."""

    kind: str
    temp_c: float
    power: str = "medium_high"
    oven_c: float | None = None
    material: str | None = None
    thickness_mm: float | None = None

    @property
    def spec(self) -> SurfaceKind:
        return KINDS[self.kind]

    @property
    def plate(self) -> Plate:
        return Plate(
            self.material or self.spec.material, (self.thickness_mm or self.spec.thickness_mm) / 1000, self.temp_c
        )

    @property
    def air_c(self) -> float:
        """Oven air, or the kitchen above a plate [C]."""
        if not self.spec.oven:
            return OPEN_FACE.gas_c
        return self.oven_c if self.oven_c is not None else self.temp_c

    @property
    def top(self) -> Face:
        return Face(self.air_c, 15, self.air_c, 0.9, 3000) if self.spec.oven else OPEN_FACE

    @property
    def below(self) -> tuple[float, float, float]:
        """(flux W/m2, back temperature C, back coefficient W/m2K) beneath the plate."""
        if self.spec.oven:
            return 0.0, self.air_c, 30.0
        return HOB_W_M2[self.power], 25.0, 8.0


def recovery_s(surface: Surface, plate_cells_c: Array, pause_s: float = RECOVER_LIMIT_S) -> tuple[float | None, Array]:
    """Seconds until the emptied surface is back within 20 K of its start, and its cells after `pause_s`.

    None when it is not back within `pause_s`. The contact face lies under its open or oven air; the
    hob gives all it has until the start is reached.
    """
    return idle(surface.plate, plate_cells_c, surface.top, surface.below, pause_s)


def idle(
    plate: Plate, plate_cells_c: Array, top: Face, below: tuple[float, float, float], pause_s: float
) -> tuple[float | None, Array]:
    """An empty plate left for `pause_s`: when it is within 20 K of its own start, and its cells then.

    One-dimensional conduction, backward Euler of 1 s. Cells run from the back to the contact face.
    """
    mat = MATERIALS[plate.material]
    count = len(plate_cells_c)
    width = 1.6 ** np.arange(count)[::-1]
    dz = plate.thickness_m * width / width.sum()
    flux, back_c, back_h = below
    tk, rk = plate.temp_c + 273.15, top.rad_c + 273.15
    h_top = top.h_w_m2k + top.emissivity * 5.67e-8 * (tk**2 + rk**2) * (tk + rk) + 1e-12
    te = (top.h_w_m2k * top.gas_c + (h_top - top.h_w_m2k) * top.rad_c) / h_top
    matrix = np.diag(mat.rho * mat.c * dz)
    given = np.zeros(count)
    for j in range(count - 1):
        g = mat.k / (0.5 * (dz[j] + dz[j + 1]))
        matrix[j, j] += g
        matrix[j + 1, j + 1] += g
        matrix[j, j + 1] -= g
        matrix[j + 1, j] -= g
    for at, h, t in ((0, back_h + 1e-12, back_c), (-1, h_top, te)):
        g = 1 / (1 / h + dz[at] / 2 / mat.k)
        matrix[at, at] += g
        given[at] += g * t
    inverse = np.linalg.inv(matrix)
    cells = np.array(plate_cells_c, dtype=float)
    back_at: float | None = None
    for second in range(math.ceil(pause_s)):
        if back_at is None and cells[-1] >= plate.temp_c - RECOVERED_K:
            back_at = float(second)
        fired = given.copy()
        if cells[-1] < plate.temp_c:
            fired[0] += flux
        cells = inverse @ (mat.rho * mat.c * dz * cells + fired)
    return back_at, cells
