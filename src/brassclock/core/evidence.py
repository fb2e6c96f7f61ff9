"""Evidence behind numbers: parameters as data, and the *why* that every shown figure can answer."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum


class Kind(StrEnum):
    """Evidence class of a parameter or relation, strongest first."""

    ANALYTIC = "analytic"
    PUBLISHED = "published"
    PUBLISHED_FROM_MEMORY = "published, from memory"
    FITTED = "fitted"
    PRACTICE = "practice"
    JUDGEMENT = "judgement"
    LEARNED = "learned here"


class Param(float):
    """A parameter of a model or of practice: a number with its unit, believable range, evidence class and source.

    It is used as the number that it is. Raises ValueError when it lies outside its own range.

    >>> Param(2.0, "s", 1, 4, Kind.JUDGEMENT, "uptake of steam") * 3
    6.0
    """

    unit: str
    low: float
    high: float
    kind: Kind
    source: str

    def __new__(cls, value: float, unit: str, low: float, high: float, kind: Kind, source: str) -> Param:
        if not low <= value <= high:
            raise ValueError(
                f"Parameter {value} {unit} lies outside its own range {low} to {high}. Widen the range or mend the "
                "value."
            )
        self = super().__new__(cls, value)
        self.unit, self.low, self.high, self.kind, self.source = unit, low, high, kind, source
        return self

    @property
    def value(self) -> float:
        """The bare number."""
        return float(self)

    def __reduce__(self) -> tuple[type[float], tuple[float]]:
        """A copy, and what is stored, is the bare number."""
        return float, (float(self),)


@dataclass(frozen=True)
class Input:
    """One input of a figure, as the *why* sheet lists it."""

    name: str
    value: float | str | None
    unit: str = ""


@dataclass(frozen=True)
class Why:
    """Explanation of a figure: words, symbols, inputs, spread, what matters most, evidence class."""

    title: str
    relation: str
    words: str
    inputs: tuple[Input, ...]
    evidence: Kind
    spread: str = ""
    matters: tuple[str, ...] = ()
    sources: tuple[str, ...] = ()

    def as_dict(self) -> dict[str, object]:
        """The shape every result carries under `why`."""
        return {
            "title": self.title,
            "relation": self.relation,
            "words": self.words,
            "inputs": [{"name": i.name, "value": i.value, "unit": i.unit} for i in self.inputs],
            "evidence": self.evidence.value,
            "spread": self.spread,
            "matters": list(self.matters),
            "sources": list(self.sources),
        }


def values(params: Mapping[str, Param]) -> dict[str, float]:
    """The bare numbers of a parameter table."""
    return {name: p.value for name, p in params.items()}
