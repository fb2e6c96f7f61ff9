"""/api/kitchens/{id}/logbook, /package: past bakes chosen and shown together; a kitchen as a package, out and in."""

from __future__ import annotations

import base64
import binascii
from typing import Annotated, Literal

from flask import Response
from pydantic import BaseModel, Field, StringConstraints

from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.routes import Routes
from brassclock.core.errors import invalid
from brassclock.core.terms import TempUnit
from brassclock.services.keep import two as keep_two
from brassclock.services.pages import bringing
from brassclock.services.pages import logbook as logbook_page
from brassclock.services.pages import package as package_page
from brassclock.services.pages import readings as readings_page
from brassclock.services.pages import report as report_page
from brassclock.services.schemas.base import Strict
from brassclock.services.schemas.logbook import (
    BroughtRead,
    FiguresRead,
    LogbookQuery,
    LogbookRead,
    PackageRead,
    PastQuery,
    ProgressRead,
    TwoQuery,
    TwoRead,
)

routes = Routes("logbook", __name__, url_prefix="/api", tag="logbook")


class BroughtPath(KitchenPath):
    brought_id: int = Field(ge=1, le=2_147_483_647)


class ReadingsQuery(BaseModel):
    """The notation of a table of readings: degrees, and the mark in numbers."""

    unit: TempUnit = "C"
    decimal: Literal["point", "comma"] = "point"


class ReadingsCreate(Strict):
    """A table of readings (CSV), as text."""

    text: Annotated[str, StringConstraints(min_length=1, max_length=20_000_000)]


class PackageCreate(Strict):
    """A package (a zip, in base64)."""

    data: Annotated[str, StringConstraints(min_length=4, max_length=80_000_000)]


@routes.get("/kitchens/<int:kitchen_id>/logbook", responses={"200": LogbookRead, **PROBLEMS})
def logbook(path: KitchenPath, query: LogbookQuery):
    """Bakes that were kept or abandoned and are chosen, latest first, a page at a time."""
    return logbook_page.logbook_out(app(), path.kitchen_id, query).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/logbook/figures", responses={"200": FiguresRead, **PROBLEMS})
def logbook_figures(path: KitchenPath, query: PastQuery):
    """The figures of the chosen bakes together: full pockets, causes, forecasts beside facts, what they cost."""
    return logbook_page.figures_out(app(), path.kitchen_id, query).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/logbook/two", responses={"200": TwoRead, **PROBLEMS})
def two_bakes(path: KitchenPath, query: TwoQuery):
    """Two bakes side by side, and what each difference cost in the chance of a full pocket."""
    return keep_two.two_out(app(), query.a, query.b).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/report", responses={"200": {"content": {}}, **PROBLEMS})
def report_file(path: KitchenPath, query: PastQuery):
    """The chosen bakes as one page of HTML with their drawings, to print or to send."""
    name, text = report_page.report_out(app(), path.kitchen_id, query)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(text, mimetype="text/html", headers=headers)


@routes.get("/kitchens/<int:kitchen_id>/package", responses={"200": {"content": {}}, **PROBLEMS})
def package_file(path: KitchenPath):
    """The whole kitchen as a Data Package: a zip of CSV files and their description."""
    name, packed = package_page.package_out(app(), path.kitchen_id)
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(packed, mimetype="application/zip", headers=headers)


@routes.get("/kitchens/<int:kitchen_id>/readings", responses={"200": {"content": {}}, **PROBLEMS})
def readings_file(path: KitchenPath, query: ReadingsQuery):
    """Every reading of the kitchen's air, as a table (CSV)."""
    name, lines = readings_page.readings_out(app(), path.kitchen_id, query.unit, query.decimal == "comma")
    headers = {"Content-Disposition": f'attachment; filename="{name}"'}
    return Response(lines, mimetype="text/csv", headers=headers)


@routes.post("/kitchens/<int:kitchen_id>/readings", responses={"201": BroughtRead, **PROBLEMS})
def bring_readings(path: KitchenPath, body: ReadingsCreate):
    """Bring a logger's table of the air in: what is there already stays, and lines that cannot be are told."""
    return readings_page.readings_in(app(), path.kitchen_id, body.text).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>/packages", responses={"200": PackageRead, **PROBLEMS})
def last_package(path: KitchenPath):
    """The package that was brought in last and can be taken back."""
    return bringing.brought_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/packages", responses={"201": BroughtRead, **PROBLEMS})
def bring_package(path: KitchenPath, body: PackageCreate):
    """Bring a package in: what is there already stays, and lines that cannot be are told."""
    try:
        packed = base64.b64decode(body.data, validate=True)
    except (binascii.Error, ValueError):
        raise invalid("/data", "This is no base64. Send the package's zip as base64.") from None
    return bringing.package_in(app(), path.kitchen_id, packed).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>/packages/progress", responses={"200": ProgressRead, **PROBLEMS})
def package_progress(path: KitchenPath):
    """The progress of the package that is coming in."""
    return bringing.progress_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/packages/stop", responses={"200": ProgressRead, **PROBLEMS})
def stop_package(path: KitchenPath):
    """Stop the package that is coming in: nothing of it is stored."""
    return bringing.stop(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/packages/<int:brought_id>/undo", responses={"200": PackageRead, **PROBLEMS})
def take_package_back(path: BroughtPath):
    """Take back what a package added, but what was used since."""
    bringing.take_back(app(), path.kitchen_id, path.brought_id)
    return bringing.brought_out(app(), path.kitchen_id).model_dump(mode="json")
