"""The rise of one bake as its chain of stages: doughs, places, waits."""

from __future__ import annotations

import datetime as dt
import math
import re
from collections.abc import Mapping
from dataclasses import replace
from statistics import fmean

from brassclock.core.day.places import Place, places_of
from brassclock.core.day.shared import shelf_litres
from brassclock.core.day.spec import BakeSpec, Cold, DayPlan, Sponge, StageSpec, Told
from brassclock.core.errors import invalid
from brassclock.core.fire.heating import preheat_min
from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.mix.guide import FOAM_SD_LOG
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.belief import Reading as Look
from brassclock.core.rise.chemical import model as chemical_model
from brassclock.core.rise.chemical.model import gas_potential_ml
from brassclock.core.rise.dough_heat import Vessel, sphere_radius_m
from brassclock.core.rise.recipe import Batch, Seed
from brassclock.core.rise.stages import Stage
from brassclock.core.spoken import LEAST_GROWN, MOST_GROWN, grown, span_h
from brassclock.core.time import hours_between
from brassclock.services.bake.parts import pieces_beside
from brassclock.services.bake.snapshot import BakeSnapshot, breads_of, mix_temp_c, spells_of
from brassclock.services.kitchen.beliefs import belief_of, leaven_of
from brassclock.services.kitchen.jar import seed_now
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.store.tables import Bake

TUB_CM = 20.0
FEW = 8  # practice: pieces that the usual minutes are for; a longer row gets faster
BALLED_MIN = (2.0, 1.0, 0.5)  # practice: to begin, for each of a few pieces, for each of the rest
ROLLED_MIN = (4.0, 1.0)  # practice: to begin, and for each of the first rounds; the line rolls the rest
STIR_MIN = 5.0  # judgement: until the flour is wet, before kneading
FIRST_MIN = 5.0  # judgement: from the first load to the first bread on the table
WAVE_MIN = 45.0  # judgement: as long as a tray of balls stands well beside the heat
COLD_REST_H = 6.0
USUAL_REST_H = {"bulk": 0.5, "ball": 0.25}  # practice: a dough without yeast, where nothing else is said
BALL_MIN, ROLL_ONE_MIN = (1.0, 0.5), (1.0, 0.75)  # practice: to begin, and for each piece of a quick dough
TOLD_SLACK = 0.1  # judgement: of a single time that a cook says
RECENT = dt.timedelta(hours=24)
HOLDS_LIKE = {  # how a strength holds gas without yeast
    "developed": "developed",
    "kneaded": "developed",
    "enriched": "moderate",
    "wet_unkneaded": "batter",
    "wholemeal": "weak",
}


LIFTS_ALONE_ML = 60.0  # judgement: per 100 g flour; as much powder as lifts a thin round without a rise
NOTHING_LIFTS = "Nothing in this formula makes gas: it rests, it does not rise."
AT_ITS_RISE = re.compile(  # “1 to 2 hours, or until doubled” ends there too: the time is what it takes elsewhere
    r"(?:at )?(?:its )?rise|(?:[\w .-]*,? ?(?:or )?)?\b(?:until|till|til|when|once)\b.*"
    r"\b(?:ripe|risen|doubled?|doubles|tripled?|triples|grown|twice|puffy|puffed|ready|light|airy)\b.*"
    r"|(?:(?:about|nearly|almost|just|risen) )?(?:doubled?|tripled|twice (?:its|the) size|by half|half again|by \d+ ?%|"
    r"\d+ ?%|x ?\d(?:\.\d+)?|\d(?:\.\d+)? ?(?:x|times))(?: in (?:size|volume)| (?:its|the) size)?"
)
MOST_STAGE_H = 96.0


def places(r: BakeSnapshot) -> dict[str, Place]:
    """The kitchen's places, with what was read in them lately."""
    found = places_of(r.kitchen.places, r.kitchen.fridge_c)
    for key, place in found.items():
        seen = [x.value for x in r.air if x.place == key and x.value is not None and r.now - x.at <= RECENT]
        if seen and place.temp_c is not None:
            found[key] = replace(place, temp_c=fmean(seen))
    return found


def rises(dough: Dough, powder: str) -> bool:
    """True if a dough is planned by its rise: yeast in it, or a starter that powder does not outdo."""
    if any(p.ingredient.is_yeast for p in dough.portions):
        return True
    return dough.has_ferment and gas_potential_ml(dough, powder) < LIFTS_ALONE_ML


def seed_of(r: BakeSnapshot) -> Seed | None:
    """State of the bake's starter as it goes in: as it stands at mixing, or now."""
    return seed_now(r.starter, r.kitchen, r.feeds, r.now, r.done().get("mix", r.now)) if r.starter else None


def batch_of(r: BakeSnapshot, dough: Dough) -> Batch:
    """The bake's dough as it was, or will be, mixed."""
    seed = seed_of(r) if any(p.ingredient.is_starter for p in dough.portions) else None
    return Batch(dough, r.bake.strength, mix_temp_c(r), r.bake.bloomed, r.kitchen.altitude_m, seed, r.kitchen.powder)


