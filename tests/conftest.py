"""Shared by every test: compiled steppers, as the running server has them."""

from __future__ import annotations

import pytest
from hypothesis import settings

# a machine under load answers late, not wrongly: no example is timed
settings.register_profile("project", deadline=None)
settings.load_profile("project")


@pytest.fixture(scope="session", autouse=True)
def compiled() -> None:
    """Compile (or load) both steppers."""
    from brassclock.cli import _cache_home
    from brassclock.services.steppers import warm_all

    _cache_home()
    assert warm_all()
