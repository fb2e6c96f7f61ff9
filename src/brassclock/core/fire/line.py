"""The line: loads, turns and take-offs of several rounds on a few spots by one pair of hands.

A greedy schedule on whole seconds: rounds go first come first served onto the spot that is ready
first, and start late enough that no two hand moves overlap.
"""

from __future__ import annotations

import math
from dataclasses import dataclass

LOAD_S, TURN_S, OFF_S = 8, 3, 3  # practice: hand time of each move
LATEST_WAIT_S = 7200


@dataclass(frozen=True)
class Task:
    """A hand move of one round."""

    round_no: int
    move: str
    spot: int
    start_s: float
    hands_s: float


@dataclass(frozen=True)
class Line:
    """The whole line: tasks in time order, when the last round is off, and what holds it up."""

    tasks: tuple[Task, ...]
    makespan_s: float
    bottleneck: str
    cycle_s: float


def plan_line(rounds: int, spots: int, turn_s: float | None, off_s: float, recover_s: float) -> Line:
    """Schedule `rounds` breads on `spots`, each turned at `turn_s` and taken off at `off_s` after loading."""
    busy: list[tuple[float, float]] = []
    tasks: list[Task] = []
    ready_s = [0.0] * spots
    previous = 0.0
    for number in range(1, rounds + 1):
        spot = min(range(spots), key=lambda k: ready_s[k])
        moves = [("load", 0.0, LOAD_S), ("off", off_s, OFF_S)]
        if turn_s is not None:
            moves.insert(1, ("turn", turn_s, TURN_S))
        start = math.ceil(max(ready_s[spot], previous))
        limit = start + LATEST_WAIT_S
        while start < limit and any(
            start + at < b and a < start + at + hands for _, at, hands in moves for a, b in busy
        ):
            start += 1
        for move, at, hands in moves:
            busy.append((start + at, start + at + hands))
            tasks.append(Task(number, move, spot + 1, start + at, hands))
        ready_s[spot] = start + off_s + OFF_S + recover_s
        previous = start
    makespan = max((t.start_s + t.hands_s for t in tasks), default=0.0)
    hands = LOAD_S + OFF_S + (TURN_S if turn_s is not None else 0)
    held = (off_s + OFF_S + recover_s) / spots
    neck = "hands" if hands >= held else "spots"
    return Line(tuple(sorted(tasks, key=lambda t: t.start_s)), makespan, neck, max(hands, held))
