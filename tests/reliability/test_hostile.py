"""Files that mean harm, each at the door it would come in by: refused in words, or read as words; the kitchen and the
memory are as before."""

from __future__ import annotations

import base64
import hashlib
import io
import json
import resource
import struct
import zipfile
import zlib
from collections.abc import Iterator
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.services.app import App

MOST_GROWN_MB = 300


def zipped(members: dict[str, bytes]) -> str:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as w:
        for name, body in members.items():
            w.writestr(name, body)
    return base64.b64encode(out.getvalue()).decode()


def package(path: str = "bakes.csv", **members: bytes) -> dict[str, str]:
    described = json.dumps({"resources": [{"name": "bakes", "path": path}]}).encode()
    named = {k.replace("_dot_", ".").replace("__", "/"): v for k, v in members.items()}
    return {"data": zipped({"datapackage.json": described, **named})}


def huge_picture(side: int) -> str:
    """A PNG whose rows of one colour fill in a few kilobytes what would be gigabytes."""

    def chunk(name: bytes, body: bytes) -> bytes:
        return struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))

    head = struct.pack(">IIBBBBB", side, side, 8, 2, 0, 0, 0)
    rows = zlib.compress(b"\0" * (3 * side + 1) * 40, 9)
    png = b"\x89PNG\r\n\x1a\n" + chunk(b"IHDR", head) + chunk(b"IDAT", rows) + chunk(b"IEND", b"")
    return base64.b64encode(png).decode()


def calendar(rule: str) -> str:
    lines = ("BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:x", "BEGIN:VEVENT", "UID:1", "DTSTART:20260101T060000Z",
             "DURATION:PT1M", rule, "END:VEVENT", "END:VCALENDAR")  # fmt: skip
    return "\r\n".join(lines)


SCRIPT = base64.b64encode(b"<svg xmlns='http://www.w3.org/2000/svg'><script>alert(1)</script></svg>").decode()
NEWER = json.dumps({"format": "brass-clock-bake", "version": 99, "name": 7, "lines": "none", "soul": "yes"})
DEEP = '{"name":' * 100_000
K = "/api/kitchens/1"
HOSTILE: dict[str, tuple[str, Any, set[int]]] = {
    "a zip that swells": (f"{K}/packages", lambda: package(bakes_dot_csv=b"0" * 420_000_000), {422}),
    "a zip in a zip": (f"{K}/packages", lambda: package(inner_dot_zip=b"PK\x03\x04" + b"0" * 500), {422}),
    "a path out of it": (f"{K}/packages", lambda: package("../../etc/passwd"), {422}),
    "a table of 100 MB": (f"{K}/readings", lambda: {"text": "at,value_c\n" + "2026-01-01,20\n" * 7_500_000}, {413}),
    "deep JSON": (f"{K}/import", lambda: {"text": DEEP}, {422}),
    "letters of another encoding": (
        f"{K}/packages",
        lambda: package(bakes_dot_csv="id,name\r\n1,crème\r\n".encode("utf-16")),
        {422},
    ),
    "cut off": (f"{K}/packages", lambda: {"data": package(bakes_dot_csv=b"id\r\n" * 900)["data"][:-64]}, {422}),
    "cells that are formulas": (f"{K}/readings", lambda: {"text": "at,place,value_c\n=1+1,@bench,+20\n"}, {201, 422}),
    "a calendar without an end": (f"{K}/calendars", lambda: {"text": calendar("RRULE:FREQ=SECONDLY")}, {422}),
    "a picture of 30,000 pixels": ("/api/bakes/1/photos", lambda: {"data": huge_picture(30_000)}, {422}),
    "a picture that is a script": ("/api/bakes/1/photos", lambda: {"data": SCRIPT}, {422}),
    "a bake file of a newer version": (f"{K}/import", lambda: {"text": NEWER}, {422}),
}


def stored(app: App) -> Iterator[str]:
    """Everything that is stored, but for answers that are kept a day."""
    with app.connect() as connection:
        for line in connection.connection.iterdump():
            if "answered" not in line:
                yield hashlib.sha256(line.encode()).hexdigest()


@pytest.mark.parametrize("name", HOSTILE)
def test_a_hostile_file_harms_nothing(client: FlaskClient, app: App, bake: dict[str, Any], name: str) -> None:
    path, made, statuses = HOSTILE[name]
    body = made()
    before, had_mb = list(stored(app)), resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024
    answer = client.post(path, json=body)
    assert answer.status_code in statuses, answer.text[:300]
    if answer.status_code == 201:
        assert answer.json["refused_count"] == 1 and not answer.json["added"]
    else:
        assert answer.json["detail"] and len(answer.json["detail"]) < 1000
        assert list(stored(app)) == before
    sent_mb = len(json.dumps(body)) / 1e6
    assert resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024 - had_mb < MOST_GROWN_MB + 4 * sent_mb


def test_there_are_twelve(client: FlaskClient) -> None:
    """Also by the doors of instruments and backups, which take bodies that are not JSON."""
    assert len(HOSTILE) == 12
    made = client.post("/api/kitchens", json={"zone": "UTC", "surface": {"name": "P", "kind": "iron_plate"}}).json["id"]
    token = client.post("/api/devices/instrument", json={"kitchen_id": made, "name": "x"}).json["token"]
    bearer = {"Authorization": f"Bearer {token}"}
    for media, data, status in (
        ("text/csv", b"at,channel,value_c\n" + b"2026-11-24T11:00Z,room,20\n" * 60_000, 413),
        ("text/plain", b"room temp_c=20 " * 60_000, 422),
        ("application/json", b"[" * 100_000, 400),
        ("text/csv", b"at,channel,value_c\n2026-11-24T11:00Z,=cmd|' /C calc'!A0,20\n", 422),
    ):
        answer = client.post("/api/instruments/readings", data=data, content_type=media, headers=bearer)
        assert answer.status_code == status, answer.text[:200]
    for data in (b"", b"SQLite format 3\0" + b"\xff" * 4096, b"PK\x03\x04" * 1000):
        answer = client.put("/api/backups", data=data, content_type="application/vnd.sqlite3")
        assert answer.status_code == 422, answer.text[:200]
    for name in ("../brassclock.sqlite3", "..%2f..%2fetc%2fpasswd", "daily-2026-01-01.sqlite3"):
        assert client.get(f"/api/backups/{name}/file").status_code in (404, 405)
    assert client.get("/api/backups").json["backups"] == []
