"""A program for one bread on one surface: when it turns, puffs and comes off, and what it leaves behind."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from brassclock.core.cautions import Caution
from brassclock.core.evidence import Kind, Param, Why
from brassclock.core.fire.baking import Baking, Faults, laid_on, shrunk
from brassclock.core.fire.bands import Bands, bands, offsets
from brassclock.core.fire.colour import GOLDEN_BOTH, Wish, word_of
from brassclock.core.fire.edges import edge_seconds, edge_temperature
from brassclock.core.fire.ends import End, black_s, put_off
from brassclock.core.fire.heating import Heating, heating, oil_after, recovery_s
from brassclock.core.fire.legs import Step, legs_of_steps, second_move
from brassclock.core.fire.program_why import _cautions, _whys
from brassclock.core.fire.puff import model
from brassclock.core.fire.puff.model import Baked, Bread, Stage
from brassclock.core.fire.puff.params import DONE_MOST_C
from brassclock.core.fire.right_heat import RightHeat, right_heat
from brassclock.core.fire.risk import Score, pocket_score
from brassclock.core.fire.surface_heat import spread_k
from brassclock.core.fire.surfaces import Surface
from brassclock.core.fire.verdicts import Verdict, verdicts
from brassclock.core.rise.belief import Band

MOST_UNSAFE = Param(
    0.1, "-", 0.02, 0.1, Kind.JUDGEMENT, "of the bakes of an ensemble in which the filling does not get hot enough"
)
RAW = {"does_not_cook_through", "filling_not_safe"}
BAND = Param(0.30, "-", 0.2, 0.4, Kind.JUDGEMENT, "of a time, while only one bake can be run")
HELD_S = (8.0, 16.0, 32.0, 64.0)  # judgement: by how much longer a first side is tried
THICK_HELD_S = (30.0, 60.0, 90.0, 120.0, 160.0, 210.0, 270.0, 340.0, 420.0, 510.0, 610.0, 720.0)  # of a thick one
SOONEST = Param(1.12, "-", 1, 1.2, Kind.JUDGEMENT, "times the soonest end: of the first sides within, the shortest")
LIGHT_GAS = Param(0.3, "-", 0.2, 0.45, Kind.JUDGEMENT, "gas in a proved crumb: no cook stands it on its edges")
RIM_SET_C = Param(80.0, "C", 75, 88, Kind.JUDGEMENT, "rim of a light crumb whose starch is set: not raw, though soft")
RADIANT_H = Param(8.0, "W/(m2 K)", 5, 14, Kind.PUBLISHED_FROM_MEMORY, "a hot edge to the kitchen")
DEFAULT_FLOUR_G_M2 = Param(15.0, "g/m2", 5, 40, Kind.PRACTICE, "bench flour on a rolled round")
EVENTS = (
    "bubbles",
    "bottom_set",
    "flip",
    "top_set",
    "puff",
    "full",
    "light_bottom",
    "light_top",
    "golden_bottom",
    "golden_top",
    "char_bottom",
    "char_top",
    "done",
    "core_75",
    "too_dry",
)


@dataclass(frozen=True)
class Program:
    """Program of one bread: turn and off [s], kind of the turn, edges [s], score, carpet, and the surface after.

    `second`: turn, invert (plate over the flame) or grill. `baked` went through all its legs, `cut` came off in time.
    What is dear (bands, verdicts, heating) is worked out when first asked for.
    """

    baking: Baking = field(repr=False)
    baked: Baked = field(repr=False)
    cut: Baked = field(repr=False)
    second: str
    turn_s: float | None
    off_s: float
    edge_s: float | None
    score: Score
    surface_after_c: float
    recovery_s: float | None
    moisture_loss_frac: float
    cautions: tuple[Caution, ...]
    why: dict[str, Why]
    coldest_c: float  # when it comes off
    end: End

    @cached_property
    def verdicts(self) -> tuple[Verdict, ...]:
        """Verdicts on this program, each with a remedy."""
        if not self.end.codes:
            return ()
        return verdicts(self.end, self.baking, self.coldest_c, self.baked, self.right_heat)

    @cached_property
    def bands(self) -> Bands:
        """Every event, turn and end with its spread [s], and what moves the puff (or the end) most."""
        shown = times_of(self.baked, self.off_s) | {"coldest": self.coldest_c}
        if not model.bake_stepper.ready:
            return Bands({name: _wide(t) for name, t in shown.items()}, ())
        found = bands(shown, ensemble(self.baking, self.baked, self.off_s), "puff" if shown["puff"] else "done")
        return replace(found, events=found.events | self._by_the_clock())

    def _by_the_clock(self) -> dict[str, Band]:
        """The starts and the end of a cook's own steps that hang on no sign: as sure as the clock."""
        lasting = [s for s in self.baking.steps or () if s.lasts]
        sure = next((i for i, s in enumerate(lasting) if s.until is not None), len(lasting))
        starts = {f"leg{i}": self.baked.starts_s[i] for i in range(1, min(sure + 1, len(lasting)))}
        ends = {"off": self.off_s} if lasting and sure == len(lasting) else {}
        return {name: Band(t, t, t, 0.0) for name, t in (starts | ends).items()}

    @cached_property
    def heating(self) -> Heating:
        """Heating of its surface for breads like this."""
        back_s = self.recovery_s if self.recovery_s is not None else self.off_s
        return heating(self.baking.surface, self.cut.heat_taken_j_m2, self.off_s + back_s)

    @property
    def events(self) -> dict[str, Band]:
        """The events of EVENTS with their spread [s]."""
        return {name: self.bands.events[name] for name in EVENTS}

    def colour_at(self, at_s: float) -> tuple[str, str]:
        """The words of the bottom and the top face at an instant [s]."""
        row = min(int(np.searchsorted(self.baked.s, at_s)), len(self.baked.s) - 1)
        brown, char = self.baked.browned[row], self.baked.charred[row]
        return word_of(float(brown[0]), float(char[0])), word_of(float(brown[1]), float(char[1]))

    @cached_property
    def right_heat(self) -> RightHeat | None:
        """The heat at which the usual program has this bread through and coloured at once; None where there is none."""
        return right_heat(self.baking.usual)


