"""Over the network: nobody without the passcode, every write with its page's token, guests and instruments kept to what
they are let in for."""

from __future__ import annotations

from typing import Any

import pytest
from flask.testing import FlaskClient

from brassclock.api.app import create_app
from brassclock.api.gate import COOKIE, CSRF_COOKIE, CSRF_HEADER
from brassclock.core.errors import InvalidInput
from brassclock.services.access.passcode import FREE_TRIES, Locked, Tries, is_set, set_passcode
from brassclock.services.app import App
from brassclock.store import access as rows
from helpers import Clock

WORDS = "stone window apricot"


@pytest.fixture
def lan(app: App, kitchen: dict[str, Any]) -> FlaskClient:
    """The application for the network, over the same kitchen; its passcode is set."""
    set_passcode(app, WORDS)
    return create_app(app, lan=True).test_client()


def signed_in(lan: FlaskClient, name: str = "Tablet") -> dict[str, str]:
    """Headers of a write by a device that is signed in."""
    answer = lan.post("/api/session", json={"passcode": WORDS, "name": name})
    assert answer.status_code == 200, answer.text
    found = lan.get_cookie(CSRF_COOKIE)
    assert found is not None
    return {CSRF_HEADER: found.value}


def test_without_the_passcode_nothing_is_told_and_nothing_taken(lan: FlaskClient, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}"
    for method, path in (("get", "/api/kitchens"), ("get", f"{at}/bench"), ("patch", at), ("post", "/api/bakes"),
                         ("get", "/api/devices"), ("get", "/api/backups"), ("post", "/api/compute/weigh")):  # fmt: skip
        answer = getattr(lan, method)(path, **({} if method == "get" else {"json": {}}))
        assert answer.status_code == 401, (path, answer.status_code)
        assert answer.json["detail"] == "This kitchen asks for its passcode. Open the page and sign in."
    assert lan.get("/api/session").json["signed_in"] is False
    lan.set_cookie(COOKIE, "x" * 43)
    assert lan.get("/api/kitchens").status_code == 401


def test_a_write_carries_the_token_of_its_page(lan: FlaskClient, kitchen: dict[str, Any]) -> None:
    token = signed_in(lan)
    at = f"/api/kitchens/{kitchen['id']}"
    assert lan.get("/api/kitchens").status_code == 200
    assert lan.patch(at, json={"name": "Ours"}).status_code == 403
    assert lan.patch(at, json={"name": "Ours"}, headers={CSRF_HEADER: "0" * 64}).status_code == 403
    foreign = {**token, "Origin": "http://elsewhere.example"}
    assert lan.patch(at, json={"name": "Ours"}, headers=foreign).status_code == 403
    assert lan.get(at).json["name"] != "Ours"
    assert lan.patch(at, json={"name": "Ours"}, headers=token).status_code == 200


def test_the_sign_in_is_no_script_s_and_no_other_site_s(lan: FlaskClient) -> None:
    answer = lan.post("/api/session", json={"passcode": WORDS, "name": "Tablet"})
    mine = next(c for c in answer.headers.getlist("Set-Cookie") if c.startswith(f"{COOKIE}="))
    assert "HttpOnly" in mine and "SameSite=Strict" in mine
    # over TLS it goes over TLS alone
    answer = lan.post("/api/session", json={"passcode": WORDS, "name": "T"}, base_url="https://localhost")
    assert all("Secure" in c for c in answer.headers.getlist("Set-Cookie"))


def test_a_device_is_listed_and_forgotten(lan: FlaskClient, app: App) -> None:
    token = signed_in(lan, "Tomo")
    other = create_app(app, lan=True).test_client()
    theirs = signed_in(other, "Ada")
    listed = lan.get("/api/devices").json["devices"]
    assert [(d["name"], d["mine"]) for d in listed] == [("Ada", False), ("Tomo", True)]
    assert lan.delete(f"/api/devices/{listed[0]['id']}", headers=token).status_code == 200
    assert other.get("/api/kitchens").status_code == 401
    assert other.patch("/api/kitchens/1", json={}, headers=theirs).status_code == 401
    assert lan.delete("/api/session", headers=token).status_code == 200
    assert lan.get("/api/kitchens").status_code == 401


def test_a_guest_sees_the_next_move_and_no_name(lan: FlaskClient, kitchen: dict[str, Any], clock: Clock) -> None:
    token = signed_in(lan)
    body = {"kitchen_id": kitchen["id"], "serve": "in 5 h", "name": "Anna's birthday"}
    assert lan.post("/api/bakes", json=body, headers=token).status_code == 201
    made = lan.post("/api/devices/guest", json={"kitchen_id": kitchen["id"]}, headers=token).json
    guest = lan.application.test_client()
    seen = guest.get(f"/api/guest/{made['token']}")
    assert seen.status_code == 200, seen.text
    assert seen.json["next"] and seen.json["breads"][0]["stage"] == "weigh"
    assert "Anna" not in seen.text and kitchen["name"] not in seen.text
    guest.set_cookie(COOKIE, made["token"])
    assert guest.get("/api/kitchens").status_code == 401  # a guest's token signs nobody in
    clock.pass_(hours=25)
    assert guest.get(f"/api/guest/{made['token']}").status_code == 404


