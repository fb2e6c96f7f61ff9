"""A tray judged in a sentence, as a cook says it: "all full except 3 and 7 flat, 5 dark".

A sentence is a row of groups: breads (numbers, ordinals, ranges, all, the rest) and the words said of them, in either
order. The breads of the group after *except* or *but* are taken out of what was said of all. A word of one bread stands
before the same kind of word of all. How many, without which (`two stuck`, `5 of 8 puffed`), is asked back: nothing is
guessed.
"""

from __future__ import annotations

import re
from collections.abc import Collection, Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any, NoReturn

from brassclock.core.errors import invalid
from brassclock.core.spoken import ONES, TENS
from brassclock.core.terms import Fault

WORDS: dict[str, tuple[str, Any]] = {
    "full": ("pocket", "full"), "puffed": ("pocket", "full"), "part": ("pocket", "part"), "half": ("pocket", "part"),
    "flat": ("pocket", "flat"), "pale": ("colour", "pale"), "light": ("colour", "pale"), "white": ("colour", "pale"),
    "right": ("colour", "right"), "good": ("colour", "right"), "golden": ("colour", "right"),
    "fine": ("colour", "right"), "perfect": ("colour", "right"), "great": ("colour", "right"),
    "ok": ("colour", "right"), "okay": ("colour", "right"), "brown": ("colour", "right"),
    "dark": ("colour", "dark"), "burnt": ("colour", "dark"), "burned": ("colour", "dark"), "black": ("colour", "dark"),
    "scorched": ("colour", "dark"), "charred": ("colour", "dark"), "tender": ("tender", "tender"),
    "soft": ("tender", "tender"), "chewy": ("tender", "chewy"), "tough": ("tender", "tough"),
    "rubbery": ("tender", "tough"), "leathery": ("tender", "tough"),
    "burst": ("fault", "burst"), "tore": ("fault", "burst"), "torn": ("fault", "burst"), "split": ("fault", "burst"),
    "raw": ("fault", "raw_inside"), "underdone": ("fault", "raw_inside"), "undercooked": ("fault", "raw_inside"),
    "doughy": ("fault", "doughy_middle"), "gummy": ("fault", "doughy_middle"), "stiff": ("fault", "stiff"),
    "hard": ("fault", "stiff"), "dry": ("fault", "stiff"), "soapy": ("fault", "soapy"), "sour": ("fault", "sour"),
    "shrank": ("fault", "shrank"), "shrunk": ("fault", "shrank"), "fell": ("fault", "fell_off"),
    "stuck": ("fault", "stuck"), "@top_dark": ("colour_top", "dark"), "@top_pale": ("colour_top", "pale"),
}  # fmt: skip
_NUMBERS = "|".join([*(w for w in ONES if w != "zero"), *TENS])
_PUFF = (
    r"(?:any |a )?(?:real |proper )?(?:puff(?:ed|s)?(?: up)?|open(?:ed)?(?: up)?|balloon(?:ed|s)?|bl[eo]w(?:n)? up|"
    r"pockets?|rise|rose)"
)
_BREADS = r"(?:breads?|rounds?|ones?|pieces?|naans?|pitas?|pittas?|flatbreads?|kulchas?|rotis?)"
_SURFACE = r"(?:plate|pan|wall|stone|steel|griddle|skillet|tray|oven)"
PHRASES: tuple[tuple[str, str], ...] = (  # several words that are one, before they are read singly
    (rf"(?:not (?:a |one|a single|any)|none)(?: of (?:them|the {_BREADS}))?(?: {_BREADS})?"
     rf"(?: has| had)? ?{_PUFF}", " @all flat "),
    (rf"(?:did ?nt|did not|does ?nt|would ?nt|would not|has ?nt|have ?nt|hardly|barely|failed to|never|not|with no|"
     rf"had no|have no|no) (?:have )?(?:really )?{_PUFF}", " flat "),
    (rf"(?:half|part(?:ly|ially)?)[ -]{_PUFF}", " part "), (r"(?:small|little) pockets?", " part "),
    (rf"\b{_PUFF}\b", " full "), (r"one[ -]side(?:d| only)?", " @one_side "),
    (r"raw (?:inside|in the middle)", " raw "), (r"(?:doughy|gummy) (?:middle|inside|in the middle)", " doughy "),
    (r"doughy edges?", " @doughy_edges "), (rf"fell (?:off|from)(?: the {_SURFACE})?", " fell "),
    (rf"(?:to|on|onto|off|from|in|against) the {_SURFACE}", " "),
    (r"(?:too )?(?:burnt|burned|dark|black|scorched|charred) (?:on )?(?:the )?tops?", " @top_dark "),
    (r"(?:too )?(?:pale|light|white) (?:on )?(?:the )?tops?", " @top_pale "),
    (r"(?:burnt|burned|dark|black|scorched|charred) (?:bottoms?|underneath|below|bases?|undersides?)", " dark "),
    (r"(?:underneath|below|on the bottom|bottoms?)", " "),
    (r"(?:the )?(?:rest|others|remaining)", " @rest "),
    (rf"(?:they are |they were |they |the )?(?:all|every ?one|everything|each|the lot|whole lot)(?: of)?"
     rf"(?: (?:them|the))?(?: {_BREADS})?", " @all "),
    (r"(?:as (?:a )?biscuits?|like (?:a )?(?:biscuits?|boards?|cardboard)|as (?:a )?boards?)", " "),
)  # fmt: skip
_PHRASES = [(re.compile(rf"(?<![\w@]){pattern}(?!\w)"), one) for pattern, one in PHRASES]
FILLER = frozenset({
    "the", "was", "were", "are", "is", "came", "a", "bit", "too", "very", "quite", "little", "really", "rather",
    "out", "up", "it", "they", "its", "got", "went", "turned", "taste", "tasted", "tastes", "also", "again", "only",
    "just", "slightly", "beautifully", "nicely", "well", "on", "with", "had", "ended", "looked", "of", "this", "time",
})  # fmt: skip
_ORDINALS = (
    "first", "second", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth", "tenth", "eleventh", "twelfth"
)  # fmt: skip
_SETS = re.compile(
    rf"(?:the )?(?:(first|last) (\d+|{_NUMBERS}|couple|few|half|dozen)(?: {_BREADS})?|(second) half|(odd|even)"
    rf"(?: numbered)?(?: {_BREADS})|(last)(?: {_BREADS})?|({'|'.join(_ORDINALS)})(?: {_BREADS})?|(\d+)(?:st|nd|rd|th)"
    rf"(?: {_BREADS})?)\b"
)
_COUNTS = re.compile(  # how many, and not which
    rf"\b(?:(?:only |just |about |nearly |almost )?(?:\d+|{_NUMBERS}|half|most|some|many|several|a few|a couple|any|"
    rf"all)(?: out)? of (?:\d+|them|the|my|these)\b|(?:only|just) (?:\d+|{_NUMBERS})\b|\d+ {_BREADS}\b|"
    rf"(?:nearly|almost|about|not|hardly) (?:@?all|half)|most|some|many|several|a few|a couple|every other|\d+/\d+|"
    rf"(?<!number )(?<!no )(?<!bread )(?<!round )(?:{_NUMBERS})\b)"
)
_NAMED = re.compile(r"\b(?:numbers?|nos?\.?|breads?|rounds?|naans?|pitas?|pieces?|#)\s*(?=\d)|#(?=\d)")
_TOKEN = re.compile(r"\d+-\d+|\d+|@[a-z_]+|[a-z]+|[;.\n]|[,&]")
_TURN = frozenset({"except", "but", "without", "not", "bar", "apart"})
MOST_TEXT = 400
KNOWN = (
    "full, part, flat; pale, right, dark, dark on top; tender, chewy, tough; burst, raw, doughy, one side, stiff, "
    "soapy, sour, shrank, fell off, stuck"
)


