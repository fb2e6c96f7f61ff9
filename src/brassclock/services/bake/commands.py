"""Commands on a bake: change, read, keep, delete, and undo of each."""

from __future__ import annotations

import datetime as dt
from contextlib import nullcontext
from typing import Any

from sqlmodel import Session

from brassclock.core.errors import invalid
from brassclock.core.fire.legs import Step, fault_of
from brassclock.core.spoken import span_h
from brassclock.core.weigh.lines import TypedLine, read_lines
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake import lock
from brassclock.services.bake.snapshot import JUST_MIXED, BakeSnapshot
from brassclock.services.bake.view import stored_summary
from brassclock.services.change import recording_plan_change
from brassclock.services.keep.learning import learn_friction, unlearn_friction
from brassclock.services.keep.past import store_past
from brassclock.services.kitchen.beliefs import learn_heat
from brassclock.services.kitchen.pantry import kit_of
from brassclock.services.kitchen.surfaces import surface_of
from brassclock.services.rise.spec import end_stage
from brassclock.services.schemas.bake import BakeUpdate, PartUpdate
from brassclock.services.schemas.fire import HeatStepUpdate
from brassclock.services.schemas.rise import ColdUpdate, ReadingCreate
from brassclock.services.schemas.weigh import FormulaLineCreate
from brassclock.services.times import moment_of, past_moment, serve_moment
from brassclock.services.weigh.leaven import own_strength, suit_leaven, suit_strength
from brassclock.store import bakes as bake_rows
from brassclock.store import kitchens
from brassclock.store import lessons as lesson_rows
from brassclock.store import pantry as pantry_rows
from brassclock.store import starters as starter_rows
from brassclock.store.rows import get, insert
from brassclock.store.tables import Bake, Reading
from brassclock.store.tables import Surface as SurfaceRow


def change_bake(app: App, bake_id: int, change: BakeUpdate) -> None:
    """Change any part of a bake; lines are read before they are stored, so nothing unreadable is kept."""
    with bake_change.change(app, bake_id, change.revision) as (session, r):
        lock.check(r.bake, change.model_dump(include=set(lock.FROZEN), exclude_unset=True))
        moved = change.model_fields_set & MOVES_THE_DAY.keys()
        why = MOVES_THE_DAY[min(moved)] if moved else ""
        with recording_plan_change(app, session, r.bake.kitchen_id, why, bake_id) if moved else nullcontext():
            _alter(session, r, change)
        if r.bake.status != "live":
            r.bake.summary = stored_summary(session, r)
            store_past(session, r)


MOVES_THE_DAY = {
    "serve": "people eat at another time",
    "serve_until": "it is served for another while",
    "cold": "its cold is another",
    "cold_time": "its cold is another",
    "bulk_place": "it stands elsewhere",
    "ball_place": "the balls stand elsewhere",
    "sponge_h": "its sponge is another",
    "sponge_time": "its sponge is another",
}
LONGEST_SERVICE = dt.timedelta(hours=8)


def _serve(bake: Bake, text: str, now: dt.datetime) -> None:
    """Another time at the table; its service goes with it."""
    at = serve_moment(text, now)
    if bake.serve_until is not None:
        bake.serve_until += at - bake.serve_at
    bake.serve_at = at


def _serve_until(bake: Bake, text: str | None, now: dt.datetime) -> None:
    """Until when the table is served; None is all at once."""
    if not text:
        bake.serve_until = None
        return
    start = bake.serve_at.astimezone(now.tzinfo)
    until = moment_of(text, start, "/serve_until")
    if not start < until <= start + LONGEST_SERVICE:
        raise invalid("/serve_until", f"Serving begins {start:%a %H:%M}; {until:%a %H:%M} is not within 8 h of it.")
    bake.serve_until = until


