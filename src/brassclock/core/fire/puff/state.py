"""The state of one bread on the heat, as named tuples and arrays with named rows, which a compiler takes. SI;
temperatures in C.

Cells run from the plate up. Arrays of two are (lower face, upper face) as the bread lies, but for colours, which stay
with the dough: (face A, face B).
"""

from __future__ import annotations

from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

# rows of the bread's cells: temperature; water [kg per kg dry]; the hottest it has been; dry matter [kg/m2]; thickness
# [m];
# temperature at the start of the step; steam boiled in the step [kg/m2]; heat capacity, and with what boiling takes
# [J/m2K];
# conductivity [W/mK]; thickness over that at the start
T, X, HOTTEST, DRY, DZ, BEFORE, STEAM, CAP, BOIL_CAP, K, GROWN = range(11)
CELL_ROWS = 11
# of the plate's cells, the lowest first: temperature, thickness [m]
PLATE_T, PLATE_DZ = 0, 1
PLATE_ROWS = 2
# of the tridiagonal system, plate cells then bread cells
LOW, DIAG, UP, RIGHT = range(4)
SYSTEM_ROWS = 4
# of the lower and the upper face: what heats it [C], how well [W/m2K], conductance to the cell [W/m2K], water leaving
# [kg/m2s]
# and its slope by temperature
SOURCE, H, G, EVAP, SLOPE = range(5)
FACE_ROWS = 5
# of face A and B: water gone from hovering skin, from touching skin [kg/m2]; dose of browning, of charring
GONE, BROWN, CHAR = 0, 2, 3
SKIN_ROWS = 4


class Sheet(NamedTuple):
    """Constants of one bake: the rolled sheet, the constants of the model, the plate under it."""

    pressure_pa: float
    start_c: float
    x0: float  # kg water per kg dry
    rho_kg_m3: float
    gas_frac: float
    rise_max: float  # thickness over that at the start, at most, before it parts
    radius_m: float
    hole_m2: float
    parts: bool  # it may open a pocket
    film_kg_m2: float  # water brushed on face A
    h_wet: float  # W/m2K of contact with wet skin
    h_dry: float  # W/m2K of contact with dry skin
    evap_cond_k: float  # W/mK that evaporation and condensation in its bubbles add
    inward_contact: float  # share of the steam that moves inward, from a face in contact
    inward_free: float
    uptake_s: float  # time in which cooler crumb takes up steam
    pocket_h: float  # kg/m2s K, of steam on the walls of the pocket
    evap_factor: float
    bubble_frac: float
    onset_ratio: float  # gas volume ratio of the middle at which it parts
    leak_kg_m2s: float
    pocket_g: float  # W/m2K across the open pocket
    blister_g: float  # W/m2K into a blister
    char_300: float  # 1/s at 300 C
    brown_200: float  # 1/s at 200 C
    brown_ea: float  # J/mol
    char_ea: float  # J/mol
    crust_k: float  # W/mK
    sorption_a: float
    sorption_b: float
    water_d: float  # m2/s
    set_c: float
    turn_c: float
    done_c: float
    dry_limit: float  # share of its mass
    touch_r: float  # m2K/W of skin that touches
    gap_r: float  # m2K/W more of skin that hovers
    plate_k: float  # W/mK
    plate_rc: float  # J/m3K
    plate_m: float  # its thickness
    hold_c: float  # the cook holds the plate's surface at most there

    @classmethod
    def of(cls, *, parts: bool, **numbers: float) -> Sheet:
        """All but `parts` as floats: the compiled form takes no other."""
        return cls(parts=bool(parts), **{name: float(value) for name, value in numbers.items()})


class Tables(NamedTuple):
    """Boiling temperature [C] by water per dry, and saturation pressure [Pa] by temperature, at even steps."""

    boil_c: Array
    boil_x0: float
    boil_dx: float
    sat_pa: Array
    sat_c0: float
    sat_dc: float


class Legs(NamedTuple):
    """The stretches on the heat, an array for each column of `Leg`."""

    seconds: Array
    turn: Array
    on_plate: Array
    flux: Array
    back_c: Array
    back_h: Array
    gas_c: Array
    gas_h: Array
    rad_c: Array
    emissivity: Array
    vapour_pa: Array
    end: Array
    after_s: Array
    takes_off: Array
    oil: Array
    dip_k: Array
    dip_tau_s: Array
    brown_to: Array
    char_to: Array
    wet: Array


class Leg(NamedTuple):
    """One stretch: `flux` [W/m2] and the air at `back_c` under the plate, what a free face sees, and what ends it."""

    seconds: float
    turn: bool
    on_plate: bool
    flux: float
    back_c: float
    back_h: float
    gas_c: float
    gas_h: float
    rad_c: float
    emissivity: float
    vapour_pa: float
    end: float  # one of the ENDS of `marks`
    after_s: float
    takes_off: bool
    oil: bool
    dip_k: float
    dip_tau_s: float
    brown_to: float
    char_to: float
    wet: float  # kg/m2 on the upper face as it begins


class Film(NamedTuple):
    """Record of a bake at even times: a row for each."""

    s: Array
    temp_c: Array  # cells in A-up order
    pocket: Array
    loss: Array
    surface_c: Array
    brown: Array
    char: Array


class Totals(NamedTuple):
    """Result of a bake: rows of film, loss and pocket as shares, the plate's surface [C], loss at take-off, heat
    taken from the plate and heat unaccounted for [J/m2]."""

    rows: int
    loss: float
    pocket: float
    surface_c: float
    loss_off: float
    taken_j_m2: float
    unaccounted_j_m2: float
