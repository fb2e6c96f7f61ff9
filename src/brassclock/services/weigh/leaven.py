"""The leaven of a bake, scaled."""

from __future__ import annotations

import math

from brassclock.core.weigh.methods import grams_text
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot


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
