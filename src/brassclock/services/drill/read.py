"""*Read the dough*: a dough to be judged, as it is shown and as it was."""

from __future__ import annotations

from typing import Any, cast

import numpy as np
from pydantic import TypeAdapter

from brassclock.core.drill.read import PAST_M, SURE, Bowl, Read, points, read_case, why_state
from brassclock.core.rise.course import first_passage_h
from brassclock.core.rise.windows import READY_M
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.drill.judged import Judged
from brassclock.services.rise.spec import belief_here
from brassclock.services.schemas.drill import ReadAnswer, ReadRead, ReadTruth
from brassclock.services.solve import BakeResult

HOW_SURE = dict(zip(("sure", "rather", "guess"), SURE, strict=True))
ROWS = 80  # of the course that is drawn
SHOWN_PAST = 1.5  # of the hour of the look, or of its last mark
OWN = TypeAdapter(Bowl)
case = read_case


def own_of(r: BakeSnapshot, work: BakeResult) -> Bowl | None:
    """The dough of a bake in the air of its kitchen, to draw cases of; None where nothing lifts it."""
    if work.risen is None or work.sheet is None or work.forecast is None:
        return None
    dough = work.sheet.dough
    hourly = r.kitchen.hourly_c
    return Bowl(
        r.bake.name,
        work.risen.plan.spec.batch,
        r.bake.bulk_ratio,
        round(sum(hourly) / len(hourly), 1),
        belief_here(r, dough),
    )


def shown(found: Read) -> ReadRead:
    """A case before it is answered."""
    look = found.look
    leavens = [p for p in found.bowl.batch.dough.portions if p.ingredient.is_ferment]
    flour_g = found.bowl.batch.dough.flour_g
    told = ", ".join(f"{100 * p.mass_g / flour_g:.2g} % {p.ingredient.name.lower()}" for p in leavens)
    return ReadRead(
        dough=found.bowl.name,
        leaven=told,
        h=look.h,
        level=look.level,
        domed=found.misleads == "domed",
        ready_mark=look.ready_mark,
        poke=cast(Any, look.poke),
        dough_c=look.dough_c,
        air_c=look.air_c,
        asks_hours=found.asks_hours,
    )


def judged(found: Read, answer: ReadAnswer) -> Judged:
    """The score of an answer, and the solution."""
    left_min = None if found.left_h is None else 60 * found.left_h
    hours = None if answer.left_min is None else answer.left_min / 60
    worth = points(found, answer.state, HOW_SURE[answer.sure], hours)
    c, ripe = found.run.course, found.run.maturity
    ready_h, past_h = (first_passage_h(c.h, ripe, m) for m in (READY_M, PAST_M))
    until_h = SHOWN_PAST * max(found.h, past_h or found.h)
    h = np.linspace(0, min(until_h, float(c.h[-1])), ROWS)
    truth = ReadTruth(
        state=cast(Any, found.state),
        left_min=left_min,
        misled=cast(Any, found.misleads),
        level=float(np.interp(found.h, c.h, found.run.ratio)),
        meant=found.bowl.ratio,
        h=[round(x, 3) for x in h.tolist()],
        levels=[round(x, 3) for x in np.interp(h, c.h, found.run.ratio).tolist()],
        ready_h=ready_h,
        past_h=past_h,
    )
    figures = {"right": answer.state == found.state, "sure": answer.sure}
    return Judged(worth, figures, truth, {"state": why_state(found)})
