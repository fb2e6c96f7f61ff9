"""A program for one bread on one surface: when it turns, puffs and comes off, and what it leaves behind."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.fire.puff import model
from brassclock.core.fire.puff.model import Baked, Bread, Stage
from brassclock.core.fire.risk import Score, pocket_score
from brassclock.core.fire.surfaces import Surface, recovery_s
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.rise.belief import Band

Array = NDArray[np.float64]
BAND = 0.30  # stated for now: the model's times are good to about this
TURN_LIMIT_S = 180.0
SECOND_LIMIT_S = 240.0
AFTER_PUFF_S = 10.0
AFTER_CUE_S = 5.0
MIN_SECOND_S = 15.0
DONENESS = ("pale", "golden", "charred")
DEFAULT_FLOUR_G_M2 = 15.0
EVENTS = (
    "bubbles", "bottom_set", "flip", "top_set", "puff", "full", "light_bottom", "light_top",
    "golden_bottom", "golden_top", "char_bottom", "char_top", "done", "too_dry",
)  # fmt: skip


@dataclass(frozen=True)
class Faults:
    """What the cook knows to be off: unevenness, drying skin, bench flour, a tear, the dough's maturity."""

    uneven_frac: float | None = None
    skin_min: float | None = None
    bench_flour_g_m2: float | None = None
    tear_mm2: float | None = None
    maturity: float | None = None


@dataclass(frozen=True)
class Step:
    """One leg of a given program: which face is down, for how long or until the cue."""

    do: str
    seconds: float | None = None
    until_cue: bool = False


@dataclass(frozen=True)
class Program:
    """What happens to one bread: events [s], turn and off [s], score, carpet, and the surface after."""

    baked: Baked
    turn_s: float | None
    off_s: float
    events: dict[str, Band]
    score: Score
    surface_after_c: float
    recovery_s: float | None
    moisture_loss_frac: float
    cautions: tuple[Caution, ...]
    why: dict[str, Why]


def _legs(surface: Surface, given: Sequence[Step] | None) -> list[Stage]:
    flux, back_c, back_h = surface.below

    def stage(seconds: float, turn: bool, until: str = "time", after_s: float = 0.0) -> Stage:
        return Stage(seconds, turn, flux, back_c, back_h, surface.top, until, after_s)

    if given:
        legs, face = [], "face_a"
        for step in given:
            seconds = step.seconds if step.seconds is not None else TURN_LIMIT_S
            legs.append(
                stage(
                    seconds, step.do != face, "cue" if step.until_cue else "time", AFTER_CUE_S if step.until_cue else 0
                )
            )
            face = step.do
        return legs
    if surface.spec.oven:
        return [stage(TURN_LIMIT_S, False, "puff", AFTER_PUFF_S), stage(SECOND_LIMIT_S, True)]
    return [stage(TURN_LIMIT_S, False, "cue", AFTER_CUE_S), stage(SECOND_LIMIT_S, True)]


def _off_s(baked: Baked, doneness: str, pocket: bool) -> float:
    """When to take it off: cooked, pocket full, the wanted colour, but never past too dry or charred."""
    e = baked.events
    turn = e["flip"] or 0.0
    wish = [turn + MIN_SECOND_S, e["done"] or (e["full"] or turn) + 45.0]
    if pocket and e["full"]:
        wish.append(e["full"] + 4)
    if doneness == "golden":
        wish.append(min(t for t in (e["light_top"], e["golden_bottom"], turn + 60) if t))
    if doneness == "charred":
        wish.append(e["golden_top"] or turn + 90)
    limits = [t for t in (e["too_dry"], e["char_top"] if doneness != "charred" else None) if t and t > turn]
    latest = min(limits, default=1e9) - 5
    end = float(e["off"] or 0.0)
    return float(max(min(max(wish), latest, end), turn + 5))


