"""A whole kitchen as a Data Package: one zip of `datapackage.json` and a CSV for each table, as the specification has
it (Data Package 2.0, Table Schema; datapackage.org). Pure: it knows columns and cells, no tables of the store.

A text that a table program would run as a formula is given an apostrophe, which is taken off again when it is read.
"""

from __future__ import annotations

import csv
import datetime as dt
import io
import json
import math
import re
import zipfile
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from typing import Any, Literal

from brassclock.core.errors import invalid
from brassclock.formats.tables import UNSEEN

Kind = Literal["integer", "number", "string", "boolean", "datetime", "object", "array"]
PROFILE = "https://datapackage.org/profiles/2.0/datapackage.json"
DESCRIPTION = "datapackage.json"
PATH = re.compile(r"[a-z][a-z_]{0,40}\.csv")
MOST_BYTES, MOST_MEMBERS, MOST_ROWS = 400_000_000, 40, 2_000_000
MOST_CELL = 8_000_000
TOO_LARGE = f"Unpacked it is larger than {MOST_BYTES // 1_000_000} MB."
EARLIEST = (1980, 1, 1, 0, 0, 0)  # of a member: the same data is the same file
FORMULA = re.compile(rf"'*(?:[{UNSEEN}]*[=+\-@\uff1d\uff0b\uff0d\uff20]|[\t\r\n])")


@dataclass(frozen=True)
class Column:
    """A column: its name, what stands in it, whether it may be empty, and the resource that it refers to. `default` is
    what stands in it where the whole column is missing, as in a package of an earlier version; None: it has to be
    there."""

    name: str
    kind: Kind
    required: bool = False
    refers_to: str | None = None
    default: Any = None


@dataclass(frozen=True)
class Resource:
    """A table: its columns, and its rows as values by their names."""

    name: str
    columns: tuple[Column, ...]
    rows: Sequence[dict[str, Any]] = ()


@dataclass
class Read:
    """The content of a package: its rows by resource, each with its line; and lines that could not be."""

    rows: dict[str, list[tuple[int, dict[str, Any]]]] = field(default_factory=dict)
    refused: list[tuple[str, int, str]] = field(default_factory=list)


def schema_of(resource: Resource, present: set[str]) -> dict[str, Any]:
    """The Table Schema of a resource, with its keys to those that are `present`."""
    fields: list[dict[str, Any]] = [
        {
            "name": c.name,
            "type": c.kind,
            **({"constraints": {"required": True}} if c.required and c.kind != "string" else {}),
        }
        for c in resource.columns
    ]
    found: dict[str, Any] = {"fields": fields, "missingValues": [""]}
    if any(c.name == "id" for c in resource.columns):
        found["primaryKey"] = ["id"]
    keys = [
        {"fields": [c.name], "reference": {"resource": c.refers_to, "fields": ["id"]}}
        for c in resource.columns
        if c.refers_to in present
    ]
    return found | ({"foreignKeys": keys} if keys else {})


def write(name: str, title: str, created: dt.datetime, resources: Sequence[Resource]) -> bytes:
    """The package as a zip; the same rows make the same bytes."""
    present = {r.name for r in resources}
    described = {
        "$schema": PROFILE,
        "name": name,
        "title": title,
        "created": created.astimezone(dt.UTC).isoformat(timespec="seconds"),
        "resources": [
            {
                "name": r.name,
                "type": "table",
                "path": f"{r.name}.csv",
                "format": "csv",
                "mediatype": "text/csv",
                "encoding": "utf-8",
                "schema": schema_of(r, present),
            }
            for r in resources
        ],
    }
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        _put(packed, DESCRIPTION, json.dumps(described, indent=1, ensure_ascii=False))
        for resource in resources:
            _put(packed, f"{resource.name}.csv", csv_of(resource))
    return out.getvalue()


def _put(packed: zipfile.ZipFile, path: str, text: str) -> None:
    member = zipfile.ZipInfo(path, EARLIEST)
    member.compress_type = zipfile.ZIP_DEFLATED
    packed.writestr(member, text.encode())


def csv_of(resource: Resource) -> str:
    """A resource as CSV, with a heading."""
    text = io.StringIO()
    out = csv.writer(text, lineterminator="\r\n")
    out.writerow([c.name for c in resource.columns])
    for row in resource.rows:
        out.writerow([_cell(row.get(c.name), c.kind) for c in resource.columns])
    return text.getvalue()


def _cell(value: Any, kind: Kind) -> str:
    if value is None:
        return ""
    if kind == "string":
        return guarded(str(value))
    if kind == "boolean":
        return "true" if value else "false"
    if kind == "datetime":
        at: dt.datetime = value
        return at.astimezone(dt.UTC).isoformat(timespec="microseconds").replace("+00:00", "Z")
    if kind in ("object", "array"):
        return json.dumps(value, ensure_ascii=False, allow_nan=False, separators=(",", ":"))
    return repr(float(value)) if kind == "number" else str(int(value))


def guarded(text: str) -> str:
    """A text that no table program runs as a formula; `plain` takes it back.

    >>> [guarded(t) for t in ("flour", "=1+1", "'=1+1")]
    ['flour', "'=1+1", "''=1+1"]
    """
    return f"'{text}" if FORMULA.match(text) else text


def plain(cell: str) -> str:
    """The text that `guarded` was given.

    >>> [plain(guarded(t)) for t in ("flour", "=1+1", "'=1+1", "'quoted'")]
    ['flour', '=1+1', "'=1+1", "'quoted'"]
    """
    return cell[1:] if cell[:1] == "'" and FORMULA.match(cell[1:]) else cell


def _number(text: str) -> float:
    found = float(text)
    if not math.isfinite(found):
        raise ValueError("not finite")
    return found


