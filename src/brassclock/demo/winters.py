"""Two winters of the demo kitchen: bakes as the models say they would have gone, had its plates, its leaven, its air
and its cook been as the story has them, with the models' own spreads; each through the doors that a cook uses.

The story: plates that run 25 C cool until a thermometer finds it in October 2026; a new flour in December, which
drinks; a cold spell in January; rounds that lie bare on the bench; a cook who learns in February to wait for the stone
between two breads; a starter that sleeps through the summer. The same seed makes the same winters.
"""

from __future__ import annotations

import datetime as dt
import math
from dataclasses import dataclass, replace
from zoneinfo import ZoneInfo

import numpy as np
from sqlmodel import Session

from brassclock.core.fire.program import Program
from brassclock.demo.canteen import ZONE
from brassclock.demo.doing import set_clock, tap
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake import commands as bake_commands
from brassclock.services.bake import create as bake_create
from brassclock.services.bake import ending as bake_ending
from brassclock.services.bake.again import bake_again
from brassclock.services.fire import model as fire_model
from brassclock.services.keep import judge as keep_judge
from brassclock.services.keep.noted import noted_of, set_noted
from brassclock.services.kitchen import starters
from brassclock.services.kitchen.beliefs import key_of
from brassclock.services.kitchen.lessons import change_belief
from brassclock.services.kitchen.surfaces import browns_of
from brassclock.services.schemas.bake import AgainCreate, BakeCreate
from brassclock.services.schemas.keep import OutcomeUpdate
from brassclock.services.schemas.kitchen import FeedCreate, PeakCreate, StarterCreate
from brassclock.services.schemas.rise import ReadingCreate
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import find, get, insert
from brassclock.store.tables import Bake, FlourBag, Kitchen, Surface

SEED = 1150  # metres, the height of Mount Pell
PLATES = "Iron plates"
FOUND = dt.date(2026, 10, 14)  # when a thermometer finds what the plates lack
THOUGHT_C, COOL_K = 260.0, -25.0  # what they were set down as, and what they lacked
LEARNED = dt.date(2026, 2, 14)  # from then on the cook waits between two breads
CARRIED = {  # a bake that is begun as an earlier one was, with the change that was learned from it
    dt.date(2025, 11, 21): dt.date(2025, 11, 12),
    dt.date(2026, 2, 7): dt.date(2026, 1, 30),
}
COLD_SPELL, COLD_K = (dt.date(2026, 1, 7), dt.date(2026, 1, 29)), -4.5
WAITS = {False: 0.05, True: 0.95}  # share of the time to come back that a spot is given, before and after
SLEPT = {dt.date(2026, 9, 19): 0.55, dt.date(2026, 9, 26): 0.9}  # the starter in its jar after its summer
LEAVEN_SD, EVENT_SD, POCKET_SD, LATE_S = 0.10, 0.06, 0.4, 1.5
WORD_FROM, WORD_SD = 0.25, 0.3  # of the logarithm of a dose over the one wished: where a colour is called pale or dark
STARTER = "Old Pell"
SACK, SACK_FROM = "Hatch sack, December", dt.date(2025, 12, 12)  # the new flour, and how much more water it takes
SACK_UNTIL, DRINKS, FEEL_SD = dt.date(2026, 3, 31), 0.024, 0.008
DOUGH = ("cold_in", "cold_out", "ball", "roll")  # moves after the mixing, as the plan has them
HAND_S = 4.0  # from taking one off to laying the next


@dataclass(frozen=True)
class Night:
    """One bake of the story: its day, bread and table; how long its rounds lay bare, how unevenly they were rolled, and
    what was noted."""

    day: dt.date
    method: str
    name: str
    surface: str = PLATES
    serve: str = "01:30"
    breads: int = 8
    bare_min: float = 2.0
    uneven: float = 0.1
    note: str = ""


