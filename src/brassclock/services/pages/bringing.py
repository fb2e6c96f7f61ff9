"""A package into a kitchen: what is there already stays, what cannot be is told by its line, and one press takes it all
back. While it comes in, how far it is can be asked, and it can be stopped."""

from __future__ import annotations

import base64
import binascii
import datetime as dt
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel, ValidationError
from sqlmodel import Session, SQLModel, col, select

from brassclock.core.errors import invalid
from brassclock.core.terms import STEPS
from brassclock.formats import package
from brassclock.formats.picture import MOST_BYTES as MOST_PICTURE
from brassclock.formats.picture import kept_of
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.change import recording_plan_change
from brassclock.services.kitchen.beliefs import refold
from brassclock.services.kitchen.busy import MOST_TEXT as MOST_CALENDAR
from brassclock.services.pages.package import EMPTY, OWNER, PARTS, Part, rows_of
from brassclock.services.schemas.keep import NotedUpdate
from brassclock.services.schemas.kitchen import KitchenUpdate
from brassclock.services.schemas.logbook import BroughtRead, PackageRead, ProgressRead, RefusedRead
from brassclock.store.rows import find, get, insert
from brassclock.store.tables import (
    Bake,
    Brought,
    CalendarHours,
    FrozenBread,
    Kitchen,
    Lesson,
    PastBake,
    PhotoBytes,
    Serving,
    StarterFeed,
)

