"""A kitchen as a Data Package: valid by a library of its own, out and in without loss, in twice without doubling, back
with one press; hostile files refused with nothing brought in."""

from __future__ import annotations

import base64
import csv
import io
import json
import re
import zipfile
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path
from typing import Any

import pytest
from flask.testing import FlaskClient
from frictionless import Package
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from brassclock.api.app import create_app
from brassclock.cli import main
from brassclock.core.errors import InvalidInput
from brassclock.formats.package import Column, Resource, guarded, plain, read, write
from brassclock.formats.picture import picture_of
from brassclock.services.app import App, Conflict
from brassclock.services.pages import bringing
from brassclock.services.pages.bringing import Progress, kitchen_of_package, package_in
from brassclock.services.pages.package import PARTS, package_out
from brassclock.store.engine import open_store
from helpers import Clock, bake_out

WINTERS = (files("brassclock.demo") / "winters.zip").read_bytes()
REFERS = {"id", "bake_id", "surface_id", "bag_id", "starter_id", "calendar_id", "photo_id"}
NOW = "2026-11-24T12:00:00+00:00"
ROTA = "\r\n".join(
    [
        "BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Mount Pell//Rota//EN", "X-WR-CALNAME:Rota", "BEGIN:VEVENT",
        "UID:1", "DTSTAMP:20260101T000000Z", "SUMMARY:watch", "DTSTART:20261125T200000Z", "DURATION:PT2H",
        "RRULE:FREQ=DAILY;COUNT=3", "END:VEVENT", "END:VCALENDAR", "",
    ]
)  # fmt: skip


def tables(packed: bytes) -> dict[str, list[dict[str, str]]]:
    """Rows of a package by table, without the numbers that are a database's own."""
    with zipfile.ZipFile(io.BytesIO(packed)) as z:
        return {
            part.name: [
                {k: v for k, v in row.items() if k not in REFERS}
                for row in csv.DictReader(io.StringIO(z.read(f"{part.name}.csv").decode(), newline=""))
            ]
            for part in PARTS
        }


def jpeg(width: int = 600, height: int = 400) -> str:
    """A picture as the program keeps it, in base64."""
    raw = io.BytesIO()
    Image.new("RGB", (width, height), "tan").save(raw, "JPEG")
    return base64.b64encode(picture_of(raw.getvalue()).body).decode()


def fresh(path: Path) -> App:
    return App(open_store(path), with_demo=False, real_now=Clock())


def test_the_package_is_valid_and_comes_back_whole(tmp_path: Path) -> None:
    """Out of one database and into another: every cell of every table is the same but the databases' own numbers, and
    the library of the specification finds no fault in it."""
    a, b = fresh(tmp_path / "a"), fresh(tmp_path / "b")
    package_in(a, kitchen_of_package(a, WINTERS), WINTERS)
    _, first = package_out(a, 1)
    found = package_in(b, kitchen_of_package(b, first), first)
    assert found.refused_count == 0 and found.added["bakes"] == 37
    _, second = package_out(b, 1)
    was, now = tables(first), tables(second)
    for name, rows in was.items():
        assert now[name] == rows, name
    for told in ('{"mix": 3}', '{"mix": ["x", 1], "ball": []}'):  # what another day was told breaks nothing here
        again = fresh(tmp_path / str(len(told)))
        package_in(again, kitchen_of_package(again, first), altered("bakes.csv", broken(2, "told", told), first))
        client = create_app(again).test_client()
        assert client.post("/api/bakes", json={"kitchen_id": 1, "serve": "in 6 h"}).status_code == 201
    target = tmp_path / "kitchen.zip"
    target.write_bytes(second)
    report = Package(str(target)).validate()
    assert report.valid, report.flatten(["title", "message"])[:5]


