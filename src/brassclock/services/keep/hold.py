"""How long the bread of a bake stays good: one way to keep it with its bands, the others beside it."""

from __future__ import annotations

import datetime as dt

import numpy as np

from brassclock.core.keep.hold.advice import FREEZE_MONTHS, Wanted, advice, at_once, bag_after_s
from brassclock.core.keep.hold.model import HOURS, KeepTrace, Kept, Room, Wrapped, band, run, word
from brassclock.core.keep.hold.reheat import reheats
from brassclock.core.keep.hold.windows import Held, hold
from brassclock.core.rise.belief import Band
from brassclock.core.time import later
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.kinds import Kind
from brassclock.services.fire.model import holds_meat
from brassclock.services.keep.kept import kept_of, room_of
from brassclock.services.schemas.bake import SayPart
from brassclock.services.schemas.base import BandedAt
from brassclock.services.schemas.keep import HoldRead, ReheatRead, SoftCurve, WordFrom
from brassclock.services.solve import BakeResult

WAYS: dict[str, Wrapped] = {  # practice: how each is done
    "cloth": ((0.0, "cloth"),),
    "bag": ((0.0, "cloth"), (2400.0, "rack"), (3600.0, "bag")),
    "hot_box": ((0.0, "cloth"), (600.0, "hot_box")),
    "rack": ((0.0, "rack"),),
    "open": ((0.0, "open"),),
    "fridge": ((0.0, "cloth"), (2400.0, "rack"), (3600.0, "bag"), (10_800.0, "fridge")),
    "freezer": ((0.0, "cloth"), (2400.0, "rack"), (5400.0, "freezer")),
}
SINGLY = ("rack", "open")
WORDS = {"cloth": "In cloth", "open": "On the plates", "rack": "On a rack"}
AT_ONCE_S = 600.0  # as long as the first advice is of use
USUAL = {"fried": "rack", "blister": "open"}  # by kind, else cloth
POINTS = 90
MOST_STACK = 24


