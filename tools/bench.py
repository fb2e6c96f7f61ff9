"""Speed of the steppers and of the screen, as ratios against a named reference in the same run. `make bench` prints it.

The reference of the rise is `scipy.integrate.solve_ivp` (LSODA, rtol 1e-6) on the same right-hand side in
plain Python; that of the puff is the same scheme in plain Python.
"""

from __future__ import annotations

import datetime as dt
import gc
import os
import platform
import random
import statistics
import time
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from typing import Any
from zoneinfo import ZoneInfo

import numpy as np
from scipy.integrate import solve_ivp

from brassclock.core.day import plan as day_plan
from brassclock.core.day.courses import AS_PLANNED, COURSES, Choice, KitchenResources, PlanRequest
from brassclock.core.day.hands import Busy
from brassclock.core.day.options import DOSES
from brassclock.core.day.pack import Item, pack
from brassclock.core.day.places import places_of
from brassclock.core.day.search import Search
from brassclock.core.day.shared import Commitments
from brassclock.core.day.spec import BakeSpec, Cold, StageSpec
from brassclock.core.fire.layers import proved
from brassclock.core.fire.line.plan import plan_line
from brassclock.core.fire.line.spec import LineSpec, bread_ops
from brassclock.core.fire.program import plan_bread
from brassclock.core.fire.puff import model as puff_model
from brassclock.core.fire.right_heat import implied
from brassclock.core.fire.surfaces import Surface
from brassclock.core.matter.dough import dough_of_masses
from brassclock.core.matter.ingredients import table
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import start as rise_start
from brassclock.core.rise import stepper
from brassclock.core.rise.belief import Belief, Reading, nodes, posterior
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch, Recipe, Sour
from brassclock.core.rise.stages import Stage, run_stages
from brassclock.core.rise.state import CO2, SLOPES, STATES, TEMP
from brassclock.core.weigh.formula import PieceWish, weigh
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import TypedLine
from playing import played

Z = Recipe((("yeast_instant", 0.003),), 0.62, 0.02, mass=1.643, strength=0.75)
PATH = [
    yeast_course.Piece.constant(h, t, tau) for h, t, tau in ((0.5, 23.0, 1.48), (67.5, 4.0, 1.66), (4.0, 23.0, 1.48))
]


def best_ms(run: Callable[[], object], times: int) -> float:
    """Shortest of `times` runs [ms]: the least disturbed by whatever else the machine does."""
    took = []
    for _ in range(times):
        begin = time.perf_counter()
        run()
        took.append(time.perf_counter() - begin)
    return 1e3 * min(took)


def paired_ms(ours: Callable[[], object], reference: Callable[[], object], times: int) -> tuple[float, float]:
    """Medians of two things run in turn [ms]: a machine that changes its pace changes both."""
    took: tuple[list[float], list[float]] = ([], [])
    for _ in range(times):
        for run, into in ((ours, took[0]), (reference, took[1])):
            begin = time.perf_counter()
            run()
            into.append(time.perf_counter() - begin)
    return 1e3 * statistics.median(took[0]), 1e3 * statistics.median(took[1])


def expansion_by_scipy(start: rise_start.Start, method: str, rtol: float) -> float:
    """Volume ratio at the end of PATH, leg by leg (its air temperature jumps at each end)."""
    right_hand_side: Any = stepper.derivatives
    out = np.zeros(SLOPES)
    y = start.state
    for piece in PATH:

        def rhs(_: float, state: np.ndarray, piece: yeast_course.Piece = piece) -> np.ndarray:
            right_hand_side(state, piece.ambient0_c, piece.tau_h, start.air_mol, start.p, out)
            return out[:STATES].copy()

        y = solve_ivp(rhs, (0, piece.hours), y, method=method, rtol=rtol, atol=1e-12).y[:, -1]
    gas_ml = stepper.split(y[CO2], start.air_mol, y[TEMP], start.water, start.pressure_pa)[0]
    return float((start.dry_ml + gas_ml) / start.first_ml)


