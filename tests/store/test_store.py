"""The database as it stands on disk: strict, journaled, guarded; migrations give the tables; one action, one
transaction."""

from __future__ import annotations

import datetime as dt
import json
import sqlite3
from pathlib import Path

import pytest
from alembic import command
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlmodel import Session, SQLModel, create_engine, select

from brassclock.services.app import App
from brassclock.services.kitchen import settings as kitchen_settings
from brassclock.services.kitchen.beliefs import refold
from brassclock.services.schemas.kitchen import KitchenCreate, SurfaceUpdate
from brassclock.store.engine import FILE_NAME, alembic_config, open_store
from brassclock.store.tables import Bake, FlourBag, Kitchen, Starter, Tap


def test_strict_journaled_and_as_the_models_say(tmp_path: Path) -> None:
    engine = open_store(tmp_path)
    open_store(tmp_path)  # opening again migrates nothing and harms nothing
    with sqlite3.connect(tmp_path / FILE_NAME) as raw:
        tables = raw.execute(
            "select name, sql from sqlite_master where type = 'table' and name not like 'past_text%' "
            "and name != 'alembic_version'"
        ).fetchall()
        assert len(tables) == 31
        assert all("STRICT" in sql for _, sql in tables)
        assert raw.execute("pragma journal_mode").fetchone() == ("wal",)
    with engine.connect() as connection:
        assert connection.exec_driver_sql("pragma foreign_keys").scalar() == 1
        assert connection.exec_driver_sql("pragma busy_timeout").scalar() == 5000
        own = {"include_name": lambda name, kind, _: kind != "table" or not name.startswith("past_text")}
        assert compare_metadata(MigrationContext.configure(connection, opts=own), SQLModel.metadata) == []


def test_an_action_that_fails_leaves_nothing(tmp_path: Path) -> None:
    app = App(open_store(tmp_path), with_demo=False)
    given = KitchenCreate(zone="UTC", surface=SurfaceUpdate(name="Plate", kind="iron_plate"))
    with pytest.raises(RuntimeError), app.transaction() as session:
        kitchen_settings.add_kitchen(session, given, app.real_now())
        raise RuntimeError("the lid closes here")
    assert kitchen_settings.list_kitchens(app) == []


def test_instants_come_back_aware_and_equal(tmp_path: Path) -> None:
    app = App(open_store(tmp_path), with_demo=False)
    at = dt.datetime(2026, 3, 29, 2, 30, 0, 123456, tzinfo=dt.timezone(dt.timedelta(hours=2)))
    with app.transaction() as session:
        session.add(Kitchen(name="k", hourly_c=[20.0] * 24, created_at=at))
    with app.transaction() as session:
        assert app.kitchen(session, 1).created_at == at
    with pytest.raises(Exception, match="time zone"), app.transaction() as session:
        session.add(Kitchen(name="k", hourly_c=[20.0] * 24, created_at=at.replace(tzinfo=None)))
        session.flush()


def test_what_was_believed_before_lessons_were_kept_is_the_fold_of_one_each(tmp_path: Path) -> None:
    """A store of the schema before: leavens (one forgotten), kneading, a bag and a starter are as they were."""
    old = create_engine(f"sqlite:///{tmp_path / FILE_NAME}")
    command.upgrade(alembic_config(old), "0015")
    at = "2026-01-01T00:00:00+00:00"
    slow = {"mean": 0.8, "sd_log": 0.3, "bakes": 4}
    leavens = {"yeast_instant": slow, "yeast_fresh": {"mean": 1.0, "sd_log": 0.5, "bakes": 0, "was": slow}}
    with old.begin() as c:
        c.exec_driver_sql(
            "insert into kitchen (id, name, demo, zone, altitude_m, mass_unit, temp_unit, hourly_c, fridge_c, tap_c, "
            "spoons, scale_step_g, powder, friction, activity_mean, activity_sd_log, places, leavens, cooks, shelf_l, "
            "created_at) values (1, 'k', 0, 'UTC', 0, 'g', 'C', ?, 4, 12, 'us', .1, 'double', ?, 1, .5, '{}', ?, 2, "
            "40, ?)",
            (json.dumps([20.0] * 24), json.dumps({"hand": [1.3, 3]}), json.dumps(leavens), at),
        )
        c.exec_driver_sql("insert into flour_bag values (1, 1, 'Sack', 'plain_flour', 0.02, 2)")
        c.exec_driver_sql(
            "insert into starter (id, kitchen_id, name, hydration_frac, whole_share, vitality_mean, vitality_sd_log) "
            "values (1, 1, 'Old Pell', 1, 0, 1.4, .2)"
        )
    old.dispose()
    with Session(open_store(tmp_path)) as session:
        kitchen = session.get_one(Kitchen, 1)
        refold(session, kitchen)
        assert kitchen.leavens["yeast_instant"] == pytest.approx({"mean": 0.8, "sd_log": 0.3, "bakes": 1})
        assert kitchen.leavens["yeast_fresh"]["mean"] == 1.0, "forgotten; its lesson can come back"
        assert kitchen.friction["hand"][0] == pytest.approx(1.3)
        assert session.get_one(FlourBag, 1).thirst_frac == pytest.approx(0.02)
        starter = session.get_one(Starter, 1)
        assert (starter.vitality_mean, starter.vitality_sd_log) == pytest.approx((1.4, 0.2))


def test_an_old_database_is_brought_up_with_all_it_holds(tmp_path: Path) -> None:
    """A store of the first release, with a bake and its taps: every row is there after the upgrade."""
    old = create_engine(f"sqlite:///{tmp_path / FILE_NAME}")
    command.upgrade(alembic_config(old), "0001")
    with old.begin() as c:
        c.exec_driver_sql(
            "insert into kitchen (id, name, demo, zone, altitude_m, mass_unit, temp_unit, hourly_c, fridge_c, tap_c, "
            "activity_mean, activity_sd_log, created_at) values (1, 'k', 0, 'UTC', 0, 'g', 'C', '[]', 4, 12, 1, .3, "
            "'2026-01-01T00:00:00+00:00')"
        )
        c.exec_driver_sql(
            "insert into bake (id, kitchen_id, name, method, seal, status, lines, strength, bloomed, shape, dough_c, "
            "knead, "
            "knead_min, bulk_ratio, ball_ratio, doneness, docked, serve_at, note, revision, created_at) values (1, "
            "1, 'b', "
            "'hatch-pita', 'round', 'live', '[]', 'kneaded', 0, 'round', 26, 'hand', 8, 1.9, 1.4, 'golden', 0, "
            "'2026-01-01T00:00:00+00:00', '', 0, '2026-01-01T00:00:00+00:00')"
        )
        c.exec_driver_sql(
            "insert into tap (bake_id, key, kind, at, made_at) values (1, 'k-mix', 'mix', '2026-01-01T00:00:00+00:00', "
            "'2026-01-01T00:00:00+00:00')"
        )
    old.dispose()
    with Session(open_store(tmp_path)) as session:
        bake = session.get(Bake, 1)
        assert bake is not None
        assert (bake.additions, bake.bowl_g, bake.bag_id) == ([], 500.0, None)
        assert [t.kind for t in session.exec(select(Tap))] == ["mix"]
