"""Methods as they are chosen: the schools and the kitchen's own, with what is compared before one is taken."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from brassclock.core.cautions import caution
from brassclock.core.errors import InvalidInput
from brassclock.core.weigh.formula import PieceWish, weigh
from brassclock.core.weigh.lines import Kit, TypedLine
from brassclock.core.weigh.methods import Method, methods
from brassclock.services.app import App
from brassclock.services.kitchen.pantry import kit_of, own_rows
from brassclock.services.schemas.base import CautionRead
from brassclock.services.schemas.weigh import MethodRead, MethodStageRead
from brassclock.store import pantry as pantry_rows
from brassclock.store.tables import OwnMethod


def list_methods(app: App, kitchen_id: int | None) -> list[MethodRead]:
    """The kitchen's own first, then the schools, the blank one last."""
    own: list[MethodRead] = []
    if kitchen_id is not None:
        with app.read() as session:
            kitchen = app.kitchen(session, kitchen_id)
            kit = kit_of(kitchen, own_rows(session, kitchen_id))
            own = [own_out(row, kit) for row in pantry_rows.own_methods(session, kitchen_id)]
    return own + [method_out(m) for m in methods().values()]


def _told(lines: tuple[TypedLine, ...], kit: Kit | None = None) -> Mapping[str, Any]:
    """Summary of a formula's sheet: ingredients, leavens, water, allergens, soda."""
    try:
        sheet = weigh(lines, PieceWish(), kit=kit) if lines else None
    except InvalidInput:
        sheet = None
    if sheet is None:
        return {"ingredients": [], "leavens": [], "hydration_frac": None, "allergens": [], "soda": ""}
    leavens = dict.fromkeys(
        x.ingredient.name for x in sheet.lines if x.ingredient.is_yeast or x.ingredient.is_other_leaven
    )
    return {
        "ingredients": list(dict.fromkeys(x.ingredient.id for x in sheet.lines)),
        "leavens": list(leavens),
        "hydration_frac": sheet.dough.hydration_frac,
        "allergens": list(sheet.dough.allergens),
        "soda": sheet.soda.verdict if sheet.soda else "",
    }


def method_out(m: Method) -> MethodRead:
    low, high = m.hours
    return MethodRead(
        id=m.id,
        name=m.name,
        school=m.school,
        wants=list(m.wants),
        why=m.why,
        own=False,
        count=m.count,
        piece_g=m.piece_g,
        shape=m.shape.kind,
        diameter_cm=m.shape.diameter_cm,
        length_cm=m.shape.length_cm,
        width_cm=m.shape.width_cm,
        seal=m.seal,
        low_h=low,
        high_h=high,
        hands_min=m.hands_min,
        surfaces=list(m.surfaces),
        shaping=list(m.shaping),
        program=m.program,
        hold=m.hold,
        stages=[
            MethodStageRead(name=s.name, low_h=s.low_h, high_h=s.high_h, place=s.place, ratio=s.ratio) for s in m.stages
        ],
        cautions=[CautionRead(**caution(c).as_dict()) for c in m.cautions],
        **_told(m.lines),
    )


def own_out(row: OwnMethod, kit: Kit) -> MethodRead:
    """An own method: its settings, with the waits and hands of the school it grew from."""
    facts = row.facts
    school = methods().get(facts.get("from", ""))
    lines = tuple(TypedLine(x["ingredient"], x["amount"], x.get("basis"), x.get("part", "")) for x in facts["lines"])
    base = method_out(school or methods()["blank"])
    return base.model_copy(
        update={
            "id": f"own-{row.id}",
            "name": row.name,
            "school": f"Your own, from {school.name}" if school else "Your own",
            "own": True,
            "why": base.why if school else "",
            "count": facts.get("count") or 1,
            "piece_g": facts.get("piece_g") or 0.0,
            "shape": facts.get("shape", "round"),
            "diameter_cm": facts.get("diameter_cm"),
            "length_cm": facts.get("length_cm"),
            "width_cm": facts.get("width_cm"),
            "seal": facts.get("seal", "square"),
            **_told(lines, kit),
        }
    )
