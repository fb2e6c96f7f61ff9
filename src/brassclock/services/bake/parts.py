"""Counts, masses and surfaces of the breads of one dough: the bake's own and the further ones."""

from __future__ import annotations

from brassclock.store.tables import Bake


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
