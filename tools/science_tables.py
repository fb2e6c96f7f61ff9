"""Writes the parameter tables of docs/science.md and the whole of docs/parameters.md from the parameters themselves.

Run by `make tables`; a test fails when either is stale.
"""

from __future__ import annotations

import importlib
import pkgutil
import re
from collections.abc import Mapping
from pathlib import Path

import brassclock.core
from brassclock.core.evidence import Param
from brassclock.core.fire.puff import params as puff
from brassclock.core.mix import heat
from brassclock.core.rise import dough_heat
from brassclock.core.rise.chemical import params as chemical
from brassclock.core.rise.sourdough import params as sourdough
from brassclock.core.rise.yeast import params as yeast

PAGE = Path(__file__).parents[1] / "docs/science.md"
ALL = Path(__file__).parents[1] / "docs/parameters.md"
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


def constants() -> dict[str, dict[str, Param]]:
    """Every parameter of the core by the module that defines it, each once."""
    found: dict[str, dict[str, Param]] = {}
    seen: set[int] = set()
    for info in sorted(pkgutil.walk_packages(brassclock.core.__path__, "brassclock.core."), key=lambda m: m.name):
        text = Path(importlib.import_module(info.name).__file__ or "").read_text("utf-8")
        for name, value in vars(importlib.import_module(info.name)).items():
            here = {name: value} if isinstance(value, Param) else {}
            if isinstance(value, dict):
                here = {f"{name}.{k}": v for k, v in value.items() if isinstance(v, Param)}
            if not here or not re.search(rf"^{name}(: .*)? = ", text, re.MULTILINE):
                continue
            new = {k: p for k, p in here.items() if id(p) not in seen}
            seen.update(id(p) for p in new.values())
            if new:
                found.setdefault(info.name.removeprefix("brassclock."), {}).update(new)
    return found


def every_parameter() -> str:
    """The page of all parameters, by module."""
    found = constants()
    counts: dict[str, int] = {}
    for params in found.values():
        for p in params.values():
            counts[p.kind.value] = counts.get(p.kind.value, 0) + 1
    total = sum(counts.values())
    classes = ", ".join(f"{n} {kind}" for kind, n in sorted(counts.items(), key=lambda x: -x[1]))
    head = (
        "# Every parameter\n\n"
        f"{total} numbers of physics and practice, each with its unit, believable range, evidence class and source: "
        f"{classes}. Made from the code by `make tables`. What is no parameter is a setting of the "
        "computation (grids, step lengths, bounds).\n"
    )
    return head + "".join(f"\n## {module}\n\n{table_of(params)}\n" for module, params in found.items())


if __name__ == "__main__":
    ALL.write_text(every_parameter(), "utf-8")
    PAGE.write_text(renewed(PAGE.read_text("utf-8")), "utf-8")
