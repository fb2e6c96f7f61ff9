"""Weigh, Mix and the day: what cooks type, worked by hand, and properties that must always hold."""

from __future__ import annotations

import contextlib
import datetime as dt
import math
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.day.kitchen_air import air_path
from brassclock.core.day.plan import plan_back
from brassclock.core.day.spec import BakeSpec, StageSpec
from brassclock.core.errors import InvalidInput
from brassclock.core.keep.learning import activity_seen, of_kitchen, of_next_batch
from brassclock.core.keep.ledger import Lesson, fold
from brassclock.core.matter.dough import dough_of_masses
from brassclock.core.matter.ingredients import table
from brassclock.core.mix.heat import Bowl, Kneading, Part, bare_mixed_temp_c, mix_heat
from brassclock.core.moments import parse_moment
from brassclock.core.rise.belief import Belief
from brassclock.core.rise.dough_heat import Vessel
from brassclock.core.rise.recipe import Batch
from brassclock.core.rise.stages import Stage
from brassclock.core.units import Unreadable, parse_amount, parse_temp_c
from brassclock.core.weigh.formula import PieceWish, weigh
from brassclock.core.weigh.geometry import Shape
from brassclock.core.weigh.lines import TypedLine
from brassclock.core.weigh.methods import methods
from brassclock.core.weigh.scaling import Scaling

ROWS = table()
PITA = methods()["hatch-pita"].lines


@pytest.mark.parametrize(
    ("text", "low", "high", "unit"),
    [
        ("2 1/4 tsp", 2.25, 2.25, "tsp"),
        ("1½ cups", 1.5, 1.5, "cup"),
        ("450 g", 450, 450, "g"),
        ("1-2 tbsp", 1, 2, "tbsp"),
        ("0,5 l", 0.5, 0.5, "l"),
        ("2", 2, 2, "piece"),
        ("1/2 lb", 0.5, 0.5, "lb"),
        ("3 fl. oz", 3, 3, "fl oz"),
    ],
)
def test_amounts_as_cooks_type_them(text: str, low: float, high: float, unit: str) -> None:
    amount = parse_amount(text)
    assert (amount.low, amount.high, amount.unit) == (pytest.approx(low), pytest.approx(high), unit)


@given(st.text(max_size=120))
def test_no_text_ever_crashes_a_reader(text: str) -> None:
    """Any text is read or refused with words that quote it; never anything else."""
    now = dt.datetime(2026, 11, 24, 20, 14, tzinfo=ZoneInfo("Europe/Zurich"))
    for read in (parse_amount, parse_temp_c, lambda t: parse_moment(t, now)):
        with contextlib.suppress(Unreadable):
            read(text)


def test_moments_are_the_next_such_time_in_the_kitchens_zone() -> None:
    zone = ZoneInfo("Europe/Zurich")
    now = dt.datetime(2026, 11, 24, 20, 14, tzinfo=zone)  # a Tuesday
    for text, wanted in {
        "01:30": dt.datetime(2026, 11, 25, 1, 30),
        "in 5 h": dt.datetime(2026, 11, 25, 1, 14),
        "Friday 7 pm": dt.datetime(2026, 11, 27, 19),
        "tomorrow 12:30": dt.datetime(2026, 11, 25, 12, 30),
        "20 min ago": dt.datetime(2026, 11, 24, 19, 54),
        "7.30 am": dt.datetime(2026, 11, 25, 7, 30),
        "2026-11-24T21:00:00Z": dt.datetime(2026, 11, 24, 22),
    }.items():
        assert parse_moment(text, now) == wanted.replace(tzinfo=zone), text
    autumn = dt.datetime(2026, 10, 25, 1, 0, tzinfo=zone)  # the night the clocks go back
    assert (parse_moment("in 5 h", autumn) - autumn.astimezone(dt.UTC)) == dt.timedelta(hours=5)
    assert air_path([15.0] * 24, autumn, 5)[-1][0] == 5


def test_the_pita_sheet_by_hand() -> None:
    """By hand: 320 + 137 flour, 284 water: 62 %; 8 x 95 g from 776 g; 95 g at 18 cm and 1.10 g/mL is 3.4 mm."""
    sheet = weigh(PITA, PieceWish(8, 95), Shape(diameter_cm=18, thickness_mm=6))
    assert sheet.dough.hydration_frac == pytest.approx(284 / 457, abs=0.001)
    assert sum(x.baker_frac or 0 for x in sheet.lines if x.ingredient.flour_frac) == pytest.approx(1)
    assert sheet.sheet is not None
    assert sheet.sheet.thickness_mm == pytest.approx(3.39, abs=0.01)
    assert [c for c, _ in sheet.contradictions] == ["thickness"]
    assert "3.4 mm, not 6 mm" in sheet.contradictions[0][1]
    assert sheet.dough.allergens == ("gluten",)
    many = weigh(PITA, PieceWish(20, 95))
    assert "20 pieces of 95 g: 1900 g" in many.contradictions[0][1]


