"""The shortest cycle in which every bread repeats the one before it, by placing the moves about the load in a ring of
seconds."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from brassclock.core.fire.line.spec import LineSpec

MOST_PLACED = 100_000  # placements tried: some two seconds
MOST_CYCLE_TRIES = 40


@dataclass(frozen=True)
class Rhythm:
    """A cycle that repeats: its seconds, and the start of each move of the first bread, from its first."""

    cycle_s: int
    at: tuple[int, ...]


class _Enough(Exception):
    """The search has tried as many placements as it may."""


@lru_cache(maxsize=64)
def rhythm(spec: LineSpec, most: int = MOST_PLACED) -> Rhythm | None:
    """The shortest cycle found by trying so many placements of a move, one bread to a cycle, for any number of cooks;
    None when there was none, or breads are mixed. The same question has the same answer, however fast the machine is.
    """
    if spec.order:
        return None
    left = [most]
    try:
        for cycle in range(spec.cycle_bound_s, spec.cycle_bound_s + MOST_CYCLE_TRIES):
            at = _phases(spec, cycle, left)
            if at is not None:
                return Rhythm(cycle, tuple(t - at[0] for t in at))
    except _Enough:
        pass
    return None


def _phases(spec: LineSpec, cycle: int, left: list[int]) -> list[int] | None:
    """Starts of every move about the load [s], so that breads `cycle` [s] apart never want the same hands; None when
    there are none.

    Every placement tried is taken from `left`; _Enough when none is left.
    """
    ops, load, whole = spec.ops, spec.kinds[0].load, (1 << cycle) - 1
    order = [*range(load + 1, len(ops)), *range(load - 1, -1, -1)]
    at: dict[int, int] = {load: 0}
    failed: set[tuple[int, int, tuple[int, ...]]] = set()

    def block(start: int, length: int) -> int:
        bits = ((1 << length) - 1) << (start % cycle)
        return (bits | bits >> cycle) & whole

    def place(step: int, masks: tuple[int, ...]) -> bool:
        if step == len(order):
            return True
        k = order[step]
        beside = at[k - 1] if k > load else at[k + 1]
        key = (step, beside % cycle, masks)
        if key in failed:
            return False
        before = ops[k - 1] if k > load else ops[k]
        for gap in range(before.then_min_s, min(before.then_max_s, before.then_min_s + cycle - 1) + 1):
            start = beside + before.hands_s + gap if k > load else beside - gap - before.hands_s
            bits = block(start, ops[k].hands_s)
            for cook, mask in enumerate(masks):
                if not mask & bits:
                    left[0] -= 1
                    if left[0] < 0:
                        raise _Enough
                    at[k] = start
                    if _holds(spec, at, cycle, k) and place(step + 1, (*masks[:cook], mask | bits, *masks[cook + 1 :])):
                        return True
                    if mask == 0:
                        break  # another idle cook is no different
        failed.add(key)
        return False

    if max(o.hands_s for o in ops) > cycle:
        return None
    first = (block(0, ops[load].hands_s), *([0] * (spec.cooks - 1)))
    return [at[k] for k in range(len(ops))] if place(0, first) else None


def _holds(spec: LineSpec, at: dict[int, int], cycle: int, k: int) -> bool:
    """True if spots and stations are enough once the move that frees one is placed."""
    moves, op = spec.kinds[0], spec.ops[k]
    if op.frees_spot:
        on = at[k] + op.hands_s - (at[moves.load] + spec.ops[moves.load].off_surface_s) + spec.recover_s
        if on > spec.spots * cycle:
            return False
    for station in spec.stations:
        stay = moves.stay(station.name)
        if (
            stay
            and op.frees == station.name
            and at[k] + op.hands_s - at[stay[0]] + station.recover_s > station.count * cycle
        ):
            return False
    return True
