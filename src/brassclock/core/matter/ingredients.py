"""The ingredient table: composition, cup weights, heat capacity, allergens, each row with its source.

The rows are package data (`data/ingredients.csv`); reading them is the only file the core opens.
"""

from __future__ import annotations

import csv
import difflib
import re
from dataclasses import dataclass
from functools import lru_cache
from importlib.resources import files


@dataclass(frozen=True)
class Ingredient:
    """One ingredient. Fractions are by mass of the ingredient; cups are US cups of 236.6 mL."""

    id: str
    name: str
    group: str
    cup_low_g: float
    cup_g: float
    cup_high_g: float
    tbsp_g: float
    tsp_g: float
    water_frac: float
    fat_frac: float
    sugar_frac: float
    protein_frac: float
    salt_frac: float
    acid_frac: float
    cp_j_gk: float
    counted_water_frac: float
    effective_liquid_frac: float
    absorption_offset_frac: float
    allergens: tuple[str, ...]
    flour_frac: float
    sugar_kind: str
    piece_g: float | None
    piece_unit: str
    contains: tuple[tuple[str, float], ...]
    source: str
    holds: tuple[str, ...] | None = None

    @property
    def is_yeast(self) -> bool:
        """True for a bought yeast."""
        return self.id.startswith("yeast_")

    @property
    def is_other_leaven(self) -> bool:
        """True for soda, powder and other leavens that do not live."""
        return (self.group == "leaven" and not self.is_yeast) or any(name == "baking_soda" for name, _ in self.contains)

    @property
    def is_starter(self) -> bool:
        """A living leaven that brings flour and water of its own."""
        return self.group == "leaven" and self.flour_frac > 0

    @property
    def is_ferment(self) -> bool:
        """A living leaven: a yeast or a starter."""
        return self.is_yeast or self.is_starter


def _float(text: str) -> float:
    return float(text) if text else 0.0


def _piece(text: str) -> tuple[float | None, str]:
    match = re.match(r"^([\d.]+)(?:\s*\((\w+))?", text)
    if not match:
        return None, ""
    unit = match[2] if match[2] in ("packet", "pinch") else "piece"
    return float(match[1]), unit


def _allergens(text: str) -> tuple[str, ...]:
    known = ("gluten", "milk", "egg", "nuts", "sesame", "soya", "coconut", "sulphites")
    return tuple(name for name in known if name in text)


def _contains(text: str) -> tuple[tuple[str, float], ...]:
    return tuple((name, float(share)) for name, share in re.findall(r"([a-z_]+) (0\.\d+)", text))


@lru_cache(maxsize=1)
def table() -> dict[str, Ingredient]:
    """Every ingredient by id, in the table's order."""
    rows: dict[str, Ingredient] = {}
    text = (files("brassclock.core.matter") / "data" / "ingredients.csv").read_text("utf-8")
    for row in csv.DictReader(text.splitlines()):
        piece_g, piece_unit = _piece(row["g_per_piece"])
        percent = {k: _float(row[f"{k}_pct"]) / 100 for k in ("water", "fat", "sugar", "protein", "salt")}
        rows[row["id"]] = Ingredient(
            id=row["id"],
            name=row["name"],
            group=row["group"],
            cup_low_g=_float(row["g_us_cup_low"]),
            cup_g=_float(row["g_us_cup"]),
            cup_high_g=_float(row["g_us_cup_high"]),
            tbsp_g=_float(row["g_tbsp_15"]),
            tsp_g=_float(row["g_tsp_5"]),
            water_frac=percent["water"],
            fat_frac=percent["fat"],
            sugar_frac=percent["sugar"],
            protein_frac=percent["protein"],
            salt_frac=percent["salt"],
            acid_frac=_float(row["acid_as_lactic_pct"]) / 100,
            cp_j_gk=_float(row["cp_kJ_kgK"]),
            counted_water_frac=_float(row["counted_water"]),
            effective_liquid_frac=_float(row["eff_liquid"]),
            absorption_offset_frac=_float(row["absorption_offset_pts"]) / 100,
            allergens=_allergens(row["allergens"]),
            flour_frac=_float(row["flour_frac"]),
            sugar_kind=row["sugar_kind"],
            piece_g=piece_g,
            piece_unit=piece_unit,
            contains=_contains(row["contains"]),
            source=row["source"],
        )
    return rows


def near_ids(wanted: str, most: int = 3) -> list[str]:
    """Ids that a cook may have meant by `wanted`, nearest first."""
    rows = table()
    clean = re.sub(r"[^a-z]+", "_", wanted.lower()).strip("_")
    parts = set(clean.split("_"))

    def alike(key: str, name: str) -> float:
        """1 for the same letters; words that both have count before letters, those of the id before the name's."""
        in_key = len(parts & set(key.split("_"))) / len(parts)
        in_name = len(parts & set(name.replace(",", "").split())) / len(parts)
        letters = max(
            difflib.SequenceMatcher(None, clean, key).ratio(),
            difflib.SequenceMatcher(None, wanted.lower(), name).ratio(),
        )
        return letters + in_key + 0.5 * in_name

    scored = {key: alike(key, row.name.lower()) for key, row in rows.items()}
    best = sorted(scored, key=lambda key: -scored[key])
    return [key for key in best if scored[key] >= 0.5][:most]


def unknown_text(wanted: str) -> str:
    """The sentence for an ingredient that is not in the table, with near ones."""
    near = near_ids(wanted)
    advice = f" Did you mean {', '.join(near)}?" if near else " Write it as the table does, or make it one of your own."
    return f"“{wanted[:60]}” is not a known ingredient.{advice}"
