"""*Name the fault*: one fact of a bread put wrong, what came of it by the models, and which cause is named."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

from brassclock.core.drill.draw import Draw
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.fire.surfaces import KINDS
from brassclock.core.keep.cause.chance import TURNED, baked, chance
from brassclock.core.keep.cause.facts import Facts
from brassclock.core.keep.cause.judge import Judged, Ranked, judge, ranked
from brassclock.core.keep.cause.tables import CAUSES, FAULTS, PRIORS
from brassclock.core.terms import Fault, Intent

SEEN_FROM = Param(0.5, "-", 0.4, 0.7, Kind.JUDGEMENT, "chance of a fault that is shown")
MOST_FAULTS = 2
SEVERITY = (0.5, 1.0)
IDLE = ((2, 2), (2, 3), (3, 4), (3, 5), (4, 5))  # by level: facts that say nothing
HIDES_FROM, HIDES = 3, 0.35  # level, and the share of its cases in which the fact that tells is not known
OPTIONS = (4, 5, 6, 7, 8)  # by level: causes to choose from
TRIES = 40
SECOND = 0.5  # of a cause named second
GUESSED = 0.5  # of a cause named where too little is known
UNKNOWN = "not_enough_known"
SURFACES = {"fell_off": ("clay_wall", "inverted_plate"), "doughy_edges": ("iron_plate",)}
USUAL = ("iron_plate", "skillet", "stone_oven")
BAD: dict[str, tuple[float, float]] = {  # judgement: a fact at half its severity and at all of it
    "thin": (1.8, 1.2), "uneven": (0.35, 0.55), "skin": (10, 20), "no_rest": (4, 0), "under": (0.5, 0.2),
    "over": (1.55, 2.0), "cold": (12, 5), "tear": (5, 10), "flour": (45, 95), "no_flour": (3, 0), "lean": (0.55, 0.3),
    "wet_dough": (0.75, 0.84), "dry_dough": (0.54, 0.46), "waited": (240, 900), "overknead": (4, 6),
    "soda_over": (0.4, 0.7), "acid": (15.5, 19),
}  # fmt: skip
SET: dict[str, object] = {  # a fact that is so or not
    "not_back": False, "docked": True, "open": "open", "reheated": True, "starter_old": "chilled", "unwetted": False,
    "grease": "film", "slick": True, "burnt_on": True, "not_edged": False,
}  # fmt: skip
COOLER_K, HOTTER_K = (45.0, 95.0), (55.0, 110.0)
THICK = {"thick": (19.0, 26.0)}  # mm, by what the bread is to be
THICK_MM = (6.0, 9.0)
SHORT, LONG, LATE = (0.6, 0.4), (1.7, 2.6), (2.0, 2.6)  # of the right time
OPEN_MIN = (40.0, 120.0)
MOST_MM = 8.0
TOLD: tuple[str, ...] = (  # facts that a cook notes, to stand idle beside the one that tells
    "surface_c", "thickness_mm", "uneven_frac", "skin_min", "rest_min", "maturity", "dough_c", "bench_flour_g_m2",
    "hydration_frac", "recovered", "wait_min", "wrap", "tear_mm2", "kneaded",
)  # fmt: skip


@dataclass(frozen=True)
class Setting:
    """A bread of one's own kitchen: what it is to be, on which surface, how thick [mm], how wide [cm], its water."""

    name: str
    intent: Intent
    surface: str
    thickness_mm: float
    diameter_cm: float
    hydration_frac: float


@dataclass(frozen=True)
class FaultCase:
    """A case: the facts as they were, the one put wrong, the faults that are seen, the facts that are known, and the
    causes to choose from."""

    level: int
    cause: str
    facts: Facts
    faults: tuple[Fault, ...]
    known: tuple[str, ...]
    options: tuple[str, ...]

    @cached_property
    def judged(self) -> Judged:
        """The verdict on these faults from what is known."""
        return judge(self.faults, self.facts, set(self.known))

    @cached_property
    def ranks(self) -> list[Ranked]:
        """Every cause of these faults by its share, the largest first."""
        return ranked(self.faults, self.facts, set(self.known))

    def share(self, cause: str) -> float:
        """Share of a cause [-]; 0 for one that these faults do not have."""
        return next((r.share for r in self.ranks if r.cause == cause), 0.0)


def fault_case(draw: Draw, own: Setting | None = None) -> FaultCase:
    """The case of a draw. Redrawn where the fact put wrong brings no fault that would be seen."""
    for number in range(TRIES):
        found = _drawn(draw, 200 * (number + 1), own)
        if found is not None:
            return found
    raise AssertionError(f"no case in {TRIES} draws")


def _drawn(draw: Draw, z: int, own: Setting | None) -> FaultCase | None:
    fault = draw.pick(z, _able(own))
    causes = PRIORS[fault]
    cause = draw.pick(z + 1, tuple(causes), tuple(causes.values()))
    severity = draw.between(z + 2, *SEVERITY)
    good = _good(draw, z, fault, own)
    if CAUSES[cause].fact == "wetted" and not KINDS[good.surface].wets:
        return None
    facts = _wrong(cause, good, 2 * severity - 1)
    if chance(fault, facts) < SEEN_FROM:
        return None
    others = sorted(((chance(f, facts), f) for f in FAULTS if f != fault and _can(f, good)), reverse=True)
    faults = (fault, *(f for b, f in others if b >= SEEN_FROM))[:MOST_FAULTS]
    return FaultCase(
        draw.level, cause, facts, faults, _known(draw, z + 10, cause), _options(draw, z + 40, cause, faults)
    )


