"""A kitchen out as a package, and a package into a kitchen: what is there already stays, what cannot be is told by its
line, and one press takes it all back."""

from __future__ import annotations

import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any, get_args, get_origin

from pydantic import BaseModel, ValidationError
from sqlalchemy import JSON
from sqlmodel import Session, SQLModel, col, select

from brassclock.core.errors import invalid
from brassclock.core.terms import STEPS
from brassclock.formats import package
from brassclock.formats.package import Column, Kind, Resource
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.beliefs import refold
from brassclock.services.schemas.bake import BakeUpdate
from brassclock.services.schemas.drill import DrillKept
from brassclock.services.schemas.fire import TapCreate
from brassclock.services.schemas.keep import NotedUpdate, OutcomeUpdate
from brassclock.services.schemas.kitchen import KitchenUpdate, SurfaceUpdate
from brassclock.services.schemas.logbook import BroughtRead, PackageRead, RefusedRead
from brassclock.store.columns import Instant
from brassclock.store.rows import find, get, insert
from brassclock.store.tables import (
    Bake,
    Brought,
    BusyHours,
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
    PlanChange,
    Reading,
    Starter,
    StarterFeed,
    Surface,
    Tap,
)

TYPES: dict[type, Kind] = {int: "integer", float: "number", str: "string", bool: "boolean", dt.datetime: "datetime"}
OWNER = "kitchen_id"  # told by the package itself
MOST_REFUSED = 200
MOST_TEXT = 20_000


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
    Part("readings", Reading, BAKE, known_by=("bake_id", "kind", "at", "place")),
    Part("outcomes", Outcome, BAKE, "bake_id", ("bake_id", "round_no"), OutcomeUpdate),
    Part("forecasts", ForecastRecord, BAKE, "bake_id", ("bake_id", "name")),
    Part("plan_changes", PlanChange, BAKE, "bake_id", ("bake_id", "at")),
    Part("lessons", Lesson, BAKE, known_by=("bake_id", "key", "at")),
    Part("frozen_breads", FrozenBread, BAKE, known_by=("name", "frozen_at")),
    Part("figures", PastBake, BAKE, "bake_id", ("bake_id",)),
    Part("drills", DrillTry, known_by=("kind", "opened_at"), fits=DrillKept, left=("own",)),
)  # fmt: skip
LESSON_OF = {"surface": "surfaces", "thirst": "flour_bags", "vitality": "starters"}


def columns_of(part: Part) -> tuple[Column, ...]:
    """The columns of a part, by its table."""
    found = []
    for c in part.table.__table__.columns:  # type: ignore[attr-defined]
        if c.name in part.left or c.name == OWNER:
            continue
        found.append(Column(c.name, _kind(part.table, c.name, c.type), not c.nullable, part.refers.get(c.name)))
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
            Resource(empty.name, empty.columns, [r.model_dump() for r in _rows(session, part, kitchen)])
            for part, empty in zip(PARTS, EMPTY, strict=True)
        ]
    return f"kitchen-{now:%Y-%m-%d}.zip", package.write("brass-clock-kitchen", kitchen.name, now, resources)


def _rows(session: Session, part: Part, kitchen: Kitchen) -> list[SQLModel]:
    """Rows of a part, in the order in which they were made; a deleted bake stays with what belongs to it."""
    if part.table is Kitchen:
        return [kitchen]
    key: Any = part.table.__table__.primary_key.columns.values()[0]  # type: ignore[attr-defined]
    query: Any = select(part.table).order_by(key)
    owners: dict[str, Any] = {
        OWNER: [kitchen.id],
        "starter_id": select(Starter.id).where(Starter.kitchen_id == kitchen.id),
        "bake_id": select(Bake.id).where(Bake.kitchen_id == kitchen.id),
    }
    return list(session.exec(query.where(getattr(part.table, part.owner).in_(owners[part.owner]))))


