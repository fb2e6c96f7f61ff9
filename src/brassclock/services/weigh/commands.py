"""Commands on a formula: read a list, scale it, add a handful, test the yeast, keep it as a method."""

from __future__ import annotations

import datetime as dt
from typing import Any

from brassclock.core.day.kitchen_air import air_path
from brassclock.core.errors import invalid
from brassclock.core.matter.dough import Portion, dough_of
from brassclock.core.mix.guide import bloom_test
from brassclock.core.rise.dose import DoseRequest, dose_for
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.stages import Stage
from brassclock.core.time import hours_between, later
from brassclock.core.units import Unreadable, parse_amount
from brassclock.core.weigh import measures
from brassclock.core.weigh.entry import USUAL_FLOUR_G, read_entry
from brassclock.core.weigh.feel import handful
from brassclock.core.weigh.formula import BOWL_LOSS_FRAC
from brassclock.core.weigh.geometry import fits_on
from brassclock.core.weigh.recipe_page import page_of
from brassclock.core.weigh.scaling import Scaling, scale_factor, weighable_g
from brassclock.services import change as bake_change
from brassclock.services import solve
from brassclock.services.app import App, Conflict, NotFound
from brassclock.services.bake import lock
from brassclock.services.bake.methods import own_method
from brassclock.services.bake.parts import beside_g
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.kitchen.ingredients import known_rows
from brassclock.services.kitchen.pantry import kit_of
from brassclock.services.rise import spec as rise_spec
from brassclock.services.schemas.mix import BloomCreate
from brassclock.services.schemas.weigh import (
    AddCreate,
    DoseRead,
    DoseUpdate,
    DoseWay,
    EntryLineRead,
    EntryRead,
    EntryRequest,
    FeelUpdate,
    HandfulRead,
    MethodCreate,
    ScaleUpdate,
)
from brassclock.services.times import moment_of
from brassclock.services.weigh.model import sheet_of
from brassclock.store.rows import insert
from brassclock.store.tables import OwnMethod

MOST_ADDITIONS = 40
SMALL_G = 20.0
KEPT_FIELDS = (
    "lines",
    "filling",
    "seal",
    "strength",
    "bloomed",
    "count",
    "piece_g",
    "shape",
    "diameter_cm",
    "length_cm",
    "width_cm",
    "thickness_mm",
    "dough_c",
    "knead",
    "knead_min",
    "bulk_ratio",
    "ball_ratio",
    "bulk_end",
    "ball_end",
    "bulk_most_h",
    "ball_most_h",
    "bulk_h",
    "ball_h",
    "doneness",
    "docked",
    "colour_top",
    "heat_steps",
    "dressing",
)


def read_list(app: App, kitchen_id: int, given: EntryRequest) -> EntryRead:
    """Every line of a pasted list, read or with what is missing; of a whole recipe its steps apart."""
    rows = known_rows(app, kitchen_id)
    page = page_of(given.text, rows)
    if page.steps or len(page.dough) > 1:
        found = read_entry("\n".join([*page.sponge, *page.dough]), rows, None, USUAL_FLOUR_G)
        words = [*filter(None, [page.name]), *page.filling, *page.topping, *page.beside, *page.about, *page.steps]
    else:
        found, words = read_entry(given.text, rows, None, USUAL_FLOUR_G), []
    return EntryRead(
        steps=words,
        lines=[
            EntryLineRead(
                raw=x.raw,
                ingredient=x.ingredient,
                amount=x.amount,
                basis=x.basis,
                faults=list(x.faults),
                near=list(x.near),
                note=x.note,
                purpose=x.purpose or None,
                temp_c=x.temp_c,
            )
            for x in found
        ],
    )


def _amount_g(r: BakeSnapshot, ingredient: str, amount: str, pointer: str) -> float:
    kit = kit_of(r.kitchen, r.own)
    row = kit.rows.get(ingredient)
    if row is None:
        raise invalid(f"{pointer}/ingredient", f"“{ingredient[:40]}” is not a known ingredient.")
    try:
        return measures.grams(row, parse_amount(amount), kit.basis_for(row, None), kit.own_ml).mass_g
    except Unreadable as fault:
        raise invalid(f"{pointer}/amount", str(fault)) from None


