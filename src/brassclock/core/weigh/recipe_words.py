"""Measures in a clause of a recipe: pieces and their weight, stretches of time, lengths, heats, surfaces.

Each is read where it stands in figures, or in a word that means one (overnight, doubled, quarters).
"""

from __future__ import annotations

import re
from collections.abc import Iterator

from brassclock.core.spoken import ONES, TENS, span_h
from brassclock.core.units import celsius, figure_of, parse_amount

Span = tuple[float, float]  # least and most
SPONGE = r"(?:poolish|biga|sponge|pre-?ferment|levain)"
_FIG = r"(?:\d+\s+\d/[1-9]|\d/[1-9]|\d+(?:[.,]\d+)?\s?[½¼¾⅓⅔]?|[½¼¾⅓⅔])"
_TO = r"\s*(?:-|–|to|or)\s*"
_LONGER = r"(?:hours?|hrs?|h|days?|nights?)\b\.?"
_MINUTES = r"(?:minutes?|mins?)\b\.?"
_HOURS = rf"(?:{_LONGER}|{_MINUTES})"
_WORD = "|".join([*ONES, *TENS])
_TIME = re.compile(
    rf"\b(?:overnight|(?:night|evening) before|"
    rf"(?:half an|an|one) hour(?:{_TO}(?:{_FIG}|two|three) hours)?(?: and a half)?|"
    rf"(?:{_FIG}\s*(?:{_HOURS})?{_TO})?{_FIG}(?:\s|-)?"
    rf"(?:{_MINUTES}(?:\s*(?:and )?a half\b)?|"
    rf"{_LONGER}(?:\s*(?:and )?(?:a half\b|\d+(?:\s*m(?:in\w*)?\b)?(?!\s*{_HOURS})))?)|"
    rf"(?:{_WORD})\s+{_HOURS})",
    re.IGNORECASE,
)
_UP_TO_DAYS = re.compile(r"\bup to (?:about )?(\d{1,2}) days?\b|\b(\d{1,2}) days? at (?:the )?most", re.IGNORECASE)
FOUND_H = (1 / 60, 96.0)
_PIECES = (
    r"(?:equal|even|equal-sized|small|large|smooth|dough|long|thin)?\s*(?:\d+(?:\.\d+)?[ -]?(?:inch|in|cm|mm)\b\s*)?"
    r"(?:pieces?|balls?|portions?|parts?|rounds?|breads?|flatbreads?|lumps?|discs?|disks?|naans?|pitas?|pittas?|kulchas?|"
    r"rotis?|chapatis?|tortillas?|wraps?|loaves|loaf|bases?|sheets?|circles?|ovals?|pockets?|pcs?)\b"
)
_OF_EACH = r"(?:@|at|of|[x×])\s*(?=\d{2,4}\s?g\b)"  # 100 pcs @ 90 g
_COUNTED = re.compile(rf"\s*(\d{{1,3}})(?:{_TO}(\d{{1,3}}))?\s+{_PIECES}(?!\s+(?:at a time|of))", re.IGNORECASE)
_DIVIDES = re.compile(
    rf"\b(?:divide|cut|split|portion|shape|form|make|scale|ball|pinch|tear|turn)\w*\b[^.]*?"
    rf"\b(\d{{1,3}})(?:{_TO}(\d{{1,3}}))?\s+{_PIECES}|"
    rf"\b(\d{{1,3}})\s*[x×@]\s*~?\s*\d{{2,4}}\s?g\b|\b(?:divide|split)\s+(\d{{1,3}})$|"
    rf"\b(?:divide|split|portion|cut)\w*\b[^.]*?\b(?:into|in|to|by)\s+(\d{{1,3}})\b(?!\s*(?:g|mm|cm|in|min\w*|h\w*)\b)",
    re.IGNORECASE,
)
_QUARTERS = re.compile(r"\b(?:cut|divide|split)\w*\b.*\b(?:into )?(quarters|halves|half|farls)\b", re.I)
_MAKES = re.compile(
    rf"\bfor\s+(\d{{1,3}})\s+{_PIECES}|"
    rf"(?:makes|yields?|quantity)\s*:?\s*(?:about |approx\.? |around )?(\d{{1,3}})(?:{_TO}(\d{{1,3}}))?"
    rf"(?!\s*(?:g|kg|%))|"
    rf"[(,–—-]\s*(?:makes )?(\d{{1,3}})\s+{_PIECES}\)?\s*$|"
    rf"\b(\d{{1,3}})\s*{_PIECES}\s*{_OF_EACH}|"
    r"^[^\d:]*(?<!serves )\((\d{1,3})\)\s*$",
    re.IGNORECASE,
)
_FILLED_G = re.compile(
    r"(\d{1,3})(?:\s*(?:-|–|to)\s*(\d{1,3}))?\s*g(?:rams?)?\)?\s+(?:of )?(?:the )?(?:filling|stuffing)\b|"
    r"\bfill(?:ed|ing)?(?: (?:each|it|with))*\s*\(?(?:about )?(\d{2,3})(?:\s*(?:-|–|to)\s*(\d{2,3}))?\s*g\b",
    re.IGNORECASE,
)
_SAYS_EACH = re.compile(
    r"(?:scale|divide|portion|weigh|cut|ball|pre-?shape)\w*(?: (?:it|them|the dough))?(?: into| at| off| out| to)?"
    r"(?: about)? \d+ ?g|"
    r"(?:\b(?:at|of)|@) ?(?:about |around )?\d+ ?g|"
    r"(?:scaling|piece|ball|unit) weight|scaling\s*:?\s*\d|[x×]\s*~?\s*\d|balls? (?:of|at)|pieces? (?:of|at)|\beach\b|"
    r"apiece|g balls?|g pieces?|g portions?|ball at",
    re.I,
)
_EACH_OZ = re.compile(
    r"(?:\bat|\bof|@|[x×]) ?(?:about )?(\d{1,2}(?:\.\d)?)\s*(?:oz|ounces?)\b|(\d{1,2}(?:\.\d)?)\s*(?:oz|ounces?) each",
    re.IGNORECASE,
)
_EACH_G = re.compile(
    r"(?:[x×]\s*~?\s*|balls? (?:of|at) (?:about )?|pieces? (?:of|at) (?:about )?|\bat |@ ?|"
    r"weighing (?:about )?|about )?"
    r"\b(\d{2,4})\s*(?:-|–|to)?\s*(\d{2,4})?\s*(?:g|grams?)\b(?:\s*(?:each|apiece|balls?|pieces?|portions?))?",
    re.IGNORECASE,
)
_TOTAL = re.compile(r"total (?:dough )?(?:weight)?\s*[:=]?\s*(\d[\d,.]*)\s*(kg|g)\b", re.IGNORECASE)
_LONG = re.compile(
    rf"({_FIG})(?:{_TO}({_FIG}))?\s*-?\s*(mm|cm|(?:centi|milli)met(?:re|er)s?|inch(?:es)?|in\b|[\"”″])(?!\s*long)",
    re.IGNORECASE,
)
_OVAL = re.compile(
    r"(\d{1,3})\s*(?:cm|[\"”″])?\s*(?:[x×]|by)\s*(\d{1,3})\s*(cm\b|inch(?:es)?\b|in\b|[\"”″])", re.IGNORECASE
)
_BARE_OVAL = re.compile(r"\b(\d{2})\s*(?:[x×]|by)\s*(\d{2})\b()", re.IGNORECASE)  # of an oval, in cm
_LONG_WIDE = re.compile(
    r"(\d{1,3})\s*(?:cm|inch(?:es)?|in|[\"”″])\s*long\b.{0,25}?(\d{1,3})\s*(cm|inch(?:es)?|in|[\"”″])\s*"
    r"(?:wide|across|at (?:its|the) widest)",
    re.IGNORECASE,
)
_AS_THICK = (  # practice: what a thickness is likened to [mm]
    (re.compile(r"\bthick\w*\b.*\bpound coin|\bpound coin\b.*\bthick", re.IGNORECASE), 3.0),
    (re.compile(r"\bthick\w*\b.*\bpencil|\bpencil\b.*\bthick", re.IGNORECASE), 7.0),
    (re.compile(r"\bthick\w*\b.*\b(?:little|small) finger", re.IGNORECASE), 12.0),
    (re.compile(r"\bthick\w*\b.*\b(?:finger|thumb)\b|\bfinger[- ]thick", re.IGNORECASE), 16.0),
)
_MM = {"mm": 1.0, "cm": 10.0, "millimetre": 1.0, "centimetre": 10.0, "millimeter": 1.0, "centimeter": 10.0}
INCH_MM = 25.4
_IS_OVAL = re.compile(r"\b(?:ovals?|oblongs?|tongues?|tear ?-?drops?)\b", re.IGNORECASE)
OVAL_WIDE = 0.6  # of its length: common practice for hand-drawn ovals and drops
SHORTEST_OVAL_MM = 80.0
_DEGREES = re.compile(
    r"(?:(\d{3})\s*(?:°|º)?[cf]?\s*(?:-|–|to)\s*)?(\d{2,3})\s*(?:°|º|degrees?)?\s*(c|f|celsius|fahrenheit)\b",
    re.IGNORECASE,
)
_BARE_DEGREES = re.compile(r"\b(\d{3})\s*(?:°|º|degrees?\b)", re.IGNORECASE)
MOST_BARE_C = 300.0  # degrees of an oven that names no scale: above, Fahrenheit
_COOL = re.compile(r"(?<![\d.])(\d{1,2})\s*(?:°|º|degrees?)?\s*(c|f|celsius|fahrenheit)\b", re.IGNORECASE)
FROZEN_C, FRIDGE_C = -1.0, 8.0
_DOUGH_C = re.compile(
    r"\b(?:ddt|fdt|target|(?:final |desired |wanted |target )?dough temp\w*\.?)\s*(?:of|is|at|about|=|:|should be)*\s*"
    r"(\d{2,3})(?:\s*[–-]\s*\d{2,3})?\s*(?:°|º|degrees?)?\s*(c|f)\b",
    re.IGNORECASE,
)
WANTED_C = (10.0, 40.0)
STOOD_C = (8.0, 45.0)
_PLACES = {
    "oven_light": r"oven (?:with|and) (?:the |its |only the )?(?:oven )?light|oven light on",
    "proof_box": r"\b(?:proof(?:ing|er)?|prov(?:ing|er)) (?:box|drawer|cabinet|chamber)|"
    r"\bin (?:the|a) (?:prover|proofer)\b",
    "warm_spot": r"\bairing cupboard\b",
    "cellar": r"\bcellar\b",
}
_NOT_HERE = re.compile(  # heats that are not computed, by their words
    r"\b(?:charcoal|coals|barbecue|bbq|campfire|embers|air ?fryer|toaster oven|panini press|sandwich press|microwave|"
    r"(?:hot |gas |outdoor )?grill(?=\s+(?:on|over|for|with|at|until)|\s*,))\b",
    re.IGNORECASE,
)
_GAS = re.compile(r"\bgas (?:mark )?(\d)\b", re.I)
GAS_C = {n: round(celsius(n * 25 + 250, "F"), -1) for n in range(1, 10)}  # practice: a mark is 25 F from 275 on
COLDEST_OVEN_C, HOTTEST_C = 120.0, 550.0
_ON = (  # what a bread is baked on, by the words for it; the first that is there
    (
        "oil",
        r"deep[- ]fr\w+|deep oil|\bin (?:the )?hot oil\b|\boil\b[^.]{0,30}\b(?:1[5-9]\d|2[01]\d) ?(?:°|º)? ?c\b|"
        r"\boil\b[^.]{0,30}\b(?:3[2-9]\d|4[01]\d) ?(?:°|º)? ?f\b|"
        r"(?<!pan-)(?<!pan )\bfr(?:y|ied|ying)\b[^.]*\bin (?:the )?oil\b",
    ),
    ("clay_wall", r"tandoor|tandoori|clay oven"),
    ("inverted_plate", r"\bsaj\b|(?:inverted|upturned|upside[- ]down) \w+"),
    ("flame_oven", r"wood[- ]fired|flame oven|\b(?:pizza|outdoor|garden) oven"),
    ("stone_oven", r"(?:baking|oven|pizza|hot) stone|\bstone\b|\bdeck\b"),
    ("steel_oven", r"(?:baking|oven|pizza) steel|\bsteel\b(?! bowl)"),
    ("iron_plate", r"\bta[wv]ah?\b|griddle|plancha|flat ?top|comal"),
    (
        "skillet",
        r"\bpan[- ]fr\w+|skillet|frying[- ]pan|fry(?:ing)? pan|cast[- ]iron|"
        r"\b(?:dry|hot|heavy|non-?stick|heavy-based) pan\b|\bpan (?:on|over) (?:a )?(?:medium|low|high)",
    ),
    (
        "oven_tray",
        r"baking (?:sheet|tray)|sheet pan|oven tray|\bon (?:a |the )?(?:hot |oiled |floured |greased |lined )*"
        r"(?:trays?|sheets?)\b",
    ),
)
_COLOURS = (  # golden, spots and all, is what a bread has where nothing else is said
    (
        "charred",
        re.compile(
            r"(?<!lightly )(?<!slightly )\b(?:charred|blackened)\b"
            r"(?! (?:in )?(?:a few )?(?:spots?|places|patches|blisters?|edges?|bits|bubbles))",
            re.IGNORECASE,
        ),
    ),
    (
        "pale",
        re.compile(
            r"\b(?:no|without(?: any)?|barely any|little) colou?r(?:ing)?\b|\bstay\w* pale\b|\b(?:still|kept?) pale\b|"
            r"\b(?:not|n't|without) (?:let (?:it|them) )?brown(?:ing)?\b",
            re.IGNORECASE,
        ),
    ),
    (
        "light",
        re.compile(
            r"\b(?:lightly|barely|just|slightly|faintly) (?:golden|brown\w*|colou?red|toasted)\b|"
            r"\b(?:light|pale) (?:golden|gold|brown|colou?r)\b|\b(?:begin|start)\w* to (?:brown|colou?r|turn golden)\b|"
            r"\bturning golden\b|"
            r"\b(?:a )?few (?:light |pale )(?:brown )?spots\b",
            re.IGNORECASE,
        ),
    ),
)
_UNDER_LID = re.compile(r"\b(?:with|under|put on|cover\w*)\b[^.]*\blid\b|\blid on\b|\bcovered (?:pan|skillet)", re.I)
_UNDER_GRILL = re.compile(
    r"\b(?:under (?:a |the )?(?:hot |preheated )?(?:grill|broiler)|(?:grill|broil) (?:the |its )?(?:top|other side))\b",
    re.IGNORECASE,
)
_WITH = {
    "processor": r"food processor|\bprocess\b",
    "spiral": r"\bspiral\b",
    "planetary": r"\bspeed (?:1|2|one|two)\b|"
    r"\b(?:low|slow|first|second|1st|2nd|medium|high) speed\b|stand mixer|dough hook|\bmixer\b|by machine|\bmachine\b",
    "no_knead": r"no[- ]knead|(?:do not|don't|without) knead(?:ing)?",
}