def rise() -> None:
    start = rise_start.start_of(Z, 24.0)
    ours, reference = paired_ms(
        lambda: yeast_course.course(start, PATH), lambda: expansion_by_scipy(start, "LSODA", 1e-6), 40
    )
    exact = expansion_by_scipy(start, "DOP853", 1e-10)
    off = abs(float(yeast_course.course(start, PATH).expansion[-1]) - exact)
    off_reference = abs(expansion_by_scipy(start, "LSODA", 1e-6) - exact)
    print(f"rise, 72 h at 5 min, compiled      {ours:9.2f} ms")
    print(
        f"  solve_ivp LSODA 1e-6, plain      {reference:9.2f} ms   {reference / ours:6.0f} x as long   (aim: 15 or "
        "more)"
    )
    print(f"  off in volume ratio              {off:9.1e}      LSODA {off_reference:.1e}   (aim: 1e-4 or less)")


SOUR = replace(Z, yeast=(), sour=Sour(0.09))


def sourdough() -> None:
    start = rise_start.start_of(SOUR, 25.0)
    ours = best_ms(lambda: yeast_course.course(start, PATH), 30)
    plain_yeast = best_ms(lambda: yeast_course.course(rise_start.start_of(Z, 24.0), PATH), 30)
    print(
        f"sourdough, 72 h at 5 min           {ours:9.2f} ms   {ours / plain_yeast:6.1f} x the yeast's own   (aim: "
        "2.5 ms or less)"
    )


COLD_DOUGH = [("plain_flour", 500.0), ("water", 310.0), ("yeast_instant", 1.5), ("salt_fine", 10.0)]
COLD_AIR = ((0.0, 23.0), (0.5, 23.0), (0.501, 4.0), (68.0, 4.0), (68.001, 23.0), (72.0, 23.0))


def belief() -> None:
    """Seventeen whole courses of 72 h weighed by two looks, beside the same by the plain stepper for one of them."""
    batch = Batch(dough_of_masses(COLD_DOUGH), "kneaded", 24.0)
    stage = Stage("balls", 72.0, COLD_AIR, Vessel("tray", 95, True), None, 1.6)
    looks = [Reading(24.0, ratio=1.25), Reading(48.0, ratio=1.5)]
    prior = Belief()
    z = nodes(prior, 17)

    def update() -> Belief:
        runs = [run_stages(batch, [stage], [72.0], float(np.exp(at)), coarse=True) for at in z]

        def predict(node: int, h: float) -> tuple[float, float]:
            r = runs[node]
            return float(np.interp(h, r.course.h, r.ratio)), float(np.interp(h, r.course.h, r.maturity))

        return posterior(prior, z, looks, predict).updated()

    ours = best_ms(update, 12)
    fast, yeast_course.course_stepper._fast = yeast_course.course_stepper._fast, None
    plain = best_ms(lambda: run_stages(batch, [stage], [72.0], 1.0, coarse=True), 1)
    yeast_course.course_stepper._fast = fast
    print(
        f"belief, 17 nodes of 72 h           {ours:9.2f} ms   one node in plain Python {plain:.0f} ms   (aim: 30 ms "
        "or less)"
    )


def sweep() -> None:
    """Cost by hours: a straight line, told as the ratio of cost per hour to that at 24 h."""
    start = rise_start.start_of(Z, 24.0)
    hours = (24.0, 48.0, 96.0, 168.0, 240.0)
    pieces = [[yeast_course.Piece.constant(h, 21.0, 1.65)] for h in hours]
    took = [best_ms(partial(yeast_course.course, start, piece), 25) for piece in pieces]
    ratios = ", ".join(f"{h:.0f} h {t / h / (took[0] / hours[0]):.2f}" for h, t in zip(hours, took, strict=True))
    print(f"cost per hour over that of 24 h    {ratios}   (aim: about 1 throughout)")


