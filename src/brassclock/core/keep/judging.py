"""A tray judged in a sentence, as a cook says it: "all full except 3 and 7 flat, 5 dark".

A clause names breads (numbers, ranges, all, the rest) and says words of them; the breads of the clause after *except*
or *but* are taken out of what was said of all. A word of one bread stands before the same kind of word of all.
"""

from __future__ import annotations

import re
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, field
from typing import Any

from brassclock.core.errors import InvalidInput, invalid
from brassclock.core.terms import Fault

WORDS: dict[str, tuple[str, Any]] = {
    "full": ("pocket", "full"), "puffed": ("pocket", "full"), "part": ("pocket", "part"), "half": ("pocket", "part"),
    "flat": ("pocket", "flat"), "pale": ("colour", "pale"), "light": ("colour", "pale"), "right": ("colour", "right"),
    "good": ("colour", "right"), "golden": ("colour", "right"), "dark": ("colour", "dark"),
    "burnt": ("colour", "dark"), "scorched": ("colour", "dark"), "tender": ("tender", "tender"),
    "soft": ("tender", "tender"), "chewy": ("tender", "chewy"), "tough": ("tender", "tough"),
    "burst": ("fault", "burst"), "raw": ("fault", "raw_inside"), "doughy": ("fault", "doughy_middle"),
    "stiff": ("fault", "stiff"), "soapy": ("fault", "soapy"), "sour": ("fault", "sour"),
    "shrank": ("fault", "shrank"), "fell": ("fault", "fell_off"), "stuck": ("fault", "stuck"),
}  # fmt: skip
PHRASES: tuple[tuple[str, str], ...] = (  # two words that are one, before they are read singly
    (r"one[ -]side(d| only)?", "@one_side"), (r"raw inside", "raw"), (r"doughy middle", "doughy"),
    (r"doughy edges?", "@doughy_edges"), (r"fell off", "fell"), (r"(the )?(rest|others|remaining)", "@rest"),
    (r"(they are |they were )?(all|every one|everything|each)", "@all"), (r"(\d+)\s*(?:-|–|to)\s*(\d+)", r"\1-\2"),
)  # fmt: skip
FILLER = frozenset({
    "and", "the", "was", "were", "are", "is", "of", "no", "number", "round", "rounds", "bread", "breads", "came", "a",
    "bit", "too", "very", "only",
})  # fmt: skip
CLAUSE = re.compile(r"[,;.\n]|\b(except|but|without|not)\b")
TOKEN = re.compile(r"\d+-\d+|\d+|@[a-z_]+|[a-z]+")
MOST_TEXT = 400


@dataclass
class Said:
    """Words said of one bread: its pocket, its colour, its tenderness, faults beside those."""

    pocket: str | None = None
    colour: str | None = None
    tender: str | None = None
    faults: list[Fault] = field(default_factory=list)

    def add(self, what: str, word: Any) -> None:
        """Say one word more; a later word of the same kind stands."""
        if what == "fault":
            self.faults = list(dict.fromkeys([*self.faults, word]))
        else:
            setattr(self, what, word)


@dataclass
class Clause:
    """Breads that a clause names (None: all of them), whether it takes them out, the words it says."""

    rounds: list[int] | None
    out: bool
    words: list[tuple[str, Any]]


def judged(text: str, rounds: int) -> dict[int, Said]:
    """Words that a sentence says of each of so many breads; breads it says nothing of are left out.

    Raises InvalidInput for a word that says nothing of a bread, a bread that there is none of, and a sentence that
    judges none.

    >>> {n: s.pocket for n, s in judged("all full except 3 flat", 4).items()}
    {1: 'full', 2: 'full', 3: 'flat', 4: 'full'}
    """
    if len(text) > MOST_TEXT:
        raise invalid("/said", f"That is {len(text)} letters long. Say it in {MOST_TEXT}.")
    found: dict[int, Said] = {}
    clauses = list(_clauses(text.lower(), rounds))
    named = {n for c in clauses for n in c.rounds or ()}
    for clause in sorted(clauses, key=lambda c: c.rounds is not None):
        if clause.rounds is None:
            spared = {n for c in clauses if c.out for n in c.rounds or ()}
            _say(found, (n for n in range(1, rounds + 1) if n not in spared), clause.words)
        else:
            rest = clause.rounds or [n for n in range(1, rounds + 1) if n not in named]
            _say(found, rest, clause.words)
    if not found:
        raise invalid("/said", "That judges no bread. Say it as “all full except 3 and 7 flat, 5 dark”.")
    return dict(sorted(found.items()))


def _say(found: dict[int, Said], rounds: Iterable[int], words: list[tuple[str, Any]]) -> None:
    for n in rounds:
        for what, word in words:
            found.setdefault(n, Said()).add(what, word)


def _clauses(text: str, rounds: int) -> Iterator[Clause]:
    """The clauses in their order; breads named without a word wait for the next clause's."""
    for pattern, one in PHRASES:
        text = re.sub(rf"\b{pattern}\b", one, text)
    waiting: list[int] = []
    out, at = False, 0
    ends = [(m.start(), m.end(), m.group(1)) for m in CLAUSE.finditer(text)] + [(len(text), len(text), None)]
    for start, end, turn in ends:
        numbers, words, everyone = _read(text[at:start], rounds)
        at = end
        if words and (numbers or waiting):
            yield Clause(waiting + numbers, out, words)
            waiting, out = [], False
        elif words and everyone == "rest":
            yield Clause([], False, words)
        elif words:
            yield Clause(None, False, words)
            out = False
        else:
            waiting += numbers
        if turn:
            if waiting and not out:
                raise _of_what(waiting)
            out = True
    if waiting and not out:
        raise _of_what(waiting)
    yield Clause(waiting, True, [])


def _of_what(rounds: list[int]) -> InvalidInput:
    return invalid("/said", f"What of {', '.join(map(str, rounds))}? Say a word of each: flat, pale, burst.")


def _read(clause: str, rounds: int) -> tuple[list[int], list[tuple[str, Any]], str]:
    """(breads, words, `all`, `rest` or nothing) of one clause."""
    numbers: list[int] = []
    words: list[tuple[str, Any]] = []
    everyone = ""
    for token in TOKEN.findall(clause):
        if token[0].isdigit():
            first, _, last = token.partition("-")
            numbers += _range(int(first), int(last or first), rounds)
        elif token in ("@all", "@rest"):
            everyone = token[1:]
        elif token.startswith("@"):
            words.append(("fault", token[1:]))
        elif token in WORDS:
            words.append(WORDS[token])
        elif token not in FILLER:
            raise invalid("/said", f"“{token[:40]}” says nothing of a bread here. Use {', '.join(sorted(WORDS))}.")
    return numbers, words, everyone


def _range(first: int, last: int, rounds: int) -> list[int]:
    for n in (first, last):
        if not 1 <= n <= rounds:
            raise invalid("/said", f"There is no bread {n}; this bake has 1 to {rounds}.")
    if last < first:
        raise invalid("/said", f"{first} to {last} runs backward. Say {last} to {first}.")
    return list(range(first, last + 1))
