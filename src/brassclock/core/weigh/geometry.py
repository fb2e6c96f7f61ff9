"""Piece geometry: mass, area and thickness of a rolled sheet, any one from the other two."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import SHEET_GAS_FRAC, Dough, dough_density_kg_m3

KEEPS_GAS_MM = (5.5, 8.5)  # judgement: rolled so thin a light piece has lost its gas; pressed out so thick it kept it
PRESSED_GAS_FRAC = Param(
    0.34, "-", 0.2, 0.4, Kind.PRACTICE, "gas of a risen piece pressed out thick: 9 cm cut at 12 mm weigh some 63 g"
)
SODA_GAS_FRAC = Param(
    0.25,
    "-",
    0.12,
    0.35,
    Kind.JUDGEMENT,
    "gas of a soda dough patted out thick, from its mixing; stated times",
)
AGREE_FRAC = Param(0.12, "-", 0.05, 0.2, Kind.JUDGEMENT, "within rolling skill")


@dataclass(frozen=True)
class Shape:
    """Shape of a rolled piece as given; `kind` is round, oval or quarter (of a round)."""

    kind: str = "round"
    diameter_cm: float | None = None
    length_cm: float | None = None
    width_cm: float | None = None
    thickness_mm: float | None = None


@dataclass(frozen=True)
class Sheet:
    """A rolled piece, all of it known."""

    thickness_mm: float
    diameter_cm: float
    area_cm2: float


def sheet_density_g_cm3() -> float:
    """Density of a rolled sheet, about 1.10 g/mL."""
    return dough_density_kg_m3(SHEET_GAS_FRAC) / 1000


def dense_mm(pressed: float, kept_frac: float) -> float:
    """Thickness [mm] that a light piece pressed out to `pressed` [mm] would have as a rolled sheet without its gas.

    `kept_frac` is the gas that it keeps when it is thick.

    >>> round(dense_mm(5.0, 0.34), 2), round(dense_mm(12.0, 0.34), 2)
    (5.0, 9.0)
    """
    gas = float(np.interp(pressed, KEEPS_GAS_MM, (SHEET_GAS_FRAC.value, kept_frac)))
    return pressed * (1 - gas) / (1 - SHEET_GAS_FRAC)


def pressed_mm(dense: float, kept_frac: float) -> float:
    """Thickness [mm] of a light piece whose mass and area are those of a rolled sheet of `dense` [mm].

    >>> [round(pressed_mm(dense_mm(x, 0.34), 0.34), 2) for x in (12.0, 7.0)], pressed_mm(3.4, 0.34)
    ([12.0, 7.0], 3.4)
    """
    thin, light = KEEPS_GAS_MM[0], (1 - kept_frac) / (1 - SHEET_GAS_FRAC)
    if dense <= thin:
        return dense
    if dense >= dense_mm(KEEPS_GAS_MM[1], kept_frac):
        return dense / light
    between = np.linspace(*KEEPS_GAS_MM, 31)
    return float(np.interp(dense, [dense_mm(x, kept_frac) for x in between], between))


def kept_gas_frac(dough: Dough) -> float:
    """Gas fraction that a thick piece of a dough keeps: of a risen one, of one with soda or powder, of neither."""
    if dough.has_ferment:
        return PRESSED_GAS_FRAC.value
    return SODA_GAS_FRAC.value if dough.has_soda else SHEET_GAS_FRAC.value


def area_cm2(shape: Shape) -> float | None:
    """Area [cm2] of the shape, None when its size was not given."""
    if shape.kind == "oval":
        if shape.length_cm and shape.width_cm:
            return math.pi / 4 * shape.length_cm * shape.width_cm
        return None
    if not shape.diameter_cm:
        return None
    whole = math.pi / 4 * shape.diameter_cm**2
    return whole / 4 if shape.kind == "quarter" else whole


def thickness_mm(mass_g: float, area: float) -> float:
    """Thickness [mm] of `mass_g` [g] rolled to `area` [cm2].

    >>> round(thickness_mm(95, math.pi / 4 * 18**2), 1), round(thickness_mm(107, math.pi / 4 * 21**2), 1)
    (3.4, 2.8)
    """
    return mass_g / (sheet_density_g_cm3() * area) * 10


def _g_cm2(thick_mm: float, kept_frac: float) -> float:
    """Grams that a piece of so much thickness has on a square centimetre."""
    return sheet_density_g_cm3() * dense_mm(thick_mm, kept_frac) / 10


def _laid_mm(mass_g: float, area: float, kept_frac: float) -> float:
    """Thickness [mm] of `mass_g` [g] laid out to `area` [cm2]."""
    return pressed_mm(thickness_mm(mass_g, area), kept_frac)


def sheet_of(mass_g: float, shape: Shape, *, kept_frac: float = SHEET_GAS_FRAC.value) -> Sheet | None:
    """The sheet that `mass_g` gives at this size, or at this thickness when no size was given. A piece that is
    pressed out thick keeps `kept_frac` of gas, and is thicker for its weight."""
    area = area_cm2(shape)
    if area is None:
        if not shape.thickness_mm:
            return None
        area = mass_g / _g_cm2(shape.thickness_mm, kept_frac)
    thick = _laid_mm(mass_g, area, kept_frac)
    whole = area * 4 if shape.kind == "quarter" else area
    return Sheet(thick, math.sqrt(4 * whole / math.pi), area)


def disagreement(mass_g: float, shape: Shape, *, kept_frac: float = SHEET_GAS_FRAC.value) -> str | None:
    """The sentence when mass, size and thickness do not fit one another."""
    area = area_cm2(shape)
    if area is None or not shape.thickness_mm:
        return None
    real = _laid_mm(mass_g, area, kept_frac)
    if abs(real / shape.thickness_mm - 1) <= AGREE_FRAC:
        return None
    size = f"{shape.length_cm:g} x {shape.width_cm:g} cm" if shape.kind == "oval" else f"{shape.diameter_cm:g} cm"
    fitting_g = _g_cm2(shape.thickness_mm, kept_frac) * area
    return (
        f"{mass_g:.0f} g at {size} is about {real:.1f} mm, not {shape.thickness_mm:g} mm. "
        f"For {shape.thickness_mm:g} mm at that size roll {fitting_g:.0f} g."
    )


def fits_on(width_cm: float, depth_cm: float, diameter_cm: float) -> int:
    """Rounds of `diameter_cm` that lie on a rectangle at once: the better of square rows and staggered rows.

    >>> fits_on(40, 40, 18), fits_on(36, 33.6, 18)
    (4, 3)
    """
    if diameter_cm > min(width_cm, depth_cm):
        return 0
    best = 0
    for across, along in ((width_cm, depth_cm), (depth_cm, width_cm)):
        per_row = math.floor(across / diameter_cm + 1e-9)
        best = max(best, per_row * math.floor(along / diameter_cm + 1e-9))
        rows = 1 + math.floor((along - diameter_cm) / (diameter_cm * math.sqrt(3) / 2) + 1e-9)
        shifted = math.floor((across - diameter_cm / 2) / diameter_cm + 1e-9)
        best = max(best, per_row * math.ceil(rows / 2) + shifted * (rows // 2))
    return best
