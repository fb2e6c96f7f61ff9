"""Invalid input: what is wrong, where, and what would be right."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field


@dataclass(frozen=True)
class FieldFault:
    """One thing wrong with a request: where it stands (JSON pointer), and what would be right."""

    pointer: str
    detail: str


@dataclass
class InvalidInput(Exception):
    """A request that cannot be computed. Carries every fault found, never only the first."""

    faults: list[FieldFault] = field(default_factory=list)

    def __str__(self) -> str:
        return "; ".join(f"{f.pointer}: {f.detail}" for f in self.faults)


def invalid(pointer: str, detail: str) -> InvalidInput:
    """A BadRequest with a single fault."""
    return InvalidInput([FieldFault(pointer, detail)])


def gather(faults: Iterable[FieldFault]) -> None:
    """Raise BadRequest when there is any fault."""
    found = list(faults)
    if found:
        raise InvalidInput(found)