def days_cold(clause: str) -> float | None:
    """The most days that a clause says a dough may stay (`for up to 14 days`)."""
    found = _UP_TO_DAYS.search(clause)
    return float(found[1] or found[2]) if found else None


def minutes_in(clause: str) -> list[Span]:
    """Every stretch of minutes in a clause, in hours: `4 min slow, 5 min fast` has two."""
    spans = [span_h(m[0].rstrip(".")) for m in _TIME.finditer(clause) if re.search(r"\d", m[0])]
    return [s for s in spans if s is not None]


def hours_in(clause: str) -> Span | None:
    """The longest stretch of time in a clause [h]; one in figures before one in words (overnight)."""
    told = [m[0].rstrip(".") for m in _TIME.finditer(clause)]
    spans = [span_h(t) for t in [t for t in told if re.search(r"\d", t)] or told]
    known = [s for s in spans if s is not None and FOUND_H[0] <= s[1] <= FOUND_H[1]]
    return max(known, key=lambda s: s[1], default=None)


def lengths_mm(clause: str) -> Iterator[Span]:
    """Every length in a clause [mm]."""
    for low, high, unit in _LONG.findall(clause):
        size = _MM.get(unit.lower().removesuffix("s"), INCH_MM)
        ends = [figure_of(x) * size for x in (low, high) if x]
        yield min(ends), max(ends)
    likened = next((mm for words, mm in _AS_THICK if words.search(clause)), None)
    if likened is not None:
        yield likened, likened


