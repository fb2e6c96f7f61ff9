"""The request of a day by contract: its shapes, its checks, and each bake of it as the day's search asks for it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Annotated, Literal
from zoneinfo import ZoneInfo, available_timezones

from pydantic import Field, model_validator

from brassclock.core.day.courses import AS_PLANNED, COURSES, Choice, PlanRequest, own_course
from brassclock.core.day.options import DOSES, leaven_frac
from brassclock.core.day.places import DEFAULTS, Place, places_of
from brassclock.core.day.shared import shelf_litres
from brassclock.core.day.spec import BakeSpec, Cold, StageSpec, Told
from brassclock.core.errors import FieldFault, gather, invalid
from brassclock.core.fire.surfaces import KINDS as SURFACE_KINDS
from brassclock.core.matter.dough import dough_of
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.terms import PlaceKey, Strength
from brassclock.core.time import hours_between
from brassclock.core.weigh.methods import methods
from brassclock.services.bake.methods import method_facts
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.contract.common import MassLine, Ratio, Request, StageEnds, Temp, portions_of
from brassclock.services.rise import spec as rise_spec
from brassclock.services.schemas.bake import StageTime
from brassclock.services.schemas.quantities import within
from brassclock.services.times import BOUND, outside
from brassclock.services.weigh.model import dough_and_sponge
from brassclock.store.tables import Bake, Kitchen
from brassclock.store.tables import Surface as SurfaceRow

Minutes = Annotated[float, within(0, 600, "min")]


MOST_BAKES = 8


ROUTES = {"room": ("room",), "cold": ("cold", "cold, two nights"), "hybrid": ("hybrid", "hybrid, two nights")}


PLAIN = [("plain_flour", 500.0), ("water", 310.0), ("yeast_instant", 3.0), ("salt_fine", 10.0)]


HORIZON = dt.timedelta(hours=96)


MOST_AHEAD = dt.timedelta(days=14)  # of a table, as in the application


NEAR = dt.timedelta(days=2)  # busy hours so far outside the day change nothing


class DayStageRequest(StageEnds):
    name: str = "rise"
    target_ratio: Ratio | None = None
    time: StageTime | None = None  # as a cook says it; over the ratio
    place: PlaceKey = "bench"


class ServeRequest(Request):
    at: dt.datetime
    until: dt.datetime | None = None
    which: Literal["first", "last"] = "last"


class DayBakeRequest(Request):
    name: Annotated[str, Field(min_length=1, max_length=80)]
    method: str | None = None
    lines: Annotated[list[MassLine], Field(max_length=60)] | None = None
    stages: Annotated[list[DayStageRequest], Field(min_length=2, max_length=2)] | None = None
    strength: Strength = "kneaded"
    mix_temp_c: Annotated[float, within(5, 40, "C")] = 24.0
    hands_min: dict[Literal["weigh", "mix", "ball", "roll"], Minutes] = {}
    preheat_min: Minutes | None = None
    preheat_attended: bool = False
    line_min: Minutes | None = None
    pieces: Annotated[int, Field(ge=1, le=500)] | None = None
    surface: str | None = None
    serve: ServeRequest | None = None


class KitchenRequest(Request):
    hourly_c: Annotated[list[Temp], Field(min_length=24, max_length=24)] = [21.0] * 24
    fridge_c: Annotated[float, within(-2, 15, "C")] = 4.0
    fridge_litres: Annotated[float, within(1, 5000, "L")] | None = None
    cooks: Annotated[int, Field(ge=1, le=20)] = 1
    oven: bool = True


class BusyRequest(Request):
    start: dt.datetime
    end: dt.datetime
    name: str = ""
    hands: Annotated[int, Field(ge=1, le=20)] | None = None


class AllowRequest(Request):
    routes: Annotated[list[Literal["room", "cold", "hybrid"]], Field(min_length=1, max_length=3)] | None = None
    dose_range: tuple[float, float] | None = None
    cold_nights: Annotated[int, Field(ge=0, le=2)] | None = None


class DayRequest(Request):
    now: dt.datetime | None = None
    serve: ServeRequest | None = None
    serve_at: dt.datetime | None = None
    zone: str | None = None
    bakes: Annotated[list[DayBakeRequest], Field(min_length=1, max_length=MOST_BAKES)]
    kitchen: KitchenRequest = KitchenRequest()
    busy: Annotated[list[BusyRequest], Field(max_length=5000)] = []
    allow: AllowRequest = AllowRequest()

    @model_validator(mode="after")
    def _served(self) -> DayRequest:
        if self.serve is None and self.serve_at is None and any(b.serve is None for b in self.bakes):
            raise ValueError("Give serve (its at) or serve_at: the day is planned back from the table.")
        return self


@dataclass(frozen=True)
class Asked:
    """A bake of the request, ready to place."""

    name: str
    request: PlanRequest
    choice: Choice
    surface: str


def check_request(req: DayRequest) -> None:
    """Raise InvalidInput naming every instant without a zone, or too far off, then every other fault."""
    instants = _instants(req)
    gather(
        [
            FieldFault(pointer, f"{moment.isoformat()} has no zone. Write it as 2026-11-27T20:00:00+01:00.")
            for pointer, moment in instants
            if moment.tzinfo is None
        ]
    )
    now = req.now or min(m for p, m in instants if "serve" in p)
    faults = []
    for pointer, moment in instants:
        if "/busy" in pointer:
            continue
        ahead = "serve" in pointer and req.now is not None and moment - now > MOST_AHEAD
        if ahead or outside(moment, now):
            text = f"{moment.isoformat()} lies too far off. {BOUND} A table is at most {MOST_AHEAD.days} days ahead."
            faults.append(FieldFault(pointer, text))
    gather(faults)
    gather([*_day_faults(req), *(fault for i in range(len(req.bakes)) for fault in _bake_faults(req, i))])


def _instants(req: DayRequest) -> list[tuple[str, dt.datetime]]:
    """Every instant that is given, under its pointer."""
    found: list[tuple[str, dt.datetime | None]] = [("/now", req.now), ("/serve_at", req.serve_at)]
    found += [(f"/busy/{i}/{k}", getattr(x, k)) for i, x in enumerate(req.busy) for k in ("start", "end")]
    for at, serve in [("/serve", req.serve), *((f"/bakes/{i}/serve", b.serve) for i, b in enumerate(req.bakes))]:
        found += [(f"{at}/at", serve.at), (f"{at}/until", serve.until)] if serve else []
    return [(pointer, moment) for pointer, moment in found if moment is not None]


def _day_faults(req: DayRequest) -> list[FieldFault]:
    """Faults of the kitchen's hours, its zone and what may be changed."""
    faults = [
        FieldFault(f"/busy/{i}/end", f"It ends at {x.end} but begins at {x.start}. Give an end after the start.")
        for i, x in enumerate(req.busy)
        if x.end <= x.start
    ]
    if req.zone is not None and req.zone not in available_timezones():
        faults.append(FieldFault("/zone", f"“{req.zone[:40]}” is no time zone. Use a name as Europe/Zurich."))
    low, high = req.allow.dose_range or (1e-5, 1.0)
    if not 0 < low <= high:
        text = f"{low:g} to {high:g} is no range of leaven over flour. Give as [0.002, 0.01]."
        faults.append(FieldFault("/allow/dose_range", text))
    return faults


