"""An App with a hand-set clock, and its application."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.api.app import create_app
from brassclock.services.app import App
from brassclock.store.engine import open_store
from helpers import Clock


@pytest.fixture
def clock() -> Clock:
    return Clock()


@pytest.fixture
def app(tmp_path: Path, clock: Clock, migrated: Path) -> App:
    shutil.copy(migrated, tmp_path)
    return App(open_store(tmp_path), with_demo=False, real_now=clock)


@pytest.fixture
def client(app: App) -> FlaskClient:
    return create_app(app).test_client()


@pytest.fixture
def kitchen(client: FlaskClient) -> dict[str, Any]:
    body = {"zone": "UTC", "room_c": 22, "surface": {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 2}}
    answer = client.post("/api/kitchens", json=body)
    assert answer.status_code == 201, answer.text
    return answer.json


@pytest.fixture
def bake(client: FlaskClient, kitchen: dict[str, Any]) -> dict[str, Any]:
    answer = client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": "in 5 h"})
    assert answer.status_code == 201, answer.text
    return answer.json
