"""The reasons why rounds of a bake fell short: their faults, the facts that are known of them, the causes in words."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Iterator
from statistics import fmean
from typing import Any, cast

from brassclock.core.keep.cause.facts import Facts
from brassclock.core.keep.cause.judge import Judged, Ranked, judge
from brassclock.core.terms import Fault, LeafKey
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.kept import intent_of
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.schemas.keep import CausesRead
from brassclock.services.solve import BakeResult
from brassclock.store.tables import Outcome, Tap

UNITS = {
    "surface_c": "C",
    "thickness_mm": "mm",
    "skin_min": "min",
    "rest_min": "min",
    "dough_c": "C",
    "tear_mm2": "mm2",
    "bench_flour_g_m2": "g/m2",
    "turn_s": "s",
    "off_s": "s",
    "wait_min": "min",
    "acid_tta": "mL",
    "soda_excess": "g per 100 g flour",
}
NAMES = {
    "surface_c": "heat of the surface",
    "thickness_mm": "thickness",
    "uneven_frac": "unevenness",
    "skin_min": "time bare",
    "rest_min": "rest after rolling",
    "maturity": "ripeness",
    "dough_c": "heat of the dough",
    "tear_mm2": "tear",
    "bench_flour_g_m2": "bench flour",
    "hydration_frac": "water",
    "soda_excess": "soda over acid",
    "acid_tta": "acid",
    "starter_state": "starter",
    "kneaded": "kneaded",
    "greased": "fat on the surface",
    "nonstick": "coated",
    "wetted": "wetted",
    "docked": "docked",
    "edged": "edges stood up",
    "recovered": "the surface back at its heat",
    "char_left": "burnt flour",
    "microwaved": "microwaved",
    "tint": "how it browns",
    "turn_s": "turn",
    "off_s": "time on the heat",
    "wrap": "its wrap",
    "wait_min": "its wait",
}


LEAF_OF: dict[str, LeafKey] = {  # where a change is made, by the fact it lies in; on Fire where nothing is said
    "thickness_mm": "weigh", "hydration_frac": "weigh", "soda_excess": "weigh", "tint": "weigh", "docked": "weigh",
    "starter_state": "mix", "kneaded": "mix", "maturity": "rise", "dough_c": "rise", "acid_tta": "rise",
    "tear_mm2": "rise", "wrap": "keep", "wait_min": "keep", "microwaved": "keep",
}  # fmt: skip

SEEN: dict[tuple[str, str], Fault] = {  # faults in what a cook judges
    ("pocket", "flat"): "flat",
    ("pocket", "part"): "part_pocket",
    ("colour", "pale"): "pale",
    ("colour", "dark"): "scorched",
    ("colour_top", "pale"): "pale",
    ("colour_top", "dark"): "scorched",
    ("tender", "tough"): "tough",
}
DENIED: dict[tuple[str, str], tuple[Fault, ...]] = {  # faults that a judgement leaves no room for
    ("pocket", "full"): ("flat", "part_pocket", "one_side", "burst"),
    ("colour", "right"): ("pale", "scorched"),
    ("tender", "tender"): ("tough", "stiff"),
    ("tender", "chewy"): ("tough",),
}
SAID = ("infrared", "contact", "sign", "typed")  # sources by which a surface's heat counts as known


def causes_out(app: App, bake_id: int) -> CausesRead:
    """The causes of what fell short in a bake; no rounds where nothing did."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
    found = judged_bake(r)
    if found is None:
        return CausesRead(rounds=[], faults=[], verdict="not_enough_known", causes=[], other_share=1.0)
    short, faults, _ = fell_short(r.outcomes)
    told = judged_out(found, r.kitchen.temp_unit)
    for row, ranked in zip(told["causes"], found.causes, strict=True):
        row["rounds"] = [o.round_no for o in short if set(faults_of(o)) & set(ranked.faults)]
    return CausesRead.model_validate({"rounds": [o.round_no for o in short], "faults": faults, **told})


def judged_bake(r: BakeSnapshot) -> Judged | None:
    """The causes of what fell short in a bake; None where nothing did."""
    short, faults, denied = fell_short(r.outcomes)
    if not faults:
        return None
    given = facts_of_bake(r, solve.solve(r), [o.round_no for o in short])
    return judge(faults, Facts(**given), set(given), denied)


def fell_short(outcomes: Iterable[Outcome]) -> tuple[list[Outcome], list[Fault], list[Fault]]:
    """(outcomes that fell short, their faults, faults that none of them has): a fault that one round has is not denied
    by another that has it not."""
    short = [o for o in outcomes if faults_of(o)]
    faults = list(dict.fromkeys(f for o in short for f in faults_of(o)))
    denied = dict.fromkeys(f for o in short for said in _words(o) for f in DENIED.get(said, ()))
    return short, faults, [f for f in denied if f not in faults]


def faults_of(o: Outcome) -> list[Fault]:
    """Faults of a bread as it was judged."""
    named = cast(list[Fault], o.faults)
    return list(dict.fromkeys([*(SEEN[said] for said in _words(o) if said in SEEN), *named]))


def _words(o: Outcome) -> list[tuple[str, str]]:
    said = [("pocket", o.pocket), ("colour", o.colour), ("colour_top", o.colour_top), ("tender", o.tender)]
    return [(what, word) for what, word in said if word is not None]


