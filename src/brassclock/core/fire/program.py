"""A program for one bread on one surface: when it turns, puffs and comes off, and what it leaves behind."""

from __future__ import annotations

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from brassclock.core.cautions import Caution, caution
from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.fire.bands import Bands, bands
from brassclock.core.fire.edges import DONE_C, edge_seconds, edge_temperature
from brassclock.core.fire.ends import End, comes_off, off_by_hand
from brassclock.core.fire.heating import Heating, heating, oil_after, recovery_s
from brassclock.core.fire.legs import Step, as_written, chosen, second_move
from brassclock.core.fire.puff import model
from brassclock.core.fire.puff.model import Baked, Bread, Stage
from brassclock.core.fire.puff.params import PARAMS
from brassclock.core.fire.risk import Score, pocket_score
from brassclock.core.fire.surfaces import Surface
from brassclock.core.fire.verdicts import FINISH, Verdict, verdicts
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.rise.belief import Band

SAFELY = 1.25  # judgement: the p90 of a filling's time over its middle, where only one bake is run
Array = NDArray[np.float64]
MOST_UNSAFE = 0.1  # of the bakes of an ensemble in which the filling does not get hot enough
BAND = 0.30  # of a time, while only one bake can be run
RADIANT_H = 8.0  # W/m2K of a hot edge to the kitchen
NONSTICK_MOST_C = 250.0  # judgement: makers name 230 to 260 C
STEP_CAUTIONS = {
    "wall": ("clay_hands",), "inverted": ("inverted_plate",), "oil": ("hot_oil",), "floor": ("live_flame",), "turned": ("smoke",),
    "lidded": ("lid_steam",), "grill": ("hot_handle",),
}  # fmt: skip
DONENESS = ("pale", "golden", "charred")
DEFAULT_FLOUR_G_M2 = 15.0
RESTED_MIN, MOST_SHRINK = 8.0, 0.12  # practice: a round rolled and not rested draws back by up to an eighth
EVENTS = (
    "bubbles", "bottom_set", "flip", "top_set", "puff", "full", "light_bottom", "light_top",
    "golden_bottom", "golden_top", "char_bottom", "char_top", "done", "core_75", "too_dry",
)  # fmt: skip


@dataclass(frozen=True)
class Faults:
    """What the cook knows to be off: unevenness, drying skin, bench flour, a tear, the dough's maturity, rest after rolling."""

    uneven_frac: float | None = None
    skin_min: float | None = None
    bench_flour_g_m2: float | None = None
    tear_mm2: float | None = None
    maturity: float | None = None
    rest_min: float | None = None


@dataclass(frozen=True)
class Program:
    """What happens to one bread: turn and off [s], what the turn is, edges [s], score, carpet, and the surface after.

    `second`: turn, invert (plate over the flame) or grill. `events` (bands) are worked out when first asked for.
    """

    baked: Baked
    second: str
    turn_s: float | None
    off_s: float
    edge_s: float | None
    score: Score
    surface_after_c: float
    recovery_s: float | None
    moisture_loss_frac: float
    held_hot: Callable[[], Heating] = field(repr=False, compare=False)
    cautions: tuple[Caution, ...]
    why: dict[str, Why]
    ensemble: Callable[[], Bands] = field(repr=False, compare=False)
    coldest_c: float  # when it comes off
    end: End
    said: Callable[[], tuple[Verdict, ...]] = field(repr=False, compare=False)

    @cached_property
    def verdicts(self) -> tuple[Verdict, ...]:
        """What it cannot do, in words that say what would; worked out when first asked for."""
        return self.said()

    @cached_property
    def bands(self) -> Bands:
        """Every event with its spread, and what moves the puff (or the end) most."""
        return self.ensemble()

    @cached_property
    def heating(self) -> Heating:
        """How its surface gets and stays hot for breads like this; worked out when first asked for."""
        return self.held_hot()

    @property
    def events(self) -> dict[str, Band]:
        return self.bands.events


