"""Readings as instruments send them: JSON, CSV, or lines of `name,tag=value field=number instant` (ns). Pure."""

from __future__ import annotations

import csv
import datetime as dt
import io
import json
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, Literal

from brassclock.core.errors import FieldFault, InvalidInput, invalid

Quantity = Literal["temp", "mass"]
MOST = 20_000
NAME = re.compile(r"[\w.:/ -]{1,60}")
UNITS: dict[str, tuple[Quantity, float, float]] = {  # to C or g: (quantity, factor, then added)
    "c": ("temp", 1.0, 0.0),
    "f": ("temp", 1 / 1.8, -32 / 1.8),
    "k": ("temp", 1.0, -273.15),
    "g": ("mass", 1.0, 0.0),
    "kg": ("mass", 1000.0, 0.0),
    "oz": ("mass", 28.349523125, 0.0),
    "lb": ("mass", 453.59237, 0.0),
}  # exact by definition
UNIT_NAMES = {"°c": "c", "degc": "c", "celsius": "c", "°f": "f", "degf": "f", "fahrenheit": "f", "kelvin": "k"}
CHANNEL = ("channel", "sensor", "name", "place")
AT = ("at", "time", "timestamp", "datetime")
VALUE = ("value", "temp", "temperature", "weight", "mass")
LINE = re.compile(r"((?:\\.|[^\s,\\])+)((?:,(?:\\.|[^\s\\])+)?) +((?:\\.|[^\s\\])+)(?: +(-?\d+))?")


@dataclass(frozen=True)
class Measured:
    """One value [C or g] of a channel at an instant; no instant is now. `row` is where it stood, from 0."""

    channel: str
    value: float
    quantity: Quantity
    at: dt.datetime | None
    row: int


def read(text: str, media: str, zone: dt.tzinfo) -> list[Measured]:
    """The readings of a body by its media type; an instant without an offset is in `zone`.

    Raises InvalidInput with every fault: nothing of a body with one is to be kept.
    """
    rows = {"application/json": _json, "text/csv": _csv}.get(media, _lines)(text)
    found: list[Measured] = []
    faults: list[FieldFault] = []
    for n, raw in enumerate(rows):
        if n >= MOST:
            raise invalid("/readings", f"More than {MOST} readings at once. Send them in parts.")
        try:
            found.append(_measured(n, raw, zone))
        except ValueError as fault:
            faults.append(FieldFault(f"/readings/{n}", str(fault)))
    if faults:
        raise InvalidInput(faults[:50])
    if not found:
        raise invalid("/readings", "There is no reading in it. Send at least one: a channel and a value.")
    return found


Raw = tuple[Any, Any, Any, Any]  # channel, value, unit, instant


def _json(text: str) -> Iterator[Raw]:
    try:
        body = json.loads(text)
    except (ValueError, RecursionError) as fault:
        raise invalid("/", f"The body cannot be read as JSON: {str(fault)[:120]}.") from None
    rows = body.get("readings", [body]) if isinstance(body, dict) else body
    if not isinstance(rows, list):
        raise invalid("/readings", "Send a list of readings, or one: {“channel”: “room”, “value”: 21.4, “unit”: “C”}.")
    for n, row in enumerate(rows):
        if not isinstance(row, dict) or set(row) - {"channel", "value", "unit", "at"}:
            raise invalid(f"/readings/{n}", "A reading has channel, value, if wanted unit and at, nothing else.")
        yield row.get("channel"), row.get("value"), row.get("unit", "C"), row.get("at")


def _csv(text: str) -> Iterator[Raw]:
    lines = text.lstrip("\ufeff").splitlines()
    gap = ";" if lines and ";" in lines[0] else ","
    rows = csv.reader(io.StringIO("\n".join(lines)), delimiter=gap)
    try:
        heading = [h.strip().lower() for h in next(rows, [])]
        channel, at, unit = (
            next((heading.index(n) for n in names if n in heading), None) for names in (CHANNEL, AT, ("unit",))
        )
        value, told = next(
            ((i, h[len(n) :].strip(" _()[]") or "c") for n in VALUE for i, h in enumerate(heading) if h.startswith(n)),
            (None, "c"),
        )
        if value is None:
            raise invalid("/readings", "The first line is to name the columns: at, channel, value_c (or _f, _g).")
        for cells in rows:
            if not cells:
                continue
            yield (
                _cell(cells, channel) or "log",
                _cell(cells, value).replace(",", "."),
                _cell(cells, unit) or told,
                _cell(cells, at) or None,
            )
    except csv.Error as fault:
        raise invalid("/readings", f"This cannot be read as a table (CSV): {fault}.") from None


def _cell(cells: list[str], n: int | None) -> str:
    return cells[n].strip() if n is not None and n < len(cells) else ""


def _lines(text: str) -> Iterator[Raw]:
    for line in text.splitlines():
        if not line.strip() or line.startswith("#"):
            continue
        parts = LINE.fullmatch(line.strip())
        if parts is None:
            yield None, line, "", None
            continue
        name, tags, fields, at = parts.groups()
        for field in re.split(r"(?<!\\),", fields):
            key, _, value = field.partition("=")
            base, _, unit = key.rpartition("_")
            named = [t.partition("=")[2] for t in re.split(r"(?<!\\),", tags.lstrip(",")) if t]
            own = [] if base in ("", *VALUE) else [base]
            channel = "/".join(x.replace("\\", "") for x in [name, *named, *own])
            yield channel, value.rstrip("iu"), unit, int(at) if at else None


def _measured(n: int, raw: Raw, zone: dt.tzinfo) -> Measured:
    channel, value, unit, at = raw
    if channel is None and not isinstance(value, int | float):
        raise ValueError(f"“{str(value)[:40]}” cannot be read; a line is: room temp_c=21.4 1764500000000000000.")
    if not isinstance(channel, str) or not NAME.fullmatch(channel):
        raise ValueError(f"“{str(channel)[:40]}” is no channel's name: give 1 to 60 letters, as room or dough-1.")
    key = str(unit).strip().lower()
    key = UNIT_NAMES.get(key, key)
    if key not in UNITS:
        raise ValueError(f"“{str(unit)[:20]}” is no unit known here. Give C, F, K, g, kg, oz or lb.")
    quantity, factor, offset = UNITS[key]
    if isinstance(value, bool) or not isinstance(value, int | float | str):
        raise ValueError(f"“{str(value)[:40]}” is no number.")
    try:
        number = float(value)
    except (ValueError, OverflowError):
        raise ValueError(f"“{str(value)[:40]}” is no number.") from None
    if not math.isfinite(number) or abs(number) > 1e7:
        raise ValueError(f"“{str(value)[:40]}” is no number that can be kept.")
    return Measured(channel, number * factor + offset, quantity, _instant(at, zone), n)


def _instant(at: Any, zone: dt.tzinfo) -> dt.datetime | None:
    """An instant: ISO 8601, or a count since 1970 in seconds, milliseconds or nanoseconds by its size."""
    if at is None:
        return None
    text = str(at)
    try:
        if re.fullmatch(r"-?\d+(\.\d+)?", text):
            count = float(text)
            scale = 1e9 if abs(count) > 1e16 else 1e6 if abs(count) > 1e14 else 1e3 if abs(count) > 1e11 else 1
            return dt.datetime.fromtimestamp(count / scale, dt.UTC)
        moment = dt.datetime.fromisoformat(text)
        return moment if moment.tzinfo else moment.replace(tzinfo=zone)
    except (ValueError, OverflowError, OSError):
        raise ValueError(f"“{text[:40]}” is no instant; write it as 2026-11-24T22:30+01:00.") from None
