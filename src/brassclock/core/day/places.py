"""Places of a kitchen for a dough: the bench with its hours, and places warmer or colder than it.

A place follows the bench (so many kelvin over it) or holds its own temperature with a swing. Defaults are judgement;
a kitchen sets its own.
"""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from brassclock.core.day.kitchen_air import Relocation, air_c, air_path

LONGEST_H = 110.0  # a cold of four days and what comes after it
USUAL_H = 48.0


@dataclass(frozen=True)
class Place:
    """A place: `temp_c` of its own, or None and `over_k` over the bench; `swing_c` either side; litres of a fridge."""

    key: str
    name: str
    temp_c: float | None = None
    over_k: float = 0.0
    swing_c: float = 0.0
    litres: float | None = None

    def air_c(self, hourly_c: Sequence[float], moment: dt.datetime) -> float:
        """Mean air there [C] at an aware local moment.

        >>> Place("warm_spot", "warm spot", None, 4.0).air_c([20.0] * 24, dt.datetime(2026, 1, 1, tzinfo=dt.UTC))
        24.0
        """
        return air_c(hourly_c, moment) + self.over_k if self.temp_c is None else self.temp_c

    def path(
        self, hourly_c: Sequence[float], start: dt.datetime, hours: float = USUAL_H
    ) -> tuple[tuple[float, float], ...]:
        """Its air as (hour from `start`, C)."""
        if self.temp_c is None:
            return tuple((h, c + self.over_k) for h, c in air_path(hourly_c, start, hours))
        return ((0.0, self.temp_c), (hours, self.temp_c))

    def stay(self, start: dt.datetime, end: dt.datetime, hourly_c: Sequence[float]) -> Relocation:
        """A stretch of time there."""
        return Relocation(start, end, self.air_c(hourly_c, start), self.swing_c)


DEFAULTS: dict[str, Place] = {
    p.key: p
    for p in (
        Place("bench", "the bench"),
        Place("warm_spot", "a warm spot", None, 4.0),
        Place("oven_light", "the oven with its light on", 28.0, 0.0, 1.0),
        Place("proof_box", "the proof box", 30.0, 0.0, 0.5),
        Place("cellar", "the cellar", 13.0),
        Place("fridge", "the fridge", 4.0, 0.0, 1.0, 150.0),
    )
}
SETTABLE = ("temp_c", "over_k", "swing_c", "litres")


def places_of(own: Mapping[str, Mapping[str, Any]], fridge_c: float) -> dict[str, Place]:
    """The places of a kitchen: the defaults with its own settings over them."""
    found = {**DEFAULTS, "fridge": replace(DEFAULTS["fridge"], temp_c=fridge_c)}
    for key, settings in own.items():
        if key in found:
            found[key] = replace(found[key], **{n: settings[n] for n in SETTABLE if n in settings})
    return found
