"""A day for all bakes of a kitchen at once: proposed, and made so by one press."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from sqlmodel import Session

from brassclock.core.day.courses import AS_PLANNED
from brassclock.core.day.options import because, way_text
from brassclock.core.day.pack import Item, pack
from brassclock.core.day.search import Solved
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.change import recording_plan_change
from brassclock.services.day import model as day_model
from brassclock.services.day import sharing
from brassclock.services.day.acts import act
from brassclock.services.day.choices import MOVED, apply_way, choice_of, fits, hold, moved_from, typed_spec, way_id
from brassclock.services.day.steps import steps_of
from brassclock.services.schemas.day import PackBakeRead, PackRead, PackRequest

CHANGE_COST = 4.0  # judgement: of another leaven or course than the cook's, above any cost of an hour
MOST = 12
AS_IT_STANDS = "as it stands"
TOO_FEW = "Two live bakes at least make a day to plan together."


@dataclass(frozen=True)
class _Placing:
    """A live bake in the day for all: where it stands now, and its way (None: it stays as it stands)."""

    r: BakeSnapshot
    work: solve.BakeResult
    item: Item
    fitted: bool
    solved: Solved | None = None

    @property
    def takes(self) -> sharing.Takes:
        """Its commitments where it stands now."""
        assert self.work.plan is not None
        return sharing.planned(self.r, self.work.plan)


def _placings(found: Sequence[tuple[BakeSnapshot, solve.BakeResult]]) -> list[_Placing]:
    placing = []
    for r, work in found:
        spec = typed_spec(r, work)
        if spec is not None:
            surface = None if r.bake.surface_id is None else str(r.bake.surface_id)
            choice = replace(choice_of(spec, "mix" in r.done()), change_cost=CHANGE_COST)
            item = Item(str(r.bake.id), day_model.request_of(r, spec), choice, surface)
            placing.append(_Placing(r, work, item, fits(r, work)))
    return placing


def _pack(loose: Sequence[_Placing], still: Sequence[_Placing]) -> tuple[list[_Placing], str]:
    """(the loose ones with their ways around those that keep still, how they were found)."""
    takes = [p.takes for p in still]
    homes = [day_model.resources_of(sharing.around(p.r, takes)) for p in loose]
    items = [replace(p.item, hot=home.shared.hot) for p, home in zip(loose, homes, strict=True)]
    packed = pack(items, replace(homes[0], shared=replace(homes[0].shared, hot=())))  # what is hot is each bread's own
    return [replace(p, solved=packed.ways[p.item.key]) for p in loose], packed.how


def _lost(placed: Sequence[_Placing]) -> int:
    return sum(p.solved is None for p in placed)


def _day(app: App, session: Session, kitchen_id: int) -> tuple[list[_Placing], str]:
    """(every live bake, those that change with their ways, how it was found).

    First only what does not fit is placed, around all that stands; only where that leaves a bake out is everything
    placed anew, and kept when fewer are left out.
    """
    found, _ = solve.load_live(app, session, kitchen_id)
    placing = _placings(found)
    if len(placing) < 2:
        raise Conflict(TOO_FEW)
    if len(placing) > MOST:
        raise Conflict(
            f"{len(placing)} bakes are alive; {MOST} at most are planned together. Keep or abandon some first."
        )
    burning = [p for p in placing if "roll" in p.r.done()]
    stand = [p for p in placing if p.fitted and p not in burning]
    loose = [p for p in placing if not p.fitted and p not in burning]
    if not loose:
        return placing, AS_IT_STANDS
    first, how = _pack(loose, [*burning, *stand])
    if not _lost(first):
        return [*burning, *stand, *first], how
    hopeless = [p for p in loose if _pack([p], burning)[0][0].solved is None]
    hopeful = [p for p in [*stand, *loose] if p not in hopeless]
    if len(hopeless) < _lost(first) and hopeful:
        whole, how_all = _pack(hopeful, [*burning, *hopeless])
        if _lost(whole) + len(hopeless) < _lost(first):
            return [*burning, *hopeless, *whole], how_all
    return [*burning, *stand, *first], how


def together(app: App, kitchen_id: int) -> PackRead:
    """Changes that a joint day for all bakes would make, bake by bake; nothing is stored."""
    with app.read() as session:
        placing, how = _day(app, session, kitchen_id)
    return PackRead(bakes=sorted((_bake_out(p) for p in placing), key=lambda b: b.serve_at), how=how)


def _bake_out(p: _Placing) -> PackBakeRead:
    r, request, placed = p.r, p.item.request, p.fitted or p.solved is not None
    plan = p.work.plan if p.solved is None else p.solved.plan
    assert plan is not None
    text = way_text(p.solved, request) if p.solved else "" if placed else because(request, day_model.resources_of(r))
    return PackBakeRead(
        bake_id=r.bake.id or 0,
        bake=r.bake.name,
        seal=r.bake.seal,
        serve_at=r.bake.serve_at,
        placed=placed,
        fitted=p.fitted,
        way=_way_id(p),
        text=text,
        moves=moved_from(plan, p.work.plan) if p.solved else 0,
        steps=steps_of(r, replace(p.work, risen=day_model.Risen(plan))),
    )


def _way_id(p: _Placing) -> str | None:
    return way_id(p.solved) if p.solved else None


def take_together(app: App, kitchen_id: int, given: PackRequest) -> None:
    """Make the proposed day so, in one transaction. It is found again, or nothing is changed."""
    with app.transaction(kitchen_id) as session:
        placing, _ = _day(app, session, kitchen_id)
        if {p.r.bake.id: _way_id(p) for p in placing} != {b.bake_id: b.way for b in given.bakes}:
            raise Conflict(MOVED)
        moved = [
            (p.r, p.solved)
            for p in placing
            if p.solved and (_changed(p.solved) or moved_from(p.solved.plan, p.work.plan))
        ]
        if not moved:
            raise Conflict("Every bake is where this day would put it. There is nothing to change.")
        bakes = [r.bake for r, _ in moved]
        for bake in bakes:
            bake.revision += 1
        with (
            recording_plan_change(app, session, kitchen_id, "the day was planned for all bakes together"),
            act(session, moved[0][0].kitchen, moved[0][0].now, "All bakes planned together", bakes),
        ):
            for r, solved in moved:
                apply_way(r, None if solved.course == AS_PLANNED else solved, solved.dose)
            hold(app, session, kitchen_id, {r.bake.id or 0: s.plan for r, s in moved})


def _changed(solved: Solved) -> bool:
    return (solved.course, solved.dose) != (AS_PLANNED, 1.0)
