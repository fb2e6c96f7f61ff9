"""The moves of a bread with the hands of a cook whose pace is known."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace

from brassclock.core.fire.line.spec import Moves, Op

PACED = ("load", "turn", "off")  # the moves that are tapped: a pace is known of these


def pace_of(name: str, moves: Moves) -> str:
    """The tapped move whose pace a move of the hands goes by: what comes before the heat goes by the load, what comes
    after the bread is off by the taking off, and what is done between by the turn."""
    at = moves.at[name]
    return "load" if at <= moves.at["load"] else "off" if at >= moves.at["off"] else "turn"


def at_pace(ops: Sequence[Op], pace: Mapping[str, float]) -> tuple[Op, ...]:
    """The moves with their hands at a pace (1 where it is not known), each on the heat still begun when the bread wants
    it.

    >>> from brassclock.core.fire.line.spec import bread_ops
    >>> [(o.name, o.hands_s) for o in at_pace(bread_ops(40, 90), {"load": 1.4})]
    [('roll', 35), ('load', 11), ('turn', 3), ('off', 3), ('brush', 6)]
    """
    moves, found = Moves(tuple(ops)), []
    for i, o in enumerate(moves.ops):
        hands_s = max(round(o.hands_s * pace.get(pace_of(o.name, moves), 1.0)), o.off_surface_s + 1)
        least = o.then_min_s
        if moves.load <= i < moves.at["off"]:
            least = max(least - (hands_s - o.hands_s), 0)
        found.append(replace(o, hands_s=hands_s, then_min_s=least, then_max_s=least + o.then_max_s - o.then_min_s))
    return tuple(found)
