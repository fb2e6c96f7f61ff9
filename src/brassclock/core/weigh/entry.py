"""A whole ingredient list, one line each, as cooks write it. Every line comes back: read, or with what is missing.

Nothing is guessed silently: a line gives its ingredient and amount, or says which of them cannot be read.
"""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.errors import invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.matter.names import ingredient_of, meant, things
from brassclock.core.units import Unreadable, parse_amount
from brassclock.core.weigh import measures
from brassclock.core.weigh.amounts import (
    ABOUT,
    BRACKET,
    EACH,
    NEARLY,
    NO_MEASURE,
    VAGUE,
    counted,
    in_figures,
    mass_unit,
    no_measure,
    split,
    weight_first,
)
from brassclock.core.weigh.phrases import at_heat, hydration, purpose_of
from brassclock.core.weigh.shares import TOO_MUCH, UNWEIGHED, grams_said, share_of, whole_flour_g, without_shares

MAX_LINE = 200
MAX_LINES = 60
MOST_KIND = 3  # words that tell the kind of a thing
ASSUMED = ("yeast_instant", "yeast_active")
_PLAIN_YEAST = re.compile(r"(?:dried |dry |sachet )*yeast")
STARTERS = {100.0: "starter_100", 60.0: "starter_60"}
_SEASONING = re.compile(
    r"(?:,?\s*\bor (?:more |so )?)?\b(?:to taste|(?:as|if) (?:needed|required)|q\.?s\.?)\b|,?\s*\bor so\b",
    re.IGNORECASE,
)
NO_GLUTEN = re.compile(r"\bgluten[- ]free\b|\bgf\b|\b(?:teff|sorghum|millet|jowar|bajra|cassava)\b", re.IGNORECASE)
NO_GLUTEN_SAID = "A dough without gluten holds its gas and sets otherwise: it is not computed here."
_IN_BRACKETS = re.compile(r"\(([^()\d]+)\)")
_CHOICE = re.compile(r"\s(?:or)\s+\w", re.IGNORECASE)
_NEXT = (  # between things in one line, as they are tried
    re.compile(r"\s*[,;]\s+(?![^()]*\))|\s*;\s*(?![^()]*\))|\s+[/|·•]\s+|\s+[-–—+]\s+(?=\d)"),
    re.compile(r"[\s,;]+(?=\d+(?:[.,]\d+)?\s?(?:g|kg|ml)\b)"),
)
_FLOURS = re.compile(  # flour: 450 g strong white + 50 g rye
    r"^\s*(?:the )?flours?\s*:\s*(?=\D*\d.*(?:\+|,|;|\band\b)\s*\d)", re.IGNORECASE
)
_EITHER_WAY = re.compile(r"[1-9]\d{0,2}\.\d\d0 ?(?:g|gr|grams?|ml)\b", re.IGNORECASE)  # 1.250 g
_NO_UNIT = re.compile(r"\d+(?:[.,]\d+)?")
BARE_FLOUR_G = 50.0  # of a flour without a unit: nobody counts so many cups
USUAL_FLOUR_G = 500.0  # of a list in shares of the flour alone, which is said
WHOLE_OFF = 0.011  # shares of flours that are told to the per cent
SPREAD_G = 1.0  # a spoon is not told to the gram
_BASIS = {
    "heaped": "dipped",
    "heaping": "dipped",
    "dipped": "dipped",
    "scooped": "dipped",
    "spooned": "spooned",
    "sifted": "spooned",
    "level": "level",
}


@dataclass(frozen=True)
class EntryLine:
    """A line as written, and what was read: ingredient id, amount, basis; `faults` name what could not be."""

    raw: str
    ingredient: str | None
    amount: str | None
    basis: str | None
    faults: tuple[str, ...]
    near: tuple[str, ...] = ()
    note: str = ""
    purpose: str = ""  # a key of PURPOSES; empty for what goes into the dough
    temp_c: float | None = None  # at which it goes in [C], where that is said
    share: tuple[float, float] | None = None  # of the flour, where the line says that and no amount

    @property
    def read(self) -> bool:
        """True if both ingredient and amount were understood."""
        return not self.faults


