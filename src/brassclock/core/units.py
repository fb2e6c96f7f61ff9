"""Read what cooks type: amounts and temperatures. Plain floats come out.

Cups and spoons are the US customary ones unless others are given. Grams need an ingredient and are made in
`weigh.measures`; this module knows no food.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass

FRACTIONS = {
    "½": 1 / 2, "⅓": 1 / 3, "⅔": 2 / 3, "¼": 1 / 4, "¾": 3 / 4, "⅕": 1 / 5, "⅖": 2 / 5,
    "⅗": 3 / 5, "⅘": 4 / 5, "⅙": 1 / 6, "⅚": 5 / 6, "⅛": 1 / 8, "⅜": 3 / 8, "⅝": 5 / 8, "⅞": 7 / 8,
}  # fmt: skip
UNIT_NAMES = {
    "g": "g",
    "gram": "g",
    "grams": "g",
    "gr": "g",
    "gm": "g",
    "gms": "g",
    "kg": "kg",
    "kilo": "kg",
    "kilos": "kg",
    "kilogram": "kg",
    "kilograms": "kg",
    "mg": "mg",
    "oz": "oz",
    "ounce": "oz",
    "ounces": "oz",
    "lb": "lb",
    "lbs": "lb",
    "pound": "lb",
    "pounds": "lb",
    "cup": "cup",
    "cups": "cup",
    "c": "cup",
    "tbsp": "tbsp",
    "tbs": "tbsp",
    "tbsps": "tbsp",
    "tsps": "tsp",
    "tablespoon": "tbsp",
    "tablespoons": "tbsp",
    "tsp": "tsp",
    "teaspoon": "tsp",
    "teaspoons": "tsp",
    "ml": "ml",
    "mls": "ml",
    "cc": "ml",
    "millilitre": "ml",
    "millilitres": "ml",
    "milliliter": "ml",
    "milliliters": "ml",
    "l": "l",
    "litre": "l",
    "litres": "l",
    "liter": "l",
    "liters": "l",
    "dl": "dl",
    "cl": "cl",
    "fl oz": "fl oz",
    "floz": "fl oz",
    "fluid ounce": "fl oz",
    "fluid ounces": "fl oz",
    "packet": "packet",
    "pkt": "packet",
    "pkg": "packet",
    "packets": "packet",
    "sachet": "packet",
    "sachets": "packet",
    "envelope": "packet",
    "envelopes": "packet",
    "pinch": "pinch",
    "pinches": "pinch",
    "piece": "piece",
    "pieces": "piece",
}
US_GALLON_ML = 3785.411784  # 231 cubic inches: definition (NIST Handbook 44, appendix C, from memory)
POUND_G = 453.59237  # definition: the international pound of 1959
SIZES = {  # [g], [mL]
    "g": 1.0,
    "kg": 1000.0,
    "mg": 0.001,
    "oz": POUND_G / 16,
    "lb": POUND_G,
    "cup": US_GALLON_ML / 16,
    "tbsp": US_GALLON_ML / 256,
    "tsp": US_GALLON_ML / 768,
    "fl oz": US_GALLON_ML / 128,
    "ml": 1.0,
    "l": 1000.0,
    "dl": 100.0,
    "cl": 10.0,
}
METRIC_SPOONS_ML = {"cup": 250.0, "tbsp": 15.0, "tsp": 5.0}
MASS_UNITS = ("g", "kg", "mg", "oz", "lb")
VOLUME_UNITS = ("cup", "tbsp", "tsp", "ml", "l", "dl", "cl", "fl oz")
COUNT_UNITS = ("piece", "packet", "pinch")
MAX_TEXT = 80


class Unreadable(ValueError):
    """Text that cannot be read; the message quotes it and says what would be right."""


def unit_size(unit: str, own_ml: Mapping[str, float] | None = None) -> float:
    """Size of a unit: grams for a mass unit, millilitres for a volume unit; `own_ml` are cups and spoons of other sizes
    than the US ones [mL].

    >>> round(unit_size("cup"), 1), round(unit_size("oz"), 2), unit_size("cup", METRIC_SPOONS_ML)
    (236.6, 28.35, 250.0)
    """
    return own_ml[unit] if own_ml and unit in own_ml else SIZES[unit]


@dataclass(frozen=True)
class Amount:
    """An amount as typed: a number (or a range), and a unit. A bare number counts pieces."""

    low: float
    high: float
    unit: str

    @property
    def mid(self) -> float:
        """Middle of the amount, in its unit."""
        return (self.low + self.high) / 2

    @property
    def dimension(self) -> str:
        """`mass`, `volume` or `count`."""
        if self.unit in MASS_UNITS:
            return "mass"
        return "volume" if self.unit in VOLUME_UNITS else "count"

    def size(self, own_ml: Mapping[str, float] | None = None) -> tuple[float, float, float]:
        """(low, mid, high) in g, mL or pieces by dimension; `own_ml` as of unit_size."""
        factor = 1.0 if self.dimension == "count" else unit_size(self.unit, own_ml)
        return self.low * factor, self.mid * factor, self.high * factor


_NUMBER = r"(?:\d+\s+\d+/\d+|\d+/\d+|\d*\.\d+|\d+)"
_AMOUNT = re.compile(rf"^({_NUMBER})(?:\s*(?:-|to|or)\s*({_NUMBER}))?\s*([a-z .]*)$")


def _spell_fractions(text: str) -> str:
    def spelled(match: re.Match[str]) -> str:
        whole = float(match[1]) if match[1] else 0.0
        return f"{whole + FRACTIONS[match[2]]:.10f} "

    return re.sub(rf"(\d*)\s*([{''.join(FRACTIONS)}])", spelled, text)


def _number(text: str) -> float:
    total = 0.0
    for part in text.split():
        if "/" in part:
            over, under = part.split("/")
            if float(under) == 0:
                raise Unreadable("a fraction with 0 below the line")
            total += float(over) / float(under)
        else:
            total += float(part)
    return total


def figure_of(text: str) -> float:
    """A number with its fraction, in figures. Raises Unreadable for a fraction of nothing.

    >>> figure_of("1 1/2"), figure_of("1½"), figure_of("0,5")
    (1.5, 1.5, 0.5)
    """
    return _number(_spell_fractions(text.replace(",", ".")))


def celsius(degrees: float, unit: str) -> float:
    """Degrees of a unit that begins like C or F, in C.

    >>> celsius(212, "F"), celsius(30, "celsius")
    (100.0, 30)
    """
    return (degrees - 32) / 1.8 if unit[:1].lower() == "f" else degrees


def _sum(amounts: list[Amount], text: str) -> Amount:
    """Amounts of one dimension added up, in the first one's unit (US sizes)."""
    first = amounts[0]
    if len({a.dimension for a in amounts}) > 1 or (first.dimension == "count" and len({a.unit for a in amounts}) > 1):
        raise Unreadable(f"“{text.strip()[:MAX_TEXT]}” adds different measures. Write each on a line of its own.")

    def of_first(a: Amount) -> float:
        return 1.0 if a.unit == first.unit else unit_size(a.unit) / unit_size(first.unit)

    low, high = (sum(getattr(a, end) * of_first(a) for a in amounts) for end in ("low", "high"))
    return Amount(low, high, first.unit)


