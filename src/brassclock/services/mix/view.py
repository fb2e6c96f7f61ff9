"""View of the Mix leaf."""

from __future__ import annotations

from brassclock.core.mix.guide import bloom_test
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.mix.model import BowlHeat, is_liquid
from brassclock.services.schemas.mix import GuideStepRead, HeatRow, MixRead, PartRead, WarmedRead
from brassclock.services.weigh.view import caution_out, why_out


def mix_out(r: BakeSnapshot, bowl: BowlHeat, names: dict[str, str]) -> MixRead:
    """The heat account of a bake's bowl, and the hands' guide beside it."""
    heat = bowl.heat
    factor, times = r.kitchen.friction.get(r.bake.knead, [1.0, 0.0])
    seen = [x.value for x in r.readings if x.kind == "dough_c"]
    bloom_said = ""
    if r.bake.bloom_foamed is not None:
        bloom_said = bloom_test(r.bake.bloom_min if r.bake.bloom_foamed else None).text
    return MixRead(
        dough_temp_c=heat.dough_temp_c,
        target_c=r.bake.dough_c,
        liquid=bowl.solved,
        liquid_name=names.get(bowl.solved, bowl.solved),
        liquid_g=bowl.solved_g,
        liquid_temp_c=heat.liquid_temp_c,
        wanted_liquid_c=heat.wanted_liquid_c,
        limit_c=heat.limit_c,
        ice_g=heat.ice_g,
        room_c=bowl.room_c,
        flour_c=bowl.flour_c,
        contributions=[HeatRow(name=names.get(n, n), joules=j) for n, j in heat.contributions],
        rule_liquid_c=heat.rule_liquid_c,
        rule_factor_c=heat.rule_factor_c,
        advice=heat.advice,
        others=[
            WarmedRead(ingredient=o.ingredient, name=names.get(o.ingredient, o.ingredient), temp_c=o.temp_c)
            for o in heat.others
        ],
        parts=[
            PartRead(
                ingredient=p.ingredient.id,
                name=p.ingredient.name,
                grams=p.mass_g,
                temp_c=p.temp_c,
                liquid=is_liquid(p),
                given=p.ingredient.id in r.bake.part_temps,
            )
            for p in bowl.parts
        ],
        cue=bowl.cue,
        bloom=bowl.bloom,
        bloom_said=bloom_said,
        order=list(bowl.order),
        guide=[GuideStepRead(text=g.text, minutes=g.minutes) for g in bowl.guide],
        tests=list(bowl.tests),
        friction_factor=factor,
        friction_times=int(times),
        seen_c=seen[-1] if seen else None,
        cautions=caution_out(heat.cautions),
        why=why_out(heat.why),
    )
