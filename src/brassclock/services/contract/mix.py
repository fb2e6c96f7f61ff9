"""`mix` of the contract."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from brassclock.core.errors import FieldFault, gather
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.core.mix.heat import Bowl, Kneading, Part, mix_heat
from brassclock.core.terms import BowlMaterial, KneadMethod
from brassclock.services.contract.common import Mass, Request, Temp
from brassclock.services.schemas.quantities import within
from brassclock.services.weigh.view import caution_out, why_out


class PartRequest(Request):
    ingredient: str
    mass_g: Mass
    temp_c: Temp


class BowlRequest(Request):
    mass_g: Mass
    material: BowlMaterial = "steel"
    temp_c: Temp


class SolveRequest(Request):
    for_: str = Field(alias="for")
    target_c: Annotated[float, within(1, 60, "C")]


class MixRequest(Request):
    """`mix`: everything in the bowl with its temperature; optionally a liquid to solve for."""

    parts: Annotated[list[PartRequest], Field(min_length=1, max_length=60)]
    bowl: BowlRequest | None = None
    method: KneadMethod = "hand"
    minutes: Annotated[float, within(0, 120, "min")] = 8.0
    room_c: Temp = 22.0
    tap_c: Temp | None = None
    solve: SolveRequest | None = None


def run_mix(q: MixRequest) -> dict[str, Any]:
    known = table()
    gather(
        FieldFault(f"/parts/{i}/ingredient", unknown_text(x.ingredient))
        for i, x in enumerate(q.parts)
        if x.ingredient not in known
    )
    bowl = Bowl(q.bowl.mass_g, q.bowl.material, q.bowl.temp_c) if q.bowl else None
    heat = mix_heat(
        [Part(known[x.ingredient], x.mass_g, x.temp_c) for x in q.parts],
        bowl,
        Kneading(q.method, q.minutes, q.room_c),
        q.solve.for_ if q.solve else None,
        q.solve.target_c if q.solve else None,
        q.tap_c,
    )
    return {
        "dough_temp_c": heat.dough_temp_c,
        "liquid_temp_c": heat.liquid_temp_c,
        "wanted_liquid_c": heat.wanted_liquid_c,
        "limit_c": heat.limit_c,
        "ice_g": heat.ice_g,
        "contributions": [{"name": n, "joules": j} for n, j in heat.contributions],
        "simple_rule": {"liquid_temp_c": heat.rule_liquid_c, "factor_that_agrees": heat.rule_factor_c},
        "advice": heat.advice,
        "others": [{"ingredient": o.ingredient, "temp_c": o.temp_c} for o in heat.others],
        "cautions": [c.model_dump() for c in caution_out(heat.cautions)],
        "why": {k: w.model_dump() for k, w in why_out(heat.why).items()},
    }
