"""Pictures of a bake through their doors."""

from __future__ import annotations

import base64
import io
from typing import Any

from flask.testing import FlaskClient
from PIL import Image


def jpeg(width: int = 900, height: int = 600) -> str:
    out = io.BytesIO()
    Image.new("RGB", (width, height), "tan").save(out, "JPEG")
    return base64.b64encode(out.getvalue()).decode()


def test_a_picture_of_a_round_is_kept_shown_removed_and_brought_back(client: FlaskClient, bake: dict[str, Any]) -> None:
    url = f"/api/bakes/{bake['id']}"
    answer = client.post(f"{url}/photos", json={"round_no": 2, "data": jpeg()})
    assert answer.status_code == 201, answer.text
    (photo,) = answer.json["keep"]["photos"]
    assert (photo["round_no"], photo["width"], photo["height"]) == (2, 900, 600)
    assert answer.json["revision"] > bake["revision"], "other tablets see it"
    shown = client.get(f"/api/photos/{photo['id']}")
    assert (shown.mimetype, shown.headers["X-Content-Type-Options"]) == ("image/jpeg", "nosniff")
    assert Image.open(io.BytesIO(shown.data)).size == (900, 600)
    assert client.delete(f"/api/photos/{photo['id']}").json["keep"]["photos"] == []
    assert client.get(f"/api/photos/{photo['id']}").status_code == 404
    assert len(client.post(f"/api/photos/{photo['id']}/restore").json["keep"]["photos"]) == 1


def test_what_cannot_be_kept_is_told_and_nothing_is_stored(client: FlaskClient, bake: dict[str, Any]) -> None:
    url = f"/api/bakes/{bake['id']}/photos"
    text = base64.b64encode(b"flour.jpg is a list of flours").decode()
    for body, pointer in (
        ({"data": text}, "/data"),
        ({"data": "not base64!"}, "/data"),
        ({"data": "\u00a90"}, "/data"),
        ({"data": jpeg(), "round_no": 99}, "/round_no"),
    ):
        refused = client.post(url, json=body)
        assert refused.status_code == 422 and refused.json["errors"][0]["pointer"] == pointer
    heavy = client.post(url, data=b'{"data": "' + b"A" * 50_000_000 + b'"}', content_type="application/json")
    assert heavy.status_code == 413 and "a picture holds 12 MB" in heavy.json["detail"]
    assert client.get(f"/api/bakes/{bake['id']}").json["keep"]["photos"] == []
    assert client.get("/api/photos/99").status_code == 404
    assert client.delete("/api/photos/99").status_code == 404
