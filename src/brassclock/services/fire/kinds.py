"""The kinds of bread on one line: each bread of a dough with its program, its spots, and which rounds are of it.

Rounds are numbered in the order in which the line loads them: what lies longest goes on first, the rest in the order in
which they were named. Once the line has begun the order is frozen with it.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cached_property

from brassclock.core.fire.hearth import Timing
from brassclock.core.fire.line.spec import GRILL, LineSpec, Moves, Station
from brassclock.core.fire.program import Program
from brassclock.core.fire.puff.model import Bread
from brassclock.core.weigh.formula import WeighSheet
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model


@dataclass(frozen=True)
class Kind:
    """One kind of bread on the line: its name, its rows, its program (None once frozen), its sheet and its bread."""

    name: str
    rows: BakeSnapshot
    program: Program | None
    sheet: WeighSheet | None
    bread: Bread | None = None

    @property
    def loads(self) -> int:
        """Number of rounds of it."""
        return fire_model.loads_of(self.rows, self.sheet)

    @property
    def pieces(self) -> int:
        """Number of pieces of it; several of them are one round in a tray."""
        return self.rows.bake.count or self.loads

    @property
    def place(self) -> int | None:
        """The id of its surface."""
        return self.rows.surface.id if self.rows.surface else None


@dataclass(frozen=True)
class MixedLine:
    """A line of one or more kinds, the bake's own bread first."""

    kinds: tuple[Kind, ...]

    @property
    def several(self) -> bool:
        """True if more than one kind is on the line."""
        return len(self.kinds) > 1

    @cached_property
    def order(self) -> tuple[int, ...]:
        """The kind of each round."""
        hearth = self.kinds[0].rows.bake.hearth
        if hearth and hearth.get("order"):
            return tuple(hearth["order"])
        by_stay = sorted(range(len(self.kinds)), key=lambda k: -Moves(self._specs[k].ops).on_s)
        return tuple(k for k in by_stay for _ in range(self.kinds[k].loads))

    @property
    def rounds(self) -> int:
        """Number of rounds of all kinds."""
        return len(self.order) if self.several else self.kinds[0].loads

    @cached_property
    def _specs(self) -> tuple[LineSpec, ...]:
        return tuple(fire_model.line_spec(k.rows, k.program) for k in self.kinds)

    @cached_property
    def lies(self) -> tuple[tuple[int, int], ...]:
        """The first and the last spot of each kind; those of one surface share its spots."""
        found: dict[int | None, tuple[int, int]] = {}
        last = 0
        for kind, spec in zip(self.kinds, self._specs, strict=True):
            if kind.place not in found:
                found[kind.place] = last + 1, last + spec.spots
                last += spec.spots
        return tuple(found[k.place] for k in self.kinds)

    @property
    def spots(self) -> int:
        """Number of spots of all surfaces."""
        return max(last for _, last in self.lies)

    @cached_property
    def grill(self) -> int:
        """Places under the grill."""
        return max(fire_model.grill_of(k.rows, k.program) for k in self.kinds)

    def spec(self) -> LineSpec:
        """The line as it is searched."""
        main, *others = self._specs
        if not others:
            return main
        return LineSpec(
            main.ops,
            self.spots,
            main.cooks,
            main.recover_s,
            others=tuple(s.ops for s in others),
            order=self.order,
            stations=(Station(GRILL, self.grill),) if self.grill else (),
            lies=self.lies,
            recovers=tuple(s.recover_s for s in self._specs),
        )

    def timings(self) -> dict[int, Timing]:
        """Times and spots of each round, by its number; empty where there is one kind."""
        if not self.several:
            return {}
        of_kind = []
        for kind, lies in zip(self.kinds, self.lies, strict=True):
            turn_s, off_s, recover_s = fire_model.timing_of(kind.rows.bake, kind.program)
            grilled = fire_model.grill_of(kind.rows, kind.program) > 0
            of_kind.append(Timing(turn_s, off_s, math.ceil(recover_s), lies, grilled))
        return {n: of_kind[k] for n, k in enumerate(self.order, 1)}

    def rounds_of(self, kind: int) -> list[int]:
        """Numbers of the rounds of a kind."""
        if not self.several:
            return list(range(1, self.rounds + 1))
        return [n for n, k in enumerate(self.order, 1) if k == kind]


def mixed(kinds: Sequence[Kind]) -> MixedLine:
    """The line of these kinds; a further one that has no program, computed or frozen, is left out."""
    return MixedLine((kinds[0], *(k for k in kinds[1:] if k.program is not None or k.rows.bake.program)))
