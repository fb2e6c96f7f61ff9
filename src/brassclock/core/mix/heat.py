"""Heat balance of the bowl: where the dough lands, and the liquid temperature that lands it right.

    T = [Σ m·c·Tᵢ + C_b·T_b + q_h·m_flour] / (Σ m·c + C_b), then friction and bench loss while kneading:
    T_end = T_room + (T − T_room)·e^(−kt) + (w·M/C)·(1 − e^(−kt))/k

Masses g, temperatures C, heats J. Friction, loss and bowl constants are judgement; the heat of
hydration is published (about 15 J per g flour at 14 % moisture, from memory); the balance is analytic.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import NamedTuple

from brassclock.core.cautions import Caution, caution
from brassclock.core.errors import invalid
from brassclock.core.evidence import Input, Kind, Param, Why
from brassclock.core.matter.ingredients import Ingredient

WATER_J_GK = 4.18
FUSION_J_G = Param(333.6, "J/g", 333, 335, Kind.PUBLISHED_FROM_MEMORY, "melting of ice")
PARAMS = {
    "hydration_j_g": Param(15.1, "J/g flour", 8, 20, Kind.PUBLISHED_FROM_MEMORY, "about 6.5 Btu/lb at 14 % moisture"),
    "friction_hand": Param(0.35, "J/(g min)", 0.2, 0.6, Kind.JUDGEMENT, "set to reason, not measured"),
    "friction_planetary": Param(2.6, "J/(g min)", 2.0, 3.2, Kind.JUDGEMENT, "set to reason, not measured"),
    "friction_spiral": Param(2.6, "J/(g min)", 1.8, 3.5, Kind.JUDGEMENT, "set to reason, not measured"),
    "friction_processor": Param(28.0, "J/(g min)", 15, 40, Kind.JUDGEMENT, "set to reason, not measured"),
    "stirring_total": Param(0.8, "J/g", 0.4, 1.5, Kind.JUDGEMENT, "three minutes with a spoon, in all"),
    "loss_hand": Param(0.020, "1/min at 1 kg", 0.01, 0.04, Kind.JUDGEMENT, "thin sheet on a bench"),
    "loss_bowl": Param(0.008, "1/min at 1 kg", 0.004, 0.02, Kind.JUDGEMENT, "dough in a bowl"),
}
BOWL_J_GK_FROM = "handbook order"
BOWL_J_GK = {
    "steel": Param(0.49, "J/(g K)", 0.392, 0.588, Kind.PUBLISHED_FROM_MEMORY, BOWL_J_GK_FROM),
    "glass": Param(0.84, "J/(g K)", 0.672, 1.008, Kind.PUBLISHED_FROM_MEMORY, BOWL_J_GK_FROM),
    "ceramic": Param(0.88, "J/(g K)", 0.704, 1.056, Kind.PUBLISHED_FROM_MEMORY, BOWL_J_GK_FROM),
    "plastic": Param(1.7, "J/(g K)", 1.36, 2.04, Kind.PUBLISHED_FROM_MEMORY, BOWL_J_GK_FROM),
    "wood": Param(1.7, "J/(g K)", 1.36, 2.04, Kind.PUBLISHED_FROM_MEMORY, BOWL_J_GK_FROM),
}
METHODS = ("hand", "no_knead", "planetary", "spiral", "processor", "none")
YEAST_LIMIT_C = {"yeast_instant": 43.0, "yeast_osmotolerant": 43.0, "yeast_active": 43.0, "yeast_fresh": 38.0}
NO_YEAST_LIMIT_C = 90.0  # a liquid that is poured, where nothing in the bowl lives
DEFAULT_LIMIT_C = Param(54.0, "C", 45, 60, Kind.PRACTICE, "yeast dry in the flour")
RULE_FACTOR_C = {"hand": 3.0, "no_knead": 0.0, "none": 0.0}
MACHINE_FACTOR_C = Param(8.0, "C", 4, 14, Kind.PRACTICE, "friction of a machine in the rule of three temperatures")
ICE_OF = "water"  # the only liquid that goes in as ice
COLDEST_C = 0.5  # a liquid that is poured


@dataclass(frozen=True)
class Part:
    """A mass of an ingredient and its temperature as it goes in [g, C]."""

    ingredient: Ingredient
    mass_g: float
    temp_c: float


@dataclass(frozen=True)
class Bowl:
    """The bowl [g], its material and temperature [C]."""

    mass_g: float
    material: str
    temp_c: float


@dataclass(frozen=True)
class Kneading:
    """Mixing: method, minutes, room [C]; friction over the table's, learned here."""

    method: str
    minutes: float
    room_c: float
    friction_factor: float = 1.0


