"""Amounts as cooks write them, in figures: spoken ones, several of one, weights in brackets, measures that are none."""

from __future__ import annotations

import re

from brassclock.core.spoken import figures
from brassclock.core.units import FRACTIONS, UNIT_NAMES, Unreadable, parse_amount

METRIC = frozenset(("g", "kg", "mg"))
_LOOSE = re.compile(
    r"^(an?\s+)?(?:about|around|approximately|approx\.?|roughly|just under|just over|a bit over|a bit under|nearly|"
    r"almost|barely|scant|generous|good|rounded|heaped|level|little|some|another|up to|"
    r"at least)\s+(?:an?\s+)?(?=\S)",
    re.IGNORECASE,
)
_ONE_OF = re.compile(r"just|scant|nearly|almost|barely", re.IGNORECASE)  # a cup, where no number is said
_NUMBERED = re.compile(rf"[\d{''.join(FRACTIONS)}]|an? |half|quarter|one|two|three", re.IGNORECASE)
NEARLY = re.compile(
    r"\b(scant|just under|nearly|almost|barely|just over|generous|good|rounded|up to|at least)\b", re.IGNORECASE
)
VAGUE = re.compile(r"\b(?:a little|a bit of|some)\b", re.IGNORECASE)
NO_MEASURE = re.compile(
    r"(splash|drizzle|glug|handful|knob|lick|smidgen|thumb|glass|mug|bowl|ladle|katori|can|tin|bottle|jar|pint|quart|cube)"
    r"(?:e?s|fuls?)?(?: of)? (\S.*)",
    re.IGNORECASE,
)
_TWO_SIZES = {
    "pint": ("473 ml in the US and 568 ml in Britain", "473 ml"),
    "quart": ("946 ml in the US and 1,137 ml in Britain", "946 ml"),
    "cube": ("42 g in much of Europe, and less elsewhere", "42 g"),
}
_TIMES = re.compile(
    r"^(\d{1,2})(?:\s*[x×]\s*(\d+(?:[.,]\d+)?)\s*(g|ml|oz)\b|"
    r"\s+(\d+(?:[.,]\d+)?)\s*-?(g|ml|oz)\s+(?=(?:sachet|packet|envelope|pack|tin|can|tub|pot|block|cube|bag)s?\b))",
    re.IGNORECASE,
)
_FULL = re.compile(r"(?<=[\d½¼¾⅓⅔])\s+(?:heaped|heaping|level|dipped|scooped|spooned|rounded)\s+(?=\w)", re.IGNORECASE)
_STICK = re.compile(
    r"^((?:\d+\s+)?\d+(?:/\d+)?|\d*\.\d+)\s+sticks?\s+(?:of\s+)?(?=\S*\s?\S*(?:butter|margarine))", re.IGNORECASE
)
STICK_OZ = 4  # of butter: common practice
_BARE_MEASURE = re.compile(r"^(?:pinch(?= )|(?:cup|teaspoon|tablespoon|tsp|tbsp|packet|sachet)(?= of ))", re.IGNORECASE)
_POUNDS = re.compile(
    r"\b(\d+)\s*(?:lbs?|pounds?)\.?,?\s+(?:and\s+)?(\d+(?:[.,]\d+)?)\s*(?:oz|ounces?)\b\.?", re.IGNORECASE
)
OZ_OF_LB = 16
_UNITS = "|".join(sorted((re.escape(u) for u in UNIT_NAMES), key=len, reverse=True))
_FRACTION = "".join(FRACTIONS)
_LEADER = re.compile(r"\s*(?:\.{2,}|…|_{2,})\s*")
_ONE_LETTER = re.compile(rf"(?<=[\d{_FRACTION}])\s*(T|t)(?!\w)\.?")  # T is a tablespoon, t a teaspoon
_APART = re.compile(
    r"\b([1-9]\d{0,2})(?:[ \u202f](?=000)|['’])(\d{3})(?=\s?(?:g|gr|grams?|ml)\b)"
)  # 1 000 g; not 2 500 g
_SPELT = (  # of several ways to write the same, the one that is read
    (re.compile("⁄"), "/"),
    (re.compile(r"\bH[2₂]O\b", re.IGNORECASE), "water"),
    (re.compile(r"(?<![\d.])\.(?=\d)"), "0."),
    (re.compile(r"(?<=\d)\s*&\s*(?=\d/\d)"), " "),
    (re.compile(r"-and-a-half\b", re.IGNORECASE), " and a half"),
    (re.compile(r"\(\s*(?:approx\.?|approximately|about|roughly|or so)\s*\)", re.IGNORECASE), " "),
    (re.compile(rf"(?:[~≈±]|\+/-)\s*(?=[\d{_FRACTION}])"), ""),
    (
        re.compile(
            r"(?<!, )(?<!\()\b(?:about|approx(?:imately)?\b\.?|around|roughly|circa|ca\.|c\.)\s+"
            rf"(?=[\d{_FRACTION}]|an? |half |one |two )",
            re.IGNORECASE,
        ),
        "",
    ),
)
_GRADE = re.compile(r"0{1,3}")  # of a flour, which is no amount
_NUM = rf"(?:\d+\s+\d+/\d+|\d+\s*[{_FRACTION}]|\d+/\d+|\d+(?:[.,]\d+)?|[{_FRACTION}])"
_ONE = rf"(?:{_NUM}(?:\s*(?:-|–|to|or)\s*{_NUM})?)\s*(?:(?:{_UNITS})\b\.?)?"
_MEASURE = rf"{_ONE}(?:\s*(?:\+|plus|and)\s*{_ONE})*"
_FIRST = re.compile(rf"^({_MEASURE})\s*(?:of\s+)?(.*)$", re.IGNORECASE)
_BEHIND = (  # an amount behind its name, which has a unit there
    rf"{_NUM}(?:\s*(?:-|–|to|or)\s*{_NUM})?\s*(?:{_UNITS})\b\.?"
    rf"(?:\s*(?:\+|plus|and)\s*{_NUM}\s*(?:{_UNITS})\b\.?)*"
)
_ONE_BEHIND = re.compile(
    r"(?<=[\s:=–-])an? (?=(?:pinch|cup|teaspoon|tablespoon|tsp|tbsp|packet|sachet)\b)", re.IGNORECASE
)
_LAST = re.compile(rf"^(.*?)[\s:=,–-]+({_BEHIND})\s*$", re.IGNORECASE)
_LAST_COUNT = re.compile(  # eggs: 2; flour 1000, among lines that are all in grams; no type of a flour
    r"^(0{1,3}|[^\d]*(?<!\btype)(?<!\btipo)(?<!\bno)[^\d\s:=,–-])[\s:=,–-]+(\d{1,4}(?:[.,]\d{1,2})?)$", re.IGNORECASE
)
_BETWEEN = re.compile(  # water 330 g, lukewarm; eggs 2 (beaten)
    rf"^([^\d(]*?[^\d(\s:=,–-])[\s:=,–-]+"
    rf"(?:({_BEHIND})\s*|(\d{{1,2}})\s*(?=\())"
    r"([,(]?)\s*([^\d()%]+)\)?$",
    re.IGNORECASE,
)
_EITHER = re.compile(
    rf"^({_NUM}\s*(?:{_UNITS})\b\.?)\s*/\s*({_NUM}\s*(?:{_UNITS})\b\.?)(?:\s*/\s*{_NUM}\s*(?:{_UNITS})\b\.?)*",
    re.IGNORECASE,
)
BRACKET = re.compile(
    rf"\(\s*(?:about\s+|approx\.?\s+)?({_NUM}\s*(?:g|kg|oz|lb|ml|tsp|tbsp|teaspoons?|tablespoons?|cups?)\b\.?)\s*(?:each)?\s*\)",
    re.IGNORECASE,
)
ABOUT = re.compile(rf",\s*(?:about|approx\.?|around|or)\s+({_NUM}\s*(?:g|kg|oz|lb|ml)\b\.?)\s*(?=,|$)", re.IGNORECASE)
EACH = re.compile(rf"\beach\s*\)|^{_NUM}\s*\(", re.IGNORECASE)


