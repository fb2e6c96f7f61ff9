"""Colour of the two faces of a bread: the words, the doses behind them, and when a face has a word's colour."""

from __future__ import annotations

from collections.abc import Mapping
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from brassclock.core.fire.puff.params import CHARRED, GOLDEN, LIGHT

Array = NDArray[np.float64]
DOSES: dict[str, tuple[float, float]] = {
    "pale": (0.0, 0.0),
    "light": (LIGHT, 0.0),
    "golden": (GOLDEN, 0.0),
    "charred": (GOLDEN, CHARRED),
}
WORDS = tuple(DOSES)
EVENTS_OF = {"pale": (), "light": ("light",), "golden": ("golden",), "charred": ("golden", "char")}


class Wish(NamedTuple):
    """The colour wished for each face; `bottom` is the face that touches the surface first."""

    bottom: str = "golden"
    top: str = "golden"


GOLDEN_BOTH = Wish()


def wish_of(word: str) -> Wish:
    """The same colour on both faces."""
    return Wish(word, word)


def reached_s(events: Mapping[str, float | None], face: str, word: str) -> float | None:
    """Seconds until the `bottom` or `top` face has a word's colour: 0 for pale, None for never on these legs."""
    times = [events[f"{name}_{face}"] for name in EVENTS_OF[word]]
    return None if None in times else max((t for t in times if t is not None), default=0.0)


def word_of(brown: float, char: float) -> str:
    """The colour that a face with these doses of browning and charring shows.

    >>> [word_of(b, c) for b, c in ((0.01, 0.0), (0.06, 0.2), (0.3, 0.9), (0.3, 1.2))]
    ['pale', 'light', 'golden', 'charred']
    """
    return next(w for w in reversed(WORDS) if brown >= DOSES[w][0] and char >= DOSES[w][1])


def words_of(browned: Array, charred: Array) -> list[str]:
    """The colours of a face through time, by its doses of browning and charring at each row."""
    return [word_of(float(brown), float(char)) for brown, char in zip(browned, charred, strict=True)]