def _disagreement(row: Ingredient, amount: str, mass: str, basis: str | None) -> str:
    """The sentence when a measure and the mass in brackets cannot both be true."""
    try:
        by_measure = measures.grams(row, parse_amount(amount), basis)
        said_g = measures.grams(row, parse_amount(mass), None).mass_g
    except Unreadable:
        return ""
    if by_measure.low_g * 0.9 - SPREAD_G <= said_g <= by_measure.high_g * 1.1 + SPREAD_G:
        return ""
    low, high = f"{by_measure.low_g:.0f}", f"{by_measure.high_g:.0f}"
    span = low if low == high else f"{low} to {high}"
    return f"“{amount}” of {row.name.lower()} is {span} g, not {said_g:.0f} g. The weight is taken."


def read_line(raw: str, rows: Mapping[str, Ingredient]) -> EntryLine:
    """Read one line. Never raises: what cannot be read stands in `faults`.

    >>> from brassclock.core.matter.ingredients import table
    >>> got = read_line("2 ½ cups plain flour, sifted", table())
    >>> got.ingredient, got.amount, got.basis
    ('plain_flour', '2 ½ cups', 'spooned')
    """
    text = re.sub(r"\s+", " ", raw.replace("\u00a0", " ")).strip()
    text = re.sub(r"^(?:[-–*•·▢☐]|\d{1,2}[.)](?=\s))\s*", "", text)
    if len(text) > MAX_LINE:
        return EntryLine(raw[:MAX_LINE], None, None, None, (f"The line is longer than {MAX_LINE} letters.",))
    basis = next((b for word, b in _BASIS.items() if re.search(rf"\b{word}\b", text.lower())), None)
    text, purpose, note = purpose_of(_SEASONING.sub("", text))
    loose = NEARLY.search(text)
    text, temp_c, wrong = at_heat(text)
    text = in_figures(text)
    bracket = BRACKET.search(text) or ABOUT.search(text)
    wet, text = hydration(text)
    bare = re.sub(r"\s+", " ", ABOUT.sub("", BRACKET.sub(" ", text))).strip(" ,")
    share, bare, amount, words = _amount_or_share(bare, weighed=bracket is not None)
    words = words.strip(" ,-–")
    if purpose and amount is not None and re.fullmatch(r"(?i)1", amount) and VAGUE.search(raw):
        amount = None
    ingredient, near = _by_name(words, rows)
    loosely = NO_MEASURE.fullmatch(words) if ingredient is None else None
    number = amount
    if loosely:
        amount, words = None, loosely[2]
        ingredient, near = ingredient_of(words, rows)
    faults = [wrong] if wrong else []
    both = things(words, rows)
    if both and purpose:  # beside the dough: which of the two is used, the cook sees
        ingredient, both = both[0], []
    if both:
        ingredient, near = None, both
        faults.append(f"“{words[:40]}” names two things. Write each on a line of its own, with its amount.")
    elif ingredient is None:
        unknown = NO_GLUTEN_SAID if NO_GLUTEN.search(words) else f"“{words[:40]}” is not a known ingredient."
        faults.append(unknown if words else "No ingredient is named.")
        if wet is not None and not words:
            faults.append(f"The hydration follows from the lines. Write the water: {wet:g}% water.")
    if wet is not None and ingredient is not None and ingredient.startswith("starter_"):
        if wet not in STARTERS:
            faults.append(f"A starter of {wet:g} % hydration is not known. Write its flour and its water, a line each.")
        ingredient = STARTERS.get(wet, ingredient)
    if bracket:
        measure, amount = weight_first(amount, bracket[1], number if EACH.search(text) else None)
        if measure and ingredient is not None:
            note, basis = _disagreement(rows[ingredient], measure, amount, basis) or note, None
    if share is not None:
        faults.append(UNWEIGHED)
    elif amount is None and not purpose:
        known = "How much is to taste? " if _SEASONING.search(raw) else ""
        faults.append(no_measure(loosely[1].lower()) if loosely else f"{known}No amount. Write how much, as in 8 g.")
    elif amount is not None:
        faults += _amount_faults(amount, rows.get(ingredient or ""), basis)
    if not faults and not note:
        note = _remark(ingredient, amount, words, loose[1].lower() if loose else "", rows)
    volume = amount is not None and not faults and parse_amount(amount).dimension == "volume"
    return EntryLine(
        raw.strip(),
        ingredient,
        amount,
        basis if volume else None,
        tuple(faults),
        tuple(near),
        note,
        purpose,
        temp_c,
        share,
    )


