"""Phrases of a line beside its amount and its ingredient: what it is for, how warm it goes in, how wet a starter is."""

from __future__ import annotations

import re

from brassclock.core.units import celsius

PURPOSES = {  # what goes beside the dough, by the words that say so
    "fry": r"for (?:shallow |deep )?frying|for the (?:pan|griddle|skillet|wok)|for cooking",
    "brush": r"(?:for|to) (?:brush(?:ing)?|bast(?:e|ing)|glaz(?:e|ing))(?: with)?|for the glaze",
    "fold": r"for (?:folding|layering|laminating|spreading|shaping)(?: with)?",
    "dust": r"(?:for|to) (?:dust(?:ing)?|roll(?:ing)?(?: out)?|flour(?:ing)?)|"
    r"for the (?:bench|counter|work ?surface|board)",
    "bowl": r"(?:for|to) (?:greas(?:e|ing)|oil(?:ing)?)(?: the (?:bowl|tray|tin))?|for the (?:bowl|tray|tin)",
    "serve": r"(?:to|for) (?:serv(?:e|ing)|garnish(?:ing)?|finish(?:ing)?|sprinkl(?:e|ing)|top(?:ping)?)|"
    r"(?:for the|on) top",
}
_ANY_PURPOSE = "|".join(f"(?:{words})" for words in PURPOSES.values())
_MORE = re.compile(
    r",?\s*(?:\b(?:plus|and)|\+|&) (?:some |a little |a bit )?(?:more|extra|some)?\s*"
    r"(?:[\d½¼¾⅓⅔./]+\s*(?:g|ml|tbsp|tsp|cups?|tablespoons?|teaspoons?)?\s+)?(?:more |extra )?(?:[a-z]+ )?"
    rf"(?:{_ANY_PURPOSE}).*$",
    re.IGNORECASE,
)
_DIVIDED = re.compile(r",?\s*\b(?:divided|in two parts|in halves)\b", re.IGNORECASE)
_WET = re.compile(
    r",?\s*(?:\bat )?\b(\d{2,3})\s*%\s*hydration\b|,?\s*\bhydration\s*(?:of |: ?)?(\d{2,3})\s*%", re.IGNORECASE
)
_KIND = re.compile(
    r"\b\d{1,2}(?:[.,]\d)?\s*%\s*(?:(?:protein|fat|milk fat|butterfat|acidity|acid)\b|"
    r"(?=(?:\w+ )?(?:vinegar|milk|yogh?urt|cream)\b.*\d))",
    re.IGNORECASE,
)
_AT_HEAT = re.compile(  # "at 30 C", "warmed to 105 F", "40 degrees C"; a bare "40 c" may be cups
    r",?\s*\(?(?:(?:\b(?:at|of|to|about|warmed to|heated to|cooled to)\s+)+(\d{1,3}(?:[.,]\d)?)\s*(?:°|degrees?)?|"
    r"\b(\d{1,3}(?:[.,]\d)?)\s*(?:°|degrees?))\s*(c|f|celsius|fahrenheit)\b\)?",
    re.IGNORECASE,
)
COLDEST_C, HOTTEST_C = -20.0, 100.0  # of what goes in a bowl


def purpose_of(text: str) -> tuple[str, str, str]:
    """(the line without its purpose, a key of PURPOSES or empty for the dough, a note on what else is said)."""
    more = _MORE.search(text)
    if more:
        return text[: more.start()].strip(" ,"), "", "And a little more beside the dough, as the line says."
    for purpose, words in PURPOSES.items():
        found = re.search(rf",?\s*\b(?:{words})\b", text, re.IGNORECASE)
        if found:
            return (text[: found.start()] + " " + text[found.end() :]).strip(" ,"), purpose, ""
    divided = _DIVIDED.sub("", text)
    return divided.strip(" ,"), "", "All of it, though it goes in by parts." if divided != text else ""


def hydration(text: str) -> tuple[float | None, str]:
    """(the hydration that a line tells of its starter [%], the line without it and without what else it tells of a
    kind in per cent)."""
    wet = _WET.search(text)
    rest = _KIND.sub(" ", _WET.sub(" ", text))
    return (float(wet[1] or wet[2]) if wet else None), re.sub(r"\(\s*\)", " ", re.sub(r"\s+", " ", rest)).strip(" ,")


def at_heat(text: str) -> tuple[str, float | None, str]:
    """(the line without its temperature, that [C], the fault of one that cannot be)."""
    said = _AT_HEAT.search(text)
    if said is None:
        return text, None, ""
    degrees = float((said[1] or said[2]).replace(",", "."))
    temp_c = celsius(degrees, said[3])
    rest = (text[: said.start()] + text[said.end() :]).strip(" ,")
    if not COLDEST_C <= temp_c <= HOTTEST_C:
        return rest, None, f"{said[0].strip(' ,')} is no temperature for a bowl. Give one up to {HOTTEST_C:.0f} C."
    return rest, round(temp_c, 1), ""
