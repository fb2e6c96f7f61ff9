"""A whole ingredient list, one line each, as cooks write it. Every line comes back: read, or with what is missing.

Nothing is guessed silently: a line gives its ingredient and amount, or says which of them cannot be read.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.matter.names import ingredient_of, plain, things
from brassclock.core.spoken import figures
from brassclock.core.units import FRACTIONS, UNIT_NAMES, Unreadable, parse_amount
from brassclock.core.weigh import measures

MAX_LINE = 200
MAX_LINES = 60
PURPOSES = {  # what goes beside the dough, by the words that say so
    "fry": r"for (?:shallow |deep )?frying|for the (?:pan|griddle|skillet|wok)|for cooking",
    "brush": r"(?:for|to) (?:brush(?:ing)?|bast(?:e|ing)|glaz(?:e|ing))(?: with)?|for the glaze",
    "dust": r"(?:for|to) (?:dust(?:ing)?|roll(?:ing)?(?: out)?|flour(?:ing)?)|"
    r"for the (?:bench|counter|work ?surface|board)",
    "bowl": r"(?:for|to) (?:greas(?:e|ing)|oil(?:ing)?)(?: the (?:bowl|tray|tin))?|for the (?:bowl|tray|tin)",
    "serve": r"(?:to|for) (?:serv(?:e|ing)|garnish(?:ing)?|finish(?:ing)?|sprinkl(?:e|ing)|top(?:ping)?)|"
    r"(?:for the|on) top",
}
_ANY_PURPOSE = "|".join(f"(?:{words})" for words in PURPOSES.values())
_MORE = re.compile(
    rf",?\s*\b(?:plus|and) (?:some |a little |a bit )?(?:more|extra|some)?\s*(?:{_ANY_PURPOSE}).*$", re.IGNORECASE
)
_DIVIDED = re.compile(r",?\s*\b(?:divided|in two parts|in halves)\b", re.IGNORECASE)
_LOOSE = re.compile(
    r"^(an?\s+)?(?:about|around|approximately|approx\.?|roughly|just under|just over|a bit over|a bit under|nearly|"
    r"almost|barely|scant|generous|good|rounded|heaped|level|little|some|another)\s+(?:an?\s+)?(?=\S)",
    re.IGNORECASE,
)
_NEARLY = re.compile(r"\b(scant|just under|nearly|almost|barely|just over|generous|good|rounded)\b", re.IGNORECASE)
ASSUMED = ("yeast_instant", "yeast_active")
_PLAIN_YEAST = re.compile(r"(?:dried |dry |sachet )*yeast")
_VAGUE = re.compile(r"\b(?:a little|a bit of|some)\b", re.IGNORECASE)
_NO_MEASURE = re.compile(r"(splash|drizzle|glug|handful|knob|lick|smidgen)(?:e?s)?(?: of)? (\S.*)", re.IGNORECASE)
_AT_HEAT = re.compile(  # "at 30 C", "warmed to 105 F", "40 degrees C"; a bare "40 c" may be cups
    r",?\s*\(?(?:(?:\b(?:at|of|to|about|warmed to|heated to|cooled to)\s+)+(\d{1,3}(?:[.,]\d)?)\s*(?:°|degrees?)?|"
    r"\b(\d{1,3}(?:[.,]\d)?)\s*(?:°|degrees?))\s*(c|f|celsius|fahrenheit)\b\)?",
    re.IGNORECASE,
)
COLDEST_C, HOTTEST_C = -20.0, 100.0  # of what goes in a bowl
_BARE_MEASURE = re.compile(r"^(?:pinch|cup|teaspoon|tablespoon|tsp|tbsp|packet|sachet)(?= of )", re.IGNORECASE)
_SEASONING = re.compile(r"\b(?:to taste|as needed|as required|q\.?s\.?)\b", re.IGNORECASE)
_UNITS = "|".join(sorted((re.escape(u) for u in UNIT_NAMES), key=len, reverse=True))
_FRACTION = "".join(FRACTIONS)
_NUM = rf"(?:\d+\s+\d+/\d+|\d+\s*[{_FRACTION}]|\d+/\d+|\d+(?:[.,]\d+)?|[{_FRACTION}])"
_ONE = rf"(?:{_NUM}(?:\s*(?:-|–|to|or)\s*{_NUM})?)\s*(?:(?:{_UNITS})\b\.?)?"
_MEASURE = rf"{_ONE}(?:\s*(?:\+|plus|and)\s*{_ONE})*"
_FIRST = re.compile(rf"^({_MEASURE})\s*(?:of\s+)?(.*)$", re.IGNORECASE)
_LAST = re.compile(rf"^(.*?)[\s:=,–-]+({_NUM}\s*(?:{_UNITS})\b\.?)\s*$", re.IGNORECASE)
_BRACKET = re.compile(
    rf"\(\s*(?:about\s+|approx\.?\s+)?({_NUM}\s*(?:g|kg|oz|lb|ml|tsp|tbsp|teaspoons?|tablespoons?|cups?)\b\.?)\s*(?:each)?\s*\)",
    re.IGNORECASE,
)
_ABOUT = re.compile(rf",\s*(?:about|approx\.?|around|or)\s+({_NUM}\s*(?:g|kg|oz|lb|ml)\b\.?)\s*(?=,|$)", re.IGNORECASE)
_BASIS = {
    "heaped": "dipped",
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

    @property
    def read(self) -> bool:
        """True if both ingredient and amount were understood."""
        return not self.faults


def _counted(text: str) -> str:
    """An article at the front counts one, and so does a measure that has no number."""
    text = re.sub(r"^an? (?=\S)", "1 ", text, flags=re.IGNORECASE)
    return _BARE_MEASURE.sub(r"1 \g<0>", text)


def purpose_of(text: str) -> tuple[str, str, str]:
    """(the line without its purpose, a key of PURPOSES or empty for the dough, a note on what else is said)."""
    more = _MORE.search(text)
    if more:
        return text[: more.start()].strip(" ,"), "", "And a little more beside the dough, as the line says."
    for purpose, words in PURPOSES.items():
        found = re.search(rf",?\s*\b(?:{words})\b", text, re.IGNORECASE)
        if found:
            return (text[: found.start()] + " " + text[found.end() :]).strip(" ,"), purpose, ""
    divided = _DIVIDED.sub("", text)
    return divided.strip(" ,"), "", "All of it, though it goes in by parts." if divided != text else ""


def _split(text: str) -> tuple[str | None, str]:
    """(amount, the rest) of a line; None when it holds no amount."""
    first = _FIRST.match(text)
    if first and first[2].strip():
        return re.sub(r"\s+and\s+", " + ", first[1].strip()), first[2].strip()
    last = _LAST.match(text)
    if last and last[1].strip():
        return last[2].strip(), last[1].strip()
    return (first[1].strip(), "") if first else (None, text)


def _disagreement(row: Ingredient, amount: str, mass: str, basis: str | None) -> str:
    """The sentence when a measure and the mass in brackets cannot both be true."""
    try:
        by_measure = measures.grams(row, parse_amount(amount), basis)
        said_g = measures.grams(row, parse_amount(mass), None).mass_g
    except Unreadable:
        return ""
    if by_measure.low_g * 0.9 <= said_g <= by_measure.high_g * 1.1:
        return ""
    return (
        f"“{amount}” of {row.name.lower()} is {by_measure.low_g:.0f} to {by_measure.high_g:.0f} g, not {said_g:.0f} g. "
        f"The weight is taken."
    )


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
    loose = _NEARLY.search(text)
    text, temp_c, wrong = _at_heat(text)
    text = _in_figures(text)
    bracket = _BRACKET.search(text) or _ABOUT.search(text)
    bare = _ABOUT.sub("", _BRACKET.sub(" ", text)).strip(" ,")
    amount, words = _split(_counted(bare))
    words = words.strip(" ,-–")
    if purpose and amount is not None and re.fullmatch(r"(?i)1", amount) and _VAGUE.search(raw):
        amount = None
    ingredient, near = ingredient_of(words, rows)
    loosely = _NO_MEASURE.fullmatch(words) if ingredient is None else None
    if loosely:
        amount, words = None, loosely[2]
        ingredient, near = ingredient_of(words, rows)
    faults = [wrong] if wrong else []
    both = things(words, rows)
    if both:
        ingredient, near = None, both
        faults.append(f"“{words[:40]}” names two things. Write each on a line of its own, with its amount.")
    elif ingredient is None:
        faults.append(f"“{words[:40]}” is not a known ingredient." if words else "No ingredient is named.")
    if bracket and ingredient is not None:
        note = (_disagreement(rows[ingredient], amount, bracket[1], basis) if amount else "") or note
        amount, basis = bracket[1], None
    elif bracket:
        amount = bracket[1]
    if amount is None and not purpose:
        known = "How much is to taste? " if _SEASONING.search(raw) else ""
        faults.append(
            f"A {loosely[1].lower()} is no amount that can be weighed. Write how much, as in 2 tbsp."
            if loosely
            else f"{known}No amount. Write how much, as in 8 g."
        )
    elif amount is not None:
        faults += _amount_faults(amount, rows.get(ingredient or ""), basis)
    if ingredient in ASSUMED and not faults and not note and _PLAIN_YEAST.fullmatch(plain(words)):
        note = f"Read as {rows[ingredient].name.lower()}. Name it if it is another: they differ threefold in strength."
    if loose and not faults and not note:
        note = f"“{loose[1].lower()}” is taken as {amount}."
    volume = amount is not None and not faults and parse_amount(amount).dimension == "volume"
    if amount is not None and not faults and not note:
        note = _range_note(amount)
    return EntryLine(
        raw.strip(), ingredient, amount, basis if volume else None, tuple(faults), tuple(near), note, purpose, temp_c
    )


def _at_heat(text: str) -> tuple[str, float | None, str]:
    """(the line without its temperature, that [C], the fault of one that cannot be)."""
    said = _AT_HEAT.search(text)
    if said is None:
        return text, None, ""
    degrees = float((said[1] or said[2]).replace(",", "."))
    temp_c = (degrees - 32) / 1.8 if said[3].lower().startswith("f") else degrees
    rest = (text[: said.start()] + text[said.end() :]).strip(" ,")
    if not COLDEST_C <= temp_c <= HOTTEST_C:
        return rest, None, f"{said[0].strip(' ,')} is no temperature for a bowl. Give one up to {HOTTEST_C:.0f} C."
    return rest, round(temp_c, 1), ""


def _in_figures(text: str) -> str:
    """The line with its amount in figures, without words on how near it is."""
    while _LOOSE.match(text):
        text = _LOOSE.sub(
            lambda m: m[1] or "1 " if re.match(r"(?i)an?\b|just|scant|nearly|almost|barely", m[0]) else "", text
        )
        text = re.sub(r"^1 (?=\d|an? |half|quarter|one|two|three)", "", text)
    text = figures(text)
    text = re.sub(r"(\d+)(?:-|\s+and\s+)(\d+/\d+)", r"\1 \2", text)
    text = re.sub(rf"^({_NUM})\s+(?:heaped|level|dipped|scooped|spooned)\s+", r"\1 ", text, flags=re.IGNORECASE)
    return re.sub(rf"^({_NUM})\s+or\s+({_NUM})", r"\1 to \2", text)


def _range_note(amount: str) -> str:
    """The sentence on a range of which the middle is taken; empty for a single amount."""
    read = parse_amount(amount)
    if read.high <= read.low:
        return ""
    return f"{read.low:g} to {read.high:g} {read.unit}: the middle, {read.mid:g}, is taken."


def _amount_faults(amount: str, row: Ingredient | None, basis: str | None) -> list[str]:
    try:
        read = parse_amount(amount)
        if row is not None:
            measures.grams(row, read, basis)
    except Unreadable as fault:
        return [str(fault)]
    return []


def read_entry(text: str, rows: Mapping[str, Ingredient]) -> list[EntryLine]:
    """Every line of a pasted list that holds anything, in order; headings (`For the dough:`) are left out.

    Raises InvalidInput when there are more than MAX_LINES: none is left out in silence.
    """
    lines = [line for line in text.splitlines() if line.strip() and not line.strip().endswith(":")]
    if len(lines) > MAX_LINES:
        over = lines[MAX_LINES].strip()[:60]
        raise invalid(
            "/text",
            f"The list holds {len(lines)} lines; {MAX_LINES} are the most of one dough. Shorten it from “{over}” on.",
        )
    return [read_line(line, rows) for line in lines]
