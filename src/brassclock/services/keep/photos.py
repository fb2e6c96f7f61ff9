"""Pictures of a bake and of its breads: added, shown, removed and brought back."""

from __future__ import annotations

import base64
import datetime as dt

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.formats.picture import NoPicture, Picture, picture_of
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.schemas.keep import PhotoCreate
from brassclock.store import photos
from brassclock.store.rows import get, insert
from brassclock.store.tables import Bake, Photo, PhotoBytes

MOST_PHOTOS = 40


def add_photo(app: App, bake_id: int, given: PhotoCreate) -> None:
    """Store a picture of a bake or of one of its rounds. Raises InvalidInput for what is no picture or no round,
    Conflict where there are too many."""
    try:
        found = picture_of(base64.b64decode(given.data, validate=True))
    except NoPicture as fault:
        raise invalid("/data", str(fault)) from None
    except ValueError:  # letters that base64 has not, or the wrong count of them
        raise invalid("/data", "The picture is not in base64. Send its bytes so.") from None
    with app.bake_transaction(bake_id) as session:
        r = solve.load(app, session, bake_id)
        rounds = solve.line_of_rows(r).rounds
        if given.round_no is not None and given.round_no > rounds:
            raise invalid("/round_no", f"There is no round {given.round_no}; this bake has 1 to {rounds}.")
        if len(photos.of_bake(session, bake_id)) >= MOST_PHOTOS:
            raise Conflict(f"{MOST_PHOTOS} pictures are kept of a bake. Remove one first.")
        r.bake.revision += 1
        session.add(r.bake)
        store_photo(session, bake_id, given.round_no, found, r.now)


def store_photo(session: Session, bake_id: int, round_no: int | None, found: Picture, at: dt.datetime) -> None:
    """Store a picture that was read."""
    photo = Photo(bake_id=bake_id, round_no=round_no, width=found.width, height=found.height, added_at=at)
    row = insert(session, photo)
    insert(session, PhotoBytes(photo_id=row.id or 0, body=found.body))


def jpeg_of(app: App, photo_id: int) -> bytes:
    """The JPEG of a picture. NotFound where there is none, or it was removed."""
    with app.read() as session:
        row = get(session, Photo, photo_id)
        body = None if row is None or row.removed_at is not None else photos.body_of(session, photo_id)
        if row is None or body is None:
            raise NotFound(f"There is no picture {photo_id}.")
        bake = get(session, Bake, row.bake_id)
        if bake is None or bake.deleted_at is not None:
            raise NotFound(f"There is no bake {row.bake_id}. It may have been deleted; undo brings it back.")
        app.kitchen(session, bake.kitchen_id)  # one that is served
        return body


def remove_photo(app: App, photo_id: int, *, back: bool = False) -> int:
    """Remove a picture, or bring it back; answers its bake."""
    with app.read() as session:
        found = get(session, Photo, photo_id)
    with app.bake_transaction(found.bake_id if found is not None else 0) as session:
        row = get(session, Photo, photo_id)
        if row is None:
            raise NotFound(f"There is no picture {photo_id}.")
        r = solve.load(app, session, row.bake_id)
        r.bake.revision += 1
        row.removed_at = None if back else r.now
        session.add(row)
        session.add(r.bake)
        return row.bake_id