def belief_here(r: BakeSnapshot, dough: Dough) -> Belief:
    """Prior belief of this dough's leaven; a bloom test moved it."""
    known = belief_of(r.kitchen, leaven_of(dough))
    tired = r.bake.activity_factor
    if not tired:
        return known
    return Belief(known.mean * tired, math.hypot(known.sd_log, FOAM_SD_LOG))


def _split(dough: Dough, sponge: Mapping[str, float]) -> tuple[Dough, tuple[Portion, ...]]:
    """(the sponge's dough, what joins it): each ingredient's mass in the sponge is taken from the whole."""
    left, first, joins = dict(sponge), [], []
    for p in dough.portions:
        inside = min(left.get(p.ingredient.id, 0.0), p.mass_g)
        left[p.ingredient.id] = left.get(p.ingredient.id, 0.0) - inside
        if inside > 0:
            first.append(replace(p, mass_g=inside))
        if p.mass_g - inside > 1e-9:
            joins.append(replace(p, mass_g=p.mass_g - inside))
    return dough_of(first), tuple(joins)


def _sponge(r: BakeSnapshot, dough: Dough, masses: Mapping[str, float], tub: Vessel) -> tuple[Dough, Sponge | None]:
    if r.bake.sponge_h is None or not masses:
        return dough, None
    first, joins = _split(dough, masses)
    if not first.has_flour_and_water or not first.has_ferment or not joins:
        return dough, None
    stage = Stage("sponge", r.bake.sponge_h, ((0.0, 0.0),), replace(tub, mass_g=first.total_g))
    return first, Sponge(r.bake.sponge_h, joins, stage)


def spec_of(r: BakeSnapshot, dough: Dough, line_min: float, sponge_g: Mapping[str, float]) -> BakeSpec:
    """Input of the backward plan for this bake."""
    bake, found = r.bake, places(r)
    piece_g = bake.piece_g or (dough.total_g / (bake.count or 1))
    pieces = pieces_of(dough, bake)
    litres = found["fridge"].litres
    tub = Vessel("tub", dough.total_g, True, TUB_CM, "wood", 1, dough.total_g, litres)
    tray = Vessel("tray", piece_g, True, None, "shelf", 1, dough.total_g, litres)
    first, sponge = _sponge(r, dough, sponge_g, tub)

    def stage_spec(which: str, stage: Stage) -> StageSpec:
        place = found.get(getattr(bake, f"{which}_place"), found["bench"])
        own = getattr(bake, f"{which}_air")
        cold = None
        if bake.cold and bake.cold["stage"] == which:
            cold = Cold(bake.cold["after_h"], bake.cold["hours"], found["fridge"])
        log = tuple(
            (x.at, x.value) for x in r.air if x.place == place.key and x.value is not None and place.temp_c is None
        )
        air = tuple((float(h), float(c)) for h, c in own) if own else None
        return StageSpec(stage, place, air, cold, spells_of(bake), log)

    service_min = 0.0
    if bake.serve_until is not None:
        service_min = max(60 * hours_between(bake.serve_at, bake.serve_until), 0.0)
        line_min = service_min + FIRST_MIN
    waves = math.ceil(service_min / WAVE_MIN) if bake.cold and bake.cold["stage"] == "ball" else 1
    return BakeSpec(
        batch_of(r, first),
        stage_spec("bulk", Stage("bulk", 2.0, ((0.0, 0.0),), tub, "ball", bake.bulk_ratio)),
        stage_spec("ball", Stage("ball proof", 1.0, ((0.0, 0.0),), tray, None, bake.ball_ratio)),
        mix_min=bake.knead_min + STIR_MIN,
        preheat_min=max(preheat_min(surface_of(b.surface)) for b in breads_of(r)),
        line_min=line_min,
        activity=belief_here(r, dough).mean,
        ball_min=BALLED_MIN[0] + BALLED_MIN[1] * min(pieces, FEW) + BALLED_MIN[2] * max(pieces - FEW, 0),
        roll_min=ROLLED_MIN[0] + ROLLED_MIN[1] * min(pieces, FEW),
        sponge=sponge,
        service_min=service_min,
        waves=max(waves, 1),
        told=(told_of(bake, "bulk"), told_of(bake, "ball")),
    )


def looks_of(r: BakeSnapshot, plan: DayPlan) -> list[Look]:
    """The readings of the dough, in the forecast's hours."""
    zero = plan.begun_at
    return [
        Look(
            hours_between(zero, x.at),
            x.kind,
            x.value if x.kind in ("ratio", "jar") else None,
            x.feel,
            x.value if x.kind == "dough_c" else None,
        )
        for x in r.readings
        if x.at > zero
    ]


def pieces_of(dough: Dough, bake: Bake) -> int:
    """Number of pieces of all breads of a dough; of what it weighs where no count is set."""
    own = bake.count or (max(int(dough.total_g / bake.piece_g), 1) if bake.piece_g else 1)
    return own + pieces_beside(bake)