def plan_bread(
    bread: Bread,
    surface: Surface,
    *,
    wish: Wish = GOLDEN_BOTH,
    altitude_m: float = 0.0,
    faults: Faults | None = None,
    docked: bool = False,
    topped: bool = False,
    filled: bool = False,
    steps: Sequence[Step] | None = None,
    dressing_g: float = 0.0,
) -> Program:
    """The program of one bread on one surface, as given by `steps` or chosen for the surface. A bread is `filled` with
    what must be hot: meat or egg; `dressing_g` is spread on it after the turn."""
    faults = faults or Faults()
    if faults.bench_flour_g_m2 is not None:
        surface = replace(surface, dust_kg_m2=faults.bench_flour_g_m2 / 1000)
    piece = shrunk(laid_on(bread, surface), faults.rest_min)
    baking = Baking(
        piece,
        surface,
        wish,
        altitude_m,
        not (docked or topped),
        piece.pocket and not docked,
        filled,
        tuple(steps) if steps else None,
        dressing_g / 1000 / (math.pi / 4 * piece.diameter_m**2),
    )
    return program_of(baking, faults, docked)


def events_on(
    bread: Bread, surface: Surface, wish: Wish, altitude_m: float = 0.0, turned: bool = True
) -> dict[str, float | None]:
    """The events of one rested bread through the usual legs of a surface [s]: those of its program, without the rest of
    it."""
    return Baking(laid_on(bread, surface), surface, wish, altitude_m, turned).baked().events


def program_of(baking: Baking, faults: Faults, docked: bool) -> Program:
    """The program of a baking; bands, verdicts and the right heat are worked out when they are asked for."""
    whole = baking.baked()
    end = baking.end(whole, _safe_in_most_s(baking, whole))
    if baking.steps is None:
        end = _for_all(baking, end, whole)
        baking, whole, end = _turned_later(baking, whole, end)
    cut = baking.baked(baking.cut(whole, end.off_s))
    bread, surface = baking.bread, baking.surface
    after_c, back_s = _left(surface, cut, bread)
    return Program(
        baking=baking,
        baked=replace(whole, loss_frac=cut.loss_frac),
        cut=cut,
        second=second_move(surface),
        turn_s=_turn_s(baking, whole),
        off_s=end.off_s,
        edge_s=_edge_s(bread, surface, cut) if baking.steps is None else None,
        score=_score(baking, whole, faults, docked),
        surface_after_c=after_c,
        recovery_s=back_s,
        moisture_loss_frac=cut.loss_frac,
        cautions=tuple(_cautions(bread, surface, baking.wish)),
        why=_whys(bread, surface, baking.held_s),
        coldest_c=coldest_c(cut),
        end=end,
    )


