"""A formula out to a file and in from one: bake file, JSON-LD recipe, Markdown, CSV. What cannot be read stays
visible."""

from __future__ import annotations

import json
import re
from collections.abc import Mapping, Sequence
from typing import Any

from pydantic import ValidationError

from brassclock.core.errors import FieldFault, InvalidInput, invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.spoken import numbered
from brassclock.core.units import parse_amount
from brassclock.core.weigh import measures
from brassclock.core.weigh.entry import USUAL_FLOUR_G, EntryLine, read_entry, read_line
from brassclock.core.weigh.formula import Pieces
from brassclock.core.weigh.lines import SheetLine
from brassclock.core.weigh.recipe_page import Page, page_of
from brassclock.core.weigh.recipe_steps import Fact, dough_told_g, facts
from brassclock.formats import bakefile, recipe, tables
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.create import add_bake
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.keep.carry import kept_file, put_kept
from brassclock.services.kitchen.ingredients import known_rows, store_ingredient
from brassclock.services.kitchen.pantry import kit_of, own_rows
from brassclock.services.schemas.bake import BakeCreate
from brassclock.services.schemas.faults import faults_of
from brassclock.services.schemas.kitchen import OwnIngredientCreate
from brassclock.services.schemas.quantities import MAX_NOTE
from brassclock.services.schemas.weigh import ImportRead, ImportRequest
from brassclock.services.weigh.leaven import suit_leaven, suit_strength
from brassclock.services.weigh.model import sheet_of
from brassclock.services.weigh.recipe import put_facts
from brassclock.services.weigh.written import steps_written
from brassclock.store import kitchens as kitchen_rows
from brassclock.store import pantry as pantry_rows
from brassclock.store.rows import get
from brassclock.store.tables import Bake

UNNAMED = "Imported formula"
KINDS = {
    "json": ("application/json", "bake.json"),
    "jsonld": ("application/ld+json", "jsonld"),
    "md": ("text/markdown", "md"),
    "csv": ("text/csv", "csv"),
}
CARRIED = (
    "name",
    "method",
    "seal",
    "count",
    "piece_g",
    "strength",
    "bloomed",
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
    "note",
    "colour_top",
    "heat_steps",
    "dressing",
)


def file_of(bake: Bake, own: list[bakefile.OwnRow]) -> bakefile.BakeFile:
    """A bake as its file; lines not read yet ride along as words."""
    named = {x["ingredient"] for x in [*bake.lines, *bake.additions, *(bake.filling or {}).get("lines", ())]}
    lines = [
        bakefile.FileLine(**{k: v for k, v in x.items() if k in bakefile.FileLine.model_fields}) for x in bake.lines
    ]
    lines += [bakefile.FileLine(ingredient=x["ingredient"], amount=x["amount"], part="added") for x in bake.additions]
    lines += [bakefile.FileLine(raw=raw) for raw in bake.unread]
    stuffing = bake.filling
    return bakefile.BakeFile(
        **{k: getattr(bake, k) for k in CARRIED},
        lines=lines,
        filling=bakefile.FileFilling.model_validate(stuffing) if stuffing else None,
        shape=bakefile.FileShape.model_validate(
            {
                "kind": bake.shape,
                "diameter_cm": bake.diameter_cm,
                "length_cm": bake.length_cm,
                "width_cm": bake.width_cm,
                "thickness_mm": bake.thickness_mm,
            }
        ),
        parts=[
            bakefile.FilePart.model_validate({**p, "kind": p.get("shape", "round")}, extra="ignore") for p in bake.parts
        ],
        own_ingredients=[o for o in own if o.id in named],
    )


