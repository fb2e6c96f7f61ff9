"""/api/compute, /api/health: what needs no kitchen."""

from __future__ import annotations

from typing import Any

from flask import request
from pydantic import BaseModel, Field

from brassclock import __version__
from brassclock.api.kitchens import PROBLEMS, app, long_answer
from brassclock.api.routes import Routes
from brassclock.services import contract as compute
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.contract.cue import CueRequest
from brassclock.services.contract.weigh import WeighRequest
from brassclock.services.schemas.base import Health, LockTimes
from brassclock.services.schemas.fire import CueRead
from brassclock.services.schemas.weigh import WeighRead

routes = Routes("compute", __name__, url_prefix="/api", tag="compute")


LONG = (*compute.SIMULATED, "line", "cause", "hold")


def compute_question(_: App, kind: str, body: Any) -> dict[str, Any]:
    """A computation by contract, as a question to be computed aside."""
    return compute.compute(kind, body)


class KindPath(BaseModel):
    kind: str = Field(max_length=40)


class AnyObject(BaseModel):
    """A result as `contract` shapes it; `GET /api/compute/KIND/schema` gives the request's schema."""

    model_config = {"extra": "allow"}


@routes.post("/compute/weigh", responses={"200": WeighRead, **PROBLEMS})
def compute_weigh(body: WeighRequest):
    """The weigh sheet of a formula as typed."""
    return compute.compute("weigh", body.model_dump(by_alias=True))


@routes.post("/compute/cue", responses={"200": CueRead, **PROBLEMS})
def compute_cue(body: CueRequest):
    """Temperature of a surface, from a sign."""
    return compute.compute("cue", body.model_dump())


@routes.post("/compute/<kind>", responses={"200": AnyObject, **PROBLEMS})
def compute_kind(path: KindPath):
    """Any computation by contract: weigh, mix, rise, puff."""
    body: Any = request.get_json(silent=True)
    if path.kind in LONG:
        return long_answer(compute_question, path.kind, body)
    return compute.compute(path.kind, body)


@routes.get("/compute/<kind>/schema", responses={"200": AnyObject, **PROBLEMS})
def compute_schema(path: KindPath):
    """JSON Schema of a computation's request."""
    return compute.schema(path.kind)


@routes.get("/health", responses={"200": Health})
def health():
    """State of the server: that it answers, whether its steppers are compiled, how long changes held the write lock."""
    held = sorted(app().held_ms)
    lock = LockTimes(
        changes=len(held), p95=held[len(held) * 95 // 100] if held else 0.0, most=held[-1] if held else 0.0
    )
    return Health(
        ok=True, version=__version__, compiled=solve.compiled(), demo=app().with_demo, lock_ms=lock
    ).model_dump()
