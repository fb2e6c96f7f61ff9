"""The Drill: the same draw anywhere, answers worth what arithmetic says, cases that are what they are told to be."""

from __future__ import annotations

import math
import shutil
import subprocess
from itertools import pairwise, product
from statistics import NormalDist

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.drill import call, fault, hands, read
from brassclock.core.drill.draw import KINDS, LEVELS, Draw
from brassclock.core.drill.level import level_after
from brassclock.core.errors import InvalidInput
from brassclock.core.fire.line.spec import check_line

SEEDS = range(3)
CASES = list(product(LEVELS, SEEDS))


@pytest.mark.skipif(shutil.which("b2sum") is None, reason="no b2sum here")
@pytest.mark.parametrize(("kind", "level", "seed", "number"), [("call", 1, 7, 0), ("hands", 5, 10_001, 42)])
def test_a_draw_is_blake2b(kind: str, level: int, seed: int, number: int) -> None:
    """Against another program for BLAKE2b (RFC 7693): the first 53 bits of its digest."""
    text = f"{kind}:{level}:{seed}:{number}"
    digest = subprocess.run(["b2sum"], input=text, capture_output=True, text=True, check=True).stdout.split()[0]
    assert Draw(kind, level, seed).share(number) == int(bin(int(digest, 16))[2:].zfill(512)[:53], 2) / 2**53


def test_draws_are_uniform_and_normal() -> None:
    shares = np.array([Draw("read", 2, seed).share(n) for seed in range(50) for n in range(40)])
    assert np.abs(np.quantile(shares, [0.1, 0.5, 0.9]) - [0.1, 0.5, 0.9]).max() < 0.03
    z = np.array([Draw("read", 2, seed).normal(n) for seed in range(50) for n in range(40)])
    assert abs(z.mean()) < 0.08
    assert abs(z.std() - 1) < 0.06


@pytest.mark.parametrize(("level", "seed"), CASES)
def test_a_perfect_learner_has_all(level: int, seed: int) -> None:
    one = call.call_case(Draw("call", level, seed))
    window = call.off_window(one, one.due)
    assert window.low_s is not None
    assert call.turn_points(one, one.turn_s) + call.off_points(window, window.low_s) == pytest.approx(100)
    dough = read.read_case(Draw("read", level, seed))
    assert read.points(dough, dough.state, read.SURE[0], dough.left_h) == pytest.approx(100)
    failed = fault.fault_case(Draw("fault", level, seed))
    assert fault.points(failed, fault.best(failed)) == pytest.approx(100)
    line = hands.hands_case(Draw("hands", level, seed))
    done = hands.planned(line, [hands.Move(t.move, t.cook) for t in line.ours.tasks])
    assert (hands.points(line, done), done.broken) == (100, ())
    assert done.ends_s <= line.ours.makespan_s


@pytest.mark.parametrize("level", LEVELS)
def test_who_presses_at_random_has_what_arithmetic_says(level: int) -> None:
    """The mean of the points over a learner's guesses against closed forms."""
    one = call.call_case(Draw("call", level, 1))
    w, most = one.width(), 3.0
    turns = [call.turn_points(one, u * one.turn_s) for u in np.linspace(0, most, 4001)[1:]]
    by_turns = (
        50 / most * w * math.sqrt(2 * math.pi) * math.exp(w**2 / 2) * NormalDist().cdf((math.log(most) - w**2) / w)
    )
    assert np.mean(turns) == pytest.approx(by_turns, rel=2e-3)
    window = call.Off(100.0, 140.0, 300.0)
    s = call.GAP_WIDTH * 100.0
    ends = [call.off_points(window, t) for t in np.linspace(0, 300, 6001)]
    by_ends = 50 / 300 * (40 + s * (1 - math.exp(-100 / s)) + s * (1 - math.exp(-160 / s)))
    assert np.mean(ends) == pytest.approx(by_ends, rel=2e-3)
    dough = read.read_case(Draw("read", level, 1))
    named = [read.state_points(dough, state, sure) for state in read.STATES for sure in read.SURE]
    best = 1 - 0.75 * (1 - read.SURE[0]) ** 2

    def told(sure: float) -> float:
        rest = (1 - sure) / 2
        right = 1 - (1 - sure) ** 2 / 2 - rest**2
        wrong = 1 - (sure**2 + rest**2 + (1 - rest) ** 2) / 2
        return (right + 2 * wrong) / 3

    assert np.mean(named) == pytest.approx(100 * np.mean([told(p) for p in read.SURE]) / best)
    line = hands.hands_case(Draw("hands", level, 1))
    alone = hands.planned(line, [hands.Move(m) for _ in range(line.kit.breads) for m in line.moves])
    ops = line.spec.kinds[0].ops
    assert alone.ends_s == line.kit.breads * sum(o.hands_s + o.then_min_s for o in ops)  # one bread after the other


def test_being_sure_pays_only_who_is_right() -> None:
    """A proper score: of three sureness words the one nearest one's own chance of being right is worth most."""
    dough = read.read_case(Draw("read", 1, 1))
    wrong = next(s for s in read.STATES if s != dough.state)

    def expected(chance: float, sure: float) -> float:
        return chance * read.state_points(dough, dough.state, sure) + (1 - chance) * read.state_points(
            dough, wrong, sure
        )

    for chance in read.SURE:
        assert max(read.SURE, key=lambda sure: expected(chance, sure)) == chance


