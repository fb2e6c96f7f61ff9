"""Facts in the steps of a recipe: how many pieces, how they are rolled, how long it is kneaded, rises, rests and stays
cold, and what it is baked on.

A fact is taken where a step says it in figures, or says `doubled` or `overnight`; the rest of a step is no fact.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from brassclock.core.spoken import ONES, TENS, figures, span_h

_FIG = r"(?:\d+\s+\d/\d|\d/\d|\d+(?:[.,]\d+)?\s?[½¼¾⅓⅔]?|[½¼¾⅓⅔])"
_TO = r"\s*(?:-|–|to|or)\s*"
_HOURS = r"(?:hours?|hrs?|h|minutes?|mins?|min|days?|nights?)\b\.?"
_WORD = "|".join([*ONES, *TENS])
_TIME = re.compile(
    rf"\b(?:overnight|(?:half an|an|one) hour(?:{_TO}(?:{_FIG}|two|three) hours)?(?: and a half)?|"
    rf"(?:{_FIG}\s*(?:{_HOURS})?{_TO})?{_FIG}(?:\s|-)?{_HOURS}"
    rf"(?:\s*(?:and )?(?:a half\b|\d+(?:\s*m(?:in\w*)?\b)?(?!\s*{_HOURS})))?|"
    rf"(?:{_WORD})\s+{_HOURS})",
    re.IGNORECASE,
)
_COLD = re.compile(
    r"\b(?:fridge|refrigerat\w*|chill\w*|cold[- ](?:ferment|prove|proof|rise|retard)\w*|retard\w*)\b", re.I
)
_OUT = re.compile(
    r"\b(?:out of the fridge|from the fridge|take (?:it |them |the \w+ )?out|room temp\w*|come to)\b", re.I
)
_GROWS = re.compile(
    r"\b(?:ris(?:e|es|ing|en)|prov(?:e|es|ing)|proof\w*|ferment\w*|bulk\w*|doubl\w+|twice its size|triple\w*|puffy)\b",
    re.I,
)
_WAITS = re.compile(r"\b(?:rests?|resting|relax\w*|leave|left|stand|sit|set aside|covered?)\b", re.I)
_WORKS = re.compile(r"\bknead|mixer|dough hook|\bprocess|work the", re.I)
_RUNS = re.compile(r"\b(?:mix|run|work|beat)\b", re.I)  # of a machine
_FEW_MIN = re.compile(r"\b(?:a minute or (?:two|2)|for a (?:few|couple of) minutes)", re.I)
_WITH = {
    "processor": r"food processor|\bprocess\b",
    "spiral": r"\bspiral\b",
    "planetary": r"stand mixer|dough hook|\bmixer\b|by machine|\bmachine\b",
    "no_knead": r"no[- ]knead|(?:do not|don't|without) knead(?:ing)?",
}
_PIECES = (
    r"(?:equal|even|equal-sized|small|large|smooth|dough)?\s*"
    r"(?:pieces?|balls?|portions?|parts?|rounds?|breads?|flatbreads?|lumps?|discs?|naans?|pitas?|pittas?|kulchas?|rotis?|"
    r"circles?|ovals?|pockets?)\b"
)
_DIVIDES = re.compile(
    rf"\b(?:divide|cut|split|portion|shape|form|make|scale|ball|pinch|tear|turn)\w*\b[^.]*?\b(\d{{1,3}})(?:{_TO}(\d{{1,3}}))?\s+"
    rf"{_PIECES}|\b(?:divide|split|portion|cut)\w*\b[^.]*?\b(?:into|in)\s+(\d{{1,3}})\b(?!\s*(?:g|mm|cm|in|min\w*|h\w*)\b)",
    re.IGNORECASE,
)
_BALLS = re.compile(r"\b(?:divide|portion|scale|ball|split|shape|form|cut)\w*\b", re.I)
_MAKES = re.compile(
    rf"\bfor\s+(\d{{1,3}})\s+{_PIECES}|"
    rf"(?:makes|yields?|quantity)\s*:?\s*(?:about |approx\.? |around )?(\d{{1,3}})(?:{_TO}(\d{{1,3}}))?"
    rf"(?!\s*(?:g|kg|%))|"
    rf"\((?:makes )?(\d{{1,3}})\s+{_PIECES}\)",
    re.IGNORECASE,
)
_EACH_G = re.compile(
    r"(?:[x×]\s*|balls? (?:of|at) (?:about )?|pieces? (?:of|at) (?:about )?|\bat |weighing (?:about )?|about )?"
    r"\b(\d{2,4})\s*(?:-|–|to)?\s*(\d{2,4})?\s*(?:g|grams?)\b(?:\s*(?:each|apiece|balls?|pieces?|portions?))?",
    re.IGNORECASE,
)
_QUARTERS = re.compile(r"\bcut\w*\b.*\b(?:into )?(quarters|halves|half|farls)\b", re.I)
_FILLS = re.compile(r"(?:fill|stuff)\b", re.I)
_SAYS_EACH = re.compile(
    r"(?:scale|divide|portion|weigh|cut)\w*(?: (?:it|them|the dough))?(?: into| at| off| out| to)?(?: about)? \d+ ?g|"
    r"\b(?:at|of) (?:about |around )?\d+ ?g|"
    r"[x×]\s*\d|balls? (?:of|at)|pieces? (?:of|at)|\beach\b|apiece|g balls?|g pieces?|g portions?|ball at",
    re.I,
)
_ROLLS = re.compile(r"\b(?:roll\w*|sheet\w*|press\w*|pat\w*|flatten\w*|stretch\w*|shape\w*|thick\w*|spread\w*)\b", re.I)
_LONG = re.compile(rf"({_FIG})(?:{_TO}({_FIG}))?\s*-?\s*(mm|cm|inch(?:es)?|in\b|[\"”″])(?!\s*long)", re.IGNORECASE)
_OVAL = re.compile(r"(\d{1,3})\s*(?:cm)?\s*(?:[x×]|by)\s*(\d{1,3})\s*cm\b", re.IGNORECASE)
_TOTAL = re.compile(r"total (?:dough )?(?:weight)?\s*[:=]?\s*(\d[\d,.]*)\s*(kg|g)\b", re.IGNORECASE)
_RISES = re.compile(r"\s*(?:ris|prov|proof|rest)\w*(?: time)?\s*:", re.I)
_MM = {"mm": 1.0, "cm": 10.0}
INCH_MM = 25.4
THICKEST_MM, WIDEST_CM = 30.0, 60.0
_DEGREES = re.compile(r"(\d{2,3})\s*(?:°|º|degrees?)?\s*(c|f|celsius|fahrenheit)\b", re.IGNORECASE)
_GAS = re.compile(r"\bgas (?:mark )?(\d)\b", re.I)
GAS_C = {n: round((n * 25 + 250 - 32) / 1.8, -1) for n in range(1, 10)}  # practice: a mark is 25 F from 275 on
_ON = (  # what a bread is baked on, by the words for it; the first that is there
    ("oil", r"deep[- ]fr\w+"),
    ("clay_wall", r"tandoor|tandoori|clay oven"),
    ("inverted_plate", r"\bsaj\b|(?:inverted|upturned|upside[- ]down) \w+"),
    ("flame_oven", r"wood[- ]fired|flame oven"),
    ("stone_oven", r"(?:baking|oven|pizza|hot) stone|\bstone\b"),
    ("steel_oven", r"(?:baking|oven|pizza) steel|\bsteel\b(?! bowl)"),
    ("iron_plate", r"\bta[wv]ah?\b|griddle|plancha|flat ?top|comal"),
    ("skillet", r"skillet|frying[- ]pan|fry(?:ing)? pan|cast[- ]iron|\b(?:dry|hot|heavy|non-?stick|heavy-based) pan\b"),
    ("oven_tray", r"baking (?:sheet|tray)|sheet pan|oven tray"),
)
_HEATS = re.compile(
    r"\b(?:bak\w+|cook\w*|fry|fried|grill\w*|oven|griddle|skillet|pan|ta[wv]ah?|stone|steel|deck|tandoor\w*|preheat\w*)\b",
    re.I,
)
COLDEST_OVEN_C, HOTTEST_C = 120.0, 550.0
_RATIOS = ((3.0, r"tripl\w*"), (2.0, r"doubl\w*|twice (?:its|the|their) size"), (1.5, r"half again|by half"))
_SENTENCE = re.compile(r"(?<!\d)\.\s+|\.\s+(?=[A-Z])")
_CLAUSE = re.compile(
    r"(?:[;!]|(?<!\d)\.(?=\s|$)|\.(?=\s+[A-Z])|,?\s+(?:and )?then\b|,(?!\s*(?:or|until|till|about|covered|at|not)\b)|"
    r"\s+and\s+(?=(?:leave|rest|let|roll|cook|bake|fry|prove|proof|place|put|refrigerate|chill|knead|divide|shape|stretch)\b))\s*"
)
LONGEST_CLAUSE = 400  # letters; a longer one is no step
FOUND_H = (1 / 60, 96.0)
WAITS = ("sponge_h", "bulk_h", "ball_h", "bulk_out_h", "ball_out_h")
_SPONGE = re.compile(r"\b(?:poolish|biga|sponge|pre-?ferment|levain)\b", re.I)


@dataclass(frozen=True)
class Fact:
    """A fact of a step: its key, its value (a number with the unit of its key, or a word), the words it stands in, and
    another value where the step gives a range."""

    key: str
    value: float | str
    words: str
    high: float | None = None


def _span(key: str, hours: tuple[float, float], words: str) -> Fact:
    """A stretch of time [h], its most where that is another."""
    return Fact(key, hours[0], words, hours[1] if hours[1] > hours[0] else None)


def _number(text: str) -> float:
    """A number with its fraction in figures."""
    found = 0.0
    for part in re.findall(r"\d/\d|\d+(?:[.,]\d+)?|[½¼¾⅓⅔]", text):
        if "/" in part:
            found += int(part[0]) / max(int(part[2]), 1)
        else:
            found += {"½": 0.5, "¼": 0.25, "¾": 0.75, "⅓": 1 / 3, "⅔": 2 / 3}.get(part) or float(part.replace(",", "."))
    return found


def _hours(clause: str) -> tuple[float, float] | None:
    """The longest stretch of time in a clause [h], least and most; one in figures before one in words (overnight)."""
    told = [m[0].rstrip(".") for m in _TIME.finditer(clause)]
    spans = [span_h(t) for t in [t for t in told if re.search(r"\d", t)] or told]
    known = [s for s in spans if s is not None and FOUND_H[0] <= s[1] <= FOUND_H[1]]
    return max(known, key=lambda s: s[1], default=None)


def _lengths_mm(clause: str) -> Iterator[tuple[float, float]]:
    """Every length in a clause [mm], least and most."""
    for low, high, unit in _LONG.findall(clause):
        size = _MM.get(unit.lower(), INCH_MM)
        ends = [_number(x) * size for x in (low, high) if x]
        yield min(ends), max(ends)


def oven_c(clause: str) -> float | None:
    """The heat of an oven in a clause [C]; the first that is one, so a fan's comes after the oven's own."""
    for degrees, unit in _DEGREES.findall(clause):
        said_c = (float(degrees) - 32) / 1.8 if unit.lower().startswith("f") else float(degrees)
        if COLDEST_OVEN_C <= said_c <= HOTTEST_C:
            return float(round(said_c / 5) * 5)
    gas = _GAS.search(clause)
    return GAS_C.get(int(gas[1])) if gas else None


def baked_on(clause: str) -> str | None:
    """The kind of surface that a clause names; None where it names none."""
    return next((kind for kind, words in _ON if re.search(words, clause, re.I)), None)


def makes(text: str) -> Fact | None:
    """Number of breads that a line of what it makes, or a name, says: `Makes 8`, `Naan (6 pieces)`."""
    found = _MAKES.search(text)
    if found is None:
        return None
    count = int(found[1] or found[2] or found[4])
    return Fact("pieces", float(count), text.strip(), float(found[3]) if found[3] else None) if count else None


def facts(steps: Sequence[str], about: Sequence[str] = ()) -> list[Fact]:
    """Facts of a recipe, each key once, in the order of the work; `about` is what it says of itself beside its steps.

    Keys: `pieces`, `piece_g`, `filling_g` (in one), `knead_min`, `knead_by`, `sponge_h`, `bulk_h`, `bulk_x`, `ball_h`,
    `ball_x` (times the size), `cold_h` (`cold_of` the bulk or the balls; `cold_again`), `bulk_out_h`, `ball_out_h`
    (after the cold), `thickness_mm`, `diameter_cm` (or `length_cm`, `width_cm`), `baked_on`, `oven_c`.

    >>> [(f.key, f.value) for f in facts(["Rise 1 hour. Divide into 8 balls, rest 20 min, then roll to 5 mm."])]
    [('bulk_h', 1.0), ('pieces', 8.0), ('ball_h', 0.3333333333333333), ('thickness_mm', 5.0)]
    """
    found: dict[str, Fact] = {}

    def take(*told: Fact) -> None:
        for fact in told:
            found.setdefault(fact.key, fact)

    stage = "bulk"
    for sentence in (x for step in steps for x in _SENTENCE.split(step)):
        of_sponge = bool(_SPONGE.search(sentence))
        for raw in _CLAUSE.split(sentence):
            clause = figures(raw.strip()) if raw else ""
            if not 0 < len(clause) <= LONGEST_CLAUSE:
                continue
            of = "sponge" if of_sponge and stage == "bulk" and not found.keys() & {"bulk_h", "bulk_x"} else stage
            said = [replace(f, words=raw.strip()) for f in _clause_facts(clause, raw, of, found)]
            for fact in said:
                held = found.get(fact.key)
                if held is not None and fact.key in WAITS and _outweighs(fact, held):
                    del found[fact.key]
                elif held is not None and fact.key == "cold_h":
                    take(replace(fact, key="cold_again"))
            take(*said)
            if (stage == "bulk" and any(f.key in ("pieces", "piece_g") for f in said)) or (
                stage == "bulk" and re.match(r"(?:divide|portion|ball|scale|shape into)\b", clause, re.I)
            ):
                stage = "ball"
            elif _ROLLS.match(clause) and not _BALLS.match(clause) and not re.search(r"\bballs?\b", clause, re.I):
                stage = "rolled"
    for line in about:
        made = makes(line)
        if made is not None:
            take(made, *_each_g(line))
        if re.match(r"bak(?:e|ing)\b|cook", line, re.I):
            take(*_heat_facts(line))
        for part in line.split("|"):
            hours = _hours(figures(part)) if _RISES.match(part) and not found.keys() & {"bulk_h", "bulk_x"} else None
            if hours is not None:
                take(_span("bulk_h", hours, part.strip()))
    return list(found.values())


def dough_told_g(found: Sequence[Fact], about: Sequence[str]) -> float | None:
    """The weight of all the dough [g] that a recipe says: by a line of its own, or as so many pieces of so much."""
    for line in about:
        said = _TOTAL.search(line)
        if said:
            return float(said[1].replace(",", "")) * (1000 if said[2].lower() == "kg" else 1)
    known = {f.key: f.value for f in found}
    if "pieces" in known and "piece_g" in known:
        return float(known["pieces"]) * float(known["piece_g"])
    return None


def _outweighs(fact: Fact, held: Fact) -> bool:
    """True if a wait is the stage's rise and the one that is held is a shorter rest."""
    return bool(_GROWS.search(fact.words)) >= bool(_GROWS.search(held.words)) and float(fact.value) > float(held.value)