def _turned_later(baking: Baking, whole: Baked, end: End) -> tuple[Baking, Baked, End]:
    """The bake of a bread that has its colours and waits on its second side to be through, with the first side held
    longer where that brings it off sooner: turned raw it takes the heat it needs through a dry face."""
    first, long = baking.legs[0], baking.bread.thick or baking.filled
    waits = end.off_s == end.through_s or RAW & {*end.codes}
    if first.until not in ("colour", "golden") or not waits:
        return baking, whole, end
    tried = [(baking, whole, end)]
    for held_s in _long_held(baking) if long else HELD_S:
        other = replace(baking, held_s=held_s)
        baked = other.baked()
        tried.append((other, baked, _for_all(other, other.end(baked, _safe_in_most_s(other, baked)), baked)))
    return tried[_shortest([t[2] for t in tried], SOONEST.value if long else 1.0)]


def _shortest(ends: Sequence[End], most: float) -> int:
    """Number of the first end that is within `most` times the soonest one: through before raw, without a fault before
    with one."""
    ranks = [(e.through_s is None, bool(e.codes), e.off_s) for e in ends]
    raw, faulty, off_s = min(ranks)
    return next(i for i, rank in enumerate(ranks) if rank <= (raw, faulty, off_s * most))


def _long_held(baking: Baking) -> list[float]:
    """By how much longer the first side of a thick or filled bread may be held [s], by bakes in coarse cells: so that
    it is off soonest, and the shortest that ends nearly as soon, which cooks would choose."""
    ends = [replace(baking, held_s=held_s).briefly()[1] for held_s in THICK_HELD_S]
    return sorted({THICK_HELD_S[_shortest(ends, most)] for most in (1.0, SOONEST.value)})


def _turn_s(baking: Baking, whole: Baked) -> float | None:
    """Seconds until it is turned, inverted or put under the grill: None for what stays as it lies."""
    if baking.steps is None:
        return whole.events["second"]
    faces = [
        leg
        for step, leg in zip(baking.steps, legs_of_steps(baking.steps), strict=True)
        if step.do in ("face_b", "grill")
    ]
    if not faces or faces[0] is None:
        return whole.events["flip"]
    return whole.starts_s[faces[0]] or None


def ensemble(baking: Baking, whole: Baked, off_s: float) -> list[dict[str, float | None]]:
    """Events and actions [s] and coldest point [C] of the bread with its inputs a little off, 32 times."""
    return [_a_little_off(baking, off, whole, off_s) for off in offsets(spread_k(baking.surface))]


def _a_little_off(baking: Baking, off: dict[str, float], whole: Baked, off_s: float) -> dict[str, float | None]:
    bread = baking.bread
    piece = replace(
        bread,
        thickness_m=bread.thickness_m * off["thickness"],
        water_per_dry=bread.water_per_dry * off["water"],
        browning=bread.browning * off["browning"],
        rise_g=1 + (bread.rise_g - 1) * off["swelling"],
    )
    there = baking.at(baking.surface.temp_c + off["surface"])
    other = replace(there, bread=piece)
    legs = _no_longer(there.legs, whole, off_s) if baking.steps is None else there.legs  # the way of the bread itself
    seen = other.baked(legs, contact=off["contact"], grid=model.COARSE_GRID)
    end = other.end(seen, other.safe_s(seen))
    return times_of(seen, end.off_s) | {"coldest": coldest_at(seen, off_s)}


def times_of(baked: Baked, off_s: float) -> dict[str, float | None]:
    """The events of a bake by the names that are shown [s], its turn and its end among them."""
    found: dict[str, float | None] = {name: _time(baked, name) for name in EVENTS}
    return found | {"off": off_s} | {f"leg{i}": t for i, t in enumerate(baked.starts_s) if i}


