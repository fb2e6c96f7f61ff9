"""A weigh sheet as CSV and as Markdown, out and back in. Reading takes a row's first two useful columns as amount and
name."""

from __future__ import annotations

import csv
import html
import io
import re
from collections.abc import Sequence

from brassclock.core.weigh.columns import is_head, line_of

UNSEEN = " \t\r\n\v\f\u00a0\u200b\u200c\u200d\u2060\ufeff"
OWN_HEAD = "| amount | ingredient | g | % of flour |"
COLUMNS = ("ingredient", "amount", "grams", "percent_of_flour", "part")


def write_csv(rows: Sequence[tuple[str, str, float, float | None, str]]) -> str:
    """Rows of (name, amount as typed, grams, share of flour, part)."""
    text = io.StringIO()
    out = csv.writer(text, lineterminator="\n")
    out.writerow(COLUMNS)
    for name, amount, grams, share, part in rows:
        percent = "" if share is None else f"{share * 100:.2f}"
        out.writerow((safe_cell(name), safe_cell(amount), f"{grams:.1f}", percent, safe_cell(part)))
    return text.getvalue()


def safe_cell(cell: str) -> str:
    """A cell that no table program takes for a formula, whatever blanks, line ends or unseen marks it begins with.

    >>> safe_cell("plain flour"), safe_cell(" =1+1"), safe_cell("\\u200b@sum")[:1]
    ('plain flour', "' =1+1", "'")
    """
    seen = cell.lstrip(UNSEEN)
    return f"'{cell}" if seen[:1] in tuple("=+-@\uff1d\uff0b\uff0d\uff20") or cell[:1] in ("\t", "\r", "\n") else cell


def is_csv(text: str) -> bool:
    """True if a text is a table: every line that holds anything is parted by the same mark, as often as the first.

    >>> is_csv("ingredient,amount\\nflour,500 g"), is_csv("Naan, soft\\nflour 500 g"), is_csv("flour, bread 500 g")
    (True, False, False)
    """
    lines = [line for line in text.splitlines() if line.strip()]
    try:
        counts = [
            {len(row) for row in csv.reader(lines, delimiter=mark)} for mark in (",", ";", "\t") if mark in lines[0]
        ]
    except csv.Error:
        return True
    return len(lines) > 1 and any(len(found) == 1 and min(found) > 1 for found in counts)


def read_csv(text: str) -> list[str]:
    """Ingredient lines as text, from a table with a heading or without; its lines as they are when it is no table."""
    lines = text.splitlines()
    try:
        dialect: type[csv.Dialect] | str = csv.Sniffer().sniff(text[:2000], delimiters=",;\t")
    except csv.Error:
        dialect = "excel"
    try:
        found = list(csv.reader((f"{line}\n" for line in lines), dialect))
    except csv.Error:
        found = [[line] for line in lines]
    rows = [[c.strip() for c in row] for row in found if any(c.strip() for c in row)]
    if not rows:
        return []
    head = [c.lower() for c in rows[0]]
    if "ingredient" in head and {"amount", "grams"} & set(head):
        name = head.index("ingredient")
        amount = head.index("amount" if "amount" in head else "grams")
        unit = " g" if head[amount] == "grams" else ""
        return [
            f"{row[amount]}{unit} {row[name].lstrip(chr(39))}" if amount < len(row) else row[name]
            for row in rows[1:]
            if name < len(row)
        ]
    return [line_of(rows[0], row) for row in rows[1:]] if is_head(rows[0]) else [line_of([], row) for row in rows]


def write_markdown(
    name: str, about: Sequence[str], rows: Sequence[tuple[str, str, float, float | None, str]], steps: Sequence[str]
) -> str:
    """A page: heading, facts, a table of the formula, the steps."""
    lines = [
        f"# {_plain(name)}",
        "",
        *map(_plain, about),
        "",
        OWN_HEAD,
        "|---|---|---:|---:|",
    ]
    for what, amount, grams, share, _ in rows:
        lines.append(
            f"| {_plain(amount)} | {_plain(what)} | {grams:.1f} | {'' if share is None else f'{share * 100:.1f}'} |"
        )
    if steps:
        lines += ["", "## Steps", "", *(f"{i}. {_plain(s)}" for i, s in enumerate(steps, start=1))]
    return "\n".join(lines) + "\n"


def _plain(text: str) -> str:
    """Text that stays text in a page: one line, no tags, no table bars."""
    flat = " ".join(text.split())
    return flat.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace("|", "\\|")


def read_markdown(text: str) -> tuple[str | None, list[str]]:
    """(heading, ingredient lines) of a page that `write_markdown` made; no lines of another."""
    if OWN_HEAD not in text:
        return None, []
    title = re.search(r"^#\s+(.+)$", text, re.MULTILINE)
    body = re.split(r"^##\s", text, maxsplit=1, flags=re.MULTILINE)[0]
    rows = [
        [html.unescape(c.strip().replace("\\|", "|")) for c in re.split(r"(?<!\\)\|", line.strip().strip("|"))]
        for line in body.splitlines()
        if line.strip().startswith("|")
    ]
    rows = [r for r in rows if not all(re.fullmatch(r":?-+:?", c) for c in r)]
    found = [f"{r[0]} {r[1]}" for r in rows[1:] if len(r) > 1]
    return (html.unescape(title[1].strip()) if title else None), found
