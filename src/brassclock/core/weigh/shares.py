"""Lines that say a share of the flour (65 % water), put into grams by the flour that is weighed."""

from __future__ import annotations

import re

_NUM = r"\d{1,3}(?:[.,]\d{1,2})?"
_PERCENT = r"\s*(?:%|per ?cent\b)"
_TO = rf"(?:\s*(?:-|–|to)\s*({_NUM}))?{_PERCENT}"
_FIRST = re.compile(rf"^({_NUM})(?:{_PERCENT})?{_TO}\s*(?:of\s+)?(\D+)$", re.IGNORECASE)
_LAST = re.compile(rf"^(\D+?)[\s:=,–-]+({_NUM}){_TO}\.?$", re.IGNORECASE)
_BESIDE = re.compile(
    rf"\s*[(\[/|,;=–-]*\s*(?<![\d.,]){_NUM}{_PERCENT}\s*(?:of (?:the )?flour)?\s*[)\]]?", re.IGNORECASE
)
_BARE_BESIDE = re.compile(  # 390 g (65); a grade of flour (00) is none
    r"(\d\s?(?:g|kg|ml|l)\b.*?)\s*\((?!00)\d{1,3}(?:[.,]\d{1,2})?\)\s*$", re.IGNORECASE
)
UNWEIGHED = (
    "That is a share of the flour, and no flour is given by weight. Give it, as in 500 g, or write how much this is."
)
TOO_MUCH = "The shares of the flours come to 100 % or more beside a flour that is given by weight."


def share_of(text: str) -> tuple[tuple[float, float] | None, str]:
    """(lowest and highest share of the flour, the rest) of a line that says one and no other figure; else (None, the
    line).

    >>> share_of("65% water"), share_of("salt 2 %"), share_of("5% vinegar 20 g")
    (((0.65, 0.65), 'water'), ((0.02, 0.02), 'salt'), (None, '5% vinegar 20 g'))
    """
    first, last = _FIRST.match(text), _LAST.match(text)
    if first:
        low, high, rest = first[1], first[2], first[3]
    elif last:
        rest, low, high = last[1], last[2], last[3]
    else:
        return None, text
    shares = [float(x.replace(",", ".")) / 100 for x in (low, high or low)]
    return (min(shares), max(shares)), rest.strip()


def without_shares(text: str) -> str:
    """The line without the shares that it tells beside a weight.

    >>> without_shares("Water: 325 g (65%)"), without_shares("100% flour"), without_shares("salt 10 g / 2 %")
    ('Water: 325 g', 'flour', 'salt 10 g')
    >>> without_shares("water 390 g (65)"), without_shares("500 g flour (00)")
    ('water 390 g', '500 g flour (00)')
    """
    return re.sub(r"\s+", " ", _BESIDE.sub(" ", _BARE_BESIDE.sub(r"\1", text))).strip(" ,;|/=–-")


def whole_flour_g(weighed_g: float, shares: float) -> float | None:
    """All the flour [g] of a list: what is weighed, and flours that are shares of the whole; None where that cannot
    be."""
    return weighed_g / (1 - shares) if weighed_g > 0 and shares < 1 else None


def grams_said(share: tuple[float, float], flour_g: float) -> tuple[str, str]:
    """(the amount of a share of so much flour, how it came about)."""
    low, high = (f"{x * flour_g:.1f}".removesuffix(".0") for x in share)
    of = f"{100 * share[0]:g}" if low == high else f"{100 * share[0]:g} to {100 * share[1]:g}"
    return (f"{low} g" if low == high else f"{low}-{high} g"), f"{of} % of {flour_g:.0f} g flour."
