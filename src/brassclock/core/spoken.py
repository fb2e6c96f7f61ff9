"""Numbers and stretches of time as they are spoken: words to figures, and figures to hours.

>>> figures("one and a half cups of flour"), figures("a cup and a half of milk")
('1.5 cups of flour', '1.5 cup of milk')
>>> figures("three quarters of a teaspoon"), figures("a couple of eggs")
('0.75 teaspoon', '2 eggs')
"""

from __future__ import annotations

import re
import unicodedata

ONES = {
    word: value
    for value, word in enumerate(
        [
            "zero",
            "one",
            "two",
            "three",
            "four",
            "five",
            "six",
            "seven",
            "eight",
            "nine",
            "ten",
            "eleven",
            "twelve",
            "thirteen",
            "fourteen",
            "fifteen",
            "sixteen",
            "seventeen",
            "eighteen",
            "nineteen",
        ]
    )
}
TENS = {
    word: 10 * value
    for value, word in enumerate(["twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"], 2)
}
PARTS = {"half": 2, "halves": 2, "third": 3, "quarter": 4, "fourth": 4, "fifth": 5, "sixth": 6, "eighth": 8}
PARTS |= {word + "s": of for word, of in PARTS.items() if word != "halves"}
LOTS = {"couple": 2, "pair": 2, "dozen": 12}
UNITS_AND = (
    r"(cups?|tablespoons?|tbsps?|teaspoons?|tsps?|packets?|sachets?|kilos?|pounds?|lbs?|litres?|liters?|hours?|h|days?|"
    r"minutes?)"
)
_TOKEN = re.compile(r"\d+(?:[.,]\d+)?(?:/\d+)?|[A-Za-z]+|[^\sA-Za-z\d]+|\s+")


def _figure(value: float) -> str:
    return f"{value:.4f}".rstrip("0").rstrip(".")


def _words(text: str) -> list[str]:
    return [t for t in _TOKEN.findall(text) if not t.isspace()]


def _whole(words: list[str], at: int) -> tuple[float, int] | None:
    """(value, next word) of a whole number spoken at that word."""
    if at >= len(words):
        return None
    word = words[at].lower()
    if word in TENS:
        after = _whole(words, at + 1) if at + 1 < len(words) and words[at + 1].lower() in ONES else None
        value, end = (TENS[word] + after[0], after[1]) if after and after[0] < 10 else (TENS[word], at + 1)
    elif word in ONES:
        value, end = ONES[word], at + 1
    elif re.fullmatch(r"\d+", word):
        value, end = int(word), at + 1
    else:
        return None
    if end < len(words) and words[end].lower() == "hundred":
        rest = (
            _whole(words, end + 2)
            if end + 1 < len(words) and words[end + 1].lower() == "and"
            else _whole(words, end + 1)
        )
        return (100.0 * value + rest[0], rest[1]) if rest else (100.0 * value, end + 1)
    return float(value), end


def _share(words: list[str], at: int) -> tuple[float, int] | None:
    """(value, next word) of a fraction spoken at that word: half a, a half, three quarters of a, 3/4 of a."""
    if at >= len(words):
        return None
    first = words[at].lower()
    typed = re.fullmatch(r"(\d+)/(\d+)", first)
    if typed:
        return _of_a(words, at + 1, int(typed[1]) / max(int(typed[2]), 1))
    if first in PARTS:
        return _of_a(words, at + 1, 1 / PARTS[first])
    count = 1.0 if first in ("a", "an") else None
    end = at + 1
    if count is None:
        whole = _whole(words, at)
        if whole is None:
            return None
        count, end = whole
    if end < len(words) and words[end] == "-":
        end += 1
    if end < len(words) and words[end].lower() in PARTS:
        return _of_a(words, end + 1, count / PARTS[words[end].lower()])
    return None


def _of_a(words: list[str], at: int, value: float) -> tuple[float, int]:
    """The fraction with the words that may follow it: of a, of an, a, an."""
    rest = [w.lower() for w in words[at : at + 2]]
    if rest[:2] in (["of", "a"], ["of", "an"], ["of", "one"]):
        return value, at + 2
    if rest[:1] in (["a"], ["an"]):
        return value, at + 1
    return value, at


