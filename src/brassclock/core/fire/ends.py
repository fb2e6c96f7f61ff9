"""The end of a bake: cooked first, then coloured; and what is said where the heat gives no such moment.

Food is never called off before it is done. Where a bread does not get there on its legs it stays to their end, and a
verdict says so.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from brassclock.core.evidence import Kind, Param
from brassclock.core.fire.colour import DOSES, Wish, reached_s
from brassclock.core.fire.puff.model import Baked

MIN_SECOND_S = Param(15.0, "s", 5, 30, Kind.PRACTICE, "nobody takes a bread off sooner after its turn")
LEAST_S = Param(5.0, "s", 2, 15, Kind.PRACTICE, "after the turn")
AFTER_FULL_S = Param(4.0, "s", 2, 10, Kind.JUDGEMENT, "a full pocket stays a moment")
DRESSING_HOT_C = Param(80.0, "C", 70, 90, Kind.JUDGEMENT, "a topping counts as hot; stated times in view")
DRESSING_HOT_S = Param(
    90.0, "s", 45, 180, Kind.JUDGEMENT, "a topping is done so long after it is hot; stated times in view"
)
WELL_BEFORE = Param(0.85, "-", 0.7, 1, Kind.JUDGEMENT, "black spots a moment before it is through spoil no bread")
BLACK_FOR_S = Param(45.0, "s", 20, 90, Kind.JUDGEMENT, "longer black than that before it is through spoils any bread")
BLACK_WAIT_S = Param(
    15.0, "s", 5, 30, Kind.JUDGEMENT, "a face may be black so long while the other gets its colour; a flame's spots"
)
NEARLY = Param(0.5, "-", 0.3, 0.8, Kind.JUDGEMENT, "of the dose of a colour")
SHORT_OF_S = Param(5.0, "s", 2, 15, Kind.JUDGEMENT, "before it is too dry or black")


@dataclass(frozen=True)
class End:
    """End of a bake [s], cooked through [s; None: never on these legs], the fault of that end, and since when it is
    spoilt [s]."""

    off_s: float
    through_s: float | None
    codes: tuple[str, ...] = ()
    spoilt_s: float | None = None


def sides_s(turn_s: float | None, off_s: float) -> list[float]:
    """Seconds of each side on the heat: one for what is never turned."""
    return [off_s] if turn_s is None else [turn_s, off_s - turn_s]


def comes_off(baked: Baked, wish: Wish, *, pocket: bool, safe_s: float | None, dressed: bool = False) -> End:
    """The end of a bread that was baked through all its legs: done, both faces coloured as wished, its pocket full; too
    dry only to be done.

    `safe_s` is when the coldest point of a filling is safe: 0 without one, None where it is not on these legs.
    """
    e = baked.events
    turn, end, done = e["second"] or 0.0, float(e["off"] or 0.0), e["done"]
    if done is None or safe_s is None:
        return End(end, None, ("does_not_cook_through",) if done is None else ("filling_not_safe",))
    through = max(done, safe_s)
    colours = [reached_s(e, face, word) for face, word in (("bottom", wish.bottom), ("top", wish.top))]
    ready = [turn + (MIN_SECOND_S if turn else 0.0), *(end if t is None else t for t in colours)]
    if dressed:
        ready.append(_hot_s(baked, turn) or end)
    if pocket and e["full"]:
        ready.append(e["full"] + AFTER_FULL_S)
    dry = e["too_dry"] - SHORT_OF_S if e["too_dry"] else end
    hot = [t for t in (None if turn else blackens(e, "bottom", wish), blackens(e, "top", wish)) if t]
    burnt = min(hot, default=end) + BLACK_WAIT_S
    off_s = max(min(max(ready), dry, burnt, end), turn + LEAST_S, through)
    codes, spoilt = [], []
    if e["too_dry"] and e["too_dry"] < through:
        codes.append("dries_before_through")
        spoilt.append(e["too_dry"])
    black = black_s(e, wish, turn)
    if black is not None and _long_before(black, through):
        codes.append("browns_before_through")
        spoilt.append(black)
    if any(_short(baked, face, word, off_s) for face, word in enumerate((wish.bottom, wish.top))):
        dries, burns = e["too_dry"] and dry <= off_s, burnt <= off_s
        codes.append("dries_before_brown" if dries else "burns_before_brown" if burns else "stays_pale")
    return End(float(off_s), through, tuple(codes), min(spoilt, default=None))


def put_off(end: End, through_s: float, black: float | None) -> End:
    """The same end, later: when it is through [s], a face being black at `black` [s]."""
    late = replace(end, off_s=through_s, through_s=through_s)
    if black is None or not _long_before(black, through_s) or "browns_before_through" in end.codes:
        return late
    return replace(late, codes=(*end.codes, "browns_before_through"), spoilt_s=min(black, end.spoilt_s or black))


def _long_before(black: float, through_s: float) -> bool:
    """True if a face is black so long before the bread is through that it is spoilt [s]."""
    return black < max(WELL_BEFORE * through_s, through_s - BLACK_FOR_S)


def _hot_s(baked: Baked, turn_s: float) -> float | None:
    """Seconds until what was spread on the upper face after the turn is done; None: never."""
    hot = np.flatnonzero((baked.s > turn_s + 2.0) & (baked.temp_c[:, 0] >= DRESSING_HOT_C))
    return float(baked.s[hot[0]]) + DRESSING_HOT_S if len(hot) else None


def _short(baked: Baked, face: int, word: str, at_s: float) -> bool:
    """True if a face has less than half of what its colour takes at an instant [s]: further from it than doughs
    differ."""
    row = min(int(np.searchsorted(baked.s, at_s)), len(baked.s) - 1)
    brown, char = DOSES[word]
    return bool(baked.browned[row, face] < NEARLY * brown or baked.charred[row, face] < NEARLY * char)


def blackens(e: dict[str, float | None], face: str, wish: Wish) -> float | None:
    """Seconds until a face is black that is not to be charred; None: never."""
    return None if getattr(wish, face) == "charred" else e[f"char_{face}"]


def black_s(e: dict[str, float | None], wish: Wish, turn: float) -> float | None:
    """Seconds until a face that is not to be charred is black where it touches: below before the turn, above after
    it."""
    below = blackens(e, "bottom", wish)
    touching = (None if below and turn and below > turn else below, blackens(e, "top", wish))
    return min((t for t in touching if t), default=None)


def off_by_hand(baked: Baked, safe_s: float | None) -> End:
    """The end of legs that the cook wrote: as written, whatever has become of the bread by then."""
    end, done = float(baked.events["off"] or 0.0), baked.events["done"]
    if done is None or done > end:
        return End(end, None, ("does_not_cook_through",))
    if safe_s is None or safe_s > end:
        return End(end, None, ("filling_not_safe",))
    return End(end, max(done, safe_s))
