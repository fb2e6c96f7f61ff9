"""Soda against acid in a formula: what is left over when all that can react has reacted, and the cures.

Stoichiometry: NaHCO3 + HX -> CO2 (1:1 by mole); an acid's capacity is its neutralising value (grams
of soda per 100 g), a dairy's its titratable acidity as lactic acid. Flour buffer is judgement.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.evidence import Kind, Param
from brassclock.core.matter.acids import LACTIC_G_MOL, SODA_G_MOL, acids
from brassclock.core.matter.dough import Dough, Portion
from brassclock.core.matter.ingredients import Ingredient

WHITE_BUFFER_MMOL_G = Param(0.015, "mmol/g", 0.005, 0.03, Kind.JUDGEMENT, "white flour's own acid")
WHOLE_BUFFER_MMOL_G = Param(0.04, "mmol/g", 0.02, 0.06, Kind.JUDGEMENT, "wholemeal's own acid")
WHOLE_FLOURS = ("wholemeal", "atta", "spelt_whole", "rye_whole")
CO2_ML_PER_MMOL = 24.465  # ideal gas at 25 C and sea level
BALANCED = (-0.6, 0.10)
VERDICTS = (
    (-1.5, "sour"),
    (-0.6, "tangy, pale"),
    (0.10, "balanced"),
    (0.30, "browner"),
    (0.60, "yellow, taste of soda"),
)  # judgement: upper edge of excess in g per 100 g flour
SOAPY = "soapy, spots"
EFFECTS = {
    "sour": "Much acid is left: sour, slow to brown, tender; soda would raise it more.",
    "tangy, pale": "Some acid is left: a clean tang, paler crust.",
    "balanced": "Soda and acid meet: mild taste, even colour, all the gas there is.",
    "browner": "A little soda is left: browns sooner, no taste yet.",
    "yellow, taste of soda": "Soda is left: yellow crumb, strong browning, a taste of soda.",
    SOAPY: "Much soda is left: soapy, brown spots. Griddle tradition often sits here and is loved for it; it may "
    "stand.",
}
POWDERS: dict[str, tuple[tuple[str, float], ...]] = {  # practice: typical powders, grams per gram
    "double": (("baking_soda", 0.28), ("mcp", 0.12), ("sas", 0.20)),
    "single": (("baking_soda", 0.28), ("cream_tartar", 0.62)),
    "phosphate": (("baking_soda", 0.28), ("sapp28", 0.39)),
}
ACID_OF = {"lemon_juice": "citric", "vinegar5": "acetic", "cream_tartar": "cream_tartar"}


@dataclass(frozen=True)
class Weight:
    """Amount of an ingredient on the beam [mmol], on the `soda` or the `acid` side; `flour`: its own buffer."""

    name: str
    side: str
    mmol: float
    acid: str = ""
    flour: bool = False


@dataclass(frozen=True)
class Cure:
    """One press that brings the beam level: change an ingredient by so many grams, and what that does."""

    kind: str
    ingredient: str
    change_g: float
    text: str


@dataclass(frozen=True)
class SodaBalance:
    """Soda and acid [mmol], the excess of soda [g per 100 g flour; negative is acid], its word, the cures."""

    soda_mmol: float
    acid_mmol: float
    excess_g_per_100g_flour: float
    verdict: str
    effect: str
    gas_ml_per_100g_flour: float
    weights: tuple[Weight, ...]
    cures: tuple[Cure, ...]


def parts_of(row: Ingredient, powder: str = "double") -> tuple[tuple[str, float], ...]:
    """Soda and leavening acids inside an ingredient, [g per g]."""
    if row.id == "baking_powder":
        return POWDERS[powder]
    if row.id in ("baking_soda", "cream_tartar"):
        return ((row.id, 1.0),)
    return tuple((name, share) for name, share in row.contains if name == "baking_soda" or name in acids())


def weights_of(portion: Portion, powder: str = "double") -> list[Weight]:
    """Amounts of one portion on the beam [mmol]."""
    row, found = portion.ingredient, []
    for name, share in parts_of(row, powder):
        if name == "baking_soda":
            found.append(Weight(row.name, "soda", portion.mass_g * share / SODA_G_MOL * 1000))
        else:
            found.append(Weight(row.name, "acid", portion.mass_g * share * acids()[name].mmol_per_g, name))
    if row.acid_frac:
        acid = ACID_OF.get(row.id, "lactic_dairy")
        found.append(Weight(row.name, "acid", portion.mass_g * row.acid_frac / LACTIC_G_MOL * 1000, acid))
    if row.flour_frac and not row.is_starter:
        buffer = WHOLE_BUFFER_MMOL_G if row.id in WHOLE_FLOURS else WHITE_BUFFER_MMOL_G
        found.append(Weight(row.name, "acid", portion.mass_g * row.flour_frac * buffer, "flour_acid", True))
    return found


def soda_left(dough: Dough, powder: str = "double") -> float:
    """Soda over acid of a dough, its flour's own acid left out [g soda per 100 g flour]; negative is acid beyond it, 0
    without flour."""
    if not dough.flour_g:
        return 0.0
    weights = [w for p in dough.portions for w in weights_of(p, powder)]
    soda, acid, buffer = (
        sum(w.mmol for w in weights if w.side == side and w.flour == flour)
        for side, flour in (("soda", False), ("acid", False), ("acid", True))
    )
    over = soda - acid
    left = max(over - buffer, 0.0) if over > 0 else over
    return left * SODA_G_MOL / 1000 / dough.flour_g * 100


def verdict_of(excess_g_per_100g: float) -> str:
    """The word for an excess of soda [g per 100 g flour]."""
    return next((word for edge, word in VERDICTS if excess_g_per_100g < edge), SOAPY)


def soda_balance(dough: Dough, powder: str = "double") -> SodaBalance | None:
    """The balance of a dough, or None when it holds no soda at all."""
    weights = [w for p in dough.portions for w in weights_of(p, powder)]
    soda = sum(w.mmol for w in weights if w.side == "soda")
    acid = sum(w.mmol for w in weights if w.side == "acid")
    if soda == 0 or dough.flour_g == 0:
        return None
    excess = (soda - acid) * SODA_G_MOL / 1000 / dough.flour_g * 100
    verdict = verdict_of(excess)
    return SodaBalance(
        soda,
        acid,
        excess,
        verdict,
        EFFECTS[verdict],
        min(soda, acid) * CO2_ML_PER_MMOL / dough.flour_g * 100,
        tuple(weights),
        tuple(_cures(dough, soda, acid, powder)),
    )


def _cures(dough: Dough, soda: float, acid: float, powder: str) -> list[Cure]:
    """Ways to the middle of the balanced span, the nearest hand move first."""
    excess = (soda - acid) * SODA_G_MOL / 1000 / dough.flour_g * 100
    bare_g = dough.mass_of("baking_soda")
    found: list[Cure] = []
    if excess >= BALANCED[1]:
        over_g = (soda - acid) * SODA_G_MOL / 1000
        if bare_g > over_g:
            less = f"{over_g:.1f} g less soda ({bare_g - over_g:.1f} g in all): milder, paler, the same gas."
            found.append(Cure("less_soda", "baking_soda", -over_g, less))
        lemon_g = (soda - acid) / (0.077 / LACTIC_G_MOL * 1000)
        more = f"{lemon_g:.0f} g lemon juice: more gas, a fresher taste."
        found.append(Cure("more_acid", "lemon_juice", lemon_g, more))
        if bare_g:
            gas_mmol = min(soda, acid)
            powder_g = gas_mmol * SODA_G_MOL / 1000 / dict(POWDERS[powder])["baking_soda"]
            swap = f"{powder_g:.0f} g baking powder in place of the soda: rises again in the heat, no taste of soda."
            found.append(Cure("swap_to_powder", "baking_powder", powder_g, swap))
    elif excess < BALANCED[0]:
        short_g = (acid - soda) * SODA_G_MOL / 1000
        text = f"{short_g:.1f} g more soda takes the sourness: more gas, browner. Leave it if you like the tang."
        found.append(Cure("more_soda", "baking_soda", short_g, text))
    return found
