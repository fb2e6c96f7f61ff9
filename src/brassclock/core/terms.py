"""The words that the computation accepts, each list defined once: schemas, file formats and the web take them from
here."""

from __future__ import annotations

from typing import Literal, get_args

Strength = Literal["developed", "kneaded", "enriched", "wet_unkneaded", "wholemeal"]
KneadMethod = Literal["hand", "no_knead", "planetary", "spiral", "processor", "none"]
BowlMaterial = Literal["steel", "glass", "ceramic", "plastic", "wood"]
PieceShape = Literal["round", "oval", "quarter"]
Powder = Literal["double", "single", "phosphate"]
SpoonSystem = Literal["us", "metric"]
PlaceKey = Literal["bench", "warm_spot", "oven_light", "proof_box", "cellar", "fridge"]
StageEnd = Literal["rise", "time", "skip"]
StageKey = Literal["bulk", "ball"]
ReadingKind = Literal["ratio", "jar", "feel", "dough_c"]
Feel = Literal["not_yet", "just", "past"]
SurfaceKind = Literal[
    "stone_oven",
    "steel_oven",
    "iron_plate",
    "skillet",
    "clay_wall",
    "inverted_plate",
    "lidded_pan",
    "flame_oven",
    "oil",
    "pan_then_grill",
    "oven_tray",
]
SurfaceSize = Literal["home", "canteen"]
Power = Literal["low", "medium_low", "medium", "medium_high", "high"]
Fuel = Literal["gas", "ceramic", "charcoal", "electric"]
Greased = Literal["dry", "film", "pool"]
Colour = Literal["pale", "light", "golden", "charred"]
HeatAct = Literal["face_a", "face_b", "cover", "uncover", "edge", "grill", "rotate", "spray", "top", "finish_oven"]
HeatUntil = Literal["golden", "puffed", "bubbles", "cue"]
DressingTime = Literal["before", "after_turn", "after_heat"]
Face = Literal["face_a", "face_b"]
HeatSource = Literal["usual", "typed", "sign", "infrared", "contact", "first_bread", "habit", "oven", "oil"]
StepKey = Literal["weigh", "sponge", "mix", "ball", "cold_in", "cold_out", "preheat", "roll"]
STEPS: tuple[StepKey, ...] = get_args(StepKey)
MoveKey = Literal["load", "turn", "off"]
Pocket = Literal["full", "part", "flat"]
FaceColour = Literal["pale", "right", "dark"]
Tender = Literal["tender", "chewy", "tough"]
StarterState = Literal["peak", "ripe", "chilled"]
MassUnit = Literal["g", "oz"]
TempUnit = Literal["C", "F"]
LeafKey = Literal["weigh", "mix", "rise", "fire", "keep"]
Intent = Literal["pocket", "blister", "flat", "thick", "fried", "rolls"]
Wrap = Literal["open", "rack", "cloth", "bag", "hot_box", "fridge", "freezer"]
Fault = Literal[
    "flat", "part_pocket", "one_side", "burst", "pale", "scorched", "raw_inside", "doughy_middle", "stiff", "tough",
    "soapy", "sour", "shrank", "fell_off", "stuck", "doughy_edges",
]  # fmt: skip
CauseVerdict = Literal["likely", "perhaps", "not_enough_known"]
FrozenWrap = Literal["bag", "double", "loose"]
