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
from brassclock.core.fire.puff import stepper
from brassclock.core.fire.puff.params import DONE_BELOW_BOIL_C, DONE_MOST_C, DONE_THICK_C, MATERIALS, PARAMS
from brassclock.core.matter.air import SEA_LEVEL_PA
from brassclock.core.matter.steam import saturation_pressure_pa, saturation_temp_c

Array = NDArray[np.float64]
BETA = 1.6
SAT0_C, SAT_STEP_C, SAT_COUNT = -30.0, 0.25, 1601
X_LOW, X_COUNT = 0.004, 1024
LIVE_GRID = (20, 8)
COARSE_GRID = (12, 5)
GOLDEN_GAPS = -math.log(0.75)  # a face is golden when a quarter of it is: gaps are exponential about their mean
THICK_GROWN_M = 0.0092  # practice: what a sheet of 8 mm swells to
FAMILIES = (stepper.lookup, stepper.smooth, stepper.gas_growth, stepper.face_evaporation)
bake_stepper = Stepper(stepper.bake, FAMILIES, fastmath=True)


@dataclass(frozen=True)
class Bread:
    """A rolled piece. `water_per_dry` X0 [kg/kg]; `rise_g` is the most the sheet swells before it parts; `browning` is how fast it
    browns over a lean dough.
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
        """True if it is a thick round once it has swollen: baked through rather than puffed, its edges stood on the plate."""
        return self.thickness_m * self.rise_g > THICK_GROWN_M


@dataclass(frozen=True)
class Plate:
    """What the bread lies on."""

    material: str
    thickness_m: float
    temp_c: float


@dataclass(frozen=True)
class Face:
    """What a free face sees: gas, convection, radiation, and water vapour in the gas."""

    gas_c: float
    h_w_m2k: float
    rad_c: float
    emissivity: float = 0.9
    vapour_pa: float = 1200.0


@dataclass(frozen=True)
class Stage:
    """A stretch on the heat. Ends after `seconds`, or `after_s` past what `until` names: `cue` (bubbles and first brown below), `puff`, `bubbles`,
    `golden` (the face on the plate, else the upper one, has the doses of `colour`), `puff_colour` (it puffed, and is coloured below or half dried out), `ready` (cooked through, both faces coloured), `colour` (the same with the upper face dull, or half dried out).
    `wet_kg_m2` of water lands on the upper face as it begins.

    `oil`: it swims in oil at `top.gas_c`. `dip_k`: how far the air lies under `top.gas_c` at first contact (an oven whose
    door stood open), coming back with `dip_tau_s`.
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
    """Event times [s from contact, None when they do not happen], carpet, losses, heat taken and what of it is unaccounted for, and the plate after."""

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
    "bubbles", "bottom_set", "top_set", "flip", "puff", "full", "done", "too_dry", "light_bottom", "light_top",
    "golden_bottom", "golden_top", "char_bottom", "char_top", "second", "off",
    "core_75",
)  # fmt: skip


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
    """What the coldest of the crumb must reach to be cooked: 96 C, of a thick round 93, or 4.4 C below boiling higher up [C]."""
    return min(DONE_THICK_C if thick else DONE_MOST_C, boiling_temp_c(x0, pressure_pa) - DONE_BELOW_BOIL_C)


def _vector(bread: Bread, plate: Plate, pressure_pa: float, x_high: float, overrides: dict[str, float]) -> Array:
    v = {name: p.value for name, p in PARAMS.items()} | overrides
    mat = MATERIALS[plate.material]
    # m2K/W: flour and the heat drawn together to a disc where skin touches; the gap over which a quarter of it browns
    dust = v["dust"]
    touch = math.pi * v["spot_radius"] / (4 * mat.k) + dust
    gap = GOLDEN_GAPS / v["h_dry"]
    return np.array([
        pressure_pa, bread.temp_c, bread.water_per_dry, bread.rho_kg_m3, bread.gas_frac, bread.rise_g,
        bread.diameter_m / 2, bread.hole_area_m2, 1.0 if bread.pocket else 0.0, bread.film_kg_m2,
        1 / (1 / v["h_wet"] + dust), 1 / (1 / v["h_dry"] + dust), v["k_ec"], v["f_contact"], v["f_free"], v["tau_c"],
        v["h_p"], v["b_ev"], v["e_bubbles"], v["r_onset"], v["j_leak"], v["g_pocket"],
        v["g_blister"], v["char_300"], v["brown_200"] * bread.browning, v["brown_ea"],
        v["k_crust"], v["sorption_a"], v["sorption_b"], v["d_w"], v["t_set"],
        mat.k, mat.rho * mat.c, plate.thickness_m, touch,
        done_temp_c(bread.water_per_dry, pressure_pa, bread.thick), v["dry_limit"],
        X_LOW, (x_high - X_LOW) / (X_COUNT - 1), SAT0_C, SAT_STEP_C, v["char_ea"], gap, v["t_turn"], plate.temp_c,
    ])  # fmt: skip