@dataclass
class _Bringing:
    """A package on its way in: what its ids have become here, what was added and what was there."""

    session: Session
    kitchen: Kitchen
    ids: dict[str, dict[int, int]] = field(default_factory=dict)
    added: dict[str, list[int]] = field(default_factory=dict)
    there: dict[str, int] = field(default_factory=dict)
    refused: list[tuple[str, int, str]] = field(default_factory=list)

    def bring(self, part: Part, rows: Iterable[tuple[int, dict[str, Any]]]) -> None:
        """Add the rows of a part that are not there yet."""
        here = self.ids.setdefault(part.name, {})
        known = {self._known(part, r.model_dump()): r for r in _rows(self.session, part, self.kitchen)}
        for line, given in rows:
            try:
                row = self._turned(part, given)
            except ValueError as fault:
                self.refused.append((part.name, line, str(fault)))
                continue
            had = known.get(self._known(part, row))
            if had is not None:
                here[given.get("id") or 0] = getattr(had, "id", 0)
                self.there[part.name] = self.there.get(part.name, 0) + 1
                continue
            if part.name == "figures":
                self.session.add(PastBake(**row))
                continue
            made = insert(self.session, part.table(**row))
            number = int(getattr(made, "id", 0))
            here[given.get("id") or 0] = number
            known[self._known(part, row)] = made
            self.added.setdefault(part.name, []).append(number)

    def _known(self, part: Part, row: dict[str, Any]) -> tuple[str, ...]:
        return tuple(repr(_same(row.get(c))) for c in part.known_by)

    def _turned(self, part: Part, given: dict[str, Any]) -> dict[str, Any]:
        """A row as it is stored here. Raises ValueError with what is wrong."""
        row = {k: v for k, v in given.items() if k != "id"}
        long = next((k for k, v in row.items() if isinstance(v, str) and len(v) > MOST_TEXT), None)
        if long is not None:
            raise ValueError(f"{long} is longer than {MOST_TEXT} letters.")
        for column, of in part.refers.items():
            if row.get(column) is None:
                continue
            found = self.ids.get(of, {}).get(row[column])
            if found is None and (column == part.owner or column == "bake_id"):
                raise ValueError(f"{column} {row[column]} is none of the {of} that were brought in.")
            row[column] = found
        if OWNER in part.table.model_fields:
            row[OWNER] = self.kitchen.id
        if part.fits is not None:
            _fits(part.fits, row, part.table)
        if part.table is Bake:
            _fits(NotedUpdate, row["noted"] or {}, None)
            _check_bake(row)
            row = self._own(row)
            row["told"] = {}  # of another day: it is told anew
            if row["method"].isdigit():
                row["method"] = str(self.ids.get("methods", {}).get(int(row["method"]), row["method"]))
        if part.table is Lesson:
            row["key"] = self._lesson_key(row["key"])
        if part.table is PastBake and row.get("surface_id") is not None:
            row["surface_id"] = self.ids.get("surfaces", {}).get(row["surface_id"])
        return row

    def _own(self, value: Any) -> Any:
        """The same with the ids of a kitchen's own ingredients as they are here."""
        if isinstance(value, dict):
            return {self._own(k): self._own(v) for k, v in value.items()}
        if isinstance(value, list):
            return [self._own(v) for v in value]
        if isinstance(value, str) and value.startswith("own_") and value[4:].isdigit():
            return f"own_{self.ids.get('ingredients', {}).get(int(value[4:]), value[4:])}"
        return value

    def _lesson_key(self, key: str) -> str:
        kind, _, which = key.partition(":")
        if kind not in LESSON_OF or not which.isdigit():
            return key
        found = self.ids.get(LESSON_OF[kind], {}).get(int(which))
        if found is None:
            raise ValueError(f"key {key} is about none of the {LESSON_OF[kind]} that were brought in.")
        return f"{kind}:{found}"


STATUSES = ("live", "kept", "abandoned")


def _check_bake(row: dict[str, Any]) -> None:
    """Raise ValueError for a bake that every page would stumble over."""
    if row["status"] not in STATUSES:
        raise ValueError(f"status is “{row['status'][:20]}”; it should be {' or '.join(STATUSES)}.")
    for key, at in row["pins"].items():
        try:
            known = key in STEPS and dt.datetime.fromisoformat(at).tzinfo is not None
        except (TypeError, ValueError):
            known = False
        if not known:
            raise ValueError(f"pins hold “{key[:20]}: {str(at)[:40]}”; a move and an instant with its zone are right.")


def _same(value: Any) -> Any:
    return value.astimezone(dt.UTC) if isinstance(value, dt.datetime) else value


def _fits(schema: type[BaseModel], row: dict[str, Any], table: type[SQLModel] | None) -> None:
    """Raise ValueError when what is shared with a schema is out of what it allows."""
    names = set(schema.model_fields) & (set(row) if table is None else set(table.model_fields) & set(row))
    given = {n: row[n] for n in names if row[n] is not None and n != "at"}
    try:
        schema.model_validate(given)
    except ValidationError as fault:
        for e in fault.errors():
            if e["type"] != "missing":
                raise ValueError(f"{e['loc'][0]}: {e['msg']}.") from None


