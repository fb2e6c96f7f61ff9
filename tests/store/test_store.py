"""The database as it stands on disk: strict, journaled, guarded; migrations give the tables; one action, one transaction."""

from __future__ import annotations

import datetime as dt
import sqlite3
from pathlib import Path

import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlmodel import SQLModel

from brassclock.services import kitchens
from brassclock.services.house import House
from brassclock.services.schemas import KitchenIn, SurfaceIn
from brassclock.store.engine import FILE_NAME, open_store
from brassclock.store.tables import Kitchen


def test_strict_journaled_and_as_the_models_say(tmp_path: Path) -> None:
    engine = open_store(tmp_path)
    open_store(tmp_path)  # opening again migrates nothing and harms nothing
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        tables = raw.execute(
            "select name, sql from sqlite_master where type = 'table' and name != 'alembic_version'"
        ).fetchall()
        assert len(tables) == 8
        assert all("STRICT" in sql for _, sql in tables)
        assert raw.execute("pragma journal_mode").fetchone() == ("wal",)
    with engine.connect() as connection:
        assert connection.exec_driver_sql("pragma foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("pragma busy_timeout").scalar() == 5000
        assert compare_metadata(MigrationContext.configure(connection), SQLModel.metadata) == []


def test_an_action_that_fails_leaves_nothing(tmp_path: Path) -> None:
    house = House(open_store(tmp_path), with_demo=False)
    given = KitchenIn(zone="UTC", surface=SurfaceIn(name="Plate", kind="iron_plate"))
    with pytest.raises(RuntimeError), house.action() as session:
        kitchens.add_kitchen(session, given, house.real_now())
        raise RuntimeError("the lid closes here")
    assert kitchens.list_kitchens(house) == []


def test_instants_come_back_aware_and_equal(tmp_path: Path) -> None:
    house = House(open_store(tmp_path), with_demo=False)
    at = dt.datetime(2026, 3, 29, 2, 30, 0, 123456, tzinfo=dt.timezone(dt.timedelta(hours=2)))
    with house.action() as session:
        session.add(Kitchen(name="k", hourly_c=[20.0] * 24, created_at=at))
    with house.action() as session:
        assert house.kitchen(session, 1).created_at == at
    with pytest.raises(Exception, match="time zone"), house.action() as session:
        session.add(Kitchen(name="k", hourly_c=[20.0] * 24, created_at=at.replace(tzinfo=None)))
        session.flush()
