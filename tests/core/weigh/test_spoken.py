"""Lists as they are spoken: lines of our own with their meaning; any text; amounts that scale; times of day."""

from __future__ import annotations

import datetime as dt
import tomllib
from itertools import product
from pathlib import Path
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from brassclock.core.matter.ingredients import table
from brassclock.core.moments import parse_moment
from brassclock.core.spoken import figures
from brassclock.core.units import parse_amount
from brassclock.core.weigh.entry import read_entry, read_line

CASES = tomllib.loads((Path(__file__).parents[2] / "worked/spoken.toml").read_text("utf-8"))
NOW = dt.datetime(2026, 11, 29, 10, 0, tzinfo=dt.UTC)  # a Sunday


def verdict(text: str, ingredient: str, amount: str, purpose: str) -> str:
    """`right`, `unread` (it says that it is not), or `wrong` without a word."""
    got = read_line(text, table())
    if not ingredient:
        return "right" if got.faults else "wrong"
    if got.faults:
        return "unread"
    if got.ingredient != ingredient or got.purpose != purpose or (got.amount is None) != (amount == ""):
        return "wrong"
    if got.amount is None:
        return "right"
    read, meant = parse_amount(got.amount), parse_amount(amount)
    same = (read.low, read.high) == pytest.approx((meant.low, meant.high), abs=1e-3)
    return "right" if same and read.unit == meant.unit else "wrong"


@pytest.mark.parametrize("half", ["before", "after"])
def test_lines_as_they_are_spoken(half: str) -> None:
    """Of 75 lines written before the grammar, of 75 beside it: 95 % right, at most 5 % unread, none silently wrong."""
    found = [verdict(*case) for case in CASES[half]]
    assert len(found) == 75
    assert found.count("right") >= 0.95 * len(found)
    assert found.count("unread") <= 0.05 * len(found)
    assert [c[0] for c, v in zip(CASES[half], found, strict=True) if v == "wrong"] == []


@pytest.mark.parametrize("line", CASES["later"], ids=lambda x: str(x[0]))
def test_lines_as_a_newcomer_pastes_them(line: list[str]) -> None:
    """Found by trying lists of our own: each was read wrongly or not at all before."""
    assert verdict(line[0], line[1], line[2], line[3]) == "right"


@pytest.mark.parametrize("case", CASES["shares"], ids=lambda x: x["lines"][1])
def test_shares_of_the_flour(case: dict[str, list[Any]]) -> None:
    """A share is put into grams by the flour that is weighed, and says so; without one it says what is missing."""
    found = read_entry("\n".join(case["lines"]), table())
    if not case["grams"]:
        assert all(x.amount is None and x.faults for x in found if "%" in x.raw)
        return
    assert [parse_amount(x.amount or "").mid for x in found] == pytest.approx(case["grams"])
    assert all("flour" in x.note for x in found if "%" in x.raw) and not any(x.faults for x in found)


def test_several_things_on_a_line_are_a_line_each() -> None:
    found = read_entry("flour: 500 g, water 300 g; salt 10 g\n2 cups, about 250 g, plain flour, sifted\n", table())
    assert [(x.ingredient, x.amount) for x in found] == [
        ("plain_flour", "500 g"),
        ("water", "300 g"),
        ("salt_fine", "10 g"),
        ("plain_flour", "250 g"),
    ]
    of_two = read_entry("2 tsp sugar or honey", table())[0]
    assert of_two.ingredient == "sugar" and "Of the two" in of_two.note


WHOLE = st.integers(1, 99)
PARTS = st.sampled_from([("and a half", 0.5), ("and a quarter", 0.25), ("and three quarters", 0.75), ("", 0.0)])


@given(WHOLE, PARTS, st.sampled_from(["cups", "teaspoons", "g"]))
def test_a_spoken_number_is_its_figure(whole: int, part: tuple[str, float], unit: str) -> None:
    said = figures(f"{whole} {part[0]} {unit}".replace("  ", " "))
    assert parse_amount(said).mid == pytest.approx(whole + part[1])


