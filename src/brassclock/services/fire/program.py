"""The program of a bake as it is shown and frozen."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from brassclock.core.fire.actions import WRAP_S
from brassclock.core.fire.verdicts import told as verdicts_told
from brassclock.services import solve
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire import model as fire_model
from brassclock.services.keep.kept import kept_of
from brassclock.services.schemas.fire import ProgramRead
from brassclock.services.solve import BakeResult


def program_dict(r: BakeSnapshot, work: solve.BakeResult) -> dict[str, Any]:
    """The program of this bake as it is shown and frozen."""
    if r.bake.program:
        return r.bake.program
    turn_s, off_s, recover_s = fire_model.timing_of(r.bake, work.program)
    found: dict[str, Any] = {"turn_s": turn_s, "off_s": off_s, "recover_s": recover_s, "second": "turn", "score": None}
    if work.program:
        kept = kept_of(solve.kind_of(r.bake.name, r, work))
        found |= {
            "moves": fire_model.moves_told(work.program),
            "dressed": r.bake.dressing["kind"]
            if fire_model.dressing_g(r.bake, "after_heat") and r.bake.dressing
            else None,
            "wrap_s": WRAP_S if work.program.edge_s else None,
            "second": work.program.second,
            "score": work.program.score.score if work.program.baking.pocket else None,
            "heating": asdict(work.program.heating),
            "loss_frac": work.program.moisture_loss_frac,
            "through_s": work.program.end.through_s,
            "kept": None if kept is None else asdict(kept),
            "verdicts": verdicts_told(work.program.verdicts, r.kitchen.temp_unit),
        }
    events = work.program.baked.events if work.program else {}
    seen = {"puff_s": "puff", "bubbles_s": "bubbles", "brown_s": "light_bottom"}
    return found | {name: events.get(event) for name, event in seen.items()}


def program_out(r: BakeSnapshot, work: BakeResult) -> ProgramRead:
    return ProgramRead.model_validate(program_dict(r, work))