@pytest.mark.parametrize(("level", "seed"), CASES)
def test_a_bread_may_come_off_only_once_it_is_done(level: int, seed: int) -> None:
    one = call.call_case(Draw("call", level, seed))
    for share in (0.5, 0.8, 1.0, 1.3):
        baked = one.turned(share * one.turn_s)
        window, done = call.off_window(one, baked), baked.events["done"]
        if window.low_s is None:
            continue
        assert done is not None
        assert done <= window.low_s <= (window.high_s or 0) <= window.shown_s
        assert call.off_points(window, window.low_s - 1) < 50
        assert not call.became(baked, done - 1).cooked


@pytest.mark.parametrize(("level", "seed"), CASES)
def test_what_is_seen_of_a_bread_only_grows(level: int, seed: int) -> None:
    """Its skin dulls, its faces brown and its pocket fills; its bubbles show all over when the model says they do."""
    one = call.call_case(Draw("call", level, seed))
    first = one.first_side()
    looks = call.film(one, first, 1e9)
    for name in ("dull", "brown", "char", "brown_below", "char_below"):
        seen = [getattr(x, name) for x in looks]
        assert all(b >= a - 1e-9 for a, b in pairwise(seen))
    at = first.events["bubbles"]
    if at is not None:
        assert next(x for x in looks if x.s >= at).bubbles >= 0.9
        assert [x for x in looks if x.s < at - 2][-1].bubbles < 1.0


@pytest.mark.parametrize(("level", "seed"), CASES)
def test_a_dough_is_in_the_state_it_is_drawn_in(level: int, seed: int) -> None:
    dough = read.read_case(Draw("read", level, seed))
    ripe = float(np.interp(dough.h, dough.run.course.h, dough.run.maturity))
    low, high = read.MATURITY[read.STATES.index(dough.state)]
    assert low - 0.02 <= ripe <= high + 0.02
    glass = float(np.interp(dough.h, dough.run.course.h, dough.run.ratio))
    assert (dough.look.level > glass + 0.01) == (dough.misleads == "domed")
    assert dough.misleads is None or level >= read.MISLEADS_FROM


@pytest.mark.parametrize(("level", "seed"), CASES)
def test_a_fault_is_seen_and_its_cause_is_there_to_be_named(level: int, seed: int) -> None:
    failed = fault.fault_case(Draw("fault", level, seed))
    assert failed.cause in failed.options
    assert len(failed.options) == fault.OPTIONS[level - 1]
    assert all(fault.chance(f, failed.facts) >= fault.SEEN_FROM for f in failed.faults)
    if failed.judged.verdict == fault.UNKNOWN:
        assert max(fault.points(failed, name) for name in failed.options) <= 100 * fault.GUESSED


@given(level=st.sampled_from(LEVELS), seed=st.integers(0, 40), picks=st.lists(st.integers(0, 9), max_size=50))
def test_any_order_of_moves_is_timed_as_a_line_can_be(level: int, seed: int, picks: list[int]) -> None:
    """No two moves of one pair of hands at once, no bread on a spot that is taken, no gap too short; what is too long
    is told."""
    line = hands.hands_case(Draw("hands", level, seed))
    order: list[hands.Move] = []
    for n in range(line.kit.breads * len(line.moves)):
        count = [sum(m.name == name for m in order) for name in line.moves]
        on = count[1] - count[3]
        able = [
            name
            for k, name in enumerate(line.moves)
            if count[k] < (count[k - 1] if k else line.kit.breads) and (name != "load" or on < line.kit.spots)
        ]
        pick = picks[n % len(picks)] if picks else 0
        order.append(hands.Move(able[pick % len(able)], 1 + pick % line.kit.cooks))
    done = hands.planned(line, order)
    assert done.whole
    wrong = check_line(line.spec, done.tasks)
    assert list(done.broken) == wrong
    assert all(w.startswith("round") and " s between" in w for w in wrong)
    assert hands.points(line, done) <= 100


def test_a_move_that_cannot_come_is_refused_in_words() -> None:
    line = hands.hands_case(Draw("hands", 1, 1))
    for order, words in (
        ([hands.Move("load")], "no bread has had"),
        ([hands.Move("wave")], "is no move here"),
        ([hands.Move("roll", 2)], "pairs of hands"),
        ([hands.Move("roll")] * (line.kit.breads + 1), "every bread is rolled"),
        ([hands.Move("roll"), hands.Move("roll"), hands.Move("load"), hands.Move("load")], "before a spot is free"),
    ):
        with pytest.raises(InvalidInput, match=words):
            hands.planned(line, order)


def test_a_level_needs_a_run_of_its_own() -> None:
    assert level_after([100] * 25) == 5
    assert level_after([74] * 60) == 1
    assert level_after([100] * 5 + [39] * 5) == 1
    assert level_after([100] * 5 + [39, 39, 39, 39, 100]) == 2
    assert level_after([0] * 20) == 1
    assert set(KINDS) == {"call", "read", "fault", "hands"}
