"""The keeping of a bake's bread: one way to keep it with its bands, the others beside it."""

from __future__ import annotations

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import asdict

import numpy as np

from brassclock.core.keep.hold.advice import FREEZE_MONTHS, Wanted, advice, at_once, bag_after_s, why_good
from brassclock.core.keep.hold.model import BAGGED, HOURS, KeepTrace, Kept, Wrapped, band, run, word
from brassclock.core.keep.hold.reheat import Reheat, reheats
from brassclock.core.keep.hold.windows import hold
from brassclock.core.rise.belief import Band
from brassclock.core.time import later
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.snapshot import BakeSnapshot
from brassclock.services.fire.kinds import Kind
from brassclock.services.fire.model import holds_meat
from brassclock.services.keep.kept import kept_of, room_of
from brassclock.services.schemas.bake import SayPart
from brassclock.services.schemas.base import BandedAt, WhyRead
from brassclock.services.schemas.keep import HoldRead, ReheatRead, SoftCurve, WordFrom
from brassclock.services.solve import BakeResult

WAYS: dict[str, Wrapped] = {  # practice: how each is done
    "cloth": ((0.0, "cloth"),),
    "bag": BAGGED,
    "hot_box": ((0.0, "cloth"), (600.0, "hot_box")),
    "rack": ((0.0, "rack"),),
    "open": ((0.0, "open"),),
    "fridge": (*BAGGED, (10_800.0, "fridge")),
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
    return _read(r, kind, bread, wrap or USUAL.get(bread.intent, "cloth"), _off_at(r, kinds.rounds_of(bread_no)))


def _read(r: BakeSnapshot, kind: Kind, bread: Kept, chosen: str, done: dt.datetime | None) -> HoldRead:
    room, stack = room_of(r), _stack(chosen, kind)
    found = hold(bread, WAYS[chosen], stack, room)
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
        curves=[_curve(way, run(bread, WAYS[way], _stack(way, kind), room)) for way in WAYS],
        band=_curve("", found.trace, found.runs),
        words=[WordFrom(at=later(zero, s / 3600), word=said) for s, said in w.words],
        best_from=_at(w.best_from, zero),
        best_to=_at(w.best_to, zero),
        good_until=_at(w.good_until, zero),
        stiff_by=_at(w.stiff_by, zero),
        room_days=w.room_days,
        sweat_g=w.sweat_g,
        freeze_best_months=FREEZE_MONTHS[0],
        freeze_good_months=FREEZE_MONTHS[1],
        reheat=_reheats_out(reheats(bread, found.trace.at("x", 12 * 3600.0))),
        reheat_frozen=_reheats_out(reheats(bread, found.trace.at("x", 5400.0), frozen=True)),
        advice=advice(bread, w, stack, room, wanted),
        why=WhyRead.model_validate(why_good(bread, chosen, stack, room, _hours(w.good_until.p50)).as_dict()),
    )


def _hours(seconds: float | None) -> float | None:
    return None if seconds is None else seconds / 3600


def advised(r: BakeSnapshot, work: BakeResult) -> list[str]:
    """Advice for a bake's own bread once it is off, in its usual wrap; nothing while there is no bread."""
    kind = solve.line_kinds(r, work).kinds[0]
    bread = kept_of(kind)
    if bread is None:
        return []
    way, room = USUAL.get(bread.intent, "cloth"), room_of(r)
    found = hold(bread, WAYS[way], _stack(way, kind), room, bands=False)
    return list(advice(bread, found.windows, _stack(way, kind), room, Wanted(filled=holds_meat(kind.rows))))


def _stack(way: str, kind: Kind) -> int:
    """Number of breads of a kind that lie together in a way of keeping them."""
    return 1 if way in SINGLY else min(kind.pieces, MOST_STACK)


def _reheats_out(found: Iterable[Reheat]) -> list[ReheatRead]:
    return [ReheatRead.model_validate(asdict(x)) for x in found]


def say_kept(r: BakeSnapshot, work: BakeResult) -> list[SayPart]:
    """The say-line once all is off the heat: what to do at once, while it is time for that; then until when it is
    good, and from when what is left goes in a bag."""
    kinds = solve.line_kinds(r, work)
    kind = kinds.kinds[0]
    bread, off = kept_of(kind), _off_at(r, kinds.rounds_of(0))
    if bread is None or off is None:
        return [_text("All off the heat. Judge each on the Keep leaf.")]
    way, room = USUAL.get(bread.intent, "cloth"), room_of(r)
    found = hold(bread, WAYS[way], _stack(way, kind), room, bands=False)
    first = f"All off the heat. {at_once(bread, found.windows, room)} " if _since(off, r.now) < AT_ONCE_S else ""
    said = [_text(f"{first}Judge each on the Keep leaf.")]
    good, cool_s = found.windows.good_until.p50, bag_after_s(bread, _stack("cloth", kind), room, "cloth")
    if good is not None and bread.intent != "fried":
        said += [_text(f" {WORDS[way]} good until "), SayPart(kind="at", at=later(off, good / 3600))]
        if cool_s is not None and cool_s < good:
            said += [_text("; bag what is left from "), SayPart(kind="at", at=later(off, cool_s / 3600))]
        said.append(_text("."))
    return said


def _text(words: str) -> SayPart:
    return SayPart(kind="text", text=words)


def _off_at(r: BakeSnapshot, rounds: list[int]) -> dt.datetime | None:
    """The instant at which the last round of a kind came off; None before any did."""
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


def _curve(way: str, trace: KeepTrace, runs: Sequence[KeepTrace] = ()) -> SoftCurve:
    """Softness in a way of keeping it, with the p10 and p90 of its runs where there are any."""
    at = _rows(trace)
    bands = [band([float(x.soft[i]) for x in runs], float(trace.soft[i])) for i in at] if runs else []
    return SoftCurve(
        wrap=way,
        h=np.round(trace.s[at] / 3600, 4).tolist(),
        soft=np.round(trace.soft[at], 1).tolist(),
        low=[round(b.p10 or 0.0, 1) for b in bands],
        high=[round(b.p90 or 0.0, 1) for b in bands],
    )
