"""Pages of the screens: a bake with every leaf, and the Bench."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from sqlmodel import Session

from brassclock.core.errors import InvalidInput
from brassclock.core.fire.calibration import JudgedBread
from brassclock.core.time import hours_between
from brassclock.core.weigh.methods import methods
from brassclock.services import solve
from brassclock.services.app import App, Conflict
from brassclock.services.bake.broken import Broken, Uncomputable, broken_of, catching
from brassclock.services.bake.snapshot import BakeSnapshot, breads_of
from brassclock.services.bake.view import leaf_now, leaves_of
from brassclock.services.day.choices import fits
from brassclock.services.day.steps import steps_of
from brassclock.services.fire.live import taps_out
from brassclock.services.fire.view import fire_out
from brassclock.services.keep.view import keep_out
from brassclock.services.kitchen.clock import clock_out
from brassclock.services.mix.view import mix_out
from brassclock.services.pages.say import say_of, text
from brassclock.services.rise.view import rest_out, rise_out
from brassclock.services.schemas.bake import (
    BakeRead,
    BakeSettings,
    PartRead,
)
from brassclock.services.schemas.base import ClockRead
from brassclock.services.schemas.keep import KeepRead, NotedUpdate
from brassclock.services.solve import BakeResult
from brassclock.services.weigh.view import weigh_out
from brassclock.store import bakes as bake_rows
from brassclock.store import photos
from brassclock.store.tables import Photo


def settings_out(r: BakeSnapshot) -> BakeSettings:
    return BakeSettings.model_validate(r.bake.model_dump())


def bake_out(app: App, bake_id: int) -> BakeRead:
    """A bake with every leaf computed; of one that cannot be, what can be done. Raises Uncomputable when it cannot even
    be read."""
    with app.read() as session:
        try:
            r = solve.load(app, session, bake_id)
        except (ValueError, TypeError) as fault:
            if isinstance(fault, InvalidInput | Conflict):
                raise
            raise Uncomputable(broken_of(session, bake_id, fault)) from None
        clock = clock_out(app, session, r.kitchen)
        broken: list[Broken] = []
        with catching(session, bake_id, broken):
            judged, pictures = _judged(session, r), photos.of_bake(session, bake_id)
            return _bake_out(r, clock, solve.solve(r), judged, pictures)
        with catching(session, bake_id, broken):
            about = _about(r)
    if len(broken) > 1:
        raise Uncomputable(broken[0])
    told = str(Uncomputable(broken[0]))
    return BakeRead(
        clock=clock,
        **about,
        fits=True,
        leaf="weigh",
        leaves=[],
        steps=[],
        say=[text(told)],
        taps=list(taps_out(r.taps)),
        weigh=None,
        mix=None,
        rise=None,
        rest=None,
        fire=None,
        parts=[],
        keep=KeepRead(rounds=[], outcomes=[], facts=[], noted=NotedUpdate(), carried=None, photos=[]),
        faults={"bake": told},
    )


def _judged(session: Session, r: BakeSnapshot) -> list[JudgedBread]:
    """The judged breads of the kitchen with their age now."""
    return [
        JudgedBread(score, full, bake, max(hours_between(at, r.now), 0.0) / 24)
        for score, full, bake, at in bake_rows.judged(session, r.bake.kitchen_id)
    ]


def _about(r: BakeSnapshot) -> dict[str, Any]:
    """Summary sentence of a bake's row."""
    method = methods().get(r.bake.method)
    return {
        "id": r.bake.id or 0,
        "kitchen_id": r.bake.kitchen_id,
        "name": r.bake.name,
        "seal": r.bake.seal,
        "status": r.bake.status,
        "method": r.bake.method,
        "method_why": method.why if method else "",
        "revision": r.bake.revision,
        "serve_at": r.bake.serve_at,
        "serve_until": r.bake.serve_until,
        "settings": settings_out(r),
    }


def _bake_out(
    r: BakeSnapshot,
    clock: ClockRead,
    work: BakeResult,
    judged: list[JudgedBread],
    pictures: Sequence[Photo],
) -> BakeRead:
    """A bake with every leaf, of what was computed."""
    leaves = leaves_of(r, work)
    names = {x.ingredient.id: x.ingredient.name for x in work.sheet.lines} if work.sheet else {}
    return BakeRead(
        clock=clock,
        **_about(r),
        leaf=leaf_now(leaves),
        leaves=leaves,
        steps=steps_of(r, work),
        say=say_of(r, work),
        fits=fits(r, work),
        taps=list(taps_out(r.taps)),
        weigh=weigh_out(work.sheet) if work.sheet else None,
        mix=mix_out(r, work.bowl, names) if work.bowl else None,
        rise=rise_out(r, work),
        rest=rest_out(r, work),
        fire=fire_out(r, work, judged),
        parts=[
            PartRead(name=given["name"], fire=fire_out(b, part, ()), fault=part.faults.get("fire", ""))
            for given, b, part in zip(r.bake.parts, breads_of(r)[1:], work.parts, strict=False)
        ],
        keep=keep_out(r, solve.line_kinds(r, work), pictures),
        faults=work.faults,
    )
