"""Breads of one dough: the bake's own, and further ones with their own count, size, surface and heat.

Each is a bake of the same dough of which only these settings are others, so everything that takes a bake takes each.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from brassclock.services.bake import frozen
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.store.tables import Bake

OWN_SHAPE = ("shape", "diameter_cm", "length_cm", "width_cm", "thickness_mm")
OWN = ("count", "piece_g", *OWN_SHAPE, "surface_id", "doneness", "colour_top", "docked", "heat_steps", "dressing")


def breads_of(r: BakeSnapshot) -> list[BakeSnapshot]:
    """A bake's breads, its own first."""
    return [r, *(_part(r, n, given) for n, given in enumerate(r.bake.parts))]


def names_of(bake: Bake) -> list[str]:
    """Names of a bake's breads, its own by the bake's name."""
    return [bake.name, *(str(p["name"]) for p in bake.parts)]


def beside_g(bake: Bake) -> float:
    """Mass of the pieces of a bake's further breads [g]."""
    return sum(float(p["count"] * p["piece_g"]) for p in bake.parts)


def filled_beside(bake: Bake) -> int:
    """Number of further pieces that have the bake's filling."""
    return sum(int(p["count"]) for p in bake.parts if p.get("filled"))


def pieces_beside(bake: Bake) -> int:
    """Number of pieces of a bake's further breads."""
    return sum(int(p["count"]) for p in bake.parts)


def surface_ids(bake: Bake) -> set[int]:
    """Ids of the surfaces that a bake's breads are baked on."""
    return {i for i in (bake.surface_id, *(p.get("surface_id") for p in bake.parts)) if i is not None}


def _part(r: BakeSnapshot, n: int, given: dict[str, Any]) -> BakeSnapshot:
    """The snapshot of a further bread: its own settings, and what was frozen of it."""
    own: dict[str, Any] = {name: given.get(name) for name in OWN}
    own["shape"], own["doneness"] = own["shape"] or "round", own["doneness"] or r.bake.doneness
    own["docked"] = bool(own["docked"])
    own["surface_id"] = own["surface_id"] or r.bake.surface_id
    whole = r.bake.model_dump(exclude=set(own) | {"parts", "filling", "program", "hearth"})
    kept: dict[str, Any] = {"program": _nth(r.bake.program, n), "hearth": _nth(r.bake.hearth, n)}
    bake = Bake(**(whole | own | kept | {"filling": r.bake.filling if given.get("filled") else None}))
    if bake.hearth:
        return replace(r, bake=bake, surface=frozen.surface_of(bake))
    return replace(r, bake=bake, surface=r.surfaces.get(bake.surface_id or 0, r.surface))


def _nth(kept: dict[str, Any] | None, n: int) -> dict[str, Any] | None:
    """The n-th further bread's of what was frozen; None where nothing was."""
    parts = (kept or {}).get("parts") or []
    return parts[n] if n < len(parts) else None