def test_an_instrument_sends_readings_and_nothing_else(lan: FlaskClient, kitchen: dict[str, Any]) -> None:
    token = signed_in(lan)
    body = {"kitchen_id": kitchen["id"], "name": "Probes"}
    made = lan.post("/api/devices/instrument", json=body, headers=token).json
    probe = lan.application.test_client()
    bearer = {"Authorization": f"Bearer {made['token']}"}
    reading = {"channel": "room", "value": 21.4}
    assert probe.post("/api/instruments/readings", json=reading, headers=bearer).status_code == 200
    assert probe.get("/api/kitchens", headers=bearer).status_code == 401
    assert probe.post("/api/instruments/readings", json=reading).status_code == 401
    lan.delete(f"/api/devices/{made['id']}", headers=token)
    assert probe.post("/api/instruments/readings", json=reading, headers=bearer).status_code == 401


def test_wrong_passcodes_bring_ever_longer_waits(app: App, lan: FlaskClient) -> None:
    seconds = [0.0]
    tries = Tries(lambda: seconds[0])
    for _ in range(FREE_TRIES):
        assert not tries.matches(app, "wrong words here", "10.0.0.7")
    waits = []
    for _ in range(4):
        with pytest.raises(Locked) as locked:
            tries.matches(app, WORDS, "10.0.0.7")  # the right one too has to wait
        waits.append(locked.value.wait_s)
        seconds[0] += locked.value.wait_s + 0.1
        assert not tries.matches(app, "wrong words here", "10.0.0.7")
    assert waits == pytest.approx([30, 60, 120, 240], abs=1)
    assert tries.matches(app, WORDS, "10.0.0.8")  # others need not wait for that
    answers = [lan.post("/api/session", json={"passcode": "no no no", "name": "x"}) for _ in range(FREE_TRIES + 1)]
    assert [a.status_code for a in answers] == [401] * FREE_TRIES + [429]
    assert int(answers[-1].headers["Retry-After"]) <= 31


def test_the_passcode_is_kept_as_an_argon2id_hash_and_no_token_is_kept(app: App, lan: FlaskClient) -> None:
    made = signed_in(lan)
    lan.post("/api/devices/guest", json={"kitchen_id": 1}, headers=made | {"Idempotency-Key": "guest-0001"})
    cookie = lan.get_cookie(COOKIE)
    assert cookie is not None
    with app.connect() as connection:
        assert connection.exec_driver_sql("select hash from passcode").scalar().startswith("$argon2id$")
        dump = "\n".join(connection.connection.iterdump())
    assert cookie.value not in dump and WORDS not in dump
    with app.connect() as connection:
        assert connection.exec_driver_sql("select count(*) from answered where asked is not null").scalar() == 0


@pytest.mark.parametrize("words", ["short", "12345678", "aaaaaaaaaaaa", "Password"])
def test_a_passcode_that_is_guessed_is_refused(app: App, words: str) -> None:
    with pytest.raises(InvalidInput):
        set_passcode(app, words)
    assert not is_set(app)


def test_this_machine_alone_asks_for_no_passcode(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    told = client.get("/api/session").json
    assert (told["lan"], told["signed_in"]) == (False, True)
    assert client.post("/api/session", json={"passcode": WORDS, "name": "x"}).status_code == 409


def test_who_asks_too_often_waits(lan: FlaskClient) -> None:
    answers = [lan.get("/api/kitchens").status_code for _ in range(320)]
    assert set(answers) == {401, 429} and answers.index(429) >= 290


def test_a_restore_lets_in_nobody_who_was_forgotten_since(app: App, lan: FlaskClient, tmp_path: Any) -> None:
    from brassclock.services import backups
    from brassclock.store.engine import close_store
    from brassclock.store.restoring import restored

    token = signed_in(lan, "Lost tablet")
    copy = backups.path_of(app, backups.make(app).name)
    device = lan.get("/api/devices").json["devices"][0]["id"]
    lan.delete(f"/api/devices/{device}", headers=token)
    set_passcode(app, "another four words here")
    after = create_app(app, lan=True).test_client()
    assert after.post("/api/session", json={"passcode": "another four words here", "name": "New"}).status_code == 200
    close_store(app.engine)
    engine, _ = restored(tmp_path, copy)
    anew = App(engine, with_demo=False, real_now=app.real_now)
    with anew.read() as session:
        assert [d.name for d in rows.devices(session)] == ["New"]
    client = create_app(anew, lan=True).test_client()
    assert client.post("/api/session", json={"passcode": WORDS, "name": "x"}).status_code == 401
    engine.dispose()
