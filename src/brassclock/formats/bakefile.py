"""The bake file: everything that makes a bake, as JSON with a published JSON Schema. A round trip loses nothing.

Version 1. Unknown fields are kept out but reported; a file of a later version is read as far as it is known.
"""

from __future__ import annotations

import datetime as dt
import json
from typing import Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from brassclock.core.terms import (
    Colour,
    DressingTime,
    FaceColour,
    Fault,
    FrozenWrap,
    HeatAct,
    HeatUntil,
    Intent,
    KneadMethod,
    PieceShape,
    Pocket,
    StageEnd,
    Strength,
    Tender,
)

FORMAT: Literal["brass-clock/bake"] = "brass-clock/bake"
VERSION = 1


class FileLine(BaseModel):
    """A line as typed; an unread line has its words in `raw` and no ingredient."""

    ingredient: str | None = Field(default=None, max_length=60)
    amount: str = Field(default="", max_length=80)
    basis: str | float | None = None
    part: str = Field(default="", max_length=20)
    raw: str = Field(default="", max_length=300)


class FileShape(BaseModel):
    kind: PieceShape = "round"
    diameter_cm: float | None = Field(default=None, ge=3, le=120)
    length_cm: float | None = Field(default=None, ge=3, le=120)
    width_cm: float | None = Field(default=None, ge=3, le=120)
    thickness_mm: float | None = Field(default=None, ge=0.5, le=60)


class FileFilling(BaseModel):
    lines: list[FileLine] = Field(max_length=30)
    per_piece_g: float | None = Field(default=None, ge=1, le=1000)
    topping: bool = False


class FileStep(BaseModel):
    """One step of a cook's own way through the heat."""

    model_config = ConfigDict(extra="forbid")

    do: HeatAct
    seconds: float | None = Field(default=None, ge=1, le=3600)
    until: HeatUntil | None = None
    oven_c: float | None = Field(default=None, ge=80, le=350)


class FileDressing(BaseModel):
    """A dressing: what goes on a bread outside its dough."""

    kind: str = Field(min_length=1, max_length=40)
    mass_g: float = Field(ge=0.1, le=500)
    when: DressingTime = "after_heat"


class FilePart(FileShape):
    """A further bread of the same dough; the surface it is baked on is the kitchen's own and stays there."""

    name: str = Field(min_length=1, max_length=80)
    count: int = Field(ge=1, le=500)
    piece_g: float = Field(ge=5, le=5000)
    doneness: Colour | None = None
    colour_top: Colour | None = None
    docked: bool = False
    filled: bool = False
    heat_steps: list[FileStep] | None = Field(default=None, max_length=12)
    dressing: FileDressing | None = None


class FileOutcome(BaseModel):
    """The outcome of a round."""

    round_no: int = Field(ge=1, le=500)
    pocket: Pocket | None = None
    colour: FaceColour | None = None
    colour_top: FaceColour | None = None
    tender: Tender | None = None
    faults: list[Fault] = Field(default=[], max_length=8)
    note: str = Field(default="", max_length=500)


class FileFrozen(BaseModel):
    """Breads of a bake in the freezer; `taken` is what was taken out, in order: count and instant."""

    name: str = Field(min_length=1, max_length=80)
    kind: Intent
    mass_g: float = Field(ge=5, le=2000)
    count: int = Field(ge=1, le=500)
    frozen_at: dt.datetime
    wrap: FrozenWrap = "bag"
    fat_frac: float = Field(default=0.03, ge=0, le=1)
    filled: bool = False
    divided: bool = True
    taken: list[dict[str, Any]] = Field(default=[], max_length=500)


class FileLesson(BaseModel):
    """A lesson of a leaven or a way of kneading; what is about a bag or a starter stays in its kitchen."""

    key: str = Field(pattern=r"^(activity|friction):[a-z0-9_]{1,60}$")
    seen: float = Field(gt=0, le=100)
    spread: float = Field(gt=0, le=5)
    at: dt.datetime


class FilePhoto(BaseModel):
    """A picture, as a JPEG in base64."""

    round_no: int | None = Field(default=None, ge=1, le=500)
    data: str = Field(min_length=1, max_length=2_000_000)