def _nights() -> list[Night]:
    pita, naan, sour, cold, soda = (
        ("hatch-pita", "Hatch pitas"),
        ("terrace-naan", "Terrace naan"),
        ("ridge-sour", "Supper sourdough"),
        ("cellar-pita", "Cold-rise pitas"),
        ("soda-quarters", "Soda round"),
    )
    stone = {"surface": "Baking stone"}
    d = dt.date
    rows: list[tuple[dt.date, tuple[str, str], dict[str, object]]] = [
        (d(2025, 11, 8), pita, {"bare_min": 9.0, "note": "Rounds waited on the stone bench while the plates heated."}),
        (d(2025, 11, 12), pita, {"uneven": 0.5}),
        (d(2025, 11, 15), naan, {**stone, "serve": "22:30", "breads": 6}),
        (d(2025, 11, 21), pita, {"note": "Two fans away: nobody to turn."}),
        (d(2025, 11, 28), pita, {}),
        (d(2025, 12, 3), soda, {"serve": "06:45", "breads": 4}),
        (d(2025, 12, 6), cold, {"serve": "00:50"}),
        (d(2025, 12, 12), pita, {"note": "First of the new sack. It drinks."}),
        (d(2025, 12, 19), pita, {}),
        (d(2025, 12, 27), naan, {**stone, "serve": "22:30", "breads": 6}),
        (d(2026, 1, 4), pita, {}),
        (d(2026, 1, 10), cold, {"serve": "00:50", "note": "Frost on the hatch. Balls came out stiff."}),
        (d(2026, 1, 16), pita, {}),
        (
            d(2026, 1, 23),
            sour,
            {**stone, "serve": "20:30", "breads": 6, "note": "One after the other, each paler."},
        ),
        (d(2026, 1, 30), pita, {"bare_min": 8.0, "note": "The drying cloth was in the wash."}),
        (d(2026, 2, 7), pita, {}),
        (
            LEARNED,
            sour,
            {
                **stone,
                "serve": "20:30",
                "breads": 6,
                "note": "Waited for the stone between two breads. Worth it.",
            },
        ),
        (d(2026, 2, 21), naan, {**stone, "serve": "22:30", "breads": 6}),
        (d(2026, 2, 28), pita, {}),
        (d(2026, 3, 7), cold, {"serve": "00:50"}),
        (d(2026, 3, 14), soda, {"serve": "06:45", "breads": 4}),
        (
            d(2026, 9, 19),
            sour,
            {**stone, "serve": "20:30", "breads": 6, "note": "Old Pell slept all summer."},
        ),
        (d(2026, 9, 22), pita, {}),
        (d(2026, 9, 26), sour, {**stone, "serve": "20:30", "breads": 6}),
        (d(2026, 10, 2), pita, {"bare_min": 8.0}),
        (d(2026, 10, 6), cold, {"serve": "00:50"}),
        (d(2026, 10, 10), pita, {"note": "Borrowed the dome's infrared: the plates read 236, not 260."}),
        (d(2026, 10, 14), pita, {"note": "By the thermometer now: longer on the plate, and it opens."}),
        (d(2026, 10, 18), naan, {**stone, "serve": "22:30", "breads": 6}),
        (d(2026, 10, 22), pita, {}),
        (d(2026, 10, 26), pita, {"uneven": 0.45, "note": "Tomo rolled. Thick at the rim."}),
        (d(2026, 10, 30), sour, {**stone, "serve": "20:30", "breads": 6}),
        (d(2026, 11, 3), pita, {}),
        (d(2026, 11, 6), cold, {"serve": "00:50"}),
        (d(2026, 11, 9), pita, {}),
        (d(2026, 11, 13), soda, {"serve": "06:45", "breads": 4}),
        (d(2026, 11, 17), pita, {}),
    ]
    return [Night(day, method, name, **more) for day, (method, name), more in rows]  # type: ignore[arg-type]


NIGHTS = _nights()


@dataclass(frozen=True)
class Truth:
    """The truth of the story on a night, which nobody in the kitchen knows: kelvins of the surface over its setting,
    the leaven over what is believed, the share of the time to come back that a spot is given; and its dice, those of
    the hand in the dough apart."""

    over_k: float
    leaven: float
    waits: float
    dice: np.random.Generator
    feel: np.random.Generator

    def log_noise(self, sd: float) -> float:
        return math.exp(sd * float(self.dice.standard_normal()))


def truth_of(night: Night) -> Truth:
    """The night as it was: its own dice, whatever nights were before it."""
    dice = np.random.default_rng([SEED, night.day.toordinal()])
    cool = night.surface == PLATES and night.day < FOUND
    over_k = (COOL_K if cool else 0.0) + 4.0 * float(dice.standard_normal())
    leaven = math.exp(LEAVEN_SD * float(dice.standard_normal()))
    feel = np.random.default_rng([SEED, night.day.toordinal(), 1])
    return Truth(over_k, leaven, WAITS[night.day >= LEARNED], dice, feel)


