"""Readings of a kitchen's air out as a table, and a logger's table in."""

from __future__ import annotations

from collections.abc import Iterator
from typing import get_args
from zoneinfo import ZoneInfo

from sqlmodel import col, select

from brassclock.core.terms import PlaceKey, TempUnit
from brassclock.formats import readings
from brassclock.formats.readings import AirPoint
from brassclock.services.app import App
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.air import add_points
from brassclock.services.pages.bringing import remember
from brassclock.services.schemas.logbook import BroughtRead
from brassclock.store.tables import Reading

AT_ONCE = 10_000  # rows held while a table is written


def readings_out(app: App, kitchen_id: int, unit: TempUnit, comma: bool) -> tuple[str, Iterator[str]]:
    """(file name, the table a line at a time) of every reading of the air that stands. Raises NotFound."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now, zone = app.now(session, kitchen), ZoneInfo(kitchen.zone)

    def points() -> Iterator[AirPoint]:
        with app.read() as session:
            query = select(Reading.at, Reading.place, Reading.value, Reading.source).where(
                Reading.kitchen_id == kitchen_id, Reading.kind == "air_c", col(Reading.undone_at).is_(None)
            )
            query = query.order_by(col(Reading.at), col(Reading.id)).execution_options(yield_per=AT_ONCE)
            for at, place, value, source in session.exec(query):
                if value is not None:
                    yield AirPoint(at.astimezone(zone), place or "bench", value, source)

    return f"readings-{now:%Y-%m-%d}.csv", readings.write(points(), unit, comma)


def readings_in(app: App, kitchen_id: int, text: str) -> BroughtRead:
    """Store the readings of a table, as one transaction; one that is there already is left out, and a line that cannot
    be is told. Taken back as a package is. Raises InvalidInput for what is no table."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        log = readings.read(text, ZoneInfo(kitchen.zone), get_args(PlaceKey))
        ahead = [(n, f"{p.at:%Y-%m-%d %H:%M} is still to come.") for n, p in log.points if p.at > now]
        with recording_plan_change(app, session, kitchen_id, "readings of the air were brought in"):
            added, there = add_points(session, kitchen_id, [p for _, p in log.points if p.at <= now], now)
        refused = [("readings", n, why) for n, why in sorted([*log.refused, *ahead])]
        return remember(
            session, kitchen_id, now, {"readings": added} if added else {}, {"readings": len(there)} if there else {},
            refused,
        )  # fmt: skip