def _bake_faults(req: DayRequest, i: int) -> list[FieldFault]:
    """Faults of the i-th bake."""
    bake, faults = req.bakes[i], []
    if any(b.name == bake.name for b in req.bakes[:i]):
        faults.append(FieldFault(f"/bakes/{i}/name", f"Two bakes are called “{bake.name}”. Give each its own name."))
    if bake.method is not None and bake.method not in methods():
        text = f"“{bake.method[:40]}” is no method. Use one of {', '.join(methods())}."
        faults.append(FieldFault(f"/bakes/{i}/method", text))
    if bake.method is None and bake.stages is None:
        faults.append(FieldFault(f"/bakes/{i}", "Give a method, or its two stages with their target_ratio."))
    serve = bake.serve or req.serve
    if serve is not None and serve.until is not None and serve.until <= serve.at:
        text = f"The table opens {serve.at} and would close {serve.until}. Give a later end."
        faults.append(FieldFault("/serve/until", text))
    return faults


def zone_of(req: DayRequest) -> dt.tzinfo:
    if req.zone is not None:
        return ZoneInfo(req.zone)
    first = req.serve_at or (req.serve and req.serve.at) or next(b.serve.at for b in req.bakes if b.serve)
    return first.tzinfo or dt.UTC


def asked_of(req: DayRequest, number: int, zone: dt.tzinfo) -> Asked:
    bake = req.bakes[number]
    serve = bake.serve or req.serve or ServeRequest(at=table_of(req))
    now = (req.now or serve.at - HORIZON).astimezone(zone)
    if serve.at <= now:
        raise invalid("/serve/at", f"{serve.at.isoformat()} is not after now, {now.isoformat()}. Give a time ahead.")
    spec, surface, grams = spec_of(req, number, now, serve.at.astimezone(zone))
    line = spec.line_min
    until, service = serve.at, 0.0
    if serve.until is not None:
        service = 60 * hours_between(serve.at, serve.until)
        until, line = serve.until, service + rise_spec.FIRST_MIN
    elif serve.which == "first":
        until = serve.at + dt.timedelta(minutes=max(line - rise_spec.FIRST_MIN, 0.0))
    chilled = spec.ball.cold is not None
    spec = replace(
        spec,
        line_min=line,
        service_min=service,
        waves=max(-int(-service // rise_spec.WAVE_MIN), 1) if chilled else 1,
    )
    request = PlanRequest(spec, until.astimezone(zone), now, litres=shelf_litres(grams))
    return Asked(bake.name, request, choice_of(req.allow, spec), surface)


def table_of(req: DayRequest) -> dt.datetime:
    """Serving time, where no bake says it itself; the request's shape has made sure that it is there."""
    assert req.serve_at is not None
    return req.serve_at


def choice_of(allow: AllowRequest, spec: BakeSpec) -> Choice:
    """Options of a search: the courses and doses of the request within what the method permits."""
    if spec.rests:
        return Choice()
    own = own_course(spec).chill
    wanted: list[str] = list(allow.routes or ROUTES)
    nights = 2 if allow.cold_nights is None else allow.cold_nights
    keys = [k for route in wanted for k in ROUTES[route] if COURSES[k].nights <= nights]
    own_key = {None: "room", "bulk": "cold", "ball": "hybrid"}[own]
    keys = [AS_PLANNED if k == own_key else k for k in keys]
    doses = DOSES
    if allow.dose_range is not None:
        had = leaven_frac(spec.batch)
        low, high = allow.dose_range[0] / had, allow.dose_range[1] / had
        steps = (high / low) ** 0.25
        doses = tuple(dict.fromkeys(round(low * steps**i, 4) for i in range(5)))
    return Choice(tuple(keys), doses)


def spec_of(req: DayRequest, number: int, now: dt.datetime, serve: dt.datetime) -> tuple[BakeSpec, str, float]:
    """(spec, surface, grams of dough) of a bake by its method, with what it says of its own over it."""
    bake = req.bakes[number]
    kitchen = Kitchen(
        id=0,
        name="",
        zone="UTC",
        hourly_c=list(req.kitchen.hourly_c),
        fridge_c=req.kitchen.fridge_c,
        cooks=req.kitchen.cooks,
        created_at=now,
    )
    surface = bake.surface or "surface"
    if bake.method is not None:
        method = methods()[bake.method]
        facts = method_facts(method)
        if bake.pieces is not None:
            scale = bake.pieces / (method.count or 8)
            facts["count"] = bake.pieces
            facts["lines"] = [{**x, "amount": _times(x["amount"], scale)} for x in facts["lines"]]
        for which, (end, low_h, most_h) in zip(("bulk", "ball"), _ends(bake, number), strict=False):
            if end != "rise":
                facts |= {f"{which}_end": end, f"{which}_h": low_h, f"{which}_most_h": most_h}
        row = Bake(id=0, kitchen_id=0, name=bake.name, method=bake.method, **facts, serve_at=serve, created_at=now)
        surface = bake.surface or (method.surfaces[0] if method.surfaces else "surface")
        hot = SurfaceRow(kitchen_id=0, name=surface, kind=surface, temp_c=250.0) if surface in SURFACE_KINDS else None
        r = BakeSnapshot(row, kitchen, hot, (), (), (), {}, {}, now)
        dough, sponge = dough_and_sponge(r)
        spec = rise_spec.any_spec(r, dough, bake.line_min or 15.0, sponge)
    else:
        lines = (
            portions_of(bake.lines, f"/bakes/{number}/lines")
            if bake.lines
            else portions_of([MassLine(ingredient=k, mass_g=g) for k, g in PLAIN], f"/bakes/{number}/lines")
        )
        dough = dough_of(lines)
        if not any(p.ingredient.is_ferment or p.ingredient.is_other_leaven for p in dough.portions):
            raise invalid(f"/bakes/{number}/lines", "Nothing in these lines makes gas. Add yeast, starter or powder.")
        spec = _typed_spec(bake, Batch(dough, bake.strength, bake.mix_temp_c), places_of({}, req.kitchen.fridge_c))
        told = [rise_spec.told_for(*end) for end in _ends(bake, number)]
        if not dough.has_ferment:
            usual = [Told(h, h, 1.3 * h) for h in rise_spec.USUAL_REST_H.values()]
            told = [t or u for t, u in zip(told, usual, strict=True)]
        spec = replace(spec, told=(told[0], told[1]))
    if bake.stages is not None and bake.method is not None:
        typed = _typed_spec(bake, spec.batch, places_of({}, req.kitchen.fridge_c))
        spec = replace(spec, bulk=typed.bulk, ball=typed.ball, sponge=None)
    own = bake.hands_min
    spec = replace(
        spec,
        weigh_min=own.get("weigh", spec.weigh_min),
        mix_min=own.get("mix", spec.mix_min),
        ball_min=own.get("ball", spec.ball_min),
        roll_min=own.get("roll", spec.roll_min),
        preheat_min=spec.preheat_min if bake.preheat_min is None else bake.preheat_min,
        line_min=spec.line_min if bake.line_min is None else bake.line_min,
        preheat_tended=bake.preheat_attended,
    )
    return spec, surface, spec.batch.dough.total_g


def _ends(bake: DayBakeRequest, number: int) -> list[tuple[str, float | None, float | None]]:
    """The ends of a bake's stages, as `stage_end` reads them; none where it has no stages of its own."""
    return [_end(stage, f"/bakes/{number}/stages/{i}") for i, stage in enumerate(bake.stages or ())]


def _end(stage: DayStageRequest, pointer: str) -> tuple[str, float | None, float | None]:
    """The end of a stage: by its minutes or as a cook says it; a time in the fridge ends as the dough comes out."""
    stage.check(pointer)
    if stage.skip or (stage.place == "fridge" and (stage.minutes is not None or stage.ends == "place")):
        return "skip", 0.0, None
    if stage.minutes is not None:
        low_h, high_h = (m / 60 for m in stage.minutes)
        return "time" if high_h else "skip", low_h, high_h if high_h > low_h else None
    if stage.ends == "time" and stage.time is None and stage.hours is not None:
        return "time", stage.hours, None
    return rise_spec.stage_end(stage.time, f"{pointer}/time")


def _times(amount: str, scale: float) -> str:
    grams = float(amount.split()[0])
    return f"{grams * scale:.2f} g"


def _typed_spec(bake: DayBakeRequest, batch: Batch, places: Mapping[str, Place]) -> BakeSpec:
    assert bake.stages is not None
    grams = batch.dough.total_g
    vessels = (
        Vessel("tub", grams, True, rise_spec.TUB_CM, "wood"),
        Vessel("tray", grams / (bake.pieces or 8), True),
    )
    specs = []
    for i, (stage, vessel) in enumerate(zip(bake.stages, vessels, strict=True)):
        hours = stage.length_h or (2.0, 1.0)[i]
        cold = Cold(0.25, hours, places["fridge"]) if stage.place == "fridge" else None
        made = Stage(
            ("bulk", "ball proof")[i],
            hours,
            ((0.0, 0.0),),
            vessel,
            "ball" if i == 0 else None,
            stage.target_ratio or (2.0, 1.4)[i],
        )
        specs.append(StageSpec(made, DEFAULTS["bench"] if cold else places[stage.place], cold=cold))
    return BakeSpec(batch, specs[0], specs[1])
