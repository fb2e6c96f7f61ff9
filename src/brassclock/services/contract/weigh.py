"""`weigh` and `soda` of the contract."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from brassclock.core.errors import invalid
from brassclock.core.matter.air import pressure_at_altitude_pa
from brassclock.core.rise.chemical import model as chemical_model
from brassclock.core.terms import PieceShape, Powder, SpoonSystem
from brassclock.core.units import METRIC_SPOONS_ML
from brassclock.core.weigh.formula import PieceWish, WeighSheet, weigh
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import Kit, TypedLine
from brassclock.core.weigh.scaling import Scaling
from brassclock.core.weigh.soda import soda_balance
from brassclock.services.contract.common import Mass, MassLine, Request, mass_dough
from brassclock.services.schemas.quantities import within
from brassclock.services.weigh.view import weigh_out


class LineRequest(Request):
    ingredient: str
    amount: str | float
    basis: str | float | None = None
    part: str = ""

    def typed(self) -> TypedLine:
        amount = self.amount if isinstance(self.amount, str) else f"{self.amount} g"
        return TypedLine(self.ingredient, amount, self.basis, self.part)


class PiecesRequest(Request):
    count: int | None = None
    mass_g: float | None = None
    loss_frac: float = 0.02
    beside_g: Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)] = 0.0
    filled_beside: Annotated[int, Field(ge=0, le=5000)] = 0

    def wish(self) -> PieceWish:
        """The division wished for; `beside_g` [g] goes to other breads of the same dough."""
        return PieceWish(self.count, self.mass_g, self.loss_frac, self.beside_g, self.filled_beside)


class ShapeRequest(Request):
    kind: PieceShape = "round"
    diameter_cm: float | None = None
    length_cm: float | None = None
    width_cm: float | None = None
    thickness_mm: float | None = None

    def shape(self) -> Shape:
        return Shape(self.kind, self.diameter_cm, self.length_cm, self.width_cm, self.thickness_mm)


class LimitRequest(Request):
    ingredient: str
    mass_g: Mass


class ScaleRequest(Request):
    count: Annotated[int, Field(ge=1, le=500)] | None = None
    mass_g: Mass | None = None
    flour_g: Mass | None = None
    limit: LimitRequest | Annotated[list[LimitRequest], Field(max_length=60)] | None = None

    def scaling(self) -> Scaling:
        named = self.limit if isinstance(self.limit, list) else [self.limit] if self.limit else []
        return Scaling(self.count, self.mass_g, self.flour_g, tuple((x.ingredient, x.mass_g) for x in named))


class FillingRequest(Request):
    lines: Annotated[list[LineRequest], Field(max_length=30)]
    per_piece_g: Annotated[float, within(1, 1000, "g")] | None = None


class WeighRequest(Request):
    """`weigh`: a formula as typed, how it divides, its shape, and what to scale it to."""

    lines: Annotated[list[LineRequest], Field(max_length=60)]
    pieces: PiecesRequest | None = None
    shape: ShapeRequest | None = None
    scale_to: ScaleRequest | None = None
    filling: FillingRequest | None = None
    held: Annotated[list[LimitRequest], Field(max_length=10)] = []
    units: SpoonSystem = "us"
    powder: Powder = "double"


class RestRequest(Request):
    minutes: Annotated[float, within(0, 10_000, "min")]
    temp_c: Annotated[float, within(-2, 45, "C")]
    form: Literal["bulk", "ball", "sheet"] = "bulk"
    half_thickness_mm: Annotated[float, within(0.5, 300, "mm")] = 55.0


class SodaRequest(Request):
    """`soda`: a dough by mass, how it holds gas without yeast, its powder, and the rests it goes through."""

    lines: Annotated[list[MassLine], Field(min_length=1, max_length=60)]
    strength: Literal["batter", "weak", "moderate", "developed"] = "moderate"
    powder: Powder = "double"
    rests: Annotated[list[RestRequest], Field(max_length=20)] = []
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0


def sheet_of(q: WeighRequest, kit: Kit) -> WeighSheet:
    """The weigh sheet that a request asks for, measured with that kit. Raises InvalidInput."""
    pieces = q.pieces.wish() if q.pieces else None
    filling = q.filling
    return weigh(
        [x.typed() for x in q.lines],
        pieces,
        q.shape.shape() if q.shape else None,
        q.scale_to.scaling() if q.scale_to else None,
        kit,
        [x.typed() for x in filling.lines] if filling else [],
        filling.per_piece_g if filling else None,
        {x.ingredient: x.mass_g for x in q.held},
    )


def run_weigh(q: WeighRequest) -> dict[str, Any]:
    return weigh_out(
        sheet_of(q, Kit(own_ml=METRIC_SPOONS_ML if q.units == "metric" else {}, powder=q.powder))
    ).model_dump()


def run_soda(q: SodaRequest) -> dict[str, Any]:
    dough = mass_dough(q.lines)
    if not dough.has_flour_and_water:
        raise invalid("/lines", "A dough needs flour and water. Add both.")
    balance = soda_balance(dough, q.powder)
    if balance is None:
        raise invalid("/lines", "There is no soda and no powder in these lines. Add baking_soda or baking_powder.")
    pressure = pressure_at_altitude_pa(q.altitude_m)
    rests = [chemical_model.Rest(x.minutes, x.temp_c, x.form, x.half_thickness_mm) for x in q.rests]
    course = chemical_model.course(dough, q.strength, rests, q.powder, pressure)
    last = rests[-1] if rests else chemical_model.Rest(60, 24)
    wait = chemical_model.waiting(dough, q.strength, last, q.powder, pressure)
    return {
        "excess_g_per_100g_flour": balance.excess_g_per_100g_flour,
        "verdict": balance.verdict,
        "effect": balance.effect,
        "released_frac_at_mixing": course.released_frac_at_mixing,
        "lift_at_cook": course.lifts[-1].at_cook,
        "best_lift": course.best,
        "wait": {"verdict": wait.verdict, "h": wait.h, "p10": wait.low_h, "p90": wait.high_h} if wait else None,
        "trace": {"minutes": [x.minutes for x in course.lifts], "lift_at_cook": [x.at_cook for x in course.lifts]},
        "cures": [
            {"kind": c.kind, "ingredient": c.ingredient, "change_g": c.change_g, "text": c.text} for c in balance.cures
        ],
        "cautions": [{"code": "gas_is_not_safety", "text": CAUTION}] if wait else [],
        "why": {
            "excess_g_per_100g_flour": {
                "relation": "excess = (n_soda − Σ n_acid)·84.007 / m_flour·100",
                "inputs": {"soda_mmol": balance.soda_mmol, "acid_mmol": balance.acid_mmol},
                "evidence": "published, from memory",
            },
            "lift_at_cook": {
                "relation": "V/V0 = 1 + ret·n·R·T/(P − .95·Pw)/V0 at 75 C",
                "inputs": {"strength": q.strength, "powder": q.powder},
                "evidence": "judgement",
            },
        },
    }


CAUTION = "This counts gas, not safety: dairy or egg dough kept warm has its own limit, about 2 h in all."
