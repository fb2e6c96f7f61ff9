"""The rows of one bake, loaded and changed as one."""

from __future__ import annotations

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from sqlmodel import Session

from brassclock.core.day.hands import Busy
from brassclock.core.day.kitchen_air import Relocation
from brassclock.core.day.shared import Commitments
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.terms import STEPS
from brassclock.services.app import App, NotFound
from brassclock.services.bake import frozen
from brassclock.services.kitchen import hours
from brassclock.services.kitchen.pantry import own_rows
from brassclock.store import bakes as bake_rows
from brassclock.store import hours as hour_rows
from brassclock.store import kitchens, starters
from brassclock.store.rows import get
from brassclock.store.tables import (
    Bake,
    ForecastRecord,
    Kitchen,
    Outcome,
    PlanChange,
    Reading,
    Starter,
    StarterFeed,
    Tap,
)
from brassclock.store.tables import Surface as SurfaceRow

JUST_MIXED = dt.timedelta(minutes=30)
AIR_KEPT = dt.timedelta(days=6)


@dataclass(frozen=True)
class BakeSnapshot:
    """A bake with everything that belongs to it, and now."""

    bake: Bake
    kitchen: Kitchen
    surface: SurfaceRow | None
    taps: Sequence[Tap]
    readings: Sequence[Reading]
    outcomes: Sequence[Outcome]
    said: dict[str, ForecastRecord]
    own: Mapping[str, Ingredient]
    now: dt.datetime
    air: Sequence[Reading] = ()
    starter: Starter | None = None
    feeds: Sequence[StarterFeed] = ()
    dose_factor: float = 1.0  # of the leaven as typed: for a what-if, never stored
    by: dt.datetime | None = None  # an instant whose chance is asked for
    initial_guess: tuple[dt.datetime, float] | None = None  # mixed about then, bulk's hours: for a what-if
    lands_c: float | None = None  # of the dough by Mix, where it is not the one aimed at
    line_min: float = 16.0  # of the line, known before: for a what-if
    busy: tuple[Busy, ...] = ()  # hours in which hands are away
    moved: PlanChange | None = None  # the latest change of its plan
    taken: tuple[Busy, ...] = ()  # hours in which bakes that go first have them
    surfaces: Mapping[int, SurfaceRow] = field(default_factory=dict)  # of its further breads, by id
    shared: Commitments = field(default_factory=Commitments)  # their hours on its surface, their litres on the shelf

    def pins(self) -> dict[str, dt.datetime]:
        """Step keys and the instants at which the cook holds them."""
        return {k: dt.datetime.fromisoformat(v).astimezone(self.now.tzinfo) for k, v in self.bake.pins.items()}

    def done(self) -> dict[str, dt.datetime]:
        """Step keys and when they were done; the first load is the start of the line."""
        found: dict[str, dt.datetime] = {t.kind: t.at for t in self.taps if t.kind in STEPS}
        loads = [t.at for t in self.taps if t.kind == "load"]
        if loads:
            found["line"] = min(loads)
            found.setdefault("roll", min(loads))
            found.setdefault("preheat", min(loads))
        if "mix" in found:
            found.setdefault("weigh", found.get("sponge", found["mix"]))
            if self.bake.sponge_h is not None:
                found.setdefault("sponge", found["mix"])
        return {k: v.astimezone(self.now.tzinfo) for k, v in found.items()}