def place_of(clause: str) -> str | None:
    """The place of a kitchen (a key of PlaceKey) that a clause names for a wait; a warm place alone is none."""
    return next((place for place, words in _PLACES.items() if re.search(words, clause, re.I)), None)


def stood_c(clause: str) -> float | None:
    """The temperature at which a clause lets a dough stand [C]."""
    said = [celsius(float(degrees), unit) for _, degrees, unit in _DEGREES.findall(clause)]
    return next((round(x, 1) for x in said if STOOD_C[0] <= x <= STOOD_C[1]), None)


def cool(clause: str) -> bool:
    """True if a clause names a temperature that is a fridge's."""
    said = [celsius(float(degrees), unit) for degrees, unit in _COOL.findall(clause)]
    return any(FROZEN_C < x <= FRIDGE_C for x in said)


def dough_c(clause: str) -> float | None:
    """The temperature that the dough is wanted at [C] where a clause says it."""
    found = _DOUGH_C.search(clause)
    said_c = celsius(float(found[1]), found[2]) if found else None
    return round(said_c, 1) if said_c is not None and WANTED_C[0] <= said_c <= WANTED_C[1] else None


def oval_cm(clause: str) -> Span | None:
    """Width and length of an oval [cm]; of one length alone it is OVAL_WIDE as wide."""
    named = _IS_OVAL.search(clause)
    found = _OVAL.search(clause) or (named and _BARE_OVAL.search(clause)) or _LONG_WIDE.search(clause)
    if not found:
        long = [x for x in lengths_mm(clause) if x[1] >= SHORTEST_OVAL_MM] if named else []
        if len(long) != 1:
            return None
        length_cm = sum(long[0]) / 20
        return round(length_cm * OVAL_WIDE, 1), round(length_cm, 1)
    size = 1.0 if found[3].lower() in ("cm", "") else INCH_MM / 10
    ends = sorted(round(float(x) * size, 1) for x in (found[1], found[2]))
    return ends[0], ends[1]


