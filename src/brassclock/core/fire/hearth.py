"""The live hearth: from the taps made so far to what is on each spot and what the hands do next.

Pure: instants come in as seconds on one clock. A tap moves one round one step; what follows is due at
the instants that the program gives, so nothing drifts and nothing is lost by a reload.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import NamedTuple

MOVES = ("load", "turn", "off")
FREEING = ("off", "turn", "load")  # at one instant, in this order
LOST = "fell"  # it fell off, or burnt: its spot is free, the round is no more
ON_HEAT = (*MOVES, LOST)
COLOURS = ("dark", "pale")  # seen of a bread on the heat or just off it
APART_S = 5.0  # by how much clocks may differ and a move still counts as the next
FACTS = ("bubbles", "browned", "puffed", *COLOURS)


class Tap(NamedTuple):
    """Something done or seen: a move or a fact, on which round and spot, at what instant [s]."""

    kind: str
    round_no: int
    spot: int
    at_s: float


class Timing(NamedTuple):
    """The times after contact at which a round of its kind is turned and taken off (`turn_s` None: never turned), how
    long its spot then needs [s]; the first and the last spot it may lie on (None: any), and whether it is turned under
    the grill."""

    turn_s: float | None
    off_s: float
    recover_s: float
    spots: tuple[int, int] | None = None
    grilled: bool = True

    def lies_on(self, spot: int) -> bool:
        """True if a round of this kind may lie on a spot."""
        return self.spots is None or self.spots[0] <= spot <= self.spots[1]


@dataclass(frozen=True)
class Due:
    """A move to make: `at_s` is when; a load with nothing to wait for is due at once."""

    move: str
    round_no: int
    spot: int
    at_s: float


@dataclass(frozen=True)
class Spot:
    """A spot: `free`, `busy` with a round, or `recovering` until an instant. Places under the grill are counted on
    after the surface's own."""

    number: int
    state: str
    round_no: int | None = None
    since_s: float | None = None
    side: str = "a"
    until_s: float | None = None
    grill: bool = False


@dataclass(frozen=True)
class Hearth:
    """Spots, due moves soonest first, rounds waiting, rounds off, and rounds that were lost."""

    spots: tuple[Spot, ...]
    due: tuple[Due, ...]
    waiting: tuple[int, ...]
    off: tuple[int, ...]
    facts: tuple[Tap, ...]
    lost: tuple[int, ...] = ()

    @property
    def finished(self) -> bool:
        """True if every round is off the heat."""
        return not self.waiting and all(s.state != "busy" for s in self.spots)


def in_order_s(taps: Sequence[Tap], new: Tap) -> float:
    """The instant of a move, not before the last one of its round or its spot: two tablets' clocks may be a moment
    apart."""
    return max(
        [
            new.at_s,
            *(t.at_s for t in taps if t.kind not in FACTS and (t.spot == new.spot or t.round_no == new.round_no)),
        ]
    )


def impossible(
    taps: Sequence[Tap],
    new: Tap,
    rounds: int,
    spots: int,
    grill: int = 0,
    own: Mapping[int, Timing] | None = None,
) -> str | None:
    """The sentence that says why a tap cannot be, or None when it can. `own` are the timings of rounds of several
    kinds."""
    own = own or {}
    state = hearth(taps, rounds, spots, 0.0, 0.0, 0.0, grill, own=own)
    if not 1 <= new.round_no <= rounds:
        return f"There is no round {new.round_no}; this bake has 1 to {rounds}."
    if not 1 <= new.spot <= spots + grill:
        return f"There is no spot {new.spot}; this surface has 1 to {spots}."
    at = state.spots[new.spot - 1]
    if new.kind not in FACTS and in_order_s(taps, new) - new.at_s > APART_S:
        return f"Round {new.round_no} or spot {new.spot} was touched later than that. Give a later time."
    if new.kind == "load":
        if at.grill:
            return "Nothing is loaded under the grill: it comes from the pan."
        if at.state == "busy":
            return f"Spot {new.spot} holds round {at.round_no}. Take it off first."
        if new.round_no not in state.waiting:
            return f"Round {new.round_no} was loaded before."
        timing = own.get(new.round_no)
        if timing is not None and timing.spots is not None and not timing.lies_on(new.spot):
            return f"Round {new.round_no} goes on another surface: spots {timing.spots[0]} to {timing.spots[1]}."
        return None
    if new.kind in COLOURS and new.round_no in state.off:
        return None
    if at.state != "busy" or at.round_no != new.round_no:
        return f"Round {new.round_no} is not on spot {new.spot}."
    if at.since_s is not None and new.at_s < at.since_s:
        return f"Round {new.round_no} was not yet loaded then. Give a later time."
    if new.kind == "turn" and at.side == "b":
        return f"Round {new.round_no} is turned already."
    grilled = own[new.round_no].grilled if new.round_no in own else True
    if new.kind == "turn" and grill and grilled and all(s.state == "busy" for s in state.spots if s.grill):
        return "The grill is full. Take one off there first."
    return None


