"""*Read the dough*: a bulk rise by the rise model, stopped young, ripe or past; what is seen of it, and what it is."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cached_property, lru_cache

import numpy as np

from brassclock.core.drill.draw import Draw
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import table
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.course import first_passage_h
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Run, Stage, run_stages
from brassclock.core.rise.windows import READY_M
from brassclock.core.units import parse_amount
from brassclock.core.weigh.methods import methods

STATES = ("not_yet", "now", "past")
MATURITY = ((0.3, 0.8), (0.9, 1.3), (1.4, 2.2))  # of each state
PAST_M = Param(1.3, "-", 1.2, 1.5, Kind.JUDGEMENT, "ripeness from which a dough is past its best")
SURE = (0.9, 0.65, 0.4)  # of the state named; the others share the rest
HOUSE = ("hatch-pita", "stir-round", "semolina-pillow", "lidded-kulcha", "ridge-sour", "cellar-pita")
AIR_C = ((21, 25), (20, 26), (18, 28), (17, 30), (16, 31))  # by level
STRENGTH_SD = (0.15, 0.2, 0.3, 0.4, 0.5)  # judgement, by level: of the leaven, in the log
MIX_SD_K = Param(1.5, "K", 0.5, 3, Kind.JUDGEMENT, "of a dough's heat after mixing")
POKE_SD = (0.04, 0.07, 0.1, 0.12, 0.15)  # judgement, by level: of the ripeness that a finger feels, in the log
MISLEADS_FROM, MISLEADS = 3, 0.6  # level, and the share of its cases in which one sign misleads
MARK_UNTIL = 2  # level to which the jar has its ready mark
HOURS_FROM = 3  # level from which the hours left are asked for as well
DOMED = Param(1.15, "-", 1.08, 1.25, Kind.JUDGEMENT, "a domed top over the level at the glass")
COLD_MIDDLE_K = Param(4.0, "K", 2, 7, Kind.JUDGEMENT, "a skin warmer than the middle of its dough")
LONGEST_H = 48.0
HOURS_WIDTH = Param(0.30, "-", 0.2, 0.5, Kind.JUDGEMENT, "of the log of the hours left: a miss that leaves 37 %")
LEAST_LEFT_H = 0.05
SPRINGS_UNDER, STAYS_FROM = 0.85, 1.35  # of the ripeness that a finger feels
MOST_G = 1500.0  # of a tub
Z_STRENGTH, Z_MIX, Z_POKE = 30, 31, 32  # numbers of the draws


@dataclass(frozen=True)
class Bowl:
    """A dough as a cook knows it: its name, what it is, the rise it is meant to have, its air, and the belief of its
    leaven."""

    name: str
    batch: Batch
    ratio: float
    air_c: float
    leaven: Belief


@dataclass(frozen=True)
class Look:
    """The look of a dough: hours since mixing, its level in a straight jar (over that after mixing; with the ready
    mark on easy levels), what a finger finds, its heat by a thermometer just under its skin, and its air [C]."""

    h: float
    level: float
    ready_mark: float | None
    poke: str
    dough_c: float
    air_c: float


@dataclass(frozen=True)
class Read:
    """A case: the dough as told, the state it is in, the look at it; what misleads (`domed`, `cold_middle`, or
    nothing)."""

    level: int
    bowl: Bowl
    activity: float
    run: Run
    state: str
    h: float
    misleads: str | None
    look: Look

    @cached_property
    def left_h(self) -> float | None:
        """Hours from the look until the next state: ripe, or past; None for what is past already."""
        if self.state == "past":
            return None
        level = READY_M if self.state == "not_yet" else PAST_M
        at = first_passage_h(self.run.course.h, self.run.maturity, level)
        return None if at is None else max(at - self.h, LEAST_LEFT_H)

    @property
    def asks_hours(self) -> bool:
        """True if the hours left are asked for as well."""
        return self.level >= HOURS_FROM


@lru_cache(maxsize=16)
def _dough(method: str) -> Dough:
    known = table()
    lines = methods()[method].lines
    portions = [Portion(known[x.ingredient], parse_amount(x.amount).mid) for x in lines]
    return dough_of(portions)


def house(draw: Draw) -> Bowl:
    """A dough of the house for a level."""
    key = draw.pick(0, HOUSE)
    method = methods()[key]
    low, high = AIR_C[draw.level - 1]
    batch = Batch(_dough(key), method.strength, method.dough_c + MIX_SD_K * draw.normal(Z_MIX), method.bloomed)
    leaven = Belief(1.0, STRENGTH_SD[draw.level - 1])
    return Bowl(method.name, batch, method.ratios[0], round(draw.between(1, low, high)), leaven)


def read_case(draw: Draw, own: Bowl | None = None) -> Read:
    """The case of a draw: a state, each as likely, and an hour at which the dough is in it."""
    bowl = own or house(draw)
    activity = bowl.leaven.mean * math.exp(bowl.leaven.sd_log * draw.normal(Z_STRENGTH))
    mass_g = min(bowl.batch.dough.total_g, MOST_G)
    stage = Stage(
        "bulk", LONGEST_H, ((0.0, bowl.air_c),), Vessel("tub", mass_g, True, 20.0, "wood", 1), None, bowl.ratio
    )
    run = run_stages(bowl.batch, [stage], [LONGEST_H], activity, coarse=True)
    most = float(run.maturity.max())
    able = [i for i, (low, _) in enumerate(MATURITY) if most >= low]
    which = draw.pick(3, able)
    low, high = MATURITY[which]
    h = first_passage_h(run.course.h, run.maturity, draw.between(4, low, min(high, most))) or LONGEST_H
    misleads = None
    if draw.level >= MISLEADS_FROM and draw.share(5) < MISLEADS:
        misleads = draw.pick(6, ("domed", "cold_middle"))
    return Read(draw.level, bowl, activity, run, STATES[which], h, misleads, _look(draw, bowl, run, h, misleads))


def _look(draw: Draw, bowl: Bowl, run: Run, h: float, misleads: str | None) -> Look:
    ratio, felt, dough_c = (float(np.interp(h, run.course.h, x)) for x in (run.ratio, run.maturity, run.course.temp_c))
    felt *= math.exp(POKE_SD[draw.level - 1] * draw.normal(Z_POKE))
    if misleads == "domed":
        ratio *= DOMED
    if misleads == "cold_middle":
        dough_c, felt = dough_c + COLD_MIDDLE_K, felt * 1.3
    poke = "springs" if felt < SPRINGS_UNDER else "stays" if felt >= STAYS_FROM else "returns"
    mark = bowl.ratio if draw.level <= MARK_UNTIL else None
    return Look(round(h, 2), round(ratio, 2), mark, poke, round(dough_c, 1), bowl.air_c)


def chances(state: str, sure: float) -> tuple[float, ...]:
    """Chances of the three states from the one named and how sure that is; the others share the rest."""
    return tuple(sure if s == state else (1 - sure) / 2 for s in STATES)


def state_points(case: Read, state: str, sure: float) -> float:
    """Points of a state named: 100 for the right one at the surest, by the squares of the misses (a proper score: it
    pays to say how sure one is)."""
    return 100 * _brier(chances(state, sure), case.state) / _brier(chances(case.state, SURE[0]), case.state)


def _brier(p: tuple[float, ...], state: str) -> float:
    return 1 - 0.5 * sum((q - float(s == state)) ** 2 for q, s in zip(p, STATES, strict=True))


def hours_points(case: Read, state: str, hours: float | None) -> float:
    """Points of the hours left [0 to 50]: all for what is past and is said to be; none where another state is named."""
    if state != case.state:
        return 0.0
    if case.left_h is None:
        return 50.0
    if not hours or hours <= 0:
        return 0.0
    return 50 * math.exp(-abs(math.log(hours / case.left_h)) / HOURS_WIDTH)


def points(case: Read, state: str, sure: float, hours: float | None = None) -> float:
    """Points of an answer; from level 3 on half of them are of the hours left."""
    named = state_points(case, state, sure)
    return named / 2 + hours_points(case, state, hours) if case.asks_hours else named


def why_state(case: Read) -> Why:
    """The state of the dough, explained."""
    c = case.run.course
    ripe = float(np.interp(case.h, c.h, case.run.maturity))
    ratio = float(np.interp(case.h, c.h, case.run.ratio))
    return Why(
        "The state of this dough",
        "ripeness = gas made / gas that its rise needs; ready from 0.9, past its best from 1.3",
        "The rise model runs this dough in this air with a leaven whose strength is drawn. A jar tells the gas that is "
        "held, a finger the gas and the gluten, the hours only what a usual leaven would have done.",
        (
            Input("ripeness", round(ripe, 2), "-"),
            Input("level at the glass", round(ratio, 2), "x"),
            Input("level that is meant", case.bowl.ratio, "x"),
            Input("strength of the leaven", round(case.activity, 2), "of the usual"),
            Input("air", case.bowl.air_c, "C"),
        ),
        Kind.FITTED,
        matters=("strength of the leaven", "heat of the dough", "hours since mixing"),
    )
