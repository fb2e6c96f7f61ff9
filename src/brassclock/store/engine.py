"""Open the database: WAL, foreign keys, patience; brought to the newest migration on opening, backed up before."""

from __future__ import annotations

import os
import sqlite3
from pathlib import Path
from typing import Any

from sqlalchemy import Connection, Engine, create_engine, event

from brassclock.store import backup
from brassclock.store.faults import CannotOpen, storage_fault

BUSY_MS = 5000
CONNECTIONS = 40
FILE_NAME = "brassclock.sqlite3"
MAGIC = b"SQLite format 3\0"
VERSIONS = Path(__file__).parent / "migrations" / "versions"


def _pragmas(connection: Any, _: Any) -> None:
    connection.isolation_level = None  # the driver begins nothing by itself; `_begin` does
    cursor = connection.cursor()
    cursor.execute("PRAGMA journal_mode=WAL")
    cursor.execute("PRAGMA foreign_keys=ON")
    cursor.execute(f"PRAGMA busy_timeout={BUSY_MS}")
    cursor.execute("PRAGMA synchronous=FULL")
    cursor.close()


def _begin(connection: Connection) -> None:
    """A change takes the write lock at once, so that what it reads is still true when it writes."""
    looking = connection.get_execution_options().get("looking")
    connection.exec_driver_sql("BEGIN" if looking else "BEGIN IMMEDIATE")


def alembic_config(engine: Engine | None = None) -> Any:
    """Alembic's configuration, without an ini file."""
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(VERSIONS.parent))
    config.attributes["engine"] = engine
    return config


def newest_revision() -> str:
    """The revision that this version of the application brings data to."""
    return max(p.name[:4] for p in VERSIONS.glob("[0-9]*.py"))


def open_store(directory: Path, *, fresh: bool = False) -> Engine:
    """The engine over the database in `directory`, made and migrated as needed; files are its owner's alone.

    `fresh` begins anew where the file is missing beside backups. Raises CannotOpen.
    """
    path = directory / FILE_NAME
    try:
        if not directory.exists():
            directory.mkdir(parents=True, mode=0o700)
        _check_file(path, fresh)
        os.close(os.open(path, os.O_CREAT | os.O_RDWR, 0o600))
        path.chmod(0o600)
        known = _revision(path)
        newest = newest_revision()
        if known is not None and known > newest:
            raise CannotOpen(
                f"{path} was made by a newer version of Brass Clock (its schema is {known}, this one knows {newest}). "
                "Start that version, or restore a backup of before."
            )
        engine = _engine(path)
        if known != newest:
            if known is not None:
                backup.save(path, backup.before_migration(directory, newest))
            from alembic import command

            command.upgrade(alembic_config(engine), "head")
        return engine
    except CannotOpen:
        raise
    except Exception as fault:
        words = storage_fault(fault)
        if words is None:
            raise
        raise CannotOpen(f"{path}: {words}") from fault


def read_store(directory: Path) -> Engine:
    """The engine over a database that another process keeps: for looking alone."""
    return _engine(directory / FILE_NAME).execution_options(looking=True)


def _engine(path: Path) -> Engine:
    engine = create_engine(
        f"sqlite:///{path}", connect_args={"check_same_thread": False}, pool_size=CONNECTIONS, max_overflow=CONNECTIONS
    )
    event.listen(engine, "connect", _pragmas)
    event.listen(engine, "begin", _begin)
    return engine


def _check_file(path: Path, fresh: bool) -> None:
    """Refuse what is no data of ours, and a missing file where there was data. Raises CannotOpen."""
    size = path.stat().st_size if path.exists() else 0
    wal = path.with_name(path.name + "-wal")
    if size == 0:
        saved = backup.saved(path.parent)
        left = "changes that were not written back (its -wal)" if wal.exists() and wal.stat().st_size else ""
        if (left or saved) and not fresh:
            beside = left or f"{len(saved)} backups, the newest {saved[0].name}"
            raise CannotOpen(
                f"{path} is {'empty' if path.exists() else 'missing'}, but there are {beside} beside it. Put the "
                "file back, or "
                "bring back a backup (brass-clock restore), or begin anew (brass-clock serve --fresh)."
            )
        return
    with path.open("rb") as file:
        if file.read(len(MAGIC)) != MAGIC:
            raise CannotOpen(f"{path} is not a database. Move it away, and bring back a backup: brass-clock restore.")


def _revision(path: Path) -> str | None:
    """The schema's revision; None of an empty file. Raises CannotOpen when a page is damaged."""
    with sqlite3.connect(path, timeout=BUSY_MS / 1000) as raw:
        try:
            told = raw.execute("pragma quick_check(1)").fetchone()[0]
            if told != "ok":
                raise CannotOpen(
                    f"{path} is damaged ({told.splitlines()[-1][:80]}). Bring back a backup: brass-clock restore."
                )
            known = raw.execute("select name from sqlite_master where name = 'alembic_version'").fetchone()
            if known is None:
                empty = raw.execute("select count(*) from sqlite_master").fetchone()[0] == 0
                if empty:
                    return None
                raise CannotOpen(f"{path} is a database of something else. Choose another folder with --data.")
            row = raw.execute("select version_num from alembic_version").fetchone()
            return str(row[0]) if row else None
        finally:
            raw.rollback()


def checkpoint(engine: Engine) -> None:
    """Write everything back into the file, so that the file alone is the data."""
    with engine.execution_options(looking=True).connect() as connection:
        connection.exec_driver_sql("ROLLBACK")  # a checkpoint is no part of a transaction
        connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        connection.exec_driver_sql("BEGIN")


def close_store(engine: Engine) -> None:
    """Write everything back and let go of the file."""
    checkpoint(engine)
    engine.dispose()
