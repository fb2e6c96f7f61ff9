"""*Name the fault*: a bread that failed, as it is shown and as it was."""

from __future__ import annotations

from pydantic import TypeAdapter

from brassclock.core.drill.fault import UNKNOWN, FaultCase, Setting, best, fault_case, points, why_cause
from brassclock.core.errors import invalid
from brassclock.core.fire.surfaces import KINDS
from brassclock.core.keep.cause.tables import CAUSES
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.drill.judged import Judged
from brassclock.services.keep.cause import NAMES, evidence_of, fact_words
from brassclock.services.keep.kept import intent_of
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.drill import FaultAnswer, FaultRead, FaultTruth, KnownFactRead, OptionRead, RankRead
from brassclock.services.solve import BakeResult

OWN = TypeAdapter(Setting)
case = fault_case
BREADS = {
    "pocket": "a pocket bread",
    "blister": "a blistered bread",
    "flat": "a flatbread",
    "thick": "a thick round",
    "fried": "a fried bread",
    "rolls": "rolls",
}
MOST_RANKS = 4


def own_of(r: BakeSnapshot, work: BakeResult) -> Setting | None:
    """The bread of a bake on its surface, to draw cases of; None where it cannot be baked."""
    bread, sheet = work.bread, work.sheet
    if bread is None or sheet is None or not sheet.dough.hydration_frac:
        return None
    surface = surface_of(r.surface)
    return Setting(
        r.bake.name,
        intent_of(r, bread),
        surface.kind,
        round(bread.thickness_m * 1000, 1),
        round(bread.diameter_m * 100, 1),
        round(sheet.dough.hydration_frac, 3),
    )


def shown(found: FaultCase, unit: str = "C") -> FaultRead:
    """A case before it is answered."""
    return FaultRead(
        bread=BREADS[found.facts.intent],
        surface=KINDS[found.facts.surface].name,
        faults=list(found.faults),
        facts=[KnownFactRead(fact=name, text=_told(found, name, unit)) for name in found.known],
        options=[OptionRead(cause=name, name=CAUSES[name].name) for name in found.options],
    )


def _told(found: FaultCase, name: str, unit: str) -> str:
    value = found.facts.hot_c if name == "surface_c" else getattr(found.facts, name)
    return f"{NAMES[name]}: {fact_words(name, value, unit)}"


def judged(found: FaultCase, answer: FaultAnswer, unit: str = "C") -> Judged:
    """The score of an answer, and the solution. Raises InvalidInput for a cause that is not among those shown."""
    able = (*found.options, UNKNOWN)
    for at, name in (("/fault/first", answer.first), ("/fault/second", answer.second)):
        if name is not None and name not in able:
            raise invalid(at, f"“{name}” is none of the causes shown. Use one of {', '.join(able)}.")
    verdict = found.judged
    truth = FaultTruth(
        verdict=verdict.verdict,
        best=best(found),
        wrong=CAUSES[found.cause].name,
        causes=[
            RankRead(cause=r.cause, name=r.name, share=r.share, evidence=evidence_of(r, unit))
            for r in found.ranks[:MOST_RANKS]
        ],
        change=verdict.change.change if verdict.change else None,
        ask=NAMES[verdict.ask] if verdict.ask else None,
    )
    right = answer.first == truth.best
    return Judged(points(found, answer.first, answer.second), {"right": right}, truth, {"cause": why_cause(found)})