def _heat_facts(clause: str) -> Iterator[Fact]:
    """Surface of the breads, and heat of its oven, where a clause says them."""
    kind, heat_c = baked_on(clause), oven_c(clause)
    if kind is not None:
        yield Fact("baked_on", kind, clause)
    if heat_c is not None:
        yield Fact("oven_c", heat_c, clause)


def _each_g(clause: str) -> list[Fact]:
    """The weight of one piece [g] where a clause says it."""
    if not _SAYS_EACH.search(clause):
        return []
    found = _EACH_G.search(clause)
    if found is None:
        return []
    low, high = float(found[1]), float(found[2] or found[1])
    return [Fact("piece_g", low, clause, high if high > low else None)]


def _waits_there(clause: str) -> bool:
    """True if a dough rises or rests in a clause, and no oven is waited for."""
    return bool(_GROWS.search(clause) or (_WAITS.search(clause) and not _HEATS.search(clause)))


def _clause_facts(clause: str, raw: str, stage: str, before: Mapping[str, Fact]) -> Iterator[Fact]:
    """Facts of one clause, in figures and as it is written, in a stage of the work: `sponge`, `bulk`, `ball` or
    `rolled`."""
    quarters = _QUARTERS.search(raw)
    divides = None if quarters else _DIVIDES.search(clause)
    if quarters:
        yield Fact("pieces", 2.0 if quarters[1].lower().startswith("hal") else 4.0, clause)
    if divides and int(divides[1] or divides[3]) > 0:
        yield Fact("pieces", float(divides[1] or divides[3]), clause, float(divides[2]) if divides[2] else None)
    if divides or _BALLS.search(clause) or re.search(r"\beach\b|\bapiece\b", clause, re.I):
        each = list(_each_g(clause))
        yield from ([replace(f, key="filling_g") for f in each] if _FILLS.match(clause) else each)
    hours = _hours(clause)
    by = next((way for way, words in _WITH.items() if re.search(words, clause, re.I)), None)
    if by is not None:
        yield Fact("knead_by", by, clause)
    machine = by or ("knead_by" in before and before["knead_by"].value != "no_knead")
    works = _WORKS.search(clause) or (machine and _RUNS.search(clause))
    if works and not _GROWS.search(clause) and not divides and stage != "rolled":
        if hours is None and _FEW_MIN.search(raw):
            yield Fact("knead_min", 2.0, clause)
        if hours is not None and hours[1] <= 1:
            yield Fact("knead_min", 30 * (hours[0] + hours[1]), clause)
            hours = None
    chilled = "cold_of" in before and before["cold_of"].value == stage
    if chilled and hours is not None and (_OUT.search(clause) or (_waits_there(clause) and not _COLD.search(clause))):
        yield _span(f"{stage}_out_h", hours, clause)
    elif _COLD.search(clause) and hours is not None and not _OUT.search(clause) and stage != "sponge":
        yield _span("cold_h", hours, clause)
        yield Fact("cold_of", stage if stage == "bulk" else "ball", clause)
    elif stage != "rolled" and _waits_there(clause):
        ratio = None if stage == "sponge" else next((x for x, words in _RATIOS if re.search(words, raw, re.I)), None)
        if ratio is not None:
            yield Fact(f"{stage}_x", ratio, clause)
        if hours is not None:
            yield _span(f"{stage}_h", hours, clause)
    oval = _OVAL.search(clause)
    if oval:
        yield Fact("length_cm", float(max(oval[1], oval[2], key=int)), clause)
        yield Fact("width_cm", float(min(oval[1], oval[2], key=int)), clause)
    elif _ROLLS.search(clause):
        for low, high in _lengths_mm(clause):
            if high <= THICKEST_MM:
                yield Fact("thickness_mm", round(low, 1), clause, round(high, 1) if high > low else None)
            elif high / 10 <= WIDEST_CM:
                yield Fact("diameter_cm", round(low / 10, 1), clause, round(high / 10, 1) if high > low else None)
    if _HEATS.search(clause):
        yield from _heat_facts(clause)