def build_winters(app: App, kitchen_id: int) -> list[int]:
    """Bake them all, one transaction each; answers their ids. The kitchen's clock and hours are as they were after."""
    ids: dict[dt.date, int] = {}
    with app.read() as session:
        usual = list(app.kitchen(session, kitchen_id).hourly_c)
    _set_plates(app, kitchen_id, THOUGHT_C)
    starter = starters.add_starter(app, kitchen_id, StarterCreate(name=STARTER)).id
    for night in NIGHTS:
        if night.day == FOUND:
            _set_plates(app, kitchen_id, THOUGHT_C + COOL_K)
            _forget_plates(app, kitchen_id)
        _breathe(app, kitchen_id, _air(night, usual))
        if night.method == "ridge-sour":
            _feed(app, kitchen_id, starter, night)
        ids[night.day] = _bake(app, kitchen_id, night, ids.get(CARRIED.get(night.day, night.day)))
    _breathe(app, kitchen_id, usual)
    return list(ids.values())


def _sack(session: Session, kitchen_id: int) -> int:
    """The new flour's bag, opened on its first night."""
    had = next((b for b in find(session, FlourBag, kitchen_id=kitchen_id) if b.name == SACK), None)
    bag = had or insert(session, FlourBag(kitchen_id=kitchen_id, name=SACK, ingredient="plain_flour"))
    return bag.id or 0


def _air(night: Night, usual: list[float]) -> list[float]:
    """The kitchen's hours on a night: its season, and the cold spell."""
    cold = COLD_SPELL[0] <= night.day <= COLD_SPELL[1]
    season = 1.5 * math.cos(2 * math.pi * (night.day.timetuple().tm_yday - 205) / 365)
    return [round(c + season + (COLD_K if cold else 0.0), 1) for c in usual]


def _bake(app: App, kitchen_id: int, night: Night, again: int | None) -> int:
    zone = ZoneInfo(ZONE)
    hour, minute = (int(x) for x in night.serve.split(":"))
    day = night.day + dt.timedelta(days=1 if hour < 12 else 0)
    table = dt.datetime.combine(day, dt.time(hour, minute), zone)
    before = table - dt.timedelta(hours=44 if night.method in ("cellar-pita", "ridge-sour") else 9)
    truth = truth_of(night)
    _at(app, kitchen_id, before)
    serve = f"{table:%Y-%m-%d %H:%M}"
    if again is not None:
        bake_id = bake_again(app, again, AgainCreate(serve=serve, name=night.name))
    else:
        given = BakeCreate(kitchen_id=kitchen_id, method=night.method, name=night.name, serve=serve)
        bake_id = bake_create.start_bake(app, given)
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        bake = get(session, Bake, bake_id)
        assert bake is not None
        bake.count = night.breads
        bake.surface_id = next(s.id for s in kitchen_rows.surfaces(session, kitchen_id) if s.name == night.surface)
        if SACK_FROM <= night.day <= SACK_UNTIL and night.method == "hatch-pita":
            bake.bag_id = _sack(session, kitchen_id)
        session.add(bake)
        _dough(app, session, kitchen, bake, truth)
        _heat(app, session, kitchen, bake, night, truth)
        bake.note = night.note
        session.add(bake)
        bake_ending.keep_rows(session, solve.load(app, session, bake_id))
    return bake_id