def _json(text: str, shape: type) -> Any:
    found = json.loads(text)
    if not isinstance(found, shape):
        raise ValueError("of another shape")
    return found


def _boolean(text: str) -> bool:
    return {"true": True, "false": False, "1": True, "0": False}[text.lower()]


def _instant(text: str) -> dt.datetime:
    found = dt.datetime.fromisoformat(text)
    if found.tzinfo is None:
        raise ValueError("without a zone")
    return found


READERS: dict[Kind, tuple[Callable[[str], Any], str]] = {
    "integer": (int, "a whole number"),
    "number": (_number, "a number, with a point"),
    "string": (plain, "text"),
    "boolean": (_boolean, "true or false"),
    "datetime": (_instant, "an instant with its zone, as 2026-11-24T22:30:00Z"),
    "object": (lambda text: _json(text, dict), "JSON in braces"),
    "array": (lambda text: _json(text, list), "JSON in brackets"),
}


def read(data: bytes, known: Sequence[Resource]) -> Read:
    """Rows of the known resources of a package; a line that cannot be read is told with its number and left out.

    Raises InvalidInput for what is no package, is too large, or names files that it must not.
    """
    csv.field_size_limit(MOST_CELL)
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as packed:
            texts = _members(packed)
    except (zipfile.BadZipFile, zipfile.LargeZipFile, NotImplementedError, RuntimeError, EOFError, OSError) as fault:
        raise invalid("/package", f"This is no zip that can be opened: {fault}.") from None
    described = _described(texts.get(DESCRIPTION))
    found = Read()
    for resource in known:
        path = described.get(resource.name)
        if path is None:
            continue
        if path not in texts:
            raise invalid("/package", f"{DESCRIPTION} names {path}, which is not in the package.")
        found.rows[resource.name] = _rows(resource, texts[path], found.refused)
    if not found.rows:
        raise invalid("/package", f"{DESCRIPTION} names none of: {', '.join(r.name for r in known)}.")
    return found


def _members(packed: zipfile.ZipFile) -> dict[str, str]:
    """Members as text. Raises InvalidInput for paths, sizes and encodings that a package has not."""
    members = packed.infolist()
    if len(members) > MOST_MEMBERS:
        raise invalid("/package", f"It holds {len(members)} files; a kitchen has at most {MOST_MEMBERS}.")
    left = MOST_BYTES
    if sum(m.file_size for m in members) > left:  # as it says itself: none of it is unpacked
        raise invalid("/package", TOO_LARGE)
    found = {}
    for member in members:
        if member.filename != DESCRIPTION and not PATH.fullmatch(member.filename):
            raise invalid("/package", f"It holds “{member.filename[:60]}”. A package has {DESCRIPTION} and CSV files.")
        with packed.open(member) as file:
            body = file.read(left + 1)
        left -= len(body)
        if left < 0:
            raise invalid("/package", TOO_LARGE)
        try:
            found[member.filename] = body.decode("utf-8-sig")
        except UnicodeDecodeError as fault:
            where = f"byte {fault.start}"
            raise invalid("/package", f"{member.filename} is not UTF-8 ({where}). Save it as UTF-8.") from None
    return found


def _described(text: str | None) -> dict[str, str]:
    """Paths of the resources by their names. Raises InvalidInput."""
    if text is None:
        raise invalid("/package", f"It holds no {DESCRIPTION}.")
    try:
        rows = json.loads(text)["resources"]
        found = {str(row["name"]): row["path"] for row in rows}
    except (ValueError, KeyError, TypeError, RecursionError):
        raise invalid(
            "/package", f"{DESCRIPTION} cannot be read: it lists `resources`, each with name and path."
        ) from None
    for path in found.values():
        if not (isinstance(path, str) and PATH.fullmatch(path)):
            raise invalid("/package", f"{DESCRIPTION} names the path “{str(path)[:60]}”; files lie beside it.")
    return found


def _rows(resource: Resource, text: str, refused: list[tuple[str, int, str]]) -> list[tuple[int, dict[str, Any]]]:
    lines = csv.reader(io.StringIO(text, newline=""))
    columns = {c.name: c for c in resource.columns}
    found: list[tuple[int, dict[str, Any]]] = []
    try:
        heading = next(lines, [])
        missing = [c.name for c in resource.columns if c.required and c.default is None and c.name not in heading]
        if missing:
            raise invalid("/package", f"{resource.name}.csv has no column {', '.join(missing)}.")
        for cells in lines:
            line = lines.line_num
            if len(found) >= MOST_ROWS:
                raise invalid("/package", f"{resource.name}.csv has more than {MOST_ROWS} lines.")
            if not cells:
                continue
            if len(cells) != len(heading):
                refused.append((resource.name, line, f"It has {len(cells)} cells; the heading has {len(heading)}."))
                continue
            row, wrong = _row(dict(zip(heading, cells, strict=True)), columns)
            if wrong:
                refused.append((resource.name, line, wrong))
            else:
                found.append((line, row))
    except csv.Error as fault:
        refused.append((resource.name, lines.line_num, f"The rest cannot be read as CSV: {fault}."))
    return found


def _row(cells: dict[str, str], columns: dict[str, Column]) -> tuple[dict[str, Any], str]:
    row: dict[str, Any] = {}
    for name, column in columns.items():
        text = cells.get(name, "")
        if name not in cells:
            row[name] = column.default
            continue
        if text == "":
            if column.required and column.kind != "string":
                return row, f"{name} is missing."
            row[name] = "" if column.required else None
            continue
        reader, right = READERS[column.kind]
        try:
            row[name] = reader(text)
        except (ValueError, KeyError, OverflowError, RecursionError):
            return row, f"{name} is “{text[:40]}”; it should be {right}."
    return row, ""