def _number(words: list[str], at: int) -> tuple[float, int] | None:
    """(value, next word) of a number spoken at that word."""
    share = _share(words, at)
    if share is not None:
        return share
    first = words[at].lower()
    if first in ("a", "an") and at + 1 < len(words) and words[at + 1].lower() in LOTS:
        return float(LOTS[words[at + 1].lower()]), at + 2 + (words[at + 2 : at + 3] == ["of"])
    if first in LOTS:
        return float(LOTS[first]), at + 1 + (words[at + 1 : at + 2] == ["of"])
    whole = _whole(words, at)
    if whole is None:
        return None
    value, end = whole
    if end + 1 < len(words) and words[end].lower() == "and":
        more = _share(words, end + 1)
        if more is not None and more[0] < 1:
            return value + more[0], more[1]
    more = _share(words, end) if end < len(words) and words[end].lower() not in ("a", "an") else None
    if more is not None and more[0] < 1:
        return value + more[0], more[1]
    dozen = end < len(words) and words[end].lower() == "dozen"
    return (12 * value, end + 1) if dozen else (value, end)


_AND_PART = re.compile(
    rf"\b(an?|\d+(?:\.\d+)?) {UNITS_AND} and (?:a )?(0\.\d+|1/2|1/4|3/4)(?! ?{UNITS_AND})\b", re.IGNORECASE
)


def _one(text: str) -> float:
    """The value of `a`, a decimal or a fraction."""
    above, _, below = text.partition("/")
    return 1.0 if text.lower() in ("a", "an") else float(above) / float(below or 1)


def numbered(count: int, one: str) -> str:
    """So many of something.

    >>> numbered(1, "piece"), numbered(8, "piece")
    ('1 piece', '8 pieces')
    """
    return f"{count} {one}{'' if count == 1 else 's'}"


def figures(text: str) -> str:
    """The text with every spoken number as a figure; what is no number stays as it is written."""
    words, spans = _words(text), [m for m in _TOKEN.finditer(text) if not m[0].isspace()]
    out, at, last = [], 0, 0
    while at < len(words):
        found = _number(words, at)
        plain = found is not None and found[1] == at + 1 and re.fullmatch(r"\d+(?:/\d+)?", words[at])
        if found is None or plain or (words[at].lower() in ("a", "an") and found[1] == at + 1):
            at += 1
            continue
        value, end = found
        out.append(text[last : spans[at].start()] + _figure(value))
        last = spans[end - 1].end()
        at = end
    done = "".join(out) + text[last:]
    joined = _AND_PART.sub(lambda m: f"{_figure(_one(m[1]) + _one(m[3]))} {m[2]}", done)
    return re.sub(rf"^an? (?={UNITS_AND}\b)", "1 ", joined, flags=re.IGNORECASE)


_HOURS = {"h": 1.0, "hr": 1.0, "hrs": 1.0, "hour": 1.0, "hours": 1.0, "min": 1 / 60, "mins": 1 / 60, "m": 1 / 60}
_HOURS |= {"minute": 1 / 60, "minutes": 1 / 60, "day": 24.0, "days": 24.0, "night": 14.0, "nights": 24.0}
_LENGTH = r"(\d+(?:\.\d+)?) ?(hours?|hrs?|h|minutes?|mins?|m|days?|nights?)?"
NAMED_H = {"overnight": (8.0, 14.0), "over night": (8.0, 14.0), "1 night": (8.0, 14.0), "2 nights": (32.0, 40.0)}
NAMED_H |= {
    "night before": (8.0, 14.0),
    "evening before": (10.0, 16.0),
    "all night": (8.0, 14.0),
    "through the night": (8.0, 14.0),
}
NONE = (
    "skip",
    "none",
    "no",
    "no rest",
    "no rise",
    "no wait",
    "no proof",
    "no waiting",
    "not at all",
    "straight away",
    "at once",
    "right away",
    "0",
    "0 h",
    "0 min",
)
FROM_COLD = re.compile(  # the stage ends as the dough comes out of the cold
    r"(?:until |when |as )?(?:it comes |they come |straight |cold )?(?:out|from|out of)(?: of)? "
    r"(?:the )?(?:fridge|cold|cellar)"
)
_TAIL = re.compile(
    r"\b(out|in the fridge|on the (?:bench|counter)|in the cold|at room temp(?:erature)?|more or less|or so|about|for|"
    r"some|around|covered|approx(?:imately)?|roughly|circa|another|a good|just (?:over|under)|"
    r"nearly)\b\.?|[;~]|,(?!\d)"
)