def _by_name(words: str, rows: Mapping[str, Ingredient]) -> tuple[str | None, list[str]]:
    """(id that is meant, near ids) of a name, or of what stands in brackets behind one that is not known."""
    ingredient, near = ingredient_of(words, rows)
    inside = _IN_BRACKETS.search(words) if ingredient is None else None
    meant_inside = ingredient_of(inside[1], rows)[0] if inside else None
    return (meant_inside, []) if meant_inside else (ingredient, near)


def _amount_or_share(bare: str, *, weighed: bool) -> tuple[tuple[float, float] | None, str, str | None, str]:
    """(share of the flour, the line, amount, the rest) of a line without its brackets. A weight, here or in the
    brackets (`weighed`), goes before a share that stands beside it."""
    alone = without_shares(bare)
    amount, words = split(counted(alone))
    if alone != bare and (weighed or (amount is not None and not amount.isdigit())):
        return None, alone, amount, words
    share, rest = (None, bare) if weighed else share_of(bare)
    return (share, rest, None, rest) if share is not None else (None, bare, *split(counted(bare)))


def _remark(ingredient: str | None, amount: str | None, words: str, loose: str, rows: Mapping[str, Ingredient]) -> str:
    """The sentence on how a line was taken that could have been meant otherwise; empty where there is none."""
    if ingredient in ASSUMED and _PLAIN_YEAST.fullmatch(meant(words, rows)):
        return f"Read as {rows[ingredient].name.lower()}. Name it if it is another: they differ threefold in strength."
    if ingredient and _CHOICE.search(words):
        return f"Of the two, {rows[ingredient].name.lower()} is taken."
    if loose:
        return f"“{loose}” is taken as {amount}."
    return _range_note(amount) if amount is not None else ""


def _range_note(amount: str) -> str:
    """The sentence on a range of which the middle is taken; empty for a single amount."""
    read = parse_amount(amount)
    if read.high <= read.low:
        return ""
    return f"{read.low:g} to {read.high:g} {read.unit}: the middle, {read.mid:g}, is taken."


def _amount_faults(amount: str, row: Ingredient | None, basis: str | None) -> list[str]:
    if _EITHER_WAY.match(amount):
        whole = amount.partition(".")[0]
        return [f"“{amount}” may be {whole} thousand, or {whole} and a bit. Write it without the point, or in kg."]
    try:
        read = parse_amount(amount)
        if row is not None:
            measures.grams(row, read, basis)
    except Unreadable as fault:
        return [str(fault)]
    return []


def read_entry(
    text: str, rows: Mapping[str, Ingredient], dough_g: float | None = None, flour_g: float | None = None
) -> list[EntryLine]:
    """Every line of a pasted list that holds anything, in order; headings (`For the dough:`) are left out.

    A list of shares alone (flour 100 %, water 65 %) is of the dough [g] that is given, or else of that flour [g]; of
    neither it says that a weight is missing. Raises InvalidInput when there are more than MAX_LINES: none is left out
    in silence.
    """
    lines = [line for line in text.splitlines() if line.strip() and not line.strip().endswith(":")]
    if len(lines) > MAX_LINES:
        over = lines[MAX_LINES].strip()[:60]
        raise invalid(
            "/text",
            f"The list holds {len(lines)} lines; {MAX_LINES} are the most of one dough. Shorten it from “{over}” on.",
        )
    found = _in_grams([x for line in lines for x in things_in(line, rows)], rows)
    sum_share = sum(sum(x.share) / 2 for x in found if x.share and not x.purpose)
    return _shared(found, rows, dough_g / sum_share if dough_g and sum_share else flour_g)


