"""An answer that was judged."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from brassclock.core.evidence import Why
from brassclock.services.schemas.base import Shape


@dataclass(frozen=True)
class Judged:
    """The score of an answer (None: it does not count), its figures for the record, the solution, and the reason."""

    points: float | None
    figures: dict[str, Any]
    truth: Shape
    why: dict[str, Why]
