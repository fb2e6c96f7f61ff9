"""/api/compute, /api/health: what needs no kitchen."""

from __future__ import annotations

from typing import Any

from flask import request
from flask_openapi3 import APIBlueprint, Tag
from pydantic import BaseModel, Field

from brassclock import __version__
from brassclock.api.kitchens import PROBLEMS, house
from brassclock.core.fire.puff import model as puff
from brassclock.core.rise import course as yeast
from brassclock.services import compute
from brassclock.services.compute.cue import CueReq
from brassclock.services.compute.weigh import WeighReq
from brassclock.services.shown import Health, WeighOut
from brassclock.services.shown_fire import CueOut

blueprint = APIBlueprint("compute", __name__, url_prefix="/api", abp_tags=[Tag(name="compute")])


class KindPath(BaseModel):
    kind: str = Field(max_length=40)


class AnyObject(BaseModel):
    """A result as `contract` shapes it; `GET /api/compute/KIND/schema` gives the request's schema."""

    model_config = {"extra": "allow"}


@blueprint.post("/compute/weigh", responses={"200": WeighOut, **PROBLEMS})
def compute_weigh(body: WeighReq):
    """The weigh sheet of a formula as typed."""
    return compute.compute("weigh", body.model_dump(by_alias=True))


@blueprint.post("/compute/cue", responses={"200": CueOut, **PROBLEMS})
def compute_cue(body: CueReq):
    """How hot a surface is, from a sign."""
    return compute.compute("cue", body.model_dump())


@blueprint.post("/compute/<kind>", responses={"200": AnyObject, **PROBLEMS})
def compute_kind(path: KindPath):
    """Any computation by contract: weigh, mix, rise, puff."""
    body: Any = request.get_json(silent=True)
    return compute.compute(path.kind, body)


@blueprint.get("/compute/<kind>/schema", responses={"200": AnyObject, **PROBLEMS})
def compute_schema(path: KindPath):
    """JSON Schema of a computation's request."""
    return compute.schema(path.kind)


@blueprint.get("/health", responses={"200": Health})
def health():
    """Whether the server answers, and whether its steppers are compiled."""
    compiled = yeast.course_stepper.ready and puff.bake_stepper.ready
    return Health(ok=True, version=__version__, compiled=compiled, demo=house().with_demo).model_dump()