_THOUSANDS = re.compile(r"\b([1-9]\d{0,2})[,'’](\d{3})(?= ?(?:g|gr|grams?|ml)\b)")  # 1,250 g


def parse_amount(text: str) -> Amount:
    """Read `2 1/4 tsp`, `1.5 cups`, `450 g`, `½ cup`, `1-2 tbsp`, `2` (pieces).

    Raises Unreadable when it is not a positive, finite amount with a known unit.

    >>> parse_amount("2 1/4 tsp")
    Amount(low=2.25, high=2.25, unit='tsp')
    >>> parse_amount("1½ cups").mid
    1.5
    >>> parse_amount("3/4 cup + 2 tbsp")
    Amount(low=0.875, high=0.875, unit='cup')
    >>> parse_amount("1,250 g").mid, parse_amount("1,125 kg").mid, parse_amount("0,125 g").mid
    (1250.0, 1.125, 0.125)
    """
    parts = re.split(r"\s*(?:\+|\bplus\b)\s*", text.strip().lower())
    if 1 < len(parts) <= 4 and all(parts):
        return _sum([parse_amount(part) for part in parts], text)
    quoted = f"“{text.strip()[:MAX_TEXT]}”"
    hint = "Write a number and a unit, as in 2 1/4 tsp, 1.5 cups or 450 g."
    clean = _spell_fractions(text.strip().lower().replace("–", "-").replace("−", "-").replace("⁄", "/"))
    clean = _THOUSANDS.sub(r"\1\2", clean)
    clean = re.sub(r"(?<=\d),(?=\d{1,2}(\D|$))|(?<=\b0),(?=\d)|(?<=\d),(?=\d{3} ?(?:kg|l)\b)", ".", clean)
    if len(clean) > MAX_TEXT:
        raise Unreadable(f"{quoted} is too long for an amount. {hint}")
    if clean.startswith("-"):
        raise Unreadable(f"{quoted} is below zero; an amount is above 0. {hint}")
    match = _AMOUNT.match(clean.strip())
    if not match:
        raise Unreadable(f"{quoted} cannot be read as an amount. {hint}")
    unit_text = re.sub(r"\s+", " ", match[3].replace(".", "")).strip()
    unit = UNIT_NAMES.get(unit_text) if unit_text else "piece"
    if unit is None:
        known = "g, kg, oz, lb, cup, tbsp, tsp, ml, l, fl oz, packet, pinch"
        raise Unreadable(f"Unit “{unit_text[:30]}” in {quoted} is not known. Known are {known}.")
    try:
        low = _number(match[1])
        high = _number(match[2]) if match[2] else low
    except Unreadable as fault:
        raise Unreadable(f"{quoted} holds {fault}. {hint}") from None
    if not (math.isfinite(low) and math.isfinite(high)) or high > 1e6:
        raise Unreadable(f"{quoted} is too large. An amount is at most 1 000 000.")
    if low <= 0 or high < low:
        raise Unreadable(f"{quoted} is zero or runs backwards; an amount is above 0. {hint}")
    return Amount(low, high, unit)