def _stage_row(stage: Stage) -> list[float]:
    ends = {
        "time": 0.0,
        "cue": 1.0,
        "puff": 2.0,
        "colour": 3.0,
        "golden": 4.0,
        "bubbles": 5.0,
        "ready": 6.0,
        "puff_colour": 7.0,
    }
    top = stage.top
    return [
        stage.seconds, float(stage.turn), float(stage.on_plate and not stage.oil), stage.flux_w_m2, stage.back_c, stage.back_h,
        top.gas_c, top.h_w_m2k, top.rad_c, top.emissivity, top.vapour_pa,
        ends[stage.until], stage.after_s, float(stage.take_off),
        float(stage.oil), stage.dip_k, stage.dip_tau_s, *stage.colour, stage.wet_kg_m2,
    ]  # fmt: skip


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
    until then. `plate_cells_c` starts the plate from an earlier bread (back to contact).
    """
    cells, plates = grid or (LIVE_GRID if bake_stepper.ready else COARSE_GRID)
    x_high = math.ceil(10 * (bread.water_per_dry + 0.4 + bread.film_kg_m2 / 0.02)) / 10  # in steps: few tables are made
    edges = grid_edges(bread.thickness_m, cells)
    p = _vector(bread, plate, pressure_pa, x_high, overrides or {})
    rows = np.array([_stage_row(s) for s in stages])
    total_s = float(rows[:, 0].sum())
    carpet = np.zeros((int(total_s / every_s) + 4, cells + 8))
    events, out = np.zeros(stepper.EVENTS + len(rows)), np.zeros(10 + plates)
    start = np.full(plates, float(plate.temp_c)) if plate_cells_c is None else plate_cells_c
    if len(start) != plates:
        start = np.interp(np.linspace(0, 1, plates), np.linspace(0, 1, len(start)), start)
    count = bake_stepper(
        p, rows, _boil_table(pressure_pa, x_high), _sat_table(), edges, start,
        dt_s or PARAMS["dt"].value, every_s, carpet, events, out,
    )  # fmt: skip
    named = {n: (float(e) if e >= 0 else None) for n, e in zip(NAMES, events[: stepper.EVENTS], strict=True)}
    return Baked(
        events=named,
        s=carpet[:count, 0],
        depth_mm=(edges[1:] + edges[:-1]) / 2 * 1000,
        temp_c=carpet[:count, 1 : cells + 1],
        pocket=carpet[:count, cells + 1],
        loss=carpet[:count, cells + 2],
        surface_c=carpet[:count, cells + 3],
        browned=carpet[:count, cells + 4 : cells + 6],
        charred=carpet[:count, cells + 6 : cells + 8],
        pocket_frac=float(out[1]),
        loss_frac=float(out[0]),
        heat_taken_j_m2=float(out[4]),
        unaccounted_j_m2=float(out[5]),
        plate_cells_c=out[6 : 6 + plates].copy(),
        brown=(float(out[6 + plates]), float(out[7 + plates])),
        char=(float(out[8 + plates]), float(out[9 + plates])),
        grid=(cells, plates),
        starts_s=tuple(events[stepper.EVENTS :].tolist()),
    )


def warm() -> bool:
    """Compile the stepper (or load it from the cache)."""
    bread, plate = Bread(0.0035, 0.18, 0.88, 22.0), Plate("stone", 0.015, 265.0)
    stage = Stage(1.0, False, 0.0, 270.0, 30.0, Face(270, 15, 270, 0.9, 3000))
    cells, plates = LIVE_GRID
    return bake_stepper.warm(
        _vector(bread, plate, SEA_LEVEL_PA, 1.3, {}), np.array([_stage_row(stage)]), _boil_table(SEA_LEVEL_PA, 1.3),
        _sat_table(), grid_edges(0.0035, cells), np.full(plates, 265.0), 0.5, 1.0, np.zeros((5, cells + 8)),
        np.zeros(stepper.EVENTS + 1), np.zeros(10 + plates),
    )  # fmt: skip
