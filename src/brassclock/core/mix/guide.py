"""Guide at the bowl: order of adding, bloom and its test, kneading with tests of readiness, cues for warmth.

Common practice throughout, marked so wherever it is shown; the bloom test's scale is judgement.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.dough import Dough

PRESSED_MIN = 4.0  # practice: so short a kneading is none: it brings the dough together
COOL_C = 25.0  # a liquid that blooms no yeast
BLOOM_C = (38.0, 43.0)
BLOOM_MIN = Param(10.0, "min", 5, 15, Kind.PRACTICE, "yeast left to foam")
DEAD_AFTER_MIN = Param(15.0, "min", 10, 20, Kind.PRACTICE, "no foam by then: dead")
LIVELY_FOAM_MIN = Param(7.0, "min", 4, 10, Kind.PRACTICE, "fresh stock foams by then")
FOAM_SD_LOG = Param(0.25, "-", 0.1, 0.4, Kind.JUDGEMENT, "of the activity that a foam test tells")
CUES = (  # practice: what a wrist or a finger says, and about what temperature that is
    ("Cold to the finger", 5, 14),
    ("Cool, not cold", 15, 22),
    ("Neither warm nor cool on the wrist", 30, 36),
    ("Wrist-warm: pleasantly warm", 37, 40),
    ("Bath-hot, a finger stays in", 41, 45),
    ("Too hot to keep a finger in", 48, 60),
)


@dataclass(frozen=True)
class GuideStep:
    """A step at the bowl: what, for how many minutes (0: no clock)."""

    text: str
    minutes: float = 0.0


@dataclass(frozen=True)
class BloomTest:
    """Result of a foam test: the yeast's activity over fresh stock, the spread of its log, the sentence."""

    activity: float | None
    sd_log: float
    text: str


def cue_for(temp_c: float) -> str:
    """Words for the feel of a temperature; empty between the cues."""
    return next((words for words, low, high in CUES if low - 1 <= temp_c <= high + 1), "")


def bloom_test(minutes_to_foam: float | None) -> BloomTest:
    """Read the foam: None is no foam by 15 min. Activity is about 7 min over the minutes, .3 to 1.2 (judgement).

    >>> bloom_test(14).activity
    0.5
    """
    if minutes_to_foam is None or minutes_to_foam > DEAD_AFTER_MIN:
        text = f"No foam after {DEAD_AFTER_MIN:.0f} min means dead yeast. Throw it away and take another."
        return BloomTest(None, FOAM_SD_LOG, text)
    activity = min(1.2, max(0.3, LIVELY_FOAM_MIN / max(minutes_to_foam, 1.0)))
    if activity >= 0.85:
        text = "Lively yeast: the plan stands."
    else:
        text = f"Tired yeast, about {activity:.0%} of its strength: the rise is forecast slower. More of it helps."
    return BloomTest(activity, FOAM_SD_LOG, text)


def wants_bloom(dough: Dough) -> bool:
    """True for a dough whose yeast is woken in warm liquid before it meets the flour."""
    return any(p.ingredient.id == "yeast_active" for p in dough.portions)


def bloom_text(dough: Dough, liquid_c: float | None = None) -> str:
    """Sentence on the bloom that this dough's yeast wants; empty for one that wants none.

    `liquid_c` is the temperature of the bowl's liquid, where it is known: a cold one is kept apart from the bloom.
    """
    ids = {p.ingredient.id for p in dough.portions if p.ingredient.is_yeast}
    if not ids:
        return ""
    if wants_bloom(dough):
        return (
            f"Bloom it: part of the liquid at {BLOOM_C[0]:.0f} to {BLOOM_C[1]:.0f} C, a pinch of sugar, "
            f"{BLOOM_MIN:.0f} min, until it "
            f"foams. No foam after {DEAD_AFTER_MIN:.0f} min means dead yeast."
            + (" Only a few spoons of it: the rest goes in cold." if liquid_c is not None and liquid_c < COOL_C else "")
        )
    if "yeast_fresh" in ids:
        return "Crumble it into liquid of 38 C at most and stir; it needs no wait."
    return "Stir it into the flour; no bloom. If you doubt it, try a pinch in warm sweet water: it foams within 10 min."


def order_of_adding(dough: Dough) -> tuple[str, ...]:
    """An order in which yeast and salt never meet dry, and chemical leavens meet the acid last."""
    ids = {p.ingredient.id for p in dough.portions}
    yeast = any(p.ingredient.is_yeast for p in dough.portions)
    starter = any(p.ingredient.is_starter for p in dough.portions)
    powder = ids & {"baking_powder", "baking_soda"} or any(p.ingredient.contains for p in dough.portions)
    fat = [p.ingredient.name.lower() for p in dough.portions if p.ingredient.group == "fat"]
    steps = []
    if starter:
        steps.append("Stir the starter into the liquid.")
    if "yeast_active" in ids or "yeast_fresh" in ids:
        steps.append("Yeast into part of the warm liquid.")
    flour = "Flour into the bowl"
    if ids & {"yeast_instant", "yeast_osmotolerant"}:
        flour += ", the dry yeast through it"
    if powder and not yeast:
        flour += ", powder and soda sifted through it"
    steps.append(flour + ".")
    steps.append(
        "Salt on the other side of the bowl, or into the liquid." if yeast or starter else "Salt through the flour."
    )
    steps.append("Liquids in, and mix until no dry flour is left.")
    if powder and yeast:
        steps.append("Soda sifted over last, worked in at once.")
    if fat:
        steps.append(f"{fat[0].capitalize()} when the flour is wet: it would keep the water out.")
    return tuple(steps)


TESTS = {
    "hand": (
        "No dough sticks to the fingers.",
        "A poke springs back slowly.",
        "A lump stretches thin without tearing.",
    ),
    "machine": (
        "It leaves the wall of the bowl.",
        "It is smooth and no warmer than 27 C.",
        "A lump stretches thin without tearing.",
    ),
    "no_knead": ("No dry flour is left.", "It looks shaggy; time does the rest."),
    "pressed": ("It is in one piece and nearly smooth; more work only tightens it.",),
    "none": ("It just holds together. Do not work it more.",),
}


def kneading_guide(method: str, minutes: float, strength: str) -> tuple[tuple[GuideStep, ...], tuple[str, ...]]:
    """(timed steps, tests of readiness) for a way of mixing and the strength wanted."""
    if method == "none":
        return (GuideStep("Stir until it just comes together; stop.", max(minutes, 1.0)),), TESTS["none"]
    if method == "no_knead":
        folds = GuideStep("Cover. With wet hands fold it over itself four times after 30 and 60 min.")
        return (GuideStep("Stir with a spoon until no dry flour is left.", 3.0), folds), TESTS["no_knead"]
    if method == "hand" and minutes <= PRESSED_MIN:
        press = GuideStep("Press it together until it is smooth, then stop.", minutes)
        return (GuideStep("Mix until no dry flour is left.", 2.0), press), TESTS["pressed"]
    if method == "hand":
        rest = GuideStep("Cover and let it rest: the flour drinks, the kneading gets shorter.", 5.0)
        short = strength in ("wet_unkneaded", "wholemeal")
        kneads = GuideStep("Fold and press; turn a quarter each time.", minutes * (0.6 if short else 1.0))
        return (GuideStep("Mix until no dry flour is left.", 2.0), rest, kneads), TESTS["hand"]
    slow = min(3.0, minutes / 2)
    steps = (GuideStep("Slow, until it comes together.", slow), GuideStep("Second speed.", max(minutes - slow, 1.0)))
    return steps, TESTS["machine"]