def plan_bread(
    bread: Bread,
    surface: Surface,
    *,
    doneness: str = "golden",
    altitude_m: float = 0.0,
    faults: Faults | None = None,
    docked: bool = False,
    steps: Sequence[Step] | None = None,
) -> Program:
    """The program of one bread on one surface, as given by `steps` or chosen for the surface."""
    pressure = pressure_at_altitude_pa(altitude_m)
    legs = _legs(surface, steps)
    whole = model.simulate(bread, surface.plate, legs, pressure_pa=pressure)
    if steps:
        turn_s, off_s = whole.events["flip"], float(whole.events["off"] or 0.0)
    else:
        turn_s = whole.events["flip"]
        off_s = _off_s(whole, doneness, bread.pocket and not docked)
    cut = _cut(legs, whole, off_s)
    baked = model.simulate(bread, surface.plate, cut, pressure_pa=pressure)
    back_s, _ = recovery_s(surface, baked.plate_cells_c)
    score = _score(bread, surface, whole, faults or Faults(), docked)
    shown = {
        name: _band(whole.events["flip"] if name == "flip" else whole.events[name]) for name in EVENTS
    }  # fmt: skip
    return Program(
        replace(whole, loss_frac=baked.loss_frac), turn_s, off_s, shown, score,
        float(baked.plate_cells_c[-1]), back_s, baked.loss_frac,
        tuple(_cautions(bread, surface)), _whys(bread, surface, whole, turn_s),
    )  # fmt: skip


def _cut(legs: Sequence[Stage], whole: Baked, off_s: float) -> list[Stage]:
    second = whole.events["second"]
    if len(legs) < 2 or second is None:
        return [replace(legs[0], seconds=off_s, until="time")]
    first = replace(legs[0], seconds=second, until="time")
    if len(legs) == 2:
        return [first, replace(legs[1], seconds=max(off_s - second, 0.5), until="time")]
    return list(legs)


def _band(seconds: float | None) -> Band:
    if seconds is None:
        return Band(None, None, None, 1.0)
    return Band(seconds * (1 - BAND), seconds, seconds * (1 + BAND))


def _score(bread: Bread, surface: Surface, baked: Baked, faults: Faults, docked: bool) -> Score:
    mm = bread.thickness_m * 1000
    levels = {
        "thin": mm,
        "thick": mm,
        "cold": bread.temp_c,
        "cool": surface.spec.need_c - surface.temp_c,
        "hot": surface.temp_c - surface.spec.most_c,
        "flour": faults.bench_flour_g_m2 if faults.bench_flour_g_m2 is not None else DEFAULT_FLOUR_G_M2,
    }
    for name, value in (("uneven", faults.uneven_frac), ("skin", faults.skin_min), ("tear", faults.tear_mm2)):
        if value is not None:
            levels[name] = value
    if faults.maturity is not None:
        levels |= {"under": faults.maturity, "over": faults.maturity}
    puff, gold = baked.events["puff"], baked.events["golden_top"]
    if puff and gold:
        levels["crust_first"] = (puff - gold) / puff
    return pocket_score(levels, docked=docked, pocket_share=float(baked.pocket.max()) if bread.pocket else None)


def _cautions(bread: Bread, surface: Surface) -> list[Caution]:
    found = [caution("wide_band"), caution("hot_surface")]
    if bread.pocket:
        found.append(caution("steam"))
    if surface.temp_c < surface.spec.need_c - 20:
        found.append(caution("cool_start"))
    if surface.temp_c > surface.spec.most_c + 20:
        found.append(caution("hot_start"))
    mm = bread.thickness_m * 1000
    if not 2 <= mm <= 8 or not 150 <= surface.temp_c <= 400:
        found.append(caution("outside_tested_range"))
    return found


def _whys(bread: Bread, surface: Surface, baked: Baked, turn_s: float | None) -> dict[str, Why]:
    inputs = (
        Input("thickness", round(bread.thickness_m * 1000, 1), "mm"),
        Input("diameter", round(bread.diameter_m * 100, 1), "cm"),
        Input("dough temperature", round(bread.temp_c, 1), "°C"),
        Input("water over dry", round(bread.water_per_dry, 2), "kg/kg"),
        Input(surface.spec.name, round(surface.temp_c), "°C"),
    )
    sources = ("contact and steam constants fitted to timed breads", "steam: IAPWS-IF97, published")
    spread = "about 30 % either way"
    rule = "puff + 10 s" if surface.spec.oven else "bubbles and first brown below, + 5 s"
    return {
        "puff": Why(
            "When it puffs", "∂(C·T)/∂t = ∂/∂z(k·∂T/∂z) + steam; both skins ≥ 70 °C and R(T) ≥ 6.5",
            "Heat and steam move through the sheet; it parts when both skins have set and the gas between "
            "wants six and a half times its room.",
            inputs, Kind.FITTED, spread, ("surface temperature", "thickness", "how well it lies on the surface"), sources,
        ),
        "flip": Why(
            "When to turn", f"t = {rule}", "The turning cue on this surface, timed by the same model.", inputs,
            Kind.FITTED, spread, ("surface temperature", "thickness"), sources,
        ),
    }  # fmt: skip
