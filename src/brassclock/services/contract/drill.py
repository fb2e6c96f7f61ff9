"""`drill` of the contract: a practice case by its kind, level and seed; with an answer, what it is worth and why."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from brassclock.core.drill.draw import Draw
from brassclock.core.errors import invalid
from brassclock.services.contract.common import Request
from brassclock.services.drill.tries import KINDS
from brassclock.services.schemas.drill import AnswerCreate, DrillKind
from brassclock.services.weigh.view import why_out


class DrillRequest(Request):
    """`drill`: which case; and the answer under the name of its kind."""

    kind: DrillKind
    level: Annotated[int, Field(ge=1, le=5)]
    seed: Annotated[int, Field(ge=0, le=2_147_483_647)]
    answer: AnswerCreate | None = None


def run_drill(q: DrillRequest) -> dict[str, Any]:
    room = KINDS[q.kind]
    case = room.case(Draw(q.kind, q.level, q.seed), None)
    found: dict[str, Any] = {"case": room.shown(case).model_dump(mode="json"), "cautions": [], "why": {}}
    if q.answer is None:
        return found
    answer = getattr(q.answer, q.kind)
    if answer is None:
        raise invalid(f"/answer/{q.kind}", f"A case of this kind is answered under “{q.kind}”. Give it there.")
    judged = room.judged(case, answer)
    why = {k: x.model_dump(mode="json") for k, x in why_out(judged.why).items()}
    return {**found, "points": judged.points, "truth": judged.truth.model_dump(mode="json"), "why": why}
