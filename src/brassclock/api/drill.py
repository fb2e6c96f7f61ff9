"""/api/kitchens/{id}/drill: practice cases opened and answered, and how a learner does."""

from __future__ import annotations

from pydantic import BaseModel, Field

from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.routes import Routes
from brassclock.services.drill import tries
from brassclock.services.schemas.drill import (
    AnswerCreate,
    DrillCreate,
    DrillRead,
    HandsAnswer,
    OrderRead,
    Seconds,
    SideRead,
    TryRead,
)

routes = Routes("drill", __name__, url_prefix="/api", tag="drill")


class TryPath(KitchenPath):
    try_id: int = Field(ge=1, le=2_147_483_647)


class TurnedQuery(BaseModel):
    """The second at which a bread was turned."""

    turn_s: Seconds


@routes.get("/kitchens/<int:kitchen_id>/drill", responses={"200": DrillRead, **PROBLEMS})
def drill(path: KitchenPath):
    """The records of a kitchen's learners in each kind of case, and the calls of its real hearth."""
    return tries.drill_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/drill", responses={"201": TryRead, **PROBLEMS})
def open_case(path: KitchenPath, body: DrillCreate):
    """Open the next case of a kind; the open one, where there is one."""
    return tries.open_try(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>/drill/<int:try_id>", responses={"200": TryRead, **PROBLEMS})
def case(path: TryPath):
    """A case; once it is answered, with the answer and what it was."""
    return tries.try_out(app(), path.kitchen_id, path.try_id).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/drill/<int:try_id>/turned", responses={"200": SideRead, **PROBLEMS})
def turned(path: TryPath, query: TurnedQuery):
    """The second side of a bread that was turned then."""
    return tries.side_out(app(), path.kitchen_id, path.try_id, query.turn_s).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/drill/<int:try_id>/order", responses={"200": OrderRead, **PROBLEMS})
def order(path: TryPath, body: HandsAnswer):
    """An order of moves as far as it has come, timed; nothing is stored."""
    return tries.order_out(app(), path.kitchen_id, path.try_id, body.moves).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/drill/<int:try_id>/answer", responses={"200": TryRead, **PROBLEMS})
def answer(path: TryPath, body: AnswerCreate):
    """Answer a case, once."""
    return tries.answer_try(app(), path.kitchen_id, path.try_id, body).model_dump(mode="json")