def test_what_was_probably_meant_otherwise_is_asked() -> None:
    """By hand: 1000 g of flour, 620 of water, 18 of salt: 1638 g less 2 % is 1605 g, so 6 of 250 and 105 over, or 7 of
    229."""
    dough = [TypedLine("plain_flour", "1000 g"), TypedLine("water", "620 g"), TypedLine("salt_fine", "18 g")]
    weight = weigh(dough, PieceWish(None, 250))
    assert weight.contradictions == (("left_over", "6 of 250 g and 105 g over, or 7 of 229 g."),)
    salty = weigh([*dough, TypedLine("salt_fine", "82 g"), TypedLine("yeast_instant", "250 g")])
    assert [c for c, _ in salty.contradictions] == ["much_salt_fine", "much_yeast_instant"]
    assert "10% of the flour" in salty.contradictions[0][1] and "25% of" in salty.contradictions[1][1]
    spoons = [TypedLine("potato_mash", "2 tbsp")]
    filled = weigh(dough, PieceWish(8, None), filling=spoons, filling_g=40)
    assert filled.filling and filled.filling.total_g == pytest.approx(320)
    assert [c for c, _ in filled.contradictions] == ["filling_scaled"] and "each: 320 g" in filled.contradictions[0][1]
    assert not weigh(
        dough, PieceWish(8, None), filling=[TypedLine("potato_mash", "320 g")], filling_g=40
    ).contradictions


def test_water_hides_in_dairy_and_cups_have_a_basis() -> None:
    """By hand: 250 g flour with 250 g whole yoghurt is 88 % water, not 100 %; a dipped cup outweighs a spooned one."""
    dough = dough_of_masses([("plain_flour", 250), ("yoghurt_whole", 250)])
    assert dough.hydration_frac == pytest.approx(0.879, abs=0.002)
    cups = [weigh([TypedLine("plain_flour", "2 cups", b)]).lines[0] for b in ("spooned", None, "dipped", 140)]
    masses = [line.mass_g for line in cups]
    assert masses[0] < masses[1] < masses[2]
    assert masses[3] == pytest.approx(280)
    assert cups[1].low_g < cups[1].mass_g < cups[1].high_g
    packet = weigh([TypedLine("yeast_instant", "1 packet")]).lines[0]
    assert packet.mass_g == pytest.approx(weigh([TypedLine("yeast_instant", "2 1/4 tsp")]).lines[0].mass_g, abs=0.1)


@given(factor=st.floats(0.05, 30))
def test_scaling_is_linear(factor: float) -> None:
    base = weigh(PITA)
    scaled = weigh(PITA, scaling=Scaling(flour_g=457 * factor))
    for a, b in zip(base.lines, scaled.lines, strict=True):
        assert b.mass_g == pytest.approx(a.mass_g * factor, rel=1e-9)
        assert b.baker_frac == pytest.approx(a.baker_frac, rel=1e-9)
    assert scaled.dough.hydration_frac == pytest.approx(base.dough.hydration_frac, rel=1e-9)


def test_every_fault_of_a_formula_is_told_at_once() -> None:
    with pytest.raises(InvalidInput) as told:
        weigh([TypedLine("plan flour", "1 bucket"), TypedLine("water", "-3 g"), TypedLine("egg_whole", "2 packets")])
    faults = {f.pointer: f.detail for f in told.value.faults}
    assert set(faults) == {"/lines/0/ingredient", "/lines/0/amount", "/lines/1/amount", "/lines/2/amount"}
    assert "plain_flour" in faults["/lines/0/ingredient"]
    with pytest.raises(InvalidInput) as told:
        weigh(PITA, PieceWish(0, 1e9), Shape(diameter_cm=float("nan"), thickness_mm=0))
    assert len(told.value.faults) == 4


def parts(water_c: float = 20.0, flour_c: float = 22.0) -> list[Part]:
    return [
        Part(ROWS["bread_flour"], 500, flour_c),
        Part(ROWS["water"], 325, water_c),
        Part(ROWS["salt_fine"], 10, flour_c),
        Part(ROWS["yeast_instant"], 5, flour_c),
    ]


