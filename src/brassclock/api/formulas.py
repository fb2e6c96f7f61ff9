"""/api: reading lists, scaling, additions, dose, bloom; own ingredients, bags, methods; files in and out."""

from __future__ import annotations

from typing import Any

from flask import Response
from pydantic import BaseModel, Field

from brassclock.api.bakes import BakePath, answer_bake
from brassclock.api.kitchens import PROBLEMS, KitchenPath, app
from brassclock.api.routes import Routes
from brassclock.formats.bakefile import bake_file_schema
from brassclock.services.contract.weigh import WeighRequest, sheet_of
from brassclock.services.kitchen import ingredients as kitchen_ingredients
from brassclock.services.kitchen import pantry
from brassclock.services.schemas.bake import BakeRead
from brassclock.services.schemas.base import Edit
from brassclock.services.schemas.kitchen import BagRead, BagUpdate, IngredientRead, OwnIngredientCreate
from brassclock.services.schemas.mix import BloomCreate
from brassclock.services.schemas.weigh import (
    AddCreate,
    DoseRead,
    DoseUpdate,
    EntryRead,
    EntryRequest,
    FeelUpdate,
    HandfulRead,
    ImportRead,
    ImportRequest,
    MethodCreate,
    MethodRead,
    ScaleUpdate,
    WeighRead,
)
from brassclock.services.weigh import commands as weigh_commands
from brassclock.services.weigh import methods, transfer
from brassclock.services.weigh.view import weigh_out

routes = Routes("formulas", __name__, url_prefix="/api", tag="formula")


class IngredientPath(KitchenPath):
    ingredient_id: str = Field(max_length=40)


class MethodPath(KitchenPath):
    method_id: str = Field(max_length=40)


class ExportPath(BakePath):
    kind: str = Field(max_length=20)


class IngredientList(BaseModel):
    ingredients: list[IngredientRead]


class MethodList(BaseModel):
    methods: list[MethodRead]


class Named(BaseModel):
    """Something kept or put away, by its id."""

    id: str


@routes.post("/kitchens/<int:kitchen_id>/weigh", responses={"200": WeighRead, **PROBLEMS})
def weigh(path: KitchenPath, body: WeighRequest):
    """The weigh sheet of a formula as typed, measured as this kitchen measures."""
    with app().read() as session:
        kitchen = app().kitchen(session, path.kitchen_id)
        kit = pantry.kit_of(kitchen, pantry.own_rows(session, path.kitchen_id))
    return weigh_out(sheet_of(body, kit)).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/entry", responses={"200": EntryRead, **PROBLEMS})
def entry(path: KitchenPath, body: EntryRequest):
    """Every line of a pasted list, read or with what is missing."""
    return weigh_commands.read_list(app(), path.kitchen_id, body).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/ingredients", responses={"200": IngredientList, **PROBLEMS})
def ingredients(path: KitchenPath):
    """The table and the kitchen's own."""
    found = kitchen_ingredients.list_ingredients(app(), path.kitchen_id)
    return IngredientList(ingredients=found).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/ingredients", responses={"201": IngredientRead, **PROBLEMS})
