"""A kitchen as a package: which of its tables and columns are told, and a kitchen taken out."""

from __future__ import annotations

import base64
import datetime as dt
from dataclasses import dataclass, field
from typing import Any, get_args, get_origin

from pydantic import BaseModel
from sqlalchemy import JSON
from sqlmodel import Session, SQLModel, col, select

from brassclock.formats import package
from brassclock.formats.package import Column, Kind, Resource
from brassclock.services.app import App
from brassclock.services.schemas.bake import BakeUpdate
from brassclock.services.schemas.drill import DrillKept
from brassclock.services.schemas.fire import TapCreate
from brassclock.services.schemas.freezer import ServingKept
from brassclock.services.schemas.keep import OutcomeUpdate
from brassclock.services.schemas.kitchen import KitchenUpdate, SurfaceUpdate
from brassclock.store.columns import Instant
from brassclock.store.tables import (
    Bake,
    BusyHours,
    Calendar,
    CalendarHours,
    DrillTry,
    FlourBag,
    ForecastRecord,
    FrozenBread,
    Kitchen,
    Lesson,
    Outcome,
    OwnIngredient,
    OwnMethod,
    PastBake,
    Photo,
    PhotoBytes,
    PlanChange,
    Reading,
    Serving,
    Starter,
    StarterFeed,
    Surface,
    Tap,
)

TYPES: dict[type, Kind] = {
    int: "integer",
    float: "number",
    str: "string",
    bool: "boolean",
    dt.datetime: "datetime",
    bytes: "string",  # in base64
}
OWNER = "kitchen_id"  # told by the package itself


@dataclass(frozen=True)
class Part:
    """A table of a kitchen in its package: its resource, the columns that refer to rows of others, the column of its
    owner, and the columns by which a row is known again; the schema that its settings must fit."""

    name: str
    table: type[SQLModel]
    refers: dict[str, str] = field(default_factory=dict)
    owner: str = OWNER
    known_by: tuple[str, ...] = ()
    fits: type[BaseModel] | None = None
    left: tuple[str, ...] = ()  # columns that are not told


BAKE = {"bake_id": "bakes"}
PARTS = (
    Part("kitchen", Kitchen, fits=KitchenUpdate, left=("id", "demo", "version", "leavens", "friction", "pace")),
    Part("surfaces", Surface, known_by=("name",), fits=SurfaceUpdate, left=("learned",)),
    Part("ingredients", OwnIngredient, known_by=("name",)),
    Part("methods", OwnMethod, known_by=("name",)),
    Part("flour_bags", FlourBag, known_by=("name",)),
    Part("starters", Starter, known_by=("name",)),
    Part("feeds", StarterFeed, {"starter_id": "starters"}, "starter_id", ("starter_id", "at")),
    Part("busy_hours", BusyHours, known_by=("name", "start", "days", "from_time")),
    Part(
        "bakes", Bake, {"surface_id": "surfaces", "bag_id": "flour_bags", "starter_id": "starters"},
        known_by=("uid",), fits=BakeUpdate,
    ),
    Part("taps", Tap, BAKE, "bake_id", ("bake_id", "key"), TapCreate),
    Part("readings", Reading, BAKE, known_by=("bake_id", "kind", "at", "place"), left=("channel_id",)),
    Part("outcomes", Outcome, BAKE, "bake_id", ("bake_id", "round_no"), OutcomeUpdate),
    Part("forecasts", ForecastRecord, BAKE, "bake_id", ("bake_id", "name")),
    Part("plan_changes", PlanChange, BAKE, "bake_id", ("bake_id", "at")),
    Part("lessons", Lesson, BAKE, known_by=("bake_id", "key", "at")),
    Part("frozen_breads", FrozenBread, BAKE, known_by=("name", "frozen_at")),
    Part("figures", PastBake, BAKE, "bake_id", ("bake_id",)),
    Part("calendars", Calendar, known_by=("name", "text")),
    Part(
        "calendar_hours", CalendarHours, {"calendar_id": "calendars"}, "calendar_id",
        ("calendar_id", "name", "start"),
    ),
    Part("servings", Serving, known_by=("serve_at", "wanted"), fits=ServingKept),
    Part("photos", Photo, BAKE, "bake_id", ("bake_id", "round_no", "added_at")),
    Part("photo_bytes", PhotoBytes, {"photo_id": "photos"}, "photo_id", ("photo_id",)),
    Part("drills", DrillTry, known_by=("kind", "opened_at"), fits=DrillKept, left=("own",)),
)  # fmt: skip


def columns_of(part: Part) -> tuple[Column, ...]:
    """The columns of a part, by its table."""
    found = []
    for c in part.table.__table__.columns:  # type: ignore[attr-defined]
        if c.name in part.left or c.name == OWNER:
            continue
        default = part.table.model_fields[c.name].default
        found.append(
            Column(
                c.name,
                _kind(part.table, c.name, c.type),
                not c.nullable,
                part.refers.get(c.name),
                default if isinstance(default, (bool, int, float, str)) else None,
            )
        )
    return tuple(found)


def _kind(table: type[SQLModel], name: str, stored: Any) -> Kind:
    if isinstance(stored, Instant):
        return "datetime"
    annotation = table.model_fields[name].annotation
    options = [annotation] if get_origin(annotation) in (list, dict) else [annotation, *get_args(annotation)]
    if isinstance(stored, JSON):
        return "array" if any(get_origin(o) is list for o in options) else "object"
    return next(kind for kind in (TYPES.get(o) for o in options if isinstance(o, type)) if kind is not None)


EMPTY = tuple(Resource(part.name, columns_of(part)) for part in PARTS)


def package_out(app: App, kitchen_id: int) -> tuple[str, bytes]:
    """(file name, the kitchen as a package)."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        resources = [
            Resource(empty.name, empty.columns, [_told(r) for r in rows_of(session, part, kitchen)])
            for part, empty in zip(PARTS, EMPTY, strict=True)
        ]
    return f"kitchen-{now:%Y-%m-%d}.zip", package.write("brass-clock-kitchen", kitchen.name, now, resources)


def _told(row: SQLModel) -> dict[str, Any]:
    """A row as it is written: bytes in base64."""
    return {k: base64.b64encode(v).decode() if isinstance(v, bytes) else v for k, v in row.model_dump().items()}


def rows_of(session: Session, part: Part, kitchen: Kitchen) -> list[SQLModel]:
    """Rows of a part, in the order in which they were made; a deleted bake stays with what belongs to it."""
    if part.table is Kitchen:
        return [kitchen]
    key: Any = part.table.__table__.primary_key.columns.values()[0]  # type: ignore[attr-defined]
    query: Any = select(part.table).order_by(key)
    owners: dict[str, Any] = {
        OWNER: [kitchen.id],
        "starter_id": select(Starter.id).where(Starter.kitchen_id == kitchen.id),
        "bake_id": select(Bake.id).where(Bake.kitchen_id == kitchen.id),
        "calendar_id": select(Calendar.id).where(Calendar.kitchen_id == kitchen.id),
        "photo_id": select(Photo.id).join(Bake, col(Photo.bake_id) == Bake.id).where(Bake.kitchen_id == kitchen.id),
    }
    return list(session.exec(query.where(getattr(part.table, part.owner).in_(owners[part.owner]))))