def scale(app: App, bake_id: int, given: ScaleUpdate) -> None:
    """Rewrite a bake's lines in weighable grams for what was asked; pieces follow."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        if given.count is not None:
            lock.check(r.bake, {"count": given.count})
        bake, step = r.bake, r.kitchen.scale_step_g
        bake.held = {}
        sheet = sheet_of(bake, r.kitchen, r.own)
        count, mass_g = given.count, given.mass_g
        if given.tray_width_cm and given.tray_depth_cm:
            across = sheet.sheet.diameter_cm if sheet.sheet else None
            if across is None:
                raise invalid("/tray_width_cm", "Give the bread a size first: what fits depends on it.")
            fits = fits_on(given.tray_width_cm, given.tray_depth_cm, across)
            if fits == 0:
                raise invalid(
                    "/tray_width_cm", f"A bread of {across:.0f} cm does not fit there. Give a larger surface."
                )
            count = fits * given.loads
        if count:
            mass_g = mass_g or bake.piece_g or (sheet.pieces.mass_g if sheet.pieces else None)
        limits = tuple(
            (x.ingredient, _amount_g(r, x.ingredient, x.amount, f"/limits/{i}")) for i, x in enumerate(given.limits)
        )
        if not (count and mass_g) and not given.flour_g and not limits:
            raise invalid("/count", "Say what to scale to: breads and their weight, the flour, or what runs out.")
        factor = scale_factor(
            sheet.dough, Scaling(count, mass_g, given.flour_g, limits, beside_g(bake)), BOWL_LOSS_FRAC
        )
        texts = [
            f"{weighable_g(x.mass_g * factor, step if x.mass_g * factor < SMALL_G else max(step, 1.0)):g} g"
            for x in sheet.lines
        ]
        bake.lines = [{**x, "amount": t, "basis": None} for x, t in zip(bake.lines, texts, strict=False)]
        bake.additions = [{**x, "amount": t} for x, t in zip(bake.additions, texts[len(bake.lines) :], strict=True)]
        if count:
            bake.count, bake.piece_g = count, mass_g
        elif bake.piece_g:
            left_g = sheet.dough.total_g * factor * (1 - BOWL_LOSS_FRAC) - beside_g(bake)
            bake.count = max(1, int(left_g / bake.piece_g + 1e-6))


def add(app: App, bake_id: int, given: AddCreate) -> None:
    """Record what was put in beside the formula; it is part of the dough from then on."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        _amount_g(r, given.ingredient, given.amount, "")
        if len(r.bake.additions) >= MOST_ADDITIONS:
            raise Conflict(f"More than {MOST_ADDITIONS} additions are no additions: change the formula.")
        entry = {"ingredient": given.ingredient, "amount": given.amount, "at": r.now.isoformat()}
        r.bake.additions = [*r.bake.additions, entry]


def unadd(app: App, bake_id: int, revision: int | None = None) -> None:
    """Take the last addition back."""
    with bake_change.change(app, bake_id, revision) as (_, r):
        if not r.bake.additions:
            raise NotFound("Nothing was added that could be taken back.")
        r.bake.additions = r.bake.additions[:-1]


def added_g(r: BakeSnapshot) -> tuple[float, float]:
    """(flour, water) put in beside the formula so far [g]."""
    kit = kit_of(r.kitchen, r.own)
    flour = water = 0.0
    for x in r.bake.additions:
        row = kit.rows.get(x["ingredient"])
        if row is not None:
            g = _amount_g(r, x["ingredient"], x["amount"], "")
            flour, water = flour + g * row.flour_frac, water + g * row.counted_water_frac
    return flour, water