@dataclass
class Said:
    """Words said of one bread: its pocket, its colour (and that of its top), its tenderness, faults beside those."""

    pocket: str | None = None
    colour: str | None = None
    colour_top: str | None = None
    tender: str | None = None
    faults: list[Fault] = field(default_factory=list)

    def add(self, what: str, word: Any) -> None:
        """Say one word more; a later word of the same kind stands."""
        if what == "fault":
            self.faults = list(dict.fromkeys([*self.faults, word]))
        else:
            setattr(self, what, word)


@dataclass
class Group:
    """Breads that are named (`whom`: all, rest, or those of `rounds`), whether they are taken out of what is said of
    all, and the words said of them. `loose`: numbers that may count breads instead of naming them."""

    rounds: list[int] = field(default_factory=list)
    whom: str = ""
    out: bool = False
    words: list[tuple[str, Any]] = field(default_factory=list)
    last: list[int] = field(default_factory=list)  # rounds since the last comma, of words that came first
    first_words: bool = False
    loose: bool = True
    turn: str = ""  # the word that takes them out

    def ended(self, before: Group | None) -> Group:
        """The group, of all breads where it names none and no other group came before it."""
        if not self.rounds and not self.whom and self.words:
            if before is not None and before.whom != "all":
                raise invalid("/said", "The last words: of which breads? Say all, the rest, or their numbers.")
            self.whom = "all"
        return self

    def no_word_lacks(self) -> None:
        """Refuse breads of which nothing is said."""
        if self.rounds and not self.words:
            named = ", ".join(map(str, self.rounds))
            raise invalid("/said", f"What of {named}? Say a word of each: flat, pale, burst.")

    def parted(self) -> tuple[Group, Group]:
        """(what is done, what goes on) where a word comes after words that came first (`flat: 3, 5 pale`): breads since
        the last comma are that word's."""
        done = [n for n in self.rounds if n not in self.last]
        if not self.last or not done:
            named = ", ".join(map(str, self.rounds))
            raise invalid("/said", f"Which words are of {named}? Say the breads first: 3 flat, 5 pale.")
        return Group(done, self.whom, self.out, self.words, loose=self.loose), Group(self.last)