def test_a_package_brought_twice_doubles_nothing_and_is_taken_back(tmp_path: Path) -> None:
    app = fresh(tmp_path)
    kitchen = kitchen_of_package(app, WINTERS)
    client = create_app(app).test_client()
    before = tables(package_out(app, kitchen)[1])
    data = {"data": base64.b64encode(WINTERS).decode()}
    first = client.post(f"/api/kitchens/{kitchen}/packages", json=data)
    assert first.status_code == 201, first.text
    again = client.post(f"/api/kitchens/{kitchen}/packages", json=data).json
    assert again["added"] == {} and again["there"]["bakes"] == first.json["added"]["bakes"] == 37
    assert again["there"]["lessons"] == first.json["added"]["lessons"]
    whole = client.get(f"/api/kitchens/{kitchen}/lessons").json
    at = f"/api/kitchens/{kitchen}/packages"
    assert client.post(f"{at}/{first.json['id']}/undo").status_code == 200
    assert client.post(f"{at}/{first.json['id']}/undo").status_code == 409
    assert tables(package_out(app, kitchen)[1]) == before, "as it was before it came"
    assert client.get(f"/api/kitchens/{kitchen}/lessons").json == {"beliefs": []}
    client.post(at, json=data)
    beliefs = client.get(f"/api/kitchens/{kitchen}/lessons").json["beliefs"]
    assert [(b["about"], b["mean"]) for b in beliefs] == [(b["about"], b["mean"]) for b in whole["beliefs"]]


def test_pictures_calendars_tables_from_the_freezer_and_drills_go_along(
    client: FlaskClient, clock: Clock, kitchen: dict[str, Any], tmp_path: Path
) -> None:
    """What hangs on rows of other tables hangs on them there too: a picture's bytes, what was taken out for a table."""
    home = f"/api/kitchens/{kitchen['id']}"
    given = {"kitchen_id": kitchen["id"], "serve": "in 3 h", "method": "hatch-pita"}
    url = f"/api/bakes/{client.post('/api/bakes', json=given).json['id']}"
    bake_out(client, clock, url)
    photo = client.post(f"{url}/photos", json={"round_no": 2, "data": jpeg()}).json["keep"]["photos"][0]
    shown = client.get(f"/api/photos/{photo['id']}").data
    client.post(f"{url}/freeze", json={"count": 8, "divided": True})
    client.put(f"{url}/status", json={"status": "kept"})
    table = client.post(f"{home}/freezer/servings", json={"wanted": 3, "serve": "tomorrow 12:00"}).json["servings"][0]
    taken = client.put(f"{home}/freezer/servings/{table['id']}", json={"number": 0, "what": "heated"}).json
    assert taken["rows"][0]["left"] == 5
    client.post(f"{home}/calendars", json={"text": ROTA})
    case = client.post(f"{home}/drill", json={"kind": "read"}).json
    client.post(f"{home}/drill/{case['id']}/answer", json={"read": {"state": "now", "sure": "sure"}})
    first = client.get(f"{home}/package").data
    with zipfile.ZipFile(io.BytesIO(first)) as z:
        z.extractall(tmp_path / "out")
    assert Package(str(tmp_path / "out" / "datapackage.json")).validate().valid
    other = fresh(tmp_path / "b")
    found = package_in(other, kitchen_of_package(other, first), first)
    assert found.refused == [] and found.refused_count == 0
    was, now = tables(first), tables(package_out(other, 1)[1])
    for row in (*was["bakes"], *now["bakes"]):
        del row["told"]  # what cooks were told is told anew
    assert now == was
    there = create_app(other).test_client()
    assert there.get("/api/photos/1").data == shown
    back = there.put("/api/kitchens/1/freezer/servings/1", json={"number": 0, "what": "heated", "done": False}).json
    assert back["rows"][0]["left"] == 8, "it is given back to the row it was taken from"
    assert there.get("/api/kitchens/1/drill").json["kinds"] == client.get(f"{home}/drill").json["kinds"]
    assert package_in(other, 1, first).added == {}
    undone = there.post(f"/api/kitchens/1/packages/{found.id}/undo")
    assert undone.status_code == 200
    left = tables(package_out(other, 1)[1])
    assert [left[t] for t in ("photos", "photo_bytes", "calendars", "calendar_hours", "drills")] == [[]] * 5