@dataclass(frozen=True)
class Other:
    """Another part of the bowl that could bring the dough home, and the temperature it would need [C]."""

    ingredient: str
    temp_c: float


@dataclass(frozen=True)
class MixHeat:
    """Temperature of the mixed dough, and the liquid's for that (None when it cannot be) [C]."""

    dough_temp_c: float
    liquid_temp_c: float | None
    wanted_liquid_c: float | None
    limit_c: float
    ice_g: float
    contributions: tuple[tuple[str, float], ...]
    rule_liquid_c: float | None
    rule_factor_c: float | None
    cautions: tuple[Caution, ...]
    advice: str
    others: tuple[Other, ...]
    why: dict[str, Why]


def _constants(parts: Sequence[Part], bowl: Bowl | None, kneading: Kneading) -> tuple[float, float, float, float]:
    """(heat capacity J/K, loss rate 1/min, friction J/min, friction at once J)."""
    mass = sum(p.mass_g for p in parts)
    capacity = sum(p.mass_g * p.ingredient.cp_j_gk for p in parts)
    capacity += bowl.mass_g * BOWL_J_GK[bowl.material] if bowl else 0.0
    bench = "loss_hand" if kneading.method == "hand" else "loss_bowl"
    loss = PARAMS[bench].value * (1000 / mass) ** (1 / 3) if kneading.method != "none" else 0.0
    per_min = PARAMS[f"friction_{kneading.method}"].value if f"friction_{kneading.method}" in PARAMS else 0.0
    at_once = PARAMS["stirring_total"].value * mass if kneading.method == "no_knead" else 0.0
    return capacity, loss, per_min * mass * kneading.friction_factor, at_once * kneading.friction_factor


def _landing(start_c: float, capacity: float, loss: float, friction_w: float, kneading: Kneading) -> float:
    kept = math.exp(-loss * kneading.minutes)
    warmed = friction_w / capacity * ((1 - kept) / loss if loss else kneading.minutes)
    return kneading.room_c + (start_c - kneading.room_c) * kept + warmed


def bare_mixed_temp_c(parts: Sequence[Part], bowl: Bowl | None = None) -> float:
    """Temperature of the parts poured together [C], no friction, no heat of hydration."""
    capacity = sum(p.mass_g * p.ingredient.cp_j_gk for p in parts)
    heat = sum(p.mass_g * p.ingredient.cp_j_gk * p.temp_c for p in parts)
    if bowl:
        capacity += bowl.mass_g * BOWL_J_GK[bowl.material]
        heat += bowl.mass_g * BOWL_J_GK[bowl.material] * bowl.temp_c
    return heat / capacity


def mixed_temp_c(parts: Sequence[Part], bowl: Bowl | None, kneading: Kneading) -> float:
    """Dough temperature at the end of kneading [C]."""
    capacity, loss, friction_w, at_once = _constants(parts, bowl, kneading)
    flour_g = sum(p.mass_g * p.ingredient.flour_frac for p in parts)
    start = bare_mixed_temp_c(parts, bowl) + (PARAMS["hydration_j_g"].value * flour_g + at_once) / capacity
    return _landing(start, capacity, loss, friction_w, kneading)


def ice_mass_g(liquid_g: float, have_c: float, need_c: float) -> float:
    """Ice to swap for liquid at `have_c` so that it acts as liquid at `need_c` [g].

    >>> round(ice_mass_g(325, 25, 10), 1)
    46.5
    """
    return max(0.0, liquid_g * WATER_J_GK * (have_c - need_c) / (WATER_J_GK * have_c + FUSION_J_G))


def yeast_limit_c(parts: Sequence[Part]) -> float:
    """The hottest liquid that may meet the yeast of this bowl [C]. Common practice."""
    limits = [YEAST_LIMIT_C[p.ingredient.id] for p in parts if p.ingredient.id in YEAST_LIMIT_C]
    if not limits and not any(p.ingredient.is_ferment for p in parts):
        return NO_YEAST_LIMIT_C
    return min(limits, default=DEFAULT_LIMIT_C)


KNEADING_SD_LOG = Param(0.18, "-", 0.1, 0.3, Kind.JUDGEMENT, "of one kneading about how this kitchen kneads")
THERMOMETER_K = Param(0.5, "K", 0.2, 1.0, Kind.JUDGEMENT, "of a thermometer stuck into a dough")
LEAST_WARMING_K = 0.2  # judgement: of friction that a thermometer can tell


