"""Reheating: seconds by pan, grill, oven, microwave and toaster from a bread's mass and water, from the room or frozen;
thawing in its bag. Order of magnitude throughout."""

from __future__ import annotations

import math
from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.keep.hold.model import Kept
from brassclock.core.keep.hold.params import PARAMS

HOT_C = Param(62.0, "C", 58, 70, Kind.JUDGEMENT, "mean of a reheated bread: its starch has melted")
THAWED_J_G = Param(51.0, "J/g", 40, 60, Kind.JUDGEMENT, "from its melting on until it can be handled")
FROZEN_C, SPLIT_FROM_MM = -18.0, 15.0
FUSION_J_G = 334.0
ICE_J_G = Param(28.0, "J/g", 20, 35, Kind.PUBLISHED_FROM_MEMORY, "from -18 C to the melting of a bread")
ICE_SHARE = Param(0.75, "-", 0.6, 0.85, Kind.JUDGEMENT, "of its water that freezes")
PAN_W_M2K = Param(80.0, "W/(m2 K)", 50, 120, Kind.JUDGEMENT, "a dry pan into a baked face")
GRILL_W_M2 = Param(7200.0, "W/m2", 5000, 10000, Kind.JUDGEMENT, "a grill on an upper face")
FOIL_W_M2K = Param(14.0, "W/(m2 K)", 9, 20, Kind.JUDGEMENT, "an oven at 180 C through foil")
MICROWAVE_W = Param(440.0, "W", 350, 550, Kind.JUDGEMENT, "of 800 W that get into a bread")
TOASTER_W = Param(315.0, "W", 200, 450, Kind.JUDGEMENT, "of a toaster that get into a bread")
BAG_W_M2K, MELTS_FROM_C = 6.0, -4.0
PAN_C, OVEN_C, ROOM_C = 200.0, 180.0, 21.0


@dataclass(frozen=True)
class Reheat:
    """One way to heat a bread again: seconds (of each side where it has two), whether for each side, a note."""

    by: str
    seconds: float
    each_side: bool
    note: str


def reheats(bread: Kept, x: float, stack: int = 1, frozen: bool = False, from_c: float = ROOM_C) -> list[Reheat]:
    """Ways to heat a bread that holds `x` water per dry mass again, `stack` of them together in foil."""
    mass = bread.dry_g * (1 + x)
    start = FROZEN_C if frozen else from_c
    rise_j_g = _heat_j_gk(x) * (HOT_C - (MELTS_FROM_C if frozen else start))
    need_j = mass * (rise_j_g + (_ice_j_g(x) if frozen else 0.0))
    middle_c = 20.0 if frozen else (HOT_C + start) / 2
    area = math.pi * bread.diameter_m**2 / 4
    edge = math.pi * bread.diameter_m * bread.height_m
    faces = (2 * area + stack * edge) / stack
    u = _through(FOIL_W_M2K, bread, stack)
    found = []
    if 1000 * bread.height_m <= SPLIT_FROM_MM:
        even = 0.8 * bread.even_s
        side = max(need_j / (PAN_W_M2K * area * (PAN_C - middle_c)), even) / 2
        found.append(Reheat("pan", side, True, "dry pan, medium high; turn once"))
        found.append(Reheat("grill", max(need_j / (GRILL_W_M2 * area), even) / 2, True, "a hand under the grill"))
    foil_s = need_j / (u * faces * (OVEN_C - middle_c)) + 60
    found.append(Reheat("oven", foil_s, False, "180 C, wrapped in foil"))
    microwave_s = 1.1 * need_j / MICROWAVE_W
    found.append(Reheat("microwave", microwave_s, False, "in a damp cloth; eat within 5 min: it toughens"))
    found.append(Reheat("toaster", need_j / TOASTER_W + 20, False, "lowest setting"))
    return found


def thaw_s(bread: Kept, x: float, stack: int = 1) -> float:
    """Seconds to thaw in its bag in the room, `stack` of them in one block."""
    mass = bread.dry_g * (1 + x)
    area, edge = math.pi * bread.diameter_m**2 / 4, math.pi * bread.diameter_m * bread.height_m
    faces = (2 * area + stack * edge) / stack
    u = _through(BAG_W_M2K, bread, stack)
    return mass * (_ice_j_g(x) + THAWED_J_G) / (u * faces * ROOM_C)


def _through(w_m2k: float, bread: Kept, stack: int) -> float:
    """Heat into a stack from its skin, half of it through bread [W/m2K]."""
    return 1 / (1 / w_m2k + stack * bread.height_m / (6 * PARAMS["k_bread"]))


def _heat_j_gk(x: float) -> float:
    """Heat capacity of a bread [J/gK]."""
    return (1.5 + 4.18 * x) / (1 + x)


def _ice_j_g(x: float) -> float:
    """Heat from -18 C through its ice [J/g]."""
    return ICE_J_G + ICE_SHARE * FUSION_J_G * x / (1 + x)
