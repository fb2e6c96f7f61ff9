"""The beliefs of a kitchen, as the fold of its lessons; its belief about the leaven of a dough.

The fold is stored where it is read (a kitchen's leavens and friction, a bag's thirst, a starter's vitality) whenever a
lesson comes, goes, is refused or restored.
"""

from __future__ import annotations

import datetime as dt
from collections import Counter
from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from typing import Any, NamedTuple

from sqlmodel import Session

from brassclock.core.fire.probe import PRIOR_SD_C
from brassclock.core.fire.surface_heat import SOURCES
from brassclock.core.keep import ledger
from brassclock.core.keep.heat_belief import HeatFold, HeatLesson, fold_heat, of_stored
from brassclock.core.keep.learning import of_kitchen, of_next_batch
from brassclock.core.keep.ledger import Fold, Ratio
from brassclock.core.matter.dough import Dough
from brassclock.core.matter.ingredients import table
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.sourdough.params import PARAMS as SOUR
from brassclock.core.rise.yeast.params import KINDS
from brassclock.store import lessons as lesson_rows
from brassclock.store.rows import find, insert
from brassclock.store.tables import FlourBag, Kitchen, Lesson, Starter, Surface

STARTER = "starter"
SAME_SETTING_K = 2.0  # judgement: a surface set within that is set as it was


def leaven_of(dough: Dough) -> str:
    """The leaven that does most in a dough: a yeast's id, `starter`, or nothing."""
    power = {
        p.ingredient.id: p.mass_g * KINDS[p.ingredient.id].dry_matter_frac * KINDS[p.ingredient.id].activity
        for p in dough.portions
        if p.ingredient.id in KINDS
    }
    starter = sum(p.mass_g * p.ingredient.flour_frac for p in dough.portions if p.ingredient.is_starter)
    if starter:
        power[STARTER] = starter * SOUR["x_ripe"].value  # a ripe starter's gas, as baker's yeast
    return max(power, key=lambda k: power[k], default="")


def leaven_name(leaven: str) -> str:
    """A leaven as a cook calls it."""
    row = table().get(leaven)
    return "Starter in dough" if leaven == STARTER else row.name if row else leaven


def belief_of(kitchen: Kitchen, leaven: str) -> Belief:
    """The kitchen's belief of a leaven; of one it never used, what it thinks of yeasts in general."""
    known = kitchen.leavens.get(leaven)
    if known:
        return Belief(known["mean"], known["sd_log"])
    return Belief(kitchen.activity_mean, kitchen.activity_sd_log)


def key_of(kind: str, which: str | int | None) -> str:
    """The key of a lesson: its kind, and which leaven, way of kneading, bag or starter it is about."""
    return f"{kind}:{which}"


class Seen(NamedTuple):
    """An observation of one thing: the key of the lesson, the ratio and the spread of its logarithm; `shown` of a
    surface."""

    key: str
    ratio: float
    spread: float
    shown: dict[str, Any] | None = None


def teach(
    session: Session, kitchen: Kitchen, lessons: Iterable[Seen], at: dt.datetime, bake: int | None = None
) -> None:
    """Add lessons and fold anew, once for all of them; one of the same bake about the same thing is replaced."""
    given = {x.key: x for x in lessons}
    if not given:
        return
    if bake is not None:
        _drop(session, kitchen, lambda x: x.key in given and x.bake_id == bake)
    for key, ratio, spread, shown in given.values():
        row = Lesson(kitchen_id=kitchen.id or 0, bake_id=bake, key=key, seen=ratio, spread=spread, at=at, shown=shown)
        insert(session, row)
    refold(session, kitchen)


def unteach(session: Session, kitchen: Kitchen, which: Callable[[Lesson], bool]) -> None:
    """Take lessons away, as if they were never given, and fold anew."""
    if _drop(session, kitchen, which):
        refold(session, kitchen)


def _drop(session: Session, kitchen: Kitchen, which: Callable[[Lesson], bool]) -> int:
    found = [x for x in lesson_rows.of_kitchen(session, kitchen.id or 0) if which(x)]
    for row in found:
        session.expunge(row) if row in session.new else session.delete(row)
    return len(found)


def fold_of(kitchen: Kitchen, rows: Sequence[Lesson]) -> Fold:
    """The beliefs that a kitchen's lessons leave, with every step; those of its surfaces are folded apart."""
    rows = [x for x in rows if x.shown is None]
    prior = of_kitchen(Belief(kitchen.activity_mean, kitchen.activity_sd_log))
    priors = {x.key: prior for x in rows if ledger.kind_of(x.key) == "activity"}
    given = (
        ledger.Lesson(x.key, x.seen, x.spread, x.at.isoformat(), x.refused, x.sure, x.id or 0)  # all in UTC
        for x in rows
    )
    return ledger.fold(given, priors)


