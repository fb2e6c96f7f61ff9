"""A line at the heat, played by a cook who is late by so much at each move, as the live hearth tells it."""

from __future__ import annotations

import time
from collections.abc import Callable
from dataclasses import dataclass, field

from brassclock.core.fire import hearth as hearth_rules
from brassclock.core.fire.line.live import Follower
from brassclock.core.fire.line.spec import LineSpec

SKIPPED_S = 7.0  # a cook who is late by just this leaves the turn out


@dataclass
class Played:
    """Seconds from the first load, what went wrong, by how much each move changed when the next load was told [s],
    and how long each was mended [ms]."""

    seconds: float = 0.0
    wrong: list[str] = field(default_factory=list)
    changed_s: list[float] = field(default_factory=list)
    mended_ms: list[float] = field(default_factory=list)


def played(
    spec: LineSpec, breads: int, turn_s: float | None, off_s: float, late: Callable[[int], float], lost: int = 0
) -> Played:
    """Every move when it is due, later by `late` of which move it is, or at once where that is negative; round `lost`
    falls."""
    run, taps, told = Played(), list[hearth_rules.Tap](), dict[int, float]()
    follower = Follower(spec, breads, 2_500)
    now, grill = 0.0, spec.stations[0].count if spec.stations else 0
    for move in range(10 * breads):
        began = time.perf_counter()
        line = follower.follow(taps)
        run.mended_ms.append(1e3 * (time.perf_counter() - began))
        loads = line.contact_s if line else {}
        state = hearth_rules.hearth(taps, breads, spec.spots, turn_s, off_s, spec.recover_s, grill, loads or None)
        if state.finished:
            run.seconds = now - taps[0].at_s
            return run
        if line is None and taps:
            run.wrong.append(f"no line after move {move}")
        run.changed_s += [abs(loads[n] - told[n]) for n in list(loads)[:1] if n in told]
        told, due, off_by = loads, state.due[0], late(move)
        now = now + 1 if off_by < 0 else max(now + 1, due.at_s) + off_by
        kind = "fell" if lost and due.round_no == lost and due.move == "off" else due.move
        if kind == "turn" and not grill and off_by == SKIPPED_S:
            kind = "off"  # taken off unturned
        tap = hearth_rules.Tap(kind, due.round_no, due.spot, now)
        problem = hearth_rules.impossible(taps, tap, breads, spec.spots, grill)
        if problem:
            run.wrong.append(problem)
            return run
        taps.append(tap)
    run.wrong.append("it never ends")
    return run
