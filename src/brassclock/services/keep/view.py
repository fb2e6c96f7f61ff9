"""View of the Keep leaf: outcomes, and every forecast that was said beside its fact."""

from __future__ import annotations

from collections.abc import Sequence

from brassclock.core.keep.facts import Compared, mean_or_none
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.kinds import MixedLine
from brassclock.services.keep.noted import noted_of
from brassclock.services.schemas.keep import (
    CarriedRead,
    FactRead,
    KeepRead,
    NotedUpdate,
    OutcomeRead,
    PhotoRead,
    RoundRead,
)
from brassclock.store.tables import Photo


def keep_out(r: BakeSnapshot, line: MixedLine, pictures: Sequence[Photo]) -> KeepRead:
    """Rounds of the line with their outcomes, every forecast that was said beside its fact, and the pictures."""
    done = r.done()
    loads = {t.round_no: t.at for t in r.taps if t.kind == "load"}

    def since_load(kind: str) -> float | None:
        return mean_or_none(
            [(t.at - loads[t.round_no]).total_seconds() for t in r.taps if t.kind == kind and t.round_no in loads]
        )

    offs = [t.at for t in r.taps if t.kind == "off"]
    seconds = {
        "ready to ball": (done["ball"] - done["mix"]).total_seconds() if {"ball", "mix"} <= set(done) else None,
        "bubbles": since_load("bubbles"),
        "first brown": since_load("browned"),
        "pocket opens": since_load("puffed"),
        "taken off": since_load("off"),
        "last one off": (max(offs) - min(loads.values())).total_seconds() if offs and loads else None,
    }
    facts = []
    for name, was in seconds.items():
        said = r.said.get(name)
        if said is None and was is None:
            continue
        c = Compared(name, "s", said.p50 if said else None, said.p10 if said else None, said.p90 if said else None, was)
        facts.append(
            FactRead(
                name=c.name, unit=c.unit, said=c.said, p10=c.p10, p90=c.p90, was=c.was, place=c.place, inside=c.inside
            )
        )
    return KeepRead(
        rounds=_rounds(line),
        outcomes=[OutcomeRead.model_validate(o.model_dump()) for o in r.outcomes],
        facts=facts,
        noted=NotedUpdate(**noted_of(r.bake)),
        carried=CarriedRead(**r.bake.carried) if r.bake.carried else None,
        photos=[PhotoRead.model_validate(x.model_dump()) for x in pictures],
    )


def _rounds(line: MixedLine) -> list[RoundRead]:
    """Every round of a line; the pieces of a tray are one."""
    found = []
    for k, kind in enumerate(line.kinds):
        rounds = line.rounds_of(k)
        pieces = kind.pieces if len(rounds) == 1 else 1
        found += [RoundRead(round_no=n, name=kind.name, pieces=pieces) for n in rounds]
    return sorted(found, key=lambda x: x.round_no)