class FileKept(BaseModel):
    """The outcome of a bake: its table and when it was kept, outcomes, what is known of the making, stock, lessons,
    pictures."""

    serve_at: dt.datetime
    kept_at: dt.datetime | None = None
    outcomes: list[FileOutcome] = Field(default=[], max_length=500)
    noted: dict[str, float | bool | str] = Field(default={}, max_length=40)
    frozen: list[FileFrozen] = Field(default=[], max_length=100)
    lessons: list[FileLesson] = Field(default=[], max_length=10)
    photos: list[FilePhoto] = Field(default=[], max_length=40)


class OwnRow(BaseModel):
    """An ingredient of the kitchen's own that the lines name."""

    id: str
    name: str
    kind: Literal["made", "starter"] = "made"
    facts: dict[str, Any]


class BakeFile(BaseModel):
    """One bake, as a file."""

    model_config = ConfigDict(extra="ignore", title="Brass Clock bake file")

    format: Literal["brass-clock/bake"] = FORMAT
    version: int = Field(default=VERSION, ge=1)
    name: str = Field(min_length=1, max_length=80)
    method: str = "blank"
    seal: str = "square"
    lines: list[FileLine] = Field(max_length=200)
    filling: FileFilling | None = None
    count: int | None = Field(default=None, ge=1, le=500)
    piece_g: float | None = Field(default=None, ge=5, le=5000)
    shape: FileShape = FileShape()
    strength: Strength = "kneaded"
    bloomed: bool = False
    dough_c: float = Field(default=25.0, ge=5, le=40)
    knead: KneadMethod = "hand"
    knead_min: float = Field(default=8.0, ge=0, le=60)
    bulk_ratio: float = Field(default=2.0, ge=1.05, le=4)
    ball_ratio: float = Field(default=1.4, ge=1.05, le=4)
    bulk_end: StageEnd = "rise"
    ball_end: StageEnd = "rise"
    bulk_most_h: float | None = Field(default=None, ge=0, le=240)
    ball_most_h: float | None = Field(default=None, ge=0, le=240)
    bulk_h: float | None = Field(default=None, ge=0, le=240)
    ball_h: float | None = Field(default=None, ge=0, le=240)
    doneness: Colour = "golden"
    colour_top: Colour | None = None
    heat_steps: list[FileStep] | None = Field(default=None, max_length=12)
    dressing: FileDressing | None = None
    docked: bool = False
    parts: list[FilePart] = Field(default=[], max_length=6)
    note: str = Field(default="", max_length=20_000)
    own_ingredients: list[OwnRow] = Field(default=[], max_length=60)
    kept: FileKept | None = None


def bake_file_schema() -> dict[str, Any]:
    """The published JSON Schema."""
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **BakeFile.model_json_schema()}


def write(bake: BakeFile) -> str:
    return json.dumps(bake.model_dump(mode="json"), ensure_ascii=False, indent=2) + "\n"


def read(data: dict[str, Any]) -> tuple[BakeFile, list[str]]:
    """(bake, what could not be used). A field that cannot be is left at its default and named; raises ValueError
    without a name or lines."""
    notes = [f"“{key}” is not known here and was left out." for key in data if key not in BakeFile.model_fields]
    given = {k: v for k, v in data.items() if k in BakeFile.model_fields}
    if isinstance(given.get("version"), int) and given["version"] > VERSION:
        notes.append(f"The file is of version {given['version']}; it was read as version {VERSION}.")
    for _ in range(len(BakeFile.model_fields)):
        try:
            return BakeFile.model_validate(given), notes
        except ValidationError as error:
            bad = {str(e["loc"][0]): e for e in error.errors(include_url=False)}
            for key, e in bad.items():
                if key in ("name", "lines", "format"):
                    raise ValueError(f"/{key}: {e['msg']}. A bake file needs a format, a name and lines.") from None
                notes.append(f"“{key}” could not be used ({e['msg']}); the usual value stands.")
                given.pop(key, None)
    return BakeFile.model_validate(given), notes
