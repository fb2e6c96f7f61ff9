"""The leaven of a bake: scaled, and what it decides of the handling."""

from __future__ import annotations

import math
from collections.abc import Mapping
from typing import Any

from brassclock.core.errors import InvalidInput
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.weigh.methods import grams_text
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.rise.spec import has_ferment
from brassclock.services.weigh.model import sheet_of
from brassclock.store.tables import Bake, Kitchen

AT_RISE, NONE = {"bulk_end": "rise", "ball_end": "rise"}, {"bulk_end": "skip", "ball_end": "skip"}
KNEADED: dict[str, Any] = {"strength": "kneaded", "knead": "hand", "knead_min": 8.0, **AT_RISE}
STIRRED: dict[str, Any] = {"strength": "wet_unkneaded", "knead": "none", "knead_min": 2.0, **NONE}


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
    """A bake from nothing is handled as its leaven wants it, unless the cook set its handling: soda and powder without
    yeast are stirred, shaped and cooked at once; with yeast or a starter it is kneaded and rises."""
    if bake.method != "blank":
        return
    try:
        sheet = sheet_of(bake, kitchen, own)
    except InvalidInput:
        return
    chemical = any(p.ingredient.is_other_leaven for p in sheet.dough.portions) and not has_ferment(sheet.dough)
    have = {name: getattr(bake, name) for name in KNEADED}
    if chemical and have == KNEADED:
        found = STIRRED
    elif not chemical and have == STIRRED:
        found = KNEADED
    else:
        return
    for name, value in found.items():
        setattr(bake, name, value)