@pytest.mark.parametrize(
    ("table", "column", "value", "word"),
    [
        ("photo_bytes", "body", base64.b64encode(b"<script>alert(1)</script>").decode(), "cannot be read as a picture"),
        ("photo_bytes", "body", "no base64", "no base64"),
        ("calendar_hours", "end", "2020-01-01T00:00:00+00:00", "not after start"),
        ("servings", "moves", '[{"row_id": 99}]', "moves"),
        ("drills", "kind", "wave", "kind"),
        ("drills", "figures", '{"turn_s": "soon"}', "figures"),
    ],
)
def test_what_goes_along_is_checked_as_all_else(
    client: FlaskClient, kitchen: dict[str, Any], tmp_path: Path, table: str, column: str, value: str, word: str
) -> None:
    rows = {  # a line of each table, as a package has it
        "photos": {"id": 1, "bake_id": 1, "round_no": 1, "width": 9, "height": 9, "added_at": NOW, "removed_at": ""},
        "photo_bytes": {"id": 1, "photo_id": 1, "body": jpeg(9, 9)},
        "calendars": {"id": 1, "name": "Rota", "text": ROTA, "hands": "", "all_day": "false", "known_until": NOW},
        "calendar_hours": {"id": 1, "calendar_id": 1, "name": "watch", "start": NOW, "end": "2026-11-24T14:00:00Z"},
        "servings": {"id": 1, "serve_at": NOW, "wanted": 2, "moves": "[]", "cancelled_at": ""},
        "drills": {"id": 1, "kind": "read", "level": 1, "seed": 1, "version": 1, "opened_at": NOW, "figures": "{}"},
    }
    client.post("/api/bakes", json={"kitchen_id": kitchen["id"], "serve": "in 5 h"})
    packed = client.get(f"/api/kitchens/{kitchen['id']}/package").data
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(packed)) as was, zipfile.ZipFile(out, "w") as now:
        for name in was.namelist():
            text = was.read(name).decode()
            row = rows.get(name.removesuffix(".csv"))
            if row is not None:
                head = next(csv.reader([text.splitlines()[0]]))
                cells = io.StringIO()
                told = row | ({column: value} if name == f"{table}.csv" else {})
                csv.writer(cells).writerow([told.get(h) for h in head])
                text += cells.getvalue()
            now.writestr(name, text)
    app = fresh(tmp_path / "b")
    found = package_in(app, kitchen_of_package(app, out.getvalue()), out.getvalue())
    assert [(r.table, r.line) for r in found.refused][:1] == [(table, 2)], found.refused
    assert word in found.refused[0].detail
    assert found.added["bakes"] == 1


def test_a_package_on_its_way_in_tells_how_far_it_is_and_is_stopped(tmp_path: Path) -> None:
    app = fresh(tmp_path)
    kitchen = kitchen_of_package(app, WINTERS)
    client = create_app(app).test_client()
    at = f"/api/kitchens/{kitchen}/packages"
    assert client.get(f"{at}/progress").json == {"under_way": False, "done": 0, "of": 0}
    seen = list[dict[str, Any]]()

    class Watching(Progress):
        """Asks how far it is a third of the way, and has it stopped at two thirds."""

        def step(self) -> None:
            if self.done == self.of // 3:
                seen.append(client.get(f"{at}/progress").json)
            if self.done == 2 * self.of // 3:
                seen.append(client.post(f"{at}/stop", json={}).json)
            super().step()

    before = tables(package_out(app, kitchen)[1])
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr(bringing, "Progress", Watching)
        with pytest.raises(Conflict, match="Nothing of the package is stored"):
            package_in(app, kitchen, WINTERS)
    assert [x["under_way"] for x in seen] == [True, True]
    assert 0 < seen[0]["done"] < seen[1]["done"] < seen[0]["of"]
    assert tables(package_out(app, kitchen)[1]) == before
    assert client.get(f"{at}/progress").json["under_way"] is False
    assert package_in(app, kitchen, WINTERS).added["bakes"] == 37, "and it comes in another time"


