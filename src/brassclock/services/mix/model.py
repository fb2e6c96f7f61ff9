"""The bowl of a bake: what goes in at what temperature, what the liquid must be, what the hands do."""

from __future__ import annotations

from dataclasses import dataclass, replace

from brassclock.core.matter.dough import Dough
from brassclock.core.mix.guide import GuideStep, bloom_text, cue_for, kneading_guide, order_of_adding
from brassclock.core.mix.heat import Bowl, Kneading, MixHeat, Part, friction_seen, mix_heat
from brassclock.store.tables import Bake, Kitchen

LIQUID_FRAC = 0.5
SAME_C = 0.2


@dataclass(frozen=True)
class BowlHeat:
    """The heat account of a bake's bowl, the parts it is made of, and the hands' guide."""

    heat: MixHeat
    parts: tuple[Part, ...]
    solved: str
    room_c: float
    flour_c: float
    cue: str
    bloom: str
    order: tuple[str, ...]
    guide: tuple[GuideStep, ...]
    tests: tuple[str, ...]

    @property
    def solved_g(self) -> float:
        return next(p.mass_g for p in self.parts if p.ingredient.id == self.solved)


def is_liquid(part: Part) -> bool:
    return part.ingredient.group == "liquid" and part.ingredient.counted_water_frac > LIQUID_FRAC


def kneading_of(bake: Bake, kitchen: Kitchen, room_c: float) -> Kneading:
    """Mixing of the bake here, with the friction this kitchen has taught."""
    factor = kitchen.friction.get(bake.knead, [1.0, 0.0])[0]
    return Kneading(bake.knead, bake.knead_min, room_c, factor)


def parts_of(bake: Bake, kitchen: Kitchen, dough: Dough, room_c: float) -> list[Part]:
    """Everything in the bowl, merged by ingredient: at its given temperature, else flour and dry things at the room's,
    dairy and egg at the fridge's."""
    flour_c = bake.flour_c if bake.flour_c is not None else room_c
    found: dict[str, Part] = {}
    for p in dough.portions:
        i = p.ingredient
        cold = i.group == "liquid" and {"milk", "egg"} & set(i.allergens)
        usual = flour_c if i.group == "flour" else kitchen.fridge_c if cold else room_c
        had = found[i.id].mass_g if i.id in found else 0.0
        found[i.id] = Part(i, had + p.mass_g, bake.part_temps.get(i.id, usual))
    return list(found.values())


def bowl_heat(bake: Bake, kitchen: Kitchen, dough: Dough, room_c: float) -> BowlHeat | None:
    """The account, solved for the bake's liquid (water first, else the most of any). None without a liquid."""
    parts = parts_of(bake, kitchen, dough, room_c)
    liquids = [p for p in parts if is_liquid(p)]
    if not liquids:
        return None
    wished = next((p for p in liquids if p.ingredient.id == bake.solve_for), None)
    open_ones = [p for p in liquids if p.ingredient.id not in bake.part_temps]
    solved = wished or max(open_ones or liquids, key=lambda p: (p.ingredient.id == "water", p.mass_g))
    given = wished is None and not open_ones  # every liquid's temperature is said: nothing is left to solve
    bowl = Bowl(bake.bowl_g, bake.bowl_material, room_c) if bake.bowl_g > 0 else None
    target_c = None if given else bake.dough_c
    heat = mix_heat(parts, bowl, kneading_of(bake, kitchen, room_c), solved.ingredient.id, target_c, kitchen.tap_c)
    if given:
        heat = replace(heat, liquid_temp_c=solved.temp_c, wanted_liquid_c=solved.temp_c)
    guide, tests = kneading_guide(bake.knead, bake.knead_min, bake.strength)
    return BowlHeat(
        heat,
        tuple(parts),
        solved.ingredient.id,
        room_c,
        bake.flour_c if bake.flour_c is not None else room_c,
        cue_for(heat.liquid_temp_c) if heat.liquid_temp_c is not None else "",
        bloom_text(dough, heat.liquid_temp_c),
        order_of_adding(dough),
        guide,
        tests,
    )


def lands_c(bake: Bake, found: BowlHeat | None) -> float | None:
    """Temperature at which the dough lands [C] where its liquids are said or cannot be had as the wish would take; None
    where Mix reaches the wish."""
    if found is None or abs(found.heat.dough_temp_c - bake.dough_c) < SAME_C:
        return None
    return found.heat.dough_temp_c


def friction_shown(
    bake: Bake, kitchen: Kitchen, dough: Dough, room_c: float, seen_c: float
) -> tuple[float, float] | None:
    """(friction over the table's, spread) that a dough shows which was read at `seen_c` right after mixing; None where
    it shows nothing."""
    found = bowl_heat(bake, kitchen, dough, room_c)
    if found is None:
        return None
    liquid_c = found.heat.liquid_temp_c if found.heat.liquid_temp_c is not None else found.heat.limit_c
    parts = [
        Part(p.ingredient, p.mass_g, liquid_c if p.ingredient.id == found.solved else p.temp_c) for p in found.parts
    ]
    bowl = Bowl(bake.bowl_g, bake.bowl_material, room_c) if bake.bowl_g > 0 else None
    return friction_seen(parts, bowl, kneading_of(bake, kitchen, room_c), seen_c)
