"""Chance of a fault under facts, by the models of the heat and of keeping, else by ramps; and facts set right."""

from __future__ import annotations

import math
from functools import lru_cache

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.baking import Faults
from brassclock.core.fire.legs import Step
from brassclock.core.fire.program import Program, plan_bread
from brassclock.core.fire.puff.model import Bread
from brassclock.core.fire.surfaces import KINDS, Surface
from brassclock.core.keep.cause.facts import NOT_BACK_K, Facts
from brassclock.core.keep.cause.tables import BASE, CAUSES, GOOD, RULES, SIDES, ramp
from brassclock.core.keep.hold.model import BAKED_KG_M3, Kept, run
from brassclock.core.terms import Fault
from brassclock.core.weigh.geometry import sheet_density_g_cm3

GROWS = {"pocket": 1.15, "blister": 1.2, "flat": 1.15, "thick": 1.8, "fried": 1.15, "rolls": 1.8}
MOST_POCKET_MM = 8.0
NEVER_S = 900.0  # an event that does not happen
TURNED = 0.55  # of the time on the heat, where the turn is not known
FLOUR_WATER = 0.14  # of flour
CHANGED_AT = ("off_s", "turn_s")
HEATS_OTHERWISE = ("surface_c", "thickness_mm", "recovered")
BY_LOOK_LN = Param(0.3, "-", 0.2, 0.5, Kind.JUDGEMENT, "of the time that is due: nearer, it was taken off by its look")
FIRM_FROM, FIRM_TO = 20.0, 60.0  # judgement: softness lost at which the first cook, and every cook, calls it stiff


@lru_cache(maxsize=512)
def baked(x: Facts) -> Program:
    """The bread of these facts on its surface; by its own seconds where they are known."""
    hot_c = x.hot_c - (0.0 if x.recovered else NOT_BACK_K)
    bread = Bread(
        x.thickness_mm / 1000,
        x.diameter_cm / 100,
        (x.hydration_frac + FLOUR_WATER) / (1 - FLOUR_WATER),
        x.dough_c,
        rise_g=GROWS[x.intent],
        pocket=x.intent in ("pocket", "blister") and x.thickness_mm <= MOST_POCKET_MM and not x.docked,
        browning=x.tint,
    )
    surface = Surface(x.surface, hot_c, greased=x.greased, nonstick=x.nonstick, wetted=x.wetted)
    faults = Faults(x.uneven_frac, x.skin_min, x.bench_flour_g_m2, x.tear_mm2, x.maturity, x.rest_min)
    return plan_bread(bread, surface, faults=faults, docked=x.docked, steps=_steps(x))


def _steps(x: Facts) -> list[Step] | None:
    if x.off_s is None:
        return None
    way = KINDS[x.surface].way
    if way in ("wall", "floor", "tray"):
        return [Step("face_a", x.off_s)]
    turn_s = min(x.turn_s or TURNED * x.off_s, x.off_s - 1.0)
    return [Step("face_a", turn_s), Step("grill" if way in ("inverted", "grill") else "face_b", x.off_s - turn_s)]


def _sooner(u: float, v: float) -> float:
    """Chance that v comes before u, of times that spread by a fifth."""
    return 1 / (1 + (max(u, 1.0) / max(v, 1.0)) ** -5)


def chance(fault: Fault, x: Facts) -> float:
    """Chance of a fault under these facts [0 to 1]."""
    if fault in RULES:
        good = 1 - BASE
        for _, weight, bad in RULES[fault]:
            good *= 1 - weight * bad(x)
        return 1 - good
    program = baked(x)
    at = {name: s or NEVER_S for name, s in program.baked.events.items()}
    off = program.off_s
    if fault in ("flat", "part_pocket"):
        return 1 - program.score.score / 100
    if fault == "pale":
        top = 0.0 if KINDS[x.surface].way == "oil" else _sooner(at["light_top"], off)
        return max(_sooner(at["light_bottom"], off), top)
    if fault == "scorched":
        return max(_sooner(off, at["char_bottom"]), _sooner(off, at["char_top"]))
    if fault in ("raw_inside", "doughy_middle"):
        return _sooner(at["done"], off)
    dry = 0.9 * ramp(program.moisture_loss_frac, 0.09, 0.22)
    return 1 - (1 - dry) * (1 - 0.9 * _waited(x)) * (1 - 0.7 * ramp(x.hydration_frac, 0.58, 0.48))


@lru_cache(maxsize=256)
def _waited(x: Facts) -> float:
    """Degree to which waiting has stiffened a good bread of that kind [0 to 1]."""
    area_m2 = math.pi / 4 * (x.diameter_cm / 100) ** 2
    dough_g = sheet_density_g_cm3() * 1e6 * area_m2 * x.thickness_mm / 1000
    x0, loss = (x.hydration_frac + FLOUR_WATER) / (1 - FLOUR_WATER), 0.09
    height_m = dough_g * (1 - loss) / 1000 / (BAKED_KG_M3[x.intent] * area_m2)
    kept = Kept(x.intent, dough_g, x0, loss, x.diameter_cm / 100, height_m)
    stack = 1 if x.wrap in ("open", "rack") else 8
    seconds = min(max(60 * x.wait_min, 60.0), 72 * 3600.0)
    trace = run(kept, ((0.0, x.wrap),), stack, hours=seconds / 3600)
    return ramp(100 - trace.at("soft", seconds), FIRM_FROM, FIRM_TO) if seconds >= trace.limp_from_s else 0.0


def _left_to_look(x: Facts) -> Facts:
    """The same, turned and taken off by its look."""
    return x.with_(off_s=None, turn_s=None)


def on_its_side(cause: str, x: Facts) -> bool:
    """True if the fact lies where the cause would have it."""
    if cause in ("short", "long"):
        if x.off_s is None:
            return False
        due = baked(_left_to_look(x)).off_s
        return x.off_s < due if cause == "short" else x.off_s > due
    return SIDES[cause](x) if cause in SIDES else True


def cured(cause: str, x: Facts) -> Facts:
    """The facts with that one set right; as they were where it lies on the other side."""
    if not on_its_side(cause, x):
        return x
    fact = CAUSES[cause].fact
    if fact in CHANGED_AT:
        return _left_to_look(x)
    good = {"surface_c": x.right_c, "thickness_mm": x.right_mm}.get(fact, GOOD.get(fact))
    then = x.with_(**{fact: good})
    return _left_to_look(then) if fact in HEATS_OTHERWISE and by_its_look(x) else then


def by_its_look(x: Facts) -> bool:
    """True if the bread came off about when its look says so there: otherwise heated it would come off at another
    time."""
    if x.off_s is None:
        return False
    return abs(math.log(x.off_s / baked(_left_to_look(x)).off_s)) <= BY_LOOK_LN
