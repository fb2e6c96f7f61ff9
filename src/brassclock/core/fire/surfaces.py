"""The hot surfaces: what each gives a bread from below and above.

Faces (gas C, convection W/m2K, radiation C, emissivity, vapour Pa) and hob fluxes are practice and
judgement; materials are handbook order, from memory.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.puff.model import Face, Plate

HOB_W_M2_FROM = "a hob's flux into a plate by its knob; one factor for all"
HOB_W_M2 = {
    "low": Param(6_400.0, "W/m2", 4480, 8960, Kind.FITTED, HOB_W_M2_FROM),
    "medium_low": Param(8_000.0, "W/m2", 5600, 11200, Kind.FITTED, HOB_W_M2_FROM),
    "medium": Param(9_600.0, "W/m2", 6720, 13440, Kind.FITTED, HOB_W_M2_FROM),
    "medium_high": Param(12_800.0, "W/m2", 8960, 17920, Kind.FITTED, HOB_W_M2_FROM),
    "high": Param(17_600.0, "W/m2", 12320, 24640, Kind.FITTED, HOB_W_M2_FROM),
}
OPEN_FACE = Face(30, 10, 30, 0.9, 1200)
LID_FACE = Face(110, 10, 120, 0.9, 75_000)  # full of steam
GRILL_FACE = Face(180, 12, 450, 0.85, 3000)  # judgement: a glowing grill a hand above the pan
FLAME_FACES = {  # what an upturned bread sees
    "gas": Face(650, 45, 390, 0.9, 9000), "ceramic": Face(150, 10, 480, 0.7, 2000),
    "electric": Face(150, 10, 430, 0.8, 2000), "charcoal": Face(350, 20, 550, 0.9, 3000),
}  # fmt: skip
DOME_FLOOR_C = Param(370.0, "C", 330, 400, Kind.PRACTICE, "the floor of a flame oven as it is usually baked on")
DOME_C = Param(398.0, "C", 370, 430, Kind.JUDGEMENT, "the dome over that floor")
FLAME_C = Param(380.0, "C", 340, 450, Kind.JUDGEMENT, "the gas over that floor")
DOME_FROM = "a dome of about 430 C over a floor of 485 C, 60 to 90 s there: Regulation (EU) 97/2010, from memory"
FLAME_BY_FLOOR = Param(0.6, "-", 0.3, 1.2, Kind.FITTED, DOME_FROM)
DOME_BY_FLOOR = Param(0.4, "-", 0.2, 1.0, Kind.FITTED, DOME_FROM)
WETTING_FILM = Param(0.15, "kg/m2", 0.05, 0.3, Kind.PRACTICE, "water brushed on the back of a bread for a wall")
DRY_CONTACT: dict[str, Param | None] = {  # where the bread no longer wets: oil fills the gaps
    "dry": None,
    "film": Param(165.0, "W/(m2 K)", 100, 250, Kind.FITTED, "times that cooks state for a film of fat"),
    "pool": Param(300.0, "W/(m2 K)", 200, 450, Kind.JUDGEMENT, "a pool of fat fills every gap"),
}
PEEL_DUST_KG_M2 = Param(0.03, "kg/m2", 0.01, 0.08, Kind.PRACTICE, "flour left beneath a bread that slid from a peel")
DUST_KG_M3 = Param(500.0, "kg/m3", 400, 650, Kind.PUBLISHED_FROM_MEMORY, "loose flour, handbook order")
DUST_K = Param(0.06, "W/(m K)", 0.04, 0.1, Kind.PUBLISHED_FROM_MEMORY, "loose flour, handbook order")
STUCK_CONTACT = Param(200.0, "W/(m2 K)", 120, 350, Kind.JUDGEMENT, "a wetted back stuck to wall or plate")
TRAY_START_C = Param(25.0, "C", 15, 35, Kind.PRACTICE, "a tray that was not heated")
OVEN_H = Param(8.0, "W/(m2 K)", 5, 12, Kind.PUBLISHED_FROM_MEMORY, "free convection in a home oven, handbook order")
FAN_H = Param(15.0, "W/(m2 K)", 12, 30, Kind.FITTED, "a fan is set 20 K lower for the same time (practice)")
UNDER_H_FROM = "an oven's walls as the underside sees them: 4 s T^3 by the emissivity of dark stone, of bright sheet"
UNDER_H = {
    "oven": Param(25.0, "W/(m2 K)", 15, 30, Kind.JUDGEMENT, UNDER_H_FROM),
    "tray": Param(16.0, "W/(m2 K)", 8, 22, Kind.JUDGEMENT, UNDER_H_FROM),
}
DOOR_S = Param(6.0, "s", 3, 12, Kind.PRACTICE, "an oven's door stands open so long for each bread")
DOOR_TAU_S = Param(12.0, "s", 6, 25, Kind.JUDGEMENT, "an open door takes the oven's air so fast")
DOOR_BACK_S = Param(60.0, "s", 30, 150, Kind.JUDGEMENT, "the oven's air comes back so fast")
BREAD_DIP_K = Param(10.0, "K", 4, 20, Kind.JUDGEMENT, "of the oven's air, for each cold bread beside the first")
FRIED_DRY = Param(
    0.27,
    "-",
    0.22,
    0.35,
    Kind.JUDGEMENT,
    "moisture loss at which a fried bread is too dry: some of it is replaced by oil",
)


def oven_face(oven_c: float, fan: bool = False) -> Face:
    """Surroundings of a bread or a stone in an oven whose air and walls are at `oven_c` [C]."""
    return Face(oven_c, FAN_H if fan else OVEN_H, oven_c, 0.9, 3000)


@dataclass(frozen=True)
class SurfaceKind:
    """A kind of surface: its usual plate, what heats it, and its working range [C].

    `way` is how a bread is baked there: `turned`, `oven` (turned once it puffs), `wall` (stuck, never turned),
    `inverted` (stuck, then plate and all over the flame), `lidded` (turned, under a lid), `floor` (never turned),
    `oil`, `grill` (turned to the grill), `tray` (in an oven with its bread, never turned).
    """

    name: str
    material: str
    thickness_mm: float
    way: str
    need_c: float
    most_c: float
    usual_c: float
    heat: str = "gas"
    most_spots: int = 6

    @property
    def oven(self) -> bool:
        """True for a kind whose bread lies in an oven."""
        return self.way == "oven"

    @property
    def air_heated(self) -> bool:
        """True if an oven's air brings it to its heat."""
        return self.way in ("oven", "tray")

    @property
    def on_hob(self) -> bool:
        """True if a hob heats it from below."""
        return self.way in ("turned", "inverted", "lidded", "grill", "oil")

    @property
    def wets(self) -> bool:
        """True if a bread is stuck to it with water."""
        return self.way in ("wall", "inverted")


