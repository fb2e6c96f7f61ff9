"""What the breads on the heat teach the rest of their session: the surface measured by the first, the colour by the eye."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from sqlmodel import Session

from brassclock.core.fire.probe import EVENT_OF, invert
from brassclock.core.fire.verdicts import told
from brassclock.services import work as works

COLOUR_STEP = 0.88  # judgement: of the second side's time, for each "too dark"; its inverse for "too pale"


def facts_of_probe(r: works.Rows) -> dict[str, float]:
    """What was seen of the first bread that shows anything, in seconds from its contact."""
    loads = {t.round_no: t.at for t in r.taps if t.kind == "load"}
    facts = [t for t in r.taps if t.kind in EVENT_OF and t.round_no in loads]
    if not facts:
        return {}
    first = min((t.round_no for t in facts), key=lambda n: loads[n])
    return {t.kind: (t.at - loads[first]).total_seconds() for t in facts if t.round_no == first}


def retime(session: Session, r: works.Rows) -> None:
    """Set the frozen program by the facts as they stand now; without any it is as it was frozen."""
    kept = r.bake.program
    if kept is None:
        return
    base = kept.get("base", kept)
    found: dict[str, Any] = {**base, "base": base}
    seen = facts_of_probe(r)
    if seen and (work := works.work_of(r)).bread is not None:
        surface = works.surface_of(r.surface)
        probe = invert(seen, surface.temp_c, lambda t: works.events_at(r, work, t))
        hot = works.program_at(r, work, probe.temp_c)
        events = hot.baked.events
        # the moves of a line that has begun stay: a bread that was to be turned is turned, and no other
        turned = base["turn_s"] is not None
        turn_s = (hot.turn_s or hot.off_s * base["turn_s"] / base["off_s"]) if turned else None
        found |= {
            "turn_s": turn_s, "off_s": hot.off_s, "through_s": hot.end.through_s,
            "verdicts": told(hot.verdicts, r.kitchen.temp_unit), "puff_s": events["puff"], "bubbles_s": events["bubbles"], "brown_s": events["light_bottom"],
            "surface_c": round(probe.temp_c, 1), "surface_sd_c": round(probe.sd_c, 1), "surface_was_c": surface.temp_c,
        }  # fmt: skip
    steps = sum(t.kind == "dark" for t in r.taps) - sum(t.kind == "pale" for t in r.taps)
    if steps:
        turn = found["turn_s"] or 0.0
        shorter = turn + max((found["off_s"] - turn) * COLOUR_STEP**steps, 5.0)
        found["off_s"] = max(
            shorter, found.get("through_s") or 0.0
        )  # too dark or not, it is not off before it is through
        found["colour_steps"] = steps
    r.bake.program = found


def without(r: works.Rows, tap_id: int) -> works.Rows:
    """The rows as if a tap had not been made."""
    return replace(r, taps=[t for t in r.taps if t.id != tap_id])
