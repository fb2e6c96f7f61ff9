"""A kitchen's past bakes as one page of HTML with drawings in it: to print or to send, with no script and nothing
fetched. Pure: it draws what it is told."""

from __future__ import annotations

import datetime as dt
import html
from collections.abc import Callable, Sequence
from dataclasses import dataclass

WIDTH, LEFT, HIGH = 940.0, 70.0, 150.0
SILENCE = dt.timedelta(days=60)
CUT = 30.0
STYLE = """
:root { color-scheme: light; }
body { margin: 24px auto; max-width: 980px; padding: 0 20px; background: #F3EDE0; color: #21272A;
  font: 16px/1.4 Georgia, 'Times New Roman', serif; }
h1 { font-size: 30px; margin: 0; } h2 { font-size: 20px; margin: 28px 0 4px; }
p { margin: 4px 0; } .quiet { color: #545A59; }
svg { display: block; width: 100%; height: auto; } text { font: 14px Georgia, serif; fill: #21272A; }
table { border-collapse: collapse; width: 100%; font-size: 14px; }
th, td { text-align: left; padding: 3px 10px 3px 0; border-bottom: 1px solid #BDB39C; vertical-align: top; }
@media print { body { background: #fff; margin: 0; } svg, tr { break-inside: avoid; } @page { margin: 14mm; } }
"""


@dataclass(frozen=True)
class Point:
    """A value of a bake with its band, and what was seen beside it (None: nothing)."""

    at: dt.datetime
    mean: float
    low: float
    high: float
    seen: float | None = None


@dataclass(frozen=True)
class Drawing:
    """A drawing of the report: its name, what it says in words, its points, and how its values are written."""

    name: str
    says: str
    points: Sequence[Point]
    tick: Callable[[float], str]
    low: float | None = None
    high: float | None = None


@dataclass(frozen=True)
class Cause:
    """A cause through the bakes: the breads that it cost, when, and what was changed against it."""

    name: str
    lost: int
    at: Sequence[tuple[dt.datetime, int]]
    changes: Sequence[tuple[dt.datetime, str]]


def page(
    title: str,
    about: str,
    drawings: Sequence[Drawing],
    causes: Sequence[Cause],
    heading: Sequence[str],
    rows: Sequence[Sequence[str]],
) -> str:
    """The whole page."""
    parts = [f"<h1>{_text(title)}</h1><p class='quiet'>{_text(about)}</p>"]
    parts += [_drawn(d) for d in drawings if d.points]
    if causes:
        parts.append(_causes(causes))
    head = "".join(f"<th scope='col'>{_text(h)}</th>" for h in heading)
    body = "".join("<tr>" + "".join(f"<td>{_text(c)}</td>" for c in row) + "</tr>" for row in rows)
    parts.append(f"<h2>Every bake</h2><table><thead><tr>{head}</tr></thead><tbody>{body}</tbody></table>")
    policy = "default-src 'none'; style-src 'unsafe-inline'"
    return (
        "<!doctype html><html lang='en'><head><meta charset='utf-8'>"
        f"<meta http-equiv='Content-Security-Policy' content=\"{policy}\">"
        "<meta name='viewport' content='width=device-width, initial-scale=1'>"
        f"<title>{_text(title)}</title><style>{STYLE}</style></head><body>{''.join(parts)}</body></html>\n"
    )


def _text(words: str) -> str:
    return html.escape(words, quote=True)


def _runs(at: Sequence[dt.datetime]) -> Callable[[dt.datetime], float]:
    """The place of an instant on the line: long silences are cut out."""
    runs: list[list[dt.datetime]] = [[at[0], at[0]]]
    for t in at[1:]:
        if t - runs[-1][1] > SILENCE:
            runs.append([t, t])
        else:
            runs[-1][1] = t
    whole = sum(((b - a) for a, b in runs), dt.timedelta()) or dt.timedelta(days=1)
    room = WIDTH - LEFT - 60 - CUT * (len(runs) - 1)

    def x(t: dt.datetime) -> float:
        left = LEFT
        for a, b in runs:
            wide = room * ((b - a) / whole)
            if t <= b or b is runs[-1][1]:
                return left + wide * (max(t - a, dt.timedelta()) / ((b - a) or dt.timedelta(days=1)))
            left += wide + CUT
        return left

    return x


