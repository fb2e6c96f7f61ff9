"""Self-raising flour for plain flour and powder, and the other way: as much soda, the gas of both compared."""

from __future__ import annotations

from dataclasses import dataclass

from brassclock.core.matter.dough import Dough, Portion, dough_of
from brassclock.core.matter.ingredients import table
from brassclock.core.weigh.soda import parts_of, soda_balance

SELF, PLAIN, POWDER = "self_raising", "plain_flour", "baking_powder"
LEAST_G = 1.0


@dataclass(frozen=True)
class FlourSwap:
    """Grams of each ingredient after the swap (0: none of it any more), in words; gas of the dough before and then
    [mL per 100 g flour]."""

    text: str
    grams: tuple[tuple[str, float], ...]
    gas_ml: float
    gas_then_ml: float


def flour_swaps(dough: Dough, powder: str = "double") -> tuple[FlourSwap, ...]:
    """The swaps that a dough allows: its self-raising flour taken apart, its plain flour and powder put together.

    The soda stays the same; what powder is over or short of flour is named.

    >>> from brassclock.core.matter.dough import dough_of_masses
    >>> flour_swaps(dough_of_masses([("self_raising", 300.0), ("water", 180.0)]))[0].text
    '300 g self-raising flour is 292 g plain flour and 13 g baking powder'
    """
    rows = table()
    soda_of_self = dict(parts_of(rows[SELF]))["baking_soda"]
    soda_of_powder = dict(parts_of(rows[POWDER], powder))["baking_soda"]
    flour_of_self = rows[SELF].flour_frac
    have = {i: dough.mass_of(i) for i in (SELF, PLAIN, POWDER)}
    found = []
    if have[SELF] >= LEAST_G:
        plain, lift = have[SELF] * flour_of_self, have[SELF] * soda_of_self / soda_of_powder
        text = f"{have[SELF]:.0f} g self-raising flour is {plain:.0f} g plain flour and {lift:.0f} g baking powder"
        found.append(_swap(dough, text, {SELF: 0.0, PLAIN: have[PLAIN] + plain, POWDER: have[POWDER] + lift}, powder))
    if have[PLAIN] >= LEAST_G and have[POWDER] >= LEAST_G:
        wanted = have[POWDER] * soda_of_powder / soda_of_self
        made = min(wanted, have[PLAIN] / flour_of_self)
        plain, lift = have[PLAIN] - made * flour_of_self, have[POWDER] - made * soda_of_self / soda_of_powder
        over = [
            f"{g:.0f} g {name}" for g, name in ((plain, "plain flour"), (lift, "baking powder")) if g >= LEAST_G / 2
        ]
        text = (
            f"{have[PLAIN]:.0f} g plain flour and {have[POWDER]:.0f} g baking powder is {made:.0f} g self-raising flour"
        )
        grams = {SELF: have[SELF] + made, PLAIN: plain, POWDER: lift}
        found.append(_swap(dough, " and ".join([text, *over]), grams, powder))
    return tuple(found)


def _swap(dough: Dough, text: str, grams: dict[str, float], powder: str) -> FlourSwap:
    kept = {i: g if g >= LEAST_G / 2 else 0.0 for i, g in grams.items()}
    rows = table()
    others = [p for p in dough.portions if p.ingredient.id not in kept]
    then = dough_of([*others, *(Portion(rows[i], g) for i, g in kept.items() if g)])
    gas = [b.gas_ml_per_100g_flour if (b := soda_balance(d, powder)) else 0.0 for d in (dough, then)]
    return FlourSwap(text, tuple(kept.items()), *gas)
