"""Write docs/licences.md: what the server needs at run time, with its licence, from the packages themselves.

What is built into the pages has its notices in `notices.txt` beside them, which the build writes.
"""

from __future__ import annotations

import tomllib
from importlib.metadata import Distribution, distribution
from pathlib import Path

from packaging.requirements import Requirement

ROOT = Path(__file__).resolve().parent.parent
PAGE = ROOT / "docs" / "licences.md"
HEAD = """# Licences of what this stands on

The server's packages are installed from their registry, each with its own notice in its folder; none of their code is
kept here. The scripts, styles and fonts of the pages are shipped: their notices are in `notices.txt`, which the build
writes beside them from what it really took in, and the server sends at `/notices.txt`.

This page is made by `python tools/licences.py`; a test fails when it is stale.

| package | version | licence |
|---|---|---|
"""


def licence_of(found: Distribution) -> str:
    """The licence as a package names it: its expression, else its classifiers, else its own short words."""
    told = found.metadata.json
    if "license_expression" in told:
        return str(told["license_expression"])
    classes = [c.rpartition(" :: ")[2] for c in told.get("classifier", []) if c.startswith("License ::")]
    short = str(told.get("license", "")).splitlines()
    return ", ".join(classes) or (short[0][:60] if short else "see its own files")


def needed() -> dict[str, Distribution]:
    """Every package that the server needs at run time on such a machine, and what those need; whatever else lies
    beside them."""
    wanted = [Requirement(d) for d in tomllib.loads((ROOT / "pyproject.toml").read_text())["project"]["dependencies"]]
    found: dict[str, Distribution] = {}
    while wanted:
        name = wanted.pop().name
        key = name.lower().replace("_", "-")
        if key in found:
            continue
        found[key] = distribution(name)
        told = (Requirement(r) for r in found[key].requires or [])
        wanted += [r for r in told if r.marker is None or r.marker.evaluate({"extra": ""})]
    return found


def page() -> str:
    """The page as it is to be."""
    rows = (f"| {d.metadata['Name']} | {d.version} | {licence_of(d)} |" for _, d in sorted(needed().items()))
    return HEAD + "\n".join(rows) + "\n"


if __name__ == "__main__":
    PAGE.write_text(page(), "utf-8")
