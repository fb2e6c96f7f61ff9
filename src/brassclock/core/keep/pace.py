"""Pace of a cook at the heat, by the taps of a line: how long rolling and loading, turning and taking off take beside
the usual.

From one tap to the next the line, as it stood, has the hands do some things. Where they had no pause, or the next tap
came late, all of that time was theirs: it tells the pace of what took most of it. Where they had a pause and were in
time, it tells nothing; where that is so nearly always, a late one is a distraction and tells nothing either.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterable, Sequence
from statistics import median

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.hearth import LOST, Tap
from brassclock.core.fire.line.live import Follower
from brassclock.core.fire.line.pace import PACED, pace_of
from brassclock.core.fire.line.spec import LineSpec, Task
from brassclock.core.keep.ledger import Ratio

SETTLE = 2  # practice: the first moves of a line find their places
LEAST_S = Param(8.0, "s", 5, 15, Kind.JUDGEMENT, "of hands between two taps, to tell a pace by")
PAUSE_S = Param(3.0, "s", 1, 6, Kind.JUDGEMENT, "of idle hands between two taps that is none")
LEAST_SEEN, LEAST_SHARE = 3, 1 / 3  # judgement: stretches that tell of a move, and their share of all of it
SPREADS = {
    "bake": Param(0.12, "-", 0.05, 0.2, Kind.JUDGEMENT, "of a cook's pace from bake to bake, in the logarithm"),
    "stretch": Param(0.35, "-", 0.2, 0.5, Kind.JUDGEMENT, "of one stretch, in the logarithm"),
}


def pace_seen(spec: LineSpec, breads: int, taps: Iterable[Tap], most: int) -> dict[str, Ratio]:
    """The pace of one cook on a line beside its moves in `spec`, by the paced move: the median of its stretches, and
    the spread of that in the logarithm.

    Nothing is told of more cooks than one, or of a move that was seen too rarely. A quick cook who waits for the screen
    is believed less quick than he is. `most` is how many placements the plan itself may try.
    """
    if spec.cooks != 1:
        return {}
    moves = sorted((t for t in taps if t.kind in (*PACED, LOST)), key=lambda t: t.at_s)
    seen: dict[str, list[float]] = {move: [] for move in PACED}
    stretches: Counter[str] = Counter()
    follower = Follower(spec, breads, most)
    for n in range(1, len(moves)):
        line = follower.follow(moves[:n])
        stretch = None if line is None or n < SETTLE else _stretch(spec, line.tasks, moves[n - 1], moves[n])
        if stretch is not None:
            stretches[stretch[0]] += 1
            seen[stretch[0]] += [] if stretch[1] is None else [stretch[1]]
    bake_sd, one_sd = float(SPREADS["bake"]), float(SPREADS["stretch"])
    return {
        move: Ratio(median(found), math.hypot(bake_sd, one_sd / math.sqrt(len(found))))
        for move, found in seen.items()
        if len(found) >= max(LEAST_SEEN, LEAST_SHARE * stretches[move])
    }


def _lead_s(spec: LineSpec, round_no: int, move: str) -> int:
    """Seconds of a move before it is tapped: a load is tapped as the bread touches."""
    return spec.moves(round_no).op(move).off_surface_s


def _stretch(spec: LineSpec, tasks: Sequence[Task], last: Tap, tap: Tap) -> tuple[str, float | None] | None:
    """(the paced move that took most of the time from one tap to the next, its pace by that, None where there was a
    pause); None where too little was to be done, or another move was to be tapped first."""
    due = next((t for t in tasks if (t.round_no, t.move) == (tap.round_no, tap.kind)), None)
    if due is None:
        return None
    before = [t for t in tasks if t is not due and t.start_s < due.start_s]
    if any(t.move in PACED for t in before):
        return None
    hands: Counter[str] = Counter()
    if last.kind in PACED:
        op = spec.moves(last.round_no).op(last.kind)
        hands[last.kind] += op.hands_s - op.off_surface_s
    for t in before:
        hands[pace_of(t.move, spec.moves(t.round_no))] += t.end_s - t.start_s
    hands[due.move] += _lead_s(spec, due.round_no, due.move)
    hands_s, taken_s = sum(hands.values()), tap.at_s - last.at_s
    if hands_s < float(LEAST_S) or taken_s <= 0:
        return None
    told_s = due.start_s + _lead_s(spec, due.round_no, due.move) - last.at_s
    busy = told_s - hands_s <= float(PAUSE_S) or taken_s - told_s > float(PAUSE_S)
    return max(hands, key=lambda m: hands[m]), taken_s / hands_s if busy else None
