"""Weigh sheets, cautions and whys as the API and the contract give them."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from brassclock.core.cautions import Caution
from brassclock.core.evidence import Why
from brassclock.core.weigh.formula import Filling, WeighSheet
from brassclock.core.weigh.lines import SheetLine
from brassclock.core.weigh.soda import SodaBalance
from brassclock.services.schemas.base import CautionRead, WhyRead
from brassclock.services.schemas.weigh import (
    BeamWeight,
    CureRead,
    FeelRead,
    FillingRead,
    FlourSwapRead,
    FormulaLineRead,
    LeavenRead,
    SodaRead,
    SwapRead,
    WeighRead,
)


def caution_out(found: Sequence[Caution]) -> list[CautionRead]:
    return [CautionRead(**c.as_dict()) for c in found]


def why_out(found: Mapping[str, Why]) -> dict[str, WhyRead]:
    return {key: WhyRead.model_validate(why.as_dict()) for key, why in found.items()}


def soda_out(soda: SodaBalance | None) -> SodaRead | None:
    if soda is None:
        return None
    return SodaRead(
        excess_g_per_100g_flour=soda.excess_g_per_100g_flour,
        verdict=soda.verdict,
        effect=soda.effect,
        soda_mmol=soda.soda_mmol,
        acid_mmol=soda.acid_mmol,
        gas_ml_per_100g_flour=soda.gas_ml_per_100g_flour,
        weights=[BeamWeight(name=w.name, side=w.side, mmol=w.mmol, flour=w.flour) for w in soda.weights],
        cures=[CureRead(kind=c.kind, ingredient=c.ingredient, change_g=c.change_g, text=c.text) for c in soda.cures],
    )


def line_out(x: SheetLine) -> FormulaLineRead:
    return FormulaLineRead(
        ingredient=x.ingredient.id,
        name=x.ingredient.name,
        typed=x.typed,
        basis=x.basis,
        grams=x.mass_g,
        low_g=x.low_g,
        high_g=x.high_g,
        baker_frac=x.baker_frac,
        weighable_g=x.weighable_g or x.mass_g,
        rounding_frac=x.rounding_frac if x.weighable_g else 0.0,
        water_g=x.mass_g * x.ingredient.counted_water_frac,
        fat_g=x.mass_g * x.ingredient.fat_frac,
    )


def filling_out(filling: Filling | None) -> FillingRead | None:
    if filling is None:
        return None
    return FillingRead(
        lines=[line_out(x) for x in filling.lines],
        per_piece_g=filling.per_piece_g,
        total_g=filling.total_g,
        to_dough_frac=filling.to_dough_frac,
    )


def weigh_out(sheet: WeighSheet) -> WeighRead:
    """The weigh sheet as the API gives it."""
    dough, pieces, flat = sheet.dough, sheet.pieces, sheet.sheet
    inside = sheet.filling.lines if sheet.filling else ()
    allergens = list(dict.fromkeys([*dough.allergens, *(a for x in inside for a in x.ingredient.allergens)]))
    return WeighRead(
        lines=[line_out(x) for x in sheet.lines],
        total_g=dough.total_g,
        flour_g=dough.flour_g,
        factor=sheet.factor,
        hydration_frac=dough.hydration_frac,
        hydration_low=sheet.hydration_low,
        hydration_high=sheet.hydration_high,
        effective_hydration_frac=dough.effective_hydration_frac,
        feel=FeelRead(word=sheet.feel.word, means=sheet.feel.means) if sheet.feel else None,
        salt_frac=dough.salt_g / dough.flour_g if dough.flour_g else None,
        pieces={"count": pieces.count, "mass_g": pieces.mass_g, "left_over_g": pieces.left_over_g} if pieces else None,
        shape={"thickness_mm": flat.thickness_mm, "diameter_cm": flat.diameter_cm, "area_cm2": flat.area_cm2}
        if flat
        else None,
        soda=soda_out(sheet.soda),
        leavens=[
            LeavenRead(ingredient=x.ingredient, name=x.name, grams=x.mass_g, parts=dict(x.parts)) for x in sheet.leavens
        ],
        swaps={
            k: [SwapRead(ingredient=e.ingredient, name=e.name, grams=e.mass_g, advice=e.advice) for e in swaps]
            for k, swaps in sheet.swaps.items()
        },
        flour_swaps=[
            FlourSwapRead(text=x.text, grams=dict(x.grams), gas_ml=x.gas_ml, gas_then_ml=x.gas_then_ml)
            for x in sheet.flour_swaps
        ],
        filling=filling_out(sheet.filling),
        contradictions=[CautionRead(code=c, text=t) for c, t in sheet.contradictions],
        measurable=[
            {"ingredient": m.ingredient, "ways": [{"text": t, "grams": g} for t, g in m.ways]} for m in sheet.measurable
        ],
        whole=[CautionRead(code=w.ingredient, text=w.text) for w in sheet.whole],
        allergens=allergens,
        cautions=caution_out(sheet.cautions),
        why=why_out(sheet.why),
    )