def add_ingredient(path: KitchenPath, body: OwnIngredientCreate):
    """Keep an ingredient of one's own."""
    return kitchen_ingredients.add_ingredient(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.delete("/kitchens/<int:kitchen_id>/ingredients/<ingredient_id>", responses={"200": Named, **PROBLEMS})
def put_away_ingredient(path: IngredientPath):
    """Take it off the list; bakes that hold it keep it."""
    kitchen_ingredients.put_away_ingredient(app(), path.kitchen_id, path.ingredient_id)
    return Named(id=path.ingredient_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/ingredients/<ingredient_id>/restore", responses={"200": Named, **PROBLEMS})
def restore_ingredient(path: IngredientPath):
    """Undo of putting away."""
    kitchen_ingredients.put_away_ingredient(app(), path.kitchen_id, path.ingredient_id, back=True)
    return Named(id=path.ingredient_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/bags", responses={"201": BagRead, **PROBLEMS})
def open_bag(path: KitchenPath, body: BagUpdate):
    """Open a bag of flour whose thirst will be learned."""
    return kitchen_ingredients.open_bag(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>/methods", responses={"200": MethodList, **PROBLEMS})
def kitchen_methods(path: KitchenPath):
    """The kitchen's own methods, then the schools."""
    return MethodList(methods=methods.list_methods(app(), path.kitchen_id)).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/methods", responses={"201": Named, **PROBLEMS})
def keep_method(path: KitchenPath, body: MethodCreate):
    """Keep a bake as a method of one's own."""
    return Named(id=weigh_commands.keep_method(app(), path.kitchen_id, body)).model_dump(), 201


@routes.delete("/kitchens/<int:kitchen_id>/methods/<method_id>", responses={"200": Named, **PROBLEMS})
def put_away_method(path: MethodPath):
    weigh_commands.put_away_method(app(), path.kitchen_id, path.method_id)
    return Named(id=path.method_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/methods/<method_id>/restore", responses={"200": Named, **PROBLEMS})
def restore_method(path: MethodPath):
    """Undo of putting away."""
    weigh_commands.put_away_method(app(), path.kitchen_id, path.method_id, back=True)
    return Named(id=path.method_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/import", responses={"201": ImportRead, **PROBLEMS})
def bring_in(path: KitchenPath, body: ImportRequest):
    """A bake from a file's text; what cannot be read stays on its sheet as words."""
    return transfer.bring_in(app(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.get("/bakes/<int:bake_id>/export/<kind>", responses={"200": {"content": {}}, **PROBLEMS})
def export(path: ExportPath):
    """A bake as a file: json, jsonld, md or csv."""
    text, media, name = transfer.export(app(), path.bake_id, path.kind)
    return Response(text, mimetype=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@routes.get("/schema/bake-file", responses={"200": {"content": {}}})
def bake_file():
    """The JSON Schema of our bake file."""
    schema: dict[str, Any] = bake_file_schema()
    return schema


@routes.post("/bakes/<int:bake_id>/scale", responses={"200": BakeRead, **PROBLEMS})
def scale(path: BakePath, body: ScaleUpdate):
    """Rewrite the lines for so many breads, so much flour, what runs out, or what fits at once."""
    weigh_commands.scale(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.post("/bakes/<int:bake_id>/additions", responses={"201": BakeRead, **PROBLEMS})
def add(path: BakePath, body: AddCreate):
    """Record what was put in beside the formula."""
    weigh_commands.add(app(), path.bake_id, body)
    return answer_bake(path.bake_id), 201


@routes.delete("/bakes/<int:bake_id>/additions", responses={"200": BakeRead, **PROBLEMS})
def unadd(path: BakePath, query: Edit):
    """Take the last addition back."""
    weigh_commands.unadd(app(), path.bake_id, query.revision)
    return answer_bake(path.bake_id)


@routes.post("/bakes/<int:bake_id>/feel", responses={"200": HandfulRead, **PROBLEMS})
def feel(path: BakePath, body: FeelUpdate):
    """Advice for how the dough feels."""
    return weigh_commands.feel(app(), path.bake_id, body).model_dump(mode="json")


@routes.post("/bakes/<int:bake_id>/dose", responses={"200": DoseRead, **PROBLEMS})
def dose(path: BakePath, body: DoseUpdate):
    """The yeast for the time there is."""
    return weigh_commands.dose(app(), path.bake_id, body).model_dump(mode="json")


@routes.put("/bakes/<int:bake_id>/bloom", responses={"200": BakeRead, **PROBLEMS})
def bloom(path: BakePath, body: BloomCreate):
    """Minutes until the yeast foamed."""
    weigh_commands.bloom(app(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.delete("/bakes/<int:bake_id>/bloom", responses={"200": BakeRead, **PROBLEMS})
def unbloom(path: BakePath, query: Edit):
    """Forget the bloom test."""
    weigh_commands.unbloom(app(), path.bake_id, query.revision)
    return answer_bake(path.bake_id)
