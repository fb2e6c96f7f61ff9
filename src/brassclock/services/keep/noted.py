"""The facts that a cook knows of a bake's making, for the search of causes: beside the bake's settings, or among
them."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from brassclock.store.tables import Bake

ON_BAKE = ("uneven_frac", "skin_min")  # facts that the forecast of the pocket hangs on are the bake's own settings


def noted_of(bake: Bake) -> dict[str, Any]:
    """Facts that are known of a bake's making, those among its settings too."""
    facts = {**bake.noted, **{name: getattr(bake, name) for name in ON_BAKE}}
    return {name: value for name, value in facts.items() if value is not None}


def set_noted(bake: Bake, facts: Mapping[str, Any]) -> None:
    """Store the facts of a bake's making, all of them; None is none."""
    for name in ON_BAKE:
        setattr(bake, name, facts.get(name))
    bake.noted = {name: value for name, value in facts.items() if value is not None and name not in ON_BAKE}