KINDS: dict[str, SurfaceKind] = {
    "stone_oven": SurfaceKind("Baking stone in an oven", "stone", 15, "oven", 230, 330, 275, "electric"),
    "steel_oven": SurfaceKind("Steel in an oven", "steel", 6, "oven", 230, 330, 265, "electric"),
    "iron_plate": SurfaceKind("Iron plate", "iron", 6, "turned", 165, 300, 200),
    "skillet": SurfaceKind("Skillet", "iron", 5, "turned", 165, 300, 195, most_spots=2),
    "clay_wall": SurfaceKind("Clay wall", "clay", 50, "wall", 350, 520, 430, "charcoal", 12),
    "inverted_plate": SurfaceKind(
        "Iron plate turned over the flame", "iron", 5, "inverted", 165, 300, 205, most_spots=2
    ),
    "lidded_pan": SurfaceKind("Pan with a lid", "iron", 5, "lidded", 150, 260, 185, most_spots=2),
    "flame_oven": SurfaceKind("Oven with a live flame", "clay", 30, "floor", 300, 450, 370, "gas"),
    "oil": SurfaceKind("Oil", "iron", 3, "oil", 175, 205, 190, most_spots=4),
    "oven_tray": SurfaceKind("Tray in an oven", "steel", 1, "tray", 160, 260, 220, "electric"),
    "pan_then_grill": SurfaceKind("Pan, then under the grill", "iron", 5, "grill", 165, 300, 205, most_spots=2),
}


def check_fan(kind: SurfaceKind, pointer: str) -> None:
    """Raises InvalidInput at `pointer` for a kind of surface that no oven's fan reaches."""
    if not kind.air_heated:
        raise invalid(pointer, f"There is no oven about this surface: {kind.name}. Leave fan out.")


