"""The Logbook of 5,000 bakes and 5 million readings: opened, searched, its instruments, a package of 1,000 bakes
brought in; and practice cases drawn. Part of `make bench`. The named reference of each row is the same question of a
kitchen of 40 bakes in this run; of a case, one bake of the puff model."""

from __future__ import annotations

import dataclasses
import datetime as dt
import statistics
import tempfile
import time
from collections.abc import Callable
from importlib.resources import files
from pathlib import Path
from typing import Any
from uuid import uuid4

from sqlmodel import Session, select

from brassclock.cli import _cache_home
from brassclock.core.drill import call
from brassclock.core.drill.draw import LEVELS, Draw
from brassclock.formats.package import read, write
from brassclock.services.app import App
from brassclock.services.drill.tries import KINDS
from brassclock.services.pages.bringing import kitchen_of_package, package_in
from brassclock.services.pages.logbook import figures_out, logbook_out
from brassclock.services.pages.package import EMPTY, package_out
from brassclock.services.schemas.logbook import LogbookQuery, PastQuery
from brassclock.services.steppers import warm_all
from brassclock.store.engine import open_store
from brassclock.store.tables import Bake, PastBake

WINTERS = (files("brassclock.demo") / "winters.zip").read_bytes()
BAKES, READINGS, BROUGHT = 5_000, 5_000_000, 1_000
TIMES = 9


def best_ms(run: Callable[[], object]) -> float:
    took = []
    for _ in range(TIMES):
        began = time.perf_counter()
        run()
        took.append(1000 * (time.perf_counter() - began))
    return statistics.median(took)


def many(app: App, count: int) -> None:
    """The bakes of the winters again and again, a week apart, with readings of the air at every ten seconds."""
    with Session(app.engine) as session:
        bakes = list(session.exec(select(Bake)))
        figures = {p.bake_id: p for p in session.exec(select(PastBake))}
        number = max(b.id or 0 for b in bakes)
        for k in range(count - len(bakes)):
            like = bakes[k % len(bakes)]
            number += 1
            back = dt.timedelta(days=1 + k // 4)
            row = like.model_dump() | {"id": number, "uid": uuid4().hex, "serve_at": like.serve_at - back}
            session.add(Bake(**row))
            if k % 500 == 0:
                session.flush()
            past = figures[like.id or 0].model_dump()
            figures[number] = PastBake(**(past | {"bake_id": number, "serve_at": like.serve_at - back}))
        session.flush()
        session.add_all(figures[n] for n in figures if n > max(b.id or 0 for b in bakes))
        session.commit()
    with app.engine.begin() as c:
        c.exec_driver_sql(
            "with recursive n(i) as (select 1 union all select i + 1 from n where i < ?) "
            "insert into reading (kitchen_id, kind, value, source, at, made_at) "
            "select 1, 'air_c', 18 + i % 7, 'probe', at, at from (select i, strftime("
            "'%Y-%m-%dT%H:%M:%S.000000+00:00', 1577836800 + i * 10, 'unixepoch') at from n)",
            (READINGS,),
        )


def package_of(count: int) -> bytes:
    """A package of so many bakes with all that belongs to them: those of the winters again under names of their own."""
    rows = read(WINTERS, EMPTY).rows
    of_bakes = [r for r in EMPTY if any(c.name == "bake_id" for c in r.columns) and r.name != "lessons"]
    bakes = [row for _, row in rows["bakes"]]
    made: dict[str, list[dict[str, Any]]] = {r.name: [row for _, row in rows.get(r.name, [])] for r in EMPTY}
    made["bakes"] = []
    for r in of_bakes:
        made[r.name] = []
    for k in range(count):
        like = bakes[k % len(bakes)]
        made["bakes"].append(like | {"id": k + 1, "uid": f"{k:032x}"})
        for r in of_bakes:
            made[r.name] += [
                row | {"bake_id": k + 1, **({"id": len(made[r.name]) + n + 1} if "id" in row else {})}
                for n, (_, row) in enumerate(x for x in rows.get(r.name, []) if x[1]["bake_id"] == like["id"])
            ]
    filled = [dataclasses.replace(r, rows=made[r.name]) for r in EMPTY]
    return write("many", "Many", dt.datetime(2026, 11, 24, tzinfo=dt.UTC), filled)


def told(what: str, ours: float, reference: float, aim: str) -> None:
    print(f"{what:<44} {ours:8.1f} ms   {ours / max(reference, 1e-6):6.1f} x that of 40 bakes   (aim: {aim})")


def drills() -> None:
    """The time in which a practice case is drawn and shown, the slowest and the middle one of each kind, beside one
    bread's bake of the puff model."""
    one = call.call_case(Draw("call", 1, 1)).true
    bake_ms = best_ms(one.baked)
    for kind, room in KINDS.items():
        took = []
        for level in LEVELS:
            for seed in range(20):
                began = time.perf_counter()
                room.shown(room.case(Draw(kind, level, 100 + seed), None))
                took.append(1000 * (time.perf_counter() - began))
        middle, most = sorted(took)[len(took) // 2], max(took)
        print(
            f"a case of “{kind}” drawn, middle and slowest of {len(took)} {middle:6.1f} {most:6.1f} ms   "
            f"{middle / bake_ms:6.1f} x one bake of the puff model   (aim: 50 ms or less)"
        )


def main() -> None:
    _cache_home()
    warm_all()
    drills()
    with tempfile.TemporaryDirectory() as small, tempfile.TemporaryDirectory() as large:
        few, lots = (App(open_store(Path(p)), with_demo=False) for p in (small, large))
        for app in (few, lots):
            package_in(app, kitchen_of_package(app, WINTERS), WINTERS)
        many(lots, BAKES)
        rows: tuple[tuple[str, Callable[[App], object], str], ...] = (
            (
                "the Logbook opened: its first page",
                lambda a: logbook_out(a, 1, LogbookQuery(count=60)),
                "150 ms or less",
            ),
            ("its instruments, every bake", lambda a: figures_out(a, 1, PastQuery()), "150 ms or less"),
            ("a search, first page", lambda a: logbook_out(a, 1, LogbookQuery(words="sack dri")), "50 ms or less"),
            ("a search, its instruments", lambda a: figures_out(a, 1, PastQuery(words="sack dri")), "150 ms or less"),
        )
        for what, ask, aim in rows:
            told(f"{what}, {BAKES} bakes", best_ms(lambda a=ask: a(lots)), best_ms(lambda a=ask: a(few)), aim)  # type: ignore[misc]
        packed = package_of(BROUGHT)
        began = time.perf_counter()
        found = package_in(few, 1, packed)
        took = time.perf_counter() - began
        print(
            f"{found.added['bakes']} bakes brought in, {len(packed) / 1e6:.1f} MB {took:14.1f} s   "
            f"{sum(found.added.values())} rows, {found.refused_count} refused   (aim: 10 s or less)"
        )
        began = time.perf_counter()
        _, out = package_out(few, 1)
        print(f"and taken away, {len(out) / 1e6:.1f} MB {time.perf_counter() - began:26.1f} s")


if __name__ == "__main__":
    main()
