"""The plan of a kitchen as a calendar and as a table, for what reads those."""

from __future__ import annotations

import csv
import io

from brassclock.core.errors import invalid
from brassclock.formats import calendars
from brassclock.formats.tables import safe_cell
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.day.steps import steps_of
from brassclock.services.schemas.base import StepRead

KINDS = {"ics": "text/calendar", "csv": "text/csv"}
WARN_MIN = 10
COLUMNS = ("day", "time", "move", "bake", "minutes", "place", "can_wait_until", "why")


def plan_file(app: App, kitchen_id: int, kind: str) -> tuple[str, str, str]:
    """(text, media type, file name) of every hand move still ahead."""
    if kind not in KINDS:
        raise invalid("/kind", f"“{kind[:20]}” is no kind of plan file. Use one of {', '.join(KINDS)}.")
    with app.read() as session:
        kitchen = app.kitchen(session, kitchen_id)
        now = app.now(session, kitchen)
        live, _ = solve.load_live(app, session, kitchen_id)
        steps = sorted((s for r, w in live for s in steps_of(r, w) if s.done_at is None), key=lambda s: s.at)
    if kind == "csv":
        return _csv(steps), KINDS[kind], "plan.csv"
    moves = [
        calendars.Move(
            f"{kitchen.id}-{s.bake_id}-{s.key}@brassclock.invalid",
            f"{s.name}: {s.bake}",
            s.at,
            s.hands_min,
            "; ".join(x for x in (s.place, s.reason, _wait(s)) if x),
            WARN_MIN,
        )
        for s in steps
        if s.key != "serve"
    ]
    return calendars.write(moves, f"{kitchen.name}, plan", now), KINDS[kind], "plan.ics"


def _wait(s: StepRead) -> str:
    return f"can wait until {s.can_wait_until:%H:%M}" if s.can_wait_until else ""


def _csv(steps: list[StepRead]) -> str:
    text = io.StringIO()
    out = csv.writer(text, lineterminator="\n")
    out.writerow(COLUMNS)
    for s in steps:
        wait = f"{s.can_wait_until:%Y-%m-%d %H:%M}" if s.can_wait_until else ""
        out.writerow(
            (
                f"{s.at:%Y-%m-%d}",
                f"{s.at:%H:%M}",
                safe_cell(s.name),
                safe_cell(s.bake),
                f"{s.hands_min:.0f}",
                safe_cell(s.place),
                wait,
                safe_cell(s.reason),
            )
        )
    return text.getvalue()
