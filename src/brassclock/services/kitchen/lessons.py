"""The lessons of a kitchen: what each taught, refused and restored; the plans follow."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.core.keep.heat_belief import HeatBelief
from brassclock.core.keep.ledger import STARTS, Taught, kind_of
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.beliefs import fold_of, heat_fold, leaven_name, refold
from brassclock.services.schemas.lessons import BeliefRead, LessonRead, LessonsRead, LessonUpdate
from brassclock.store import lessons as lesson_rows
from brassclock.store.bakes import names_of
from brassclock.store.rows import get
from brassclock.store.tables import FlourBag, Kitchen, Lesson, Starter, Surface

KNEADED = {"hand": "by hand", "no_knead": "by folding", "none": "by stirring"}

PACES = {"load": "rolling and loading", "turn": "turning", "off": "taking off"}


def lessons_out(app: App, kitchen_id: int) -> LessonsRead:
    """Everything this kitchen believes, each with its lessons, the newest first."""
    with app.read() as session:
        return read(session, app.kitchen(session, kitchen_id))


def read(session: Session, kitchen: Kitchen) -> LessonsRead:
    rows = lesson_rows.of_kitchen(session, kitchen.id or 0)
    found = fold_of(kitchen, rows)
    taught = {t.lesson.number: t for t in found.taught}
    odd = {x.number for x in found.odd}
    bakes = names_of(session, {x.bake_id for x in rows if x.bake_id is not None})
    out = []
    for key in sorted({x.key for x in rows}):
        own = [x for x in rows if x.key == key]
        if kind_of(key) == "surface":
            out += _of_surface(session, key, own, bakes)
            continue
        steps = [taught[x.id or 0] for x in own if x.id in taught]
        start = steps[0].before if steps else STARTS[kind_of(key)]
        now = found.beliefs.get(key, start)
        out.append(
            BeliefRead(
                key=key,
                kind=kind_of(key),
                about=about(session, key),
                start=start.mean,
                mean=now.mean,
                sd=now.sd,
                lessons=[_lesson(x, taught.get(x.id or 0), x.id in odd, bakes) for x in reversed(own)],
            )
        )
    return LessonsRead(beliefs=out)


def _of_surface(session: Session, key: str, own: Sequence[Lesson], bakes: dict[int, str]) -> list[BeliefRead]:
    """The belief of a surface at the heat it is set to: kelvins over that, and how fast bread browns there."""
    surface = get(session, Surface, int(key.partition(":")[2]))
    if surface is None:
        return []
    found, _ = heat_fold(surface, own)
    b, start = found.belief, HeatBelief()
    lessons = []
    for x in reversed(own):
        told = _lesson(x, None, x.id in found.odd, bakes)
        if (x.id or 0) in found.steps:
            before, after = found.steps[x.id or 0]
            told.before, told.after = before.shift_k, after.shift_k
            told.browns_before, told.browns_after = before.browns, after.browns
        lessons.append(told)
    return [
        BeliefRead(
            key=key,
            kind="surface",
            about=about(session, key),
            start=start.shift_k,
            mean=b.shift_k,
            sd=b.sd_k,
            browns=b.browns,
            browns_sd=b.browns_sd,
            lessons=lessons,
        )
    ]


def _lesson(row: Lesson, step: Taught | None, odd: bool, bakes: dict[int, str]) -> LessonRead:
    return LessonRead(
        id=row.id or 0,
        bake_id=row.bake_id,
        bake=bakes.get(row.bake_id or 0, ""),
        at=row.at,
        seen=row.seen,
        refused=row.refused,
        odd=odd,
        sure=row.sure,
        before=step.before.mean if step else None,
        after=step.after.mean if step else None,
    )


def about(session: Session, key: str) -> str:
    """The subject of a key, as a cook says it."""
    kind, _, which = key.partition(":")
    if kind == "activity":
        return f"{leaven_name(which)}: how fast it works here"
    if kind == "friction":
        return f"Kneading {KNEADED.get(which, f'by {which} mixer')}: how much it warms the dough"
    if kind == "pace":
        return f"Hands at the heat, {PACES[which]}: how long they take"
    number = int(which) if which.isdigit() else 0
    if kind == "surface":
        surface = get(session, Surface, number)
        return f"{surface.name if surface else 'A surface that is gone'}: its heat, and how fast bread browns on it"
    if kind == "thirst":
        bag = get(session, FlourBag, number)
        return f"Flour “{bag.name if bag else 'that is gone'}”: the water it takes"
    starter = get(session, Starter, number)
    return f"{starter.name if starter else 'A starter that is gone'}: how strong it is"


def change_lesson(app: App, kitchen_id: int, lesson_id: int, given: LessonUpdate) -> LessonsRead:
    """Refuse a lesson, restore it, or have an odd one count. What that moves in the plans is told with its reason.

    Raises NotFound for a lesson of another kitchen, Conflict where it is so already.
    """
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = get(session, Lesson, lesson_id)
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"There is no lesson {lesson_id} in this kitchen.")
        if given.refused == row.refused and given.sure in (None, row.sure):
            raise Conflict("That lesson is refused already." if row.refused else "That lesson counts already.")
        with recording_plan_change(app, session, kitchen_id, WHY[given.refused]):
            row.refused = given.refused
            row.sure = row.sure if given.sure is None else given.sure
            session.add(row)
            refold(session, kitchen)
        return read(session, kitchen)


WHY = {True: "a lesson was refused", False: "a lesson counts again"}


def change_belief(app: App, kitchen_id: int, key: str, *, forget: bool) -> LessonsRead:
    """Refuse every lesson about one thing, or restore every one. NotFound where nothing was learned of it."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        rows: Sequence[Lesson] = [x for x in lesson_rows.of_kitchen(session, kitchen_id) if x.key == key]
        if not rows:
            raise NotFound(f"Nothing was learned of “{key[:60]}” in this kitchen.")
        with recording_plan_change(app, session, kitchen_id, WHY[forget]):
            for row in rows:
                row.refused = forget
                session.add(row)
            refold(session, kitchen)
        return read(session, kitchen)