def _drawn(d: Drawing) -> str:
    x = _runs([p.at for p in d.points])
    values = [v for p in d.points for v in (p.low, p.high, *(() if p.seen is None else (p.seen,)))]
    low = min(values) if d.low is None else d.low
    high = max(values) if d.high is None else d.high
    span = (high - low) or 1.0

    def y(v: float) -> float:
        return 12 + HIGH * (1 - (v - low) / span)

    marks = []
    for k in range(5):
        v = low + span * k / 4
        marks.append(f"<path d='M{LEFT} {y(v):.1f}H{WIDTH - 40}' stroke='#BDB39C'/>")
        marks.append(f"<text x='{LEFT - 8}' y='{y(v) + 5:.1f}' text-anchor='end'>{_text(d.tick(v))}</text>")
    for p in d.points:
        at = x(p.at)
        marks.append(
            f"<path d='M{at:.1f} {y(p.low):.1f}V{y(p.high):.1f}' stroke='#857E6D' stroke-width='6' opacity='.5'/>"
        )
        marks.append(f"<path d='M{at - 4:.1f} {y(p.mean):.1f}h8' stroke='#21272A' stroke-width='3'/>")
        if p.seen is not None:
            ring = "fill='#FBF8F0' stroke='#21272A' stroke-width='2'"
            marks.append(f"<circle cx='{at:.1f}' cy='{y(p.seen):.1f}' r='4' {ring}/>")
    foot = 12 + HIGH
    marks.append(_months([p.at for p in d.points], x, foot))
    return _section(d.name, d.says, foot + 30, marks)


def _section(name: str, says: str, high: float, marks: Sequence[str]) -> str:
    """A drawing under its name, told in words to who cannot see it."""
    label = _text(f"{name}: {says}")
    return (
        f"<h2>{_text(name)}</h2><p class='quiet'>{_text(says)}</p>"
        f"<svg viewBox='0 0 {WIDTH:.0f} {high:.0f}' role='img' aria-label=\"{label}\">{''.join(marks)}</svg>"
    )


def _months(at: Sequence[dt.datetime], x: Callable[[dt.datetime], float], y: float) -> str:
    found, last, seen = [], -1e9, ""
    for t in at:
        month = f"{t:%b %Y}"
        if month != seen and x(t) - last > 84:
            found.append(f"<text x='{x(t):.1f}' y='{y + 20:.0f}'>{month}</text>")
            last, seen = x(t), month
    return "".join(found)


def _causes(causes: Sequence[Cause]) -> str:
    at = sorted(t for c in causes for t in [*(t for t, _ in c.at), *(t for t, _ in c.changes)])
    x = _runs(at)
    left, marks = 250.0, []
    scale = (WIDTH - 40 - left) / (WIDTH - 60 - LEFT)
    for k, c in enumerate(causes):
        y = 20 + 30 * k
        marks.append(f"<text x='{left - 12}' y='{y + 5}' text-anchor='end'>{_text(c.name)[:60]}</text>")
        marks.append(f"<path d='M{left} {y}H{WIDTH - 40}' stroke='#BDB39C'/>")
        for t, lost in c.at:
            high = 6 + min(lost, 8)
            marks.append(
                f"<rect x='{left + (x(t) - LEFT) * scale - 4:.1f}' y='{y - high / 2}' width='8' height='{high}'/>"
            )
        for t, words in c.changes[-1:]:
            px = left + (x(t) - LEFT) * scale
            marks.append(f"<path d='M{px:.1f} {y - 10}v20' stroke='#6F5606' stroke-width='3'/>")
            marks.append(f"<text x='{px + 7:.1f}' y='{y + 5}'>since: {_text(words)}</text>")
        marks.append(f"<text x='{WIDTH - 6}' y='{y + 5}' text-anchor='end'>{c.lost}</text>")
    says = "a mark is a bake, as high as the breads it cost; their sum stands at the right"
    return _section("What cost breads", says, 30 * len(causes) + 20, marks)
