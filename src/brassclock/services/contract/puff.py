"""`puff` of the contract."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import AfterValidator, Field

from brassclock.core.errors import invalid
from brassclock.core.fire.actions import Action, actions
from brassclock.core.fire.baking import Faults
from brassclock.core.fire.colour import Wish, wish_of
from brassclock.core.fire.layers import (
    DENSE_RHO,
    MOST_MM,
    MOST_SHARE,
    PROVED_RHO,
    PROVED_RISE,
    browning,
    chemical_rise,
    heaped,
    layered,
    yeasted,
)
from brassclock.core.fire.legs import Step, fault_of
from brassclock.core.fire.program import Program, plan_bread
from brassclock.core.fire.puff.model import Bread
from brassclock.core.fire.right_heat import RightHeat, implied, implied_reason, right_heat_reason
from brassclock.core.fire.surface_heat import believed, heat_band, spread_k
from brassclock.core.fire.surfaces import KINDS as SURFACES
from brassclock.core.fire.surfaces import Surface, check_fan
from brassclock.core.fire.verdicts import told
from brassclock.core.matter.spoiling import must_be_hot
from brassclock.core.terms import Colour, DressingTime, Face, Fuel, Greased, HeatAct, HeatUntil, Power, SurfaceSize
from brassclock.core.weigh.geometry import PRESSED_GAS_FRAC, SODA_GAS_FRAC, Shape, dense_mm, sheet_of, thickness_mm
from brassclock.services.contract.common import Mass, MassLine, mass_dough
from brassclock.services.schemas.base import Strict
from brassclock.services.schemas.quantities import within
from brassclock.services.weigh.view import caution_out, why_out


def _thick(mm: float) -> float:
    if not (math.isfinite(mm) and 0.5 <= mm <= MOST_MM):
        raise ValueError(f"{mm:g} mm cannot be baked as a flatbread. Give 0.5 to {MOST_MM} mm.")
    return mm


class LayerRequest(Strict):
    mass_g: Mass


class FillingRequest(LayerRequest):
    contains: Annotated[list[Literal["meat", "egg", "dairy", "plant"]], Field(max_length=4)] | None = None


class DressingRequest(LayerRequest):
    kind: Annotated[str, Field(max_length=60)] | None = None
    when: DressingTime = "after_heat"


class BreadRequest(Strict):
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
    stuffed: FillingRequest | None = None
    filling: FillingRequest | None = None
    topped: LayerRequest | None = None
    dressing: DressingRequest | None = None


class PlateRequest(Strict):
    material: Literal["iron", "steel", "stone", "clay", "aluminium"]
    thickness_mm: Annotated[float, within(1, 100, "mm")]


class BatchRequest(Strict):
    count: Annotated[int, Field(ge=1, le=48)] = 1
    door_open_s: Annotated[float, within(0, 120, "s")] | None = None
    touching: bool = False


class SurfaceRequest(Strict):
    kind: str
    temp_c: Annotated[float, within(50, 600, "C")] | None = None
    setting: Power | None = None
    power: Power | None = None
    measured: Literal["infrared", "contact", "sign"] | None = None
    heat: Fuel | None = None
    oven_c: Annotated[float, within(20, 600, "C")] | None = None
    plate: PlateRequest | None = None
    greased: Greased = "dry"
    wetted: bool | None = None
    nonstick: bool = False
    size: SurfaceSize = "home"
    fan: bool = False
    batch: BatchRequest = BatchRequest()


Seconds = Annotated[float, within(1, 3600, "s")]


class LegRequest(Strict):
    do: HeatAct | None = None
    side: Literal["a", "b"] | None = None
    seconds: Seconds | None = None
    until: HeatUntil | None = None
    oven_c: Annotated[float, within(80, 350, "C")] | None = None

    @property
    def step(self) -> Step:
        """The leg as the core reads it; without `do` it is the side that lies down."""
        return Step(self.do or f"face_{self.side or 'a'}", self.seconds, self.until, self.oven_c)


class HabitRequest(Strict):
    do: Face | None = None
    side: Literal["a", "b"] | None = None
    seconds: Seconds


class FaultsRequest(Strict):
    uneven_frac: Annotated[float, within(0, 2, "")] | None = None
    skin_min: Annotated[float, within(0, 600, "min")] | None = None
    bench_flour_g_m2: Annotated[float, within(0, 1000, "g/m2")] | None = None
    tear_mm2: Annotated[float, within(0, 10_000, "mm2")] | None = None
    maturity: Annotated[float, within(0, 20, "")] | None = None
    rest_min: Annotated[float, within(0, 600, "min")] | None = None


class ColoursRequest(Strict):
    bottom: Colour = "golden"
    top: Colour = "golden"


class PuffRequest(Strict):
    """`puff`: one bread on one surface."""

    bread: BreadRequest
    surface: SurfaceRequest
    program: Annotated[list[LegRequest], Field(min_length=1, max_length=12)] | None = None
    habit: Annotated[list[HabitRequest], Field(min_length=1, max_length=2)] | None = None
    doneness: Colour | ColoursRequest = "golden"
    altitude_m: Annotated[float, within(-400, 9000, "m")] = 0.0
    faults: FaultsRequest = FaultsRequest()


RISE_G = {"pocket": 1.15, "blister": 1.2, "flat": 1.15, "thick": 1.8}  # how far the sheet swells before it parts
LIGHT_RHO, PLAIN_RHO = 350.0, 1100.0  # kg/m3 of a dough as light as it gets, and of a rolled sheet


def _carrying(bread: Bread, dough_g: float | None, filling_g: float, name: str) -> Bread:
    if dough_g is None:
        raise invalid("/bread/mass_g", f"Give the dough's mass_g too: how thick a {name} bread is hangs on it.")
    if filling_g > MOST_SHARE * dough_g:
        raise invalid(
            f"/bread/{name}/mass_g",
            f"{filling_g:g} g in {dough_g:g} g of dough tears it. Give at most {MOST_SHARE * dough_g:.0f} g.",
        )
    return layered(bread, dough_g, filling_g)


def _bread(b: BreadRequest, kind: str) -> Bread:
    """The bread as it meets the heat, with what it carries."""
    tint, rises = 1.0, False
    if b.lines:
        dough = mass_dough(b.lines)
        if not dough.has_flour_and_water:
            raise invalid("/bread/lines", "A dough needs flour and water. Add both, or give hydration_frac.")
        x0, tint, rises = dough.water_per_dry, browning(dough), dough.has_ferment
    elif b.hydration_frac is not None:
        x0 = (b.hydration_frac + 0.14) / 0.86
    else:
        raise invalid("/bread", "Give the bread's lines or its hydration_frac, as 0.62.")
    form = "oval" if b.length_cm and b.width_cm else "round"
    flat = sheet_of(b.mass_g, Shape(form, b.diameter_cm, b.length_cm, b.width_cm, b.thickness_mm)) if b.mass_g else None
    mm = b.thickness_mm
    if mm is None:
        if flat is None:
            raise invalid("/bread", "Give thickness_mm, or mass_g with diameter_cm.")
        assert b.mass_g is not None
        mm = thickness_mm(b.mass_g, flat.area_cm2)
    diameter = flat.diameter_cm if flat else b.diameter_cm or 18.0
    rho = PLAIN_RHO
    sized = bool(b.diameter_cm or b.length_cm)
    if b.mass_g and b.thickness_mm and sized:  # proved: as light as its mass and size say
        area_cm2 = math.pi / 4 * diameter**2
        rho = min(max(10_000 * b.mass_g / (area_cm2 * b.thickness_mm), LIGHT_RHO), PLAIN_RHO)
    elif kind == "oven_tray" and b.thickness_mm:
        rho = PROVED_RHO
    if b.leaven == "chemical" and b.thickness_mm and not (b.mass_g and sized) and rho == PLAIN_RHO:
        mm = dense_mm(mm, SODA_GAS_FRAC)
    bread = Bread(
        mm / 1000,
        diameter / 100,
        x0,
        b.temp_c,
        rho,
        max(0.12, 1 - rho / DENSE_RHO),
        rise_g=_swelling(b, mm, rho, SURFACES[kind].air_heated),
        browning=tint,
        pocket=b.intent in ("pocket", "blister") and mm <= 8 and not b.docked,
    )
    if b.leaven == "chemical" and SURFACES[kind].air_heated and b.thickness_mm is None:
        bread = heaped(bread)
    elif b.intent == "thick" and b.leaven != "chemical" and rho == PLAIN_RHO and rises:
        bread = yeasted(replace(bread, thickness_m=(dense_mm(mm, PRESSED_GAS_FRAC) if b.thickness_mm else mm) / 1000))
    before = b.topped or (b.dressing if b.dressing and b.dressing.when == "before" else None)
    for name, layer in (("stuffed", b.stuffed), ("filling", b.filling), ("topped", before)):
        if layer is not None:
            bread = _carrying(bread, b.mass_g, layer.mass_g, name)
    return bread


def _swelling(b: BreadRequest, mm: float, rho: float, in_oven: bool) -> float:
    """Swelling ratio of the sheet in the heat."""
    if rho < 0.8 * PLAIN_RHO:
        return PROVED_RISE
    return chemical_rise(mm, in_oven) if b.leaven == "chemical" else RISE_G[b.intent]


def _once(q: PuffRequest) -> None:
    """Refuse what is given twice under an old and a new name, and what does not go together."""
    b, s = q.bread, q.surface
    if b.stuffed is not None and b.filling is not None:
        raise invalid("/bread/filling", "Give the filling once: filling, or its old name stuffed.")
    if b.topped is not None and b.dressing is not None:
        raise invalid("/bread/dressing", "Give the dressing once: dressing, or its old name topped.")
    if s.power and s.setting and s.power != s.setting:
        raise invalid("/surface/setting", f"setting says {s.setting}, its old name power {s.power}. Give one of them.")
    if s.kind not in SURFACES:
        raise invalid("/surface/kind", f"“{s.kind[:40]}” is no surface. Use one of {', '.join(SURFACES)}.")
    if s.fan:
        check_fan(SURFACES[s.kind], "/surface/fan")
    for i, leg in enumerate(q.program or ()):
        wrong = fault_of(leg.step, SURFACES[s.kind])
        if wrong:
            raise invalid(f"/program/{i}/{wrong[0]}", wrong[1])


def _surface(q: SurfaceRequest) -> Surface:
    setting = q.setting or q.power
    heat = believed(q.kind, temp_c=q.temp_c, setting=setting, measured=q.measured, oven_c=q.oven_c)
    return Surface(
        q.kind,
        heat.mean_c,
        setting or "medium_high",
        q.oven_c,
        q.plate.material if q.plate else None,
        q.plate.thickness_mm if q.plate else None,
        q.heat,
        q.greased,
        q.wetted,
        q.nonstick,
        q.batch.count,
        q.batch.door_open_s,
        sd_k=heat.sd_k,
        size=q.size,
        fan=q.fan,
    )


def run_puff(q: PuffRequest) -> dict[str, Any]:
    _once(q)
    b, f = q.bread, q.faults
    filling = b.filling or b.stuffed
    after_turn_g = b.dressing.mass_g if b.dressing and b.dressing.when == "after_turn" else 0.0
    wish = wish_of(q.doneness) if isinstance(q.doneness, str) else Wish(q.doneness.bottom, q.doneness.top)
    legs = [x.step for x in q.program] if q.program else None
    got = plan_bread(
        _bread(b, q.surface.kind),
        _surface(q.surface),
        wish=wish,
        altitude_m=q.altitude_m,
        docked=b.docked,
        topped=b.topped is not None or (b.dressing is not None and b.dressing.when == "before"),
        filled=filling is not None and must_be_hot(filling.contains),
        steps=legs,
        dressing_g=after_turn_g,
        faults=Faults(f.uneven_frac, f.skin_min, f.bench_flour_g_m2, f.tear_mm2, f.maturity, f.rest_min),
    )
    return _told(got, q)


def _told(got: Program, q: PuffRequest) -> dict[str, Any]:
    baked, right = got.baked, got.right_heat
    surface = got.baking.surface
    turn_s = got.turn_s if got.turn_s is not None else got.off_s
    habit = implied(got.baking.usual, [h.seconds for h in q.habit]) if q.habit else None
    return {
        "events": {k: None if e.p50 is None else e.as_dict() for k, e in got.events.items()},
        "likelihood": {
            "kind": "score",
            "pocket_frac": got.score.score / 100,
            "reasons": [{"factor": x.factor, "points": x.points, "text": x.text} for x in got.score.reasons],
        },
        "surface_c": heat_band(surface.temp_c, spread_k(surface)).as_dict(),
        "moisture_loss_frac": got.moisture_loss_frac,
        "colour": {
            "bottom_at_turn": got.colour_at(turn_s)[0],
            "bottom_at_off": got.colour_at(got.off_s)[0],
            "top_at_off": got.colour_at(got.off_s)[1],
        },
        "coldest_c_at_off": got.bands.events["coldest"].as_dict(),
        "verdicts": told(got.verdicts),
        "program": [_action(a) for a in actions(got)],
        "right_heat": right and {"surface_c": right.band.as_dict(), "program": _right_program(got, right)},
        "right_heat_reason": right_heat_reason(right, got.baking),
        "implied_surface_c": habit.band.as_dict() if habit and habit.band else None,
        "implied_reason": habit and implied_reason(habit, got.baking),
        "carpet": {"s": baked.s.tolist(), "depth_mm": baked.depth_mm.tolist(), "temp_c": baked.temp_c.tolist()},
        "surface_after": {"temp_c": got.surface_after_c, "recovery_s": got.recovery_s},
        "matters": list(got.bands.matters),
        "cautions": [c.model_dump() for c in caution_out(got.cautions)],
        "why": {k: w.model_dump() for k, w in why_out(got.why).items()},
    }


def _action(a: Action) -> dict[str, Any]:
    found: dict[str, Any] = {"action": a.name, "at_s": a.at_s.as_dict()}
    return found if a.each_s is None else found | {"seconds_each": a.each_s}


def _right_program(got: Program, right: RightHeat) -> list[dict[str, Any]]:
    """The usual program at the right heat: its middle times."""
    found: list[dict[str, Any]] = [{"action": "load", "at_s": 0.0}]
    if right.turn_s is not None:
        found.append({"action": got.second, "at_s": right.turn_s})
    return [*found, {"action": "off", "at_s": right.off_s}]
