"""When a bread comes off: cooked first, then coloured; and what is said where the heat gives no such moment.

Food is never called off before it is done. Where a bread does not get there on its legs it stays to their end, and a verdict says so.
"""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.fire.puff.model import Baked, Bread

MIN_SECOND_S = 15.0
LEAST_S = 5.0  # after the turn
AFTER_FULL_S = 4.0
SHORT_OF_S = 5.0  # before it is too dry or black


@dataclass(frozen=True)
class End:
    """When a bread comes off [s], when it is through (None: never on these legs), what is wrong with that, and since when it is spoilt by then [s]."""

    off_s: float
    through_s: float | None
    codes: tuple[str, ...] = ()
    spoilt_s: float | None = None


def comes_off(baked: Baked, bread: Bread, doneness: str, *, pocket: bool, turned: bool, safe_s: float | None) -> End:
    """The end of a bread that was baked through all its legs: done, its pocket full, its colour reached; never past too dry or black but to be done.

    A face that lies on the plate is browned by spots, and black spots spoil no bread: only what stays on top all along is told to be black.
    `safe_s` is when the coldest point of a filling is safe: 0 without one, None where it is not on these legs.
    """
    e = baked.events
    turn, end, done = e["second"] or 0.0, float(e["off"] or 0.0), e["done"]
    if done is None or safe_s is None:
        return End(end, None, ("does_not_cook_through",) if done is None else ("filling_not_safe",))
    through = max(done, safe_s)
    black = e["char_top"] if doneness != "charred" else None
    limits = {"dries_before_through": e["too_dry"], "browns_before_through": black}
    spoils = {code: t for code, t in limits.items() if t and t > turn}
    latest = min(spoils.values(), default=1e9) - SHORT_OF_S
    wish = [turn + (MIN_SECOND_S if turn else 0.0), *_coloured(e, doneness, bread, turn, turned)]
    if pocket and e["full"]:
        wish.append(e["full"] + AFTER_FULL_S)
    off_s = max(min(max(wish), latest, end), turn + LEAST_S, through)
    told = {code: t for code, t in spoils.items() if t < through and not (turn and code == "browns_before_through")}
    return End(float(off_s), through, tuple(told), min(told.values(), default=None))


def _coloured(e: dict[str, float | None], doneness: str, bread: Bread, turn: float, turned: bool) -> list[float]:
    """When it has the colour that is wished [s]."""
    if doneness == "charred":
        return [e["golden_top"] or turn + 90]
    if doneness != "golden":
        return []
    if not turned:
        return [e["light_top"] or e["golden_bottom"] or 0.0]
    if bread.thick and turn:
        return [e["golden_top"] or turn + 180.0]
    return [min(t for t in (e["light_top"], e["golden_bottom"], turn + 60) if t)]


def off_by_hand(baked: Baked, safe_s: float | None) -> End:
    """The end of legs that the cook wrote: as written, whatever has become of the bread by then."""
    end, done = float(baked.events["off"] or 0.0), baked.events["done"]
    if done is None or done > end:
        return End(end, None, ("does_not_cook_through",))
    if safe_s is None or safe_s > end:
        return End(end, None, ("filling_not_safe",))
    return End(end, max(done, safe_s))
