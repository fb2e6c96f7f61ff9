"""The computation by contract: one JSON request in, one JSON result out, for command line, API and tests."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from brassclock.core.evidence import BadRequest, FieldFault, gather, refuse
from brassclock.core.fire.program import Faults, Step, plan_bread
from brassclock.core.fire.puff.model import Bread
from brassclock.core.fire.surfaces import KINDS as SURFACES
from brassclock.core.fire.surfaces import LATER_KINDS, Surface
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import table, unknown_text
from brassclock.core.mix.heat import BOWL_J_GK, Bowl, Kneading, Part, mix_heat
from brassclock.core.rise import belief as beliefs
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.weigh.formula import PieceWish, Scaling, TypedLine, weigh
from brassclock.core.weigh.geometry import Shape, sheet_of, thickness_mm
from brassclock.services.schemas import within
from brassclock.services.views import caution_out, soda_out, weigh_out, why_out

Mass = Annotated[float, within(0.001, 1_000_000, "g")]
Temp = Annotated[float, within(-30, 600, "C")]
Ratio = Annotated[float, within(1.01, 6, "x")]
LATER = ("dose", "starter", "soda", "day", "cue", "line", "hold", "cause", "learn")


class Loose(BaseModel):
    """Extra fields are welcome and ignored."""

    model_config = ConfigDict(extra="ignore")


class LineReq(Loose):
    ingredient: str
    amount: str | float
    basis: str | float | None = None


class MassLine(Loose):
    ingredient: str
    mass_g: Mass


class PiecesReq(Loose):
    count: int | None = None
    mass_g: float | None = None
    loss_frac: float = 0.02


class ShapeReq(Loose):
    kind: Literal["round", "oval", "quarter"] = "round"
    diameter_cm: float | None = None
    length_cm: float | None = None
    width_cm: float | None = None
    thickness_mm: float | None = None

    def shape(self) -> Shape:
        return Shape(self.kind, self.diameter_cm, self.length_cm, self.width_cm, self.thickness_mm)


class LimitReq(Loose):
    ingredient: str
    mass_g: Mass


class ScaleReq(Loose):
    count: Annotated[int, Field(ge=1, le=500)] | None = None
    mass_g: Mass | None = None
    flour_g: Mass | None = None
    limit: LimitReq | None = None


class WeighReq(Loose):
    """`weigh`: a formula as typed, how it divides, its shape, and what to scale it to."""

    lines: Annotated[list[LineReq], Field(max_length=60)]
    pieces: PiecesReq | None = None
    shape: ShapeReq | None = None
    scale_to: ScaleReq | None = None
    units: Literal["us", "metric"] = "us"


class PartReq(Loose):
    ingredient: str
    mass_g: Mass
    temp_c: Temp


class BowlReq(Loose):
    mass_g: Mass
    material: Literal["steel", "glass", "ceramic", "plastic", "wood"] = "steel"
    temp_c: Temp


class SolveReq(Loose):
    for_: str = Field(alias="for")
    target_c: Annotated[float, within(1, 60, "C")]


class MixReq(Loose):
    """`mix`: everything in the bowl with its temperature; optionally a liquid to solve for."""

    parts: Annotated[list[PartReq], Field(min_length=1, max_length=60)]
    bowl: BowlReq | None = None
    method: Literal["hand", "no_knead", "planetary", "spiral", "processor", "none"] = "hand"
    minutes: Annotated[float, within(0, 120, "min")] = 8.0
    room_c: Temp = 22.0
    tap_c: Temp | None = None
    solve: SolveReq | None = None


class VesselReq(Loose):
    kind: Literal["ball", "tray", "tub", "none"]
    mass_g: Mass = 500.0
    lid: bool = False
    diameter_cm: Annotated[float, within(3, 200, "cm")] | None = None
    base: Literal["shelf", "wood"] = "shelf"


class StageReq(Loose):
    name: str = "rise"
    hours: Annotated[float, within(0.01, 240, "h")]
    ambient_c: Temp | None = None
    path: list[tuple[float, float]] | None = None
    vessel: VesselReq | None = None
    then: Literal["knock_back", "divide", "ball"] | None = None
    target_ratio: Ratio | None = None
    too_far_maturity: Annotated[float, within(0.1, 20, "")] | None = None


class ActivityReq(Loose):
    mean: Annotated[float, within(0.05, 20, "x")] = 1.0
    sd_log: Annotated[float, within(0.01, 2, "")] = beliefs.PRIOR_SD_LOG


class ReadingReq(Loose):
    h: Annotated[float, within(0, 240, "h")]
    kind: Literal["ratio", "jar", "feel", "dough_c"] = "ratio"
    ratio: Annotated[float, within(0.5, 6, "x")] | None = None
    feel: Literal["not_yet", "just", "past"] | None = None
    temp_c: Temp | None = None


class RiseReq(Loose):
    """`rise`: a dough by mass, its temperature after mixing, and the stages it goes through."""

    lines: Annotated[list[MassLine], Field(min_length=1, max_length=60)]
    strength: Literal["developed", "kneaded", "enriched", "wet_unkneaded", "wholemeal"] = "kneaded"
    bloomed: bool = False
    mix_temp_c: Temp
    stages: Annotated[list[StageReq], Field(min_length=1, max_length=20)]
    targets: list[Ratio] = [2.0]
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    activity: ActivityReq = ActivityReq()
    readings: list[ReadingReq] = []


def _thick(mm: float) -> float:
    if not (math.isfinite(mm) and 0.5 <= mm <= 60):
        raise ValueError(f"{mm:g} mm cannot be baked as a flatbread. Give 0.5 to 60 mm.")
    return mm


class LayerReq(Loose):
    mass_g: Mass


class BreadReq(Loose):
    lines: Annotated[list[MassLine], Field(max_length=60)] | None = None
    hydration_frac: Annotated[float, within(0.2, 2, "")] | None = None
    mass_g: Mass | None = None
    diameter_cm: Annotated[float, within(3, 80, "cm")] | None = None
    length_cm: Annotated[float, within(3, 120, "cm")] | None = None
    width_cm: Annotated[float, within(3, 80, "cm")] | None = None
    thickness_mm: Annotated[float, AfterValidator(_thick)] | None = None
    temp_c: Annotated[float, within(-5, 60, "C")] = 22.0
    leaven: Literal["yeast", "sourdough", "chemical"] = "yeast"
    intent: Literal["pocket", "blister", "flat", "thick"] = "pocket"
    docked: bool = False
    stuffed: LayerReq | None = None
    topped: LayerReq | None = None


class PlateReq(Loose):
    material: Literal["iron", "steel", "stone", "clay", "aluminium"]
    thickness_mm: Annotated[float, within(1, 100, "mm")]


class SurfaceReq(Loose):
    kind: str
    temp_c: Annotated[float, within(50, 600, "C")]
    power: Literal["low", "medium", "medium_high", "high"] = "medium_high"
    oven_c: Annotated[float, within(20, 600, "C")] | None = None
    plate: PlateReq | None = None


class LegReq(Loose):
    do: Literal["face_a", "face_b"] | None = None
    side: Literal["a", "b"] | None = None
    seconds: Annotated[float, within(1, 3600, "s")] | None = None
    until: Literal["cue"] | None = None


class FaultsReq(Loose):
    uneven_frac: Annotated[float, within(0, 2, "")] | None = None
    skin_min: Annotated[float, within(0, 600, "min")] | None = None
    bench_flour_g_m2: Annotated[float, within(0, 1000, "g/m2")] | None = None
    tear_mm2: Annotated[float, within(0, 10_000, "mm2")] | None = None
    maturity: Annotated[float, within(0, 20, "")] | None = None


class PuffReq(Loose):
    """`puff`: one bread on one surface."""

    bread: BreadReq
    surface: SurfaceReq
    program: Annotated[list[LegReq], Field(max_length=8)] | None = None
    doneness: Literal["pale", "golden", "charred"] = "golden"
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    faults: FaultsReq = FaultsReq()


def _dough(lines: list[MassLine]) -> Dough:
    known = table()
    gather(
        FieldFault(f"/lines/{i}/ingredient", unknown_text(x.ingredient))
        for i, x in enumerate(lines)
        if x.ingredient not in known
    )
    return dough_of(Portion(known[x.ingredient], x.mass_g) for x in lines)


def _weigh(q: WeighReq) -> dict[str, Any]:
    known = table()
    lines = [
        TypedLine(x.ingredient, x.amount if isinstance(x.amount, str) else f"{x.amount} g", x.basis) for x in q.lines
    ]
    pieces = PieceWish(q.pieces.count, q.pieces.mass_g, q.pieces.loss_frac) if q.pieces else None
    scaling = None
    if q.scale_to:
        limit = q.scale_to.limit
        if limit and limit.ingredient not in known:
            raise refuse("/scale_to/limit/ingredient", unknown_text(limit.ingredient))
        scaling = Scaling(
            q.scale_to.count, q.scale_to.mass_g, q.scale_to.flour_g,
            limit.ingredient if limit else None, limit.mass_g if limit else None,
        )  # fmt: skip
    sheet = weigh(lines, pieces, q.shape.shape() if q.shape else None, scaling, q.units == "metric")
    return weigh_out(sheet).model_dump() | {"soda": soda_out(sheet.soda)}


def _mix(q: MixReq) -> dict[str, Any]:
    known = table()
    gather(
        FieldFault(f"/parts/{i}/ingredient", unknown_text(x.ingredient))
        for i, x in enumerate(q.parts)
        if x.ingredient not in known
    )
    bowl = Bowl(q.bowl.mass_g, q.bowl.material, q.bowl.temp_c) if q.bowl else None
    assert bowl is None or bowl.material in BOWL_J_GK
    heat = mix_heat(
        [Part(known[x.ingredient], x.mass_g, x.temp_c) for x in q.parts], bowl, Kneading(q.method, q.minutes, q.room_c),
        q.solve.for_ if q.solve else None, q.solve.target_c if q.solve else None, q.tap_c,
    )  # fmt: skip
    return {
        "dough_temp_c": heat.dough_temp_c,
        "liquid_temp_c": heat.liquid_temp_c,
        "wanted_liquid_c": heat.wanted_liquid_c,
        "limit_c": heat.limit_c,
        "ice_g": heat.ice_g,
        "contributions": [{"name": n, "joules": j} for n, j in heat.contributions],
        "simple_rule": {"liquid_temp_c": heat.rule_liquid_c, "factor_that_agrees": heat.rule_factor_c},
        "advice": heat.advice,
        "cautions": [c.model_dump() for c in caution_out(heat.cautions)],
        "why": {k: w.model_dump() for k, w in why_out(heat.why).items()},
    }


def _stage(i: int, q: StageReq) -> rise.Stage:
    if (q.ambient_c is None) == (q.path is None):
        raise refuse(f"/stages/{i}", "Give either ambient_c or path, not both and not neither.")
    path = tuple(q.path) if q.path else ((0.0, float(q.ambient_c or 0.0)),)
    if not path:
        raise refuse(f"/stages/{i}/path", "The path is empty. Give [[hour, C], ...] from the start of the stage.")
    hours = [h for h, _ in path]
    if any(not math.isfinite(v) for point in path for v in point) or hours != sorted(set(hours)) or hours[0] < 0:
        raise refuse(f"/stages/{i}/path", "Hours of a path must be finite, from 0 on, and rise: [[0, 21], [6, 18]].")
    if any(not -30 <= c <= 600 for _, c in path):
        raise refuse(f"/stages/{i}/path", "A temperature of the path is not believable. Give -30 to 600 C.")
    vessel = None
    if q.vessel and q.vessel.kind != "none":
        v = q.vessel
        vessel = Vessel(v.kind, v.mass_g, v.lid, v.diameter_cm, v.base)
    return rise.Stage(q.name, q.hours, path, vessel, q.then, q.target_ratio, q.too_far_maturity)


def _rise(q: RiseReq) -> dict[str, Any]:
    dough = _dough(q.lines)
    if not dough.flour_g or not dough.water_g:
        raise refuse("/lines", "A dough needs flour and water. Add both.")
    if not any(p.ingredient.is_yeast for p in dough.portions):
        raise refuse("/lines", "No yeast in these lines, and other leavens are not forecast yet. Add a yeast.")
    stages = [_stage(i, s) for i, s in enumerate(q.stages)]
    readings = []
    for i, x in enumerate(q.readings):
        if x.kind in ("ratio", "jar") and x.ratio is None:
            raise refuse(f"/readings/{i}/ratio", "Give the ratio that was seen, as 1.4.")
        if x.kind == "feel" and x.feel is None:
            raise refuse(f"/readings/{i}/feel", "Give not_yet, just or past.")
        if x.kind != "dough_c":
            readings.append(beliefs.Reading(x.h, x.kind, x.ratio, x.feel))
    seen = rise.forecast(
        dough, q.strength, q.mix_temp_c, stages, q.targets, bloomed=q.bloomed, altitude_m=q.altitude_m,
        belief=beliefs.Belief(q.activity.mean, q.activity.sd_log), readings=readings,
    )  # fmt: skip
    t = seen.trace
    window = seen.windows[0] if seen.windows else None
    why = {
        "crossings": {
            "relation": "E = (V_dry + V_gas(C, T, P)) / V_ref; C' = r − leak; r by sugar, maltose, temperature and salt",
            "inputs": {"mix_temp_c": q.mix_temp_c, "altitude_m": q.altitude_m, "activity": q.activity.mean},
            "evidence": "fitted",
        },
        "windows": {
            "relation": "m = Q / need (ready .9, best 1 to 1.3); fill f = (C0 + Q) / capacity (too far)",
            "inputs": {"strength": q.strength},
            "evidence": "judgement",
        },
    }
    return {
        "crossings": [
            {
                "ratio": c.ratio,
                "stage": c.stage,
                "h": None if c.h.p50 is None else c.h.as_dict(),
                "p_never": c.h.p_never,
            }
            for c in seen.crossings
        ],
        "peak": {"h": seen.peak_h.as_dict(), "ratio": seen.peak_ratio},
        "windows": [
            {
                "stage": w.stage,
                "ready": w.ready.as_dict(),
                "best": w.best_from.as_dict(),
                "best_from": w.best_from.as_dict(),
                "best_to": w.best_to.as_dict(),
                "too_far": w.too_far.as_dict(),
            }
            for w in seen.windows
        ],
        "trace": {
            "h": t.h.tolist(),
            "ratio": t.ratio.tolist(),
            "ratio_p10": t.ratio_p10.tolist(),
            "ratio_p90": t.ratio_p90.tolist(),
            "maturity": t.maturity.tolist(),
            "fill": t.fill.tolist(),
            "dough_c": t.dough_c.tolist(),
            "centre_c": t.centre_c.tolist(),
            "gas_ml_per_100g": t.gas_ml_per_100g.tolist(),
        },
        "acid": None,
        "leaven_left_frac": None,
        "workable_h": seen.workable_h,
        "safety": None
        if seen.safety is None
        else {
            "warm_h": seen.safety.warm_h,
            "limit_h": seen.safety.limit_h,
            "reached_at_h": seen.safety.reached_at_h,
        },
        "most_worth_measuring": [],
        "belief": {"mean": seen.belief.mean, "sd_log": seen.belief.sd_log},
        "cautions": [c.model_dump() for c in caution_out(seen.cautions)],
        "why": why if window else {"crossings": why["crossings"]},
    }


def _puff(q: PuffReq) -> dict[str, Any]:
    if q.surface.kind in LATER_KINDS:
        raise refuse("/surface/kind", f"“{q.surface.kind}” is not computed yet. Use one of {', '.join(SURFACES)}.")
    if q.surface.kind not in SURFACES:
        raise refuse("/surface/kind", f"“{q.surface.kind[:40]}” is no surface. Use one of {', '.join(SURFACES)}.")
    for name, layer in (("stuffed", q.bread.stuffed), ("topped", q.bread.topped)):
        if layer is not None:
            raise refuse(f"/bread/{name}", f"A {name} bread is not computed yet. Leave {name} out.")
    b = q.bread
    if b.lines:
        x0 = _dough(b.lines).water_per_dry
    elif b.hydration_frac is not None:
        x0 = (b.hydration_frac + 0.14) / 0.86
    else:
        raise refuse("/bread", "Give the bread's lines or its hydration_frac, as 0.62.")
    kind = "oval" if b.length_cm and b.width_cm else "round"
    flat = sheet_of(b.mass_g, Shape(kind, b.diameter_cm, b.length_cm, b.width_cm, b.thickness_mm)) if b.mass_g else None
    mm = b.thickness_mm
    if mm is None:
        if flat is None:
            raise refuse("/bread", "Give thickness_mm, or mass_g with diameter_cm.")
        assert b.mass_g is not None
        mm = thickness_mm(b.mass_g, flat.area_cm2)
    diameter = flat.diameter_cm if flat else b.diameter_cm or 18.0
    bread = Bread(
        mm / 1000, diameter / 100, x0, b.temp_c, pocket=b.intent in ("pocket", "blister") and mm <= 8 and not b.docked
    )
    s = q.surface
    surface = Surface(
        s.kind, s.temp_c, s.power, s.oven_c, s.plate.material if s.plate else None,
        s.plate.thickness_mm if s.plate else None,
    )  # fmt: skip
    legs = None
    if q.program:
        legs = [
            Step(x.do or f"face_{x.side or 'a'}", x.seconds, x.until == "cue") for x in q.program
        ]  # fmt: skip
    f = q.faults
    got = plan_bread(
        bread, surface, doneness=q.doneness, altitude_m=q.altitude_m, docked=b.docked, steps=legs,
        faults=Faults(f.uneven_frac, f.skin_min, f.bench_flour_g_m2, f.tear_mm2, f.maturity),
    )  # fmt: skip
    baked = got.baked
    actions = [{"action": "load", "at_s": 0.0}]
    if got.turn_s is not None:
        actions.append({"action": "turn", "at_s": got.turn_s})
    actions.append({"action": "off", "at_s": got.off_s})
    return {
        "events": {k: None if e.p50 is None else e.as_dict() for k, e in got.events.items()},
        "likelihood": {
            "kind": "score",
            "pocket_frac": got.score.score / 100,
            "reasons": [{"factor": x.factor, "points": x.points, "text": x.text} for x in got.score.reasons],
        },
        "moisture_loss_frac": got.moisture_loss_frac,
        "program": actions,
        "carpet": {"s": baked.s.tolist(), "depth_mm": baked.depth_mm.tolist(), "temp_c": baked.temp_c.tolist()},
        "surface_after": {"temp_c": got.surface_after_c, "recovery_s": got.recovery_s},
        "cautions": [c.model_dump() for c in caution_out(got.cautions)],
        "why": {k: w.model_dump() for k, w in why_out(got.why).items()},
    }


KINDS: dict[str, tuple[type[Loose], Callable[[Any], dict[str, Any]]]] = {
    "weigh": (WeighReq, _weigh),
    "mix": (MixReq, _mix),
    "rise": (RiseReq, _rise),
    "puff": (PuffReq, _puff),
}


class UnknownKind(LookupError):
    """A computation that is not there (yet)."""


def _kind(kind: str) -> tuple[type[Loose], Callable[[Any], dict[str, Any]]]:
    if kind in KINDS:
        return KINDS[kind]
    later = " It is planned, not built." if kind in LATER else ""
    raise UnknownKind(f"“{kind[:40]}” is not a computation here.{later} Known are {', '.join(KINDS)}.")


def schema(kind: str) -> dict[str, Any]:
    """JSON Schema of a request."""
    return _kind(kind)[0].model_json_schema(by_alias=True)


def faults_of(error: ValidationError) -> list[FieldFault]:
    """Every field fault of a validation, quoting what was given."""
    found = []
    for e in error.errors(include_url=False):
        pointer = "/" + "/".join(str(part) for part in e["loc"])
        given = str(e.get("input"))[:60]
        words = e["msg"].removeprefix("Value error, ")
        quote = "" if e["type"] in ("missing", "value_error") else f" Given: {given}."
        found.append(FieldFault(pointer, f"{words}{quote}"))
    return found


def compute(kind: str, request: Any) -> dict[str, Any]:
    """Compute a request of a kind. Raises UnknownKind, or BadRequest with every fault."""
    shape, run = _kind(kind)
    try:
        parsed = shape.model_validate(request)
    except ValidationError as error:
        raise BadRequest(faults_of(error)) from None
    return run(parsed)
