"""The time of a bake: each thing that was otherwise than it was to be, run again as it was to be."""

from __future__ import annotations

from dataclasses import replace
from typing import NamedTuple

from brassclock.core.evidence import Kind, Param
from brassclock.core.rise import forecast as rise
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.recipe import Batch, Seed
from brassclock.core.time import hours_between
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake.snapshot import JUST_MIXED, BakeSnapshot
from brassclock.services.day.model import Risen
from brassclock.services.kitchen.beliefs import before_bake
from brassclock.services.rise.spec import belief_here
from brassclock.services.schemas.keep import TimeRead, TimesRead
from brassclock.services.solve import BakeResult

LEAST_MIN = Param(5.0, "min", 3, 10, Kind.JUDGEMENT, "of a difference that is told")
LEAST_K = Param(1.0, "K", 0.5, 2, Kind.JUDGEMENT, "of a dough that is told to be warm or cool")
MOST_TOLD = 3
DONE = {  # moves whose own instant makes the bake late
    "mix": "mixed",
    "ball": "balled",
    "cold_in": "put in the cold",
    "cold_out": "taken out of the cold",
    "roll": "rolled",
}


class Rise(NamedTuple):
    """The rise of a bake that was mixed: its dough as it stands, what was believed of its leaven before, and what the
    looks at it made of that."""

    r: BakeSnapshot
    risen: Risen
    batch: Batch
    expected: Belief
    found: Belief

    def ready_min(self, batch: Batch, belief: Belief) -> float | None:
        """Minutes from the end of mixing until the first stage is ready; None where it never is."""
        targets = (self.r.bake.bulk_ratio, self.r.bake.ball_ratio)
        found = rise.forecast(batch, self.risen.stages, targets, belief=belief, coarse=True)
        ready = found.windows[0].ready.p50
        return None if ready is None else 60 * ready

    def cost_min(self, was: tuple[Batch, Belief], meant: tuple[Batch, Belief]) -> float | None:
        """Minutes by which it was ready later than it would have been as it was meant."""
        a, b = self.ready_min(*was), self.ready_min(*meant)
        return None if a is None or b is None else a - b


def times_out(app: App, bake_id: int) -> TimesRead:
    """Things that made a bake late or early, the most first: minutes that each cost (negative: won)."""
    with app.read() as session:
        r = solve.load(app, session, bake_id)
        r = replace(r, kitchen=before_bake(session, r.kitchen, bake_id))
    x = _rise(r, solve.solve(r))
    of_dough = () if x is None else (_dough_temp(x), _leaven(x), _starter(x))
    told = [t for t in (*of_dough, _hands(r), _line(r)) if t is not None and abs(t.minutes) >= LEAST_MIN]
    return TimesRead(times=sorted(told, key=lambda t: -abs(t.minutes))[:MOST_TOLD])


def _rise(r: BakeSnapshot, work: BakeResult) -> Rise | None:
    if work.risen is None or work.forecast is None or work.sheet is None:
        return None
    expected = belief_here(r, work.sheet.dough)
    return Rise(r, work.risen, work.risen.plan.spec.batch, expected, work.forecast.belief)


def _told(what: str, text: str, minutes: float | None, change: str) -> TimeRead | None:
    """A line of the answer; None where the minutes are not known."""
    if minutes is None:
        return None
    return TimeRead.model_validate({"what": what, "text": text, "minutes": round(minutes), "change": change})


def _dough_temp(x: Rise) -> TimeRead | None:
    """The dough as the thermometer found it after mixing, beside the heat that was wanted."""
    mixed, wanted_c = x.r.done().get("mix"), x.r.bake.dough_c
    if mixed is None:
        return None
    seen_c = next((y.value for y in x.r.readings if y.kind == "dough_c" and y.at - mixed <= JUST_MIXED), None)
    if seen_c is None or abs(seen_c - wanted_c) < LEAST_K:
        return None
    was, meant = ((replace(x.batch, mix_temp_c=c), x.expected) for c in (seen_c, wanted_c))
    is_so, instead = ("cooler", "warmer") if seen_c < wanted_c else ("warmer", "cooler")
    return _told(
        "dough_temp",
        f"The dough was mixed {abs(seen_c - wanted_c):.0f} K {is_so} than wanted.",
        x.cost_min(was, meant),
        f"Take the water {instead}, as the Mix leaf reckons it.",
    )


def _leaven(x: Rise) -> TimeRead | None:
    """The leaven as the looks at the dough found it, beside what was believed of it."""
    if not any(y.kind != "dough_c" for y in x.r.readings):
        return None
    return _told(
        "leaven",
        f"The leaven worked at {x.found.mean / x.expected.mean:.2f} of what was expected.",
        x.cost_min((x.batch, x.found), (x.batch, x.expected)),
        "The next plans reckon with it once this bake is kept.",
    )


def _starter(x: Rise) -> TimeRead | None:
    """The starter as it went in, beside one at its peak."""
    seed = x.batch.seed
    if seed is None or seed.state == "peak":
        return None
    ripe = replace(x.batch, seed=Seed("peak", seed.vitality))
    how = "came from the fridge" if seed.state == "chilled" else "was past its peak"
    return _told(
        "starter",
        f"The starter {how}.",
        x.cost_min((x.batch, x.expected), (ripe, x.expected)),
        "Feed it so that it peaks as you mix: the plan has that feed.",
    )


def _hands(r: BakeSnapshot) -> TimeRead | None:
    """The move that was done latest beside when it was told to be; the line on the heat has its own."""
    late = [(60 * hours_between(t.told_at, t.at), t.kind) for t in r.taps if t.told_at is not None and t.kind in DONE]
    minutes, kind = max(late, default=(0.0, ""))
    if minutes <= 0:
        return None
    return _told(
        "hands",
        f"It was {DONE[kind]} {minutes:.0f} min later than told.",
        minutes,
        "Have an alarm ring for the next one: the Kitchen has it.",
    )


def _line(r: BakeSnapshot) -> TimeRead | None:
    """The line on the heat beside what was told of it when its first bread was loaded."""
    said = r.said.get("last one off")
    loads = [t.at for t in r.taps if t.kind == "load"]
    offs = [t.at for t in r.taps if t.kind == "off"]
    if said is None or said.p50 is None or not loads or not offs:
        return None
    took_s = (max(offs) - min(loads)).total_seconds()
    return _told(
        "line",
        f"The line took {took_s / 60:.0f} min; {said.p50 / 60:.0f} were told.",
        (took_s - said.p50) / 60,
        "Have the rounds rolled before the first goes on." if took_s > said.p50 else "You are quicker than told.",
    )