def shrunk(bread: Bread, rest_min: float | None) -> Bread:
    """A round that drew back because it was not rested after rolling: smaller and thicker, the same dough.

    >>> b = shrunk(Bread(0.004, 0.2, 0.88, 22.0), 0.0)
    >>> round(b.thickness_m * 1000, 2), round(b.diameter_m, 3)
    (5.17, 0.176)
    """
    if rest_min is None or rest_min >= RESTED_MIN:
        return bread
    left = 1 - MOST_SHRINK * (1 - max(rest_min, 0.0) / RESTED_MIN)
    return replace(bread, thickness_m=bread.thickness_m / left**2, diameter_m=bread.diameter_m * left)


def _laid_on(bread: Bread, surface: Surface) -> Bread:
    """The bread with the water that the surface wants on its back."""
    return replace(bread, film_kg_m2=bread.film_kg_m2 or surface.film_kg_m2)


def _bake(
    bread: Bread, surface: Surface, legs: Sequence[Stage], altitude_m: float, contact: float = 1.0,
    grid: tuple[int, int] | None = None, plate_cells_c: Array | None = None,
) -> Baked:  # fmt: skip
    """One bake through legs on a surface, as another bread left it where its cells are given; `contact` times how well it usually lies there."""
    given = surface.contact
    if contact != 1.0:
        given = given | {k: (given.get(k) or PARAMS[k].value) * contact for k in ("h_wet", "h_dry")}
    pressure = pressure_at_altitude_pa(altitude_m)
    return model.simulate(
        bread, surface.plate, legs, pressure_pa=pressure, overrides=given, grid=grid, plate_cells_c=plate_cells_c
    )


def events_on(bread: Bread, surface: Surface, altitude_m: float = 0.0, turned: bool = True) -> dict[str, float | None]:
    """The events of one rested bread through the usual legs of a surface [s]: those of its program, without the rest of it."""
    return _bake(_laid_on(bread, surface), surface, chosen(surface, bread, turned), altitude_m).events


def plan_bread(
    bread: Bread,
    surface: Surface,
    *,
    doneness: str = "golden",
    altitude_m: float = 0.0,
    faults: Faults | None = None,
    docked: bool = False,
    topped: bool = False,
    filled: bool = False,
    steps: Sequence[Step] | None = None,
) -> Program:
    """The program of one bread on one surface, as given by `steps` or chosen for the surface. A bread is `filled` with what must be hot: meat or egg."""
    faults = faults or Faults()
    if faults.bench_flour_g_m2 is not None:
        surface = replace(surface, dust_kg_m2=faults.bench_flour_g_m2 / 1000)
    bread = shrunk(_laid_on(bread, surface), faults.rest_min)

    def legs_of(surface: Surface) -> list[Stage]:
        return as_written(surface, steps) if steps else chosen(surface, bread, turned)

    turned = not (docked or topped)
    legs = legs_of(surface)
    whole = _bake(bread, surface, legs, altitude_m)

    def ensemble(off_s: float) -> Bands:
        shown = {name: _time(whole, name) for name in EVENTS}
        if not model.bake_stepper.ready:
            return Bands({name: _wide(t) for name, t in shown.items()}, ())

        def bake(off: dict[str, float]) -> dict[str, float | None]:
            hot = replace(
                surface,
                temp_c=surface.temp_c + off["surface"],
                oven_c=surface.oven_c and surface.oven_c + off["surface"],
            )
            piece = replace(
                bread,
                thickness_m=bread.thickness_m * off["thickness"],
                water_per_dry=bread.water_per_dry * off["water"],
            )
            cut = _no_longer(legs_of(hot), legs, whole, off_s)
            seen = _bake(piece, hot, cut, altitude_m, off["contact"], model.COARSE_GRID)
            return {name: _time(seen, name) for name in EVENTS}

        return bands(shown, bake, "puff" if shown["puff"] else "done")

    safe_s: float | None = 0.0
    if filled:
        core = ensemble(float(whole.events["off"] or 0.0)).events["core_75"]
        safe_s = core.p90 if core.p_never < MOST_UNSAFE else None
    end = (
        off_by_hand(whole, safe_s) if steps
        else comes_off(whole, bread, doneness, pocket=bread.pocket and not docked, turned=turned, safe_s=safe_s)
    )  # fmt: skip
    if not steps:
        end = _for_all(end, bread, surface, legs, whole, altitude_m)
    off_s = end.off_s

    def trial(piece: Bread, hot: Surface) -> End:
        seen = _bake(piece, hot, chosen(hot, piece, turned), altitude_m)
        core_s = seen.events["core_75"]
        safe = (core_s and core_s * SAFELY) if filled else 0.0
        return comes_off(seen, piece, doneness, pocket=piece.pocket and not docked, turned=turned, safe_s=safe)

    def finish() -> tuple[float, float] | None:
        stop_s = min(off_s, end.spoilt_s or off_s)
        e = _bake(bread, surface, [*_cut(legs, whole, stop_s), FINISH], altitude_m).events
        through = [e["done"], e["core_75"] and e["core_75"] * SAFELY if filled else 0.0]
        return None if None in through else (stop_s, max(t for t in through if t is not None) - stop_s)

    baked = _bake(bread, surface, _cut(legs, whole, off_s), altitude_m)

    after_c, back_s = _left(surface, baked, bread)
    turn_s = whole.events["second"] if len(legs) > 1 else None
    return Program(
        replace(whole, loss_frac=baked.loss_frac), second_move(surface), turn_s, off_s, _edge_s(bread, surface, baked),
        _score(bread, surface, whole, faults, docked), after_c, back_s, baked.loss_frac,
        lambda: heating(surface, baked.heat_taken_j_m2, off_s + (back_s if back_s is not None else off_s)),
        tuple(_cautions(bread, surface)), _whys(bread, surface, whole), lambda: ensemble(off_s), _coldest_c(baked), end,
        lambda: verdicts(end.codes, bread, surface, _coldest_c(baked), trial, finish, filled or not bread.thick),
    )  # fmt: skip


