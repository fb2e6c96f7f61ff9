"""/api/bakes, /api/readings: a bake's five leaves, its taps, readings and outcomes."""

from __future__ import annotations

from typing import Literal

from flask import Response
from pydantic import BaseModel, Field

from brassclock.api.kitchens import PROBLEMS, app, long_answer, tagged
from brassclock.api.routes import Routes
from brassclock.core.terms import Wrap
from brassclock.services.bake import again as bake_again
from brassclock.services.bake import commands as bake_commands
from brassclock.services.bake import create as bake_create
from brassclock.services.bake import ending as bake_ending
from brassclock.services.fire import commands as fire_commands
from brassclock.services.fire import hearth as hearth_view
from brassclock.services.fire import view as fire_view
from brassclock.services.keep import cause as keep_cause
from brassclock.services.keep import hold as keep_hold
from brassclock.services.keep import judge as keep_judge
from brassclock.services.keep import photos as keep_photos
from brassclock.services.keep import timing as keep_timing
from brassclock.services.pages import bake as bake_page
from brassclock.services.rise import rescue as rise_rescue
from brassclock.services.rise import whatif as rise_whatif
from brassclock.services.schemas.bake import AgainCreate, BakeCreate, BakeRead, BakeUpdate
from brassclock.services.schemas.base import Edit
from brassclock.services.schemas.fire import FireIfsRead, HabitRead, HearthRead, HeatLineRead, TapCreate, TapUpdate
from brassclock.services.schemas.keep import (
    CausesRead,
    HoldRead,
    NotedUpdate,
    OutcomeUpdate,
    PhotoCreate,
    TimesRead,
    TrayUpdate,
)
from brassclock.services.schemas.rise import (
    ReadingCreate,
    RelocationCreate,
    RescueRead,
    RescueRequest,
    RoutesRead,
    RouteUpdate,
    WhatIfRead,
    WhatIfRequest,
)

routes = Routes("bakes", __name__, url_prefix="/api", tag="bake")


class BakePath(BaseModel):
    bake_id: int = Field(ge=1, le=2_147_483_647)


class TapPath(BakePath):
    tap_id: int = Field(ge=1, le=2_147_483_647)


class ReadingPath(BaseModel):
    reading_id: int = Field(ge=1, le=2_147_483_647)


class PhotoPath(BaseModel):
    photo_id: int = Field(ge=1, le=2_147_483_647)


class StatusRequest(Edit):
    status: Literal["live", "abandoned", "kept"]


class HabitQuery(BaseModel):
    first: float = Field(ge=1, le=3600)
    second: float | None = Field(default=None, ge=1, le=3600)


class HoldQuery(BaseModel):
    """The wrap (none: the usual one of its kind), and which bread of the dough, its own being 0."""

    wrap: Wrap | None = None
    bread: int = Field(default=0, ge=0, le=6)


class Asked(BaseModel):
    """Answer of the question: the bake's id."""

    id: int


class Gone(BaseModel):
    """Answer of a deletion: the id, for the undo."""

    id: int


def answer_bake(bake_id: int):
    """A bake, computed, as every change of it answers."""
    return bake_page.bake_out(app(), bake_id).model_dump(mode="json")


def answer_hearth(bake_id: int, status: int = 200) -> Response:
    """The live hearth of a bake, as every move on it answers; a move of the line with the tag to ask with next."""
    response = Response(hearth_view.hearth_out(app(), bake_id).model_dump_json(), status, mimetype="application/json")
    tag = hearth_view.moved_tag(app(), bake_id)
    if tag is not None:
        response.headers["ETag"] = tag
    return response


@routes.post("/bakes", responses={"201": BakeRead, **PROBLEMS})
def start_bake(body: BakeCreate):
    """A new bake from a method, for a table."""
    return answer_bake(bake_create.start_bake(app(), body)), 201


@routes.get("/bakes/<int:bake_id>", responses={"200": BakeRead, **PROBLEMS})
def get_bake(path: BakePath):
    """A bake with every leaf computed."""
    return answer_bake(path.bake_id)