def parse_temp_c(text: str | float, default_unit: str = "C") -> float:
    """Read `38C`, `100 F`, `21.5` into C. Believable is -30 to 600 C. Raises Unreadable.

    >>> round(parse_temp_c("100F"), 1)
    37.8
    """
    match = re.match(r"^\s*(-?\d+(?:[.,]\d+)?)\s*°?\s*([cf]?)\s*$", str(text).lower())
    if not match:
        raise Unreadable(f"“{str(text)[:MAX_TEXT]}” cannot be read as a temperature. Write 38 C or 100 F.")
    value = float(match[1].replace(",", "."))
    unit = (match[2] or default_unit).upper()
    temp_c = celsius(value, unit)
    return believable_temp_c(temp_c)


def believable_temp_c(temp_c: float) -> float:
    """The same temperature, refused outside -30 to 600 C (and when it is not a number)."""
    if not (math.isfinite(temp_c) and -30 <= temp_c <= 600):
        raise Unreadable(f"{temp_c:g} C is not believable in a kitchen. Give -30 to 600 C.")
    return temp_c


def degrees(c: float, unit: str = "C") -> str:
    """A temperature [C] as it is written in C or F, whole degrees.

    >>> degrees(204.6, "F").endswith("F"), degrees(204.6)[:3]
    (True, '205')
    """
    return f"{round(c * 1.8 + 32) if unit == 'F' else round(c)}\u00a0°{unit}"
