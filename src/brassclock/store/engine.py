"""Open the database: WAL, foreign keys, patience; brought to the newest migration on opening."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from alembic import command
from alembic.config import Config
from sqlalchemy import Connection, Engine, event
from sqlmodel import create_engine

BUSY_MS = 5000
FILE_NAME = "brassclock.sqlite3"


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


def alembic_config(engine: Engine | None = None) -> Config:
    """Alembic's configuration, without an ini file."""
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    config.attributes["engine"] = engine
    return config


def open_store(directory: Path) -> Engine:
    """The engine over the database in `directory`, made and migrated as needed."""
    directory.mkdir(parents=True, exist_ok=True)
    engine = create_engine(f"sqlite:///{directory / FILE_NAME}", connect_args={"check_same_thread": False})
    event.listen(engine, "connect", _pragmas)
    event.listen(engine, "begin", _begin)
    command.upgrade(alembic_config(engine), "head")
    return engine
