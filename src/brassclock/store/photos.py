"""Repository of pictures."""

from __future__ import annotations

from collections.abc import Sequence

from sqlmodel import Session

from brassclock.store.rows import find
from brassclock.store.tables import Photo, PhotoBytes


def of_bake(session: Session, bake_id: int) -> Sequence[Photo]:
    """Pictures of a bake that are not removed, as they were added."""
    return sorted(find(session, Photo, bake_id=bake_id, removed_at=None), key=lambda x: x.id or 0)


def body_of(session: Session, photo_id: int) -> bytes | None:
    """The JPEG of a picture."""
    return next((x.body for x in find(session, PhotoBytes, photo_id=photo_id)), None)