def judged(text: str, rounds: int, off: Collection[int] | None = None) -> dict[int, Said]:
    """Words that a sentence says of each of so many breads; breads it says nothing of are left out. `off`: those that
    are off the heat, whom *all* and *the rest* mean (None: each).

    Raises InvalidInput for a word that says nothing of a bread, a bread that there is none of, a number of breads
    without which, and a sentence that judges none.

    >>> {n: s.pocket for n, s in judged("all full except 3 flat", 4).items()}
    {1: 'full', 2: 'full', 3: 'flat', 4: 'full'}
    >>> {n: s.pocket for n, s in judged("first two didn't puff, the last half puffed", 4).items()}
    {1: 'flat', 2: 'flat', 4: 'part'}
    """
    if len(text) > MOST_TEXT:
        raise invalid("/said", f"That is {len(text)} letters long. Say it in {MOST_TEXT}.")
    everyone = sorted(range(1, rounds + 1) if off is None else off)
    groups = list(_groups(_marked(text.lower(), rounds), rounds))
    _counted(groups, rounds)
    found: dict[int, Said] = {}
    named = {n for g in groups for n in g.rounds}
    spared = {n for g in groups if g.out for n in g.rounds}
    for group in sorted(groups, key=lambda g: g.whom != "all"):
        if group.whom == "all":
            _say(found, (n for n in everyone if n not in spared), group.words)
        elif group.whom == "rest":
            _say(found, (n for n in everyone if n not in named), group.words)
        else:
            _say(found, group.rounds, group.words)
    if not found:
        raise invalid("/said", "That judges no bread. Say it as “all full except 3 and 7 flat, 5 dark”.")
    return dict(sorted(found.items()))


def _say(found: dict[int, Said], rounds: Iterable[int], words: list[tuple[str, Any]]) -> None:
    for n in rounds:
        for what, word in words:
            found.setdefault(n, Said()).add(what, word)


def _marked(text: str, rounds: int) -> str:
    """The sentence with each phrase as one word, and sets of breads as their numbers. Raises InvalidInput for a number
    of breads without which."""
    text = re.sub("[’']", "", text)
    for phrase, one in _PHRASES:
        text = phrase.sub(one, text)
    text = text.replace("nos.", "nos").replace("no.", "no")
    text = re.sub(r"\b(half|part) (?:full|flat)\b", "part", text)
    text = re.sub(r"(\d+)\s*(?:-|–|to)\s*(\d+)", r"\1-\2", text)
    text = _SETS.sub(lambda m: f" number {_set(m, rounds)} ", re.sub(r"\s+", " ", text))
    text = re.sub(rf"\b(?:number|no|bread|round) ({_NUMBERS})\b", lambda m: f"number {_figure(m[1])}", text)
    which = _COUNTS.search(text)
    if which:
        _ask(which[0].replace("@", "").strip())
    return text