def counted(text: str) -> str:
    """An article at the front counts one, and so does a measure that has no number."""
    text = re.sub(r"^an? (?=\S)", "1 ", text, flags=re.IGNORECASE)
    return _BARE_MEASURE.sub(r"1 \g<0>", text)


def _added(amount: str) -> str:
    """An amount of several parts with a plus between them."""
    return re.sub(r"\s+and\s+", " + ", amount.strip())


def split(text: str) -> tuple[str | None, str]:
    """(amount, the rest) of a line; None when it holds no amount.

    >>> split("330 g water, lukewarm"), split("water 330 g, lukewarm"), split("butter: 30 g (melted)")
    (('330 g', 'water, lukewarm'), ('330 g', 'water, lukewarm'), ('30 g', 'butter, melted'))
    """
    first = _FIRST.match(text)
    if first and _GRADE.fullmatch(first[1].strip()):
        first = None
    if first and first[2].strip():
        return _added(first[1]), first[2].strip()
    text = _ONE_BEHIND.sub("1 ", text)
    last = _LAST.match(text)
    if last and last[1].strip():
        return _added(last[2]), last[1].strip()
    between = _BETWEEN.match(text)
    if between:
        return _added(between[2] or between[3]), f"{between[1]}{',' if between[4] else ''} {between[5]}".strip()
    count = _LAST_COUNT.match(text)
    if count and not _GRADE.fullmatch(count[2]):
        return count[2], count[1].strip()
    return (first[1].strip(), "") if first else (None, text)


