"""Facts of one bread and its bake that a cause may lie in; what is not given stays at its neutral value."""

from __future__ import annotations

from dataclasses import dataclass, fields, replace
from typing import Any

from brassclock.core.fire.surfaces import KINDS
from brassclock.core.terms import Intent, StarterState, Wrap

NOT_BACK_K = 45.0  # judgement: a surface that had not recovered
THICK_MM, THICK_C = 14.0, 185.0  # judgement: a griddle bread
RIGHT_MM = 3.6


@dataclass(frozen=True)
class Facts:
    """Facts in their own units: mm, C, min, s, mm2, g/m2, water over flour; `kneaded` is times the usual, `tint` how
    readily it browns, `soda_excess` g per 100 g flour, `acid_tta` mL."""

    intent: Intent = "pocket"
    surface: str = "iron_plate"
    surface_c: float | None = None
    thickness_mm: float = 3.4
    diameter_cm: float = 18.0
    uneven_frac: float = 0.1
    skin_min: float = 2.0
    rest_min: float = 8.0
    maturity: float = 1.0
    dough_c: float = 22.0
    tear_mm2: float = 0.0
    bench_flour_g_m2: float = 15.0
    hydration_frac: float = 0.62
    soda_excess: float = 0.0
    acid_tta: float = 10.0
    starter_state: StarterState = "peak"
    kneaded: float = 1.0
    chemical: bool = False
    greased: str = "dry"
    nonstick: bool = False
    wetted: bool | None = None
    docked: bool = False
    edged: bool = True
    recovered: bool = True
    char_left: bool = False
    microwaved: bool = False
    tint: float = 1.0
    turn_s: float | None = None
    off_s: float | None = None
    wrap: Wrap = "cloth"
    wait_min: float = 15.0

    @property
    def hot_c(self) -> float:
        """The surface's heat as it is said, or its usual one [C]."""
        return KINDS[self.surface].usual_c if self.surface_c is None else self.surface_c

    @property
    def right_c(self) -> float:
        """The right heat for such a bread on that surface [C]."""
        return THICK_C if self.intent == "thick" else KINDS[self.surface].usual_c

    @property
    def right_mm(self) -> float:
        """The right thickness for such a bread [mm]."""
        return THICK_MM if self.intent == "thick" else RIGHT_MM

    def with_(self, **changed: Any) -> Facts:
        """The same with other values."""
        return replace(self, **changed)


NAMES = tuple(f.name for f in fields(Facts))
