"""A whole ingredient list, one line each, as cooks write it. Every line comes back: read, or with what is missing.

Nothing is guessed silently: a line gives its ingredient and amount, or says which of them cannot be read.
"""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass

from brassclock.core.errors import invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.matter.names import ingredient_of
from brassclock.core.units import FRACTIONS, UNIT_NAMES, Unreadable, parse_amount
from brassclock.core.weigh import measures

MAX_LINE = 200
MAX_LINES = 60
COUNTS = {
    "one": "1",
    "two": "2",
    "three": "3",
    "four": "4",
    "five": "5",
    "six": "6",
    "seven": "7",
    "eight": "8",
    "nine": "9",
    "ten": "10",
    "twelve": "12",
    "a dozen": "12",
    "half a": "1/2",
    "half": "1/2",
    "a quarter": "1/4",
    "quarter": "1/4",
    "an": "1",
    "a": "1",
}
_UNITS = "|".join(sorted((re.escape(u) for u in UNIT_NAMES), key=len, reverse=True))
_FRACTION = "".join(FRACTIONS)
_NUM = rf"(?:\d+\s+\d+/\d+|\d+\s*[{_FRACTION}]|\d+/\d+|\d+(?:[.,]\d+)?|[{_FRACTION}])"
_ONE = rf"(?:{_NUM}(?:\s*(?:-|–|to)\s*{_NUM})?)\s*(?:(?:{_UNITS})\b\.?)?"
_MEASURE = rf"{_ONE}(?:\s*(?:\+|plus|and)\s*{_ONE})*"
_FIRST = re.compile(rf"^({_MEASURE})\s*(?:of\s+)?(.*)$", re.IGNORECASE)
_LAST = re.compile(rf"^(.*?)[\s:=,–-]+({_NUM}\s*(?:{_UNITS})\b\.?)\s*$", re.IGNORECASE)
_BRACKET = re.compile(
    rf"\(\s*(?:about\s+|approx\.?\s+)?({_NUM}\s*(?:g|kg|oz|lb|ml)\b\.?)\s*(?:each)?\s*\)", re.IGNORECASE
)
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

    @property
    def read(self) -> bool:
        """True if both ingredient and amount were understood."""
        return not self.faults


def _spelled(text: str) -> str:
    """Counting words at the front become figures."""
    low = text.lower()
    for word in sorted(COUNTS, key=len, reverse=True):
        if low.startswith(word + " "):
            return COUNTS[word] + text[len(word) :]
    return text


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
    text = re.sub(r"(\d+)(?:-|\s+and\s+)(\d+/\d+)", r"\1 \2", text)
    text = re.sub(rf"^({_NUM})\s+(?:heaped|level|dipped|scooped|spooned)\s+", r"\1 ", text, flags=re.IGNORECASE)
    bracket = _BRACKET.search(text)
    amount, words = _split(_spelled(_BRACKET.sub(" ", text).strip()))
    ingredient, near = ingredient_of(words, rows)
    faults, note = [], ""
    if ingredient is None:
        faults.append(f"“{words[:40]}” is not a known ingredient." if words else "No ingredient is named.")
    if bracket and ingredient is not None:
        note = _disagreement(rows[ingredient], amount, bracket[1], basis) if amount else ""
        amount, basis = bracket[1], None
    elif bracket:
        amount = bracket[1]
    if amount is None:
        faults.append("No amount. Write how much, as in 8 g.")
    else:
        faults += _amount_faults(amount, rows.get(ingredient or ""), basis)
    volume = amount is not None and not faults and parse_amount(amount).dimension == "volume"
    return EntryLine(raw.strip(), ingredient, amount, basis if volume else None, tuple(faults), tuple(near), note)


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