ZONE = ZoneInfo("Europe/Zurich")
FRIDAY = dt.datetime(2026, 11, 27, 20, tzinfo=ZONE)
SWING = [20.5 + 3 * float(np.sin((h - 9) / 24 * 2 * np.pi)) for h in range(24)]


def day() -> None:
    """A bake placed anew around a calendar, over its own route and over all; six bakes at once. Reference: the plan
    without hours."""

    def spec(grams: float, cold: Cold | None = None) -> BakeSpec:
        dough = dough_of_masses([*COLD_DOUGH[:2], ("yeast_instant", grams), COLD_DOUGH[3]])
        bulk = StageSpec(Stage("bulk", 2, ((0, 0),), Vessel("tub", dough.total_g, True, 20, "wood"), "ball", 1.9))
        ball = StageSpec(Stage("ball proof", 1, ((0, 0),), Vessel("tray", 95, True), None, 1.4), cold=cold)
        return BakeSpec(Batch(dough, "kneaded", 24.0), bulk, ball)

    def away(begin: int, hours: float, name: str) -> list[Busy]:
        first = FRIDAY.replace(hour=begin, minute=0) - dt.timedelta(days=4)
        return [Busy(a, a + dt.timedelta(hours=hours), name) for a in (first + dt.timedelta(days=i) for i in range(5))]

    places, now = places_of({}, 4.0), FRIDAY - dt.timedelta(hours=95)
    week = KitchenResources(SWING, places, [*away(9, 8, "work"), *away(22, 8.5, "sleep")])
    free = KitchenResources(SWING, places)
    every = Choice((AS_PLANNED, *COURSES), DOSES)
    plain, cold = spec(3.0), spec(1.0, Cold(0.25, 14, places["fridge"]))
    reference = best_ms(lambda: day_plan.plan_back(plain, SWING, FRIDAY, now, {}), 10)
    print(f"the plan of a bake without hours   {reference:9.2f} ms")
    for name, home, aim in (("working week", week, 50), ("four free days", free, 100)):
        for words, made, choice in (
            ("own route", plain, Choice()),
            ("own, cold", cold, Choice()),
            ("every route", plain, every),
        ):
            took = best_ms(lambda m=made, h=home, c=choice: Search(PlanRequest(m, FRIDAY, now), h).best(c), 8)  # type: ignore[misc]
            print(
                f"  around a {name:<15} {words:<11} {took:6.1f} ms   {took / reference:6.1f} x as long   (aim: {aim} "
                "ms or less)"
            )
    hours = (0.0, 1.2, 2.4, 3.6, 4.8, 6.0)
    items = [
        Item(
            f"b{i}",
            PlanRequest(cold if i % 2 else plain, FRIDAY + dt.timedelta(hours=h), now, litres=3.0),
            every,
            f"s{i % 2}",
        )
        for i, h in enumerate(hours)
    ]
    for name, home in (("working week", week), ("four free days", free)):
        home = replace(home, shared=Commitments(shelf_l=30.0))
        found = pack(items, home)
        took = best_ms(lambda h=home: pack(items, h), 2)  # type: ignore[misc]
        placed = sum(w is not None for w in found.ways.values())
        print(f"  six bakes, {name:<15} {took:10.0f} ms   {placed} placed, {found.how}   (aim: 1000 ms or less)")


def bake() -> None:
    bread = puff_model.Bread(0.0034, 0.18, 0.88, 20.0)
    air = puff_model.Face(30, 10, 30, 0.9, 1200)
    stages = [puff_model.Stage(150.0, turned, 12_000.0, 25.0, 8.0, air) for turned in (False, True)]

    def run() -> puff_model.Baked:
        return puff_model.simulate(bread, puff_model.Plate("iron", 0.005, 235.0), stages)

    ours = best_ms(run, 30)
    fast, puff_model.bake_stepper._fast = puff_model.bake_stepper._fast, None
    plain = best_ms(run, 1)
    puff_model.bake_stepper._fast = fast
    print(f"puff, 300 s, compiled              {ours:9.2f} ms                       (aim: 3 ms or less)")
    print(f"  the same scheme in plain Python  {plain:9.2f} ms   {plain / ours:6.0f} x as long")