@dataclass(frozen=True)
class Surface:
    """A surface in use: kind, temperature [C], hob power for plates, oven air [C] for stones, and how bread meets it.

    `heat`: gas, ceramic, charcoal or electric (None: the kind's usual). `greased`: dry, film or pool. `wetted` None is
    as the kind wants it. `breads` go in at once, with the door open for `door_s` (None: the usual time for each).
    `dust_kg_m2` is the flour beneath them (None: the kind's usual). `fan`: the oven's air is driven.
    """

    kind: str
    temp_c: float
    power: str = "medium_high"
    oven_c: float | None = None
    material: str | None = None
    thickness_mm: float | None = None
    heat: str | None = None
    greased: str = "dry"
    wetted: bool | None = None
    nonstick: bool = False
    breads: int = 1
    door_s: float | None = None
    dust_kg_m2: float | None = None
    sd_k: float | None = None
    size: str = "home"
    fan: bool = False

    @property
    def spec(self) -> SurfaceKind:
        """Constants of this kind of surface."""
        return KINDS[self.kind]

    @property
    def heat_kind(self) -> str:
        """Its heat source: gas, ceramic, charcoal or electric."""
        return self.heat or self.spec.heat

    @property
    def plate(self) -> Plate:
        """The plate as the bread meets it: a tray goes in with its breads, as warm as the kitchen."""
        start_c = TRAY_START_C if self.spec.way == "tray" else self.temp_c
        return Plate(self.material or self.spec.material, (self.thickness_mm or self.spec.thickness_mm) / 1000, start_c)

    @property
    def wet_back(self) -> bool:
        """True if the bread's back is wetted."""
        return self.spec.wets if self.wetted is None else self.wetted

    @property
    def film_kg_m2(self) -> float:
        """Water on the bread's back [kg/m2]."""
        return WETTING_FILM if self.wet_back else 0.0

    @property
    def air_c(self) -> float:
        """Oven air, or the kitchen above a plate [C]."""
        if not self.spec.air_heated:
            return OPEN_FACE.gas_c
        return self.oven_c if self.oven_c is not None else self.temp_c

    @property
    def top(self) -> Face:
        """Surroundings of the free face while the bread lies (or hangs) there."""
        way, t = self.spec.way, self.temp_c
        if self.spec.air_heated:
            return oven_face(self.air_c, self.fan)
        if way == "wall":
            return Face(max(t - 180.0, 100.0), 20, t, 0.85, 3000)
        if way == "floor":
            over = t - DOME_FLOOR_C
            return Face(FLAME_C + FLAME_BY_FLOOR * over, 14, DOME_C + DOME_BY_FLOOR * over, 0.8, 6000)
        if way == "oil":
            return Face(t, 1.0, t, 0.0, 0.0)
        return LID_FACE if way == "lidded" else OPEN_FACE

    @property
    def empty(self) -> Face:
        """Surroundings of the surface itself between breads: a clay oven and a flame oven are kept at their heat by
        their own fire."""
        if self.spec.way in ("wall", "floor"):
            return Face(self.temp_c, 20, self.temp_c, 0.85)
        return self.top

    @property
    def flame(self) -> Face:
        """Surroundings of an upturned bread, or of one under the grill."""
        return GRILL_FACE if self.spec.way == "grill" else FLAME_FACES[self.heat_kind]

    @property
    def below(self) -> tuple[float, float, float]:
        """(flux W/m2, back temperature C, back coefficient W/m2K) beneath the plate."""
        way = self.spec.way
        if self.spec.air_heated:
            return 0.0, self.air_c, self.top.h_w_m2k + UNDER_H[way]
        if way == "floor":
            return 0.0, self.temp_c, 30.0
        if way in ("wall", "oil"):
            return 0.0, self.temp_c, 0.0
        return HOB_W_M2[self.power], 25.0, 8.0

    @property
    def dip_k(self) -> float:
        """Kelvin by which the oven's air lies under its setting when the door shuts."""
        if not self.spec.air_heated:
            return 0.0
        open_s = DOOR_S * self.breads if self.door_s is None else self.door_s
        return (self.air_c - 25.0) * (1 - math.exp(-open_s / DOOR_TAU_S)) + BREAD_DIP_K * (self.breads - 1)

    @property
    def dust(self) -> float:
        """Flour between bread and surface [kg/m2]."""
        usual = PEEL_DUST_KG_M2 if self.spec.way in ("oven", "floor") else 0.0
        return usual if self.dust_kg_m2 is None else self.dust_kg_m2

    @property
    def contact(self) -> dict[str, float]:
        """Parameters of the puff model that this surface sets."""
        found: dict[str, float] = {}
        dry = STUCK_CONTACT if self.wet_back else DRY_CONTACT[self.greased]
        if dry is not None:
            found["h_dry"] = dry
        between = self.dust / (DUST_KG_M3 * DUST_K)  # m2K/W
        if between > 0:
            found["dust"] = between
        if self.spec.way == "oil":
            found["dry_limit"] = FRIED_DRY
        return found