def colour_of(clause: str) -> str | None:
    """The colour that a clause wants a bread to have (a key of the colours); None where it says none or golden."""
    return next((colour for colour, words in _COLOURS if words.search(clause)), None)


def tin_said(clause: str) -> str | None:
    """The sizes of the tin or tray that all of a dough goes into, as they are written."""
    found = _OVAL.search(clause) if re.search(r"\b(?:tin|pan|tray|dish)\b", clause, re.IGNORECASE) else None
    return found[0].strip() if found else None


def pieces_in(clause: str, raw: str, *, bare: bool = False) -> Span | None:
    """Number of pieces that a clause, in figures and as it is written, divides a dough into; `bare`: or that it begins
    with (`8 balls`)."""
    parts = _QUARTERS.search(raw)
    if parts:
        many = 2.0 if parts[1].lower().startswith("hal") else 4.0
        return many, many
    found = _DIVIDES.search(clause)
    low = float(found[1] or found[3] or found[4] or found[5]) if found else 0.0
    if found is None and bare:
        found = _COUNTED.match(clause)
        low = float(found[1]) if found else 0.0
    return (low, float(found[2] or low)) if found and low > 0 else None


def quartered(raw: str) -> bool:
    """True if a clause cuts a round into quarters."""
    parts = _QUARTERS.search(raw)
    return parts is not None and not parts[1].lower().startswith("hal")


