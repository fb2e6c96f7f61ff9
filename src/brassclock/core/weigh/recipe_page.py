"""A recipe as it is written, taken apart: its name, what it makes, the lines of its dough, its steps.

Every line of the text lands in one of the parts of `Page`; nothing is left out but headings.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from brassclock.core.errors import invalid
from brassclock.core.matter.ingredients import Ingredient
from brassclock.core.weigh.amounts import split
from brassclock.core.weigh.columns import is_head, line_of
from brassclock.core.weigh.entry import EntryLine, read_line, things_in
from brassclock.core.weigh.recipe_words import SPONGE, pieces_made

_MARK = re.compile(r"^\s*(?:[-*+•·▢☐–]|\[[ x]?\]|\(?\d{1,2}[.)]|(?:step|stage)\s+\d{1,2}\s*[:.)-])\s+", re.IGNORECASE)
_SIGNS = re.compile(
    r"^\s*(?:[\u2190-\u2bff\ufe0f\u200d\U0001f000-\U0001faff]\s*)+|(?:\s*[\ufe0f\U0001f000-\U0001faff])+\s*$"
)  # pictures
_NUMBERED = re.compile(r"^\s*(?:\(?\d{1,2}[.)]|(?:step|stage)\s+\d{1,2}\s*[:.)-])\s+", re.IGNORECASE)
_HASH = re.compile(r"^\s*#{1,6}\s+")
_EMPHASIS = re.compile(r"(\*\*|__)(.+?)\1")
_SECTIONS = {  # what follows a heading, by the words of the heading
    "steps": r"(?:step|stage|part|day) (?:\d{1,2}|one|two|three|four|five|six)|"
    r"(?:the )?(?:method|directions?|instructions?|steps?|preparation|procedure|process|how to .*|what to do)",
    "about": r"(?:(?:cook'?s |recipe )?notes?|tips?|equipment|nutrition.*|storage|variations?)",
    "filling": r"(?:for )?(?:the )?(?:stuffing|fillings?)",
    "topping": r"(?:for )?(?:the )?toppings?",
    "beside": r"(?:for |to )?(?:the )?(?:tops?|glaze|finish(?:ing)?|serv(?:e|ing)|brush(?:ing)?|garnish|"
    r"paste|wash|slurry|roomal|romal|"
    r"cook(?:ing)?|fry(?:ing)?|garlic butter|dust(?:ing)?)",
    "sponge": rf"(?:for )?(?:the )?(?:{SPONGE}|pre-?ferments|pre-?dough|leaven)(?: build)?",
    "dough": r"(?:(?:the )?ingredients?(?: list)?|what you need|you(?:'ll| will) need|(?:dry|wet|the rest|remaining)|"
    r"(?:for )?(?:the )?(?:main |final |bread )?(?:dough|mix|tangzhong|dry ingredients|wet ingredients)|"
    r"for (?:the )?(?:breads?|flatbreads?|naans?|pitas?|pittas?|kulchas?|rotis?))",
}
_HEADINGS = {part: re.compile(rf"{words}(?:\s*\([^)]*\))?\s*:?", re.IGNORECASE) for part, words in _SECTIONS.items()}
_ABOUT = re.compile(
    r"\(?(?:makes|yields?|serves|servings?|portions?|quantity|for \d+)\b.*|"
    r"(?:prep(?:aration)?|cook(?:ing)?|bak(?:e|ing)|total|active|hands-on|ris(?:e|ing)|prov(?:e|ing)|proof(?:ing)?|"
    r"rest(?:ing)?|ready in)?\s*(?:time)?\s*[:|].*\d.*|"
    r"(?:source|author|by|from|difficulty|cuisine|course|calories)\s*[:|].*|"
    r"total (?:dough )?weight.*",
    re.IGNORECASE,
)
_BEFORE = (
    "gently|then|now|next,?|finally,?|meanwhile,?|once|when|after|while|if|using|with|in (?:a|the)|on (?:a|the)|"
    "to (?:make|cook|bake|shape)"
)
_VERBS = (
    "activate add allow apply autolyse bake ball beat blend bloom boil bring brush bulk check chill combine "
    "cook cover cut deflate dip dissolve divide dock drizzle dust enjoy ferment fill flatten flip fold form "
    "freeze fry gather grill heat keep knead knock leave let make mix mould pat pin pinch place portion pour "
    "pre-heat preheat press proof prove punch put refrigerate remove repeat rest return rise roll scale "
    "scatter seal serve set shape sieve sift sit slap split spread sprinkle stack stick stir store stretch "
    "take tip toss transfer turn wait weigh wet whisk work wrap"
)
_DOING = re.compile(rf"(?:(?:{_BEFORE}) )|(?:{'|'.join(_VERBS.split())})\b", re.IGNORECASE)  # how a step begins
_ALL_OF_IT = re.compile(  # the sponge again, among the lines of the dough
    r"(?:\d+ ?g (?:of )?)?(?:active |ripe )?"
    rf"(?:all (?:of )?)?(?:the |your )?(?:whole |all )?(?:{SPONGE}|leaven)"
    r"(?:,? (?:from )?(?:above|all of it|all))*",
    re.IGNORECASE,
)
_OF_SPONGE = re.compile(rf"(?:[^:.]{{1,30}}:\s*)?(?:(?:make|mix|start|prepare|for)\b[^,:.]{{0,20}})?\b{SPONGE}\b", re.I)
_APART = re.compile(r"[,;]\s+|\.\s+|\s+and\s+|\s+with\s+")
_AMOUNT = re.compile(
    r"(?:\d|[½¼¾⅓⅔]|\ban? (?:pinch|cup|teaspoon|tablespoon|tsp|tbsp|packet|sachet|egg)\b)", re.IGNORECASE
)
_MADE = r"(?:portions?|pieces?|pcs|breads?|balls?|loaves)"
_BEHIND_NAME = re.compile(
    rf"\s*(?:\||\(|\bmakes\b|(?=\b\d{{1,3}}\s*{_MADE}\s*(?:@|at|of|[x×])\s*\d)|"
    rf"(?:,|\s[–—-])\s*(?=\d{{1,3}}\s+{_MADE}\b))",
    re.IGNORECASE,
)
_WHERE = re.compile(r"\s+(?:in|into|to|on|over|together)\b")
_ROW = re.compile(r"\s*\|.*\|\s*$")
_RULED = re.compile(r"\s*\|[\s:|-]+\|\s*$")
_OF_DAY = re.compile(  # day 1, evening - leaven build
    r"(?:day (?:\d{1,2}|one|two|three)|(?:the )?(?:night|evening|day) before)\b[ ,:–—-]*"
    r"(?:(?:in the )?(?:morning|evening|night|afternoon)\b)?[ ,:–—-]*",
    re.IGNORECASE,
)
_DAY = re.compile(r"day \d{1,2}\s*[:.)-]\s*(?=\S)", re.IGNORECASE)
_HELD = r"(?:['′]|min(?:ute)?s?\b|(?:h(?:ours?|rs?)?|sec(?:ond)?s?|s|days?|nights?)\b)"
_TERMED = re.compile(
    r"(?:scaling|sheeting|rounding|dividing|shaping|piece|ball|floor|bulk|proof|prove|"
    r"retard\w*|temper\w*|oven|mixing|knead\w*|bake|baking|bench|final|dough)\b"
    r"[^:]{0,24}:\s*\d",
    re.IGNORECASE,
)
_TERSE = re.compile(  # what is done, told without a verb: 45 min bulk; ball proof 90 min; oven 380 C, 70 s
    rf"^(?:\d[\d.,/ –-]*\s*{_HELD}\s*(?:[a-z]|$)|(?:\w+[ ,:-]+){{1,4}}(?:at |for )?\d[\d.,–-]*\s*(?:{_HELD}|°|[cf]\b))",
    re.IGNORECASE,
)
_DONE_WITH = re.compile(
    rf"\s+[–—-]+>?\s+(?=(?:{'|'.join(_VERBS.split())})\b|\d[\d.,/–-]*\s*{_HELD}|overnight)", re.IGNORECASE
)
_LIST_ENDS = re.compile(
    rf"(?<=[a-z])\.\s+(?=[a-zA-Z]|\d[\d.,/–-]*\s*{_HELD})", re.IGNORECASE
)  # 500 g flour 375 g water. Mix, rest 2 h
_SENTENCES = re.compile(r"[.!;]\s+[A-Z]")
MOST_NAME = 80
MOST_TITLE = 4  # words: a step says more
FEW_WORDS = 5  # with an amount among them: an ingredient that is not known
MOST_LINES = 250
FEWEST_LISTED = 3  # things with strokes between them: a list; fewer are two measures of one
MOST_WORDS = 6  # of a heading
LONG_LINE = 90  # letters; an ingredient line is shorter
LONGEST_LIST = 400  # letters of several ingredients in one line


@dataclass
class Page:
    """Parts of a recipe's text. `sponge`, `dough`, `filling`, `topping`: ingredient lines. `beside`: lines of what goes
    on a bread, in the pan or on the table. `steps`: what is done, in order. `about`: what it makes, its times, its
    notes."""

    name: str = ""
    sponge: list[str] = field(default_factory=list)
    dough: list[str] = field(default_factory=list)
    filling: list[str] = field(default_factory=list)
    topping: list[str] = field(default_factory=list)
    beside: list[str] = field(default_factory=list)
    steps: list[str] = field(default_factory=list)
    about: list[str] = field(default_factory=list)

    @property
    def begun(self) -> bool:
        """True once a line of it is an ingredient or a step."""
        return bool(self.sponge or self.dough or self.filling or self.topping or self.beside or self.steps)


def _heading(line: str) -> str | None:
    """The part that a heading opens; None of what is no heading."""
    of_day = _OF_DAY.match(line)
    for part, words in _HEADINGS.items():
        if words.fullmatch(line) or (of_day and words.fullmatch(line[of_day.end() :])):
            return part
    return None


def _things(line: str, rows: Mapping[str, Ingredient]) -> list[EntryLine]:
    """The things that a line names; what is longer than a list is one."""
    return things_in(line, rows) if len(line) <= LONGEST_LIST else [read_line(line, rows)]


def _is_thing(x: EntryLine) -> bool:
    """True if a line is an ingredient with its amount, or its share of the flour."""
    return x.read or (x.share is not None and x.ingredient is not None)


def _is_step(line: str, rows: Mapping[str, Ingredient], *, titles: bool = False) -> bool:
    """True if a line tells what to do, and is no ingredient; among `titles` a time alone tells nothing to do (30-minute
    naan)."""
    words, terse = len(line.split()), not titles and bool(_TERSE.search(line) or _TERMED.match(line))
    doing = (_DOING.match(line) is not None and words > 1) or terse
    if not doing and len(line) <= LONG_LINE and not _SENTENCES.search(line):
        return False
    found = _things(line, rows)
    if any(map(_is_thing, found)):
        return False
    return terse or len(found) > 1 or found[0].amount is None or words > FEW_WORDS


def page_of(text: str, rows: Mapping[str, Ingredient]) -> Page:
    """The parts of a text. A text without headings is told apart by its lines: amounts, and what is done. Raises
    InvalidInput for more than MOST_LINES.

    >>> from brassclock.core.matter.ingredients import table
    >>> page = page_of("Plain pita\\nMakes 8\\n500 g flour\\n325 g water\\nMix, and knead 10 minutes.", table())
    >>> page.name, page.dough, page.steps, page.about
    ('Plain pita', ['500 g flour', '325 g water'], ['Mix, and knead 10 minutes.'], ['Makes 8'])
    """
    lines = [line for line in text.splitlines() if line.strip()]
    if len(lines) > MOST_LINES:
        raise invalid("/text", f"The text has {len(lines)} lines; a recipe has up to {MOST_LINES}. Paste one recipe.")
    reader = _Reader(rows)
    for raw in _untabled(lines):
        reader.read(raw)
    _from_steps(reader.page, rows)
    return reader.page


def _from_steps(page: Page, rows: Mapping[str, Ingredient]) -> None:
    """Lines of a dough, and of a sponge, that only the steps tell; a sponge that no dough follows is the dough."""
    if page.dough:
        return
    headed = bool(page.sponge)
    for step in page.steps:
        part = page.sponge if _OF_SPONGE.match(step) and not headed else page.dough
        part += _amounts_in(step, rows)
    if not page.dough:
        page.dough, page.sponge = page.sponge, []


class _Reader:
    """Lines read one after the other, with the part that the last heading opened."""

    def __init__(self, rows: Mapping[str, Ingredient]) -> None:
        self.rows = rows
        self.page = Page()
        self.part = "dough"

    def read(self, raw: str) -> None:
        """Put a line where it belongs; of a list in one line (`500 g flour / 10 g salt / glaze: ...`) each thing."""
        things = re.split(r"\s+/\s+", raw)
        for one in things if len(things) >= FEWEST_LISTED else [raw]:
            self._read(one)

    def _read(self, raw: str) -> None:
        raw = _SIGNS.sub("", raw)
        marked, bare = _NUMBERED.match(raw) is not None, _EMPHASIS.sub(r"\2", raw).strip()
        titled = _HASH.match(bare) is not None
        line = _MARK.sub("", _HASH.sub("", bare)).strip()
        opened, headed = self._opened(line), self._headed(line)
        if not line or opened == "name":
            return
        if opened is not None:
            self.part = opened
        elif headed is not None and not _DAY.match(line):
            self._put_headed(*headed)
        elif titled or (not self.page.name and _is_name(line, self.page, self.rows)):
            self._name(line, titled)
        elif not (self.page.sponge and self.part == "dough" and _ALL_OF_IT.fullmatch(line)):
            self._put(line, marked)

    def _opened(self, line: str) -> str | None:
        """The part that a heading opens; `name` where it was taken for the recipe's own name; None of another line."""
        opened = _heading(line)
        if opened is not None or not line.endswith(":"):
            return opened
        if len(line.split()) > MOST_WORDS or re.search(r"\d", line):
            return None
        if self.page.begun or self.page.name:
            return "dough"
        self.page.name = _named(line)
        return "name"

    def _name(self, line: str, titled: bool) -> None:
        name = _named(_BEHIND_NAME.split(line)[0]) or line[:MOST_NAME]
        if name != line:
            self.page.about.append(line)
        if titled and self.page.name:
            self.part = "dough"
        self.page.name = self.page.name or (name.capitalize() if name.isupper() else name)

    def _told(self, line: str, marked: bool) -> bool:
        """True if a line among steps is too long for an ingredient, and has no amount or a number as the steps have."""
        long = self.part == "dough" and len(line.split()) > FEW_WORDS
        return long and (marked or not _AMOUNT.search(line))

    def _headed(self, line: str) -> tuple[str, str, str] | None:
        """(part, heading, the rest) of a line that opens with its heading (`Filling: 60 g coconut, 40 g raisins`)."""
        head, colon, rest = (x.strip() for x in line.partition(":"))
        if not split(rest)[1]:  # levain: 75 g
            return None
        part = _heading(head) if colon and rest and self.part != "steps" else None
        return (part, head, rest) if part in ("sponge", "dough", "filling", "topping", "beside") else None

    def _put_headed(self, part: str, head: str, rest: str) -> None:
        """Put the ingredients of a line that opens with its heading, and what is done with them."""
        items, done = _parted(rest)
        if part == "dough" and self.page.sponge:
            items = ", ".join(x for x in re.split(r"[,;]\s+", items) if not _ALL_OF_IT.fullmatch(x.strip()))
        getattr(self.page, part).append(items)
        if done or (part == "sponge" and "(" in head):
            self.page.steps.append(f"{head}: {done}".rstrip(" :"))

    def _put(self, line: str, marked: bool) -> None:
        """Put a line that is no heading and no name."""
        page, (items, done) = self.page, _parted(line)
        if _DAY.match(line):
            page.steps.append(line)
        elif (
            _ABOUT.fullmatch(line)
            and not (self.part == "steps" and marked)
            and not (page.steps and _TERMED.match(line))
        ):
            page.about.append(line)
        elif self.part in ("steps", "about"):
            getattr(page, self.part).append(line)
        elif done and self.part != "beside" and self._is_list(items):
            getattr(page, self.part).append(items)
            page.steps.append(done)
        elif _is_step(line, self.rows) or (page.steps and self._told(line, marked)):
            page.steps.append(line if self.part != "sponge" or _OF_SPONGE.match(line) else f"Sponge: {line}")
        else:
            getattr(page, self.part).append(line)

    def _is_list(self, text: str) -> bool:
        """True if a text is ingredients with their amounts."""
        return all(map(_is_thing, _things(text, self.rows)))