def test_bowl_heat_by_hand() -> None:
    """By hand: 232 g milk at 50 C on 150 g yoghurt at 5 C is 32.3 C bare; ice 46.5 g stands for 325 g from 25 to 10
    C."""
    bare = bare_mixed_temp_c([Part(ROWS["whole_milk"], 232, 50), Part(ROWS["yoghurt_whole"], 150, 5)])
    assert bare == pytest.approx(32.4, abs=0.2)
    heat = mix_heat(parts(), None, Kneading("none", 0, 22), "water", 26)
    exact = 26 - (15.1 * 500 + (500 * 1.85 + 10 * 0.88 + 5 * 1.95) * (22 - 26)) / (325 * 4.18)
    assert heat.liquid_temp_c == pytest.approx(exact, abs=0.05)
    simple = mix_heat(parts(), None, Kneading("hand", 8, 22), "water", 26)
    assert simple.rule_liquid_c == pytest.approx(31)
    assert simple.rule_factor_c == pytest.approx(3 * 26 - 44 - simple.wanted_liquid_c, abs=1e-6)  # type: ignore[operator]


@given(st.floats(8, 34), st.sampled_from(["hand", "planetary", "no_knead"]), st.floats(0, 15), st.floats(22, 30))
def test_the_liquid_found_lands_the_dough(room: float, method: str, minutes: float, target: float) -> None:
    knead, bowl = Kneading(method, minutes, room), Bowl(500, "steel", room)
    found = mix_heat(parts(flour_c=room), bowl, knead, "water", target)
    if found.liquid_temp_c is not None:
        assert 0 < found.liquid_temp_c <= found.limit_c
        landed = mix_heat(parts(found.liquid_temp_c, room), bowl, knead)
        assert landed.dough_temp_c == pytest.approx(target, abs=1e-6)
    else:
        assert found.advice
        assert found.ice_g > 0 or found.cautions[0].code == "yeast_limit"
    assert sum(j for _, j in found.contributions) == pytest.approx(0, abs=1e-6)


def spec(**changes: object) -> BakeSpec:
    dough = weigh(PITA).dough
    bulk = StageSpec(Stage("bulk", 2, ((0, 0),), Vessel("tub", 770, True, 20), "ball", 1.9))
    ball = StageSpec(Stage("ball proof", 1, ((0, 0),), Vessel("tray", 95, True), None, 1.4))
    return BakeSpec(Batch(dough, "kneaded", 26.0), bulk, ball, **changes)  # type: ignore[arg-type]


def test_the_day_runs_backward_from_the_table() -> None:
    zone = ZoneInfo("Europe/Zurich")
    now = dt.datetime(2026, 11, 24, 18, 0, tzinfo=zone)
    serve = dt.datetime(2026, 11, 25, 1, 30, tzinfo=zone)
    plan = plan_back(spec(), [20.0] * 24, serve, now, {})
    keys = [s.key for s in plan.steps]
    assert keys.index("weigh") < keys.index("mix") < keys.index("ball") < keys.index("roll") < keys.index("line")
    assert plan.late_min == 0
    assert plan.step("line").at == serve - dt.timedelta(minutes=15)
    cool = plan_back(spec(), [15.0] * 24, serve, now, {})
    assert cool.step("mix").at < plan.step("mix").at
    late = plan_back(spec(), [20.0] * 24, now + dt.timedelta(hours=1), now, {})
    assert late.late_min > 60
    mixed = plan.mixed_at + dt.timedelta(minutes=10)
    live = plan_back(spec(), [20.0] * 24, serve, mixed, {"mix": mixed})
    assert live.step("mix").done_at == mixed
    assert live.step("ball").at > mixed


def test_a_kept_bake_teaches_the_kitchen_a_little() -> None:
    """Four slow batches (z −.35, −.15, −.40, −.25, noise .13) leave μ near −.25 and spread near .23 (regression)."""
    belief, lessons = Belief(), []
    for z in (-0.35, -0.15, -0.40, -0.25):
        prior, noise = belief.sd_log**2, 0.13**2
        gain = prior / (prior + noise)
        mean = math.log(belief.mean) + gain * (z - math.log(belief.mean))
        seen = activity_seen(belief, Belief(math.exp(mean), math.sqrt(prior * (1 - gain))))
        assert math.log(seen.mean) == pytest.approx(z)
        lessons.append(Lesson("activity:yeast_instant", seen.mean, seen.sd, f"2026-11-{len(lessons) + 1:02}"))
        found = fold(lessons, {"activity:yeast_instant": of_kitchen(Belief())})
        belief = of_next_batch(found.beliefs["activity:yeast_instant"])
    assert math.log(belief.mean) == pytest.approx(-0.25, abs=0.02)
    assert belief.sd_log == pytest.approx(0.23, abs=0.01)
