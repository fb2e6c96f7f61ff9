"""Backups as the application shows them: what is kept, one made now, one checked, one brought from another machine, one
put in place."""

from __future__ import annotations

import datetime as dt
import shutil
import sqlite3
from collections.abc import Callable, Iterable
from contextlib import closing
from pathlib import Path

from brassclock.core.errors import invalid
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.schemas.backups import BackupChecked, BackupList, BackupRead
from brassclock.store import backup
from brassclock.store.engine import newest_revision

RESTORER = "restorer"  # of the running server: what puts a backup in place
MOST_MB = 200
COUNTED = {"kitchens": "kitchen", "bakes": "bake where deleted_at is null", "readings": "reading"}


def data_file(app: App) -> Path:
    """The database's file."""
    return Path(app.engine.url.database or "")


def backups_out(app: App) -> BackupList:
    """Every backup beside the data, the newest first."""
    directory = data_file(app).parent
    return BackupList(
        folder=str(directory / backup.FOLDER),
        free_mb=shutil.disk_usage(directory).free // 1_000_000,
        data_mb=data_file(app).stat().st_size / 1e6,
        can_restore=RESTORER in app.memory,
        backups=[_read(path) for path in backup.saved(directory)],
    )


def _read(path: Path) -> BackupRead:
    told = path.stat()
    return BackupRead(
        name=path.name,
        kind=path.name.split("-")[0],
        at=dt.datetime.fromtimestamp(told.st_mtime, dt.UTC),
        mb=told.st_size / 1e6,
    )


def path_of(app: App, name: str) -> Path:
    """The file of a backup. Raises NotFound for a name that is none of them."""
    for path in backup.saved(data_file(app).parent):
        if path.name == name:
            return path
    raise NotFound(f"There is no backup {name[:80]}. /api/backups lists them.")


def make(app: App) -> BackupRead:
    """A copy of the data as it is now."""
    source = data_file(app)
    return _read(backup.save(source, backup.fresh(source.parent)))


def bring(app: App, parts: Iterable[bytes]) -> BackupRead:
    """A backup of another machine, stored among the others; putting it in place is another press.

    Raises InvalidInput for a file that is no sound backup.
    """
    try:
        return _read(backup.brought(data_file(app).parent, parts))
    except ValueError as fault:
        raise invalid("/file", str(fault).replace(".part", "")) from None


def checked(app: App, name: str) -> BackupChecked:
    """The result of reading every page of a backup, and its counts of rows."""
    path = path_of(app, name)
    try:
        revision = backup.check(path)
    except ValueError as fault:
        return BackupChecked(name=name, sound=False, newer=False, words=str(fault), counts={})
    with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as raw:
        counts = {what: int(raw.execute(f"select count(*) from {of}").fetchone()[0]) for what, of in COUNTED.items()}
    newer = revision > newest_revision()
    words = "It was made by a newer version of Brass Clock." if newer else "Every page of it is sound."
    return BackupChecked(name=name, sound=True, newer=newer, words=words, counts=counts)


def restore(app: App, name: str) -> None:
    """Have the running server put a backup in the data's place; what is there is kept. It answers again in a moment.

    Raises NotFound; Conflict for one that is damaged or of a newer version, and where nothing runs that can do it.
    """
    found = checked(app, name)
    if not found.sound or found.newer:
        raise Conflict(f"{found.words} Nothing was changed. Choose another.")
    put: Callable[[Path], None] | None = app.memory.get(RESTORER)
    if put is None:
        raise Conflict("Here a backup is put in place on the command line: brass-clock restore.")
    put(path_of(app, name))
