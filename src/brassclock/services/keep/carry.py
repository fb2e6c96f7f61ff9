"""The outcome of a bake, as its file carries it: out of one kitchen and into another's logbook."""

from __future__ import annotations

import base64
import datetime as dt

from pydantic import ValidationError
from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.formats.bakefile import FileFrozen, FileKept, FileLesson, FileOutcome, FilePhoto
from brassclock.formats.picture import picture_of
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.noted import noted_of, set_noted
from brassclock.services.keep.photos import store_photo
from brassclock.services.kitchen.beliefs import refold
from brassclock.services.schemas.keep import NotedUpdate
from brassclock.store import lessons, photos
from brassclock.store.rows import find, insert
from brassclock.store.tables import Bake, FrozenBread, Kitchen, Lesson, Outcome

PORTABLE = ("activity:", "friction:")  # what is learned of a bag or a starter stays in its kitchen


def kept_file(session: Session, r: BakeSnapshot) -> FileKept | None:
    """The outcome of a bake, as a file carries it; None while there is none."""
    bake_id, kitchen_id = r.bake.id or 0, r.bake.kitchen_id
    rows = sorted(find(session, FrozenBread, bake_id=bake_id, removed_at=None), key=lambda x: x.id or 0)
    taught = [x for x in lessons.of_kitchen(session, kitchen_id) if x.bake_id == bake_id and x.key.startswith(PORTABLE)]
    pictures = [(x.round_no, photos.body_of(session, x.id or 0)) for x in photos.of_bake(session, bake_id)]
    noted = noted_of(r.bake)
    if not (r.outcomes or rows or taught or pictures or noted or r.bake.kept_at):
        return None
    return FileKept(
        serve_at=r.bake.serve_at,
        kept_at=r.bake.kept_at,
        outcomes=[FileOutcome.model_validate(x.model_dump(include=set(FileOutcome.model_fields))) for x in r.outcomes],
        noted=noted,
        frozen=[FileFrozen.model_validate(x.model_dump(include=set(FileFrozen.model_fields))) for x in rows],
        lessons=[FileLesson.model_validate(x.model_dump(include=set(FileLesson.model_fields))) for x in taught],
        photos=[FilePhoto(round_no=n, data=base64.b64encode(body).decode()) for n, body in pictures if body],
    )


def put_kept(session: Session, kitchen: Kitchen, bake: Bake, kept: FileKept, now: dt.datetime) -> None:
    """Store what became of a bake that was brought in, as one that was kept. Its lessons arrive refused: another
    kitchen's leaven teaches this one only when the cook says so.

    Raises InvalidInput for a fact or a picture that is none.
    """
    bake_id = bake.id or 0
    bake.status, bake.serve_at, bake.kept_at = "kept", kept.serve_at, kept.kept_at or now
    try:
        set_noted(bake, NotedUpdate.model_validate(kept.noted).model_dump(exclude_none=True))
    except ValidationError as fault:
        name = str(fault.errors()[0]["loc"][0])
        raise invalid("/text", f"“{name[:40]}” cannot be noted of a bake as the file has it.") from None
    for outcome in {x.round_no: x for x in kept.outcomes}.values():
        insert(session, Outcome(bake_id=bake_id, **outcome.model_dump()))
    for frozen in kept.frozen:
        row = frozen.model_dump() | {"kitchen_id": kitchen.id or 0, "bake_id": bake_id}
        insert(session, FrozenBread(**row))
    for lesson in {x.key: x for x in kept.lessons}.values():
        insert(session, Lesson(kitchen_id=kitchen.id or 0, bake_id=bake_id, refused=True, **lesson.model_dump()))
    for n, photo in enumerate(kept.photos):
        try:
            found = picture_of(base64.b64decode(photo.data, validate=True))
        except ValueError:  # no base64, or no picture
            raise invalid("/text", f"Picture {n + 1} of the file cannot be read as one.") from None
        store_photo(session, bake_id, photo.round_no, found, now)
    refold(session, kitchen)
