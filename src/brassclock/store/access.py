"""Who may ask: the passcode, and devices that were let in."""

from __future__ import annotations

import datetime as dt
import sqlite3
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlmodel import Session

from brassclock.store.rows import find, get
from brassclock.store.tables import Device, Passcode

KEPT = {"passcode": ("hash", "made_at"), "device": ("kind", "name", "secret", "made_at", "seen_at", "until")}


def passcode(session: Session) -> Passcode | None:
    """The passcode's row; None where none is set."""
    return next(iter(find(session, Passcode)), None)


def device_of(session: Session, secret: str) -> Device | None:
    """The device of a token's hash that was not forgotten; None where there is none."""
    return next(iter(find(session, Device, secret=secret, forgotten_at=None)), None)


def devices(session: Session) -> list[Device]:
    """Devices that were not forgotten, the one that was let in last first."""
    return sorted(find(session, Device, forgotten_at=None), key=lambda d: (d.made_at, d.id or 0), reverse=True)


def seen(session: Session, device_id: int, at: dt.datetime) -> None:
    """Note when a device asked last."""
    row = get(session, Device, device_id)
    if row is not None:
        row.seen_at = at


def taken(path: Path) -> dict[str, list[tuple[Any, ...]]] | None:
    """Who may ask by a database's file: its passcode and the secrets of its devices; None where it cannot be read or
    knows none."""
    found: dict[str, list[tuple[Any, ...]]] = {}
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True)) as raw:
            for table, columns in KEPT.items():
                stands = " where forgotten_at is null" if table == "device" else ""
                found[table] = raw.execute(f"select {', '.join(columns)} from {table}{stands}").fetchall()
    except sqlite3.Error:
        return None
    return found


def put(path: Path, kept: dict[str, list[tuple[Any, ...]]] | None) -> None:
    """Let in by a restored database who was let in before it, and nobody else: a device that was forgotten since its
    copy stays out.

    Cooks and guests of the copy go; its instruments stay where they are still let in. None: nobody is let in.
    """
    kept = kept or {"passcode": [], "device": []}
    secrets = {row[2] for row in kept["device"]}
    with closing(sqlite3.connect(path)) as raw, raw:
        raw.execute("delete from passcode")
        raw.executemany("insert into passcode (hash, made_at) values (?, ?)", kept["passcode"])
        known = raw.execute("select id, kind, secret from device").fetchall()
        for device_id, kind, secret in known:
            if secret not in secrets or kind == "guest":
                gone = "update device set forgotten_at = made_at, secret = 'gone ' || id where id = ?"
                raw.execute(gone, (device_id,))
        there = {secret for _, _, secret in known}
        cooks = [row for row in kept["device"] if row[0] == "cook" and row[2] not in there]
        columns = ", ".join(KEPT["device"])
        raw.executemany(f"insert into device ({columns}) values (?, ?, ?, ?, ?, ?)", cooks)