@routes.patch("/bakes/<int:bake_id>", responses={"200": BakeRead, **PROBLEMS})
def change_bake(path: BakePath, body: BakeUpdate):
    bake_commands.change_bake(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.delete("/bakes/<int:bake_id>", responses={"200": Gone, **PROBLEMS})
def delete_bake(path: BakePath, query: Edit):
    """Put a bake away; on the revision it was seen at, where that is given."""
    bake_commands.delete_bake(app(), path.bake_id, query.revision)
    return Gone(id=path.bake_id).model_dump()


@routes.post("/bakes/<int:bake_id>/restore", responses={"200": BakeRead, **PROBLEMS})
def restore_bake(path: BakePath):
    """Undo of a deletion."""
    bake_commands.restore_bake(app(), path.bake_id)
    return answer_bake(path.bake_id)


@routes.put("/bakes/<int:bake_id>/status", responses={"200": BakeRead, **PROBLEMS})
def set_status(path: BakePath, body: StatusRequest):
    """Keep a bake in the logbook, abandon it, or bring it back."""
    if body.status == "kept":
        bake_ending.keep(app(), path.bake_id, body.revision)
    else:
        bake_ending.end_bake(app(), path.bake_id, body.status, body.revision)
    return answer_bake(path.bake_id)


@routes.get("/bakes/<int:bake_id>/hearth", responses={"200": HearthRead, "304": None, **PROBLEMS})
def get_hearth(path: BakePath):
    """The live hearth: spots, due moves, towel. Once the line has begun it carries an ETag: 304 while nothing is
    new."""
    tag = hearth_view.hearth_tag(app(), path.bake_id)
    return tagged(tag, lambda: hearth_view.hearth_out(app(), path.bake_id).model_dump_json())


@routes.post("/bakes/<int:bake_id>/taps", responses={"201": HearthRead, **PROBLEMS})
def tap(path: BakePath, body: TapCreate):
    """Something done or seen. The same key twice is one tap. Of a line that has begun it carries the hearth's new
    ETag."""
    fire_commands.tap(app(), path.bake_id, body)
    return answer_hearth(path.bake_id, 201)


@routes.patch("/bakes/<int:bake_id>/taps/<int:tap_id>", responses={"200": HearthRead, **PROBLEMS})
def move_tap(path: TapPath, body: TapUpdate):
    """Backdate a tap."""
    fire_commands.move_tap(app(), path.bake_id, path.tap_id, body)
    return answer_hearth(path.bake_id)


@routes.delete("/bakes/<int:bake_id>/taps/<int:tap_id>", responses={"200": HearthRead, **PROBLEMS})
def undo_tap(path: TapPath):
    fire_commands.undo_tap(app(), path.bake_id, path.tap_id)
    return answer_hearth(path.bake_id)


@routes.put("/bakes/<int:bake_id>/outcomes", responses={"200": BakeRead, **PROBLEMS})
def judge(path: BakePath, body: OutcomeUpdate):
    """Record what became of a round."""
    keep_judge.judge(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.put("/bakes/<int:bake_id>/tray", responses={"200": BakeRead, **PROBLEMS})
def judge_tray(path: BakePath, body: TrayUpdate):
    """Record what became of many rounds at once, round by round or in a sentence."""
    keep_judge.judge_tray(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.put("/bakes/<int:bake_id>/noted", responses={"200": BakeRead, **PROBLEMS})
def note_facts(path: BakePath, body: NotedUpdate):
    """Record what the cook knows of the making."""
    keep_judge.note_facts(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.post("/bakes/<int:bake_id>/asked", responses={"200": Asked, **PROBLEMS})
def ask(path: BakePath):
    """The Bench has asked whether the bake is to be kept: left alone it is kept by itself, half a day later."""
    bake_ending.ask(app(), path.bake_id)
    return Asked(id=path.bake_id).model_dump()


@routes.post("/bakes/<int:bake_id>/photos", responses={"201": BakeRead, **PROBLEMS})
def add_photo(path: BakePath, body: PhotoCreate):
    """Keep a picture; it is turned upright, made small, and stripped of place and camera."""
    keep_photos.add_photo(app(), path.bake_id, body)
    return answer_bake(path.bake_id), 201


@routes.get("/photos/<int:photo_id>", responses={"200": None, **PROBLEMS})
def photo(path: PhotoPath):
    """A picture, as a JPEG."""
    return Response(keep_photos.jpeg_of(app(), path.photo_id), mimetype="image/jpeg")


@routes.delete("/photos/<int:photo_id>", responses={"200": BakeRead, **PROBLEMS})
def remove_photo(path: PhotoPath):
    return answer_bake(keep_photos.remove_photo(app(), path.photo_id))


@routes.post("/photos/<int:photo_id>/restore", responses={"200": BakeRead, **PROBLEMS})
def restore_photo(path: PhotoPath):
    """Undo of a removal."""
    return answer_bake(keep_photos.remove_photo(app(), path.photo_id, back=True))


@routes.get("/bakes/<int:bake_id>/times", responses={"200": TimesRead, **PROBLEMS})
def times(path: BakePath):
    """The causes of a late or early bake: each thing run again as it was to be."""
    return long_answer(keep_timing.times_out, path.bake_id)


@routes.post("/bakes/<int:bake_id>/again", responses={"201": BakeRead, **PROBLEMS})
def again(path: BakePath, body: AgainCreate):
    """Begin the same bread for another table, with the one change that its causes name."""
    return answer_bake(bake_again.bake_again(app(), path.bake_id, body)), 201


@routes.post("/readings", responses={"201": BakeRead, **PROBLEMS})
def read(body: ReadingCreate):
    """A look at the dough."""
    bake_commands.read(app(), body)
    return answer_bake(body.bake_id), 201


@routes.delete("/readings/<int:reading_id>", responses={"200": BakeRead, **PROBLEMS})
def undo_reading(path: ReadingPath):
    return answer_bake(bake_commands.undo_reading(app(), path.reading_id))


@routes.post("/bakes/<int:bake_id>/rescue", responses={"200": RescueRead, **PROBLEMS})
def rescue(path: BakePath, body: RescueRequest):
    """For late guests, or a dough that is too fast: changes with their windows, the least disruptive first."""
    return long_answer(rise_rescue.rescue, path.bake_id, body)


@routes.post("/bakes/<int:bake_id>/spells", responses={"201": BakeRead, **PROBLEMS})
def spell(path: BakePath, body: RelocationCreate):
    """The dough goes elsewhere from now."""
    rise_rescue.spell(app(), path.bake_id, body)
    return answer_bake(path.bake_id), 201


@routes.delete("/bakes/<int:bake_id>/spells", responses={"200": BakeRead, **PROBLEMS})
def end_spell(path: BakePath, query: Edit):
    """Bring it back now, or take the last spell away."""
    rise_rescue.end_spell(app(), path.bake_id, query.revision)
    return answer_bake(path.bake_id)


@routes.get("/bakes/<int:bake_id>/line", responses={"200": HeatLineRead, **PROBLEMS})
def best_line(path: BakePath):
    """The line at the heat, looked for longer than the bake's own answer allows; what one more spot or cook would
    save."""
    return long_answer(fire_view.best_line, path.bake_id)


@routes.get("/bakes/<int:bake_id>/causes", responses={"200": CausesRead, **PROBLEMS})
def causes(path: BakePath):
    """The reasons why rounds of the bake fell short, by what is known of them; one change for next time."""
    return long_answer(keep_cause.causes_out, path.bake_id)


@routes.get("/bakes/<int:bake_id>/hold", responses={"200": HoldRead, **PROBLEMS})
def hold(path: BakePath, query: HoldQuery):
    """The keeping of a bread in a wrap: softness over three days, windows, advice, reheating."""
    return keep_hold.hold_out(app(), path.bake_id, query.wrap, query.bread).model_dump(mode="json")


@routes.get("/bakes/<int:bake_id>/habit", responses={"200": HabitRead, **PROBLEMS})
def habit(path: BakePath, query: HabitQuery):
    """Estimate the surface's heat from the seconds that a cook gives each side."""
    sides = [query.first] if query.second is None else [query.first, query.second]
    return long_answer(fire_view.habit, path.bake_id, sides)


@routes.get("/bakes/<int:bake_id>/fire-ifs", responses={"200": FireIfsRead, **PROBLEMS})
def fire_ifs(path: BakePath):
    """The bread on its surface with one thing changed at a time."""
    return long_answer(fire_view.ifs, path.bake_id)


@routes.post("/bakes/<int:bake_id>/whatif", responses={"200": WhatIfRead, **PROBLEMS})
def what_if(path: BakePath, body: WhatIfRequest):
    """The rise and the moves as a change would make them; nothing is stored."""
    return long_answer(rise_whatif.what_if, path.bake_id, body)


@routes.post("/bakes/<int:bake_id>/whatif/keep", responses={"200": BakeRead, **PROBLEMS})
def keep_what_if(path: BakePath, body: WhatIfRequest):
    """Make a tried change the bake's own."""
    rise_whatif.keep_what_if(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.get("/bakes/<int:bake_id>/routes", responses={"200": RoutesRead, **PROBLEMS})
def named_routes(path: BakePath):
    """Named ways to the same table, of a dough that is not mixed yet."""
    return long_answer(rise_whatif.named_routes, path.bake_id)


@routes.post("/bakes/<int:bake_id>/route", responses={"200": BakeRead, **PROBLEMS})
def take_route(path: BakePath, body: RouteUpdate):
    """Make a named route the bake's own."""
    rise_whatif.take_route(app(), path.bake_id, body)
    return answer_bake(path.bake_id)
