"""Explanations of the figures of a weigh sheet."""

from __future__ import annotations

from collections.abc import Sequence

from brassclock.core.evidence import Input, Kind, Why
from brassclock.core.matter.dough import Dough
from brassclock.core.weigh import geometry
from brassclock.core.weigh.lines import SheetLine
from brassclock.core.weigh.soda import SodaBalance


def whys(
    dough: Dough,
    lines: Sequence[SheetLine],
    rolled_g: float | None,
    sheet: geometry.Sheet | None,
    soda: SodaBalance | None,
) -> dict[str, Why]:
    """Explanations of the sheet's figures, by the figure's name."""
    why = {
        "total_g": Why(
            "Dough weight",
            "m = Σ mᵢ",
            "Every line in grams, added up.",
            tuple(Input(x.ingredient.name, round(x.mass_g, 1), "g") for x in lines),
            Kind.ANALYTIC,
            _mass_spread(lines),
        ),
    }
    if dough.hydration_frac is not None:
        why |= _water(dough, lines, dough.hydration_frac)
    if soda:
        why["soda"] = _soda(soda)
    if sheet:
        why["thickness_mm"] = Why(
            "Thickness",
            "t = m / (ρ·A)",
            "The piece spread evenly over its area.",
            (
                Input("piece, with its filling", round(rolled_g or 0.0, 1), "g"),
                Input("area", round(sheet.area_cm2, 1), "cm²"),
                Input("density of a rolled sheet", round(geometry.sheet_density_g_cm3(), 2), "g/mL"),
            ),
            Kind.ANALYTIC,
            "3 % by density, more by an uneven sheet",
            ("the diameter: it counts twice",),
            ("density 1.25 g/mL gas-free: Campbell 1990s, from memory",),
        )
    return why


def _water(dough: Dough, lines: Sequence[SheetLine], hydration_frac: float) -> dict[str, Why]:
    """True water and effective water over the flour."""
    low, high = hydration_spread(lines)
    wet = [x for x in lines if x.mass_g * x.ingredient.counted_water_frac > 0.005 * dough.flour_g]
    flour = Input("flour", round(dough.flour_g, 1), "g")
    from_lines = (
        Input(f"water in {x.ingredient.name}", round(x.mass_g * x.ingredient.counted_water_frac, 1), "g") for x in wet
    )
    return {
        "hydration_frac": Why(
            "True water",
            "H = Σ mᵢ·wᵢ / Σ mᵢ·fᵢ",
            "Water from the tap and water inside dairy, egg, butter and starter, over the flour. "
            "The moisture of the flour itself is left out, as bakers do.",
            (*from_lines, flour),
            Kind.PUBLISHED_FROM_MEMORY,
            f"{low:.0%} to {high:.0%} with the way cups are filled" if high - low > 0.005 else "as weighed",
            ("how the flour cup was filled", "how wet the dairy is"),
            ("composition tables, rounded", "cup weights: common practice"),
        ),
        "effective_hydration_frac": Why(
            "How wet it feels",
            "H_eff = Σ mᵢ·eᵢ / Σ mᵢ·fᵢ − a",
            "Water, with part of the fat and sugar that soften a dough, less what dairy protein and a thirsty flour "
            "bind.",
            (
                Input("feels like liquid", round(dough.effective_liquid_g, 1), "g"),
                flour,
                Input("true water", round(hydration_frac * 100, 1), "%"),
            ),
            Kind.JUDGEMENT,
            "about 4 points either way; flours differ",
            ("the flour in the bag: record what you add", "how wet the dairy is"),
            ("e = water + .4 fat + .3 sugar − 2 × dairy protein: judgement",),
        ),
    }


def _soda(soda: SodaBalance) -> Why:
    """Soda against acid [mmol]."""
    return Why(
        "Soda against acid",
        "excess = (n_soda − Σ n_acid)·84.007 / m_flour",
        f"One soda meets one acid. {soda.effect}",
        tuple(Input(f"{w.name}, {w.side}", round(w.mmol, 1), "mmol") for w in soda.weights if w.mmol > 0.05),
        Kind.PUBLISHED_FROM_MEMORY,
        "cultured dairy varies by a fifth in acid",
        ("how sour the dairy is", "a level spoon of soda is 4.6 g"),
        ("neutralising values: published, from memory", "flour's own buffer: judgement"),
    )


def _mass_spread(lines: Sequence[SheetLine]) -> str:
    low, high = sum(x.low_g for x in lines), sum(x.high_g for x in lines)
    return f"{low:.0f} to {high:.0f} g" if high - low > 1 else "as weighed"


def hydration_spread(lines: Sequence[SheetLine]) -> tuple[float, float]:
    """(lowest, highest) true water that the measures allow: full flour with scant water, and the reverse."""

    def share(flour: str, water: str) -> float:
        over = sum(getattr(x, water) * x.ingredient.counted_water_frac for x in lines)
        under = sum(getattr(x, flour) * x.ingredient.flour_frac for x in lines)
        return over / under if under else 0.0

    return share("high_g", "low_g"), share("low_g", "high_g")
