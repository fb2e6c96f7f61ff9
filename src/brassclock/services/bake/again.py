"""A bake begun again as an earlier one was, with the one change that was learned from it."""

from __future__ import annotations

from typing import Any

from brassclock.core.keep.cause.judge import Judged
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.create import insert_bake
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import recording_plan_change
from brassclock.services.keep.cause import LEAF_OF, judged_bake
from brassclock.services.schemas.bake import AgainCreate
from brassclock.services.times import serve_moment
from brassclock.store import kitchens
from brassclock.store.tables import Bake

AS_BEFORE = (  # settings that make a bake what it is; what happened to it stays its own
    "method", "seal", "lines", "unread", "filling", "bag_id", "strength", "bloomed", "count", "piece_g", "shape",
    "diameter_cm", "length_cm", "width_cm", "thickness_mm", "dough_c", "knead", "knead_min", "solve_for", "bowl_g",
    "bowl_material", "bulk_ratio", "ball_ratio", "bulk_place", "ball_place", "cold", "sponge_h", "starter_id",
    "bulk_end", "ball_end", "bulk_h", "ball_h", "bulk_most_h", "ball_most_h", "surface_id", "doneness", "colour_top",
    "heat_steps", "dressing", "docked", "parts",
)  # fmt: skip
SETTABLE = frozenset({"thickness_mm", "skin_min", "uneven_frac", "docked"})  # facts that are settings of a bake
ONE_OF_SIZE = ("diameter_cm", "length_cm", "width_cm")  # a thickness takes their place


def bake_again(app: App, bake_id: int, given: AgainCreate) -> int:
    """Begin the same bread for another table; answers the new bake's id.

    With `change` the one change that its causes name goes with it: as a setting where it is one, in words else. Raises
    Conflict where too many bakes are alive.
    """
    with app.read() as session:
        before = solve.load(app, session, bake_id)
    found = judged_bake(before) if given.change else None
    with app.transaction(before.bake.kitchen_id) as session:
        kitchen = app.kitchen(session, before.bake.kitchen_id)
        facts = {name: getattr(before.bake, name) for name in AS_BEFORE}
        if facts["surface_id"] not in {s.id for s in kitchens.surfaces(session, kitchen.id or 0)}:
            facts["surface_id"] = None
        facts |= _changed(before, found) if found else {}
        now = app.now(session, kitchen)
        with recording_plan_change(app, session, kitchen.id or 0, "another bake was begun"):
            bake = Bake(
                kitchen_id=kitchen.id or 0,
                name=given.name or before.bake.name,
                serve_at=serve_moment(given.serve, now),
                created_at=now,
                **facts,
            )
            return insert_bake(session, bake)


def _changed(before: BakeSnapshot, found: Judged) -> dict[str, Any]:
    """The change as it is carried, and as the setting it is where it is one."""
    change = found.change
    if change is None:
        return {}
    carried = {
        "text": change.change,
        "cause": change.cause,
        "fact": change.fact,
        "leaf": LEAF_OF.get(change.fact, "fire"),
        "from_bake": before.bake.id,
        "from_name": before.bake.name,
    }
    facts: dict[str, Any] = {"carried": carried}
    if change.fact in SETTABLE:
        facts[change.fact] = change.good
        if change.fact == "thickness_mm":
            facts |= dict.fromkeys(ONE_OF_SIZE)
    return facts