def friction_seen(
    parts: Sequence[Part], bowl: Bowl | None, kneading: Kneading, seen_c: float
) -> tuple[float, float] | None:
    """Friction over the table's that would have landed the dough at `seen_c`, held within .2 to 4, and its spread in
    the logarithm.

    The spread is that of one kneading, and of the thermometer over what the table's friction warms: by hand, where that
    is about a kelvin, a reading teaches little. None where mixing warms too little to tell.
    """
    still = mixed_temp_c(parts, bowl, replace(kneading, friction_factor=0.0))
    warms_k = mixed_temp_c(parts, bowl, replace(kneading, friction_factor=1.0)) - still
    if warms_k < LEAST_WARMING_K:
        return None
    factor = min(4.0, max(0.2, (seen_c - still) / warms_k))
    return factor, math.hypot(KNEADING_SD_LOG, THERMOMETER_K / warms_k)


def _others(
    parts: Sequence[Part], at: int, bowl: Bowl | None, kneading: Kneading, target_c: float, limit_c: float
) -> list[Other]:
    """Flour or another liquid at the temperature that lands the dough, the solved liquid held at its limit."""
    found = []
    for k, part in enumerate(parts):
        row = part.ingredient
        if k == at or not (row.flour_frac > 0.5 or row.counted_water_frac > 0.5) or part.mass_g < 20 or row.is_yeast:
            continue

        def landing(temp_c: float, k: int = k) -> float:
            trial = [Part(p.ingredient, p.mass_g, temp_c if i == k else p.temp_c) for i, p in enumerate(parts)]
            return mixed_temp_c(trial, bowl, kneading)

        zero, slope = landing(0.0), landing(1.0) - landing(0.0)
        need_c = (target_c - zero) / slope
        if 2.0 <= need_c <= limit_c:
            found.append(Other(row.id, need_c))
    return found


def mix_heat(
    parts: Sequence[Part],
    bowl: Bowl | None,
    kneading: Kneading,
    solve_for: str | None = None,
    target_c: float | None = None,
    tap_c: float | None = None,
) -> MixHeat:
    """The heat account; with `solve_for` (an ingredient id) also that liquid's temperature for `target_c`.

    The landing is linear in any one temperature, so the inverse is exact. A liquid outside 0 C to the
    yeast limit is refused as an answer (liquid_temp_c None), with advice what else to change; the landing
    is then the one with the liquid at that limit.
    """
    if not parts:
        raise invalid("/parts", "Nothing is in the bowl. Give at least one part.")
    if kneading.method not in METHODS:
        raise invalid("/method", f"“{kneading.method}” is no mixing method. Use {', '.join(METHODS)}.")
    limit = yeast_limit_c(parts)
    if solve_for is None or target_c is None:
        dough_c = mixed_temp_c(parts, bowl, kneading)
        account, whys = (
            _account(parts, bowl, kneading, dough_c),
            _whys(parts, kneading, dough_c, None, solve_for, target_c),
        )
        return MixHeat(dough_c, None, None, limit, 0.0, account, None, None, (), "", (), whys)
    found = _solved(parts, bowl, kneading, solve_for, target_c, limit, kneading.room_c if tap_c is None else tap_c)
    dough_c = mixed_temp_c(found.used, bowl, kneading)
    flour_c = next((p.temp_c for p in parts if p.ingredient.flour_frac > 0.5), kneading.room_c)
    base = 3 * target_c - flour_c - kneading.room_c
    return MixHeat(
        dough_c,
        found.liquid_c,
        found.wanted_c,
        limit,
        found.ice_g,
        _account(found.used, bowl, kneading, dough_c),
        base - RULE_FACTOR_C.get(kneading.method, MACHINE_FACTOR_C),
        base - found.wanted_c,
        found.cautions,
        found.advice,
        found.others,
        _whys(found.used, kneading, dough_c, found.wanted_c, solve_for, target_c),
    )


class _Solution(NamedTuple):
    """The liquid that lands the dough where it is wanted: its temperature (None: it cannot be had), the one it would
    take, the parts as they go in, ice [g], and what to do instead."""

    liquid_c: float | None
    wanted_c: float
    used: list[Part]
    ice_g: float = 0.0
    advice: str = ""
    others: tuple[Other, ...] = ()
    cautions: tuple[Caution, ...] = ()


