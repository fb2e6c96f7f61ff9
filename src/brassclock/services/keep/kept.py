"""The breads of a bake as they come off the heat, for what is computed of their keeping."""

from __future__ import annotations

import math
from functools import lru_cache
from typing import Any

from brassclock.core.day.kitchen_air import air_c
from brassclock.core.fire.puff.model import Bread
from brassclock.core.keep.hold.model import BAKED_KG_M3, FILM_FATS, KeepTrace, Kept, Room, run, word
from brassclock.core.matter.dough import Dough
from brassclock.core.terms import Intent
from brassclock.core.weigh.methods import methods
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.kinds import Kind
from brassclock.services.kitchen.surfaces import surface_of

LOSS_FRAC: dict[Intent, float] = {  # practice: of the dough's mass, where no bake says it
    "pocket": 0.08, "blister": 0.09, "flat": 0.08, "thick": 0.06, "fried": 0.13, "rolls": 0.11,
}  # fmt: skip


HEAT_LOSS_FRAC: dict[Intent, float] = {  # the model of the heat at the usual heat of its methods, in the median
    "pocket": 0.19, "blister": 0.14, "flat": 0.19, "thick": 0.094, "fried": 0.157, "rolls": 0.217,
}  # fmt: skip
LOSS_WITHIN = (0.6, 1.8)  # judgement: of the usual loss, what a slower or hotter bake makes of it


def loss_kept(intent: Intent, heat_loss_frac: float) -> float:
    """Share of its mass that a bread loses on the heat, as it counts for keeping.

    The model of the heat dries a bread to about twice what a scale shows; what it says of one bake beside its usual is
    taken, the usual is what is weighed.
    """
    low, high = LOSS_WITHIN
    return LOSS_FRAC[intent] * min(max(heat_loss_frac / HEAT_LOSS_FRAC[intent], low), high)


USUAL_X = 0.85  # water per dry mass of a dough of which nothing is said
TOWEL_H = 6.0  # of what lies in the towel


def intent_of(r: BakeSnapshot, bread: Bread | None) -> Intent:
    """The kind of a bake's bread, as it is kept: by its surface, its method, its thickness and its pocket."""
    method = methods().get(r.bake.method)
    way, wants = surface_of(r.surface).spec.way, method.wants if method else ()
    if way in ("oil", "tray"):
        return "fried" if way == "oil" else "rolls"
    if "blister" in wants:
        return "blister"
    if bread is not None and bread.thick:
        return "thick"
    return "pocket" if bread is not None and bread.pocket else "flat"


def kept_of(kind: Kind) -> Kept | None:
    """One bread of a kind on the line as it comes off the heat; None while its heat cannot be computed.

    Once the line has begun it is the one that was frozen.
    """
    r, sheet, program = kind.rows, kind.sheet, kind.program
    known = (r.bake.program or {}).get("kept")
    if known:
        return Kept(**known)
    if sheet is None or sheet.sheet is None or program is None or not sheet.dough.flour_g:
        return None
    intent = intent_of(r, kind.bread)
    piece_g = r.bake.piece_g or (sheet.pieces.mass_g if sheet.pieces else 0.0)
    loss, across_m = loss_kept(intent, program.moisture_loss_frac), sheet.sheet.diameter_cm / 100
    baked_kg = piece_g * (1 - loss) / 1000
    dressing = r.bake.dressing or {}
    fat = next((f for f in FILM_FATS if f in str(dressing.get("kind", ""))), None)
    brushed: dict[str, Any] = (
        {"brushed": fat, "brushed_g": dressing["mass_g"]} if fat and dressing["when"] == "after_heat" else {}
    )
    return Kept(
        intent,
        piece_g,
        loss_frac=loss,
        diameter_m=across_m,
        height_m=baked_kg / (BAKED_KG_M3[intent] * math.pi / 4 * across_m**2),
        tint=r.bake.doneness,
        **facts_of(sheet.dough),
        **brushed,
    )


def room_of(r: BakeSnapshot) -> Room:
    """The room about a bake's bread now, to the kelvin."""
    return Room(float(round(air_c(r.kitchen.hourly_c, r.now))))


@lru_cache(maxsize=32)
def towel(bread: Kept, stack: int, room: Room) -> KeepTrace:
    """A stack in its towel for some hours."""
    return run(bread, ((0.0, "cloth"),), stack, room, hours=TOWEL_H)


def feel_of(bread: Kept | None, stack: int, room: Room, seconds: float) -> str:
    """The word for a bread so long in the towel with others; soft where nothing is known of it."""
    if bread is None:
        return "soft"
    trace = towel(bread, stack, room)
    return word(trace.at("crisp", seconds), trace.at("soft", seconds))


def facts_of(dough: Dough) -> dict[str, Any]:
    """The properties of a dough that slow or speed its staling, by the names of `Kept`."""
    portions = dough.portions
    return {
        "water_per_dry": dough.water_per_dry,
        "fat_frac": dough.fat_frac,
        "dairy": any({"milk", "egg"} & set(p.ingredient.allergens) for p in portions),
        "sour": any(p.ingredient.is_starter for p in portions),
        "chemical": not dough.has_ferment and any(p.ingredient.is_other_leaven for p in portions),
    }
