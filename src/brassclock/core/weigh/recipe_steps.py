"""Facts in the steps of a recipe: how many pieces, how they are rolled, how long it is kneaded, rises, rests and stays
cold, and what it is baked on.

A fact is taken where a step says it in figures, or says `doubled` or `overnight`; the rest of a step is no fact.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from brassclock.core.spoken import figures, grown
from brassclock.core.weigh.recipe_clauses import clauses, sentences
from brassclock.core.weigh.recipe_words import (
    SPONGE,
    Span,
    baked_on,
    colour_of,
    cool,
    days_cold,
    dough_c,
    each_g,
    filling_g,
    heat_elsewhere,
    hours_in,
    kneaded_by,
    lengths_mm,
    minutes_in,
    oval_cm,
    oven_c,
    pieces_in,
    pieces_made,
    place_of,
    quartered,
    stood_c,
    tin_said,
    total_g,
    under_grill,
)

_COLD = re.compile(
    r"\b(?:CT|fridge|refrigerat\w*|chill\w*|cold[- ](?:ferment|prove|proof|rise|retard)\w*|retard\w*)\b", re.I
)
_OUT = re.compile(
    r"\b(?:out (?:for )?\d|temper\w*|out of the fridge|"
    r"from the fridge|take (?:it |them |the \w+ )?out|room temp\w*|come to)\b",
    re.I,
)
_GROWS = re.compile(
    r"\b(?:RT|ris(?:e|es|ing|en)|prov(?:e|es|ing)|proof\w*|ferment\w*|bulk\w*|doubl\w+|twice its size|"
    r"triple\w*|puffy|floor time|BF|IP|"
    r"dough (?:cycle|setting|program\w*))\b",
    re.I,
)
_WAITS = re.compile(
    r"\b(?:rests?|resting|relax\w*|leave|left|stand|sit|set aside|wait|cover(?:ed)?|room temp\w*|ambient|"
    r"on the (?:counter|bench|side)|folds? (?:\d times )?over|\d ?h(?:rs?|ours?)? out|"
    r"keep(?! (?:it |them |the \w+ )?(?:warm|hot)))\b",
    re.I,
)
_WORKS = re.compile(r"\bmixing(?: time)?:|\bknead|mixer|dough hook|\bprocess|work the", re.I)
_RUNS = re.compile(
    r"\b(?:1st|2nd|on second|gear|mix|run|work|beat|slow|fast|speed|low|medium|high)\b", re.I
)  # of a machine
_AGAIN = re.compile(r"\b(?:again|once more|second (?:rise|time|prove|proof)|a further|another)\b", re.I)
_GOES_ON = re.compile(r"\b(?:again|more|another|further|fast|high|medium|speed|second|2nd)\b", re.I)
_FROTHS = re.compile(
    r"\b(?:froth\w*|foam\w*|activat\w*|bloom\w*|pro(?:of|ve) (?:the|your) yeast)\b", re.I
)  # no dough yet
_LEFT_OVER = re.compile(r"\b(?:left ?overs?|cooked|baked|stored?|keeps)\b", re.I)  # in the fridge, after the work
_FEW_MIN = re.compile(r"\b(?:a minute or (?:two|2)|for a (?:few|couple of) minutes)", re.I)
_BALLS = re.compile(r"\b(?:scaling|pre-?shape|divide|portion|scale|ball|split|shape|form|cut)\w*\b", re.I)
_PARTS = re.compile(r"(?:scaling|pre-?shape|divide|portion|ball|scale|shape into)\b", re.I)
_FILLS = re.compile(r"(?:fill|stuff|spread|spoon|top|scatter|sprinkle|brush)\b", re.I)
_ROLLS = re.compile(
    r"\b(?:pin out|open(?:ed)? (?:up |out )?to|"
    r"thin\w*|roll\w*|sheet\w*|press\w*|pat\w*|flatten\w*|stretch\w*|slap\w*|shape\w*|thick\w*|spread\w*)\b",
    re.I,
)
_HIGH = re.compile(r"\d\s*(?:cm|mm|in\w*|[\"”″])\s*-?(?:deep|high|tall|thick)\b", re.I)
_DOCKS = re.compile(r"\b(?:dock|prick)\b(?!.*\bbubbl)", re.I)
_ONE_ROUND = re.compile(
    r"\b(?:shape|form|pat|turn)\b(?: it| the dough)? (?:in)?to (?:a|one) (?:\w+ )?"
    r"(?:round|cake|loaf|disc|circle|ball)\b",
    re.I,
)
_SIZED = re.compile(r"\b(?:across|wide|diameter|circles?|rounds?|discs?)\b", re.I)
_NO_SIZE = re.compile(
    r"\b(?:border|apart|gap|rim|from the (?:top|heat|grill|edge|element|coals)|below|above|groove\w*)\b", re.I
)  # lengths of something else
_RISES = re.compile(r"\s*(?:ris|prov|proof|rest)\w*(?: time)?\s*:", re.I)
THICKEST_MM, WIDEST_CM = 30.0, 60.0  # a length below is a thickness, one above no bread
_HEATS = re.compile(
    r"\b(?:bak\w+|cook\w*|fry|fried|grill\w*|oven|griddle|skillet|pan|ta[wv]ah?|stone|steel|deck|cast[- ]iron|"
    r"tandoor\w*|comal|plancha|preheat\w*)\b",
    re.I,
)
_SEALS = re.compile(
    r"\b(?:seal|gather|enclose|pinch(?:ed)? (?:it |them |the \w+ )?(?:shut|closed|together))\w*\b", re.I
)
_TILL = re.compile(r"\b(?:till|until|to the next|next) (?:the )?(?:morning|evening|day|needed|ready)\b", re.I)
_LID = re.compile(r"\b(?:with (?:a|the|its)|under a|put on (?:a|the)) lid\b|\blid on\b", re.I)
_TIN = re.compile(r"\b(?:tray|tin|sheet|pan|dish)\b", re.I)
FEW_MIN, MOST_KNEADING_H = 2.0, 1.0
PROOF_H = 0.25  # of what is rolled: a shorter wait only relaxes it
LONGEST_CLAUSE = 400  # letters; a longer one is no step
SIZES = ("diameter_cm", "thickness_mm")
WAITS = ("sponge_h", "bulk_h", "ball_h", "bulk_out_h", "ball_out_h")
_MAKES_SPONGE = re.compile(
    rf"\s*(?:[^:.]{{1,30}}:\s*)?(?:(?:make|mix|prepare|start|build|feed|for|whisk)\b[^,:]*)?\b{SPONGE}\b", re.I
)
_DOUGH_AGAIN = re.compile(r"\b(?:knead|bulk|dough|fold|mix (?:it )?all|the rest|remaining)", re.I)
_SPONGE = re.compile(rf"\b{SPONGE}\b", re.I)


@dataclass(frozen=True)
class Fact:
    """A fact of a step: its key, its value (a number with the unit of its key, or a word), the words it stands in, and
    its most where the step gives a range."""

    key: str
    value: float | str
    words: str
    high: float | None = None

    @property
    def mid(self) -> float:
        """The middle of its range."""
        return float(self.value) if self.high is None else (float(self.value) + self.high) / 2


def _first_way(clause: str) -> tuple[str, str]:
    """(the clause, the other way that it offers) where it gives a time here or one in the cold, one by hand or one by a
    machine: the first is taken."""
    first, _, other = clause.partition(" or ")
    colder = _COLD.search(other) and not _COLD.search(first)
    apart = (colder or (_WORKS.search(first) and kneaded_by(other))) and hours_in(first) and hours_in(other)
    return (first.rstrip(" ,"), other) if apart else (clause, "")


def _fact(key: str, span: Span, words: str) -> Fact:
    return Fact(key, span[0], words, span[1] if span[1] > span[0] else None)


def facts(steps: Sequence[str], about: Sequence[str] = ()) -> list[Fact]:
    """Facts of a recipe, each key once, in the order of the work; `about` is what it says of itself beside its steps.

    Keys: `pieces`, `piece_g`, `filling_g` (in one), `knead_min`, `knead_by`, `dough_c`, `sponge_h`, `bulk_h`,
    `bulk_x`, `bulk_again` (once it had its size), `ball_h`, `ball_x` (times the size), `shaped_h` (a rise of what
    is rolled), `cold_h` (`cold_of` the bulk or the balls; `cold_again`), `cold_till` (in words), `cold_days` (up to
    so many), `bulk_out_h`, `ball_out_h` (after the cold), `bulk_place`, `ball_place`, `bulk_c`, `ball_c`,
    `sponge_c` (told for), `other_way` (of a wait, in words), `thickness_mm`, `diameter_cm` (or `length_cm`,
    `width_cm`), `tin` (its sizes, in words), `quarters`, `docked`, `baked_on`, `heat_elsewhere` (in words),
    `oven_c`, `colour` (of a baked bread, where that is not golden).

    >>> [(f.key, f.value) for f in facts(["Rise 1 hour. Divide into 8 balls, rest 20 min, then roll to 5 mm."])]
    [('bulk_h', 1.0), ('pieces', 8.0), ('ball_h', 0.3333333333333333), ('thickness_mm', 5.0)]
    """
    reader = _Reader()
    for step in steps:
        reader.step(step)
    for line in about:
        reader.about(line)
    one = reader.found.pop("one_piece", None)
    if one is not None and not reader.found.keys() & {"pieces", "piece_g"}:
        reader.found["pieces"] = replace(one, key="pieces")
    return list(reader.found.values())


def dough_told_g(found: Sequence[Fact], about: Sequence[str]) -> float | None:
    """The weight of all the dough [g] that a recipe says: by a line of its own, or as so many pieces of so much."""
    told = next((g for g in map(total_g, about) if g is not None), None)
    known = {f.key: f.value for f in found}
    if told is None and "pieces" in known and "piece_g" in known:
        return float(known["pieces"]) * float(known["piece_g"])
    return told


class _Reader:
    """Clauses read one after the other, with the stage of the work: `bulk` until the dough is divided, `ball` until
    a piece is rolled, then `rolled`."""

    def __init__(self) -> None:
        self.found: dict[str, Fact] = {}
        self.stage = "bulk"
        self.rested = False  # since it was last kneaded
        self.baked = False

    def step(self, step: str) -> None:
        """Read the sentences of a step; from one that names a sponge on they are about that, until it is kneaded."""
        making = False
        for sentence in sentences(step):
            making = (making and not _DOUGH_AGAIN.search(sentence)) or _MAKES_SPONGE.match(sentence) is not None
            self._sentence(sentence, making or _SPONGE.search(sentence) is not None)

    def _sentence(self, sentence: str, of_sponge: bool) -> None:
        """Read the clauses of a sentence, until the dough rises as those of a sponge where they are."""
        for raw in clauses(sentence):
            clause = figures(raw.strip())
            if 0 < len(clause) <= LONGEST_CLAUSE:
                risen = self.found.keys() & {"bulk_h", "bulk_x"}
                stage = "sponge" if of_sponge and self.stage == "bulk" and not risen else self.stage
                self._clause(clause, raw, stage)

    def about(self, line: str) -> None:
        """Read a line of what a recipe says of itself: what it makes, how long it rises, how it is baked."""
        made = pieces_made(line)
        if made is not None:
            self._take(_fact("pieces", made, line.strip()), *self._each(line))
        if re.match(r"bak(?:e|ing)\b|cook", line, re.I):
            self._take(*self._heat(line))
        elif (kind := baked_on(line)) is not None:
            self._take(Fact("baked_on", kind, line.strip()))
        for part in line.split("|"):
            hours = hours_in(figures(part)) if _RISES.match(part) else None
            if hours is not None and not self.found.keys() & {"bulk_h", "bulk_x"}:
                self._take(_fact("bulk_h", hours, part.strip()))

    def _take(self, *told: Fact) -> None:
        """Keep facts that are new; a rise stands before a shorter rest."""
        for fact in told:
            held = self.found.get(fact.key)
            if held is not None and fact.key == "bulk_h" and _AGAIN.search(fact.words) and _GROWS.search(fact.words):
                self._rises_again(fact, held)
                continue
            again = fact.key in SIZES and not self.baked  # rolled again, as what is filled or coiled is
            if held is not None and (again or (fact.key in WAITS and _outweighs(fact, held))):
                del self.found[fact.key]
            elif held is not None and fact.key == "cold_h":
                fact = replace(fact, key="cold_again")
            elif held is not None and fact.key == "knead_min" and (self.rested or _GOES_ON.search(fact.words)):
                both = f"{held.words}, {fact.words}"
                self.found["knead_min"] = replace(held, value=float(held.value) + float(fact.value), words=both)
            self.found.setdefault(fact.key, fact)

    def _rises_again(self, fact: Fact, held: Fact) -> None:
        """Add a rise after the dough was knocked back: to its hours, or beside a size that it is to reach."""
        if "bulk_x" in self.found:
            self.found.setdefault("bulk_again", replace(fact, key="bulk_again"))
            return
        most = (held.high or float(held.value)) + (fact.high or float(fact.value))
        low = float(held.value) + float(fact.value)
        self.found["bulk_h"] = Fact("bulk_h", low, f"{held.words}, {fact.words}", most if most > low else None)

    def _clause(self, clause: str, raw: str, stage: str) -> None:
        clause, other = _first_way(clause)
        told = [Fact("other_way", other, raw)] if other else []
        divided = pieces_in(clause, raw, bare=stage == "bulk" and "pieces" not in self.found)
        told += self._pieces(clause, raw, stage, divided)
        if stage == "rolled" and _DOCKS.search(clause) and not self.baked:
            told.append(Fact("docked", 1.0, clause))
        hours, kneading = hours_in(clause), []
        if divided is None and stage != "rolled":
            kneading = list(self._kneading(clause, raw, hours))
        by = kneaded_by(clause)
        told += [Fact("knead_by", by, clause)] if by else []
        told += kneading
        wanted_c = dough_c(clause)
        told += [] if wanted_c is None else [Fact("dough_c", wanted_c, clause)]
        waits = list(self._wait(clause, raw, stage, None if kneading else hours, divided is not None))
        told += waits
        if any(f.key.endswith(("_h", "_x")) for f in waits) and not _COLD.search(clause) and wanted_c is None:
            told += self._where(clause, "ball" if stage == "rolled" else stage)
        told += self._shape(clause)
        if stage != "bulk":
            said = {"colour": colour_of(clause), "heat_elsewhere": heat_elsewhere(clause)}
            told += [Fact(key, words, clause) for key, words in said.items() if words]
        if _HEATS.search(clause) or (stage == "rolled" and oven_c(clause) is not None):
            told += self._heat(clause)
        elif _LID.search(clause):
            self._skillet_is("lidded_pan", raw.strip())
        if under_grill(clause):
            self._skillet_is("pan_then_grill", None)
        self._take(*(replace(f, words=raw.strip()) for f in told))
        self.rested = (self.rested or any(f.key.endswith(("_h", "_x")) for f in told)) and not kneading
        self.baked = self.baked or (stage == "rolled" and _HEATS.search(clause) is not None and hours is not None)
        parted = any(f.key in ("pieces", "piece_g") for f in told) or _PARTS.match(clause)
        if self.stage == "bulk" and parted:
            self.stage = "ball"
        elif _ROLLS.match(clause) and not _BALLS.search(clause):
            self.stage = "rolled"
        elif self.stage == "rolled" and _SEALS.search(clause) and not self.baked:
            self.stage = "ball"  # it is filled, and rolled again

    def _skillet_is(self, kind: str, words: str | None) -> None:
        """Take the skillet that was named for another kind of it, by these words where they say it alone."""
        held = self.found.get("baked_on")
        if held is not None and held.value == "skillet":
            self.found["baked_on"] = replace(held, value=kind, words=words or held.words)

    def _pieces(self, clause: str, raw: str, stage: str, divided: Span | None) -> Iterator[Fact]:
        """Number of pieces that a clause makes, and the weight of one."""
        each = re.search(r"\b(?:each|apiece)\b", clause, re.I)
        if divided is not None:
            yield _fact("pieces", divided, clause)
            if quartered(raw):
                yield Fact("quarters", 1.0, clause)
        elif (made := pieces_made(clause)) is not None and clause.lower().startswith("makes") and stage == "bulk":
            yield _fact("pieces", made, clause)
            yield from self._each(clause)
        elif stage == "bulk" and _ONE_ROUND.search(clause) and not re.search(r"\beach\b", clause, re.I):
            yield Fact("one_piece", 1.0, clause)
        if divided or each or _BALLS.search(clause) or filling_g(clause):
            yield from self._each(clause)

    def _each(self, clause: str) -> list[Fact]:
        filled = filling_g(clause)
        if filled is not None:
            return [_fact("filling_g", filled, clause)]
        one = each_g(clause)
        return [] if one is None else [_fact("filling_g" if _FILLS.match(clause) else "piece_g", one, clause)]

    def _kneading(self, clause: str, raw: str, hours: Span | None) -> Iterator[Fact]:
        """Minutes of kneading; a machine that was named before kneads where it mixes or runs."""
        by = self.found.get("knead_by")
        machine = kneaded_by(clause) or (by is not None and by.value != "no_knead")
        works = _WORKS.search(clause) or (machine and _RUNS.search(clause) and not _HEATS.search(clause))
        if _GROWS.search(clause) or not works:
            return
        if hours is None and _FEW_MIN.search(raw):
            yield Fact("knead_min", FEW_MIN, clause)
        elif hours is not None and hours[1] <= MOST_KNEADING_H:
            yield Fact("knead_min", sum(30 * (low + high) for low, high in minutes_in(clause)), clause)

    def _wait(self, clause: str, raw: str, stage: str, hours: Span | None, divided: bool) -> Iterator[Fact]:
        """A stay in the cold, a wait after it, or a rise or rest of the stage; the balls' where the clause divides."""
        cold = _COLD.search(clause) or (hours is not None and cool(clause))
        out, waits = _OUT.search(clause), _waits_there(clause)
        if divided and stage == "bulk":  # into 8 balls, 20 min
            stage, waits = "ball", waits or hours is not None
        if self.baked or _FROTHS.search(clause) or (cold and _LEFT_OVER.search(clause)):
            return
        most_days = days_cold(clause) if cold and not out else None
        if most_days is not None and hours is None:
            yield Fact("cold_days", most_days, clause)
        chilled = "cold_of" in self.found and self.found["cold_of"].value == stage
        if chilled and hours is not None and (out or (waits and not cold)):
            yield _fact(f"{stage}_out_h", hours, clause)
        elif cold and not out and hours is not None and stage != "sponge":
            yield _fact("cold_h", hours, clause)
            yield Fact("cold_of", "bulk" if stage == "bulk" else "ball", clause)
        elif cold and not out and hours is None and _TILL.search(clause):
            yield Fact("cold_till", clause, clause)
        elif stage == "rolled":
            proofs = _GROWS.search(clause) or (waits and hours is not None and hours[1] >= PROOF_H)
            if proofs and hours is not None and not _HEATS.search(clause):
                yield _fact("shaped_h", hours, clause)
        elif stage == "sponge" and hours is not None and not _WORKS.search(clause):
            yield _fact("sponge_h", hours, clause)
        elif waits:
            times = None if stage == "sponge" else grown(raw)
            if times is not None:
                yield Fact(f"{stage}_x", times, clause)
            if hours is not None:
                yield _fact(f"{stage}_h", hours, clause)

    def _where(self, clause: str, stage: str) -> Iterator[Fact]:
        """The place of a wait, or the temperature it is told for."""
        place, at_c = place_of(clause), stood_c(clause)
        if place is not None:
            yield Fact(f"{stage}_place", place, clause)
        elif at_c is not None:
            yield Fact(f"{stage}_c", at_c, clause)

    def _shape(self, clause: str) -> Iterator[Fact]:
        oval = None if _TIN.search(clause) else oval_cm(clause)
        if "pieces" not in self.found and (tin := tin_said(clause)):
            yield Fact("tin", tin, clause)
        if oval is not None:
            yield Fact("length_cm", oval[1], clause)
            yield Fact("width_cm", oval[0], clause)
        if not (_ROLLS.search(clause) or _SIZED.search(clause)) or _NO_SIZE.search(clause):
            return
        found = list(lengths_mm(clause))
        for low, high in found:
            if high <= THICKEST_MM or (len(found) == 1 and _HIGH.search(clause)):
                yield _fact("thickness_mm", (round(low, 1), round(high, 1)), clause)
            elif oval is None and high / 10 <= WIDEST_CM:
                yield _fact("diameter_cm", (round(low / 10, 1), round(high / 10, 1)), clause)

    def _heat(self, clause: str) -> Iterator[Fact]:
        kind, heat_c = baked_on(clause), oven_c(clause)
        if kind is not None:
            yield Fact("baked_on", kind, clause)
        if heat_c is not None:
            yield Fact("oven_c", heat_c, clause)


def _outweighs(fact: Fact, held: Fact) -> bool:
    """True if a wait is the stage's rise and the one that is held is a shorter rest."""
    grows = bool(_GROWS.search(fact.words)) >= bool(_GROWS.search(held.words))
    return grows and float(fact.value) > float(held.value)


def _waits_there(clause: str) -> bool:
    """True if a dough rises or rests in a clause, and no oven is waited for."""
    return bool(_GROWS.search(clause) or (_WAITS.search(clause) and not _HEATS.search(clause)))
