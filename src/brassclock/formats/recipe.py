"""schema.org Recipe as JSON-LD, in and out. Reading takes the ingredient list as text, line by line, and never guesses.

What the format cannot hold (our exact settings) rides in a `PropertyValue` under `additionalProperty`, so
that our own export comes back whole.
"""

from __future__ import annotations

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from brassclock.core.spoken import numbered
from brassclock.formats.bakefile import FORMAT, BakeFile

SCRIPT = re.compile(r"<script[^>]*application/ld\+json[^>]*>(.*?)</script>", re.IGNORECASE | re.DOTALL)


@dataclass(frozen=True)
class FoundRecipe:
    """A recipe as found: its name, its ingredient lines as text, how many it makes, our own file when it rode along."""

    name: str
    lines: tuple[str, ...]
    count: int | None
    steps: tuple[str, ...]
    own: dict[str, Any] | None = None


def write(bake: BakeFile, lines: Sequence[str], steps: Sequence[str]) -> str:
    """A Recipe with its ingredients as a cook would say them."""
    doc = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": bake.name,
        "recipeIngredient": list(lines),
        "recipeYield": _yield(bake),
        "recipeInstructions": [{"@type": "HowToStep", "text": s} for s in steps],
        "additionalProperty": {"@type": "PropertyValue", "propertyID": FORMAT, "value": bake.model_dump(mode="json")},
    }
    return json.dumps(doc, ensure_ascii=False, indent=2) + "\n"


def _yield(bake: BakeFile) -> str:
    """Number of breads, those of every kind."""
    if not bake.count:
        return "1 dough"
    return ", ".join([numbered(bake.count, "bread"), *(f"{p.count} {p.name.lower()}" for p in bake.parts)])


def _nodes(data: Any) -> list[dict[str, Any]]:
    if isinstance(data, list):
        return [n for item in data for n in _nodes(item)]
    if isinstance(data, dict):
        return [data, *_nodes(data.get("@graph", []))]
    return []


def _is_recipe(node: dict[str, Any]) -> bool:
    kind = node.get("@type")
    return "Recipe" in (kind if isinstance(kind, list) else [kind])


def _texts(value: Any) -> list[str]:
    """Every text in instructions of whatever nesting."""
    if isinstance(value, str):
        return [line.strip() for line in value.splitlines() if line.strip()]
    if isinstance(value, list):
        return [t for item in value for t in _texts(item)]
    if isinstance(value, dict):
        return _texts(value.get("itemListElement") or value.get("text") or value.get("name") or "")
    return []


def _count(value: Any) -> int | None:
    texts = [str(v) for v in value] if isinstance(value, list) else [str(value or "")]
    for text in texts:
        match = re.search(r"\d{1,3}", text)
        if match and 1 <= int(match[0]) <= 500:
            return int(match[0])
    return None


def find(data: Any) -> FoundRecipe | None:
    """The first Recipe in JSON-LD of any shape; None when there is none."""
    for node in _nodes(data):
        if not _is_recipe(node):
            continue
        lines = _texts(node.get("recipeIngredient") or node.get("ingredients") or [])
        extra = node.get("additionalProperty")
        own = None
        if isinstance(extra, dict) and extra.get("propertyID") == FORMAT and isinstance(extra.get("value"), dict):
            own = extra["value"]
        name = str(node.get("name") or "Imported recipe").strip()[:80] or "Imported recipe"
        return FoundRecipe(
            name, tuple(lines), _count(node.get("recipeYield")), tuple(_texts(node.get("recipeInstructions"))), own
        )
    return None


def from_page(text: str) -> Any:
    """JSON-LD out of a saved web page; None when the text holds none."""
    found = []
    for block in SCRIPT.findall(text):
        try:
            found.append(json.loads(block))
        except ValueError:
            continue
    return found or None
