"""A method as the settings of a bake."""

from __future__ import annotations

from typing import Any

from sqlmodel import Session

from brassclock.core.weigh.methods import Method
from brassclock.services.app import NotFound
from brassclock.services.kitchen.pantry import ROW_ID
from brassclock.store.rows import get
from brassclock.store.tables import OwnMethod

LEAST_NIGHT_H = 14.0  # practice: a cold rise shorter than a night is a chill


def method_facts(method: Method) -> dict[str, Any]:
    """A method as the settings of a bake."""
    bulk_ratio, ball_ratio = method.ratios
    bulk, balls = method.rising
    stuffing = None
    if method.filling:
        stuffing = {
            "lines": [{"ingredient": x.ingredient, "amount": x.amount, "basis": None} for x in method.filling],
            "per_piece_g": method.filling_g,
            "topping": method.topping,
        }
    fridge = next((s for s in method.stages if s.place == "fridge"), None)
    sponge = next((s for s in method.stages if s.name == "sponge"), None)
    cold = None
    if fridge is not None and any(x.ingredient.startswith(("yeast_", "starter")) for x in method.lines):
        which = "bulk" if fridge is bulk else "ball"
        cold = {"stage": which, "after_h": 0.25, "hours": min(max(fridge.low_h, LEAST_NIGHT_H), fridge.high_h)}
    return {
        "bulk_place": bulk.place if bulk is not fridge else "bench",
        "ball_place": balls.place if balls is not fridge else "bench",
        "cold": cold,
        "sponge_h": sponge.high_h if sponge else None,
        "seal": method.seal,
        "strength": method.strength,
        "bloomed": method.bloomed,
        "count": method.count,
        "piece_g": method.piece_g,
        "shape": method.shape.kind,
        "diameter_cm": method.shape.diameter_cm,
        "length_cm": method.shape.length_cm,
        "width_cm": method.shape.width_cm,
        "dough_c": method.dough_c,
        "knead": method.knead,
        "knead_min": method.knead_min,
        "bulk_ratio": bulk_ratio,
        "ball_ratio": ball_ratio,
        "bulk_h": bulk.low_h,
        "ball_h": balls.low_h,
        "docked": method.docked,
        "filling": stuffing,
        "lines": [
            {"ingredient": x.ingredient, "amount": x.amount, "basis": x.basis, "part": x.part} for x in method.lines
        ],
    }


def own_method(session: Session, kitchen_id: int, method_id: str) -> OwnMethod:
    """A method of the kitchen's own, or NotFound."""
    number = method_id.removeprefix("own-")
    row = get(session, OwnMethod, int(number)) if ROW_ID.fullmatch(number) else None
    if row is None or row.kitchen_id != kitchen_id:
        raise NotFound(f"There is no method {method_id[:40]} of this kitchen's own.")
    return row
