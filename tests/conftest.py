"""Shared by every test: compiled steppers, as the running server has them."""

from __future__ import annotations

import pytest


@pytest.fixture(scope="session", autouse=True)
def compiled() -> None:
    """Compile (or load) both steppers."""
    from brassclock.cli import _cache_home
    from brassclock.services.steppers import warm_all

    _cache_home()
    assert warm_all()
