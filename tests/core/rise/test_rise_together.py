"""Leavens under one roof: soda beside yeast and starter, doughs that are joined; balances, identities, plain truths."""

from __future__ import annotations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from brassclock.core.matter.dough import Portion, dough_of_masses
from brassclock.core.matter.ingredients import table
from brassclock.core.rise import course as yeast_course
from brassclock.core.rise import start as rise_start
from brassclock.core.rise import stepper
from brassclock.core.rise.chemical.model import pools_of
from brassclock.core.rise.chemical.reaction import potential, react
from brassclock.core.rise.forecast import forecast
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Run, Stage, run_stages, with_all
from brassclock.core.rise.state import COLUMNS, TEMP

ROWS = table()
LEAN = [("plain_flour", 100.0), ("water", 62.0), ("yeast_instant", 1.0), ("salt_fine", 2.0)]
YOGHURT = [("plain_flour", 250.0), ("yoghurt_whole", 150.0), ("water", 40.0), ("salt_fine", 4.0), ("sugar", 5.0)]


def portions(*lines: tuple[str, float]) -> tuple[Portion, ...]:
    return tuple(Portion(ROWS[k], g) for k, g in lines)


def still(hours: float, temp_c: float = 24.0, **more: object) -> Stage:
    return Stage("bulk", hours, ((0.0, temp_c),), target_ratio=2.0, **more)  # type: ignore[arg-type]


def rise(lines: list[tuple[str, float]], hours: float, strength: str = "kneaded", temp_c: float = 24.0) -> Run:
    return run_stages(Batch(dough_of_masses(lines), strength, temp_c), [still(hours, temp_c)], [hours], 1.0)


def test_two_halves_joined_at_once_are_one_dough() -> None:
    """Analytic identity: half of a dough that the other half joins before anything happens rises as the whole."""
    half = [(k, g / 2) for k, g in LEAN]
    whole = rise(LEAN, 4)
    joined = run_stages(Batch(dough_of_masses(half), "kneaded", 24.0), [still(4, add=portions(*half))], [4], 1.0)
    assert np.allclose(whole.ratio, joined.ratio, rtol=0, atol=1e-12)
    assert np.allclose(whole.maturity, joined.maturity, rtol=0, atol=1e-12)


@settings(max_examples=25, deadline=None)
@given(
    share=st.floats(0.2, 0.8),
    hours=st.floats(0.1, 3),
    sugar=st.floats(0, 8),
    fresh=st.floats(0, 1.5),
    temp=st.floats(15, 35),
)
def test_joining_conserves_what_was_there(share: float, hours: float, sugar: float, fresh: float, temp: float) -> None:
    """Conservation: sugars, yeast and damaged starch of the sponge and of the newcomers add up by mass; heat adds up
    too."""
    first = [("plain_flour", 100 * share), ("water", 50.0), ("yeast_instant", 1.0)]
    joins = [
        ("plain_flour", 100 * (1 - share)),
        ("water", 12.0),
        ("salt_fine", 2.0),
        ("sugar", sugar),
        ("yeast_fresh", fresh),
    ]
    batch = Batch(dough_of_masses(first), "kneaded", 26.0)
    run = run_stages(batch, [still(hours, temp), still(1.0, temp, add=portions(*joins))], [hours, 1.0], 1.0)
    c = run.course
    after = int(np.argmax(c.stretch == 1))
    old, new = c.state[after - 1] * 100 * share, c.state[after] * 100
    alone = rise_start.start_of(Batch(dough_of_masses(joins), "kneaded", temp).recipe, temp).state * 100 * (1 - share)
    for at in (0, 1, 2, 3):
        assert new[at] == pytest.approx(old[at] + alone[at], rel=1e-9, abs=1e-12)
    cold, warm = sorted((float(c.state[after - 1, TEMP]), temp))
    assert cold - 1e-9 <= c.state[after, TEMP] <= warm + 1e-9
    gas_share = c.gas_ml[after] / c.volume_ml[after]
    assert gas_share == pytest.approx(0.07, abs=1e-6)
    assert run.ratio[after] == 1.0


def test_a_sponge_gives_tired_yeast_a_start() -> None:
    """Fact of the trade: dry yeast fed in a wet, unsalted sponge lifts the dough sooner after mixing than put in
    dry."""
    sponge = [("plain_flour", 40.0), ("water", 44.0), ("yeast_active", 1.3)]
    rest = [("plain_flour", 60.0), ("water", 18.0), ("salt_fine", 1.7)]
    straight = rise(sponge + rest, 4, temp_c=25.0)
    batch = Batch(dough_of_masses(sponge), "kneaded", 25.0)
    stages = [Stage("sponge", 0.5, ((0.0, 25.0),)), still(4, 25.0, add=portions(*rest))]
    two = run_stages(batch, stages, [0.5, 4], 1.0)
    bulk = two.stage == 1
    later = yeast_course.first_passage_h(straight.course.h, straight.ratio, 2.0)
    sooner = yeast_course.first_passage_h(two.course.h[bulk] - 0.5, two.ratio[bulk], 2.0)
    assert sooner is not None and later is not None
    assert 0.1 < later - sooner < 0.6
    assert with_all(batch, stages).dough.total_g == pytest.approx(165.0)


