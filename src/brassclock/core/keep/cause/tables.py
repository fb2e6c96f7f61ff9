"""The sixteen faults with their causes: priors, ramps of facts, cures and words. Judgement throughout."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import get_args

from brassclock.core.fire.surfaces import KINDS
from brassclock.core.keep.cause.facts import Facts
from brassclock.core.terms import Fault

FAULTS: tuple[Fault, ...] = get_args(Fault)
PRIORS: dict[Fault, dict[str, float]] = {
    "flat": {"cool": .22, "thick": .10, "skin": .10, "uneven": .10, "thin": .08, "not_back": .08, "under": .07,
             "over": .07, "tear": .06, "cold": .05, "flour": .03, "hot": .02, "docked": .02},
    "part_pocket": {"uneven": .24, "skin": .16, "tear": .12, "cool": .12, "over": .07, "thick": .06, "not_back": .06,
                    "flour": .05},
    "one_side": {"uneven": .45, "turn_late": .15, "skin": .15, "flour": .08},
    "burst": {"tear": .25, "thin": .25, "over": .15, "uneven": .15, "hot": .08},
    "pale": {"cool": .34, "short": .24, "not_back": .12, "lean": .10, "flour": .04, "cold": .04},
    "scorched": {"hot": .42, "long": .30, "flour": .07, "thin": .06},
    "raw_inside": {"thick": .28, "short": .26, "hot": .18, "cold": .08, "cool": .06, "wet_dough": .05},
    "doughy_middle": {"thick": .26, "short": .26, "hot": .22, "cold": .07, "wet_dough": .07},
    "stiff": {"long": .24, "open": .22, "waited": .14, "cool": .12, "dry_dough": .12, "thin": .08},
    "tough": {"dry_dough": .22, "under": .14, "overknead": .14, "no_rest": .10, "flour": .10, "reheated": .10},
    "soapy": {"soda_over": .85},
    "sour": {"acid": .35, "over": .25, "starter_old": .20},
    "shrank": {"no_rest": .45, "cold": .15, "under": .12, "overknead": .12},
    "fell_off": {"unwetted": .24, "grease": .18, "cool": .14, "slick": .12, "flour": .10, "cold": .08,
                 "dry_dough": .06},
    "stuck": {"cool": .25, "wet_dough": .20, "no_flour": .15, "burnt_on": .15, "over": .10},
    "doughy_edges": {"not_edged": .36, "thick": .22, "uneven": .15, "hot": .15},
}  # fmt: skip
OTHER = 0.12  # of each fault, for what nobody logged


@dataclass(frozen=True)
class Cause:
    """A cause: the fact it lies in, what to change, and the name of it as a cook says it."""

    fact: str
    name: str
    change: str


CAUSES: dict[str, Cause] = {
    "cool": Cause("surface_c", "The surface was too cool", "Heat it longer before the first one"),
    "hot": Cause("surface_c", "The surface was too hot", "Give it less heat, and a little longer"),
    "not_back": Cause("recovered", "The surface had not come back to its heat", "Wait between two breads"),
    "thick": Cause("thickness_mm", "Rolled too thick", "Roll it thinner"),
    "thin": Cause("thickness_mm", "Rolled too thin", "Leave it thicker"),
    "uneven": Cause("uneven_frac", "Rolled unevenly", "Roll it level: turn it a quarter at each stroke"),
    "skin": Cause("skin_min", "Its skin dried before the heat", "Cover each round as it is rolled"),
    "no_rest": Cause("rest_min", "Not rested after rolling", "Let it rest 10 min before the heat"),
    "under": Cause("maturity", "The dough was young", "Let it ripen longer"),
    "over": Cause("maturity", "The dough was past its best", "Take it sooner, or give it less leaven"),
    "cold": Cause("dough_c", "The dough was cold", "Take the balls out sooner"),
    "tear": Cause("tear_mm2", "It had a tear or a crack", "Ball it smooth, the seam below, and keep it covered"),
    "flour": Cause("bench_flour_g_m2", "Much flour on the bench", "Use less flour, and brush it off"),
    "no_flour": Cause("bench_flour_g_m2", "Too little flour on the bench", "Dust the bench thinly"),
    "docked": Cause("docked", "It was docked", "Do not prick it"),
    "short": Cause("off_s", "Taken off too soon", "Leave it until it has its colour"),
    "long": Cause("off_s", "Left on too long", "Take it off sooner"),
    "turn_late": Cause("turn_s", "Turned late", "Turn it at its first bubbles"),
    "lean": Cause("tint", "A lean dough colours slowly", "A little milk, malt or sugar in the dough"),
    "wet_dough": Cause("hydration_frac", "A wet dough", "A little less water"),
    "dry_dough": Cause("hydration_frac", "A dry dough", "Two per cent more water"),
    "open": Cause("wrap", "Left open", "Into cloth at once"),
    "waited": Cause("wait_min", "It waited long", "Eat it sooner, or bag it when cool"),
    "overknead": Cause("kneaded", "Kneaded too long", "Knead it less"),
    "reheated": Cause("microwaved", "Heated in the microwave", "Heat it in a dry pan"),
    "soda_over": Cause("soda_excess", "More soda than acid", "Less soda, or a little lemon juice"),
    "acid": Cause("acid_tta", "A very sour dough", "A younger starter, or a shorter cold rest"),
    "starter_old": Cause("starter_state", "A starter past its peak", "Use it at its peak"),
    "unwetted": Cause("wetted", "Its back was not wetted", "Wet its back before the wall"),
    "grease": Cause("greased", "Grease on the surface", "Wipe it dry"),
    "slick": Cause("nonstick", "A coated surface lets go", "Use a bare one"),
    "burnt_on": Cause("char_left", "Burnt flour on the surface", "Wipe it between breads"),
    "not_edged": Cause("edged", "Its edges were not stood up", "Stand its edges on the plate at the end"),
}


def ramp(value: float, start: float, end: float) -> float:
    """0 at `start`, 1 at `end` and beyond, straight between.

    >>> ramp(5, 0, 10), ramp(1, 8, 0), ramp(20, 0, 10)
    (0.5, 0.875, 1.0)
    """
    return min(1.0, max(0.0, (value - start) / (end - start)))


def _of(fact: str, start: float, end: float) -> Callable[[Facts], float]:
    return lambda x: ramp(float(getattr(x, fact)), start, end)


def _is(fact: str, value: object) -> Callable[[Facts], float]:
    return lambda x: float(getattr(x, fact) == value)


def _thick(x: Facts) -> float:
    return ramp(x.thickness_mm, *((15.0, 25.0) if x.intent == "thick" else (4.5, 8.0)))


def _kneaded(x: Facts) -> float:
    return ramp(x.kneaded, *((1.5, 3.0) if x.chemical else (2.5, 5.0)))


def _late(x: Facts) -> float:
    due = 0.55 * (x.off_s or 60.0)
    return ramp((x.turn_s or due) / due, 1.3, 2.5)


RULES: dict[Fault, tuple[tuple[str, float, Callable[[Facts], float]], ...]] = {
    "one_side": (("uneven", .8, _of("uneven_frac", .1, .5)), ("turn_late", .6, _late),
                 ("skin", .5, _of("skin_min", 3, 15)), ("flour", .4, _of("bench_flour_g_m2", 20, 60))),
    "burst": (("tear", .7, _of("tear_mm2", 0, 8)), ("thin", .7, _of("thickness_mm", 2.4, 1.4)),
              ("over", .5, _of("maturity", 1.2, 1.8)), ("uneven", .4, _of("uneven_frac", .1, .5)),
              ("hot", .4, lambda x: ramp(x.hot_c - KINDS[x.surface].most_c, 0, 100))),
    "tough": (("dry_dough", .6, _of("hydration_frac", .60, .50)), ("under", .5, _of("maturity", .7, .3)),
              ("overknead", .4, _kneaded), ("no_rest", .4, _of("rest_min", 6, 0)),
              ("flour", .3, _of("bench_flour_g_m2", 30, 90)), ("reheated", .7, _is("microwaved", True))),
    "soapy": (("soda_over", .9, _of("soda_excess", .15, .6)),),
    "sour": (("acid", .9, _of("acid_tta", 12, 18)), ("over", .6, _of("maturity", 1.2, 1.8)),
             ("starter_old", .6, _is("starter_state", "chilled"))),
    "shrank": (("no_rest", .8, _of("rest_min", 8, 1)), ("cold", .5, _of("dough_c", 18, 8)),
               ("under", .5, _of("maturity", .8, .4)), ("overknead", .3, _of("kneaded", 1.3, 2.5))),
    "fell_off": (("unwetted", .85, _is("wetted", False)), ("grease", .85, lambda x: float(x.greased != "dry")),
                 ("slick", .85, _is("nonstick", True)),
                 ("cool", .6, lambda x: ramp(KINDS[x.surface].need_c - x.hot_c, 0, 80)),
                 ("cold", .5, _of("dough_c", 16, 6)), ("flour", .5, _of("bench_flour_g_m2", 20, 60)),
                 ("dry_dough", .5, _of("hydration_frac", .58, .48))),
    "stuck": (("cool", .7, lambda x: ramp(KINDS[x.surface].need_c - x.hot_c, 0, 80)),
              ("wet_dough", .6, _of("hydration_frac", .68, .80)), ("no_flour", .5, _of("bench_flour_g_m2", 8, 0)),
              ("over", .4, _of("maturity", 1.2, 1.8)), ("burnt_on", .5, _is("char_left", True))),
    "doughy_edges": (("not_edged", .8, _is("edged", False)), ("thick", .6, _thick),
                     ("uneven", .6, _of("uneven_frac", .1, .5)),
                     ("hot", .4, lambda x: ramp(x.hot_c - (200 if x.intent == "thick" else KINDS[x.surface].most_c),
                                                0, 60))),
}  # fmt: skip
BASE = 0.03  # chance of such a fault with every fact good
GOOD: dict[str, object] = {  # of a fact, where one value is right for every bread
    "uneven_frac": 0.05, "skin_min": 0.0, "dough_c": 22.0, "maturity": 1.0, "tear_mm2": 0.0, "greased": "dry",
    "nonstick": False, "wetted": True, "bench_flour_g_m2": 10.0, "docked": False, "rest_min": 10.0,
    "hydration_frac": 0.63, "soda_excess": 0.0, "wrap": "cloth", "wait_min": 10.0, "acid_tta": 10.0,
    "starter_state": "peak", "edged": True, "recovered": True, "kneaded": 1.0, "microwaved": False,
    "char_left": False, "tint": 1.5,
}  # fmt: skip
NEAR_K = 10.0  # judgement: no surface is known or set more nearly
SIDES: dict[str, Callable[[Facts], bool]] = {  # a cause holds only if the fact lies on its side
    "thin": lambda x: x.thickness_mm < x.right_mm, "thick": lambda x: x.thickness_mm > x.right_mm,
    "cool": lambda x: x.hot_c < x.right_c - NEAR_K, "hot": lambda x: x.hot_c > x.right_c + NEAR_K,
    "under": lambda x: x.maturity < 1, "over": lambda x: x.maturity > 1, "cold": lambda x: x.dough_c < 22,
    "dry_dough": lambda x: x.hydration_frac < 0.62, "wet_dough": lambda x: x.hydration_frac > 0.66,
    "flour": lambda x: x.bench_flour_g_m2 > 15, "no_flour": lambda x: x.bench_flour_g_m2 < 10,
}  # fmt: skip
