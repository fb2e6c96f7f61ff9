"""The surface of a kitchen that a method asks for."""

from __future__ import annotations

from collections.abc import Sequence

from brassclock.core.weigh.methods import methods
from brassclock.store.tables import Surface


def suited(surfaces: Sequence[Surface], method: str) -> Surface:
    """The surface that a method names first among those there are; else the first."""
    kinds = methods()[method].surfaces if method in methods() else ()
    return min(surfaces, key=lambda s: kinds.index(s.kind) if s.kind in kinds else len(kinds))