def export(app: App, bake_id: int, kind: str) -> tuple[str, str, str]:
    """(text, media type, file name) of a bake in a kind of KINDS."""
    if kind not in KINDS:
        raise invalid("/kind", f"“{kind[:20]}” is no file kind here. Use one of {', '.join(KINDS)}.")
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        own = [
            bakefile.OwnRow.model_validate({"id": f"own_{x.id}", "name": x.name, "kind": x.kind, "facts": x.facts})
            for x in pantry_rows.own_ingredients(session, r.bake.kitchen_id)
        ]
        kept = kept_file(session, r) if kind == "json" else None
    work, bake = solve.solve(r), r.bake
    if work.sheet is None and kind in ("md", "csv"):
        raise invalid("/kind", "There is nothing on the sheet yet to write down. Type what goes in the bowl first.")
    file = file_of(bake, own)
    lines = list(work.sheet.lines) if work.sheet else []
    rows = [(x.ingredient.name, x.typed, x.mass_g, x.baker_frac, "") for x in lines]
    steps = steps_written(r, work)
    if kind == "json":
        text = bakefile.write(file.model_copy(update={"kept": kept}))
    elif kind == "jsonld":
        text = recipe.write(file, [spoken(x) for x in lines] + list(bake.unread), steps)
    elif kind == "csv":
        text = tables.write_csv(rows)
    else:
        text = tables.write_markdown(bake.name, _about(r, work), rows, steps)
    media, ending = KINDS[kind]
    stem = re.sub(r"[^a-z0-9]+", "-", bake.name.lower()).strip("-") or "bake"
    return text, media, f"{stem}.{ending}"


def spoken(x: SheetLine) -> str:
    """A line as a cook would say it, with its grams where a cup was said."""
    grams = "" if x.basis == "by weight" else f" ({x.mass_g:.0f} g)" if x.mass_g >= 10 else f" ({x.mass_g:.1f} g)"
    return f"{x.typed}{grams} {x.ingredient.name}"


def _pieces_words(pieces: Pieces, bake: Bake) -> str:
    """Counts and weights of every bread of a dough."""
    others = [f"{p['count']} {p['name'].lower()} of {p['piece_g']:.0f} g" for p in bake.parts]
    return ", ".join([f"{numbered(pieces.count, 'piece')} of {pieces.mass_g:.0f} g", *others])


def _about(r: BakeSnapshot, work: solve.BakeResult) -> list[str]:
    sheet = work.sheet
    assert sheet is not None
    facts = []
    if sheet.pieces:
        facts.append(f"{_pieces_words(sheet.pieces, r.bake)}; {sheet.dough.total_g:.0f} g of dough.")
    if sheet.dough.hydration_frac is not None:
        facts.append(f"True water {sheet.dough.hydration_frac:.0%} of the flour.")
    facts.append(f"Dough wanted at {r.bake.dough_c:g} C.")
    if sheet.dough.allergens:
        facts.append(f"Contains {', '.join(sheet.dough.allergens)}.")
    return facts


def _parsed(text: str) -> Any:
    try:
        return json.loads(text)
    except (ValueError, RecursionError):
        return None


def bring_in(app: App, kitchen_id: int, given: ImportRequest) -> ImportRead:
    """A bake from a file's text. One transaction: the bake with every line, read or not, or nothing."""
    text = given.text.lstrip("\ufeff").strip()
    if not text:
        raise invalid("/text", "The file is empty. Choose one with a formula in it.")
    if len(text) > MOST_TEXT and text[0] != "{":
        raise invalid("/text", f"A page or a list holds {MOST_TEXT // 1_000_000} MB of text. Save the recipe alone.")
    data = _parsed(text) or recipe.from_page(text)
    if isinstance(data, dict) and data.get("format") == bakefile.FORMAT:
        return _from_file(app, kitchen_id, given, data, "bake file", [])
    found = recipe.find(data) if data is not None else None
    if found is not None and found.own is not None:
        return _from_file(app, kitchen_id, given, found.own, "recipe", [])
    if found is not None:
        if not found.lines:
            raise invalid("/text", "The recipe holds no ingredients. It needs recipeIngredient, one line each.")
        made = [f"Makes {found.count}"] if found.count else []
        page = Page(found.name, dough=list(found.lines), steps=list(found.steps), about=made)
        return _from_page(app, kitchen_id, given, page, "recipe", known_rows(app, kitchen_id))
    if data is None and text[0] in "{[":
        raise invalid("/text", "This begins like JSON but cannot be read as it. Is the end of the file missing?")
    if data is not None:
        raise invalid(
            "/text", "This JSON is neither a bake file nor a schema.org Recipe. Give one of those, Markdown or CSV."
        )
    rows = known_rows(app, kitchen_id)
    title, lines = tables.read_markdown(text)
    if lines:
        return _from_page(app, kitchen_id, given, Page(title or "", dough=lines), "Markdown", rows)
    if tables.is_csv(text):
        return _from_page(app, kitchen_id, given, Page(dough=tables.read_csv(text)), "CSV", rows)
    _note(text)  # what is longer is no recipe, and its steps would not go into the note
    page = page_of(text, rows)
    return _from_page(app, kitchen_id, given, page, "recipe as text" if page.steps else "list", rows)


