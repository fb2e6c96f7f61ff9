"""Two bakes side by side: the known facts in which they differ, and what each difference cost in the chance of a full
pocket: the second bake run again with that one fact as the first had it."""

from __future__ import annotations

from typing import Any, get_args

from brassclock.core.errors import InvalidInput
from brassclock.core.keep.cause.chance import chance
from brassclock.core.keep.cause.facts import Facts
from brassclock.core.terms import LeafKey
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.cause import LEAF_OF, NAMES, fact_words, facts_of_bake
from brassclock.services.schemas.logbook import DifferenceRead, TwoBakeRead, TwoRead

SAME_FRAC = 0.02  # of a figure: by less two do not differ
POCKETS = ("pocket", "blister")
LEAVES: tuple[LeafKey, ...] = get_args(LeafKey)
LEFT = ("intent", "surface", "chemical", "diameter_cm")  # what a bread is, not how it was made


def two_out(app: App, a_id: int, b_id: int) -> TwoRead:
    """The differences between two bakes leaf by leaf, the dearest first; costs are out of 100, positive where the
    second bake's fact was worse, null where no pocket is wanted. Raises NotFound."""
    with app.read() as session:
        a, b = (solve.load(app, session, i) for i in (a_id, b_id))
    facts_a, facts_b = (_facts(r) for r in (a, b))
    rows = []
    pocket = facts_a.get("intent") == facts_b.get("intent") and facts_b.get("intent") in POCKETS
    for name in facts_a.keys() & facts_b.keys() - set(LEFT):
        if name not in NAMES or _same(facts_a[name], facts_b[name]):
            continue
        unit = b.kitchen.temp_unit
        words = [fact_words(name, f[name], unit) for f in (facts_a, facts_b)]
        cost = _cost(facts_b, name, facts_a[name]) if pocket else None
        rows.append(DifferenceRead(leaf=LEAF_OF.get(name, "fire"), what=NAMES[name], a=words[0], b=words[1], cost=cost))
    rows.sort(key=lambda r: (LEAVES.index(r.leaf), -abs(r.cost or 0), r.what))
    return TwoRead(a=_bake(a), b=_bake(b), rows=rows)


def _facts(r: BakeSnapshot) -> dict[str, Any]:
    rounds = sorted({t.round_no for t in r.taps if t.kind == "load" and t.round_no})
    return facts_of_bake(r, solve.solve(r), rounds)


def _same(a: object, b: object) -> bool:
    if isinstance(a, bool) or isinstance(b, bool) or not (isinstance(a, int | float) and isinstance(b, int | float)):
        return a == b
    return abs(a - b) <= SAME_FRAC * max(abs(a), abs(b))


def _cost(facts: dict[str, Any], name: str, value: object) -> int | None:
    try:
        return round(100 * (chance("flat", Facts(**facts)) - chance("flat", Facts(**(facts | {name: value})))))
    except InvalidInput:  # the bread of these facts cannot be computed
        return None


def _bake(r: BakeSnapshot) -> TwoBakeRead:
    opened = [o for o in r.outcomes if o.pocket]
    full = sum(o.pocket == "full" for o in opened)
    return TwoBakeRead(id=r.bake.id or 0, name=r.bake.name, serve_at=r.bake.serve_at, full=full, judged=len(opened))
