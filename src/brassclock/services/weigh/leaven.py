"""The leaven of a bake: scaled, and what it decides of the handling."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

from brassclock.core.errors import InvalidInput
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.mix.guide import wants_bloom
from brassclock.core.rise.chemical.handling import PRESS_MIN, REST_H, STIR_MIN, Handling, handling
from brassclock.core.rise.strength import RISES_TO, strength_of
from brassclock.core.terms import Strength
from brassclock.core.weigh.methods import grams_text
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.weigh.model import sheet_of
from brassclock.store.tables import Bake, Kitchen

PLAIN: Strength = "kneaded"
KNEADED: dict[str, Any] = {
    "knead": "hand",
    "knead_min": 8.0,
    "bulk_end": "rise",
    "ball_end": "rise",
}  # a dough from nothing


def scale_leaven(r: BakeSnapshot, factor: float) -> None:
    """Yeast and starter lines times a factor, in grams."""
    sheet = solve.solve(r).sheet
    if sheet is None or math.isclose(factor, 1.0, rel_tol=1e-3):
        return
    lines = []
    for typed, line in zip(r.bake.lines, sheet.lines, strict=False):
        leaven = line.ingredient.is_ferment
        grams = line.mass_g * factor
        amount = (grams_text(grams) if grams >= 1 else f"{grams:.2f} g") if leaven else typed["amount"]
        lines.append({**typed, "amount": amount})
    r.bake.lines = lines
    r.bake.weighed = []


def suit_leaven(bake: Bake, kitchen: Kitchen, own: Mapping[str, Ingredient]) -> None:
    """A bake whose lines changed is bloomed where its yeast wants that; one from nothing is handled as its leaven,
    acid and water want it, unless the cook set its handling: with yeast or a starter it is kneaded and rises."""
    try:
        sheet = sheet_of(bake, kitchen, own)
    except InvalidInput:
        return
    bake.bloomed = wants_bloom(sheet.dough)
    if bake.method != "blank":
        return
    was_gas = bake.bulk_end == "skip" and _suits_gas(bake)
    if not was_gas and any(getattr(bake, name) != value for name, value in KNEADED.items()):
        return
    chemical = any(p.ingredient.is_other_leaven for p in sheet.dough.portions) and not sheet.dough.has_ferment
    found = handling(sheet.dough, kitchen.powder) if chemical else None
    kneaded = KNEADED | ({"strength": PLAIN} if was_gas else {})
    for name, value in (kneaded if found is None else _settings(found)).items():
        setattr(bake, name, value)


def own_strength(bake: Bake, kitchen: Kitchen, own: Mapping[str, Ingredient]) -> Strength | None:
    """Strength of a bake's dough by what is in it and by its kneading; None where no yeast or starter makes gas, or
    nothing can be weighed."""
    try:
        dough = sheet_of(bake, kitchen, own).dough
    except InvalidInput:
        return None
    return strength_of(dough, bake.knead, bake.knead_min) if dough.has_ferment else None


def suit_strength(bake: Bake, kitchen: Kitchen, own: Mapping[str, Ingredient], before: Strength | None) -> None:
    """A bake whose lines or kneading changed holds its gas as its dough does, and rises as far as is usual then, unless
    the cook or its school said otherwise than the dough did `before`."""
    now, was = own_strength(bake, kitchen, own), before or PLAIN
    if now is None or bake.strength != was:
        return
    if (bake.bulk_ratio, bake.ball_ratio) == RISES_TO[was]:
        bake.bulk_ratio, bake.ball_ratio = RISES_TO[now]
    bake.strength = now


def _settings(found: Handling) -> dict[str, Any]:
    """Settings of a bake handled so: never left in one piece, and rested in balls or not at all."""
    rests = {"ball_end": "time", "ball_h": found.rest_h} if found.rest_h else {"ball_end": "skip"}
    mixed = {"strength": found.strength, "knead": found.knead, "knead_min": found.knead_min}
    return {**mixed, "bulk_end": "skip", **rests}


def _suits_gas(bake: Bake) -> bool:
    """True if settings are some that a dough of soda or powder was given by itself."""
    ways = (("wet_unkneaded", "none", float(STIR_MIN)), ("kneaded", "hand", float(PRESS_MIN)))
    mixed = (bake.strength, bake.knead, bake.knead_min) in ways
    return mixed and (bake.ball_end == "skip" or (bake.ball_end == "time" and bake.ball_h == float(REST_H)))