def package_in(app: App, kitchen_id: int, data: bytes) -> BroughtRead:
    """Bring a package into a kitchen, as one transaction. What is there already stays as it is.

    Raises InvalidInput for what is no package.
    """
    read = package.read(data, EMPTY)
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        bringing = _Bringing(session, kitchen, refused=list(read.refused))
        with recording_plan_change(app, session, kitchen_id, "a package was brought in"):
            for part in PARTS[1:]:
                bringing.bring(part, read.rows.get(part.name, ()))
            refold(session, kitchen)
        now = app.now(session, kitchen)
        return remember(session, kitchen_id, now, bringing.added, bringing.there, bringing.refused)


def remember(
    session: Session,
    kitchen_id: int,
    now: dt.datetime,
    added: dict[str, list[int]],
    there: dict[str, int],
    refused: Sequence[tuple[str, int, str]],
) -> BroughtRead:
    """Store what was brought in, so that it can be taken back; answers what is told of it. `refused` are a table, its
    line and why."""
    row = insert(session, Brought(kitchen_id=kitchen_id, at=now, added=added))
    return BroughtRead(
        id=row.id or 0,
        added={k: len(v) for k, v in added.items()},
        there=there,
        refused=[RefusedRead(table=t, line=n, detail=why) for t, n, why in refused[:MOST_REFUSED]],
        refused_count=len(refused),
    )


def kitchen_of_package(app: App, data: bytes) -> int:
    """A new, empty kitchen with the settings of a package; answers its id. Raises InvalidInput for what is none."""
    rows = package.read(data, EMPTY).rows.get("kitchen", [])
    if len(rows) != 1:
        raise invalid("/package", "kitchen.csv is to hold one line: the kitchen's settings.")
    line, row = rows[0]
    try:
        _fits(KitchenUpdate, row, Kitchen)
    except ValueError as fault:
        raise invalid("/package", f"kitchen.csv, line {line}: {fault}") from None
    with app.transaction() as session:
        return insert(session, Kitchen(**row)).id or 0


def take_back(app: App, kitchen_id: int, brought_id: int) -> None:
    """Take away what a package added, but what was used since; its bakes go with all that belongs to them.

    Raises NotFound for a package of another kitchen, Conflict where it is taken back already.
    """
    tables: dict[str, type[SQLModel]] = {part.name: part.table for part in PARTS}
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = get(session, Brought, brought_id)
        if row is None or row.kitchen_id != kitchen_id:
            raise NotFound(f"No package {brought_id} was brought into this kitchen.")
        if row.undone_at is not None:
            raise Conflict("That package was taken back already.")
        with recording_plan_change(app, session, kitchen_id, "a package was taken back"):
            own = {of: set(row.added.get(of, ())) for of in ("bakes", "starters")}
            for name in reversed(list(row.added)):
                for number in row.added[name]:
                    found = get(session, tables[name], number)
                    if found is not None and not _goes(found, own) and not _used(session, name, number, own["bakes"]):
                        session.delete(found)
            refold(session, kitchen)
        row.undone_at = app.now(session, kitchen)
        session.add(row)


def _goes(row: SQLModel, own: dict[str, set[int]]) -> bool:
    """True if a row goes by itself, with a bake or a starter that goes."""
    return getattr(row, "bake_id", None) in own["bakes"] or (
        isinstance(row, StarterFeed) and row.starter_id in own["starters"]
    )


USED_BY: dict[str, Callable[[Session, int], list[Bake]]] = {
    "surfaces": lambda session, n: find(session, Bake, surface_id=n),
    "flour_bags": lambda session, n: find(session, Bake, bag_id=n),
    "starters": lambda session, n: find(session, Bake, starter_id=n),
}


def _used(session: Session, name: str, number: int, own: set[int]) -> bool:
    """True if a bake that did not come with the package hangs on the row."""
    return name in USED_BY and any(b.id not in own for b in USED_BY[name](session, number))


def brought_out(app: App, kitchen_id: int) -> PackageRead:
    """The package that was brought in last and can be taken back."""
    with app.read() as session:
        app.kitchen(session, kitchen_id)
        query = select(Brought).where(Brought.kitchen_id == kitchen_id, col(Brought.undone_at).is_(None))
        row = session.exec(query.order_by(col(Brought.id).desc()).limit(1)).first()
    added = {} if row is None else {k: len(v) for k, v in row.added.items()}
    return PackageRead(id=None if row is None else row.id, at=None if row is None else row.at, added=added)
