"""Build the demo kitchen: hourly air, four surfaces, three kept bakes and one alive in its ball proof."""

from __future__ import annotations

import datetime as dt
from importlib.resources import files
from zoneinfo import ZoneInfo

from sqlmodel import Session

from brassclock.demo.doing import set_clock, start, tap
from brassclock.services import solve
from brassclock.services.app import App
from brassclock.services.bake import commands as bake_commands
from brassclock.services.bake import create as bake_create
from brassclock.services.bake import ending as bake_ending
from brassclock.services.keep import judge as keep_judge
from brassclock.services.kitchen import busy, starters
from brassclock.services.kitchen import settings as kitchen_settings
from brassclock.services.pages.bringing import package_in
from brassclock.services.schemas.bake import BakeCreate, BakeUpdate
from brassclock.services.schemas.day import BusyCreate, CalendarCreate
from brassclock.services.schemas.keep import OutcomeUpdate
from brassclock.services.schemas.kitchen import (
    FeedCreate,
    KitchenCreate,
    KitchenUpdate,
    PeakCreate,
    StarterCreate,
    SurfaceUpdate,
)
from brassclock.services.schemas.rise import ReadingCreate
from brassclock.services.schemas.weigh import ScaleUpdate
from brassclock.services.weigh import commands as weigh_commands
from brassclock.store import kitchens as kitchen_rows
from brassclock.store.rows import find, insert
from brassclock.store.tables import Bake, Brought, Kitchen, PlanChange, Surface

ZONE = "Europe/Zurich"
ALTITUDE_M = 1150.0
HOURLY_C = [
    17.6, 17.0, 16.4, 15.9, 15.4, 15.0, 15.1, 15.6, 16.4, 17.6, 19.0, 20.4,
    21.6, 22.4, 22.9, 23.0, 22.8, 22.4, 21.9, 21.4, 20.8, 20.1, 19.3, 18.4,
]  # fmt: skip
DAY = dt.datetime(2026, 11, 24, tzinfo=ZoneInfo(ZONE))
STALE = dt.timedelta(hours=3)


def at(days: int, clock: str, seconds: int = 0) -> dt.datetime:
    """An instant of the demo: days from its Tuesday, time of day there."""
    hour, minute = (int(x) for x in clock.split(":"))
    return (DAY + dt.timedelta(days=days)).replace(hour=hour, minute=minute) + dt.timedelta(seconds=seconds)


PAST = (
    # days, mixed, balled, first load, serve, readings, outcomes, note
    (-3, "22:38", "00:18", "01:04", "01:30", ((50, 1.42),), "FR FR FR PR FR FR FP FR",
     "Draught from the hatch; the last ones paled."),
    (-2, "22:52", "00:30", "01:13", "01:30", ((60, 1.5),), "FR FR FD FR FR FR FR FR",
     "Best so far. Third stayed on too long while Tomo fetched trays."),
    (-1, "22:20", "00:04", "01:05", "01:30", ((45, 1.3), (95, 1.72)), "FR PR PR FP FR LP FR LP",
     "Rounds lay bare on the stone bench. Cover them."),
)  # fmt: skip
WORDS = {"F": "full", "P": "part", "L": "flat"}
COLOUR = {"R": "right", "P": "pale", "D": "dark"}


def ensure_demo(app: App) -> None:
    """The demo kitchen, made anew when it is missing or its evening is long over."""
    with app.transaction() as session:
        kitchen = kitchen_rows.demo_kitchen(session)
        if kitchen is not None:
            if app.now(session, kitchen) < at(1, "01:30") + STALE:
                return
            session.delete(kitchen)
    kitchen_id = build_demo(app)
    _look_after_a_starter(app, kitchen_id)
    _plan_friday(app, kitchen_id)
    winters = files("brassclock.demo") / "winters.zip"
    package_in(app, kitchen_id, winters.read_bytes())
    with app.transaction(kitchen_id) as session:  # what the winters taught was known all along: nothing has moved
        for row in (*find(session, PlanChange), *find(session, Brought)):
            session.delete(row)


def _look_after_a_starter(app: App, kitchen_id: int) -> None:
    """The supper bread's starter: fed the day before, its peak noted, fed again for the night."""
    made = starters.add_starter(app, kitchen_id, StarterCreate(name="Old Pell"))
    for days, clock, grams in ((-1, "20:30", (15.0, 45.0, 45.0)), (0, "19:00", (20.0, 60.0, 60.0))):
        seed, flour, water = grams
        fed = FeedCreate(seed_g=seed, flour_g=flour, water_g=water, place="bench", at=at(days, clock).isoformat())
        starters.feed(app, kitchen_id, made.id, fed)
        if days < 0:
            starters.peaked(app, kitchen_id, made.id, PeakCreate(at=at(0, "06:40").isoformat()))


