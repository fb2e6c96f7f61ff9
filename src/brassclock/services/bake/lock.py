"""Settings of a bake that stay as they were once its first round was loaded."""

from __future__ import annotations

from typing import Any

from brassclock.services.app import Conflict
from brassclock.store.tables import Bake

FROZEN = {
    "count": "how many there are",
    "surface_id": "its surface",
    "surface_c": "its surface's heat",
    "doneness": "its colour",
    "colour_top": "its colour",
    "heat_steps": "its way through the heat",
    "dressing": "its dressing",
    "docked": "whether it is docked",
    "parts": "what else is made of its dough",
}  # settings of a bake that its line was planned from, as a cook calls them


def check(bake: Bake, changed: dict[str, Any]) -> None:
    """Refuse a change of what the line on the heat was planned from. Raises Conflict."""
    if bake.hearth is None:
        return
    now = {name: getattr(bake, name, None) for name in FROZEN} | {
        "surface_c": (bake.hearth["surface"] or {}).get("temp_c")
    }
    for name in FROZEN:
        if name in changed and changed[name] != now[name]:
            where = (bake.hearth["surface"] or {}).get("name") or "its surface"
            raise Conflict(
                f"{bake.name} went on the heat on {where[:1].lower()}{where[1:]}; {FROZEN[name]} stays as it was then. "
                "Undo its first load to change that, or change it for another bake."
            )
