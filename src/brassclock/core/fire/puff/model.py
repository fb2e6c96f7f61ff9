"""The puff model: when one bread bubbles, sets, puffs, browns, is done and is too dry.

Symbols, equations, tests and known misses: docs/science.md, *Puff*. Validity: sheets of 2 to 8 mm on
stone, iron or steel at 150 to 400 C; times good to about 30 %.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from brassclock.core.compiled import Stepper
from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff import marks, stepper
from brassclock.core.fire.puff.params import DONE_BELOW_BOIL_C, DONE_MOST_C, DONE_THICK_C, MATERIALS, PARAMS
from brassclock.core.fire.puff.state import Film, Leg, Legs, Sheet, Tables
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.matter.steam import saturation_pressure_pa, saturation_temp_c

Array = NDArray[np.float64]
BETA = 1.6
SAT0_C, SAT_STEP_C, SAT_COUNT = -30.0, 0.25, 1601
X_LOW, X_COUNT = 0.004, 1024
LIVE_GRID = (20, 8)
COARSE_GRID = (12, 5)
GOLDEN_GAPS = -math.log(0.75)  # a face is golden when a quarter of it is: gaps are exponential about their mean
COLDER_K, HOTTEST_C = 5.0, 1000.0  # than it was laid on, of any bread; beyond that the steps ran away
THICK_GROWN_M = Param(0.0092, "m", 0.008, 0.011, Kind.PRACTICE, "what a sheet of 8 mm swells to")
bake_stepper = Stepper(stepper.bake, fastmath=True)


@dataclass(frozen=True)
class Bread:
    """A rolled piece. `water_per_dry` X0 [kg/kg]; `rise_g` is the most the sheet swells before it parts; `browning` is
    how fast it browns over a lean dough.
    """

    thickness_m: float
    diameter_m: float
    water_per_dry: float
    temp_c: float
    rho_kg_m3: float = 1100.0
    gas_frac: float = 0.12
    rise_g: float = 1.15
    pocket: bool = True
    hole_area_m2: float = 0.0
    film_kg_m2: float = 0.0
    browning: float = 1.0

    @property
    def thick(self) -> bool:
        """True if it is a thick round once it has swollen: baked through rather than puffed, its edges stood on the
        plate."""
        return self.thickness_m * self.rise_g > THICK_GROWN_M


@dataclass(frozen=True)
class Plate:
    """The plate under the bread."""

    material: str
    thickness_m: float
    temp_c: float


@dataclass(frozen=True)
class Face:
    """Surroundings of a free face: gas, convection, radiation, and water vapour in the gas."""

    gas_c: float
    h_w_m2k: float
    rad_c: float
    emissivity: float = 0.9
    vapour_pa: float = 1200.0


@dataclass(frozen=True)
class Stage:
    """A stretch on the heat. Ends after `seconds`, or `after_s` past what `until` names: `cue` (bubbles, or half dried
    out, and first brown below), `puff`, `bubbles`, `golden` (the face on the plate, else the upper one, has the doses
    of `colour`), `puff_colour` (it puffed, and is coloured below or half dried out), `ready` (cooked through, both
    faces coloured), `colour` (the face coloured, or half dried out, and the upper face dull). `wet_kg_m2` of water
    lands on the upper face as it begins.

    `oil`: it swims in oil at `top.gas_c`. `dip_k`: how far the air lies under `top.gas_c` at first contact (an oven
    whose door stood open), coming back with `dip_tau_s`.
    """

    seconds: float
    turn: bool
    flux_w_m2: float
    back_c: float
    back_h: float
    top: Face
    until: str = "time"
    after_s: float = 0.0
    on_plate: bool = True
    take_off: bool = False
    oil: bool = False
    dip_k: float = 0.0
    dip_tau_s: float = 60.0
    colour: tuple[float, float] = (0.0, 0.0)
    wet_kg_m2: float = 0.0


@dataclass(frozen=True)
class Baked:
    """Event times [s from contact, None when they do not happen], carpet, losses, heat taken and what of it is
    unaccounted for, and the plate after."""

    events: dict[str, float | None]
    s: Array
    depth_mm: Array
    temp_c: Array
    pocket: Array
    loss: Array
    surface_c: Array
    browned: Array
    charred: Array
    pocket_frac: float
    loss_frac: float
    heat_taken_j_m2: float
    unaccounted_j_m2: float
    plate_cells_c: Array
    brown: tuple[float, float]
    char: tuple[float, float]
    grid: tuple[int, int] = field(default=LIVE_GRID)
    starts_s: tuple[float, ...] = ()


NAMES = (
    "bubbles",
    "bottom_set",
    "top_set",
    "flip",
    "puff",
    "full",
    "done",
    "too_dry",
    "light_bottom",
    "light_top",
    "golden_bottom",
    "golden_top",
    "char_bottom",
    "char_top",
    "second",
    "off",
    "core_75",
)


def water_activity(x: float) -> float:
    """Water activity of bread at X [kg water/kg dry], fitted sorption curve."""
    a, b = PARAMS["sorption_a"].value, PARAMS["sorption_b"].value
    return float(0.985 / (1 + (a / x) ** (1 / b)))


def boiling_temp_c(x: float, pressure_pa: float = SEA_LEVEL_PA) -> float:
    """Temperature at which the water bound at X boils [C].

    >>> round(boiling_temp_c(0.8837), 2)
    100.43
    """
    return saturation_temp_c(pressure_pa / water_activity(max(x, X_LOW)))


@lru_cache(maxsize=32)
def _boil_table(pressure_pa: float, x_high: float) -> Array:
    return np.array([boiling_temp_c(x, pressure_pa) for x in np.linspace(X_LOW, x_high, X_COUNT)])


@lru_cache(maxsize=1)
def _sat_table() -> Array:
    temps = SAT0_C + SAT_STEP_C * np.arange(SAT_COUNT)
    return np.array([saturation_pressure_pa(max(t, 0.0)) for t in temps])


def grid_edges(thickness_m: float, cells: int) -> Array:
    """Cell edges from the plate up, finest at both faces [m]."""
    j = np.arange(cells + 1)
    return np.asarray(thickness_m / 2 * (1 + np.tanh(BETA * (2 * j / cells - 1)) / math.tanh(BETA)))


def done_temp_c(x0: float, pressure_pa: float, thick: bool = False) -> float:
    """Temperature at which the coldest crumb is cooked [C]: 96 C, of a thick round 93, or 4.4 C below boiling higher
    up."""
    return min(DONE_THICK_C if thick else DONE_MOST_C, boiling_temp_c(x0, pressure_pa) - DONE_BELOW_BOIL_C)


def _sheet(bread: Bread, plate: Plate, pressure_pa: float, overrides: dict[str, float]) -> Sheet:
    v = {name: p.value for name, p in PARAMS.items()} | overrides
    mat = MATERIALS[plate.material]
    dust = v["dust"]  # m2K/W of flour
    return Sheet.of(
        pressure_pa=pressure_pa,
        start_c=bread.temp_c,
        x0=bread.water_per_dry,
        rho_kg_m3=bread.rho_kg_m3,
        gas_frac=bread.gas_frac,
        rise_max=bread.rise_g,
        radius_m=bread.diameter_m / 2,
        hole_m2=bread.hole_area_m2,
        parts=bread.pocket,
        film_kg_m2=bread.film_kg_m2,
        h_wet=1 / (1 / v["h_wet"] + dust),
        h_dry=1 / (1 / v["h_dry"] + dust),
        evap_cond_k=v["k_ec"],
        inward_contact=v["f_contact"],
        inward_free=v["f_free"],
        uptake_s=v["tau_c"],
        pocket_h=v["h_p"],
        evap_factor=v["b_ev"],
        bubble_frac=v["e_bubbles"],
        onset_ratio=v["r_onset"],
        leak_kg_m2s=v["j_leak"],
        pocket_g=v["g_pocket"],
        blister_g=v["g_blister"],
        char_300=v["char_300"],
        brown_200=v["brown_200"] * bread.browning,
        brown_ea=v["brown_ea"],
        char_ea=v["char_ea"],
        crust_k=v["k_crust"],
        sorption_a=v["sorption_a"],
        sorption_b=v["sorption_b"],
        water_d=v["d_w"],
        set_c=v["t_set"],
        turn_c=v["t_turn"],
        done_c=done_temp_c(bread.water_per_dry, pressure_pa, bread.thick),
        dry_limit=v["dry_limit"],
        touch_r=math.pi * v["spot_radius"] / (4 * mat.k) + dust,  # heat drawn together to a disc where skin touches
        gap_r=GOLDEN_GAPS / v["h_dry"],  # the gap over which a quarter of the skin browns
        plate_k=mat.k,
        plate_rc=mat.rho * mat.c,
        plate_m=plate.thickness_m,
        hold_c=plate.temp_c,
    )


def _tables(pressure_pa: float, x_high: float) -> Tables:
    dx = (x_high - X_LOW) / (X_COUNT - 1)
    return Tables(_boil_table(pressure_pa, x_high), X_LOW, dx, _sat_table(), SAT0_C, SAT_STEP_C)


ENDS = {
    "time": marks.END_TIME,
    "cue": marks.END_CUE,
    "puff": marks.END_PUFF,
    "colour": marks.END_COLOUR,
    "golden": marks.END_GOLDEN,
    "bubbles": marks.END_BUBBLES,
    "ready": marks.END_READY,
    "puff_colour": marks.END_PUFF_COLOUR,
}


def _legs(stages: Sequence[Stage]) -> Legs:
    columns = [
        Leg(
            s.seconds,
            s.turn,
            s.on_plate and not s.oil,
            s.flux_w_m2,
            s.back_c,
            s.back_h,
            s.top.gas_c,
            s.top.h_w_m2k,
            s.top.rad_c,
            s.top.emissivity,
            s.top.vapour_pa,
            ENDS[s.until],
            s.after_s,
            s.take_off,
            s.oil,
            s.dip_k,
            s.dip_tau_s,
            *s.colour,
            s.wet_kg_m2,
        )
        for s in stages
    ]
    return Legs(*(np.array(column, dtype=float) for column in zip(*columns, strict=True)))


def _film(rows: int, cells: int) -> Film:
    return Film(
        np.zeros(rows),
        np.zeros((rows, cells)),
        np.zeros(rows),
        np.zeros(rows),
        np.zeros(rows),
        np.zeros((rows, 2)),
        np.zeros((rows, 2)),
    )


def simulate(
    bread: Bread,
    plate: Plate,
    stages: Sequence[Stage],
    *,
    pressure_pa: float = SEA_LEVEL_PA,
    grid: tuple[int, int] | None = None,
    dt_s: float | None = None,
    every_s: float = 1.0,
    plate_cells_c: Array | None = None,
    overrides: dict[str, float] | None = None,
) -> Baked:
    """Bake one bread through its stages.

    The live grid (20 cells in the bread, 8 in the plate, 0.5 s) is used once compiled, a coarser one
    until then. `plate_cells_c` starts the plate from an earlier bread (back to contact). Where the steps run away (a
    thin sheet whose pocket fills), they are taken again a quarter, then a sixteenth as long.
    """
    step_s, coldest_c = dt_s or PARAMS["dt"].value, min(bread.temp_c, 0.0) - COLDER_K
    for finer in (1, 4, 16):
        found = _simulated(bread, plate, stages, pressure_pa, grid, step_s / finer, every_s, plate_cells_c, overrides)
        if found.s.size == 0 or (found.temp_c.min() > coldest_c and found.temp_c.max() < HOTTEST_C):
            break
    return found


def _simulated(
    bread: Bread,
    plate: Plate,
    stages: Sequence[Stage],
    pressure_pa: float,
    grid: tuple[int, int] | None,
    dt_s: float,
    every_s: float,
    plate_cells_c: Array | None,
    overrides: dict[str, float] | None,
) -> Baked:
    """One bread through its stages in steps of dt_s."""
    cells, plates = grid or (LIVE_GRID if bake_stepper.ready else COARSE_GRID)
    x_high = math.ceil(10 * (bread.water_per_dry + 0.4 + bread.film_kg_m2 / 0.02)) / 10  # in steps: few tables are made
    edges = grid_edges(bread.thickness_m, cells)
    legs = _legs(stages)
    film = _film(int(legs.seconds.sum() / every_s) + 4, cells)
    events, doses = np.zeros(marks.EVENTS + len(stages)), np.zeros((2, 2))
    start = np.full(plates, float(plate.temp_c)) if plate_cells_c is None else plate_cells_c.copy()
    if len(start) != plates:
        start = np.interp(np.linspace(0, 1, plates), np.linspace(0, 1, len(start)), start)
    totals = bake_stepper(
        _sheet(bread, plate, pressure_pa, overrides or {}),
        legs,
        _tables(pressure_pa, x_high),
        edges,
        start,
        dt_s,
        every_s,
        film,
        events,
        doses,
    )
    shown = slice(totals.rows)
    named = {n: (float(e) if e >= 0 else None) for n, e in zip(NAMES, events[: marks.EVENTS], strict=True)}
    return Baked(
        events=named,
        s=film.s[shown],
        depth_mm=(edges[1:] + edges[:-1]) / 2 * 1000,
        temp_c=film.temp_c[shown],
        pocket=film.pocket[shown],
        loss=film.loss[shown],
        surface_c=film.surface_c[shown],
        browned=film.brown[shown],
        charred=film.char[shown],
        pocket_frac=totals.pocket,
        loss_frac=totals.loss,
        heat_taken_j_m2=totals.taken_j_m2,
        unaccounted_j_m2=totals.unaccounted_j_m2,
        plate_cells_c=start,
        brown=(float(doses[0, 0]), float(doses[0, 1])),
        char=(float(doses[1, 0]), float(doses[1, 1])),
        grid=(cells, plates),
        starts_s=tuple(events[marks.EVENTS :].tolist()),
    )


def warm() -> bool:
    """Compile the stepper (or load it from the cache)."""
    bread, plate = Bread(0.0035, 0.18, 0.88, 22.0), Plate("stone", 0.015, 265.0)
    stage = Stage(1.0, False, 0.0, 270.0, 30.0, Face(270, 15, 270, 0.9, 3000))
    cells, plates = LIVE_GRID
    return bake_stepper.warm(
        _sheet(bread, plate, SEA_LEVEL_PA, {}),
        _legs([stage]),
        _tables(SEA_LEVEL_PA, 1.3),
        grid_edges(0.0035, cells),
        np.full(plates, 265.0),
        0.5,
        1.0,
        _film(5, cells),
        np.zeros(marks.EVENTS + 1),
        np.zeros((2, 2)),
    )