def _for_all(end: End, bread: Bread, surface: Surface, legs: Sequence[Stage], whole: Baked, altitude_m: float) -> End:
    """The end that does for the next bread too: it goes on as soon as the surface is near enough its start, and takes as long as that makes it."""
    if end.through_s is None or surface.spec.way == "oil":
        return end
    cut = _cut(legs, whole, end.off_s)
    left = _bake(bread, surface, cut, altitude_m).plate_cells_c
    back_s, cells = recovery_s(surface, left)
    if back_s is not None:
        _, cells = recovery_s(surface, left, back_s)
    after = [*cut[:-1], legs[-1]] if len(cut) == len(legs) == 2 else legs
    done = _bake(bread, surface, after, altitude_m, plate_cells_c=cells).events["done"]
    if done is None:
        return End(float(whole.events["off"] or 0.0), None, ("does_not_cook_through",))
    if done <= end.off_s:
        return end
    done = math.ceil(done) + 1.0  # staying longer leaves it cooler still
    return replace(end, off_s=done, through_s=done)


def _no_longer(legs: Sequence[Stage], own: Sequence[Stage], whole: Baked, off_s: float) -> list[Stage]:
    """Legs cut to what an ensemble needs to see: well past the nominal bread's own times."""
    second = whole.events["second"]
    if len(own) != 2 or second is None:
        return [replace(leg, seconds=min(leg.seconds, 2 * off_s + 30)) for leg in legs]
    first = min(legs[0].seconds, 1.8 * second + 10)
    return [
        replace(legs[0], seconds=first),
        replace(legs[1], seconds=min(legs[1].seconds, 1.8 * (off_s - second) + 45)),
    ]


def _time(baked: Baked, name: str) -> float | None:
    """An event's time; the flip is when the second stretch begins, whatever is done then."""
    return baked.events["second" if name == "flip" else name]


def _wide(seconds: float | None) -> Band:
    if seconds is None:
        return Band(None, None, None, 1.0)
    return Band(seconds * (1 - BAND), seconds, seconds * (1 + BAND))


def _left(surface: Surface, baked: Baked, bread: Bread) -> tuple[float, float | None]:
    """(temperature of the surface after the bread [C], seconds until the next may go on)."""
    if surface.spec.way == "oil":
        return oil_after(surface, baked.heat_taken_j_m2, math.pi * bread.diameter_m**2 / 4)
    back_s, _ = recovery_s(surface, baked.plate_cells_c)
    return float(baked.plate_cells_c[-1]), back_s