def litres_of(spec: BakeSpec) -> float:
    """Litres of the cold shelf that a bake fills."""
    joins = sum(p.mass_g for p in spec.sponge.joins) if spec.sponge else 0.0
    return shelf_litres(spec.batch.dough.total_g + joins)


def rested_spec(
    r: BakeSnapshot,
    dough: Dough,
    line_min: float,
    here: chemical_model.Waiting | None,
    fridge: chemical_model.Waiting | None = None,
) -> BakeSpec:
    """The chain of a dough whose waits are told: its hours, and how long its gas lets it stand."""
    told = [told_of(r.bake, which, rests=True) or Told(h, h, h) for which, h in USUAL_REST_H.items()]
    sum_h = sum(t.aim_h for t in told)
    last_h = 1.6 * sum_h if here is None else here.h * (1 - cold_share(r.bake, fridge))
    bulk, ball = (replace(t, last_h=max(last_h - (sum_h - t.aim_h), t.aim_h)) for t in told)
    spec = spec_of(r, dough, line_min, {})
    pieces = pieces_of(dough, r.bake)
    ball_min, roll_min = BALL_MIN[0] + BALL_MIN[1] * pieces, ROLL_ONE_MIN[0] + ROLL_ONE_MIN[1] * pieces
    return replace(
        spec, told=(bulk, ball), ball_min=min(ball_min, spec.ball_min), roll_min=min(roll_min, spec.roll_min)
    )


def cold_share(bake: Bake, fridge: chemical_model.Waiting | None) -> float:
    """Share of its waiting that a dough of soda or powder spends in its planned cold [0 to 1].

    Waits at two temperatures add up as shares of what each would allow (judgement).
    """
    if not bake.cold or fridge is None:
        return 0.0
    return float(min(bake.cold["hours"] / max(fridge.h, 1e-6), 1.0))


def stage_end(text: str | None, pointer: str) -> tuple[str, float | None, float | None]:
    """(what ends a stage: rise, time or skip; its hours; its most hours) as a cook says it.

    Raises InvalidInput at `pointer`.
    """
    if text is None or AT_ITS_RISE.fullmatch(text.strip().lower()):
        return "rise", None, None
    span = span_h(text)
    if span is None:
        raise invalid(pointer, f"“{text[:40]}” is no time. Write it as 30 min, 16 to 24 h, 4 h out, overnight or skip.")
    low, high = span
    if high > MOST_STAGE_H:
        raise invalid(pointer, f"{high:g} h is too long. Give up to {MOST_STAGE_H:g} h for one stage.")
    return "time" if high > 0 else "skip", low, high if high > low else None


def end_stage(bake: Bake, which: str, text: str | None) -> None:
    """Set the end of a stage: its rise where nothing is given (or as far as is said: doubled, by half), else hours as
    they are said, or none at all. Raises InvalidInput."""
    end, low, most = stage_end(text, f"/{which}_time")
    setattr(bake, f"{which}_end", end)
    times = grown(text or "") if end == "rise" else None
    if times is not None:
        if not LEAST_GROWN <= times <= MOST_GROWN:
            raise invalid(f"/{which}_time", f"{times:g} times its size: give {LEAST_GROWN:g} to {MOST_GROWN:g}.")
        setattr(bake, f"{which}_ratio", times)
    setattr(bake, f"{which}_most_h", most)
    if low is not None:
        setattr(bake, f"{which}_h", low)


def told_for(end: str, low_h: float | None, most_h: float | None) -> Told | None:
    """The time that ends a stage [h], of what `stage_end` read; None for one that ends at its rise."""
    if end == "skip":
        return Told(0.0, 0.0, 0.0)
    if end != "time" or low_h is None:
        return None
    if most_h is not None and most_h > low_h:
        return Told(low_h, (low_h + most_h) / 2, most_h)
    return Told((1 - TOLD_SLACK) * low_h, low_h, (1 + TOLD_SLACK) * low_h)


def told_of(bake: Bake, which: str, *, rests: bool = False) -> Told | None:
    """The time that ends a stage of a bake; where its rise ends it None, or the usual rest of a dough that `rests`."""
    low_h = getattr(bake, f"{which}_h")
    told = told_for(getattr(bake, f"{which}_end"), low_h, getattr(bake, f"{which}_most_h"))
    if told is not None or not rests:
        return told
    hours = USUAL_REST_H[which] if low_h is None else low_h
    return Told(0.9 * hours, hours, 1.3 * hours)


def any_spec(r: BakeSnapshot, dough: Dough, line_min: float, sponge_g: Mapping[str, float]) -> BakeSpec:
    """The chain of a bake, whichever way it is lifted."""
    if rises(dough, r.kitchen.powder):
        return spec_of(r, dough, line_min, sponge_g)
    return rested_spec(r, dough, line_min, None)


def bulk_radius_mm(mass_g: float) -> float:
    """Radius of a dough lying as a heap, as the gas sees it: that of a ball of its volume.

    >>> round(bulk_radius_mm(800))
    55
    """
    return 1000 * sphere_radius_m(mass_g)