def hearth(
    taps: Sequence[Tap],
    rounds: int,
    spots: int,
    turn_s: float | None,
    off_s: float,
    recover_s: float,
    grill: int = 0,
    loads: Mapping[int, float] | None = None,
    own: Mapping[int, Timing] | None = None,
) -> Hearth:
    """The state after `taps` (read by instant; at one instant in the order given), and what is due: soonest first, at
    one instant what frees a place, then loads by their rounds and other moves by their spots.

    `grill` places take what is turned, and free the spot beneath. `loads` are the instants at which the line has its
    waiting rounds on the heat; without it a round goes on as soon as a spot is free. `own` are the timings of rounds
    of several kinds, by number; a round that is not named has the ones given for all.
    """
    usual, own = Timing(turn_s, off_s, recover_s), own or {}
    held: list[Spot] = [Spot(k + 1, "free", grill=k >= spots) for k in range(spots + grill)]
    waiting = list(range(1, rounds + 1))
    off: list[int] = []
    lost: list[int] = []
    due: dict[int, Due] = {}
    facts: list[Tap] = []
    for tap in sorted(taps, key=lambda t: t.at_s):
        k, timing = tap.spot - 1, own.get(tap.round_no, usual)
        if tap.kind in FACTS:
            facts.append(tap)
        elif tap.kind == "load" and tap.round_no in waiting:
            waiting.remove(tap.round_no)
            held[k] = Spot(tap.spot, "busy", tap.round_no, tap.at_s, "a")
            first, after_s = ("off", timing.off_s) if timing.turn_s is None else ("turn", timing.turn_s)
            due[k] = Due(first, tap.round_no, tap.spot, tap.at_s + after_s)
        elif tap.kind == "turn" and held[k].round_no == tap.round_no:
            loaded = held[k].since_s or tap.at_s
            due.pop(k, None)
            there = next((i for i, s in enumerate(held) if s.grill and s.state != "busy"), None)
            if there is not None and timing.grilled:
                held[k] = Spot(tap.spot, "recovering", None, tap.at_s, "a", tap.at_s + timing.recover_s)
                k = there
            held[k] = Spot(k + 1, "busy", tap.round_no, loaded, "b", grill=held[k].grill)
            due[k] = Due("off", tap.round_no, k + 1, tap.at_s + timing.off_s - (timing.turn_s or 0.0))
        elif tap.kind in ("off", LOST) and held[k].round_no == tap.round_no:
            (lost if tap.kind == LOST else off).append(tap.round_no)
            back_s = tap.at_s if held[k].grill else tap.at_s + timing.recover_s
            held[k] = Spot(tap.spot, "recovering", None, tap.at_s, "a", back_s, held[k].grill)
            due.pop(k, None)
    moves = [*due.values(), *_loads_due(held, waiting, loads or {}, own, usual)]
    return Hearth(tuple(held), _in_order(moves, held), tuple(waiting), tuple(off), tuple(facts), tuple(lost))


def _loads_due(
    held: Sequence[Spot],
    waiting: Sequence[int],
    loads: Mapping[int, float],
    own: Mapping[int, Timing],
    usual: Timing,
) -> Iterator[Due]:
    """The load of each waiting round that has a spot: the one of its kind that is free soonest."""
    idle = sorted((s for s in held if s.state != "busy" and not s.grill), key=lambda s: (s.until_s or 0.0, s.number))
    for number in waiting:
        spot = next((s for s in idle if own.get(number, usual).lies_on(s.number)), None)
        if spot is not None:
            idle.remove(spot)
            yield Due("load", number, spot.number, max(spot.until_s or 0.0, loads.get(number, 0.0)))


def _in_order(moves: Sequence[Due], held: Sequence[Spot]) -> tuple[Due, ...]:
    """Moves soonest first, a turn under the grill when that takes another; at one instant as FREEING has them."""
    full = all(s.state == "busy" for s in held if s.grill)
    room_s = min((d.at_s for d in moves if held[d.spot - 1].grill), default=0.0) if full else 0.0

    def order(d: Due) -> tuple[float, int, int]:
        at_s = max(d.at_s, room_s) if d.move == "turn" else d.at_s
        return at_s, FREEING.index(d.move), d.round_no if d.move == "load" else d.spot

    return tuple(sorted(moves, key=order))