MOST_REFUSED = 200
MOST_TEXT = 20_000
LONG = {"calendars": MOST_CALENDAR, "photo_bytes": MOST_PICTURE * 4 // 3 + 4}  # letters, where more can be
LESSON_OF = {"surface": "surfaces", "thirst": "flour_bags", "vitality": "starters"}
TOLD_EACH = 100  # rows
UNDER_WAY = "bringing"  # in the application's memory: how far each kitchen's package is


@dataclass
class Progress:
    """The progress of a package: rows done, of all; and whether it was asked to stop."""

    of: int = 0
    done: int = 0
    stopped: bool = False

    def step(self) -> None:
        """One more row is done. Raises Conflict once it was asked to stop."""
        self.done += 1
        if self.stopped and self.done % TOLD_EACH == 0:
            raise Conflict("It was stopped. Nothing of the package is stored.")


@dataclass
class _Bringing:
    """A package on its way in: what its ids have become here, what was added and what was there."""

    session: Session
    kitchen: Kitchen
    ids: dict[str, dict[int, int]] = field(default_factory=dict)
    added: dict[str, list[int]] = field(default_factory=dict)
    there: dict[str, int] = field(default_factory=dict)
    refused: list[tuple[str, int, str]] = field(default_factory=list)
    progress: Progress = field(default_factory=Progress)

    def bring(self, part: Part, rows: Iterable[tuple[int, dict[str, Any]]]) -> None:
        """Add the rows of a part that are not there yet."""
        here = self.ids.setdefault(part.name, {})
        known = {self._known(part, r.model_dump()): r for r in rows_of(self.session, part, self.kitchen)}
        for line, given in rows:
            self.progress.step()
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
        most = LONG.get(part.name, MOST_TEXT)
        long = next((k for k, v in row.items() if isinstance(v, str) and len(v) > most), None)
        if long is not None:
            raise ValueError(f"{long} is longer than {most} letters.")
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
        if part.table is CalendarHours and row["end"] <= row["start"]:
            raise ValueError("end is not after start.")
        if part.table is Serving:
            row["moves"] = [self._move(m) for m in row["moves"]]
        if part.table is PhotoBytes:
            row["body"] = _picture(row["body"])
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

    def _move(self, move: dict[str, Any]) -> dict[str, Any]:
        """A move of a serving with its frozen breads as they are here."""
        found = self.ids.get("frozen_breads", {}).get(move["row_id"])
        if found is None:
            raise ValueError(f"row_id {move['row_id']} is none of the frozen_breads that were brought in.")
        return move | {"row_id": found}

    def settle_servings(self) -> None:
        """Ties what was taken out of the freezer for a table to that table as it is here."""
        here = self.ids.get("servings", {})
        for number in self.added.get("frozen_breads", ()):
            row = get(self.session, FrozenBread, number)
            if row is not None:
                row.taken = [t | {"serving": here.get(t["serving"])} if t.get("serving") else t for t in row.taken]

    def _lesson_key(self, key: str) -> str:
        kind, _, which = key.partition(":")
        if kind not in LESSON_OF or not which.isdigit():
            return key
        found = self.ids.get(LESSON_OF[kind], {}).get(int(which))
        if found is None:
            raise ValueError(f"key {key} is about none of the {LESSON_OF[kind]} that were brought in.")
        return f"{kind}:{found}"


def _picture(text: str) -> bytes:
    """The bytes of a picture in base64. Raises ValueError for what is none."""
    try:
        return kept_of(base64.b64decode(text, validate=True)).body
    except binascii.Error:
        raise ValueError("body is no base64.") from None


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
            if e["type"] != "missing" or len(e["loc"]) > 1:  # a row may lack a setting, a part of one may not
                raise ValueError(f"{e['loc'][0]}: {e['msg']}.") from None


def package_in(app: App, kitchen_id: int, data: bytes) -> BroughtRead:
    """Bring a package into a kitchen, as one transaction. What is there already stays as it is.

    Raises InvalidInput for what is no package, Conflict where it was stopped on the way.
    """
    under_way = app.memory.setdefault(UNDER_WAY, {})
    progress = under_way[kitchen_id] = Progress()
    try:
        read = package.read(data, EMPTY)
        progress.of = sum(len(rows) for rows in read.rows.values())
        with app.transaction(kitchen_id) as session:
            kitchen = app.kitchen(session, kitchen_id)
            bringing = _Bringing(session, kitchen, refused=list(read.refused), progress=progress)
            with recording_plan_change(app, session, kitchen_id, "a package was brought in"):
                for part in PARTS[1:]:
                    bringing.bring(part, read.rows.get(part.name, ()))
                bringing.settle_servings()
                refold(session, kitchen)
            now = app.now(session, kitchen)
            return remember(session, kitchen_id, now, bringing.added, bringing.there, bringing.refused)
    finally:
        if under_way.get(kitchen_id) is progress:
            del under_way[kitchen_id]


def progress_out(app: App, kitchen_id: int) -> ProgressRead:
    """The progress of the package that is coming into a kitchen; 0 of 0 while it is read, and where none is."""
    found = app.memory.get(UNDER_WAY, {}).get(kitchen_id)
    if found is None:
        return ProgressRead(under_way=False, done=0, of=0)
    return ProgressRead(under_way=True, done=found.done, of=found.of)


def stop(app: App, kitchen_id: int) -> ProgressRead:
    """Ask the package that is coming into a kitchen to stop; nothing of it is stored then. Once it is being written it
    is too late."""
    found = app.memory.get(UNDER_WAY, {}).get(kitchen_id)
    if found is not None:
        found.stopped = True
    return progress_out(app, kitchen_id)


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
            own = {of: set(row.added.get(of, ())) for of in ("bakes", "starters", "calendars", "photos")}
            for name in reversed(list(row.added)):
                for number in row.added[name]:
                    found = get(session, tables[name], number)
                    if found is not None and not _goes(found, own) and not _used(session, name, number, own["bakes"]):
                        session.delete(found)
            refold(session, kitchen)
        row.undone_at = app.now(session, kitchen)
        session.add(row)


def _goes(row: SQLModel, own: dict[str, set[int]]) -> bool:
    """True if a row goes by itself, with a bake, a starter, a calendar or a picture that goes."""
    owners = {"bake_id": "bakes", "calendar_id": "calendars", "photo_id": "photos"}
    if any(getattr(row, column, None) in own[of] for column, of in owners.items()):
        return True
    return isinstance(row, StarterFeed) and row.starter_id in own["starters"]


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