def _able(own: Setting | None) -> tuple[Fault, ...]:
    """Faults that a bread can have at all."""
    if own is None:
        return FAULTS
    return tuple(f for f in FAULTS if _can(f, Facts(intent=own.intent, surface=own.surface)))


def _can(fault: Fault, x: Facts) -> bool:
    if fault == "fell_off":
        return KINDS[x.surface].wets
    if fault == "doughy_edges":
        return x.intent == "thick"
    return x.intent in ("pocket", "blister") or fault not in ("flat", "part_pocket", "one_side", "burst")


def _good(draw: Draw, z: int, fault: Fault, own: Setting | None) -> Facts:
    """The bread with every fact as it should be."""
    if own is not None:
        surface, intent = own.surface, own.intent
        rest = {"thickness_mm": own.thickness_mm, "diameter_cm": own.diameter_cm, "hydration_frac": own.hydration_frac}
    else:
        surface = draw.pick(z + 3, SURFACES.get(fault, USUAL))
        intent = "thick" if fault == "doughy_edges" else "pocket"
        rest = {}
    base = Facts(intent=intent, surface=surface)
    if own is None:
        rest = {"thickness_mm": base.right_mm, "hydration_frac": 0.63}
    return base.with_(
        surface_c=base.right_c, uneven_frac=0.08, skin_min=1.0, rest_min=10.0, bench_flour_g_m2=12.0, wait_min=10.0,
        wetted=True if KINDS[surface].wets else None, **rest,
    )  # fmt: skip


def _wrong(cause: str, good: Facts, share: float) -> Facts:
    """The facts with that one put wrong: at half its severity for a share of 0, at all of it for 1."""

    def between(span: tuple[float, float]) -> float:
        return span[0] + (span[1] - span[0]) * share

    if cause in SET:
        changed: dict[str, object] = {CAUSES[cause].fact: SET[cause]}
        return good.with_(**changed, **({"wait_min": round(between(OPEN_MIN))} if cause == "open" else {}))
    if cause in BAD:
        value = between(BAD[cause])
        return good.with_(**{CAUSES[cause].fact: round(value) if abs(value) >= 10 else round(value, 2)})
    return _of_heat(cause, good, between)


def _of_heat(cause: str, good: Facts, between: Callable[[tuple[float, float]], float]) -> Facts:
    """A surface too cool or too hot, a round too thick, a turn or an end at a wrong time."""
    if cause == "cool":
        return good.with_(surface_c=round(good.right_c - between(COOLER_K)))
    if cause == "hot":
        return good.with_(surface_c=round(good.right_c + between(HOTTER_K)))
    if cause == "thick":
        return good.with_(thickness_mm=round(between(THICK.get(good.intent, THICK_MM)), 1))
    due = baked(good)
    turn_s = due.turn_s or TURNED * due.off_s
    if cause == "turn_late":
        return good.with_(off_s=round(due.off_s), turn_s=round(min(turn_s * between(LATE), 0.97 * due.off_s)))
    by = between(SHORT if cause == "short" else LONG)
    return good.with_(off_s=round(due.off_s * by), turn_s=round(turn_s * by))


def _known(draw: Draw, z: int, cause: str) -> tuple[str, ...]:
    """Names of the facts that are told: the one that tells, if it is known, among idle ones."""
    fact = CAUSES[cause].fact
    low, high = IDLE[draw.level - 1]
    idle = [n for n in draw.shuffled(z + 2, TOLD) if n != fact]
    count = low + int(draw.share(z) * (high - low + 1))
    hidden = draw.level >= HIDES_FROM and draw.share(z + 1) < HIDES
    told = [*idle[:count], *([] if hidden else [fact])]
    if fact == "off_s" and not hidden:
        told.append("turn_s")
    return tuple(draw.shuffled(z + 20, told))


def _options(draw: Draw, z: int, cause: str, faults: Sequence[Fault]) -> tuple[str, ...]:
    """Causes to choose from: the one put wrong, the likeliest of these faults by their priors, and others by chance
    where those are few."""
    by: dict[str, float] = {}
    for fault in faults:
        for name, prior in PRIORS[fault].items():
            by[name] = by.get(name, 0.0) + prior
    likely = sorted(by, key=lambda n: -by[n])
    rest = draw.shuffled(z, [n for n in CAUSES if n not in by])
    shown = [cause, *(n for n in likely if n != cause), *rest][: OPTIONS[draw.level - 1]]
    return tuple(draw.shuffled(z + len(CAUSES), shown))


def points(case: FaultCase, first: str, second: str | None = None) -> float:
    """Points of the causes named: the share of the first over the largest, and half that of the second; 100 for saying
    that too little is known where it is, and half where a cause is named all the same."""
    unknown = case.judged.verdict == UNKNOWN
    if first == UNKNOWN:
        return 100.0 if unknown else 0.0
    most = max(case.share(name) for name in case.options)
    if most <= 0:
        return 0.0
    earned = case.share(first) + (SECOND * case.share(second) if second and second != first else 0.0)
    return min(100.0, 100 * earned / most) * (GUESSED if unknown else 1.0)


def best(case: FaultCase) -> str:
    """The answer that is worth most."""
    return UNKNOWN if case.judged.verdict == UNKNOWN else max(case.options, key=case.share)


def why_cause(case: FaultCase) -> Why:
    """The causes of these faults, explained."""
    return Why(
        "Why this bread failed",
        "share = prior x (.04 + 12 gain/(gain + .15)); gain: how much less likely the fault is with the fact right",
        "Each cause begins with how often it is the one. A fact that is known is set right in the models: where the "
        "fault then goes away, the cause gains; where it stays, it loses. A fact that is not known says nothing.",
        tuple(Input(r.name, round(r.share, 2), "of all") for r in case.ranks[:4]),
        Kind.JUDGEMENT,
    )