def mass_unit(amount: str) -> str | None:
    """The unit of a mass; None of what is no mass."""
    try:
        read = parse_amount(amount)
    except Unreadable:
        return None
    return read.unit if read.dimension == "mass" else None


def weight_first(amount: str | None, said: str, each_of: str | None) -> tuple[str | None, str]:
    """(the measure, the weight that is taken) of an amount and what stands in brackets; of two weights the metric one,
    and of two measures the one in brackets. `each_of`: what is in brackets is of each of so many."""
    if each_of is not None:
        return None, _times(each_of, said)
    if amount is None:
        return None, said
    outside, inside = mass_unit(amount), mass_unit(said)
    if outside and (inside is None or (outside in METRIC and inside not in METRIC)):
        return said, amount
    return amount, said


def _times(count: str, one: str) -> str:
    """So many of one amount."""
    try:
        n, each = parse_amount(count), parse_amount(one)
    except Unreadable:
        return one
    return f"{n.mid * each.mid:g} {each.unit}" if n.dimension == "count" else one


def in_figures(text: str) -> str:
    """The line with its amount in figures, without words on how near it is."""
    for pattern, one_way in _SPELT:
        text = pattern.sub(one_way, text)
    text = _ONE_LETTER.sub(lambda m: " tbsp" if m[1] == "T" else " tsp", _LEADER.sub(": ", _APART.sub(r"\1\2", text)))
    while loose := _LOOSE.match(text):
        rest = text[loose.end() :]
        said = loose[1] if not VAGUE.search(loose[0]) else None
        one = (said or _ONE_OF.match(loose[0])) and not _NUMBERED.match(rest)
        text = f"1 {rest}" if one else rest
    text = figures(text)
    text = _POUNDS.sub(lambda m: f"{int(m[1]) * OZ_OF_LB + float(m[2].replace(',', '.')):g} oz", text)
    text = _EITHER.sub(r"\1 (\2)", text)
    text = _TIMES.sub(lambda m: _times(m[1], f"{m[2] or m[4]} {(m[3] or m[5]).lower()}") + " ", text)
    text = _STICK.sub(lambda m: f"{_times(m[1], f'{STICK_OZ} oz')} ", text)
    text = re.sub(r"(\d+)(?:-|\s+and\s+)(\d+/\d+)", r"\1 \2", text)
    text = _FULL.sub(" ", text)
    return re.sub(rf"^({_NUM})\s+or\s+({_NUM})", r"\1 to \2", text)


def no_measure(word: str) -> str:
    """The sentence on a measure that holds this much here and that much there."""
    if word in _TWO_SIZES:
        sizes, one = _TWO_SIZES[word]
        return f"A {word} is {sizes}. Write how much, as in {one}."
    return f"A {word} is no amount that can be weighed. Write how much, as in 2 tbsp or 200 ml."
