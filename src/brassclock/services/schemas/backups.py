"""Shapes of backups."""

import datetime as dt

from brassclock.services.schemas.base import Shape


class BackupRead(Shape):
    """A copy of the data: daily, weekly, before a new version, saved on demand, or brought from another machine."""

    name: str
    kind: str
    at: dt.datetime
    mb: float


class BackupList(Shape):
    """Every backup, the newest first; where they lie, and how much room is left there."""

    folder: str
    free_mb: int
    data_mb: float
    can_restore: bool
    backups: list[BackupRead]


class BackupChecked(Shape):
    """The result of checking a backup: sound or not, and how much is in it. `newer`: of a version that this one cannot
    read."""

    name: str
    sound: bool
    newer: bool
    words: str
    counts: dict[str, int]


class Restoring(Shape):
    """A backup is being put in place; `from_name` is which."""

    from_name: str
