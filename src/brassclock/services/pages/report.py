"""A kitchen's past bakes as a page to print or to send: the Logbook's instruments drawn, and every bake in a table."""

from __future__ import annotations

import math
from zoneinfo import ZoneInfo

from brassclock.core.rise.belief import Z10
from brassclock.core.spoken import numbered
from brassclock.core.units import degrees
from brassclock.formats import report
from brassclock.formats.report import Cause, Drawing, Point
from brassclock.services.app import App
from brassclock.services.pages.logbook import figures_out, logbook_out
from brassclock.services.schemas.logbook import FiguresRead, LogbookQuery, PastQuery

PAGE = 200


def report_out(app: App, kitchen_id: int, asked: PastQuery) -> tuple[str, str]:
    """(file name, the page) of the bakes that are asked for."""
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now, name, unit = app.now(session, kitchen), kitchen.name, kitchen.temp_unit
    zone = ZoneInfo(kitchen.zone)
    figures = figures_out(app, kitchen_id, asked)
    rows, before = [], None
    while True:
        page = logbook_out(app, kitchen_id, LogbookQuery(**asked.model_dump(), count=PAGE, before=before))
        for b in page.bakes:
            went = (
                f"{b.full} of {b.opened} full" if b.opened else f"{b.outcomes} judged" if b.outcomes else "not judged"
            )
            left = " (left out)" if b.left_out else ""
            day = f"{b.serve_at.astimezone(zone):%d %b %Y}"
            rows.append((day, b.name + left, b.surface or "", went, b.cause or "", b.note))
        if not page.more or not page.bakes:
            break
        before = page.bakes[-1].id
    about = f"{numbered(figures.bakes, 'bake')}, as of {now:%d %b %Y}"
    if figures.judged:
        about += f"; {figures.full} of {figures.judged} pockets full"
    heading = ("day", "bake", "surface", "went", "cause", "note")
    text = report.page(name, about, _drawings(figures, unit), _causes(figures), heading, rows)
    return f"bakes-{now:%Y-%m-%d}.html", text


def _drawings(f: FiguresRead, unit: str) -> list[Drawing]:
    pockets = [Point(m.at, m.mean, m.low, m.high, m.full / m.judged) for m in f.pockets]
    ready = [Point(m.at, m.p50, m.p10, m.p90, m.was) for m in f.ready]
    hands = [Point(m.at, m.hands_min, 0.0, m.hands_min) for m in f.costs]
    drawings = [
        Drawing(
            "Full pockets", "each bake's share as a ring, the rate believed after it as a bar, 8 in 10 as its band",
            pockets, lambda v: f"{100 * v:.0f} %", 0.0, 1.0,
        ),
        Drawing(
            "Time to ready",
            f"hours of the bulk rise: said as a bar and its band, how it was as a ring; {f.ready_inside} of "
            f"{f.ready_of} within",
            ready, lambda v: f"{v:.1f} h", 0.0,
        ),
    ]  # fmt: skip
    for heat in f.heats:
        points = [
            Point(
                m.at,
                m.set_c + m.shift_k,
                m.set_c + m.shift_k - Z10 * m.sd_k,
                m.set_c + m.shift_k + Z10 * m.sd_k,
                m.set_c,
            )
            for m in heat.marks
        ]
        drawings.append(
            Drawing(
                heat.name, "as it was set as a ring, as it was believed as a bar", points, lambda c: degrees(c, unit)
            )
        )
    for leaven in f.strengths:
        strong = [
            Point(m.at, m.mean, m.mean * math.exp(-Z10 * m.sd), m.mean * math.exp(Z10 * m.sd), m.seen)
            for m in leaven.marks
        ]
        says = "its strength over the usual: seen as a ring, believed as a bar"
        drawings.append(Drawing(leaven.name, says, strong, lambda v: f"{v:.2f} x"))
    return [*drawings, Drawing("Hands", "minutes of hands, bake by bake", hands, lambda v: f"{v:.0f} min", 0.0)]


def _causes(f: FiguresRead) -> list[Cause]:
    return [
        Cause(x.name, x.lost, [(m.at, m.lost) for m in x.marks], [(c.at, c.text) for c in x.changes])
        for x in f.lanes
        if x.marks
    ]
