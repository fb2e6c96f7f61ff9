"""Where the time of a bake went: each thing that was otherwise than it was to be, run again as it was to be."""

from __future__ import annotations

from dataclasses import replace

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.recipe import Batch, Seed
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.snapshot import JUST_MIXED, BakeSnapshot
from brassclock.services.kitchen.beliefs import before_bake
from brassclock.services.rise.spec import belief_here
from brassclock.services.schemas.keep import TimeRead, TimesRead
from brassclock.services.solve import BakeResult

LEAST_MIN = Param(5.0, "min", 3, 10, Kind.JUDGEMENT, "of a difference that is told")
LEAST_K = Param(1.0, "K", 0.5, 2, Kind.JUDGEMENT, "of a dough that is told to be warm or cool")
MOST_TOLD = 3


def times_out(app: App, bake_id: int) -> TimesRead:
    """What made a bake late or early, the most first: minutes that each thing cost (negative: won)."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        r = replace(r, kitchen=before_bake(session, r.kitchen, bake_id))
    work = solve.solve(r)
    found = [x for x in (_dough_temp(r, work), _leaven(r, work), _starter(r, work), _line(r)) if x is not None]
    told = [x for x in found if abs(x.minutes) >= LEAST_MIN]
    return TimesRead(times=sorted(told, key=lambda x: -abs(x.minutes))[:MOST_TOLD])


def _ready_min(r: BakeSnapshot, work: BakeResult, batch: Batch, belief: Belief) -> float | None:
    """Minutes from the end of mixing until the first stage is ready; None where it never is."""
    assert work.risen is not None
    targets = (r.bake.bulk_ratio, r.bake.ball_ratio)
    found = rise.forecast(batch, work.risen.stages, targets, belief=belief, coarse=True)
    ready = found.windows[0].ready.p50
    return None if ready is None else 60 * ready


def _cost(r: BakeSnapshot, work: BakeResult, was: tuple[Batch, Belief], meant: tuple[Batch, Belief]) -> float | None:
    """Minutes by which the dough was ready later than it would have been as it was meant."""
    a, b = (_ready_min(r, work, batch, belief) for batch, belief in (was, meant))
    return None if a is None or b is None else a - b


def _rising(work: BakeResult) -> bool:
    return work.risen is not None and work.forecast is not None and work.sheet is not None


def _dough_temp(r: BakeSnapshot, work: BakeResult) -> TimeRead | None:
    """The dough as the thermometer found it after mixing, beside the heat that was wanted."""
    mixed = r.done().get("mix")
    if not _rising(work) or mixed is None or work.plan is None or work.sheet is None:
        return None
    seen = next((x.value for x in r.readings if x.kind == "dough_c" and x.at - mixed <= JUST_MIXED), None)
    if seen is None or abs(seen - r.bake.dough_c) < LEAST_K:
        return None
    batch, belief = work.plan.spec.batch, belief_here(r, work.sheet.dough)
    found = [(replace(batch, mix_temp_c=c), belief) for c in (seen, r.bake.dough_c)]
    minutes = _cost(r, work, *found)
    if minutes is None:
        return None
    cool = seen < r.bake.dough_c
    return TimeRead(
        what="dough_temp",
        text=f"The dough was mixed {abs(seen - r.bake.dough_c):.0f} K {'cooler' if cool else 'warmer'} than wanted.",
        minutes=round(minutes),
        change=f"Take the water {'warmer' if cool else 'cooler'}, as the Mix leaf reckons it.",
    )


def _leaven(r: BakeSnapshot, work: BakeResult) -> TimeRead | None:
    """The leaven as the looks at the dough found it, beside what was believed of it."""
    if not _rising(work) or work.plan is None or work.sheet is None or work.forecast is None:
        return None
    if not any(x.kind != "dough_c" for x in r.readings):
        return None
    batch, before = work.plan.spec.batch, belief_here(r, work.sheet.dough)
    after = work.forecast.belief
    minutes = _cost(r, work, (batch, after), (batch, before))
    if minutes is None:
        return None
    share = after.mean / before.mean
    return TimeRead(
        what="leaven",
        text=f"The leaven worked at {share:.2f} of what was expected.",
        minutes=round(minutes),
        change="The next plans reckon with it once this bake is kept.",
    )


def _starter(r: BakeSnapshot, work: BakeResult) -> TimeRead | None:
    """The starter as it went in, beside one at its peak."""
    if not _rising(work) or work.plan is None or work.sheet is None:
        return None
    batch, belief = work.plan.spec.batch, belief_here(r, work.sheet.dough)
    seed = batch.seed
    if seed is None or seed.state == "peak":
        return None
    minutes = _cost(r, work, (batch, belief), (replace(batch, seed=Seed("peak", seed.vitality)), belief))
    if minutes is None:
        return None
    how = "came from the fridge" if seed.state == "chilled" else "was past its peak"
    return TimeRead(
        what="starter",
        text=f"The starter {how}.",
        minutes=round(minutes),
        change="Feed it so that it peaks as you mix: the plan has that feed.",
    )


def _line(r: BakeSnapshot) -> TimeRead | None:
    """The line on the heat beside what was told of it when its first bread was loaded."""
    said = r.said.get("last one off")
    loads = [t.at for t in r.taps if t.kind == "load"]
    offs = [t.at for t in r.taps if t.kind == "off"]
    if said is None or said.p50 is None or not loads or not offs:
        return None
    minutes = ((max(offs) - min(loads)).total_seconds() - said.p50) / 60
    return TimeRead(
        what="line",
        text=f"The line took {(max(offs) - min(loads)).total_seconds() / 60:.0f} min; {said.p50 / 60:.0f} were told.",
        minutes=round(minutes),
        change="Have the rounds rolled before the first goes on." if minutes > 0 else "You are quicker than told.",
    )
