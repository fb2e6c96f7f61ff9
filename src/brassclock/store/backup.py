"""Copies of the database: before every migration, daily, weekly, on demand, brought from elsewhere; and back."""

from __future__ import annotations

import datetime as dt
import os
import re
import shutil
import sqlite3
from collections.abc import Iterable
from contextlib import closing
from itertools import count
from pathlib import Path

FOLDER = "backups"
DAILY_KEPT = 7
WEEKLY_KEPT = 5
BEFORE_KEPT = 7
BROUGHT_KEPT = 3
NAME = re.compile(r"(daily|weekly|before|saved|brought)-[\w.-]+\.sqlite3")


def save(source: Path, target: Path) -> Path:
    """A copy of a database that may be in use (SQLite's online backup), its owner's alone. Raises sqlite3.Error,
    OSError."""
    target.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    making = target.with_name(target.name + ".part")
    making.unlink(missing_ok=True)
    os.close(os.open(making, os.O_CREAT | os.O_EXCL, 0o600))
    with closing(sqlite3.connect(source)) as read, closing(sqlite3.connect(making)) as write:
        read.backup(write, pages=2000, sleep=0.001)
        write.execute("pragma journal_mode=DELETE")
    os.replace(making, target)
    return target


def saved(directory: Path) -> list[Path]:
    """Backups of a data folder, newest first."""
    found = [p for p in (directory / FOLDER).glob("*.sqlite3") if NAME.fullmatch(p.name)]
    return sorted(found, key=lambda p: p.stat().st_mtime, reverse=True)


def before_migration(directory: Path, revision: str) -> Path:
    """Path of the copy before a migration; the oldest of its kind make room."""
    _thin(directory, "before", BEFORE_KEPT - 1)
    return directory / FOLDER / f"before-{revision}-{dt.datetime.now():%Y%m%d-%H%M%S}.sqlite3"


def daily(source: Path, today: dt.date) -> Path | None:
    """The day's copy, made when there is none yet, and the week's of it; seven and five are kept. None when it was
    there."""
    target = source.parent / FOLDER / f"daily-{today:%Y-%m-%d}.sqlite3"
    if target.exists():
        return None
    made = save(source, target)
    _thin(source.parent, "daily", DAILY_KEPT)
    weekly = target.with_name(f"weekly-{today:%G-W%V}.sqlite3")
    if not weekly.exists():
        try:
            os.link(made, weekly)  # the same file under both names: it takes no more room
        except OSError:
            _copied(made, weekly)
        _thin(source.parent, "weekly", WEEKLY_KEPT)
    return made


def _copied(source: Path, target: Path) -> None:
    """Copy a file that nobody writes: there whole or not at all, its owner's alone."""
    making = target.with_name(target.name + ".part")
    shutil.copyfile(source, making)
    making.chmod(0o600)
    os.replace(making, target)


def brought(directory: Path, parts: Iterable[bytes]) -> Path:
    """A backup of elsewhere, stored among the others once it is known to be sound; the oldest of its kind make room.

    Raises ValueError in words, OSError; then nothing is kept of it.
    """
    target = _unused(directory, "brought")
    target.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    making = target.with_name(target.name + ".part")
    try:
        with os.fdopen(os.open(making, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "wb") as file:
            for part in parts:
                file.write(part)
        check(making)
        os.replace(making, target)
    finally:
        making.unlink(missing_ok=True)
    _thin(directory, "brought", BROUGHT_KEPT)
    return target


def _thin(directory: Path, kind: str, keep: int) -> None:
    for old in [p for p in saved(directory) if p.name.startswith(f"{kind}-")][keep:]:
        old.unlink(missing_ok=True)


def check(path: Path) -> str:
    """The schema revision of a sound backup. Raises ValueError in words."""
    if not path.is_file():
        raise ValueError(f"There is no file {path}. brass-clock restore --list names the backups.")
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as raw:
            told = raw.execute("pragma integrity_check(1)").fetchone()[0]
            if told != "ok":
                raise ValueError(f"{path} is damaged: {told[:80]}. Choose another backup.")
            return str(raw.execute("select version_num from alembic_version").fetchone()[0])
    except sqlite3.DatabaseError as fault:
        raise ValueError(f"{path} is no backup of Brass Clock: {fault}.") from None


def fresh(directory: Path) -> Path:
    """A name for a copy on demand that no file has: two within a second do not take each other's place."""
    return _unused(directory, "saved")


def _unused(directory: Path, kind: str) -> Path:
    stamp = f"{kind}-{dt.datetime.now():%Y%m%d-%H%M%S}"
    names = (f"{stamp}{f'-{n}' if n else ''}.sqlite3" for n in count())
    return next(path for name in names if not (path := directory / FOLDER / name).exists())


def restore(chosen: Path, target: Path) -> Path | None:
    """Put a backup in the data's place; what was there is kept among the backups and its path returned. Nobody may be
    using it."""
    check(chosen)
    kept = None
    target.parent.mkdir(mode=0o700, parents=True, exist_ok=True)
    if target.exists() and target.stat().st_size:
        kept = fresh(target.parent)
        kept.parent.mkdir(mode=0o700, exist_ok=True)
        try:
            save(target, kept)
        except sqlite3.DatabaseError:  # damaged: kept as it is
            shutil.copyfile(target, kept)
    for ending in ("-wal", "-shm"):
        target.with_name(target.name + ending).unlink(missing_ok=True)
    _copied(chosen, target)
    return kept