def _from_file(
    app: App, kitchen_id: int, given: ImportRequest, data: dict[str, Any], kind: str, notes: list[str]
) -> ImportRead:
    try:
        file, more = bakefile.read(data)
    except ValueError as fault:
        raise invalid("/text", str(fault)) from None
    notes = [*notes, *more]
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        renamed: dict[str, str] = {}
        for own in file.own_ingredients:
            try:
                facts = OwnIngredientCreate.model_validate({"name": own.name, "kind": own.kind, **own.facts})
            except ValidationError as fault:
                raise InvalidInput(
                    [FieldFault("/text", f"“{own.name[:40]}”: {f.detail}") for f in faults_of(fault)]
                ) from None
            row = store_ingredient(session, kitchen_id, facts)
            renamed[own.id] = f"own_{row.id}"
        bake_id = add_bake(
            session,
            BakeCreate(kitchen_id=kitchen_id, method="blank", serve=given.serve, name=file.name),
            app.now(session, kitchen),
        )
        bake = get(session, Bake, bake_id)
        assert bake is not None
        for name in CARRIED:
            setattr(bake, name, getattr(file, name))
        bake.shape, bake.diameter_cm, bake.length_cm = file.shape.kind, file.shape.diameter_cm, file.shape.length_cm
        bake.width_cm, bake.thickness_mm = file.shape.width_cm, file.shape.thickness_mm
        bake.parts = [
            {"shape": p.kind, **p.model_dump(mode="json", exclude={"kind"}, exclude_none=True)} for p in file.parts
        ]
        own_now = own_rows(session, kitchen_id)
        _put_lines(bake, file, renamed, kit_of(kitchen, own_now).rows, app.now(session, kitchen).isoformat())
        if bake.lines:
            sheet_of(bake, kitchen, own_now)  # what cannot be weighed is refused whole
        if file.kept is not None and given.kept:
            put_kept(session, kitchen, bake, file.kept, app.now(session, kitchen))
            if file.kept.lessons:
                notes.append("What it taught another kitchen is refused here until you count it.")
        elif file.kept is not None:
            notes.append("What became of it is in the file too: bring it into the logbook to have that.")
        session.add(bake)
        return ImportRead(bake_id=bake_id, kind=kind, read=len(bake.lines), unread=bake.unread, notes=notes)


MOST_TEXT = 2_000_000  # of a page or a list; a bake file may hold pictures


def _put_lines(
    bake: Bake, file: bakefile.BakeFile, renamed: Mapping[str, str], known: Mapping[str, Ingredient], now: str
) -> None:
    """Set a bake's lines, additions and filling from its file; a line that cannot be read stays as its words."""
    lines, unread, added = [], [], []
    for x in file.lines:
        key = renamed.get(x.ingredient or "", x.ingredient)
        if key is None or key not in known or read_line(f"{x.amount} x", known).amount is None:
            unread.append(x.raw or f"{x.amount} {x.ingredient or ''}".strip())
        elif x.part == "added":
            added.append({"ingredient": key, "amount": x.amount, "at": now})
        else:
            lines.append({"ingredient": key, "amount": x.amount, "basis": x.basis, "part": x.part})
    bake.lines, bake.unread, bake.additions = lines, unread, added
    if file.filling:
        bake.filling = {
            "lines": [
                {
                    "ingredient": renamed.get(x.ingredient, x.ingredient),
                    "amount": x.amount,
                    "basis": x.basis,
                    "part": "",
                }
                for x in file.filling.lines
                if x.ingredient
            ],
            "per_piece_g": file.filling.per_piece_g,
            "topping": file.filling.topping,
        }


