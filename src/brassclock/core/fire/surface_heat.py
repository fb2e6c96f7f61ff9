"""Temperature of a surface: a belief with its source, from a hob's or an oven's setting, the kind's usual heat, or a
reading."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.surfaces import KINDS, Surface
from brassclock.core.rise.belief import Z10, Band

SETTINGS = ("low", "medium_low", "medium", "medium_high", "high")
LADDER = {
    "middle_c": Param(184.0, "C", 150, 220, Kind.FITTED, "times that cooks state for pans on a named setting"),
    "lid_k": Param(24.0, "K", 0, 40, Kind.FITTED, "a lid keeps the heat in; times that cooks state for lidded pans"),
    "step_k": Param(12.0, "K", 6, 25, Kind.FITTED, "times that cooks state for pans on a named setting"),
}
STEP_K = {  # of one word beside the kind's usual heat, judgement
    "oven": 15.0,
    "wall": 30.0,
    "floor": 30.0,
    "oil": 6.0,
    "tray": 15.0,
}
SOURCES = {  # standard deviation [K] of what a cook goes by, judgement but where noted
    "usual": Param(28.0, "K", 25, 30, Kind.JUDGEMENT, "the kind's usual heat, or a setting of the heat"),
    "oven": Param(15.0, "K", 8, 20, Kind.JUDGEMENT, "a stone, a steel or a tray after an oven's thermostat"),
    "typed": Param(15.0, "K", 10, 20, Kind.JUDGEMENT, "a temperature whose source is not told"),
    "sign": Param(20.0, "K", 15, 35, Kind.JUDGEMENT, "water, flour, smoke or dough on the surface"),
    "infrared": Param(12.0, "K", 8, 20, Kind.JUDGEMENT, "an infrared thermometer"),
    "contact": Param(6.0, "K", 3, 10, Kind.JUDGEMENT, "a thermometer that touches"),
    "habit": Param(15.0, "K", 8, 25, Kind.JUDGEMENT, "the times that a cook usually gives"),
    "first_bread": Param(12.0, "K", 8, 20, Kind.JUDGEMENT, "the times of a bread on it"),
    "oil": Param(10.0, "K", 5, 15, Kind.JUDGEMENT, "oil brought to heat by a cook who knows it"),
}


@dataclass(frozen=True)
class SurfaceHeat:
    """Believed temperature of a surface with breads on it: mean and standard deviation [C, K], and its source (a key
    of SOURCES)."""

    mean_c: float
    sd_k: float
    source: str


def spread_k(surface: Surface) -> float:
    """The standard deviation of a surface's heat [K]: its own, else that of a temperature whose source is not told."""
    return surface.sd_k or SOURCES["typed"].value


def heat_band(mean_c: float, sd_k: float) -> Band:
    """A heat believed to `sd_k` [K] as its p10, p50 and p90 [C]."""
    return Band(mean_c - Z10 * sd_k, mean_c, mean_c + Z10 * sd_k, 0.0)


def believed(
    kind: str,
    *,
    temp_c: float | None = None,
    setting: str | None = None,
    measured: str | None = None,
    oven_c: float | None = None,
) -> SurfaceHeat:
    """The belief about a surface from what is known: a temperature and how it was `measured`, else an oven's air, else
    a setting, else the usual.

    >>> believed("skillet", setting="medium").source, believed("skillet", temp_c=230.0, measured="contact").sd_k
    ('usual', 6.0)
    """
    spec = KINDS[kind]
    if temp_c is not None:
        source = measured or (
            "oil" if spec.way == "oil" else "oven" if oven_c is not None and spec.air_heated else "typed"
        )
        return SurfaceHeat(temp_c, SOURCES[source].value, source)
    source = "oil" if spec.way == "oil" else "usual"
    if oven_c is not None and spec.air_heated:
        return SurfaceHeat(oven_c, SOURCES["oven"].value, "oven")
    if setting is None:
        return SurfaceHeat(spec.usual_c, SOURCES[source].value, source)
    word = SETTINGS.index(setting) - 2
    if spec.on_hob and spec.way != "oil":
        middle, step = LADDER["middle_c"].value, LADDER["step_k"].value
        middle += LADDER["lid_k"].value if spec.way == "lidded" else 0.0
    else:
        middle, step = spec.usual_c, STEP_K[spec.way]
    return SurfaceHeat(middle + word * step, SOURCES[source].value, source)
