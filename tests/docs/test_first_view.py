"""The first view is small: what the page asks for before it shows anything."""

from __future__ import annotations

import gzip
import re
from pathlib import Path

WEB = Path(__file__).parents[2] / "src/brassclock/web"
MOST_KB = 180


def test_the_scripts_of_the_first_view_are_under_their_bound() -> None:
    """The entry and everything it preloads, compressed."""
    page = (WEB / "index.html").read_text("utf-8")
    scripts = re.findall(r'(?:src|href)="/(assets/[^"]+\.js)"', page)
    sizes = {name: len(gzip.compress((WEB / name).read_bytes(), 9)) / 1000 for name in scripts}
    assert len(sizes) > 2
    assert sum(sizes.values()) <= MOST_KB, sizes
