"""The lessons of a kept bake about the heat: each surface it was baked on, and the pace of its cook."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from statistics import fmean
from typing import Any

from brassclock.core.fire.calibration import weight_of_each
from brassclock.core.fire.hearth import COLOURS, ON_HEAT
from brassclock.core.keep.heat_belief import LIGHT_SD_LOG, TOLD_BROWNING, TOLD_K, Shown, as_stored, shown_by, together
from brassclock.core.keep.pace import pace_seen
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model
from brassclock.services.fire.live import core_taps
from brassclock.services.fire.session import facts_of_probe
from brassclock.services.kitchen.beliefs import Seen, key_of, set_sd_k
from brassclock.services.kitchen.surfaces import MEASURED, browns_of
from brassclock.services.solve import BakeResult

FACES = ("colour", "colour_top")  # words of a judged bread, by its face


def heat_lessons(r: BakeSnapshot) -> list[Seen]:
    """The evidence of a bake for the heat of its surfaces, for how bread browns there, and for its cook's pace."""
    work = solve.solve(r)
    line = solve.line_kinds(r, work)
    seen_on: dict[int, tuple[float, list[Shown]]] = {}  # by surface: what it is set to, what its breads showed
    for k, (kind, done) in enumerate(zip(line.kinds, (work, *work.parts), strict=True)):
        row, rounds = kind.rows.surface, set(line.rounds_of(k))
        if row is None:
            continue
        own = [t for t in r.taps if t.round_no in rounds]
        shown = _shown(replace(kind.rows, taps=own), done)
        if shown is not None and row.id is not None:
            seen_on[row.id] = row.temp_c, [*seen_on.get(row.id, (0.0, []))[1], shown]
    found = [
        Seen(
            key_of("surface", i),
            _told_ratio(both := together(parts)),
            float(LIGHT_SD_LOG),
            as_stored(both) | {"set_c": c},
        )
        for i, (c, parts) in seen_on.items()
    ]
    if not any(t.kind == "load" for t in r.taps):
        return found
    moves = [t for t in core_taps(r.taps) if t.kind in ON_HEAT]
    had = (r.bake.hearth or {}).get("pace", {})
    for move, seen_pace in pace_seen(line.spec(), line.rounds, moves, fire_model.QUICK_LINE).items():
        found.append(Seen(key_of("pace", move), seen_pace.mean * had.get(move, 1.0), seen_pace.sd))
    return found


def _shown(r: BakeSnapshot, work: BakeResult) -> Shown | None:
    """The evidence of a bake's breads for their surface; None where nothing was seen of any."""
    row, bread, program = r.surface, work.bread, work.program
    if row is None or bread is None or program is None:
        return None
    seen, judged = facts_of_probe(r), _judged(r)
    if not seen and not judged:
        return None
    plain, browns = bread.browning / browns_of(row), browns_of(row)

    def events(over_k: float, browning: float) -> dict[str, float | None]:
        return fire_model.events_at(r, replace(bread, browning=plain * browning), row.temp_c + over_k)

    def dose(face: int, turn_s: float | None, off_s: float, over_k: float) -> float:
        seen_dose = fire_model.doses_at(program, row.temp_c + over_k, turn_s, off_s)[face]
        return seen_dose / browns / fire_model.wished_dose(r.bake)

    calls: list[tuple[str, float, Callable[[float], float]]] = []
    for (word, face), times in judged.items():
        turns = [turn for turn, _ in times if turn is not None]
        turn_s, off_s = fmean(turns) if turns else None, fmean(off for _, off in times)
        calls.append((word, len(times) * weight_of_each(len(times)), partial(dose, face, turn_s, off_s)))
    own_sd_k = set_sd_k(row) if row.source in MEASURED else None
    return shown_by(seen, events, calls, own_sd_k)


def _judged(r: BakeSnapshot) -> dict[tuple[str, int], list[tuple[float | None, float]]]:
    """Turn and end [s from contact] of the breads of each colour word and face: as they were judged, else as they were
    called while they lay there."""
    at: dict[int | None, dict[str, Any]] = defaultdict(dict)
    for t in r.taps:
        at[t.round_no][t.kind] = t.at
    words = {o.round_no: [(w, n) for n, f in enumerate(FACES) if (w := getattr(o, f))] for o in r.outcomes}
    for t in r.taps:
        if t.kind in COLOURS and not words.get(t.round_no or 0):
            words[t.round_no or 0] = [(t.kind, 0)]
    found: dict[tuple[str, int], list[tuple[float | None, float]]] = defaultdict(list)
    for n, said in words.items():
        own = at.get(n, {})
        if "load" not in own or "off" not in own:
            continue
        turn_s = (own["turn"] - own["load"]).total_seconds() if "turn" in own else None
        off_s = (own["off"] - own["load"]).total_seconds()
        if off_s > 0 and (turn_s is None or 0 < turn_s < off_s):
            for call in said:
                found[call].append((turn_s, off_s))
    return found


def _told_ratio(shown: Shown) -> float:
    """Time seen over the time told where the surface is as it is set: of browning, else of the puff, else of bubbles;
    1 where no time was seen."""
    at = list(TOLD_BROWNING).index(0.0), list(TOLD_K).index(0.0)
    for fact in ("browned", "puffed", "bubbles"):
        if fact in shown.times:
            return math.exp(shown.times[fact][at[0]][at[1]])
    return 1.0
