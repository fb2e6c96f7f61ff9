"""The methods: a school's formula, strength, temperatures, stages and shape, as data of our own
(`data/methods.toml`)."""

from __future__ import annotations

import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files
from typing import Any

from brassclock.core.weigh.formula import BOWL_LOSS_FRAC
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import TypedLine

WANTS = ("pocket", "blister", "thin", "thick", "flat", "stuffed", "topped")
DEFAULT_COUNT = 8


@dataclass(frozen=True)
class MethodStage:
    """A wait of a method: its usual hours, its place, and the ratio it aims at when a yeast lifts it."""

    name: str
    low_h: float
    high_h: float
    place: str
    ratio: float | None = None


@dataclass(frozen=True)
class Method:
    """A school with its formula, and what the other leaves start from."""

    id: str
    name: str
    school: str
    wants: tuple[str, ...]
    why: str
    lines: tuple[TypedLine, ...]
    strength: str
    bloomed: bool
    dough_c: float
    knead: str
    knead_min: float
    count: int
    piece_g: float
    shape: Shape
    stages: tuple[MethodStage, ...]
    hands_min: float
    shaping: tuple[str, ...]
    surfaces: tuple[str, ...]
    program: str
    hold: str
    cautions: tuple[str, ...]
    seal: str
    docked: bool = False
    filling: tuple[TypedLine, ...] = ()
    filling_g: float | None = None
    topping: bool = False

    @property
    def rising(self) -> tuple[MethodStage, MethodStage]:
        """The two waits that the plan knows: in one piece, and in balls."""
        named = [s for s in self.stages if s.name not in ("sponge", "temper")]
        return named[0], named[-1]

    @property
    def ratios(self) -> tuple[float, float]:
        """Volume ratios of those two; 2 and 1.4 where the method names none."""
        bulk, balls = self.rising
        return bulk.ratio or 2.0, balls.ratio or 1.4

    @property
    def hours(self) -> tuple[float, float]:
        """Usual shortest and longest wait in all [h]."""
        return sum(s.low_h for s in self.stages), sum(s.high_h for s in self.stages)

    @property
    def intent(self) -> str:
        """Intent of the bake on the heat: `pocket`, `blister`, `thick` or `flat`."""
        return next((w for w in self.wants if w in ("pocket", "blister", "thick")), "flat")


def grams_text(grams: float) -> str:
    """An amount as a cook would write it."""
    return f"{grams:.0f} g" if grams >= 20 else f"{grams:.1f} g"


def lines_for(percents: Sequence[Sequence[Any]], count: int, piece_g: float) -> tuple[TypedLine, ...]:
    """Baker's percents as lines in grams for so many pieces, what stays on bowl and hands included."""
    flour_g = count * piece_g / (1 - BOWL_LOSS_FRAC) / sum(row[1] for row in percents) * 100
    return tuple(
        TypedLine(row[0], grams_text(row[1] / 100 * flour_g), None, row[2] if len(row) > 2 else "") for row in percents
    )


def _method(key: str, row: dict[str, Any]) -> Method:
    count, piece = row.get("count", DEFAULT_COUNT), row["piece"]
    filling = row.get("filling", {})
    whole = sum(p for _, p in filling["lines"]) if filling else 1.0
    filled = tuple(
        TypedLine(name, grams_text(p / whole * filling["per_piece_g"] * count)) for name, p in filling.get("lines", ())
    )
    return Method(
        key,
        row["name"],
        row["school"],
        tuple(row["wants"]),
        row["why"],
        lines_for(row["lines"], count, piece["mass_g"]),
        row["strength"],
        row.get("bloomed", False),
        row["mix"]["dough_c"],
        row["mix"]["knead"],
        row["mix"]["minutes"],
        count,
        piece["mass_g"],
        Shape(piece["shape"], piece.get("diameter_cm"), piece.get("length_cm"), piece.get("width_cm")),
        tuple(MethodStage(s["name"], s["low_h"], s["high_h"], s["place"], s.get("ratio")) for s in row["stages"]),
        row["hands_min"],
        tuple(row["shaping"]),
        tuple(row["surfaces"]),
        row["program"],
        row["hold"],
        tuple(row.get("cautions", ())),
        row["seal"],
        row.get("docked", False),
        filled,
        filling.get("per_piece_g"),
        filling.get("topping", False),
    )


BLANK = Method(
    "blank", "From nothing", "Your own formula", (),
    "Type what goes in the bowl; the program reads flour, water and leaven from your "
    "lines.", (), "kneaded", False, 25.0,
    "hand", 8.0, DEFAULT_COUNT, 95.0, Shape("round", 18.0),
    (MethodStage("bulk", 1, 2, "bench", 2.0), MethodStage("balls", 0.4, 1, "bench", 1.4)), 45, (),
    ("stone_oven", "iron_plate", "steel_oven", "skillet"), "", "", (), "square",
)  # fmt: skip


@lru_cache(maxsize=1)
def methods() -> dict[str, Method]:
    """Every method by id, the blank one last."""
    text = (files("brassclock.core.weigh") / "data" / "methods.toml").read_text("utf-8")
    found = {key: _method(key, row) for key, row in tomllib.loads(text).items()}
    return {**found, "blank": BLANK}
