"""Steps of a recipe taken apart: sentences, and clauses that each tell one thing to do."""

from __future__ import annotations

import re
from collections.abc import Iterator

_SENTENCE = re.compile(r"(?<!\d)\.\s+|\.\s+(?=[A-Z])")
_CLAUSE = re.compile(
    r"(?:[;!]|(?<!\d)\.(?=\s|$)|\.(?=\s+[A-Z])|,?\s+(?:and )?then\b|"
    r"(?<!covered),(?!\s*(?:or|until|till|about|covered|at|not|up to|approx|around|roughly)\b|"
    r"\s*\d[\d.,/ –-]*\s?(?:mm|cm|inch\w*)\b|"
    r"\s*(?:for )?\d[\d.,/ –-]*(?:to \d+ )?\s?(?:min\w*|h|hrs?|hours?)\b\s*(?:[.;,)]|$))|"
    r"\s*(?:->|→|\+(?!\s*\d+ ?%))|"
    r"\s+and\s+(?=(?:leave|rest|let|roll|cook|bake|fry|prove|proof|place|put|refrigerate|chill|knead|divide|shape|"
    r"stretch)\b))\s*"
)
_QUOTED_MIN = re.compile(r"(?<![\d.])(\d{1,3})\s*['′](?=\s|[+,;.)]|$)")  # 6' of mixing
_QUOTED_BOTH = re.compile(r"(?<![\d.])(\d{1,2})['′]\s?(\d{1,2})(?:[\"″]|'')")  # 2'30"
_SUM_MIN = re.compile(r"(?<![\d.])(\d{1,2})\s*\+\s*(\d{1,2})\s*min\b", re.I)  # 4 + 4 min
_BARE_MIN = re.compile(  # knead 10, rest 15
    r"\b(knead|rest|relax|proof|prove)\s+(\d{1,2})(?=\s*(?:[,;]|\.(?!\d)|$))", re.I
)
_LONE_M = re.compile(r"\b(knead|rest|relax|proof|prove|rise|mix|bulk)\s+(\d{1,3}) ?m\b", re.I)  # rest 20 m
_BENCH = re.compile(r"\bbench (\d{1,2})\b(?!\s*(?:min|h|°|c\b))", re.I)


def _spelt_out(step: str) -> str:
    """A step with its short ways of writing minutes spelt out.

    >>> _spelt_out("mix 6' & rest 20, knead 4 + 4 min, bench 15, bake 2'30\\"")
    'mix 6 min and rest 20 min, knead 8 min, bench rest 15 min, bake 2.5 min'
    """
    text = _BARE_MIN.sub(r"\1 \2 min", _LONE_M.sub(r"\1 \2 min", step.replace(" & ", " and ")))
    text = _SUM_MIN.sub(lambda m: f"{int(m[1]) + int(m[2])} min", text)
    text = _QUOTED_BOTH.sub(lambda m: f"{int(m[1]) + int(m[2]) / 60:g} min", text)
    return _BENCH.sub(r"bench rest \1 min", _QUOTED_MIN.sub(r"\1 min", text))


def sentences(step: str) -> list[str]:
    """The sentences of a step."""
    return _SENTENCE.split(_spelt_out(step))


def clauses(sentence: str) -> Iterator[str]:
    """The clauses of a sentence; a time or a length behind a comma stays with what it is of.

    >>> list(clauses("Divide into 8, rest 20 min, covered, then roll thin, 2 mm"))
    ['Divide into 8', 'rest 20 min, covered', 'roll thin, 2 mm']
    """
    return (raw for raw in _CLAUSE.split(sentence) if raw and raw.strip())