def feel(app: App, bake_id: int, given: FeelUpdate) -> HandfulRead:
    """Advice for how the dough feels now."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        sheet = solve.solve(r).sheet
    if sheet is None or not sheet.dough.flour_g:
        raise Conflict("There is no dough on the sheet yet. Type what is in the bowl.")
    got = handful(given.feel, sheet.dough, *added_g(r))
    return HandfulRead(add=got.add, grams=got.grams, rest_min=got.rest_min, text=got.text)


def bloom(app: App, bake_id: int, given: BloomCreate) -> None:
    """The bloom as a test: minutes to foam set what is believed of this packet's yeast."""
    with bake_change.change(app, bake_id, given.revision) as (_, r):
        told = bloom_test(given.minutes)
        r.bake.bloom_min, r.bake.bloom_foamed = given.minutes, told.activity is not None
        r.bake.activity_factor = told.activity


def unbloom(app: App, bake_id: int, revision: int | None = None) -> None:
    """Forget the bloom test."""
    with bake_change.change(app, bake_id, revision) as (_, r):
        r.bake.bloom_min = r.bake.bloom_foamed = r.bake.activity_factor = None


def dose(app: App, bake_id: int, given: DoseUpdate) -> DoseRead:
    """The yeast that has the bulk at its ratio by a moment, mixed as the plan says or now."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        work = solve.solve(r)
    bake, kitchen = r.bake, r.kitchen
    row = kit_of(kitchen, r.own).rows.get(given.leaven)
    if row is None or not row.is_ferment:
        raise invalid("/leaven", "Name a yeast (fresh, active dry, instant, osmotolerant) or a starter.")
    if work.sheet is None or not work.sheet.dough.has_flour_and_water:
        raise Conflict("A dough needs flour and water first. Add both.")
    ready = moment_of(given.ready_at, r.now, "/ready_at")
    mixed = r.done().get("mix", r.now + dt.timedelta(minutes=bake.knead_min + 15))
    hours = hours_between(mixed, ready)
    if not 0.25 <= hours <= 240:
        raise invalid(
            "/ready_at", f"“{given.ready_at}” leaves {hours:.1f} h to rise. Give 15 min to ten days after mixing."
        )
    dough = dough_of(p for p in work.sheet.dough.portions if not p.ingredient.is_ferment)
    stage = Stage(
        "bulk",
        hours,
        air_path(kitchen.hourly_c, mixed, hours + 30),
        Vessel("tub", dough.total_g, True, rise_spec.TUB_CM, "wood"),
        "ball",
        bake.bulk_ratio,
    )
    found = dose_for(
        DoseRequest(
            rise_spec.batch_of(r, dough),
            (stage,),
            bake.bulk_ratio,
            hours,
            rise_spec.belief_here(r, dough_of([*dough.portions, Portion(row, 1.0)])).mean,
        ),
        row,
    )
    return DoseRead(
        leaven=row.id,
        baker_frac=found.baker_frac,
        mass_g=found.mass_g,
        reason=found.reason,
        mix_at=mixed,
        ready_at=ready,
        ways=[
            DoseWay(text=w.text, grams=w.grams, at=None if w.at_h is None else later(mixed, w.at_h))
            for w in found.measurable
        ],
    )


def keep_method(app: App, kitchen_id: int, given: MethodCreate) -> str:
    """Keep a bake's settings as a method; answers the method's id."""
    with app.transaction(kitchen_id) as session:
        r = solve.load(app, session, given.bake_id)
        if r.bake.kitchen_id != kitchen_id:
            raise NotFound(f"There is no bake {given.bake_id} in this kitchen.")
        if not r.bake.lines:
            raise Conflict("This bake has no lines yet. Type what goes in the bowl first.")
        facts: dict[str, Any] = {name: getattr(r.bake, name) for name in KEPT_FIELDS} | {"from": r.bake.method}
        row = OwnMethod(kitchen_id=kitchen_id, name=given.name, facts=facts)
        insert(session, row)
        return f"own-{row.id}"


def put_away_method(app: App, kitchen_id: int, method_id: str, *, back: bool = False) -> None:
    """Take an own method off the list, or put it back."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        row = own_method(session, kitchen_id, method_id)
        row.deleted_at = None if back else app.now(session, kitchen)
        session.add(row)
