"""A recipe that is brought in: what its steps say becomes the settings of a bake, each told with the words it stands
in."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import partial
from typing import Any

from pydantic import ValidationError

from brassclock.core.day.places import DEFAULTS
from brassclock.core.fire.surfaces import KINDS
from brassclock.core.spoken import numbered
from brassclock.core.weigh.recipe_steps import Fact
from brassclock.services.day.steps import hours_text
from brassclock.services.rise.spec import end_stage
from brassclock.services.schemas.bake import BakeUpdate
from brassclock.services.schemas.rise import ColdUpdate
from brassclock.services.schemas.weigh import TakenRead
from brassclock.store.tables import Bake, Surface

KNEADED_BY = {
    "processor": "in a food processor",
    "planetary": "in a stand mixer",
    "spiral": "in a spiral mixer",
    "no_knead": "without kneading",
}
SIZES = {1.5: "grown by half", 2.0: "doubled", 3.0: "tripled"}
SETTINGS: dict[str, tuple[str, Callable[[Any], str]]] = {  # a fact's key: the bake's, and how it is told
    "pieces": ("count", partial(numbered, one="piece")),
    "piece_g": ("piece_g", "{:g} g each".format),
    "thickness_mm": ("thickness_mm", "{:g} mm thick".format),
    "diameter_cm": ("diameter_cm", "{:g} cm across".format),
    "length_cm": ("length_cm", "{:g} cm long".format),
    "width_cm": ("width_cm", "{:g} cm wide".format),
    "knead_min": ("knead_min", "kneaded for {:g} min".format),
    "dough_c": ("dough_c", "dough wanted at {:g} C".format),
}
WHOLE = ("count",)
NOT_COMPUTED = "which is not computed here"


def put_facts(bake: Bake, facts: Sequence[Fact], surfaces: Sequence[Surface]) -> list[TakenRead]:
    """Set a bake by what its recipe says; answers how each was taken. What lies outside its range is told and not
    taken."""
    found = {f.key: f for f in facts}
    taken = _unsaid(bake, found) + [_set(bake, found[key], *SETTINGS[key]) for key in SETTINGS if key in found]
    taken += _shape(bake, found)
    if "knead_by" in found:
        by = str(found["knead_by"].value)
        grows = any(x["ingredient"].startswith(("yeast_", "starter_")) for x in bake.lines)
        bake.knead = by if grows or by != "no_knead" else "none"
        taken.append(TakenRead(text=KNEADED_BY[by], words=found["knead_by"].words))
    taken += _sponge(bake, found)
    taken += _stage(bake, "bulk", "the dough", found)
    taken += _stage(bake, "ball", "the balls", _with_shaped(found))
    return [*taken, *_places(bake, found), *_left(found), *_surface(bake, found, surfaces)]


def _places(bake: Bake, found: Mapping[str, Fact]) -> list[TakenRead]:
    """The places of a dough and of its balls; a temperature that the recipe reckons with is told, for this kitchen
    has its own."""
    told = []
    for stage, what in (("bulk", "the dough"), ("ball", "the balls"), ("sponge", "the sponge")):
        place, at = found.get(f"{stage}_place"), found.get(f"{stage}_c")
        if place is not None and stage == "sponge":
            where = DEFAULTS[str(place.value)].name
            told.append(
                TakenRead(text=f"not taken: the sponge in {where}; here it is in the kitchen", words=place.words)
            )
        elif place is not None:
            setattr(bake, f"{stage}_place", place.value)
            told.append(TakenRead(text=f"{what} in {DEFAULTS[str(place.value)].name}", words=place.words))
        elif at is not None:
            text = f"not taken: {what} at {at.value:g} C; here it is as warm as its place is"
            told.append(TakenRead(text=text, words=at.words))
    return told


def _shape(bake: Bake, found: Mapping[str, Fact]) -> list[TakenRead]:
    """The form of the breads, and what is in or on them."""
    told = []
    if {"length_cm", "width_cm"} <= found.keys():
        bake.shape = "oval"
    elif "quarters" in found:
        bake.shape = "quarter"
        told.append(TakenRead(text="quarters of a round", words=found["quarters"].words))
    if "filling_g" in found and bake.filling:
        grams = found["filling_g"]
        bake.filling = {**bake.filling, "per_piece_g": float(grams.value)}
        told.append(TakenRead(text=f"{grams.value:g} g of {_inside(bake)} each", words=grams.words))
    if "colour" in found:
        bake.doneness = str(found["colour"].value)
        told.append(TakenRead(text=f"baked until it is {bake.doneness}", words=found["colour"].words))
    if "docked" in found:
        bake.docked = True
        told.append(TakenRead(text="docked all over: no pocket is wanted", words=found["docked"].words))
    return told


def _left(found: Mapping[str, Fact]) -> list[TakenRead]:
    """Facts of a recipe that a bake has no place for, each told."""
    days = None if "cold_h" in found else found.get("cold_days")
    left: list[tuple[Fact | None, str]] = [
        (found.get("bulk_again"), "a second rise of the dough, {hours}: it is planned until it has its size once"),
        (None if "cold_h" in found else found.get("cold_till"), "in the fridge: how many hours is not written"),
        (found.get("tin"), "a tin of {fact.value}; give the pieces their number and size on Weigh"),
        (found.get("cold_again"), "a second time in the fridge, {hours}"),
        (found.get("other_way"), "the other way: {fact.value}"),
        (days, "up to {fact.value:g} days in the fridge; set its hours there on Rise, under stages"),
    ]
    told = [(f, text.format(fact=f, hours="" if isinstance(f.value, str) else _hours(f))) for f, text in left if f]
    return [TakenRead(text=f"not taken: {text}", words=f.words) for f, text in told]


def _inside(bake: Bake) -> str:
    """Name and place of a filling, as `filling in`."""
    return "topping on" if (bake.filling or {}).get("topping") else "filling in"


def _with_shaped(found: Mapping[str, Fact]) -> dict[str, Fact]:
    """Facts with the rise of what is rolled told as part of the balls' wait: the plan rolls a bread when it is
    cooked."""
    shaped, balls = found.get("shaped_h"), found.get("ball_h")
    if shaped is None:
        return dict(found)
    if balls is None:
        return {**found, "ball_h": replace(shaped, key="ball_h")}
    low, high = (float(balls.value) + float(shaped.value)), (balls.high or balls.value, shaped.high or shaped.value)
    most = float(high[0]) + float(high[1])
    words = f"{balls.words}, {shaped.words}"
    return {**found, "ball_h": Fact("ball_h", low, words, most if most > low else None)}


def _unsaid(bake: Bake, found: Mapping[str, Fact]) -> list[TakenRead]:
    """Clear what a bake from nothing has and the recipe says otherwise, and tell what stays of it."""
    told = []
    if "pieces" in found or "piece_g" in found:
        bake.count = bake.piece_g = None
    else:
        bake.count = None
        told.append(f"no number is written: pieces of {bake.piece_g:g} g")
    if found.keys() & {"thickness_mm", "diameter_cm", "length_cm"}:
        bake.diameter_cm = bake.thickness_mm = None
    else:
        told.append(f"no size is written: {bake.diameter_cm:g} cm across")
    if any(x["part"] == "sponge" for x in bake.lines) and "sponge_h" not in found:
        told.append("no time is written for the sponge: give it one on Rise, under stages")
    return [TakenRead(text=text, words="") for text in told]


def _set(bake: Bake, fact: Fact, name: str, told: Callable[[Any], str]) -> TakenRead:
    value = int(fact.value) if name in WHOLE else fact.mid
    if not _can_be(name, value):
        return TakenRead(text=f"not taken: {told(value)} is out of range", words=fact.words)
    setattr(bake, name, value)
    text = told(value)
    if fact.high is not None:
        text += f", of {fact.value:g} to {fact.high:g}"
    return TakenRead(text=text, words=fact.words)


def _can_be(name: str, value: Any) -> bool:
    """True if a bake takes such a setting."""
    try:
        BakeUpdate.model_validate({name: value})
    except ValidationError:
        return False
    return True


def _hours(fact: Fact) -> str:
    """A stretch of time as a cook says it."""
    low = hours_text(float(fact.value))
    return low if fact.high is None else f"{low} to {hours_text(fact.high)}"


def _sponge(bake: Bake, found: Mapping[str, Fact]) -> list[TakenRead]:
    fact = found.get("sponge_h")
    if fact is None or not any(x["part"] == "sponge" for x in bake.lines):
        return []
    if not _can_be("sponge_h", fact.mid):
        return [TakenRead(text=f"not taken: a sponge of {_hours(fact)}", words=fact.words)]
    bake.sponge_h = fact.mid
    return [TakenRead(text=f"the sponge stands {_hours(fact)}", words=fact.words)]


def _stage(bake: Bake, which: str, what: str, found: Mapping[str, Fact]) -> list[TakenRead]:
    """The wait of a dough or of its balls: by its size, by a time, in the cold, or none."""
    hours, size, out = found.get(f"{which}_h"), found.get(f"{which}_x"), found.get(f"{which}_out_h")
    cold = found.get("cold_h") if "cold_of" in found and found["cold_of"].value == which else None
    if cold is not None:
        stay: dict[str, Any] = {"stage": which, "hours": cold.mid}
        if hours:
            stay["after_h"] = min(float(hours.value), 48.0)
        if not _can_be("cold", stay):
            return [TakenRead(text=f"not taken: {_hours(cold)} in the fridge", words=cold.words)]
        bake.cold = ColdUpdate.model_validate(stay).model_dump()
        _end(bake, which, out)
        first = f"{what} {'after ' + hours_text(stay['after_h']) if hours else 'at once'} into the fridge"
        text = f"{first} for {hours_text(cold.mid)}" + (f", then {_hours(out)} out of it" if out else "")
        if cold.high is not None:
            text += f"; of {_hours(cold)}"
        return [TakenRead(text=text, words=cold.words)]
    if size is not None:
        ratio = float(size.value)
        setattr(bake, f"{which}_end", "rise")
        setattr(bake, f"{which}_ratio", ratio)
        also = f"; {_hours(hours)} is what it took elsewhere" if hours else ""
        return [
            TakenRead(
                text=f"until {what} {'have' if which == 'ball' else 'has'} {_grown(ratio)}{also}", words=size.words
            )
        ]
    if hours is not None:
        _end(bake, which, hours)
        return [TakenRead(text=f"{what} {_hours(hours)}", words=hours.words)]
    other = found.keys() & ({"bulk_h", "bulk_x", "cold_h"} if which == "ball" else {"ball_h", "ball_x"})
    if other and "pieces" in found:
        _end(bake, which, None)
        when = "after dividing" if which == "ball" else "before dividing"
        return [TakenRead(text=f"no wait {when}: none is written", words="")]
    return []


def _grown(ratio: float) -> str:
    return SIZES.get(ratio) or f"grown {ratio:g} times"


def _end(bake: Bake, which: str, hours: Fact | None) -> None:
    """End a stage after so many hours; at once where there are none."""
    end_stage(bake, which, "skip" if hours is None else f"{hours.value:g} to {hours.high or hours.value:g} h")


def _surface(bake: Bake, found: Mapping[str, Fact], surfaces: Sequence[Surface]) -> list[TakenRead]:
    """The surface of the kitchen that is of the recipe's kind; told where there is none."""
    fact, heat = found.get("baked_on"), found.get("oven_c")
    other = found.get("heat_elsewhere")
    told = fact or other or heat
    if told is None:
        return []
    kind = KINDS[str(fact.value)].name.lower() if fact else f"{other.value}, {NOT_COMPUTED}" if other else "an oven"
    at = f", {heat.value:g} C" if heat else ""
    mine = next((s for s in surfaces if fact and s.kind == fact.value), None)
    if mine is not None:
        bake.surface_id = mine.id
        return [TakenRead(text=f"on {mine.name} at its own heat; the recipe's own: {kind}{at}", words=told.words)]
    now = next((s.name for s in surfaces if s.id == bake.surface_id), None)
    here = f"it is planned on {now}" if now else "name a surface of this kitchen"
    return [TakenRead(text=f"the recipe's own: {kind}{at}; here {here}", words=told.words)]
