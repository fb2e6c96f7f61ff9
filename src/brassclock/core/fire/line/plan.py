"""The line: each bread in turn as early as it goes, at several paces, or the rhythm; the better is shown.

Neither is proven the best; the lower bound says how far off it can be at most.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from functools import lru_cache
from itertools import product

from brassclock.core.fire.line.board import Board
from brassclock.core.fire.line.rhythm import MOST_PLACED, Rhythm, rhythm
from brassclock.core.fire.line.spec import Line, LineSpec, Task, lower_bound

SPARE_SPOTS = 2  # beyond those that the hands can keep full, more help nothing
FIRST_PLACED = 6_500  # placements of a move tried: some 0.13 s


def in_turn(spec: LineSpec, breads: int, pace: int, late: bool, ahead: int = 0) -> list[Task] | None:
    """Each bread as early as it goes, its load `pace` seconds after the one before it at the soonest; None when one
    does not fit.

    The first is loaded only when `ahead` more could be ready for the heat.
    """
    board = Board(spec, 2 * (breads + 2) * (spec.held_s + spec.hands_s) + max(k.longest_s for k in spec.kinds))
    first = spec.moves(1)
    before = sum(o.hands_s for o in first.ops[: first.load])
    load_since = first.head_s(first.load) + ahead * before // spec.cooks if ahead else 0
    for number in range(1, breads + 1):
        loaded = board.insert(number, load_since, late)
        if loaded is None:
            return None
        load_since = loaded + pace
    return board.tasks


def repeated(spec: LineSpec, found: Rhythm, breads: int) -> list[Task] | None:
    """A rhythm played for so many breads; None when whole breads do not fit its cooks (never for one)."""
    board = Board(spec, found.cycle_s * (breads + 1) + found.at[-1] + spec.ops[-1].hands_s + 1)
    every = sorted(
        (number * found.cycle_s + start, number, k) for number in range(breads) for k, start in enumerate(found.at)
    )
    for start, number, k in every:
        bits = ((1 << spec.ops[k].hands_s) - 1) << start
        if all(taken & bits for taken in board.taken):
            return None
        board.put(number + 1, k, start, number % spec.spots)
    return board.tasks


@lru_cache(maxsize=64)
def plan_line(spec: LineSpec, breads: int, most: int = FIRST_PLACED) -> Line:
    """The better of what is found in turn, at several paces, and by the rhythm, by trying so many placements of a move
    (some 20 us each).

    Longer looking is never worse, another spot neither, and the same question has the same answer, however fast the
    machine is. ValueError when no line fits.
    """
    found = _best(replace(spec, spots=min(spec.spots, _kept_full(spec) + SPARE_SPOTS)), breads, most)
    if found is None:
        raise ValueError("No line fits these moves: a gap is shorter than the hands allow. Widen then_max_s.")
    return _line(spec, breads, lower_bound(spec, breads), *found)


def _kept_full(spec: LineSpec) -> int:
    """Number of spots that the hands can keep full; all of them where breads are mixed."""
    return spec.spots if spec.order else math.ceil(spec.held_s / spec.hands_bound_s)


@lru_cache(maxsize=128)
def _best(spec: LineSpec, breads: int, most: int) -> tuple[tuple[Task, ...], str] | None:
    """The best line found, and how; that of one spot fewer where it is better. None when none fits."""
    bound, best, placed = lower_bound(spec, breads), None, 0
    found = rhythm(spec, min(MOST_PLACED, most // 3))
    if found is not None and (tasks := repeated(spec, found, breads)) is not None:
        best = (_ends(tasks), tasks, "rhythm")
    for n, (pace, late, ahead) in enumerate(_tries(spec, breads, found.cycle_s if found else spec.cycle_bound_s + 12)):
        if best is not None and (best[0] <= bound or (n > 1 and placed > most)):
            break
        tried = in_turn(spec, breads, pace, late, ahead)
        placed += breads * len(spec.ops)
        if tried is not None and (best is None or _ends(tried) < best[0]):
            best = (_ends(tried), tried, "in turn")
    fewer = replace(spec, spots=max(spec.spots - 1, 1)) if not spec.lies else spec
    if fewer.spots < spec.spots and (best is None or lower_bound(fewer, breads) < best[0]):
        other = _best(fewer, breads, most)
        if other is not None and (best is None or _ends(other[0]) < best[0]):
            return other
    return None if best is None else (tuple(best[1]), best[2])


def _tries(spec: LineSpec, breads: int, cycle: int) -> Iterator[tuple[int, bool, int]]:
    """(pace, rolls late, breads ahead) worth trying, the likeliest first."""
    bound = spec.cycle_bound_s
    yield from product(dict.fromkeys((0, bound, cycle)), (True, False), (0,))
    most = min(breads, spec.spots + 1)
    yield from (
        (pace, late, ahead) for ahead in range(1, most) for pace in (0, bound, bound // 2) for late in (True, False)
    )
    yield from product(range(bound + 1, bound + 13), (True, False), (0, 1))


def _ends(tasks: Sequence[Task]) -> int:
    return max(t.end_s for t in tasks) - min(t.start_s for t in tasks)


def _line(spec: LineSpec, breads: int, bound: int, tasks: Sequence[Task], method: str) -> Line:
    zero = min(t.start_s for t in tasks)
    moved = sorted((t.later(-zero) for t in tasks), key=lambda t: (t.start_s, t.round_no))
    done = sorted(max(t.end_s for t in moved if t.round_no == n) for n in range(1, breads + 1))
    cycle = (done[-1] - done[0]) / (breads - 1) if breads > 1 else float(done[0])
    return Line(tuple(moved), done[-1], bound, cycle, _neck(spec, breads), method, tuple(done[-1] - d for d in done))


def _neck(spec: LineSpec, breads: int) -> str:
    """Bottleneck of the line: hands, spots, or a station by its name: the time that all breads together want of
    each, over how many there are."""
    rounds = [spec.moves(n) for n in range(1, breads + 1)]
    wants = {
        "hands": sum(k.hands_s for k in rounds) / spec.cooks,
        "spots": sum(k.on_s + spec.recover_of(spec.kind(n)) for n, k in enumerate(rounds, 1)) / spec.spots,
    }
    for station in spec.stations:
        stays = [(k, stay) for k in rounds if (stay := k.stay(station.name))]
        wants[station.name] = sum(k.between_s(*stay) + station.recover_s for k, stay in stays) / station.count
    return max(wants, key=lambda name: wants[name])


def saved_s(spec: LineSpec, breads: int, line: Line, most: int = FIRST_PLACED) -> tuple[int | None, int]:
    """(seconds another spot would save, seconds another pair of hands would); None for the spot of several surfaces."""
    cook = plan_line(replace(spec, cooks=spec.cooks + 1), breads, most).makespan_s
    saves = max(line.makespan_s - cook, 0)
    if spec.lies:
        return None, saves
    spot = plan_line(replace(spec, spots=spec.spots + 1), breads, most).makespan_s
    return max(line.makespan_s - spot, 0), saves