def _figure(word: str) -> int:
    return int(word) if word.isdigit() else {**ONES, **TENS}[word]


def _set(m: re.Match[str], rounds: int) -> str:
    """Numbers of a set: the first three, the last, odd ones."""
    if m[4]:
        return " ".join(str(n) for n in range(1 if m[4] == "odd" else 2, rounds + 1, 2))
    if m[3]:
        return f"{rounds // 2 + 1}-{rounds}"
    if m[2]:
        if m[2] == "few":
            _ask(m[0].strip())
        many = {"couple": 2, "dozen": 12, "half": rounds // 2}.get(m[2]) or _figure(m[2])
        if not 1 <= many <= rounds:
            raise invalid("/said", f"“{m[0].strip()}”: this bake has {rounds}.")
        first, last = (1, many) if m[1] == "first" else (rounds - many + 1, rounds)
        return str(first) if first == last else f"{first}-{last}"
    return str(rounds) if m[5] else m[7] or str(_ORDINALS.index(m[6]) + 1)


def _ask(words: str) -> NoReturn:
    raise invalid("/said", f"“{words}”: which ones? Say their numbers, as in 2 and 5 flat.")


def _groups(text: str, rounds: int) -> Iterator[Group]:
    """Groups of a sentence in their order."""
    named = {m.end() for m in _NAMED.finditer(text)}
    text = _NAMED.sub(lambda m: " " * (m.end() - m.start()), text)
    now, before = Group(), None
    for m in _TOKEN.finditer(text):
        token = m[0]
        if token[0].isdigit():
            if now.words and (now.rounds or now.whom) and not now.first_words:
                yield now
                now, before = Group(), now
            now.first_words = bool(now.words)
            numbers = _range(token, rounds)
            now.rounds, now.last = now.rounds + numbers, now.last + numbers
            now.loose = now.loose and m.start() not in named and len(numbers) == 1
        elif token in ("@all", "@rest"):
            if now.words and (now.rounds or now.whom):
                yield now
                now, before = Group(), now
            now.no_word_lacks()
            now.whom = token[1:]
        elif token in _TURN or token in (";", ".", "\n"):
            if now.words:
                yield now.ended(before)
                now, before = Group(), now
            if token in _TURN:
                if not now.out:
                    now.no_word_lacks()
                now = Group(out=True, turn=token)
        elif token in (",", "&", "and"):
            now.last = []
        elif token in WORDS or token.startswith("@"):
            if now.first_words:
                before, now = now.parted()
                yield before
            elif now.out and not now.rounds and not now.whom:
                if before is None or now.turn != "but":
                    raise invalid("/said", f"“{now.turn} {token.strip('@')}”: say how they were instead.")
                now = Group([*before.rounds], before.whom, loose=False)  # full, but pale: of the same
            now.words.append(WORDS.get(token) or ("fault", token[1:]))
        elif token not in FILLER:
            raise invalid("/said", f"“{token[:40]}” says nothing of a bread here. Use {KNOWN}.")
    if not now.out:
        now.no_word_lacks()
    if now.words or now.out:
        yield now.ended(before)


def _counted(groups: list[Group], rounds: int) -> None:
    """Refuse numbers that are as many as there are breads (`5 flat and 3 puffed` of 8): they may count them."""
    told = [g.rounds[0] for g in groups if g.loose and len(g.rounds) == 1 and not g.whom]
    if (
        len(told) == len(groups)
        and rounds > 1
        and sum(told) == rounds
        and sorted(told) != list(range(1, len(told) + 1))
    ):
        raise invalid(
            "/said", f"Is that how many, or which? Say which: number {told[0]}, or the numbers of those {told[0]}."
        )


def _range(token: str, rounds: int) -> list[int]:
    first, _, end = token.partition("-")
    low, high = int(first), int(end or first)
    for n in (low, high):
        if not 1 <= n <= rounds:
            raise invalid("/said", f"There is no bread {n}; this bake has 1 to {rounds}.")
    if high < low:
        raise invalid("/said", f"{low} to {high} runs backward. Say {high} to {low}.")
    return list(range(low, high + 1))
