"""/api: the freezer of a kitchen, and its lessons."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field, StringConstraints

from brassclock.api.bakes import BakePath
from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.routes import Routes
from brassclock.services.kitchen import freezer, lessons, servings
from brassclock.services.schemas.freezer import (
    FreezeCreate,
    FreezerRead,
    ServingCreate,
    ServingUpdate,
    TakeUpdate,
    ThawPlanRead,
)
from brassclock.services.schemas.lessons import LessonsRead, LessonUpdate

routes = Routes("freezer", __name__, url_prefix="/api", tag="keep")


class RowPath(KitchenPath):
    row_id: int = Field(ge=1, le=2_147_483_647)


class LessonPath(KitchenPath):
    lesson_id: int = Field(ge=1, le=2_147_483_647)


class BeliefPath(KitchenPath):
    key: Annotated[str, StringConstraints(min_length=1, max_length=120)]


class ServingPath(KitchenPath):
    serving_id: int = Field(ge=1, le=2_147_483_647)


class ThawQuery(BaseModel):
    """Number of breads wanted, and the instant people eat."""

    wanted: int = Field(ge=1, le=500)
    serve: Annotated[str, StringConstraints(min_length=1, max_length=80)]


@routes.get("/kitchens/<int:kitchen_id>/freezer", responses={"200": FreezerRead, **PROBLEMS})
def read(path: KitchenPath):
    """The rows of the freezer, the oldest first."""
    return freezer.freezer_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.post("/bakes/<int:bake_id>/freeze", responses={"201": FreezerRead, **PROBLEMS})
def freeze(path: BakePath, body: FreezeCreate):
    """Put breads of a bake into the freezer."""
    return freezer.freeze(app(), path.bake_id, body).model_dump(mode="json"), 201


@routes.post("/kitchens/<int:kitchen_id>/freezer/<int:row_id>/take", responses={"200": FreezerRead, **PROBLEMS})
def take(path: RowPath, body: TakeUpdate):
    """Take so many of a row out."""
    return freezer.take(app(), path.kitchen_id, path.row_id, body.count).model_dump(mode="json")


@routes.delete("/kitchens/<int:kitchen_id>/freezer/<int:row_id>/take", responses={"200": FreezerRead, **PROBLEMS})
def put_back(path: RowPath):
    """Undo the last taking out of a row."""
    return freezer.put_back(app(), path.kitchen_id, path.row_id).model_dump(mode="json")


@routes.delete("/kitchens/<int:kitchen_id>/freezer/<int:row_id>", responses={"200": FreezerRead, **PROBLEMS})
def remove(path: RowPath):
    """Take a row off the list; it can be brought back."""
    return freezer.remove(app(), path.kitchen_id, path.row_id).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/freezer/<int:row_id>/restore", responses={"200": FreezerRead, **PROBLEMS})
def restore(path: RowPath):
    """Bring a row back."""
    return freezer.remove(app(), path.kitchen_id, path.row_id, back=True).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/freezer/plan", responses={"200": ThawPlanRead, **PROBLEMS})
def plan(path: KitchenPath, query: ThawQuery):
    """Moves that take out so many breads for a table, with their instants."""
    return freezer.thaw_plan(app(), path.kitchen_id, query.wanted, query.serve).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/freezer/servings", responses={"201": FreezerRead, **PROBLEMS})
def plan_serving(path: KitchenPath, body: ServingCreate):
    """Plan a table from the freezer: its moves stand on the Rule."""
    return servings.plan_serving(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.put("/kitchens/<int:kitchen_id>/freezer/servings/<int:serving_id>", responses={"200": FreezerRead, **PROBLEMS})
def change_serving(path: ServingPath, body: ServingUpdate):
    """Mark a move done or not done, cancel the table or bring it back."""
    return servings.change_serving(app(), path.kitchen_id, path.serving_id, body).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/lessons", responses={"200": LessonsRead, **PROBLEMS})
def read_lessons(path: KitchenPath):
    """The kitchen's beliefs, each with the lessons that made it."""
    return lessons.lessons_out(app(), path.kitchen_id).model_dump(mode="json")


@routes.put("/kitchens/<int:kitchen_id>/lessons/<int:lesson_id>", responses={"200": LessonsRead, **PROBLEMS})
def change_lesson(path: LessonPath, body: LessonUpdate):
    """Refuse a lesson, restore it, or have an odd one count."""
    return lessons.change_lesson(app(), path.kitchen_id, path.lesson_id, body).model_dump(mode="json")


@routes.delete("/kitchens/<int:kitchen_id>/beliefs/<string:key>", responses={"200": LessonsRead, **PROBLEMS})
def forget(path: BeliefPath):
    """Forget what was learned of one thing: every lesson of it is refused."""
    return lessons.change_belief(app(), path.kitchen_id, path.key, forget=True).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/beliefs/<string:key>/back", responses={"200": LessonsRead, **PROBLEMS})
def recall(path: BeliefPath):
    """Undo of forgetting: every lesson of it counts again."""
    return lessons.change_belief(app(), path.kitchen_id, path.key, forget=False).model_dump(mode="json")