def _note(text: str) -> str:
    if len(text) > MAX_NOTE:
        raise invalid("/text", f"Its steps hold {len(text)} characters; a note holds {MAX_NOTE}. Shorten them.")
    return text


def _from_page(
    app: App, kitchen_id: int, given: ImportRequest, page: Page, kind: str, rows: Mapping[str, Ingredient]
) -> ImportRead:
    """A bake from a recipe that was taken apart: its lines, and what its steps say of it. All is read before anything
    is written."""
    _note("\n".join(page.steps))
    said = facts(page.steps, [*page.about, page.name])
    dough_g = dough_told_g(said, page.about)
    first, found = _read(page.sponge, rows), _read(page.dough, rows, dough_g, USUAL_FLOUR_G)
    stuffing, topped = _read(page.filling, rows), _read(page.topping, rows)
    if not first and not found:
        raise invalid("/text", "No ingredient line was found. Give one a line, as 500 g flour.")
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        own = own_rows(session, kitchen_id)
        bake_id = add_bake(
            session,
            BakeCreate(kitchen_id=kitchen_id, method="blank", serve=given.serve, name=page.name or UNNAMED),
            app.now(session, kitchen),
        )
        bake = get(session, Bake, bake_id)
        assert bake is not None
        bake.lines = [*_as_lines(first, "sponge"), *_as_lines(found, "")]
        if any(x.read for x in stuffing):
            bake.filling = {"lines": _as_lines(stuffing, ""), "per_piece_g": None, "topping": False}
        dough = [*first, *found]
        bake.part_temps = {x.ingredient: x.temp_c for x in dough if x.read and x.ingredient and x.temp_c is not None}
        bake.unread = [x.raw for x in dough if not x.read]
        topped = [] if bake.filling or not _is_topping(topped, said, rows) else topped
        if topped:
            bake.filling = {"lines": _as_lines(topped, ""), "per_piece_g": None, "topping": True}
        beside = [*(x.raw for x in dough if x.read and x.purpose), *([] if topped else page.topping), *page.beside]
        noted = [f"Beside the dough: {raw}." for raw in beside]
        noted += [f"In the filling: {x.raw}." for x in stuffing if not x.read]
        noted += [f"On the breads: {x.raw}." for x in topped if not x.read]
        bake.note = _note("\n".join([*noted, *page.about, *page.steps]))
        suit_leaven(bake, kitchen, own)
        taken = put_facts(bake, said, kitchen_rows.surfaces(session, kitchen_id))
        suit_strength(bake, kitchen, own, None)
        session.add(bake)
        notes = [x.note for x in [*dough, *stuffing, *topped] if x.note]
        return ImportRead(
            bake_id=bake_id, kind=kind, read=len(bake.lines), unread=bake.unread, notes=notes, taken=taken
        )


HEAVY_G = 100.0  # of what a topping is made: lighter ones are seeds, herbs and butter, which change no time


def _is_topping(lines: Sequence[EntryLine], said: Sequence[Fact], rows: Mapping[str, Ingredient]) -> bool:
    """True if a topping goes into the oven with its breads and weighs enough to matter there."""
    wet = sum(
        measures.grams(rows[x.ingredient], parse_amount(x.amount), x.basis).mass_g
        for x in lines
        if x.read and x.ingredient and x.amount and rows[x.ingredient].group == "filling"
    )
    return any(x.read for x in lines) and (any(f.key == "filling_g" for f in said) or wet >= HEAVY_G)


def _read(
    lines: list[str], rows: Mapping[str, Ingredient], dough_g: float | None = None, flour_g: float | None = None
) -> list[EntryLine]:
    return read_entry("\n".join(lines), rows, dough_g, flour_g)


def _as_lines(found: list[EntryLine], part: str) -> list[dict[str, Any]]:
    """Lines that were read and go in, as a bake stores them."""
    return [
        {"ingredient": x.ingredient, "amount": x.amount, "basis": x.basis, "part": part}
        for x in found
        if x.read and not x.purpose
    ]
