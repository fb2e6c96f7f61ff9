"""Retiming within a session on the heat: how hot the surface is, by the first bread's times and by the colour of
each."""

from __future__ import annotations

from dataclasses import replace
from functools import partial
from typing import Any

from sqlmodel import Session

from brassclock.core.fire.actions import leaves_s
from brassclock.core.fire.hearth import COLOURS
from brassclock.core.fire.probe import EVENT_OF, ColourSeen, Probe, invert
from brassclock.core.fire.program import Program
from brassclock.core.fire.surface_heat import spread_k
from brassclock.core.fire.verdicts import told
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model
from brassclock.services.kitchen.surfaces import surface_of

COLOUR_STEP = 0.88  # judgement: the least that a colour changes of the second side's time
MOST_COLOURS = 4  # the latest breads whose colour was called


def facts_of_probe(r: BakeSnapshot) -> dict[str, float]:
    """Times seen on the first bread that shows anything, in seconds from its contact."""
    loads = {t.round_no: t.at for t in r.taps if t.kind == "load"}
    facts = [t for t in r.taps if t.kind in EVENT_OF and t.round_no in loads]
    if not facts:
        return {}
    first = min((t.round_no for t in facts), key=lambda n: loads[n])
    return {t.kind: (t.at - loads[first]).total_seconds() for t in facts if t.round_no == first}


def colours_called(r: BakeSnapshot) -> list[tuple[str, float | None, float]]:
    """Breads that were called too pale or too dark: the word, when it was turned (None: never), and until when it lay
    there [s from contact]."""
    found: list[tuple[str, float | None, float]] = []
    for call in [t for t in r.taps if t.kind in COLOURS][-MOST_COLOURS:]:
        own = {t.kind: t.at for t in r.taps if t.round_no == call.round_no}
        if "load" not in own:
            continue
        turned, end = own.get("turn"), own.get("off", call.at)
        turn_s = None if turned is None else (turned - own["load"]).total_seconds()
        off_s = (end - own["load"]).total_seconds()
        if off_s > 0:
            found.append((call.kind, turn_s, off_s))
    return found


def retime(session: Session, r: BakeSnapshot) -> None:
    """Set the frozen program of each bread by the facts as they stand now; without any it is as it was frozen."""
    if r.bake.program is None:
        return
    if not r.bake.parts:
        r.bake.program = _seen_program(r, None)
        return
    work = solve.solve(r)
    line = solve.line_kinds(r, work)
    programs = []
    for k, (kind, done) in enumerate(zip(line.kinds, (work, *work.parts), strict=True)):
        own = set(line.rounds_of(k))
        programs.append(_seen_program(replace(kind.rows, taps=[t for t in r.taps if t.round_no in own]), done))
    r.bake.program = programs[0] | {"parts": programs[1:]}


def _seen_program(r: BakeSnapshot, work: solve.BakeResult | None) -> dict[str, Any]:
    """The frozen program of one bread by what was seen of its rounds; `work` is its bake solved, where it is known."""
    kept = r.bake.program
    assert kept is not None
    base = kept.get("base") or {k: v for k, v in kept.items() if k != "parts"}
    found: dict[str, Any] = {**base, "base": base}
    seen, called = facts_of_probe(r), colours_called(r)
    if (seen or called) and (work := work or solve.solve(r)).bread is not None:
        probe = _measured(r, work, seen, called)
        found |= {
            "surface_c": round(probe.temp_c, 1),
            "surface_sd_c": round(probe.sd_c, 1),
            "surface_was_c": probe.was_c,
        }
        if not r.bake.heat_steps:  # a cook's own way keeps its own times, but for a colour that is called
            found |= _retimed(
                fire_model.program_at(r, work.bread, work.maturity, probe.temp_c), base, r.kitchen.temp_unit
            )
    found |= _as_called(found, called)
    steps = sum(t.kind == "dark" for t in r.taps) - sum(t.kind == "pale" for t in r.taps)
    if steps:
        found["colour_steps"] = steps
    return found


def _measured(
    r: BakeSnapshot, work: solve.BakeResult, seen: dict[str, float], called: list[tuple[str, float | None, float]]
) -> Probe:
    """The heat of the surface that the breads say."""
    bread, program, surface = work.bread, work.program, surface_of(r.surface)
    assert bread is not None and program is not None
    wished = fire_model.wished_dose(r.bake)

    def dose_ratio(turn_s: float | None, off_s: float, temp_c: float) -> float:
        return min(fire_model.doses_at(program, temp_c, turn_s, off_s)) / wished

    return invert(
        seen,
        surface.temp_c,
        lambda t: fire_model.events_at(r, bread, t),
        spread_k(surface),
        [ColourSeen(word, partial(dose_ratio, turn_s, off_s)) for word, turn_s, off_s in called],
    )


def _retimed(hot: Program, base: dict[str, Any], unit: str) -> dict[str, Any]:
    """The times of a program at another heat. The moves of a line that has begun stay: a bread that was to be turned is
    turned, and no other."""
    events, off_s = hot.baked.events, leaves_s(hot)
    turned = base["turn_s"] is not None
    turn_s = (hot.turn_s or off_s * base["turn_s"] / base["off_s"]) if turned else None
    moves, had = fire_model.moves_told(hot), base.get("moves", [])
    same = [m["move"] for m in had] == [m["move"] for m in moves]
    return {
        "turn_s": turn_s,
        "off_s": off_s,
        "through_s": hot.end.through_s,
        "verdicts": told(hot.verdicts, unit),
        "puff_s": events["puff"],
        "bubbles_s": events["bubbles"],
        "brown_s": events["light_bottom"],
        "moves": moves if same else had,
    }


def _as_called(program: dict[str, Any], called: list[tuple[str, float | None, float]]) -> dict[str, float | None]:
    """Turn and end of the next bread [s]: later than those of one that was pale, sooner than those of one that was
    dark, not before it is through."""
    turn_s, off_s = program["turn_s"], float(program["off_s"])
    if not called:
        return {"turn_s": turn_s, "off_s": off_s}
    word, was_turned_s, was_off_s = called[-1]
    side_s = was_off_s - (was_turned_s or 0.0)
    if word == "pale":
        turn_s = None if turn_s is None else max(turn_s, was_turned_s or 0.0)
        off_s = max(off_s, (turn_s or 0.0) + side_s / COLOUR_STEP)
    else:
        off_s = min(off_s, (turn_s or 0.0) + max(side_s * COLOUR_STEP, 5.0))
    return {"turn_s": turn_s, "off_s": max(off_s, program.get("through_s") or 0.0)}


def without(r: BakeSnapshot, tap_id: int) -> BakeSnapshot:
    """The rows as if a tap had not been made."""
    return replace(r, taps=[t for t in r.taps if t.id != tap_id])