def test_what_was_done_with_a_package_stays_when_it_is_taken_back(tmp_path: Path) -> None:
    """A bake that was begun here on a surface of the package keeps it."""
    app = fresh(tmp_path)
    kitchen = kitchen_of_package(app, WINTERS)
    client = create_app(app).test_client()
    brought = package_in(app, kitchen, WINTERS)
    stone = next(s for s in client.get(f"/api/kitchens/{kitchen}").json["surfaces"] if s["name"] == "Baking stone")
    bake = client.post("/api/bakes", json={"kitchen_id": kitchen, "serve": "in 6 h", "method": "terrace-naan"}).json
    client.patch(f"/api/bakes/{bake['id']}", json={"surface_id": stone["id"]})
    client.post(f"/api/kitchens/{kitchen}/packages/{brought.id}/undo")
    left = client.get(f"/api/kitchens/{kitchen}").json["surfaces"]
    assert [s["name"] for s in left] == ["Baking stone"]
    assert client.get(f"/api/bakes/{bake['id']}").json["settings"]["surface_id"] == stone["id"]


COLUMNS = (Column("id", "integer", True), Column("t", "string", True), Column("n", "number"), Column("o", "object"))


@given(
    st.lists(
        st.tuples(
            st.text(st.characters(exclude_categories=["Cs"], exclude_characters="\0"), max_size=30),
            st.none() | st.floats(allow_nan=False, allow_infinity=False),
            st.none() | st.dictionaries(st.text("ab=\u00e9", max_size=3), st.integers() | st.text("=+'x", max_size=3)),
        ),
        max_size=6,
    )
)
def test_every_cell_comes_back_and_none_is_a_formula(
    rows: list[tuple[str, float | None, dict[str, Any] | None]],
) -> None:
    given_rows = [{"id": k, "t": t, "n": n, "o": o} for k, (t, n, o) in enumerate(rows)]
    packed = write("k", "K", Clock()(), [Resource("things", COLUMNS, given_rows)])
    found = read(packed, [Resource("things", COLUMNS)])
    assert [row for _, row in found.rows["things"]] == given_rows and not found.refused
    with zipfile.ZipFile(io.BytesIO(packed)) as z:
        cells = [row[1] for row in csv.reader(io.StringIO(z.read("things.csv").decode(), newline=""))]
    assert not [c for c in cells if c.lstrip()[:1] in tuple("=+-@")]


@given(st.text(max_size=20))
def test_a_guarded_text_is_itself_again(text: str) -> None:
    assert plain(guarded(text)) == text


def altered(name: str, change: Callable[[str], str], packed: bytes = WINTERS) -> bytes:
    """A package with one file changed."""
    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(packed)) as z, zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as w:
        for member in z.namelist():
            text = z.read(member).decode()
            w.writestr(member, change(text) if member == name else text)
    return out.getvalue()


