"""/api: reading lists, scaling, additions, dose, bloom; own ingredients, bags, methods; files in and out."""

from __future__ import annotations

from typing import Any

from flask import Response
from pydantic import BaseModel, Field

from brassclock.api.bakes import BakePath, answer_bake
from brassclock.api.kitchens import PROBLEMS, KitchenPath, house
from brassclock.api.routes import Routes
from brassclock.formats.bakefile import bake_file_schema
from brassclock.services.contract.weigh import WeighReq, sheet_of
from brassclock.services.kitchen import pantry
from brassclock.services.schemas.bake import BakeOut
from brassclock.services.schemas.base import Edit
from brassclock.services.schemas.kitchen import BagIn, BagOut, IngredientOut, OwnIngredientIn
from brassclock.services.schemas.mix import BloomIn
from brassclock.services.schemas.weigh import (
    AddIn,
    DoseIn,
    DoseOut,
    EntryIn,
    EntryOut,
    FeelIn,
    HandfulOut,
    ImportIn,
    ImportOut,
    MethodIn,
    MethodOut,
    ScaleIn,
    WeighOut,
)
from brassclock.services.weigh import commands as formulas
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
    ingredients: list[IngredientOut]


class MethodList(BaseModel):
    methods: list[MethodOut]


class Named(BaseModel):
    """What was kept or put away, by its id."""

    id: str


@routes.post("/kitchens/<int:kitchen_id>/weigh", responses={"200": WeighOut, **PROBLEMS})
def weigh(path: KitchenPath, body: WeighReq):
    """The weigh sheet of a formula as typed, measured as this kitchen measures."""
    with house().look() as session:
        kitchen = house().kitchen(session, path.kitchen_id)
        kit = pantry.kit_of(kitchen, pantry.own_rows(session, path.kitchen_id))
    return weigh_out(sheet_of(body, kit)).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/entry", responses={"200": EntryOut, **PROBLEMS})
def entry(path: KitchenPath, body: EntryIn):
    """Every line of a pasted list, read or with what is missing."""
    return formulas.read_list(house(), path.kitchen_id, body).model_dump(mode="json")


@routes.get("/kitchens/<int:kitchen_id>/ingredients", responses={"200": IngredientList, **PROBLEMS})
def ingredients(path: KitchenPath):
    """The table and the kitchen's own."""
    return IngredientList(ingredients=pantry.list_ingredients(house(), path.kitchen_id)).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/ingredients", responses={"201": IngredientOut, **PROBLEMS})
def add_ingredient(path: KitchenPath, body: OwnIngredientIn):
    """Keep an ingredient of one's own."""
    return pantry.add_ingredient(house(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.delete("/kitchens/<int:kitchen_id>/ingredients/<ingredient_id>", responses={"200": Named, **PROBLEMS})
def put_away_ingredient(path: IngredientPath):
    """Take it off the list; bakes that hold it keep it."""
    pantry.put_away_ingredient(house(), path.kitchen_id, path.ingredient_id)
    return Named(id=path.ingredient_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/ingredients/<ingredient_id>/restore", responses={"200": Named, **PROBLEMS})
def restore_ingredient(path: IngredientPath):
    """Undo of putting away."""
    pantry.put_away_ingredient(house(), path.kitchen_id, path.ingredient_id, back=True)
    return Named(id=path.ingredient_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/bags", responses={"201": BagOut, **PROBLEMS})
def open_bag(path: KitchenPath, body: BagIn):
    """Open a bag of flour whose thirst will be learned."""
    return pantry.open_bag(house(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.get("/kitchens/<int:kitchen_id>/methods", responses={"200": MethodList, **PROBLEMS})
def kitchen_methods(path: KitchenPath):
    """The kitchen's own methods, then the schools."""
    return MethodList(methods=methods.list_methods(house(), path.kitchen_id)).model_dump(mode="json")


@routes.post("/kitchens/<int:kitchen_id>/methods", responses={"201": Named, **PROBLEMS})
def keep_method(path: KitchenPath, body: MethodIn):
    """Keep a bake as a method of one's own."""
    return Named(id=formulas.keep_method(house(), path.kitchen_id, body)).model_dump(), 201


@routes.delete("/kitchens/<int:kitchen_id>/methods/<method_id>", responses={"200": Named, **PROBLEMS})
def put_away_method(path: MethodPath):
    formulas.put_away_method(house(), path.kitchen_id, path.method_id)
    return Named(id=path.method_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/methods/<method_id>/restore", responses={"200": Named, **PROBLEMS})
def restore_method(path: MethodPath):
    """Undo of putting away."""
    formulas.put_away_method(house(), path.kitchen_id, path.method_id, back=True)
    return Named(id=path.method_id).model_dump()


@routes.post("/kitchens/<int:kitchen_id>/import", responses={"201": ImportOut, **PROBLEMS})
def bring_in(path: KitchenPath, body: ImportIn):
    """A bake from a file's text; what cannot be read stays on its sheet as words."""
    return transfer.bring_in(house(), path.kitchen_id, body).model_dump(mode="json"), 201


@routes.get("/bakes/<int:bake_id>/export/<kind>", responses={"200": {"content": {}}, **PROBLEMS})
def export(path: ExportPath):
    """A bake as a file: json, jsonld, md or csv."""
    text, media, name = transfer.export(house(), path.bake_id, path.kind)
    return Response(text, mimetype=media, headers={"Content-Disposition": f'attachment; filename="{name}"'})


@routes.get("/schema/bake-file", responses={"200": {"content": {}}})
def bake_file():
    """The JSON Schema of our bake file."""
    schema: dict[str, Any] = bake_file_schema()
    return schema


@routes.post("/bakes/<int:bake_id>/scale", responses={"200": BakeOut, **PROBLEMS})
def scale(path: BakePath, body: ScaleIn):
    """Rewrite the lines for so many breads, so much flour, what runs out, or what fits at once."""
    formulas.scale(house(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.post("/bakes/<int:bake_id>/additions", responses={"201": BakeOut, **PROBLEMS})
def add(path: BakePath, body: AddIn):
    """Record what was put in beside the formula."""
    formulas.add(house(), path.bake_id, body)
    return answer_bake(path.bake_id), 201


@routes.delete("/bakes/<int:bake_id>/additions", responses={"200": BakeOut, **PROBLEMS})
def unadd(path: BakePath, query: Edit):
    """Take the last addition back."""
    formulas.unadd(house(), path.bake_id, query.revision)
    return answer_bake(path.bake_id)


@routes.post("/bakes/<int:bake_id>/feel", responses={"200": HandfulOut, **PROBLEMS})
def feel(path: BakePath, body: FeelIn):
    """What to do about how the dough feels."""
    return formulas.feel(house(), path.bake_id, body).model_dump(mode="json")


@routes.post("/bakes/<int:bake_id>/dose", responses={"200": DoseOut, **PROBLEMS})
def dose(path: BakePath, body: DoseIn):
    """The yeast for the time there is."""
    return formulas.dose(house(), path.bake_id, body).model_dump(mode="json")


@routes.put("/bakes/<int:bake_id>/bloom", responses={"200": BakeOut, **PROBLEMS})
def bloom(path: BakePath, body: BloomIn):
    """Minutes until the yeast foamed."""
    formulas.bloom(house(), path.bake_id, body)
    return answer_bake(path.bake_id)


@routes.delete("/bakes/<int:bake_id>/bloom", responses={"200": BakeOut, **PROBLEMS})
def unbloom(path: BakePath, query: Edit):
    """Forget the bloom test."""
    formulas.unbloom(house(), path.bake_id, query.revision)
    return answer_bake(path.bake_id)
