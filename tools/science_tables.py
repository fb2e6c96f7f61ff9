"""Writes the parameter tables of docs/science.md from the parameters themselves. `make tables`; a test fails when
stale."""

from __future__ import annotations

import re
from collections.abc import Mapping
from pathlib import Path

from brassclock.core.evidence import Param
from brassclock.core.fire.puff import params as puff
from brassclock.core.mix import heat
from brassclock.core.rise import dough_heat
from brassclock.core.rise.chemical import params as chemical
from brassclock.core.rise.sourdough import params as sourdough
from brassclock.core.rise.yeast import params as yeast

PAGE = Path(__file__).parents[1] / "docs/science.md"
TABLES: dict[str, Mapping[str, Param]] = {
    "yeast": yeast.PARAMS,
    "strength": yeast.STRENGTH_S,
    "sourdough": sourdough.PARAMS,
    "dough-heat": dough_heat.PARAMS,
    "mix": heat.PARAMS,
    "chemical": chemical.PARAMS,
    "puff": puff.PARAMS,
}


def table_of(params: Mapping[str, Param]) -> str:
    """A parameter set as a Markdown table."""
    rows = ["| name | value | unit | range | evidence | source |", "|---|---|---|---|---|---|"]
    rows += [
        f"| `{name}` | {p.value:.6g} | {p.unit} | {p.low:.4g} to {p.high:.4g} | {p.kind.value} | {p.source} |"
        for name, p in params.items()
    ]
    return "\n".join(rows)


def renewed(page: str) -> str:
    """The page with every table between its marks made anew."""
    for name, params in TABLES.items():
        begin, end = f"<!-- table: {name} -->", "<!-- end -->"
        page, count = re.subn(
            rf"{re.escape(begin)}.*?{re.escape(end)}", f"{begin}\n{table_of(params)}\n{end}", page, flags=re.DOTALL
        )
        if count != 1:
            raise ValueError(f"docs/science.md holds {count} places for the table {name}; give it one.")
    return page


if __name__ == "__main__":
    PAGE.write_text(renewed(PAGE.read_text("utf-8")), "utf-8")