def hold_out(app: App, bake_id: int, wrap: str | None, bread_no: int) -> HoldRead:
    """The keeping of a bake's bread in a wrap (None: the usual one of its kind). Raises Conflict while there is no
    bread."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
    work = BakeResult() if (r.bake.program or {}).get("kept") else solve.solve(r)
    kinds = solve.line_kinds(r, work)
    if not 0 <= bread_no < len(kinds.kinds):
        raise Conflict(f"There is no bread {bread_no} of this dough; it has 0 to {len(kinds.kinds) - 1}.")
    kind = kinds.kinds[bread_no]
    bread = kept_of(kind)
    if bread is None:
        raise Conflict("There is no bread to keep yet: give it a piece weight and a size on the Weigh leaf.")
    chosen = wrap or USUAL.get(bread.intent, "cloth")
    room, done = room_of(r), _off_at(r, kinds.rounds_of(bread_no))
    stack = 1 if chosen in SINGLY else min(kind.pieces, MOST_STACK)
    found = hold(bread, WAYS[chosen], stack, room)
    return _read(r, kind, bread, chosen, stack, room, found, done)


def _read(
    r: BakeSnapshot,
    kind: Kind,
    bread: Kept,
    chosen: str,
    stack: int,
    room: Room,
    found: Held,
    done: dt.datetime | None,
) -> HoldRead:
    w, zero = found.windows, done or r.bake.serve_at.astimezone(r.now.tzinfo)
    wanted = Wanted(filled=holds_meat(kind.rows))
    return HoldRead(
        name=kind.name,
        wrap=chosen,
        stack=stack,
        room_c=room.temp_c,
        off_at=zero,
        baked=done is not None,
        now=word(*(found.trace.at(n, _since(zero, r.now)) for n in ("crisp", "soft"))) if done else "",
        curves=[_curve(way, bread, room, 1 if way in SINGLY else min(kind.pieces, MOST_STACK)) for way in WAYS],
        band=_band_curve(found),
        words=[WordFrom(at=later(zero, s / 3600), word=said) for s, said in w.words],
        best_from=_at(w.best_from, zero),
        best_to=_at(w.best_to, zero),
        good_until=_at(w.good_until, zero),
        stiff_by=_at(w.stiff_by, zero),
        room_days=w.room_days,
        sweat_g=w.sweat_g,
        freeze_best_months=FREEZE_MONTHS[0],
        freeze_good_months=FREEZE_MONTHS[1],
        reheat=[
            ReheatRead(by=x.by, seconds=x.seconds, each_side=x.each_side, note=x.note)
            for x in reheats(bread, found.trace.at("x", 12 * 3600.0))
        ],
        reheat_frozen=[
            ReheatRead(by=x.by, seconds=x.seconds, each_side=x.each_side, note=x.note)
            for x in reheats(bread, found.trace.at("x", 5400.0), frozen=True)
        ],
        advice=advice(bread, w, stack, room, wanted),
    )


def say_kept(r: BakeSnapshot, work: BakeResult) -> list[SayPart]:
    """The say-line once all is off the heat: what to do at once, while it is time for that; then until when it is
    good, and from when what is left goes in a bag."""
    kinds = solve.line_kinds(r, work)
    kind = kinds.kinds[0]
    bread, off = kept_of(kind), _off_at(r, kinds.rounds_of(0))
    if bread is None or off is None:
        return [_text("All off the heat. Judge each on the Keep leaf.")]
    way, room, stack = USUAL.get(bread.intent, "cloth"), room_of(r), min(kind.pieces, MOST_STACK)
    found = hold(bread, WAYS[way], 1 if way in SINGLY else stack, room, bands=False)
    first = f"All off the heat. {at_once(bread, found.windows, room)} " if _since(off, r.now) < AT_ONCE_S else ""
    said = [_text(f"{first}Judge each on the Keep leaf.")]
    good, cool_s = found.windows.good_until.p50, bag_after_s(bread, stack, room, "cloth")
    if good is not None and bread.intent != "fried":
        said += [_text(f" {WORDS[way]} good until "), SayPart(kind="at", at=later(off, good / 3600))]
        if cool_s is not None and cool_s < good:
            said += [_text("; bag what is left from "), SayPart(kind="at", at=later(off, cool_s / 3600))]
        said.append(_text("."))
    return said


def _text(words: str) -> SayPart:
    return SayPart(kind="text", text=words)


def _off_at(r: BakeSnapshot, rounds: list[int]) -> dt.datetime | None:
    """When the last round of a kind came off; None before any did."""
    own = set(rounds)
    offs = [t.at for t in r.taps if t.kind == "off" and t.round_no in own]
    return max(offs).astimezone(r.now.tzinfo) if offs else None


def _since(zero: dt.datetime, now: dt.datetime) -> float:
    return min(max((now - zero).total_seconds(), 0.0), HOURS * 3600)


def _at(found: Band, zero: dt.datetime) -> BandedAt:
    """A band of seconds as instants; null beyond three days."""
    return BandedAt(**{k: None if s is None else later(zero, s / 3600) for k, s in found.as_dict().items()})


def _rows(trace: KeepTrace) -> np.ndarray[tuple[int], np.dtype[np.int64]]:
    """Rows close together at first and apart later."""
    return np.unique(np.round(np.geomspace(1, len(trace.s), POINTS)).astype(np.int64)) - 1


def _curve(way: str, bread: Kept, room: Room, stack: int) -> SoftCurve:
    trace = run(bread, WAYS[way], stack, room)
    at = _rows(trace)
    return SoftCurve(
        wrap=way, h=np.round(trace.s[at] / 3600, 4).tolist(), soft=np.round(trace.soft[at], 1).tolist(), low=[], high=[]
    )


def _band_curve(found: Held) -> SoftCurve:
    """The chosen way with its p10 and p90."""
    at = _rows(found.trace)
    bands = [band([float(r.soft[i]) for r in found.runs], float(found.trace.soft[i])) for i in at]
    return SoftCurve(
        wrap="",
        h=np.round(found.trace.s[at] / 3600, 4).tolist(),
        soft=np.round(found.trace.soft[at], 1).tolist(),
        low=[round(b.p10 or 0.0, 1) for b in bands],
        high=[round(b.p90 or 0.0, 1) for b in bands],
    )