def set_sd_k(surface: Surface) -> float:
    """Spread of a surface's heat by what it is set to or was read as [K], whatever its breads say: its own, else its
    source's."""
    return surface.sd_k or SOURCES[surface.source].value


def heat_fold(surface: Surface, rows: Sequence[Lesson]) -> tuple[HeatFold, int]:
    """The belief that the lessons of a surface leave at the heat it is set to, and how many of them were at that; one
    at another setting tells of its colour alone."""
    given, here = [], 0
    for x in rows:
        assert x.shown is not None
        shown = of_stored(x.shown)
        tied = shown.own_sd_k is None and abs(x.shown["set_c"] - surface.temp_c) <= SAME_SETTING_K
        if not tied:
            shown = replace(shown, own_sd_k=shown.own_sd_k or float(PRIOR_SD_C))
        given.append(HeatLesson(shown, x.at.isoformat(), x.refused, x.sure, x.id or 0))
        here += tied and not x.refused
    return fold_heat(given, set_sd_k(surface)), here


def of_surface(rows: Sequence[Lesson], surface_id: int | None) -> list[Lesson]:
    """Lessons about one surface."""
    return [x for x in rows if x.shown is not None and x.key == key_of("surface", surface_id)]


def learn_heat(surface: Surface, rows: Sequence[Lesson]) -> None:
    """Store what the lessons leave of a surface, at its setting, where it is read."""
    own = of_surface(rows, surface.id)
    found, here = heat_fold(surface, own)
    b = found.belief
    surface.learned = (
        {
            "set_c": surface.temp_c,
            "shift_k": round(b.shift_k, 2),
            "sd_k": round(b.sd_k, 2),
            "browns": round(b.browns, 4),
            "browns_sd": round(b.browns_sd, 4),
            "here": float(here),
        }
        if found.steps
        else None
    )


def _leavens(kitchen: Kitchen, known: dict[str, tuple[Ratio | None, int]]) -> dict[str, dict[str, float]]:
    """Leavens as a kitchen stores them: the belief about the next batch, and the bakes behind it."""
    plain = Belief(kitchen.activity_mean, kitchen.activity_sd_log)
    found = {}
    for which, (ratio, bakes) in known.items():
        belief = plain if ratio is None else of_next_batch(ratio)
        found[which] = {"mean": belief.mean, "sd_log": belief.sd_log, "bakes": float(bakes)}
    return found


def _of(kind: str, rows: Sequence[Lesson], found: Fold) -> dict[str, tuple[Ratio | None, int]]:
    """The beliefs of one kind that a fold leaves, by their subject, with the count of lessons."""
    times = Counter(t.lesson.key for t in found.taught)
    about = sorted({x.key for x in rows if ledger.kind_of(x.key) == kind})
    return {k.partition(":")[2]: (found.beliefs.get(k), times[k]) for k in about}


def before_bake(session: Session, kitchen: Kitchen, bake_id: int) -> Kitchen:
    """A copy of a kitchen that believes of its leavens what it did before a bake taught it."""
    rows = [x for x in lesson_rows.of_kitchen(session, kitchen.id or 0) if x.bake_id != bake_id]
    leavens = _leavens(kitchen, _of("activity", rows, fold_of(kitchen, rows)))
    return Kitchen(**{**kitchen.model_dump(), "leavens": leavens})


def refold(session: Session, kitchen: Kitchen) -> None:
    """Store what the lessons leave where it is read."""
    rows = lesson_rows.of_kitchen(session, kitchen.id or 0)
    found = fold_of(kitchen, rows)
    kitchen.leavens = _leavens(kitchen, _of("activity", rows, found))
    kitchen.friction = {
        which: [ratio.mean, float(n)] for which, (ratio, n) in _of("friction", rows, found).items() if ratio
    }
    kitchen.pace = {move: ratio.mean for move, (ratio, _) in _of("pace", rows, found).items() if ratio}
    session.add(kitchen)
    for surface in find(session, Surface, kitchen_id=kitchen.id):
        learn_heat(surface, rows)
        session.add(surface)
    thirst, vitality = _of("thirst", rows, found), _of("vitality", rows, found)
    for bag in find(session, FlourBag, kitchen_id=kitchen.id):
        ratio, bag.times = thirst.get(str(bag.id), (None, 0))
        bag.thirst_frac = ratio.mean - 1 if ratio else 0.0
        session.add(bag)
    start = ledger.STARTS["vitality"]
    for starter in find(session, Starter, kitchen_id=kitchen.id):
        known_v = vitality.get(str(starter.id), (None, 0))[0] or start
        starter.vitality_mean, starter.vitality_sd_log = known_v.mean, known_v.sd
        session.add(starter)