def load(app: App, session: Session, bake_id: int, busy: tuple[Busy, ...] | None = None) -> BakeSnapshot:
    """The rows of a bake, or NotFound. `busy` are the kitchen's hours away, when they are known already."""
    bake = get(session, Bake, bake_id)
    if bake is None or bake.deleted_at is not None:
        raise NotFound(f"There is no bake {bake_id}. It may have been deleted; undo brings it back.")
    kitchen = app.kitchen(session, bake.kitchen_id)
    surface = frozen.surface_of(bake) if bake.hearth else kitchens.surface(session, bake.surface_id)
    further = {p["surface_id"]: kitchens.surface(session, p["surface_id"]) for p in bake.parts if p.get("surface_id")}
    now, starter = app.now(session, kitchen), _starter_of(session, bake)
    return BakeSnapshot(
        bake,
        kitchen,
        surface,
        bake_rows.taps(session, bake_id),
        bake_rows.readings(session, bake_id),
        bake_rows.outcomes(session, bake_id),
        bake_rows.said(session, bake_id),
        own_rows(session, kitchen.id or 0),
        now,
        bake_rows.air_readings(session, kitchen.id or 0, now - AIR_KEPT),
        starter,
        starters.feeds(session, starter.id or 0) if starter else (),
        busy=hours.spans(session, kitchen, now) if busy is None else busy,
        moved=next(iter(hour_rows.changes(session, bake_id, 1)), None),
        surfaces={i: row for i, row in further.items() if row is not None},
    )


OWN_SHAPE = ("shape", "diameter_cm", "length_cm", "width_cm", "thickness_mm")
OWN = ("count", "piece_g", *OWN_SHAPE, "surface_id", "doneness", "colour_top", "docked", "heat_steps", "dressing")


def breads_of(r: BakeSnapshot) -> list[BakeSnapshot]:
    """A bake's breads, its own first.

    Each further one is a bake of the same dough of which only the settings in OWN are others, so everything that takes
    a bake takes each.
    """
    return [r, *(_part(r, n, given) for n, given in enumerate(r.bake.parts))]


def _part(r: BakeSnapshot, n: int, given: dict[str, Any]) -> BakeSnapshot:
    """The snapshot of a further bread: its own settings, and what was frozen of it."""
    own: dict[str, Any] = {name: given.get(name) for name in OWN}
    own["shape"], own["doneness"] = own["shape"] or "round", own["doneness"] or r.bake.doneness
    own["docked"] = bool(own["docked"])
    own["surface_id"] = own["surface_id"] or r.bake.surface_id
    whole = r.bake.model_dump(exclude=set(own) | {"parts", "filling", "program", "hearth"})
    kept: dict[str, Any] = {"program": _nth(r.bake.program, n), "hearth": _nth(r.bake.hearth, n)}
    bake = Bake(**(whole | own | kept | {"filling": r.bake.filling if given.get("filled") else None}))
    if bake.hearth:
        return replace(r, bake=bake, surface=frozen.surface_of(bake))
    return replace(r, bake=bake, surface=r.surfaces.get(bake.surface_id or 0, r.surface))


def _nth(kept: dict[str, Any] | None, n: int) -> dict[str, Any] | None:
    """The n-th further bread's of what was frozen; None where nothing was."""
    parts = (kept or {}).get("parts") or []
    return parts[n] if n < len(parts) else None


def _starter_of(session: Session, bake: Bake) -> Starter | None:
    """The starter a bake names; without one, the kitchen's only one."""
    known = starters.of_kitchen(session, bake.kitchen_id)
    named = next((s for s in known if s.id == bake.starter_id), None)
    return named or (known[0] if len(known) == 1 else None)


def mix_temp_c(r: BakeSnapshot) -> float:
    """The dough's temperature after mixing [C]: read then, else as Mix says it lands, else the one aimed at."""
    mixed = r.done().get("mix")
    read = [x.value for x in r.readings if x.kind == "dough_c" and mixed and abs(x.at - mixed) <= JUST_MIXED]
    if read and read[-1] is not None:
        return read[-1]
    return r.bake.dough_c if r.lands_c is None else r.lands_c


def spells_of(bake: Bake) -> tuple[Relocation, ...]:
    """Stays of the dough elsewhere."""
    return tuple(
        Relocation(dt.datetime.fromisoformat(x["start"]), dt.datetime.fromisoformat(x["end"]), x["temp_c"])
        for x in bake.spells
    )
