"""The hearth of a bake as it was when its first round was loaded: later changes of the kitchen leave it as it is."""

from __future__ import annotations

from typing import Any

from brassclock.store.tables import Bake, Kitchen, Surface

SURFACE_FIELDS = (
    "id",
    "name",
    "kind",
    "temp_c",
    "power",
    "spots",
    "heat",
    "greased",
    "nonstick",
    "source",
    "sd_k",
    "size",
    "fan",
    "learned",
)


def hearth_of(surface: Surface | None, kitchen: Kitchen, **line: Any) -> dict[str, Any]:
    """The hearth as it is stored with its bake: its surface, the kitchen's hands, and what the line is (`spots`,
    `grill`, `count`, `topping`)."""
    kept = {k: getattr(surface, k) for k in SURFACE_FIELDS} if surface is not None else None
    return {"surface": kept, "cooks": kitchen.cooks, "pace": dict(kitchen.pace), **line}


def surface_of(bake: Bake) -> Surface | None:
    """The surface of a frozen hearth, in no session; None when none was frozen."""
    kept = (bake.hearth or {}).get("surface")
    return Surface(kitchen_id=bake.kitchen_id, **kept) if kept else None