SURFACES = (  # name, kind, C, breads at once, fire
    ("Baking stone", "stone_oven", 275, 1, None),
    ("Clay oven, terrace", "clay_wall", 430, 6, "gas"),
    ("Wok of oil", "oil", 190, 2, None),
)
SUPPER = ("ridge-sour", "Supper sourdough", (2, "00:50"), 6, "Baking stone")
FRIDAY = (  # method, name, table, breads, surface
    ("terrace-naan", "Terrace naan", (3, "22:35"), 8, "Baking stone"),
    ("cellar-pita", "Cold-rise pitas", (4, "00:50"), 12, "Baking stone"),
    ("hatch-pita", "Hatch pitas, Friday", (4, "01:30"), 24, "Iron plates"),
    ("soda-quarters", "Soda round, day crew", (4, "06:45"), 8, "Iron plates"),
)
SHIFTS = (  # uid, what, begins, ends
    ("watch-1", "Ilse on the night assistant's chair", (3, "19:30"), (3, "21:15")),
    ("watch-2", "Ilse on the night assistant's chair", (4, "02:30"), (4, "04:30")),
    ("watch-0", "Ilse on the night assistant's chair", (2, "19:30"), (2, "21:15")),
)


def rota() -> str:
    """The astronomers' rota as it comes from their office: iCalendar, times of the place."""
    lines = ["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//Mount Pell//Rota//EN", "X-WR-CALNAME:Ilse's rota"]
    for uid, what, begins, ends in SHIFTS:
        a, b = (f"{at(*x):%Y%m%dT%H%M%S}" for x in (begins, ends))
        lines += ["BEGIN:VEVENT", f"UID:{uid}@pell.invalid", "DTSTAMP:20261120T080000Z", f"SUMMARY:{what}"]
        lines += [f"DTSTART;TZID={ZONE}:{a}", f"DTEND;TZID={ZONE}:{b}", "END:VEVENT"]
    return "\r\n".join([*lines, "END:VCALENDAR", ""])


def _plan_friday(app: App, kitchen_id: int) -> None:
    """Wednesday's sourdough, whose starter wants a feed, and Friday night: four bakes, two cooks, sleep by the week, a
    rota, and a drill that takes every hand."""
    kitchen_settings.change_kitchen(app, kitchen_id, KitchenUpdate(cooks=2, shelf_l=60))
    busy.add_busy(app, kitchen_id, BusyCreate(name="sleep", days=[3, 4, 5], from_time="08:30", until_time="15:00"))
    drill = BusyCreate(
        name="shutter drill", start=f"{at(3, '21:20'):%Y-%m-%d %H:%M}", end=f"{at(3, '22:15'):%Y-%m-%d %H:%M}"
    )
    busy.add_busy(app, kitchen_id, drill)
    busy.bring_calendar(app, kitchen_id, CalendarCreate(text=rota(), hands=1))
    surfaces = {s.name: s.id for s in kitchen_settings.get_kitchen(app, kitchen_id).surfaces}
    for method, name, table, breads, surface in (SUPPER, *FRIDAY):
        given = BakeCreate(kitchen_id=kitchen_id, method=method, name=name, serve=f"{at(*table):%Y-%m-%d %H:%M}")
        bake_id = bake_create.start_bake(app, given)
        weigh_commands.scale(app, bake_id, ScaleUpdate(count=breads))
        bake_commands.change_bake(app, bake_id, BakeUpdate(surface_id=surfaces[surface]))


def build_kitchen(app: App) -> int:
    """The canteen's kitchen and its surfaces, with no bake; answers its id."""
    with app.transaction() as session:
        kitchen = kitchen_settings.add_kitchen(
            session,
            KitchenCreate(
                name="Mount Pell night canteen",
                zone=ZONE,
                room_c=20,
                altitude_m=ALTITUDE_M,
                surface=SurfaceUpdate(name="Iron plates", kind="iron_plate", temp_c=235, power="medium_high", spots=2),
            ),
            app.real_now(),
            demo=True,
        )
        kitchen.hourly_c = HOURLY_C
        kitchen.tap_c = 11.5
        session.add(kitchen)
        for name, kind, temp_c, spots, heat in SURFACES:
            insert(
                session,
                Surface(kitchen_id=kitchen.id or 0, name=name, kind=kind, temp_c=temp_c, spots=spots, heat=heat),
            )
        return kitchen.id or 0