def _safe_in_most_s(baking: Baking, whole: Baked) -> float | None:
    """Seconds until a filling is safe in nine bakes of ten: None where it is not."""
    if not baking.filled or not model.bake_stepper.ready:
        return baking.safe_s(whole)
    end_s = float(whole.events["off"] or 0.0)
    core = bands({"core_75": whole.events["core_75"]}, ensemble(baking, whole, end_s), "core_75").events["core_75"]
    return core.p90 if core.p_never < MOST_UNSAFE else None


def _for_all(baking: Baking, end: End, whole: Baked) -> End:
    """The end that does for the next bread too: it goes on as soon as the surface is near enough its start, and takes
    as long as that makes it."""
    surface = baking.surface
    if end.through_s is None or surface.spec.way in ("oil", "tray"):
        return end
    cut, legs = baking.cut(whole, end.off_s), baking.legs
    left = baking.baked(cut).plate_cells_c
    back_s, cells = recovery_s(surface, left)
    if back_s is not None:
        _, cells = recovery_s(surface, left, back_s)
    done = baking.baked([*cut[:-1], legs[len(cut) - 1]], plate_cells_c=cells).events["done"]
    if done is None:
        return End(float(whole.events["off"] or 0.0), None, ("does_not_cook_through",))
    if done <= end.off_s:
        return end
    done = math.ceil(done) + 1.0  # staying longer leaves it cooler still
    return put_off(end, done, black_s(whole.events, baking.shown, whole.events["second"] or 0.0))


def _no_longer(legs: Sequence[Stage], whole: Baked, off_s: float) -> list[Stage]:
    """Legs cut to what an ensemble needs to see: well past the nominal bread's own times."""
    starts = [t for t in whole.starts_s if 0.0 <= t < off_s] or [0.0]
    ends = [*starts[1:], off_s]
    last = len(starts) - 1
    return [
        replace(leg, seconds=min(leg.seconds, (2.2 if i < last else 1.8) * (end - start) + (10 if i < last else 45)))
        for i, (leg, start, end) in enumerate(zip(legs, starts, ends, strict=False))
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
    if surface.spec.way == "tray":
        return surface.temp_c, 0.0
    if surface.spec.way == "oil":
        return oil_after(surface, baked.heat_taken_j_m2, math.pi * bread.diameter_m**2 / 4)
    back_s, _ = recovery_s(surface, baked.plate_cells_c)
    return float(baked.plate_cells_c[-1]), back_s


def _edge_s(bread: Bread, surface: Surface, baked: Baked) -> float | None:
    """Seconds that each edge of a thick round stands on the plate afterwards, to be hot and lightly coloured; None
    for a thin one, where nothing stands, and for a light crumb whose rim is set by then."""
    if not bread.thick or surface.spec.way not in ("turned", "lidded"):
        return None
    grown = bread.thickness_m * bread.rise_g
    middle_c = float(np.median(baked.temp_c[-1]))
    edge_c = edge_temperature(min(middle_c, DONE_MOST_C), grown, surface.top.h_w_m2k + RADIANT_H, surface.top.gas_c)
    if bread.gas_frac >= LIGHT_GAS and edge_c >= RIM_SET_C:
        return None
    heated_s, coloured_s = edge_seconds(edge_c, grown, surface.temp_c), baked.events["light_bottom"]
    return None if heated_s is None else max(heated_s, coloured_s or 0.0)


def coldest_c(baked: Baked) -> float:
    """Highest temperature that the coldest point within the crust reached by the end [C]."""
    return coldest_at(baked, float(baked.s[-1]))


def coldest_at(baked: Baked, at_s: float) -> float:
    """Highest temperature that the coldest point within the crust reached by an instant [C]: what was cooked once
    stays cooked."""
    depth = baked.depth_mm
    inside = (depth >= 0.1 * depth[-1]) & (depth <= 0.9 * depth[-1])
    row = min(int(np.searchsorted(baked.s, at_s)), len(baked.s) - 1)
    return float(baked.temp_c[: row + 1, inside].max(axis=0).min())


def _score(baking: Baking, baked: Baked, faults: Faults, docked: bool) -> Score:
    bread, surface = baking.bread, baking.surface
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
    if not baking.pocket and not docked:
        return Score(0.0, ())  # no pocket is wanted, and nothing speaks against one
    return pocket_score(levels, docked=docked, pocket_share=float(baked.pocket.max()) if bread.pocket else None)