def _alter(session: Session, r: BakeSnapshot, change: BakeUpdate) -> None:
    bake = r.bake
    changed = change.model_fields_set - {"revision"}
    held = own_strength(bake, r.kitchen, r.own) if changed & WORKED else None
    # what hangs on another comes after it: a temperature on the surface that is chosen, an end on the time of the table
    for name in sorted(changed, key=lambda n: (n in ("surface_c", "serve_until"), n)):
        value = getattr(change, name)
        if name == "serve":
            if value is not None:
                _serve(bake, value, r.now)
        elif name == "serve_until":
            _serve_until(bake, value, r.now)
        elif name == "lines":
            bake.lines = _readable(r, change.lines or [])
            bake.weighed = []
        elif name == "filling":
            stuffing = change.filling
            bake.filling = None if stuffing is None else stuffing.model_dump() | {"lines": _readable(r, stuffing.lines)}
        elif name == "bag_id":
            if value is not None and value not in {b.id for b in pantry_rows.bags(session, bake.kitchen_id)}:
                raise invalid("/bag_id", f"There is no bag {value} in this kitchen.")
            bake.bag_id = value
        elif name == "surface_c":
            _set_surface_c(session, r, change)
        elif name in ("surface_source", "surface_sd_k"):
            if change.surface_c is None:
                raise invalid(f"/{name}", "What says how hot the surface is comes with surface_c. Give both.")
        elif name in ("bulk_time", "ball_time"):
            end_stage(bake, name.removesuffix("_time"), value)
        elif name == "cold_time":
            stay_h = _said_h(value, "/cold_time", "the fridge", LONGEST_COLD_H)
            usual = ColdUpdate(stage="ball", hours=stay_h).model_dump() if stay_h else {}
            bake.cold = {**usual, **(bake.cold or {}), "hours": stay_h} if stay_h else None
        elif name == "sponge_time":
            bake.sponge_h = _said_h(value, "/sponge_time", "a sponge", LONGEST_SPONGE_H)
        elif name == "heat_steps":
            bake.heat_steps = _own_steps(r.surface, change.heat_steps, "/heat_steps")
        elif name == "parts":
            bake.parts = _parts(session, r, change.parts or [])
        elif name == "dressing":
            bake.dressing = None if change.dressing is None else change.dressing.model_dump()
        elif name == "surface_id":
            found = _surface(session, bake, value, "/surface_id")
            bake.surface_id = None if found is None else found.id
        elif name == "starter_id":
            if value is not None and value not in {s.id for s in starter_rows.of_kitchen(session, bake.kitchen_id)}:
                raise invalid("/starter_id", f"There is no starter {value} in this kitchen.")
            bake.starter_id = value
        elif name == "cold":
            bake.cold = None if change.cold is None else change.cold.model_dump()
        elif name in ("bulk_air", "ball_air"):
            setattr(bake, name, value and [list(point) for point in value])
        elif value is not None or name in OPTIONAL:
            setattr(bake, name, value)
    bake.shape = change.shape or _shape_said(bake.shape, change)
    if change.lines is not None:
        suit_leaven(bake, r.kitchen, r.own)
    if change.strength is None and changed & WORKED:
        suit_strength(bake, r.kitchen, r.own, held)


def _shape_said(shape: str, change: BakeUpdate) -> str:
    """The shape after sizes that were given without one: two of them are an oval's, a diameter is none of an oval."""
    if change.length_cm is not None and change.width_cm is not None:
        return "oval"
    return "round" if shape == "oval" and change.diameter_cm is not None else shape


WORKED = {"lines", "knead", "knead_min"}  # what decides how well a dough holds its gas
SHORTEST_H, LONGEST_COLD_H, LONGEST_SPONGE_H = 0.25, 96.0, 48.0


def _said_h(text: str | None, pointer: str, where: str, most_h: float) -> float | None:
    """The hours of a stay as a cook says them, the middle of a range; None for none. Raises InvalidInput at
    `pointer`."""
    said = (text or "none").replace(",", ".")
    span = span_h(f"{said} h" if said.replace(".", "", 1).isdigit() else said)
    if span is None:
        raise invalid(pointer, f"“{(text or '')[:40]}” is no time. Write it as 12 h, 24 to 48 h, overnight or none.")
    hours = sum(span) / 2
    if hours and not SHORTEST_H <= hours <= most_h:
        raise invalid(pointer, f"{hours:g} h is outside {SHORTEST_H:g} to {most_h:g} h for {where}.")
    return hours or None