def pieces_made(text: str) -> Span | None:
    """Number of breads that a line of what it makes, or a name, says: `Makes 8`, `Naan (6 pieces)`."""
    found = _MAKES.search(text)
    low = float(found[1] or found[2] or found[4] or found[5] or found[6]) if found else 0.0
    return (low, float(found[3] or low)) if found and low > 0 else None


def each_g(clause: str) -> Span | None:
    """The weight of one piece [g] where a clause says it."""
    found = _EACH_G.search(clause) if _SAYS_EACH.search(clause) else None
    if found is None:
        ounces = _EACH_OZ.search(clause)
        one = round(parse_amount(f"{ounces[1] or ounces[2]} oz").size()[1]) if ounces else 0
        return (one, one) if one else None
    return float(found[1]), float(found[2] or found[1])


def filling_g(clause: str) -> Span | None:
    """The filling of one piece [g] where a clause says it (`45 g stuffing in each`)."""
    found = _FILLED_G.search(clause)
    low = (found[1] or found[3]) if found else None
    return (float(low), float(found[2] or found[4] or low)) if found and low else None


def total_g(line: str) -> float | None:
    """The weight of all the dough [g] where a line says it."""
    said = _TOTAL.search(line)
    return float(said[1].replace(",", "")) * (1000 if said[2].lower() == "kg" else 1) if said else None