def _dough(app: App, session: Session, kitchen: Kitchen, bake: Bake, truth: Truth) -> None:
    """Weighed and mixed by the plan, looked at, balled when it is ready and rolled by the plan."""
    r = solve.load(app, session, bake.id or 0)
    plan = solve.solve(r).plan
    assert plan is not None
    mixed = plan.step("mix").at
    first = solve.solve(r).forecast
    whole = first.windows[0].ready.p50 if first is not None else None
    if bake.cold is None and whole is not None:  # balled as soon as it is ready, it may be mixed so much later
        mixed += max(plan.balled_at - plan.mixed_at - dt.timedelta(hours=whole), dt.timedelta())
    for step in plan.steps:
        if step.key == "sponge" or (step.key == "weigh" and step.at < mixed):
            tap(app, session, kitchen, bake, step.at, step.key)
    sheet = solve.solve(r).sheet
    if bake.bag_id is not None and sheet is not None:  # what the hand adds until it feels right
        water_g = (DRINKS + FEEL_SD * float(truth.feel.standard_normal())) * sheet.dough.flour_g
        entry = {"ingredient": "water", "amount": f"{max(water_g, 1.0):.0f} g", "at": mixed.isoformat()}
        bake.additions = [*bake.additions, entry]
    tap(app, session, kitchen, bake, mixed, "mix")
    r = solve.load(app, session, bake.id or 0)
    seen = solve.solve(r).forecast
    ready = None if seen is None else seen.windows[0].ready.p50
    if seen is not None and ready is not None:
        if ready > 0.6:
            at_h = 0.6 * ready
            ratio = float(np.interp(at_h * truth.leaven, seen.trace.h, seen.trace.ratio)) * truth.log_noise(0.03)
            set_clock(session, kitchen, app.real_now(), mixed + dt.timedelta(hours=at_h))
            look = ReadingCreate(bake_id=bake.id or 0, kind="ratio", value=round(max(ratio, 1.0), 2))
            bake_commands.add_reading(session, solve.load(app, session, bake.id or 0), look)
        if bake.cold is None:  # the leaven is quicker or slower than is believed, and it is seen
            tap(app, session, kitchen, bake, mixed + dt.timedelta(hours=ready / truth.leaven), "ball")
    while True:
        plan = solve.solve(solve.load(app, session, bake.id or 0)).plan
        ahead = [s for s in plan.steps if s.key in DOUGH and s.done_at is None] if plan else []
        if not ahead:
            return
        tap(app, session, kitchen, bake, ahead[0].at, ahead[0].key)


def _heat(app: App, session: Session, kitchen: Kitchen, bake: Bake, night: Night, truth: Truth) -> None:
    """The breads on their surface as it was: moved by the times told, what was seen, what they became."""
    r = solve.load(app, session, bake.id or 0)
    work = solve.solve(r)
    bread, told, surface = work.bread, work.program, r.surface
    assert bread is not None and told is not None and surface is not None
    browns = browns_of(surface)  # what is believed is no truth
    bread = replace(bread, browning=bread.browning / browns)
    spots, rounds = fire_model.spots_of(r), fire_model.loads_of(r, work.sheet)
    begin = r.now + dt.timedelta(minutes=10)
    moves, missing = _moves(told.turn_s, told.off_s, told.recovery_s or 0.0, spots, rounds, truth)
    seen = fire_model.events_at(r, bread, surface.temp_c + truth.over_k)
    facts = []
    for kind, event in (("bubbles", "bubbles"), ("browned", "browned"), ("puffed", "puff")):
        s = seen.get(event)
        if s is not None and s < told.off_s:
            facts.append((s * truth.log_noise(EVENT_SD), kind, 1, 1))
    for seconds, kind, number, spot in sorted([*moves, *facts]):
        tap(app, session, kitchen, bake, begin + dt.timedelta(seconds=round(seconds, 1)), kind, number, spot)
    r = solve.load(app, session, bake.id or 0)
    drop_k = told.baking.surface.temp_c - told.surface_after_c
    at = {(kind, number): s for s, kind, number, _ in moves}
    mood = POCKET_SD * float(truth.dice.standard_normal())
    judged_at: dict[float, Program] = {}
    for number in range(1, rounds + 1):
        heat_c = round((surface.temp_c + truth.over_k - drop_k * missing[number - 1]) / 4) * 4.0
        if heat_c not in judged_at:
            uneven = replace(r, bake=Bake(**(r.bake.model_dump() | {"uneven_frac": night.uneven})))
            judged_at[heat_c] = fire_model.program_at(uneven, bread, work.maturity, heat_c, lies_min=night.bare_min)
        program = judged_at[heat_c]
        load, off = at["load", number], at["off", number]
        turn = at.get(("turn", number))
        dose = fire_model.doses_at(told, heat_c, None if turn is None else turn - load, off - load)[0]
        shade = math.log(max(dose / browns, 1e-3) / fire_model.wished_dose(r.bake)) + WORD_SD * float(
            truth.dice.standard_normal()
        )
        word = {
            "round_no": number,
            "pocket": _pocket(program, mood, truth) if program.baking.pocket else None,
            "colour": "pale" if shade < -WORD_FROM else "dark" if shade > WORD_FROM else "right",
        }
        keep_judge.add_outcome(session, r, OutcomeUpdate.model_validate(word))
        r = solve.load(app, session, bake.id or 0)
    if night.bare_min > 3:
        set_noted(bake, {**noted_of(bake), "skin_min": night.bare_min})
    if night.uneven > 0.2:
        set_noted(bake, {**noted_of(bake), "uneven_frac": night.uneven})