def build_demo(app: App) -> int:
    """Build it, with the bakes of its last days; answers the kitchen's id."""
    kitchen_id = build_kitchen(app)
    real = app.real_now()
    with app.transaction() as session:
        kitchen = app.kitchen(session, kitchen_id)
        for past in PAST:
            _past_bake(app, session, kitchen, real, past)
        _live_bake(app, session, kitchen, real)
        set_clock(session, kitchen, app.real_now(), at(1, "00:46"), rate=1.0)
    return kitchen_id


def _past_bake(app: App, session: Session, kitchen: Kitchen, real: dt.datetime, past: tuple[object, ...]) -> None:
    days, mixed, balled, first, serve, looks, marks, note = past
    assert isinstance(days, int) and isinstance(marks, str) and isinstance(looks, tuple)
    begin = at(days, str(mixed))
    set_clock(session, kitchen, real, begin - dt.timedelta(minutes=30))
    bake = start(app, session, kitchen, f"{at(days + 1, str(serve)):%Y-%m-%d %H:%M}", "Iron plates")
    bake.name = f"Hatch pitas, {begin:%A}"
    tap(app, session, kitchen, bake, begin - dt.timedelta(minutes=13), "weigh")
    tap(app, session, kitchen, bake, begin, "mix")
    for minutes, ratio in looks:
        set_clock(session, kitchen, real, begin + dt.timedelta(minutes=minutes))
        r = solve.load(app, session, bake.id or 0)
        bake_commands.add_reading(session, r, ReadingCreate(bake_id=bake.id or 0, kind="ratio", value=ratio))
    after = 1 if str(balled) < "12:00" else 0
    tap(app, session, kitchen, bake, at(days + after, str(balled)), "ball")
    fire = at(days + 1, str(first))
    tap(app, session, kitchen, bake, fire - dt.timedelta(minutes=13), "roll")
    _rounds(app, session, kitchen, bake, fire)
    for number, mark in enumerate(marks.split(), start=1):
        r = solve.load(app, session, bake.id or 0)
        keep_judge.add_outcome(
            session,
            r,
            OutcomeUpdate.model_validate({"round_no": number, "pocket": WORDS[mark[0]], "colour": COLOUR[mark[1]]}),
        )
    bake.note = str(note)
    session.add(bake)
    bake_ending.keep_rows(session, solve.load(app, session, bake.id or 0))


def _rounds(app: App, session: Session, kitchen: Kitchen, bake: Bake, fire: dt.datetime) -> None:
    """Eight rounds on two plates, a little slower than the program says, the first one watched."""
    turn, off, pause = 47, 70, 26
    moves: list[tuple[dt.datetime, str, int, int]] = []
    for number in range(1, 9):
        spot = 1 if number % 2 else 2
        load = fire + dt.timedelta(seconds=((number - 1) // 2) * (off + pause) + (0 if spot == 1 else 22))
        moves.append((load, "load", number, spot))
        moves.append((load + dt.timedelta(seconds=turn), "turn", number, spot))
        moves.append((load + dt.timedelta(seconds=off), "off", number, spot))
    for kind, seconds in (("bubbles", 38), ("browned", 31), ("puffed", 55)):
        moves.append((fire + dt.timedelta(seconds=seconds), kind, 1, 1))
    for when, kind, number, spot in sorted(moves):
        tap(app, session, kitchen, bake, when, kind, number, spot)


def _live_bake(app: App, session: Session, kitchen: Kitchen, real: dt.datetime) -> None:
    begin = at(0, "23:00")
    set_clock(session, kitchen, real, begin - dt.timedelta(minutes=40))
    bake = start(app, session, kitchen, f"{at(1, '01:30'):%Y-%m-%d %H:%M}", "Iron plates")
    tap(app, session, kitchen, bake, begin - dt.timedelta(minutes=14), "weigh")
    tap(app, session, kitchen, bake, begin, "mix")
    for minutes, ratio in ((40, 1.24), (78, 1.66)):
        set_clock(session, kitchen, real, begin + dt.timedelta(minutes=minutes))
        r = solve.load(app, session, bake.id or 0)
        bake_commands.add_reading(session, r, ReadingCreate(bake_id=bake.id or 0, kind="ratio", value=ratio))
    tap(app, session, kitchen, bake, at(1, "00:36"), "ball")
