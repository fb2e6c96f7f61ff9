"""Names that cooks use: words to ingredient ids, for reading a list as it is spoken or pasted."""

from __future__ import annotations

import csv
import difflib
import re
from collections.abc import Mapping
from functools import lru_cache
from importlib.resources import files

from brassclock.core.matter.ingredients import Ingredient

CARELESS = re.compile(
    r"\b(of|the|a|an|some|hand[- ]hot|warm|lukewarm|tepid|cold|cool|hot|ice|iced|boiling|room[- "
    r"]temperature|sifted|chopped|softened|"
    r"melted|large|medium|small|beaten|heaped|level|dipped|spooned|rounded|scant|generous|good|more|extra|plus|approx|"
    r"about|organic|freshly|finely|roughly|grated|active mature|ripe|fed|bubbly|crumbled|mashed|cooked|raw|dissolved|"
    r"crushed|boiled|"
    r"unsweetened|runny|clear|toasted|peeled|whisked|lightly|well|weighed|packed|thick|soft|of your "
    r"choice|tap|filtered|washed|dry|enough)\b"
)
# words that may stand beside a name without making it another thing
HARMLESS = frozenset(
    [
        "fresh",
        "full",
        "fat",
        "natural",
        "plain",
        "unsalted",
        "sachet",
        "sachets",
        "packet",
        "packets",
        "cube",
        "fast",
        "action",
        "quick",
        "rapid",
        "easy",
        "bake",
        "dried",
        "active",
        "sourdough",
        "wheat",
        "culture",
        "bulk",
        "vegetable",
        "olive",
        "virgin",
        "sunflower",
        "neutral",
        "seed",
        "seeds",
        "leaves",
        "leaf",
        "bunch",
        "free",
        "range",
        "hen",
        "whole",
        "tin",
        "can",
        "low",
        "moisture",
        "table",
        "kitchen",
        "cooking",
        "firm",
        "cow",
        "goat",
        "sheep",
        "your",
        "own",
        "favourite",
        "little",
        "strong",
    ]
)


@lru_cache(maxsize=1)
def spoken_names() -> dict[str, str]:
    """Ids by the names that cooks use, without dashes."""
    text = (files("brassclock.core.matter") / "data" / "names.csv").read_text("utf-8")
    return {row["name"].replace("-", " "): row["ingredient"] for row in csv.DictReader(text.splitlines())}


_GRADE_BEHIND = re.compile(r"^(?:wheat |white )?(flour) ((?:type |tipo |t ?)?(?:00|\d{2,4})|strong|plain)$")


def plain(words: str) -> str:
    """Words lowered, without what stands after a comma or in brackets, without what does not change the ingredient."""
    clean = re.sub(r"\([^)]*\)", " ", words.lower()).replace("-", " ").replace("’", "'").replace("‘", "'")
    clean = re.sub(r"(?<!\w)['\"“]([^'\"”]+)['\"”](?!\w)", r"\1", clean)
    clean = _GRADE_BEHIND.sub(r"\2 \1", re.split(r"[,;]| or | plus | for ", clean)[0].strip())
    return re.sub(r"\s+", " ", CARELESS.sub(" ", clean)).strip(" .:-–*•")


def _other(left: str) -> list[str]:
    """The words beside a name that may make it another thing."""
    return [w for w in re.findall(r"[a-z’']+", left) if w not in HARMLESS and len(w) > 1]


def things(words: str, rows: Mapping[str, Ingredient]) -> list[str]:
    """The ingredients that a phrase names side by side, joined by `and`; empty for a single thing."""
    clean = plain(words)
    parts = [p for p in re.split(r"\s+(?:and|&|with)\s+", clean) if p]
    if len(parts) < 2 or clean in spoken_names() or clean in _named(rows):
        return []
    found = [ingredient_of(p, rows)[0] for p in parts]
    return [f for f in found if f is not None] if all(found) and len(set(found)) > 1 else []


_KIND_AFTER = re.compile(r"^([^,(]+?)\s*[,(]\s*([^,()]+)\)?$")


def _named(rows: Mapping[str, Ingredient]) -> dict[str, str]:
    """Ids by the names of the table."""
    return {row.name.lower().replace("-", " "): key for key, row in rows.items()}


def meant(words: str, rows: Mapping[str, Ingredient]) -> str:
    """Words as `plain` has them; a name with its kind behind it the other way round (`Yeast, active dry`, `dried yeast
    (instant)`), where that is a name."""
    said = _KIND_AFTER.match(words.strip())
    both = re.sub(r"\s+", " ", f"{said[2]} {said[1]}".lower().replace("-", " ")).strip(" .") if said else ""
    return both if spoken_names().get(both) in rows or both in _named(rows) else plain(words)


def ingredient_of(words: str, rows: Mapping[str, Ingredient]) -> tuple[str | None, list[str]]:
    """(id that is meant, else None; near ids, nearest first)."""
    clean = meant(words, rows)
    if not clean:
        return None, []
    if clean.replace(" ", "_") in rows:
        return clean.replace(" ", "_"), []
    named = _named(rows)
    for known in (named, spoken_names()):
        if clean in known and known[clean] in rows:
            return known[clean], []
    inside = [w for w in {**spoken_names(), **named} if w in clean and re.search(rf"\b{re.escape(w)}\b", clean)]
    if inside:
        best = max(inside, key=len)
        found = named.get(best) or spoken_names()[best]
        left = re.sub(rf"\b{re.escape(best)}\b", " ", clean, count=1)
        if not _other(left):
            return found, []
        return None, [found]  # another word stands beside it: it may be another thing
    close = difflib.get_close_matches(clean, [*spoken_names(), *named], n=4, cutoff=0.6)
    near = list(dict.fromkeys(named.get(w) or spoken_names()[w] for w in close))
    if close and difflib.SequenceMatcher(None, clean, close[0]).ratio() >= 0.86:
        return near[0], near[1:]
    return None, near
