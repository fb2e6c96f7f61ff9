"""Handling of a dough that soda or powder lifts without yeast: by its water, and by how long its gas waits then.

A wet one of soda alone is stirred and holds its gas badly; a firm one, or one of powder, is pressed together and holds
it. What keeps its gas an hour or more bears a short rest, in which it stops drawing back; the rest is cooked at once.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough
from brassclock.core.rise.chemical.model import DEFAULT_C, Rest, waiting

STIRRED_FROM = Param(0.62, "-", 0.58, 0.68, Kind.JUDGEMENT, "effective hydration from which a soda dough is stirred")
POWDER_STIRRED_FROM = Param(0.85, "-", 0.8, 0.95, Kind.JUDGEMENT, "the same with powder: too slack to press together")
RESTS_FROM_H = Param(1.0, "h", 0.5, 2.0, Kind.JUDGEMENT, "gas that keeps so long bears a rest before rolling")
REST_H = Param(1 / 3, "h", 0.25, 0.5, Kind.PRACTICE, "a covered rest in which a powder dough stops drawing back")
STIR_MIN = Param(2.0, "min", 1, 3, Kind.PRACTICE, "until it just comes together")
PRESS_MIN = Param(3.0, "min", 2, 4, Kind.PRACTICE, "pressed together until smooth, no longer")


@dataclass(frozen=True)
class Handling:
    """Strength, way of mixing and its minutes, and the rest before it is rolled [h; 0: cooked at once]."""

    strength: str
    knead: str
    knead_min: float
    rest_h: float


def handling(dough: Dough, powder: str = "double") -> Handling | None:
    """Handling of a dough by its water and its gas; None where nothing in it makes gas or it has no flour."""
    water = dough.effective_hydration_frac
    if water is None:
        return None
    soda_alone = all(p.ingredient.id == "baking_soda" for p in dough.portions if p.ingredient.is_other_leaven)
    wet = water >= (STIRRED_FROM if soda_alone else POWDER_STIRRED_FROM)
    strength, holds = ("wet_unkneaded", "batter") if wet else ("kneaded", "developed")
    keeps = waiting(dough, holds, Rest(60.0, DEFAULT_C), powder)
    if keeps is None:
        return None
    rest_h = float(REST_H) if keeps.h >= RESTS_FROM_H else 0.0
    return Handling(strength, *(("none", float(STIR_MIN)) if wet else ("hand", float(PRESS_MIN))), rest_h)