def zipped(**members: bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as w:
        for name, body in members.items():
            w.writestr(name.replace("__", "/").replace("_dot_", "."), body)
    return out.getvalue()


def described(path: str) -> bytes:
    return json.dumps({"resources": [{"name": "bakes", "path": path}]}).encode()


DEEP = b'{"resources":' + b"[" * 200_000
HOSTILE = {
    "no zip": b"PK\x03\x04 not a zip at all",
    "empty": b"",
    "a bomb": zipped(datapackage_dot_json=described("bakes.csv"), bakes_dot_csv=b"0" * 420_000_000),
    "a zip in it": zipped(datapackage_dot_json=described("bakes.csv"), inner_dot_zip=WINTERS),
    "a path upwards": zipped(datapackage_dot_json=described("bakes.csv"), **{"..__..__etc_dot_csv": b"x"}),
    "a path it names": zipped(datapackage_dot_json=described("../../etc/passwd")),
    "a path that is missing": zipped(datapackage_dot_json=described("bakes.csv")),
    "deep JSON": zipped(datapackage_dot_json=DEEP),
    "no description": zipped(bakes_dot_csv=b"id\r\n1\r\n"),
    "none of its tables": zipped(datapackage_dot_json=b'{"resources": []}'),
    "cut off": WINTERS[:-40],
    "Latin letters": zipped(datapackage_dot_json=described("bakes.csv"), bakes_dot_csv="cr\u00e8me".encode("latin-1")),
    "columns missing": zipped(datapackage_dot_json=described("bakes.csv"), bakes_dot_csv=b"id,name\r\n1,x\r\n"),
    "many files": zipped(
        datapackage_dot_json=described("bakes.csv"), **{f"f{'a' * n}_dot_csv": b"" for n in range(45)}
    ),
}


@pytest.mark.parametrize("name", HOSTILE)
def test_a_hostile_file_is_refused_and_nothing_of_it_stays(
    client: FlaskClient, kitchen: dict[str, Any], name: str
) -> None:
    at = f"/api/kitchens/{kitchen['id']}"
    before = client.get(f"{at}/package").data
    body = {"data": base64.b64encode(HOSTILE[name]).decode() or "===="}
    answer = client.post(f"{at}/packages", json=body)
    assert answer.status_code == 422, answer.text
    assert answer.json["errors"][0]["detail"]
    assert tables(client.get(f"{at}/package").data) == tables(before)


def broken(line: int, column: str, value: str) -> Callable[[str], str]:
    def change(text: str) -> str:
        rows = list(csv.reader(io.StringIO(text, newline="")))
        rows[line - 1][rows[0].index(column)] = value
        out = io.StringIO()
        csv.writer(out, lineterminator="\r\n").writerows(rows)
        return out.getvalue()

    return change


def without(column: str) -> Callable[[str], str]:
    def change(text: str) -> str:
        rows = list(csv.DictReader(io.StringIO(text, newline="")))
        out = io.StringIO()
        kept = csv.DictWriter(out, [k for k in rows[0] if k != column], extrasaction="ignore", lineterminator="\r\n")
        kept.writeheader()
        kept.writerows(rows)
        return out.getvalue()

    return change


def test_a_package_of_an_earlier_version_lacks_a_column(tmp_path: Path) -> None:
    """A column that came later is as it is for what was there before; one that says what a row is has to be there."""
    app = fresh(tmp_path)
    earlier = altered("surfaces.csv", without("nonstick"))
    assert package_in(app, kitchen_of_package(app, earlier), earlier).refused_count == 0
    with zipfile.ZipFile(io.BytesIO(package_out(app, 1)[1])) as z:
        rows = list(csv.DictReader(io.StringIO(z.read("surfaces.csv").decode(), newline="")))
    assert rows and {r["nonstick"] for r in rows} == {"false"}
    with pytest.raises(InvalidInput, match="has no column kind"):
        package_in(app, 1, altered("surfaces.csv", without("kind")))


@pytest.mark.parametrize(
    ("table", "column", "value", "word", "lost"),
    [
        ("bakes", "dough_c", "4000", "dough_c", 1),
        ("bakes", "serve_at", "yesterday", "instant", 1),
        ("bakes", "lines", "{}", "brackets", 1),
        ("bakes", "lines", "[" * 100_000, "brackets", 1),
        ("bakes", "status", "asleep", "status", 1),
        ("bakes", "pins", '{"mix": "noon"}', "pins", 1),
        ("taps", "kind", "juggle", "kind", 0),
        ("outcomes", "pocket", "exploded", "pocket", 0),
        ("surfaces", "temp_c", "1e300", "temp_c", 0),
        ("outcomes", "bake_id", "999999", "none of the bakes", 0),
    ],
)
def test_a_line_that_cannot_be_is_told_and_the_others_are_taken(
    tmp_path: Path, table: str, column: str, value: str, word: str, lost: int
) -> None:
    """With a refused bake go the lines that belong to it, each told; a refused line elsewhere costs itself alone."""
    app = fresh(tmp_path)
    found = package_in(app, kitchen_of_package(app, WINTERS), altered(f"{table}.csv", broken(2, column, value)))
    first = found.refused[0]
    assert (first.table, first.line) == (table, 2) and word in first.detail, first
    assert found.added["bakes"] == 37 - lost
    assert all(r.table != "bakes" or r.line == 2 for r in found.refused)


def test_out_and_in_on_the_command_line(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    data, out = tmp_path / "data", tmp_path / "out.zip"
    app = fresh(data)
    package_in(app, kitchen_of_package(app, WINTERS), WINTERS)
    app.engine.dispose()
    assert main(["export", str(out), "--data", str(data)]) == 0
    assert main(["import", str(out), "--data", str(data), "--kitchen", "1"]) == 0
    assert "added: nothing" in capsys.readouterr().out
    assert main(["import", str(out), "--data", str(data)]) == 0
    assert "kitchen 2" in capsys.readouterr().out
    assert main(["export", "--data", str(tmp_path / "nowhere")]) == 1
    assert main(["import", str(tmp_path / "no.zip"), "--data", str(data)]) == 1
    assert "No such file" in capsys.readouterr().err


def test_the_report_is_one_page_that_fetches_and_runs_nothing(tmp_path: Path) -> None:
    """Every bake stands in it, what a cook typed is text in it, and it names no address."""
    app = fresh(tmp_path)
    package_in(app, kitchen_of_package(app, WINTERS), WINTERS)
    client = create_app(app).test_client()
    client.patch("/api/bakes/3", json={"note": "<script>alert('x')</script> & \"more\""})
    answer = client.get("/api/kitchens/1/report")
    page = answer.text
    assert "attachment" in answer.headers["Content-Disposition"]
    assert page.count("<tr>") == 38 and page.count("<svg") >= 6
    assert "&lt;script&gt;" in page and "<script" not in page
    assert not re.search(r"https?://|src=|url\(|@import|<link|javascript:", page)
    assert "default-src 'none'" in page
    assert client.get("/api/kitchens/1/report?bread=ridge-sour").text.count("<tr>") == 6
    app.engine.dispose()
    assert main(["report", str(tmp_path / "r.html"), "--data", str(tmp_path)]) == 0
    assert (tmp_path / "r.html").read_text("utf-8").count("<tr>") == 38


@pytest.mark.parametrize(("unit", "decimal"), [("C", "point"), ("F", "comma"), ("C", "comma"), ("F", "point")])
def test_readings_of_the_air_go_out_and_come_back(
    client: FlaskClient, kitchen: dict[str, Any], unit: str, decimal: str
) -> None:
    """In either unit and with either mark, to a hundredth of a degree; twice brings nothing; taken back they are
    gone."""
    points = [[f"2026-11-24T0{h}:00:00+00:00", 17.25 + h] for h in range(9)]
    client.post(f"/api/kitchens/{kitchen['id']}/air", json={"place": "bench", "points": points})
    text = client.get(f"/api/kitchens/{kitchen['id']}/readings?unit={unit}&decimal={decimal}").text
    assert text.splitlines()[0] == (";" if decimal == "comma" else ",").join(
        ["at", "place", "source", f"value_{unit.lower()}"]
    )
    other = client.post(
        "/api/kitchens", json={"zone": "Europe/Zurich", "surface": {"name": "P", "kind": "skillet"}}
    ).json
    at = f"/api/kitchens/{other['id']}"
    first = client.post(f"{at}/readings", json={"text": text}).json
    assert first["added"] == {"readings": 9} and first["refused_count"] == 0
    assert client.post(f"{at}/readings", json={"text": text}).json["there"] == {"readings": 9}
    rows = [line.split(",") for line in client.get(f"{at}/readings").text.splitlines()[1:]]
    assert [float(r[-1]) for r in rows] == pytest.approx([17.25 + h for h in range(9)], abs=0.006)
    assert rows[0][0] == "2026-11-24T01:00:00+01:00", "in the kitchen's own zone"
    client.post(f"{at}/packages/{first['id']}/undo")
    assert client.get(f"{at}/readings").text.count("bench") == 0


def test_a_line_of_a_logger_that_cannot_be_is_told(client: FlaskClient, kitchen: dict[str, Any]) -> None:
    at = f"/api/kitchens/{kitchen['id']}/readings"
    text = (
        "time,where,temp_c\n2026-11-24 08:00,fridge,4.5\nsoon,bench,20\n2026-11-24T08:05,moon,20\n"
        "2026-11-24T08:10,,900\n2026-11-24T08:15,,warm\n2036-01-01T00:00,,20\n2026-11-24T08:20\n2026-11-24T08:25,,21\n"
    )
    found = client.post(at, json={"text": text}).json
    assert found["added"] == {"readings": 2}
    assert [r["line"] for r in found["refused"]] == [3, 4, 5, 6, 7, 8]
    words = ("no instant", "no place", "cannot be air", "no number", "still to come", "cells")
    assert all(w in r["detail"] for w, r in zip(words, found["refused"], strict=True))
    assert client.post(at, json={"text": "a,b\n1,2\n"}).status_code == 422