def ensemble() -> None:
    """A bread with its program, the right heat, its bands and a habit led back to a heat; each over one bake of 300 s
    in the same run."""
    bread, air = puff_model.Bread(0.0034, 0.18, 0.88, 20.0), puff_model.Face(30, 10, 30, 0.9, 1200)
    stages = [puff_model.Stage(150.0, turned, 12_000.0, 25.0, 8.0, air) for turned in (False, True)]
    bake = best_ms(lambda: puff_model.simulate(bread, puff_model.Plate("iron", 0.005, 235.0), stages), 12)
    for kind, temp in (("iron_plate", 200.0), ("stone_oven", 275.0)):
        surface = Surface(kind, temp, sd_k=28.0)
        heat = best_ms(lambda s=surface: plan_bread(bread, s).right_heat, 8)  # type: ignore[misc]
        one = best_ms(lambda s=surface: plan_bread(bread, s), 12)  # type: ignore[misc]
        both = best_ms(lambda s=surface: plan_bread(bread, s).bands, 8)  # type: ignore[misc]
        habit = best_ms(lambda s=surface: implied(plan_bread(bread, s).baking, [90.0, 90.0]), 5)  # type: ignore[misc]
        print(f"program and right heat, {kind:<12}{heat:8.1f} ms  {heat / bake:5.0f} x one bake  (aim: 60 ms or less)")
        print(
            f"  its bands of 32, on top           {both - one:8.1f} ms  {(both - one) / bake:5.0f} x one bake  (aim: "
            "60 ms or less)"
        )
        print(
            f"  a habit led back to a heat        {habit:8.1f} ms  {habit / bake:5.0f} x one bake  (aim: 150 ms or "
            "less)"
        )
    roll = proved(puff_model.Bread(0.02, 0.06, 0.88, 24.0, pocket=False))
    baking = plan_bread(roll, Surface("oven_tray", 225.0)).baking
    roll_ms = best_ms(lambda: baking.baked(), 5)
    print(
        f"a roll of 30 min in a tray           {roll_ms:8.1f} ms  {roll_ms / bake:5.0f} x one bake  (aim: 15 ms or "
        "less)"
    )


def heat_line() -> None:
    """The first answer for a line, then one looked for longer; the reference is the lower bound."""
    ops = bread_ops(41.0, 60.0)
    for breads in (24, 120):
        spec = LineSpec(ops, 2, 1, 5)
        plan_line.cache_clear()
        began = time.perf_counter()
        first = plan_line(spec, breads)
        took = 1e3 * (time.perf_counter() - began)
        longer = plan_line(spec, breads, 100_000)
        aim = 150 if breads == 24 else 500
        print(
            f"line of {breads:3d}, first answer {took:9.0f} ms   {first.makespan_s / first.lower_bound_s:.3f} of the "
            "bound, "
            f"looked for 2 s longer {longer.makespan_s / longer.lower_bound_s:.3f}   (aim: {aim} ms or less)"
        )
    for breads, spots, cooks, late_s in ((24, 2, 1, 4), (24, 2, 1, 15), (120, 4, 2, 4), (120, 4, 2, 15)):
        spec = LineSpec(ops, spots, cooks, 5)
        planned = plan_line(spec, breads, 2_500).from_load_s
        plays = []
        for _ in range(3):  # the same each time: the quickest of three is the line's own time
            seconds = random.Random(1)
            gc.collect()
            gc.freeze()  # as the server does
            plays.append(played(spec, breads, 41.0, 60.0, lambda _, s=seconds, most=late_s: s.uniform(0, most)))  # type: ignore[misc]
        ms = sorted(map(min, *(run.mended_ms[2:] for run in plays)))
        print(
            f"line of {breads:3d}, mended, median {statistics.median(ms):5.1f} ms   p95 "
            f"{ms[len(ms) * 95 // 100]:.1f}, longest {ms[-1]:.0f} (met once: "
            f"{max(max(run.mended_ms[2:]) for run in plays):.0f}); up to {late_s} s late at each move, "
            f"{plays[0].seconds / planned:.3f} of the plan   "
            "(aim: 100 ms or less)"
        )