def oven_c(clause: str) -> float | None:
    """The heat of an oven in a clause [C]; the first that is one, so a fan's comes after the oven's own."""
    bare = _BARE_DEGREES.search(clause)
    if bare and not _DEGREES.search(clause):
        clause = f"{bare[1]} {'C' if float(bare[1]) <= MOST_BARE_C else 'F'}"
    for low, degrees, unit in _DEGREES.findall(clause):
        said_c = celsius((float(low or degrees) + float(degrees)) / 2, unit)
        if COLDEST_OVEN_C <= said_c <= HOTTEST_C:
            return float(round(said_c / 5) * 5)
    gas = _GAS.search(clause)
    return GAS_C.get(int(gas[1])) if gas else None


def baked_on(clause: str) -> str | None:
    """The kind of surface that a clause names; None where it names none."""
    kind = next((kind for kind, words in _ON if re.search(words, clause, re.I)), None)
    return "lidded_pan" if kind == "skillet" and _UNDER_LID.search(clause) else kind


def under_grill(clause: str) -> bool:
    """True if a clause puts a bread under the grill."""
    return _UNDER_GRILL.search(clause) is not None


def heat_elsewhere(clause: str) -> str | None:
    """The words for a heat that is not computed (coals, an air fryer); None where a clause names none."""
    found = _NOT_HERE.search(clause)
    return found[0].lower() if found else None


def kneaded_by(clause: str) -> str | None:
    """The way of kneading that a clause names; None where it names none."""
    return next((way for way, words in _WITH.items() if re.search(words, clause, re.I)), None)
