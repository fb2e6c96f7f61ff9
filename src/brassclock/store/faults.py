"""Faults of the data on disk, in a cook's words."""

from __future__ import annotations

import errno
import sqlite3

SQLITE_WORDS = {  # by SQLite's primary result code (https://sqlite.org/rescode.html)
    sqlite3.SQLITE_FULL: "The disk is full. Make room on it; what was stored before is safe.",
    sqlite3.SQLITE_READONLY: "The data cannot be written: its folder or disk is read-only, or it was moved away. "
    "Make it writable and start again.",
    sqlite3.SQLITE_IOERR: "The disk does not take or give the data (an input or output error). Check the disk, then "
    "start again.",
    sqlite3.SQLITE_CORRUPT: "The data is damaged. Stop, and bring back a backup: brass-clock restore.",
    sqlite3.SQLITE_NOTADB: "The data file is not a database. Stop, and bring back a backup: brass-clock restore.",
    sqlite3.SQLITE_CANTOPEN: "The data cannot be opened: its folder was moved or removed, or may not be read.",
    sqlite3.SQLITE_BUSY: "Another program holds the data. Close it, or wait a moment.",
    sqlite3.SQLITE_LOCKED: "Another program holds the data. Close it, or wait a moment.",
}
OS_WORDS = {
    errno.ENOENT: "The data's folder was removed or moved. Nothing was stored. Put it back and start again.",
    errno.ENOSPC: SQLITE_WORDS[sqlite3.SQLITE_FULL],
    errno.EROFS: SQLITE_WORDS[sqlite3.SQLITE_READONLY],
    errno.EACCES: "The data's folder may not be read or written by you. Change its owner or choose another with "
    "--data.",
    errno.EPERM: "The data's folder may not be read or written by you. Change its owner or choose another with --data.",
    errno.ENOTDIR: "A file stands where the data's folder should be. Choose another with --data.",
    errno.EEXIST: "A file stands where the data's folder should be. Choose another with --data.",
}


class CannotOpen(RuntimeError):
    """The data cannot be opened; the message says what is wrong and what to do, in one line."""


def storage_fault(error: BaseException | None) -> str | None:
    """The words of a fault of the disk or the database, wherever it was wrapped; None when it is none."""
    for _ in range(5):
        if error is None:
            return None
        if isinstance(error, sqlite3.Error):
            code = getattr(error, "sqlite_errorcode", None)
            return SQLITE_WORDS.get(code & 0xFF) if code is not None else None
        if isinstance(error, OSError) and error.errno in OS_WORDS:
            return OS_WORDS[error.errno]
        error = getattr(error, "orig", None) or error.__cause__
    return None