def _pocket(program: Program, mood: float, truth: Truth) -> str:
    score = min(max(program.score.score / 100, 0.02), 0.98)
    chance = 1 / (1 + math.exp(-(math.log(score / (1 - score)) + mood)))
    drawn = float(truth.dice.random())
    return "full" if drawn < chance else "part" if drawn < chance + 0.6 * (1 - chance) else "flat"


def _moves(
    turn_s: float | None, off_s: float, recovery_s: float, spots: int, rounds: int, truth: Truth
) -> tuple[list[tuple[float, str, int, int]], list[float]]:
    """Moves of the line [s from its start], and of each round the share of its fall that its spot still lacked."""
    free, moves, missing = [0.0] * spots, list[tuple[float, str, int, int]](), list[float]()
    hand = 0.0
    for number in range(1, rounds + 1):
        spot = (number - 1) % spots + 1
        wait = max(truth.waits * recovery_s * truth.log_noise(0.1), HAND_S) if number > spots else 0.0
        load = max(free[spot - 1] + wait, hand)
        missing.append(max(0.0, 1 - (load - free[spot - 1]) / recovery_s) if number > spots and recovery_s else 0.0)
        late = LATE_S * abs(float(truth.dice.standard_normal()))
        moves.append((load, "load", number, spot))
        if turn_s is not None:
            moves.append((load + turn_s + late, "turn", number, spot))
        moves.append((load + off_s + late, "off", number, spot))
        free[spot - 1], hand = load + off_s + late, load + 9.0
    return moves, missing


def _set_plates(app: App, kitchen_id: int, temp_c: float) -> None:
    """Set down another heat of the plates."""
    with app.transaction(kitchen_id) as session:
        plates = next(s for s in kitchen_rows.surfaces(session, kitchen_id) if s.name == PLATES)
        stored = get(session, Surface, plates.id or 0)
        assert stored is not None
        stored.temp_c = temp_c
        session.add(stored)


def _forget_plates(app: App, kitchen_id: int) -> None:
    """Refuses the lessons that the plates taught while they were not what they were thought to be."""
    with app.read() as session:
        plates = next(s for s in kitchen_rows.surfaces(session, kitchen_id) if s.name == PLATES)
    change_belief(app, kitchen_id, key_of("surface", plates.id), forget=True)


def _feed(app: App, kitchen_id: int, starter_id: int, night: Night) -> None:
    """The starter fed two evenings before a bread of it, and seen at its peak: later, where it has slept."""
    zone = ZoneInfo(ZONE)
    fed = dt.datetime.combine(night.day - dt.timedelta(days=3), dt.time(20, 30), zone)
    _at(app, kitchen_id, fed)
    given = FeedCreate(seed_g=15, flour_g=45, water_g=45, place="bench", at=fed.isoformat())
    told = starters.feed(app, kitchen_id, starter_id, given).peak_at
    if told is None or told.p50 is None:
        return
    dice = np.random.default_rng([SEED, night.day.toordinal(), 1])
    slower = SLEPT.get(night.day, 1.0) * math.exp(0.03 * float(dice.standard_normal()))
    peaked = fed + (told.p50 - fed) / slower
    _at(app, kitchen_id, peaked + dt.timedelta(minutes=5))
    starters.peaked(app, kitchen_id, starter_id, PeakCreate(at=peaked.isoformat()))


def _at(app: App, kitchen_id: int, when: dt.datetime) -> None:
    with app.transaction(kitchen_id) as session:
        set_clock(session, app.kitchen(session, kitchen_id), app.real_now(), when)


def _breathe(app: App, kitchen_id: int, hourly_c: list[float]) -> None:
    """Set the kitchen's usual air by the hour."""
    with app.transaction(kitchen_id) as session:
        kitchen = app.kitchen(session, kitchen_id)
        kitchen.hourly_c = hourly_c
        session.add(kitchen)
