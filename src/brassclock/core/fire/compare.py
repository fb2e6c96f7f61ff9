"""The usual way and the cook's own beside each other: the colour of both faces through time, the water lost, whether it
is through."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal, NamedTuple

from brassclock.core.fire.baking import Baking
from brassclock.core.fire.colour import words_of
from brassclock.core.fire.legs import Step
from brassclock.core.fire.puff.model import COARSE_GRID, Baked

Name = Literal["usual", "own", "own_at_its_heat"]


class Spell(NamedTuple):
    """A colour that a face shows from an instant on [s from contact]."""

    word: str
    from_s: float


@dataclass(frozen=True)
class Compared:
    """One way at one heat: turn and end [s], the spells of both faces, when the pocket opens [s], the share of its mass
    lost, whether it is through."""

    name: Name
    temp_c: float
    turn_s: float | None
    off_s: float
    bottom: tuple[Spell, ...]
    top: tuple[Spell, ...]
    opens_s: float | None
    loss_frac: float
    through: bool


def compare(baking: Baking, sides_s: Sequence[float], implied_c: float | None) -> list[Compared]:
    """The usual way on the surface as it is believed, the cook's seconds a side there, and the same at the heat that
    they imply [C], where there is one."""
    usual = baking.usual
    own = replace(usual, steps=tuple(Step(f"face_{'ab'[n]}", float(s)) for n, s in enumerate(sides_s)))
    found = [_compared("usual", usual), _compared("own", own)]
    if implied_c is not None:
        found.append(_compared("own_at_its_heat", own.at(implied_c)))
    return found


def _compared(name: Name, baking: Baking) -> Compared:
    seen = baking.baked(grid=COARSE_GRID)
    end = baking.end(seen, baking.safe_s(seen))
    # a cook's own seconds end where the bread comes off: nothing of them is cut
    cut = seen if baking.steps is not None else baking.baked(baking.cut(seen, end.off_s), grid=COARSE_GRID)
    return Compared(
        name,
        baking.surface.temp_c,
        cut.events["second"],
        end.off_s,
        spells(cut, 0),
        spells(cut, 1),
        cut.events["puff"],
        cut.loss_frac,
        end.through_s is not None,
    )


def spells(baked: Baked, face: int) -> tuple[Spell, ...]:
    """The colours of the bottom (0) or the top (1) face of a bake, each from when it shows [s]."""
    found = [Spell("pale", 0.0)]
    for s, word in zip(baked.s, words_of(baked.browned[:, face], baked.charred[:, face]), strict=True):
        if word != found[-1].word:
            found.append(Spell(word, float(s)))
    return tuple(found)
