"""What the Kitchen's plan is drawn from: where surfaces lie, their heat as told and as believed, where doughs stand."""

from __future__ import annotations

from typing import Any

from flask.testing import FlaskClient

from helpers import Clock

PLATE = {"name": "Plate", "kind": "iron_plate", "temp_c": 240, "source": "typed"}


def test_a_surface_lies_where_it_was_laid_and_no_two_on_one_place(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}/surfaces"
    first = client.post(at, json=PLATE | {"lies": 4}).json["surfaces"][-1]
    second = client.post(at, json=PLATE | {"name": "Stone"}).json["surfaces"][-1]
    assert (first["lies"], second["lies"]) == (4, None)
    refused = client.put(f"{at}/{second['id']}", json=PLATE | {"name": "Stone", "temp_c": 250, "lies": 4})
    assert refused.status_code == 422
    assert refused.json["errors"][0]["pointer"] == "/lies"
    assert "“Plate” lies there" in refused.json["errors"][0]["detail"]
    kept = client.get(f"/api/kitchens/{kitchen['id']}").json["surfaces"][-1]
    assert (kept["temp_c"], kept["lies"]) == (240, None), "nothing is half saved"
    assert client.put(f"{at}/{second['id']}", json=PLATE | {"lies": 12}).status_code == 422
    # its place is taken while it is away: it comes back without one
    client.delete(f"{at}/{first['id']}")
    assert client.put(f"{at}/{second['id']}", json=PLATE | {"lies": 4}).status_code == 200
    back = {s["id"]: s["lies"] for s in client.post(f"{at}/{first['id']}/restore").json["surfaces"]}
    assert (back[first["id"]], back[second["id"]]) == (None, 4)


def test_a_surface_is_believed_as_narrowly_as_it_is_known(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}/surfaces"
    widths = []
    for known in ({"temp_c": None, "source": None}, {}, {"source": "infrared"}, {"source": "contact"}):
        s = client.post(at, json=PLATE | known).json["surfaces"][-1]
        assert s["told"] == s["believed"], "no bread has taught it"
        assert s["believed"]["p50_c"] == s["temp_c"]
        widths.append(s["believed"]["p90_c"] - s["believed"]["p10_c"])
    assert widths == sorted(widths, reverse=True)
    assert widths[0] > 4 * widths[-1]


def test_a_dough_stands_where_its_stage_is_until_it_is_rolled(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any]
) -> None:
    bake = client.post(
        "/api/bakes", json={"kitchen_id": kitchen["id"], "method": "cellar-pita", "serve": "in 26 h"}
    ).json["id"]

    def stands() -> str | None:
        found = client.get(f"/api/kitchens/{kitchen['id']}/bench").json["bakes"]
        return next(b["stands"] for b in found if b["id"] == bake)  # type: ignore[no-any-return]

    def tap(kind: str) -> None:
        answer = client.post(f"/api/bakes/{bake}/taps", json={"key": f"{bake}-{kind}", "kind": kind})
        assert answer.status_code == 201, answer.text

    assert stands() is None
    for kind in ("weigh", "mix"):
        tap(kind)
    assert stands() == "bench"
    tap("cold_in")
    clock.pass_(minutes=60)
    assert stands() == "fridge"
    clock.pass_(minutes=40 * 60)
    assert stands() == "fridge", "as long as it was not taken out"
    tap("cold_out")
    assert stands() == "bench"
