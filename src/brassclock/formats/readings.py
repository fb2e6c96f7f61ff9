"""Readings of a kitchen's air as CSV: instants in ISO 8601, degrees C or F, a point or a comma in numbers. Pure."""

from __future__ import annotations

import csv
import datetime as dt
import io
import math
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, field

from brassclock.core.errors import invalid
from brassclock.core.terms import TempUnit

AT = ("at", "time", "timestamp", "datetime", "date_time")
PLACE = ("place", "where", "sensor")
VALUE: dict[str, TempUnit] = {
    "value_c": "C", "temp_c": "C", "temperature_c": "C", "c": "C", "value_f": "F", "temp_f": "F", "temperature_f": "F",
    "f": "F",
}  # fmt: skip
BELIEVABLE_C = (-30.0, 60.0)
HEADING = ("at", "place", "source")


@dataclass(frozen=True)
class AirPoint:
    """One reading: its instant, its place, its degrees C, and what read it."""

    at: dt.datetime
    place: str
    value_c: float
    source: str = "probe"


@dataclass
class Log:
    """The content of a table: points with their lines, and lines that could not be read with the reason."""

    points: list[tuple[int, AirPoint]] = field(default_factory=list)
    refused: list[tuple[int, str]] = field(default_factory=list)


def write(points: Iterable[AirPoint], unit: TempUnit = "C", comma: bool = False) -> Iterator[str]:
    """The table, a line at a time. With a decimal comma its columns part at semicolons.

    >>> at = dt.datetime(2026, 1, 2, 3, tzinfo=dt.UTC)
    >>> "".join(write([AirPoint(at, "bench", 21.5)], "F", comma=True)).splitlines()
    ['at;place;source;value_f', '2026-01-02T03:00:00+00:00;bench;probe;70,7']
    """
    gap = ";" if comma else ","
    yield gap.join((*HEADING, f"value_{unit.lower()}")) + "\r\n"
    for p in points:
        value = f"{p.value_c * 1.8 + 32 if unit == 'F' else p.value_c:.2f}".rstrip("0").rstrip(".")
        told = value.replace(".", ",") if comma else value
        yield gap.join((p.at.isoformat(timespec="seconds"), p.place, p.source, told)) + "\r\n"


def read(text: str, zone: dt.tzinfo, places: Sequence[str]) -> Log:
    """Points of a table; an instant without an offset is in `zone`, no place is the bench.

    Raises InvalidInput for a table without the columns.
    """
    lines = text.lstrip("\ufeff").splitlines()
    gap = ";" if lines and lines[0].count(";") >= lines[0].count(",") and ";" in lines[0] else ","
    rows = csv.reader(io.StringIO("\n".join(lines)), delimiter=gap)
    try:
        heading = [h.strip().lower().replace(" ", "_") for h in next(rows, [])]
        at, place = (next((heading.index(n) for n in names if n in heading), None) for names in (AT, PLACE))
        value = next((heading.index(n) for n in VALUE if n in heading), None)
        if at is None or value is None:
            right = "at, place, value_c (or value_f)"
            raise invalid(
                "/text", f"The first line is to name the columns: {right}. It says “{','.join(heading)[:80]}”."
            )
        unit, found = VALUE[heading[value]], Log()
        for cells in rows:
            if not cells:
                continue
            try:
                found.points.append((rows.line_num, _point(cells, at, place, value, unit, zone, places)))
            except (ValueError, IndexError) as fault:
                found.refused.append((rows.line_num, str(fault)))
    except csv.Error as fault:
        raise invalid("/text", f"This cannot be read as a table (CSV): {fault}.") from None
    return found


def _point(
    cells: list[str], at: int, place: int | None, value: int, unit: TempUnit, zone: dt.tzinfo, places: Sequence[str]
) -> AirPoint:
    if len(cells) <= max(at, value, place or 0):
        raise ValueError(f"It has {len(cells)} cells.")
    try:
        moment = dt.datetime.fromisoformat(cells[at].strip())
    except ValueError:
        raise ValueError(f"“{cells[at][:40]}” is no instant; write it as 2026-11-24T22:30+01:00.") from None
    try:
        number = float(cells[value].strip().replace(",", "."))
    except ValueError:
        raise ValueError(f"“{cells[value][:40]}” is no number.") from None
    degrees = (number - 32) / 1.8 if unit == "F" else number
    low, high = BELIEVABLE_C
    if not (math.isfinite(degrees) and low <= degrees <= high):
        raise ValueError(f"{number:g} {unit} cannot be air; it lies between {low:g} and {high:g} C.")
    where = (cells[place].strip() if place is not None else "") or "bench"
    if where not in places:
        raise ValueError(f"“{where[:40]}” is no place here. There are {', '.join(places)}.")
    return AirPoint(moment if moment.tzinfo else moment.replace(tzinfo=zone), where, degrees)