def things_in(line: str, rows: Mapping[str, Ingredient]) -> list[EntryLine]:
    """A line of several things, each with its amount (`flour 500 g, water 300 g`), as a line each; at least one."""
    whole = _FLOURS.sub("", line)
    for mark in _NEXT:
        parts = _with_their_kinds([p for p in mark.split(whole) if p], rows)
        apart = [read_line(p, rows) for p in parts] if 1 < len(parts) <= MAX_LINES else []
        weighed = [x for x in apart if x.amount is not None or x.share is not None]
        measured = len(weighed) > len(apart) / 2 and all(x in weighed or x.ingredient for x in apart)
        # what is not known stays, a line of its own
        if measured and sum(x.ingredient is not None for x in apart) > len(apart) / 2:
            return apart
    return [read_line(line, rows)]


def _with_their_kinds(parts: list[str], rows: Mapping[str, Ingredient]) -> list[str]:
    """Parts of a list between its commas, each with the words behind it that are no thing of their own (`water, warm`);
    what is known and has no amount stays a part where others have one."""
    joined: list[str] = []
    for part in parts:
        brief = len(part.split()) <= MOST_KIND and not re.search(r"[\d.:]", part)
        read = read_line(part, rows) if joined and brief else None
        if read is not None and read.ingredient is None and read.amount is None:
            joined[-1] = f"{joined[-1]}, {part}"
        else:
            joined.append(part)
    return joined


def _in_grams(lines: Sequence[EntryLine], rows: Mapping[str, Ingredient]) -> list[EntryLine]:
    """Lines without a unit in grams, and told so, where a flour among them is so much that nothing else can be
    meant."""

    def bare(x: EntryLine) -> bool:
        return x.ingredient is not None and x.amount is not None and _NO_UNIT.fullmatch(x.amount) is not None

    flours = [x for x in lines if bare(x) and rows[str(x.ingredient)].group == "flour"]
    if not any(float(str(x.amount).replace(",", ".")) >= BARE_FLOUR_G for x in flours):
        return list(lines)
    return [
        replace(x, amount=f"{x.amount} g", faults=(), note=x.note or "No unit is written: grams are taken.")
        if bare(x) and rows[str(x.ingredient)].piece_unit != "piece"
        else x
        for x in lines
    ]


def _shared(lines: Sequence[EntryLine], rows: Mapping[str, Ingredient], all_g: float | None) -> list[EntryLine]:
    """Lines that say a share of the flour in grams, by the flour of the list that is weighed; where none is and the
    flours are the whole, by `all_g`."""
    flours = [x for x in lines if x.ingredient and rows[x.ingredient].group == "flour" and not x.purpose]
    weighed = [x.amount for x in flours if x.amount and not x.faults and mass_unit(x.amount)]
    weighed_g = sum(parse_amount(amount).size()[1] for amount in weighed)
    flour_share = sum(sum(x.share) / 2 for x in flours if x.share)
    flour_g = whole_flour_g(weighed_g, flour_share)
    if all_g is not None and not any(x.amount for x in flours) and abs(flour_share - 1) < WHOLE_OFF:
        flour_g = all_g
    why = TOO_MUCH if flour_g is None and weighed_g > 0 else UNWEIGHED

    def told(x: EntryLine) -> EntryLine:
        if x.share is None:
            return x
        others = tuple(f for f in x.faults if f != UNWEIGHED)
        if flour_g is None:
            return replace(x, faults=(*others, why))
        amount, note = grams_said(x.share, flour_g)
        note = f"{note} No weight is written." if flour_g == all_g == USUAL_FLOUR_G else note
        return replace(x, amount=amount, faults=others, note=x.note or note)

    return [told(x) for x in lines]