def facts_of_bake(r: BakeSnapshot, work: BakeResult, rounds: list[int]) -> dict[str, Any]:
    """The known facts of these rounds, by the names of `Facts`: typed, measured, tapped or noted, none guessed."""
    bake, surface, dough = r.bake, surface_of(r.surface), work.sheet.dough if work.sheet else None
    given: dict[str, Any] = {
        "intent": intent_of(r, work.bread),
        "surface": surface.kind,
        "docked": bake.docked,
        "greased": surface.greased,
        "nonstick": surface.nonstick,
        "uneven_frac": bake.uneven_frac,
        "skin_min": bake.skin_min,
        "chemical": dough is not None and not dough.has_ferment,
    }
    if r.surface is not None and r.surface.source in SAID:
        given["surface_c"] = (bake.program or {}).get("surface_c") or surface.temp_c
    if work.bread is not None:
        given |= {"thickness_mm": work.bread.thickness_m * 1000, "diameter_cm": work.bread.diameter_m * 100}
    if "roll" in r.done() or any(t.kind == "load" for t in r.taps):
        given |= {"maturity": work.maturity, "dough_c": work.bread.temp_c if work.bread else None}
    if dough is not None:
        given |= {
            "hydration_frac": dough.hydration_frac,
            "soda_excess": work.sheet.soda.excess_g_per_100g_flour if work.sheet and work.sheet.soda else None,
            "acid_tta": work.forecast.acid.tta_ml if work.forecast and work.forecast.acid else None,
        }
    given |= _seconds(r, rounds) | {"recovered": _recovered(r, work, rounds)}
    return {k: v for k, v in (given | bake.noted).items() if v is not None}


COOLED_K = 15.0  # judgement: a surface so much under its heat has not come back


def pauses(taps: Iterable[Tap]) -> Iterator[tuple[int | None, float | None]]:
    """Each round that went on, with the time its spot had been free [s]; None for the first on its spot."""
    off_at: dict[int | None, dt.datetime] = {}
    for t in sorted((t for t in taps if t.kind in ("load", "off")), key=lambda t: t.at):
        if t.kind == "off":
            off_at[t.spot] = t.at
        else:
            yield t.round_no, (t.at - off_at[t.spot]).total_seconds() if t.spot in off_at else None


def _recovered(r: BakeSnapshot, work: BakeResult, rounds: list[int]) -> bool | None:
    """True if the surface was back at its heat when each of these rounds went on, by the taps: after a bread it comes
    back evenly over the time that the program gives it. None where no tap tells."""
    program = work.program
    if program is None or not program.recovery_s:
        return None
    drop_k = program.baking.surface.temp_c - program.surface_after_c
    missing_k = [
        drop_k * max(0.0, 1 - (program.recovery_s if pause_s is None else pause_s) / program.recovery_s)
        for round_no, pause_s in pauses(r.taps)
        if round_no in rounds
    ]
    return max(missing_k) < COOLED_K if missing_k else None


def _seconds(r: BakeSnapshot, rounds: list[int]) -> dict[str, float]:
    """Turn and end of these rounds, in the mean [s from contact]."""
    at = {(t.kind, t.round_no): t.at for t in r.taps}
    found = {}
    for kind, name in (("turn", "turn_s"), ("off", "off_s")):
        seen = [(at[kind, n] - at["load", n]).total_seconds() for n in rounds if (kind, n) in at and ("load", n) in at]
        if seen:
            found[name] = fmean(seen)
    return found


def judged_out(found: Judged, unit: str = "C") -> dict[str, Any]:
    """A verdict as the contract and the Keep leaf tell it, temperatures in the kitchen's unit."""
    return {
        "verdict": found.verdict,
        "causes": [
            {
                "cause": r.cause,
                "name": r.name,
                "share": r.share,
                "known": r.known,
                "evidence": evidence_of(r, unit),
                "change": r.change,
                "gain": r.gain,
            }
            for r in found.causes
        ],
        "other_share": found.other_share,
        "change": found.change
        and {
            "fact": found.change.fact,
            "from": found.change.value,
            "to": found.change.good,
            "text": found.change.change,
        },
        "ask": None if found.ask is None else {"fact": found.ask, "text": f"Note next time: {NAMES[found.ask]}."},
    }


def evidence_of(r: Ranked, unit: str = "C") -> str:
    """The fact against its good value, in words."""
    if not r.known:
        return f"{NAMES[r.fact]} is not known"
    if isinstance(r.value, bool) or r.value is None or isinstance(r.value, str):
        return f"{NAMES[r.fact]}: {_plain(r.value)}"
    if r.gain <= 0:
        return f"{NAMES[r.fact]} {_figure(r.fact, r.value, unit)}, as it should be"
    if r.fact in ("off_s", "turn_s"):
        return f"{NAMES[r.fact]} {_figure(r.fact, r.value, unit)}"
    return f"{NAMES[r.fact]} {_figure(r.fact, r.value, unit)}; {_figure(r.fact, r.good, unit)} is right"


def fact_words(fact: str, value: object, unit: str = "C") -> str:
    """A fact's value in words, with its unit."""
    if isinstance(value, bool) or not isinstance(value, int | float):
        return _plain(value)
    return _figure(fact, value, unit)


def _plain(value: object) -> str:
    words: dict[object, str] = {True: "yes", False: "no", None: "not said"}
    return words.get(value, str(value))


def _figure(fact: str, value: object, unit: str) -> str:
    assert isinstance(value, int | float)
    if fact in ("surface_c", "dough_c") and unit == "F":
        return f"{value * 1.8 + 32:.0f} F"
    if fact in ("uneven_frac", "hydration_frac"):
        return f"{value:.0%}"
    return f"{value:.3g} {UNITS.get(fact, '')}".strip()