def test_soda_and_acid_make_the_gas_they_should() -> None:
    """Stoichiometry: without ferment every mole of gas made is a mole of soda met by acid; the stepper's pools are the
    chemistry's own."""
    lines = [*YOGHURT, ("baking_powder", 6.0)]
    dough = dough_of_masses(lines)
    run = rise(lines, 2)
    pools = pools_of(dough)[1]
    made_at_mixing = react(pools, 24.0, 3.0)
    begin = float(potential(pools))
    steps = sum(react(pools, 24.0, 5.0) for _ in range(24))
    assert run.course.co2_made_mol[-1] == pytest.approx(steps, rel=1e-9)
    assert run.course.to_come_mol[0] == pytest.approx(begin, rel=1e-12)
    assert run.course.to_come_mol[-1] == pytest.approx(float(potential(pools)), rel=1e-9)
    assert made_at_mixing > 0.3 * float(potential(pools_of(dough)[1]))


def test_a_starters_acid_meets_the_soda_first() -> None:
    """Balance: at mixing soda takes the starter's acid mole for mole, and the gas of that is in the dough."""
    base = [("bread_flour", 400.0), ("water", 200.0), ("starter_100", 160.0), ("salt_fine", 9.0)]
    plain = rise_start.start_of(Batch(dough_of_masses(base), "kneaded", 24.0).recipe, 24.0)
    soda = Batch(dough_of_masses([*base, ("baking_soda", 0.6)]), "kneaded", 24.0)
    start = rise_start.start_of(soda.recipe, 24.0)
    added = 0.6 / 84.007 / soda.dough.flour_g
    assert start.fresh[13] == pytest.approx(plain.fresh[13], rel=1e-9)
    assert start.state[13] == pytest.approx(plain.state[13] - added, rel=1e-6)
    assert start.pools[0, 0] == pytest.approx(0.0, abs=1e-15)
    quiet, brisk = (
        run_stages(Batch(dough_of_masses(x), "kneaded", 24.0), [still(6)], [6], 1.0)
        for x in (base, [*base, ("baking_soda", 0.6)])
    )
    assert brisk.course.acid_mol[-1] < quiet.course.acid_mol[-1]


def test_yeast_and_soda_together_are_faster_than_either() -> None:
    """Facts of the trade: soda hastens a yeasted yoghurt dough; alone it never doubles it; slow powder is still there
    for the heat."""
    yeast, soda = ("yeast_instant", 2.5), ("baking_soda", 1.2)
    both, alone, bare = (rise([*YOGHURT, *extra], 4, "enriched", 25.0) for extra in ((yeast, soda), (yeast,), (soda,)))
    hours = [yeast_course.first_passage_h(r.course.h, r.ratio, 1.8) for r in (both, alone)]
    assert hours[0] < hours[1]  # type: ignore[operator]
    assert bare.ratio.max() < 1.6
    powder = dough_of_masses([("plain_flour", 250), ("water", 160), ("baking_powder", 8), ("yeast_instant", 1)])
    seen = forecast(Batch(powder, "kneaded", 24.0), [still(2)])
    assert seen.leaven_left_frac is not None
    assert 0.4 < seen.leaven_left_frac < 0.9
    assert forecast(Batch(dough_of_masses(LEAN), "kneaded", 24.0), [still(2)]).leaven_left_frac is None


def test_plain_and_compiled_agree_with_every_leaven_in_it() -> None:
    """Analytic: the compiled twin is the plain function, starter, yeast, soda and a knock-back included."""
    dough = dough_of_masses([*YOGHURT, ("starter_100", 40.0), ("yeast_instant", 1.0), ("baking_powder", 4.0)])
    start = rise_start.start_of(Batch(dough, "enriched", 25.0).recipe, 25.0)
    Piece = yeast_course.Piece
    pieces = yeast_course.pieces_of([Piece(1.0, 25.0, 23.0, 1.65, 0.15), Piece(1.0, 23.0, 4.0, 1.65)])
    found = []
    for run_it in (stepper.run, yeast_course.course_stepper):
        rows = np.zeros((40, COLUMNS))
        run_it(start.state.copy(), start.air_mol, start.pools.copy(), pieces, start.p, yeast_course.DT_H, rows)
        found.append(rows)
    assert np.allclose(*found, rtol=1e-10, atol=1e-15)


def test_soda_alone_and_powder_in_yoghurt() -> None:
    """Stoichiometry: heated alone, soda gives half its gas. Published order (memory of the design): dairy acid spends
    about three quarters of a double-acting powder within five minutes; in water most of it waits for the heat."""
    alone = np.array([[1.0, 1.0, 4e4, 0.03, 9e4, 0.0, 0.0]])
    assert react(alone, 100.0, 2000.0) == pytest.approx(0.5, rel=1e-3)
    left = []
    for wet in ("yoghurt_whole", "water"):
        pools = pools_of(dough_of_masses([("plain_flour", 250), (wet, 190), ("baking_powder", 7.5)]))[1]
        before = float(potential(pools))
        react(pools, 25.0, 5.0)
        left.append(float(potential(pools)) / before)
    assert left[0] < 0.4 < 0.5 < left[1]
