"""/api/kitchens/N/starters: starters, their feeds and peaks, the feed that peaks when it is wanted."""

from __future__ import annotations

from pydantic import BaseModel, Field

from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.routes import Routes
from brassclock.services.kitchen import starters
from brassclock.services.schemas.kitchen import (
    FeedCreate,
    FeedPlanRead,
    FeedPlanUpdate,
    PeakCreate,
    StarterCreate,
    StarterRead,
    UpkeepRead,
)

routes = Routes("starters", __name__, url_prefix="/api/kitchens/<int:kitchen_id>/starters", tag="starter")


class StarterPath(KitchenPath):
    starter_id: int = Field(ge=1, le=2_147_483_647)


class StarterList(BaseModel):
    starters: list[StarterRead]


@routes.get("", responses={"200": StarterList, **PROBLEMS})
def list_starters(path: KitchenPath):
    """Every starter of a kitchen, as it stands."""
    return StarterList(starters=starters.list_starters(app(), path.kitchen_id)).model_dump(mode="json")


@routes.post("", responses={"201": StarterRead, **PROBLEMS})
def add_starter(path: KitchenPath, body: StarterCreate):
    """A starter to look after."""
    return starters.add_starter(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.delete("/<int:starter_id>", responses={"200": StarterList, **PROBLEMS})
def put_away(path: StarterPath):
    """Take it off the list."""
    starters.put_away(app(), path.kitchen_id, path.starter_id)
    return StarterList(starters=starters.list_starters(app(), path.kitchen_id)).model_dump(mode="json")


@routes.post("/<int:starter_id>/restore", responses={"200": StarterList, **PROBLEMS})
def restore(path: StarterPath):
    """Undo of putting away."""
    starters.put_away(app(), path.kitchen_id, path.starter_id, back=True)
    return StarterList(starters=starters.list_starters(app(), path.kitchen_id)).model_dump(mode="json")


@routes.post("/<int:starter_id>/feeds", responses={"201": StarterRead, **PROBLEMS})
def feed(path: StarterPath, body: FeedCreate):
    """A feed as it was given."""
    return starters.feed(app(), path.kitchen_id, path.starter_id, body).model_dump(mode="json"), 201


@routes.put("/<int:starter_id>/peak", responses={"200": StarterRead, **PROBLEMS})
def peaked(path: StarterPath, body: PeakCreate):
    """Record when the last feed stood highest; it teaches the starter's strength."""
    return starters.peaked(app(), path.kitchen_id, path.starter_id, body).model_dump(mode="json")


@routes.delete("/<int:starter_id>/last", responses={"200": StarterRead, **PROBLEMS})
def undo_last(path: StarterPath):
    """Take the last peak or feed back."""
    return starters.undo_last(app(), path.kitchen_id, path.starter_id).model_dump(mode="json")


@routes.post("/<int:starter_id>/wish", responses={"200": FeedPlanRead, **PROBLEMS})
def wish(path: StarterPath, body: FeedPlanUpdate):
    """The feed that, given now, peaks at a moment."""
    return starters.wish(app(), path.kitchen_id, path.starter_id, body).model_dump(mode="json")


class UpkeepQuery(BaseModel):
    """Grams used, and days between uses."""

    use_g: float = Field(100.0, ge=10, le=20_000)
    every_days: float = Field(7.0, ge=1, le=60)


@routes.get("/<int:starter_id>/upkeep", responses={"200": UpkeepRead, **PROBLEMS})
def upkeep(path: StarterPath, query: UpkeepQuery):
    """Ways of keeping it between bakes, the one that throws away least first."""
    found = starters.upkeep(app(), path.kitchen_id, path.starter_id, query.use_g, query.every_days)
    return found.model_dump(mode="json")
