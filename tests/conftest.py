"""Shared by every test: compiled steppers, as the running server has them."""

from __future__ import annotations

from pathlib import Path

import pytest
from hypothesis import settings
from xdist.remote import Producer
from xdist.scheduler.loadscope import LoadScopeScheduling
from xdist.workermanage import WorkerController

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


@pytest.fixture(scope="session")
def migrated(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """An empty data file of the newest schema, made once: a test begins with a copy of it."""
    from brassclock.store.engine import FILE_NAME, close_store, open_store

    folder = tmp_path_factory.mktemp("migrated")
    close_store(open_store(folder))
    return folder / FILE_NAME


class Rooms(LoadScopeScheduling):
    """Which worker has which tests: each file is one's, with what its tests share. While there are others, one worker
    has no tests of the interface: those wait more than they compute, and too many at once slow each other down."""

    def _split_scope(self, nodeid: str) -> str:
        return nodeid.split("::")[0]

    def _assign_work_unit(self, node: WorkerController) -> None:
        others = [work for who, work in self.assigned_work.items() if who is not node]
        busy = sum(any(_of_interface(f) and not all(done.values()) for f, done in work.items()) for work in others)
        wanted = (f for f in self.workqueue if _of_interface(f) == (busy < max(1, self.numnodes - 1)))
        self.workqueue.move_to_end(next(wanted, next(iter(self.workqueue))), last=False)
        super()._assign_work_unit(node)


def _of_interface(file: str) -> bool:
    return file.startswith("tests/browser/")


@pytest.hookimpl(optionalhook=True)
def pytest_xdist_make_scheduler(config: pytest.Config, log: Producer) -> Rooms:
    return Rooms(config, log)
