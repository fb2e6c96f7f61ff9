"""Bake the two winters of the demo kitchen and store them as its package. `make winters` writes it: about a minute."""

from __future__ import annotations

import sys
import tempfile
from pathlib import Path

from brassclock.cli import _cache_home
from brassclock.demo.canteen import build_kitchen
from brassclock.demo.winters import build_winters
from brassclock.services.app import App
from brassclock.services.pages.package import package_out
from brassclock.services.steppers import warm_all
from brassclock.store.engine import open_store

PACKAGE = Path(__file__).parents[1] / "src" / "brassclock" / "demo" / "winters.zip"


def main() -> None:
    _cache_home()
    warm_all()
    target = Path(sys.argv[1]) if len(sys.argv) > 1 else PACKAGE
    with tempfile.TemporaryDirectory() as data:
        app = App(open_store(Path(data)), with_demo=True)
        kitchen_id = build_kitchen(app)
        build_winters(app, kitchen_id)
        _, packed = package_out(app, kitchen_id)
    target.write_bytes(packed)
    print(f"{target}: {len(packed)} bytes")


if __name__ == "__main__":
    main()
