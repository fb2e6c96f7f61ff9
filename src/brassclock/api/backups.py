"""/api/backups: copies of the whole data: kept, made, checked, carried to another machine, put in place."""

from __future__ import annotations

from typing import Annotated

from flask import request, send_file
from pydantic import BaseModel, StringConstraints

from brassclock.api.kitchens import PROBLEMS, app
from brassclock.api.problem import problem
from brassclock.api.problems import Problem
from brassclock.api.routes import Routes
from brassclock.services import backups
from brassclock.services.schemas.backups import BackupChecked, BackupList, BackupRead, Restoring

routes = Routes("backups", __name__, url_prefix="/api", tag="backups")
CHUNK = 1 << 20
MEDIA = "application/vnd.sqlite3"
REFUSED: dict[str | int, type[BaseModel]] = {"415": Problem, "413": Problem}


class BackupPath(BaseModel):
    name: Annotated[str, StringConstraints(max_length=120)]


@routes.get("/backups", responses={"200": BackupList})
def list_backups():
    """Every backup, the newest first."""
    return backups.backups_out(app()).model_dump(mode="json")


@routes.post("/backups", responses={"201": BackupRead, **PROBLEMS})
def make_backup():
    """Copy the data now."""
    return backups.make(app()).model_dump(mode="json"), 201


@routes.put("/backups", responses={"201": BackupRead, **PROBLEMS, **REFUSED})
def bring_backup():
    """Store a backup of another machine (the file as it is). It is put in place by another press."""
    if request.mimetype != MEDIA:
        return problem(415, "Not a backup", f"Send the backup's file as {MEDIA}.")
    return backups.bring(app(), iter(lambda: request.stream.read(CHUNK), b"")).model_dump(mode="json"), 201


@routes.post("/backups/<string:name>/check", responses={"200": BackupChecked, **PROBLEMS})
def check_backup(path: BackupPath):
    """Read every page of a backup: whether it is sound, and what is in it."""
    return backups.checked(app(), path.name).model_dump(mode="json")


@routes.post("/backups/<string:name>/restore", responses={"202": Restoring, **PROBLEMS})
def restore_backup(path: BackupPath):
    """Put a backup in the data's place. What is there is kept; the server answers 503 for a moment."""
    backups.restore(app(), path.name)
    return Restoring(from_name=path.name).model_dump(mode="json"), 202


@routes.get("/backups/<string:name>/file", responses={"200": None, **PROBLEMS})
def backup_file(path: BackupPath):
    """A backup's file, to carry to another machine."""
    found = backups.path_of(app(), path.name)
    return send_file(found, MEDIA, as_attachment=True, download_name=found.name)