def _parted(line: str) -> tuple[str, str]:
    """(the ingredients of a line, what is done with them): `flour 60 g, water 60 g - leave 6 hours`."""
    found = _DONE_WITH.search(line) or _LIST_ENDS.search(line)
    return (line, "") if found is None else (line[: found.start()].rstrip(), line[found.end() :].strip())


def _named(line: str) -> str:
    """A line as a name: without the dashes and colons around it."""
    return line.strip(" ,:–-—=~_*").strip()[:MOST_NAME]


def _amounts_in(step: str, rows: Mapping[str, Ingredient]) -> list[str]:
    """The ingredients of a step that tells them with their amounts (`Put 400 g flour and 8 g salt in a bowl`)."""
    found = []
    for chunk in _APART.split(step):
        begins = _AMOUNT.search(chunk)
        told = _WHERE.split(chunk[begins.start() :])[0].strip() if begins else ""
        if told and read_line(told, rows).read:
            found.append(told)
    return found


def _untabled(lines: Sequence[str]) -> Iterator[str]:
    """Lines of a text, each row of a table as one line; its head is left out."""
    head: list[str] = []
    for k, line in enumerate(lines):
        if not _ROW.match(line):
            head = []
            yield line
        elif not _RULED.match(line):
            row = [cell.strip() for cell in line.strip().strip("|").split("|")]
            if is_head(row) or (k + 1 < len(lines) and _RULED.match(lines[k + 1])):
                head = row
            else:
                yield line_of(head, row)


def _is_name(line: str, page: Page, rows: Mapping[str, Ingredient]) -> bool:
    """True for the first line of a recipe where it names no ingredient and nothing to do."""
    if page.begun or len(line) > MOST_NAME:
        return False
    if _ABOUT.fullmatch(line):
        return False
    if len(line.split()) <= MOST_TITLE and not re.search(r"\d|[.,;:]$", line):
        return _things(line, rows)[0].ingredient is None
    if _BEHIND_NAME.split(line)[0] != line and pieces_made(line) is not None:
        return True
    read, *more = _things(line, rows)
    if more:
        return False
    unmeasured = read.amount is None or read.amount.isdigit()
    return read.ingredient is None and unmeasured and read.share is None and not _is_step(line, rows, titles=True)
