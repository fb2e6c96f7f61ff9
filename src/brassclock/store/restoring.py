"""A backup put in the data's place: checked, what was there kept, brought to the newest schema, and nobody let in who
was not before."""

from __future__ import annotations

from pathlib import Path

from sqlalchemy import Engine

from brassclock.store import access, backup
from brassclock.store.engine import FILE_NAME, newest_revision, open_store
from brassclock.store.faults import CannotOpen


def restored(directory: Path, chosen: Path) -> tuple[Engine, Path | None]:
    """(the engine over the restored data, where what was there is kept). Nobody may be using the data.

    Raises CannotOpen or ValueError in words; then what was there is in its place.
    """
    if backup.check(chosen) > newest_revision():
        raise CannotOpen(f"{chosen.name} was made by a newer version of Brass Clock. Restore it with that one.")
    target = directory / FILE_NAME
    let_in = access.taken(target) if target.exists() else None
    kept = backup.restore(chosen, target)
    try:
        engine = open_store(directory)
    except Exception:
        if kept is not None:
            backup.restore(kept, target)
        raise
    access.put(target, let_in)
    return engine, kept
