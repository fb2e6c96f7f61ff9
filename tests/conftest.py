"""Shared by every test: compiled steppers, as the running server has them."""

from __future__ import annotations

import pytest
from hypothesis import settings
from xdist.remote import Producer
from xdist.scheduler.loadscope import LoadScopeScheduling

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


class Rooms(LoadScopeScheduling):
    """Which worker has which test: those of the interface are one worker's, for two browsers and their servers at once
    would starve each other; of the others each file is one's, with what its tests share."""

    def _split_scope(self, nodeid: str) -> str:
        return "browser" if nodeid.startswith("tests/browser/") else nodeid.split("::")[0]


def pytest_xdist_make_scheduler(config: pytest.Config, log: Producer) -> Rooms:
    return Rooms(config, log)
