"""`puff` of the contract."""

from __future__ import annotations

import math
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from brassclock.core.evidence import refuse
from brassclock.core.fire.layers import MOST_SHARE, browning, layered, must_be_hot
from brassclock.core.fire.legs import Step
from brassclock.core.fire.program import Faults, plan_bread
from brassclock.core.fire.puff.model import Bread
from brassclock.core.fire.surfaces import KINDS as SURFACES
from brassclock.core.fire.surfaces import Surface
from brassclock.core.fire.verdicts import told
from brassclock.core.weigh.geometry import Shape, sheet_of, thickness_mm
from brassclock.core.weigh.soda import soda_balance
from brassclock.services.compute.common import Loose, Mass, MassLine, mass_dough
from brassclock.services.given import within
from brassclock.services.sheets import caution_out, why_out


def _thick(mm: float) -> float:
    if not (math.isfinite(mm) and 0.5 <= mm <= 60):
        raise ValueError(f"{mm:g} mm cannot be baked as a flatbread. Give 0.5 to 60 mm.")
    return mm


class LayerReq(Loose):
    mass_g: Mass


class FillingReq(LayerReq):
    contains: Annotated[list[Literal["meat", "egg", "dairy", "plant"]], Field(max_length=4)] | None = None


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
    filling: FillingReq | None = None
    topped: LayerReq | None = None


class PlateReq(Loose):
    material: Literal["iron", "steel", "stone", "clay", "aluminium"]
    thickness_mm: Annotated[float, within(1, 100, "mm")]


class BatchReq(Loose):
    count: Annotated[int, Field(ge=1, le=12)] = 1
    door_open_s: Annotated[float, within(0, 120, "s")] = 0.0


class SurfaceReq(Loose):
    kind: str
    temp_c: Annotated[float, within(50, 600, "C")]
    power: Literal["low", "medium", "medium_high", "high"] = "medium_high"
    heat: Literal["gas", "ceramic", "charcoal", "electric"] | None = None
    oven_c: Annotated[float, within(20, 600, "C")] | None = None
    plate: PlateReq | None = None
    greased: Literal["dry", "film", "pool"] = "dry"
    wetted: bool | None = None
    nonstick: bool = False
    batch: BatchReq = BatchReq()


class LegReq(Loose):
    do: Literal["face_a", "face_b", "cover", "edge", "grill"] | None = None
    side: Literal["a", "b"] | None = None
    seconds: Annotated[float, within(1, 3600, "s")] | None = None
    until: Literal["cue"] | None = None


class FaultsReq(Loose):
    uneven_frac: Annotated[float, within(0, 2, "")] | None = None
    skin_min: Annotated[float, within(0, 600, "min")] | None = None
    bench_flour_g_m2: Annotated[float, within(0, 1000, "g/m2")] | None = None
    tear_mm2: Annotated[float, within(0, 10_000, "mm2")] | None = None
    maturity: Annotated[float, within(0, 20, "")] | None = None
    rest_min: Annotated[float, within(0, 600, "min")] | None = None


class PuffReq(Loose):
    """`puff`: one bread on one surface."""

    bread: BreadReq
    surface: SurfaceReq
    program: Annotated[list[LegReq], Field(max_length=8)] | None = None
    doneness: Literal["pale", "golden", "charred"] = "golden"
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    faults: FaultsReq = FaultsReq()


RISE_G = {"pocket": 1.15, "blister": 1.2, "flat": 1.15, "thick": 1.8}  # how far the sheet swells before it parts


def _carrying(bread: Bread, dough_g: float | None, filling_g: float, name: str) -> Bread:
    if dough_g is None:
        raise refuse("/bread/mass_g", f"Give the dough's mass_g too: how thick a {name} bread is hangs on it.")
    if filling_g > MOST_SHARE * dough_g:
        raise refuse(
            f"/bread/{name}/mass_g",
            f"{filling_g:g} g in {dough_g:g} g of dough tears it. Give at most {MOST_SHARE * dough_g:.0f} g.",
        )
    return layered(bread, dough_g, filling_g)


def run_puff(q: PuffReq) -> dict[str, Any]:
    if q.surface.kind not in SURFACES:
        raise refuse("/surface/kind", f"“{q.surface.kind[:40]}” is no surface. Use one of {', '.join(SURFACES)}.")
    b = q.bread
    tint = 1.0
    if b.lines:
        dough = mass_dough(b.lines)
        x0, tint = dough.water_per_dry, browning(dough, soda_balance(dough))
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
        mm / 1000, diameter / 100, x0, b.temp_c, rise_g=RISE_G[b.intent], browning=tint,
        pocket=b.intent in ("pocket", "blister") and mm <= 8 and not b.docked,
    )  # fmt: skip
    if b.stuffed is not None and b.filling is not None:
        raise refuse("/bread/filling", "Give the filling once: filling, or its old name stuffed.")
    for name, layer in (("stuffed", b.stuffed), ("filling", b.filling), ("topped", b.topped)):
        if layer is not None:
            bread = _carrying(bread, b.mass_g, layer.mass_g, name)
    s = q.surface
    surface = Surface(
        s.kind, s.temp_c, s.power, s.oven_c, s.plate.material if s.plate else None,
        s.plate.thickness_mm if s.plate else None, s.heat, s.greased, s.wetted, s.nonstick, s.batch.count, s.batch.door_open_s,
    )  # fmt: skip
    legs = None
    if q.program:
        legs = [
            Step(x.do or f"face_{x.side or 'a'}", x.seconds, x.until == "cue") for x in q.program
        ]  # fmt: skip
    f = q.faults
    got = plan_bread(
        bread, surface, doneness=q.doneness, altitude_m=q.altitude_m, docked=b.docked, topped=b.topped is not None,
        filled=b.stuffed is not None or (b.filling is not None and must_be_hot(b.filling.contains)), steps=legs,
        faults=Faults(f.uneven_frac, f.skin_min, f.bench_flour_g_m2, f.tear_mm2, f.maturity, f.rest_min),
    )  # fmt: skip
    baked = got.baked
    actions = [{"action": "load", "at_s": 0.0}]
    if got.turn_s is not None:
        actions.append({"action": got.second, "at_s": got.turn_s})
    if got.edge_s:
        actions.append({"action": "edge", "at_s": got.off_s, "seconds_each": got.edge_s})
    actions.append({"action": "off", "at_s": got.off_s})
    return {
        "events": {k: None if e.p50 is None else e.as_dict() for k, e in got.events.items()},
        "likelihood": {
            "kind": "score",
            "pocket_frac": got.score.score / 100,
            "reasons": [{"factor": x.factor, "points": x.points, "text": x.text} for x in got.score.reasons],
        },
        "moisture_loss_frac": got.moisture_loss_frac,
        "verdicts": told(got.verdicts),
        "program": actions,
        "carpet": {"s": baked.s.tolist(), "depth_mm": baked.depth_mm.tolist(), "temp_c": baked.temp_c.tolist()},
        "surface_after": {"temp_c": got.surface_after_c, "recovery_s": got.recovery_s},
        "matters": list(got.bands.matters),
        "cautions": [c.model_dump() for c in caution_out(got.cautions)],
        "why": {k: w.model_dump() for k, w in why_out(got.why).items()},
    }