def thirty_lines() -> list[TypedLine]:
    """A formula of thirty lines in mixed units."""
    amounts = ("1 1/2 cups", "250 g", "2 tbsp", "1 tsp", "3 oz", "1/4 cup")
    return [TypedLine(key, amounts[i % len(amounts)]) for i, key in enumerate(list(table())[:30])]


def sheet() -> None:
    lines = thirty_lines()
    ours = best_ms(lambda: weigh(lines, PieceWish(8, 95), Shape(diameter_cm=18)), 50)
    print(f"weigh, 30 lines                    {ours:9.2f} ms                       (aim: 5 ms or less)")


def keep() -> None:
    """Three days of a kept bread with its bands, causes of one fault and of three, lessons of five thousand bakes."""
    from brassclock.core.keep.cause import chance
    from brassclock.core.keep.cause.facts import Facts
    from brassclock.core.keep.cause.judge import judge
    from brassclock.core.keep.hold.model import Kept, run
    from brassclock.core.keep.hold.windows import hold
    from brassclock.core.keep.ledger import Lesson, fold

    pita, cloth = Kept("pocket", 95.0, 0.884, 0.08, 0.18, 0.008), ((0.0, "cloth"),)
    hold(pita, cloth, 8)
    bands, one = paired_ms(lambda: hold(pita, cloth, 8), lambda: run(pita, cloth, 8), 20)
    print(f"a bread kept 72 h, with bands      {bands:9.1f} ms   {bands / one:6.1f} x one run   (aim: 60 ms or less)")
    facts = Facts(surface="stone_oven", surface_c=205.0, thickness_mm=3.4, skin_min=6.0, uneven_frac=0.3)
    known = ("surface_c", "thickness_mm", "skin_min", "uneven_frac", "maturity", "hydration_frac")

    def afresh(*faults: str) -> None:
        chance.baked.cache_clear()
        judge(faults, facts, known)  # type: ignore[arg-type]

    one_fault, baked = paired_ms(lambda: afresh("flat"), lambda: chance.baked.__wrapped__(facts), 5)
    three = best_ms(lambda: afresh("flat", "pale", "tough"), 3)
    print(f"causes of one fault                {one_fault:9.0f} ms   {one_fault / baked:6.1f} x one bread   (aim: 400)")
    print(f"causes of three                    {three:9.0f} ms   {three / baked:6.1f} x one bread   (aim: 1000)")
    lessons = [
        Lesson("activity:yeast_instant", 1.0 + (n % 7 - 3) / 20, 0.22, f"2026-{1 + n % 12:02}-{1 + n % 28:02}T{n:05}")
        for n in range(5000)
    ]
    folded, summed = paired_ms(lambda: fold(lessons), lambda: sorted(lessons, key=lambda x: x.at), 15)
    print(f"lessons of 5,000 bakes folded      {folded:9.1f} ms   {folded / summed:6.1f} x sorting   (aim: 50)")


def main() -> None:
    print(f"{platform.node()}: {platform.machine()}, {os.cpu_count()} cores, Python {platform.python_version()}")
    if not (yeast_course.warm() and puff_model.warm()):
        raise SystemExit("numba is missing: there is nothing compiled to measure")
    rise()
    sourdough()
    belief()
    sweep()
    day()
    bake()
    ensemble()
    heat_line()
    sheet()
    keep()


if __name__ == "__main__":
    main()