LEAST_GROWN, MOST_GROWN = 1.05, 4.0  # times its size that a dough is left to rise
_GROWN = (
    (3.0, r"tripled?|triples"),
    (2.0, r"doubled?|doubles|twice (?:its|the|their) (?:\w+ )?size|by 100 ?%"),
    (1.5, r"half again|by (?:a )?half|(?:1 and a|one and a) half times|one[- ]and[- ]a[- ]half times"),
    (4 / 3, r"by (?:a|one) third"),
    (1.25, r"by (?:a|one) quarter"),
)
_FIGURE = r"(\d(?:\.\d+)?)"
_TIMES = re.compile(
    rf"{_FIGURE} ?(?:x|times) (?:its|the|their)(?: \w+)? (?:size|volume)|^x ?{_FIGURE}$|^{_FIGURE} ?(?:x|times)$"
)
_PER_CENT = re.compile(
    r"(?:\bby |\bup |\+ ?)(\d{1,3}) ?(?:%|per ?cent\b)|^(\d{1,3}) ?(?:%|per ?cent)$|"
    r"(\d{1,3}) ?(?:%|per ?cent) (?:bigger|larger|growth|increase|more volume)\b"
)


def grown(text: str) -> float | None:
    """Times its size that a dough grows to, as it is spoken; None where it is not said.

    >>> grown("until doubled in size"), grown("risen by half"), grown("x2.5"), grown("50 %"), grown("until puffy")
    (2.0, 1.5, 2.5, 1.5, None)
    >>> grown("rise 2 h with 3 x 10 s of folds at 75 % humidity")
    """
    plain = text.strip().lower().replace("×", "x")
    named = next((times for times, words in _GROWN if re.search(rf"\b(?:{words})\b", plain)), None)
    counted, share = _TIMES.search(plain), _PER_CENT.search(plain)
    if named is None and counted:
        return float(next(n for n in counted.groups() if n))
    return named if named or not share else 1 + int(next(n for n in share.groups() if n)) / 100


def span_h(text: str) -> tuple[float, float] | None:
    """Hours (least, most) of a stretch of time as it is spoken; (0, 0) for none at all, None when it cannot be read.

    >>> span_h("half an hour"), span_h("16 to 24 h"), span_h("an hour and a half")
    ((0.5, 0.5), (16.0, 24.0), (1.5, 1.5))
    >>> span_h("4 h out"), span_h("1 h 30"), span_h("two nights"), span_h("until it is ripe")
    ((4.0, 4.0), (1.5, 1.5), (32.0, 40.0), None)
    >>> span_h("1½ hours"), span_h("1:30"), span_h("30 minutes to an hour, covered")
    ((1.5, 1.5), (1.5, 1.5), (0.5, 1.0))
    >>> span_h("straight away"), span_h("straight from the fridge"), span_h("when it comes out of the cold")
    ((0.0, 0.0), (0.0, 0.0), (0.0, 0.0))
    """
    plain = unicodedata.normalize("NFKC", re.sub(r"(?<=\d)(?=[¼-¾⅐-⅞])", " ", text.strip().lower())).replace("⁄", "/")
    plain = re.sub(r"(?<=\d),(?=\d)|(?<![\d.])(?=\.\d)", lambda m: "." if m[0] else "0", plain)
    plain = re.sub(r"(?<=\d)-(?=\d/\d)|(?<=\d) ?& ?(?=\d/\d)", " ", plain)
    plain = re.sub(r"^(\d/\d) (?=h)", lambda m: f"{int(m[1][0]) / int(m[1][2])} " if m[1][2] != "0" else m[0], plain)
    plain = re.sub(r"(?<=to )an? (?=hour|day|night|min)", "1 ", plain.replace("–", "-"))
    said = " ".join(_TAIL.sub(" ", figures(plain)).split())
    if said in NONE or text.strip().lower() in NONE or FROM_COLD.fullmatch(text.strip().lower()):
        return 0.0, 0.0
    if said in NAMED_H:
        return NAMED_H[said]
    said = re.sub(r"^(?:between|from) (.+) and (?=\d)", r"\1 to ", said)
    both = re.fullmatch(rf"(?:from )?{_LENGTH} ?(?:-|to|or) ?{_LENGTH}", said)
    if both:
        unit = both[4] or both[2]
        if unit is None:
            return None
        low, high = float(both[1]) * _HOURS[both[2] or unit], float(both[3]) * _HOURS[unit]
        return (low, high) if low <= high else None
    clock = re.fullmatch(r"(\d{1,2}):([0-5]\d)(?: ?h)?", said)
    if clock:
        hours = int(clock[1]) + int(clock[2]) / 60
        return hours, hours
    whole = re.fullmatch(r"(\d+(?:\.\d+)?) ?(?:h|hours?|hrs?)(?: ?(?:and )?(\d+) ?(?:m|mins?|minutes?)?)?", said)
    if whole:
        hours = float(whole[1]) + int(whole[2] or 0) / 60
        return hours, hours
    one = re.fullmatch(_LENGTH, said)
    if one and one[2]:
        hours = float(one[1]) * _HOURS[one[2]]
        return hours, hours
    return None