def _solved(
    parts: Sequence[Part],
    bowl: Bowl | None,
    kneading: Kneading,
    solve_for: str,
    target_c: float,
    limit_c: float,
    tap_c: float,
) -> _Solution:
    """Solve for one part's temperature [C]; the landing is linear in it."""
    where = [i for i, p in enumerate(parts) if p.ingredient.id == solve_for]
    if not where:
        raise invalid("/solve/for", f"“{solve_for}” is not among the parts. Name one that is.")
    at, part = where[0], parts[where[0]]

    def with_it(temp_c: float) -> list[Part]:
        return [*parts[:at], Part(part.ingredient, part.mass_g, temp_c), *parts[at + 1 :]]

    def landing(temp_c: float) -> float:
        return mixed_temp_c(with_it(temp_c), bowl, kneading)

    zero, slope = landing(0.0), landing(1.0) - landing(0.0)
    wanted = (target_c - zero) / slope
    if wanted > limit_c:
        advice = (
            f"Even at {limit_c:.0f} C the dough lands at {landing(limit_c):.1f} C. Warm the flour or the bowl, "
            "or let the dough rise somewhere warmer."
        )
        used = with_it(limit_c)
        others = tuple(_others(used, at, bowl, kneading, target_c, limit_c))
        warned = (caution("yeast_limit", f"{wanted:.0f} C would be needed."),) if limit_c < NO_YEAST_LIMIT_C else ()
        return _Solution(None, wanted, used, 0.0, advice, others, warned)
    if wanted < COLDEST_C:
        frozen = part.ingredient.id == ICE_OF
        ice_g = ice_mass_g(part.mass_g, tap_c, wanted) if frozen else 0.0
        advice = f"Colder than water can be: put {ice_g:.0f} g of it in as ice, or chill the flour."
        if not frozen:
            advice = f"Colder than {part.ingredient.name.lower()} can be poured: chill the flour and the bowl."
        others = tuple(_others(with_it(COLDEST_C), at, bowl, kneading, target_c, limit_c))
        return _Solution(None, wanted, with_it(wanted), ice_g, advice, others)
    ice_g = ice_mass_g(part.mass_g, tap_c, wanted) if wanted < tap_c - 0.5 and part.ingredient.id == ICE_OF else 0.0
    return _Solution(wanted, wanted, with_it(wanted), ice_g)


def _account(
    parts: Sequence[Part], bowl: Bowl | None, kneading: Kneading, dough_c: float
) -> tuple[tuple[str, float], ...]:
    """Heat each contributor brings relative to where the dough lands [J]; the rows add up to zero."""
    _, _, friction_w, at_once = _constants(parts, bowl, kneading)
    rows = [(p.ingredient.id, p.mass_g * p.ingredient.cp_j_gk * (p.temp_c - dough_c)) for p in parts]
    if bowl:
        rows.append(("bowl", bowl.mass_g * BOWL_J_GK[bowl.material] * (bowl.temp_c - dough_c)))
    flour_g = sum(p.mass_g * p.ingredient.flour_frac for p in parts)
    rows.append(("wetting of flour", PARAMS["hydration_j_g"].value * flour_g))
    rows.append(("kneading", friction_w * kneading.minutes + at_once))
    rows.append(("lost to the bench", -sum(heat for _, heat in rows)))
    return tuple(rows)


def _whys(
    parts: Sequence[Part],
    kneading: Kneading,
    dough_c: float,
    wanted: float | None,
    solve_for: str | None,
    target_c: float | None,
) -> dict[str, Why]:
    inputs = tuple(Input(f"{p.ingredient.name}, {p.mass_g:.0f} g", round(p.temp_c, 1), "°C") for p in parts)
    inputs += (Input("room", kneading.room_c, "°C"), Input(f"kneading, {kneading.method}", kneading.minutes, "min"))
    relation = "T = (Σ m·c·T + C_b·T_b + q·m_flour + friction − loss) / (Σ m·c + C_b)"
    sources = ("heat of wetting 15 J per g flour: published, from memory", "friction and bench loss: judgement")
    why = {
        "dough_temp_c": Why(
            "Dough temperature",
            relation,
            "Everything in the bowl shares its heat; wetting the flour and kneading add some, the bench takes some.",
            inputs,
            Kind.JUDGEMENT,
            "about 1 °C either way",
            ("the liquid: it carries most of the heat", "flour temperature"),
            sources,
        )
    }
    if wanted is not None:
        why["liquid_temp_c"] = Why(
            "Liquid temperature",
            relation + ", solved for the liquid",
            f"The one temperature of {solve_for} that lands the dough at {target_c:g} °C.",
            inputs,
            Kind.JUDGEMENT,
            "about 2 °C either way",
            ("flour temperature", "kneading minutes", "the bowl"),
            sources,
        )
    return why
