"""A bake that nobody closes is asked about once, and leaves the live list by itself when nothing more is due."""

from __future__ import annotations

from typing import Any

from flask.testing import FlaskClient

from brassclock.api.kitchens import app
from brassclock.services.bake.ending import put_away
from helpers import Clock, bake_out


def put_away_now(client: FlaskClient) -> int:
    with client.application.app_context():
        return put_away(app())


def test_it_is_kept_half_a_day_after_it_was_asked_and_never_before(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    client.patch(url, json={"count": 2})
    assert "not over yet" in client.post(f"{url}/asked").json["detail"]
    bake_out(client, clock, url)
    clock.pass_(hours=20)
    assert put_away_now(client) == 0, "it was never asked"
    assert client.post(f"{url}/asked").status_code == 200
    clock.pass_(hours=11)
    assert (put_away_now(client), client.get(url).json["status"]) == (0, "live")
    clock.pass_(hours=2)
    assert (put_away_now(client), client.get(url).json["status"]) == (1, "kept")
    assert put_away_now(client) == 0
    client.put(f"{url}/status", json={"status": "live"})
    clock.pass_(hours=30)
    assert (put_away_now(client), client.get(url).json["status"]) == (0, "live"), "brought back, it is asked anew"


def test_what_is_tapped_after_the_question_is_waited_for(
    client: FlaskClient, kitchen: dict[str, Any], clock: Clock
) -> None:
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    client.patch(url, json={"count": 1})
    bake_out(client, clock, url)
    client.post(f"{url}/asked")
    off = next(t["id"] for t in client.get(url).json["taps"] if t["kind"] == "off")
    client.delete(f"{url}/taps/{off}")
    clock.pass_(hours=14)
    assert put_away_now(client) == 0, "one is on the heat again"