OPTIONAL = (
    "bulk_time",
    "ball_time",
    "cold_time",
    "sponge_time",
    "bulk_air",
    "ball_air",
    "cold",
    "sponge_h",
    "starter_id",
    "count",
    "piece_g",
    "diameter_cm",
    "length_cm",
    "width_cm",
    "thickness_mm",
    "flour_c",
    "uneven_frac",
    "skin_min",
    "solve_for",
    "colour_top",
)


def _readable(r: BakeSnapshot, lines: list[FormulaLineCreate]) -> list[dict[str, Any]]:
    """Lines as stored; read first, so nothing unreadable is kept."""
    typed = [TypedLine(x.ingredient, x.amount, x.basis, x.part) for x in lines]
    if typed:
        read_lines(typed, kit_of(r.kitchen, r.own))
    return [x.model_dump() for x in lines]


def _surface(session: Session, bake: Bake, surface_id: int | None, pointer: str) -> SurfaceRow | None:
    """A surface of the bake's kitchen; None where none is named. Raises InvalidInput for one that it has not."""
    if surface_id is None:
        return None
    found = next((s for s in kitchens.surfaces(session, bake.kitchen_id) if s.id == surface_id), None)
    if found is None:
        raise invalid(pointer, f"There is no surface {surface_id} in this kitchen.")
    return found


def _parts(session: Session, r: BakeSnapshot, parts: list[PartUpdate]) -> list[dict[str, Any]]:
    """Further breads of the dough as stored. Raises InvalidInput for two of one name, a surface that is not there, a
    filling that is not there, or steps that its surface has not."""
    seen = {r.bake.name.casefold()}
    for i, part in enumerate(parts):
        if part.name.casefold() in seen:
            raise invalid(f"/parts/{i}/name", f"“{part.name}” is there already. Give each bread its own name.")
        seen.add(part.name.casefold())
        surface = _surface(session, r.bake, part.surface_id, f"/parts/{i}/surface_id") or r.surface
        if part.filled and not r.bake.filling:
            raise invalid(f"/parts/{i}/filled", "This bake has no filling yet. Add it first, then say who gets it.")
        _own_steps(surface, part.heat_steps, f"/parts/{i}/heat_steps")
    return [p.model_dump(exclude_none=True) for p in parts]


def _own_steps(
    surface: SurfaceRow | None, steps: list[HeatStepUpdate] | None, pointer: str
) -> list[dict[str, Any]] | None:
    """A cook's own steps as stored. Raises when none of them takes time, or one cannot be done on the surface."""
    if steps is None:
        return None
    kind = surface_of(surface).spec
    for i, step in enumerate(steps):
        wrong = fault_of(Step(**step.model_dump()), kind)
        if wrong:
            raise invalid(f"{pointer}/{i}/{wrong[0]}", wrong[1])
    if not any(Step(**s.model_dump()).lasts for s in steps):
        raise invalid(pointer, "None of these steps takes time on the heat. Give a side, with its seconds.")
    return [s.model_dump(exclude_none=True) for s in steps]


def _set_surface_c(session: Session, r: BakeSnapshot, change: BakeUpdate) -> None:
    surface = get(session, SurfaceRow, r.bake.surface_id) if r.bake.surface_id else None
    if surface is None or change.surface_c is None:
        raise invalid("/surface_c", "This bake has no surface yet. Choose one first.")
    surface.temp_c, surface.source, surface.sd_k = (
        change.surface_c,
        change.surface_source or "typed",
        change.surface_sd_k,
    )
    learn_heat(surface, lesson_rows.of_kitchen(session, r.bake.kitchen_id))
    session.add(surface)