def _edge_s(bread: Bread, surface: Surface, baked: Baked) -> float | None:
    """How long each edge of a thick round stands on the plate afterwards; None for a thin one, and where nothing stands."""
    if not bread.thick or surface.spec.way not in ("turned", "lidded"):
        return None
    grown = bread.thickness_m * bread.rise_g
    middle_c = float(np.median(baked.temp_c[-1]))
    edge_c = edge_temperature(min(middle_c, DONE_C), grown, surface.top.h_w_m2k + RADIANT_H, surface.top.gas_c)
    return edge_seconds(edge_c, grown, surface.temp_c)


def _coldest_c(baked: Baked) -> float:
    """The coldest point within the crust when it comes off [C]."""
    depth = baked.depth_mm
    inside = (depth >= 0.1 * depth[-1]) & (depth <= 0.9 * depth[-1])
    return float(baked.temp_c[-1][inside].min())


def _cut(legs: Sequence[Stage], whole: Baked, off_s: float) -> list[Stage]:
    second = whole.events["second"]
    if len(legs) < 2 or second is None:
        return [replace(legs[0], seconds=off_s, until="time")]
    first = replace(legs[0], seconds=second, until="time")
    if len(legs) == 2:
        return [first, replace(legs[1], seconds=max(off_s - second, 0.5), until="time")]
    return list(legs)


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
    if surface.spec.way in ("wall", "inverted"):
        levels |= {
            "grease": float(surface.greased != "dry"),
            "slick": float(surface.nonstick),
            "unwetted": float(not surface.wet_back),
        }
    if surface.spec.way == "oil":
        levels["oil_cool"], levels["oil_hot"] = levels.pop("cool"), levels.pop("hot")
    puff, gold = baked.events["puff"], baked.events["golden_top"]
    if puff and gold:
        levels["crust_first"] = (puff - gold) / puff
    return pocket_score(levels, docked=docked, pocket_share=float(baked.pocket.max()) if bread.pocket else None)


def _cautions(bread: Bread, surface: Surface) -> list[Caution]:
    found = [caution("wide_band")]
    if bread.pocket:
        found.append(caution("steam"))
    if surface.temp_c < surface.spec.need_c - 20:
        found.append(caution("cool_start"))
    if surface.temp_c > surface.spec.most_c + 20:
        found.append(caution("hot_start"))
    mm = bread.thickness_m * 1000
    if not 2 <= mm <= 15 or not 140 <= surface.temp_c <= 500:
        found.append(caution("outside_tested_range"))
    found += [caution(code) for code in STEP_CAUTIONS.get(surface.spec.way, ())]
    if surface.heat_kind == "charcoal":
        found.append(caution("charcoal_fumes"))
    if surface.heat_kind == "gas" and surface.spec.way in ("wall", "floor"):
        found.append(caution("gas_fumes"))
    if surface.spec.way == "inverted" and surface.heat == "ceramic":
        found.append(caution("ceramic_hob"))
    if surface.nonstick and surface.temp_c > NONSTICK_MOST_C:
        found.append(caution("nonstick_hot"))
    found.append(caution("hot_surface"))  # last: known to all who cook
    return found


def _whys(bread: Bread, surface: Surface, baked: Baked) -> dict[str, Why]:
    inputs = (
        Input("thickness", round(bread.thickness_m * 1000, 1), "mm"),
        Input("diameter", round(bread.diameter_m * 100, 1), "cm"),
        Input("dough temperature", round(bread.temp_c, 1), "°C"),
        Input("water over dry", round(bread.water_per_dry, 2), "kg/kg"),
        Input(surface.spec.name, round(surface.temp_c), "°C"),
    )
    sources = ("contact and steam constants fitted to timed breads", "steam: IAPWS-IF97, published")
    spread = "the bands of 32 bakes, each a little off in contact, thickness, heat and water"
    rule = {"oven": "puff + 10 s", "oil": "puff + 6 s"}.get(surface.spec.way, "bubbles and first brown below, + 5 s")
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
