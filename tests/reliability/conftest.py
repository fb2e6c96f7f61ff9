"""An App over a fresh store whose clock a test sets, its application, and a kitchen with two plates."""

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

PLATE = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "spots": 2}
STONE = {"name": "Stone", "kind": "stone_oven", "temp_c": 275, "spots": 1}


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
def kitchen(client: FlaskClient) -> int:
    made = client.post("/api/kitchens", json={"zone": "UTC", "room_c": 22, "surface": PLATE}).json["id"]
    assert client.post(f"/api/kitchens/{made}/surfaces", json=STONE).status_code == 201
    return int(made)


@pytest.fixture
def bake(client: FlaskClient, kitchen: int) -> dict[str, Any]:
    made = client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 5 h"})
    assert made.status_code == 201, made.text
    return dict(client.patch(f"/api/bakes/{made.json['id']}", json={"surface_id": 1}).json)
