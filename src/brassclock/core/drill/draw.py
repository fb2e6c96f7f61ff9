"""Draws of a case: the same numbers on any machine, from its kind, its level and its seed alone."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import blake2b
from statistics import NormalDist
from typing import TypeVar

T = TypeVar("T")
BITS = 53  # of a double
KINDS = ("call", "read", "fault", "hands")
LEVELS = (1, 2, 3, 4, 5)


@dataclass(frozen=True)
class Draw:
    """A stream of draws, each by its number: the first 53 bits of BLAKE2b("kind:level:seed:number") over 2^53."""

    kind: str
    level: int
    seed: int

    def share(self, number: int) -> float:
        """Uniform draw from 0 up to 1 [-].

        >>> round(Draw("call", 1, 7).share(0), 6)
        0.420529
        """
        text = f"{self.kind}:{self.level}:{self.seed}:{number}".encode()
        bits = int.from_bytes(blake2b(text).digest()[:8], "big") >> (64 - BITS)
        return bits / float(2**BITS)

    def normal(self, number: int) -> float:
        """Standard normal draw [-]: the quantile of a uniform one."""
        return NormalDist().inv_cdf(max(self.share(number), 2.0 ** -(BITS + 1)))

    def between(self, number: int, low: float, high: float) -> float:
        """Uniform draw between two values, in their unit."""
        return low + (high - low) * self.share(number)

    def pick(self, number: int, options: Sequence[T], weights: Sequence[float] | None = None) -> T:
        """One of some options, by their weights (all alike where none are given)."""
        shares = weights or [1.0] * len(options)
        left = self.share(number) * sum(shares)
        for option, weight in zip(options, shares, strict=True):
            left -= weight
            if left < 0:
                return option
        return options[-1]

    def shuffled(self, number: int, options: Sequence[T]) -> list[T]:
        """The options in an order of chance; takes as many draws as there are options, from `number` on."""
        order = sorted(range(len(options)), key=lambda i: (self.share(number + i), i))
        return [options[i] for i in order]
