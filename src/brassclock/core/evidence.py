"""Evidence behind numbers: parameters as data, and the *why* that every shown figure can answer."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
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


@dataclass(frozen=True)
class Param:
    """A model parameter: value, unit, believable range, evidence class and source."""

    value: float
    unit: str
    low: float
    high: float
    kind: Kind
    source: str

    def __post_init__(self) -> None:
        if not self.low <= self.value <= self.high:
            raise ValueError(
                f"Parameter {self.value} {self.unit} lies outside its own range "
                f"{self.low} to {self.high}. Widen the range or mend the value."
            )


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


@dataclass(frozen=True)
class FieldFault:
    """One thing wrong with a request: where it stands (JSON pointer), and what would be right."""

    pointer: str
    detail: str


@dataclass
class BadRequest(Exception):
    """A request that cannot be computed. Carries every fault found, never only the first."""

    faults: list[FieldFault] = field(default_factory=list)

    def __str__(self) -> str:
        return "; ".join(f"{f.pointer}: {f.detail}" for f in self.faults)


def invalid(pointer: str, detail: str) -> BadRequest:
    """A BadRequest with a single fault."""
    return BadRequest([FieldFault(pointer, detail)])


def gather(faults: Iterable[FieldFault]) -> None:
    """Raise BadRequest when there is any fault."""
    found = list(faults)
    if found:
        raise BadRequest(found)


def values(params: Mapping[str, Param]) -> dict[str, float]:
    """The bare numbers of a parameter table."""
    return {name: p.value for name, p in params.items()}