@given(st.lists(st.text(max_size=60).map(lambda t: " ".join(t.split())), max_size=8))
def test_any_list_comes_back_line_by_line(lines: list[str]) -> None:
    kept = [line for line in "\n".join(lines).splitlines() if line.strip() and not line.strip().endswith(":")]
    got = read_entry("\n".join(lines), table())
    assert [g.raw for g in got] == [line.strip()[:200] for line in kept]
    assert all(g.faults or g.ingredient for g in got)


@given(st.integers(1, 40))
def test_a_measure_in_figures_scales_with_its_number(count: int) -> None:
    one, many = (parse_amount(read_line(f"{n} tbsp olive oil", table()).amount or "") for n in (1, count))
    assert many.size()[1] == pytest.approx(count * one.size()[1])


@pytest.mark.parametrize(
    ("text", "hour"),
    [
        ("tonight", "29 19:00"),
        ("tomorrow morning", "30 09:00"),
        ("at noon", "29 12:00"),
        ("half past seven", "30 07:30"),
        ("a quarter to eight pm", "29 19:45"),
        ("in an hour and a half", "29 11:30"),
        ("in half an hour", "29 10:30"),
        ("tomorrow evening", "30 19:00"),
        ("friday evening", "04 19:00"),
        ("this afternoon", "29 15:00"),
    ],
)
def test_times_as_they_are_spoken(text: str, hour: str) -> None:
    assert f"{parse_moment(text, NOW):%d %H:%M}" == hour


NEAR = ["", "about ", "approx. ", "around ", "a scant ", "a generous ", "just over ", "nearly ", "~", "ca. ", "up to "]
FIGURES = {
    "1": 1, "2": 2, "1.5": 1.5, "1,5": 1.5, "1 1/2": 1.5, "1-1/2": 1.5, "1½": 1.5, "½": 0.5, "1/2": 0.5, "3/4": 0.75,
    "one and a half": 1.5, "1 & 1/2": 1.5, "1-2": 1.5, "1 to 2": 1.5, "1–2": 1.5, "1 1⁄2": 1.5, ".5": 0.5,
    "2 1/4": 2.25,
}  # fmt: skip
ORDERS = ["{near}{figure} {unit} {what}", "{near}{figure} {unit} of {what}", "{what} {near}{figure} {unit}",
          "{what}: {near}{figure} {unit}", "{what}, {near}{figure} {unit}"]  # fmt: skip


@pytest.mark.parametrize("order", ORDERS)
def test_an_amount_is_read_whole_or_not_at_all(order: str) -> None:
    """Every way to say how near, how much and in which order: about 1 1/3 cups are never a third of one."""
    wrong = []
    for near, (figure, value), unit in product(NEAR, FIGURES.items(), ("cup", "tbsp", "g")):
        line = order.format(near=near, figure=figure, unit=unit, what="flour")
        read = read_line(line, table())
        if read.amount is not None and not read.faults and parse_amount(read.amount).mid != pytest.approx(value):
            wrong.append((line, read.amount))
    assert wrong == []


AMOUNTS = ["500 g", "1 1/2 cups", "2-3 tbsp", "1 cup plus 2 tbsp", "0,5 l", "1 lb 2 oz", "a pinch", "2 cups (260 g)"]
BEHIND = [
    "",
    ", sifted",
    " (warm)",
    ", at room temperature",
    " or so",
    ", plus 2 tbsp for dusting",
    " & more for dusting",
]


def test_an_amount_behind_its_name_is_the_same() -> None:
    rows = table()
    for what, amount, more in product(("flour", "olive oil", "natural yoghurt"), AMOUNTS, BEHIND):
        first = read_line(f"{amount} {what}{more}", rows)
        assert first.read and first.purpose == "", first
        for behind in (f"{what} {amount}{more}", f"{what}: {amount}{more}", f"{what} - {amount}{more}"):
            read = read_line(behind, rows)
            assert (read.ingredient, read.purpose, read.faults) == (first.ingredient, "", ()), behind
            assert parse_amount(str(read.amount)).mid == parse_amount(str(first.amount)).mid, behind
