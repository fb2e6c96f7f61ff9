"""Rows of a table of ingredients as lines of a list: what stands in a column has the unit of the column's head."""

from __future__ import annotations

import re
from collections.abc import Sequence
from itertools import zip_longest

_NUMBER = re.compile(r"\d+(?:[.,]\d+)?")
_UNITS = (  # of a bare number, by the words of its column's head
    ("%", re.compile(r"%|\bper ?cent", re.IGNORECASE)),
    (" kg", re.compile(r"\bkg\b|\bkilo", re.IGNORECASE)),
    (" g", re.compile(r"\bg\b|\bgr(?:ams?)?\b|\bweight\b|\bmass\b", re.IGNORECASE)),
    (" ml", re.compile(r"\bml\b|\bmillilit", re.IGNORECASE)),
    (" oz", re.compile(r"\boz\b|\bounces?\b", re.IGNORECASE)),
)
_HEADS = re.compile(
    r"ingredients?|items?|materials?|name|what|amounts?|quantity|qty|baker'?s|" + _UNITS[0][1].pattern, re.I
)
MOST_CELLS = 3  # name, share, weight; what follows is a remark


def is_head(row: Sequence[str]) -> bool:
    """True if a row names its columns.

    >>> is_head(["Ingredient", "%", "g"]), is_head(["Flour", "100", "500"])
    (True, False)
    """
    cells = [c for c in row if c.strip()]
    return (
        len(cells) > 1 and not any(_NUMBER.search(c) for c in cells) and any(_HEADS.fullmatch(c.strip()) for c in cells)
    )


def line_of(head: Sequence[str], row: Sequence[str]) -> str:
    """A row as a line, under the head of its table or none.

    >>> line_of(["Ingredient", "%", "g"], ["Flour", "100", "500"])
    'Flour 100% 500 g'
    """
    told = []
    for title, cell in zip_longest(head, row, fillvalue=""):
        cell = cell.strip()
        bare = _NUMBER.fullmatch(cell) is not None
        unit = next((unit for unit, words in _UNITS if words.search(title)), "") if bare else ""
        told.append(f"{cell}{unit}")
    cells = [c for c in told if c]
    return ", ".join([" ".join(cells[:MOST_CELLS]), *cells[MOST_CELLS:]])
