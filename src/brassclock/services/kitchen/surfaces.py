"""The surfaces of a kitchen: a row as the core's surface, as hot as what is known of it says."""

from __future__ import annotations

from brassclock.core.fire.surface_heat import believed
from brassclock.core.fire.surfaces import KINDS, Surface
from brassclock.services.kitchen.beliefs import SAME_SETTING_K, set_sd_k
from brassclock.store.tables import Surface as SurfaceRow

MEASURED = ("infrared", "contact", "first_bread")  # sources by which a heat was read; it is that, whatever was learned


def learned_of(row: SurfaceRow | None) -> dict[str, float] | None:
    """Belief of a surface by its breads, where it is set as it was then; None where none is known, or its heat was
    read."""
    if row is None or row.learned is None or row.source in MEASURED:
        return None
    known = row.learned["here"] and abs(row.learned["set_c"] - row.temp_c) <= SAME_SETTING_K
    return row.learned if known else None


def browns_of(row: SurfaceRow | None) -> float:
    """Browning rate on a surface over the table's, by its breads."""
    return float(row.learned["browns"]) if row is not None and row.learned is not None else 1.0


def surface_of(row: SurfaceRow | None) -> Surface:
    """The core's surface of a row, as hot as its breads say it is where it is set; an iron plate when the bake has
    none."""
    if row is None:
        usual = believed("iron_plate")
        return Surface("iron_plate", usual.mean_c, sd_k=usual.sd_k)
    together = row.spots if KINDS[row.kind].oven else 1
    learned = learned_of(row)
    return Surface(
        row.kind,
        row.temp_c + (learned["shift_k"] if learned else 0.0),
        row.power,
        heat=row.heat,
        greased=row.greased,
        nonstick=row.nonstick,
        breads=together,
        sd_k=learned["sd_k"] if learned else set_sd_k(row),
        size=row.size,
        fan=row.fan,
    )