def delete_bake(app: App, bake_id: int, revision: int | None = None) -> None:
    """Put a bake away, one that cannot be computed too; `restore_bake` brings it back whole.

    Raises Outdated when it was changed since `revision`.
    """
    with app.bake_transaction(bake_id) as session:
        kitchen_id = bake_rows.kitchen_of(session, bake_id)
        if kitchen_id is None:
            raise NotFound(f"There is no bake {bake_id}. It may have been deleted; undo brings it back.")
        bake_change.check_revision(bake_id, bake_rows.revision_of(session, bake_id), revision)
        now = app.now(session, app.kitchen(session, kitchen_id))
        with recording_plan_change(app, session, kitchen_id, "a bake was deleted"):
            bake_rows.alter(session, bake_id, deleted_at=now)


def restore_bake(app: App, bake_id: int) -> None:
    """Bring a deleted bake back."""
    with app.bake_transaction(bake_id) as session:
        kitchen_id = bake_rows.kitchen_of(session, bake_id, deleted=True)
        if kitchen_id is None:
            raise NotFound(f"There is no bake {bake_id} to bring back.")
        with recording_plan_change(app, session, kitchen_id, "a deleted bake is back"):
            bake_rows.alter(session, bake_id, deleted_at=None)


def read(app: App, given: ReadingCreate) -> int:
    """Store a look at the dough."""
    with app.bake_transaction(given.bake_id) as session:
        r = solve.load(app, session, given.bake_id)
        r.bake.revision += 1
        with recording_plan_change(app, session, r.bake.kitchen_id, LOOKED[given.kind], r.bake.id):
            return add_reading(session, r, given)


LOOKED = {
    "ratio": "the dough stood otherwise than forecast",
    "jar": "the jar stood otherwise than forecast",
    "feel": "the dough felt otherwise than forecast",
    "dough_c": "the dough is warmer or cooler than reckoned",
}
SAME = dt.timedelta(seconds=30)


def add_reading(session: Session, r: BakeSnapshot, given: ReadingCreate) -> int:
    if given.kind == "feel" and given.feel is None:
        raise invalid("/feel", "Say how it felt: not_yet, just or past.")
    if given.kind != "feel" and given.value is None:
        raise invalid("/value", "Give what was read: the ratio to the start, as 1.4, or the dough's temperature.")
    at = past_moment(given.at, r.now)
    mixed = r.done().get("mix")
    if mixed is None:
        raise Conflict("The dough is not mixed yet. Mark it mixed (it can be backdated), then read it.")
    if at <= mixed:
        raise invalid("/at", f"The dough was mixed at {mixed:%H:%M}; a reading comes after that.")
    if any(
        x.kind == given.kind and x.value == given.value and x.feel == given.feel and abs(x.at - at) < SAME
        for x in r.readings
    ):
        raise Conflict(
            f"That look at {at:%H:%M} is there already; twice would count it twice. Undo the first to change it."
        )
    row = Reading(
        kitchen_id=r.bake.kitchen_id,
        bake_id=r.bake.id,
        kind=given.kind,
        value=given.value,
        feel=given.feel,
        at=at,
        made_at=r.now,
    )
    insert(session, row)
    if given.kind == "dough_c" and given.value is not None and at - mixed <= JUST_MIXED:
        learn_friction(session, r, mixed, given.value)
    return row.id or 0


def undo_reading(app: App, reading_id: int) -> int:
    """Take a reading back; answers its bake's id."""
    with app.read() as session:
        found = get(session, Reading, reading_id)
    with app.bake_transaction(found.bake_id if found is not None and found.bake_id else 0) as session:
        row = get(session, Reading, reading_id)
        if row is None or row.undone_at is not None or row.bake_id is None:
            raise NotFound(f"There is no reading {reading_id} to undo.")
        r = solve.load(app, session, row.bake_id)
        r.bake.revision += 1
        row.undone_at = r.now
        session.add(row)
        if row.kind == "dough_c":
            unlearn_friction(session, r)
        return row.bake_id
