"""View of a surface of a kitchen."""

from __future__ import annotations

from brassclock.core.fire.surface_heat import heat_band, spread_k
from brassclock.services.kitchen.beliefs import set_sd_k
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.kitchen import HeatBandRead, SurfaceRead
from brassclock.store.tables import Surface as SurfaceRow


def surface_out(row: SurfaceRow) -> SurfaceRead:
    """View of a surface: what is set of it, how hot that makes it by itself, and how hot it is believed when lit."""
    lit = surface_of(row)
    told = _band(row.temp_c, set_sd_k(row))
    return SurfaceRead(**row.model_dump(), told=told, believed=_band(lit.temp_c, spread_k(lit)))


def _band(mean_c: float, sd_k: float) -> HeatBandRead:
    found = heat_band(mean_c, sd_k)
    return HeatBandRead(p10_c=found.p10, p50_c=found.p50, p90_c=found.p90)
