"""*Call it*: a bread to be turned and taken off, as it is shown and as it was."""

from __future__ import annotations

from collections.abc import Sequence

from pydantic import TypeAdapter

from brassclock.core.drill.call import (
    Became,
    Call,
    Looks,
    Subject,
    became,
    call_case,
    film,
    off_points,
    off_window,
    signs,
    turn_points,
    why_turn,
)
from brassclock.core.fire.surface_heat import spread_k
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.drill.judged import Judged
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.drill import BecameRead, CallAnswer, CallRead, CallTruth, FilmRead, SideRead, SignRead
from brassclock.services.solve import BakeResult

SHOWS_UNTIL = 2  # level to which the signs are named and the underside shows
OWN_BROWNING_SD = 0.15  # judgement: of a dough and a surface that one knows
TURNS = ("turned", "lidded", "oven", "inverted")  # ways of surfaces on which a bread is turned by its signs
LONGEST_MM = 8.0
OWN = TypeAdapter(Subject)
case = call_case


def own_of(r: BakeSnapshot, work: BakeResult) -> Subject | None:
    """The bread of a bake on its surface, to draw cases of; None where it is not turned by its signs."""
    bread, surface = work.bread, surface_of(r.surface)
    turned = surface.spec.way in TURNS and not r.bake.docked
    if bread is None or bread.thick or bread.thickness_m * 1000 > LONGEST_MM or not turned:
        return None
    return Subject(r.bake.name, bread, surface, spread_k(surface), OWN_BROWNING_SD, r.kitchen.altitude_m)


def shown(found: Call) -> CallRead:
    """A case before it is answered."""
    first, told, easy = found.first_side(), found.told, found.level <= SHOWS_UNTIL
    until_s = float(first.s[-1])
    return CallRead(
        bread=told.name,
        surface=told.surface.spec.name,
        surface_c=told.surface.temp_c,
        thickness_mm=told.bread.thickness_m * 1000,
        dough_c=told.bread.temp_c,
        film=_film(film(found, first, until_s)),
        signs=_signs(signs(first, 0.0, until_s)) if easy else [],
        underside=easy,
    )


def side(found: Call, turn_s: float) -> SideRead:
    """The second side of a bread that was turned then."""
    baked = found.turned(turn_s)
    until_s = off_window(found, baked).shown_s
    rows = [x for x in film(found, baked, until_s) if x.s >= turn_s]
    easy = found.level <= SHOWS_UNTIL
    return SideRead(film=_film(rows), signs=_signs(signs(baked, turn_s, until_s)) if easy else [])


def judged(found: Call, answer: CallAnswer) -> Judged:
    """The score of an answer, and the solution. A bread that was never turned counts for nothing."""
    due_s = found.turn_s
    baked = found.due if answer.turn_s is None else found.turned(answer.turn_s)
    window = off_window(found, baked)
    right_off = off_window(found, found.due).low_s or window.shown_s
    off_s = answer.off_s if answer.off_s is not None else window.shown_s
    late = None if answer.turn_s is None else window.gap_s(off_s)
    truth = CallTruth(
        turn_s=due_s,
        off_low_s=window.low_s,
        off_high_s=window.high_s,
        turn_late_s=None if answer.turn_s is None else answer.turn_s - due_s,
        off_late_s=late,
        yours=None if answer.turn_s is None else _became(became(baked, off_s)),
        right=_became(became(found.due, right_off)),
        film=_film(film(found, baked, max(window.shown_s, off_s))),
        signs=_signs(signs(baked, 0.0, window.shown_s)),
    )
    figures = {"turn_s": truth.turn_late_s, "off_s": truth.off_late_s}
    points = None
    if answer.turn_s is not None:
        points = turn_points(found, answer.turn_s) + off_points(window, off_s)
    return Judged(points, figures, truth, {"turn": why_turn(found)})


def _film(rows: Sequence[Looks]) -> FilmRead:
    names = FilmRead.model_fields
    return FilmRead(**{n: [round(getattr(x, n), 3) for x in rows] for n in names})


def _signs(found: Sequence[tuple[float, str]]) -> list[SignRead]:
    return [SignRead(s=s, text=text) for s, text in found]


def _became(x: Became) -> BecameRead:
    return BecameRead(pocket=x.pocket, bottom=x.bottom, top=x.top, loss_frac=x.loss_frac, cooked=x.cooked)
